import { spawnSync } from "node:child_process";
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { parseSync } from "oxc-parser";
import { memoryFiles } from "../src/core/files/memory-files.js";
import { applyPlan } from "../src/core/plan/apply.js";
import { extractProject } from "../src/core/project/extract-project.js";
import type { RunCache, WorkReading } from "../src/core/project/file-work.js";
import { openProject, type Project } from "../src/core/project/project.js";
import { reconcileProject } from "../src/core/project/reconcile-project.js";
import { surveyProject } from "../src/core/project/survey-project.js";
import { diskFiles } from "../src/disk/disk-files.js";
import { diskCache } from "../src/disk/run-cache.js";
import { threadsFor } from "../src/disk/threads.js";
import { againBench } from "./again.js";
import { catalogBench } from "./catalogs.js";
import { jsonCatalogs, thirtyLocales, tsxFiles, yamlOf } from "./generate.js";
import { messageBench } from "./messages.js";
import { scaleBench } from "./scale.js";
import { shortest, shortestInTurn, showComparison } from "./measure.js";

function configFor(code: readonly string[], files = "web/locales/{locale}.json"): object {
  return {
    source: "en",
    targets: thirtyLocales.slice(1),
    books: [{ name: "bench", code, files }],
  };
}

/** Opens a made-up project of one book. */
function project(
  files: Record<string, string>,
  code: readonly string[],
  pattern = "web/locales/{locale}.json",
): Project {
  const config = JSON.stringify(configFor(code, pattern));
  const opened = openProject(memoryFiles({ ...files, "fond.config.json": config }));
  if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
  return opened.project;
}

function megabytes(files: Record<string, string>): string {
  return (Object.values(files).reduce((sum, text) => sum + text.length, 0) / 1e6).toFixed(1);
}

console.log("Ratios of one run on this machine; the shortest of several for each side.\n");
const parts = process.argv.slice(2);
const isWanted = (part: string) => parts.length === 0 || parts.includes(part);
// First, as the other side has a process of its own, too: what the engine learns from the other parts makes its code for this
// one slower.
if (isWanted("messages")) await messageBench();
if (isWanted("survey")) await survey();
if (isWanted("catalogs")) await catalogBench();
if (isWanted("extract")) await extract();
if (isWanted("reconcile")) await reconcile();
if (isWanted("lint")) await lint();
if (isWanted("again")) await againBench();
// Whole commands at three sizes take minutes: only when asked for.
if (parts.includes("scale")) scaleBench();

async function survey(): Promise<void> {
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

  await inThreadsAndAgain("survey", code, (opened, more) => surveyProject(opened, {}, more));
}

/** Work on code in two threads against one, and again with all of it known. */
async function inThreadsAndAgain(
  what: "survey" | "extract",
  code: Readonly<Record<string, string>>,
  run: (opened: Project, more: WorkReading<never>) => Promise<unknown>,
): Promise<void> {
  const folder = folderOf({ ...code, "fond.config.json": JSON.stringify(configFor(["web/**/*.tsx"])) });
  process.env["XDG_CACHE_HOME"] = join(folder, "cache");
  const opened = openProject(diskFiles(folder));
  if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
  const { project } = opened;
  const inThreads = (jobs: number) =>
    shortest(3, () =>
      run(project, { elsewhere: threadsFor(folder, "fond.config.json", jobs, () => undefined) }),
    );
  const oneThread = await inThreads(1);
  console.log(
    showComparison({
      what: `${what} in two threads`,
      against: "in one",
      milliseconds: await inThreads(2),
      baseline: oneThread,
      aim: 1,
    }),
  );
  const cached = async () => {
    const cache = diskCache(folder, what);
    await run(project, { cache: cache as RunCache<never> });
    cache.save();
  };
  const firstRun = await shortest(1, cached);
  console.log(
    showComparison({
      what: `${what} again, nothing changed`,
      against: "the first run",
      milliseconds: await shortest(3, cached),
      baseline: firstRun,
      aim: 0.25,
    }),
  );
  rmSync(folder, { recursive: true, force: true });
}

