import type { ImportPlace } from "../languages/language.js";
import type { Span } from "../../text/span.js";
import { delimited, type Delimited } from "../../text/delimited.js";

/** Part of a template that is code and not markup. */
export interface Island {
  /** `output` puts a value on the page, `code` controls it, `comment` is neither. */
  readonly kind: "output" | "code" | "comment";
  readonly start: number;
  readonly end: number;
  /** The code without its marks. */
  readonly codeStart: number;
  readonly codeEnd: number;
  /** Set where code that stands apart from the text around it puts a value on the page all the same. */
  readonly isShown?: boolean;
  /** Set for the marks of another language, which runs elsewhere: on the page where this one runs on the server, or the reverse. */
  readonly isForeign?: true;
}

/** How a dialect's blocks show one thing or another, by a condition. */
export interface BranchMarks {
  /** What stands in front of the condition, and behind it. */
  readonly head: RegExp;
  readonly tail: RegExp;
  /** What begins the branch of all other cases, and what ends the block. */
  readonly otherwise: RegExp;
  readonly end: RegExp;
  /** What ends a branch: either of them, or another condition. */
  readonly next: RegExp;
  /** Set where a line end right behind the marks is not printed. */
  readonly takesLineEnd?: true;
}

/** What the code of a template's islands is written in; `expression` is a template language's own. */
export type IslandLanguage = "ruby" | "script" | "java" | "php" | "expression";

/** How code in a page gives a name to a value for as long as a block is open. */
export interface Binding {
  /** The source of a pattern for the island that does, with NAME for the name. */
  readonly binds: string;
  /** What opens such a block in an island, and what closes it; where nothing opens one, the name is taken to the end of the page. */
  readonly opens: RegExp;
  readonly closes: RegExp;
}

