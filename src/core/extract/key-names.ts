import { letterCases, type LetterCase } from "../config/names.js";
import type { BookConfig } from "../config/schema.js";
import { fixedText, insideOf, type Literal, type Piece } from "../source/model.js";
import { nameFromCode } from "../source/readers/expression-names.js";
import { digestOf } from "../text/digest.js";

/** Makes keys for texts of code, none of which clashes with another or with a group. */
export interface KeyNamer {
  /** The key for a text: one it already has in its group or in this run, else a new one. */
  nameFor(request: KeyRequest): string;
  /** The key that a person gave a text; undefined where it is another text's, or a group. */
  given(fullKey: string, message: string): string | undefined;
  /** Keeps a key for a text that code gives it; false where it is another's, or a group. */
  reserve(fullKey: string, text: string): boolean;
}

/** A text that is to be named, by all that a key can be made from. */
export interface KeyRequest {
  readonly file: string;
  /** The message that the key will stand for. */
  readonly message: string;
  /** What the key has to start with, where the file's own lookup stands before it. */
  readonly under?: string;
  readonly component?: string;
  readonly element?: string;
  /** What the text is, in one word. */
  readonly role: string;
  /** The words of the text that name it best, and more of them, for where the few are taken. */
  readonly slug: string;
  readonly longSlug: string;
  /** The start of a digest of its fixed text. */
  readonly hash: string;
}

/** What a key for a literal can be made from. */
export function keyRequest(
  literal: Literal,
  { file, message, under }: Pick<KeyRequest, "file" | "message"> & { readonly under: string | undefined },
): KeyRequest {
  const { component, element } = literal.context;
  return {
    file,
    message,
    ...(under !== undefined && { under }),
    ...(component !== undefined && { component }),
    ...(element !== undefined && { element }),
    role: roleWord(literal),
    slug: slugOf(literal),
    longSlug: slugOf(literal, moreWords),
    hash: digestOf(fixedText(literal.pieces)).slice(0, 6),
  };
}

/** So many keys, and so many of ten, of a file's lookups stand in its own group. */
const leastOwn = 2;
const mostOfTen = 8;

/**
 * The group of keys that a file has for its own texts, as its lookups show: most of them stand in it, and a part of its name is that of the file or
 * of a folder of it. With what stands behind it; undefined where there is none.
 */
export function ownGroup(file: string, keys: readonly string[], { parts }: Separators): string | undefined {
  if (parts === "" || keys.length < leastOwn) return undefined;
  const counts = new Map<string, number>();
  for (const key of keys) {
    const names = key.split(parts);
    for (let depth = 1; depth < names.length; depth++) {
      const group = names.slice(0, depth).join(parts);
      counts.set(group, (counts.get(group) ?? 0) + 1);
    }
  }
  const places = new Set(file.split("/").map((part) => plainName(part.split(".", 1)[0] ?? "")));
  const [own] = [...counts]
    .filter(([group, count]) => {
      const isMost = count >= leastOwn && count * 10 >= keys.length * mostOfTen;
      return isMost && group.split(parts).some((name) => places.has(plainName(name)));
    })
    .sort(([a], [b]) => b.length - a.length);
  return own && own[0] + parts;
}

/** A name without what tells its words apart. */
function plainName(name: string): string {
  return name.toLowerCase().replace(/[^\p{L}\p{N}]/gu, "");
}

/** The keys that a book's source catalogs have, with their texts, and the groups that they stand in. */
export interface KnownKeys {
  readonly texts: ReadonlyMap<string, string>;
  readonly groups: ReadonlySet<string>;
}

interface Separators {
  readonly parts: string;
  readonly namespace: string;
}

/** What a namer has to know of the keys that are there. `texts` holds the source texts by full key. */
export function knownKeys(
  book: BookConfig,
  separators: Separators,
  texts: ReadonlyMap<string, string>,
): KnownKeys {
  const groups = new Set<string>();
  for (const key of texts.keys()) for (const group of groupsOf(book, separators, key)) groups.add(group);
  return { texts, groups };
}

/** The parts of a key, as groups nest. */
function partsOf(book: BookConfig, { parts }: Separators, key: string): readonly string[] {
  return parts === "" || book.naming.pattern === "{text}" ? [key] : key.split(parts);
}

/** The keys of the groups that a key stands in, from the outermost. */
function groupsOf(book: BookConfig, separators: Separators, key: string): readonly string[] {
  const parts = partsOf(book, separators, key);
  return parts.slice(1).map((_, depth) => parts.slice(0, depth + 1).join(separators.parts));
}

