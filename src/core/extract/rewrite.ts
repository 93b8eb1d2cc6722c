import { notices } from "../message/notices.js";
import type { Literal, LookupShapes, SourceFile } from "../source/model.js";
import { readSource } from "../source/read.js";
import { contains } from "../text/span.js";
import { applyIfApart, type TextEdit } from "../text/edits.js";
import type { Notice } from "../text/wording.js";
import { hostFor, templateIn, type Host } from "./hosts.js";
import { importLinesEdit } from "./import-line.js";
import { hostEdits, type Keyed } from "./rewrite-host.js";
import { scriptEdits } from "./rewrite-script.js";
import { lostInRewrite } from "./rewritten.js";
import { namesCalled, type ScriptEmission } from "./script-template.js";
import type { ScriptPart } from "./script-parts.js";

/** A file as it is to be rewritten: how its templates and its scripts write lookups. */
export interface Rewriting {
  readonly source: SourceFile;
  readonly host: Host;
  /** Its scripts; a file of script is one. */
  readonly parts: readonly ScriptPart[];
  readonly emission: ScriptEmission;
  readonly shapes: LookupShapes;
  readonly effort: Effort;
}

/** What trying may cost, in code units that are read again. */
export interface Effort {
  readonly isSpent: boolean;
  spend(units: number): void;
}

/** An effort of so many code units. */
export function effortOf(most: number): Effort {
  let spent = 0;
  return {
    get isSpent() {
      return spent > most;
    },
    spend(units) {
      spent += units;
    },
  };
}

/** A file that was rewritten, and what could not be. */
export interface Rewritten<Item extends Keyed> {
  /** Its new text, the same as it is read again, and what is written in it; undefined where nothing could be. */
  readonly result:
    { readonly after: string; readonly again: SourceFile; readonly written: readonly Item[] } | undefined;
  readonly refused: readonly { readonly item: Item; readonly why: Notice }[];
}

const say = notices("extract", {
  "too-slow": { message: "checking the rewritten file takes too long", remedy: "move it by hand" },
  overlap: { message: "it would be written twice in one place", remedy: "move it by hand" },
});

/**
 * Writes lookups in the place of literals. The new text is read again: it must ask for each key and hold all else that it
 * held. What cannot be written so is found by halving, and stays.
 */
export function rewriteFile<Item extends Keyed>(
  rewriting: Rewriting,
  chosen: readonly Item[],
): Rewritten<Item> {
  const { source, effort, shapes } = rewriting;
  const refused: { item: Item; why: Notice }[] = [];
  let attempts = 0;
  const attempt = (items: readonly Item[]) => {
    // One try is always had: nearly all files need no other.
    if (++attempts > 1 && effort.isSpent) return { lost: say("too-slow", {}) };
    effort.spend(source.text.length);
    const { edits, done } = editsOf(rewriting, items);
    const after = applyIfApart(source.text, edits);
    if (after === undefined) return { lost: say("overlap", {}) };
    const written = items.filter((item) => done.has(item));
    const again = readSource(source.file, after, source.bom, shapes);
    const lost = lostInRewrite(source, again, written);
    return lost ? { lost } : { result: { after, again, written } };
  };
  const workable = (items: readonly Item[]): readonly Item[] => {
    const [first, second] = items;
    if (!first) return [];
    const { lost } = attempt(items);
    if (!lost) return items;
    if (!second) {
      refused.push({ item: first, why: lost });
      return [];
    }
    const half = Math.ceil(items.length / 2);
    const kept = workable(items.slice(0, half));
    const both = [...kept, ...workable(items.slice(half))];
    return both.length === items.length || attempt(both).lost ? kept : both;
  };
  const items = workable(chosen);
  const { result } = items.length > 0 ? attempt(items) : { result: undefined };
  return { result: result && result.written.length > 0 ? result : undefined, refused };
}

/** The script that a literal stands in, if any. */
export function partOf(parts: readonly ScriptPart[], { span }: Literal): ScriptPart | undefined {
  return parts.find((part) => contains(part.span, span));
}

/** The edits of a file, and which of its literals they write. */
function editsOf<Item extends Keyed>(
  { source, host, parts, emission }: Rewriting,
  items: readonly Item[],
): { readonly edits: readonly TextEdit[]; readonly done: ReadonlySet<Item> } {
  const placed = items.map((item) => ({ item, part: partOf(parts, item.literal) }));
  const inPart = (wanted: ScriptPart | undefined) =>
    placed.flatMap(({ item, part }) => (part === wanted ? [item] : []));
  const inTemplate = inPart(undefined);
  const { edits, done } = hostEdits(inTemplate, source, host);
  const lines = new Set(items.flatMap(({ literal }) => hostFor(host, literal).importLine ?? []));
  const line = parts.some(({ isWhole }) => isWhole)
    ? undefined
    : importLinesEdit(host.language, source.dialect, source.text, [...lines]);
  // What brings lookups in goes into the script for the template as well.
  const instance = parts.find(({ runsPerUse }) => runsPerUse);
  const scripts = parts.flatMap((part) => {
    const templates =
      part === instance && inTemplate.length > 0
        ? [
            host.content,
            host.attribute,
            ...inTemplate.map(({ literal }) => templateIn(host, "content", literal, true)),
          ]
        : [];
    const called = templates.flatMap((template) => namesCalled(template ?? ""));
    return scriptEdits(inPart(part), part, emission, called);
  });
  const inScripts = placed.flatMap(({ item, part }) => (part ? [item] : []));
  return { edits: [...edits, ...(line ? [line] : []), ...scripts], done: new Set([...done, ...inScripts]) };
}
