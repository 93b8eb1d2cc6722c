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
  passesIsland: (island) =>
    !island.startsWith("<%==") && !givesMarkup(island.replace(/^<%[=-]?|-?%>$/g, "").trim()),
  codeBlocks: (text, islands) => blocksOf(text, islands, opensScript, blockStep),
};

/** Helpers that make markup wherever they stand. */
const markupHelper =
  /(?<![\w.:@])(?:link_to\w*|button_to|mail_to|content_tag|simple_format|safe_join|sanitize|auto_link|raw|render|yield|capture|[a-z]\w{0,40}_(?:tag|field|button|icon|html))\b|(?<!\w)tag\.\w|\.html_safe\b|(?<!\w)(?:f|form|builder|fields)\.\w+[ (]/;

/** A helper that is called with something, and helpers that give words or numbers by their names. */
const helperCall = /^([a-z_]\w{0,60}[?!]?)(?:\(|\s{1,9}(?![=+\-*/<>?&|.,)\]}%]|(?:if|unless|and|or|in)\s))/;
const textHelper =
  /^(?:t|l|h|j|translate|localize|pluralize|truncate|strip_tags|sprintf|format|Integer|String|Float)$|^(?:number|format|human|distance|time|date)_|(?:_|^)(?:words|ago|date|time|name|title|label|count|size|amount|price|number|percent\w{0,10}|currency|email|url|path|text|version|id)$/;

/**
 * Whether what Ruby puts out may be markup: as the value of a lookup it would be escaped, and readers would see its tags. What a helper
 * gives that is called with something, nobody knows but by its name.
 */
function givesMarkup(code: string): boolean {
  if (markupHelper.test(code)) return true;
  const [, helper] = helperCall.exec(code) ?? [];
  return helper !== undefined && !textHelper.test(helper);
}

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
