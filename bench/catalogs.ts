import { load } from "js-yaml";
import { KeyPool } from "../src/core/catalog/key-pool.js";
import { propertiesFormat } from "../src/core/catalog/formats/properties/properties.js";
import { jsonFormat } from "../src/core/catalog/formats/json/json.js";
import { yamlFormat } from "../src/core/catalog/formats/yaml/yaml.js";
import type { CatalogFormat, PathText } from "../src/core/catalog/model.js";
import { jsonCatalogs, thirtyLocales } from "./generate.js";
import { shortestInTurn, showComparison } from "./measure.js";

/** Reading catalogs of each format against the barest reading of the same text. */
export async function catalogBench(): Promise<void> {
  const json = Object.values(jsonCatalogs(thirtyLocales, 3400));
  console.log(`Reading 30 catalogs, 102000 messages, ${(json.join("").length / 1e6).toFixed(1)} MB as JSON`);
  await compare("JSON", jsonFormat, json, "JSON.parse", (text) => JSON.parse(text) as unknown, 2);
  const rendered = (format: CatalogFormat) =>
    json.map((text) => {
      const add = jsonFormat.read(text, ".").entries.map((entry): PathText => ({
        path: !format.nests ? [entry.key] : entry.path,
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
  const [baseline, milliseconds] = await shortestInTurn(
    25,
    () => texts.map(bare),
    () => {
      // The catalogs of one book share their keys, as when a command reads them.
      const pool = new KeyPool();
      return texts.map((text) => format.read(text, ".", pool));
    },
  );
  console.log(showComparison({ what: `reading ${what}`, against, milliseconds, baseline, aim }));
}
