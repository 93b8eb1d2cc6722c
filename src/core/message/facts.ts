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
  const found = new FactsFound();
  found.gather(message.nodes);
  return found;
}

type ArgumentUse = ArgumentNode | PluralNode | SelectNode;

/** Facts while they are gathered: lists that stay empty are never made. */
class FactsFound implements MessageFacts {
  arguments: Map<string, ArgumentUse[]> = noArguments;
  plurals: PluralNode[] = noPlurals;
  selects: SelectNode[] = noSelects;
  tags: Map<string, TagNode[]> = noTags;
  text = "";

  gather(nodes: readonly MessageNode[]): void {
    for (const node of nodes)
      switch (node.kind) {
        case "text":
          if (!node.format) this.text += node.value;
          break;
        case "count":
          break;
        case "argument":
          this.use(node.name, node);
          for (const name of node.uses ?? [])
            this.use(name, {
              kind: "argument",
              name,
              ...(node.span && { span: node.span, nameSpan: node.span }),
            });
          break;
        case "tag":
          if (this.tags === noTags) this.tags = new Map();
          append(this.tags, node.name, node);
          this.gather(node.attributes);
          this.gather(node.children);
          break;
        case "plural":
          if (this.plurals === noPlurals) this.plurals = [];
          this.plurals.push(node);
          this.use(node.name, node);
          for (const branch of node.branches) this.gather(branch.nodes);
          break;
        case "select":
          if (this.selects === noSelects) this.selects = [];
          this.selects.push(node);
          this.use(node.name, node);
          for (const branch of node.branches) this.gather(branch.nodes);
      }
  }

  private use(name: string, node: ArgumentUse): void {
    if (this.arguments === noArguments) this.arguments = new Map();
    append(this.arguments, name, node);
  }
}

// What most messages have none of; not to be added to.
const noArguments = new Map<string, ArgumentUse[]>();
const noTags = new Map<string, TagNode[]>();
const noPlurals: PluralNode[] = [];
const noSelects: SelectNode[] = [];

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
