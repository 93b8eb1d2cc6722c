import { createRequire } from "node:module";
import type * as Levenshtein from "fastest-levenshtein";
import { lazily } from "../text/lazy.js";
import { codesIn, inlineText, type Inline } from "./inline.js";

const require = createRequire(import.meta.url);
const levenshtein = lazily(() => require("fastest-levenshtein") as typeof Levenshtein);

/** A translation that may serve again. */
export interface Remembered {
  readonly source: readonly Inline[];
  readonly target: readonly Inline[];
  /** What the text is for, where it is a plural form or case: only the same serves. */
  readonly form: string;
  /** Where it is from: a key, or a file. */
  readonly from: string;
}

/** A translation from the memory for another text, its codes those of that text. */
export interface Suggestion {
  readonly target: readonly Inline[];
  /** 1 for the same text, less for one that is nearly the same. */
  readonly likeness: number;
  readonly remembered: Remembered;
}

/** So many candidates are compared letter by letter. */
const mostCandidates = 40;
/** Longer texts are compared whole or not at all; in UTF-16 code units. */
const longestNear = 2000;

/** Translations by what they translate. */
export class TranslationMemory {
  private readonly exact = new Map<string, Remembered[]>();
  private readonly byWord = new Map<string, Remembered[]>();

  add(remembered: Remembered): void {
    const id = idOf(remembered.source, remembered.form);
    const there = this.exact.get(id) ?? [];
    this.exact.set(id, there);
    if (there.some((one) => inlineText(one.target) === inlineText(remembered.target))) return;
    there.push(remembered);
    for (const word of new Set(wordsIn(remembered.source))) {
      const all = this.byWord.get(word) ?? [];
      this.byWord.set(word, all);
      all.push(remembered);
    }
  }

  /** The best translation for a text: of the same text, else of one that is at least so much alike; undefined for none. */
  find(source: readonly Inline[], form: string, least: number): Suggestion | undefined {
    for (const remembered of this.exact.get(idOf(source, form)) ?? []) {
      const target = withCodesOf(remembered, source);
      if (target) return { target, likeness: 1, remembered };
    }
    return least < 1 ? this.nearest(source, form, least) : undefined;
  }

  private nearest(source: readonly Inline[], form: string, least: number): Suggestion | undefined {
    const text = patternOf(source);
    if (text.length > longestNear) return undefined;
    const shared = new Map<Remembered, number>();
    const words = [...new Set(wordsIn(source))].sort(
      (a, b) => (this.byWord.get(a)?.length ?? 0) - (this.byWord.get(b)?.length ?? 0),
    );
    // Rare words tell most; those that are everywhere would bring everything.
    for (const word of words.slice(0, 12))
      for (const one of (this.byWord.get(word) ?? []).slice(0, 500))
        if (one.form === form) shared.set(one, (shared.get(one) ?? 0) + 1);
    const candidates = [...shared].sort(([, a], [, b]) => b - a).slice(0, mostCandidates);
    let best: Suggestion | undefined;
    for (const [remembered] of candidates) {
      const other = patternOf(remembered.source);
      const longer = Math.max(text.length, other.length);
      if (other.length > longestNear || Math.min(text.length, other.length) < longer * least) continue;
      const likeness = 1 - levenshtein().distance(text, other) / longer;
      if (likeness < least || likeness <= (best?.likeness ?? 0)) continue;
      const target = withCodesOf(remembered, source);
      if (target) best = { target, likeness, remembered };
    }
    return best;
  }
}

/** A text with its codes by their places: what it is the same as, whatever its values are called. */
function patternOf(source: readonly Inline[]): string {
  const places = new Map<string, number>();
  const placed = (inlines: readonly Inline[]): readonly Inline[] =>
    inlines.map((one): Inline => {
      if (one.kind === "text") return one;
      const place = places.get(one.id) ?? places.size + 1;
      places.set(one.id, place);
      const id = String(place);
      return one.kind === "code" ? { ...one, id } : { ...one, id, children: placed(one.children) };
    });
  return inlineText(placed(source));
}

function idOf(source: readonly Inline[], form: string): string {
  return `${form}\u0000${patternOf(source)}`;
}

function wordsIn(source: readonly Inline[]): readonly string[] {
  return (
    inlineText(source)
      .toLowerCase()
      .match(/[\p{L}\p{N}]{2,}/gu) ?? []
  );
}

/** A remembered translation with another text's codes, each in the place of that which stands where it does; undefined where they do not fit. */
function withCodesOf(
  { source, target }: Remembered,
  wanted: readonly Inline[],
): readonly Inline[] | undefined {
  const kinds = (inlines: readonly Inline[]): readonly string[] =>
    inlines.flatMap((one) =>
      one.kind === "text" ? [] : [one.kind, ...(one.kind === "pair" ? kinds(one.children) : [])],
    );
  const [own, other] = [codesIn(source), codesIn(wanted)];
  if (own.length !== other.length || kinds(source).join() !== kinds(wanted).join()) return undefined;
  const ids = new Map<string, string>();
  for (const [index, id] of own.entries()) {
    const there = ids.get(id);
    if (there !== undefined && there !== other[index]) return undefined;
    ids.set(id, other[index] ?? id);
  }
  const mapped = (inlines: readonly Inline[]): readonly Inline[] | undefined => {
    const all: Inline[] = [];
    for (const one of inlines) {
      if (one.kind === "text") {
        all.push(one);
        continue;
      }
      const id = ids.get(one.id);
      if (id === undefined) return undefined;
      if (one.kind === "code") all.push({ kind: "code", id });
      else {
        const children = mapped(one.children);
        if (!children) return undefined;
        all.push({ kind: "pair", id, children });
      }
    }
    return all;
  };
  return mapped(target);
}
