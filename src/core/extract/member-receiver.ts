import { posix } from "node:path";
import { calledIn } from "../source/book-code.js";
import { languages } from "../source/languages/index.js";
import type { CodeLanguage, Language } from "../source/languages/language.js";
import type { SourceFile } from "../source/model.js";
import type { CodeNode } from "../source/readers/code/tree.js";
import { nodesAround, treeOf } from "./code-tree.js";
import { literally } from "../text/key-pattern.js";
import { lazily } from "../text/lazy.js";
import type { Span } from "../text/span.js";

/** What a lookup is asked of, a method, an object or a variable, and whether it is known at a place. */
export interface Receiver {
  readonly name: string;
  readonly isKnown: boolean;
}

/** What a book's code has of classes. */
export interface BookClasses {
  /** The texts of the files in which a class or module of a name is declared. */
  named(name: string): readonly string[];
  /** Whether some file declares or calls a method of a name, or has an object of it. */
  have(name: string, isCall: boolean): boolean;
  /** The texts of the other files of a file's folder. */
  beside(file: string): readonly string[];
  /** The texts of the files that a pattern without a state fits. */
  fitting(pattern: RegExp): readonly string[];
  /** Whether the text of some file fits. */
  some(test: (text: string, file: string) => boolean): boolean;
}

/** Looks classes up in files of code, which are read when the first is asked for. */
export function bookClasses(
  files: () => Iterable<{ readonly file: string; readonly text: string }>,
): BookClasses {
  const all = lazily(() => [...files()]);
  const byPattern = new Map<string, readonly string[]>();
  const had = new Map<string, boolean>();
  const some = (test: (text: string, file: string) => boolean) =>
    all().some(({ text, file }) => test(text, file));
  const fitting = (pattern: RegExp) => {
    const found =
      byPattern.get(String(pattern)) ?? all().flatMap(({ text }) => (pattern.test(text) ? [text] : []));
    byPattern.set(String(pattern), found);
    return found;
  };
  return {
    some,
    named: (name) => fitting(headOf(name)),
    fitting,
    have(name, isCall) {
      const end = isCall ? "\\(" : "[.=;]";
      const word = new RegExp(`(?<![\\w."'])(?<!\\bnew\\s)${literally(name)}\\s{0,9}${end}`);
      const id = `${name}${end}`;
      const found = had.get(id) ?? some((text) => word.test(text));
      had.set(id, found);
      return found;
    },
    beside(file) {
      const folder = posix.dirname(file);
      return all().flatMap((one) =>
        one.file !== file && posix.dirname(one.file) === folder ? [one.text] : [],
      );
    },
  };
}

function headOf(name: string): RegExp {
  return new RegExp(
    `\\b(?:class|interface|record|module)\\s+(?:\\w+::){0,9}${literally(name)}(?!\\w)([^{;]{0,400})`,
  );
}

/**
 * The method or object that a lookup is called by, `say` of `say("{key}")` and `texts` of `texts.get("{key}")`, and whether the
 * classes around a place declare, inherit or use it, for objects where it is one of theirs; undefined where the book's code has
 * none of that name, where a class is named, and in languages whose functions stand alone.
 */
export function memberKnown(
  template: string,
  source: SourceFile,
  { start }: Span,
  language: CodeLanguage,
  { named, have }: BookClasses,
): Receiver | undefined {
  const [called] = calledIn(template);
  const [name = "", method] = called?.split(".") ?? [];
  const isCall = method === undefined;
  const isOwn = /^(?:this|super|base)$/.test(name);
  // What has members and begins with a capital is a class, and brought in by its name.
  const isClass = !isCall && /^\p{Lu}/u.test(name);
  const { classes } = languages[language];
  if (!classes || name === "" || isOwn || isClass || !have(name, isCall)) return undefined;
  return {
    name,
    isKnown: isKnown({ name, isCall, classes, named }, treeOf(source, language), source.text, start),
  };
}

interface Asked {
  readonly name: string;
  readonly isCall: boolean;
  readonly classes: NonNullable<Language["classes"]>;
  readonly named: BookClasses["named"];
}

const bodies = /^(?:class_body|enum_body_declarations|interface_body|declaration_list)$/;
const functions =
  /^(?:method_declaration|constructor_declaration|lambda_expression|local_function_statement|static_initializer|compact_constructor_declaration)$/;
/** What gives a name to a value in a function. */
const makers =
  /^(?:variable_declarator|formal_parameter|parameter|catch_formal_parameter|resource|enhanced_for_statement|foreach_statement|inferred_parameters)$/;

function isKnown(asked: Asked, root: CodeNode, text: string, start: number): boolean {
  const { name, isCall, classes } = asked;
  const path = nodesAround(root, start);
  const isBody = (node: CodeNode | undefined, holder: CodeNode | undefined) =>
    node !== undefined && bodies.test(node.type) && holder?.type !== "namespace_declaration";
  // Code without a class is a part of one, or runs by itself.
  if (!path.some((node, index) => isBody(node, path[index - 1]))) return true;
  let needsStatic = false;
  for (let index = path.length - 1; index >= 0; index--) {
    const node = path[index];
    const holder = path[index - 1];
    if (!node) continue;
    if (!isCall && functions.test(node.type) && makesValue(node, name, text, start)) return true;
    if (node.type === "static_initializer" || (/_declaration$/.test(node.type) && isStatic(node, text)))
      needsStatic ||= !/^(?:class|record|enum|interface)_declaration$/.test(node.type);
    if (!isBody(node, holder) || !holder) continue;
    const own = memberOf(node, holder, asked, text);
    if (own) return !needsStatic || own === "static";
    const inherited = inheritedBy(text.slice(holder.start, node.start), asked);
    if (inherited) return !needsStatic || inherited === "static";
    // What the class itself uses is there, wherever it comes from.
    if (usesName(text.slice(node.start, node.end), asked)) return !needsStatic;
    // A class that stands in another without being of one of its objects sees what has no object.
    if (holder.type !== "object_creation_expression" && (classes.areApart || isDetached(holder, text)))
      needsStatic = true;
  }
  return isCall && isBroughtIn(text, asked);
}

