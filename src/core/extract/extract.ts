import { explainProblem } from "../message/problem-wordings.js";
import { notices } from "../message/notices.js";
import type { Notice } from "../text/wording.js";
import { separatorsOf } from "../text/separators.js";
import { posix } from "node:path";
import { catalogEdits, isWhole, type Book, type Catalog } from "../catalog/book.js";
import { formatOf } from "../catalog/formats/index.js";
import { localeInside, viewOf } from "../catalog/view.js";
import type { EntryPath, PathText } from "../catalog/model.js";
import type { BookConfig } from "../config/schema.js";
import type { MessageReader } from "../message/parse.js";
import { makePlan, type FileChange, type Plan, type PlanNote } from "../plan/plan.js";
import { bookPieces, literalMessage } from "../source/literal-message.js";
import { lookupShapes } from "../source/book-code.js";
import { canonicalTag } from "../locale/tag.js";
import type { Literal, Piece, SourceFile } from "../source/model.js";
import { readSource } from "../source/read.js";
import {
  readImportLine,
  readSetupLine,
  type ImportLine,
  type SetupLine,
} from "../source/readers/script/scopes.js";
import {
  isAtLeast,
  surveyFile,
  type Certainty,
  type LiteralWaivers,
  type SurveyedLiteral,
  type Verdict,
} from "../survey/survey.js";
import { applyIfApart, type TextEdit } from "../text/edits.js";
import type { Span } from "../text/span.js";
import { componentScripts, wholeScript, type ScriptPart } from "./script-parts.js";
import { namesCalled, scriptEdits, scriptRefusal, type ScriptEmission } from "./rewrite-script.js";
import { hostOf, type Host } from "./hosts.js";
import { hostEdits, hostRefusal, lostInRewrite } from "./rewrite-host.js";
import { importLineEdit } from "./import-line.js";
import { unproved } from "./proof.js";
import { keyNamer, type KeyNamer } from "./key-names.js";

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
  /** How many literals at most. */
  readonly limit?: number;
  /** What is accepted as it is. */
  readonly waivers?: LiteralWaivers;
}

/** A literal that got a key. */
export interface Extracted {
  readonly file: string;
  readonly line: number;
  readonly column: number;
  readonly key: string;
  readonly message: string;
  /** False where the catalog had the text under this key already. */
  readonly isNew: boolean;
  /** What the text is: its verdict and reason, and what it stands in, alike for texts of one kind. */
  readonly verdict: Verdict;
  readonly reason: string;
  readonly role: string;
  readonly endLine: number;
  readonly endColumn: number;
  /** The text as the survey has it. */
  readonly text: string;
}

export interface ExtractPlan extends Plan {
  /** Places that were decided on and have no text. */
  readonly idleDecisions: readonly string[];
  readonly extracted: readonly Extracted[];
}

/**
 * Plans the extraction of a book's text: keys, entries in the source catalogs, and lookups in the code's place.
 * A literal that cannot be replaced safely stays and is noted with the reason. Every rewritten file is parsed
 * again, and its new lookups found again, before it becomes part of the plan.
 */
export function planExtract(
  book: Book,
  sources: Iterable<SourceFile>,
  reader: MessageReader,
  options: ExtractOptions = {},
): ExtractPlan {
  const run = new Extraction(book, reader, options);
  for (const source of sources) run.file(source);
  return run.plan();
}

/** A literal that has its key, waiting for its place in the code to be written. */
interface Chosen {
  readonly found: SurveyedLiteral;
  readonly key: string;
  readonly isNew: boolean;
}

/** One with its literal at hand, as writers take it. */
interface KeyedChoice extends Chosen {
  readonly literal: Literal;
}

function keyedOf(chosen: readonly Chosen[]): KeyedChoice[] {
  return chosen.map((one) => ({ ...one, literal: one.found.literal }));
}

const say = notices("extract", {
  refused: { message: '"{text}" not extracted: {reason}', remedy: "{fix}" },
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
  "no-near-catalog": {
    message: 'no source catalog for "{key}"',
    remedy: "create one beside or above the file; where several are equally near, none is chosen",
  },
  "no-catalog": {
    message: 'no source catalog for "{key}"',
    remedy: "fix the source catalog first; `fond lint` lists its problems",
  },
  "two-defaults": {
    message: 'key "{key}" has a different default text here: "{text}"',
    remedy: "make the two the same, or give one of them its own key",
  },
  "no-place": {
    message: 'key "{key}" cannot be added: it is a group, or inside a text',
    remedy: "choose another key for this lookup",
  },
  "too-slow": { message: "checking the rewritten file takes too long", remedy: "move it by hand" },
  overlap: { message: "it would be written twice in one place", remedy: "move it by hand" },
  "idle-import": {
    message: "emit.import is for scripts, and no script was rewritten",
    remedy: 'set the line for other files under emit.endings, for example "{ending}"',
  },
});

