import { notices } from "../message/notices.js";
import { isKnownLanguage } from "../locale/mistaken-tag.js";
import { scriptOf } from "../locale/script.js";
import { fixedText, type Literal, type SourceFile } from "./model.js";

const say = notices("extract", {
  "other-language": {
    message: "the code shows it for {locale} alone",
    remedy:
      "put it into the catalog of {locale} by hand, under the key of the text that others see, and one lookup in the place of both",
  },
  "other-script": {
    message: "its letters are not those of {source}, in which texts of the source are written",
    remedy:
      'leave it where it is if it is a name, or write the text of the source there; if the project writes in another language, set "source"',
  },
});

/**
 * The literals of a file, with those marked that are no texts of the source's language: what the code shows for another language
 * alone, and what is written in other letters.
 */
export function withOtherLanguages(source: SourceFile, sourceLanguage: string | undefined): SourceFile {
  if (sourceLanguage === undefined) return source;
  const tests = testsIn(source.text);
  // Most files are in Latin letters, which no language is without.
  if (tests.length === 0 && !/[^\0-\u036f\u1e00-\u218f]/.test(source.text)) return source;
  const isForeign = lettersTest(sourceLanguage);
  const obstacleOf = (literal: Literal) => {
    const locale = tests.length > 0 ? localeAt(source.text, tests, literal) : undefined;
    if (locale !== undefined && locale.split(/[-_]/, 1)[0]?.toLowerCase() !== sourceLanguage)
      return say("other-language", { locale });
    return isForeign(fixedText(literal.pieces)) ? say("other-script", { source: sourceLanguage }) : undefined;
  };
  let changed = false;
  const literals = source.literals.map((literal) => {
    const obstacle = literal.obstacle || literal.translations ? undefined : obstacleOf(literal);
    if (!obstacle) return literal;
    changed = true;
    return { ...literal, obstacle };
  });
  return changed ? { ...source, literals } : source;
}

/** A place where code compares a language. */
interface LanguageTest {
  readonly start: number;
  readonly end: number;
  readonly locale: string;
  readonly isEqual: boolean;
}

