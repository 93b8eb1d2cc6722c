import { sharedPhpEndings } from "../../languages/php/endings.js";
import { stringEnd, type Dialect, type Island, foreignBraces } from "../dialect.js";

/** PHP between its tags: `?>` inside a string is no end, and inside a comment of one line it is (PHP manual, "Comments"). */
export function phpIslands(text: string): Island[] {
  const islands: Island[] = [];
  const open = /<\?(php\b|=)?/g;
  for (let match = open.exec(text); match; match = open.exec(text)) {
    const codeStart = match.index + match[0].length;
    if (match[1] === undefined && /^xml\b/.test(text.slice(codeStart, codeStart + 4))) continue;
    const codeEnd = endOfCode(text, codeStart);
    const end = Math.min(codeEnd + 2, text.length);
    const code = text.slice(codeStart, Math.min(codeEnd, codeStart + 1_000));
    const statement = /^\s*echo\b|^\s*print\b(?=[^;{}]*;?\s*$)/.exec(code)?.[0];
    const isOutput = match[1] === "=" || statement !== undefined;
    const span = isOutput
      ? valueSpan(text, codeStart + (statement?.length ?? 0), codeEnd)
      : { codeStart, codeEnd };
    islands.push({ kind: isOutput ? "output" : "code", start: match.index, end, ...span });
    open.lastIndex = end;
  }
  return islands;
}

/** What a statement puts out, without the blanks around it and its end. */
function valueSpan(text: string, start: number, end: number): Pick<Island, "codeStart" | "codeEnd"> {
  const rest = text.slice(start, end);
  const value = rest.trimEnd().replace(/;$/, "").trimEnd();
  return { codeStart: end - rest.trimStart().length, codeEnd: start + value.length };
}

/** Where the code from a place on ends: at `?>`, or with the text. */
function endOfCode(text: string, start: number): number {
  const step = /\?>|["'`]|\/\*|\/\/|#(?!\[)|<<<\s*["']?(\w+)["']?/g;
  step.lastIndex = start;
  for (let match = step.exec(text); match; match = step.exec(text)) {
    const mark = match[0];
    if (mark === "?>") return match.index;
    let end: number;
    if (mark === "/*") {
      const close = text.indexOf("*/", step.lastIndex);
      end = close < 0 ? text.length : close + 2;
    } else if (mark === "//" || mark === "#") {
      const rest = /\n|\?>/g;
      rest.lastIndex = step.lastIndex;
      end = rest.exec(text)?.index ?? text.length;
    } else if (match[1] !== undefined) {
      const close = new RegExp(`^[ \\t]*${match[1]}\\b`, "gm");
      close.lastIndex = step.lastIndex;
      end = close.exec(text) ? close.lastIndex : text.length;
    } else {
      const close = stringEnd(text, match.index);
      end = close < 0 ? text.length : close + 1;
    }
    step.lastIndex = end;
  }
  return text.length;
}

/** Pages of PHP: the file is a program, and what stands outside of its tags is put out. */
export const php: Dialect = {
  name: "php",
  language: "php",
  extensions: [".php", ".phtml", ".ctp", ...sharedPhpEndings],
  sharedExtensions: sharedPhpEndings,
  sign: /<\?(?:php\b|=)/g,
  islands: phpIslands,
  codeInScripts: true,
  isProgram: true,
  foreign: foreignBraces,
  bindsAttributes: false,
  shown: ["<?= ", " ?>"],
  showsRaw: true,
  branches: {
    head: /<\?(?:php)?\s{1,9}if\s{0,9}\(\s{0,9}$/,
    tail: /^\s{0,9}\)\s{0,9}[:{]\s{0,9}\?>/,
    otherwise: /<\?(?:php)?\s{1,9}(?:else\s{0,9}:|\}\s{0,9}else\s{0,9}\{)\s{0,9}\?>/,
    end: /<\?(?:php)?\s{1,9}(?:endif|\})\s{0,9};?\s{0,9}\?>/,
    next: /<\?(?:php)?\s{1,9}(?:else|endif|\})/,
    takesLineEnd: true,
  },
  passesIsland: (island) => /^<\?(?:=|php\s+(?:echo|print)\b)/.test(island),
};
