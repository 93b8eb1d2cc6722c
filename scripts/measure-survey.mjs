// How well the survey judges: reads the labelled files in test/fixtures/survey, in which guillemets stand around what
// users read, and prints recall (of what users read, how much is called text) and precision (of what is called text, how
// much users read) for each host language. `tuned` was looked at while the weights were set, `held` was not.
import { readdirSync, readFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { measureFile } from "../dist/test/support/labels.js";

const folder = join(dirname(dirname(fileURLToPath(import.meta.url))), "test", "fixtures", "survey");
const verbose = process.argv.includes("--verbose");
for (const half of ["tuned", "held"]) {
  const sums = new Map();
  for (const name of readdirSync(join(folder, half)).sort()) {
    const result = await measureFile(name, readFileSync(join(folder, half, name), "utf8"));
    for (const group of [result.language, "all"]) {
      const sum = sums.get(group) ?? { literals: 0, labelled: 0, found: 0, shown: 0, called: 0, right: 0 };
      for (const key of Object.keys(sum)) sum[key] += result[key];
      sums.set(group, sum);
    }
    if (verbose && half === "tuned")
      for (const line of [...result.missed, ...result.wrong]) console.log(`${name}: ${line}`);
  }
  console.log(`\n${half}\nlanguage  literals  labelled   recall    shown  precision`);
  for (const [language, { literals, labelled, found, shown, called, right }] of sums)
    console.log(
      `${language.padEnd(9)} ${String(literals).padStart(8)} ${String(labelled).padStart(9)} ${(100 * (found / labelled)).toFixed(1).padStart(7)}% ${(100 * (shown / labelled)).toFixed(1).padStart(7)}% ${(100 * (right / called)).toFixed(1).padStart(9)}%`,
    );
}
