import { posix } from "node:path";
import type { SourceFile } from "../../source/model.js";
import { isScript } from "../../source/readers/script/endings.js";

/** A function that a file makes by a call: `const { t: say } = useTexts("search");`. */
export interface BoundCall {
  /** The function called. */
  readonly maker: string;
  /** The member of its result that is taken; undefined for the result itself. */
  readonly gives: string | undefined;
  /** Its first argument, where that is a string. */
  readonly first: string | undefined;
  readonly hasArguments: boolean;
  /** The statement, from `const` on. */
  readonly statement: string;
}

const declaration =
  /\b(?:const|let|var)\s+(\{[^{}=]{1,200}\}|\[\s*[\w$]+[^\]=]{0,80}\]|[\w$]+)\s*=\s*(?:await\s+)?([A-Za-z_$][\w$.]{0,80})\(([^()]{0,120})\)\s*(?:;|\n|$)/g;

/** The functions that a script makes itself, by the names that it gives them. */
export function boundNames({ file, text, dialect }: SourceFile): ReadonlyMap<string, BoundCall> {
  const bound = new Map<string, BoundCall>();
  if (!isScript(file) && !dialect?.isComponent) return bound;
  for (const [whole, target = "", maker = "", given = ""] of text.matchAll(declaration)) {
    if (maker === "require" || maker === "import") continue;
    const [, , first] = /^\s*(["'`])([^"'`$]*)\1\s*(?:,|$)/.exec(given) ?? [];
    const one = {
      maker,
      first,
      hasArguments: given.trim() !== "",
      statement: whole.trim().replace(/;?$/, ";"),
    };
    const add = (name: string, gives: string | undefined) => {
      if (!bound.has(name)) bound.set(name, { ...one, gives });
    };
    if (/^[\w$]+$/.test(target)) add(target, undefined);
    else if (target.startsWith("[")) add(/[\w$]+/.exec(target)?.[0] ?? "", undefined);
    else
      for (const part of target.slice(1, -1).split(",")) {
        const [, member, , name] = /^([\w$]+)\s{0,9}(:\s{0,9}([\w$]+))?$/.exec(part.trim()) ?? [];
        if (member !== undefined) add(name ?? member, member);
      }
  }
  return bound;
}

/** Where a script imports a name from, and the clause that imports it alone; undefined where it does not. */
function importOf(
  text: string,
  name: string,
): { readonly clause: string; readonly from: string } | undefined {
  const lines = /^[ \t]{0,40}import\s([^;'"]{1,2000}?)\sfrom\s{1,9}["']([^"'\n]{1,300})["']/gm;
  for (const [, clause = "", from = ""] of text.matchAll(lines)) {
    const [, whole] = /^(?:type\s{1,9})?([\w$]+)/.exec(clause.trimStart()) ?? [];
    const [, all] = /\*\s{1,9}as\s{1,9}([\w$]+)/.exec(clause) ?? [];
    if (all === name) return { clause: `* as ${name}`, from };
    if (whole === name && !clause.trimStart().startsWith("type ")) return { clause: name, from };
    const [, list = ""] = /\{([^{}]*)\}/.exec(clause) ?? [];
    for (const part of list.split(",")) {
      const [, member, own] = /^([\w$]+)(?:\s{1,9}as\s{1,9}([\w$]+))?$/.exec(part.trim()) ?? [];
      if ((own ?? member) === name) return { clause: `{ ${part.trim().replace(/\s+/g, " ")} }`, from };
    }
  }
  return undefined;
}

/** What takes a name in from a module (CommonJS), and the target of the declaration that does it alone. */
function requireOf(
  text: string,
  name: string,
): { readonly target: string; readonly from: string; readonly member: string } | undefined {
  const lines =
    /^[ \t]{0,40}(?:const|let|var)\s{1,9}(\{[^{}=]{1,300}\}|[\w$]{1,60})\s{0,9}=\s{0,9}require\(\s{0,9}["']([^"'\n]{1,300})["']\s{0,9}\)((?:\.[\w$]{1,60})?)[ \t]{0,9}[;\r\n]/gm;
  for (const [, target = "", from = "", member = ""] of text.matchAll(lines)) {
    if (target === name) return { target: name, from, member };
    if (member !== "" || !target.startsWith("{")) continue;
    for (const part of target.slice(1, -1).split(",")) {
      const [, given, own] = /^([\w$]+)(?:\s{0,9}:\s{0,9}([\w$]+))?$/.exec(part.trim()) ?? [];
      if ((own ?? given) === name) return { target: `{ ${part.trim()} }`, from, member };
    }
  }
  return undefined;
}

/** The line that brings a name into a script; a path in the project stands as `{to:…}`. */
export function importLine(file: string, text: string, name: string): string | undefined {
  const pathOf = (from: string) =>
    from.startsWith(".") ? `{to:${posix.normalize(posix.join(posix.dirname(file), from))}}` : from;
  const found = importOf(text, name);
  if (found) return `import ${found.clause} from "${pathOf(found.from)}";`;
  const required = requireOf(text, name);
  return required && `const ${required.target} = require("${pathOf(required.from)}")${required.member};`;
}
