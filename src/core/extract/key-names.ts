import type { LetterCase } from "../config/names.js";
import type { BookConfig } from "../config/schema.js";
import { fixedText, insideOf, type Literal, type Piece } from "../source/model.js";
import { nameFromCode } from "../source/readers/expression-names.js";
import { digestOf } from "../text/digest.js";

/** Makes keys for texts of code, none of which clashes with another or with a group. */
export interface KeyNamer {
  /** The key for a text: one it already has in its group or in this run, else a new one. */
  nameFor(request: KeyRequest): { readonly fullKey: string; readonly isNew: boolean };
  /** The key that a person gave a text; undefined where it is another text's, or a group. */
  given(fullKey: string, message: string): { readonly fullKey: string; readonly isNew: boolean } | undefined;
  /** Keeps a key for a text that code gives it; false where it is another's, or a group. */
  reserve(fullKey: string, text: string): boolean;
}

export interface KeyRequest {
  readonly file: string;
  readonly literal: Literal;
  /** The message that the key will stand for. */
  readonly message: string;
  /** What the key has to start with, where the file's own lookup stands before it. */
  readonly under?: string | undefined;
}

/** The pattern for keys where a book gives none: the file says the section, the words the rest. */
export const defaultPattern = "{file}.{slug}";

/** How many words of a text a key takes, and how many code units at most. */
const mostWords = 4;
const mostUnits = 40;
/** How many words tell apart what begins alike. */
const moreWords = 7;

