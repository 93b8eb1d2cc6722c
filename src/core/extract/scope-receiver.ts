import { languages } from "../source/languages/index.js";
import type { CodeLanguage } from "../source/languages/language.js";
import type { SourceFile } from "../source/model.js";
import type { CodeNode } from "../source/readers/code/tree.js";
import { withoutQuoted } from "../text/delimited.js";
import { literally } from "../text/key-pattern.js";
import { lazily } from "../text/lazy.js";
import type { Span } from "../text/span.js";
import { nodesAround, treeOf } from "./code-tree.js";
import type { Receiver } from "./member-receiver.js";

/**
 * The variable that a lookup is asked of, `desk` of `desk.say("{key}")`, and whether it is known at a place: a function around it
 * has it before, the file makes it or takes it in outside of its functions, or another function of the file has it without making
 * it. Undefined for other lookups, and in languages whose variables are found otherwise.
 */
export function variableKnown(
  template: string,
  source: SourceFile,
  { start }: Span,
  language: CodeLanguage,
): Receiver | undefined {
  const { deferring, makesOutside, receiver } = languages[language];
  const name = /^\s*([a-z_]\w*)\s?\./.exec(template)?.[1];
  if (!makesOutside || name === undefined || name === receiver || /^(?:self|super|cls)$/.test(name))
    return undefined;
  const { text } = source;
  const has = new RegExp(`(?<![\\w.@$"'])${literally(name)}(?!\\w|["'])`);
  const root = treeOf(source, language);
  const textOf = (node: CodeNode, end = node.end) => text.slice(node.start, end);
  if (nodesAround(root, start).some((node) => deferring.test(node.type) && has.test(textOf(node, start))))
    return { name, isKnown: true };
  const functions = outermost(root, deferring);
  const made = new RegExp(
    `(?:\\(|,|\\|)\\s*\\*{0,2}${literally(name)}\\s*(?:[,):=|]|\\s[\\w*.[\\]]+\\s*[,)])|(?<![\\w.])${literally(name)}\\s*(?:,\\s*\\w+\\s*)*:?=(?!=)|\\b(?:as|for)\\s+(?:\\w+,\\s*)*${literally(name)}\\b`,
  );
  const named = new RegExp(`(?<!\\w)${literally(name)}(?!\\w)`);
  const isKnown =
    linesOutside(text, functions).some((line) => named.test(line) && makesOutside.test(line)) ||
    functions.some((node) => has.test(textOf(node)) && !made.test(textOf(node)));
  return { name, isKnown };
}

/**
 * A variable that a template gives its lookup besides the key, `locale` of `say("{key}", locale)`, where neither a function around
 * a place has it before nor the file outside of its functions; undefined where all are known.
 */
export function lackingArgument(
  template: string,
  source: SourceFile,
  { start }: Span,
  language: CodeLanguage,
): Receiver | undefined {
  const given = withoutQuoted(template.slice(template.indexOf("(") + 1), "\"'", () => " ");
  const names = [...given.matchAll(/(?<![\w.$@{])([a-z_]\w{0,60})(?![\w(}]|\s*[=:(])/g)].map(
    ([, name = ""]) => name,
  );
  const { deferring } = languages[language];
  const { text } = source;
  const root = lazily(() => treeOf(source, language));
  const outside = lazily(() => linesOutside(text, outermost(root(), deferring)));
  for (const name of names.filter((one) => !ofLanguage.test(one))) {
    const named = new RegExp(`(?<![\\w.@$"'])${literally(name)}(?!\\w|["'])`);
    const isInside = nodesAround(root(), start).some(
      (node) => deferring.test(node.type) && named.test(text.slice(node.start, start)),
    );
    if (!isInside && !outside().some((line) => named.test(line))) return { name, isKnown: false };
  }
  return undefined;
}

/** Words that are no variables in any language read here. */
const ofLanguage =
  /^(?:new|null|nil|true|false|undefined|this|self|super|base|map|string|any|dict|args|default|int|object)$/;

/** The functions of a file that are in no other. */
function outermost(node: CodeNode, functions: RegExp): readonly CodeNode[] {
  return node.children.flatMap((child) =>
    functions.test(child.type) ? [child] : outermost(child, functions),
  );
}

/** What a file has outside of some nodes, line by line; of each node its first line stays, which names it. */
function linesOutside(text: string, nodes: readonly CodeNode[]): readonly string[] {
  let rest = "";
  let at = 0;
  for (const { start, end } of nodes) {
    rest += `${text.slice(at, start)}${text.slice(start, end).split(/[(\n]/, 1)[0] ?? ""}\n`;
    at = end;
  }
  return (rest + text.slice(at)).split("\n");
}