/** Rewrites that fail are found by trying, and each try reads the file again: after so many milliseconds the rest is left to a person. */
const longestRewrite = 3_000;
const nothingDone: Edited = { edits: [], done: new Set<KeyedChoice>() };

/** The edits of a file, and which of its texts they write. */
interface Edited {
  readonly edits: TextEdit[];
  readonly done: ReadonlySet<KeyedChoice>;
}

class Extraction {
  private readonly namer: KeyNamer;
  private readonly config: BookConfig;
  private readonly imports: readonly ImportLine[];
  private readonly setup: SetupLine | undefined;
  private readonly changes: FileChange[] = [];
  private readonly notes: PlanNote[] = [];
  private readonly extracted: Extracted[] = [];
  /** The default texts that were taken from lookups, by key. */
  private readonly collected = new Map<string, string>();
  private readonly additions = new Map<string, PathText[]>();
  /** The file that was rewritten last, as it is read then. */
  private rewritten: SourceFile | undefined = undefined;
  /** The file at hand. */
  private current = "";
  /** Whether a script, or one in a component, was rewritten. */
  private hasScripts = false;
  /** When the work on it ends, in ms. */
  private deadline = 0;
  /** Texts that are left because they are likely, not sure. */
  private readonly likely = new Set<string>();
  /** The places whose decisions were asked for. */
  private readonly met = new Set<string>();
  /** Translations that code held beside its texts, by catalog. */
  private readonly translated = new Map<Catalog, PathText[]>();

  constructor(
    private readonly book: Book,
    private readonly reader: MessageReader,
    private readonly options: ExtractOptions,
  ) {
    this.config = book.config;
    const existing = new Map<string, string>();
    for (const catalog of this.sourceCatalogs())
      for (const [key, entry] of catalog.byKey)
        existing.set(book.codeKey(catalog.namespace, key), entry.text);
    this.namer = keyNamer(book.config, separatorsOf(book.config), existing);
    const lines = book.config.emit.import ?? [];
    this.setup = book.config.emit.setup === undefined ? undefined : readSetupLine(book.config.emit.setup);
    this.imports = (typeof lines === "string" ? [lines] : lines).flatMap(
      (line) => readImportLine(line) ?? [],
    );
  }

  /** Takes the texts of a file, and what its lookups show to be text then, until there is no more: a second run has nothing left to take. */
  file(source: SourceFile): void {
    this.current = source.file;
    this.deadline = performance.now() + longestRewrite;
    let current = source;
    for (let isRepeated = false; ; isRepeated = true) {
      const before = this.extracted.length;
      this.round(current, isRepeated);
      // Places in the rewritten file are not those that a person decided on.
      if (this.extracted.length === before || this.options.decisions?.size) return;
      if (performance.now() > this.deadline) {
        this.noteAt(source, { start: 0, end: 0 }, say("too-long", {}));
        return;
      }
      const { rewritten } = this;
      if (rewritten?.file !== source.file) return;
      current = rewritten;
    }
  }

  private round(source: SourceFile, isRepeated: boolean): void {
    const notes = this.notes.length;
    this.texts(source);
    // What stays was said of in the first round.
    if (isRepeated) this.notes.splice(notes);
  }

