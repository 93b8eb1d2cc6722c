import type { Files } from "../files/files.js";
import { lazily } from "../text/lazy.js";
import { makeAnew, type Keep } from "../text/kept.js";
import { isReadable } from "./read.js";

/** Endings of code and templates in languages that have no reader here. */
const endings =
  "pug jade haml slim cshtml razor vbhtml vm ftl ftlh ftlx tmpl templ eex heex leex ex exs kt kts swift dart scala sc groovy gsp gradle lua pl pm tt tt2 mako coffee litcoffee ls elm clj cljs cljc rs c cc cpp cxx h hpp m mm vb fs pas lpr dpr bas as mxml qml xaml axaml xml".split(
    " ",
  );

/** Those of them that are templates of pages or descriptions of windows, and others that are nothing else. */
const templates =
  "pug jade haml slim cshtml razor vbhtml vm ftl ftlh ftlx templ eex heex leex gsp tt tt2 mxml qml xaml axaml pt zpt latte marko dust soy".split(
    " ",
  );

/** The endings of a project's templates that no reader reads, the most frequent first, with how many files there are of each. */
export function unreadTemplates(files: Files): readonly (readonly [ending: string, files: number])[] {
  const counts = new Map<string, number>();
  for (const file of files.list({
    patterns: [`**/*.{${templates.join(",")}}`],
    ignore: ["**/node_modules/**", "**/vendor/**", "**/dist/**"],
    respectIgnoreFiles: true,
  })) {
    if (isReadable(file)) continue;
    const ending = file.slice(file.lastIndexOf("."));
    counts.set(ending, (counts.get(ending) ?? 0) + 1);
  }
  return [...counts].sort(([, a], [, b]) => b - a);
}

/** What describes a program to what runs it, with names of texts in it (WebExtensions, "Internationalization", `__MSG_name__`). */
const manifest = "**/manifest.json";

/** A key between underscores, behind what all such keys have in front: `__TEXT_boats__`. */
export const underscored = /(?<!\w)(__[A-Z]{2,20}_)([A-Za-z]\w{0,200}?)(__)(?!\w)/g;

/** Longer files are data, in code units. */
const longest = 500_000;

/** What files of code say that no reader reads: whole strings, and names with several parts. */
export interface UnreadCode {
  /** Whether a key stands in one of them. */
  mentions(key: string): boolean;
  /** The files that have keys of some, each with those that it has. */
  filesWith(
    keys: ReadonlySet<string>,
  ): readonly { readonly file: string; readonly keys: readonly string[] }[];
  /** The endings of those that have one of some keys, the most frequent first, with how many files there are of each. */
  endingsWith(keys: ReadonlySet<string>): readonly (readonly [ending: string, files: number])[];
}

/** What a project's code in languages without a reader says; files are read when the first key is asked for. */
export function unreadCode(files: Files, keep: Keep = makeAnew): UnreadCode {
  const words = lazily(() => {
    const listed = files.list({
      patterns: [`**/*.{${endings.join(",")}}`, manifest],
      ignore: ["**/node_modules/**", "**/vendor/**", "**/dist/**"],
      respectIgnoreFiles: true,
    });
    return listed.flatMap((file) => {
      const read = isReadable(file) ? undefined : files.read(file);
      if (!read?.ok || read.text.length > longest) return [];
      const { text } = read;
      return [{ file, words: keep(`words ${file}`, [text], () => wordsOf(text)) }];
    });
  });
  const all = lazily(() => new Set(words().flatMap((one) => [...one.words])));
  return {
    mentions: (key) => all().has(key),
    filesWith: (keys) =>
      words().flatMap(({ file, words: own }) => {
        const found = [...own].filter((word) => keys.has(word));
        return found.length > 0 ? [{ file, keys: found }] : [];
      }),
    endingsWith(keys) {
      const counts = new Map<string, number>();
      for (const { file, words: own } of words()) {
        if (file.endsWith(".json") || ![...own].some((word) => keys.has(word))) continue;
        const ending = file.slice(file.lastIndexOf("."));
        counts.set(ending, (counts.get(ending) ?? 0) + 1);
      }
      return [...counts].sort(([, a], [, b]) => b - a);
    },
  };
}

function wordsOf(text: string): ReadonlySet<string> {
  const found = new Set<string>();
  for (const [, word = ""] of text.matchAll(/["'`]([^"'`\n]{1,200})(?=["'`])/g)) found.add(word);
  for (const [word] of text.matchAll(/[\p{L}\p{N}_]{1,80}(?:[.:/-][\p{L}\p{N}_]{1,80}){1,12}/gu))
    found.add(word);
  for (const [, , word = ""] of text.matchAll(underscored)) found.add(word);
  return found;
}
