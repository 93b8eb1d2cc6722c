import { syntaxOf } from "../message/syntaxes/index.js";
import type { SyntaxSetting } from "../message/names.js";
import { notices } from "../message/notices.js";
import type { Notice } from "../text/wording.js";
import { separatorsOf } from "../text/separators.js";
import { loadBook, catalogEdits, commentAbove, isWhole, type Book } from "../catalog/book.js";
import { formatOf, formats } from "../catalog/formats/index.js";
import { bookLayout } from "../catalog/layout.js";
import type { Entry, EntryPath, PathText } from "../catalog/model.js";
import { settingsIn, splitPluralKeys } from "../catalog/plural-keys.js";
import { viewOf } from "../catalog/view.js";
import { editConfig } from "../config/edit.js";
import type { FormatName } from "../config/names.js";
import type { MessageSyntax, PluralForms } from "../message/names.js";
import type { BookConfig } from "../config/schema.js";
import { visitNodes } from "../message/facts.js";
import type { MessageNode, PluralNode } from "../message/model.js";
import { bareForm, flatForm } from "../message/variants.js";
import { messageReader, type MessageReader } from "../message/parse.js";
import { makePlan, type FileChange, type Plan, type PlanNote } from "../plan/plan.js";
import type { Project } from "./project.js";

/** What a book is to become; what is not given stays. */
export interface ConvertOptions {
  readonly files?: string;
  readonly format?: FormatName;
  /** Where the locale stands in the new files; `none` for nowhere. */
  readonly inside?: "root" | "leaf" | "none";
  readonly syntax?: MessageSyntax;
  readonly plurals?: PluralForms;
  /** Modules of code to read instead of the book's catalogs, as a pattern like the book's `files`. */
  readonly from?: string;
}

/** A reason why a book cannot be converted, with its place and what to do. */
export type ConvertRefusal = PlanNote;

export type ConvertResult =
  | { readonly ok: true; readonly plan: Plan }
  | { readonly ok: false; readonly refusals: readonly ConvertRefusal[] };

/** The texts of one new catalog. */
interface Texts {
  readonly locale: string;
  readonly namespace: string | undefined;
  readonly entries: readonly PathText[];
}

/**
 * Plans what moves a book to another format or layout, or takes its texts out of modules of code: new catalogs, the old
 * ones removed, and the configuration brought up to them. Refuses what the new form cannot hold. The ledger keeps its
 * records, since no key changes.
 */
export function convertBook(project: Project, config: BookConfig, options: ConvertOptions): ConvertResult {
  const refusals: ConvertRefusal[] = [];
  const notes: PlanNote[] = [];
  const changed = newConfig(config, options);
  const layout = bookLayout(changed);
  const isInPlace =
    options.from === undefined &&
    (["files", "format", "root", "leaf"] as const).every((name) => config[name] === changed[name]);
  const book = project.book(config);
  const given = catalogTexts(
    options.from === undefined
      ? book
      : loadBook(
          project.files,
          project.config,
          newConfig(config, { files: options.from, from: options.from }),
        ),
    { isInPlace, keepsComments: isInPlace || formatOf(changed).comments !== undefined },
    refusals,
    notes,
  );
  const { parts } = separatorsOf(config);
  if (given.length === 0 && refusals.length === 0)
    refusals.push({
      file: options.from ?? config.files,
      ...say("nothing", { locale: "{locale}" }),
    });
  if (layout.hasParts !== book.layout.hasParts && options.from === undefined)
    refusals.push({
      file: changed.files,
      ...(layout.hasParts
        ? say("too-many", { part: "{namespace}" })
        : say("too-few", { part: "{namespace}" })),
    });
  const written = rewritten(
    given,
    config,
    changed,
    (locale, namespace, path) => {
      const catalog = book.catalog(locale, namespace);
      const entry = catalog?.byKey.get(path.join(parts));
      const file = catalog?.file ?? options.from ?? config.files;
      return entry && catalog ? { file, ...catalog.lines.position(entry.valueSpan.start) } : { file };
    },
    refusals,
  );
  if (refusals.length > 0) return { ok: false, refusals };
  const move = { project, old: config, now: changed, book, texts: written, refusals };
  const changes = isInPlace ? rewriteInPlace(move) : moveTexts(move, options.from !== undefined);
  if (refusals.length > 0) return { ok: false, refusals };
  const keys = new Set(
    given.flatMap(({ namespace, entries }) =>
      entries.map(({ path }) => `${namespace ?? ""} ${path.join(parts)}`),
    ),
  );
  const all = [...changes, ...configChange(project, config, changed)];
  return { ok: true, plan: makePlan(all, { catalogs: given.length, keys: keys.size }, notes) };
}

