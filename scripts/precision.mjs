// Draws a sample of lint's findings in real catalogs for a person to judge, and keeps the counts.
//
//   npm run precision -- LIST [--each 10] [--seed 1] [--rule ID]     LIST: a file with one folder a line
//   npm run precision -- --tally FILE                                FILE: the sample with + (true) or - (false) before each line
//
// Each folder is linted as it is, without a configuration or with its own. The list, the texts and the judged sample stay outside
// of the repository; docs/rules-precision.json has the counts alone.
import { spawnSync } from "node:child_process";
import { existsSync, readFileSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { parseArgs } from "node:util";

const root = dirname(dirname(fileURLToPath(import.meta.url)));
const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: {
    each: { type: "string", default: "10" },
    seed: { type: "string", default: "1" },
    rule: { type: "string" },
    tally: { type: "string" },
  },
});

if (values.tally) tally(values.tally);
else draw(positionals[0]);

/** Prints as many findings of each rule as are wanted, by chance, errors first: rule, level, locale, place, texts, message. */
function draw(list) {
  if (list === undefined) throw new Error("give a file with one folder a line");
  let state = Number(values.seed);
  const random = () => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return state / 2 ** 32;
  };
  const byRule = new Map();
  for (const folder of readFileSync(list, "utf8")
    .split("\n")
    .map((line) => line.trim())
    .filter(Boolean)) {
    const { stdout, stderr } = spawnSync(
      process.execPath,
      [join(root, "dist/bin/main.js"), "lint", "--format", "json"],
      { cwd: folder, encoding: "utf8", maxBuffer: 2 ** 30 },
    );
    if (stdout === "") {
      console.error(`${folder}: ${stderr.trim().slice(0, 300)}`);
      continue;
    }
    const { findings } = JSON.parse(stdout);
    console.error(`${folder}: ${findings.length} findings`);
    for (const finding of findings) {
      if (values.rule !== undefined && finding.rule !== values.rule) continue;
      const all = byRule.get(finding.rule) ?? [];
      byRule.set(finding.rule, all);
      all.push({ folder, ...finding });
    }
  }
  for (const [rule, all] of [...byRule].sort()) {
    console.log(`# ${rule}: ${all.length}`);
    for (let left = Math.min(Number(values.each), all.length); left > 0; left--) {
      const [one] = all.splice(Math.floor(random() * all.length), 1);
      const path = join(one.folder, one.file);
      const line = existsSync(path) ? (readFileSync(path, "utf8").split(/\r?\n/)[one.line - 1] ?? "") : "";
      console.log(
        `  ${rule} ${one.severity} ${one.locale ?? ""} ${one.key ?? ""} | ${one.message} | ${line.trim().slice(0, 220)}`,
      );
    }
  }
}

/** Adds what a person judged to the counts: true and judged, by rule. */
function tally(file) {
  const path = join(root, "docs/rules-precision.json");
  const counts = JSON.parse(readFileSync(path, "utf8"));
  for (const line of readFileSync(file, "utf8").split("\n")) {
    const [, mark, rule] = /^([+-])\s+([a-z]+\/[a-z-]+) /.exec(line) ?? [];
    if (rule === undefined) continue;
    const count = (counts[rule] ??= { judged: 0, right: 0 });
    count.judged++;
    if (mark === "+") count.right++;
  }
  writeFileSync(path, `${JSON.stringify(Object.fromEntries(Object.entries(counts).sort()), null, 2)}\n`);
}