/** One way of mixing code into markup: how it is recognized, where its code is, and how a lookup is written into it. */
export interface Dialect {
  readonly name: string;
  readonly language: IslandLanguage;
  /** The endings of files that are of this dialect whatever they hold. */
  readonly extensions: readonly string[];
  /** Those of them that files of other kinds have as well. */
  readonly sharedExtensions?: readonly string[];
  /** Marks that only this dialect has, for files whose ending says nothing: the more of them, the surer. */
  readonly sign?: RegExp;
  islands(text: string): Island[];
  /** The marks of another language that people mix in. */
  readonly foreign?: RegExp;
  /** Set where code runs on the server, inside script elements as anywhere else. */
  readonly codeInScripts?: true;
  /** Set where the files are components, whose `script` elements are the code of the page itself. */
  readonly isComponent?: true;
  /** Statements of a component's script that its compiler moves out of what runs for each use, by what they call. */
  readonly hoisted?: RegExp;
  /** A sign before a name that takes what is in the variable of the name without it: where that is hidden, so is this. */
  readonly storeSign?: string;
  /** Set where all templates have what a program gives them once: members whose names begin with `$`. */
  readonly hasSharedMembers?: true;
  /** Set where the whole file is a program that its language's own reader reads. */
  readonly isProgram?: true;
  /** Set where the islands together are a program of statements, in the language of scripts. */
  readonly isScripted?: true;
  /** The code that closes a block whose content is looked up as a text already, `{% trans %}`, or is none, by the code that opens it. */
  closeOfOther?(code: string): string | undefined;
  /** Set where islands may hold lookups that are no whole statements of the language. */
  readonly hasLooseLookups?: true;
  /** Set where elements stand inside `title` and `textarea`, whose content is plain text in a page. */
  readonly elementsInText?: true;
  /** Whether attributes are bound by marks on their names, such as `:title` or `[title]`. */
  readonly bindsAttributes: boolean;
  /** Set where `@name` gives a component a value, and binds no event. */
  readonly givesByAt?: true;
  /** Set where a bound attribute is read with the islands, since its value stands in braces of its own. */
  readonly bindsInBraces?: true;
  /** The blocks of helpers that hold a script or styles, and no markup, between their islands. */
  codeBlocks?(text: string, islands: readonly Island[]): readonly Span[];
  /** The code of an island that is written by itself (`@if (x)`), as a statement of the same length. */
  statement?(island: string): string | undefined;
  /** Whether a component's script, by the attributes of its element, runs anew for each component that is shown. */
  runsPerUse?(attributes: string): boolean;
  /** Where lines that bring tags in are. */
  readonly imports?: ImportPlace;
  /** Its blocks that show one thing or another. */
  readonly branches?: BranchMarks;
  /** How blocks of the page give names to values: what is called by such a name in them is no function. */
  readonly blockBindings?: readonly Binding[];
  /** The source of a pattern, with NAME, for the attribute by which an element gives a name to a value. */
  readonly elementBindings?: string;
  /** The attribute of elements whose marks are put out as they are. */
  readonly asItIs?: string;
  /** The attributes by which an element is shown on a condition, and the next one instead. */
  readonly conditional?: { readonly shown: string; readonly otherwise: string };
  /** What stands around an expression that is shown; undefined where a book must say. */
  readonly shown?: readonly [open: string, close: string];
  /** What may stand around a member of an object, where that is shown as it is and calls are not written so; the usual marks first. */
  readonly shownMember?: readonly (readonly [open: string, close: string])[];
  /** Set where a dot goes into an object, so that a key with dots stands in brackets: `texts['quay.title']`. */
  readonly membersInBrackets?: true;
  /** Whether a file's lookups are helpers, which take values without brackets and commas, and stand in brackets inside of others. */
  takesHelpers?(file: string): boolean;
  /** How a string is shown with a filter, where that is not written as `{{ 'text' | filter }}`. */
  readonly filtered?: { readonly open: string; readonly bar: string; readonly close: string };
  /** An attribute whose value is a call; undefined where it is what stands in content. */
  attribute?(call: string): string;
  /** The same for elements that take expressions alone, where others take what stands in content; undefined for those. */
  attributeOn?(element: string, call: string): string | undefined;
  /** How scripts own templates in files of their own, and say what these may use. */
  readonly owners?: TemplateOwners;
  /** How attributes fill in what stands in the file, which only shows what the page looks like. */
  readonly fills?: Fills;
  /** Whether a filter can stand in brackets in any expression that shows something: `open ? ('key' | text) : ''`. */
  readonly filtersInBrackets?: true;
  /** Set where what is shown is put on the page as it is, so that signs of markup in a text would become markup. */
  readonly showsRaw?: true;
  /** Set where calls are given their values one after the other, without names, commas or brackets, and strings stand in double quotes. */
  readonly valuesInOrder?: true;
  /** Whether the code of an island, marks and all, can be passed to a call. */
  passesIsland(island: string): boolean;
}

/** Whether a template of script is rendered by a program, so that it knows only the names that it is given. */
export function isRenderedScript(dialect: Dialect | undefined): boolean {
  return dialect?.language === "script" && !dialect.isComponent;
}

/** How attributes of a page fill in its texts, and how lookups are written in them. */
export interface Fills {
  /** Whether an attribute is one of those, by its name. */
  isOwn(name: string): boolean;
  /** What such an attribute fills in by its name and value: what stands in its element, or other attributes; undefined for neither. */
  filledBy(name: string, value: string): "content" | readonly string[] | undefined;
  /** What stands around a key in their values, and in the text, with KEY for it. */
  readonly mark: string;
  /** The attributes that fill in an element's content and another attribute by a key, and its content with values. */
  readonly content: string;
  readonly attribute: string;
  readonly withValues: string;
}

/**
 * The insides of blocks of islands. `opens` says whether an island's code opens a wanted block, `step` by how much any code
 * changes the depth of blocks.
 */
