import { placeholderSyntax } from "./placeholders.js";

/** A percent sign with braces: `%{name}`. */
export const percentBrace = placeholderSyntax({
  name: "percent-brace",
  signs: { single: "%<" },
  placeholders: ["percent-brace"],
  recognized: { pattern: /%\{[\p{L}_][\w.]*\}/u },

  pattern: /%%(?=\{)|%\{\s*([\p{L}_][\p{L}\p{N}_.]*)\s*\}|%\{/gu,
  read: ([whole, name]) =>
    whole === "%%"
      ? { text: "%" }
      : name === undefined
        ? {
            problem: {
              code: "argument-unclosed",
              name: "incomplete-percent-brace",
              data: { placeholder: "%{name}", escaped: "%%{" },
            },
          }
        : { name, nameAt: whole.indexOf(name) },
  write: ({ name }) => `%{${name}}`,
  escape: (text) => text.replace(/%(?=\{)/g, "%%"),
});
