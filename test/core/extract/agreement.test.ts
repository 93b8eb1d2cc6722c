import { expect, test } from "@jest/globals";
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { memoryFiles } from "../../../src/core/files/memory-files.js";
import { extractProject } from "../../../src/core/project/extract-project.js";
import { lintProject } from "../../../src/core/project/lint-project.js";
import { openProject } from "../../../src/core/project/project.js";
import { root } from "../../support/project.js";

const config = {
  source: "en",
  targets: ["de"],
  books: [
    {
      name: "app",
      code: ["app/**"],
      files: "texts/{locale}.json",
      emit: { call: 't("{key}"{args})', endings: { ".py": { import: "from words import t" } } },
    },
  ],
};

const opened = (files: Readonly<Record<string, string>>) => {
  const project = openProject(memoryFiles(files));
  if (!project.ok) throw new Error(JSON.stringify(project.problems));
  return project.project;
};

/** What extraction writes that `lint` has something to say against, but for texts that are not translated yet. */
async function disagreements(name: string, code: string): Promise<{ moved: number; found: string[] }> {
  const before = {
    "fond.config.json": JSON.stringify(config),
    "texts/en.json": "{}\n",
    "texts/de.json": "{}\n",
    [`app/${name}`]: code,
  };
  const plan = await extractProject(opened(before), {}, { least: "unclear" });
  const after: Record<string, string> = { ...before };
  for (const { file, after: text } of plan.changes) after[file] = text ?? "";
  const written = new Set(plan.extracted.map(({ key }) => key));
  const found = await lintProject(opened(after));
  return {
    moved: plan.extracted.length,
    found: found
      // Code that counts none but zero has a fault of its own, which is true of the message too.
      .filter(({ rule }) => rule !== "key/missing" && rule !== "plural/missing-category")
      // Lookups that stood there before are another matter.
      .filter(({ rule, key }) => rule !== "key/undefined" || written.has(key ?? ""))
      .map(({ rule, file, line, message }) => `${rule} ${file}:${line} ${message}`),
  };
}

test("what extraction writes in any language passes lint", async () => {
  let moved = 0;
  const found: string[] = [];
  for (const half of ["tuned", "held"]) {
    const folder = join(root, "test/fixtures/survey", half);
    const names = readdirSync(folder);
    // What is held back is read whole, and a part of the rest, which is of the same kinds.
    for (const name of half === "held" ? names : names.filter((_, at) => at % 3 === 0)) {
      const code = readFileSync(join(folder, name), "utf8").replace(/[«»]/g, "");
      const one = await disagreements(name, code);
      moved += one.moved;
      found.push(...one.found);
    }
  }
  expect(found).toEqual([]);
  expect(moved).toBeGreaterThan(1_800);
});
