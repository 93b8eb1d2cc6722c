import { readFileSync } from "node:fs";
import { join } from "node:path";
import { packageRoot } from "../disk/package-root.js";

/** This program's version, as its package says. */
export function manifestVersion(): string {
  const text = readFileSync(join(packageRoot(), "package.json"), "utf8");
  return (JSON.parse(text) as { version: string }).version;
}
