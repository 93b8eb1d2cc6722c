import { pluralRules } from "../../locale/plural-rules.js";
import { eachPiece, mapPieces } from "../pieces.js";
import type { Span } from "../../text/span.js";
import { fixedText, type ChoicePiece, type Piece } from "../model.js";

/** What decides between the words of a conditional, in any language, as a message can say it. */
export interface ChoiceTest {
  readonly kind: "plural" | "select";
  /** The code of the value that is compared; the whole test where it is only true or false. */
  readonly code: string;
  /** A name for it. */
  readonly name: string;
  /** The code that gives the argument's value. */
  readonly value: string;
  /** The selectors that the first branch stands for, and the second. */
  readonly first: readonly string[];
  readonly second: readonly string[];
  /**
   * How the same is asked as what is true or not, where a number is asked whether it is above 0: what is missing is not
   * either.
   */
  readonly orElse?: ChoiceTest;
}

/** How one language's conditionals are read. */
export interface ChoiceReader<Node> {
  /** A conditional that chooses words, with its branches; undefined for anything else. */
  read(node: Node): { readonly test: ChoiceTest; readonly first: Node; readonly second: Node } | undefined;
  /** What a branch says. */
  pieces(branch: Node): readonly Piece[];
  /** The code of a branch. */
  codeOf(branch: Node): string;
  /** Told of each conditional whose words become part of the message. */
  take(node: Node): void;
  uniqueName(wanted: string, code: string): string;
  /** The language of the texts, whose plurals say what `one` stands for. */
  readonly language: string | undefined;
}