  private texts(source: SourceFile): void {
    const [problem] = source.problems;
    if (problem) {
      this.noteAt(source, problem.span, say("unparsed", { detail: problem.message }));
      return;
    }
    this.defaults(source);
    const room = (this.options.limit ?? Infinity) - this.extracted.length;
    if (room <= 0) return;
    const least = this.options.least ?? "sure";
    const surveyed = surveyFile(
      source,
      this.config.name,
      this.reader,
      this.config.habits,
      this.options.waivers,
    );
    const { stopped } = surveyed;
    for (const one of surveyed.literals)
      if (one.verdict === "text" && one.waived === undefined && !isAtLeast(one, least))
        this.likely.add(`${source.file}:${one.text}`);
    if (stopped) this.noteAt(source, stopped.span, stopped);
    const candidates = surveyed.literals.filter(
      (literal) =>
        (this.decisionOn(literal)?.key !== undefined || isAtLeast(literal, least)) &&
        literal.waived === undefined &&
        !this.decisionOn(literal)?.skip,
    );
    if (candidates.length === 0) return;
    const host = hostOf(source, this.config);
    const whole = host.kind === "script" ? wholeScript(source) : undefined;
    const parts = whole ? [] : componentScripts(source);
    const partOf = ({ span }: Literal) => whole ?? parts.find((part) => contains(part.span, span));
    const emission = this.emission(source.file);
    const refused: Span[] = [];
    const usable = candidates
      .map((found) => this.named(found))
      .filter((found) => {
        // The words inside a sentence that stays are not refused once more.
        if (refused.some((span) => contains(span, found.literal.span))) return false;
        const part = partOf(found.literal);
        const why = part
          ? scriptRefusal(found.literal, part, emission)
          : hostRefusal(found.literal, source, host, this.reader, this.config.emit.atLoad);
        if (!why) return true;
        refused.push(found.literal.span);
        this.noteRefused(source, found, why);
        return false;
      });
    usable.splice(Math.max(room, 0));
    const chosen: Chosen[] = [];
    for (const found of usable) {
      const decision = this.decisionOn(found);
      const message = decision?.message ?? found.message;
      const unsafe =
        decision?.message === undefined
          ? unproved(found.literal, message, this.reader, this.book.sourceLocale)
          : undefined;
      if (unsafe) {
        this.noteRefused(source, found, unsafe);
        continue;
      }
      const wrong =
        decision?.message === undefined ? undefined : this.wrongMessage(decision.message, found.message);
      const named =
        decision?.key === undefined
          ? this.namer.nameFor({ file: source.file, literal: found.literal, message })
          : this.namer.given(decision.key, message);
      if (wrong !== undefined || !named) {
        this.noteAt(
          source,
          found.literal.span,
          wrong === undefined
            ? say("bad-key", { key: decision?.key ?? "" })
            : say("bad-message", { text: shorten(message), why: wrong, meant: shorten(found.message) }),
        );
        continue;
      }
      const { fullKey, isNew } = named;
      if (!this.hasRoomFor(fullKey)) {
        const { hasParts, hasNamespaces } = this.book.layout;
        this.noteAt(
          source,
          found.literal.span,
          hasParts && !hasNamespaces
            ? say("no-near-catalog", { key: fullKey })
            : say("no-catalog", { key: fullKey }),
        );
        continue;
      }
      chosen.push({ found: { ...found, message }, key: fullKey, isNew });
    }
    const editsFor = (items: readonly KeyedChoice[]): Edited =>
      whole
        ? { edits: scriptEdits(items, whole, emission), done: new Set(items) }
        : this.hostAndScriptEdits(items, source, host, parts);
    this.rewrite(source, chosen, editsFor, whole !== undefined || parts.length > 0);
  }

  /** Default texts that lookups carry go to the catalog, where it has none under their keys. */
  private defaults(source: SourceFile): void {
    for (const { key, keySpan, defaultText, note } of source.lookups) {
      if (key.kind !== "fixed" || defaultText === undefined || defaultText === "") continue;
      if (this.book.resolve(key.value)?.entry) continue;
      const collected = this.collected.get(key.value);
      if (collected !== undefined) {
        if (collected !== defaultText)
          this.noteAt(source, keySpan, say("two-defaults", { key: key.value, text: shorten(defaultText) }));
        continue;
      }
      const { namespace } = separatorsOf(this.config);
      if (this.book.layout.hasNamespaces && !key.value.includes(namespace)) continue;
      if (!this.hasRoomFor(key.value)) continue;
      if (!this.namer.reserve(key.value, defaultText)) {
        this.noteAt(source, keySpan, say("no-place", { key: key.value }));
        continue;
      }
      this.collected.set(key.value, defaultText);
      this.addEntry(key.value, defaultText, note);
    }
  }

