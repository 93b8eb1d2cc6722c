import type { ArgumentFormat, ArgumentStyle, Branch, MessageNode } from "../../model.js";
import {
  holdsAttributes,
  holdsContent,
  partArgument,
  partBranch,
  partChoice,
  partCount,
  partEnd,
  partFormatted,
  partNamed,
  partResolved,
  partTag,
  partText,
  type IcuParts,
} from "./icu-parts.js";

/** The tree of a message that was read into parts. */
export function icuTree(read: IcuParts): MessageNode[] {
  return new TreeMaker(read).nodes();
}

class TreeMaker {
  private at: number;

  constructor(private readonly read: IcuParts) {
    this.at = read.first;
  }

  /** The nodes up to the end of what they stand in. */
  nodes(): MessageNode[] {
    const nodes: MessageNode[] = [];
    const { parts, last } = this.read;
    while (this.at < last) {
      const node = this.node(parts[this.at++] ?? partEnd);
      if (!node) break;
      nodes.push(node);
    }
    return nodes;
  }

  private node(kind: number): MessageNode | undefined {
    switch (kind) {
      case partText: {
        const span = this.span();
        return { kind: "text", value: this.read.source.slice(span.start, span.end), span };
      }
      case partResolved: {
        const span = this.span();
        let value = "";
        for (let pieces = this.number(); pieces > 0; pieces--)
          value += this.read.source.slice(this.number(), this.number());
        return { kind: "text", value, span };
      }
      case partNamed: {
        const nameSpan = this.span();
        const { start, end } = nameSpan;
        const name = this.read.source.slice(start, end);
        return { kind: "argument", name, nameSpan, span: { start: start - 1, end: end + 1 } };
      }
      case partCount: {
        const start = this.number();
        return { kind: "count", span: { start, end: start + 1 } };
      }
      case partArgument:
        return { kind: "argument", ...this.named() };
      case partFormatted: {
        const { name, nameSpan, span } = this.named();
        return { kind: "argument", name, nameSpan, format: this.format(), span };
      }
      case partChoice:
        return this.choice();
      case partTag:
        return this.tag();
      default:
        return undefined;
    }
  }

  private choice(): MessageNode {
    const { name, nameSpan, span } = this.named();
    const type = this.number();
    const { start, end } = this.span();
    const branches: Branch[] = [];
    const { parts, source } = this.read;
    while (parts[this.at++] === partBranch) {
      const branchSpan = this.span();
      const selectorSpan = this.span();
      const written = source.slice(selectorSpan.start, selectorSpan.end);
      this.at++;
      const isExact = type !== 2 && written.startsWith("=");
      branches.push({
        selector: !isExact ? written : written === "=" ? "" : `=${Number(written.slice(1))}`,
        nodes: this.nodes(),
        selectorSpan,
        span: branchSpan,
      });
    }
    if (type === 2) return { kind: "select", name, nameSpan, branches, span };
    const offset = Number(source.slice(start, end));
    return {
      kind: "plural",
      pluralKind: type === 0 ? "cardinal" : "ordinal",
      name,
      nameSpan,
      offset,
      branches,
      span,
    };
  }

  private tag(): MessageNode {
    const { name, span } = this.named();
    const openEnd = this.number();
    const holds = this.number();
    const attributes = (holds & holdsAttributes) === 0 ? [] : trimAttributes(this.nodes());
    const selfClosing = (holds & holdsContent) === 0;
    const children = selfClosing ? [] : this.nodes();
    const openSpan = { start: span.start, end: openEnd };
    return { kind: "tag", name, attributes, children, selfClosing, span, openSpan };
  }

  private format(): ArgumentFormat {
    const typeSpan = this.span();
    const type = this.read.source.slice(typeSpan.start, typeSpan.end).toLowerCase();
    const span = this.span();
    if (span.start < 0) return { type, typeSpan };
    const text = this.read.source.slice(span.start, span.end);
    const style: ArgumentStyle = text.startsWith("::")
      ? { kind: "skeleton", text: text.slice(2), span }
      : { kind: isNamedStyle(type, text) ? "named" : "pattern", text, span };
    return { type, style, typeSpan };
  }

  private named() {
    const span = this.span();
    const nameSpan = this.span();
    return { name: this.read.source.slice(nameSpan.start, nameSpan.end), nameSpan, span };
  }

  private span() {
    const start = this.number();
    return { start, end: this.number() };
  }

  private number(): number {
    return this.read.parts[this.at++] ?? 0;
  }
}

/** Leading and trailing white space of the attributes means nothing. */
function trimAttributes(nodes: readonly MessageNode[]): MessageNode[] {
  const trimmed = nodes.map((node, index) => {
    if (node.kind !== "text") return node;
    let { value } = node;
    if (index === 0) value = value.trimStart();
    if (index === nodes.length - 1) value = value.trimEnd();
    return { ...node, value };
  });
  return trimmed.filter((node) => node.kind !== "text" || node.value !== "");
}

function isNamedStyle(type: string, text: string): boolean {
  switch (type) {
    case "number":
      return text === "integer" || text === "currency" || text === "percent";
    case "date":
    case "time":
      return text === "short" || text === "medium" || text === "long" || text === "full";
    default:
      return false;
  }
}