/** What is never missing, and never below 0: how many things there are. */
const sureCount = /(?:\.|->|::)(?:length|size|count)(?:\(\))?$|^(?:len|count|sizeof)\(/;

/** What a text for none says, in a word or in no word at all: an ending. */
const saysNone = /\b(?:no|none|nothing|nobody|zero|empty|never|any|0)\b|^[\W\s]{0,3}\w{0,3}\W{0,3}$/i;

/** Reads a conditional; where it asks whether a number is above 0, as a number only if what it says else is said of none. */
function readWith<Node>(node: Node, reader: ChoiceReader<Node>): ReturnType<ChoiceReader<Node>["read"]> {
  const whole = reader.read(node);
  const orElse = whole?.test.orElse;
  if (!whole || !orElse || sureCount.test(whole.test.code)) return whole;
  const none = whole.test.first.includes("other") ? whole.second : whole.first;
  return saysNone.test(reader.codeOf(none)) ? whole : { ...whole, test: orElse };
}

/** Words chosen by a conditional, and by the conditionals in its branches that compare the same value. */
export function choicePiece<Node>(
  node: Node,
  span: Span,
  reader: ChoiceReader<Node>,
): ChoicePiece | undefined {
  const whole = readWith(node, reader);
  if (!whole) return undefined;
  const { test } = whole;
  const branches = new Map<string, readonly Piece[]>();
  const collect = (branch: Node, selectors: readonly string[]) => {
    const inner = selectors.includes("other") ? readWith(branch, reader) : undefined;
    if (inner?.test.kind === test.kind && inner.test.code === test.code) {
      // A test that an outer one has answered already cannot be asked again.
      const left = (those: readonly string[]) => those.filter((one) => one === "other" || !branches.has(one));
      collect(inner.first, left(inner.test.first));
      collect(inner.second, left(inner.test.second));
      for (const one of selectors) if (one !== "other" && !branches.has(one)) collect(inner.second, [one]);
      reader.take(branch);
      return;
    }
    const pieces = reader.pieces(branch);
    for (const selector of selectors) if (!branches.has(selector)) branches.set(selector, pieces);
  };
  const [sure, rest] = test.first.includes("other")
    ? [[whole.second, test.second] as const, [whole.first, test.first] as const]
    : [[whole.first, test.first] as const, [whole.second, test.second] as const];
  collect(...sure);
  collect(...rest);
  reader.take(node);
  const counts = test.kind === "plural" && isCounted([...branches.values()], test.code);
  const renamed = [...branches].map(([selector, pieces]) => ({
    selector: selector === "=1" && counts && oneIsExact(reader.language) ? "one" : selector,
    pieces,
  }));
  return {
    kind: "choice",
    choice: test.kind,
    name: nameOfTest(test, reader.uniqueName),
    code: test.code,
    value: test.value,
    span,
    branches: renamed.sort((a, b) => rankOf(a.selector) - rankOf(b.selector)),
  };
}

/**
 * What a choice goes by. Where it asks whether a value is there, and the text shows that value too, the two are different
 * arguments: what a message gets for the one says "yes" or "no".
 */
function nameOfTest(
  { name, value }: ChoiceTest,
  uniqueName: (wanted: string, code: string) => string,
): string {
  const own = uniqueName(name, value);
  if (own === name) return own;
  return uniqueName(
    name.includes("_") ? `has_${name}` : `has${name.charAt(0).toUpperCase()}${name.slice(1)}`,
    value,
  );
}

/** Pieces in which all choices by a number call one thing `one` where some of them do: it is then exactly 1, the same as `=1`. */
export function withOneName(pieces: readonly Piece[]): readonly Piece[] {
  const counted = new Set<string>();
  for (const piece of eachPiece(pieces))
    if (piece.kind === "choice" && piece.branches.some(({ selector }) => selector === "one"))
      counted.add(piece.code);
  if (counted.size === 0) return pieces;
  return mapPieces(pieces, (piece) => {
    if (piece.kind !== "choice" || !counted.has(piece.code)) return piece;
    const branches = piece.branches.map((branch) =>
      branch.selector === "=1" ? { ...branch, selector: "one" } : branch,
    );
    return { ...piece, branches: branches.sort((a, b) => rankOf(a.selector) - rankOf(b.selector)) };
  });
}

/** Whether branches are forms of one text, so that the number counts what they name. */
export function isCounted(branches: readonly (readonly Piece[])[], code: string): boolean {
  const shows = branches.some((pieces) =>
    pieces.some((piece) => piece.kind === "argument" && piece.code === code),
  );
  const [first, ...others] = branches.map((pieces) => fixedText(pieces));
  return shows || others.some((other) => looksCounted(first ?? "", other));
}

/** Exact numbers first, then the rest, `other` last. */
function rankOf(selector: string): number {
  return selector === "other" ? 3 : selector.startsWith("=") ? 0 : 1;
}

/** The comparison with its sides changed about. */
export function flip(operator: string): string {
  return { "<": ">", ">": "<", "<=": ">=", ">=": "<=" }[operator] ?? operator;
}

/** Whether a comparison only asks whether a number is above 0. */
export function asksForAny(
  operator: string,
  { first, second }: Pick<ChoiceTest, "first" | "second">,
): boolean {
  const [exact, ...others] = first.includes("other") ? second : first;
  return exact === "=0" && others.length === 0 && /^[<>]/.test(operator);
}

/** The numbers of things that a comparison with a small number stands for. */
export function numbersFor(
  operator: string,
  bound: number,
): Pick<ChoiceTest, "first" | "second"> | undefined {
  if (![0, 1, 2].includes(bound)) return undefined;
  const below = (limit: number) => Array.from({ length: limit }, (_, number) => `=${number}`);
  switch (operator) {
    case "===":
    case "==":
      return { first: [`=${bound}`], second: ["other"] };
    case "!==":
    case "!=":
      return { first: ["other"], second: [`=${bound}`] };
    case ">":
      return { first: ["other"], second: below(bound + 1) };
    case ">=":
      return bound === 0 ? undefined : { first: ["other"], second: below(bound) };
    case "<":
      return bound === 0 ? undefined : { first: below(bound), second: ["other"] };
    case "<=":
      return { first: below(bound + 1), second: ["other"] };
    default:
      return undefined;
  }
}

const pairs = new Set(
  "is are|was were|y ies|has have|does do|this these|that those|it they|its their|person people|child children|man men|woman women|foot feet|mouse mice|day days|a some|an some|one many"
    .split("|")
    .flatMap((pair) => [pair, pair.split(" ").reverse().join(" ")]),
);

/**
 * Whether two texts look like the forms of one, so that the number between them counts things: `bike` and `bikes`, an
 * ending alone, or a text that shows the number.
 */
function looksCounted(first: string, second: string): boolean {
  const one = first.trim().toLowerCase();
  const two = second.trim().toLowerCase();
  if (one.length <= 3 && two.length <= 3 && (one === "" || two === "")) return true;
  if (pairs.has(`${one} ${two}`)) return true;
  const wordsOf = (text: string) => new Set(text.match(/\p{L}{3,}/gu) ?? []);
  const words = wordsOf(two);
  for (const word of wordsOf(one))
    for (const other of words)
      if (word.slice(0, Math.max(3, word.length - 2)) === other.slice(0, Math.max(3, word.length - 2)))
        return true;
  return false;
}

/** Whether exactly the number 1 takes the category `one` in a language, so that `one` may stand for it. */
function oneIsExact(language: string | undefined): boolean {
  return language !== undefined && pluralRules(language, "cardinal").onlyWholeNumber("one") === 1;
}
