import { notices } from "../message/notices.js";
import type { Notice } from "../text/wording.js";
import { deepestNesting, tooDeepInJson, tooDeepInYaml } from "../text/nesting.js";
import type { Node, ParseError } from "jsonc-parser";
import * as v from "valibot";
import type { Document } from "yaml";
import { findNodeAtLocation, parseTree, printParseErrorCode } from "../text/jsonc.js";
import { isMap, isScalar, isSeq, lineCounter, parseDocument } from "../text/yaml.js";
import type { Files } from "../files/files.js";
import { parseTag } from "../locale/tag.js";
import { lazily } from "../text/lazy.js";
import { lineIndex } from "../text/line-index.js";
import type { Position } from "../text/span.js";
import { nearest } from "../text/nearest.js";
import { configSchema, type Config } from "./schema.js";

/** The names under which a configuration is looked for, in this order. */
export const configFileNames = ["fond.config.json", "fond.config.yaml", "fond.config.yml"] as const;

/** Something wrong with the configuration: where, what was found, what was expected, what to do. */
export interface ConfigProblem extends Notice {
  readonly file: string;
  readonly line: number;
  readonly column: number;
  /** The place inside the configuration: `books[0].files`; empty for the whole. */
  readonly path: string;
}

export type ConfigResult =
  | {
      readonly ok: true;
      readonly file: string;
      readonly config: Config;
      /** Where the value at a path is in the file. */
      readonly at: (path: readonly (string | number)[]) => Position;
    }
  | { readonly ok: false; readonly problems: readonly ConfigProblem[] };

const say = notices("config", {
  absent: {
    message: "{detail}",
    remedy: "run `fond init` to write one from what is in the project, or name one with --config",
  },
  unreadable: { message: "{detail}", remedy: "check its permissions" },
  json: { message: "invalid JSON: {detail}", remedy: "fix the syntax of the file here" },
  yaml: { message: "invalid YAML: {detail}", remedy: "fix the syntax of the file here" },
  "too-deep": { message: "nested deeper than {levels} levels", remedy: "check what wrote this file" },
  aliases: { message: "aliases expand to too much", remedy: "write the settings out" },
  "no-tag": { message: '"{tag}" is not a language tag', remedy: "write a tag such as de or pt-BR (BCP 47)" },
  "spelled-tag": {
    message: '"{tag}" is not a language tag',
    remedy: 'write "{meant}"; "spelling" sets how file names spell it',
  },
  "language-name": { message: '"{tag}" is not a language tag', remedy: 'did you mean "{meant}"?' },
  "duplicate-locale": { message: 'duplicate locale "{tag}"', remedy: "keep one of the two" },
  "unknown-locale": { message: 'unknown locale "{tag}"', remedy: "use one of the locales {locales}" },
  "misspelled-part": { message: "unknown part {part}", remedy: "did you mean {meant}?" },
  "unknown-part": { message: "unknown part {part}", remedy: "use one of the parts {parts}" },
  "root-and-leaf": {
    message: '"root" and "leaf" cannot be combined',
    remedy: "keep the one that says where the locale is in the files",
  },
  "duplicate-book": { message: 'duplicate book "{name}"', remedy: "give each book its own name" },
  "unknown-book": { message: 'unknown book "{name}"', remedy: "name another book of the project: {books}" },
  "misspelled-setting": { message: 'unknown setting "{name}"', remedy: 'did you mean "{meant}"?' },
  "unknown-setting": { message: 'unknown setting "{name}"', remedy: "use one of the settings {settings}" },
  "missing-setting": { message: 'missing setting "{name}"', remedy: "add it: it is required" },
  "misspelled-value": { message: "found {found}, expected {expected}", remedy: 'did you mean "{meant}"?' },
  "wrong-value": { message: "found {found}, expected {expected}", remedy: "change it to what is expected" },
});

/** Where the value or key at a path stands, as an offset. */
type Locate = (path: readonly (string | number)[], wantKey: boolean) => number;

