import { languageNamed } from "../source/languages/index.js";
import type { CodeLanguage } from "../source/languages/language.js";
import type { SourceFile } from "../source/model.js";
import type { CodeNode } from "../source/readers/code/tree.js";
import { literally } from "../text/key-pattern.js";
import type { Span } from "../text/span.js";
import { nodesAround, treeOf } from "./code-tree.js";

/** Languages whose variables are those of a function, unless a file makes or takes them in outside of its functions. */
const scoped: Readonly<Partial<Record<CodeLanguage, RegExp>>> = {
  python: /^(?:import|from)\b|=(?!=)|^\s*(?:def|class|for|with)\b/,
  go: /^(?:import|var|const|func|type)\b|^\s*(?:[\w.]+\s+)?"|=(?!=)/,
  ruby: /=(?!=)|^\s*(?:def|attr_\w+|module|class|delegate|helper_method|let)\b|require/,
};

/**
 * The variable that a lookup is asked of, `desk` of `desk.say("{key}")`, where nothing makes it known at a place: no function around
 * it has it, the file neither makes it nor takes it in outside of its functions, and no other function of the file has it without
 * making it. Undefined in languages that are not scoped so, for other lookups, and where it is known.
 */
export function lackingInScope(
  template: string,
  source: SourceFile,
  { start }: Span,
  language: CodeLanguage,
): string | undefined {
  const outside = scoped[language];
  const { deferring } = languageNamed(language) ?? {};
  const name = /^\s*([a-z_]\w*)\s?\./.exec(template)?.[1];
  if (!outside || !deferring || name === undefined || /^(?:self|super|cls)$/.test(name)) return undefined;
  const { text } = source;
  const has = new RegExp(`(?<![\\w.@$"'])${literally(name)}(?!\\w|["'])`);
  const root = treeOf(source, language);
  const textOf = (node: CodeNode, end = node.end) => text.slice(node.start, end);
  if (nodesAround(root, start).some((node) => deferring.test(node.type) && has.test(textOf(node, start))))
    return undefined;
  const functions = outermost(root, deferring);
  const made = new RegExp(
    `(?:\\(|,|\\|)\\s*\\*{0,2}${literally(name)}\\s*(?:[,):=|]|\\s[\\w*.[\\]]+\\s*[,)])|(?<![\\w.])${literally(name)}\\s*(?:,\\s*\\w+\\s*)*:?=(?!=)|\\b(?:as|for)\\s+(?:\\w+,\\s*)*${literally(name)}\\b`,
  );
  const named = new RegExp(`(?<!\\w)${literally(name)}(?!\\w)`);
  const isKnown =
    linesOutside(text, functions).some((line) => named.test(line) && outside.test(line)) ||
    functions.some((node) => has.test(textOf(node)) && !made.test(textOf(node)));
  return isKnown ? undefined : name;
}

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
