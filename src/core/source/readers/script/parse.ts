import { parseSync, type Comment, type Program } from "oxc-parser";
import { notices } from "../../../message/notices.js";
import type { Notice } from "../../../text/wording.js";
import type { SourceProblem } from "../../model.js";
import { nestsTooDeep } from "./depth.js";

interface ParsedScript {
  readonly program: Program;
  /** Its comments, which take their time to be handed over. */
  comments(): readonly Comment[];
  readonly problems: readonly SourceProblem[];
}

/** What was parsed last: rewriting asks for the tree of the text that was just read. */
let parsed: { readonly file: string; readonly text: string; readonly result: ParsedScript } | undefined;

/** Parses a script for this reader and for rewriting; positions are UTF-16 code units. */
export function parseScript(file: string, text: string): ParsedScript {
  if (parsed?.file === file && parsed.text === text) return parsed.result;
  const result = parseAnew(file, text);
  parsed = { file, text, result };
  return result;
}

const say = notices("source", {
  "too-deep-to-parse": {
    message: "the code is nested too deeply to parse",
    remedy: 'fix it, or exclude the file with the book\'s "ignore"',
  },
  backslashes: {
    message: "the code has hundreds of backslashes in a row",
    remedy: 'fix it, or exclude the file with the book\'s "ignore"',
  },
  unparsed: {
    message: "the code does not parse",
    remedy: 'fix it, or exclude the file with the book\'s "ignore"',
  },
  syntax: {
    message: "{detail}",
    remedy: "fix the code here; what could be read of the file is still checked",
  },
  "syntax-help": { message: "{detail}", remedy: "{help}" },
});

function lowerFirst(text: string): string {
  return text.charAt(0).toLowerCase() + text.slice(1);
}

/** A script of which nothing could be parsed. */
function unparsed(file: string, notice: Notice): ParsedScript {
  return {
    program: parseSync(file, "").program,
    comments: () => [],
    problems: [{ ...notice, span: { start: 0, end: 0 } }],
  };
}

/** Parses a script that nobody asks for again. */
export function parseAnew(file: string, text: string): ParsedScript {
  const lang = /\.d\.[mc]?ts$/.test(file)
    ? "dts"
    : file.endsWith(".tsx")
      ? "tsx"
      : /\.[mc]?ts$/.test(file)
        ? "ts"
        : "jsx";
  if (nestsTooDeep(text)) return unparsed(file, say("too-deep-to-parse", {}));
  // The parser words each wrong escape with its whole line: 20 KB of them take half a gigabyte.
  if (/\\{200}/.test(text)) return unparsed(file, say("backslashes", {}));
  const parse = (sourceType: "unambiguous" | "commonjs") =>
    parseSync(file, text, {
      lang,
      sourceType,
      // Types hold no text, and without them the tree is a third smaller.
      astType: "js",
      preserveParens: false,
    });
  let result = parse("unambiguous");
  if (result.errors.length > 0) {
    // A module of Node runs inside a function, and may return from it.
    const inFunction = parse("commonjs");
    if (inFunction.errors.length === 0) result = inFunction;
  }
  let program: Program;
  try {
    ({ program } = result);
  } catch {
    // The parser hands its tree over as JSON, and for some broken code that is none.
    return unparsed(file, say("unparsed", {}));
  }
  const { errors } = result;
  const problems = errors
    .filter((error) => error.severity === "Error")
    .map((error): SourceProblem => {
      const label = error.labels[0];
      return {
        ...(error.helpMessage === null || error.helpMessage === undefined
          ? say("syntax", { detail: lowerFirst(error.message) })
          : say("syntax-help", { detail: lowerFirst(error.message), help: error.helpMessage })),
        span: { start: label?.start ?? 0, end: label?.end ?? 0 },
      };
    });
  return { program, comments: () => result.comments, problems };
}
