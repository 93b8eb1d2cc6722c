import type { DialectName } from "../../config/schema.js";
import { rawElements } from "../readers/markup/raw-elements.js";
import { globTest } from "../../files/glob.js";
import type { Dialect, Island } from "./dialect.js";
import { braces } from "./braces/braces.js";
import { capitals } from "./capitals/capitals.js";
import { commented } from "./commented/commented.js";
import { curly } from "./curly/curly.js";
import { directives } from "./directives/directives.js";
import { ejs } from "./ejs/ejs.js";
import { erb } from "./erb/erb.js";
import { faces } from "./faces/faces.js";
import { filled } from "./filled/filled.js";
import { go } from "./go/go.js";
import { html } from "./html/html.js";
import { jsp } from "./jsp/jsp.js";
import { mako } from "./mako/mako.js";
import { php } from "./php/php.js";
import { svelte } from "./svelte/svelte.js";
import { tagged } from "./tagged/tagged.js";
import { vue } from "./vue/vue.js";

/** Every dialect that a configuration can name; of two that fit a file's name, the one that is listed first. */
const byName: Readonly<Record<DialectName, Dialect>> = {
  erb,
  ejs,
  jsp,
  directives,
  php,
  svelte,
  vue,
  faces,
  filled,
  braces,
  curly,
  commented,
  capitals,
  mako,
  go,
  html,
};

export const dialects: readonly Dialect[] = [...Object.values(byName), tagged];

/** The endings of templates that may be of any dialect. */
const openEndings = [".html", ".htm", ".xhtml", ".xml", ".svg", ".tpl", ".tmpl", ".template"] as const;

/** Whether a file may be of a dialect or of none, by its name: then it is one only with the dialect's sign. */
export function hasSharedEnding(file: string): boolean {
  return sharingOf(file) !== undefined;
}

/** Whether a file of a shared ending is of the dialect that shares it. */
export function isSharedProgram(file: string, text: string): boolean {
  return (text.slice(0, looked).match(sharingOf(file)?.sign ?? /(?!)/)?.length ?? 0) > 0;
}

function sharingOf(file: string): Dialect | undefined {
  return dialects.find(({ sharedExtensions }) => sharedExtensions?.some((ending) => file.endsWith(ending)));
}

/** So much of a file is looked at for signs of a dialect, in code units. */
const looked = 100_000;

/** The dialect that a file's name settles. */
export function dialectByName(file: string): Dialect | undefined {
  return dialects.find(({ extensions }) => extensions.some((ending) => file.endsWith(ending)));
}

/** Whether a file is a template or page, by its name. */
export function isMarkup(file: string): boolean {
  return dialectByName(file) !== undefined || hasOpenEnding(file);
}

/** Whether only a file's content says of which dialect it is. */
export function hasOpenEnding(file: string): boolean {
  return openEndings.some((ending) => file.endsWith(ending));
}

/** The dialect of a file: by its name, else by the signs in its text, else plain HTML; undefined for what is no markup. */
export function dialectOf(file: string, text: string): Dialect | undefined {
  const named = dialectByName(file);
  if (named) return named;
  return hasOpenEnding(file) ? dialectByContent(text) : undefined;
}

/** The dialect whose signs stand most often in a text. */
export function dialectByContent(text: string): Dialect {
  const part = text.length > looked ? text.slice(0, looked) : text;
  let best: Dialect = html;
  let most = 0;
  if (!/<[%?]|<\w+:|<(?:!-- ?)?[A-Z]{2,6}_|[{@]|^[ \t]*% ?[a-z]/m.test(part)) return html;
  for (const dialect of dialects) {
    const count = dialect.sign ? (part.match(dialect.sign)?.length ?? 0) : 0;
    if (count > most) [best, most] = [dialect, count];
  }
  return best;
}

/** The dialects that a book names for its templates: by the first glob that a file matches. */
export function dialectsOf(
  named: Readonly<Record<string, DialectName>>,
): ((file: string) => Dialect | undefined) | undefined {
  const globs = Object.entries(named).map(([glob, name]) => ({ matches: globTest([glob]), name }));
  if (globs.length === 0) return undefined;
  return (file) => {
    const found = globs.find(({ matches }) => matches(file));
    return found && byName[found.name];
  };
}

/** The islands of a text in order, none inside another. */
export function findIslands(text: string, dialect: Dialect): Island[] {
  const found = [...dialect.islands(text), ...foreignIslands(text, dialect)].sort(
    (a, b) => a.start - b.start || b.end - a.end,
  );
  const kept: Island[] = [];
  for (const island of found) if (island.start >= (kept[kept.length - 1]?.end ?? 0)) kept.push(island);
  return kept;
}

/** The marks of another language in markup; in scripts and styles they may be anything. */
function foreignIslands(text: string, { foreign }: Dialect): Island[] {
  if (!foreign || !/\{[{$[]|<%|\[\[/.test(text)) return [];
  const raw = [...rawElements(text)];
  return [...text.matchAll(foreign)].flatMap((match): Island[] => {
    const [whole] = match;
    const start = match.index;
    const end = start + whole.length;
    if (raw.some(({ contentStart, contentEnd }) => contentStart <= start && end <= contentEnd)) return [];
    const kind = /^<%(?![=-])/.test(whole) ? "code" : "output";
    return [{ kind, start, end, codeStart: start + 2, codeEnd: end - 2, isForeign: true }];
  });
}

/** The characters that stand in an island's place while its surroundings are read as markup. */
export const islandMarks = { output: "\uE000", code: "\uE001", comment: "\uE002" } as const;

/** The text with every island masked to equal length, so that offsets hold. */
export function maskIslands(text: string, islands: readonly Island[]): string {
  let masked = "";
  let at = 0;
  for (const { start, end, kind } of islands) {
    masked += text.slice(at, start) + islandMarks[kind].repeat(end - start);
    at = end;
  }
  return masked + text.slice(at);
}
