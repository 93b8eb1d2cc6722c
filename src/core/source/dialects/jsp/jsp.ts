import { between, matchAll, percentIslands, type Dialect, type Island, foreignBraces } from "../dialect.js";

const expressionLanguage = (text: string): Island[] => between(text, /[$#]\{/, /\}/, () => "output");

/** A tag of a library that stands inside an attribute's value: `value="<c:out value='${x}'/>"`. */
const tagsInAttributes = (text: string): Island[] =>
  matchAll(
    text,
    /(?<==\s?["'][^"'<>\n]{0,200})<[a-z]\w{0,20}:\w{1,40}(?=[\s/])(?:[^<>"']|"[^"<>\n]{0,300}"|'[^'<>\n]{0,300}'){0,40}\/>/g,
    (match) => ({
      kind: "output",
      codeStart: match.index + match[0].length,
      codeEnd: match.index + match[0].length,
    }),
  );

/** Java in percent signs, expressions in `${…}`, and libraries of tags. */
export const jsp: Dialect = {
  name: "jsp",
  language: "java",
  extensions: [".jsp", ".jspf", ".jspx", ".tag", ".tagx"],
  sign: /<%@\s*(?:page|taglib|include|tag)\b|<(?:c|fmt|jsp|form|spring|s):[a-z]\w*[\s/>]/g,
  islands: (text) => [...percentIslands(text, false), ...expressionLanguage(text), ...tagsInAttributes(text)],
  codeInScripts: true,
  hasLooseLookups: true,
  elementsInText: true,
  foreign: foreignBraces,
  bindsAttributes: true,
  shown: ["<%= ", " %>"],
  showsRaw: true,
  passesIsland: (island) => island.startsWith("<%"),
};
