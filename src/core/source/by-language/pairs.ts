import type { BranchMarks, Dialect } from "../dialects/dialect.js";
import type { Literal, SourceFile } from "../model.js";
import { farthest, languageOfTag, type LanguageTest } from "./tests.js";

/** Elements that an expression of a script chooses between: `{a ? <p>One</p> : <p>Two</p>}`. */
const elements: BranchMarks = {
  head: /\{\s{0,9}$/,
  tail: /^\s{0,99}\?\s{0,99}\(?\s{0,99}(?=<)/,
  otherwise: /\s{0,99}\)?\s{0,99}:\s{0,99}\(?\s{0,99}(?=<)/,
  end: /\s{0,99}\)?\s{0,99}\}/,
  next: /:/,
};

/** The end of an element beside which blanks are not shown. */
const blockElementEnd =
  /<\/(?:h[1-6]|p|div|[uod]l|li|d[td]|table|t(?:r|d|h|head|body)|section|header|footer|main|nav|article|aside|form|fieldset|option|title)>\s*$/i;

/** A text in two languages that code chooses between: the whole of it, and what stands around either. */
interface LanguagePair {
  readonly span: { readonly start: number; readonly end: number };
  readonly locale: string;
  readonly frame?: { readonly before: string; readonly after: string };
}

/**
 * The literals of a file, with two that stand for one text in two languages made one: the branches of a condition that differ in
 * nothing but that.
 */
export function withLanguagePairs(
  source: SourceFile,
  all: readonly LanguageTest[],
  sourceLanguage: string,
): SourceFile {
  const tests = all.filter(({ isEqual, locale }) => isEqual && languageOfTag(locale) !== sourceLanguage);
  if (tests.length === 0) return source;
  const literals: Literal[] = [];
  let changed = false;
  const taken = new Set<Literal>();
  for (const [at, first] of source.literals.entries()) {
    if (taken.has(first)) continue;
    // What the test compares with, and attributes of the elements, stand between the two.
    const second = isPlain(first) ? source.literals.slice(at + 1, at + 8).find(isPlain) : undefined;
    const pair = second && pairOf(source, tests, first, second);
    if (!pair) {
      literals.push(first);
      continue;
    }
    const { span, locale, frame } = pair;
    taken.add(second);
    literals.push({
      ...second,
      span,
      translations: [{ locale, pieces: first.pieces }],
      ...(frame && { frame }),
      remarks: [{ kind: "chosen-by-language", message: "chosen by language in code" }],
    });
    changed = true;
  }
  return changed ? { ...source, literals } : source;
}

/** Whether a literal may be one of such a pair. */
function isPlain({ obstacle, translations, frame, skipped, form, context }: Literal): boolean {
  return (
    !obstacle &&
    !translations &&
    !frame &&
    skipped === undefined &&
    form !== "attribute" &&
    !/^(?:compared|attribute|key|index|type|module)$/.test(context.role)
  );
}

function pairOf(
  { text, dialect }: SourceFile,
  tests: readonly LanguageTest[],
  first: Literal,
  second: Literal,
): LanguagePair | undefined {
  const [a, b] = [first.span, second.span];
  if (b.start < a.end || b.start - a.end > farthest) return undefined;
  for (const test of tests) {
    const { locale } = test;
    if (test.start >= a.end && test.end <= b.start) {
      // `"Hallo" if lang == "de" else "Hello"`
      const isOne =
        /^\s{1,9}if\s{1,9}$/.test(text.slice(a.end, test.start)) &&
        /^\s{1,9}else\s{1,9}$/.test(text.slice(test.end, b.start));
      if (isOne) return { span: { start: a.start, end: b.end }, locale };
      continue;
    }
    if (test.end > a.start || a.start - test.end > farthest) continue;
    const between = text.slice(test.end, a.start);
    if (/^\)?\s{0,99}\?\s{0,99}$/.test(between) && /^\s{0,99}:\s{0,99}$/.test(text.slice(a.end, b.start))) {
      const opens = between.startsWith(")") && text[test.start - 1] === "(";
      if (between.startsWith(")") === opens)
        return { span: { start: test.start - (opens ? 1 : 0), end: b.end }, locale };
      continue;
    }
    const branches = dialect ? dialect.branches : elements;
    const found =
      (dialect?.conditional && elementPair(text, dialect.conditional, test, a, b)) ??
      (branches && blockPair(text, branches, test, a, b));
    if (found) return { ...found, locale };
  }
  return undefined;
}

