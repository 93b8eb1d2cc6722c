import { calledIn } from "../source/book-code.js";
import { languageOf, languages } from "../source/languages/index.js";
import type { CodeLanguage, Language } from "../source/languages/language.js";
import type { SourceFile } from "../source/model.js";
import type { CodeNode } from "../source/readers/code/tree.js";
import { literally } from "../text/key-pattern.js";
import { lazily } from "../text/lazy.js";
import type { Span } from "../text/span.js";
import { nodesAround, treeOf } from "./code-tree.js";
import type { BookClasses, Receiver } from "./member-receiver.js";

type Mixins = NonNullable<Language["mixins"]>;

/** So many classes above another are looked at. */
const mostAbove = 8;

/**
 * The function that a lookup is called by its name alone, and whether it is there for code at a place: the file calls it, or a class
 * above, a module that is taken in, or a class of the same kind beside it does or makes it. Undefined in languages without such
 * functions, and where no file of the book calls it so.
 */
export function mixinKnown(
  template: string,
  source: SourceFile,
  { start }: Span,
  language: CodeLanguage,
  classes: BookClasses,
): Receiver | undefined {
  const { mixins } = languages[language];
  const [name = ""] = calledIn(template);
  if (!mixins || !/^[a-z_]\w*$/.test(name)) return undefined;
  const asked = functionIn(classes, name, mixins);
  const { called } = asked;
  if (!asked.isCalled()) return undefined;
  const root = treeOf(source, language);
  const around = nodesAround(root, start);
  const isKnown = around.some(({ type }) => mixins.ofClass.test(type))
    ? textsOf(root, mixins.ofClass, source.text).some((text) => called.test(text))
    : called.test(source.text) ||
      (around.some(({ type }) => mixins.holder.test(type))
        ? isGiven(name, source.text, mixins) || isTakenIn(source, mixins, classes, asked)
        : // What stands in no class asks what others do that stand in none, and what templates have is theirs.
          classes.some(
            (text, file) =>
              called.test(text) && languageOf(file) === language && openedIn(text, mixins).length === 0,
          ));
  return { name, isKnown };
}

/** A function of a book's code: how it is called, whether a text calls or makes it, and whether any does. */
interface Asked {
  readonly called: RegExp;
  readonly has: (text: string) => boolean;
  readonly isCalled: () => boolean;
}

const functions = new WeakMap<BookClasses, Map<string, Asked>>();

/** What is known of a function, worked out once for all texts of a run. */
function functionIn(classes: BookClasses, name: string, { made }: Mixins): Asked {
  const ofBook = functions.get(classes) ?? new Map<string, Asked>();
  functions.set(classes, ofBook);
  const known = ofBook.get(name);
  if (known) return known;
  const word = literally(name);
  const called = new RegExp(`(?<![\\w.:@$"'])${word}(?:\\(\\s{0,9}|[ \\t]{1,9})[:"']`);
  const making = new RegExp(made.replace("NAME", word));
  const asked = {
    called,
    has: (text: string) => called.test(text) || making.test(text),
    isCalled: lazily(() => classes.some((text) => called.test(text))),
  };
  ofBook.set(name, asked);
  return asked;
}

/** The classes and modules that a file opens, each with the class above it. */
function openedIn(text: string, { opened }: Mixins): readonly (readonly [string, string | undefined])[] {
  return [...text.matchAll(opened)].map(([, own = "", above]) => [own, above] as const);
}

/** Whether a framework gives a function to a class of a file. */
function isGiven(name: string, text: string, mixins: Mixins): boolean {
  const { given } = mixins;
  return (
    given?.names.test(name) === true &&
    openedIn(text, mixins).some((names) => names.some((one) => one !== undefined && given.to.test(one)))
  );
}

/** Whether the classes and modules of a file have a function from others. */
function isTakenIn(
  { file, text }: SourceFile,
  mixins: Mixins,
  classes: BookClasses,
  { called, has }: Asked,
): boolean {
  const last = (name: string) => name.split("::").at(-1) ?? name;
  const above = openedIn(text, mixins).flatMap(([, one]) => (one === undefined ? [] : [one]));
  const taken = [...text.matchAll(mixins.taken)].map(([, one = ""]) => last(one));
  if (taken.some((one) => classes.named(one).some(has))) return true;
  let next = above.map(last);
  for (let depth = 0; depth < mostAbove && next.length > 0; depth++) {
    const texts = next.flatMap((one) => classes.named(one));
    if (texts.some(has)) return true;
    next = texts.flatMap((code) =>
      openedIn(code, mixins).flatMap(([, one]) => (one === undefined ? [] : [last(one)])),
    );
  }
  // What stands beside it and extends the same class, or is a module as it is one, is made the same.
  return classes.beside(file).some((other) => {
    if (!called.test(other)) return false;
    const opened = openedIn(other, mixins);
    return above.length === 0
      ? opened.length > 0 && opened.every(([, one]) => one === undefined)
      : opened.some(([, one]) => one !== undefined && above.includes(one));
  });
}

/** The texts of the nodes of some types. */
function textsOf(node: CodeNode, types: RegExp, text: string): readonly string[] {
  return types.test(node.type)
    ? [text.slice(node.start, node.end)]
    : node.children.flatMap((child) => textsOf(child, types, text));
}
