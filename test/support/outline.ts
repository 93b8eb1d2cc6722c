import type { MessageNode } from "../../src/core/message/model.js";

/** A tree in a compact notation: what matters of each node, no spans. */
export function outline(nodes: readonly MessageNode[]): unknown[] {
  return nodes.map((node) => {
    switch (node.kind) {
      case "text":
        return node.value;
      case "count":
        return "#count";
      case "argument":
        return [
          node.name,
          ...(node.format
            ? [
                node.format.type,
                ...(node.format.style ? [node.format.style.kind, node.format.style.text] : []),
              ]
            : []),
        ];
      case "plural":
        return {
          [`${node.pluralKind} ${node.name}${node.offset ? ` offset ${node.offset}` : ""}`]:
            node.branches.map((branch) => [branch.selector, outline(branch.nodes)]),
        };
      case "select":
        return {
          [`select ${node.name}`]: node.branches.map((branch) => [branch.selector, outline(branch.nodes)]),
        };
      case "tag":
        return {
          [`<${node.name}${node.selfClosing ? "/" : ""}>`]: outline(node.children),
          ...(node.attributes.length > 0 && { attributes: outline(node.attributes) }),
        };
    }
  });
}
