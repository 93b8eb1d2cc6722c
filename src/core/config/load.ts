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
export interface ConfigProblem {
  readonly file: string;
  readonly line: number;
  readonly column: number;
  /** The place inside the configuration: `books[0].files`; empty for the whole. */
  readonly path: string;
  readonly message: string;
  readonly remedy: string;
}

export type ConfigResult =
  | { readonly ok: true; readonly file: string; readonly config: Config }
  | { readonly ok: false; readonly problems: readonly ConfigProblem[] };

/** Where the value or key at a path stands, as an offset. */
type Locate = (path: readonly (string | number)[], wantKey: boolean) => number;

type Parsed =
  | { readonly ok: true; readonly value: unknown; readonly locate: Locate }
  | { readonly ok: false; readonly errors: readonly { readonly offset: number; readonly message: string }[] };

/** Finds, reads and checks the configuration. `file` names it; without it the usual names are tried. */
export function loadConfig(files: Files, file?: string): ConfigResult {
  const name = file ?? configFileNames.find((candidate) => files.read(candidate).ok) ?? configFileNames[0];
  const read = files.read(name);
  if (!read.ok) {
    const remedy =
      read.trouble === "absent"
        ? "run `fond init` to write one from what is in the project, or name one with --config"
        : "see that it can be read";
    return failed(name, `${name}: ${read.detail}`, remedy);
  }
  const checked = checkSettings(name, read.text, configSchema);
  if (!checked.ok) return checked;
  const problems = checkMeaning(checked.value).map(({ path, message, remedy }) => ({
    file: name,
    ...checked.at(path),
    path: showPath(path),
    message,
    remedy,
  }));
  return problems.length === 0 ? { ok: true, file: name, config: checked.value } : { ok: false, problems };
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
        message: error.message,
        remedy: "correct the file's syntax here",
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
        ...wordIssue(schema, issue, path, unknownKey, missing),
      };
    });
    return { ok: false, problems };
  }
  return { ok: true, value: checked.output, at };
}

/** What a key can be made of. */
const namingParts: readonly string[] = ["folder", "file", "component", "element", "role", "slug", "hash"];

/** The tag of the language with an English name; undefined where none has it. */
function languageNamed(name: string): string | undefined {
  const names = new Intl.DisplayNames(["en"], { type: "language", fallback: "none" });
  const letters = [..."abcdefghijklmnopqrstuvwxyz"];
  for (const first of letters)
    for (const second of letters)
      if (names.of(first + second)?.toLowerCase() === name.toLowerCase()) return first + second;
  return undefined;
}

