import { catalogAdditions } from "../../../extract/additions.js";
import { keyName } from "../../../source/bound-key.js";
import { partEnds, separatorsOf } from "../../../text/separators.js";
import { isWhole, type Book } from "../../../catalog/book.js";
import type { BookConfig } from "../../../config/schema.js";
import { usesDefaultCall, type CodeUse } from "../../../source/book-code.js";
import type { Lookup, LookupKey } from "../../../source/model.js";
import { asksForText } from "../../text-keys.js";
import { nearest } from "../../../text/nearest.js";
import type { Span } from "../../../text/span.js";
import { sourceKeysOf } from "../../code-use.js";
import { defineRule } from "../../rule.js";

export const keyUndefined = defineRule({
  id: "key/undefined",
  level: "error",
  summary: "Unknown key in code.",
  why: "The user sees the raw key or nothing, and no error is raised. Keys composed at run time are checked by their fixed parts: at least one key must match. Keys with the name of a catalog in front that nobody has are one warning for each name, and so are many keys, a quarter of all, that no catalog has: another program may bring them along. Where keys are texts, one that no catalog has is shown as the code has it: a warning.",
  messages: {
    misspelled: { message: 'unknown key "{key}"', remedy: 'did you mean "{meant}"?' },
    unknown: {
      message: 'unknown key "{key}"',
      remedy: "add it to the source catalog (searched {files}), or correct the key",
    },
    "own-text": {
      message: 'no source catalog has the text "{key}", so it is shown as the code has it',
      remedy: "collect it with `fond extract --collect`",
    },
    group: { message: '"{key}" is a group of keys, not a text', remedy: "use one of the keys in it" },
    none: {
      message:
        "none of the {count, plural, one {# key} other {# keys}} that code asks for is in the source catalog (searched {files})",
      remedy: 'check "lookups" in the configuration: this call may look up other texts',
    },
    hardly: {
      message:
        "the source catalog has only {found} of the {count} keys that code asks for (searched {files})",
      remedy: 'name what looks texts up in "lookups" of the configuration: this call looks up other texts',
    },
    many: {
      message:
        '{count} of the {all} keys that code asks for, such as "{key}", are in no source catalog (searched {files})',
      remedy:
        "add the catalogs that have them to the configuration; if another program brings them along, waive the finding",
    },
    elsewhere: {
      message:
        '{count, plural, one {# key} other {# keys}} with "{namespace}{separator}" in front, and no catalog has that name',
      remedy:
        "correct the name, or add such a catalog; if another program brings it along, waive the finding: {files} were searched",
    },
    "no-match": {
      message: 'no key matches "{key}"',
      remedy: "add it to the source catalog (searched {files}), or correct the key",
    },
  },
  examples: {
    bad: [
      {
        source: { title: "Sailings" },
        target: { title: "Abfahrten" },
        code: 'export const title = () => t("titel");',
      },
      {
        source: { "status.open": "Open" },
        target: { "status.open": "Offen" },
        code: "export const label = (s) => t(`state.${s}`);",
      },
    ],
    good: [
      {
        source: { title: "Sailings" },
        target: { title: "Abfahrten" },
        code: 'export const title = () => t("title");',
      },
      {
        source: { "status.open": "Open" },
        target: { "status.open": "Offen" },
        code: "export const label = (s) => t(`status.${s}`);",
      },
    ],
  },
  offer({ file, key }, book) {
    const additions = catalogAdditions(book);
    if (key === undefined || !additions.hasRoomFor({ key, file })) return undefined;
    const name = key.split(/[^\p{L}\p{N}_-]+/u).findLast((part) => part !== "") ?? key;
    const words = name
      .replace(/(?<=[\p{Ll}\p{N}])(?=\p{Lu})|[_-]+/gu, " ")
      .trim()
      .toLowerCase();
    additions.addSource({ key, file }, words.charAt(0).toUpperCase() + words.slice(1), undefined);
    return {
      title: `Add the key "${key}" to the source catalog`,
      changes: additions.changes(new Map()),
    };
  },
  book(context) {
    const { book, code } = context;
    const sources = book.catalogsOf(book.sourceLocale);
    if (!code || sources.some((catalog) => !isWhole(catalog)) || !sources.some(({ exists }) => exists))
      return;
    const known = sourceKeysOf(book);
    const separators = partEnds(book.config);
    const files = sources.map((catalog) => catalog.file);
    const searched = files.length > 3 ? `${files.length} source catalogs` : files.join(", ");
    const asked = code.files.map((source) => ({ source, ...known.askedBy(source) }));
    const count = asked.reduce((sum, one) => sum + one.count, 0);
    const unknown = asked.flatMap((one) => one.unknown.map((lookup) => ({ source: one.source, lookup })));
    // Books whose code asks with the same calls know one another, and so do those that are named.
    const others = context.others
      .filter(
        (other) => book.config.fallback?.includes(other.book.config.name) || sharesLookups(book, other.book),
      )
      .map((other) => ({ ...other, known: sourceKeysOf(other.book) }));
    const nobodys = unknown.filter(({ lookup }) => !others.some((other) => other.known.knows(lookup.key)));
    const [first] = nobodys;
    const found = count - unknown.length;
    // Where no key at all is the catalog's, the calls are none of its lookups; of the usual call, that nobody named, a few may be.
    const isMany =
      asksByUsualCall(book.config) &&
      nobodys.length >= Math.max(leastOfMany, (count - nobodys.length) * leastShare);
    const isNone = found === 0 && count >= leastAsked && (isMany || nobodys.length === count);
    const isHardly = found > 0 && isMany;
    if (first && known.size > 0 && (isNone || isHardly)) {
      const { source, lookup } = first;
      const at = { severity: "warning" } as const;
      if (isNone) context.reportCode(source, lookup.keySpan, "none", { count, files: searched }, at);
      else context.reportCode(source, lookup.keySpan, "hardly", { found, count, files: searched }, at);
      return;
    }
    const made = known.madeIn(code);
    const plain: { readonly source: CodeUse; readonly lookup: Lookup; readonly written: string }[] = [];
    const elsewhere = new Map<string, { readonly source: CodeUse; readonly lookup: Lookup }[]>();
    for (const { source, lookup } of unknown) {
      const { key, keySpan, defaultText, hasDefault, argumentNames } = lookup;
      if (key.kind === "unknown" || !saysSomething(key)) continue;
      if (key.kind === "fixed" && made.from(key.value).some((value) => known.knows({ kind: "fixed", value })))
        continue;
      if (others.some((other) => other.known.knows(key))) continue;
      if (key.kind === "fixed" && isAskedWhetherThere(source.text, key.value)) continue;
      // What no book has is said by the first that reads the file.
      if (
        others.some((other) => other.isBefore && sharesLookups(book, other.book) && other.reads(source.file))
      )
        continue;
      // A lookup that brings its own text shows that.
      if (
        defaultText !== undefined ||
        hasDefault ||
        argumentNames?.some((name) => /^default(?:_?value)?$/i.test(name)) ||
        hasTextBehind(source.text, keySpan.end)
      )
        continue;
      // What such a key is relative to, only the book can say.
      const start = key.kind === "fixed" ? key.value : key.parts[0];
      if (
        book.config.relative === undefined &&
        typeof start === "string" &&
        separators.some((separator) => separator !== "" && start.startsWith(separator))
      )
        continue;
      const written = key.kind === "fixed" ? key.value : key.parts.map((part) => part ?? "…").join("");
      // A list is asked for as a whole.
      if (
        separators.some(
          (separator) => known.has(`${written}${separator}0`) || known.has(`${written}${separator}1`),
        )
      )
        continue;
      if (isGivenAsText(source.text, lookup, separatorsOf(book.config).parts) && known.areInGroups())
        continue;
      const isGroup = known.inGroup(written).length > 0;
      // Code may take a group of texts out of an object of them, and their members later.
      if (isGroup && (lookup.isMember || isTakenWhole(source.text, lookup.span))) continue;
      const meant = key.kind === "fixed" ? known.meantBy(written) : undefined;
      const at = { key: written };
      const namespace =
        unknownNamespace(written, book) ?? (known.haveColons() ? undefined : foreignNamespace(written, book));
      if (namespace !== undefined) {
        elsewhere.set(namespace, [...(elsewhere.get(namespace) ?? []), { source, lookup }]);
        continue;
      }
      if (!meant && !isGroup && asksForText(book, written))
        context.reportCode(source, keySpan, "own-text", { key: written }, { ...at, severity: "warning" });
      else if (key.kind === "fixed" && isGroup)
        context.reportCode(source, keySpan, "group", { key: written }, at);
      else if (meant) context.reportCode(source, keySpan, "misspelled", { key: written, meant }, at);
      else plain.push({ source, lookup, written });
    }
    const [one] = plain;
    if (one && plain.length >= leastOfMany && plain.length * mostOfAll >= count) {
      const data = { count: plain.length, all: count, key: one.written, files: searched };
      context.reportCode(one.source, one.lookup.keySpan, "many", data, { severity: "warning" });
    } else
      for (const { source, lookup, written } of plain)
        context.reportCode(
          source,
          lookup.keySpan,
          lookup.key.kind === "fixed" ? "unknown" : "no-match",
          { key: written, files: searched },
          { key: written },
        );
    const { namespace: own } = separatorsOf(book.config);
    for (const [namespace, all] of elsewhere) {
      const [one] = all;
      const separator = book.layout.hasNamespaces ? own : ":";
      const data = { count: all.length, namespace, separator, files: searched };
      if (one) context.reportCode(one.source, one.lookup.keySpan, "elsewhere", data, { severity: "warning" });
    }
  },
});

