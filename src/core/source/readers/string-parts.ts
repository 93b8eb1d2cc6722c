import { neverWordsIn } from "./never-words.js";
import { holdsMarkup } from "../../text/html-elements.js";
import { isStatement } from "../../text/queries.js";
import { notices } from "../../message/notices.js";
import type { Span } from "../../text/span.js";
import type { Dialect } from "../dialects/dialect.js";
import { html } from "../dialects/html/html.js";
import { fullEscapes, writtenUnits, type WrittenUnit } from "../escapes.js";
import { languageNamed } from "../languages/index.js";
import { fixedText, type Literal, type LookupShapes, type Piece, type WrittenString } from "../model.js";
import { hasLetters } from "../pieces.js";
import { readMarkup } from "./markup/markup.js";
import type { Marking } from "./markup/marks.js";

/**
 * Literals with the strings of code taken apart where not all of them is one text: the markup in a string stays in the code
 * and its texts are literals, each with its place, and so do blanks and line ends at a text's edges.
 */
export function withStringParts(
  literals: readonly Literal[],
  text: string,
  shapes: LookupShapes,
): readonly Literal[] {
  if (!literals.some(({ strings }) => strings)) return literals;
  const isNeverWords = neverWordsIn(text);
  return literals.flatMap((literal): Literal | readonly Literal[] => {
    const { strings } = literal;
    if (!strings) return literal;
    const said = fixedText(literal.pieces);
    const hasMarkup = holdsMarkup(said) && !isStatement(said);
    const written = writtenText(literal, strings, text);
    if (!hasMarkup) return written ? withoutEdges(literal, written, strings, text, isNeverWords) : literal;
    if (!written) return { ...literal, obstacle: literal.obstacle ?? say("markup", {}) };
    return textsOfMarkup(literal, written, strings, text, shapes, isNeverWords);
  });
}

/** A value stands for this unit in the text that markup is read from. */
const valueUnit = "\uE000";

/** What a literal says, unit by unit, with what stands for its values, and where the code writes each. */
interface Written {
  readonly units: readonly (WrittenUnit & { readonly piece?: Piece })[];
}

/** A literal's text as the code writes it; undefined where it cannot be followed, as in words that code chooses. */
function writtenText(literal: Literal, strings: readonly WrittenString[], text: string): Written | undefined {
  const { language } = literal.context;
  const spoken = languageNamed(language);
  const units: (WrittenUnit & { piece?: Piece })[] = [];
  for (const piece of literal.pieces) {
    if (piece.kind === "tag") return undefined;
    if (piece.kind !== "text") {
      units.push({ ...insertion(piece.span, strings, text), value: valueUnit, piece });
      continue;
    }
    let value = "";
    for (const string of strings) {
      const from = Math.max(piece.span.start, string.innerStart);
      const to = Math.min(piece.span.end, string.innerEnd);
      if (from >= to) continue;
      const open = text.slice(string.start, string.innerStart);
      const rules = spoken?.escapesIn(open) ?? fullEscapes;
      // Blanks before each line that are none of the text.
      let margin = string.indent !== undefined && from === string.innerStart ? string.indent : 0;
      for (const unit of writtenUnits(text.slice(from, to), rules, open.at(-1) ?? "", from)) {
        // A line end in a template is one unit to the program whatever the file writes.
        let read = unit.value === "\r" && text[unit.end] === "\n" ? "" : unit.value;
        if (margin > 0 && /^[ \t]$/.test(read)) {
          margin--;
          read = "";
        } else margin = unit.value === "\n" && string.indent !== undefined ? string.indent : 0;
        value += read;
        if (read !== "") units.push(unit);
      }
    }
    if (value !== piece.value.replaceAll("\r\n", "\n")) return undefined;
  }
  return { units };
}

/** A value's place in the code with the marks around it, inside a string: `${name}`, `#{name}`, `{$name}`. */
function insertion(span: Span, strings: readonly WrittenString[], text: string): Span {
  let { start, end } = span;
  if (!strings.some(({ innerStart, innerEnd }) => innerStart <= span.start && span.end <= innerEnd)) {
    // The brackets around what is joined belong to it.
    for (;;) {
      const before = text.slice(Math.max(0, start - 40), start);
      const after = text.slice(end, end + 40);
      const close = after.length - after.trimStart().length;
      if (!/(?<![\w$)\]])\(\s*$/.test(before) || after[close] !== ")") return { start, end };
      start -= before.length - before.lastIndexOf("(");
      end += close + 1;
    }
  }
  while (/\s/.test(text[start - 1] ?? "")) start--;
  while (/\s/.test(text[end] ?? "")) end++;
  if (text[start - 1] !== "{" || text[end] !== "}") return span;
  start -= /[$#]/.test(text[start - 2] ?? "") ? 2 : 1;
  return { start, end: end + 1 };
}

