import {
  asTheyAre,
  between,
  matchAll,
  codeBlock,
  passesButRaw,
  type Dialect,
  type Island,
  foreignPercents,
} from "../dialect.js";

const puts = [/\{\{\{?/, /\}\}\}?/] as const;
const trimmedPuts = [/\{\{\{?[-~]?/, /[-~]?\}\}\}?/] as const;

/** Marks in a string that is shown: `{{ '{{' }}`. */
const quotedMarks =
  /\{\{-?\s{0,9}(?:"[^"{}\n]{0,80}[{}]{2}[^"\n]{0,80}"|'[^'{}\n]{0,80}[{}]{2}[^'\n]{0,80}')\s{0,9}-?\}\}/;

/** Double and triple braces, `{% blocks %}`, and their comments. `trims` says whether a sign right inside of a mark takes blanks away outside of it. */
export function braceIslands(text: string, trims: boolean): Island[] {
  return [
    // Marks that are put out as they are: `\\{{name}}`.
    ...asTheyAre(between(text, /\\\{\{\{?/, /\}\}\}?/, () => "output")),
    ...asTheyAre(
      matchAll(text, new RegExp(quotedMarks, "g"), (match) => ({
        kind: "output",
        codeStart: match.index + 2,
        codeEnd: match.index + match[0].length - 2,
      })),
    ),
    ...between(text, /\{\{!--/, /--\}\}/, () => "comment"),
    ...between(text, /\{\{!/, /\}\}/, () => "comment"),
    ...between(text, /\{#(?![a-z])/, /#\}/, () => "comment"),
    ...between(
      text,
      /\{%[-+~]?\s*(?:comment|raw|verbatim)\b[^%]*%\}/,
      /\{%[-+~]?\s*end(?:comment|raw|verbatim)\s*[-+~]?%\}/,
      ({ open }) => (open[0].includes("comment") ? "comment" : "code"),
    ),
    // A template of a template writes the marks of the other by name.
    ...between(
      text,
      /\{%\s*templatetag\s+open(?:block|variable|comment)\s*%\}/,
      /\{%\s*templatetag\s+close(?:block|variable|comment)\s*%\}/,
      () => "code",
    ),
    ...between(text, ...(trims ? trimmedPuts : puts), ({ innerStart, innerEnd }) =>
      /^\s*~?(?:[#/^>]|else\b)/.test(text.slice(innerStart, innerEnd)) ? "code" : "output",
    ),
    ...between(text, /\{%[-+~]?/, /[-+~]?%\}/, () => "code"),
  ];
}

/** Templates of a small language of their own, in double braces with helpers or filters, and in `{% … %}`. */
export const braces: Dialect = {
  name: "braces",
  language: "expression",
  extensions: [".hbs", ".handlebars", ".mustache", ".jinja", ".jinja2", ".j2", ".njk", ".twig", ".liquid"],
  sign: /\{%[-+~]? ?[a-z]|\{#\s[^{}]{1,600}#\}|\{\{~?[#/^>] ?[\w./-]/g,
  islands: (text) => braceIslands(text, true),
  codeInScripts: true,
  shownMember: [["{{ ", " }}"]],
  takesHelpers: (file) => /\.(?:hbs|handlebars)$/.test(file),
  closeOfOther: (code) => {
    // What a page puts into an attribute or a setting of the page around it.
    if (codeBlock.test(/^block\s+(\w{1,80})/.exec(code)?.[1] ?? "")) return "endblock";
    const [, name, block, rest = ""] = /^((block)?trans(?:late)?)(?![\w.])(.*)$/s.exec(code) ?? [];
    // A tag with the text in itself has no block.
    if (block === undefined && !/^\s*$|^\s*(?:trimmed|notrimmed|with|from|into)\b|^\s*\w+\s*[=,]/.test(rest))
      return undefined;
    return name && `end${name}`;
  },
  foreign: foreignPercents,
  imports: {
    // What a template extends stands first in it.
    lines: /^[ \t]{0,40}\{%-?\s{0,9}extends\b[^%\n]{0,300}%\}[ \t]*$/gm,
    head: /^/,
    body: /(?!)/,
    isTight: true,
    namesIn: loadedIn,
  },
  blockBindings: [
    {
      binds: String.raw`^\{%[-+~]?\s*for\s[^%]*?NAME[^%]*?\sin\s`,
      opens: /^\{%[-+~]?\s*for\s/,
      closes: /^\{%[-+~]?\s*endfor\b/,
    },
    {
      binds: String.raw`^\{%[-+~]?\s*with\s[^%]*?(?:NAME\s*=|\sas NAME)`,
      opens: /^\{%[-+~]?\s*with\s/,
      closes: /^\{%[-+~]?\s*endwith\b/,
    },
    {
      binds: String.raw`^\{%[-+~]?\s*(?:macro|call)\s*\w*\([^()]*NAME`,
      opens: /^\{%[-+~]?\s*(?:macro|call)\b/,
      closes: /^\{%[-+~]?\s*end(?:macro|call)\b/,
    },
    { binds: String.raw`^\{%[-+~]?\s*(?:set|assign)\s+NAME\s*=`, opens: /(?!)/, closes: /(?!)/ },
  ],
  bindsAttributes: true,
  givesByAt: true,
  branches: {
    head: /\{%-?\s{0,9}if\s{1,9}$/,
    tail: /^\s{0,9}-?%\}/,
    otherwise: /\{%-?\s{0,9}else\s{0,9}-?%\}/,
    end: /\{%-?\s{0,9}endif\s{0,9}-?%\}/,
    next: /\{%-?\s{0,9}(?:else|elsif|elseif|elif|endif)/,
  },
  passesIsland: (island) =>
    !island.startsWith("\\") && !quotedMarks.test(island) && passesButRaw("{{{")(island),
};

/** The names of what a page loads: `{% load quay words %}`. */
function loadedIn(text: string): readonly string[] {
  return [...text.matchAll(/\{%-?\s{0,9}load\s([^%\n]{1,300})%\}/g)].flatMap(([, list = ""]) =>
    list.trim().split(/\s+/),
  );
}