export function blocksOf(
  text: string,
  islands: readonly Island[],
  opens: (code: string) => boolean,
  step: (code: string) => number,
): readonly Span[] {
  const found: Span[] = [];
  let depth = 0;
  let start: number | undefined;
  for (const { kind, codeStart, codeEnd, start: from, end } of islands) {
    if (kind === "comment") continue;
    const code = text
      .slice(codeStart, codeEnd)
      .replace(/^[-+~]|[-+~]$/g, "")
      .trim();
    if (start === undefined) {
      if (opens(code)) [start, depth] = [end, 1];
      continue;
    }
    depth += step(code);
    if (depth > 0) continue;
    found.push({ start, end: from });
    start = undefined;
  }
  return found;
}

/** Double braces beside the marks of a server. */
export const foreignBraces = /\{\{\{?[^{}\n]{1,300}\}\}\}?/g;

/** What pages put values in where double braces are another language's: signs and blanks inside them, `{$ boat $}`, `[[ boat ]]`. */
const ownMarks =
  /\{\$(?: [^{}$]{1,400} |[^{}$\n]{1,200})\$\}|\{\[ [^{}[\]]{1,400} \]\}|\[\[ [\w.$:()]{1,200} \]\]/;

/** Marks in percent signs beside double braces, and those in marks of a page's own. */
export const foreignPercents = new RegExp(`<%[^%]{1,1000}%>|${ownMarks.source}`, "g");

/** The values that a page puts in by marks of its own. */
export const ownIslands = (text: string): Island[] =>
  matchAll(text, new RegExp(ownMarks, "g"), (match) => ({
    kind: "output",
    codeStart: match.index + 2,
    codeEnd: match.index + match[0].length - 2,
  }));

/** Whether an island has no filter behind its value. */
export function hasNoFilter(island: string): boolean {
  return !/(?<!\|)\|(?!\|)/.test(island);
}

/** Whether an island can be passed that has no filter: what a mark puts out raw may be markup, and a lookup's values are escaped. */
export function passesButRaw(raw: string): (island: string) => boolean {
  return (island) => hasNoFilter(island) && !island.startsWith(raw);
}

/** The islands between two marks. */
export function between(
  text: string,
  open: RegExp,
  close: RegExp,
  kindOf: (found: Delimited) => Island["kind"],
): Island[] {
  return [...delimited(text, open, close)].map((found) => ({
    kind: kindOf(found),
    start: found.start,
    end: found.end,
    codeStart: found.innerStart,
    codeEnd: found.innerEnd,
  }));
}

/** How components in scripts name the files of their templates, and list what these may use. */
export interface TemplateOwners {
  /** The name in the mark of a component, and in that of a group which declares components and what they use. */
  readonly mark: string;
  readonly groupMark: string;
  /** What the components of a script say of themselves. */
  settingsIn(text: string): readonly string[];
  /** The file of the template, and the list of what it may use: the first group of each. */
  readonly template: RegExp;
  readonly listed: RegExp;
  /** A component that lists what it uses, and one that leaves that to its group. */
  readonly alone: RegExp;
  readonly inGroup: RegExp;
  /** The class that gives a filter of a name: the first group. */
  classOf(filter: string): RegExp;
}

/** Islands whose marks are put out as they are: what is in them is no code of the template. */
export function asTheyAre(islands: readonly Island[]): Island[] {
  return islands.map((one) => ({ ...one, isForeign: true as const }));
}

/** The islands that a pattern finds. */
export function matchAll(
  text: string,
  pattern: RegExp,
  read: (match: RegExpExecArray) => Pick<Island, "kind" | "codeStart" | "codeEnd">,
): Island[] {
  return [...text.matchAll(pattern)].map((match) => ({
    start: match.index,
    end: match.index + match[0].length,
    ...read(match),
  }));
}

/** A tag of a library that stands inside an attribute's value: `value="<c:out value='${x}'/>"`. */
export const tagsInAttributes = (text: string): Island[] =>
  matchAll(
    text,
    /(?<==\s?["'][^"'<>\n]{0,200})<[a-z]\w{0,20}:\w{1,40}(?=[\s/])(?:[^<>"']|"[^"<>\n]{0,300}"|'[^'<>\n]{0,300}'){0,40}\/>/g,
    (match) => ({
      kind: "output",
      codeStart: match.index + match[0].length,
      codeEnd: match.index + match[0].length,
    }),
  );

