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
  isOther: namesTimes,
});

/** The least number of directives for times, and of those among them that `printf` does not know, by which a text tells of such. */
const fewest = 5;
const fewestOwn = 3;

/** Whether a text tells how times are written (POSIX, `strftime`): `%H` is the hour in it, and `%d` the day. */
function namesTimes(text: string): boolean {
  const found = text.match(/%[a-zA-Z]/g) ?? [];
  return (
    found.length >= fewest &&
    found.filter((one) => /[YymHIMjUwWBkVZ]/.test(one)).length >= fewestOwn &&
    found.every((one) => /[aAbBcdDeFgGhHIjklmMnpPrRsSTuUVwWxXyYzZ]/.test(one))
  );
}
