// Writes messages/en.json, the book of this program's own texts, from the declarations in the code.
import { spawnSync } from "node:child_process";
import { writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

const root = dirname(dirname(fileURLToPath(import.meta.url)));
writeFileSync(join(root, "messages", "en.json"), "{}\n");
const args = [
  join(root, "dist", "bin", "main.js"),
  "extract",
  "--write",
  "--quiet",
  "--format",
  "json",
  "--cwd",
  root,
];
const { status, stderr } = spawnSync(process.execPath, args, { encoding: "utf8", maxBuffer: 1e8 });
if (status !== 0) console.error(stderr);
process.exit(status ?? 1);