/** A book on its way to another form. */
interface Move {
  readonly project: Project;
  readonly old: BookConfig;
  readonly now: BookConfig;
  readonly book: Book;
  /** What the new catalogs hold. */
  readonly texts: readonly Texts[];
  readonly refusals: ConvertRefusal[];
}

/** New messages in the old files: what is not rewritten keeps every byte. */
function rewriteInPlace({ now, book, texts }: Move): FileChange[] {
  const edits = catalogEdits();
  for (const { locale, namespace, entries } of texts) {
    const catalog = book.catalog(locale, namespace);
    if (!catalog) continue;
    const set = entries.filter(
      ({ path, text }) => catalog.byKey.get(path.join(catalog.separator))?.text !== text,
    );
    if (set.length > 0)
      edits.edit({ ...catalog, settings: now }, { set, order: entries.map(({ path }) => path) });
  }
  return edits.changes();
}

/** New files for all texts, and the old ones removed where the texts came from them. */
function moveTexts({ project, now, book, texts, refusals }: Move, fromCode: boolean): FileChange[] {
  const layout = bookLayout(now);
  const format = formatOf(now);
  const { parts } = separatorsOf(now);
  const byFile = new Map<string, PathText[]>();
  for (const { locale, namespace, entries } of texts) {
    const file = layout.path(locale, namespace);
    const view = viewOf(now, layout.spell(locale));
    const flat = !format.nests || now.naming.shape === "flat" || clashes(entries, parts);
    const whole = entries.map((entry) => ({ ...entry, path: shaped(entry.path, parts, flat) }));
    const { add = [] } = splitPluralKeys(
      { add: whole },
      settingsIn(now, locale),
      parts,
      flat,
      () => undefined,
    );
    const placed = add.map((entry) => ({ ...entry, path: view.toFile(entry.path) }));
    byFile.set(file, [...(byFile.get(file) ?? []), ...placed]);
  }
  const changes: FileChange[] = [];
  const old = new Map(
    fromCode
      ? []
      : book.catalogs.filter(({ exists }) => exists).map((catalog) => [catalog.file, catalog] as const),
  );
  for (const [file, add] of byFile) {
    const known = old.get(file);
    if (!known && project.files.read(file).ok) {
      refusals.push({
        file,
        ...say("exists", {}),
      });
      continue;
    }
    const after = format.edit(format.empty, { add, order: add.map(({ path }) => path) });
    const read = format.read(after, parts);
    const held = new Map(read.entries.map((entry) => [idOf(entry.path), entry.text]));
    const lost = add.find(({ path, text }) => held.get(idOf(path)) !== text);
    if (read.problems.length > 0 || lost)
      refusals.push({
        file,
        ...(lost
          ? say("cannot-hold", { format: format.name, key: lost.path.join(parts) })
          : say("cannot-hold-any", { format: format.name })),
      });
    changes.push({ file, before: known?.content, after, ...(known?.bom && { bom: true }) });
    old.delete(file);
  }
  for (const { file, content, bom, encoding } of old.values())
    changes.push({ file, before: content, after: undefined, bom, ...(encoding && { encoding }) });
  return changes;
}

function idOf(path: EntryPath): string {
  return path.map(String).join("\u0000");
}

/** The texts in the new book's syntax and plural form. What does not read back as the same message is refused. */
function rewritten(
  given: readonly Texts[],
  old: BookConfig,
  now: BookConfig,
  placeOf: (
    locale: string,
    namespace: string | undefined,
    path: EntryPath,
  ) => Pick<PlanNote, "file" | "line" | "column">,
  refusals: ConvertRefusal[],
): readonly Texts[] {
  if (isSameSetting(old.syntax, now.syntax) && old.plurals === now.plurals) return given;
  const from = messageReader(old);
  const to = messageReader(now);
  const { name } = to.syntax;
  // The first value stays the first where one syntax counts from 0 and the other from 1.
  const shift =
    from.syntax.numberedFrom === undefined || to.syntax.numberedFrom === undefined
      ? 0
      : to.syntax.numberedFrom - from.syntax.numberedFrom;
  const shape = now.plurals === "inline" ? name : `${name} with plurals as "${now.plurals}"`;
  return given.map((texts) => ({
    ...texts,
    entries: texts.entries.map((entry) => {
      const read = from.read(entry.text, texts.locale, entry.path.join("."));
      const nodes = renumbered(read.nodes, shift);
      const message = { ...read, nodes: to.syntax.countSign !== undefined ? nodes : spellCounts(nodes) };
      const text = to.print(message.nodes);
      const again = to.read(text, texts.locale, entry.path.join("."));
      const form = to.syntax.choices === "flat" || from.syntax.choices === "flat" ? flatForm : bareForm;
      const key = entry.path.join(".");
      const refuse = (notice: Notice) =>
        refusals.push({ ...placeOf(texts.locale, texts.namespace, entry.path), ...notice });
      if (message.isBroken) refuse(say("broken", { key }));
      else if (again.isBroken || form(again.nodes) !== form(message.nodes))
        refuse(say("cannot-write", { key, shape, lost: lostIn(message.nodes, to) }));
      return { ...entry, text };
    }),
  }));
}

