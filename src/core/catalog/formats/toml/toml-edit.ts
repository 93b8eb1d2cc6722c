import { lineStart } from "../../../text/line-start.js";
import { applyEdits, type TextEdit } from "../../../text/edits.js";
import type { CatalogChanges, EntryPath, PathPart } from "../../model.js";
import {
  additionTree,
  insertionIndex,
  orderTree,
  pathSet,
  pathId,
  type AddedText,
  type AdditionGroup,
  type OrderTree,
} from "../edit-tree.js";
import { idOf, readToml, type TomlItem, type TomlSection, type TomlValue } from "./toml-read.js";

/** Changes a catalog in place. The text must be readable. */
export function editToml(text: string, changes: CatalogChanges): string {
  const { sections, fault } = readToml(text);
  if (fault) throw new Error("a TOML catalog that cannot be read cannot be edited");
  const editor = new TomlEditor(text, sections, orderTree(changes.order ?? []));
  for (const { path, text: value } of changes.set ?? []) editor.set(path, value);
  editor.remove(pathSet(changes.remove ?? []));
  editor.add([], additionTree(changes.add ?? []));
  return editor.result();
}

/** A name in the quotes of another, or without any where it needs none. */
export function writeTomlKey(name: string, written: string): string {
  if (written.startsWith("'") && isLiteral(name)) return `'${name}'`;
  return /^[A-Za-z0-9_-]+$/.test(name) && !/^["']/.test(written) ? name : quoted(name);
}

/** What holds the members of a table. */
type Holder =
  | { readonly kind: "section"; readonly section: TomlSection }
  /** Made by dotted keys: its members are lines of a section. */
  | { readonly kind: "dotted"; readonly section: TomlSection }
  | { readonly kind: "value"; readonly value: TomlValue; readonly section: TomlSection }
  /** Made by the headers of tables in it. */
  | { readonly kind: "implicit" }
  | { readonly kind: "tables"; readonly count: number };

class TomlEditor {
  private readonly edits: TextEdit[] = [];
  /** Lines and tables that are put in, by place: lines come first. */
  private readonly inserted: { readonly at: number; readonly rank: number; readonly lines: string }[] = [];
  private readonly holders = new Map<string, Holder>();
  private readonly items = new Map<string, TomlItem>();
  private readonly removed = new Set<TomlItem>();
  private readonly filled = new Set<TomlSection>();
  private readonly lineEnd: string;
  private readonly between: string;
  private readonly quote: string;

  constructor(
    private readonly text: string,
    private readonly sections: readonly TomlSection[],
    private readonly order: OrderTree,
  ) {
    this.lineEnd = /\r\n|\n/.exec(text)?.[0] ?? "\n";
    const betweens = new Map<string, number>();
    let single = 0;
    let double = 0;
    const note = (item: TomlItem) => {
      this.items.set(idOf(item.path), item);
      const { value } = item;
      if (value.kind === "text") {
        if (text[value.start] === "'") single++;
        else double++;
        const between = /^[ \t]*=[ \t]*$/.exec(text.slice(item.keySpan.end, value.start))?.[0];
        if (between !== undefined) betweens.set(between, (betweens.get(between) ?? 0) + 1);
      }
      value.items.forEach(note);
    };
    for (const section of sections) {
      this.holdersOf(section);
      section.items.forEach(note);
    }
    this.between = [...betweens].sort((a, b) => b[1] - a[1])[0]?.[0] ?? " = ";
    this.quote = single > double ? "'" : '"';
  }

  result(): string {
    const byPlace = new Map<number, { rank: number; lines: string }[]>();
    for (const { at, ...one } of this.inserted) byPlace.set(at, [...(byPlace.get(at) ?? []), one]);
    for (const [at, list] of byPlace) {
      let lines = list
        .sort((a, b) => a.rank - b.rank)
        .map((one) => one.lines)
        .join("");
      const isOpen = at > 0 && this.text[at - 1] !== "\n" && !(at === 1 && this.text.startsWith("\ufeff"));
      if (isOpen) lines = this.lineEnd + lines.slice(0, -this.lineEnd.length);
      // The first table of a file needs no empty line above it.
      if (this.text.slice(0, at).trim() === "" && lines.startsWith(this.lineEnd))
        lines = lines.replace(/^[\r\n]+/, "");
      this.edits.push({ start: at, end: at, replacement: lines });
    }
    return applyEdits(this.text, this.edits);
  }

  /** Takes down what holds the members of each table that a section has to do with. */
  private holdersOf(section: TomlSection): void {
    const { path, items } = section;
    for (let depth = 1; depth < path.length; depth++) {
      const id = idOf(path.slice(0, depth));
      if (!this.holders.has(id))
        this.holders.set(
          id,
          typeof path[depth] === "number" ? { kind: "tables", count: 0 } : { kind: "implicit" },
        );
    }
    const last = path.at(-1);
    if (typeof last === "number")
      this.holders.set(idOf(path.slice(0, -1)), { kind: "tables", count: last + 1 });
    this.holders.set(idOf(path), { kind: "section", section });
    const note = (item: TomlItem, base: number) => {
      for (let depth = base + 1; depth < item.path.length; depth++)
        this.holders.set(idOf(item.path.slice(0, depth)), { kind: "dotted", section });
      if (item.value.kind === "table" || item.value.kind === "array")
        this.holders.set(idOf(item.path), { kind: "value", value: item.value, section });
      // Tables in braces that dotted keys make are written there, as one more pair.
      for (const one of item.value.items)
        note(one, item.value.kind === "array" ? one.path.length : item.path.length);
    };
    for (const item of items) note(item, path.length);
  }

  set(path: EntryPath, value: string): void {
    const item = this.items.get(idOf(path));
    if (!item) throw new Error(`no entry at ${path.join(".")}`);
    this.replace(item, value);
  }

  private replace({ value: { start, end } }: TomlItem, value: string): void {
    this.edits.push({ start, end, replacement: this.written(value, this.text.slice(start, end)) });
  }

  /** A text in the quotes of another where they can hold it. */
  private written(value: string, like: string): string {
    if (like.startsWith("'''") && !/'''|'$|[\0-\x08\x0b-\x1f\x7f]/.test(value))
      return `'''${this.firstLine(like, value)}${this.lines(value)}'''`;
    if (like.startsWith('"""') && !/\r/.test(value)) {
      const body = escaped(value)
        .replaceAll("\\n", "\n")
        .replaceAll('\\"', '"')
        .replace(/""(?=")/g, '""\\')
        .replace(/"$/, '\\"');
      // What is behind a backslash in the text itself is no line end.
      if (!value.includes("\\")) return `"""${this.firstLine(like, value)}${this.lines(body)}"""`;
    }
    if (like.startsWith("'") && isLiteral(value)) return `'${value}'`;
    return quoted(value);
  }

  /** The line end behind the opening quotes, which is no part of the text. */
  private firstLine(like: string, value: string): string {
    return /^...\r?\n/.test(like) || value.startsWith("\n") ? this.lineEnd : "";
  }

  private lines(value: string): string {
    return value.replaceAll("\n", this.lineEnd);
  }

  remove(ids: ReadonlySet<string>): void {
    if (ids.size === 0) return;
    for (const section of this.sections) {
      for (const [index, item] of section.items.entries()) {
        if (!this.removeIn(item, ids)) continue;
        this.removed.add(item);
        const start = this.ownStart(
          item.start,
          section.items[index - 1]?.end ?? section.headEnd,
          section.head === undefined && index === 0,
        );
        this.edits.push({ start, end: this.lineAfter(item.end), replacement: "" });
      }
    }
  }

  /** Whether an item goes as a whole; what goes of the members in its braces or brackets is taken out. */
  private removeIn(item: TomlItem, ids: ReadonlySet<string>): boolean {
    if (ids.has(pathId(item.path))) return true;
    const { items } = item.value;
    if (items.length === 0) return false;
    const before = this.edits.length;
    const gone = items.map((one) => this.removeIn(one, ids));
    if (gone.every(Boolean)) {
      this.edits.length = before;
      return true;
    }
    const kept = items.filter((_, index) => !gone[index]);
    const lastKept = kept.at(-1);
    for (const [index, one] of items.entries()) {
      if (!gone[index]) continue;
      this.removed.add(one);
      const next = items[index + 1];
      const isTail = lastKept !== undefined && one.start > lastKept.start;
      const from = isTail
        ? index > 0 && gone[index - 1]
          ? (items[index - 1]?.end ?? 0)
          : lastKept.end
        : one.start;
      this.edits.push({ start: from, end: isTail ? one.end : (next?.start ?? one.end), replacement: "" });
    }
    return false;
  }

  /** Takes out the headers of tables that have nothing left; called when all lines are known that are put in. */
  private removeBareHeads(): void {
    for (const [index, section] of this.sections.entries()) {
      const { head, headEnd, items } = section;
      if (head === undefined || items.length === 0 || this.filled.has(section)) continue;
      if (!items.every((item) => this.removed.has(item))) continue;
      const before = this.sections[index - 1];
      const least = before ? (before.items.at(-1)?.end ?? before.headEnd) : 0;
      let start = this.ownStart(head, least, before?.head === undefined && before?.items.length === 0);
      // With the empty lines above it, but for the first table of a file.
      const said = this.text.slice(least, start).trimEnd().length;
      if (this.text.slice(0, start).trim() !== "") start = Math.min(start, this.lineAfter(least + said));
      this.edits.push({ start, end: this.lineAfter(headEnd), replacement: "" });
    }
  }

  add(path: EntryPath, additions: AdditionGroup): void {
    this.fill(path, additions);
    this.removeBareHeads();
  }

  private fill(path: EntryPath, additions: AdditionGroup): void {
    const names = [...additions.keys()].sort(
      (a, b) => this.order.at(path).rank(a) - this.order.at(path).rank(b),
    );
    const holder = this.holders.get(idOf(path));
    const section = holder?.kind === "section" || holder?.kind === "dotted" ? holder.section : undefined;
    const texts: (readonly [PathPart, AddedText])[] = [];
    for (const name of names) {
      const addition = additions.get(name);
      if (!addition) continue;
      const own = [...path, name];
      const there = this.holders.get(idOf(own));
      const item = this.items.get(idOf(own));
      const isGone = item !== undefined && this.removed.has(item);
      if ("text" in addition) {
        if (item && !isGone && item.value.kind !== "text" && item.value.items.length === 0)
          this.replace(item, addition.text);
        else if (item && !isGone) throw new Error(`${own.join(".")} already exists`);
        else texts.push([name, addition]);
        continue;
      }
      const { below } = addition;
      if (there && !isGone) this.fill(own, below);
      else if (holder?.kind === "value") this.insertMember(holder.value, name, this.inline(below));
      else if (isList(below) && section) this.insertLine(path, section, name, this.inline(below), undefined);
      else if (isList(below)) this.newTable(path, new Map([[name, addition]]));
      else if (section && (holder?.kind === "dotted" || this.usesDots())) this.dotted(own, below, section);
      else this.newTable(own, below);
    }
    if (texts.length === 0) return;
    if (section)
      for (const [name, { text, comment }] of texts)
        this.insertLine(path, section, name, this.written(text, this.quote), comment);
    else if (holder?.kind === "value")
      for (const [name, { text }] of texts)
        this.insertMember(holder.value, name, this.written(text, this.quote));
    else this.newTable(path, new Map(texts));
  }

  /** Whether the file writes groups as dotted keys: it has no headers, and has such keys. */
  private usesDots(): boolean {
    return (
      this.sections.length === 1 && (this.sections[0]?.items.some(({ path }) => path.length > 1) ?? false)
    );
  }

  private dotted(path: EntryPath, below: AdditionGroup, section: TomlSection): void {
    for (const [name, addition] of below) {
      if ("text" in addition)
        this.insertLine(path, section, name, this.written(addition.text, this.quote), addition.comment);
      else if (isList(addition.below))
        this.insertLine(path, section, name, this.inline(addition.below), undefined);
      else this.dotted([...path, name], addition.below, section);
    }
  }

  /** A group as the value of one key. */
  private inline(below: AdditionGroup): string {
    const members = [...below].map(([name, addition]) => {
      const value =
        "text" in addition ? this.written(addition.text, this.quote) : this.inline(addition.below);
      return isList(below) ? value : `${writeTomlKey(String(name), "")} = ${value}`;
    });
    return isList(below) ? `[${members.join(", ")}]` : `{ ${members.join(", ")} }`;
  }

  /** Puts `name = value` among the lines of a section that have to do with a table, where the source has it. */
  private insertLine(
    path: EntryPath,
    section: TomlSection,
    name: PathPart,
    value: string,
    comment: string | undefined,
  ): void {
    this.filled.add(section);
    const members = section.items.filter((item) => isBelow(item.path, path));
    const nameOf = (item: TomlItem) => item.path[path.length] ?? "";
    const siblings = this.order.at(path);
    const byName = new Map<PathPart, number>(members.map((item, index) => [nameOf(item), index]));
    const after = insertionIndex(
      members.length,
      byName,
      (index) => !this.removed.has(members[index] as TomlItem),
      siblings,
      name,
    );
    const member = members[after];
    const first = section.items[0];
    // Where its table has no line yet, it follows the others of the section.
    const at = member
      ? this.lineAfter(member.end)
      : members[0]
        ? this.ownStart(
            members[0].start,
            this.endBefore(section, members[0]),
            section.head === undefined && members[0] === first,
          )
        : this.endOf(section);
    const indent =
      /^[ \t]*/.exec(
        this.text.slice(lineStart(this.text, (member ?? members[0] ?? first)?.start ?? 0)),
      )?.[0] ?? "";
    const own = first || section.head !== undefined ? indent : "";
    const said = (comment?.split("\n") ?? [])
      .map((line) => `${own}# ${line}`.trimEnd() + this.lineEnd)
      .join("");
    const key = [...path.slice(section.path.length), name]
      .map((part) => writeTomlKey(String(part), ""))
      .join(".");
    this.inserted.push({ at, rank: 0, lines: `${said}${own}${key}${this.between}${value}${this.lineEnd}` });
  }

  private endBefore(section: TomlSection, item: TomlItem): number {
    return section.items[section.items.indexOf(item) - 1]?.end ?? section.headEnd;
  }

  /** Behind the last line of a section that says something. */
  private endOf(section: TomlSection): number {
    const last = section.items.at(-1);
    if (last) return this.lineAfter(last.end);
    if (section.head !== undefined) return this.lineAfter(section.headEnd);
    const next = this.sections[1];
    return next?.head === undefined ? this.text.length : this.ownStart(next.head, 0, true);
  }

  private insertMember(holder: TomlValue, name: PathPart, value: string): void {
    const { items, start, end, kind } = holder;
    const written = kind === "array" ? value : `${writeTomlKey(String(name), "")} = ${value}`;
    const kept = items.filter((item) => !this.removed.has(item));
    const last = kept.at(-1);
    if (!last) {
      this.edits.push({
        start: start + 1,
        end: end - 1,
        replacement: kind === "array" ? written : ` ${written} `,
      });
      return;
    }
    const before = this.text.slice((kept.at(-2)?.end ?? start) + (kept.length > 1 ? 0 : 1), last.start);
    const indent = before.slice(before.lastIndexOf("\n") + 1);
    const lead = before.includes("\n") && indent.trim() === "" ? this.lineEnd + indent : " ";
    this.edits.push({ start: last.end, end: last.end, replacement: `,${lead}${written}` });
  }

  /** A table of its own, with the tables in it, where the source has it among those beside it. */
  private newTable(path: EntryPath, below: AdditionGroup): void {
    let lines = "";
    const write = (own: EntryPath, group: AdditionGroup) => {
      const said = [...group].filter(([, addition]) => "text" in addition || isList(addition.below));
      if (said.length > 0) {
        const isElement = typeof own.at(-1) === "number";
        const name = own
          .filter((part) => typeof part !== "number")
          .map((part) => writeTomlKey(String(part), ""))
          .join(".");
        lines += `${this.lineEnd}${isElement ? `[[${name}]]` : `[${name}]`}${this.lineEnd}`;
      }
      for (const [name, addition] of said) {
        const comment = "text" in addition ? (addition.comment?.split("\n") ?? []) : [];
        for (const line of comment) lines += `# ${line}`.trimEnd() + this.lineEnd;
        const value =
          "text" in addition ? this.written(addition.text, this.quote) : this.inline(addition.below);
        lines += `${writeTomlKey(String(name), "")}${this.between}${value}${this.lineEnd}`;
      }
      for (const [name, addition] of group)
        if ("below" in addition && !isList(addition.below)) write([...own, name], addition.below);
    };
    write(path, below);
    const { at, isBefore } = this.placeOf(path);
    // Before a table that has its empty line above it already, the new one brings one for below.
    if (isBefore) lines = lines.slice(this.lineEnd.length) + this.lineEnd;
    this.inserted.push({ at, rank: 1, lines });
  }

  private placeOf(path: EntryPath): { readonly at: number; readonly isBefore: boolean } {
    const kept = this.sections.filter(({ head }) => head !== undefined);
    for (let depth = path.length; depth > 0; depth--) {
      const parent = path.slice(0, depth - 1);
      const name = path[depth - 1] ?? "";
      const beside = kept.filter((section) => isBelow(section.path, parent));
      if (beside.length === 0) continue;
      const nameOf = (section: TomlSection) => section.path[depth - 1] ?? "";
      const own = beside.filter((section) => nameOf(section) === name);
      // Its own header goes above those of the tables in it.
      const [inside] = own;
      if (inside && depth === path.length && typeof path.at(-1) !== "number") return this.before(inside);
      const byName = new Map<PathPart, number>(beside.map((section, index) => [nameOf(section), index]));
      const after = insertionIndex(beside.length, byName, () => true, this.order.at(parent), name);
      const section = own.at(-1) ?? beside[after];
      if (section) return { at: this.endOf(section), isBefore: false };
      const [first] = beside;
      if (first) return this.before(first);
    }
    const last = this.sections.at(-1);
    return { at: last ? this.endOf(last) : this.text.length, isBefore: false };
  }

  private before(section: TomlSection): { readonly at: number; readonly isBefore: boolean } {
    const index = this.sections.indexOf(section);
    const above = this.sections[index - 1];
    const least = above?.items.at(-1)?.end ?? above?.headEnd ?? 0;
    return {
      at: this.ownStart(section.head ?? 0, least, index === 1 && above?.items.length === 0),
      isBefore: true,
    };
  }

  /** The start of a line with the comments right above it; what opens the file is about the file where a blank line follows. */
  private ownStart(place: number, least: number, opensFile: boolean): number {
    const own = lineStart(this.text, place);
    let start = own;
    while (start > 0) {
      const above = lineStart(this.text, start - 1);
      if (above < least || !/^[ \t]*#/.test(this.text.slice(above, start))) break;
      start = above;
    }
    return opensFile && this.text.slice(0, start).trim() === "" ? own : start;
  }

  private lineAfter(offset: number): number {
    const feed = this.text.indexOf("\n", offset);
    return feed < 0 ? this.text.length : feed + 1;
  }
}

function isBelow(path: EntryPath, group: EntryPath): boolean {
  return path.length > group.length && group.every((part, at) => part === path[at]);
}

function isList(group: AdditionGroup): boolean {
  return group.size > 0 && [...group.keys()].every((name) => typeof name === "number");
}

function isLiteral(text: string): boolean {
  return !/['\0-\x08\x0a-\x1f\x7f]/.test(text);
}

function quoted(text: string): string {
  return `"${escaped(text)}"`;
}

function escaped(text: string): string {
  return text.replace(/["\\\0-\x08\x0a-\x1f\x7f]/g, (unit) => {
    const named = { "\b": "\\b", "\n": "\\n", "\f": "\\f", "\r": "\\r", '"': '\\"', "\\": "\\\\" }[unit];
    return named ?? `\\u${unit.charCodeAt(0).toString(16).padStart(4, "0")}`;
  });
}
