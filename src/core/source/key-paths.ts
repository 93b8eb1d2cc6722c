import { literally } from "../text/key-pattern.js";
import type { LookupKey, LookupShapes, SourceFile } from "./model.js";

/** A file with its keys as the catalogs have them, however the code shortens them or puts parts of them in quotes. */
export function withWholeKeys(source: SourceFile, shapes: LookupShapes): SourceFile {
  const { relative, home, separators } = shapes;
  const changes: ((key: LookupKey) => LookupKey)[] = [];
  if (relative) {
    const prefix = relative(source.file);
    changes.push((key) => (startOf(key).startsWith(separators.parts) ? before(prefix, key) : key));
  }
  if (home !== undefined)
    changes.push((key) => (startOf(key).startsWith(home) ? behind(home.length, key) : key));
  const { parts } = separators;
  if (parts !== "" && !/["']/.test(parts)) changes.push((key) => withoutQuotes(key, parts));
  if (changes.length === 0) return source;
  let isChanged = false;
  const lookups = source.lookups.map((lookup) => {
    const key = changes.reduce((changed, change) => change(changed), lookup.key);
    isChanged ||= key !== lookup.key;
    return key === lookup.key ? lookup : { ...lookup, key };
  });
  return isChanged ? { ...source, lookups } : source;
}

/** What a key begins with, as far as it is known. */
function startOf(key: LookupKey): string {
  return key.kind === "fixed" ? key.value : key.kind === "composed" ? (key.parts[0] ?? "") : "";
}

/** A key that is relative to its file, with what stands before it there. */
function before(prefix: string, key: LookupKey): LookupKey {
  if (key.kind === "fixed") return { kind: "fixed", value: prefix + key.value };
  if (key.kind === "unknown") return key;
  return { kind: "composed", parts: [prefix + startOf(key), ...key.parts.slice(1)] };
}

/** A key without so much of its start: the namespace that it would have without it. */
function behind(length: number, key: LookupKey): LookupKey {
  if (key.kind === "fixed") return { kind: "fixed", value: key.value.slice(length) };
  if (key.kind === "unknown") return key;
  const left = startOf(key).slice(length);
  const rest = key.parts.slice(1);
  return { kind: "composed", parts: left === "" ? rest : [left, ...rest] };
}

/** Stands for a value in a key that code puts together; no key has it. */
const hole = "\0";

/**
 * A key without the quotes around parts of it, as code writes those in which the separator stands: `types."quay.v1".title`.
 * Sentences that are keys themselves are left, whatever they quote.
 */
function withoutQuotes(key: LookupKey, separator: string): LookupKey {
  if (key.kind === "unknown") return key;
  const written = key.kind === "fixed" ? key.value : key.parts.map((part) => part ?? hole).join("");
  if (!/["']/.test(written) || written.endsWith(separator)) return key;
  const mark = literally(separator);
  const quoted = new RegExp(`(?<=^|${mark})(["'])([^"']{1,200})\\1(?=${mark}|$)`, "g");
  const around = written.replace(quoted, "");
  if (around === "" || around === written || /[\s"']/.test(around)) return key;
  const bare = written.replace(quoted, "$2");
  if (key.kind === "fixed") return { kind: "fixed", value: bare };
  const parts = bare.split(/(\0)/).filter((part) => part !== "");
  return { kind: "composed", parts: parts.map((part) => (part === hole ? null : part)) };
}
