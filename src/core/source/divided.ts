import { notices } from "../message/notices.js";
import type { Island } from "./dialects/dialect.js";
import { fixedText, type Literal, type SourceFile } from "./model.js";

const say = notices("extract", {
  divided: {
    message: "a block of the template divides its sentence",
    remedy: "write the whole sentence in each branch of the block, or move it by hand",
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
  if (contents.length < 2) return source;
  const islands = all.filter(({ kind }) => kind !== "comment");
  const divided = new Set<Literal>();
  for (const [index, literal] of contents.entries()) {
    const next = contents[index + 1];
    if (!next || !isPartOfOne(literal, next, source.text, islands)) continue;
    divided.add(literal);
    divided.add(next);
  }
  if (divided.size === 0) return source;
  // What stands between two parts of a sentence is one as well: the other branches of the block.
  for (const [index, literal] of contents.entries())
    if (!divided.has(literal) && isBranchBeside(literal, contents, index, divided, source.text, islands))
      divided.add(literal);
  const literals = source.literals.map((literal) =>
    divided.has(literal) ? { ...literal, obstacle: say("divided", {}) } : literal,
  );
  return { ...source, literals };
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
  if (!/^\s*(?:\p{Ll}|[,;)]\s)/u.test(fixedText(other.pieces))) return false;
  if (!/[\p{L}\p{N},]["'”’)]?\s*$/u.test(fixedText(one.pieces))) return false;
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
