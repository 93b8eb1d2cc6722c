import type { Files } from "../../files/files.js";
import type { Ecosystem } from "./ecosystem.js";
import { java } from "./java.js";
import { phpWeb } from "./php-web.js";
import { rubyWeb } from "./ruby-web.js";
import { scripts } from "./scripts.js";

export type { Ecosystem } from "./ecosystem.js";

/** All kinds of projects, the more telling first: nearly every project has a script somewhere. */
export const ecosystems: readonly Ecosystem[] = [rubyWeb, phpWeb, java, scripts];

/** The kind of project that its files show; undefined for none that is known. */
export function ecosystemOf(files: Files): Ecosystem | undefined {
  const ignore = ["**/node_modules/**", "**/vendor/**"];
  return ecosystems.find(({ marks }) =>
    marks.every((mark) => files.list({ patterns: [mark], ignore, respectIgnoreFiles: true }).length > 0),
  );
}
