import { commentEnd, hasNoFilter, type Dialect, type Island } from "../dialect.js";

/** `${expression}` of a template literal, braces balanced. */
const dollarBraces = (text: string): Island[] => {
  const islands: Island[] = [];
  for (let at = text.indexOf("${"); at >= 0; at = text.indexOf("${", at)) {
    let depth = 0;
    let end = at + 1;
    for (; end < text.length; end++) {
      const unit = text[end];
      if (unit === "{") depth++;
      else if (unit === "}" && --depth === 0) break;
      else if (unit === '"' || unit === "'") {
        const close = text.indexOf(unit, end + 1);
        if (close < 0) break;
        end = close;
      } else if (unit === "/") {
        const close = commentEnd(text, end);
        if (close > end) end = close;
      }
    }
    islands.push({
      kind: "output",
      start: at,
      end: Math.min(end + 1, text.length),
      codeStart: at + 2,
      codeEnd: end,
    });
    at = end + 1;
  }
  return islands;
};

/** The inside of a template literal that holds markup, which the reader of scripts hands on under this ending. */
export const tagged: Dialect = {
  name: "tagged",
  language: "script",
  extensions: [".template-literal"],
  islands: dollarBraces,
  bindsAttributes: true,
  passesIsland: hasNoFilter,
};