/** A namer for one run on one book. `existing` holds the source texts by full key. */
export function keyNamer(
  book: BookConfig,
  separators: { parts: string; namespace: string },
  existing: ReadonlyMap<string, string>,
): KeyNamer {
  const taken = new Map(existing);
  const groups = new Set<string>();
  const isTextKey = book.naming.pattern === "{text}";
  const split = (key: string) => (separators.parts === "" || isTextKey ? [key] : key.split(separators.parts));
  const addGroups = (key: string) => {
    const parts = split(key);
    for (let depth = 1; depth < parts.length; depth++)
      groups.add(parts.slice(0, depth).join(separators.parts));
  };
  for (const key of taken.keys()) addGroups(key);
  const roles = new Map<string, string>();
  const pattern = book.naming.pattern ?? defaultPattern;
  const letterCase = book.naming.case ?? "camel";
  const isPlaced = /\{(?:file|folder|component)\}/.test(pattern);

  const build = ({ file, literal, message, under }: KeyRequest, slug: string): string => {
    if (isTextKey) return message;
    if (under !== undefined && under !== "") return under + toCase(wordsOf(slug), letterCase);
    const { folder, name } = placeOf(file);
    const { context } = literal;
    const values: Readonly<Record<string, string>> = {
      folder,
      file: name,
      component: context.component ?? name,
      element: context.element ?? "",
      role: roleWord(literal),
      slug,
      hash: digestOf(fixedText(literal.pieces)).slice(0, 6),
    };
    const parts = pattern
      .split(".")
      .map((part) =>
        part.replace(/\{(\w+)\}/g, (_, placeholder: string) =>
          toCase(wordsOf(values[placeholder] ?? ""), letterCase),
        ),
      )
      .filter((part) => part !== "");
    return joinKey(parts, separators, book.files.includes("{namespace}"));
  };
  const isFree = (key: string) => {
    if (taken.has(key) || groups.has(key)) return false;
    const parts = split(key);
    return !parts.some((_, depth) => depth > 0 && taken.has(parts.slice(0, depth).join(separators.parts)));
  };
  /** A key whose groups may be: one that is a text already gets another name, as no text can hold others. */
  const withOpenGroups = (key: string): string => {
    const parts = [...split(key)];
    for (let depth = 1; depth < parts.length; depth++)
      while (taken.has(parts.slice(0, depth).join(separators.parts)))
        parts[depth - 1] = toCase(wordsOf(`${parts[depth - 1] ?? ""} texts`), letterCase);
    return parts.join(separators.parts);
  };
  return {
    given(fullKey, message) {
      if (taken.get(fullKey) === message) return { fullKey, isNew: false };
      if (!isFree(fullKey) || (!isTextKey && !/^[^\s"'`\\]+$/.test(fullKey))) return undefined;
      taken.set(fullKey, message);
      addGroups(fullKey);
      return { fullKey, isNew: true };
    },
    reserve(fullKey, text) {
      if (!isFree(fullKey)) return false;
      taken.set(fullKey, text);
      addGroups(fullKey);
      return true;
    },
    nameFor(request) {
      const { file, literal, message, under } = request;
      const role = `${under ?? file}\u0000${roleWord(literal)}\u0000${message}`;
      const known = roles.get(role);
      if (known !== undefined) return { fullKey: known, isNew: false };
      const slug = slugOf(literal);
      // Where a name is taken: more words of the text, what it is, and last what no other text has.
      const inRole = `${slug} ${roleWord(literal)}`;
      const slugs = [slug, slugOf(literal, moreWords), inRole, `${inRole} ${digestOf(message).slice(0, 4)}`];
      for (let attempt = 0; ; attempt++) {
        const named = withOpenGroups(
          build(
            request,
            attempt < slugs.length ? (slugs[attempt] ?? slug) : `${slugs.at(-1) ?? slug} ${attempt}`,
          ),
        );
        // A pattern without the text's words gives each text of a place the same key.
        const key = pattern.includes("{slug}") || attempt === 0 ? named : `${named}${attempt + 1}`;
        // Where keys say nothing of their places, one text has one key.
        const isFound = attempt === 0 && (isPlaced ? existing : taken).get(key) === message;
        if (!isFound && !isFree(key)) continue;
        roles.set(role, key);
        if (!isFound) {
          taken.set(key, message);
          addGroups(key);
        }
        return { fullKey: key, isNew: !isFound };
      }
    },
  };
}

/** The namespace of keys whose pattern gives none, in a book that has namespaces. */
const commonNamespace = "common";

/** A key from its parts: the first is the namespace in a book that has namespaces. */
function joinKey(
  parts: readonly string[],
  separators: { parts: string; namespace: string },
  hasNamespace: boolean,
): string {
  if (!hasNamespace) return parts.join(separators.parts);
  const [namespace, ...rest] = parts.length < 2 ? [commonNamespace, ...parts] : parts;
  return `${namespace}${separators.namespace}${rest.join(separators.parts)}`;
}

/** The folder's and file's names; a file named `index` goes by its folder. */
function placeOf(file: string): { folder: string; name: string } {
  const parts = file.split("/");
  const base = parts.pop() ?? "";
  const name = base.replace(/\.[^.]+$/, "").replace(/\.[^.]+$/, "");
  const folder = parts[parts.length - 1] ?? "";
  return name === "index" && folder !== ""
    ? { folder: parts[parts.length - 2] ?? "", name: folder }
    : { folder, name };
}

/** What a literal is, in one word: its attribute, its element, or how code uses it. */
function roleWord(literal: Literal): string {
  const { role, name, element, properties } = literal.context;
  if (role === "content") return wordOf(element);
  if (properties && properties.length > 0) return properties[properties.length - 1] ?? role;
  return role === "attribute" || role === "property" || role === "variable"
    ? (name ?? role)
    : role === "argument"
      ? "message"
      : role;
}

/** Elements whose names say what they are for, in words that are no names of HTML. */
const elementWords: readonly (readonly [RegExp, string])[] = [
  [/^a$/, "link"],
  [/^(?:button|summary)$/, "button"],
  [/^(?:h[1-6]|legend|caption|figcaption|dt)$/, "heading"],
  [/^th$/, "column"],
  [/^(?:label|option|title|textarea|optgroup)$/, "label"],
];

/** What text in an element is, in one word; a component's own name where it has one. */
function wordOf(element = ""): string {
  if (/^[A-Z]/.test(element)) return element;
  return elementWords.find(([pattern]) => pattern.test(element))?.[1] ?? "text";
}

const fillers = new Set(
  "a an the of to and or is are was be been it its in on at by for from with this that these those you your yours we our i my please do does".split(
    " ",
  ),
);

/** The words of a text that name it best, with what is filled in where there are few; a digest's start where a key can hold none of them. */
function slugOf(literal: Literal, most = mostWords): string {
  const words = wordsOf(foldToAscii(fixedText(literal.pieces)));
  const telling = words.filter((word) => !fillers.has(word));
  const filledIn = argumentWords(literal.pieces);
  const chosen = telling.length > 1 || (telling.length > 0 && filledIn.length > 0) ? telling : words;
  const named = chosen.length < 3 ? [...new Set([...chosen, ...filledIn])] : chosen;
  const kept = named.slice(0, most);
  const room = most > mostWords ? mostUnits * 1.5 : mostUnits;
  while (kept.length > 1 && kept.join("").length > room) kept.pop();
  return words.length > 0
    ? kept.join(" ").slice(0, room)
    : `text ${digestOf(fixedText(literal.pieces)).slice(0, 6)}`;
}

function foldToAscii(text: string): string {
  return text.normalize("NFD").replace(/\p{M}/gu, "").replace(/['’]/g, "");
}

function argumentWords(pieces: readonly Piece[]): string[] {
  return pieces.flatMap((piece) => {
    if (piece.kind === "text") return [];
    if (piece.kind !== "argument") return argumentWords(insideOf(piece));
    return wordsOf(/^\d+$/.test(piece.name) ? nameFromCode(piece.code) : piece.name);
  });
}

/** The words of a name or text that a key can hold, in lower case: `bookingPage` and `booking-page` give the same. */
function wordsOf(text: string): string[] {
  return (
    text
      .replace(/([a-z0-9])([A-Z])/g, "$1 $2")
      .toLowerCase()
      .match(/[a-z0-9]+/g) ?? []
  );
}

function toCase(words: readonly string[], letterCase: LetterCase): string {
  if (letterCase === "kebab") return words.join("-");
  if (letterCase === "snake") return words.join("_");
  if (letterCase === "upper") return words.join("_").toUpperCase();
  return words
    .map((word, index) =>
      index === 0 && letterCase === "camel" ? word : word.charAt(0).toUpperCase() + word.slice(1),
    )
    .join("");
}
