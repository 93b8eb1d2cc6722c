import { notices } from "../message/notices.js";
import type { Island } from "./dialects/dialect.js";
import { fixedText, type Literal, type SourceFile } from "./model.js";

const say = notices("extract", {
  divided: {
    message: "a block of the template divides its sentence",
    remedy: "write the whole sentence in each branch of the block, or move it by hand",
  },
  field: {
    message: "a field of a form stands inside its sentence",
    remedy: "put the field before or behind the sentence, or move it by hand",
  },
});

/**
 * A template with an obstacle at the parts of sentences that its blocks divide: each would be a text that nobody can translate by
 * itself. `This {{#if page}}page{{else}}post{{/if}} is for members`
 */
export function withDivided(source: SourceFile, all: readonly Island[]): SourceFile {
  const contents = source.literals.filter(
    ({ context, obstacle }) => context.role === "content" && obstacle === undefined,
  );
  if (contents.length === 0) return source;
  const islands = all.filter(({ kind }) => kind !== "comment");
  const divided = new Set<Literal>(
    contents.filter((literal) => opensSentence(literal) && isEndedBehind(literal, source.text, islands)),
  );
  for (const [index, literal] of contents.entries()) {
    const next = contents[index + 1];
    if (!next || !isPartOfOne(literal, next, source.text, islands)) continue;
    divided.add(literal);
    divided.add(next);
  }
  const around = aroundFields(contents, source.text);
  if (divided.size + around.size === 0) return source;
  // What stands between two parts of a sentence is one as well: the other branches of the block.
  for (const [index, literal] of contents.entries())
    if (!divided.has(literal) && isBranchBeside(literal, contents, index, divided, source.text, islands))
      divided.add(literal);
  const literals = source.literals.map((literal) =>
    divided.has(literal)
      ? { ...literal, obstacle: say("divided", {}) }
      : around.has(literal)
        ? { ...literal, obstacle: say("field", {}) }
        : literal,
  );
  return { ...source, literals };
}

/** Whether code stands right behind a text, and the end of its sentence right behind that: `Start with the {link to='guide'}.` */
function isEndedBehind({ span: { end } }: Literal, text: string, islands: readonly Island[]): boolean {
  const blanks = /^[ \t]{0,20}/.exec(text.slice(end, end + 20))?.[0].length ?? 0;
  const code = islands.find(({ start }) => start === end + blanks);
  return (
    code?.kind === "code" &&
    code.isShown !== true &&
    partOfBlock(text.slice(code.codeStart, code.codeEnd)) === "open" &&
    /^[.,;:!?)](?:\s|<|$)/.test(text.slice(code.end, code.end + 2))
  );
}

/** The parts of sentences with a field between them that holds something itself: `Turn every <select>…</select> seconds`. */
function aroundFields(contents: readonly Literal[], text: string): ReadonlySet<Literal> {
  const found = new Set<Literal>();
  const byStart = new Map(contents.map((literal) => [literal.span.start, literal] as const));
  for (const literal of contents) {
    const { end } = literal.span;
    if (!opensSentence(literal)) continue;
    const name = /^\s{0,200}<(select|textarea|meter|progress)(?![\w-])/i.exec(
      text.slice(end, end + 220),
    )?.[1];
    if (name === undefined) continue;
    const close = text.indexOf(`</${name}>`, end);
    if (close < 0 || close - end > longestField) continue;
    const behind = close + name.length + 3;
    const next = byStart.get(behind + (/^\s{0,200}/.exec(text.slice(behind, behind + 200))?.[0].length ?? 0));
    if (next === undefined || !endsSentence(next)) continue;
    found.add(literal);
    found.add(next);
  }
  return found;
}

/** A field holds so much at most, in code units. */
const longestField = 4_000;

/** Whether a text may go on in the next one: it ends with a word or a comma. */
function opensSentence({ pieces }: Literal): boolean {
  return /[\p{L}\p{N},]["'”’)]?\s*$/u.test(fixedText(pieces));
}

/** Whether a text goes on from the one before it: it begins with a small letter or a sign. */
function endsSentence({ pieces }: Literal): boolean {
  return /^\s*(?:\p{Ll}|[,;)]\s)/u.test(fixedText(pieces));
}

/** How a piece of a template's code stands to a block: `else` for all that begins another branch. */
function partOfBlock(code: string): "open" | "else" | "close" {
  const bare = code.trim().replace(/^[~-]/, "").trim();
  if (/^(?:\/|end|@end|\}\s*;?$)/.test(bare)) return "close";
  return /^[:@#]?(?:else|elif|elsif|elseif|when|case|otherwise|empty|then|catch)|^\}\s*else|^\^$/i.test(bare)
    ? "else"
    : "open";
}

/** The blocks that begin or end between two texts of one line of text; undefined where something else is between them. */
function blocksBetween(
  one: Literal,
  other: Literal,
  text: string,
  islands: readonly Island[],
): { readonly parts: readonly ("open" | "else" | "close")[]; readonly hasValue: boolean } | undefined {
  const { end } = one.span;
  const { start } = other.span;
  if (start - end > longestBlock || start < end) return undefined;
  const between = islands.filter((island) => island.start >= end && island.end <= start);
  let rest = "";
  let at = end;
  for (const island of between) {
    rest += text.slice(at, island.start);
    at = island.end;
  }
  rest += text.slice(at, start);
  // A tag parts what stands before it from what stands behind, but one of a word inside a sentence; a line of its own may be anything.
  if (/[<>\p{L}\p{N}]|\n\s*\n/u.test(rest.replace(wordTag, ""))) return undefined;
  const code = between.filter(({ kind, isShown }) => kind === "code" && isShown !== true);
  return {
    parts: code.map(({ codeStart, codeEnd }) => partOfBlock(text.slice(codeStart, codeEnd))),
    hasValue: between.some(({ kind }) => kind === "output"),
  };
}

/** The tag of an element around words inside a sentence. */
const wordTag = /<\/?(?:b|strong|i|em|u|code|tt|kbd|mark|var)(?:\s[^<>]{0,200})?>/i;

/** So far from a text the next one of its sentence stands at most, in code units. */
const longestBlock = 400;

function isPartOfOne(one: Literal, other: Literal, text: string, islands: readonly Island[]): boolean {
  if (!endsSentence(other) || !opensSentence(one)) return false;
  const { parts = [], hasValue } = blocksBetween(one, other, text, islands) ?? {};
  if (parts.length === 0) return false;
  // The branches of a block are one or the other, and so are blocks that stand in a row; a block of values is part of a sentence.
  return (
    parts.every((part) => part === "open") ||
    parts.every((part) => part === "close") ||
    (hasValue === true && parts[0] === "open" && parts.at(-1) === "close")
  );
}

/** Whether a text is another branch of a block of which one branch is part of a sentence. */
function isBranchBeside(
  literal: Literal,
  contents: readonly Literal[],
  index: number,
  divided: ReadonlySet<Literal>,
  text: string,
  islands: readonly Island[],
): boolean {
  const isBranch = (one: Literal | undefined, other: Literal | undefined) =>
    one !== undefined &&
    other !== undefined &&
    divided.has(one === literal ? other : one) &&
    blocksBetween(one, other, text, islands)?.parts.every((part) => part === "else") === true;
  return isBranch(contents[index - 1], literal) || isBranch(literal, contents[index + 1]);
}
