import type { MessageNode } from "../message/model.js";

/** How many characters stand for a value that is filled in. */
const valueWidth = 3;

/** The width of a message where it is widest: the longest branch of each plural and select counts. */
export function widestText(nodes: readonly MessageNode[], widthOf: (text: string) => number): number {
  return nodes.reduce((sum, node) => {
    switch (node.kind) {
      case "text":
        return sum + widthOf(node.value);
      case "argument":
      case "count":
        return sum + valueWidth;
      case "tag":
        return sum + widestText(node.children, widthOf);
      case "plural":
      case "select":
        return sum + Math.max(0, ...node.branches.map((branch) => widestText(branch.nodes, widthOf)));
    }
  }, 0);
}
