import type { ArgumentNode, Message, MessageNode, PluralNode, SelectNode, TagNode } from "./model.js";

/** What a message uses, gathered once so that rules can compare messages without walking them. */
export interface MessageFacts {
  /** Every argument by name, with the nodes that use it (plural and select included), in order. */
  readonly arguments: ReadonlyMap<string, readonly (ArgumentNode | PluralNode | SelectNode)[]>;
  readonly plurals: readonly PluralNode[];
  readonly selects: readonly SelectNode[];
  /** Every tag by name, in order. */
  readonly tags: ReadonlyMap<string, readonly TagNode[]>;
  /** The text that users read, all branches, without arguments. */
  readonly text: string;
}

const none: MessageFacts = { arguments: new Map(), plurals: [], selects: [], tags: new Map(), text: "" };

/** What a message of literal text alone uses. */
export function plainFacts(text: string): MessageFacts {
  return { arguments: none.arguments, plurals: none.plurals, selects: none.selects, tags: none.tags, text };
}

/** Gathers what a message uses. */
export function messageFacts(message: Message): MessageFacts {
  const only = message.nodes[0];
  if (message.nodes.length === 0) return none;
  if (message.nodes.length === 1 && only?.kind === "text" && !only.format) return plainFacts(only.value);
  const found = {
    arguments: new Map<string, (ArgumentNode | PluralNode | SelectNode)[]>(),
    plurals: [] as PluralNode[],
    selects: [] as SelectNode[],
    tags: new Map<string, TagNode[]>(),
    text: "",
  };
  visitNodes(message.nodes, (node) => {
    if (node.kind === "text") found.text += node.format ? "" : node.value;
    else if (node.kind === "tag") append(found.tags, node.name, node);
    else if (node.kind !== "count") append(found.arguments, node.name, node);
    if (node.kind === "argument" && node.uses)
      for (const name of node.uses)
        append(found.arguments, name, {
          kind: "argument",
          name,
          ...(node.span && { span: node.span, nameSpan: node.span }),
        });
    if (node.kind === "plural") found.plurals.push(node);
    if (node.kind === "select") found.selects.push(node);
  });
  return found;
}

/** Calls `visit` for every node, outer before inner, in the order of the text. */
export function visitNodes(nodes: readonly MessageNode[], visit: (node: MessageNode) => void): void {
  for (const node of nodes) {
    visit(node);
    if (node.kind === "tag") {
      visitNodes(node.attributes, visit);
      visitNodes(node.children, visit);
    } else if (node.kind === "plural" || node.kind === "select") {
      for (const branch of node.branches) visitNodes(branch.nodes, visit);
    }
  }
}

function append<Value>(map: Map<string, Value[]>, key: string, value: Value): void {
  const list = map.get(key);
  if (list) list.push(value);
  else map.set(key, [value]);
}
