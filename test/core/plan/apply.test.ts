import { describe, expect, test } from "@jest/globals";
import { memoryFiles, type MemoryFiles } from "../../../src/core/files/memory-files.js";
import { applyPlan, journalFile, recover } from "../../../src/core/plan/apply.js";
import { unifiedDiff } from "../../../src/core/plan/diff.js";
import { makePlan, type Plan } from "../../../src/core/plan/plan.js";

const before = { "a.json": "old a", "b.json": "old b", "c.json": "old c" };
const after = { "a.json": "new a", "b.json": "new b", "d.json": "new d" };

const plan: Plan = makePlan(
  [
    { file: "a.json", before: "old a", after: "new a" },
    { file: "b.json", before: "old b", after: "new b" },
    { file: "c.json", before: "old c", after: undefined },
    { file: "d.json", before: undefined, after: "new d" },
    { file: "same.json", before: "x", after: "x" },
  ],
  {},
);

class Killed extends Error {}

/** Files whose operation number `fatal` (from 0) never happens, and none after it: as if the process was killed there. */
function mortal(files: MemoryFiles, fatal: number, reason: () => Error, onlyOnce: boolean): MemoryFiles {
  let operations = 0;
  const count = () => {
    const now = operations++;
    if (onlyOnce ? now === fatal : now >= fatal) throw reason();
  };
  return {
    ...files,
    write: (path, text) => (count(), files.write(path, text)),
    rename: (from, to) => (count(), files.rename(from, to)),
    remove: (path) => (count(), files.remove(path)),
  };
}

const contents = (files: MemoryFiles) => Object.fromEntries([...files.contents].sort());

