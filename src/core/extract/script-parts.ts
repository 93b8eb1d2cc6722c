import type { Program } from "oxc-parser";
import { parseScript } from "../source/readers/script/parse.js";
import { rawElements } from "../source/readers/markup/raw-elements.js";
import { dialectByName } from "../source/dialects/index.js";
import { isScript } from "../source/readers/script/endings.js";
import type { SourceFile } from "../source/model.js";
import { literally } from "../text/key-pattern.js";
import { lazily } from "../text/lazy.js";
import type { Span } from "../text/span.js";

/** A script that lookups are written into: a whole file, or what stands in a script element of a component. */
export interface ScriptPart {
  readonly file: string;
  /** The file's text with all that is not in the script blanked, so that places are those of the file. */
  readonly text: string;
  /** What the component that it is of has besides its scripts; undefined for a file of script. */
  readonly template?: string;
  readonly program: Program;
  readonly span: Span;
  /** Whether its top level runs anew for each component that is shown, so that a locale is chosen by then. */
  readonly runsPerUse: boolean;
  readonly isWhole: boolean;
  /** Statements at its top level that run when the file is loaded all the same, by what they call. */
  readonly hoisted?: RegExp;
  /** A sign before a name that takes what is in the variable of the name without it. */
  readonly storeSign?: string;
  /** Whether the file starts with a byte order mark. */
  readonly bom?: boolean;
}

/** A call of a function, or of a method by its object's name and its own, in any code. */
export function callOf(asked: string): RegExp {
  return new RegExp(`(?<![\\w$.])${literally(asked)}\\(`);
}

/** Finds the scripts of a book, and of its components, in which a name stands, the file of the name itself aside. */
export type ScriptsNaming = (name: string, file: string) => readonly ScriptPart[];

/** Looks names up in files of code, which are read when the first name is asked for. */
export function scriptsNaming(
  files: () => readonly { readonly file: string; readonly text: string; readonly bom?: boolean }[],
): ScriptsNaming {
  const all = lazily(() => files().filter(({ file }) => isScript(file) || dialectByName(file)?.isComponent));
  const known = new Map<string, readonly ScriptPart[]>();
  const partsOf = ({
    file,
    text,
    bom = false,
  }: {
    readonly file: string;
    readonly text: string;
    readonly bom?: boolean;
  }) => {
    const parts =
      known.get(file) ??
      (isScript(file)
        ? [{ ...wholeScript({ file, text }), bom }]
        : withTemplate(file, text, componentScripts({ file, text, dialect: dialectByName(file) })));
    known.set(file, parts);
    return parts;
  };
  return (name, own) => {
    const word = new RegExp(`(?<![\\w$])${literally(name)}(?![\\w$])`);
    return all()
      .filter(({ file, text }) => file !== own && word.test(text))
      .flatMap(partsOf);
  };
}

/** The scripts of a component; an empty one for a component that is a template alone. */
function withTemplate(file: string, text: string, scripts: readonly ScriptPart[]): readonly ScriptPart[] {
  if (scripts.length > 0) return scripts;
  const { program } = parseScript(`${file}.js`, "");
  const span = { start: text.length, end: text.length };
  return [{ file, text: "", template: text, program, span, runsPerUse: false, isWhole: false }];
}

/** A file of script as one part. */
export function wholeScript({ file, text }: Pick<SourceFile, "file" | "text">): ScriptPart {
  const { program } = parseScript(file, text);
  return { file, text, program, span: { start: 0, end: text.length }, runsPerUse: false, isWhole: true };
}

/** The scripts of a component in one file, those that parse; none for other templates, whose scripts know no lookups. */
export function componentScripts({
  file,
  text,
  dialect,
}: Pick<SourceFile, "file" | "text" | "dialect">): readonly ScriptPart[] {
  if (!dialect?.isComponent) return [];
  const scripts = [...rawElements(text)].filter(({ name }) => name === "script");
  let template = "";
  let at = 0;
  for (const { contentStart, contentEnd } of scripts) {
    template += text.slice(at, contentStart);
    at = contentEnd;
  }
  template += text.slice(at);
  return scripts.flatMap((element): ScriptPart[] => {
    const { attributes, contentStart: start, contentEnd: end } = element;
    const code = text.slice(start, end);
    const lang = /\blang\s*=\s*["']?(tsx?|jsx)\b/.exec(attributes)?.[1] ?? "js";
    const blank = (part: string) => part.replace(/[^\r\n]/g, " ");
    const masked = blank(text.slice(0, start)) + code + blank(text.slice(end));
    const { program, problems } = parseScript(`${file}.${lang}`, masked);
    if (problems.length > 0) return [];
    const runsPerUse = dialect.runsPerUse?.(attributes) ?? false;
    const { hoisted, storeSign } = dialect;
    const part = { file, text: masked, template, program, span: { start, end }, runsPerUse, isWhole: false };
    return [{ ...part, ...(hoisted && { hoisted }), ...(storeSign !== undefined && { storeSign }) }];
  });
}
