import type { BookConfig } from "../config/schema.js";
import { keyTest } from "../text/key-pattern.js";
import { partEnds } from "../text/separators.js";

/** How long the text of a key may be. */
export interface TextLimit {
  readonly most: number;
  readonly unit: "characters" | "columns";
}

/** The limits that a book sets for a key, in the order of the configuration. */
export function limitsOf(config: BookConfig, key: string): readonly TextLimit[] {
  return Object.entries(config.limits ?? {}).flatMap(([pattern, limit]): TextLimit[] => {
    if (!limitTest(pattern, config)(key)) return [];
    if (typeof limit === "number") return [{ most: limit, unit: "characters" }];
    const { characters, columns } = limit;
    return [
      { most: characters ?? columns ?? Infinity, unit: columns === undefined ? "characters" : "columns" },
    ];
  });
}

/** Tests are made once: limits hold for many keys. */
const limitTests = new WeakMap<BookConfig, Map<string, (key: string) => boolean>>();

function limitTest(pattern: string, config: BookConfig): (key: string) => boolean {
  const known = limitTests.get(config) ?? new Map<string, (key: string) => boolean>();
  limitTests.set(config, known);
  const test = known.get(pattern) ?? keyTest(pattern, partEnds(config));
  known.set(pattern, test);
  return test;
}
