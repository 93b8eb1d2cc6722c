import { lineIndex, type LineIndex } from "../text/line-index.js";
import { lineStart } from "../text/line-start.js";
import { applyEdits, type TextEdit } from "../text/edits.js";
import type { Span } from "../text/span.js";
import { insertionIndex, orderTree, additionTree, pathId, type AdditionGroup } from "./formats/edit-tree.js";
import type { EntryPath } from "./model.js";

/** A file of TypeScript that declares which texts there are, as an interface or a type of an object. */
export interface DeclaredTexts {
  readonly file: string;
  readonly text: string;
  readonly bom: boolean;
  readonly lines: LineIndex;
  /** The type whose members are the texts; undefined where the file has none. */
  readonly group: DeclaredGroup | undefined;
}

/** The members of a type, in braces. */
export interface DeclaredGroup extends Span {
  readonly members: readonly DeclaredMember[];
}

export interface DeclaredMember extends Span {
  readonly name: string;
  readonly nameSpan: Span;
  /** Its own members, where its type is one in braces, or one that the file declares. */
  readonly below: DeclaredGroup | undefined;
}

/** Reads a file of types. Of several types the one that has most of the given keys is taken. */
export function readDeclared(
  file: string,
  text: string,
  bom: boolean,
  paths: Iterable<EntryPath>,
): DeclaredTexts {
  const types = typesIn(text);
  const wanted = new Set([...paths].map(pathId));
  let best: { readonly group: DeclaredGroup; readonly common: number } | undefined;
  for (const group of types.values()) {
    const common = declaredPaths(group).filter(({ path }) => wanted.has(pathId(path))).length;
    if (common > (best?.common ?? 0)) best = { group, common };
  }
  const [only] = types.values();
  const group = best?.group ?? (types.size === 1 ? only : undefined);
  return { file, text, bom, lines: lineIndex(text), group };
}

/** What a group declares, with what is in its groups. */
export function declaredPaths(
  group: DeclaredGroup,
  above: EntryPath = [],
): { readonly path: EntryPath; readonly member: DeclaredMember }[] {
  return group.members.flatMap((member) => {
    const path = [...above, member.name];
    return member.below ? declaredPaths(member.below, path) : [{ path, member }];
  });
}

/** The text of the file with names changed where only one part of a path is another: `renamed` says what a path becomes. */
export function withRenamed(
  { text, group }: Pick<DeclaredTexts, "text" | "group">,
  renamed: (path: EntryPath) => EntryPath | undefined,
): string {
  const edits = new Map<number, TextEdit>();
  const visit = (one: DeclaredGroup, above: readonly DeclaredMember[]) => {
    for (const member of one.members) {
      const way = [...above, member];
      if (member.below) visit(member.below, way);
      const to = member.below ? undefined : renamed(way.map(({ name }) => name));
      if (!to || to.length !== way.length) continue;
      const changed = way.flatMap((step, at) =>
        step.name === to[at] ? [] : [{ step, name: String(to[at]) }],
      );
      const [first] = changed;
      if (!first || changed.length > 1) continue;
      const { start, end } = first.step.nameSpan;
      edits.set(start, { start, end, replacement: writtenName(first.name, text.slice(start, end)) });
    }
  };
  if (group) visit(group, []);
  return applyEdits(text, [...edits.values()]);
}