const comparison =
  /(?:lang|Lang|locale|Locale)\w{0,20}(?:\(\)|\[[^[\]\n]{1,40}\])?["')\]]{0,2}\s{0,4}(?:(===?|!==?)\s{0,4}|\.equals\(\s{0,4}|\s(?:eq|is)\s{1,4})[:"'`]([a-z]{2,3}(?:[-_][A-Za-z]{2,4})?)(?![\w-])["'`]?/g;

function testsIn(text: string): readonly LanguageTest[] {
  if (!/lang|locale/i.test(text)) return [];
  return [...text.matchAll(comparison)].flatMap((match): LanguageTest[] => {
    const [whole, operator = "==", locale = ""] = match;
    const end = match.index + whole.length;
    const closes = whole.includes(".equals(") && text[end] === ")" ? 1 : 0;
    return isKnownLanguage(locale.split(/[-_]/, 1)[0] ?? "")
      ? [
          {
            start: startOfName(text, match.index),
            end: end + closes,
            locale,
            isEqual: !operator.startsWith("!"),
          },
        ]
      : [];
  });
}

/** Where a name starts that a place is in, with the objects before it: `app.request.locale`. */
function startOfName(text: string, at: number): number {
  let start = at;
  while (start > 0 && at - start < 60 && /[\w$.@]/.test(text[start - 1] ?? "")) start--;
  return start;
}

/** So far behind a test its branch is looked for, in code units. */
const farthest = 400;

/** What ends a branch of a template. */
const blockEnd =
  /\{%-?\s{0,9}(?:else|elsif|elseif|elif|endif|endunless)|<%-?\s{0,9}(?:else|elsif|end\b|\})|<\?(?:php)?\s{1,9}(?:else|endif|\})|@else|@endif|\{:else|\{\/if|\{\{(?:else|\/if)/;

/** Where the branch ends that a test opens, by what stands behind the test. */
function branchEnd(text: string, end: number): number {
  const rest = text.slice(end, end + farthest);
  const lead = /^["'`\s)\]]{0,20}/.exec(rest)?.[0] ?? "";
  const from = end + lead.length;
  const after = text.slice(from, from + 20);
  const until = (pattern: RegExp) =>
    from + (pattern.exec(text.slice(from, from + farthest))?.index ?? farthest);
  if (/^(?:then\s*)?[:{]?\s{0,9}(?:-?%\}|-?%>|\?>)|^\}(?:\}|\s*[<\p{L}])/u.test(after))
    return until(blockEnd);
  if (lead.includes(")") && after.startsWith("{")) return closingAt(text, from + 1, /(?!)/);
  if (after.startsWith("?")) return closingAt(text, from + 1, /^:(?!:)/);
  if (/^(?:&&|and\b)/.test(after)) return closingAt(text, from + 2, /^(?:\|\||[,;])/);
  // An element that is shown on a condition, up to where it ends.
  if (/^[^<>]{0,19}>/.test(after) && lead.includes('"')) return until(/<\//);
  if (/^:\s*\n/.test(after) || /\n/.test(lead) || after.startsWith("then"))
    return until(/\n[ \t]{0,80}(?:else|elsif|elif|end|when)\b/);
  if (lead.includes(")") && /^[\p{L}_$<"'`@]/u.test(after)) return until(/;|\n|\belse\b|@else|@endif/);
  return end;
}

/** Where a bracket closes that is not open, or, at the same depth, something else stands. */
function closingAt(text: string, start: number, stop: RegExp): number {
  let depth = 0;
  for (let at = start; at < Math.min(start + farthest, text.length); at++) {
    const unit = text[at] ?? "";
    if (/[([{]/.test(unit)) depth++;
    else if (/[)\]}]/.test(unit)) {
      if (depth-- === 0) return at;
    } else if (depth === 0 && stop.test(text.slice(at, at + 2))) return at;
  }
  return start + farthest;
}

/** The language for which alone a literal is shown, by the test in front of it (or behind it, as Python has it). */
function localeAt(text: string, tests: readonly LanguageTest[], { span }: Literal): string | undefined {
  for (const { start, end, locale, isEqual } of tests) {
    if (!isEqual) continue;
    if (end <= span.start && span.start - end < farthest && span.end <= branchEnd(text, end)) return locale;
    if (
      start >= span.end &&
      start - span.end < 20 &&
      /^\s{1,4}if\s+(?:\w+\.)*$/.test(text.slice(span.end, start))
    )
      return locale;
  }
  return undefined;
}

/** Whether a text is written in letters that neither the language nor its neighbors use. */
function lettersTest(language: string): (text: string) => boolean {
  let script: string;
  try {
    script = scriptOf(language);
  } catch {
    return () => false;
  }
  const own = {
    Jpan: ["Han", "Hiragana", "Katakana"],
    Kore: ["Hangul", "Han"],
    Hans: ["Han"],
    Hant: ["Han"],
  }[script];
  const named = own ?? [
    {
      Latn: "Latin",
      Cyrl: "Cyrillic",
      Arab: "Arabic",
      Hebr: "Hebrew",
      Grek: "Greek",
      Deva: "Devanagari",
      Thai: "Thai",
    }[script] ?? "",
  ];
  if (named.some((one) => one === "")) return () => false;
  const ownLetters = new RegExp(
    `[\\p{Script=Latin}${named.map((one) => `\\p{Script=${one}}`).join("")}]`,
    "u",
  );
  // One sign of another alphabet, as in `Ω`, is no text of another language.
  return (text) => !ownLetters.test(text) && /\p{L}[\p{L}\p{M}]/u.test(text);
}

/** What stands before, between and behind the branches that a template shows by a language. */
interface BranchSyntax {
  /** In front of the test, and behind it. */
  readonly head: RegExp;
  readonly tail: RegExp;
  readonly otherwise: RegExp;
  readonly end: RegExp;
  /** Whether a line end right behind its marks is not printed, as in PHP. */
  readonly takesLineEnd?: true;
}

/** The end of an element beside which blanks are not shown. */
const blockElementEnd =
  /<\/(?:h[1-6]|p|div|[uod]l|li|d[td]|table|t(?:r|d|h|head|body)|section|header|footer|main|nav|article|aside|form|fieldset|option|title)>\s*$/i;

const branchSyntaxes: readonly BranchSyntax[] = [
  {
    head: /\{%-?\s{0,9}if\s{1,9}$/,
    tail: /^\s{0,9}-?%\}/,
    otherwise: /\{%-?\s{0,9}else\s{0,9}-?%\}/,
    end: /\{%-?\s{0,9}endif\s{0,9}-?%\}/,
  },
  {
    head: /<%-?\s{0,9}if\s{0,9}\(?\s{0,9}$/,
    tail: /^\s{0,9}\)?\s{0,9}(?:then|\{)?\s{0,9}-?%>/,
    otherwise: /<%-?\s{0,9}(?:else|\}\s{0,9}else\s{0,9}\{)\s{0,9}-?%>/,
    end: /<%-?\s{0,9}(?:end|\})\s{0,9}-?%>/,
  },
  {
    head: /<\?(?:php)?\s{1,9}if\s{0,9}\(\s{0,9}$/,
    tail: /^\s{0,9}\)\s{0,9}[:{]\s{0,9}\?>/,
    otherwise: /<\?(?:php)?\s{1,9}(?:else\s{0,9}:|\}\s{0,9}else\s{0,9}\{)\s{0,9}\?>/,
    end: /<\?(?:php)?\s{1,9}(?:endif|\})\s{0,9};?\s{0,9}\?>/,
    takesLineEnd: true,
  },
  { head: /@if\s{0,9}\(\s{0,9}$/, tail: /^\s{0,9}\)/, otherwise: /@else\b/, end: /@endif\b/ },
  { head: /\{#if\s{1,9}$/, tail: /^\s{0,9}\}/, otherwise: /\{:else\}/, end: /\{\/if\}/ },
  {
    head: /\{\s{0,9}$/,
    tail: /^\s{0,99}\?\s{0,99}\(?\s{0,99}(?=<)/,
    otherwise: /\s{0,99}\)?\s{0,99}:\s{0,99}\(?\s{0,99}(?=<)/,
    end: /\s{0,99}\)?\s{0,99}\}/,
  },
];

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
export function withLanguagePairs(source: SourceFile, sourceLanguage: string | undefined): SourceFile {
  const tests = testsIn(source.text).filter(
    ({ isEqual, locale }) => isEqual && locale.split(/[-_]/, 1)[0] !== sourceLanguage,
  );
  if (tests.length === 0 || sourceLanguage === undefined) return source;
  const literals: Literal[] = [];
  let changed = false;
  const taken = new Set<Literal>();
  for (const [at, first] of source.literals.entries()) {
    if (taken.has(first)) continue;
    // What the test compares with, and attributes of the elements, stand between the two.
    const second = isPlain(first) ? source.literals.slice(at + 1, at + 8).find(isPlain) : undefined;
    const pair = second && pairOf(source.text, tests, first, second);
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
  text: string,
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
    const element = elementPair(text, test, a, b) ?? blockPair(text, test, a, b);
    if (element) return { ...element, locale };
  }
  return undefined;
}

type Place = { readonly start: number; readonly end: number };

/** Blocks of a template, or elements that an expression chooses between. */
function blockPair(text: string, test: Place, a: Place, b: Place): Omit<LanguagePair, "locale"> | undefined {
  for (const { head, tail, otherwise, end, takesLineEnd } of branchSyntaxes) {
    const before = head.exec(text.slice(Math.max(test.start - 40, 0), test.start))?.[0];
    const behind = before === undefined ? undefined : tail.exec(text.slice(test.end, test.end + 200))?.[0];
    if (before === undefined || behind === undefined) continue;
    const middle = text.slice(a.end, b.start);
    const turn = otherwise.exec(middle);
    const rest = text.slice(b.end, b.end + farthest);
    const close = end.exec(rest);
    if (!turn || !close || text.slice(test.end, a.start).length < behind.length) continue;
    const lead = text.slice(test.end + behind.length, a.start);
    const follow = middle.slice(0, turn.index);
    const frame = { before: middle.slice(turn.index + turn[0].length), after: rest.slice(0, close.index) };
    if (!isSame(lead, frame.before) || !isSame(follow, frame.after)) continue;
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
  return undefined;
}

/** Two elements of a component of which one is shown: `<p v-if="lang === 'de'">Hallo</p><p v-else>Hello</p>`. */
function elementPair(
  text: string,
  test: Place,
  a: Place,
  b: Place,
): Omit<LanguagePair, "locale"> | undefined {
  const start = text.lastIndexOf("<", test.start);
  const condition = /\s{1,9}v-if="\s{0,9}$/.exec(text.slice(Math.max(start, 0), test.start));
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
  const before = other.replace(/\s{1,9}v-else(?=[\s/>])/, "");
  if (before === other || !isSame(own, before)) return undefined;
  return { span: { start, end: b.end + close[0].length }, frame: { before, after: close[0] } };
}

/** Whether two pieces of code are the same but for the blanks around them, and hold no text of their own. */
function isSame(one: string, other: string): boolean {
  const hasText = one.split(/<[^<>]{0,500}>/).some((part) => /\p{L}/u.test(part));
  return one.trim() === other.trim() && !hasText;
}
