import type { BookConfig } from "../config/schema.js";
import { pluralCategoryNames } from "../locale/plural-rules.js";
import { joinForms, splitForms } from "../message/forms.js";
import type { CatalogChanges, Entry, EntryPath, PathText } from "./model.js";

/** How a book keeps plural forms under keys of their own. */
export type PluralKeySettings = Pick<BookConfig, "plurals" | "forms">;

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
  const taken = new Map<Entry, string>();
  for (const [base, group] of groups)
    if (group.some(({ selector }) => selector === "other"))
      for (const { entry } of group) taken.set(entry, base);
  const done = new Set<string>();
  return entries.flatMap((entry): Entry[] => {
    const base = taken.get(entry);
    if (base === undefined) return [entry];
    if (done.has(base)) return [];
    done.add(base);
    const forms = [...(groups.get(base) ?? [])].sort(
      (a, b) => categories.indexOf(a.selector) - categories.indexOf(b.selector),
    );
    const joined: FormsEntry = {
      key: base,
      path: basePath(entry, base, settings),
      text: joinForms(forms.map(({ selector, entry: form }) => ({ selector, text: form.text }))),
      kind: forms.find(({ entry: form }) => form.kind !== "text")?.entry.kind ?? "text",
      keySpan: entry.keySpan,
      valueSpan: entry.valueSpan,
      forms,
    };
    return [joined];
  });
}

/** The key that a form of a plural stands under. */
export function formKey(
  base: string,
  category: string,
  { plurals, forms }: PluralKeySettings,
  separator: string,
) {
  return base + (plurals === "branches" ? separator : (forms?.separator ?? "_")) + category;
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
    const { second } = settings.forms ?? {};
    // The older way, where a book says that it has it: the key itself, and the key with an ending.
    if (settings.plurals === "suffix" && second !== undefined && selector === "one") return path;
    if (settings.plurals === "suffix")
      return [
        ...path.slice(0, -1),
        last + (settings.forms?.separator ?? "_") + (selector === "other" ? (second ?? selector) : selector),
      ];
    return isFlat || (path.length === 1 && last.includes(separator))
      ? [...path.slice(0, -1), last + separator + selector]
      : [...path, selector];
  };
  const put = (item: PathText, known: Entry | undefined) => {
    const forms = keepsApart ? splitForms(item.text) : undefined;
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
      if (!forms.some(({ selector }) => selector === one.selector)) remove.push(one.entry.path);
    const isKept = known && forms.some(({ selector }) => samePath(pathOf(item.path, selector), known.path));
    if (known && !old && !isKept) remove.push(known.path);
  };
  for (const item of changes.add ?? []) put(item, undefined);
  for (const item of changes.set ?? []) put(item, there(item.path));
  for (const path of changes.remove ?? []) {
    const entry = there(path);
    if (entry && hasForms(entry)) remove.push(...entry.forms.map(({ entry: form }) => form.path));
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
