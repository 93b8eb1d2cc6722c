import { notices } from "../message/notices.js";
import { isMarkup } from "./dialects/index.js";
import { fixedText, type Literal, type SourceFile } from "./model.js";

/** A file with what the rest of it does with each literal: shows the members of an object, compares the same string. */
export function withUses(source: SourceFile): SourceFile {
  const literals = withComparisons({ ...source, literals: withShownMembers(source) });
  return literals === source.literals ? source : { ...source, literals };
}

/** What is put on a page of a file: a member of an object, picked by a value, alone in its braces or signs. */
const shownMember =
  /(?<![=\w$])(?:\{\{?|<[%?]=)\s{0,20}\$?([\w]{1,60})\[[\w.$>()?-]{1,80}\]\s{0,20}(?:(?:\?\?|\|\||\?:)[^{}<>\n]{1,80})?(?:\}|[%?]>)/g;

/** The literals of a file, with those marked that are members of objects which its page shows. */
function withShownMembers({ literals, file, text }: SourceFile): readonly Literal[] {
  if (!/\.[jt]sx$/.test(file) && !isMarkup(file)) return literals;
  if (!text.includes("[")) return literals;
  const shown = new Set([...text.matchAll(shownMember)].map((match) => match[1] ?? ""));
  if (shown.size === 0) return literals;
  const isMember = ({ context: { role, element = "", properties } }: Literal) =>
    role === "property" && properties?.length === 1 && shown.has(element);
  return literals.some(isMember)
    ? literals.map((literal) =>
        isMember(literal) ? { ...literal, context: { ...literal.context, isShown: true as const } } : literal,
      )
    : literals;
}

/** Roles in which a value goes on to wherever the program takes it; what a page shows, and what a call is given, stays there. */
const goesOn: ReadonlySet<string> = new Set([
  "property",
  "variable",
  "assignment",
  "returned",
  "parameter",
  "other",
]);

/** The literals of a file, with those marked that it compares with as well: translated, they would not be found equal any more. */
function withComparisons({ literals, lines }: SourceFile): readonly Literal[] {
  const compared = new Map<string, number>();
  for (const { context, pieces, span } of literals) {
    const text = fixedText(pieces);
    if (context.role === "compared" && context.name !== "condition" && !compared.has(text))
      compared.set(text, span.start);
  }
  if (compared.size === 0) return literals;
  const placeOf = ({ context, pieces }: Literal) =>
    goesOn.has(context.role) && pieces.length === 1 ? compared.get(fixedText(pieces)) : undefined;
  if (!literals.some((literal) => placeOf(literal) !== undefined)) return literals;
  return literals.map((literal) => {
    const at = placeOf(literal);
    if (at === undefined) return literal;
    const { line } = lines.position(at);
    const remark = { kind: "compared", message: `compared in line ${line} as well` } as const;
    return {
      ...literal,
      remarks: [...(literal.remarks ?? []), remark],
      obstacle: literal.obstacle ?? say("compared", { line }),
    };
  });
}

const say = notices("extract", {
  compared: {
    message: "line {line, number} compares with the same text, and would not find it any more",
    remedy: "compare with a value of its own, such as an identifier, and choose the text by that",
  },
});
