import { notices } from "../message/notices.js";
import { applyEdits, modify, parse } from "../text/jsonc.js";
import * as v from "valibot";
import type { Files } from "../files/files.js";
import { globTest } from "../files/glob.js";
import { keyTest } from "../text/key-pattern.js";
import { checkSettings, type ConfigProblem } from "./load.js";

/** The file of waivers where a configuration names no other. */
export const waiverFileName = "fond.waivers.json";

const text = (expected: string) => v.pipe(v.string(expected), v.nonEmpty(expected));

const common = {
  reason: text("the reason why it is accepted"),
  /** The last day on which it counts. */
  until: v.optional(v.pipe(v.string("a day as YYYY-MM-DD"), v.isoDate("a day as YYYY-MM-DD"))),
  book: v.optional(text("the name of a book")),
  file: v.optional(text("a file or pattern of files")),
};

const literalWaiver = v.strictObject({ ...common, literal: text("the text of a literal") });
const findingWaiver = v.strictObject({
  ...common,
  rule: text("a rule, or * for all"),
  key: v.optional(text("a key or pattern of keys")),
  locale: v.optional(text("a locale's tag")),
});

export const waiverSchema = v.strictObject({
  waivers: v.array(
    v.variant("literal", [
      literalWaiver,
      v.strictObject({ ...findingWaiver.entries, literal: v.optional(v.undefined()) }),
    ]),
    "a list of waivers",
  ),
});

export type Waiver = v.InferOutput<typeof waiverSchema>["waivers"][number];

/** What a project accepts as it is. */
export interface Waivers {
  readonly file: string;
  /** Tells a change of the waivers from none. */
  readonly signature: string;
  /** The reason for which a literal is accepted; undefined where it is not. */
  literal(book: string, file: string, text: string): string | undefined;
  /** The waiver that accepts a finding; undefined where none does. */
  finding(finding: WaivedFinding): Waiver | undefined;
  /** Those for findings that are not among the used ones, and those whose day is over. */
  idle(used: ReadonlySet<Waiver>): readonly IdleWaiver[];
}

/** What of a finding decides whether a waiver holds for it. */
export interface WaivedFinding {
  readonly rule: string;
  readonly file: string;
  readonly book: string;
  readonly locale?: string;
  readonly key?: string;
}

export interface IdleWaiver {
  readonly line: number;
  readonly column: number;
  readonly waiver: Waiver;
  readonly isOver: boolean;
}

export type WaiversResult =
  | { readonly ok: true; readonly waivers: Waivers }
  | { readonly ok: false; readonly problems: readonly ConfigProblem[] };

const say = notices("waivers", {
  unreadable: { message: "{detail}", remedy: "check its permissions" },
});

/** Reads a project's waivers; none where the file is not there. `today` is a day as YYYY-MM-DD. */
export function loadWaivers(
  files: Files,
  file: string,
  today: string,
  endsOf: (book: string) => readonly string[] = () => ["."],
): WaiversResult {
  const read = files.read(file);
  if (!read.ok) {
    if (read.trouble === "absent") return { ok: true, waivers: makeWaivers(file, "", [], today, endsOf) };
    const problem = {
      file,
      line: 1,
      column: 1,
      path: "",
      ...say("unreadable", { detail: read.detail }),
    };
    return { ok: false, problems: [problem] };
  }
  const checked = checkSettings(file, read.text, waiverSchema);
  if (!checked.ok) return checked;
  const placed = checked.value.waivers.map((waiver, index) => ({
    waiver,
    ...checked.at(["waivers", index]),
  }));
  return { ok: true, waivers: makeWaivers(file, read.text, placed, today, endsOf) };
}

interface PlacedWaiver {
  readonly waiver: Waiver;
  readonly line: number;
  readonly column: number;
}

