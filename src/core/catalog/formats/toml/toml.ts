import { notices } from "../../../message/notices.js";
import { deepestNesting } from "../../../text/nesting.js";
import { catalogContent, entryTable } from "../../entry-table.js";
import { KeyPool } from "../../key-pool.js";
import type { CatalogContent, CatalogFormat, CatalogProblem, Entry, EntryPath } from "../../model.js";
import { mergeMarker } from "../merge-marker.js";
import { editToml, writeTomlKey } from "./toml-edit.js";
import { readToml, unitsOf, type TomlFault, type TomlItem, type TomlSection } from "./toml-read.js";

/** Catalogs in TOML (TOML 1.0.0): tables are groups, and texts in arrays are lists. Edited in place. */
export const tomlFormat: CatalogFormat = {
  name: "toml",
  extensions: ["toml"],
  holds: "locale",
  read: (text, separator, pool = new KeyPool()) => {
    pool.start();
    return read(text, separator);
  },
  edit: editToml,
  empty: "",
  comments: { line: ["#"] },
  commentWriter: () => (line) => `# ${line}`.trimEnd(),
  nests: true,
  // Tables stand behind the texts beside them, whatever the order of the source is.
  canReorder: false,
  writeKey: writeTomlKey,
  offsetInFile,
};

const say = notices("toml", {
  value: {
    message: "this is not a value",
    remedy: "put texts in quotes; check for a missing comma or bracket",
  },
  key: {
    message: "this is not a key",
    remedy:
      'write `key = "text"`, with quotes around names that have other signs than letters, digits, - and _',
  },
  end: { message: "unexpected end of file", remedy: "add what is missing, or restore what was cut off" },
  quote: {
    message: "the text is not closed on its line",
    remedy: 'add the closing quote, or use """ for a text of several lines',
  },
  line: {
    message: "something follows where the line must end",
    remedy: "start a new line; a quote inside of a text is written {escape}",
  },
  twice: { message: '"{name}" is defined twice', remedy: "keep one of the two" },
  escape: {
    message: "a backslash or control character that stands for nothing",
    remedy: "write {escape} for a backslash, or put the text in single quotes",
  },
  deep: { message: "groups are nested deeper than {levels} levels", remedy: "check what wrote this file" },
});

function read(text: string, separator: string): CatalogContent {
  const { sections, fault } = readToml(text);
  const problems: CatalogProblem[] = [];
  const marker = text.includes("<<<<<<<") ? mergeMarker(text) : undefined;
  if (marker) problems.push(marker);
  else if (fault) problems.push(problemOf(fault));
  const entries: Entry[] = [];
  const emptyGroups: EntryPath[] = [];
  const visit = ({ path, keySpan, value }: TomlItem) => {
    if (value.kind === "table" || value.kind === "array") {
      if (value.items.length === 0) emptyGroups.push(path);
      value.items.forEach(visit);
      return;
    }
    const { kind, start, end } = value;
    entries.push({
      key: path.join(separator),
      path,
      text: value.text,
      kind,
      keySpan,
      valueSpan: { start, end },
    });
  };
  for (const { items } of sections) items.forEach(visit);
  for (const section of sections) if (isBare(section, sections)) emptyGroups.push(section.path);
  return catalogContent(entryTable(entries), { emptyGroups, problems });
}

/** Whether a table has neither entries nor tables in it. */
function isBare({ path, head, items }: TomlSection, all: readonly TomlSection[]): boolean {
  return (
    head !== undefined &&
    items.length === 0 &&
    !all.some((other) => other.path.length > path.length && path.every((part, at) => part === other.path[at]))
  );
}

function problemOf(fault: TomlFault): CatalogProblem {
  const at = { code: "syntax" as const, span: { start: fault.start, end: fault.end } };
  switch (fault.kind) {
    case "line":
      return { ...at, ...say("line", { escape: '\\"' }) };
    case "escape":
      return { ...at, ...say("escape", { escape: "\\\\" }) };
    case "twice":
      return { ...at, ...say("twice", { name: fault.name ?? "" }) };
    case "deep":
      return { ...at, ...say("deep", { levels: deepestNesting }) };
    default:
      return { ...at, ...say(fault.kind, {}) };
  }
}

function offsetInFile(text: string, { kind, valueSpan }: Entry, offset: number): number {
  if (kind !== "text") return valueSpan.start;
  let unit = 0;
  for (const one of unitsOf(text, valueSpan.start))
    if (unit++ === offset) return one.unit === "" ? one.at - 1 : one.at;
  return valueSpan.end;
}
