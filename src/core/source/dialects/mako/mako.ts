import { between, dollarBraces, hasNoFilter, matchAll, type Dialect } from "../dialect.js";

/** Python in `${…}` and `<% … %>`, lines of control behind a percent sign, and tags such as `<%block name="title">`. */
export const mako: Dialect = {
  name: "mako",
  language: "expression",
  extensions: [".mako", ".mak"],
  sign: /\$\{ ?(?:_|n?gettext)\(|<%(?:def|block|inherit|namespace|page|include|call|text|doc)\b|<%!|^[ \t]{0,40}% ?(?:if|for|while|else|elif|endif|endfor|endwhile|try|except|endtry)\b/gm,
  islands: (text) => [
    ...between(text, /<%doc>/, /<\/%doc>/, () => "comment"),
    ...matchAll(text, /^[ \t]{0,200}##([^\n]{0,2000})$/gm, ({ index, 0: all, 1: said = "" }) => ({
      kind: "comment",
      codeStart: index + all.length - said.length,
      codeEnd: index + all.length,
    })),
    ...matchAll(text, /^[ \t]{0,200}%(?!%)([^\n]{0,2000})$/gm, ({ index, 0: all, 1: code = "" }) => ({
      kind: "code",
      codeStart: index + all.length - code.length,
      codeEnd: index + all.length,
    })),
    ...matchAll(text, /<\/?%[a-z][\w.:]{0,80}((?:\s[^<>]{0,500})?)\/?>/g, ({ index, 0: all }) => ({
      kind: "code",
      codeStart: index + all.length,
      codeEnd: index + all.length,
    })),
    ...between(text, /<%!?(?![a-z])/, /%>/, () => "code"),
    ...dollarBraces(text),
  ],
  codeInScripts: true,
  bindsAttributes: false,
  shown: ["${", "}"],
  branches: {
    head: /%\s{0,9}if\s{1,9}$/,
    tail: /^\s{0,9}:/,
    otherwise: /%\s{0,9}else\s{0,9}:/,
    end: /%\s{0,9}endif\b/,
    next: /%\s{0,9}(?:else|elif|endif)/,
  },
  passesIsland: hasNoFilter,
};