function makeWaivers(
  file: string,
  text: string,
  placed: readonly PlacedWaiver[],
  today: string,
  endsOf: (book: string) => readonly string[],
): Waivers {
  const isOver = ({ until }: Waiver) => until !== undefined && until < today;
  const inForce = placed.map(({ waiver }) => waiver).filter((waiver) => !isOver(waiver));
  const tests = new Map<string, (value: string) => boolean>();
  const matches = (
    kind: "path" | "key",
    pattern: string | undefined,
    value: string | undefined,
    book: string,
  ) => {
    if (pattern === undefined) return true;
    if (value === undefined) return false;
    // A name stands for itself before it is a pattern: folders may be called `[id]`.
    if (value === pattern) return true;
    const id = kind === "path" ? `path ${pattern}` : `key ${book} ${pattern}`;
    const test = tests.get(id) ?? (kind === "path" ? globTest([pattern]) : keyTest(pattern, endsOf(book)));
    tests.set(id, test);
    return test(value);
  };
  return {
    file,
    signature: `${inForce.length < placed.length ? today : ""}${text}`,
    literal(book, where, literal) {
      const found = inForce.find(
        (waiver) =>
          waiver.literal === literal &&
          (waiver.book ?? book) === book &&
          matches("path", waiver.file, where, book),
      );
      return found?.reason;
    },
    finding({ rule, file: where, book, locale, key }) {
      return inForce.find(
        (waiver) =>
          waiver.literal === undefined &&
          (waiver.rule === rule || waiver.rule === "*") &&
          (waiver.book ?? book) === book &&
          (waiver.locale === undefined || waiver.locale === locale) &&
          matches("key", waiver.key, key, book) &&
          matches("path", waiver.file, where, book),
      );
    },
    idle(used) {
      return placed
        .filter(({ waiver }) => isOver(waiver) || (waiver.literal === undefined && !used.has(waiver)))
        .map((one) => ({ ...one, isOver: isOver(one.waiver) }));
    },
  };
}

/** The file of waivers with more at its end, written as the tool writes it. `undefined` stands for no file yet. */
export function addWaivers(before: string | undefined, added: readonly Waiver[]): string {
  const start = before ?? '{\n  "waivers": []\n}\n';
  const [first, ...rest] = added;
  if (first === undefined) return start;
  const one = applyEdits(start, insertion(start, first));
  // All others go to the same place: each would be written there if it were the only one.
  const others = rest.map((waiver) => insertion(one, waiver));
  const offset = others[0]?.[0]?.offset;
  if (others.some((edits) => edits.length !== 1 || edits[0]?.length !== 0 || edits[0].offset !== offset))
    return rest.reduce((text, waiver) => applyEdits(text, insertion(text, waiver)), one);
  const content = others.map(([edit]) => edit?.content ?? "").join("");
  return offset === undefined ? one : one.slice(0, offset) + content + one.slice(offset);
}

function insertion(text: string, waiver: Waiver) {
  return modify(text, ["waivers", -1], waiver, {
    isArrayInsertion: true,
    formattingOptions: { insertSpaces: true, tabSize: 2, eol: text.includes("\r\n") ? "\r\n" : "\n" },
  });
}

/** The file of waivers with the names of renamed keys in it: one key, or with a `*` at their ends a group. */
export function renameWaivedKeys(
  text: string,
  from: string,
  to: string,
  separatorOf: (book: string | undefined) => string = () => ".",
): string {
  const found = (parse(text) as { waivers?: { key?: string; book?: string }[] } | undefined)?.waivers ?? [];
  const isGroup = from.endsWith("*");
  return found.reduce((after, { key, book }, index) => {
    const separator = separatorOf(book);
    const [old, fresh] = [from, to].map((name) => {
      const bare = name.replace(/(?<!\*)\*+$/, "");
      return bare !== name && bare.endsWith(separator) ? bare.slice(0, -separator.length) : bare;
    }) as [string, string];
    const isMeant =
      key === from || (key !== undefined && (isGroup ? key.startsWith(old + separator) : key === old));
    if (!isMeant) return after;
    const value = key === from ? to : fresh + key.slice(old.length);
    return applyEdits(after, modify(after, ["waivers", index, "key"], value, {}));
  }, text);
}