/** Marks in percent signs. A dash behind the opening one puts out unescaped in some dialects and only trims space in others. */
export function percentIslands(text: string, dashPutsOut: boolean): Island[] {
  return between(text, /<%(--|==|[#=@!_-])?/, /(?:--|[-_])?%>/, ({ open }) => {
    const mark = open[1] ?? "";
    const kind =
      mark === "#" || mark === "--"
        ? "comment"
        : mark === "=" || mark === "==" || (mark === "-" && dashPutsOut)
          ? "output"
          : "code";
    return mark === "@" ? "comment" : kind;
  });
}

/** The end of a comment of a script that starts at a place: its last unit; -1 where none starts. */
export function commentEnd(text: string, at: number): number {
  if (text[at] !== "/") return -1;
  const close = text[at + 1] === "/" ? "\n" : text[at + 1] === "*" ? "*/" : undefined;
  if (close === undefined) return -1;
  const end = text.indexOf(close, at + 2);
  return end < 0 ? text.length - 1 : end + close.length - 1;
}

/** `${expression}` of a template, braces balanced. */
export function dollarBraces(text: string): Island[] {
  const islands: Island[] = [];
  for (let at = text.indexOf("${"); at >= 0; at = text.indexOf("${", at)) {
    let depth = 0;
    let end = at + 1;
    for (; end < text.length; end++) {
      const unit = text[end];
      if (unit === "{") depth++;
      else if (unit === "}" && --depth === 0) break;
      else if (unit === '"' || unit === "'") {
        const close = text.indexOf(unit, end + 1);
        if (close < 0) break;
        end = close;
      } else if (unit === "/") {
        const close = commentEnd(text, end);
        if (close > end) end = close;
      }
    }
    islands.push({
      kind: "output",
      start: at,
      end: Math.min(end + 1, text.length),
      codeStart: at + 2,
      codeEnd: end,
    });
    at = end + 1;
  }
  return islands;
}

/** Where a string that starts at a quote ends, backslashes counted; -1 where it does not. */
export function stringEnd(text: string, at: number): number {
  const quote = text[at] ?? "";
  const close = new RegExp(`\\\\.|${quote}`, "gs");
  close.lastIndex = at + 1;
  let found = close.exec(text);
  while (found && found[0] !== quote) found = close.exec(text);
  return found ? found.index : -1;
}

/** Names of blocks that hold what a page puts into an attribute or a setting of the page around it: `bodyclass`. */
export const codeBlock =
  /^(?:(?:\w{0,40}_)?(?:class(?:es)?|css|lang|robots|canonical|slug)|(?:body|html|page|main|content|wrapper|container|nav|header|footer|root|extra)-?class(?:es)?|(?:body|html)_?(?:id|attrs|attributes))$/;

/** Blocks in braces between percent signs: `<% if (a) { %>`, `<% } else { %>`, `<% } %>`. */
export const bracedBranches: BranchMarks = {
  head: /<%-?\s{0,9}if\s{0,9}\(\s{0,9}$/,
  tail: /^\s{0,9}\)\s{0,9}\{\s{0,9}-?%>/,
  otherwise: /<%-?\s{0,9}\}\s{0,9}else\s{0,9}\{\s{0,9}-?%>/,
  end: /<%-?\s{0,9}\}\s{0,9}-?%>/,
  next: /<%-?\s{0,9}\}/,
};

/** The variable that a name stands for: `say` of `$say`, where a sign before it takes what is in the variable. */
export function variableOf(name: string, dialect: Pick<Dialect, "storeSign"> | undefined): string {
  const { storeSign: sign } = dialect ?? {};
  return sign !== undefined && name.startsWith(sign) ? name.slice(sign.length) : name;
}
