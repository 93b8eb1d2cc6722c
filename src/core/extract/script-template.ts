import { countOf, lookupValues, takesValues } from "./emit.js";
import type { MessageReader } from "../message/parse.js";
import type { BoundLookup, Literal, SourceFile } from "../source/model.js";
import type { BookConfig } from "../config/schema.js";
import { callAroundKey, calledIn, defaultCall, objectOf } from "../source/book-code.js";
import {
  type ImportLine,
  isShadowed,
  moduleBinding,
  type SetupLine,
} from "../source/readers/script/scopes.js";
import { thisHas } from "./this-receiver.js";
import { contains } from "../text/span.js";
import type { ScriptPart, ScriptsNaming } from "./script-parts.js";

/** How a book's scripts write lookups, and what brings them in. */
export interface ScriptEmission {
  readonly book: BookConfig;
  readonly reader: MessageReader;
  readonly imports: readonly ImportLine[];
  readonly setup: SetupLine | undefined;
  /** The book's other scripts that a name stands in; undefined where they are not at hand. */
  readonly scriptsNaming: ScriptsNaming | undefined;
  /** The ends of the paths of scripts that pages load as they are. */
  readonly ofPages: readonly string[];
}

/** How a book's scripts look a text up; undefined where they have no way to write elements in it. */
function templateFor({ emit }: BookConfig, { pieces }: Literal, by?: BoundLookup): string | undefined {
  if (pieces.some(({ kind }) => kind === "tag")) return emit.rich;
  if (emit.plural !== undefined && countOf(pieces) !== undefined) return emit.plural || undefined;
  const hasValues = lookupValues(pieces, (piece) => piece.name).length > 0;
  const usual = (hasValues ? emit.withValues?.call : undefined) ?? emit.call ?? defaultCall;
  if (!by) return usual;
  // What the file has made is called as the book's lookup is, with a text behind the key where that has one.
  const behind = /^[\w$.]{1,100}(\((["'])\{key\}\2, (["'])\{text\}\3(?:\{args\})?\))$/.exec(usual)?.[1];
  const takesThem = behind !== undefined && (!hasValues || takesValues(usual));
  return by.name + (takesThem ? behind : '("{key}"{args})');
}

/**
 * The template for a text of a script: where the usual lookup is not known and the book's lookups name a method of `this` that is
 * there, it is called in its place.
 */
export function templateAt(
  part: ScriptPart,
  literal: Literal,
  { book, setup, scriptsNaming }: ScriptEmission,
  by?: BoundLookup,
): string | undefined {
  const usual = templateFor(book, literal, by);
  if (usual === undefined || by || part.runsPerUse) return usual;
  const [, asked = ""] = /^([\w$.]{1,100})\(["'`]\{key\}/.exec(usual) ?? [];
  const root = rootOf(asked);
  const { program } = part;
  const { start } = literal.span;
  if (
    asked === "" ||
    root === "this" ||
    setup?.names.includes(root) ||
    moduleBinding(program, root) !== undefined ||
    isShadowed(program, start, root)
  )
    return usual;
  const own = book.lookups.flatMap((one) =>
    "call" in one && one.call.startsWith("this.") && (one.key ?? 0) === 0 ? [one.call] : [],
  );
  const ending = `.${asked.split(".").at(-1) ?? asked}`;
  const found = [...own]
    .sort((one, other) => Number(other.endsWith(ending)) - Number(one.endsWith(ending)))
    .find((one) => thisHas(part, start, one, scriptsNaming));
  return found === undefined ? usual : found + usual.slice(asked.length);
}

/** The lookup that a script has made where a text stands, which takes its key; elements need one that can write them. */
export function boundLookup(
  { bound = [] }: SourceFile,
  part: ScriptPart | undefined,
  { span, pieces }: Literal,
): BoundLookup | undefined {
  if (part?.isWhole !== true || pieces.some(({ kind }) => kind === "tag")) return undefined;
  const last = bound.findLast(({ scope }) => contains(scope, span));
  // Of several that one call gives, the book names the usual one first.
  return last && bound.find(({ scope }) => scope.start === last.scope.start && scope.end === last.scope.end);
}

/** The object that a method is called of, or the function itself: what has to be known. */
export function rootOf(asked: string): string {
  return asked.split(".", 1)[0] ?? asked;
}

/** The names that a template's lookups begin with: what has to be in scope. */
export function namesCalled(template: string): readonly string[] {
  const object = objectOf(template);
  return [
    ...[callAroundKey(template) ?? [], calledIn(template)].flat().map((name) => name.split(".")[0] ?? name),
    ...(object === undefined ? [] : [object]),
  ];
}

/** Whether the set-up statement stands at a script's top level already, or another that makes the same names of the same call. */
export function hasSetup({ program, text }: ScriptPart, setup: SetupLine): boolean {
  const plain = (code: string) => code.replace(/\s+|;$/g, "");
  return program.body.some((statement) => {
    const code = plain(text.slice(statement.start, statement.end));
    return code === plain(setup.line) || (setup.callee !== undefined && code.includes(`=${setup.callee}(`));
  });
}
