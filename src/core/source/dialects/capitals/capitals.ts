import { matchAll, type Dialect } from "../dialect.js";

/**
 * Tags with a prefix, all in capitals, which may stand in attributes too: `<PAGE_IF boats>`, `<PAGE_VAR NAME="boat">`,
 * `</PAGE_IF>`, also in comments: `<!-- PAGE_VAR boat -->`.
 */
export const capitals: Dialect = {
  name: "capitals",
  language: "expression",
  extensions: [],
  sign: /<(?:!-- ?)?\/?[A-Z]{2,6}_(?:VAR|IF|UNLESS|ELSE|ELSIF|LOOP|INCLUDE)\b/g,
  islands: (text) =>
    matchAll(
      text,
      /<(?:!--\s{0,9})?(\/?)[A-Z]{2,6}_(VAR|IF|UNLESS|ELSE|ELSIF|LOOP|INCLUDE)\b((?:[^<>"']|"[^"<>\n]{0,300}"|'[^'<>\n]{0,300}'){0,40})>/g,
      ({ index, 0: all, 1: slash = "", 2: word = "", 3: rest = "" }) => {
        if (word !== "VAR") {
          const codeStart = index + all.indexOf(slash === "" ? `_${word}` : "/") + (slash === "" ? 1 : 0);
          return { kind: "code", codeStart, codeEnd: index + all.length - rest.length - 1 };
        }
        // What is put out is named by itself, or as NAME.
        const [, before = "", name = ""] =
          /(?<=\s)(NAME\s{0,9}=\s{0,9}["']?)([\w.:-]{1,80})/i.exec(rest) ??
          /^(\s{1,9}["']?)([\w.:-]{1,80})/.exec(rest) ??
          [];
        const at = rest.indexOf(before + name);
        const codeStart = index + all.length - 1 - rest.length + at + before.length;
        return { kind: "output", codeStart, codeEnd: codeStart + name.length };
      },
    ),
  codeInScripts: true,
  bindsAttributes: false,
  // Such tags put values out, and give them to nothing.
  passesIsland: () => false,
};
