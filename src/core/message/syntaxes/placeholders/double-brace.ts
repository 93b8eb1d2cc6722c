import { placeholderSyntax } from "./placeholders.js";

/** Double braces: `{{name}}`, `{{price, format}}`; what opens and closes a part of a text, `{{#late}}…{{/late}}`, is a value by its whole name. */
export const doubleBrace = placeholderSyntax({
  name: "double-brace",
  signs: { single: "{}<" },
  placeholders: ["double-brace"],
  recognized: { pattern: /\{\{[-#^]?\s*[\p{L}_$][\w.$:-]*\s*(?:,[^{}]*)?\}\}/u },

  pattern: /\{\{(-?\s*)([#^/]?[\p{L}\p{N}_$][\p{L}\p{N}_$.:-]*)\s*(?:,([^{}]*))?\}\}|\{\{/gu,
  read: ([whole, lead = "", name, type]) =>
    name === undefined
      ? {
          problem: {
            code: "argument-unclosed",
            name: "incomplete-placeholder",
            data: { placeholder: "{{name}}" },
          },
        }
      : {
          name,
          nameAt: whole.indexOf(name, 2 + lead.length),
          ...(type !== undefined && type.trim() !== "" && { type: type.trim() }),
        },
  write: ({ name, format }) => `{{${name}${format ? `, ${format.type}` : ""}}}`,
  escape: (text) => text,
});
