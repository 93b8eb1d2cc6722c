import { afterAll, describe, expect, test } from "@jest/globals";
import { execFileSync } from "node:child_process";
import { rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { changedLines, readDiff } from "../../src/disk/git.js";
import { cleanUp, filesIn, fond, smallProject, temporaryProject } from "../support/project.js";

afterAll(cleanUp);

const lines = (count: number) => Array.from({ length: count }, (_, at) => `line ${at + 1}\n`).join("");

function repository(files: Record<string, string>): string {
  const folder = temporaryProject(files);
  const git = (...given: string[]) => execFileSync("git", given, { cwd: folder, stdio: "pipe" });
  git("init", "-q");
  git("config", "user.email", "clerk@quay.example");
  git("config", "user.name", "Clerk");
  git("add", "-A");
  git("commit", "-qm", "start");
  return folder;
}

describe("the lines that Git says are new", () => {
  test("changed, added and untracked; not what only went or stayed", () => {
    const folder = repository({ "a b.txt": lines(9), "gone.txt": "x\n", "same.txt": "x\n", "ü.txt": "x\n" });
    writeFileSync(
      join(folder, "a b.txt"),
      lines(9).replace("line 2\n", "two\n").replace("line 7\n", "7\n7b\n").replace("line 9\n", ""),
    );
    writeFileSync(join(folder, "ü.txt"), "y\n");
    writeFileSync(join(folder, "new.txt"), "fresh\n");
    rmSync(join(folder, "gone.txt"));
    const found = changedLines(folder, { since: "HEAD" });
    if (!found.ok) throw new Error(found.reason);
    const { changes } = found;
    expect([1, 2, 3, 6, 7, 8, 9].filter((line) => changes.has("a b.txt", line))).toEqual([2, 7, 8]);
    expect(changes.has("a b.txt", 3, 7)).toBe(true);
    expect(changes.has("ü.txt", 1)).toBe(true);
    expect(changes.has("new.txt", 40)).toBe(true);
    expect(changes.hasFile("same.txt")).toBe(false);
  });

  test("staged is what the next commit will hold, and nothing else", () => {
    const folder = repository({ "a.txt": lines(3) });
    writeFileSync(join(folder, "a.txt"), "first\nline 2\nline 3\n");
    execFileSync("git", ["add", "a.txt"], { cwd: folder });
    writeFileSync(join(folder, "a.txt"), "first\nline 2\nlast\n");
    const found = changedLines(folder, { staged: true });
    if (!found.ok) throw new Error(found.reason);
    expect([1, 2, 3].filter((line) => found.changes.has("a.txt", line))).toEqual([1]);
  });

  test.each([
    ["no such revision", true, "no-such-branch"],
    ["an option in its place", true, "--output=x"],
    ["no repository", false, "HEAD"],
  ])("%s: a reason", (_, isRepository, since) => {
    const folder = isRepository ? repository({ a: "" }) : temporaryProject({ a: "" });
    const found = changedLines(folder, { since });
    expect(found.ok).toBe(false);
    if (!found.ok) expect(found.reason).not.toBe("");
  });

  test("a diff whose added line looks like a header is read by its hunks", () => {
    const diff = "diff --git a/x b/x\n--- a/x\n+++ b/x\n@@ -1 +1,2 @@\n-a\n+++ b/y\n+b\n@@ -9,0 +11 @@\n+c\n";
    expect([...readDiff(diff)]).toEqual([
      [
        "x",
        [
          [1, 2],
          [11, 11],
        ],
      ],
    ]);
  });
});

describe("survey and lint --since", () => {
  test("show what is new since a revision, and refuse one that is not there", async () => {
    const old = "export const Old = () => <p>An old text</p>;\n";
    const folder = repository(smallProject({ "src/page.tsx": old }));
    writeFileSync(join(folder, "src/page.tsx"), `${old}export const New = () => <p>A new text</p>;\n`);
    const { status, stdout } = await fond(folder, "survey", "--since", "HEAD");
    expect(status).toBe(0);
    expect(stdout).toContain("A new text");
    expect(stdout).not.toContain("An old text");
    expect((await fond(folder, "survey")).stdout).toContain("An old text");
    writeFileSync(
      join(folder, "texts/de.json"),
      '{\n  "home": {\n    "title": "Abfahrten",\n    "count": "{n, plural, one {#}}"\n  }\n}\n',
    );
    const found = JSON.parse((await fond(folder, "lint", "--since", "HEAD", "--format", "json")).stdout) as {
      findings: { file: string }[];
    };
    expect(new Set(found.findings.map(({ file }) => file))).toEqual(new Set(["texts/de.json"]));
    expect(await fond(folder, "survey", "--since", "nowhere")).toMatchObject({ status: 2 });
    expect(await fond(folder, "survey", "--since", "HEAD", "--staged")).toMatchObject({ status: 2 });
  });
});

describe("the gate for text in code", () => {
  test("asks for what is new only: since a revision, or in what is staged", async () => {
    const old = "export const Old = () => <p>An old text</p>;\n";
    const more = "export const New = () => <p>A new text</p>;\n";
    const folder = repository(smallProject({ "src/page.tsx": old }));
    const check = (...given: string[]) => fond(folder, "survey", "--check", ...given);
    expect((await check("--since", "HEAD")).status).toBe(0);
    expect((await check()).status).toBe(1);
    expect(await fond(folder, "survey", "--baseline", "--write")).toMatchObject({ status: 0 });
    expect((await check()).status).toBe(0);
    writeFileSync(join(folder, "src/page.tsx"), old + more);
    // What is not staged is not part of the next commit.
    expect((await check("--staged")).status).toBe(0);
    const since = await check("--since", "HEAD");
    expect(since.status).toBe(1);
    expect(since.stdout).toContain("A new text");
    expect(since.stdout).not.toContain("An old text");
    execFileSync("git", ["add", "-A"], { cwd: folder });
    const staged = await check("--staged", "--format", "json");
    expect(staged.status).toBe(1);
    const { literals } = JSON.parse(staged.stdout) as { literals: { text: string }[] };
    expect(literals.map(({ text }) => text)).toEqual(["A new text"]);
    // Text that is in the baseline stays accepted, also where its line has moved and counts as new.
    writeFileSync(join(folder, "src/page.tsx"), `\n${old.replace("Old", "Older")}`);
    expect((await check("--since", "HEAD")).status).toBe(0);
  });
});

describe("waive", () => {
  test("accepts a literal by its place, and the findings of a rule", async () => {
    const folder = temporaryProject(
      smallProject({ "src/page.tsx": "export const A = () => <p>Shelf mark</p>;\n" }),
    );
    expect(await fond(folder, "waive", "src/page.tsx:1")).toMatchObject({ status: 2 });
    expect(await fond(folder, "waive", "src/page.tsx:9", "--reason", "x")).toMatchObject({ status: 2 });
    expect((await fond(folder, "waive", "src/page.tsx:1", "--reason", "a name", "--write")).status).toBe(0);
    expect((await fond(folder, "survey")).stdout).not.toContain("Shelf mark");
    expect(await fond(folder, "waive", "--rule", "key/mising", "--reason", "x")).toMatchObject({
      status: 2,
    });
    const given = ["--rule", "key/missing", "--key", "home.*", "--locale", "de", "--reason", "later"];
    expect((await fond(folder, "waive", ...given, "--until", "2031-01-01", "--write")).status).toBe(0);
    const kept = JSON.parse(filesIn(folder)["fond.waivers.json"] ?? "") as { waivers: object[] };
    expect(kept.waivers).toEqual([
      { literal: "Shelf mark", file: "src/page.tsx", reason: "a name" },
      { rule: "key/missing", key: "home.*", locale: "de", reason: "later", until: "2031-01-01" },
    ]);
  });
});
