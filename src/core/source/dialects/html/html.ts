import {
  hasNoFilter,
  matchAll,
  ownIslands,
  tagsInAttributes,
  type Dialect,
  type Island,
} from "../dialect.js";
import { decorated } from "./owners.js";

/** Double braces alone: a third brace beside them belongs to the text, as in messages with plurals. */
const twoBraces = (text: string): Island[] =>
  matchAll(text, /\{\{(?!\{)((?:[^{}]|\{[^{}]*\})*)\}\}/g, (match) => ({
    kind: "output",
    codeStart: match.index + 2,
    codeEnd: match.index + match[0].length - 2,
  }));

/** `@if (…) {`, `@else {`, and the braces that close them. */
const blocks = (text: string): Island[] => {
  const pattern =
    /@(?:if|else if|else|for|switch|case|default|empty|defer|placeholder|loading|error)\b(?:[^{}<>()]{0,100}\([^{}]{0,400}\))?[^{}<>]{0,200}\{/g;
  if (!pattern.test(text)) return [];
  pattern.lastIndex = 0;
  return [
    ...matchAll(text, pattern, (match) => ({
      kind: "code",
      codeStart: match.index + 1,
      codeEnd: match.index + match[0].length - 1,
    })),
    ...matchAll(text, /(?<![}\w'"])\}(?!\})/g, (match) => ({
      kind: "code",
      codeStart: match.index,
      codeEnd: match.index,
    })),
  ];
};

/** Tags of template languages that have signs of their own: `<#if late>`, `<#name/>`, `<@panel>`. */
const signedTags = (text: string): Island[] =>
  matchAll(text, /<\/?[#@][A-Za-z][^<>]{0,400}>/g, (match) => ({
    kind: "code",
    codeStart: match.index + 2,
    codeEnd: match.index + match[0].length - 1,
  }));

/** Pages, and templates of components with expressions in double braces. What no other dialect claims by its content is read so. */
export const html: Dialect = {
  name: "html",
  language: "script",
  elementBindings: String.raw`^v-for="[^"]*?NAME[^"]*?\s(?:in|of)\s|^(?:v-slot[\w:.-]*|#[\w.-]*|slot-scope)="[^"]*?NAME|^\*ngFor="[^"]*?\blet NAME|^let-NAME=|^(?:data-)?ng-repeat="[^"]*?NAME[^"]*?\sin\s`,
  extensions: [],
  sign: /@(?:if|else if|else|for|switch|case|default|empty|defer)\b[^{}<>\n]{0,200}\{(?!\{|!!)|\s(?:\*[a-z]|\(\w{1,30}\)=|\[[\w.]{1,30}\]=)/g,
  islands: (text) => [
    ...twoBraces(text),
    ...ownIslands(text),
    ...signedTags(text),
    ...blocks(text),
    ...tagsInAttributes(text),
  ],
  bindsAttributes: true,
  asItIs: "ngNonBindable",
  filtersInBrackets: true,
  owners: decorated,
  passesIsland: hasNoFilter,
};
