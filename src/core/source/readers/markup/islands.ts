import { delimited, type Delimited } from "../../../text/delimited.js";

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
}

/** What the code of a template's islands is written in; `expression` is a template language's own. */
export type IslandLanguage = "ruby" | "script" | "java" | "php" | "expression";

/** One way of mixing code into markup. */
export interface Dialect {
  readonly name: string;
  readonly language: IslandLanguage;
  /** Set where the files are components, whose `script` elements are the code of the page itself. */
  readonly isComponent?: true;
  islands(text: string): Island[];
}

/** Marks in percent signs. A dash behind the opening one puts out unescaped in some dialects and only trims space in others. */
const percent = (text: string, dashPutsOut: boolean): Island[] =>
  between(text, /<%(--|==|[#=@!_-])?/, /(?:--|[-_])?%>/, ({ open }) => {
    const mark = open[1] ?? "";
    const kind =
      mark === "#" || mark === "--"
        ? "comment"
        : mark === "=" || mark === "==" || (mark === "-" && dashPutsOut)
          ? "output"
          : "code";
    return mark === "@" ? "comment" : kind;
  });

/** Double braces alone: a third brace beside them belongs to the text, as in messages with plurals. */
const twoBraces = (text: string): Island[] =>
  matchAll(text, /\{\{(?!\{)((?:[^{}]|\{[^{}]*\})*)\}\}/g, (match) => ({
    kind: "output",
    codeStart: match.index + 2,
    codeEnd: match.index + match[0].length - 2,
  }));

/** `${expression}` of a template literal, braces balanced. */
const dollarBraces = (text: string): Island[] => {
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
};

const doubleBrace = (text: string): Island[] => [
  ...between(text, /\{\{!--/, /--\}\}/, () => "comment"),
  ...between(text, /\{\{!/, /\}\}/, () => "comment"),
  ...between(text, /\{#(?![a-z])/, /#\}/, () => "comment"),
  ...between(text, /\{\{\{?/, /\}\}\}?/, ({ innerStart, innerEnd }) =>
    /^\s*(?:[#/^>]|else\b)/.test(text.slice(innerStart, innerEnd)) ? "code" : "output",
  ),
  ...between(text, /\{%/, /%\}/, () => "code"),
];

/** `@if (…) {`, `@else {`, and the braces that close them. */
const blocks = (text: string): Island[] => {
  const pattern =
    /@(?:if|else if|else|for|switch|case|default|empty|defer|placeholder|loading|error)\b[^{}<>]{0,500}\{/g;
  if (!pattern.test(text)) return [];
  pattern.lastIndex = 0;
  return [
    ...matchAll(text, pattern, (match) => ({
      kind: "code",
      codeStart: match.index + 1,
      codeEnd: match.index + match[0].length - 1,
    })),
    ...matchAll(text, /(?<![}\w'"])\}(?!\})/g, (match) => ({
      kind: "code",
      codeStart: match.index,
      codeEnd: match.index,
    })),
  ];
};

const php = (text: string): Island[] =>
  matchAll(text, /<\?(php\b|=)?([\s\S]*?)(\?>|$)/g, (match) => ({
    kind: match[1] === "=" || /^\s*echo\b/.test(match[2] ?? "") ? "output" : "code",
    codeStart: match.index + 2 + (match[1] ?? "").length,
    codeEnd: match.index + match[0].length - (match[3] ?? "").length,
  }));

const directives = (text: string): Island[] => [
  ...between(text, /\{\{--/, /--\}\}/, () => "comment"),
  ...between(text, /\{!!/, /!!\}/, () => "output"),
  ...between(text, /\{\{/, /\}\}/, () => "output"),
  ...matchAll(
    text,
    /(?<![\w@])@([a-zA-Z]+)(\s*\((?:[^()"']|"(?:\\.|[^"\\])*"|'(?:\\.|[^'\\])*'|\((?:[^()"']|"(?:\\.|[^"\\])*"|'(?:\\.|[^'\\])*'|\([^()]*\))*\))*\))?/g,
    (match) => ({
      kind: /^(?:lang|choice|json|yield)$/.test(match[1] ?? "") ? "output" : "code",
      codeStart: match.index + 1,
      codeEnd: match.index + match[0].length,
    }),
  ),
];

/** `{expression}` with its braces balanced, `{#if …}`, `{:else}`, `{/if}`, `{@html …}`. */
const singleBrace = (text: string): Island[] => {
  const islands: Island[] = [];
  for (let at = text.indexOf("{"); at >= 0; at = text.indexOf("{", at)) {
    let depth = 0;
    let end = at;
    for (; end < text.length; end++) {
      const unit = text[end];
      if (unit === "{") depth++;
      else if (unit === "}" && --depth === 0) break;
      else if (unit === '"' || unit === "'" || unit === "`") {
        const close = new RegExp(`\\\\.|${unit}`, "gs");
        close.lastIndex = end + 1;
        let found = close.exec(text);
        while (found && found[0] !== unit) found = close.exec(text);
        if (!found) break;
        end = found.index;
      }
    }
    const mark = text[at + 1] ?? "";
    const codeStart = at + 1 + (/[#:/@]/.test(mark) ? 1 : 0);
    islands.push({
      kind: /[#:/]/.test(mark) ? "code" : "output",
      start: at,
      end: Math.min(end + 1, text.length),
      codeStart,
      codeEnd: Math.max(end, codeStart),
    });
    at = end + 1;
  }
  return islands;
};

const expressionLanguage = (text: string): Island[] => between(text, /[$#]\{/, /\}/, () => "output");

/** The ending under which the markup reader takes the inside of a template literal. */
const templateLiteralEnding = /\.template-literal$/;

const dialects: readonly (readonly [RegExp, Dialect])[] = [
  [/\.(?:erb|rhtml)$/, { name: "erb", language: "ruby", islands: (text) => percent(text, false) }],
  [/\.ejs$/, { name: "ejs", language: "script", islands: (text) => percent(text, true) }],
  [
    /\.(?:jsp|jspf|jspx|tag|tagx)$/,
    {
      name: "jsp",
      language: "java",
      islands: (text) => [...percent(text, false), ...expressionLanguage(text)],
    },
  ],
  [
    /\.blade\.php$/,
    { name: "directives", language: "php", islands: (text) => [...directives(text), ...php(text)] },
  ],
  [/\.(?:php|phtml|ctp)$/, { name: "php", language: "php", islands: php }],
  [templateLiteralEnding, { name: "tagged", language: "script", islands: dollarBraces }],
  [/\.svelte$/, { name: "svelte", language: "script", isComponent: true, islands: singleBrace }],
  [/\.vue$/, { name: "vue", language: "script", isComponent: true, islands: doubleBrace }],
  [
    /\.(?:hbs|handlebars|mustache|jinja2?|j2|njk|twig|liquid)$/,
    { name: "braces", language: "expression", islands: doubleBrace },
  ],
  [
    /\.(?:html?|xhtml|xml|svg)$/,
    { name: "html", language: "script", islands: (text) => [...twoBraces(text), ...blocks(text)] },
  ],
];

/** The endings of files that are markup. */
export function dialectOf(file: string): Dialect | undefined {
  return dialects.find(([ending]) => ending.test(file))?.[1];
}

/** The islands of a text in order, none inside another. */
export function findIslands(text: string, dialect: Dialect): Island[] {
  const found = dialect.islands(text).sort((a, b) => a.start - b.start || b.end - a.end);
  const kept: Island[] = [];
  for (const island of found) if (island.start >= (kept[kept.length - 1]?.end ?? 0)) kept.push(island);
  return kept;
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

/** The islands between two marks. */
function between(
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

function matchAll(
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
