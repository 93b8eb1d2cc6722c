import type { Config } from "../config/schema.js";
import type { BookBalance } from "../ledger/balance.js";
import { beyondBaseline, readBaseline } from "../ledger/code-baseline.js";
import type { Finding } from "../lint/finding.js";
import type { UseRecord } from "../source/book-code.js";
import { notices } from "../message/notices.js";
import type { ReportedLiteral } from "../survey/survey.js";
import { digestOf } from "../text/digest.js";
import type { Notice } from "../text/wording.js";
import { balanceProject, type Project, type Scope } from "./project.js";
import type { WorkReading } from "./file-work.js";
import { lintProject } from "./lint-project.js";
import { surveyProject, type SurveyOptions } from "./survey-project.js";

const say = notices("audit", {
  errors: {
    message: "{count, plural, one {# error} other {# errors}} in the source catalogs and code",
    remedy: "fond lint",
  },
  "locale-errors": {
    message: "{locale}: {count, plural, one {# error} other {# errors}}",
    remedy: "fond lint --locale {locale}",
  },
  warnings: {
    message: "{count, plural, one {# warning} other {# warnings}} in the source catalogs and code",
    remedy: "fond lint",
  },
  "locale-warnings": {
    message: "{locale}: {count, plural, one {# warning} other {# warnings}}",
    remedy: "fond lint --locale {locale}",
  },
  "no-baseline": {
    message:
      "{count, plural, one {# text is} other {# texts are}} hard-coded, and no baseline says which may be",
    remedy: "fond survey --baseline --write",
  },
  unreadable: { message: "{file} cannot be read", remedy: "fond lint" },
  translated: {
    message:
      "{locale}: {share} % of {book} is translated, and {wanted} % is wanted; {words, plural, one {# word} other {# words}} to do",
    remedy: "fond handoff --book {book} --locale {locale} --write",
  },
  reviewed: {
    message: "{locale}: {share} % of {book} is reviewed, and {wanted} % is wanted",
    remedy: "fond review KEYS --book {book} --locale {locale} --write",
  },
  stale: {
    message:
      "{locale}: {count, plural, one {# translation} other {# translations}} of {book} stale, and {allowed} allowed",
    remedy: "fond handoff --stale --book {book} --locale {locale} --write",
  },
  code: {
    message: "{count, plural, one {# text is} other {# texts are}} hard-coded",
    remedy: "fond extract",
  },
  "new-code": {
    message: "{count, plural, one {# new text is} other {# new texts are}} hard-coded",
    remedy: "fond survey --check",
  },
  unread: { message: "{file} cannot be read", remedy: "fond survey" },
});

/** What one run of an audit found, whole or of one part: the verdict follows from it and the policy alone. */
export interface AuditFacts {
  /** Tells the configuration and the policy apart: parts of different ones cannot be joined. */
  readonly policy: string;
  readonly part: { readonly number: number; readonly of: number };
  readonly findings: readonly Finding[];
  readonly books: readonly BookBalance[];
  /** Texts in code that the policy does not allow. */
  readonly literals: readonly ReportedLiteral[];
  /** How many texts are in code, where no baseline says which may be. */
  readonly uncounted: number;
  /** Files that could not be read. */
  readonly unread: readonly string[];
}

/** One thing that stands against a release, or that is only told. */
export interface AuditReason extends Notice {
  readonly locale?: string;
  readonly book?: string;
  /** How much it weighs: the worst comes first. */
  readonly weight: number;
}

export interface AuditVerdict {
  readonly ok: boolean;
  /** What stands against it, the worst first. */
  readonly against: readonly AuditReason[];
  /** What does not block: locales in beta. */
  readonly told: readonly AuditReason[];
}

export interface AuditOptions extends Pick<SurveyOptions, "cache" | "elsewhere" | "progress"> {
  /** One part of several, from 1: locales and files of code are shared out among them. */
  readonly part?: { readonly number: number; readonly of: number };
  /** How code is read for the rules. */
  readonly uses?: WorkReading<UseRecord>;
}

/** Everything that a release is judged by: the rules, how far each locale is, and text left in code. */
export async function auditFacts(
  project: Project,
  scope: Scope = {},
  { part = { number: 1, of: 1 }, uses, ...survey }: AuditOptions = {},
): Promise<AuditFacts> {
  const { config } = project;
  const isOwn = (index: number) => index % part.of === part.number - 1;
  const locales = config.targets.filter(
    (locale, index) => isOwn(index) && (scope.locales?.includes(locale) ?? true),
  );
  const findings = (await lintProject(project, scope, undefined, uses)).filter(({ locale }) =>
    // What belongs to no target is the first part's.
    locale === undefined || !config.targets.includes(locale) ? isOwn(0) : locales.includes(locale),
  );
  const books = balanceProject(project, { ...scope, locales });
  const rule = config.audit?.text ?? "baseline";
  const files = new Map<string, number>();
  const path = (file: string) => {
    const index = files.get(file) ?? files.size;
    files.set(file, index);
    return isOwn(index) && (scope.path?.(file) ?? true);
  };
  // The baseline counts texts of the whole project: only the first part can.
  const surveyed =
    rule === "any" || (rule === "baseline" && !isOwn(0))
      ? { files: [], unread: [] }
      : await surveyProject(project, rule === "baseline" ? scope : { ...scope, path }, survey);
  const literals = surveyed.files.flatMap((file) => file.literals);
  const baseline = readBaseline(project.files, config.ledger);
  const texts = literals.filter(({ verdict, waived }) => verdict === "text" && waived === undefined);
  const hasNone = rule === "baseline" && baseline.written === undefined;
  const left = hasNone ? [] : rule === "baseline" ? beyondBaseline(baseline, literals) : texts;
  return {
    policy: digestOf(JSON.stringify([config.audit ?? {}, config.source, config.targets, config.books])),
    part,
    findings,
    books,
    literals: left,
    uncounted: hasNone ? texts.length : 0,
    unread: surveyed.unread.map(({ file }) => file),
  };
}

