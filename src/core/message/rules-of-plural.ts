import { hasPluralRules, pluralRules, rulesByNumber, type PluralRules } from "../locale/plural-rules.js";
import type { PluralNode } from "./model.js";

type Counted = Pick<PluralNode, "known" | "pluralKind">;

/** The rules by which the program chooses a plural's forms: its own, or those of the locale. */
export function rulesOf({ known, pluralKind }: Counted, locale: string): PluralRules {
  return known ? rulesByNumber(known) : pluralRules(locale, pluralKind);
}

/** Whether it is known by which rules a plural's forms are chosen. */
export function hasRules({ known, pluralKind }: Counted, locale: string): boolean {
  return known !== undefined || hasPluralRules(locale, pluralKind);
}
