// Joins the built program into few files: Node loads one file of a thousand lines much sooner than a hundred of ten.
// Packages stay outside, so that they are installed, shared and mended as they are.
import { chmodSync, readdirSync, rmSync, statSync } from "node:fs";
import { join } from "node:path";
import { rollup } from "@rollup/wasm-node";

/** Bundles `dist/src` into `dist/bin`, unless nothing was built since it was last done. */
export async function bundle(root) {
  const from = join(root, "dist", "src");
  const to = join(root, "dist", "bin");
  const main = join(to, "main.js");
  if (changedAt(main) > newest(from)) return;
  rmSync(to, { recursive: true, force: true });
  const build = await rollup({
    input: { main: join(from, "cli", "main.js"), "survey-worker": join(from, "disk", "survey-worker.js") },
    external: (id) => !id.startsWith(".") && !id.startsWith(root),
  });
  await build.write({
    dir: to,
    format: "es",
    entryFileNames: "[name].js",
    chunkFileNames: "[name]-[hash].js",
  });
  await build.close();
  chmodSync(main, 0o755);
}

const changedAt = (file) => statSync(file, { throwIfNoEntry: false })?.mtimeMs ?? 0;

function newest(folder) {
  const files = readdirSync(folder, { recursive: true }).filter((file) => file.endsWith(".js"));
  return Math.max(...files.map((file) => changedAt(join(folder, file))));
}
