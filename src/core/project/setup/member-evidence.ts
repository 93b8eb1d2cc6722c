import { posix } from "node:path";
import type { SourceFile } from "../../source/model.js";
import { isScript } from "../../source/readers/script/endings.js";
import { boundNames, importLine } from "./bound-names.js";
import type { KeyIndex } from "./key-index.js";
import { newVotes, type LookupUse } from "./lookup-use.js";

/** A name with members or keys in brackets behind it: `texts.cart.title`, `$lang['cart']['title']`, `textsFor(locale).title`. */
const chain =
  /(?<![\w$.'"`/#-])[$@]?([A-Za-z_]\w{0,60})(\(\s{0,4}[\w.]{0,40}\s{0,4}\))?((?:\s{0,4}\??\.\s{0,4}[A-Za-z_$]\w{0,60}|\[\s{0,4}(?:"[^"\]\n]{1,80}"|'[^'\]\n]{1,80}')\s{0,4}\]){1,12})/g;

/** Names under which people keep objects of texts. */
const textNames =
  /(?:text|string|label|lang|language|msg|message|locale|copy|wording|translation|phrase|dict|dictionary)s?$/i;

interface Members {
  readonly calls: boolean;
  hits: number;
  misses: number;
  deep: number;
  readonly keys: Set<string>;
  readonly endings: Map<string, number>;
  /** How a key is written behind it, by the ending of the file. */
  readonly written: Map<string, Map<string, number>>;
  readonly files: Set<string>;
}

/** A chain of names as code has it: its sign, its call, its members as they are written and as they are called. */
interface Chain {
  readonly sign: string;
  readonly calls: boolean;
  readonly steps: readonly string[];
  readonly parts: readonly string[];
  /** Whether its last member is called. */
  readonly isCalled: boolean;
  readonly file: string;
}

/** Objects whose members are the texts of a book; of one whose texts are in a constant, what is made of that. */
export function memberUses(code: readonly SourceFile[], keys: KeyIndex, constant?: string): LookupUse[] {
  const picks =
    constant === undefined
      ? undefined
      : new RegExp(
          String.raw`\b(?:const|let|var)\s{1,9}([\w$]{1,60})\s{0,9}=\s{0,9}${constant.replaceAll("$", "\\$")}\[`,
          "g",
        );
  const made = new Set(
    picks ? code.flatMap(({ text }) => [...text.matchAll(picks)].map(([, name = ""]) => name)) : [],
  );
  const roots = new Map<string, Members>();
  for (const { file, text } of code)
    for (const match of text.matchAll(chain)) {
      const [whole, root = "", call, path = ""] = match;
      // What a part of a template fills in stands as it is: `{{#say}}cart.title{{/say}}`.
      if (/\{\{#\w{1,40}\}\}\s{0,9}$/.test(text.slice(Math.max(match.index - 60, 0), match.index))) continue;
      const steps = path.match(/\??\.\s{0,4}[\w$]{1,61}|\[[^\][]{0,90}\]/g) ?? [];
      const parts = steps.map((step) =>
        step.startsWith("[") ? step.replace(/^\[\s*["']|["']\s*\]$/g, "") : step.replace(/[\s.?]+/g, ""),
      );
      const isCalled = text[match.index + whole.length] === "(";
      const sign = /^[$@]/.exec(whole)?.[0] ?? "";
      const all: Chain = { sign, calls: call !== undefined, steps, parts, isCalled, file };
      count(roots, root, all, keys);
      const [second] = parts;
      if (call === undefined && second !== undefined && parts.length > 1)
        count(roots, `${root}.${second}`, { ...all, steps: steps.slice(1), parts: parts.slice(1) }, keys);
    }
  return [...roots].flatMap(([root, found]): LookupUse[] => {
    const { hits, misses, deep, endings, written, files } = found;
    const isNamed = made.has(root) || (constant === undefined && textNames.test(root));
    // Two keys tell enough where they are half of a small book's.
    const tell =
      found.keys.size >= 3 ||
      made.has(root) ||
      (isNamed && misses === 0 && found.keys.size === 2 && found.keys.size * 2 >= keys.size);
    const isSure =
      tell && hits >= misses * (isNamed ? 2 : 4) && (isNamed || (deep * 2 > hits && !keys.isCommon));
    if (!isSure) return [];
    const name = root.split(".", 1)[0] ?? root;
    const line = code.flatMap(({ file, text }) => importLine(file, text, name) ?? [])[0];
    const setup = line === undefined ? code.flatMap((source) => madeIn(source, name) ?? [])[0] : undefined;
    return [
      {
        lookup: { member: root },
        shown: `${root}${found.calls ? "()" : ""}.KEY`,
        hits,
        misses,
        telling: deep,
        valued: 0,
        endings,
        symbols: new Map(),
        written,
        files,
        samples: [],
        ...(line !== undefined && { import: line }),
        ...setup,
        votes: newVotes(),
      },
    ];
  });
}

/** The statement by which functions make an object of texts, and the line that imports what it calls. */
function madeIn(
  source: SourceFile,
  name: string,
): { readonly setup: string; readonly import?: string } | undefined {
  const { file, text } = source;
  const bound = boundNames(source).get(name);
  const plain = name.replaceAll("$", "\\$");
  // Of a table by locale: `const t = texts[useLocale()];`
  const picked = new RegExp(
    String.raw`\b(?:const|let|var)\s{1,9}${plain}\s{0,9}=\s{0,9}[\w$.]{1,60}\[([A-Za-z_$][\w$.]{0,60})(?:\(\))?\];?`,
  ).exec(text);
  const [statement, maker] =
    bound && !bound.hasArguments && bound.gives === undefined
      ? [bound.statement, bound.maker]
      : [picked?.[0].replace(/;?$/, ";"), picked?.[1]];
  if (statement === undefined || maker === undefined || !isScript(file)) return undefined;
  const line = importLine(file, text, maker.split(".", 1)[0] ?? maker);
  return { setup: statement, ...(line !== undefined && { import: line }) };
}

function count(
  roots: Map<string, Members>,
  root: string,
  { sign, calls, steps, parts, isCalled, file }: Chain,
  keys: KeyIndex,
): void {
  const { length, isGroup } = keys.path(parts);
  const known = roots.get(root);
  if (isGroup || (length === 0 && !known && isCalled)) return;
  const found = known ?? {
    calls,
    hits: 0,
    misses: 0,
    deep: 0,
    keys: new Set<string>(),
    endings: new Map<string, number>(),
    written: new Map<string, Map<string, number>>(),
    files: new Set<string>(),
  };
  roots.set(root, found);
  // What is left behind a key is a method of its text; a method of the object itself is none.
  if (length === 0) {
    if (!isCalled) found.misses++;
    return;
  }
  found.hits++;
  if (length > 1) found.deep++;
  found.keys.add(parts.slice(0, length).join("."));
  found.files.add(file);
  const ending = posix.extname(file);
  found.endings.set(ending, (found.endings.get(ending) ?? 0) + 1);
  const style = sign + root + keyBehind(steps.slice(0, length));
  const styles = found.written.get(ending) ?? new Map<string, number>();
  found.written.set(ending, styles.set(style, (styles.get(style) ?? 0) + 1));
}

/** How a key is written behind its object: with dots, or in brackets, which hold the whole of a key that has no parts. */
function keyBehind(steps: readonly string[]): string {
  const bracket = steps.find((step) => step.startsWith("["));
  if (bracket === undefined) return ".{key}";
  const quote = bracket.includes("'") ? "'" : '"';
  return steps.length > 1 ? "" : `[${quote}{key}${quote}]`;
}
