import { commentEnd, hasNoFilter, stringEnd, type Dialect, type Island } from "../dialect.js";

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
        const close = stringEnd(text, end);
        if (close < 0) break;
        end = close;
      } else if (unit === "/") {
        // An apostrophe in a comment opens no string.
        const close = commentEnd(text, end);
        if (close > end) end = close;
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

/** Components whose expressions stand in single braces. */
export const svelte: Dialect = {
  name: "svelte",
  language: "script",
  extensions: [".svelte"],
  islands: singleBrace,
  isComponent: true,
  elementsInText: true,
  bindsAttributes: true,
  bindsInBraces: true,
  runsPerUse: (attributes) => !/\bmodule\b/.test(attributes.replace(/\btype\s*=\s*["']module["']/, "")),
  shown: ["{", "}"],
  attribute: (call) => `{name}={${call}}`,
  passesIsland: hasNoFilter,
};
