import { placeholderSyntax } from "./placeholders.js";

/** Names in conversions: `%(name)s`. */
export const percentParen = placeholderSyntax({
  name: "percent-paren",
  signs: { single: "%<" },
  placeholders: ["percent-paren", "percent"],
  recognized: { pattern: /%\([\p{L}_][\w.]*\)[-+ 0#]*(?:[1-9]\d*)?(?:\.\d+)?[dfs]/u },

  pattern:
    /%%|%\(([^()]+)\)([-+ 0#]*(?:[1-9]\d*)?(?:\.\d+)?(?:(?<! )[diouxXeEfFgGcrsa]|(?<= )[diouxXeEfFgGcrsa](?!\p{L})))|%\([^()]*\)?/gu,
  read: ([whole, name, type]) =>
    whole === "%%"
      ? { text: "%" }
      : name === undefined || type === undefined
        ? {
            problem: {
              code: "argument-type",
              name: "no-conversion",
              data: { text: "%(name)s", number: "%(count)d" },
            },
          }
        : { name, nameAt: 2, ...(type !== "s" && { type }) },
  write: ({ name, format }) => `%(${name})${format?.type ?? "s"}`,
  escape: (text) => text.replaceAll("%", "%%"),
});
