import { posix } from "node:path";
import type { Book } from "../catalog/book.js";
import { canonicalTag } from "../locale/tag.js";
import { notices } from "../message/notices.js";
import type { MessageReader } from "../message/parse.js";
import { explainProblem } from "../message/problem-wordings.js";
import type { FileChange, PlanNote } from "../plan/plan.js";
import { lookupShapes, writesTexts } from "../source/book-code.js";
import { bookPieces, literalMessage } from "../source/literal-message.js";
import {
  fixedText,
  type BoundLookup,
  type Literal,
  type Obstacle,
  type SourceFile,
} from "../source/model.js";
import { readImportLine, type ImportLine, type SetupLine } from "../source/readers/script/scopes.js";
import type { OwnHabits } from "../survey/own-habits.js";
import {
  isAtLeast,
  surveyFile,
  type Certainty,
  type LiteralWaivers,
  type SurveyedLiteral,
  type Verdict,
} from "../survey/survey.js";
import type { TextEdit } from "../text/edits.js";
import { separatorsOf } from "../text/separators.js";
import { shortened } from "../text/shorten.js";
import { contains, type Span } from "../text/span.js";
import { lazily } from "../text/lazy.js";
import type { Notice } from "../text/wording.js";
import { labelsOf, type Labels } from "./constant-labels.js";
import { withoutNeedlessLine } from "./class-receiver.js";
import { hostFor, hostOf, templateIn, type Host } from "./hosts.js";
import { keyRequest, ownGroup } from "./key-names.js";
import { deferralOf, type Callers } from "./load-time.js";
import { unproved } from "./proof.js";
import { hostRefusal } from "./host-refusal.js";
import { annotated } from "./literal-place.js";
import type { BookClasses } from "./member-receiver.js";
import { scriptRefusal, templateRefusal } from "./script-refusal.js";
import { boundLookup, type ScriptEmission } from "./script-template.js";
import { ownerRefusal } from "./template-owner.js";
import { effortOf, partOf, rewriteFile, type Effort } from "./rewrite.js";
import { componentScripts, wholeScript, type ScriptPart, type ScriptsNaming } from "./script-parts.js";
import type { UsesElsewhere } from "../source/read-back.js";
import { sentRefusal, type SetsOfUses } from "./sent.js";
import type { Shared } from "./shared.js";

/** What a person decided about one text: to leave it, or its key or message. */
export interface Decision {
  readonly skip?: true;
  readonly key?: string;
  readonly message?: string;
}

export interface ExtractOptions {
  /** Decisions by place, as `file:line:column` or `file:line`. */
  readonly decisions?: ReadonlyMap<string, Decision>;
  /** How sure it must be that a literal is text: `sure` where not given. */
  readonly least?: Certainty;
  /** Whether only texts that have their keys already go to the catalogs, and no file of code changes. */
  readonly collectOnly?: boolean;
  /** How many literals at most. */
  readonly limit?: number;
  /** What is accepted as it is. */
  readonly waivers?: LiteralWaivers;
  /** What names mean in the book's code, where more is known than its configuration says. */
  readonly habits?: OwnHabits | undefined;
  /** The languages whose code has the usual call, where a book names it and says no more; any where not given. */
  readonly usual?: readonly string[] | undefined;
  /** The ends of the paths of scripts that pages load as they are. */
  readonly ofPages?: readonly string[];
  /** What the book's code does elsewhere with its strings, so that no text takes their place. */
  readonly uses?: () => UsesElsewhere;
  /** The book's scripts that a name stands in: without them, constants that hold texts stay. */
  readonly scriptsNaming?: ScriptsNaming;
  /** The classes of the book's code: without them, any method and object is taken to be known. */
  readonly classes?: BookClasses;
}

/** A literal that got a key. */
export interface Replaced {
  readonly file: string;
  readonly line: number;
  readonly column: number;
  readonly key: string;
  readonly message: string;
  /** What the text is: its verdict and reason, and what it stands in, alike for texts of one kind. */
  readonly verdict: Verdict;
  readonly reason: string;
  readonly role: string;
  readonly endLine: number;
  readonly endColumn: number;
  /** The text as the survey has it. */
  readonly text: string;
}

