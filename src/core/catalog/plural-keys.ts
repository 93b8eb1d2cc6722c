import type { BookConfig } from "../config/schema.js";
import { pluralCategoryNames } from "../locale/plural-rules.js";
import { joinForms, splitForms } from "../message/forms.js";
import type { CatalogChanges, Entry, EntryPath, PathText } from "./model.js";

/** How a book keeps plural forms under keys of their own. */
export type PluralKeySettings = Pick<BookConfig, "plurals" | "forms"> & {
  /** What stands behind a key of the catalog's locale for a category, where that has names of its own. */
  readonly own?: Readonly<Record<string, string>>;
};

/** A book's settings for the catalogs of one locale. */
export function settingsIn(settings: PluralKeySettings, locale: string): PluralKeySettings {
  const own = settings.plurals === "suffix" ? settings.forms?.names?.[locale] : undefined;
  return own ? { ...settings, own } : settings;
}

/** The category that the end of a key names, with the key before it; the longest end counts. */
function ownForm(
  key: string,
  own: Readonly<Record<string, string>>,
  mark: string,
): { readonly base: string; readonly selector: string } | undefined {
  const ends = Object.entries(own).flatMap(([selector, name]) => {
    const end = name === "" ? "" : mark + name;
    return end !== "" && key.endsWith(end) && key.length > end.length
      ? [{ selector, base: key.slice(0, key.length - end.length) }]
      : [];
  });
  return ends.sort((a, b) => a.base.length - b.base.length)[0];
}

const categories: readonly string[] = pluralCategoryNames;

/** An entry whose text is put together from the forms that stand under keys of their own. */
export interface FormsEntry extends Entry {
  readonly forms: readonly { readonly selector: string; readonly entry: Entry }[];
}

/** Whether a book's plural forms stand under keys of their own. */
export function keepsFormsApart({ plurals }: PluralKeySettings): boolean {
  return plurals === "suffix" || plurals === "branches";
}

/** Whether an entry's forms stand under keys of their own. */
export function hasForms(entry: Entry): entry is FormsEntry {
  return "forms" in entry;
}

/**
 * Puts plural forms together: `items_one` and `items_other`, the older `items` beside `items_plural`, or the children
 * `items.one` and `items.other`. Names count as forms only where one of them is `other`, or the second of two.
 */
export function joinPluralKeys(
  entries: readonly Entry[],
  settings: PluralKeySettings,
  separator: string,
): readonly Entry[] {
  if (!keepsFormsApart(settings)) return entries;
  if (settings.own) return joinOwnForms(entries, settings, settings.own);
  const second = settings.forms?.second ?? "plural";
  const split = splitterFor(settings, separator);
  const groups = new Map<string, { selector: string; entry: Entry }[]>();
  const keys = new Map(entries.map((entry) => [entry.key, entry]));
  for (const entry of entries) {
    const found = split(entry.key);
    if (!found) continue;
    const { base, name } = found;
    const selector = categories.includes(name)
      ? name
      : settings.plurals === "suffix" && name === second && keys.has(base)
        ? "other"
        : undefined;
    if (selector === undefined) continue;
    const group = groups.get(base) ?? [];
    if (name === second && !categories.includes(name))
      group.push({ selector: "one", entry: keys.get(base) ?? entry });
    group.push({ selector, entry });
    groups.set(base, group);
  }
  for (const [base, group] of groups)
    if (!group.some(({ selector }) => selector === "other")) groups.delete(base);
  return joinGroups(entries, groups, settings);
}

/** Forms of a plural that stand under keys of their own, by the key before their names. */
type FormGroups = ReadonlyMap<string, readonly { readonly selector: string; readonly entry: Entry }[]>;

/** Puts one entry in the place of the first form of each plural; `more` adds forms that have no key. */
function joinGroups(
  entries: readonly Entry[],
  groups: FormGroups,
  settings: PluralKeySettings,
  more: (forms: FormsEntry["forms"]) => FormsEntry["forms"] = () => [],
): readonly Entry[] {
  const taken = new Map<Entry, string>();
  for (const [base, group] of groups) for (const { entry } of group) taken.set(entry, base);
  const done = new Set<string>();
  return entries.flatMap((entry): Entry[] => {
    const base = taken.get(entry);
    if (base === undefined) return [entry];
    if (done.has(base)) return [];
    done.add(base);
    const forms = [...(groups.get(base) ?? [])].sort(
      (a, b) => categories.indexOf(a.selector) - categories.indexOf(b.selector),
    );
    return [joinedEntry(entry, base, [...forms, ...more(forms)], settings)];
  });
}

/** One entry of several forms; `entry` is the first of them in the file. */
function joinedEntry(
  entry: Entry,
  base: string,
  forms: FormsEntry["forms"],
  settings: PluralKeySettings,
): FormsEntry {
  return {
    key: base,
    path: basePath(entry, base, settings),
    text: joinForms(forms.map(({ selector, entry: form }) => ({ selector, text: form.text }))),
    kind: forms.find(({ entry: form }) => form.kind !== "text")?.entry.kind ?? "text",
    keySpan: entry.keySpan,
    valueSpan: entry.valueSpan,
    forms,
  };
}

