import { existsSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { lazily } from "../core/text/lazy.js";

/** The folder of this package, wherever in it this code was built to. */
export const packageRoot = lazily(() => {
  let folder = dirname(fileURLToPath(import.meta.url));
  while (!existsSync(join(folder, "package.json")) && dirname(folder) !== folder) folder = dirname(folder);
  return folder;
});