const say = notices("extract", {
  fragment: {
    message: "it is a part of a sentence: its bracket is closed in another text",
    remedy: "put the whole sentence into one text, with its values",
  },
  appended: {
    message: "it goes on with a sentence that begins in what it is appended to",
    remedy: "put the whole sentence into one text for each case, with its values",
  },
  "label-beside": {
    message: "a text of another constant beside it stays in the code",
    remedy: "move that first, or take it as well with --include",
  },
  refused: { message: '"{text}" not extracted: {reason}', remedy: "{fix}" },
  "own-key-escaped": {
    message: 'in the code it would be "{message}", and without values nothing takes the doubled signs away',
    remedy: "write the lookup by hand, with the text as it is",
  },
  "too-long": {
    message: "rewriting this file took too long; some of its texts may be left",
    remedy: "write this plan, then run extract again",
  },
  unparsed: {
    message: "the file does not parse, so nothing in it is rewritten: {detail}",
    remedy: "fix its syntax first",
  },
  "bad-key": {
    message: 'key "{key}" cannot be used: it has another text, is a group, or is inside a text',
    remedy: "choose another key",
  },
  "bad-message": {
    message: 'message "{text}" cannot be used: {why}',
    remedy: 'write a message that says the same as "{meant}"',
  },
  "foreign-locale": {
    message: 'it has a text for "{locale}", which is not a locale of the project',
    remedy: "add the locale with `fond locale add {locale} --write`, or remove that text",
  },
  "no-constant": {
    message: 'the file has no constant "{constant}" for its texts',
    remedy: "write one with the source locale in it, empty",
  },
  "no-near-catalog": {
    message: 'no source catalog for "{key}"',
    remedy:
      'create one beside or above the file; where several are equally near, "naming.home" in the book says which it is',
  },
  "no-catalog": {
    message: 'no source catalog for "{key}"',
    remedy: "fix the source catalog first; `fond lint` lists its problems",
  },
  "mark-without-key": {
    message: '"{text}" is marked, and its mark gives no key',
    remedy: "give it one, or let texts be their own keys (naming.pattern in the book)",
  },
  "two-defaults": {
    message: 'key "{key}" has a different default text here: "{text}"',
    remedy: "make the two the same, or give one of them its own key",
  },
  "no-place": {
    message: 'key "{key}" cannot be added: it is a group, or inside a text',
    remedy: "choose another key for this lookup",
  },
});

/** Whether a text ends in an open bracket, or begins with a closing one: a sentence that several statements put together. */
function isOpen({ pieces }: Literal): boolean {
  const [first] = pieces;
  const last = pieces.at(-1);
  return (
    (last?.kind === "text" && /[\p{L}\p{N}][^\p{L}\p{N}]{0,3}[([{]\s*$/u.test(last.value)) ||
    (first?.kind === "text" && /^\s*[)\]}][\s.,:;]{0,3}\p{L}/u.test(first.value))
  );
}

