import { literally } from "../text/key-pattern.js";
import type { BookConfig } from "../config/schema.js";
import { canonicalTag, parseTag } from "../locale/tag.js";

/** How a book's catalog files are named, ready to be asked both ways. */
export interface Layout {
  /** The glob patterns that find every catalog file of the book, of whatever locale. */
  readonly globs: readonly string[];
  /** Whether the names of files say a namespace that keys in code start with. */
  readonly hasNamespaces: boolean;
  /** Whether the book has several catalogs a locale, told apart by namespace, folder or name. */
  readonly hasParts: boolean;
  /** Whether the paths say the locale; else a file holds several locales. */
  readonly hasLocales: boolean;
  /** The locale and namespace that a file's path says, or undefined for a path of another shape. */
  place(file: string): CatalogPlace | undefined;
  /** The path of the catalog of a locale and namespace. */
  path(locale: string, namespace: string | undefined): string;
  /** What code writes before a key of a catalog: its namespace, but not its folder or name. */
  codeNamespace(namespace: string | undefined): string | undefined;
  /** How file names and roots write a locale. */
  spell(locale: string): string;
  /** The tag that a spelling stands for; the same as written where it is not a tag. */
  localeOfSpelling(written: string): string;
}

export interface CatalogPlace {
  /** The locale as the path writes it; undefined where it does not. */
  readonly written: string | undefined;
  /** The tag that this stands for; the same as written where it is not a tag. */
  readonly locale: string | undefined;
  /** What tells this catalog from others of its locale: namespace, folder and name, joined by slashes. */
  readonly namespace: string | undefined;
}

type Variable = "locale" | "namespace" | "dir" | "name";

const variables = /(\{(?:locale|namespace|dir|name)\})/;

/** Reads a book's `files` pattern and `spelling`. */
export function bookLayout(book: Pick<BookConfig, "files" | "spelling">): Layout {
  const parts = book.files.split(variables).filter((part) => part !== "");
  const variableOf = (part: string): Variable | undefined =>
    variables.test(part) ? (part.slice(1, -1) as Variable) : undefined;
  const named = [...new Set(parts.flatMap((part) => variableOf(part) ?? []))];
  const partNames = named.filter((name) => name !== "locale");
  const { spelling } = book;
  // A locale spelled as nothing takes the separator before it along, or behind it where it comes first.
  const hasBlank = typeof spelling === "object" && Object.values(spelling).includes("");
  const full = matcherFor(parts);
  const blank = hasBlank ? matcherFor(withoutLocale(parts)) : undefined;
  const blankTag =
    typeof spelling === "object" ? Object.keys(spelling).find((tag) => spelling[tag] === "") : undefined;
  const spell = (locale: string): string => {
    if (spelling === "hyphen") return locale;
    if (spelling === "underscore") return locale.replaceAll("-", "_");
    return spelling[locale] ?? locale;
  };
  const localeOfSpelling = (written: string): string => {
    if (typeof spelling === "object") {
      const known = Object.keys(spelling).find((tag) => spelling[tag] === written);
      if (known !== undefined) return known;
    }
    const hyphenated = spelling === "hyphen" ? written : written.replaceAll("_", "-");
    return parseTag(hyphenated) ? canonicalTag(hyphenated) : written;
  };
  const namespaceOf = (groups: Readonly<Record<string, string | undefined>>) =>
    partNames.length === 0 ? undefined : partNames.map((name) => groups[name] ?? "").join("/");
  const write = (pieces: readonly string[], locale: string, namespace: string | undefined) => {
    const values = valuesOf(partNames, namespace);
    return pieces
      .map((part) => {
        const variable = variableOf(part);
        return variable === undefined ? part : variable === "locale" ? locale : (values[variable] ?? "");
      })
      .join("");
  };
  const globOf = (pieces: readonly string[]) =>
    pieces
      .map((part) => {
        const variable = variableOf(part);
        return variable === undefined ? escapeForGlob(part) : variable === "dir" ? "**" : "*";
      })
      .join("");
  const placeOf = (file: string): CatalogPlace | undefined => {
    const groups = full.exec(file)?.groups;
    const written = groups?.["locale"];
    const isTag = written !== undefined && parseTag(localeOfSpelling(written)) !== undefined;
    // `messages.properties` also matches where a name could end in a locale: without one it is the blank spelling.
    const plain = blank && !isTag ? blank.exec(file)?.groups : undefined;
    if (plain && blankTag !== undefined)
      return { written: "", locale: blankTag, namespace: namespaceOf(plain) };
    if (blank && !groups && blank.test(file) && blankTag !== undefined)
      return { written: "", locale: blankTag, namespace: undefined };
    if (!groups && !(named.length === 0 && full.test(file))) return undefined;
    return {
      written,
      locale: written === undefined ? undefined : localeOfSpelling(written),
      namespace: namespaceOf(groups ?? {}),
    };
  };
  const places = new Map<string, CatalogPlace | undefined>();
  return {
    globs: [globOf(parts), ...(hasBlank ? [globOf(withoutLocale(parts))] : [])],
    hasNamespaces: named.includes("namespace"),
    hasParts: partNames.length > 0,
    hasLocales: named.includes("locale"),
    place(file) {
      if (!places.has(file)) places.set(file, placeOf(file));
      return places.get(file);
    },
    path(locale, namespace) {
      const spelled = spell(locale);
      return spelled === "" ? write(withoutLocale(parts), "", namespace) : write(parts, spelled, namespace);
    },
    codeNamespace: (namespace) =>
      named.includes("namespace") ? valuesOf(partNames, namespace)["namespace"] : undefined,
    spell,
    localeOfSpelling,
  };
}

