import { percentIslands, type Dialect } from "../dialect.js";

/** Ruby in percent signs: `<%= name %>`. */
export const erb: Dialect = {
  name: "erb",
  language: "ruby",
  extensions: [".erb", ".rhtml"],
  sign: /<%[=-]? ?(?:[\w@.]{1,80} do\b|(?:if|unless) [^({]|end\b|else ?-?%>|elsif\b|@\w|link_to\b|render\b|content_for\b)/g,
  islands: (text) => percentIslands(text, false),
  codeInScripts: true,
  bindsAttributes: true,
  shown: ["<%= ", " %>"],
  passesIsland: () => true,
};
