import type { BookConfig } from "../config/schema.js";
import { canonicalTag, parseTag } from "../locale/tag.js";

/** How a book's catalog files are named, ready to be asked both ways. */
export interface Layout {
  /** The glob pattern that finds every catalog file of the book, of whatever locale. */
  readonly glob: string;
  readonly hasNamespaces: boolean;
  /** The locale and namespace that a file's path says, or undefined for a path of another shape. */
  place(file: string): CatalogPlace | undefined;
  /** The path of the catalog of a locale and namespace. */
  path(locale: string, namespace: string | undefined): string;
}

export interface CatalogPlace {
  /** The locale as the path writes it. */
  readonly written: string;
  /** The tag that this stands for; the same as written where it is no tag. */
  readonly locale: string;
  readonly namespace: string | undefined;
}

/** Reads a book's `files` pattern and `spelling`. */
export function bookLayout(book: Pick<BookConfig, "files" | "spelling">): Layout {
  const parts = book.files.split(/(\{locale\}|\{namespace\})/);
  const hasNamespaces = parts.includes("{namespace}");
  const seen = new Set<string>();
  const pattern = parts.map((part) => {
    if (part !== "{locale}" && part !== "{namespace}") return escapeForRegExp(part);
    const name = part.slice(1, -1);
    if (seen.has(name)) return `\\k<${name}>`;
    seen.add(name);
    return name === "locale" ? "(?<locale>[^/]+?)" : "(?<namespace>[^/]+?)";
  });
  const matcher = new RegExp(`^${pattern.join("")}$`);
  const { spelling } = book;
  const spell = (locale: string): string => {
    if (spelling === "hyphen") return locale;
    if (spelling === "underscore") return locale.replaceAll("-", "_");
    return spelling[locale] ?? locale;
  };
  const unspell = (written: string): string => {
    if (typeof spelling === "object") {
      const known = Object.keys(spelling).find((tag) => spelling[tag] === written);
      if (known !== undefined) return known;
    }
    const hyphenated = spelling === "underscore" ? written.replaceAll("_", "-") : written;
    return parseTag(hyphenated) ? canonicalTag(hyphenated) : written;
  };
  return {
    glob: parts.map((part) => (part.startsWith("{") ? "*" : escapeForGlob(part))).join(""),
    hasNamespaces,
    place(file) {
      const groups = matcher.exec(file)?.groups;
      const written = groups?.["locale"];
      if (written === undefined) return undefined;
      return { written, locale: unspell(written), namespace: groups?.["namespace"] };
    },
    path: (locale, namespace) =>
      parts
        .map((part) =>
          part === "{locale}" ? spell(locale) : part === "{namespace}" ? (namespace ?? "") : part,
        )
        .join(""),
  };
}

function escapeForRegExp(text: string): string {
  return text.replace(/[.*+?^${}()|[\]\\]/g, "\\$&");
}

function escapeForGlob(text: string): string {
  return text.replace(/[*?[\](){}!+@\\]/g, "\\$&");
}
