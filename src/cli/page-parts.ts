import { createHash } from "node:crypto";
import { readFileSync } from "node:fs";
import { join } from "node:path";
import type { PageParts } from "../core/exchange/whole-page.js";
import { packageRoot } from "../disk/package-root.js";

/** The script and the style of a page, as the package has them. */
export function pageParts(name: "translate" | "report"): Pick<PageParts, "script" | "style" | "digest"> {
  const part = (file: string) => readFileSync(join(packageRoot(), "dist", "page", file), "utf8");
  return {
    script: part(`${name}.js`),
    style: part(`${name}.css`),
    digest: (text) => createHash("sha256").update(text).digest("base64"),
  };
}
