// Sees that every part is registered: a rule, format, syntax, language, report or command whose file no registry imports
// would be compiled and never run. An argument names another folder than src to look in.
import { existsSync, readdirSync, readFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

const src = process.argv[2] ?? join(dirname(dirname(fileURLToPath(import.meta.url))), "src");

/** Where parts of a kind are, which files are parts, and the file that registers them. */
const kinds = [
  { kind: "rule", folder: "core/lint/rules", part: /^[^/]+\/[^/]+\.ts$/, registry: "index.ts" },
  { kind: "format", folder: "core/catalog/formats", part: /^([^/]+)\/\1\.ts$/, registry: "index.ts" },
  {
    kind: "syntax",
    folder: "core/message/syntaxes",
    part: /^[^/]+\/syntax\.ts$|^placeholders\/(?!placeholders\.ts)[^/]+\.ts$/,
    registry: "index.ts",
  },
  {
    kind: "language",
    folder: "core/source/languages",
    part: /^([^/]+)\/\1\.ts$|\/habits\.ts$/,
    registry: "index.ts",
  },
  { kind: "dialect", folder: "core/source/dialects", part: /^([^/]+)\/\1\.ts$/, registry: "index.ts" },
  {
    kind: "ecosystem",
    folder: "core/project/ecosystems",
    part: /^(?!index|ecosystem)[^/]+\.ts$/,
    registry: "index.ts",
  },
  { kind: "report", folder: "output/reporters", part: /^(?!index|reporter)[^/]+\.ts$/, registry: "index.ts" },
  {
    kind: "command",
    folder: "cli/commands",
    part: /^[^/]+\.ts$/,
    registry: "../run.ts",
    marker: /defineCommand[<(]/,
  },
];

const problems = [];
let checked = 0;
for (const { kind, folder, part, registry, marker } of kinds) {
  const root = join(src, folder);
  if (!existsSync(root)) continue;
  const registered = readFileSync(join(root, registry), "utf8");
  for (const name of readdirSync(root, { recursive: true, encoding: "utf8" })) {
    const file = name.replaceAll("\\", "/");
    if (!part.test(file) || (marker && !marker.test(readFileSync(join(root, file), "utf8")))) continue;
    checked++;
    const imported = `${file.replace(/\.ts$/, ".js")}"`;
    // A language brings its own habits in.
    const own = join(root, dirname(file), `${dirname(file)}.ts`);
    const isBrought =
      existsSync(own) && file.endsWith("/habits.ts") && readFileSync(own, "utf8").includes('"./habits.js"');
    if (!registered.includes(`/${imported}`) && !isBrought)
      problems.push(`src/${folder}/${file}: this ${kind} is not registered in src/${join(folder, registry)}`);
  }
}
if (checked === 0) problems.push("no part was found to check");
for (const problem of problems) console.error(problem);
process.exit(problems.length > 0 ? 1 : 0);
