// Joins the built program into few files: Node loads one file of a thousand lines much sooner than a hundred of ten.
// Packages stay outside, so that they are installed, shared and mended as they are: all but the few that every command
// needs. To find and load those took Node longer than our own code, most of which they do not use.
import { createHash } from "node:crypto";
import { chmodSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import commonjs from "@rollup/plugin-commonjs";
import { nodeResolve } from "@rollup/plugin-node-resolve";
import { rollup } from "@rollup/wasm-node";

/** The packages that go into the program's own files, and what those of them need. */
const inside = ["commander", "fdir", "picocolors", "picomatch", "tinyglobby", "valibot"];

/** Bundles `dist/src` into `dist/bin`, unless nothing was built since it was last done. */
export async function bundle(root) {
  const from = join(root, "dist", "src");
  const to = join(root, "dist", "bin");
  const main = join(to, "main.js");
  if (changedAt(main) > newest(from)) return;
  rmSync(to, { recursive: true, force: true });
  const build = await rollup({
    input: { main: join(from, "cli", "main.js"), thread: join(from, "disk", "thread.js") },
    external: (id) => !id.startsWith(".") && !id.startsWith(root) && !inside.includes(id),
    // How the chunks came out is of no interest to those who build.
    onLog: (level, log, handle) => log.code !== "OPTIMIZE_CHUNK_STATUS" && handle(level, log),
    plugins: [nodeResolve({ preferBuiltins: true, exportConditions: ["node"] }), commonjs()],
  });
  await build.write({
    dir: to,
    format: "es",
    entryFileNames: "[name].js",
    chunkFileNames: "[name]-[hash].js",
    // Small chunks are joined where nothing else is then loaded for them.
    experimentalMinChunkSize: 40_000,
  });
  await build.close();
  // What the help needs of all commands, so that it need not load them.
  const { commandLines } = await import(pathToFileURL(join(from, "cli", "run.js")).href);
  writeFileSync(join(to, "commands.json"), JSON.stringify(await commandLines()));
  writeFileSync(join(to, "BUILD.txt"), digestOfBuild(from));
  writeFileSync(join(to, "LICENSES.txt"), inside.map((name) => licenseOf(root, name)).join("\n\n"));
  chmodSync(main, 0o755);
}

/** What the license of a package wants kept with copies of it: its text, as the package has it. */
export function licenseOf(root, name) {
  const folder = join(root, "node_modules", name);
  const file = readdirSync(folder).find((each) => /^licen[cs]e/i.test(each));
  if (!file) throw new Error(`${name} has no license file that could go with it`);
  const { version } = JSON.parse(readFileSync(join(folder, "package.json"), "utf8"));
  return `${name} ${version}\n\n${readFileSync(join(folder, file), "utf8").trim()}\n`;
}

/** A digest of all code of the program: what a build decides may be kept for as long as this stays. */
function digestOfBuild(folder) {
  const hash = createHash("sha256");
  for (const file of readdirSync(folder, { recursive: true }).sort())
    if (file.endsWith(".js")) hash.update(`${file}\0`).update(readFileSync(join(folder, file)));
  return `${hash.digest("hex")}\n`;
}

const changedAt = (file) => statSync(file, { throwIfNoEntry: false })?.mtimeMs ?? 0;

function newest(folder) {
  const files = readdirSync(folder, { recursive: true }).filter((file) => file.endsWith(".js"));
  return Math.max(...files.map((file) => changedAt(join(folder, file))));
}