/** The parts of a namespace by the variables that they come from; a folder may have slashes itself. */
function valuesOf(
  names: readonly Variable[],
  namespace: string | undefined,
): Partial<Record<Variable, string>> {
  if (namespace === undefined) return {};
  if (names.length === 1) return { [names[0] ?? "namespace"]: namespace };
  const pieces = namespace.split("/");
  const values: Partial<Record<Variable, string>> = {};
  const dirAt = names.indexOf("dir");
  const surplus = pieces.length - names.length;
  let at = 0;
  for (const [index, name] of names.entries()) {
    const width = index === dirAt ? 1 + Math.max(surplus, 0) : 1;
    values[name] = pieces.slice(at, at + width).join("/");
    at += width;
  }
  return values;
}

function matcherFor(parts: readonly string[]): RegExp {
  const seen = new Set<string>();
  const pattern = parts.map((part) => {
    if (!variables.test(part)) return literally(part);
    const name = part.slice(1, -1);
    if (seen.has(name)) return `\\k<${name}>`;
    seen.add(name);
    return name === "dir" ? "(?<dir>.+?)" : `(?<${name}>[^/]+?)`;
  });
  return new RegExp(`^${pattern.join("")}$`);
}

/** The parts of a pattern for a locale that is spelled as nothing. */
function withoutLocale(parts: readonly string[]): string[] {
  const kept: string[] = [];
  let dropsNext = false;
  for (const part of parts) {
    if (part !== "{locale}") {
      kept.push(dropsNext ? part.replace(/^[-_./]/, "") : part);
      dropsNext = false;
      continue;
    }
    const before = kept.at(-1);
    if (before !== undefined && /[-_.]$/.test(before)) kept[kept.length - 1] = before.slice(0, -1);
    // A name that begins with the locale loses what parts the two; one that ends in it keeps the dot of its extension.
    else dropsNext = before === undefined || before.endsWith("/");
  }
  return kept;
}

function escapeForGlob(text: string): string {
  return text.replace(/[*?[\](){}!+@\\]/g, "\\$&");
}
