import { lineStart as lineStartOf } from "../../../text/line-start.js";
import type { Document, Node, Pair, YAMLMap, YAMLSeq } from "yaml";
import { isAlias, isMap, isScalar, isSeq, parseDocument, visit } from "../../../text/yaml.js";
import { applyEdits, type TextEdit } from "../../../text/edits.js";
import type { CatalogChanges, EntryPath, PathPart } from "../../model.js";
import {
  additionTree,
  changeGroup,
  orderTree,
  pathSet,
  type AdditionGroup,
  type NewMember,
  type OrderTree,
} from "../edit-tree.js";
import { plainKind } from "./yaml-lines.js";

type Quoting = "plain" | "single" | "double";

/** Changes a YAML catalog in place. The text must be readable. */
export function editYaml(text: string, changes: CatalogChanges): string {
  const document = parseDocument(text, {
    uniqueKeys: false,
    merge: true,
    prettyErrors: false,
    logLevel: "silent",
  });
  if (document.errors.length > 0) throw new Error("a YAML catalog that cannot be read cannot be edited");
  const editor = new YamlEditor(text, document, orderTree(changes.order ?? []));
  const additions = additionTree(changes.add ?? []);
  const root = document.contents;
  if (!isMap(root) || (root.flow && root.items.length === 0)) {
    if (additions.size > 0) editor.fillRoot(root, additions);
    return applyEdits(text, editor.edits);
  }
  for (const { path, text: value } of changes.set ?? []) editor.set(root, path, value);
  editor.change(root, [], additions, pathSet(changes.remove ?? []), 0);
  return applyEdits(text, editor.edits);
}

/** A name in the quotes of another, or without any where that has none and it needs none. */
export function writeYamlKey(name: string, written: string): string {
  if (written.startsWith("'")) return `'${name.replaceAll("'", "''")}'`;
  return !written.startsWith('"') && isPlainSafe(name, true) ? name : JSON.stringify(name);
}

/** Where the name of a mapping is written that stands in mappings. */
export function yamlGroupKeySpan(text: string, path: EntryPath): { start: number; end: number } | undefined {
  const document = parseDocument(text, {
    uniqueKeys: false,
    merge: true,
    prettyErrors: false,
    logLevel: "silent",
  });
  if (document.errors.length > 0) return undefined;
  let node: unknown = document.contents;
  let range: readonly number[] | null | undefined;
  for (const part of path) {
    const pair: Pair | undefined = isMap(node)
      ? node.items.findLast(({ key }) => isScalar(key) && String(key.value) === part)
      : undefined;
    if (!pair || !isScalar(pair.key) || pair.key.anchor !== undefined || pair.key.tag !== undefined)
      return undefined;
    ({ range } = pair.key);
    node = pair.value;
  }
  const [start, end] = range ?? [];
  return isMap(node) && start !== undefined && end !== undefined ? { start, end } : undefined;
}

/** A member of a mapping or list, as it stands in the text. */
interface Member {
  readonly name: PathPart;
  readonly key: Node | undefined;
  readonly value: Node | null;
  /** Where its own first character is. */
  readonly start: number;
  /** Behind its last character, comments on the line not counted. */
  readonly end: number;
}

class YamlEditor {
  readonly edits: TextEdit[] = [];
  private readonly lineEnd: string;
  private readonly step: string;
  private readonly quoting: Quoting;
  private readonly usesBlocks: boolean;
  private readonly asciiOnly: boolean;

