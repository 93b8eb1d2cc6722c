import { describe, expect, test } from "@jest/globals";
import { memoryFiles } from "../../../src/core/files/memory-files.js";
import type { Finding } from "../../../src/core/lint/finding.js";
import { lintProject } from "../../../src/core/project/lint-project.js";
import { openProject } from "../../../src/core/project/project.js";
import { waiverOf, waiverPlan } from "../../../src/core/project/waive.js";

const config = (name: string) => ({ name, files: `${name}/{locale}/{namespace}.json` });

/** A project with findings at keys, and in files as a whole. */
function project(waivers?: string) {
  const files = memoryFiles({
    "fond.config.json": JSON.stringify({ source: "en", targets: ["de"], books: [config("a"), config("b")] }),
    "a/en/top.json": '{ "hi": "Hello {name}", "bye": "Bye" }',
    "a/de/top.json": '{ "hi": "Hallo {nam}", "bye": "Tschüss", }',
    "b/en/top.json": '{ "hi": "Hello {name}" }',
    "b/de/top.json": '{ "hi": "Hallo {nam}" }',
    ...(waivers !== undefined && { "fond.waivers.json": waivers }),
  });
  const opened = openProject(files);
  if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
  return opened.project;
}

describe("accepting findings", () => {
  test("accepts each of them and no other", async () => {
    const open = project();
    const findings = await lintProject(open);
    expect(findings.some(({ key }) => key === undefined)).toBe(true);
    const id = ({ rule, file, key }: Finding) => `${rule} ${file} ${key ?? ""}`;
    for (const one of findings) {
      const [change] = waiverPlan(open, [waiverOf(open, one, "meant so")]).changes;
      const left = await lintProject(project(change?.after));
      expect(left.map(id)).toEqual(findings.map(id).filter((other) => other !== id(one)));
    }
  });

  test("keeps what the file of waivers has, with its byte order mark; nothing to add changes nothing", () => {
    const open = project('\uFEFF{\n  // why\n  "waivers": []\n}\n');
    expect(waiverPlan(open, []).changes).toEqual([]);
    const [change] = waiverPlan(open, [{ rule: "key/missing", reason: "later" }]).changes;
    expect(change).toMatchObject({ file: "fond.waivers.json", bom: true });
    expect(change?.after).toContain("// why");
  });
});
