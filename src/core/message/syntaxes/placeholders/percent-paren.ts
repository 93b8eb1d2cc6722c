import { placeholderSyntax } from "./placeholders.js";

/**
 * Names in conversions: `%(name)s`; and values that one message takes in their order, as another may: `%s`. The letters of dates
 * (`%d/%m/%Y`) are none.
 */
export const percentParen = placeholderSyntax({
  name: "percent-paren",
  signs: { single: "%<" },
  placeholders: ["percent-paren", "percent"],
  countsUnnamed: true,
  recognized: { pattern: /%\([\p{L}_][\w.]*\)[-+ 0#]*(?:[1-9]\d*)?(?:\.\d+)?[dfs]/u },

  pattern:
    /%%|%\(([^()]+)\)([-+ 0#]*(?:[1-9]\d*)?(?:\.\d+)?(?:(?<! )[diouxXeEfFgGcrsa]|(?<= )[diouxXeEfFgGcrsa](?!\p{L})))|%([-+0#]*(?:[1-9]\d?)?(?:\.\d{1,3})?[dfirs])(?!\p{L}|[-/.:, ]{0,2}%[ABHIMSYbjmpy])(?<!%[ABHIMSYbjmpy][-/.:, ]{0,2}%\w)|%\([^()]*\)?/gu,
  read: ([whole, name, type, inOrder], counted) => {
    if (whole === "%%") return { text: "%" };
    if (inOrder !== undefined) return { name: String(counted()), ...(inOrder !== "s" && { type: inOrder }) };
    return name === undefined || type === undefined
      ? {
          problem: {
            code: "argument-type",
            name: "no-conversion",
            data: { text: "%(name)s", number: "%(count)d" },
          },
        }
      : { name, nameAt: 2, ...(type !== "s" && { type }) };
  },
  write: ({ name, format }) => `%${/^\d+$/.test(name) ? "" : `(${name})`}${format?.type ?? "s"}`,
  escape: (text) => text.replaceAll("%", "%%"),
});
