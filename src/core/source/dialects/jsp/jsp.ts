import {
  bracedBranches,
  between,
  percentIslands,
  tagsInAttributes,
  type Dialect,
  type Island,
  foreignBraces,
} from "../dialect.js";

const expressionLanguage = (text: string): Island[] => between(text, /[$#]\{/, /\}/, () => "output");

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
  shownMember: [
    ["${", "}"],
    ["#{", "}"],
  ],
  membersInBrackets: true,
  showsRaw: true,
  branches: bracedBranches,
  passesIsland: (island) => island.startsWith("<%"),
};