type Parsed =
  | { readonly ok: true; readonly value: unknown; readonly locate: Locate }
  | { readonly ok: false; readonly errors: readonly { readonly offset: number; readonly notice: Notice }[] };

/** Finds, reads and checks the configuration. `file` names it; without it the usual names are tried. */
export function loadConfig(files: Files, file?: string): ConfigResult {
  const name = file ?? configFileNames.find((candidate) => files.read(candidate).ok) ?? configFileNames[0];
  const read = files.read(name);
  if (!read.ok) {
    const { detail } = read;
    const notice = read.trouble === "absent" ? say("absent", { detail }) : say("unreadable", { detail });
    return { ok: false, problems: [{ file: name, line: 1, column: 1, path: "", ...notice }] };
  }
  const checked = checkSettings(name, read.text, configSchema);
  if (!checked.ok) return checked;
  const problems = checkMeaning(checked.value).map(({ path, ...notice }) => ({
    file: name,
    ...checked.at(path),
    path: showPath(path),
    ...notice,
  }));
  return problems.length === 0
    ? { ok: true, file: name, config: checked.value, at: checked.at }
    : { ok: false, problems };
}

/** Settings that were checked, with the places of what is in them. */
export type CheckedSettings<Value> =
  | {
      readonly ok: true;
      readonly value: Value;
      readonly at: (path: readonly (string | number)[]) => Position;
    }
  | { readonly ok: false; readonly problems: readonly ConfigProblem[] };

/** Parses a file of settings (JSON with comments, or YAML by its name) and checks it against a schema. */
export function checkSettings<Schema extends v.GenericSchema>(
  name: string,
  text: string,
  schema: Schema,
): CheckedSettings<v.InferOutput<Schema>> {
  const parsed = /\.ya?ml$/.test(name) ? parseYaml(text) : parseJson(text);
  const index = lineIndex(text);
  if (!parsed.ok) {
    return {
      ok: false,
      problems: parsed.errors.map((error) => ({
        file: name,
        ...index.position(error.offset),
        path: "",
        ...error.notice,
      })),
    };
  }
  const { value, locate } = parsed;
  const at = (path: readonly (string | number)[], wantKey = false) => index.position(locate(path, wantKey));
  const checked = v.safeParse(schema, value);
  if (!checked.success) {
    const problems = checked.issues.map((issue) => {
      const path = pathOf(issue);
      const unknownKey = issue.type === "strict_object" && issue.expected === "never";
      const missing = issue.type === "strict_object" && issue.received === "undefined" && !unknownKey;
      const place = missing ? path.slice(0, -1) : path;
      return {
        file: name,
        ...at(place, unknownKey),
        path: showPath(path),
        ...explainIssue(schema, issue, path, unknownKey, missing),
      };
    });
    return { ok: false, problems };
  }
  return { ok: true, value: checked.output, at };
}

/** What a key can be made of. */
const namingParts: readonly string[] = [
  "folder",
  "file",
  "component",
  "element",
  "role",
  "slug",
  "hash",
  "text",
];

/** The tag of the language with an English name; undefined where none has it. */
function languageNamed(name: string): string | undefined {
  const names = new Intl.DisplayNames(["en"], { type: "language", fallback: "none" });
  const letters = [..."abcdefghijklmnopqrstuvwxyz"];
  for (const first of letters)
    for (const second of letters)
      if (names.of(first + second)?.toLowerCase() === name.toLowerCase()) return first + second;
  return undefined;
}

type MeaningProblem = { readonly path: readonly (string | number)[] } & Notice;

