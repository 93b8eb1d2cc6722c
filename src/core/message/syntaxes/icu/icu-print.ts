import type { Branch, MessageNode } from "../../model.js";

/** What surrounds the nodes being printed, which decides what must be quoted. */
interface Surroundings {
  readonly counts: boolean;
  readonly tags: boolean;
  /** Whether a brace or tag follows the last node, which an apostrophe before it would quote. */
  readonly enclosed: boolean;
}

/**
 * Writes nodes as an ICU message that reads back as the same tree. Plurals and selects are written
 * on one line, branches in the order given; text is quoted only where it must be.
 */
export function printIcu(nodes: readonly MessageNode[], options: { readonly tags?: boolean } = {}): string {
  return printNodes(nodes, { counts: false, tags: options.tags ?? true, enclosed: false });
}

function printNodes(nodes: readonly MessageNode[], around: Surroundings): string {
  let result = "";
  nodes.forEach((node, index) => {
    const next = nodes[index + 1];
    result += node.kind === "text" ? quote(node.value, around, next) : printNode(node, around);
  });
  return result;
}

function printNode(node: Exclude<MessageNode, { kind: "text" }>, around: Surroundings): string {
  switch (node.kind) {
    case "argument": {
      const { name, format } = node;
      if (!format) return `{${name}}`;
      if (!format.style) return `{${name}, ${format.type}}`;
      return `{${name}, ${format.type}, ${format.style.kind === "skeleton" ? "::" : ""}${format.style.text}}`;
    }
    case "count":
      return "#";
    case "plural": {
      const type = node.pluralKind === "cardinal" ? "plural" : "selectordinal";
      const offset = node.offset === 0 ? "" : ` offset:${node.offset}`;
      return `{${node.name}, ${type},${offset}${printBranches(node.branches, { ...around, counts: true, enclosed: true })}}`;
    }
    case "select":
      return `{${node.name}, select,${printBranches(node.branches, { ...around, counts: false, enclosed: true })}}`;
    case "tag": {
      const attributes =
        node.attributes.length === 0
          ? ""
          : ` ${printNodes(node.attributes, { ...around, tags: false, enclosed: true })}`;
      if (node.selfClosing) return `<${node.name}${attributes}/>`;
      return `<${node.name}${attributes}>${printNodes(node.children, { ...around, enclosed: true })}</${node.name}>`;
    }
  }
}

function printBranches(branches: readonly Branch[], around: Surroundings): string {
  return branches.map((branch) => ` ${branch.selector} {${printNodes(branch.nodes, around)}}`).join("");
}

/**
 * Text with quoting where ICU would otherwise read it as something else. A lone apostrophe stays lone
 * unless what follows would make it start quoting; inside quotes it is doubled.
 */
function quote(text: string, around: Surroundings, next: MessageNode | undefined): string {
  let result = "";
  for (let at = 0; at < text.length;) {
    const unit = text.charAt(at);
    if (specialLength(text, at, around) > 0) {
      // What must be quoted right behind joins the same quotes, and so do apostrophes, doubled.
      let quoted = "";
      for (;;) {
        const length = specialLength(text, at, around);
        if (length === 0 && text.charAt(at) !== "'") break;
        quoted += length > 0 ? text.slice(at, at + length) : "''";
        at += Math.max(length, 1);
      }
      result += `'${quoted}'`;
    } else if (unit === "'") {
      const following =
        at + 1 < text.length
          ? text.charAt(at + 1) === "'" || specialLength(text, at + 1, around) > 0
          : next !== undefined || around.enclosed;
      result += following ? "''" : "'";
      at++;
    } else {
      result += unit;
      at++;
    }
  }
  return result;
}

/** How many code units at a place mean something to ICU: a brace, a `#` that counts, the start of a tag. */
function specialLength(text: string, at: number, around: Surroundings): number {
  const unit = text.charAt(at);
  if (unit === "{" || unit === "}" || (unit === "#" && around.counts)) return 1;
  return unit === "<" && around.tags ? (/^<\/?[A-Za-z]/.exec(text.slice(at, at + 3))?.[0].length ?? 0) : 0;
}
