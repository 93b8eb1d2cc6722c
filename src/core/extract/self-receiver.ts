import type { SourceFile } from "../source/model.js";
import type { CodeNode } from "../source/readers/code/tree.js";
import { literally } from "../text/key-pattern.js";
import type { Span } from "../text/span.js";
import { nodesAround, treeOf } from "./code-tree.js";
import type { BookClasses } from "./member-receiver.js";

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
 * The method that a lookup of Python asks of its object, `tr` of `self.tr("{key}")`, where nothing shows that it is there: outside
 * of methods that are given the object, and in classes that neither use it, make it nor are made from one that does. Undefined for
 * other lookups, and where it is there.
 */
export function lackingOfSelf(
  template: string,
  source: SourceFile,
  { start }: Span,
  book: BookClasses,
): string | undefined {
  const [, receiver, member] = /^\s*(self)\.(\w+)/.exec(template) ?? [];
  if (receiver === undefined || member === undefined) return undefined;
  const path = nodesAround(treeOf(source, "python"), start);
  const at = path.findLastIndex((node) => takesReceiver(node, receiver, source.text));
  const holder = path.slice(0, Math.max(at, 0)).findLast(({ type }) => type === "class_definition");
  const name = /^class\s+(\w+)/.exec(holder ? source.text.slice(holder.start, holder.end) : "")?.[1];
  const isThere = at >= 0 && name !== undefined && has(name, membersOf(member, book));
  return isThere ? undefined : `${receiver}.${member}`;
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

function membersOf(member: string, book: BookClasses): Members {
  const ofBook = known.get(book) ?? new Map<string, Members>();
  known.set(book, ofBook);
  const found = ofBook.get(member);
  if (found) return found;
  const classes = new Map<string, ShownClass>();
  book.some((text) => {
    for (const one of classesIn(text, member)) classes.set(one.name, one);
    return false;
  });
  const outside = new Set<string>();
  for (const { bases, uses, makes } of classes.values()) {
    const [base, ...more] = bases;
    if (uses && !makes && base !== undefined && more.length === 0 && !classes.has(base)) outside.add(base);
  }
  const made = { classes, outside };
  ofBook.set(member, made);
  return made;
}

/** The classes of a text, each with what is below it. */
function classesIn(text: string, member: string): readonly ShownClass[] {
  const heads = [
    ...text.matchAll(/^([ \t]{0,40})class\s{1,9}(\w{1,80})\s{0,9}(?:\(([^()]{0,400})\))?\s{0,9}:/gm),
  ];
  const uses = new RegExp(`(?<![\\w.])self\\.${literally(member)}(?!\\w)`);
  const makes = new RegExp(
    `^[ \\t]+(?:async\\s+)?def\\s+${literally(member)}\\s*\\(|^[ \\t]+${literally(member)}\\s*=(?!=)|self\\.${literally(member)}\\s*=(?!=)`,
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
