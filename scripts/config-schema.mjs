// Writes schema/config.json, the JSON Schema of the configuration, from the schema that the program checks it with; with
// --check it only says whether the file is current.
import { mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { toJsonSchema } from "@valibot/to-json-schema";
import { configSchema } from "../dist/src/core/config/schema.js";

const file = join(dirname(dirname(fileURLToPath(import.meta.url))), "schema", "config.json");
const schema = {
  ...toJsonSchema(configSchema, { errorMode: "ignore", typeMode: "input" }),
  title: "Configuration of Fond Ledger (fond.config.json)",
};
const text = `${JSON.stringify(schema, undefined, 2)}\n`;

if (process.argv.includes("--check")) {
  let current = "";
  try {
    current = readFileSync(file, "utf8");
  } catch {
    // A file that is not there is not current either.
  }
  if (current !== text) {
    console.error("schema/config.json is not current: run node scripts/config-schema.mjs");
    process.exit(1);
  }
} else {
  mkdirSync(dirname(file), { recursive: true });
  writeFileSync(file, text);
}