/** Whether a text is appended to another, and begins with a blank and a small letter, as the rest of a sentence does. */
function goesOn({ span }: Literal, { text }: SourceFile): boolean {
  const before = text.slice(Math.max(span.start - 90, 0), span.start);
  return (
    /^\p{Ll}/u.test(text.slice(span.start, span.start + 2)) &&
    /(?:[+.]=|(?<!<)<<)\s{0,40}\(?\s{0,40}[fFrRuU]{0,2}["'`]\s{1,40}$/.test(before)
  );
}

/** What the extraction of all files goes by, and what they share. */
export interface Extraction {
  readonly book: Book;
  readonly reader: MessageReader;
  readonly options: ExtractOptions;
  readonly imports: readonly ImportLine[];
  readonly setup: SetupLine | undefined;
  readonly shared: Shared;
  /** What the book's code does elsewhere with its strings. */
  readonly uses: () => SetsOfUses;
  /** The places whose decisions were asked for. */
  readonly met: Set<string>;
}

/** What was found in one file, or in one reading of it. */
export interface FileResult {
  /** The file as it was rewritten, read again; undefined where nothing is. */
  readonly rewritten: SourceFile | undefined;
  /** Its change; undefined where nothing is rewritten. */
  readonly change: FileChange | undefined;
  readonly extracted: readonly Replaced[];
  readonly notes: readonly PlanNote[];
  /** Texts that are left because they are likely, not sure. */
  readonly likely: ReadonlySet<string>;
  /** Whether a script, or one in a component, was rewritten. */
  readonly hasScripts: boolean;
  /** The constants of the file that have become functions, with the scripts that read them. */
  readonly callers: readonly Callers[];
  /** Whether time ran out on it, so that another run may find more. */
  readonly isLate: boolean;
}

/**
 * Rewrites that fail are found by trying, and each try reads the file again. After so many code units read, or so many times the
 * file, the rest is left to a person: on every machine the same.
 */
const mostRead = 1_200_000;
const mostReadings = 12;

/** Takes the texts of a file, and what its lookups show to be text then, until there is no more: a second run has nothing left to take. */
export function extractFile(job: Extraction, source: SourceFile, room: number): FileResult {
  const effort = effortOf(Math.max(mostRead, mostReadings * source.text.length));
  const first = extractOnce(job, source, room, effort);
  const extracted = [...first.extracted];
  const notes = [...first.notes];
  const likely = new Set(first.likely);
  const callers = [...first.callers];
  let { rewritten, hasScripts, isLate } = first;
  // Places in the rewritten file are not those that a person decided on.
  let current = isDecidedOn(job.options, source.file) ? undefined : rewritten;
  while (current) {
    if (effort.isSpent) {
      notes.push(noteAt(source, { start: 0, end: 0 }, say("too-long", {})));
      break;
    }
    // What stays was said of in the first round.
    const next = extractOnce(job, current, room - extracted.length, effort);
    extracted.push(...next.extracted);
    for (const text of next.likely) likely.add(text);
    callers.push(...next.callers);
    rewritten = next.rewritten ?? rewritten;
    hasScripts ||= next.hasScripts;
    isLate ||= next.isLate;
    current = next.rewritten;
  }
  const { file, text: before, bom } = source;
  const change = rewritten && { file, before, after: rewritten.text, bom };
  // The file as it was read again would be kept for all files until the end.
  return { rewritten: undefined, change, extracted, notes, likely, hasScripts, callers, isLate };
}

/** Whether a person decided on a text of a file. */
export function isDecidedOn({ decisions }: ExtractOptions, file: string): boolean {
  return [...(decisions?.keys() ?? [])].some((place) => place.startsWith(`${file}:`));
}

/** Takes the texts of a file as it is read. */
function extractOnce(job: Extraction, source: SourceFile, room: number, effort: Effort): FileResult {
  effort.spend(source.text.length);
  const notes: PlanNote[] = [];
  const likely = new Set<string>();
  let isLate = false;
  const nothing = (): FileResult => ({
    rewritten: undefined,
    change: undefined,
    extracted: [],
    notes,
    likely,
    hasScripts: false,
    callers: [],
    isLate,
  });
  const [problem] = source.problems;
  if (problem) {
    notes.push(noteAt(source, problem.span, say("unparsed", { detail: problem.message })));
    return nothing();
  }
  notes.push(...collectDefaults(job, source));
  notes.push(...collectMarked(job, source));
  if (job.options.collectOnly) return nothing();
  if (room <= 0) return nothing();
  const { config } = job.book;
  const habits = job.options.habits ?? config.habits;
  const surveyed = surveyFile(source, config.name, job.reader, habits, job.options.waivers);
  if (surveyed.stopped) {
    notes.push(noteAt(source, surveyed.stopped.span, surveyed.stopped));
    isLate = true;
  }
  const least = job.options.least ?? "sure";
  for (const one of surveyed.literals)
    if (one.verdict === "text" && one.waived === undefined && !isAtLeast(one, least))
      likely.add(`${source.file}:${one.text}`);
  const candidates = surveyed.literals.filter((literal) => {
    const decision = decisionOn(job, literal);
    return (
      (decision?.key !== undefined || isAtLeast(literal, least)) &&
      literal.waived === undefined &&
      // What a mark gives a key is found by that, and stays.
      (literal.literal.isMarked !== true || literal.literal.key === undefined) &&
      !decision?.skip
    );
  });
  if (candidates.length === 0) return nothing();
  const host = withoutNeedlessLine(
    hostOf(source, config, job.options.usual),
    source.text,
    job.options.classes,
  );
  const parts = host.kind === "script" ? [wholeScript(source)] : componentScripts(source);
  const emission = emissionFor(job, source.file);
  const group = lazily(() => groupOf(source, job));
  const chosen = writable(job, source, candidates, { host, parts, emission, notes })
    .slice(0, room)
    .flatMap(({ found, ...deferred }) => {
      const choice = choiceOf(
        job,
        source,
        found,
        boundLookup(source, partOf(parts, found.literal), found.literal),
        group,
      );
      if ("key" in choice) return [{ ...choice, ...deferred }];
      notes.push(choice.note);
      return [];
    });
  // What is written must not make it another dialect's page.
  const shapes = { ...lookupShapes(config, job.book.sourceLocale), dialect: () => source.dialect };
  const { result, refused } = rewriteFile({ source, host, parts, emission, shapes, effort }, chosen);
  for (const { item, why } of refused) notes.push(noteRefused(source, item.found, why));
  if (!result) return nothing();
  for (const one of result.written) addToCatalogs(job, one);
  return {
    ...nothing(),
    rewritten: result.again,
    extracted: result.written.map(extractedOf),
    hasScripts: parts.length > 0,
    callers: result.written.flatMap(({ callers }) => callers ?? []),
  };
}

/** Default texts that lookups carry go to the catalog, where it has none under their keys; so do those that are keys themselves. */
function collectDefaults({ book, shared }: Extraction, source: SourceFile): PlanNote[] {
  const { namespace } = separatorsOf(book.config);
  const isTextKey = book.config.naming.pattern === "{text}";
  return source.lookups.flatMap(({ key, keySpan, defaultText: given, note }): PlanNote[] => {
    const defaultText = given ?? (isTextKey && key.kind === "fixed" ? key.value : undefined);
    if (key.kind !== "fixed" || defaultText === undefined || defaultText === "") return [];
    if (shared.textOf(key.value) !== undefined) return [];
    const known = shared.defaultOf(key.value);
    if (known === defaultText) return [];
    if (known !== undefined)
      return [noteAt(source, keySpan, say("two-defaults", { key: key.value, text: shortened(defaultText) }))];
    if (book.layout.hasNamespaces && !key.value.includes(namespace)) return [];
    const place = { key: key.value, file: source.file };
    if (!shared.hasRoomFor(place)) return [];
    if (!shared.collect(place, defaultText, note))
      return [noteAt(source, keySpan, say("no-place", { key: key.value }))];
    return [];
  });
}

/** Texts that a template marks with their keys go to the catalog, where it has none under them. */
function collectMarked(job: Extraction, source: SourceFile): PlanNote[] {
  const { book, reader, shared } = job;
  return source.literals.flatMap((literal): PlanNote[] => {
    const { note, span, isMarked } = literal;
    if (!isMarked) return [];
    const text = literal.written ?? literalMessage(bookPieces(literal.pieces, reader), reader);
    if (text === undefined || text.trim() === "") return [];
    // Where texts are their own keys, a mark needs to give none.
    const key = literal.key ?? (book.config.naming.pattern === "{text}" ? text : undefined);
    if (key === undefined && !job.options.collectOnly) return [];
    if (key === undefined) return [noteAt(source, span, say("mark-without-key", { text: shortened(text) }))];
    const known = shared.textOf(key) ?? shared.defaultOf(key);
    if (known === text) return [];
    if (known !== undefined)
      return [noteAt(source, span, say("two-defaults", { key, text: shortened(text) }))];
    const place = { key, file: source.file };
    if (!shared.hasRoomFor(place)) return [noteAt(source, span, say("no-catalog", { key }))];
    if (!shared.collect(place, text, note)) return [noteAt(source, span, say("no-place", { key }))];
    return [];
  });
}

/** A text that can be written, with what else changes for it. */
interface Writable extends Pick<Choice, "deferral" | "callers" | "labels"> {
  readonly found: SurveyedLiteral;
}

/** Those of a file's texts that can be written where they stand; of the others it is noted why not. */
function writable(
  { book, reader, options, uses }: Extraction,
  source: SourceFile,
  candidates: readonly SurveyedLiteral[],
  {
    host,
    parts,
    emission,
    notes,
  }: {
    readonly host: Host;
    readonly parts: readonly ScriptPart[];
    readonly emission: ScriptEmission;
    readonly notes: PlanNote[];
  },
): readonly Writable[] {
  const refused: Span[] = [];
  const taken = new Set(candidates.map(({ literal }) => literal.span.start));
  const ofOwner = lazily(() => ownerRefusal(source, host.content, options.scriptsNaming));
  return candidates
    .map((found) => withArgumentNames(found, reader))
    .flatMap((found): Writable[] => {
      const { literal } = found;
      // The words inside a sentence that stays are not refused once more.
      if (refused.some((span) => contains(span, literal.span))) return [];
      const part = partOf(parts, literal);
      const by = boundLookup(source, part, literal);
      const own = hostFor(host, literal);
      const isEarly = literal.context.atLoad && !by && !(part ? book.config.emit.atLoad : own.atLoad);
      const deferral =
        part && isEarly && !part.runsPerUse
          ? deferralOf(part, source, literal, emission.scriptsNaming)
          : undefined;
      const edits = deferral && "edits" in deferral ? deferral.edits : undefined;
      const late = edits ? { ...literal, context: { ...literal.context, atLoad: false } } : literal;
      const labels = part || !isEarly ? undefined : labelsOf(source, literal, host);
      if (labels && "members" in labels && labels.members.every((one) => taken.has(one.span.start))) {
        if (!foreignLocale(literal, book)) return [{ found, labels }];
      }
      const annotation = annotated(literal, host);
      const why =
        (annotation ? undefined : literal.obstacle) ??
        foreignLocale(literal, book) ??
        (isOpen(literal) ? say("fragment", {}) : undefined) ??
        (goesOn(literal, source) ? say("appended", {}) : undefined) ??
        sentRefusal(literal, source, uses) ??
        (labels && "members" in labels ? say("label-beside", {}) : labels) ??
        (part
          ? ((deferral && "refusal" in deferral ? deferral.refusal : undefined) ??
            scriptRefusal(late, part, emission, by, source.bound))
          : annotation
            ? undefined
            : (hostRefusal(literal, source, own, reader, options.classes) ??
              ofOwner() ??
              templateRefusal(
                source,
                templateIn(own, "content", literal, true) ?? own.content ?? own.call,
                parts,
                emission,
              )));
      const callers = deferral && "edits" in deferral ? deferral.callers : undefined;
      if (!why) return [{ found, ...(edits && { deferral: edits }), ...(callers && { callers }) }];
      refused.push(literal.span);
      notes.push(noteRefused(source, found, why));
      return [];
    });
}

/** A literal with its arguments named as the book's messages name them. */
function withArgumentNames(found: SurveyedLiteral, reader: MessageReader): SurveyedLiteral {
  const { literal } = found;
  return { ...found, literal: { ...literal, pieces: bookPieces(literal.pieces, reader) } };
}

/** A literal that has its key, waiting for its place in the code to be written. */
interface Choice {
  readonly found: SurveyedLiteral;
  readonly literal: SurveyedLiteral["literal"];
  readonly key: string;
  /** The lookup that the file makes itself, which takes the key. */
  readonly by?: BoundLookup;
  readonly deferral?: readonly TextEdit[];
  readonly callers?: Callers;
  readonly labels?: Labels;
}

/** A literal's message and key: what a person decided, or what is proved and named here. */
function choiceOf(
  job: Extraction,
  source: SourceFile,
  found: SurveyedLiteral,
  by: BoundLookup | undefined,
  group: () => string | undefined,
): Choice | { readonly note: PlanNote } {
  const { book, reader, shared } = job;
  const { literal } = found;
  const { file } = source;
  const decision = decisionOn(job, found);
  const message = decision?.message ?? found.message;
  const refuse = (notice: Notice) => ({ note: noteAt(source, literal.span, notice) });
  if (decision?.message === undefined) {
    const unsafe = unproved(literal, message, reader, book.sourceLocale);
    if (unsafe) return { note: noteRefused(source, found, unsafe) };
    // A text that stands in the code, as its own key or beside it, comes back as it is where nothing is filled in.
    const isPlain = literal.pieces.every(({ kind }) => kind === "text");
    // Blanks between the lines of a page are one to its readers.
    const said = (text: string) => text.replace(/\s+/g, " ").trim();
    if (
      (book.config.naming.pattern === "{text}" || writesTexts(book.config)) &&
      isPlain &&
      said(message) !== said(fixedText(literal.pieces))
    )
      return { note: noteRefused(source, found, say("own-key-escaped", { message: shortened(message) })) };
  } else {
    const why = wrongMessage(message, found.message, reader);
    if (why !== undefined)
      return refuse(say("bad-message", { text: shortened(message), why, meant: shortened(found.message) }));
  }
  const key =
    decision?.key === undefined
      ? shared.nameFor(keyRequest(literal, { file, message, under: by?.prefix ?? group() }))
      : shared.given(decision.key, message);
  if (key === undefined) return refuse(say("bad-key", { key: decision?.key ?? "" }));
  if (!shared.hasRoomFor({ key, file })) {
    const { hasParts, hasNamespaces } = book.layout;
    const { constant } = book.config;
    if (constant !== undefined) return refuse(say("no-constant", { constant }));
    return refuse(hasParts && !hasNamespaces ? say("no-near-catalog", { key }) : say("no-catalog", { key }));
  }
  // A key that a person chose may be outside of what the file's own lookup reaches.
  const own = by && key.startsWith(by.prefix) ? by : undefined;
  return { found: { ...found, message }, literal, key, ...(own && { by: own }) };
}

function decisionOn(
  { options: { decisions }, met }: Extraction,
  { file, line, column }: SurveyedLiteral,
): Decision | undefined {
  const place = [`${file}:${line}:${column}`, `${file}:${line}`].find((one) => decisions?.has(one));
  if (place === undefined) return undefined;
  met.add(place);
  return decisions?.get(place);
}

/** What is wrong with a message that is to stand for another; undefined where it takes the same values. */
function wrongMessage(message: string, proposed: string, reader: MessageReader): string | undefined {
  const [problem] = reader.read(message).problems;
  if (problem) return explainProblem(problem).message;
  const names = (text: string) => {
    const { facts } = reader.read(text);
    return [...facts.arguments.keys(), ...[...facts.tags.keys()].map((tag) => `<${tag}>`)].sort();
  };
  const meant = names(proposed);
  const unknown = names(message).find((name) => !meant.includes(name));
  return unknown === undefined ? undefined : `the code passes no "${unknown}"`;
}

/** How a file's scripts write lookups. */
function emissionFor({ book, reader, imports, setup, options }: Extraction, file: string): ScriptEmission {
  const { config } = book;
  const own = config.emit.endings?.[posix.extname(file)];
  const line = own?.import === undefined ? undefined : readImportLine(own.import);
  const { atLoad = config.emit.atLoad } = own ?? {};
  const emit = { ...config.emit, ...own, atLoad: atLoad === true };
  return {
    book: own ? { ...config, emit } : config,
    reader,
    imports: line ? [line] : imports,
    setup,
    scriptsNaming: options.scriptsNaming,
    ofPages: options.ofPages ?? [],
  };
}

/** A translation beside a text in a locale that the project does not have. */
function foreignLocale({ translations }: Literal, book: Book): Obstacle | undefined {
  const foreign = translations?.find(({ locale }) => targetOf(book, locale) === undefined);
  return foreign && say("foreign-locale", { locale: foreign.locale });
}

/** The target locale that code means by a tag: itself, or the only one of its language. */
function targetOf({ targetLocales }: Book, written: string): string | undefined {
  const tag = canonicalTag(written.replaceAll("_", "-")) ?? written;
  if (targetLocales.includes(tag)) return tag;
  const alike = targetLocales.filter((one) => one.split("-", 1)[0] === tag.split("-", 1)[0]);
  return alike.length === 1 ? alike[0] : undefined;
}

/** A text that was replaced, and the translations that stood beside it in code, go to their catalogs. */
function addToCatalogs({ book, reader, shared }: Extraction, { found, literal, key }: Choice): void {
  const place = { key, file: found.file };
  shared.addSource(place, found.message, literal.note);
  for (const { locale: written, pieces } of literal.translations ?? []) {
    const locale = targetOf(book, written);
    const text = literalMessage(bookPieces(pieces, reader), reader);
    if (locale !== undefined && text !== undefined) shared.addTranslation(place, locale, text);
  }
}

function extractedOf({ found, key }: Choice): Replaced {
  const { file, line, column, endLine, endColumn, message, verdict, reason, text, context } = found;
  const role = [context.role, context.element, context.name].filter(Boolean).join(" ");
  return {
    ...{ file, line, column, key, message },
    ...{ verdict, reason, role, endLine, endColumn, text },
  };
}

/** The group in which a file's own keys stand, where the book says nothing of how keys are named. */
function groupOf(source: SourceFile, { book, shared }: Extraction): string | undefined {
  if (book.config.naming.pattern !== undefined) return undefined;
  const keys = source.lookups.flatMap(({ key }) =>
    key.kind === "fixed" && shared.textOf(key.value) !== undefined ? [key.value] : [],
  );
  return ownGroup(source.file, [...new Set(keys)], separatorsOf(book.config));
}

/** Says why a text is not extracted, under the id of the reason. */
function noteRefused(source: SourceFile, { literal, text: whole }: SurveyedLiteral, why: Notice): PlanNote {
  const text = shortened(whole);
  const said = say("refused", { text, reason: why.message, fix: why.remedy });
  const { messageId, data } = why;
  return noteAt(source, literal.span, { ...said, messageId, data: { ...data, text, reason: why.message } });
}

function noteAt(source: SourceFile, span: Span, notice: Notice): PlanNote {
  const { messageId, data, message, remedy } = notice;
  const place = { file: source.file, ...source.lines.position(span.start) };
  return { ...place, messageId, data, message, remedy, undone: "refused" };
}