/** What a program calls to end a line. */
const lineEnd =
  /^(?:\w*_?EOL|\w*NEW_?LINE|CRLF|LF|NL|\w+_NL|os\.EOL|os\.linesep|System\.lineSeparator\(\)|Environment\.NewLine|\$\/)$/i;

/** A literal without the blanks and line ends around its text, which stay in the code. */
function withoutEdges(
  literal: Literal,
  { units }: Written,
  strings: readonly WrittenString[],
  text: string,
  isNeverWords: (code: string) => boolean,
): Literal {
  // A string of several lines that no call can stand in is replaced as a whole.
  if (strings.some(({ isBlock, marks }) => isBlock && !marks)) return literal;
  const [from, to] = withinEdges(units, 0, units.length, isNeverWords);
  if (from === 0 && to === units.length) return literal;
  const { role } = literal.context;
  // What is done with the whole string is done with the blanks too.
  if (/^(?:member|compared|key|index|tagged|type|module)$/.test(role) || literal.frame) return literal;
  return partOf(literal, units.slice(from, to), strings, text) ?? literal;
}

/** Where a text's own units begin and end between two places: without blanks, line ends and values that are never more than those. */
function withinEdges(
  units: Written["units"],
  start: number,
  end: number,
  isNeverWords: (code: string) => boolean,
): readonly [from: number, to: number] {
  const isEdge = (unit: Written["units"][number] | undefined) =>
    unit !== undefined &&
    (unit.piece
      ? unit.piece.kind === "argument" && (lineEnd.test(unit.piece.code) || isNeverWords(unit.piece.code))
      : /^\s$/.test(unit.value));
  let from = start;
  let to = end;
  while (from < to && isEdge(units[from])) from++;
  while (to > from && isEdge(units[to - 1])) to--;
  return [from, to];
}

/** The literal that some of a string's units are, with what takes the rest out of its way. */
function partOf(
  literal: Literal,
  units: Written["units"],
  strings: readonly WrittenString[],
  text: string,
): Literal | undefined {
  const [first] = units;
  const last = units.at(-1);
  if (!first || !last) return undefined;
  const operator = languageNamed(literal.context.language)?.grammar.concatenation[0] ?? "+";
  const inside = (place: number) =>
    strings.find(({ innerStart, innerEnd }) => innerStart <= place && place <= innerEnd);
  let { start } = first;
  let { end } = last;
  let before = "";
  let after = "";
  const opening = inside(start);
  if (opening) {
    if (opening.isBlock) [before, after] = opening.marks ?? ["", ""];
    else if (start === opening.innerStart) ({ start } = opening);
    else before = `${text.slice(opening.innerEnd, opening.end)} ${operator} `;
  }
  const closing = inside(end);
  if (closing) {
    if (closing.isBlock) {
      if (opening !== closing) return undefined;
    } else if (end === closing.innerEnd) ({ end } = closing);
    else after = ` ${operator} ${text.slice(closing.start, closing.innerStart)}`;
  }
  // A template has a way of its own to put a value in.
  const open = opening && text.slice(opening.start, opening.innerStart);
  if (before !== "" && after !== "" && opening === closing && !opening?.isBlock) {
    if (open === "`") [before, after] = ["${", "}"];
    else if (open === '"' && literal.context.language === "ruby") [before, after] = ["#{", "}"];
  }
  const pieces: Piece[] = [];
  for (const unit of units) {
    const previous = pieces.at(-1);
    if (unit.piece) pieces.push(unit.piece);
    else if (previous?.kind === "text")
      pieces[pieces.length - 1] = {
        kind: "text",
        value: previous.value + unit.value,
        span: { start: previous.span.start, end: unit.end },
      };
    else pieces.push({ kind: "text", value: unit.value, span: { start: unit.start, end: unit.end } });
  }
  const { context, remarks, note, skipped } = literal;
  const obstacle = literal.obstacle ?? (opening?.isBlock && !opening.marks ? say("block", {}) : undefined);
  return {
    context,
    ...(remarks && { remarks }),
    ...(note !== undefined && { note }),
    ...(skipped !== undefined && { skipped }),
    ...(obstacle && { obstacle }),
    form: pieces.length === 1 && pieces[0]?.kind === "text" ? "string" : "template",
    span: { start, end },
    pieces,
    ...((before !== "" || after !== "") && { frame: { before, after } }),
  };
}

