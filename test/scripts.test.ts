import { expect, test } from "@jest/globals";
import { spawnSync } from "node:child_process";
import { join } from "node:path";
import { root, temporaryProject } from "./support/project.js";

const check = (folder: string) =>
  spawnSync(process.execPath, [join(root, "scripts/check-registries.mjs"), folder], { encoding: "utf8" });

test("a part that no registry imports is named", () => {
  const files = {
    "core/lint/rules/index.ts": 'import { a } from "./text/a.js";\n',
    "core/lint/rules/text/a.ts": "",
    "core/source/languages/index.ts": 'import { tcl } from "./tcl/tcl.js";\n',
    "core/source/languages/tcl/tcl.ts": 'import { habits } from "./habits.js";\n',
    "core/source/languages/tcl/habits.ts": "",
  };
  expect(check(temporaryProject(files))).toMatchObject({ status: 0, stderr: "" });
  const { status, stderr } = check(
    temporaryProject({ ...files, "core/lint/rules/text/b.ts": "", "core/source/languages/tcl/tcl.ts": "" }),
  );
  expect(status).toBe(1);
  expect(stderr.split("\n").map((line) => line.split(":", 1)[0])).toEqual([
    "src/core/lint/rules/text/b.ts",
    "src/core/source/languages/tcl/habits.ts",
    "",
  ]);
  expect(check(temporaryProject({ "other.ts": "" })).stderr).toContain("no part was found");
});