/** A name as a type writes it: in quotes where it is no identifier, or where the one there has them. */
function writtenName(name: string, like: string): string {
  const quote = /^["']/.exec(like)?.[0];
  if (quote === undefined && /^[\p{L}_$][\p{L}\p{N}_$]*$/u.test(name)) return name;
  const mark = quote ?? '"';
  return mark + name.replaceAll("\\", "\\\\").replaceAll(mark, `\\${mark}`) + mark;
}

/** The text of the file with members for texts that it does not declare, where the source catalog has them. */
export function withDeclared(
  { text, group }: Pick<DeclaredTexts, "text" | "group">,
  added: readonly EntryPath[],
  order: readonly EntryPath[],
): string {
  if (!group || added.length === 0) return text;
  const edits: TextEdit[] = [];
  const tree = orderTree(order);
  const lineEnd = /\r\n|\n/.exec(text)?.[0] ?? "\n";
  const step = /\n([ \t]+)\S/.exec(text.slice(group.start))?.[1] ?? "  ";
  const mark = (one: DeclaredGroup) => {
    const [first] = one.members;
    const end = first && /[;,]?$/.exec(text.slice(first.start, first.end))?.[0];
    return end ?? ";";
  };
  const quote = /["']/.exec(text.slice(group.start, group.end))?.[0] ?? '"';
  const nameOf = (name: string) =>
    /^[\p{L}_$][\p{L}\p{N}_$]*$/u.test(name) ? name : writtenName(name, quote);
  const change = (one: DeclaredGroup, path: EntryPath, additions: AdditionGroup) => {
    const byName = new Map(one.members.map(({ name }, index) => [name as string | number, index]));
    const [first] = one.members;
    const isOnLines = !first || text.slice(one.start, first.start).includes("\n");
    const own = text.slice(lineStart(text, one.start));
    const indent = first && isOnLines ? indentOf(text, first.start) : (/^[ \t]*/.exec(own)?.[0] ?? "") + step;
    const end = mark(first ? one : group) || (isOnLines ? "" : ";");
    const write = (name: string | number, addition: AdditionGroup | undefined, pad: string): string =>
      addition === undefined
        ? `${nameOf(String(name))}: string${end}`
        : `${nameOf(String(name))}: {${lineEnd}${[...addition]
            .map(
              ([inner, more]) =>
                pad + step + write(inner, "below" in more ? more.below : undefined, pad + step) + lineEnd,
            )
            .join("")}${pad}}${end}`;
    const siblings = tree.at(path);
    const places = new Map<number, { readonly name: string | number; readonly written: string }[]>();
    for (const [name, addition] of additions) {
      const there = one.members[byName.get(name) ?? -1];
      if (there) {
        if (there.below && "below" in addition) change(there.below, [...path, name], addition.below);
        continue;
      }
      const at = insertionIndex(one.members.length, byName, () => true, siblings, name);
      const written = write(name, "below" in addition ? addition.below : undefined, indent);
      places.set(at, [...(places.get(at) ?? []), { name, written }]);
    }
    for (const [at, list] of places) {
      const member = one.members[at];
      const place = member ? member.end : one.start + 1;
      list.sort((a, b) => siblings.rank(a.name) - siblings.rank(b.name));
      const closes = member && !/[;,]$/.test(text.slice(member.start, member.end)) && !isOnLines ? ";" : "";
      // On one line the last member has no sign, as before.
      const isLast = closes !== "" && at === one.members.length - 1;
      const lines = list
        .map(({ written }) => (isOnLines ? lineEnd + indent : " ") + written)
        .join("")
        .replace(isLast ? /[;,]$/ : /(?!)/, "");
      const isBare = !first && !text.slice(one.start, one.end).includes("\n");
      edits.push({
        start: place,
        end: place,
        replacement: closes + lines + (isBare ? lineEnd + indent.slice(step.length) : ""),
      });
    }
  };
  change(group, [], additionTree(added.map((path) => ({ path, text: "" }))));
  return applyEdits(text, edits);
}

function indentOf(text: string, at: number): string {
  return /^[ \t]*/.exec(text.slice(lineStart(text, at)))?.[0] ?? "";
}

/** The types of a file that have members, by their names. */
function typesIn(text: string): ReadonlyMap<string, DeclaredGroup> {
  const scanner = new TypeScanner(text);
  const found = new Map<string, { group: OpenGroup }>();
  const head = /\b(?:interface|type)\s{1,20}([\p{L}_$][\p{L}\p{N}_$]{0,80})/gu;
  let brace = -1;
  for (let match = head.exec(scanner.plain); match; match = head.exec(scanner.plain)) {
    if (brace < head.lastIndex) brace = scanner.plain.indexOf("{", head.lastIndex);
    if (brace < 0) break;
    const between = scanner.plain.slice(head.lastIndex, Math.min(brace, head.lastIndex + 300));
    const isType = match[0].startsWith("type");
    const opens = isType ? /^\s{0,20}=\s{0,20}(?:Readonly<\s{0,20})?$/.test(between) : !/[};=]/.test(between);
    const group = opens && brace - head.lastIndex < 300 ? scanner.group(brace, 0) : undefined;
    if (!group) continue;
    found.set(match[1] ?? "", { group });
    head.lastIndex = group.end;
  }
  // A member may have a type that stands beside it. What has itself below itself are no texts, and neither is what has so many.
  let left = mostMembers;
  const resolved = (group: OpenGroup, around: readonly string[]): DeclaredGroup => ({
    start: group.start,
    end: group.end,
    members: group.members.map(({ type, below, ...member }) => {
      left--;
      const named = around.includes(type) || left < 0 ? undefined : found.get(type)?.group;
      const own = below ? resolved(below, around) : named && resolved(named, [...around, type]);
      return { ...member, below: own };
    }),
  });
  return new Map([...found].map(([name, { group }]) => [name, resolved(group, [name])]));
}

/** More members than these are not followed into the types that they have. */
const mostMembers = 100_000;

interface OpenGroup extends Span {
  readonly members: readonly OpenMember[];
}

interface OpenMember extends Span {
  readonly name: string;
  readonly nameSpan: Span;
  readonly type: string;
  readonly below: OpenGroup | undefined;
}

class TypeScanner {
  /** The text with its comments blanked out. */
  readonly plain: string;

  constructor(text: string) {
    const kept: string[] = [];
    let from = 0;
    for (let at = 0; at < text.length; at++) {
      const unit = text[at] ?? "";
      if (unit === '"' || unit === "'") at = Math.max(stringEnd(text, at) - 1, at);
      if (unit !== "/" || (text[at + 1] !== "/" && text[at + 1] !== "*")) continue;
      const closing = text[at + 1] === "/" ? text.indexOf("\n", at) : text.indexOf("*/", at + 2);
      const end = closing < 0 ? text.length : text[at + 1] === "/" ? closing : closing + 2;
      kept.push(text.slice(from, at), text.slice(at, end).replace(/[^\r\n]/g, " "));
      from = end;
      at = end - 1;
    }
    this.plain = kept.join("") + text.slice(from);
  }

  /** The members in braces; undefined where they do not close. */
  group(start: number, depth: number): OpenGroup | undefined {
    const { plain } = this;
    const members: OpenMember[] = [];
    let at = start + 1;
    for (;;) {
      while (/[\s;,]/.test(plain[at] ?? "")) at++;
      if (plain[at] === undefined || depth > 100) return undefined;
      if (plain[at] === "}") return { start, end: at + 1, members };
      const from = at;
      const readonly = stickyMatch(/readonly\s{1,20}(?=["'\p{L}_$])/uy, plain, at);
      const nameStart = at + readonly.length;
      const nameEnd = /["']/.test(plain[nameStart] ?? "")
        ? stringEnd(plain, nameStart)
        : nameStart + stickyMatch(/[\p{L}_$][\p{L}\p{N}_$]*|\d+/uy, plain, nameStart).length;
      const mark = stickyMatch(/\s{0,40}\??\s{0,40}(?=[:(])/y, plain, nameEnd);
      const isMember = nameEnd > nameStart && /[:(]/.test(plain[nameEnd + mark.length] ?? "");
      const typeStart = isMember ? nameEnd + mark.length : at;
      let below: OpenGroup | undefined;
      let end = this.typeEnd(typeStart);
      const type = plain.slice(typeStart, end).replace(/^:/, "").replace(/[;,]$/, "").trim();
      const braces = isMember ? /^:\s*(?:Readonly<\s*)?\{/.exec(plain.slice(typeStart, end)) : undefined;
      if (braces) {
        below = this.group(typeStart + braces[0].length - 1, depth + 1);
        // A list of objects is no group.
        if (below && !/^[\s>]*[;,]?$/.test(plain.slice(below.end, end))) below = undefined;
      }
      if (end <= at) end = at + 1;
      if (isMember) {
        const written = plain.slice(nameStart, nameEnd);
        members.push({
          name: written.replace(/^["']|["']$/g, "").replace(/\\(.)/g, "$1"),
          nameSpan: { start: nameStart, end: nameEnd },
          type,
          below,
          start: from,
          end,
        });
      }
      at = end;
    }
  }

  /** Behind a type, with the sign that closes it; a type goes on where the next line starts with an operator. */
  private typeEnd(start: number): number {
    const { plain } = this;
    let depth = 0;
    for (let at = start; at < plain.length; at++) {
      const unit = plain[at] ?? "";
      if (unit === '"' || unit === "'") {
        const close = plain.indexOf(unit, at + 1);
        at = close < 0 ? plain.length : close;
      } else if (/[([{<]/.test(unit)) depth++;
      else if (/[)\]}>]/.test(unit)) {
        if (unit === ">" && plain[at - 1] === "=") continue;
        if (depth === 0) return this.trimmed(start, at);
        depth--;
      } else if (depth > 0) continue;
      else if (unit === ";" || unit === ",") return at + 1;
      else if (unit === "\n") {
        const next = /\S/.exec(plain.slice(at))?.[0] ?? "}";
        const before = plain.slice(start, at).trimEnd();
        if (!/[|&?:=.]/.test(next) && !/(?:[|&:?]|=>)$/.test(before)) return this.trimmed(start, at);
      }
    }
    return plain.length;
  }

  private trimmed(start: number, end: number): number {
    return start + this.plain.slice(start, end).trimEnd().length;
  }
}

/** Behind the string that starts at a place; the place itself where it does not close on its line. */
function stringEnd(text: string, start: number): number {
  const quote = text[start];
  for (let at = start + 1; at < text.length && text[at] !== "\n"; at++) {
    if (text[at] === "\\") at++;
    else if (text[at] === quote) return at + 1;
  }
  return start;
}

function stickyMatch(pattern: RegExp, text: string, at: number): string {
  pattern.lastIndex = at;
  return pattern.exec(text)?.[0] ?? "";
}