/** Whether a file brings a method in by its name, or all static ones of a class of the book that has it. */
function isBroughtIn(text: string, asked: Asked): boolean {
  return [...text.matchAll(asked.classes.broughtIn)].some(
    ([, holder = "", member]) =>
      member === asked.name ||
      (/^[*;]$/.test(member ?? "") &&
        asked.named(holder).some((other) => declaredIn(other, asked) === "static")),
  );
}

function isStatic({ children }: CodeNode, text: string): boolean {
  return children.some(
    ({ type, start, end }) => /^modifiers?$/.test(type) && /\bstatic\b/.test(text.slice(start, end)),
  );
}

/** Whether a class inside another is of none of its objects (JLS 8.5.1, 8.9, 8.10). */
function isDetached(holder: CodeNode, text: string): boolean {
  return /^(?:record|enum|interface)_/.test(holder.type) || isStatic(holder, text);
}

function nameIn({ children }: CodeNode, text: string): string {
  const named = children.find(({ field, type }) => field === "name" && /identifier$/.test(type));
  return named ? text.slice(named.start, named.end) : "";
}

/** Whether a function is given a value under a name, or makes one before a place. */
function makesValue(node: CodeNode, name: string, text: string, before: number): boolean {
  if (node.start >= before) return false;
  if (makers.test(node.type) && nameIn(node, text) === name) return true;
  return node.children.some((child) => makesValue(child, name, text, before));
}

/** Which member of a name a class declares itself. */
function memberOf(
  { children }: CodeNode,
  holder: CodeNode,
  { name, isCall }: Asked,
  text: string,
): "static" | "instance" | undefined {
  const isOf = (member: CodeNode): boolean =>
    isCall
      ? member.type === "method_declaration" && nameIn(member, text) === name
      : (/^(?:property_declaration|formal_parameter|parameter)$/.test(member.type) &&
          nameIn(member, text) === name) ||
        (/^(?:field_declaration|constant_declaration)$/.test(member.type) && declares(member, name, text));
  const found = children.filter(isOf);
  if (found.length > 0) return found.some((one) => isStatic(one, text)) ? "static" : "instance";
  const given = holder.children.find(({ type }) => /^(?:formal_parameters|parameter_list)$/.test(type));
  return !isCall && given?.children.some(isOf) === true ? "instance" : undefined;
}

/** Whether one of the declarators in a field has a name. */
function declares(field: CodeNode, name: string, text: string): boolean {
  return field.children.some((child) =>
    child.type === "variable_declarator"
      ? nameIn(child, text) === name
      : child.type === "variable_declaration" && declares(child, name, text),
  );
}

/** So many classes above another are looked at. */
const mostAbove = 8;

/** A member of a name that the classes have which one extends, by its head, as far as the book's code has them. */
function inheritedBy(head: string, asked: Asked): "static" | "instance" | undefined {
  let above = superOf(head, asked);
  for (let depth = 0; above !== undefined && depth < mostAbove; depth++) {
    const own = above;
    const texts = asked.named(own);
    const found = texts.flatMap((text) => declaredIn(text, asked) ?? []);
    if (found.length > 0) return found.includes("static") ? "static" : "instance";
    // What one of them uses is there, wherever it comes from.
    if (texts.some((text) => usesName(text, asked))) return "instance";
    above = texts
      .map((text) => superOf(headOf(own).exec(text)?.[1] ?? "", asked))
      .find((one) => one !== undefined);
  }
  return undefined;
}

/** The class that another extends, without its package and its types. */
function superOf(head: string, { classes }: Asked): string | undefined {
  return classes.above.exec(head)?.[1]?.split(".").at(-1);
}

/** A member of a name that some class of a file declares for those that extend it. */
function declaredIn(text: string, { name, isCall }: Asked): "static" | "instance" | undefined {
  const member = new RegExp(
    `([\\w \\t<>\\[\\],.?]{0,120}[\\w>\\]])\\s{1,9}${literally(name)}\\s{0,9}${isCall ? "\\(" : "(?:[=;]|\\{\\s{0,9}get|=>)"}`,
    "g",
  );
  for (const [, before = ""] of text.matchAll(member)) {
    if (/\bprivate\b|\b(?:return|new|throw|else|await|yield|case|in|is|as)$/.test(before)) continue;
    return /\bstatic\b/.test(before) ? "static" : "instance";
  }
  return undefined;
}

/** Whether a class calls a method by its name alone, or asks an object of a name that it does not make itself. */
function usesName(text: string, { name, isCall }: Asked): boolean {
  const word = literally(name);
  if (isCall) {
    // Behind a type it is declared, behind `new` it is a class.
    const calls = new RegExp(`(?<![\\w.])(?:([\\w>\\]]{1,80})\\s{1,9})?(?<![\\w.])${word}\\s{0,9}\\(`, "g");
    return [...text.matchAll(calls)].some(
      ([, before]) =>
        before === undefined || /^(?:return|else|await|throw|yield|case|in|is|do)$/.test(before),
    );
  }
  return (
    new RegExp(`(?<![\\w.])${word}\\s{0,9}\\.`).test(text) &&
    !new RegExp(`[\\w>\\]]\\s{1,9}${word}\\s{0,9}[=;:,)]`).test(text)
  );
}
