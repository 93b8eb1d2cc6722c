import type { RuleLevel } from "../config/schema.js";
import type { Finding } from "./finding.js";
import { keyTest } from "../text/key-pattern.js";

/** A level for findings of some rules in some locales or keys. */
export interface PartLevel {
  readonly rules: readonly string[];
  readonly books?: readonly string[] | undefined;
  readonly locales?: readonly string[] | undefined;
  readonly keys?: readonly string[] | undefined;
  readonly level: RuleLevel;
}

/** The level that a map of rules gives one: by its name, or by its family's, `text/*`. */
export function levelNamed(
  levels: Readonly<Record<string, RuleLevel>> | undefined,
  id: string,
): RuleLevel | undefined {
  return levels?.[id] ?? levels?.[`${id.split("/", 1)[0] ?? ""}/*`];
}

/** Whether a level is meant for a rule in a book. */
export function meansRule({ rules, books }: PartLevel, id: string, book: string): boolean {
  const named = rules.some(
    (name) => name === id || (name.endsWith("/*") && id.startsWith(name.slice(0, -1))),
  );
  return named && (books === undefined || books.includes(book));
}

/** The level of a finding, by its locale and key: the configuration's, or undefined for the rule's own. */
export type LevelOf = (at: Pick<Finding, "locale" | "key">) => RuleLevel | undefined;

/** The level of each finding of a rule: that of the last part that it belongs to, else the one for all. */
export function levelsOf(
  level: RuleLevel | undefined,
  parts: readonly PartLevel[],
  ends: readonly string[],
): LevelOf {
  if (parts.length === 0) return () => level;
  const tests = parts.map((part) => ({
    ...part,
    tests: part.keys?.map((pattern) => keyTest(pattern, ends)),
  }));
  return ({ locale, key }) =>
    tests.findLast(
      (part) =>
        (part.locales === undefined || (locale !== undefined && part.locales.includes(locale))) &&
        (part.tests === undefined || (key !== undefined && part.tests.some((test) => test(key)))),
    )?.level ?? level;
}
