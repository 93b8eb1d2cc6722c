import { placeholderSyntax } from "./placeholders.js";

/** Conversions of `printf` (ISO C, POSIX): `%s`, `%2$d`, with the places counted from 1. */
export const printf = placeholderSyntax({
  name: "printf",
  signs: { single: "%<" },
  placeholders: ["percent"],
  recognized: { pattern: /%(?:\d+\$)?[-+0]*(?:[1-9]\d*)?(?:\.\d*)?(?:[sd@f]|l?[dux])(?![\p{L}])/u },
  numberedFrom: 1,

  pattern:
    /%%|%(?:(\d+)\$)?((?:[-+0#,']|(?<=%) (?=[dif](?!\p{L})))*(?:[1-9]\d*|\*)?(?:\.(?:\d+|\*))?(?:hh|h|ll|l|q|L|z|j|t)?[diouxXeEfFgGaAcCsSpn@bvqT])|%(?=[{([]|$)/gu,
  read: ([whole, place, type], counted) => {
    if (whole === "%%") return { text: "%" };
    if (type === undefined) return { problem: { code: "argument-type", name: "bare-percent", data: {} } };
    if (place !== undefined && Number(place) === 0)
      return { problem: { code: "argument-name", name: "place-zero", data: {} } };
    return {
      name: place ?? String(counted()),
      ...(place !== undefined && { nameAt: 1 }),
      ...(type !== "s" && { type }),
    };
  },
  write: ({ name, format }, index) => `%${name === String(index) ? "" : `${name}$`}${format?.type ?? "s"}`,
  escape: (text) => text.replaceAll("%", "%%"),
});
