import type { Program } from "oxc-parser";
import { parseScript } from "../source/readers/script/script.js";
import { rawElements } from "../source/readers/markup/raw-elements.js";
import type { SourceFile } from "../source/model.js";
import type { Span } from "../text/span.js";

/** A script that lookups are written into: a whole file, or what stands in a script element of a component. */
export interface ScriptPart {
  readonly file: string;
  /** The file's text with all that is not in the script blanked, so that places are those of the file. */
  readonly text: string;
  readonly program: Program;
  readonly span: Span;
  /** Whether its top level runs anew for each component that is shown, so that a locale is chosen by then. */
  readonly runsPerUse: boolean;
  readonly isWhole: boolean;
}

/** A file of script as one part. */
export function wholeScript({ file, text }: SourceFile): ScriptPart {
  const { program } = parseScript(file, text);
  return { file, text, program, span: { start: 0, end: text.length }, runsPerUse: false, isWhole: true };
}

/** The scripts of a component in one file, those that parse; none for other templates, whose scripts know no lookups. */
export function componentScripts({ file, text, dialect }: SourceFile): readonly ScriptPart[] {
  if (!dialect?.isComponent) return [];
  return [...rawElements(text)].flatMap((element): ScriptPart[] => {
    if (element.name !== "script") return [];
    const { attributes, contentStart: start, contentEnd: end } = element;
    const code = text.slice(start, end);
    const lang = /\blang\s*=\s*["']?(tsx?|jsx)\b/.exec(attributes)?.[1] ?? "js";
    const blank = (part: string) => part.replace(/[^\r\n]/g, " ");
    const masked = blank(text.slice(0, start)) + code + blank(text.slice(end));
    const { program, problems } = parseScript(`${file}.${lang}`, masked);
    if (problems.length > 0) return [];
    const runsPerUse = dialect.runsPerUse?.(attributes) ?? false;
    return [{ file, text: masked, program, span: { start, end }, runsPerUse, isWhole: false }];
  });
}