describe("a plan", () => {
  test("leaves out what does not change, and sorts the rest", () => {
    expect(plan.changes.map(({ file }) => file)).toEqual(["a.json", "b.json", "c.json", "d.json"]);
  });

  test("is carried out whole, and nothing stays behind", () => {
    const files = memoryFiles(before);
    expect(applyPlan(files, plan)).toEqual({ ok: true, written: ["a.json", "b.json", "c.json", "d.json"] });
    expect(contents(files)).toEqual(after);
  });

  test("is refused whole when a file changed after it was read", () => {
    const files = memoryFiles({ ...before, "b.json": "edited meanwhile" });
    expect(applyPlan(files, plan)).toMatchObject({ ok: false, file: "b.json" });
    expect(contents(files)).toEqual({ ...before, "b.json": "edited meanwhile" });
  });

  test("is refused when a file that it would make is there already", () => {
    expect(applyPlan(memoryFiles({ ...before, "d.json": "somebody's" }), plan)).toMatchObject({
      ok: false,
      file: "d.json",
    });
  });

  test("is refused whole when two of its parts change one file", () => {
    const files = memoryFiles({ "a.json": "old" });
    const changes = ["one", "two"].map((after) => ({ file: "a.json", before: "old", after }));
    expect(applyPlan(files, makePlan(changes, {}))).toMatchObject({ ok: false, file: "a.json" });
    expect(contents(files)).toEqual({ "a.json": "old" });
  });

  test("keeps a byte order mark", () => {
    const files = memoryFiles({ "a.json": "\uFEFFold" });
    applyPlan(files, makePlan([{ file: "a.json", before: "old", after: "new", bom: true }], {}));
    expect(files.contents.get("a.json")).toBe("\uFEFFnew");
  });

  const steps = Array.from({ length: 22 }, (_, step) => step);

  test.each(steps)("killed at operation %i, the next run ends with all of it or none", (fatal) => {
    const files = memoryFiles(before);
    let killed = false;
    try {
      applyPlan(
        mortal(files, fatal, () => new Killed(), false),
        plan,
      );
    } catch (error) {
      killed = error instanceof Killed;
    }
    for (const [path, text] of files.contents) {
      if (path.startsWith(".")) continue;
      expect([before[path as keyof typeof before], after[path as keyof typeof after]]).toContain(text);
    }
    expect(recover(files)).toMatchObject({ ok: true });
    const settled = Object.fromEntries(
      Object.entries(contents(files)).filter(([path]) => !path.startsWith(".")),
    );
    expect([JSON.stringify(before), JSON.stringify(after)]).toContain(JSON.stringify(settled));
    expect(files.contents.has(journalFile)).toBe(false);
    expect(
      killed ||
        JSON.stringify(settled) === JSON.stringify(after) ||
        JSON.stringify(settled) === JSON.stringify(before),
    ).toBe(true);
  });

  test.each(steps)("where operation %i alone is refused, nothing is half written", (fatal) => {
    const files = memoryFiles(before);
    const result = applyPlan(
      mortal(files, fatal, () => new Error("the disk is full"), true),
      plan,
    );
    const isRecord = (path: string) => path.startsWith(".");
    const settled = Object.fromEntries(Object.entries(contents(files)).filter(([path]) => !isRecord(path)));
    // What it says is what is there, without another run.
    expect(settled).toEqual(result.ok ? after : before);
    if (!result.ok) expect(result.message).toContain("the disk is full");
    const left = [...files.contents.keys()].filter(isRecord);
    if (result.ok) expect(result.left?.files ?? []).toEqual(left);
    else for (const path of left) expect(result.remedy).toContain(path);
    expect(recover(files).ok).toBe(true);
  });

  test("where nothing can be removed any more, all is written and what is left is named", () => {
    const files = memoryFiles(before);
    const changes = plan.changes.filter(({ after: text }) => text !== undefined);
    const result = applyPlan(
      {
        ...files,
        remove: () => {
          throw new Error("permission is denied");
        },
      },
      makePlan(changes, {}),
    );
    expect(result).toMatchObject({ ok: true, left: { reason: "permission is denied" } });
    expect(result.ok && result.left?.files).toContain(journalFile);
    expect(files.contents.get("a.json")).toBe("new a");
    // The next run takes it from there.
    expect(applyPlan(files, makePlan([], {}))).toMatchObject({ ok: true });
    expect([...files.contents.keys()].filter((path) => path.startsWith("."))).toEqual([]);
  });

  test("a journal that moves anything but our own records is not followed", () => {
    const files = memoryFiles({
      ...before,
      "evil.txt": "x",
      [journalFile]: JSON.stringify({
        version: 1,
        steps: [{ file: "a.json", staged: "evil.txt", before: "absent", after: "absent" }],
      }),
    });
    expect(recover(files)).toMatchObject({ ok: false, file: journalFile });
    expect(files.contents.get("a.json")).toBe("old a");
  });

  test("what somebody changed after a crash is not overwritten", () => {
    const files = memoryFiles(before);
    expect(
      applyPlan(
        mortal(files, 9, () => new Killed(), false),
        plan,
      ),
    ).toMatchObject({ ok: false, file: "b.json" });
    expect(files.contents.has(journalFile)).toBe(true);
    expect(files.contents.get("a.json")).toBe("new a");
    files.contents.set("b.json", "edited meanwhile");
    expect(recover(files)).toMatchObject({ ok: false, file: "b.json" });
    expect(files.contents.get("b.json")).toBe("edited meanwhile");
    expect(files.contents.get(".b.json.fond-new")).toBe("new b");
  });

  test("a journal that cannot be read is said", () => {
    expect(applyPlan(memoryFiles({ ...before, [journalFile]: "{" }), plan)).toMatchObject({
      ok: false,
      file: journalFile,
    });
  });
});

test.each([
  ["changed", { file: "a", before: "1\n2\n", after: "1\n3\n" }, ["--- a/a", "+++ b/a", "-2", "+3"]],
  ["new", { file: "a", before: undefined, after: "1\n" }, ["--- /dev/null", "+++ b/a", "+1"]],
  ["removed", { file: "a", before: "1\n", after: undefined }, ["--- a/a", "+++ /dev/null", "-1"]],
])("the diff of a %s file", (_, change, lines) => {
  const diff = unifiedDiff(change).split("\n");
  for (const line of lines) expect(diff).toContain(line);
});
