import { matchAll, type Dialect } from "../dialect.js";

/**
 * Blocks in comments, `<!-- IF boats -->`, `<!-- BEGIN rows -->`, or in triple braces, `{{{ if boats }}}`, and values by their path
 * in single braces: `{boats.name}`, `{functions.list, boats}`, `{./name}`, `{nameOf(boat)}`.
 */
export const commented: Dialect = {
  name: "commented",
  language: "expression",
  extensions: [],
  sign: /<!-- ?(?:ELSE|END ?IF|(?:BEGIN|END|ENDIF|INCLUDE|IMPORT|DEFINE) [\w.!$/-]{1,80}|(?:IF|ELSEIF) (?:not |!)?[\w.$()'\x22-]{1,80}(?: (?:[=!<>&|]{1,3}|and|or|n?eq|[gl]te?|is) [^<>\n]{1,200}?)?) ?-->|\{\{\{ ?(?:if|each|else|end)\b[^{}\n]{0,300}\}\}\}|(?<![{$\w])\{(?:\.{1,2}\/[\w/.]{1,80}|[a-z_]\w{0,40}(?:[.:]\w{1,40}){1,5})\}(?!\})/g,
  islands: (text) => [
    ...matchAll(text, /<!-- ?(?:END ?IF|[A-Z]{2,10})\b([^<>\n]{0,300})-->/g, (match) => ({
      kind: "code",
      codeStart: match.index + match[0].indexOf(match[1] ?? "", 5),
      codeEnd: match.index + match[0].length - 3,
    })),
    ...matchAll(text, /\{\{\{ {0,9}(?:if|each|else|elseif|end)\b([^{}]{0,500})\}\}\}/g, (match) => ({
      kind: "code",
      codeStart: match.index + match[0].indexOf(match[1] ?? "", 5),
      codeEnd: match.index + match[0].length - 3,
    })),
    ...matchAll(text, /(\{\{\{?)[^{}]{1,500}\}\}\}?/g, ({ index, 0: all, 1: open = "" }) => ({
      kind: "output",
      codeStart: index + open.length,
      codeEnd: index + all.length - open.length,
    })),
    ...matchAll(
      text,
      /\{((?:\.{1,2}\/){0,9}[A-Za-z_@][\w.:/@[\]-]{0,200}(?:\([^{}()\n]{0,200}\)|(?:, ?[\w.:/@-]{1,80}){0,9}))\}/g,
      (match) => ({
        kind: "output",
        codeStart: match.index + 1,
        codeEnd: match.index + match[0].length - 1,
      }),
    ),
  ],
  codeInScripts: true,
  shownMember: [["{", "}"]],
  bindsAttributes: false,
  passesIsland: () => true,
};