/** The name of a catalog that a key has in front, where the book has no such catalog and none that is called nearly so. */
function unknownNamespace(written: string, book: Book): string | undefined {
  const { namespace: separator, parts } = separatorsOf(book.config);
  if (separator === "" || separator === parts || !book.layout.hasNamespaces) return undefined;
  const at = written.indexOf(separator);
  const name = at > 0 ? written.slice(0, at) : undefined;
  const known = book.namespaces.flatMap((one) => book.layout.codeNamespace(one) ?? []);
  return name === undefined || known.includes(name) || nearest(name, known) !== undefined ? undefined : name;
}

/** The name before a colon of a key whose other parts a book without namespaces parts otherwise: another program's catalog. */
function foreignNamespace(written: string, book: Book): string | undefined {
  const { parts } = separatorsOf(book.config);
  if (book.layout.hasNamespaces || parts === "" || parts === ":") return undefined;
  const [, name, rest = ""] = /^([a-z][\w-]{1,40}):([\w-][^\s:]{0,200})$/i.exec(written) ?? [];
  return rest.includes(parts) ? name : undefined;
}

/**
 * Whether what an object is given is a text and no key, `status({ text: "late" })`: it has no parts as keys have, and the property is
 * not called as those are that ask for a key.
 */
function isGivenAsText(text: string, { key, keySpan }: Lookup, separator: string): boolean {
  const fixed = key.kind === "fixed" ? [key.value] : key.kind === "composed" ? key.parts : [];
  if (separator === "" || fixed.some((part) => part?.includes(separator))) return false;
  const before = text.slice(Math.max(keySpan.start - 80, 0), keySpan.start);
  const [, property] = /(?<![\w$])([\w$]{1,60})\s{0,9}:\s{0,9}["'`]?$/.exec(before) ?? [];
  return property !== undefined && !asksForKey.test(property);
}

const asksForKey = new RegExp(`^${keyName}$`);

/**
 * Whether code compares what a lookup gives with its key, to know whether there is such a text:
 * `t("intro") !== "intro" ? t("intro") : intro`.
 */
function isAskedWhetherThere(text: string, key: string): boolean {
  for (const quote of [`"${key}"`, `'${key}'`])
    for (let at = text.indexOf(quote); at >= 0; at = text.indexOf(quote, at + 1)) {
      const end = at + quote.length;
      const compares =
        /[!=]==? ?$/.test(text.slice(Math.max(at - 4, 0), at)) || /^ ?[!=]==?/.test(text.slice(end, end + 4));
      const around = text.slice(Math.max(at - reach, 0), end + reach);
      if (compares && around.split(key).length > 2) return true;
    }
  return false;
}

/** So far from a comparison its other side may begin or end, in code units. */
const reach = 200;

/**
 * Whether code takes what a lookup gives as an object or a list: spread, walked through, or asked for a member of its own or by
 * the name that it is given.
 */
function isTakenWhole(text: string, { start, end }: Span): boolean {
  const before = text.slice(Math.max(start - reach, 0), start);
  const behind = text.slice(end, end + reach);
  const isWalked =
    /(?:\bObject\.(?:assign|keys|values|entries|freeze)\((?:[^();]{0,99},\s{0,9})?|\.\.\.|\*\*|\b(?:of|in|foreach\s?\()\s{0,9})$/.test(
      before,
    ) ||
    /^\)?\s{0,40}(?:\?\.)?(?:\[|(?:\.|->)(?:map|forEach|each|each_with_index|keys|values|items|entries|filter|find|reduce|join|sort|length|size|count|first|last|sample)\b)/.test(
      behind,
    );
  if (isWalked) return true;
  const name = /(?:^|[\s({,;])([$\w]{1,60})\s{0,9}:?=\s{0,9}$/.exec(before)?.[1];
  if (name === undefined) return false;
  const plain = name.replaceAll("$", "\\$");
  return new RegExp(
    String.raw`(?<![\w$.])${plain}(?:(?:\?\.)?\[|(?:\?\.|->)(?!(?:length|trim|replace|replaceAll|split|slice|toLowerCase|toUpperCase|includes|startsWith|endsWith|charAt|toString|substring|substr|concat|match|indexOf|repeat|padStart|padEnd|strip|lower|upper|format|gsub|sub|capitalize|html_safe)\b)[\w$])|\b(?:of|in)\s{1,9}${plain}(?![\w$])|foreach\s?\(\s{0,9}${plain}\s`,
  ).test(behindOf(text, end));
}

/** What comes behind a place of a file, as far as a name given there is likely to be used. */
function behindOf(text: string, end: number): string {
  return text.slice(end, end + 4_000);
}

/** Whether a string that reads like a text stands behind a key, as what is shown where the catalog has nothing: `t("quay.open", "Open now")`. */
function hasTextBehind(text: string, end: number): boolean {
  const behind = text.slice(end, end + 400);
  return /^["'`]\s{0,99},\s{0,99}(["'`])(?:\p{Lu}|(?:(?!\1)[^\n]){0,200}?\p{L} \p{L})/u.test(behind);
}

/**
 * Whether a key has a letter or digit that code writes: an empty one asks for nothing, and one of values alone for anything. What begins
 * with two signs `@` is given by the platform (WebExtensions, "Predefined messages").
 */
function saysSomething(key: Exclude<LookupKey, { readonly kind: "unknown" }>): boolean {
  if (key.kind === "fixed" && key.value.startsWith("@@")) return false;
  return /[\p{L}\p{N}]/u.test(key.kind === "fixed" ? key.value : key.parts.join(""));
}

/** Whether two books are asked by one call, filter, tag or attribute at least. */
function sharesLookups({ config: one }: Book, { config: other }: Book): boolean {
  const named = lookupNames(other);
  return lookupNames(one).some((name) => named.includes(name));
}

function lookupNames({ lookups }: BookConfig): readonly string[] {
  if (lookups.length === 0) return ["call t"];
  return lookups.flatMap((lookup) =>
    Object.entries(lookup).flatMap(([kind, name]) =>
      typeof name === "string" && !/^(?:namespace|prefix|key|default|note|values)$/.test(kind)
        ? [`${kind} ${name}`]
        : [],
    ),
  );
}

/** Of fewer lookups none may be known because they are new. */
const leastAsked = 4;

/** Of a call that nobody named, so many lookups for one that is known are no chance. */
const leastShare = 4;
const leastOfMany = 40;

/** Where more than one key in this many is unknown, and nearly none is misspelt, another program or other catalogs have them. */
const mostOfAll = 4;

/** Whether a book is asked by the usual call and nothing else: nobody looked at how its code does it. */
function asksByUsualCall({ lookups }: BookConfig): boolean {
  return usesDefaultCall(lookups) && lookups.length < 2;
}