const say = notices("convert", {
  nothing: { message: "nothing to convert", remedy: "check the pattern; {locale} stands for the locale" },
  "too-many": {
    message: "the book has one catalog a locale, but the new pattern needs several",
    remedy: "remove {part} from the pattern",
  },
  "too-few": {
    message: "the book has several catalogs a locale, but the new pattern has room for one",
    remedy: "add {part} to the pattern",
  },
  exists: { message: "the file already exists", remedy: "move it away, or choose another pattern" },
  "cannot-hold": {
    message: '{format} cannot hold "{key}" as it is',
    remedy: "change the text or its key first",
  },
  "cannot-hold-any": {
    message: "{format} cannot hold these texts as they are",
    remedy: "change the texts or their keys first",
  },
  broken: {
    message: 'message of "{key}" is broken',
    remedy: "fix it first; `fond lint` shows what is wrong",
  },
  "cannot-write": {
    message: '"{key}" cannot be written in {shape}: {lost}',
    remedy: "change the message first, or choose another form",
  },
  unread: { message: "the file cannot be read: {detail}", remedy: "{fix}" },
  unreadable: { message: "{detail}", remedy: "check its permissions" },
  duplicate: { message: 'duplicate key "{key}"', remedy: "keep one of the two" },
  value: {
    message: 'value of "{key}" is not a text; it becomes the text {text}',
    remedy: "check that this is intended",
  },
  code: {
    message: 'the value of "{key}" is code, which is not run',
    remedy: "write it as one message with arguments",
  },
  unknown: {
    message: "code adds texts here under names that only running it tells",
    remedy: "write the names and texts out here",
  },
  comments: {
    message: "{count, plural, one {# comment has} other {# comments have}} no place in the new format",
    remedy: "keep the old file if they matter",
  },
});

function isSameSetting(one: SyntaxSetting, other: SyntaxSetting): boolean {
  return syntaxOf(one) === syntaxOf(other);
}

/** Numbered arguments with their numbers moved on. */
function renumbered(nodes: readonly MessageNode[], shift: number): readonly MessageNode[] {
  if (shift === 0) return nodes;
  const moved = (name: string) => (/^\d+$/.test(name) ? String(Number(name) + shift) : name);
  return nodes.map((node): MessageNode => {
    switch (node.kind) {
      case "argument":
        return { ...node, name: moved(node.name) };
      case "plural":
      case "select":
        return {
          ...node,
          name: moved(node.name),
          branches: node.branches.map((one) => ({ ...one, nodes: renumbered(one.nodes, shift) })),
        };
      case "tag":
        return {
          ...node,
          attributes: renumbered(node.attributes, shift),
          children: renumbered(node.children, shift),
        };
      default:
        return node;
    }
  });
}

/** `#` as the argument that it shows, for syntaxes without such a sign; one that an offset changes stays. */
function spellCounts(nodes: readonly MessageNode[], counted?: PluralNode): readonly MessageNode[] {
  return nodes.map((node): MessageNode => {
    switch (node.kind) {
      case "count":
        return counted?.offset === 0 ? { kind: "argument", name: counted.name } : node;
      case "plural":
        return {
          ...node,
          branches: node.branches.map((one) => ({ ...one, nodes: spellCounts(one.nodes, node) })),
        };
      case "select":
        return {
          ...node,
          branches: node.branches.map((one) => ({ ...one, nodes: spellCounts(one.nodes, counted) })),
        };
      case "tag":
        return { ...node, children: spellCounts(node.children, counted) };
      default:
        return node;
    }
  });
}

/** What of a message most likely has no place in another form. */
function lostIn(nodes: readonly MessageNode[], { syntax, plurals }: MessageReader): string {
  const found = new Set<string>();
  visitNodes(nodes, (node) => {
    if (node.kind === "select") found.add("a choice by value");
    if (node.kind === "plural")
      found.add(
        plurals === "inline"
          ? "a plural"
          : `a plural that counts "${node.name}", has exact numbers, or is part of a sentence`,
      );
    if (node.kind === "argument" && node.format) found.add(`the format of "${node.name}"`);
    if ("toolAttributes" in node && node.toolAttributes) found.add(`the attribute ${node.toolAttributes}`);
    if (node.kind === "text" && node.format) found.add(`the format of the value "${node.value}"`);
    const { numberedFrom: first } = syntax;
    if (node.kind === "argument" && first !== undefined && !(Number(node.name) >= first))
      found.add(`"${node.name}", because arguments are numbered from ${first} there`);
  });
  return [...found].join(", ") || "some of its characters have a meaning there";
}

