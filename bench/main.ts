import { parseSync } from "oxc-parser";
import { memoryFiles } from "../src/core/files/memory-files.js";
import { lintProject, openProject, surveyProject, type Project } from "../src/core/project/project.js";
import { jsonCatalogs, thirtyLocales, tsxFiles } from "./generate.js";
import { shortest, showComparison } from "./measure.js";

/** Opens a made-up project of one book. */
function project(files: Record<string, string>, code: readonly string[]): Project {
  const config = {
    source: "en",
    targets: thirtyLocales.slice(1),
    books: [{ name: "bench", code, files: "web/locales/{locale}.json" }],
  };
  const opened = openProject(memoryFiles({ ...files, "fond.config.json": JSON.stringify(config) }));
  if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
  return opened.project;
}

function megabytes(files: Record<string, string>): string {
  return (Object.values(files).reduce((sum, text) => sum + text.length, 0) / 1e6).toFixed(1);
}

console.log("Ratios of one run on this machine; the shortest of three for each side.\n");

const code = tsxFiles(1300, 5400);
const coded = project(code, ["web/**/*.tsx"]);
console.log(`Survey of ${Object.keys(code).length} TSX files, ${megabytes(code)} MB`);
const parsing = await shortest(3, () => {
  // The tree is made in JavaScript when `program` is first read.
  for (const [file, text] of Object.entries(code)) void parseSync(file, text).program;
});
const surveying = await shortest(3, () => surveyProject(coded));
console.log(
  showComparison({
    what: "survey",
    against: "parsing the same files",
    milliseconds: surveying,
    baseline: parsing,
    aim: 1.5,
  }),
);

const catalogs = jsonCatalogs(thirtyLocales, 3400);
const linted = project(catalogs, []);
console.log(
  `\nLint of ${Object.keys(catalogs).length} JSON catalogs, ${3400 * thirtyLocales.length} messages, ${megabytes(catalogs)} MB`,
);
const reading = await shortest(3, () => {
  for (const text of Object.values(catalogs)) JSON.parse(text);
});
const linting = await shortest(3, () => lintProject(linted));
console.log(
  showComparison({
    what: "lint",
    against: "JSON.parse of the same files",
    milliseconds: linting,
    baseline: reading,
    aim: 4,
  }),
);