  constructor(
    private readonly text: string,
    private readonly document: Document,
    private readonly order: OrderTree,
  ) {
    this.lineEnd = /\r\n|\n/.exec(text)?.[0] ?? "\n";
    this.step = /^( +)[^\s#-]/m.exec(text)?.[1] ?? "  ";
    const counts = { plain: 0, single: 0, double: 0 };
    let blocks = 0;
    visit(document, {
      Scalar(key, node) {
        if (key === "key") return;
        if (node.type === "QUOTE_DOUBLE") counts.double++;
        else if (node.type === "QUOTE_SINGLE") counts.single++;
        else if (node.type === "PLAIN") counts.plain++;
        else blocks++;
      },
    });
    this.quoting =
      counts.plain >= counts.double && counts.plain >= counts.single && counts.plain > 0
        ? "plain"
        : counts.single > counts.double
          ? "single"
          : "double";
    if (counts.plain + counts.single + counts.double === 0) this.quoting = "plain";
    this.usesBlocks = blocks > 0;
    this.asciiOnly = !/[\u0080-\uffff]/.test(text) && /\\u(?!00[01])[\da-fA-F]{4}/.test(text);
  }

  fillRoot(root: Node | null, additions: AdditionGroup): void {
    const lines = [...additions]
      .map(([name, addition]) => this.render({ name, addition }, "", false))
      .join("");
    if (root?.range && this.text.slice(root.range[0], root.range[1]).trim() !== "") {
      this.edits.push({
        start: root.range[0],
        end: root.range[1],
        replacement: lines.slice(0, -this.lineEnd.length),
      });
      return;
    }
    const isOpen = this.text !== "" && !this.text.endsWith("\n");
    this.edits.push({
      start: this.text.length,
      end: this.text.length,
      replacement: (isOpen ? this.lineEnd : "") + lines,
    });
  }

  set(root: Node, path: EntryPath, value: string): void {
    let node: Node | null = root;
    let owner: { map: Node; name: PathPart } | undefined;
    for (const part of path) {
      const group: Node | null = this.resolved(node);
      const member: Member | undefined = this.membersOf(group).findLast(
        ({ name }) => String(name) === String(part),
      );
      if (!member) {
        // It comes from a merge key: an entry of its own stands above that.
        if (isMap(group)) this.change(group, [], new Map([[part, { text: value }]]), new Set(), 1);
        return;
      }
      owner = { map: group as Node, name: part };
      node = member.value;
    }
    const member =
      owner && this.membersOf(owner.map).findLast(({ name }) => String(name) === String(owner?.name));
    // Where the name stands twice, the last one counts: a group there is no text that was read.
    const last = member && this.resolved(member.value);
    if (member && !isMap(last) && !isSeq(last)) this.replace(member, value);
  }

  private replace(member: Member, value: string): void {
    const { value: node, key } = member;
    const range = node?.range;
    const isFlow = this.text[member.start - 1] === "{" || this.text[member.start - 1] === "[";
    if (!node || !range || range[0] === range[1]) {
      const at = this.colonAfter(key?.range?.[1] ?? member.end);
      this.edits.push({
        start: at,
        end: at,
        replacement: ` ${this.scalar(value, this.quoting, "", isFlow)}`,
      });
      return;
    }
    const type = isScalar(node) ? node.type : undefined;
    if (type === "BLOCK_LITERAL" || type === "BLOCK_FOLDED") {
      const end = range[1];
      const written = this.text.slice(range[0], end);
      const indent = /\n( *)\S/.exec(written)?.[1] ?? this.indentOf(member.start) + this.step;
      const block = this.block(value, type === "BLOCK_LITERAL" ? "|" : ">", indent);
      const ending = /(?<![\r\n])(?:\r?\n)*$/.exec(written)?.[0] ?? "";
      this.edits.push({
        start: range[0],
        end,
        replacement: block === undefined ? this.scalar(value, "double", "", false) + ending : block + ending,
      });
      return;
    }
    const quoting: Quoting =
      type === "QUOTE_DOUBLE"
        ? "double"
        : type === "QUOTE_SINGLE"
          ? "single"
          : isAlias(node)
            ? this.quoting
            : "plain";
    this.edits.push({ start: range[0], end: range[1], replacement: this.scalar(value, quoting, "", isFlow) });
  }

  /** Adds and removes members below one group. True when nothing of the group would be left. */
  change(
    given: Node | null,
    path: EntryPath,
    additions: AdditionGroup,
    removals: ReadonlySet<string>,
    depth: number,
  ): boolean {
    if (additions.size === 0 && removals.size === 0) return false;
    const group = this.resolved(given);
    const members = this.membersOf(group);
    const changed = changeGroup(
      members,
      path,
      { additions, removals, order: this.order },
      {
        changeBelow: (member, memberPath, below) =>
          this.changeBelow(member, memberPath, below, removals, depth + 1),
        takesBelow: () => true,
        holdsText: ({ value }) => holdsText(value),
        replace: (member, text) => this.replace(member, text),
      },
    );
    if (!changed) return false;
    if (changed.isEmptied && depth > 0) return true;
    const { removed, inserted } = changed;
    if ((isMap(group) || isSeq(group)) && isFlow(group)) this.rewriteFlow(group, members, removed, inserted);
    else this.rewriteBlock(group, members, removed, inserted, depth);
    return false;
  }

  /** Changes what is below a member. True when nothing of it is left. */
  private changeBelow(
    member: Member,
    path: EntryPath,
    additions: AdditionGroup,
    removals: ReadonlySet<string>,
    depth: number,
  ): boolean {
    const { value } = member;
    const isGroup = isMap(value) || isSeq(value);
    if ((isGroup && value.items.length === 0) || isNull(value)) {
      if (additions.size > 0) this.fill(member, additions);
      return false;
    }
    // What an alias stands for is not this member's own: it takes what is added, but nothing in it goes.
    if (isAlias(value)) this.change(value, path, additions, new Set(), depth);
    if (!isGroup) return false;
    const before = this.edits.length;
    if (!this.change(value, path, additions, removals, depth)) return false;
    this.edits.length = before;
    return true;
  }

  private rewriteBlock(
    group: Node | null,
    members: readonly Member[],
    removed: ReadonlySet<number>,
    inserted: ReadonlyMap<number, readonly NewMember[]>,
    depth: number,
  ): void {
    const isList = isSeq(group);
    const first = members[0];
    const indent = first
      ? " ".repeat(this.columnOf(isList ? this.dashBefore(first.start) : first.start))
      : "";
    for (const index of removed) {
      const member = members[index];
      if (!member) continue;
      const onDashLine = !isList && !/^ *$/.test(this.text.slice(this.lineStart(member.start), member.start));
      const next = members[index + 1];
      // The first member beside a dash gives its place to the next one.
      if (onDashLine && next) this.edits.push({ start: member.start, end: next.start, replacement: "" });
      else
        this.edits.push({
          start: this.ownStart(member, members[index - 1], depth === 0),
          end: this.lineAfter(member.end),
          replacement: "",
        });
    }
    for (const [index, list] of inserted) {
      const member = members[index];
      const isOnDashLine =
        first && !isList && !/^ *$/.test(this.text.slice(this.lineStart(first.start), first.start));
      const after = member ?? (isOnDashLine ? first : undefined);
      const at = after
        ? this.lineAfter(after.end)
        : first
          ? this.ownStart(first, undefined, depth === 0)
          : this.text.length;
      let lines = list.map((one) => this.render(one, indent, isList)).join("");
      const isOpen = at > 0 && this.text[at - 1] !== "\n";
      if (isOpen) lines = this.lineEnd + lines.slice(0, -this.lineEnd.length);
      this.edits.push({ start: at, end: at, replacement: lines });
    }
  }

  private rewriteFlow(
    group: YAMLMap | YAMLSeq,
    members: readonly Member[],
    removed: ReadonlySet<number>,
    inserted: ReadonlyMap<number, readonly NewMember[]>,
  ): void {
    const kept = members.filter((_, index) => !removed.has(index));
    const lastKept = kept.at(-1);
    for (const index of removed) {
      const member = members[index];
      if (!member) continue;
      const next = members[index + 1];
      const before = members[index - 1];
      const isTail = !members.slice(index).some((_, at) => !removed.has(index + at));
      if (isTail && lastKept) {
        const from = before && removed.has(index - 1) ? before.end : lastKept.end;
        this.edits.push({ start: from, end: member.end, replacement: "" });
      } else this.edits.push({ start: member.start, end: next?.start ?? member.end, replacement: "" });
    }
    const write = ({ name, addition }: NewMember): string =>
      (isSeq(group) ? "" : `${this.name(String(name))}: `) +
      ("text" in addition
        ? this.scalar(addition.text, this.quoting, "", true)
        : `{ ${[...addition.below].map(([inner, one]) => write({ name: inner, addition: one })).join(", ")} }`);
    for (const [index, list] of inserted) {
      const member = members[index];
      const at = member?.end ?? (group.range?.[0] ?? 0) + 1;
      const texts = list.map(write).join(", ");
      this.edits.push({
        start: at,
        end: at,
        replacement: member ? `, ${texts}` : kept.length > 0 ? `${texts}, ` : texts,
      });
    }
  }

  /** Puts the first members below a key whose group is empty. */
  private fill(member: Member | undefined, additions: AdditionGroup): void {
    if (!member) return;
    const indent = " ".repeat(this.columnOf(member.start)) + this.step;
    const lines = [...additions].map(([name, addition]) =>
      this.render(
        { name, addition },
        indent,
        [...additions.keys()].every((one) => typeof one === "number"),
      ),
    );
    const start = this.colonAfter(member.key?.range?.[1] ?? member.start);
    const end = Math.max(member.value?.range?.[1] ?? start, start);
    const body = lines.join("");
    this.edits.push({ start, end, replacement: this.lineEnd + body.slice(0, -this.lineEnd.length) });
  }

  private render({ name, addition }: NewMember, indent: string, isItem: boolean): string {
    const head = indent + (isItem ? "-" : `${this.name(String(name))}:`);
    if ("text" in addition) {
      const said = (addition.comment?.split("\n") ?? [])
        .map((line) => `${indent}# ${line}`.trimEnd() + this.lineEnd)
        .join("");
      return `${said}${head} ${this.scalar(addition.text, this.quoting, indent + this.step, false)}${this.lineEnd}`;
    }
    const isList = [...addition.below.keys()].every((one) => typeof one === "number");
    const members = [...addition.below].map(([inner, one]) =>
      this.render({ name: inner, addition: one }, indent + this.step, isList),
    );
    return head + this.lineEnd + members.join("");
  }

  private name(name: string): string {
    return isPlainSafe(name, true) ? name : this.doubleQuoted(name);
  }

  /** A text as a scalar: as it is written around it where that is safe, in quotes where not. */
  private scalar(value: string, quoting: Quoting, blockIndent: string, inFlow: boolean): string {
    if (value.includes("\n") && this.usesBlocks && blockIndent !== "" && !inFlow) {
      const block = this.block(value, "|", blockIndent);
      if (block !== undefined) return block;
    }

    const needsEscapes =
      /[\0-\x1f\x7f\u0085\u2028\u2029\ufeff]/.test(value) ||
      (this.asciiOnly && /[\u0080-\uffff]/.test(value));
    if (needsEscapes || quoting === "double") return this.doubleQuoted(value);
    if (quoting === "single") return `'${value.replaceAll("'", "''")}'`;
    if (isPlainSafe(value, false) && !(inFlow && /[,[\]{}]/.test(value))) return value;
    return value.includes('"') && !value.includes("'") ? `'${value}'` : this.doubleQuoted(value);
  }

  private doubleQuoted(value: string): string {
    const json = JSON.stringify(value);
    return json.replace(
      this.asciiOnly ? /[\u007f-\uffff]/g : /[\u007f\u0085\u2028\u2029\ufeff]/g,
      (unit) => `\\u${unit.charCodeAt(0).toString(16).padStart(4, "0")}`,
    );
  }

  /** A block scalar with its head, without the last line end; undefined where one cannot hold the text. */
  private block(value: string, style: "|" | ">", indent: string): string | undefined {
    const content = value.replace(/(?<!\n)\n+$/, "");
    const trailing = value.length - content.length;

    if (content === "" || /^[ \n]|[\0-\x09\x0b-\x1f\x7f\u0085\u2028\u2029\ufeff]/.test(content))
      return undefined;
    if (style === ">" && /\n /.test(content)) return undefined;
    const lines = content.split("\n");
    const joined =
      style === ">" ? lines.flatMap((line, index) => (index === 0 ? [line] : ["", line])) : lines;
    const chomping = trailing === 0 ? "-" : trailing === 1 ? "" : "+";
    const body = [...joined, ...Array.from({ length: Math.max(trailing - 1, 0) }, () => "")];
    return [style + chomping, ...body.map((line) => (line === "" ? "" : indent + line))].join(this.lineEnd);
  }

  private resolved(node: Node | null): Node | null {
    return isAlias(node) ? ((node.resolve(this.document) as Node | undefined) ?? null) : node;
  }

  private membersOf(group: Node | null): readonly Member[] {
    if (isMap(group))
      return group.items.flatMap((pair: Pair) => {
        const key = pair.key as Node;
        const value = pair.value as Node | null;
        if (isMergeKey(pair)) return [];
        const name = isScalar(key) ? (typeof key.value === "string" ? key.value : (key.source ?? "")) : "";
        const start = key.range?.[0] ?? 0;
        return [
          { name, key, value, start, end: this.endOf(value, this.colonAfter(key.range?.[1] ?? start)) },
        ];
      });
    if (isSeq(group))
      return (group.items as (Node | null)[]).map((value, index) => {
        const start = value?.range?.[0] ?? 0;
        return { name: index, key: undefined, value, start, end: this.endOf(value, start) };
      });
    return [];
  }

  /** Behind the last character of a value. */
  private endOf(value: Node | null, fallback: number): number {
    const range = value?.range;
    if (!value || !range || range[0] === range[1]) return fallback;
    const isCollection = isMap(value) || isSeq(value);
    if (isCollection && !isFlow(value)) {
      const last = this.membersOf(value).at(-1);
      const tail = isMap(value) ? value.items.at(-1) : undefined;
      const merged = tail && isMergeKey(tail) ? ((tail.value as Node | null)?.range?.[1] ?? 0) : 0;
      return last ? Math.max(last.end, merged) : range[1];
    }
    // A block scalar's range takes in the empty lines behind it, which part it from what follows.
    const written = this.text.slice(range[0], range[1]);
    return range[0] + written.trimEnd().length;
  }

  private colonAfter(offset: number): number {
    const colon = this.text.indexOf(":", offset);
    return colon < 0 ? offset : colon + 1;
  }

  private dashBefore(offset: number): number {
    const dash = this.text.lastIndexOf("-", offset);
    return dash < 0 ? offset : dash;
  }

  private lineStart(offset: number): number {
    return lineStartOf(this.text, offset);
  }

  private lineAfter(offset: number): number {
    const feed = this.text.indexOf("\n", offset);
    return feed < 0 ? this.text.length : feed + 1;
  }

  private columnOf(offset: number): number {
    return offset - this.lineStart(offset);
  }

  private indentOf(offset: number): string {
    return /^ */.exec(this.text.slice(this.lineStart(offset)))?.[0] ?? "";
  }

  /**
   * The start of a member with the comments right above it. A comment that opens the file is not the member's: it is
   * about the file. A line of the member before that starts like a comment, as in a block text, is that member's.
   */
  private ownStart(member: Member, before: Member | undefined, isOutermost: boolean): number {
    const least = before ? this.lineAfter(before.end) : 0;
    const own = this.lineStart(member.start);
    let start = own;
    while (start > least) {
      const above = this.lineStart(start - 1);
      if (above < least || !/^ *#/.test(this.text.slice(above, start))) break;
      start = above;
    }
    const opensFile = isOutermost && !before && (start === 0 || this.text.slice(0, start).trim() === "---");
    return opensFile ? own : start;
  }
}

function isFlow(node: Node | null): boolean {
  return (isMap(node) || isSeq(node)) && node.flow === true;
}

function isMergeKey({ key }: Pair): boolean {
  return isScalar(key) && key.source === "<<" && key.type === "PLAIN";
}

function isNull(node: Node | null): boolean {
  return node === null || (isScalar(node) && node.value === null);
}

/** Whether there is any text below a node. */
function holdsText(node: Node | null): boolean {
  if (isMap(node)) return node.items.some(({ value }) => holdsText(value as Node | null));
  if (isSeq(node)) return node.items.some((item) => holdsText(item as Node | null));
  return true;
}

/** Whether a text may stand without quotes and be read as the same text by loaders of YAML 1.1 and 1.2. */
function isPlainSafe(text: string, isKey: boolean): boolean {
  if (isKey)
    return (
      /^[A-Za-z_][\w.-]*(?: [\w.-]+)*$/.test(text) && plainKind(text) === "text" && !/^[yn]$/i.test(text)
    );
  return (
    !/^[\s,[\]{}#&*!|>'"%@`?:=-]|[\s:]$|: | #|[\0-\x1f\x7f]/.test(text) &&
    text !== "" &&
    plainKind(text) === "text" &&
    !/^(?:[yn]|~|\d[\d_,.:-]*|\d{4}-\d{2}-\d{2}.*|---.*|\.\.\..*)$/i.test(text)
  );
}
