import { afterAll, describe, expect, test } from "@jest/globals";
import { chmodSync, existsSync, statSync, symlinkSync } from "node:fs";
import { join } from "node:path";
import { applyPlan } from "../../src/core/plan/apply.js";
import { makePlan } from "../../src/core/plan/plan.js";
import { diskFiles } from "../../src/disk/disk-files.js";
import { cleanUp, filesIn, temporaryProject } from "../support/project.js";

afterAll(cleanUp);

describe("listing", () => {
  test("leaves out what the nearest .gitignore excludes, packages, and what links lead to", () => {
    const folder = temporaryProject({
      ".gitignore": "build/\n*.gen.ts\n",
      "src/a.ts": "",
      "src/b.gen.ts": "",
      "build/c.ts": "",
      "lib/.gitignore": "d.ts\n",
      "lib/d.ts": "",
      "lib/e.ts": "",
      "node_modules/x/f.ts": "",
    });
    const outside = temporaryProject({ "g.ts": "" });
    symlinkSync(outside, join(folder, "src/out"));
    const files = diskFiles(folder);
    expect(files.list({ patterns: ["**/*.ts"], respectIgnoreFiles: true })).toEqual(["lib/e.ts", "src/a.ts"]);
    expect(files.list({ patterns: ["src/**/*.ts"] })).toEqual(["src/a.ts", "src/b.gen.ts"]);
  });
});

describe("reading", () => {
  test("says why there is no text", () => {
    const files = diskFiles(temporaryProject({ "a.txt": "x", "b.txt": Uint8Array.from([0xe9]) }));
    expect(files.read("a.txt")).toMatchObject({ ok: true, text: "x" });
    expect(files.read("none.txt")).toMatchObject({ ok: false, trouble: "absent" });
    expect(files.read("b.txt")).toMatchObject({ ok: false, trouble: "encoding" });
    expect(files.read(".")).toMatchObject({
      ok: false,
      trouble: "unreadable",
      detail: "it is a folder, not a file",
    });
  });
});

describe("carrying a plan out on disk", () => {
  test("keeps permissions and byte order marks, makes folders, and leaves nothing behind", () => {
    const folder = temporaryProject({ "a.json": "\uFEFFold", "gone.json": "x" });
    chmodSync(join(folder, "a.json"), 0o640);
    const plan = makePlan(
      [
        { file: "a.json", before: "old", after: "new", bom: true },
        { file: "gone.json", before: "x", after: undefined },
        { file: "deep/er/b.json", before: undefined, after: "b" },
      ],
      {},
    );
    expect(applyPlan(diskFiles(folder), plan)).toMatchObject({ ok: true });
    expect(filesIn(folder)).toEqual({ "a.json": "\uFEFFnew", "deep/er/b.json": "b" });
    expect(statSync(join(folder, "a.json")).mode & 0o777).toBe(0o640);
  });

  test("a folder where a file must go: nothing is changed", () => {
    const folder = temporaryProject({ "a.json": "old", "b.json/inner": "x" });
    const plan = makePlan(
      [
        { file: "a.json", before: "old", after: "new" },
        { file: "b.json", before: undefined, after: "b" },
      ],
      {},
    );
    expect(applyPlan(diskFiles(folder), plan)).toMatchObject({ ok: false, file: "b.json" });
    expect(filesIn(folder)).toEqual({ "a.json": "old", "b.json/inner": "x" });
    expect(existsSync(join(folder, ".a.json.fond-new"))).toBe(false);
  });
});
