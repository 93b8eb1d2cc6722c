import { posix } from "node:path";
import { isWhole, unreadNote, type Book, type Catalog } from "../catalog/book.js";
import type { BookConfig } from "../config/schema.js";
import type { ArgumentNode, PluralNode, SelectNode } from "../message/model.js";
import { showForms } from "../message/forms.js";
import { messageReader } from "../message/parse.js";
import type { ReadMessage } from "../message/read-message.js";
import { makePlan, type FileChange, type Plan, type PlanNote } from "../plan/plan.js";
import { formerPlaces } from "../text/former-places.js";
import { makeAnew, type Keep } from "../text/kept.js";
import { booksIn, type Project, type Scope } from "./project.js";

/** Plans the TypeScript declarations of the books that want them: each key with the values that its text takes. */
export function declareProject(project: Project, scope: Scope = {}): Plan {
  const changes: FileChange[] = [];
  const notes: PlanNote[] = [];
  const { keep = makeAnew } = project;
  let count = 0;
  for (const config of booksIn(project, scope)) {
    if (config.declare === undefined) continue;
    const book = project.book(config);
    const broken = book.catalogsOf(book.sourceLocale).find((catalog) => !isWhole(catalog));
    if (broken) {
      notes.push(unreadNote(broken));
      continue;
    }
    const { file, module } =
      typeof config.declare === "string" ? { file: config.declare, module: undefined } : config.declare;
    const written = project.files.read(file);
    const from = [book.config, file, module, ...book.catalogsOf(book.sourceLocale)];
    const { text, keys } = keep(`declarations ${config.name}`, from, () =>
      declarations(book, { file, module }, keep),
    );
    count += keys;
    changes.push({ file, before: written.ok ? written.text : undefined, after: text });
  }
  return makePlan(changes, count > 0 ? { "keys declared": count } : {}, notes);
}

interface DeclareTarget {
  readonly file: string;
  /** The module whose interface `Texts` is filled in; undefined for types that stand by themselves. */
  readonly module: string | undefined;
}

/** What is declared of a text: its key as code writes it, the type of its values, and a comment that shows it. */
interface Member {
  readonly key: string;
  readonly text: string;
  readonly name: string;
  readonly type: string;
  readonly comment: string;
}

/** What is declared of a source catalog's texts; of those that are as they were, what was worked out before. */
function membersOf(book: Book, source: Catalog, keep: Keep): readonly Member[] {
  interface Members {
    readonly config: BookConfig;
    readonly keys: readonly string[];
    readonly members: readonly Member[];
  }
  const { config, sourceLocale } = book;
  return keep<Members>(`declared ${config.name} ${source.namespace ?? ""}`, [config, source], (before) => {
    const former = before?.config === config ? before : undefined;
    const reader = messageReader(config);
    const isNumbered = reader.syntax.numberedFrom !== undefined;
    const entries = [...source.byKey.values()].filter(({ kind }) => kind !== "code");
    const keys = entries.map(({ key }) => key);
    const places = formerPlaces(keys, former?.keys ?? []);
    const members = entries.map(({ key, text }, at): Member => {
      const known = former?.members[places[at] ?? -1];
      if (known?.text === text) return known;
      const message = reader.read(text, sourceLocale, key);
      return {
        key,
        text,
        name: JSON.stringify(book.codeKey(source.namespace, key)),
        type: message.isBroken ? "Readonly<Record<string, unknown>>" : valuesType(message, isNumbered),
        comment: commentOf(showForms(text)),
      };
    });
    return { config, keys, members };
  }).members;
}

