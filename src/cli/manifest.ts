import { readFileSync } from "node:fs";

/** This program's version, as its package says. */
export function manifestVersion(): string {
  const text = readFileSync(new URL("../../../package.json", import.meta.url), "utf8");
  return (JSON.parse(text) as { version: string }).version;
}
