import type { KeyPool } from "../key-pool.js";
import type { Entry, EntryPath } from "../model.js";
import type { JsonValueKind } from "./json-scan.js";

/** A group on the way down to an entry. */
export interface OpenGroup {
  readonly parent: OpenGroup | undefined;
  readonly name: string | number;
  readonly list: boolean;
  /** The key of an entry in it, up to the entry's own name. */
  readonly prefix: string;
  /** The whole file's text. */
  readonly source: string;
  members: number;
}

/** What was read of a file. */
export interface QuickJson {
  readonly entries: JsonEntry[];
  readonly emptyGroups: OpenGroup[];
}

/** An entry that keeps where it starts: the rest is worked out when it is asked for, which for most it never is. */
export class JsonEntry implements Entry {
  constructor(
    readonly key: string,
    readonly text: string,
    private readonly group: OpenGroup,
    private readonly keyStart: number,
    private readonly valueStart: number,
  ) {}

  get kind(): JsonValueKind {
    switch (this.group.source.charCodeAt(this.valueStart)) {
      case 0x22:
      case 0x27:
        return "text";
      case 0x6e:
        return "null";
      case 0x74:
      case 0x66:
        return "boolean";
      default:
        return "number";
    }
  }

  get path(): EntryPath {
    const name = this.key.slice(this.group.prefix.length);
    return pathTo(this.group, this.group.list ? Number(name) : name);
  }

  get keySpan() {
    return this.group.list ? this.valueSpan : this.spanFrom(this.keyStart);
  }

  get valueSpan() {
    return this.spanFrom(this.valueStart);
  }

  private spanFrom(start: number) {
    const token = /"(?:[^"\\]|\\[^])*"|'(?:[^'\\]|\\[^])*'|[^\s,:}\]/]+/y;
    token.lastIndex = start;
    return { start, end: start + (token.exec(this.group.source)?.[0].length ?? 0) };
  }
}

/** The names from the root of a file to a member of a group. */
export function pathTo(group: OpenGroup, name: string | number): (string | number)[] {
  const path: (string | number)[] = [name];
  for (let at: OpenGroup | undefined = group; at?.parent; at = at.parent) path.push(at.name);
  return path.reverse();
}

const quote = 0x22;

/**
 * Reads a JSON object that is as most are: no escapes that are not valid, nothing unusual. Undefined for anything doubtful,
 * which is left to the scanner that knows why. One pass in one function, as nearly all time of reading catalogs is spent here.
 */
export function readJsonQuickly(text: string, separator: string, pool: KeyPool): QuickJson | undefined {
  if (/[\0-\x08\x0b\x0c\x0e-\x1f]/.test(text)) return undefined;
  const checksTexts = text.includes("\t") || text.includes("\r");
  const entries: JsonEntry[] = [];
  const emptyGroups: OpenGroup[] = [];
  const { length } = text;
  let at = 0;
  let backslash = text.indexOf("\\");
  if (backslash < 0) backslash = length;
  let lineEnd = text.indexOf("\n");
  if (lineEnd < 0) lineEnd = length;
  let group: OpenGroup | undefined;
  /** The name of the member at hand where it has escapes: others are never needed by themselves. */
  let name: string | undefined;
  let nameEnd = 0;
  let keyStart = 0;
  /** What may come next: a value, a name (or the end of an empty object), or what follows a value. */
  let expects: "value" | "first" | "name" | "next" = "value";
  for (;;) {
    let unit = text.charCodeAt(at);
    while (unit === 0x20 || unit === 0x0a || unit === 0x0d || unit === 0x09) unit = text.charCodeAt(++at);
    if (expects === "next") {
      if (unit === 0x2c) {
        at++;
        if (!group) return undefined;
        expects = group.list ? "value" : "name";
        continue;
      }
      if (!group || unit !== (group.list ? 0x5d : 0x7d)) return undefined;
      at++;
      group = group.parent;
      if (!group) break;
      continue;
    }
    if (unit === quote) {
      const start = at + 1;
      let end = text.indexOf('"', start);
      if (end < 0) return undefined;
      if (lineEnd < start) {
        lineEnd = text.indexOf("\n", start);
        if (lineEnd < 0) lineEnd = length;
      }
      if (backslash < start) {
        backslash = text.indexOf("\\", start);
        if (backslash < 0) backslash = length;
      }
      let value: string | undefined;
      if (end < backslash) {
        if (lineEnd < end) return undefined;
        if (expects === "value") value = text.slice(start, end);
      } else {
        for (end = backslash; ; end++) {
          const inner = text.charCodeAt(end);
          if (inner === quote) break;
          if (inner === 0x5c) end++;
          if (end >= length) return undefined;
        }
        if (lineEnd < end) return undefined;
        try {
          value = JSON.parse(text.slice(start - 1, end + 1)) as string;
        } catch {
          return undefined;
        }
      }
      if (
        checksTexts &&
        (value === undefined || value.includes("\t") || value.includes("\r")) &&
        /[\t\r]/.test(text.slice(start, end))
      )
        return undefined;
      if (expects !== "value") {
        name = value;
        nameEnd = end;
        keyStart = at;
        at = end + 1;
        unit = text.charCodeAt(at);
        while (unit === 0x20 || unit === 0x0a || unit === 0x0d || unit === 0x09) unit = text.charCodeAt(++at);
        if (unit !== 0x3a) return undefined;
        at++;
        expects = "value";
        continue;
      }
      if (!group || value === undefined) return undefined;
      const key =
        name === undefined && !group.list
          ? pool.keyAt(group.prefix, text, keyStart + 1, nameEnd)
          : pool.key(group.prefix, group.list ? String(group.members) : (name ?? ""));
      entries.push(new JsonEntry(key, value, group, keyStart, at));
      group.members++;
      at = end + 1;
      expects = "next";
      continue;
    }
    if (expects === "name") return undefined;
    if (expects === "first" || (expects === "value" && group?.list && group.members === 0 && unit === 0x5d)) {
      if (!group || unit !== (group.list ? 0x5d : 0x7d)) return undefined;
      if (text.charCodeAt(at - 1) === 0x2c) return undefined;
      at++;
      if (group.parent) emptyGroups.push(group);
      group = group.parent;
      if (!group) break;
      expects = "next";
      continue;
    }
    if (unit === 0x7b || unit === 0x5b) {
      const list = unit === 0x5b;
      if (!group && list) return undefined;
      const own: string | number = !group
        ? ""
        : group.list
          ? group.members
          : (name ?? text.slice(keyStart + 1, nameEnd));
      if (group) group.members++;
      const prefix: string = group ? pool.prefix(group.prefix + String(own) + separator) : "";
      group = { parent: group, name: own, list, prefix, source: text, members: 0 };
      expects = list ? "value" : "first";
      at++;
      continue;
    }
    const word = /(?:true|false|null|-?(?:0|[1-9]\d*)(?:\.\d+)?(?:[eE][+-]?\d+)?)(?![\w.+-])/y;
    word.lastIndex = at;
    const found = word.exec(text)?.[0];
    if (found === undefined || !group) return undefined;
    const end = at + found.length;
    const member = group.list ? String(group.members) : (name ?? text.slice(keyStart + 1, nameEnd));
    entries.push(new JsonEntry(pool.key(group.prefix, member), found, group, keyStart, at));
    group.members++;
    at = end;
    expects = "next";
  }
  while (at < length) {
    const unit = text.charCodeAt(at++);
    if (unit !== 0x20 && unit !== 0x0a && unit !== 0x0d && unit !== 0x09) return undefined;
  }
  return { entries, emptyGroups };
}
