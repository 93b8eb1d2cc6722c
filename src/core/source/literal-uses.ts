import { notices } from "../message/notices.js";
import { isMarkup } from "./dialects/index.js";
import { fixedText, type Literal, type SourceFile } from "./model.js";
import { lazily } from "../text/lazy.js";
import { askingCall, equalCall, mayBeReadBack } from "./read-back.js";

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

/** The literals of a file, with those marked that it compares with as well: translated, they would not be found equal any more. */
function withComparisons({ literals, lines }: SourceFile): readonly Literal[] {
  const compared = new Map<string, number>();
  const isAsked = ({ context: { role, name = "" } }: Literal) => role === "argument" && askingCall.test(name);
  for (const literal of literals) {
    const { context, pieces, span } = literal;
    const text = fixedText(pieces);
    const isCompared =
      context.role === "compared"
        ? context.name !== "condition"
        : isAsked(literal) || (context.role === "argument" && equalCall.test(context.name ?? ""));
    if (isCompared && !compared.has(text)) compared.set(text, span.start);
  }
  // What a thing is asked for by stays as what names the thing.
  const named = lazily(
    () => new Set(literals.filter((one) => !isAsked(one)).map(({ pieces }) => fixedText(pieces))),
  );
  const probes = probesIn(literals);
  if (compared.size + probes.length === 0) return literals;
  const placeOf = (literal: Literal) => {
    const { pieces, span } = literal;
    const text = fixedText(pieces);
    if (isAsked(literal) && named().has(text)) return span.start;
    if (!mayBeReadBack(literal)) return undefined;
    const equal = pieces.length === 1 ? compared.get(text) : undefined;
    return equal ?? probes.find((probe) => probe.start !== span.start && probe.isIn(text))?.start;
  };
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

/** A string that the program looks for at the beginning or the end of others: `subject.startsWith("RE:")`. */
interface Probe {
  readonly start: number;
  readonly isIn: (text: string) => boolean;
}

function probesIn(literals: readonly Literal[]): readonly Probe[] {
  return literals.flatMap(({ context, pieces, span }): Probe[] => {
    if (context.role !== "argument" || pieces.length !== 1) return [];
    const [, verb] =
      /(starts?_?with|ends?_?with|has_?prefix|has_?suffix)\W{0,3}$/i.exec((context.name ?? "").slice(-40)) ??
      [];
    const probe = fixedText(pieces);
    // The ending of a file is found in no text for people.
    if (verb === undefined || !/\p{L}{2}/u.test(probe) || /^\.\w{1,6}$/.test(probe)) return [];
    const isEnd = /^end|suffix/i.test(verb);
    return [{ start: span.start, isIn: (text) => (isEnd ? text.endsWith(probe) : text.startsWith(probe)) }];
  });
}

const say = notices("extract", {
  compared: {
    message: "line {line, number} compares with the same text, and would not find it any more",
    remedy: "compare with a value of its own, such as an identifier, and choose the text by that",
  },
});
