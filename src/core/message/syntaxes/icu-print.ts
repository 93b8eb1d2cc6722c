import type { Branch, MessageNode } from "../model.js";

/** What surrounds the nodes being printed, which decides what must be quoted. */
interface Surroundings {
  readonly counts: boolean;
  readonly tags: boolean;
}

/**
 * Writes nodes as an ICU message that reads back as the same tree. Plurals and selects are written
 * on one line, branches in the order given; text is quoted only where it must be.
 */
export function printIcu(nodes: readonly MessageNode[], options: { readonly tags?: boolean } = {}): string {
  return printNodes(nodes, { counts: false, tags: options.tags ?? true });
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
      return `{${node.name}, ${type},${offset}${printBranches(node.branches, { ...around, counts: true })}}`;
    }
    case "select":
      return `{${node.name}, select,${printBranches(node.branches, { ...around, counts: false })}}`;
    case "tag": {
      const attributes =
        node.attributes.length === 0 ? "" : ` ${printNodes(node.attributes, { ...around, tags: false })}`;
      if (node.selfClosing) return `<${node.name}${attributes}/>`;
      return `<${node.name}${attributes}>${printNodes(node.children, around)}</${node.name}>`;
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
  const special = (unit: string, at: number) =>
    unit === "{" ||
    unit === "}" ||
    (unit === "#" && around.counts) ||
    (unit === "<" && around.tags && /^<\/?[A-Za-z]/.test(text.slice(at, at + 3)));
  let result = "";
  for (let at = 0; at < text.length;) {
    const unit = text.charAt(at);
    if (unit === "'") {
      const following = text.charAt(at + 1);
      const atEnd = at + 1 === text.length;
      const risky = following === "'" || special(following, at + 1) || (atEnd && next !== undefined);
      result += risky ? "''" : "'";
      at++;
    } else if (special(unit, at)) {
      let end = at + 1;
      while (end < text.length && special(text.charAt(end), end)) end++;
      result += `'${text.slice(at, end)}'`;
      at = end;
      // An apostrophe right behind the closing mark would be read as one quoted apostrophe.
      if (text.charAt(at) === "'") {
        result = `${result.slice(0, -1)}''`;
        at++;
        while (text.charAt(at) === "'") {
          result += "''";
          at++;
        }
        result += "'";
      }
    } else {
      result += unit;
      at++;
    }
  }
  return result;
}
