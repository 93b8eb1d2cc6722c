// Holds the direction of imports: inside src/core a folder may import itself and the folders above it
// in the list, never those below; the core imports neither the command line nor the outputs.
import { readdirSync, readFileSync } from "node:fs";
import { dirname, join, relative, resolve, sep } from "node:path";
import { fileURLToPath } from "node:url";

const layers = [
  "text",
  "files",
  "locale",
  "message",
  "plan",
  "config",
  "catalog",
  "source",
  "survey",
  "ledger",
  "extract",
  "reconcile",
  "lint",
  "exchange",
  "project",
];
const src = join(dirname(dirname(fileURLToPath(import.meta.url))), "src");
const forbiddenInCore = /^(node:(fs|process|child_process|readline|tty)|commander|picocolors)(\/|$)/;

/** The layer of a file below src: a number that imports may not rise above. */
function layerOf(file) {
  const [top, folder] = relative(src, file).split(sep);
  if (top !== "core") return top === "output" ? 101 : top === "disk" ? 100 : top === "cli" ? 103 : 102;
  const layer = layers.indexOf(folder);
  if (layer < 0)
    throw new Error(`src/core/${folder} has no place in the list of layers in scripts/check-imports.mjs`);
  return layer;
}

const problems = [];
let checked = 0;
for (const name of readdirSync(src, { recursive: true })) {
  if (!name.endsWith(".ts") || name.split(sep)[0] === "page") continue;
  const file = join(src, name);
  const layer = layerOf(file);
  for (const [, target] of readFileSync(file, "utf8").matchAll(/(?:from|import)\s*\(?\s*"([^"]+)"/g)) {
    checked++;
    if (!target.startsWith(".")) {
      if (layer < 100 && forbiddenInCore.test(target))
        problems.push(`${name}: the core must not import ${target}`);
    } else if (layerOf(resolve(dirname(file), target)) > layer)
      problems.push(`${name}: imports ${target}, which is further down`);
  }
}
if (checked === 0) problems.push("no import was found to check");
for (const problem of problems) console.error(problem);
process.exit(problems.length ? 1 : 0);
