import { posix } from "node:path";
import type { Literal, SourceFile } from "../../source/model.js";
import { keyName } from "../../source/bound-key.js";
import { variableOf } from "../../source/dialects/dialect.js";
import { languageOf, languages } from "../../source/languages/index.js";
import { isScript } from "../../source/readers/script/endings.js";
import { literally } from "../../text/key-pattern.js";
import { boundNames, importLine } from "./bound-names.js";
import type { LookupSample } from "./lookup-use.js";

/** What is written for texts with values, where it is something else. */
export interface WithValues {
  readonly call?: string;
  readonly content?: string;
  readonly attribute?: string;
}

/** How a lookup is written in one place: the expression, and what brings its function in. */
export interface WrittenLookup {
  readonly call: string;
  readonly withValues?: WithValues;
  readonly import?: string | readonly string[];
  readonly setup?: string;
}

/** A call with the key taken out: `say("{key}"{args})`; its other arguments stay where they come before the key. */
export function writtenAt(
  { source, literal, bound }: LookupSample,
  places: CodePlaces,
): WrittenLookup | undefined {
  const { text } = source;
  const before = text.slice(Math.max(literal.span.start - 200, 0), literal.span.start);
  const [, callee, given] =
    /(?<![\w$@])([$@]{0,2}[A-Za-z_][\w$]{0,60}(?:(?:\??\.|->|::)[A-Za-z_$][\w$]{0,60}){0,4})\(\s{0,9}((?:(?:[\w$.]{1,40}|"[\w./\\:-]{1,40}"|'[\w./\\:-]{1,40}')\s{0,9},\s{0,9}){0,3})$/.exec(
      before,
    ) ??
    /(?<![\w$.])([A-Za-z_]\w*)( )$/.exec(before) ??
    // A key in an object: say({ id: "cart.title" })
    /(?<![\w$])([A-Za-z_$][\w$]{0,60}(?:\.[A-Za-z_$][\w$]{0,60}){0,4})\(\s{0,99}(\{\s{0,99}[\w$]{1,40}\s{0,9}:\s{0,9})$/.exec(
      before,
    ) ??
    // A tag of a template: t`…`
    (text[literal.span.start] === "`" ? /(?<![\w$.])([A-Za-z_$][\w$]{0,60})()$/.exec(before) : null) ??
    [];
  if (callee === undefined || given === undefined) return undefined;
  const quote = quoteOf(literal, text);
  const isTag = text[literal.span.start] === "`" && before.endsWith(callee);
  const others =
    given.trim() === ""
      ? ""
      : given
          .split(",")
          .map((one) => one.trim())
          .join(", ");
  const property = /^\{\s*([\w$]+)/.exec(given)?.[1];
  const around = before.slice(0, before.length - callee.length - 1 - given.length);
  if (property === undefined && text[literal.span.end] === ")" && givenAsKey.test(around))
    return writtenAround(
      source,
      around,
      `${callee}(${quoteOf(literal, text)}{key}${quoteOf(literal, text)})`,
      callee,
    );
  const call =
    property !== undefined
      ? `${callee}({ ${property}: ${quote}{key}${quote} }{args})`
      : isTag
        ? `${callee}\`{key}\``
        : `${callee}(${others}${quote}{key}${quote}{args})`;
  const name = callee.split(/\??\.|->|::/, 1)[0] ?? callee;
  if (!/^[\w$]+$/.test(name) || name === "this") return { call };
  if (bound) {
    if (bound.hasArguments) return undefined;
    const line = importLine(source.file, text, bound.maker.split(".", 1)[0] ?? "");
    return { call, ...(line !== undefined && { import: line }), setup: bound.statement };
  }
  const line =
    isScript(source.file) || source.dialect?.isComponent === true
      ? importLine(source.file, text, variableOf(name, source.dialect))
      : otherImport(source, name, places);
  return { call, ...(line !== undefined && { import: line }) };
}

export function quoteOf({ span }: Literal, text: string): string {
  return text[span.start] === "'" ? "'" : '"';
}

/** What stands before a call that makes a key, and no text: the property of an object that asks for one. */
const givenAsKey = new RegExp(`(?<![\\w$])${keyName}\\s{0,9}(?::|=\\s{0,9}\\{)\\s{0,99}$`);

/** The lookup around a call that makes its key: `say({ id: keyOf("cart.title") })`; undefined where none is seen. */
function writtenAround(
  source: SourceFile,
  before: string,
  key: string,
  maker: string,
): WrittenLookup | undefined {
  const { file, text } = source;
  const [, callee, property] =
    /(?<![\w$.])([A-Za-z_$][\w$]{0,60})\(\s{0,99}\{\s{0,99}([\w$]{1,40})\s{0,9}:\s{0,99}$/.exec(before) ?? [];
  if (callee === undefined || property === undefined) return undefined;
  const bound = boundNames(source).get(callee);
  if (bound?.hasArguments) return undefined;
  const root = (name: string) => name.split(".", 1)[0] ?? name;
  const lines = [root(maker), root(bound?.maker ?? callee)].map((name) => importLine(file, text, name));
  const [first, second] = lines;
  if (first === undefined || second === undefined) return undefined;
  return {
    call: `${callee}({ ${property}: ${key} }{args})`,
    import: [first, second],
    ...(bound && { setup: bound.statement }),
  };
}

/** The line of another language that brings a name in. */
function otherImport({ text, file }: SourceFile, name: string, places: CodePlaces): string | undefined {
  const escaped = name.replace(/\$/g, "\\$");
  const line = new RegExp(
    `^(?:from\\s+\\S{1,200}\\s+import\\s+(?:[\\w, ]{0,200}\\b)?${escaped}(?!\\w)(?!\\s+as\\b)[\\w, ]{0,200}|import\\s+(?:static\\s+)?[\\w.]{1,200}\\.${escaped};|use\\s+(?:function\\s+)?[\\w\\\\]{1,200}\\\\${escaped};)[ \\t]*$`,
    "m",
  ).exec(text)?.[0];
  if (line === undefined)
    return languageOf(file) === "csharp" ? usingOf(text, name, places.spacesOf) : undefined;
  // Of several names that a line brings in, the others are not wanted everywhere.
  if (!line.startsWith("from")) return line.trim();
  const renamed = new RegExp(`(\\w{1,60})\\s+as\\s+${escaped}(?!\\w)`).exec(line)?.[0];
  const short = line.replace(/\bimport\s+.*/, `import ${renamed ?? name}`);
  const [whole = "", dots] = /^from\s+(\.+)/.exec(short) ?? [];
  if (dots === undefined) return short;
  // What is relative to one file is another module in the next folder.
  const holder = packageOf(posix.dirname(file), places.packages).slice(
    0,
    dots.length === 1 ? undefined : 1 - dots.length,
  );
  const rest = short.slice(whole.length);
  if (holder.length === 0) return undefined;
  return `from ${holder.join(".")}${/^\s/.test(rest) ? "" : "."}${rest}`;
}

/**
 * The line of C# that brings a class in, `using N;` of the namespace that declares it, or a function, `using static N.C;` of its
 * class: the only one there, or none.
 */
function usingOf(text: string, name: string, spacesOf: CodePlaces["spacesOf"]): string | undefined {
  const spaces = spacesOf(name);
  const isClass = spaces.length > 0;
  const lines = [...text.matchAll(/^[ \t]{0,40}using\s+(static\s+)?([\w.]{1,200})\s?;[ \t]*$/gm)];
  const found = lines.filter(([, isStatic, space = ""]) =>
    isClass ? isStatic === undefined && spaces.includes(space) : isStatic !== undefined,
  );
  return found.length === 1 ? found[0]?.[0].trim() : undefined;
}

/** Where code is, by its own words. */
export interface CodePlaces {
  /** The folders that are packages of Python by the file that makes them one (The Python Language Reference, 5.2.1). */
  readonly packages: ReadonlySet<string>;
  /** The namespaces of C# in which a class of a name is declared. */
  spacesOf(name: string): readonly string[];
}

/** Looks up where code is. */
export function placesOf(code: readonly SourceFile[]): CodePlaces {
  return {
    packages: new Set(
      code.flatMap(({ file }) => (posix.basename(file) === "__init__.py" ? [posix.dirname(file)] : [])),
    ),
    spacesOf(name) {
      const head = new RegExp(`\\b(?:class|record|struct)\\s+${literally(name)}(?!\\w)`);
      return code.flatMap(({ file, text }) =>
        file.endsWith(".cs") && head.test(text)
          ? [languages.csharp.spaces?.declared.exec(text)?.[1] ?? ""]
          : [],
      );
    },
  };
}

/** The package that a folder is, by its names from the outermost one; none where the folder is no package. */
function packageOf(folder: string, packages: ReadonlySet<string>): readonly string[] {
  const names: string[] = [];
  for (let at = folder; at !== "." && packages.has(at); at = posix.dirname(at))
    names.unshift(posix.basename(at));
  return names;
}
