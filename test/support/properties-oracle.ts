import { spawnSync } from "node:child_process";
import { join } from "node:path";
import fc from "fast-check";
import { fromHex, toHex } from "./hex.js";
import { root } from "./project.js";

/** What java.util.Properties makes of a text: keys and values sorted by key, or that it refuses it. */
export interface PropertiesCase {
  readonly text: string;
  readonly entries: readonly (readonly [string, string])[] | "refused";
}

const piece = fc.constantFrom(
  ..."ab=: \t\f\n\r\\#!é0u".split(""),
  "\\\n",
  "\\\r\n",
  "\\\r",
  "\r\n",
  "\\u00e9",
  "\\u00E9",
  "\\u00",
  "\\=",
  "\\:",
  "\\ ",
  "\\#",
  "\\\\",
  "\\n",
  "\\t",
  "key",
  "a.b",
  " = ",
  ": ",
  "日本",
  "  ",
  "\\\n   \\\n",
  "# note\n",
  "! note\r\n",
  "👍",
);

/** Texts that exercise the format, the same for the same seed. */
export function propertiesTexts(seed: number, count: number): string[] {
  return fc.sample(
    fc.array(piece, { maxLength: 14 }).map((pieces) => pieces.join("")),
    { seed, numRuns: count },
  );
}

/** Asks the JDK on this machine; undefined where there is none. */
export function askJava(texts: readonly string[]): PropertiesCase[] | undefined {
  const { status, stdout } = spawnSync("java", [join(root, "test/oracle/PropertiesOracle.java")], {
    input: texts.map(toHex).join("\n") + "\n",
    encoding: "ascii",
  });
  if (status !== 0) return undefined;
  const answers = stdout.split(/\r?\n/);
  return texts.map((text, index) => {
    const answer = answers[index] ?? "";
    if (answer === "refused") return { text, entries: "refused" };
    const entries = answer
      .split(";")
      .filter(Boolean)
      .map((pair): [string, string] => {
        const [name = "", value = ""] = pair.split("=");
        return [fromHex(name), fromHex(value)];
      });
    return { text, entries };
  });
}