/** Blocks of a template that a string holds. */
const templateBlock = /\{%[^%{}]{0,300}%\}|<%(?![=-])[^%<>]{0,300}%>/g;

/** The part of a string that a program puts on a page: the units that stand for values are its islands, and so are blocks of a template. */
const inString: Dialect = {
  name: "string",
  language: "expression",
  extensions: [],
  islands: (text) => {
    const island = (kind: "output" | "code") => (match: RegExpExecArray) => {
      const end = match.index + match[0].length;
      return { kind, start: match.index, end, codeStart: match.index, codeEnd: end };
    };
    return [
      ...[...text.matchAll(/\uE000/g)].map(island("output")),
      ...[...text.matchAll(templateBlock)].map(island("code")),
    ];
  },
  bindsAttributes: false,
  passesIsland: () => true,
};

/** The template of a component that stands in its code, with the blocks and values of such pages. */
const inComponent: Dialect = {
  ...inString,
  islands: (text) => [...inString.islands(text), ...html.islands(text)],
};

/** Whether a string is the template of a component, as its decorator or definition has it: `@Component({ template: "…" })`. */
function isOfComponent({ context: { role, name, element = "" } }: Literal): boolean {
  return (
    role === "property" && name === "template" && /^(?:\w+\.)?(?:[cC]omponent|defineComponent)$/.test(element)
  );
}

