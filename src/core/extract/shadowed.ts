import { readTree, type MarkupElement } from "../source/readers/markup/tree.js";
import { elementAt } from "../source/readers/markup/parts.js";
import { findIslands } from "../source/dialects/index.js";
import { variableOf, type Binding, type Dialect, type Island } from "../source/dialects/dialect.js";
import { languageNamed, languageOf } from "../source/languages/index.js";
import { calledIn } from "../source/book-code.js";
import type { SourceFile } from "../source/model.js";
import { lazily } from "../text/lazy.js";
import { literally } from "../text/key-pattern.js";
import { applyEdits } from "../text/edits.js";
import type { Span } from "../text/span.js";
import { nodesAround, treeOf } from "./code-tree.js";

/**
 * The function that a lookup calls by its name alone, where that name is a value of the place's own: in Python `_` of
 * `for _ in range(3)`, in a page `t` of `{% for t in tides %}`. Undefined where it is not, and in languages that keep the names of
 * values and functions apart.
 */
export function shadowedName(template: string, source: SourceFile, { start }: Span): string | undefined {
  const name = calledIn(template).find((one) =>
    new RegExp(`(?<![\\w$.@])${literally(one)}\\(`).test(template),
  );
  if (name === undefined || !/^[A-Za-z_$][\w$]*$/.test(name)) return undefined;
  const { dialect } = source;
  const isOther = dialect
    ? isBoundInPage(variableOf(name, dialect), source, dialect, start)
    : isBoundInFunction(name, source, start);
  return isOther ? name : undefined;
}

/** The source of a pattern for one name, with NAME for it. */
function patternFor(pattern: string, name: string, flags: string): RegExp {
  return new RegExp(
    pattern.replaceAll("NAME", () => `(?<![\\w$])${literally(name)}(?![\\w$])`),
    flags,
  );
}

/** Types of nodes that bind names for what is in them. */
const blocks = /^(?:for|foreach|if|switch|using|with|try)_(?:\w+_)?statement$|^catch_clause$/;

/** Whether a function around a place gives the name to a value, and calls it nowhere with a string. */
function isBoundInFunction(name: string, source: SourceFile, place: number): boolean {
  const { file, text } = source;
  const language = languageNamed(languageOf(file));
  if (language?.rebinds === undefined) return false;
  const { rebinds, deferring, name: spoken } = language;
  if (!text.includes(name)) return false;
  const root = treeOf(source, spoken);
  return nodesAround(root, place).some((node) => {
    const isFunction = deferring.test(node.type);
    if (!isFunction && !blocks.test(node.type)) return false;
    // A name that a block binds is bound in it alone, at most.
    const code = text.slice(node.start, isFunction ? node.end : place);
    const asks = new RegExp(`(?<![\\w$.])${literally(name)}\\(\\s*[fFrRuU]?["'\`]`);
    return !asks.test(code) && patternFor(rebinds, name, "m").test(code);
  });
}

/** A page's islands and its elements, which each of its texts asks for. */
interface PageParts {
  readonly islands: readonly Island[];
  readonly root: () => MarkupElement;
}

const partsByPage = new WeakMap<SourceFile, PageParts>();

function partsOfPage(source: SourceFile, dialect: Dialect): PageParts {
  const known = partsByPage.get(source);
  if (known) return known;
  const islands = findIslands(source.text, dialect);
  const found = { islands, root: lazily(() => readTree(withoutIslands(source.text, islands))) };
  partsByPage.set(source, found);
  return found;
}

/** Whether a block or an element around a place in a page gives the name to a value. */
function isBoundInPage(name: string, source: SourceFile, dialect: Dialect, place: number): boolean {
  const { text } = source;
  const { blockBindings = [], elementBindings } = dialect;
  if ((blockBindings.length === 0 && !elementBindings) || !text.includes(name)) return false;
  const { islands, root } = partsOfPage(source, dialect);
  if (blockBindings.some((binding) => isInBlock(binding, name, text, islands, place))) return true;
  if (!elementBindings) return false;
  const isBinding = patternFor(elementBindings, name, "");
  let element: MarkupElement | undefined = elementAt(root(), place);
  for (; element; element = element.parent)
    if (element.attributes.some(({ name: one, raw = "" }) => isBinding.test(`${one}="${raw}"`))) return true;
  return false;
}

/** A page with blanks for what its islands hold, so that no sign in them is taken for a tag. */
function withoutIslands(text: string, islands: readonly Island[]): string {
  return applyEdits(
    text,
    islands.map(({ codeStart: start, codeEnd: end }) => ({
      start,
      end,
      replacement: " ".repeat(end - start),
    })),
  );
}

/** Whether a block that gives the name to a value is open at a place. */
function isInBlock(
  { binds, opens, closes }: Binding,
  name: string,
  text: string,
  islands: readonly Island[],
  place: number,
): boolean {
  const isBinding = patternFor(binds, name, "");
  let depth = 0;
  for (const { kind, start, end } of islands) {
    if (end > place) break;
    if (kind === "comment") continue;
    const code = text.slice(start, end);
    const bound = isBinding.exec(code);
    if (depth === 0 && !bound) continue;
    const counted = depth === 0 && bound ? code.slice(bound.index) : code;
    const change = count(counted, opens) - count(counted, closes);
    // What is bound without a block is so to the end of the page.
    if (depth === 0 && change <= 0) {
      if (bound && count(counted, opens) === 0) return true;
      continue;
    }
    depth = Math.max(depth + change, 0);
  }
  return depth > 0;
}

function count(code: string, sign: RegExp): number {
  return code.match(new RegExp(sign, "g"))?.length ?? 0;
}
