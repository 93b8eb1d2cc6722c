// Makes a fresh clone ready to run: installs from the lock file when node_modules is missing or
// older than the lock file, then compiles and bundles. Quick when there is nothing to do.
import { execFileSync } from "node:child_process";
import { existsSync, rmSync, statSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

const root = dirname(dirname(fileURLToPath(import.meta.url)));
const lockFile = join(root, "package-lock.json");
const installed = join(root, "node_modules", ".package-lock.json");
const run = (command, args) =>
  execFileSync(command, args, { cwd: root, stdio: ["ignore", 2, 2], shell: process.platform === "win32" });

try {
  if (!existsSync(installed) || statSync(installed).mtimeMs < statSync(lockFile).mtimeMs) {
    console.error("Installing dependencies from package-lock.json …");
    run("npm", ["ci", "--no-audit", "--no-fund", "--loglevel=error"]);
  }
  const main = join(root, "dist", "src", "cli", "main.js");
  if (!existsSync(main)) rmSync(join(root, "dist"), { recursive: true, force: true });
  run(process.execPath, [join(root, "node_modules", "typescript", "bin", "tsc"), "-p", root]);
  run(process.execPath, [
    join(root, "node_modules", "typescript", "bin", "tsc"),
    "-p",
    join(root, "src", "page"),
  ]);
  await (await import("./bundle.mjs")).bundle(root);
  await (await import("./page.mjs")).bundlePages(root);
} catch (error) {
  if (error?.status === undefined) console.error(error);
  console.error("The project could not be made ready; what went wrong is printed above.");
  process.exit(1);
}
