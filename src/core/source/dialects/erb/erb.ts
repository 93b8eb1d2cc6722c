import { blocksOf, percentIslands, type Dialect, type Island, foreignBraces } from "../dialect.js";

/** Ruby in percent signs: `<%= name %>`. */
export const erb: Dialect = {
  name: "erb",
  language: "ruby",
  extensions: [".erb", ".rhtml"],
  sign: /<%[=-]? ?(?:[\w@.]{1,80} do\b|(?:if|unless) [^({]|end\b|else ?-?%>|elsif\b|@\w|link_to\b|render\b|content_for\b)/g,
  islands: rubyIslands,
  codeInScripts: true,
  foreign: foreignBraces,
  bindsAttributes: true,
  shown: ["<%= ", " %>"],
  branches: {
    head: /<%-?\s{0,9}if\s{1,9}\(?\s{0,9}$/,
    tail: /^\s{0,9}\)?\s{0,9}(?:then)?\s{0,9}-?%>/,
    otherwise: /<%-?\s{0,9}else\s{0,9}-?%>/,
    end: /<%-?\s{0,9}end\s{0,9}-?%>/,
    next: /<%-?\s{0,9}(?:else|elsif|end\b)/,
  },
  passesIsland: () => true,
  codeBlocks: (text, islands) => blocksOf(text, islands, opensScript, blockStep),
};

/** `javascript_tag do` and `content_for :scripts do` hold no markup unless it says so. */
function opensScript(code: string): boolean {
  const [, helper = "", first = ""] = /^(\w{1,60})[ (]{0,3}:?["']?(\w{0,60})/.exec(code) ?? [];
  const name = helper === "content_for" ? first : helper;
  return opensBlock(code) && /javascript|script|stylesheet|css/i.test(name);
}

/** Whether an island's code goes on in what stands behind it: `form_for(boat) do |form|`. */
function opensBlock(code: string): boolean {
  return /(?:\bdo|\{)(?:\s{0,9}\|[^|\n]{0,80}\|)?$/.test(code.slice(-120));
}

function blockStep(code: string): number {
  if (/^(?:end\b|\})/.test(code)) return -1;
  const opens =
    opensBlock(code) ||
    (/^(?:if|unless|case|while|until|for|begin)\b/.test(code) && !/\bend$/.test(code.slice(-4)));
  return opens ? 1 : 0;
}

/** Islands in percent signs. One that opens a block puts out what stands in the block, and is no value in a sentence. */
function rubyIslands(text: string): Island[] {
  return percentIslands(text, false).map((island) =>
    island.kind === "output" &&
    opensBlock(text.slice(island.codeStart, island.codeEnd).trim().replace(/-$/, "").trimEnd())
      ? { ...island, kind: "code", isShown: true }
      : island,
  );
}
