import { rulesOf } from "./rules-of-plural.js";
import type { Branch, MessageNode, PluralNode } from "./model.js";

/**
 * A message's nodes with every plural given the categories that a locale uses: those that are missing start as
 * a copy of `other` where no exact number (`=1`) takes their place, those that the locale never selects go. Exact numbers
 * stay. The same array where nothing changes.
 */
export function scaffoldPlurals(nodes: readonly MessageNode[], locale: string): readonly MessageNode[] {
  const result = nodes.map((node) => scaffoldNode(node, locale));
  return result.some((node, index) => node !== nodes[index]) ? result : nodes;
}

function scaffoldNode(node: MessageNode, locale: string): MessageNode {
  switch (node.kind) {
    case "plural":
      return scaffoldPlural(node, locale);
    case "select": {
      const branches = scaffoldBranches(node.branches, locale);
      return branches === node.branches ? node : { ...node, branches };
    }
    case "tag": {
      const children = scaffoldPlurals(node.children, locale);
      return children === node.children ? node : { ...node, children };
    }
    default:
      return node;
  }
}

function scaffoldPlural(node: PluralNode, locale: string): PluralNode {
  const rules = rulesOf(node, locale);
  const inner = scaffoldBranches(node.branches, locale);
  const other = inner.find((branch) => branch.selector === "other");
  const selectors = inner.map((branch) => branch.selector);
  // An exact number that is all a category stands for takes its place: `=1` in languages where nothing else is `one`.
  const categories = rules.categories.filter((category) => {
    const only = node.offset === 0 ? rules.onlyWholeNumber(category) : undefined;
    return selectors.includes(category) || only === undefined || !selectors.includes(`=${only}`);
  });
  const complete = categories.every((category) => selectors.includes(category));
  const lean = selectors.every(
    (selector) => selector.startsWith("=") || (categories as readonly string[]).includes(selector),
  );
  if (!other || (complete && lean)) return inner === node.branches ? node : { ...node, branches: inner };
  const exact = inner.filter((branch) => branch.selector.startsWith("="));
  const byCategory = categories.map(
    (category) => inner.find((branch) => branch.selector === category) ?? { ...other, selector: category },
  );
  return { ...node, branches: [...exact, ...byCategory] };
}

function scaffoldBranches(branches: readonly Branch[], locale: string): readonly Branch[] {
  const result = branches.map((branch) => {
    const nodes = scaffoldPlurals(branch.nodes, locale);
    return nodes === branch.nodes ? branch : { ...branch, nodes };
  });
  return result.some((branch, index) => branch !== branches[index]) ? result : branches;
}