async function extract(): Promise<void> {
  const code = tsxFiles(1300, 5400);
  const coded = project(code, ["web/**/*.tsx"]);
  const surveying = await shortest(3, () => surveyProject(coded));
  for (const limit of [4000, undefined]) {
    let taken = 0;
    const extracting = await shortest(3, async () => {
      const plan = await extractProject(coded, {}, limit === undefined ? {} : { limit });
      taken = plan.extracted.length;
    });
    console.log(
      showComparison({
        what: `planning the extraction of ${taken} texts from ${Object.keys(code).length} TSX files`,
        against: "the survey alone",
        milliseconds: extracting,
        baseline: surveying,
        aim: 2,
      }),
    );
  }
  await inThreadsAndAgain("extract", code, (opened, more) => extractProject(opened, {}, more));
}

async function reconcile(): Promise<void> {
  const locales = thirtyLocales.slice(0, 10);
  const catalogs = jsonCatalogs(locales, 50_000);
  const files = memoryFiles({
    ...catalogs,
    "fond.config.json": JSON.stringify({ ...configFor([]), targets: locales.slice(1) }),
  });
  const open = () => {
    const opened = openProject(files);
    if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
    return opened.project;
  };
  applyPlan(files, reconcileProject(open(), {}, "2026-01-01"));
  console.log(
    `Reconciling ${locales.length} JSON catalogs of 50,000 keys, ${megabytes(catalogs)} MB, nothing to do`,
  );
  const reading = await shortest(3, () => {
    for (const file of Object.keys(catalogs)) JSON.parse(files.contents.get(file) ?? "");
  });
  console.log(
    showComparison({
      what: "reconcile",
      against: "JSON.parse of the same files",
      milliseconds: await shortest(3, () => {
        if (reconcileProject(open(), {}, "2026-01-01").changes.length > 0)
          throw new Error("there is something to do");
      }),
      baseline: reading,
      aim: 4,
    }),
  );
  console.log(`  memory in use: ${Math.round(process.memoryUsage().rss / 1e6)} MB`);
}

async function lint(): Promise<void> {
  const catalogs = jsonCatalogs(thirtyLocales, 3400);
  console.log(
    `Lint of ${Object.keys(catalogs).length} catalogs, ${3400 * thirtyLocales.length} messages, ${megabytes(catalogs)} MB, the start of Node included on both sides`,
  );
  await compareLint(catalogs, "json", "JSON.parse", 4, "JSON.parse(text)");
  const yaml = "(await import('js-yaml')).load(text)";
  await compareLint(yamlOf(catalogs), "yaml", "js-yaml", 2, yaml);
}

/** Compares two programs over the same files: the whole command, and one that does nothing but read them. */
async function compareLint(
  texts: Record<string, string>,
  ending: "json" | "yaml",
  against: string,
  aim: number,
  parse: string,
): Promise<void> {
  const config = JSON.stringify(configFor([], `web/locales/{locale}.${ending}`));
  const folder = folderOf({ ...texts, "fond.config.json": config });
  const root = fileURLToPath(new URL("../../", import.meta.url));
  const read = `import { readFileSync } from "node:fs"; for (const file of ${JSON.stringify(Object.keys(texts))}) { const text = readFileSync("${folder}/" + file, "utf8"); ${parse}; }`;
  const run = (cwd: string, ...args: string[]) => {
    const { status, stderr } = spawnSync(process.execPath, args, { cwd, encoding: "utf8", maxBuffer: 1e8 });
    if (status !== 0) throw new Error(stderr);
  };
  const [baseline, milliseconds] = await shortestInTurn(
    7,
    () => run(root, "--input-type=module", "-e", read),
    () => run(folder, join(root, "dist/bin/main.js"), "lint"),
  );
  rmSync(folder, { recursive: true });
  const what = `lint of ${ending.toUpperCase()}`;
  console.log(showComparison({ what, against: `reading and ${against}`, milliseconds, baseline, aim }));
}

/** A new folder with these files. */
function folderOf(files: Record<string, string>): string {
  const folder = mkdtempSync(join(tmpdir(), "fond-bench-"));
  for (const [file, text] of Object.entries(files)) {
    mkdirSync(dirname(join(folder, file)), { recursive: true });
    writeFileSync(join(folder, file), text);
  }
  return folder;
}