/** Puts forms together that have names of a locale's own; `one` may be the key itself, and `other` what the last of them is. */
function joinOwnForms(
  entries: readonly Entry[],
  settings: PluralKeySettings,
  own: Readonly<Record<string, string>>,
): readonly Entry[] {
  const mark = settings.forms?.separator ?? "_";
  const groups = new Map<string, { selector: string; entry: Entry }[]>();
  for (const entry of entries) {
    const found = ownForm(entry.key, own, mark);
    if (found)
      groups.set(found.base, [...(groups.get(found.base) ?? []), { selector: found.selector, entry }]);
  }
  const bare =
    Object.keys(own).find((selector) => own[selector] === "") ?? ("one" in own ? undefined : "one");
  const keys = new Map(entries.map((entry) => [entry.key, entry]));
  for (const [base, group] of groups) {
    const itself = keys.get(base);
    if (itself && bare !== undefined) group.push({ selector: bare, entry: itself });
  }
  // Programs that number forms have none for fractions: the last stands for them.
  return joinGroups(entries, groups, settings, (forms) => {
    const last = forms.at(-1);
    return last && last.selector !== "other" ? [{ selector: "other", entry: last.entry }] : [];
  });
}

/** What stands behind a key for a category, in books that put it there. */
function endOf(category: string, { forms, own }: PluralKeySettings): string {
  const { separator: mark = "_", second } = forms ?? {};
  // The older way, where a book says that it has it: the key itself, and the key with an ending.
  const older: Readonly<Record<string, string>> = second === undefined ? {} : { one: "", other: second };
  const names = own ? { one: "", ...own } : older;
  const name = names[category] ?? category;
  return name === "" ? "" : mark + name;
}

/** The key that a form of a plural stands under. */
export function formKey(base: string, category: string, settings: PluralKeySettings, separator: string) {
  return base + (settings.plurals === "branches" ? separator + category : endOf(category, settings));
}

function splitterFor({ plurals, forms }: PluralKeySettings, separator: string) {
  const mark = plurals === "branches" ? separator : (forms?.separator ?? "_");
  return (key: string) => {
    const at = key.lastIndexOf(mark);
    return at <= 0 ? undefined : { base: key.slice(0, at), name: key.slice(at + mark.length) };
  };
}

function basePath(entry: Entry, base: string, { plurals }: PluralKeySettings): EntryPath {
  if (entry.path.length === 1) return [base];
  if (plurals === "branches") return entry.path.slice(0, -1);
  const last = String(entry.path.at(-1));
  return [...entry.path.slice(0, -1), last.slice(0, last.length - (entry.key.length - base.length))];
}

/** Changes to entries as changes to the keys of their forms. `there` finds an entry of the catalog by its path. */
export function splitPluralKeys(
  changes: CatalogChanges,
  settings: PluralKeySettings,
  separator: string,
  isFlat: boolean,
  there: (path: EntryPath) => Entry | undefined,
): CatalogChanges {
  const keepsApart = keepsFormsApart(settings);
  const add: PathText[] = [];
  const set: PathText[] = [];
  const remove: EntryPath[] = [];
  const pathOf = (path: EntryPath, selector: string): EntryPath => {
    const last = String(path.at(-1));
    if (settings.plurals === "suffix") return [...path.slice(0, -1), last + endOf(selector, settings)];
    return isFlat || (path.length === 1 && last.includes(separator))
      ? [...path.slice(0, -1), last + separator + selector]
      : [...path, selector];
  };
  const isNamed = (selector: string) =>
    selector !== "other" || !settings.own || settings.own["other"] !== undefined;
  const put = (item: PathText, known: Entry | undefined) => {
    // A locale without a name for `other` keeps no text for it.
    const forms = (keepsApart ? splitForms(item.text) : undefined)?.filter(({ selector }) =>
      isNamed(selector),
    );
    const old = known && hasForms(known) ? known.forms : undefined;
    if (!forms) {
      if (old) {
        remove.push(...old.map(({ entry }) => entry.path));
        add.push(item);
      } else (known ? set : add).push(item);
      return;
    }
    const { comment, ...bare } = item;
    for (const [index, { selector, text }] of forms.entries()) {
      const same = old?.find((one) => one.selector === selector);
      const isOwn = known !== undefined && !old && samePath(pathOf(item.path, selector), known.path);
      if (isOwn) set.push({ path: known.path, text });
      else if (same) set.push({ path: same.entry.path, text });
      else
        add.push({
          ...bare,
          path: pathOf(item.path, selector),
          text,
          ...(index === 0 && comment !== undefined && { comment }),
        });
    }
    for (const one of old ?? [])
      if (isNamed(one.selector) && !forms.some(({ selector }) => selector === one.selector))
        remove.push(one.entry.path);
    const isKept = known && forms.some(({ selector }) => samePath(pathOf(item.path, selector), known.path));
    if (known && !old && !isKept) remove.push(known.path);
  };
  for (const item of changes.add ?? []) put(item, undefined);
  for (const item of changes.set ?? []) put(item, there(item.path));
  for (const path of changes.remove ?? []) {
    const entry = there(path);
    if (entry && hasForms(entry))
      remove.push(
        ...entry.forms.filter(({ selector }) => isNamed(selector)).map(({ entry: form }) => form.path),
      );
    else remove.push(path);
  }
  const order = keepsApart
    ? (changes.order ?? []).flatMap((path) => [path, ...categories.map((category) => pathOf(path, category))])
    : (changes.order ?? []);
  return { add, set, remove, order };
}

function samePath(one: EntryPath, other: EntryPath): boolean {
  return one.length === other.length && one.every((part, index) => part === other[index]);
}

/** Where, in the file's text, a code unit of an entry's text is written: in the form that it belongs to. */
export function offsetInForms(
  entry: FormsEntry,
  offset: number,
  offsetInFile: (form: Entry, offset: number) => number,
): number {
  const forms = splitForms(entry.text) ?? [];
  const index = forms.findLastIndex(({ start }) => start <= offset);
  const form = entry.forms[Math.max(index, 0)]?.entry;
  return form
    ? offsetInFile(form, Math.min(offset - (forms[index]?.start ?? 0), form.text.length))
    : entry.valueSpan.start;
}
