import { spawnSync } from "node:child_process";
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { jsonCatalogs, thirtyLocales, tsxFiles } from "./generate.js";

const root = fileURLToPath(new URL("../../", import.meta.url));
const main = join(root, "dist/bin/main.js");

/** A run of a program: how long it took, and the most memory that it had at once. */
interface Run {
  readonly milliseconds: number;
  readonly megabytes: number;
}

/** Whole commands on a made-up project of one, three and ten times the size, next to a program that only reads and parses its files. */
export function scaleBench(): void {
  const sizes = [1, 3, 10];
  const locales = thirtyLocales.slice(0, 5);
  const rows = sizes.map((size) => {
    const code = tsxFiles(130 * size, 5400);
    const catalogs = jsonCatalogs(locales, 5000 * size);
    const folder = mkdtempSync(join(tmpdir(), "fond-scale-"));
    const config = {
      source: "en",
      targets: locales.slice(1),
      books: [{ name: "bench", code: ["web/**/*.tsx"], files: "web/locales/{locale}.json" }],
    };
    for (const [file, text] of Object.entries({
      ...code,
      ...catalogs,
      "fond.config.json": JSON.stringify(config),
    })) {
      mkdirSync(dirname(join(folder, file)), { recursive: true });
      writeFileSync(join(folder, file), text);
    }
    const read = (files: readonly string[], parse: string) =>
      `import { readFileSync } from "node:fs"; import { parseSync } from ${JSON.stringify(join(root, "node_modules/oxc-parser/src-js/index.js"))}; for (const file of ${JSON.stringify(files)}) { const text = readFileSync(file, "utf8"); ${parse}; }`;
    const parsing = timed(
      folder,
      "--input-type=module",
      "-e",
      read(Object.keys(code), "void parseSync(file, text).program"),
    );
    const parsingCatalogs = timed(
      folder,
      "--input-type=module",
      "-e",
      read(Object.keys(catalogs), "JSON.parse(text)"),
    );
    // The first run fills the cache, which is not what is measured.
    const commands: readonly (readonly [string, Run, readonly string[]])[] = [
      ["survey", parsing, ["survey", "--no-cache", "--jobs", "1", "--quiet"]],
      ["extract", parsing, ["extract", "--no-review", "--quiet"]],
      ["reconcile", parsingCatalogs, ["reconcile", "--quiet", "--write"]],
      ["lint", both(parsing, parsingCatalogs), ["lint", "--quiet"]],
      ["balance", parsingCatalogs, ["balance", "--quiet"]],
      ["audit", both(parsing, parsingCatalogs), ["audit", "--no-cache", "--jobs", "1", "--quiet"]],
    ];
    const runs = commands.map(([name, floor, args]) => ({ name, floor, run: timed(folder, main, ...args) }));
    rmSync(folder, { recursive: true });
    return { size, runs };
  });
  console.log(
    "| Command | Floor | " +
      sizes.map((size) => `${size}x`).join(" | ") +
      " | Memory at " +
      sizes.map((size) => `${size}x`).join(", ") +
      " |",
  );
  console.log("| --- | --- | " + sizes.map(() => "--- | ").join("") + "--- |");
  for (const [index, { name }] of (rows[0]?.runs ?? []).entries()) {
    const own = rows.flatMap(({ runs }) => runs[index] ?? []);
    const ratios = own.map(({ run, floor }) => (run.milliseconds / floor.milliseconds).toFixed(1));
    const floors = own.map(({ floor }) => `${(floor.milliseconds / 1000).toFixed(1)} s`).join(", ");
    console.log(
      `| \`${name}\` | ${floors} | ${ratios.join(" | ")} | ${own.map(({ run }) => `${run.megabytes} MB`).join(", ")} |`,
    );
  }
}

function both(one: Run, other: Run): Run {
  return {
    milliseconds: one.milliseconds + other.milliseconds,
    megabytes: Math.max(one.megabytes, other.megabytes),
  };
}

/** The shorter of two runs of a program. */
function timed(cwd: string, ...args: readonly string[]): Run {
  const once = (): Run => {
    const start = performance.now();
    const hook = `process.on("exit", () => require("node:fs").writeSync(2, "\\nmaxrss " + process.resourceUsage().maxRSS))`;
    const { stderr, status } = spawnSync(
      process.execPath,
      [
        "--import",
        `data:text/javascript,import { createRequire } from "node:module"; const require = createRequire("/"); ${encodeURIComponent(hook)}`,
        ...args,
      ],
      { cwd, encoding: "utf8", maxBuffer: 1e9, stdio: ["ignore", "ignore", "pipe"] },
    );
    if ((status ?? 9) > 1) throw new Error(stderr);
    const kilobytes = Number(/maxrss (\d+)/.exec(stderr)?.[1] ?? 0);
    return { milliseconds: performance.now() - start, megabytes: Math.round(kilobytes / 1000) };
  };
  const [one, other] = [once(), once()];
  return one.milliseconds < other.milliseconds ? one : other;
}