/** What a schema cannot say: tags that are no tags, names used twice. */
function checkMeaning(config: Config): { path: (string | number)[]; message: string; remedy: string }[] {
  const problems: { path: (string | number)[]; message: string; remedy: string }[] = [];
  const tags = [
    { path: ["source"], tag: config.source },
    ...config.targets.map((tag, index) => ({ path: ["targets", index], tag })),
  ];
  const seen = new Set<string>();
  for (const { path, tag } of tags) {
    const parsed = parseTag(tag);
    if (!parsed) {
      const hyphenated = tag.replaceAll("_", "-");
      const remedy =
        parseTag(hyphenated) && hyphenated !== tag
          ? `write “${hyphenated}”; how file names spell it is set by “spelling”`
          : "write a tag such as de or pt-BR (BCP 47)";
      problems.push({ path, message: `“${tag}” is not a language tag`, remedy });
    } else if (seen.has(parsed.tag))
      problems.push({ path, message: `the locale “${tag}” is there twice`, remedy: "keep one of the two" });
    if (parsed) seen.add(parsed.tag);
  }
  const source = parseTag(config.source)?.tag ?? config.source;
  for (const [index, tag] of [config.source, ...config.targets].entries()) {
    const name = tag.split("-", 1)[0] ?? "";
    if (!parseTag(tag) || name.length < 4) continue;
    const meant = languageNamed(name);
    problems.push({
      path: index === 0 ? ["source"] : ["targets", index - 1],
      message: `"${tag}" is not a language tag`,
      remedy: meant === undefined ? "write a tag such as de or pt-BR (BCP 47)" : `did you mean "${meant}"?`,
    });
  }
  config.books.forEach((book, index) => {
    for (const [pattern, tags] of Object.entries(book.only ?? {}))
      for (const [at, tag] of tags.entries()) {
        const known = parseTag(tag)?.tag ?? tag;
        if (known === source || seen.has(known)) continue;
        problems.push({
          path: ["books", index, "only", pattern, at],
          message: `unknown locale "${tag}"`,
          remedy: `the locales are ${[config.source, ...config.targets].join(", ")}`,
        });
      }
    const { pattern } = book.naming;
    for (const [, part = ""] of pattern?.matchAll(/\{([^{}]*)\}/g) ?? [])
      if (!namingParts.includes(part)) {
        const near = nearest(part, namingParts);
        problems.push({
          path: ["books", index, "naming", "pattern"],
          message: `unknown part {${part}}`,
          remedy: near
            ? `did you mean {${near}}?`
            : `the parts are ${namingParts.map((one) => `{${one}}`).join(", ")}`,
        });
      }
    const isTable = book.format === "csv" || book.table !== undefined || /\.csv$/i.test(book.files);
    if (!book.files.includes("{locale}") && !book.root && !book.leaf && !isTable)
      problems.push({
        path: ["books", index, "files"],
        message: `found ${JSON.stringify(book.files)}, expected a path with {locale} in it`,
        remedy:
          "put {locale} where the paths differ; where one file holds all locales, say where with “root” or “leaf”",
      });
    if (book.root && book.leaf)
      problems.push({
        path: ["books", index, "leaf"],
        message: "“root” and “leaf” do not go together",
        remedy: "keep the one that says where the locale stands in the files",
      });
    if (config.books.findIndex((other) => other.name === book.name) < index)
      problems.push({
        path: ["books", index, "name"],
        message: `two books are named “${book.name}”`,
        remedy: "give each book a name of its own",
      });
  });
  return problems;
}

function wordIssue(
  schema: v.GenericSchema,
  issue: v.BaseIssue<unknown>,
  path: readonly (string | number)[],
  unknownKey: boolean,
  missing: boolean,
): { message: string; remedy: string } {
  const last = path[path.length - 1];
  if (unknownKey) {
    const allowed = allowedKeys(schema, path.slice(0, -1));
    const near = nearest(String(last), allowed);
    return {
      message: `“${last}” is no setting here`,
      remedy: near ? `did you mean “${near}”?` : `the settings here are ${allowed.join(", ")}`,
    };
  }
  if (missing) return { message: `“${last}” is missing`, remedy: "add it: every configuration needs it" };
  const expected = issue.message;
  const found = JSON.stringify(issue.input) ?? "nothing";
  const words = expected.split(/, | or /);
  const near =
    typeof issue.input === "string" && words.every((word) => /^[\w-]+$/.test(word))
      ? nearest(issue.input, words)
      : undefined;
  return {
    message: `found ${found.length > 60 ? `${found.slice(0, 57)}…` : found}, expected ${expected}`,
    remedy: near ? `did you mean “${near}”?` : "change it to what is expected",
  };
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
        message: `not valid JSON: ${spacedWords(printParseErrorCode(error.error))}`,
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
  return { offset, message: `nested deeper than ${deepestNesting} levels` };
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
        message: `not valid YAML: ${error.message}`,
      })),
    };
  let value: unknown;
  try {
    value = document.toJS();
  } catch {
    return {
      ok: false,
      errors: [{ offset: 0, message: "aliases that unfold to more than settings can be" }],
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

function failed(file: string, message: string, remedy: string): ConfigResult {
  return { ok: false, problems: [{ file, line: 1, column: 1, path: "", message, remedy }] };
}