  plan(): ExtractPlan {
    const edits = catalogEdits();
    for (const catalog of this.sourceCatalogs()) {
      const added = this.additions.get(catalog.namespace ?? "");
      if (added)
        edits.edit(catalog, {
          add: added,
          order: [...catalog.entries.map((entry) => entry.path), ...added.map(({ path }) => path)],
        });
      this.additions.delete(catalog.namespace ?? "");
    }
    for (const [catalog, add] of this.translated) edits.edit(catalog, { add });
    this.changes.push(...edits.changes());
    const { layout, sourceLocale } = this.book;
    for (const [namespace, added] of this.additions) {
      const file = layout.path(sourceLocale, layout.hasParts ? namespace : undefined);
      const format = formatOf(this.config);
      const view = viewOf(localeInside(this.config), layout.spell(sourceLocale));
      const add = added.map(({ path, ...rest }) => ({ ...rest, path: view.toFile(path) }));
      this.changes.push({ file, before: undefined, after: format.edit(format.empty, { add }) });
    }
    const files = new Set(this.extracted.map(({ file }) => file)).size;
    const fresh = new Set(this.extracted.filter(({ isNew }) => isNew).map(({ key }) => key)).size;
    const summary: Record<string, number> = {
      ...(this.extracted.length > 0 && {
        "texts replaced": this.extracted.length,
        "files rewritten": files,
        "keys added": fresh,
      }),
      ...(this.translated.size > 0 && {
        "translations taken along": [...this.translated.values()].reduce((sum, list) => sum + list.length, 0),
      }),
      ...(this.collected.size > 0 && { "default texts collected": this.collected.size }),
      ...(this.likely.size > 0 && { "likely texts left": this.likely.size }),
    };
    this.noteIdleImport();
    const idleDecisions = [...(this.options.decisions?.keys() ?? [])].filter((place) => !this.met.has(place));
    return { ...makePlan(this.changes, summary, this.notes), extracted: this.extracted, idleDecisions };
  }

  /** An import line of the book that no rewritten file had a script to take it into. */
  private noteIdleImport(): void {
    const [first] = this.extracted;
    if (this.imports.length === 0 || first === undefined || this.hasScripts) return;
    this.notes.push({
      file: first.file,
      ...say("idle-import", { ending: posix.extname(first.file) }),
    });
  }

  private sourceCatalogs(): readonly Catalog[] {
    return this.book.catalogsOf(this.book.sourceLocale);
  }

  private decisionOn({ file, line, column }: SurveyedLiteral): Decision | undefined {
    const { decisions } = this.options;
    const place = [`${file}:${line}:${column}`, `${file}:${line}`].find((one) => decisions?.has(one));
    if (place === undefined) return undefined;
    this.met.add(place);
    return decisions?.get(place);
  }

  /** What is wrong with a message that is to stand for another; undefined where it takes the same values. */
  private wrongMessage(message: string, proposed: string): string | undefined {
    const read = this.reader.read(message);
    const [problem] = read.problems;
    if (problem) return explainProblem(problem).message;
    const names = (text: string) => {
      const { facts } = this.reader.read(text);
      return [...facts.arguments.keys(), ...[...facts.tags.keys()].map((tag) => `<${tag}>`)].sort();
    };
    const [own, meant] = [names(message), names(proposed)];
    const unknown = own.find((name) => !meant.includes(name));
    return unknown === undefined ? undefined : `the code passes no "${unknown}"`;
  }

  /** A literal with its arguments named as the book's messages name them. */
  private named(found: SurveyedLiteral): SurveyedLiteral {
    const { literal } = found;
    return { ...found, literal: { ...literal, pieces: bookPieces(literal.pieces, this.reader) } };
  }

  private emission(file: string): ScriptEmission {
    const { config, reader, imports, setup } = this;
    const own = config.emit.endings?.[posix.extname(file)];
    const line = own?.import === undefined ? undefined : readImportLine(own.import);
    return {
      book: own ? { ...config, emit: { ...config.emit, ...own } } : config,
      reader,
      imports: line ? [line] : imports,
      setup,
      hasLocale: (tag) => this.targetOf(tag) !== undefined,
    };
  }

