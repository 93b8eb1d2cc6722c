import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { extractProject } from "../../src/core/project/extract-project.js";
import { openProject, type Project } from "../../src/core/project/project.js";
import { surveyProject } from "../../src/core/project/survey-project.js";
import { diskFiles } from "../../src/disk/disk-files.js";
import { diskCache } from "../../src/disk/run-cache.js";
import { threadsFor } from "../../src/disk/threads.js";
import { cleanUp, fond, smallProject, temporaryProject } from "../support/project.js";

let cacheHome = "";
const before = process.env["XDG_CACHE_HOME"];
beforeAll(() => {
  cacheHome = temporaryProject();
  process.env["XDG_CACHE_HOME"] = cacheHome;
});
afterAll(() => {
  if (before === undefined) delete process.env["XDG_CACHE_HOME"];
  else process.env["XDG_CACHE_HOME"] = before;
  cleanUp();
});

const page = (text: string) => `export const A = () => <p className="x">${text}</p>;\n`;

function open(folder: string): Project {
  const opened = openProject(diskFiles(folder));
  if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
  return opened.project;
}

async function surveyed(folder: string): Promise<string[]> {
  const cache = diskCache(folder, "survey");
  const { files } = await surveyProject(open(folder), {}, { cache });
  cache.save();
  return files.flatMap(({ literals }) => literals.map(({ text }) => text));
}

describe("the cache", () => {
  test("a second run gives the same, and looks at what changed alone", async () => {
    const folder = temporaryProject(
      smallProject({ "src/a.tsx": page("First text"), "src/b.tsx": page("Second text") }),
    );
    const first = await surveyed(folder);
    expect(first).toEqual(["First text", "Second text"]);
    expect(await surveyed(folder)).toEqual(first);
    writeFileSync(join(folder, "src/b.tsx"), page("Another text"));
    expect(await surveyed(folder)).toEqual(["First text", "Another text"]);
  });

  test("a survey that it holds is used, and a damaged one counts as none", async () => {
    const folder = temporaryProject(smallProject({ "src/a.tsx": page("Real text") }));
    await surveyed(folder);
    const [file] = readdirSync(join(cacheHome, "fond-ledger")).filter((name) =>
      readFileSync(join(cacheHome, "fond-ledger", name), "utf8").includes("Real text"),
    );
    const path = join(cacheHome, "fond-ledger", file ?? "");
    writeFileSync(path, readFileSync(path, "utf8").replaceAll("Real text", "Kept text"));
    expect(await surveyed(folder)).toEqual(["Kept text"]);
    writeFileSync(path, "{ damaged");
    expect(await surveyed(folder)).toEqual(["Real text"]);
  });

  test("other settings do not read it", async () => {
    const folder = temporaryProject(
      smallProject({ "src/a.tsx": 'export const A = () => f({ zing: "zang" });\n' }),
    );
    expect(await surveyed(folder)).toEqual([]);
    const config = JSON.parse(readFileSync(join(folder, "fond.config.json"), "utf8")) as { books: object[] };
    writeFileSync(
      join(folder, "fond.config.json"),
      JSON.stringify({
        ...config,
        books: [{ ...config.books[0], code: ["src/*.tsx"], ignore: ["src/home.tsx"] }],
      }),
    );
    expect((await fond(folder, "survey", "--all", "--format", "json")).stdout).toContain("zang");
  });
});

test("several threads find the same in the same order as one", async () => {
  const pages = Object.fromEntries(
    Array.from({ length: 200 }, (_, index) => [
      `src/page${String(index).padStart(3, "0")}.tsx`,
      page(`Text number ${index}`),
    ]),
  );
  const folder = temporaryProject(smallProject(pages));
  const steps: number[] = [];
  const run = async (jobs: number) => {
    const { files } = await surveyProject(
      open(folder),
      {},
      { elsewhere: threadsFor(folder, "fond.config.json", jobs, (done) => steps.push(done)) },
    );
    return files.map(({ file, literals }) => [file, literals.map(({ text }) => text)]);
  };
  const one = await run(1);
  expect(one).toHaveLength(201);
  expect(await run(2)).toEqual(one);
  expect(Math.max(...steps)).toBe(201);
});

test("several threads extract the same as one, where keys of one file are another's too", async () => {
  const pages = Object.fromEntries(
    Array.from({ length: 200 }, (_, index) => [
      `src/page${String(index).padStart(3, "0")}.tsx`,
      page(`Text number ${index % 150}`),
    ]),
  );
  const folder = temporaryProject(smallProject(pages));
  const config = join(folder, "fond.config.json");
  const written = JSON.parse(readFileSync(config, "utf8")) as { books: object[] };
  const emit = { import: 'import { t } from "./t"' };
  writeFileSync(
    config,
    JSON.stringify({ ...written, books: [{ ...written.books[0], naming: { pattern: "{role}" }, emit }] }),
  );
  const run = (jobs?: number) =>
    extractProject(
      open(folder),
      {},
      jobs === undefined ? {} : { elsewhere: threadsFor(folder, "fond.config.json", jobs, () => undefined) },
    );
  const alone = await run();
  expect(alone.extracted).toHaveLength(200);
  // The first text is said twice, under the key that has no number.
  expect(new Set(alone.extracted.map(({ key }) => key)).size).toBe(199);
  expect(await run(1)).toEqual(alone);
  expect(await run(2)).toEqual(alone);
});
