import { load } from "js-yaml";
import { KeyPool } from "../src/core/catalog/key-pool.js";
import { propertiesFormat } from "../src/core/catalog/formats/properties.js";
import { jsonFormat } from "../src/core/catalog/formats/json.js";
import { yamlFormat } from "../src/core/catalog/formats/yaml.js";
import type { CatalogFormat, PathText } from "../src/core/catalog/model.js";
import { memoryFiles } from "../src/core/files/memory-files.js";
import { openProject, reconcileProject } from "../src/core/project/project.js";
import { jsonCatalogs, thirtyLocales } from "./generate.js";
import { shortest, showComparison } from "./measure.js";

/** Reading catalogs of each format against the barest reading of the same text, and reconciling many. */
export async function catalogBench(): Promise<void> {
  const json = Object.values(jsonCatalogs(thirtyLocales, 3400));
  console.log(`Reading 30 catalogs, 102000 messages, ${(json.join("").length / 1e6).toFixed(1)} MB as JSON`);
  await compare("JSON", jsonFormat, json, "JSON.parse", (text) => JSON.parse(text) as unknown, 2);
  const rendered = (format: CatalogFormat) =>
    json.map((text) => {
      const add = jsonFormat.read(text, ".").entries.map((entry): PathText => ({
        path: format.isFlat ? [entry.key] : entry.path,
        text: entry.text,
      }));
      return Buffer.from(format.edit(format.empty, { add })).toString();
    });
  await compare("YAML", yamlFormat, rendered(yamlFormat), "js-yaml", (text) => load(text), 1.5);
  await compare(
    "properties",
    propertiesFormat,
    rendered(propertiesFormat),
    "a split into lines",
    (text) => text.split("\n"),
    2,
  );
  if (!process.argv.includes("reading")) await reconciling();
}

async function compare(
  what: string,
  format: CatalogFormat,
  texts: readonly string[],
  against: string,
  bare: (text: string) => unknown,
  aim: number,
): Promise<void> {
  // What is read is kept until the end of a round, as a command keeps it.
  const round = (read: (text: string) => unknown) => shortest(8, () => texts.map(read));
  const baseline = await round(bare);
  // The catalogs of one book share their keys, as when a command reads them.
  const milliseconds = await shortest(8, () => {
    const pool = new KeyPool();
    return texts.map((text) => format.read(text, ".", pool));
  });
  console.log(showComparison({ what: `reading ${what}`, against, milliseconds, baseline, aim }));
}

async function reconciling(): Promise<void> {
  const locales = thirtyLocales.slice(0, 11);
  const catalogs = jsonCatalogs(locales, 50_000);
  const config = {
    source: "en",
    targets: locales.slice(1),
    books: [{ name: "bench", files: "web/locales/{locale}.json" }],
  };
  const files = memoryFiles({ ...catalogs, "fond.config.json": JSON.stringify(config) });
  const opened = openProject(files);
  if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
  const first = reconcileProject(opened.project, {}, "2031-05-04");
  for (const { file, after } of first.changes) files.contents.set(file, after ?? "");
  const texts = [...files.contents].filter(([file]) => file.startsWith("web/")).map(([, text]) => text);
  console.log(`Reconciling 50000 keys x 10 locales with nothing to do`);
  const baseline = await shortest(3, () => texts.map((text) => JSON.parse(text) as unknown));
  const milliseconds = await shortest(3, () => {
    const plan = reconcileProject(opened.project, {}, "2031-05-04");
    if (plan.changes.length > 0) throw new Error("there was something to do");
  });
  console.log(
    showComparison({
      what: "reconcile",
      against: "JSON.parse of the same files",
      milliseconds,
      baseline,
      aim: 4,
    }),
  );
  console.log(`  memory in use: ${Math.round(process.memoryUsage().rss / 1e6)} MB`);
}
