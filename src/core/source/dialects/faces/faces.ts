import { between, hasNoFilter, type Dialect, type Island } from "../dialect.js";

const expressions = (text: string): Island[] => between(text, /[$#]\{/, /\}/, () => "output");

/** Pages of components with expressions in `#{…}` (Jakarta Faces 4.0, 2.1; Jakarta Expression Language 5.0). */
export const faces: Dialect = {
  name: "faces",
  language: "expression",
  extensions: [],
  sign: /<(?:h|f|ui|composite|cc):[a-zA-Z]\w*[\s/>]|\sxmlns:\w{1,20}\s?=\s?"[^"]{0,80}(?:\/jsf\/|\/jsf"|jakarta\.faces|\/facelets)/g,
  islands: expressions,
  elementsInText: true,
  bindsAttributes: false,
  shownMember: [
    ["#{", "}"],
    ["${", "}"],
  ],
  membersInBrackets: true,
  passesIsland: hasNoFilter,
};