/** What a schema cannot say: tags that are no tags, names used twice. */
function checkMeaning(config: Config): readonly MeaningProblem[] {
  const problems: MeaningProblem[] = [];
  const tags = [
    { path: ["source"], tag: config.source },
    ...config.targets.map((tag, index) => ({ path: ["targets", index], tag })),
  ];
  const seen = new Set<string>();
  for (const { path, tag } of tags) {
    const parsed = parseTag(tag);
    if (!parsed) {
      const hyphenated = tag.replaceAll("_", "-");
      const isSpelling = parseTag(hyphenated) && hyphenated !== tag;
      problems.push({
        path,
        ...(isSpelling ? say("spelled-tag", { tag, meant: hyphenated }) : say("no-tag", { tag })),
      });
    } else if (seen.has(parsed.tag)) problems.push({ path, ...say("duplicate-locale", { tag }) });
    if (parsed) seen.add(parsed.tag);
  }
  const source = parseTag(config.source)?.tag ?? config.source;
  for (const [index, tag] of [config.source, ...config.targets].entries()) {
    const name = tag.split("-", 1)[0] ?? "";
    if (!parseTag(tag) || name.length < 4) continue;
    const meant = languageNamed(name);
    problems.push({
      path: index === 0 ? ["source"] : ["targets", index - 1],
      ...(meant === undefined ? say("no-tag", { tag }) : say("language-name", { tag, meant })),
    });
  }
  config.books.forEach((book, index) => {
    for (const [pattern, tags] of Object.entries(book.only ?? {}))
      for (const [at, tag] of tags.entries()) {
        const known = parseTag(tag)?.tag ?? tag;
        if (known === source || seen.has(known)) continue;
        problems.push({
          path: ["books", index, "only", pattern, at],
          ...say("unknown-locale", { tag, locales: [config.source, ...config.targets].join(", ") }),
        });
      }
    const { pattern } = book.naming;
    for (const [, part = ""] of pattern?.matchAll(/\{([^{}]*)\}/g) ?? [])
      if (!namingParts.includes(part)) {
        const near = nearest(part, namingParts);
        problems.push({
          path: ["books", index, "naming", "pattern"],
          ...(near
            ? say("misspelled-part", { part: `{${part}}`, meant: `{${near}}` })
            : say("unknown-part", {
                part: `{${part}}`,
                parts: namingParts.map((one) => `{${one}}`).join(", "),
              })),
        });
      }
    if (book.root && book.leaf)
      problems.push({
        path: ["books", index, "leaf"],
        ...say("root-and-leaf", {}),
      });
    if (config.books.findIndex((other) => other.name === book.name) < index)
      problems.push({
        path: ["books", index, "name"],
        ...say("duplicate-book", { name: book.name }),
      });
    const others = config.books.map(({ name }) => name).filter((name) => name !== book.name);
    for (const [at, name] of (book.fallback ?? []).entries())
      if (!others.includes(name))
        problems.push({
          path: ["books", index, "fallback", at],
          ...say("unknown-book", { name, books: others.join(", ") || "none" }),
        });
  });
  return problems;
}

function explainIssue(
  schema: v.GenericSchema,
  issue: v.BaseIssue<unknown>,
  path: readonly (string | number)[],
  unknownKey: boolean,
  missing: boolean,
): Notice {
  const last = path[path.length - 1];
  if (unknownKey) {
    const allowed = allowedKeys(schema, path.slice(0, -1));
    const near = nearest(String(last), allowed);
    const name = String(last);
    return near
      ? say("misspelled-setting", { name, meant: near })
      : say("unknown-setting", { name, settings: allowed.join(", ") });
  }
  if (missing) return say("missing-setting", { name: String(last) });
  const expected = issue.message;
  const found = JSON.stringify(issue.input) ?? "nothing";
  const words = expected.split(/, | or /).filter((word) => /^[\w-]+$/.test(word));
  const near = typeof issue.input === "string" ? nearest(issue.input, words) : undefined;
  const shown = found.length > 60 ? `${found.slice(0, 57)}…` : found;
  return near
    ? say("misspelled-value", { found: shown, expected, meant: near })
    : say("wrong-value", { found: shown, expected });
}

/** The keys that the schema allows at a path. */
function allowedKeys(whole: v.GenericSchema, path: readonly (string | number)[]): string[] {
  let schema: unknown = whole;
  for (const part of path) {
    schema = unwrap(schema);
    const here = schema as { entries?: Record<string, unknown>; item?: unknown };
    schema = typeof part === "number" ? here.item : here.entries?.[part];
  }
  const { entries } = (unwrap(schema) ?? {}) as { entries?: Record<string, unknown> };
  return Object.keys(entries ?? {});
}

