import { createRequire } from "node:module";
import type * as Levenshtein from "fastest-levenshtein";
import { lazily } from "./lazy.js";

const require = createRequire(import.meta.url);
const levenshtein = lazily(() => require("fastest-levenshtein") as typeof Levenshtein);

/**
 * The candidate most like `word`, or undefined where none is near enough to be what was meant:
 * at most two in five of the longer word's code units may differ, letter case counting as half.
 */
export function nearest(word: string, candidates: Iterable<string>): string | undefined {
  const { distance } = levenshtein();
  let best: string | undefined;
  let bestCost = Infinity;
  for (const candidate of candidates) {
    const limit = Math.max(1, Math.round(Math.max(word.length, candidate.length) * 0.4));
    if (Math.abs(word.length - candidate.length) > limit) continue;
    const cost = (distance(word, candidate) + distance(word.toLowerCase(), candidate.toLowerCase())) / 2;
    if (cost <= limit && cost < bestCost) {
      best = candidate;
      bestCost = cost;
    }
  }
  return best;
}
