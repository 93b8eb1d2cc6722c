import { spawnSync } from "node:child_process";
import { join } from "node:path";
import fc from "fast-check";
import { root } from "./project.js";

/** What ICU4J makes of a message in a locale with a number; null where it refuses the message. */
export interface IcuCase {
  readonly message: string;
  readonly locale: string;
  readonly n: number;
  readonly text: string | null;
}

export type IcuQuestion = Omit<IcuCase, "text">;

/** Locales whose rules for small numbers have not changed since the ICU4J that Debian carries. */
export const oracleLocales = [
  "en",
  "de",
  "pl",
  "ru",
  "cs",
  "lt",
  "lv",
  "sl",
  "ga",
  "cy",
  "ro",
  "ja",
  "hr",
  "sv",
  "it",
  "uk",
];

const categories = ["zero", "one", "two", "few", "many", "other", "=0", "=1", "=2"];

const text = fc.constantFrom(
  "a",
  "Mara ",
  "it's",
  "''",
  "'{'",
  "'#'",
  "#",
  "'",
  " ",
  "o''clock",
  "é",
  "'{n}'",
  "\n",
  "x'{'y'}'z",
  "<b>",
  "|",
  "100%",
);
const space = fc.constantFrom("", " ", "\n\t", "  ");
const simple = fc
  .tuple(space, fc.constantFrom("name", "n", "kind"), space)
  .map(([a, name, b]) => `{${a}${name}${b}}`);
const broken = fc.constantFrom(
  "{",
  "}",
  "{n",
  "{}",
  "{ }",
  "{n,}",
  "{n,plural}",
  "{n,plural,}",
  "{n,select,a{x}}",
  "{n,plural,one{x}}",
  "{n, plural, other}",
  "{0a}",
  "{a b}",
  "{-1}",
  "{n,plural,=a{x}other{y}}",
  "{n,plural,offset:x other{y}}",
);

/** Messages as people write them, and as they get them wrong. */
const message: fc.Arbitrary<string> = fc.letrec<{ message: string; part: string; choice: string }>((tie) => ({
  message: fc.array(tie("part"), { maxLength: 5 }).map((parts) => parts.join("")),
  part: fc.oneof(
    { maxDepth: 3, withCrossShrink: true },
    { weight: 6, arbitrary: text },
    { weight: 2, arbitrary: simple },
    { weight: 3, arbitrary: tie("choice") },
    { weight: 1, arbitrary: broken },
  ),
  choice: fc.oneof(
    fc
      .tuple(
        space,
        fc.constantFrom("plural", "selectordinal"),
        space,
        fc.constantFrom("", "", " offset:1"),
        fc.uniqueArray(fc.constantFrom(...categories), { maxLength: 4 }),
        fc.array(tie("message"), { minLength: 5, maxLength: 5 }),
      )
      .map(([a, type, b, offset, chosen, inner]) => {
        const branches = [...chosen.filter((one) => one !== "other"), "other"].map(
          (one, at) => `${b}${one}${a}{${inner[at] ?? ""}}`,
        );
        return `{${a}n${b},${a}${type}${b},${offset} ${branches.join(" ")}${b}}`;
      }),
    fc
      .tuple(fc.array(tie("message"), { minLength: 2, maxLength: 2 }), fc.constantFrom("sea", "land"), space)
      .map(
        ([inner, chosen, a]) =>
          `{kind,${a}select,${a}${chosen}${a}{${inner[0] ?? ""}}${a}other{${inner[1] ?? ""}}${a}}`,
      ),
  ),
})).message;

/** Questions to ask, the same for the same seed. */
export function icuQuestions(seed: number, count: number): IcuQuestion[] {
  return fc.sample(
    fc.record({
      message,
      locale: fc.constantFrom(...oracleLocales),
      n: fc.constantFrom(0, 1, 2, 3, 4, 5, 7, 8, 11, 12, 20, 21, 22, 101),
    }),
    { seed, numRuns: count },
  );
}

/** Asks ICU4J on this machine; undefined where it is not there. */
export function askIcu(questions: readonly IcuQuestion[]): IcuCase[] | undefined {
  const encode = (given: string) =>
    Array.from({ length: given.length }, (_, at) => given.charCodeAt(at).toString(16).padStart(4, "0")).join(
      "",
    );
  const { status, stdout } = spawnSync(
    "java",
    ["-cp", "/usr/share/java/icu4j.jar", join(root, "test/oracle/IcuOracle.java")],
    {
      input: questions.map((one) => [encode(one.message), one.locale, one.n].join("\t")).join("\n") + "\n",
      encoding: "ascii",
      maxBuffer: 1 << 28,
    },
  );
  if (status !== 0) return undefined;
  const answers = stdout.split(/\r?\n/);
  return questions.map((one, index) => {
    const answer = answers[index] ?? "";
    const decoded = (answer.slice(1).match(/.{4}/g) ?? [])
      .map((unit) => String.fromCharCode(parseInt(unit, 16)))
      .join("");
    return { ...one, text: answer.startsWith("=") ? decoded : null };
  });
}

/** Messages with styles, valid and not: number skeletons and patterns, date skeletons and patterns. */
export function styleQuestions(seed: number, count: number): IcuQuestion[] {
  const numberToken = fc.constantFrom(
    ...(
      "compact-short compact-shrt K KK KKK % %x100 percent permille precent currency/EUR currency/EU currency/ currency " +
      "measure-unit/length-meter measure-unit/meter unit/meter unit/kilometer-per-hour unit/ unit .00 .## .00# .#0 .00+ .00* " +
      ".0/@@r .00/@@s .00/w @@@ @@# @#@ @@+ 000 integer-width/+00 integer-width/##00 integer-width/0# integer-width scale/x " +
      "scale/ group-off ,_ ,? ,! ,x +! +_ +? +- () ()! ()? ()- sign-always sign-alway scientific scientific/*ee engineering " +
      "E0 EE0 E+!00 E rounding-mode-half-up rounding-mode precision-integer precision-increment/0.05 precision-increment " +
      "unit-width-narrow notation-simple . .. hello percent/x group-auto"
    ).split(" "),
  );
  const message = fc.oneof(
    fc
      .array(numberToken, { minLength: 1, maxLength: 3 })
      .map((tokens) => `{n, number, ::${tokens.join(" ")}}`),
    fc
      .array(fc.constantFrom(..."yMdEHmszQwGaBvtnpTPiN".split(""), "MMM", "dd", "yyyy"), {
        minLength: 1,
        maxLength: 3,
      })
      .map((fields) => `{n, date, ::${fields.join("")}}`),
    fc
      .array(fc.constantFrom(..."yMdEHhmszQwGatnpTjJC'".split(""), "MMM", "'of'", " ", "/", ","), {
        minLength: 1,
        maxLength: 5,
      })
      .map((parts) => `{n, date, ${parts.join("")}}`),
    fc
      .tuple(
        fc.constantFrom("", "¤", "-", "about "),
        fc.constantFrom(
          "#,##0.00",
          "0",
          "#0.0#",
          "#,##0",
          "00",
          "@@#",
          "0#",
          "0.#0",
          "#,",
          "0,",
          "#,,#",
          "0.0.0",
          "#0#",
        ),
        fc.constantFrom("", "%", " kg", ";(0)", ";(0);0"),
      )
      .map((parts) => `{n, number, ${parts.join("")}}`),
  );
  return fc.sample(message, { seed, numRuns: count }).map((one) => ({ message: one, locale: "en", n: 3 }));
}
