import { LiveFiles } from "../src/core/files/live-files.js";
import { memoryFiles } from "../src/core/files/memory-files.js";
import { applyPlan } from "../src/core/plan/apply.js";
import { declareProject } from "../src/core/project/declare.js";
import { lintProject } from "../src/core/project/lint-project.js";
import { LiveProject } from "../src/core/project/live-project.js";
import type { Project } from "../src/core/project/project.js";
import { reconcileProject } from "../src/core/project/reconcile-project.js";
import { jsonCatalogs, thirtyLocales, tsxFiles, vocabulary } from "./generate.js";

const day = "2026-01-01";
/** A change of one file is worked out in so many milliseconds. */
const aim = 200;

/** One file changes in a project of 1,300 files and 50,000 keys: how long each command takes then, next to its first run. */
export async function againBench(): Promise<void> {
  const locales = thirtyLocales.slice(0, 5);
  console.log(
    "Looked at again: 1,300 TSX files, 50,000 keys in 5 locales and 120 namespaces; one file changes",
  );
  const jobs: readonly (readonly [string, (project: Project) => unknown])[] = [
    ["lint", (project) => lintProject(project)],
    ["reconcile", (project) => reconcileProject(project, {}, day)],
    ["declare", (project) => declareProject(project)],
  ];
  for (const [name, job] of jobs) {
    const files = memoryFiles({
      ...tsxFiles(1300, 5400),
      ...inNamespaces(jsonCatalogs(locales, 50_000)),
      ...Object.fromEntries(locales.flatMap((locale) => Object.entries(textsOfCode(locale)))),
      "fond.config.json": JSON.stringify({
        source: "en",
        targets: locales.slice(1),
        books: [
          {
            name: "bench",
            code: ["web/**/*.tsx"],
            files: "web/locales/{locale}/{namespace}.json",
            declare: "web/keys.d.ts",
          },
        ],
      }),
    });
    const live = new LiveProject(new LiveFiles(() => files));
    const open = () => {
      const opened = live.open(day);
      if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
      return opened.project;
    };
    const timed = async () => {
      const start = performance.now();
      await job(open());
      return performance.now() - start;
    };
    const change = (file: string, to: (text: string) => string) => {
      files.contents.set(file, to(files.contents.get(file) ?? ""));
      live.changed([file]);
    };
    // All records are there.
    const plan = reconcileProject(open(), {}, day);
    applyPlan(files, plan);
    live.changed(plan.changes.map(({ file }) => file));
    const first = await timed();
    console.log(`        ${name}, the first run: ${first.toFixed(0)} ms`);
    const [code = ""] = [...files.contents.keys()].filter((file) => file.endsWith(".tsx"));
    const kinds: readonly (readonly [string, string, (text: string) => string])[] = [
      ["a file of code", code, (text) => `${text}\n`],
      ["a translation", "web/locales/de/area40.json", (text) => text.replace(/": "/, '": "Neu ')],
      ["a source text", "web/locales/en/area40.json", (text) => text.replace(/": "/, '": "New ')],
      ["a new key", "web/locales/en/area40.json", withKey],
    ];
    for (const [what, file, to] of kinds) {
      let best = Infinity;
      for (let run = 0; run < 3; run++) {
        change(file, to);
        best = Math.min(best, await timed());
      }
      const verdict = best <= aim ? "met" : "NOT met";
      console.log(
        `${(best / first).toFixed(3).padStart(7)} x  ${name} behind ${what}: ${best.toFixed(0)} ms (aim ${aim} ms: ${verdict})`,
      );
    }
  }
}

let added = 0;
function withKey(text: string): string {
  return text.replace(/\n {4}"/, (lead) => `\n    "added${++added}": "Added text",${lead}`);
}

/** The catalogs of a locale with the texts that the files of code look up. */
function textsOfCode(locale: string): Record<string, string> {
  const group = (from: string) => Object.fromEntries(vocabulary.map((to) => [to, `${from} ${to} ${locale}`]));
  const written = (texts: object) => `${JSON.stringify(texts, undefined, 2)}\n`;
  const common = Object.fromEntries(vocabulary.map((from) => [from, group(from)]));
  const files: Record<string, string> = { [`web/locales/${locale}/common.json`]: written(common) };
  for (const from of vocabulary) files[`web/locales/${locale}/${from}.json`] = written({ list: group(from) });
  return files;
}

/** Catalogs of one file a locale as 84 files each. */
function inNamespaces(catalogs: Readonly<Record<string, string>>): Record<string, string> {
  const parts: Record<string, string> = {};
  for (const [file, text] of Object.entries(catalogs)) {
    const pages = Object.entries(JSON.parse(text) as Record<string, unknown>);
    for (let from = 0; from < pages.length; from += 3) {
      const part = Object.fromEntries(pages.slice(from, from + 3));
      parts[file.replace(".json", `/area${from / 3}.json`)] = `${JSON.stringify(part, undefined, 2)}\n`;
    }
  }
  return parts;
}
