import { memoryFiles } from "../../src/core/files/memory-files.js";
import { openProject, type Project } from "../../src/core/project/project.js";

/** A project in English in memory, with one book unless the configuration says otherwise. */
export function memoryProject(
  book: Readonly<Record<string, unknown>>,
  files: Readonly<Record<string, string>>,
  targets: readonly string[] = [],
): Project {
  const config = { source: "en", targets, books: [{ name: "app", files: "t/{locale}.json", ...book }] };
  const opened = openProject(memoryFiles({ "fond.config.json": JSON.stringify(config), ...files }));
  if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
  return opened.project;
}