/** The pattern for keys where a book gives none: the file says the section, the words the rest. */
export const defaultPattern = "{file}.{slug}";

/** How many words of a text a key takes, and how many code units at most. */
const mostWords = 4;
const mostUnits = 40;
/** How many words tell apart what begins alike. */
const moreWords = 7;

/** A namer for one run on one book, whose source catalogs have what is known. */
export function keyNamer(book: BookConfig, separators: Separators, known: KnownKeys): KeyNamer {
  const own = new Map<string, string>();
  const ownGroups = new Set<string>();
  const isTextKey = book.naming.pattern === "{text}";
  const textOf = (key: string) => own.get(key) ?? known.texts.get(key);
  const take = (key: string, text: string) => {
    own.set(key, text);
    for (const group of groupsOf(book, separators, key)) ownGroups.add(group);
  };
  const roles = new Map<string, string>();
  const pattern = book.naming.pattern ?? defaultPattern;
  const letterCase = book.naming.case ?? "camel";
  const hasNamespaces = book.files.includes("{namespace}");
  const isPlaced = /\{(?:file|folder|component)\}/.test(pattern);
  const root = hasNamespaces || book.naming.pattern !== undefined ? undefined : rootOf(known, separators);
  // Groups are called as those that are there, and written as most of them.
  const front = root === undefined ? "" : root + separators.parts;
  const outer = hasNamespaces
    ? []
    : [...known.groups]
        .filter((group) => group.startsWith(front))
        .map((group) => group.slice(front.length))
        .filter((group) => !group.includes(separators.parts) && wordsOf(group).length > 0);
  const groups = new Map(outer.map((group) => [wordsOf(group).join(""), group]));
  const groupCase = caseOf(outer, letterCase);

  const build = ({ file, under, ...request }: KeyRequest, slug: string): string => {
    if (under !== undefined && under !== "") return under + toCase(wordsOf(slug), letterCase);
    const { folder, name } = placeOf(file);
    const { component = name, element = "", role, hash } = request;
    const values: Readonly<Record<string, string>> = {
      folder,
      file: name,
      component,
      element,
      role,
      slug,
      hash,
    };
    const isOfFolder = !hasNamespaces && oftenNamed.test(name) && folder !== "" && !ofFrameworks.test(folder);
    const parts = (isOfFolder ? pattern.replace(/^\{file\}/, "{folder}.{file}") : pattern)
      .split(".")
      .map((part, depth) =>
        part.replace(/\{(\w+)\}/g, (whole, placeholder: string) => {
          const words = wordsOf(values[placeholder] ?? "");
          const isGroup = depth === 0 && part === whole && pattern.includes(".");
          return (
            (isGroup ? groups.get(words.join("")) : undefined) ??
            toCase(words, isGroup ? groupCase : letterCase)
          );
        }),
      )
      .filter((part) => part !== "");
    return joinKey(root === undefined ? parts : [root, ...parts], separators, hasNamespaces);
  };
  const isFree = (key: string) =>
    textOf(key) === undefined &&
    !known.groups.has(key) &&
    !ownGroups.has(key) &&
    !groupsOf(book, separators, key).some((group) => textOf(group) !== undefined);
  /** A key whose groups may be: one that is a text already gets another name, as no text can hold others. */
  const withOpenGroups = (key: string): string => {
    const parts = [...partsOf(book, separators, key)];
    for (let depth = 1; depth < parts.length; depth++)
      while (textOf(parts.slice(0, depth).join(separators.parts)) !== undefined)
        parts[depth - 1] = toCase(wordsOf(`${parts[depth - 1] ?? ""} texts`), letterCase);
    return parts.join(separators.parts);
  };
  return {
    given(fullKey, message) {
      if (textOf(fullKey) === message) return fullKey;
      if (!isFree(fullKey) || (!isTextKey && !/^[^\s"'`\\]+$/.test(fullKey))) return undefined;
      take(fullKey, message);
      return fullKey;
    },
    reserve(fullKey, text) {
      // A text that was moved in this run and is its own key may be looked up elsewhere already.
      if (own.get(fullKey) === text) return true;
      if (!isFree(fullKey)) return false;
      take(fullKey, text);
      return true;
    },
    nameFor(request) {
      const { file, message, under, role, slug, longSlug } = request;
      if (isTextKey) {
        // The text is the key, whatever a catalog has under it.
        if (textOf(message) === undefined) take(message, message);
        return message;
      }
      const group = `${under ?? file}\u0000${role}\u0000${message}`;
      const named = roles.get(group);
      if (named !== undefined) return named;
      // Where a name is taken: more words of the text, what it is, and last what no other text has.
      const inRole = `${slug} ${role}`;
      const slugs = [slug, longSlug, inRole, `${inRole} ${digestOf(message).slice(0, 4)}`];
      for (let attempt = 0; ; attempt++) {
        const built = withOpenGroups(
          build(
            request,
            attempt < slugs.length ? (slugs[attempt] ?? slug) : `${slugs.at(-1) ?? slug} ${attempt}`,
          ),
        );
        // A pattern without the text's words gives each text of a place the same key.
        const key = pattern.includes("{slug}") || attempt === 0 ? built : `${built}${attempt + 1}`;
        // Where keys say nothing of their places, one text has one key.
        const isFound = attempt === 0 && (isPlaced ? known.texts.get(key) : textOf(key)) === message;
        if (!isFound && !isFree(key)) continue;
        roles.set(group, key);
        if (!isFound) take(key, message);
        return key;
      }
    },
  };
}

/** So many keys in one group, and this part of them in a group of it, show that all keys stand in it. */
const leastInRoot = 10;
const mostNested = 0.6;

/** The group in which all keys of a book stand, in groups of their own: `app` of `app.quay.title`. */
function rootOf({ texts }: KnownKeys, { parts }: Separators): string | undefined {
  if (parts === "" || texts.size < leastInRoot) return undefined;
  let root: string | undefined;
  let nested = 0;
  for (const key of texts.keys()) {
    const [first = "", ...rest] = key.split(parts);
    if (rest.length === 0 || (root !== undefined && root !== first)) return undefined;
    root = first;
    if (rest.length > 1) nested++;
  }
  return nested >= texts.size * mostNested ? root : undefined;
}

/** So many groups show how they are written, and this part of all must be. */
const leastShown = 3;
const mostShown = 0.8;

/** The letter case of groups where nearly all have another one than keys, by names that tell the two apart. */
function caseOf(groups: readonly string[], usual: LetterCase): LetterCase {
  const isIn = (group: string, letterCase: LetterCase) => toCase(wordsOf(group), letterCase) === group;
  return (
    letterCases.find((one) => {
      const fit = groups.filter((group) => isIn(group, one));
      return (
        fit.length >= groups.length * mostShown &&
        fit.filter((group) => !isIn(group, usual)).length >= leastShown
      );
    }) ?? usual
  );
}

/** The namespace of keys whose pattern gives none, in a book that has namespaces. */
const commonNamespace = "common";

/** A key from its parts: the first is the namespace in a book that has namespaces. */
function joinKey(parts: readonly string[], separators: Separators, hasNamespace: boolean): string {
  if (!hasNamespace) return parts.join(separators.parts);
  const [namespace, ...rest] = parts.length < 2 ? [commonNamespace, ...parts] : parts;
  return `${namespace}${separators.namespace}${rest.join(separators.parts)}`;
}

/** Files that every part of a program has: the folder says whose they are. */
const oftenNamed =
  /^[_+]?(?:show|edit|new|list|form|create|update|delete|add|details?|view|page|layout|error|loading|not-found|route|template)$/i;

/**
 * Files that are what their folder is about, by a name that says nothing else: `index`, `main`, and `page` where folders are
 * routes.
 */
const ofFolder =
  /(?:^|\/)(?:_?index|\+page|main|[cC]omponent)\.|(?:^|\/)(?:app|routes|pages)\/(?:[^/]{1,100}\/){0,12}page\.\w{1,10}$/;

/** Folders of routes that stand for a value or for nothing: `[id]`, `(signed-in)`, `@side`, `$slug`, `:id`. */
const ofRoutes = /^[[({@$:<]/;

/** Folders that are named by what programs are made of. */
const ofFrameworks =
  /^(?:src|app|views?|pages?|templates?|components?|screens?|routes?|partials?|layouts?|shared|common|html|public|www|lib|ui)$/i;

/** The folder's and file's names; a file named for nothing else, such as `index`, goes by its folder. */
function placeOf(file: string): { folder: string; name: string } {
  const parts = file.split("/");
  const base = parts.pop() ?? "";
  const name = base.replace(/\.[^.]+$/, "").replace(/\.[^.]+$/, "");
  const places = parts.filter((part) => !ofRoutes.test(part)).reverse();
  const [folder = "", outer = ""] = places;
  if (!ofFolder.test(file)) return { folder, name };
  const [about, around = ""] = places.filter((part) => !ofFrameworks.test(part));
  if (about !== undefined) return { folder: around, name: about };
  return name === "index" && folder !== "" ? { folder: outer, name: folder } : { folder, name };
}

/** What a literal is, in one word: its attribute, its element, or how code uses it. */
function roleWord(literal: Literal): string {
  const { role, name, element, properties } = literal.context;
  if (role === "content") return wordOf(element);
  if (properties && properties.length > 0) return properties[properties.length - 1] ?? role;
  return role === "attribute" || role === "property" || role === "variable"
    ? (name ?? role)
    : role === "argument"
      ? callWord(name)
      : role;
}

/** What takes a text, by a word in its name: `f.submit`, `link_to`, `setTitle`, `new JLabel`. */
const callWords: readonly (readonly [RegExp, string])[] = [
  [/^(?:submit|button|btn)$/, "button"],
  [/^(?:link|anchor)$/, "link"],
  [/^(?:label|caption|legend)$/, "label"],
  [/^(?:title|heading|header)$/, "title"],
  [/^(?:placeholder|hint|tooltip|tip)$/, "hint"],
  [/^(?:error|errors|warning|warn)$/, "error"],
  [/^(?:column|th)$/, "column"],
  [/^(?:option|checkbox|radio|tab|switch)$/, "label"],
];

/** What a text is that a call takes, in one word. */
function callWord(name = ""): string {
  const words = wordsOf(name.split(".").at(-1) ?? "");
  const known = words.map((word) => callWords.find(([pattern]) => pattern.test(word.toLowerCase()))?.[1]);
  return known.findLast((one) => one !== undefined) ?? "message";
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
  // A component is mostly called by what it is, behind the name of its library: `ui-button`.
  if (element.includes("-"))
    return callWords.find(([word]) => word.test(element.split("-").at(-1) ?? ""))?.[1] ?? "text";
  return elementWords.find(([pattern]) => pattern.test(element))?.[1] ?? "text";
}

const fillers = new Set(
  "a an the of to and or is are was be been it its in on at by for from with this that these those you your yours we our i my please do does".split(
    " ",
  ),
);

/** The words of a text that name it best, with what is filled in where there are few; a digest's start where a key can hold none of them. */
function slugOf(literal: Literal, most = mostWords): string {
  // An ending in brackets is part of its word: `event(s)`.
  const text = fixedText(literal.pieces).replace(/(?<=\p{L})\((e?s)\)/gu, "$1");
  // A word or number among letters of another script does not say what the text is: `APP 订单`.
  const letters = text.match(/\p{L}/gu) ?? [];
  const isForeign = letters.filter((letter) => !/\p{Script=Latin}/u.test(letter)).length * 3 > letters.length;
  const words = isForeign ? [] : wordsOf(foldToAscii(text));
  const telling = words.filter((word) => !fillers.has(word));
  const filledIn = argumentWords(literal.pieces);
  const chosen = telling.length > 1 || (telling.length > 0 && filledIn.length > 0) ? telling : words;
  const named = chosen.length < 3 ? [...new Set([...chosen, ...filledIn])] : chosen;
  const kept = named.slice(0, most);
  const room = most > mostWords ? mostUnits * 1.5 : mostUnits;
  while (kept.length > 1 && kept.join("").length > room) kept.pop();
  return words.length > 0
    ? kept.map((word) => word.slice(0, room)).join(" ")
    : `${plainRole(literal)} ${digestOf(fixedText(literal.pieces)).slice(0, 6)}`;
}

/** What a literal is, in a word or a few, where its text gives none to its key: what its place is called, else "text". */
function plainRole(literal: Literal): string {
  const words = /^(?:content|attribute|property|argument)$/.test(literal.context.role)
    ? wordsOf(roleWord(literal))
    : [];
  return words.length === 0 || words.length > 3 || words.some((word) => /^\d/.test(word))
    ? "text"
    : words.join(" ");
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

/**
 * The words of a name or text that a key can hold, in lower case: `bookingPage` and `booking-page` give the same, and
 * capitals in front of a word are one by themselves (`SQLQuery`), but for the plural of an abbreviation (`URLs`).
 */
function wordsOf(text: string): string[] {
  return (
    text
      .replace(/([a-z0-9])([A-Z])/g, "$1 $2")
      .replace(/(?<=[A-Z])(?=[A-Z](?:[a-rt-z]|s[a-z]))/g, " ")
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
