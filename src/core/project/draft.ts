import type { HandoffEntry, HandoffUnit, ReturnedUnit } from "../exchange/handoff.js";
import { changeText, formOf } from "../exchange/handoff.js";
import { readTmx } from "../exchange/carriers/tmx.js";
import { codesIn, inlineText, wordsOf, type Inline } from "../exchange/inline.js";
import { TranslationMemory } from "../exchange/memory.js";
import {
  readServiceText,
  serviceText,
  withNumber,
  withoutNumber,
  type TranslationService,
} from "../exchange/service.js";
import { pluralRules, type PluralCategory } from "../locale/plural-rules.js";
import { wordChanges } from "../plan/words.js";
import type { Notice } from "../text/wording.js";
import { handoffFor } from "./handoff.js";
import { intakeDocument, type IntakeResult } from "./intake.js";
import type { Project, Scope } from "./project.js";

export interface DraftOptions {
  /** Today, as YYYY-MM-DD. */
  readonly today: string;
  readonly keys?: readonly string[];
  /** Replaces translations that are stale as well. */
  readonly stale?: boolean;
  /** How much alike a remembered text has to be, from 0 to 1; only the same text for 1. */
  readonly likeness: number;
  /** Translation memories in TMX 1.4, by the name of their file. */
  readonly memories?: readonly { readonly name: string; readonly chunks: () => Iterable<string> }[];
}

/** One text that has a suggestion. */
export interface Drafted {
  readonly locale: string;
  readonly key: string;
  readonly form: string;
  readonly from: string;
  readonly text: string;
  /** For a text that is nearly the same: how much, and what differs, with what is gone in `[-…-]` and what is new in `[+…+]`. */
  readonly near?: { readonly likeness: number; readonly difference: string };
}

/** What drafts were found for one locale, before anything is written. */
export interface Drafts {
  readonly locale: string;
  readonly drafted: readonly Drafted[];
  /** The entries that have a suggestion for each of their texts. */
  readonly filled: readonly {
    readonly entry: HandoffEntry;
    readonly texts: readonly (readonly Inline[])[];
  }[];
  /** Those for which nothing was found. */
  readonly left: readonly HandoffEntry[];
}

export type DraftResult =
  ({ readonly ok: true } & Drafts) | ({ readonly ok: false; readonly file: string } & Notice);

/** Finds suggestions for what is missing in a locale among the project's own translations and in memories. */
export async function draftsFor(
  project: Project,
  scope: Scope,
  locale: string,
  options: DraftOptions,
): Promise<DraftResult> {
  const { entries } = await handoffFor(project, scope, locale, { all: true });
  const memory = new TranslationMemory();
  for (const entry of entries)
    if (entry.what === "done")
      for (const { source, target, choices } of entry.units)
        if (target) memory.add({ source, target, form: formId(choices), from: entry.key });
  for (const { name, chunks } of options.memories ?? []) {
    const problem = readTmx(chunks(), project.config.source, locale, ({ source, target }) => {
      memory.add({ source, target, form: "", from: name });
    });
    if (problem) return { ok: false, file: name, ...problem };
  }
  const drafted: Drafted[] = [];
  const filled: { entry: HandoffEntry; texts: readonly (readonly Inline[])[] }[] = [];
  const left: HandoffEntry[] = [];
  for (const entry of await wantedIn(project, scope, locale, options)) {
    // A translation that was made from an older text is nearer than any other: only the very same text replaces it.
    const least = entry.what === "stale" ? 1 : options.likeness;
    const found = entry.units.map((unit) => memory.find(unit.source, formId(unit.choices), least));
    if (found.some((one) => one === undefined)) {
      left.push(entry);
      continue;
    }
    const texts = found.map((one) => one?.target ?? []);
    filled.push({ entry, texts });
    for (const [index, one] of found.entries()) {
      const unit = entry.units[index];
      if (!one || !unit) continue;
      drafted.push({
        locale,
        key: entry.key,
        form: formOf(unit.choices),
        from: one.remembered.from,
        text: inlineText(one.target),
        ...(one.likeness < 1 && {
          near: {
            likeness: one.likeness,
            difference: changeText(wordChanges(inlineText(one.remembered.source), inlineText(unit.source))),
          },
        }),
      });
    }
  }
  return { ok: true, locale, drafted, filled, left };
}

/** The texts that want a draft: those without a translation, and stale ones where that is asked for. Drafts of before stay. */
async function wantedIn(
  project: Project,
  scope: Scope,
  locale: string,
  { keys, stale }: DraftOptions,
): Promise<readonly HandoffEntry[]> {
  const { entries } = await handoffFor(project, scope, locale, keys ? { keys } : {});
  return entries.filter(
    (entry) =>
      !entry.isRaw &&
      (entry.what === "missing" ||
        (entry.what === "initial" && entry.units.every(({ target }) => target === undefined)) ||
        (stale === true && entry.what === "stale")),
  );
}

function formId(choices: HandoffUnit["choices"]): string {
  return choices.map(({ kind, selector }) => `${kind} ${selector}`).join(", ");
}