function textsOfMarkup(
  literal: Literal,
  { units }: Written,
  strings: readonly WrittenString[],
  text: string,
  shapes: LookupShapes,
  isNeverWords: (code: string) => boolean,
): readonly Literal[] {
  // Each unit of the page is one of the literal's: those of more code units are shown by their first.
  const page = units.map(({ value }) => value[0] ?? " ").join("");
  // What begins inside a tag, or ends in one, is none of the texts.
  const head = /^[^<>]*>/.exec(page)?.[0] ?? "";
  const begins = Math.max(/["']/.test(head) ? head.length : 0, endOfRaw(page));
  const body = " ".repeat(begins) + page.slice(begins);
  const isTemplate = isOfComponent(literal);
  const found = readMarkup("page.html", body, false, isTemplate ? inComponent : inString, shapes, () => ({
    literals: [],
    lookups: [],
    mentions: [],
  }));
  const isMember = /^(?:member|compared|key|index)$/.test(literal.context.role);
  const chosen = choicesAlone(page, units, found.literals);
  return [...found.literals.flatMap((one) => atBreaks(one, body)), ...chosen].flatMap((one): Literal[] => {
    const isAttribute = one.form === "attribute";
    const isOfScript = one.form === "string" || one.form === "template";
    const isQuoted = (isAttribute || isOfScript) && /["'`]/.test(body[one.span.start] ?? "");
    const hasElements = one.pieces.some(({ kind }) => kind === "tag");
    const start = one.span.start + (isQuoted ? 1 : 0);
    const end = one.span.end - (isQuoted ? 1 : 0);
    const [from, to] =
      isAttribute || isOfScript || hasElements ? [start, end] : withinEdges(units, start, end, isNeverWords);
    const own = units.slice(from, to);
    const part = partOf(literal, own, strings, text);
    if (!part || !hasLetters(part.pieces)) return [];
    const { language, component, atLoad } = literal.context;
    const isBetweenApostrophes = isQuoted && body[one.span.start] === "'";
    const escapes = languageNamed(language)?.escapesMarkup !== undefined;
    const obstacle =
      literal.obstacle ??
      (isTemplate ? say("template-in-code", {}) : undefined) ??
      (isOfScript
        ? say("script-in-string", {})
        : hasElements || isMember
          ? say("markup", {})
          : /[<>&]|["'](?=.)/.test(fixedText(part.pieces)) &&
              (isAttribute || /[<>&]/.test(fixedText(part.pieces)))
            ? say("markup-escape", {})
            : isAttribute && (!isQuoted || (isBetweenApostrophes && !escapes))
              ? say("markup-quotes", {})
              : undefined);
    const { name, element, role } = one.context;
    const { note, key, isMarked, isBesideKey } = one;
    return [
      {
        ...part,
        ...(note !== undefined && { note }),
        ...(key !== undefined && { key }),
        ...(isMarked && { isMarked }),
        ...(isBesideKey && { isBesideKey }),
        // Inside tags blanks mean as much as one.
        pieces: (hasElements ? inCode(one.pieces, units) : part.pieces).map((piece) =>
          piece.kind === "text" ? { ...piece, value: piece.value.replace(/[ \t\r\n\f]+/g, " ") } : piece,
        ),
        context: {
          language,
          atLoad,
          ...(component !== undefined && { component }),
          role,
          ...(name !== undefined && { name }),
          ...(element !== undefined && { element }),
          around: literal.context,
        },
        ...(isBetweenApostrophes && escapes && { betweenApostrophes: true as const }),
        ...(obstacle && { obstacle }),
      },
    ];
  });
}

/** Where a script or style that begins before a string ends in it; the start where none does. */
function endOfRaw(page: string): number {
  const [, opening] = /<(\/?)(?:script|style)(?![\w-])/i.exec(page) ?? [];
  return opening === "/" ? page.search(/<\/(?:script|style)/i) : 0;
}

type PageText = Pick<Literal, "form" | "span" | "pieces" | "context"> & Marking;

/** Sentences with nothing but line breaks between them, each as a text of its own; any other text as it is. */
function atBreaks(one: PageText, page: string): readonly PageText[] {
  const runs: Piece[][] = [[]];
  for (const piece of one.pieces)
    if (piece.kind !== "tag") runs.at(-1)?.push(piece);
    else if (/^br$/i.test(piece.name) && piece.pieces.length === 0) runs.push([]);
    else return [one];
  const sentences = runs.slice(0, -1).every((run) => /[.!?:…。！？]\s*$/.test(fixedText(run)));
  if (runs.length < 2 || !sentences) return [one];
  return runs.flatMap((pieces): PageText[] => {
    let start = pieces[0]?.span.start ?? 0;
    let end = pieces.at(-1)?.span.end ?? 0;
    while (start < end && /\s/.test(page[start] ?? "")) start++;
    while (end > start && /\s/.test(page[end - 1] ?? "")) end--;
    return start === end ? [] : [{ ...one, form: "content", span: { start, end }, pieces }];
  });
}

/** The pieces of a text with elements, with their places in the code instead of the page, and its values as the code has them. */
function inCode(pieces: readonly Piece[], units: Written["units"]): Piece[] {
  const place = ({ start, end }: Span): Span => ({
    start: units[start]?.start ?? 0,
    end: units[end - 1]?.end ?? 0,
  });
  return pieces.map((piece): Piece => {
    if (piece.kind === "text") return { ...piece, span: place(piece.span) };
    if (piece.kind !== "tag") return units[piece.span.start]?.piece ?? piece;
    const { span, open, close } = piece;
    return {
      ...piece,
      span: place(span),
      open: place(open),
      close: close && place(close),
      pieces: inCode(piece.pieces, units),
    };
  });
}

/** Words that code chooses between tags, where they are alone: `"<td>" + (busy ? "taken" : "free") + "</td>"`. */
function choicesAlone(
  page: string,
  units: Written["units"],
  found: readonly Pick<Literal, "span">[],
): readonly PageText[] {
  return units.flatMap(({ piece }, at) => {
    if (piece?.kind !== "choice" || found.some(({ span }) => span.start <= at && at < span.end)) return [];
    const before = page.slice(0, at);
    if (before.lastIndexOf("<") > before.lastIndexOf(">")) return [];
    const element = /<([a-z][\w-]{0,40})[^<>]{0,400}>[^<>]{0,400}$/i.exec(before.slice(-900))?.[1];
    return {
      form: "content" as const,
      span: { start: at, end: at + 1 },
      pieces: [piece],
      context: {
        language: "markup" as const,
        role: "content" as const,
        atLoad: false,
        ...(element !== undefined && { element }),
      },
    };
  });
}

const say = notices("extract", {
  block: {
    message: "it is in a string of several lines, in which no call can stand",
    remedy: "move the markup into a template, or the text by hand",
  },
  "template-in-code": {
    message: "it is in the template of a component inside code, which writes lookups in another way",
    remedy: "move the template to a file of its own, then extract again",
  },
  "script-in-string": {
    message: "it is in a script inside a string of markup, where its own quotes would end it",
    remedy: "pass the text to the script as data, then look it up",
  },
  "markup-quotes": {
    message:
      "a translation with an apostrophe or a blank would end the attribute's value in this string of markup",
    remedy: "put the value in double quotes, then extract again",
  },
  markup: {
    message: "it is in a string of markup, with elements or words that code chooses in it",
    remedy: "move the markup into a template, or the text by hand",
  },
  "markup-escape": {
    message: "it is in a string of markup, and has signs that must be escaped there",
    remedy: "move the text by hand, and escape what the lookup returns",
  },
});
