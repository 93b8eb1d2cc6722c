import type { SourceFile } from "../source/model.js";
import type { CodeLanguage } from "../source/languages/language.js";
import { parseCode } from "../source/readers/code/grammars.js";
import type { CodeNode } from "../source/readers/code/tree.js";

const trees = new WeakMap<SourceFile, CodeNode>();

/** The syntax tree of a file of code, made once. */
export function treeOf(source: SourceFile, language: CodeLanguage): CodeNode {
  const tree = trees.get(source) ?? parseCode(language, source.text);
  trees.set(source, tree);
  return tree;
}

/** The nodes around a place, from the outermost. */
export function nodesAround(root: CodeNode, place: number): readonly CodeNode[] {
  const path: CodeNode[] = [];
  for (let node: CodeNode | undefined = root; node;) {
    path.push(node);
    node = node.children.find(({ start, end }) => start <= place && place < end);
  }
  return path;
}
