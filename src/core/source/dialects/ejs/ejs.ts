import { bracedBranches, passesButRaw, percentIslands, type Dialect, foreignBraces } from "../dialect.js";

/** JavaScript in percent signs: `<%= name %>`. */
export const ejs: Dialect = {
  name: "ejs",
  language: "script",
  extensions: [".ejs"],
  sign: /<%[-_]? ?(?:var|let|const|\}|if ?\(|for ?\()|\{ ?[-_]?%>|<%[-=] ?[\w$.]+[ %]|<% ?[\w$.]{1,80}\([^<>%\n]{0,200}\); ?-?%>/g,
  islands: (text) => percentIslands(text, true),
  isScripted: true,
  codeInScripts: true,
  foreign: foreignBraces,
  blockBindings: [
    {
      binds: String.raw`\([^()]*NAME[^()]*\)\s*=>\s*\{|NAME\s*=>\s*\{|\bfunction\s*\w*\s*\([^()]*NAME[^()]*\)\s*\{|\bfor\s*\(\s*(?:var|let|const)\s+[^()]*?NAME[^()]*?\s(?:of|in)\s`,
      opens: /\{/,
      closes: /\}/,
    },
  ],
  bindsAttributes: true,
  shown: ["<%= ", " %>"],
  branches: bracedBranches,
  passesIsland: passesButRaw("<%-"),
};
