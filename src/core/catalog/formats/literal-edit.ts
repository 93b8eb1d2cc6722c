import { applyEdits, type TextEdit } from "../../text/edits.js";
import { lineStart as lineStartOf } from "../../text/line-start.js";
import type { CatalogChanges, EntryPath } from "../model.js";
import {
  additionTree,
  changeGroup,
  orderTree,
  pathSet,
  type Addition,
  type AdditionGroup,
  type GroupChange,
  type NewMember,
  type OrderTree,
} from "./edit-tree.js";

/** A value of a file of literals, with what is below it. `code` is what is worked out: it is kept as it is. */
export interface LiteralNode {
  readonly kind: "text" | "number" | "boolean" | "null" | "code" | "object" | "list";
  readonly start: number;
  end: number;
  readonly members: LiteralMember[];
}

export interface LiteralMember {
  readonly name: string | number;
  /** Where the member starts: its key, or its value in a list. */
  readonly start: number;
  readonly value: LiteralNode;
  /** The offset behind the comma that follows. */
  commaEnd?: number;
}

/** How a file writes its literals, by those that are there. */
export interface LiteralStyle {
  readonly lineEnd: string;
  readonly indent: string;
  readonly asciiOnly: boolean;
  /** What texts, and names, mostly stand in. */
  readonly quote: string;
  readonly nameQuote: string;
  /** Whether names stand without quotes. */
  readonly bareNames: boolean;
  /** Whether a comma stands behind the last member of a group. */
  readonly endsInComma: boolean;
}

/** How a language writes literals. */
export interface LiteralSyntax {
  /** What a comment to the end of its line starts with; undefined where there are none. */
  readonly comment: "//" | "#" | undefined;
  /** What stands around the members of a group of names, and of a list. */
  readonly group: readonly [open: string, close: string];
  readonly list: readonly [open: string, close: string];
  /** What stands between a name and its value, and how to find it in what is written. */
  readonly between: string;
  readonly betweenPattern: RegExp;
  /** What stands between members. */
  readonly separator: string;
  /** What stands behind the last member of a new group. */
  lastComma(style: LiteralStyle, multiline: boolean): string;
  writeName(name: string, style: LiteralStyle): string;
  /** A text in quotes; `quote` is that of the text whose place it takes. */
  writeText(text: string, style: LiteralStyle, quote?: string): string;
}

/** The text of a file with changes made in place, by the tree of its literals. */
export function editLiterals(
  text: string,
  root: LiteralNode,
  changes: CatalogChanges,
  style: LiteralStyle,
  syntax: LiteralSyntax,
): string {
  const editor = new LiteralEditor(text, style, orderTree(changes.order ?? []), syntax);
  for (const { path, text: value } of changes.set ?? []) editor.set(root, path, value);
  editor.change(root, [], additionTree(changes.add ?? []), pathSet(changes.remove ?? []), 0);
  return applyEdits(text, editor.edits);
}