  /** Rewrites a file. What is read again must ask for each key, and hold all else that it held; what cannot be written so stays. */
  private rewrite(
    source: SourceFile,
    chosen: readonly Chosen[],
    editsFor: (items: readonly KeyedChoice[]) => Edited,
    hasScripts: boolean,
  ): void {
    // What is written must not make it another dialect's page.
    const shapes = { ...lookupShapes(this.config, this.book.sourceLocale), dialect: () => source.dialect };
    const keyed = keyedOf(chosen);
    let attempts = 0;
    const attempt = (items: typeof keyed) => {
      // One try is always had: nearly all files need no other.
      const isOver = ++attempts > 1 && performance.now() > this.deadline;
      const { edits, done } = isOver ? nothingDone : editsFor(items);
      const after = isOver ? undefined : applyIfApart(source.text, edits);
      if (after === undefined)
        return {
          after: "",
          again: source,
          written: [],
          lost: isOver ? say("too-slow", {}) : say("overlap", {}),
        };
      const written = items.filter((one) => done.has(one));
      const again = readSource(source.file, after, source.bom, shapes);
      return { after, again, written, lost: lostInRewrite(source, again, written) };
    };
    /** Those that can be written, found by halving: what cannot keeps its place, and is reported. */
    const workable = (items: typeof keyed): typeof keyed => {
      if (items.length === 0) return [];
      const { lost } = attempt(items);
      if (lost === undefined) return items;
      const [first, second] = items;
      if (first && second) {
        const half = Math.ceil(items.length / 2);
        const kept = workable(items.slice(0, half));
        const rest = workable(items.slice(half));
        const both = [...kept, ...rest];
        return both.length === items.length || attempt(both).lost !== undefined ? kept : both;
      }
      if (first) this.noteRefused(source, first.found, lost);
      return [];
    };
    const items = workable(keyed);
    if (items.length === 0) return;
    const { after, again, written, lost } = attempt(items);
    if (lost !== undefined || written.length === 0) return;
    this.hasScripts ||= hasScripts;
    this.accept(source, written, after, again);
  }

  /** The edits of a template, and of the scripts in it: what brings the lookups in goes into the script for both. */
  private hostAndScriptEdits(
    items: readonly KeyedChoice[],
    source: SourceFile,
    host: Host,
    parts: readonly ScriptPart[],
  ): Edited {
    const inside = (one: KeyedChoice) => parts.find(({ span }) => contains(span, one.literal.span));
    const inTemplate = items.filter((one) => inside(one) === undefined);
    const { edits, done } = hostEdits(inTemplate, source, host);
    const finished = new Set(done);
    const line =
      host.importLine !== undefined && items.length > 0
        ? importLineEdit(host.language, source.text, host.importLine)
        : undefined;
    if (line) edits.push(line);
    const instance = parts.find(({ runsPerUse }) => runsPerUse);
    for (const part of parts) {
      const own = items.filter((one) => inside(one) === part);
      for (const one of own) finished.add(one);
      const templates = part === instance && inTemplate.length > 0 ? [host.content, host.attribute] : [];
      const called = templates.flatMap((template) => namesCalled(template ?? ""));
      edits.push(...scriptEdits(own, part, this.emission(source.file), called));
    }
    return { edits, done: finished };
  }

  /** Takes a rewritten file and the keys that it asks for into the plan. */
  private accept(source: SourceFile, chosen: readonly Chosen[], after: string, again: SourceFile): void {
    this.rewritten = again;
    const known = this.changes.findIndex(({ file }) => file === source.file);
    const before = known < 0 ? source.text : this.changes[known]?.before;
    if (known >= 0) this.changes.splice(known, 1);
    this.changes.push({ file: source.file, before, after, bom: source.bom });
    for (const { found, key, isNew } of chosen) {
      const { file, line, column, endLine, endColumn, message, verdict, reason, text, context } = found;
      const role = [context.role, context.element, context.name].filter(Boolean).join(" ");
      this.extracted.push({
        ...{ file, line, column, key, message, isNew },
        ...{ verdict, reason, role, endLine, endColumn, text },
      });
      if (isNew) this.addEntry(key, message, found.literal.note);
      for (const { locale, pieces } of found.literal.translations ?? [])
        this.addTranslation(locale, key, pieces);
    }
  }

  /** The target locale that code means by a tag: itself, or the only one of its language. */
  private targetOf(written: string): string | undefined {
    const tag = canonicalTag(written.replaceAll("_", "-")) ?? written;
    const { targetLocales } = this.book;
    if (targetLocales.includes(tag)) return tag;
    const alike = targetLocales.filter((one) => one.split("-", 1)[0] === tag.split("-", 1)[0]);
    return alike.length === 1 ? alike[0] : undefined;
  }

