import { languages } from "../source/languages/index.js";
import type { CodeLanguage } from "../source/languages/language.js";
import type { SourceFile } from "../source/model.js";
import type { CodeNode } from "../source/readers/code/tree.js";
import { literally } from "../text/key-pattern.js";
import type { Span } from "../text/span.js";
import { nodesAround, treeOf } from "./code-tree.js";
import type { BookClasses, Receiver } from "./member-receiver.js";

/** A class of Python as a text shows it. */
interface ShownClass {
  readonly name: string;
  /** What it is made from, by the last names. */
  readonly bases: readonly string[];
  readonly uses: boolean;
  readonly makes: boolean;
}

/** What a book's classes of Python have of one member. */
interface Members {
  readonly classes: ReadonlyMap<string, ShownClass>;
  /** Classes from elsewhere that have it, as those that are made from them alone show. */
  readonly outside: ReadonlySet<string>;
}

const known = new WeakMap<BookClasses, Map<string, Members>>();

/**
 * The method that a lookup asks of the object that methods are given, `tr` of `self.tr("{key}")`, and whether it is there: in a
 * method that is given the object, of a class that uses it, makes it or is made from one that does. Undefined for other lookups,
 * and in languages whose methods have their object in another way.
 */
export function methodKnown(
  template: string,
  source: SourceFile,
  { start }: Span,
  language: CodeLanguage,
  book: BookClasses,
): Receiver | undefined {
  const { receiver } = languages[language];
  const [, asked, member] = /^\s*(\w+)\.(\w+)/.exec(template) ?? [];
  if (receiver === undefined || asked !== receiver || member === undefined) return undefined;
  const path = nodesAround(treeOf(source, language), start);
  const at = path.findLastIndex((node) => takesReceiver(node, receiver, source.text));
  const holder = path.slice(0, Math.max(at, 0)).findLast(({ type }) => type === "class_definition");
  const name = /^class\s+(\w+)/.exec(holder ? source.text.slice(holder.start, holder.end) : "")?.[1];
  const isKnown = at >= 0 && name !== undefined && has(name, membersOf(`${receiver}.${member}`, book));
  return { name: `${receiver}.${member}`, isKnown };
}

function takesReceiver({ type, children }: CodeNode, receiver: string, text: string): boolean {
  if (type !== "function_definition") return false;
  const parameters = children.find((child) => child.type === "parameters");
  const [first] = parameters?.children.filter((child) => /^\w/.test(child.type)) ?? [];
  return first !== undefined && text.slice(first.start, first.end) === receiver;
}

function has(name: string, { classes, outside }: Members, seen = new Set<string>()): boolean {
  if (outside.has(name)) return true;
  const own = classes.get(name);
  if (!own || seen.has(name)) return false;
  seen.add(name);
  return own.uses || own.makes || own.bases.some((base) => has(base, { classes, outside }, seen));
}

function membersOf(asked: string, book: BookClasses): Members {
  const ofBook = known.get(book) ?? new Map<string, Members>();
  known.set(book, ofBook);
  const found = ofBook.get(asked);
  if (found) return found;
  const classes = new Map<string, ShownClass>();
  book.some((text) => {
    for (const one of classesIn(text, asked)) classes.set(one.name, one);
    return false;
  });
  const outside = new Set<string>();
  for (const { bases, uses, makes } of classes.values()) {
    const [base, ...more] = bases;
    if (uses && !makes && base !== undefined && more.length === 0 && !classes.has(base)) outside.add(base);
  }
  const made = { classes, outside };
  ofBook.set(asked, made);
  return made;
}

/** The classes of a text, each with what is below it. */
function classesIn(text: string, asked: string): readonly ShownClass[] {
  const heads = [
    ...text.matchAll(/^([ \t]{0,40})class\s{1,9}(\w{1,80})\s{0,9}(?:\(([^()]{0,400})\))?\s{0,9}:/gm),
  ];
  const member = literally(asked.replace(/^.*\./, ""));
  const uses = new RegExp(`(?<![\\w.])${literally(asked)}(?!\\w)`);
  const makes = new RegExp(
    `^[ \\t]+(?:async\\s+)?def\\s+${member}\\s*\\(|^[ \\t]+${member}\\s*=(?!=)|${literally(asked)}\\s*=(?!=)`,
    "m",
  );
  return heads.map((head, index) => {
    const [, indent = "", name = "", bases = ""] = head;
    const end =
      heads.slice(index + 1).find(([, other = ""]) => other.length <= indent.length)?.index ?? text.length;
    const body = text.slice(head.index + head[0].length, end);
    return {
      name,
      bases: bases
        .split(",")
        .map((base) => base.trim())
        .filter((base) => base !== "" && !base.includes("="))
        .map((base) => base.replace(/^.*\./, "")),
      uses: uses.test(body),
      makes: makes.test(body),
    };
  });
}