/** The style of a file, by its first members. */
export function styleOfLiterals(text: string, root: LiteralNode, hasBareNames: boolean): LiteralStyle {
  const lineEnd = /\r\n|\n|\r/.exec(text)?.[0] ?? "\n";
  const inside = text.slice(root.start, root.end);
  const indent = /\n([ \t]+)["'\p{L}]/mu.exec(inside)?.[1] ?? "  ";
  const names = hasBareNames ? root.members.map(({ start }) => text[start]) : [];
  const last = root.members.at(-1);
  return {
    lineEnd,
    indent,
    asciiOnly: !/[\u007f-\uffff]/.test(text) && /\\u(?!00[01])[0-9a-fA-F]{4}/.test(text),
    quote: mostly(quotesOf(text, root, "texts")) ?? '"',
    nameQuote: mostly(quotesOf(text, root, "names")) ?? '"',
    bareNames: names.length > 0 && names.every((unit) => unit !== '"' && unit !== "'"),
    endsInComma: last?.commaEnd !== undefined,
  };
}

/** So many members are asked for the quotes that they stand in. */
const mostAsked = 100;

function quotesOf(text: string, root: LiteralNode, of: "texts" | "names"): readonly string[] {
  const found: string[] = [];
  const visit = ({ members }: LiteralNode): void => {
    for (const { name, start, value } of members) {
      if (found.length >= mostAsked) return;
      if (of === "names" && typeof name === "string" && /["']/.test(text[start] ?? ""))
        found.push(text[start] ?? "");
      if (of === "texts" && value.kind === "text") found.push(text[value.start] ?? "");
      visit(value);
    }
  };
  visit(root);
  return found;
}

/** What a list holds most of, of equals the first. */
function mostly(list: readonly string[]): string | undefined {
  const counts = new Map<string, number>();
  for (const one of list) counts.set(one, (counts.get(one) ?? 0) + 1);
  return [...counts].sort((x, y) => y[1] - x[1])[0]?.[0];
}

/** The group or value at a path; undefined where there is none. */
export function literalAt(root: LiteralNode | undefined, path: EntryPath): LiteralMember | undefined {
  let node = root;
  let member: LiteralMember | undefined;
  for (const part of path) {
    member = node?.members.findLast(({ name }) => name === part);
    if (!member) return undefined;
    node = member.value;
  }
  return member;
}

/** Edits a file of literals in place, group by group. */
class LiteralEditor {
  readonly edits: TextEdit[] = [];

  constructor(
    private readonly text: string,
    private readonly style: LiteralStyle,
    private readonly order: OrderTree,
    private readonly syntax: LiteralSyntax,
  ) {}

  set(root: LiteralNode, path: EntryPath, value: string): void {
    let node: LiteralNode | undefined = root;
    for (const part of path) node = node?.members.findLast(({ name }) => name === part)?.value;
    if (!node) throw new Error(`no entry at ${path.join(".")}`);
    this.edits.push({ start: node.start, end: node.end, replacement: this.encode(value, node) });
  }

  /** Adds and removes members below one group. True when nothing of the group would be left. */
  change(
    node: LiteralNode,
    path: EntryPath,
    additions: AdditionGroup,
    removals: ReadonlySet<string>,
    depth: number,
  ): boolean {
    if (additions.size === 0 && removals.size === 0) return false;
    const changed = changeGroup(
      node.members,
      path,
      { additions, removals, order: this.order },
      {
        changeBelow: ({ value }, memberPath, below) => {
          if (!isGroup(value)) return false;
          const before = this.edits.length;
          if (!this.change(value, memberPath, below, removals, depth + 1) || value.members.length === 0)
            return false;
          this.edits.length = before;
          return true;
        },
        takesBelow: ({ value }) => isGroup(value),
        holdsText: ({ value }) => holdsValue(value),
        replace: ({ value }, text) =>
          this.edits.push({ start: value.start, end: value.end, replacement: this.encode(text, value) }),
      },
    );
    if (!changed) return false;
    if (changed.isEmptied && depth > 0) return true;
    this.rewriteMembers(node, changed);
    return false;
  }

  /** Writes the insertions (by the index of the kept member that they follow, -1 for the front) and removals of one group. */
  private rewriteMembers(node: LiteralNode, { removed, inserted }: GroupChange): void {
    const { members } = node;
    const first = members[0];
    const multiline = !first || this.text.slice(node.start, first.start).includes("\n");
    const indent =
      first && multiline ? this.indentOf(first.start) : this.indentOf(node.start) + this.style.indent;
    const lead = multiline ? this.style.lineEnd + indent : " ";
    const write = ({ name, addition }: NewMember) =>
      this.comment(addition, lead) +
      lead +
      (node.kind === "list" ? "" : this.name(String(name)) + this.colon(first)) +
      this.render(addition, indent, multiline);
    if (!first) {
      const texts = [...inserted.values()].flat().map(write);
      const inside = { start: node.start + 1, end: node.end - 1 };
      const isBlank = this.text.slice(inside.start, inside.end).trim() === "";
      const close = this.style.lineEnd + this.indentOf(node.start);
      this.edits.push({
        start: isBlank ? inside.start : inside.end,
        end: inside.end,
        replacement: texts.join(this.syntax.separator) + this.syntax.lastComma(this.style, true) + close,
      });
      return;
    }
    const apart = multiline && this.hasBlankLines(node) ? this.style.lineEnd : "";
    const lastIndex = members.length - 1;
    const endsInComma = members[lastIndex]?.commaEnd !== undefined;
    let lastKept = lastIndex;
    while (removed.has(lastKept)) lastKept--;
    for (const index of removed)
      this.edits.push({
        start: this.removalStart(node, index),
        end: this.slotEnd(node, index),
        replacement: "",
      });
    const keptComma = members[lastKept]?.commaEnd;
    if (keptComma !== undefined && lastKept < lastIndex && !endsInComma && !inserted.has(lastKept))
      this.edits.push({ start: keptComma - 1, end: keptComma, replacement: "" });
    for (const [index, list] of inserted) {
      const member = members[index];
      if (member && member.commaEnd === undefined)
        this.edits.push({
          start: member.value.end,
          end: member.value.end,
          replacement: this.syntax.separator,
        });
      const at = member ? this.slotEnd(node, index) : node.start + 1;
      const commaAfter = index === lastKept && !endsInComma ? "" : this.syntax.separator;
      this.edits.push({
        start: at,
        end: at,
        replacement: list.map((one) => apart + write(one)).join(this.syntax.separator) + commaAfter,
      });
    }
  }

  /** Whether a blank line stands between nearly all members of a group. */
  private hasBlankLines({ members }: LiteralNode): boolean {
    if (members.length < 3) return false;
    let blank = 0;
    for (const [index, { start }] of members.entries()) {
      const before = members[index - 1];
      const gap = before ? this.text.slice(before.commaEnd ?? before.value.end, start) : "";
      if (/\n[ \t]*\r?\n/.test(gap)) blank++;
    }
    return blank >= 0.8 * (members.length - 1);
  }

  /** Where what belongs to a member starts: behind the member before it, but not the comments that a blank line parts from it. */
  private removalStart(node: LiteralNode, index: number): number {
    const start = index === 0 ? node.start + 1 : this.slotEnd(node, index - 1);
    const { comment: mark } = this.syntax;
    if (mark === undefined) return start;
    const gap = this.text.slice(start, node.members[index]?.start ?? start);
    // The last line that holds a comment or its end and is followed by an empty one.
    let end = start;
    let at = start;
    const lines = gap.split("\n");
    for (const [index, line] of lines.entries()) {
      const isComment = /\/\/|#/.test(line) || (mark === "//" && line.trimEnd().endsWith("*/"));
      if (isComment && index < lines.length - 2 && lines[index + 1]?.trim() === "")
        end = at + line.trimEnd().length;
      at += line.length + 1;
    }
    return end;
  }

  /** Behind the comma of a member and a comment on the same line, or behind the member where it is the last. */
  private slotEnd(node: LiteralNode, index: number): number {
    const member = node.members[index];
    if (!member) return node.start + 1;
    const end = member.commaEnd ?? member.value.end;
    const { comment: mark } = this.syntax;
    if (mark === undefined) return end;
    const comment =
      // Of the languages with two slashes PHP has the other mark as well.
      mark === "#"
        ? /^[ \t]*#[^\r\n]*/
        : /^[ \t]*(?:(?:\/\/|#)[^\r\n]*|\/\*(?:(?!\*\/)[^\n])*\*\/(?=[ \t]*\r?\n))/;
    const beside = comment.exec(this.text.slice(end, end + 2000));
    return end + (beside?.[0].length ?? 0);
  }

  private comment(addition: Addition, lead: string): string {
    const { comment: mark } = this.syntax;
    if (mark === undefined || !("text" in addition) || addition.comment === undefined) return "";
    return addition.comment
      .split("\n")
      .map(
        (line) =>
          `${lead === " " ? "" : lead}${mark} ${line}`.trimEnd() + (lead === " " ? this.style.lineEnd : ""),
      )
      .join("");
  }

  private render(addition: Addition, indent: string, multiline: boolean): string {
    if ("text" in addition) return this.encode(addition.text);
    const isList = [...addition.below.keys()].every((name) => typeof name === "number");
    const inner = indent + this.style.indent;
    const lead = multiline ? this.style.lineEnd + inner : " ";
    const members = [...addition.below].map(
      ([name, below]) =>
        this.comment(below, lead) +
        lead +
        (isList ? "" : this.name(String(name)) + this.syntax.between) +
        this.render(below, inner, multiline),
    );
    const close = multiline ? this.style.lineEnd + indent : " ";
    const [open, end] = isList ? this.syntax.list : this.syntax.group;
    return (
      open + members.join(this.syntax.separator) + this.syntax.lastComma(this.style, multiline) + close + end
    );
  }

  private name(name: string): string {
    return this.syntax.writeName(name, this.style);
  }

  private encode(value: string, instead?: LiteralNode): string {
    return this.syntax.writeText(value, this.style, instead && this.text[instead.start]);
  }

  private colon(first: LiteralMember | undefined): string {
    const { between, betweenPattern } = this.syntax;
    if (!first || typeof first.name === "number") return between;
    const written = this.text.slice(first.start, first.value.start);
    return betweenPattern.exec(written)?.[0].replace(/^[ \t]*[\r\n]+\s*/, "") ?? between;
  }

  private indentOf(offset: number): string {
    const lineStart = lineStartOf(this.text, offset);
    return /^[ \t]*/.exec(this.text.slice(lineStart, offset))?.[0] ?? "";
  }
}

function isGroup({ kind }: LiteralNode): boolean {
  return kind === "object" || kind === "list";
}

/** Whether there is any text below a node; groups in groups alone hold none. */
function holdsValue(node: LiteralNode): boolean {
  return isGroup(node) ? node.members.some(({ value }) => holdsValue(value)) : true;
}