  private addTranslation(written: string, fullKey: string, pieces: readonly Piece[]): void {
    const locale = this.targetOf(written);
    const text = literalMessage(bookPieces(pieces, this.reader), this.reader);
    const { namespace, key } = this.splitKey(fullKey);
    const catalog = locale === undefined ? undefined : this.book.catalog(locale, namespace);
    if (!catalog || text === undefined || !isWhole(catalog) || catalog.byKey.has(key)) return;
    const list = this.translated.get(catalog) ?? [];
    if (!list.some(({ path }) => path.join("\u0000") === this.pathOf(key).join("\u0000")))
      this.translated.set(catalog, [...list, { path: this.pathOf(key), text }]);
  }

  /** Whether the catalog that a key belongs to can take it. */
  private hasRoomFor(fullKey: string): boolean {
    const { namespace } = this.splitKey(fullKey);
    // Which of several catalogs it would be, nothing tells.
    if (namespace === undefined && this.book.layout.hasParts) return false;
    const catalog = this.book.catalog(this.book.sourceLocale, namespace);
    return catalog === undefined || isWhole(catalog);
  }

  private addEntry(fullKey: string, message: string, note?: string): void {
    const { namespace, key } = this.splitKey(fullKey);
    const id = namespace ?? "";
    const list = this.additions.get(id) ?? [];
    // What the code tells translators stands above the text, where the format has room for it.
    const comment = note === undefined || note.trim() === "" ? undefined : note.replace(/\s+/g, " ").trim();
    list.push({ path: this.pathOf(key), text: message, ...(comment !== undefined && { comment }) });
    this.additions.set(id, list);
  }

  private pathOf(key: string): EntryPath {
    const { parts } = separatorsOf(this.config);
    const format = formatOf(this.config);
    const isFlat = this.config.naming.shape === "flat" || !format.nests || format.holds === "all-locales";
    return isFlat ? [key] : key.split(parts);
  }

  private splitKey(fullKey: string): { namespace: string | undefined; key: string } {
    const { layout } = this.book;
    if (!layout.hasParts) return { namespace: undefined, key: fullKey };
    if (!layout.hasNamespaces) return { namespace: this.homeOf(undefined), key: fullKey };
    const separator = separatorsOf(this.config).namespace;
    const at = fullKey.indexOf(separator);
    const namespace = fullKey.slice(0, at);
    return { namespace: this.homeOf(namespace) ?? namespace, key: fullKey.slice(at + separator.length) };
  }

  /**
   * Of catalogs that differ by folder or name, the one for the file at hand: that of the code's namespace whose path has
   * most folders in common with the file's. Undefined where several are as near.
   */
  private homeOf(codeNamespace: string | undefined): string | undefined {
    const { layout } = this.book;
    const near = this.sourceCatalogs()
      .filter(({ namespace, exists }) => exists && layout.codeNamespace(namespace) === codeNamespace)
      .map((catalog) => ({ catalog, shared: sharedFolders(catalog.file, this.current) }));
    const most = Math.max(...near.map(({ shared }) => shared));
    const [first, second] = near.filter(({ shared }) => shared === most);
    return second === undefined ? first?.catalog.namespace : undefined;
  }

  /** Says why a text is not extracted, under the id of the reason. */
  private noteRefused(
    source: SourceFile,
    { literal, text: whole }: { readonly literal: Literal; readonly text: string },
    { messageId, data, message, remedy }: Notice,
  ): void {
    const text = shorten(whole);
    const said = say("refused", { text, reason: message, fix: remedy });
    this.noteAt(source, literal.span, { ...said, messageId, data: { ...data, text, reason: message } });
  }

  private noteAt(source: SourceFile, span: Span, { messageId, data, message, remedy }: Notice): void {
    this.notes.push({
      file: source.file,
      ...source.lines.position(span.start),
      messageId,
      data,
      message,
      remedy,
      undone: "refused",
    });
  }
}

/** How many folders two paths begin with alike. */
function sharedFolders(one: string, other: string): number {
  const [a, b] = [one, other].map((path) => path.split("/").slice(0, -1));
  let count = 0;
  while (count < (a?.length ?? 0) && a?.[count] === b?.[count]) count++;
  return count;
}

function shorten(text: string): string {
  return text.length > 50 ? `${text.slice(0, 47)}…` : text;
}

function contains(outer: Span, inner: Span): boolean {
  return outer.start <= inner.start && inner.end <= outer.end;
}
