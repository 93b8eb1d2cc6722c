import { dollarBraces, hasNoFilter, type Dialect } from "../dialect.js";

/** The inside of a template literal that holds markup, which the reader of scripts hands on under this ending. */
export const tagged: Dialect = {
  name: "tagged",
  language: "script",
  extensions: [".template-literal"],
  islands: dollarBraces,
  bindsAttributes: true,
  passesIsland: hasNoFilter,
};
