import { spawnSync } from "node:child_process";
import { join } from "node:path";
import fc from "fast-check";
import { fromHex, toHex } from "./hex.js";
import { root } from "./project.js";

/** What java.text.MessageFormat makes of a pattern: the text it shows, or that it refuses it, or these values. */
export interface MessageCase {
  readonly pattern: string;
  readonly shown: string | "refused" | "untold";
}

const blank = fc.constantFrom("", "", "", " ", "  ", "\t");
const number = fc.constantFrom("0", "1", "2", "3", "+1", "-1", "01", "٣", "x", "", "1.0", "1e0");
const type = fc.constantFrom(
  "number",
  "date",
  "time",
  "choice",
  "Number",
  "DATE",
  "numbr",
  "",
  " ",
  "string",
  "'number'",
);
const numberUnits = fc
  .array(
    fc.constantFrom(
      "#",
      "0",
      ",",
      ".",
      ";",
      "%",
      "E",
      "'",
      "-",
      "\u2030",
      "a",
      " ",
      "\u00a4",
      "#,##0",
      "0.00",
      "''",
    ),
    { maxLength: 7 },
  )
  .map((all) => all.join(""));
const dateUnits = fc
  .array(
    fc.constantFrom("d", "MM", "yyyy", "'", "''", "T", "b", "X", "XXXX", ".", " ", "HH:mm", "'at'", "E", "ä"),
    { maxLength: 6 },
  )
  .map((all) => all.join(""));
const limits = fc
  .array(
    fc.constantFrom(
      "0",
      "1",
      "2",
      "-1",
      "1.5",
      "#",
      "<",
      "\u2264",
      "|",
      "none",
      "\u221e",
      "-\u221e",
      " ",
      "'",
      "''",
      "1e3",
      "NaN",
      "0#no|1#one",
      "x",
    ),
    { maxLength: 9 },
  )
  .map((all) => all.join(""));
const style = fc.oneof(
  fc.constantFrom("", "integer", " percent ", "currency", "short", "long", "full", "medium", "INTEGER"),
  numberUnits,
  dateUnits,
  limits,
);
const argument = fc
  .tuple(blank, number, blank, fc.option(fc.tuple(blank, type, blank, fc.option(style))))
  .map(
    ([before, name, after, format]) =>
      `{${before}${name}${after}${
        format ? `,${format[0]}${format[1]}${format[2]}${format[3] === null ? "" : `,${format[3]}`}` : ""
      }}`,
  );
const plain = fc.constantFrom("Boat ", "it's ", "''", "'", "'{'", "'{0}'", "}", " of ", "<b>", "\n", "é");

/** Patterns that exercise the class, the same for the same seed. Braces in them are closed. */
export function messagePatterns(seed: number, count: number): string[] {
  return fc.sample(
    fc
      .array(fc.oneof({ weight: 2, arbitrary: argument }, plain), { minLength: 1, maxLength: 5 })
      .map((all) => all.join("")),
    { seed, numRuns: count },
  );
}

/** Asks the JDK on this machine; undefined where there is none. */
export function askMessageFormat(patterns: readonly string[]): readonly MessageCase[] | undefined {
  const { status, stdout } = spawnSync("java", [join(root, "test/oracle/MessageOracle.java")], {
    input: patterns.map(toHex).join("\n") + "\n",
    encoding: "ascii",
    maxBuffer: 1 << 27,
  });
  if (status !== 0) return undefined;
  const answers = stdout.split(/\r?\n/);
  return patterns.map((pattern, index) => {
    const answer = answers[index] ?? "";
    return { pattern, shown: answer.startsWith("=") ? fromHex(answer.slice(1)) : (answer as "refused") };
  });
}