type Place = { readonly start: number; readonly end: number };

/** Blocks of a template, or elements that an expression chooses between. */
function blockPair(
  text: string,
  { head, tail, otherwise, end, takesLineEnd }: BranchMarks,
  test: Place,
  a: Place,
  b: Place,
): Omit<LanguagePair, "locale"> | undefined {
  const before = head.exec(text.slice(Math.max(test.start - 40, 0), test.start))?.[0];
  const behind = before === undefined ? undefined : tail.exec(text.slice(test.end, test.end + 200))?.[0];
  if (before === undefined || behind === undefined) return undefined;
  const middle = text.slice(a.end, b.start);
  const turn = otherwise.exec(middle);
  const rest = text.slice(b.end, b.end + farthest);
  const close = end.exec(rest);
  if (!turn || !close || text.slice(test.end, a.start).length < behind.length) return undefined;
  const lead = text.slice(test.end + behind.length, a.start);
  const follow = middle.slice(0, turn.index);
  const frame = { before: middle.slice(turn.index + turn[0].length), after: rest.slice(0, close.index) };
  if (!isSame(lead, frame.before) || !isSame(follow, frame.after)) return undefined;
  const span = { start: test.start - before.length, end: b.end + close.index + close[0].length };
  if (!takesLineEnd) return { span, frame };
  const lineEnd = blockElementEnd.test(frame.after)
    ? ""
    : (/^\r?\n/.exec(text.slice(span.end, span.end + 2))?.[0] ?? "");
  return {
    span: { ...span, end: span.end + lineEnd.length },
    frame: { ...frame, before: frame.before.replace(/^\r?\n/, "") },
  };
}

/** Two elements of a component of which one is shown: `<p v-if="lang === 'de'">Hallo</p><p v-else>Hello</p>`. */
function elementPair(
  text: string,
  { shown, otherwise }: NonNullable<Dialect["conditional"]>,
  test: Place,
  a: Place,
  b: Place,
): Omit<LanguagePair, "locale"> | undefined {
  const start = text.lastIndexOf("<", test.start);
  const condition = new RegExp(`\\s{1,9}${shown}="\\s{0,9}$`).exec(
    text.slice(Math.max(start, 0), test.start),
  );
  if (start < 0 || !condition) return undefined;
  const closing = /^\s{0,9}"/.exec(text.slice(test.end, test.end + 10))?.[0];
  if (closing === undefined) return undefined;
  const own = text.slice(start, start + condition.index) + text.slice(test.end + closing.length, a.start);
  const name = /^<([\w-]{1,60})/.exec(own)?.[1];
  const middle = text.slice(a.end, b.start);
  const turn = /^\s{0,99}<\/([\w-]{1,60})>\s{0,99}(?=<)/.exec(middle);
  const other = turn && middle.slice(turn[0].length);
  const close = /^\s{0,99}<\/([\w-]{1,60})>/.exec(text.slice(b.end, b.end + 200));
  if (name === undefined || !turn || !other || !close || turn[1] !== name || close[1] !== name)
    return undefined;
  const before = other.replace(new RegExp(`\\s{1,9}${otherwise}(?=[\\s/>])`), "");
  if (before === other || !isSame(own, before)) return undefined;
  return { span: { start, end: b.end + close[0].length }, frame: { before, after: close[0] } };
}

/** Whether two pieces of code are the same but for the blanks around them, and hold no text of their own. */
function isSame(one: string, other: string): boolean {
  const hasText = one.split(/<[^<>]{0,500}>/).some((part) => /\p{L}/u.test(part));
  return one.trim() === other.trim() && !hasText;
}
