import { describe, expect, test } from "@jest/globals";
import { spawnSync } from "node:child_process";
import { mkdirSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { root } from "./support/project.js";

/** The examples of `docs/api.md`, in order. */
const examples = [...readFileSync(join(root, "docs/api.md"), "utf8").matchAll(/```js\n([\s\S]*?)```/g)].map(
  ([, code = ""]) => code,
);

/** What an example prints where the package is installed, in a project with one missing translation. */
function printed(code: string): string {
  const folder = mkdtempSync(join(tmpdir(), "fond-api-"));
  try {
    mkdirSync(join(folder, "node_modules"));
    symlinkSync(root, join(folder, "node_modules", "fond-ledger"), "dir");
    mkdirSync(join(folder, "t"));
    const config = { source: "en", targets: ["de"], books: [{ name: "app", files: "t/{locale}.json" }] };
    writeFileSync(join(folder, "fond.config.json"), JSON.stringify(config));
    writeFileSync(join(folder, "t/en.json"), '{\n  "boat": "Boat"\n}\n');
    writeFileSync(join(folder, "t/de.json"), "{}\n");
    const [imports, rest] = [code.match(/^import .*$/gm) ?? [], code.replace(/^import .*$/gm, "")];
    const file = join(folder, "example.mjs");
    writeFileSync(file, `${imports.join("\n")}\nconst folder = ${JSON.stringify(folder)};\n${rest}`);
    const { stdout, stderr, status } = spawnSync(process.execPath, ["--preserve-symlinks-main", file], {
      encoding: "utf8",
    });
    expect([stderr, status]).toEqual(["", 0]);
    return stdout + (rest.includes("reconcile(") ? readFileSync(join(folder, "t/de.json"), "utf8") : "");
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

describe("the examples of the library's documentation run as printed", () => {
  test("jobs and plans", () => {
    expect(printed(examples[0] ?? "")).toBe(
      't/de.json:1 key/missing (missing): missing key "boat" in de\n{\n  "boat": "Boat"\n}\n',
    );
  });

  test("a rule from outside", () => {
    expect(printed(examples[1] ?? "")).toBe("\"JETZT ABLEGEN\" is in capitals\n[ 'house/shouting' ]\n");
  });

  test("messages, catalogs and plans", () => {
    expect(printed(examples[2] ?? "")).toBe("2 boats\n# The quay\nboat: Schiff\n\ntrue\n");
  });

  test("are all tried here", () => {
    expect(examples).toHaveLength(3);
  });
});