/** The facts of all parts as those of one run. Undefined with the reason where they are not all of one audit. */
export function joinFacts(
  parts: readonly AuditFacts[],
):
  | { readonly ok: true; readonly facts: AuditFacts }
  | { readonly ok: false; readonly missing?: readonly number[]; readonly differs?: true } {
  const [first] = parts;
  if (!first || parts.some((one) => one.policy !== first.policy || one.part.of !== first.part.of))
    return { ok: false, differs: true };
  const byNumber = new Map(parts.map((one) => [one.part.number, one]));
  const missing = Array.from({ length: first.part.of }, (_, index) => index + 1).filter(
    (number) => !byNumber.has(number),
  );
  if (missing.length > 0) return { ok: false, missing };
  const all = [...byNumber.values()].sort((a, b) => a.part.number - b.part.number);
  const books = new Map<string, BookBalance>();
  for (const { books: own } of all)
    for (const book of own) {
      const there = books.get(book.name);
      books.set(book.name, there ? { ...there, locales: [...there.locales, ...book.locales] } : book);
    }
  return {
    ok: true,
    facts: {
      policy: first.policy,
      part: { number: 1, of: 1 },
      findings: all.flatMap(({ findings }) => findings),
      books: [...books.values()],
      literals: all.flatMap(({ literals }) => literals),
      uncounted: all.reduce((sum, one) => sum + one.uncounted, 0),
      unread: [...new Set(all.flatMap(({ unread }) => unread))],
    },
  };
}

/** The verdict on facts by the policy of a configuration. */
export function judge(
  { findings, books, literals, uncounted, unread }: AuditFacts,
  config: Config,
): AuditVerdict {
  const policy = config.audit ?? {};
  const beta = new Set(policy.beta ?? []);
  const reasons: AuditReason[] = [];
  const add = (notice: Notice, weight: number, more: Pick<AuditReason, "locale" | "book"> = {}) =>
    reasons.push({ ...notice, weight, ...more });
  for (const locale of [undefined, ...config.targets]) {
    const own = findings.filter((one) =>
      locale === undefined ? !config.targets.includes(one.locale ?? "") : one.locale === locale,
    );
    const errors = own.filter(({ severity }) => severity === "error").length;
    const warnings = own.filter(({ severity }) => severity === "warning").length;
    const more = locale === undefined ? {} : { locale };
    if (errors > 0)
      add(
        locale === undefined
          ? say("errors", { count: errors })
          : say("locale-errors", { locale, count: errors }),
        1_000_000 + errors,
        more,
      );
    if (warnings > 0 && policy.failing === "warning")
      add(
        locale === undefined
          ? say("warnings", { count: warnings })
          : say("locale-warnings", { locale, count: warnings }),
        10_000 + warnings,
        more,
      );
  }
  for (const { name: book, keys, locales, unreadable } of books) {
    for (const file of new Set(unreadable)) add(say("unreadable", { file }), 2_000_000, { book });
    for (const { locale, share, reviewed, stale, words, missing, initial } of locales) {
      const wanted = { ...policy, ...policy.locales?.[locale] };
      const { translated = 1, reviewed: wantedReviewed = 0, stale: allowed = 0 } = wanted;
      const more = { locale, book };
      // What is only stale is said once.
      const isStaleAlone = missing + initial === 0 && stale > allowed;
      if (share < translated && !isStaleAlone)
        add(
          say("translated", { locale, book, share: percent(share), wanted: percent(translated), words }),
          100_000 + words,
          more,
        );
      const reviewedShare = keys === 0 ? 1 : reviewed / keys;
      if (reviewedShare < wantedReviewed)
        add(
          say("reviewed", { locale, book, share: percent(reviewedShare), wanted: percent(wantedReviewed) }),
          1_000 + (wantedReviewed - reviewedShare) * 100,
          more,
        );
      // Where so much need not be translated, what is stale counts by itself.
      if (stale > allowed) add(say("stale", { locale, book, count: stale, allowed }), 50_000 + stale, more);
    }
  }
  if (literals.length > 0)
    add(
      say(policy.text === "none" ? "code" : "new-code", { count: literals.length }),
      20_000 + literals.length,
    );
  for (const file of unread) add(say("unread", { file }), 2_000_000);
  reasons.sort((a, b) => b.weight - a.weight || (a.message < b.message ? -1 : 1));
  const told = reasons.filter(({ locale }) => locale !== undefined && beta.has(locale));
  const against = reasons.filter((one) => !told.includes(one));
  const more = uncounted > 0 ? [{ ...say("no-baseline", { count: uncounted }), weight: 0 }] : [];
  return { ok: against.length === 0, against, told: [...told, ...more] };
}

/** Rounded down: what is not whole is never shown as such. */
function percent(share: number): number {
  return Math.floor(share * 1000) / 10;
}