function newConfig(
  config: BookConfig,
  { files, format, inside, from, syntax, plurals }: ConvertOptions,
): BookConfig {
  const { root, leaf } = config;
  const ending = (name: FormatName) => `.${formats[name].extensions[0] ?? name}`;
  const path = files ?? (format ? config.files.replace(/\.\w+$/, ending(format)) : config.files);
  const isNamedByEnding = format === undefined || path.endsWith(ending(format));
  const stays = inside === undefined && from === undefined;
  const changed: { -readonly [Name in keyof BookConfig]: BookConfig[Name] } = { ...config, files: path };
  delete changed.format;
  delete changed.root;
  delete changed.leaf;
  if (!isNamedByEnding && format) changed.format = format;
  if (inside === "root") changed.root = "{locale}";
  else if (stays && root !== undefined) changed.root = root;
  if (inside === "leaf") changed.leaf = "{locale}";
  else if (stays && leaf !== undefined) changed.leaf = leaf;
  if (syntax) changed.syntax = syntax;
  if (plurals) changed.plurals = plurals;
  return changed;
}

/** The texts of a book's catalogs. What the new form would lose is refused or, where it is no text, told. */
function catalogTexts(
  book: Book,
  { isInPlace, keepsComments }: { readonly isInPlace: boolean; readonly keepsComments: boolean },
  refusals: ConvertRefusal[],
  notes: PlanNote[],
): Texts[] {
  const texts: Texts[] = [];
  for (const catalog of book.catalogs) {
    if (!catalog.exists) continue;
    const [problem] = catalog.problems;
    const at = (entry: Entry) => ({ file: catalog.file, ...catalog.lines.position(entry.keySpan.start) });
    if (problem && !isWhole(catalog)) {
      refusals.push({
        file: catalog.file,
        ...catalog.lines.position(problem.span.start),
        ...say("unread", { detail: problem.message, fix: problem.remedy }),
      });
      continue;
    }
    // Code in files that stay is none of the texts, and stays.
    for (const span of isInPlace ? [] : catalog.unknown)
      refusals.push({ file: catalog.file, ...catalog.lines.position(span.start), ...say("unknown", {}) });
    for (const entry of catalog.entries) {
      if (entry.kind === "code") {
        const { start } = entry.valueSpan;
        const key = entry.key;
        if (!isInPlace)
          refusals.push({ file: catalog.file, ...catalog.lines.position(start), ...say("code", { key }) });
        continue;
      }
      if (catalog.byKey.get(entry.key) !== entry)
        refusals.push({
          ...at(entry),
          ...say("duplicate", { key: entry.key }),
        });
      if (entry.kind !== "text" && !(entry.kind === "null" && entry.text === ""))
        notes.push({
          ...at(entry),
          ...say("value", { key: entry.key, text: entry.text }),
        });
    }
    let lost = 0;
    const own = [...catalog.byKey.values()].filter(({ kind }) => kind !== "code");
    const entries = own.map((entry): PathText => {
      const comment = commentAbove(catalog, entry);
      if (comment !== undefined && !keepsComments) lost++;
      return { path: entry.path, text: entry.text, ...(comment !== undefined && { comment }) };
    });
    if (lost > 0)
      notes.push({
        file: catalog.file,
        ...say("comments", { count: lost }),
      });
    texts.push({ locale: catalog.locale, namespace: catalog.namespace, entries });
  }
  return texts;
}

/** Whether some key would have to be a text and a group at once. */
function clashes(entries: readonly PathText[], separator: string): boolean {
  const keys = new Set(entries.map(({ path }) => path.join(separator)));
  for (const key of keys)
    for (let at = key.indexOf(separator); at >= 0; at = key.indexOf(separator, at + separator.length))
      if (keys.has(key.slice(0, at)) || at === 0 || key.startsWith(separator, at + separator.length))
        return true;
  return [...keys].some((key) => key.endsWith(separator));
}

function shaped(path: EntryPath, separator: string, flat: boolean): EntryPath {
  if (path.some((part) => typeof part === "number") && !flat) return path;
  const key = path.join(separator);
  return flat ? [key] : key.split(separator);
}

/** The configuration with the book's new settings, written into it in place. */
function configChange(
  { files, configFile, config: { books } }: Project,
  old: BookConfig,
  now: BookConfig,
): FileChange[] {
  const read = files.read(configFile);
  if (!read.ok) return [];
  const index = books.indexOf(old);
  const settings = (["files", "format", "root", "leaf", "syntax", "plurals"] as const).filter(
    (name) => old[name] !== now[name],
  );
  let after = read.text;
  for (const name of settings) after = editConfig(configFile, after, ["books", index, name], now[name]);
  return [{ file: configFile, before: read.text, after, bom: read.bom }];
}
