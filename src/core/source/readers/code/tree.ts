import type { Node as SyntaxNode, Tree } from "web-tree-sitter";

/** A node of a program's syntax tree, copied out of the parser: its type, place, and the field of its parent that it fills. */
export interface CodeNode {
  readonly type: string;
  readonly named: boolean;
  readonly field: string | undefined;
  readonly start: number;
  readonly end: number;
  readonly children: readonly CodeNode[];
  readonly isError: boolean;
}

/** Copies a tree, so that it can be walked without crossing into the parser for every step. Deeper than 2,000 levels is left out. */
export function copyTree(tree: Tree): CodeNode {
  const cursor = tree.walk();
  const copy = (depth: number): CodeNode => {
    const node: SyntaxNode = cursor.currentNode;
    const children: CodeNode[] = [];
    const field = cursor.currentFieldName ?? undefined;
    if (depth < 2000 && cursor.gotoFirstChild()) {
      do children.push(copy(depth + 1));
      while (cursor.gotoNextSibling());
      cursor.gotoParent();
    }
    return {
      type: node.type,
      named: node.isNamed,
      field,
      start: node.startIndex,
      end: node.endIndex,
      children,
      isError: node.isError || node.isMissing,
    };
  };
  const root = copy(0);
  cursor.delete();
  return root;
}

export function namedChildren(node: CodeNode): readonly CodeNode[] {
  return node.children.filter(({ named }) => named);
}

export function childIn(node: CodeNode, field: string): CodeNode | undefined {
  return node.children.find((child) => child.field === field);
}

/** An expression without the brackets, or the signs of interpolation, around it. */
export function bareNode(node: CodeNode): CodeNode {
  const [only, ...others] = namedChildren(node).filter(({ type }) => type !== "interpolation_brace");
  return only && others.length === 0 && /^(?:parenthesized_\w+|interpolation|argument)$/.test(node.type)
    ? bareNode(only)
    : node;
}
