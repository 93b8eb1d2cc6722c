import { commentEnd, passesButRaw, stringEnd, type Dialect, type Island } from "../dialect.js";

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
    const inner = expressionIn(text.slice(at + 1, end));
    islands.push({
      kind: /[#:/]/.test(mark) || text.startsWith("@const", at + 1) ? "code" : "output",
      start: at,
      end: Math.min(end + 1, text.length),
      codeStart: at + 1 + inner.start,
      codeEnd: at + 1 + inner.end,
    });
    at = end + 1;
  }
  return islands;
};

/** Where the expression is in what stands between braces: behind `#if`, before the names of `#each`. */
function expressionIn(code: string): { readonly start: number; readonly end: number } {
  const start =
    /^(?:[#:]\s?(?:if|else if|key|each|await)\b|@(?:html|render|debug)\b|@const\s[^=]{1,200}=(?!=)|[#:/@])\s*/.exec(
      code,
    )?.[0].length ?? 0;
  const names = /^#(?:each|await)\b/.test(code) ? /\s(?:as|then)\s[^"'`]*$/.exec(code.slice(-1_000)) : null;
  const end = names ? Math.max(code.length - 1_000, 0) + names.index : code.length;
  return { start, end: Math.max(end, start) };
}

/** Components whose expressions stand in single braces. */
export const svelte: Dialect = {
  name: "svelte",
  language: "script",
  extensions: [".svelte"],
  islands: singleBrace,
  isComponent: true,
  elementsInText: true,
  storeSign: "$",
  blockBindings: [
    { binds: String.raw`^\{#each\s[^]*?\sas\s[^]*?NAME`, opens: /^\{#each\b/, closes: /^\{\/each\b/ },
    {
      binds: String.raw`^\{[#:](?:await|then)\s(?:[^]*?\sthen\s)?[^]*?NAME`,
      opens: /^\{#await\b/,
      closes: /^\{\/await\b/,
    },
    { binds: String.raw`^\{#snippet\s[^]*?NAME`, opens: /^\{#snippet\b/, closes: /^\{\/snippet\b/ },
  ],
  elementBindings: String.raw`^let:NAME`,
  bindsAttributes: true,
  bindsInBraces: true,
  runsPerUse: (attributes) => !/\bmodule\b/.test(attributes.replace(/\btype\s*=\s*["']module["']/, "")),
  shown: ["{", "}"],
  attribute: (call) => `{name}={${call}}`,
  branches: {
    head: /\{#if\s{1,9}$/,
    tail: /^\s{0,9}\}/,
    otherwise: /\{:else\}/,
    end: /\{\/if\}/,
    next: /\{(?::else|\/if)/,
  },
  passesIsland: passesButRaw("{@html"),
};