/** The text of a book's declarations, and how many keys they have. */
function declarations(
  book: Book,
  { file, module }: DeclareTarget,
  keep: Keep,
): { readonly text: string; readonly keys: number } {
  // Texts that take the same share a type: with one for each, every call would be held against thousands.
  const shapes = new Map<string, string>();
  const taken = new Set<string>();
  const shared = (type: string) => {
    if (!type.startsWith("{") && !type.startsWith("readonly [")) return type;
    const known = shapes.get(type);
    if (known !== undefined) return known;
    const words = [...type.matchAll(/(?<=[{;] )"?([A-Za-z_]\w*)/g)].map(([, word = ""]) => pascal(word));
    const plain = `With${words.slice(0, 4).join("") || "Values"}`;
    let own = plain;
    for (let number = 2; taken.has(own); number++) own = `${plain}${number}`;
    shapes.set(type, own);
    taken.add(own);
    return own;
  };
  const indent = module === undefined ? "  " : "    ";
  const members = book
    .catalogsOf(book.sourceLocale)
    .flatMap((source) => membersOf(book, source, keep))
    .map(({ name, type, comment }) => `${indent}/** ${comment} */\n${indent}${name}: ${shared(type)};\n`);
  const name = pascal(book.config.name);
  const head = `// The keys of "${book.config.name}" with the values that their texts take. Written by \`fond declare\`; changes are lost.\n`;
  const values =
    "/** What a text shows a value as. */\ntype Value = string | number;\n/** What puts an element around the text inside of it. */\n// eslint-disable-next-line @typescript-eslint/no-explicit-any\ntype Wrap = (children: any) => unknown;\n";
  const types = [...shapes].map(([type, own]) => `type ${own} = ${type};\n`).join("");
  if (module !== undefined) {
    const from = posix.relative(posix.dirname(file), module).replace(/\.[cm]?tsx?$/, "");
    const path = from.startsWith(".") ? from : `./${from}`;
    return {
      text: `${head}export {};\n\n${values}${types}\ndeclare module ${JSON.stringify(path)} {\n  interface Texts {\n${members.join("")}  }\n}\n`,
      keys: members.length,
    };
  }
  return {
    text: `${head}
${values}${types}
export interface ${name}Texts {
${members.join("")}}

export type ${name}Key = keyof ${name}Texts;

/** A lookup of these keys: \`const t: ${name}Lookup = lookup;\` makes the compiler check keys and values. */
export type ${name}Lookup = <Key extends ${name}Key>(
  key: Key,
  ...values: [${name}Key] extends [Key] ? unknown[] : ${name}Texts[Key] extends undefined ? [] : [values: ${name}Texts[Key]]
) => string;
`,
    keys: members.length,
  };
}

/** The type of the values of a message; `undefined` for a text that takes none. */
function valuesType(message: ReadMessage, isNumbered: boolean): string {
  const { arguments: named, tags } = message.facts;
  if (isNumbered) {
    const numbers = [...named.keys()].map(Number).filter(Number.isInteger);
    if (numbers.length === 0) return "undefined";
    const first = numbers.includes(0) ? 0 : 1;
    const types = Array.from({ length: Math.max(...numbers) - first + 1 }, (_, index) => {
      const uses = named.get(String(first + index));
      return uses ? typeOf(uses) : "unknown";
    });
    return `readonly [${types.join(", ")}]`;
  }
  const members = [
    ...[...named].map(([name, uses]) => `${propertyName(name)}: ${typeOf(uses)}`),
    ...[...tags.keys()].filter((name) => !named.has(name)).map((name) => `${propertyName(name)}: Wrap`),
  ];
  return members.length === 0 ? "undefined" : `{ ${members.join("; ")} }`;
}

/** The type that all uses of an argument take. */
function typeOf(uses: readonly (ArgumentNode | PluralNode | SelectNode)[]): string {
  if (uses.some(({ kind }) => kind === "plural")) return "number";
  const cases = uses.flatMap((use) =>
    use.kind === "select" ? use.branches.map(({ selector }) => selector) : [],
  );
  if (cases.length > 0) {
    const named = [...new Set(cases)].filter((one) => one !== "other" && one !== "*");
    const isOpen = cases.includes("other") || cases.includes("*");
    // Any other word takes the rest, and an editor still offers those that are named.
    return [...named.map((one) => JSON.stringify(one)), ...(isOpen ? ["(string & {})"] : [])].join(" | ");
  }
  const types = uses.flatMap((use) => (use.kind === "argument" && use.format ? [use.format.type] : []));
  if (
    types.some((type) =>
      /^(?:number|integer|percent|currency|unit|choice|spellout|ordinal|[diuf]|[eEgGxXo])$/.test(type),
    )
  )
    return "number";
  if (types.some((type) => /^(?:date|time|datetime)$/.test(type))) return "Date | number";
  if (types.includes("list")) return "readonly string[]";
  return "Value";
}

function propertyName(name: string): string {
  return /^[A-Za-z_$][\w$]*$/.test(name) ? name : JSON.stringify(name);
}

/** A text in a comment: on one line, and without what ends one. */
function commentOf(text: string): string {
  const line = text.replace(/\s+/g, " ").replaceAll("*/", "*\\/").trim();
  return line.length > 200 ? `${line.slice(0, 197)}…` : line;
}

function pascal(name: string): string {
  const joined = name.replace(/(?:^|[-_])(\w)/g, (_, letter: string) => letter.toUpperCase());
  return /^\d/.test(joined) ? `Book${joined}` : joined;
}
