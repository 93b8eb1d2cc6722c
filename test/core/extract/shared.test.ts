import { describe, expect, test } from "@jest/globals";
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import type { FileTrial, Waiting } from "../../../src/core/extract/extract.js";
import { extractProject } from "../../../src/core/project/extract-project.js";
import type { RunCache } from "../../../src/core/project/file-work.js";
import { memoryProject } from "../../support/memory-project.js";
import { root } from "../../support/project.js";

/** A cache of what goes through a file, and how often it was asked for what it had. */
function cacheInMemory(): RunCache<FileTrial | Waiting> & { hits: number; readonly size: number } {
  const held = new Map<string, string>();
  return {
    hits: 0,
    get size() {
      return held.size;
    },
    get(id) {
      const found = held.get(id);
      if (found === undefined) return undefined;
      this.hits++;
      return JSON.parse(found) as FileTrial;
    },
    set: (id, made) => void held.set(id, JSON.stringify(made)),
  };
}

const page = (name: string, text: string) => ({
  [`app/${name}.jsx`]: `export const A = () => <p title="${text}">${text}, and more of it</p>;\n`,
});

/** Files of all languages and dialects; of each one. */
function manyFiles(): Record<string, string> {
  const folder = join(root, "test/fixtures/survey/tuned");
  const seen = new Set<string>();
  const files: Record<string, string> = {};
  for (const name of readdirSync(folder)) {
    const ending = name.slice(name.indexOf("."));
    if (seen.has(ending)) continue;
    seen.add(ending);
    files[`app/${name}`] = readFileSync(join(folder, name), "utf8").replace(/[«»]/g, "");
  }
  return files;
}

const book = { code: ["app/**"], emit: { import: 'import { t } from "./t"' } };

describe("what files share", () => {
  test.each([
    { pattern: "{file}.{slug}", english: { "almanac.save": "Save" } },
    { pattern: "{role}", english: {} },
  ])(
    "the plan is the same with files tried by themselves and from a cache: $pattern",
    async ({ pattern, english }) => {
      const open = () =>
        memoryProject(
          { ...book, naming: { pattern } },
          { "t/en.json": JSON.stringify(english), ...manyFiles() },
        );
      const options = { least: "unclear" } as const;
      const alone = await extractProject(open(), {}, options);
      expect(alone.extracted.length).toBeGreaterThan(200);
      const cache = cacheInMemory();
      expect(await extractProject(open(), {}, { ...options, cache })).toEqual(alone);
      expect(cache.hits).toBe(0);
      expect(await extractProject(open(), {}, { ...options, cache })).toEqual(alone);
      expect(cache.hits).toBe(cache.size);
    },
  );

  test("a key that a file before has taken is another one, though the file was tried as the first", async () => {
    const files = { ...page("one", "Harbour"), ...page("two", "Island") };
    const project = memoryProject(
      { ...book, naming: { pattern: "{role}" } },
      { "t/en.json": "{}", ...files },
    );
    const cache = cacheInMemory();
    for (const hits of [0, 2]) {
      const { extracted } = await extractProject(project, {}, { cache });
      expect(extracted.map(({ key, message }) => [key, message])).toEqual([
        ["title", "Harbour"],
        ["text", "Harbour, and more of it"],
        ["title2", "Island"],
        ["text2", "Island, and more of it"],
      ]);
      expect(cache.hits).toBe(hits);
    }
  });

  test("what is kept of a file holds as long as catalogs answer alike", async () => {
    const files = page("one", "Harbour");
    const cache = cacheInMemory();
    const planned = async (english: object) => {
      const project = memoryProject(book, { "t/en.json": JSON.stringify(english), ...files });
      const { extracted } = await extractProject(project, {}, { cache });
      return extracted.map(({ key, isNew }) => `${key}${isNew ? " (new)" : ""}`);
    };
    const first = await planned({});
    expect(first).toEqual(["one.harbour (new)", "one.harbourMore (new)"]);
    expect(await planned({ other: "Other" })).toEqual(first);
    expect(await planned({ one: { harbour: "Harbour" } })).toEqual(["one.harbour", "one.harbourMore (new)"]);
    expect(await planned({ one: { harbour: "Port" } })).toEqual([
      "one.harbourTitle (new)",
      "one.harbourMore (new)",
    ]);
    expect(cache.size).toBe(1);
  });

  test("a file whose rewrite hangs on another waits for its turn", async () => {
    const project = memoryProject(book, {
      "t/en.json": "{}",
      "app/labels.js": 'export const heading = "Open today until five";\n',
      "app/view.js": 'import { heading } from "./labels";\nexport const show = () => alert(heading);\n',
    });
    const cache = cacheInMemory();
    const alone = await extractProject(project, {}, { least: "unclear" });
    expect(alone.changes.map(({ file }) => file)).toContain("app/view.js");
    expect(await extractProject(project, {}, { least: "unclear", cache })).toEqual(alone);
    expect(await extractProject(project, {}, { least: "unclear", cache })).toEqual(alone);
  });
});