/** Plans to write drafts into catalogs and ledger, in the state `initial`: a person still has to say that they are right. */
export async function takeDrafts(
  project: Project,
  scope: Scope,
  { locale, filled }: Pick<Drafts, "locale" | "filled">,
  {
    today,
    origin,
    file,
  }: { readonly today: string; readonly origin: "memory" | "service"; readonly file: string },
): Promise<IntakeResult> {
  const units = filled.flatMap(({ entry, texts }) =>
    entry.units.map((unit, index): ReturnedUnit => ({ id: unit.id, text: texts[index] ?? [], line: 1 })),
  );
  const result = await intakeDocument(
    project,
    scope,
    { source: project.config.source, target: locale, units },
    { today, file, locale, origin, state: "initial", prefer: "file" },
  );
  if (!result.ok) return result;
  const { taken } = result.counts;
  return { ...result, plan: { ...result.plan, summary: taken > 0 ? { drafts: taken } : {} } };
}

/** How many texts and characters a service would get for entries; what it is paid for. */
export function serviceSize(entries: readonly HandoffEntry[]): {
  readonly texts: number;
  readonly characters: number;
} {
  const units = entries.flatMap((entry) => entry.units);
  return {
    texts: units.length,
    characters: units.reduce((sum, { source }) => sum + wordsOf(source).length, 0),
  };
}

export interface ServiceOptions {
  readonly source: string;
  readonly locale: string;
  readonly service: TranslationService;
  /** Texts in one request. */
  readonly perRequest: number;
  readonly progress?: (done: number, of: number) => void;
}

/** Has a service translate entries. What comes back without all of its codes is left out. */
export async function draftByService(
  entries: readonly HandoffEntry[],
  { source, locale, service, perRequest, progress }: ServiceOptions,
): Promise<Pick<Drafts, "locale" | "filled" | "left">> {
  const questions = entries.flatMap((entry) =>
    entry.units.map((unit) => ({ entry, unit, ...questionFor(unit, locale) })),
  );
  const answers = new Map<HandoffUnit, readonly Inline[] | undefined>();
  for (let at = 0; at < questions.length; at += perRequest) {
    const batch = questions.slice(at, at + perRequest);
    progress?.(at, questions.length);
    const terms = new Map(
      batch.flatMap(({ entry }) =>
        entry.about.terms.flatMap(({ source: term, target: [first] }) =>
          first === undefined ? [] : [[term, first] as const],
        ),
      ),
    );
    const answer = await service({
      source,
      target: locale,
      texts: batch.map(({ text }, index) => ({ id: String(at + index), text: serviceText(text) })),
      terms: [...terms].map(([term, target]) => ({ source: term, target })),
    });
    for (const [index, { unit, read }] of batch.entries()) {
      const written = answer.get(String(at + index));
      const inlines = written === undefined ? undefined : readServiceText(written);
      answers.set(unit, inlines && read(inlines));
    }
  }
  const filled: { entry: HandoffEntry; texts: readonly (readonly Inline[])[] }[] = [];
  const left: HandoffEntry[] = [];
  for (const entry of entries) {
    const texts = entry.units.map((unit) => {
      const text = answers.get(unit);
      return text && sameCodes(text, unit.source) ? text : undefined;
    });
    if (texts.every((text) => text !== undefined)) filled.push({ entry, texts });
    else left.push(entry);
  }
  return { locale, filled, left };
}

function sameCodes(one: readonly Inline[], other: readonly Inline[]): boolean {
  return [...codesIn(one)].sort().join("\n") === [...codesIn(other)].sort().join("\n");
}

/** A unit as a sentence: the count of a plural form as a number that takes that form, and put back in the answer. */
function questionFor(
  { source, choices }: HandoffUnit,
  locale: string,
): {
  readonly text: readonly Inline[];
  readonly read: (answer: readonly Inline[]) => readonly Inline[] | undefined;
} {
  let text = source;
  let read = (answer: readonly Inline[]): readonly Inline[] | undefined => answer;
  for (const { name, kind, selector } of choices) {
    if (kind !== "plural" && kind !== "ordinal") continue;
    const times = codesIn(text).filter((code) => code === name).length;
    if (times === 0) continue;
    const number = numberFor(selector, kind === "ordinal" ? "ordinal" : "cardinal", locale);
    const written = [
      number,
      Number(number).toLocaleString(locale),
      Number(number).toLocaleString(`${locale}-u-nu-latn`),
    ];
    const before = read;
    text = withNumber(text, name, number);
    read = (answer) => {
      const inner = before(answer);
      return inner && withoutNumber(inner, name, [...new Set(written)], times);
    };
  }
  return { text, read };
}

/** A number that takes a plural form: a whole one where there is any, and not one that words often stand for. */
function numberFor(selector: string, kind: "cardinal" | "ordinal", locale: string): string {
  if (selector.startsWith("=")) return selector.slice(1);
  const rules = pluralRules(locale, kind);
  const whole = rules.wholeSamples(selector as PluralCategory);
  return String(
    whole.find((one) => one > 2) ?? whole[0] ?? rules.samples(selector as PluralCategory)[0] ?? 5,
  );
}