function unwrap(schema: unknown): unknown {
  let current = schema as { wrapped?: unknown; pipe?: readonly unknown[] } | undefined;
  while (current?.wrapped !== undefined || current?.pipe !== undefined)
    current = (current.wrapped ?? current.pipe?.[0]) as typeof current;
  return current;
}

function pathOf(issue: v.BaseIssue<unknown>): (string | number)[] {
  return (issue.path ?? []).map((item) => item.key as string | number);
}

function showPath(path: readonly (string | number)[]): string {
  return path
    .map((part, index) => (typeof part === "number" ? `[${part}]` : index === 0 ? part : `.${part}`))
    .join("");
}

function parseJson(text: string): Parsed {
  const deep = tooDeepInJson(text);
  if (deep !== undefined) return { ok: false, errors: [nestedTooDeep(deep)] };
  const errors: ParseError[] = [];
  const readTree = lazily(() => parseTree(text, errors, { allowTrailingComma: true }));
  const locate: Locate = (path, wantKey) => {
    const tree = readTree();
    const node = tree && findNodeAtLocation(tree, [...path]);
    if (!node) return tree?.offset ?? 0;
    const key = node.parent?.type === "property" ? node.parent.children?.[0] : undefined;
    return (wantKey && key ? key : node).offset;
  };
  try {
    return { ok: true, value: JSON.parse(text) as unknown, locate };
  } catch {
    // It has comments or commas at the end, or what is wrong with it is found below.
  }
  const tree = readTree();
  if (errors.length > 0 || !tree) {
    const found = errors.length > 0 ? errors : [{ error: 4, offset: 0, length: 0 }];
    return {
      ok: false,
      errors: found.map((error) => ({
        offset: error.offset,
        notice: say("json", { detail: spacedWords(printParseErrorCode(error.error)) }),
      })),
    };
  }
  return {
    ok: true,
    value: valueOf(tree),
    locate,
  };
}

/** `PropertyNameExpected` in words. */
function spacedWords(code: string): string {
  return code.replace(/([a-z])([A-Z])/g, "$1 $2").toLowerCase();
}

function valueOf(node: Node): unknown {
  if (node.type === "array") return (node.children ?? []).map(valueOf);
  if (node.type !== "object") return node.value as unknown;
  return Object.fromEntries(
    (node.children ?? []).flatMap((property) => {
      const [key, value] = property.children ?? [];
      return key && value ? [[key.value as string, valueOf(value)]] : [];
    }),
  );
}

function nestedTooDeep(offset: number) {
  return { offset, notice: say("too-deep", { levels: deepestNesting }) };
}

function parseYaml(text: string): Parsed {
  const deep = tooDeepInYaml(text);
  if (deep !== undefined) return { ok: false, errors: [nestedTooDeep(deep)] };
  const document = parseDocument(text, { lineCounter: lineCounter(), prettyErrors: false });
  if (document.errors.length > 0)
    return {
      ok: false,
      errors: document.errors.map((error) => ({
        offset: error.pos[0],
        notice: say("yaml", { detail: error.message }),
      })),
    };
  let value: unknown;
  try {
    value = document.toJS();
  } catch {
    return {
      ok: false,
      errors: [{ offset: 0, notice: say("aliases", {}) }],
    };
  }
  return { ok: true, value, locate: (path, wantKey) => yamlOffset(document, path, wantKey) };
}

function yamlOffset(document: Document, path: readonly (string | number)[], wantKey: boolean): number {
  const parent = document.getIn(path.slice(0, -1), true);
  const last = path[path.length - 1];
  if (wantKey && isMap(parent)) {
    const pair = parent.items.find((item) => isScalar(item.key) && item.key.value === last);
    if (isScalar(pair?.key)) return pair.key.range?.[0] ?? 0;
  }
  const node = path.length === 0 ? document.contents : document.getIn([...path], true);
  return isScalar(node) || isMap(node) || isSeq(node) ? (node.range?.[0] ?? 0) : 0;
}
