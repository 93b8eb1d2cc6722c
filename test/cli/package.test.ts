import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { execFileSync } from "node:child_process";
import {
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  symlinkSync,
  writeFileSync,
} from "node:fs";
import { dirname, join } from "node:path";
import { cleanUp, root, temporaryProject } from "../support/project.js";

afterAll(cleanUp);

/** A folder in which nothing is installed but the package, as it is published, and what it depends on. */
let folder = "";

const run = (...args: readonly string[]) =>
  execFileSync(process.execPath, args, { cwd: folder, encoding: "utf8", stdio: ["ignore", "pipe", "pipe"] });

beforeAll(() => {
  folder = temporaryProject({ "package.json": '{ "private": true }' });
  const npm = process.platform === "win32" ? "npm.cmd" : "npm";
  const printed = execFileSync(npm, ["pack", "--ignore-scripts", "--json", "--pack-destination", folder], {
    cwd: root,
    encoding: "utf8",
    stdio: ["ignore", "pipe", "ignore"],
    shell: process.platform === "win32",
  });
  const [packed] = Object.values(JSON.parse(printed) as Record<string, { filename: string }>);
  execFileSync("tar", ["xzf", packed?.filename ?? ""], { cwd: folder });
  const modules = join(folder, "node_modules");
  mkdirSync(modules);
  renameSync(join(folder, "package"), join(modules, "fond-ledger"));
  const lock = JSON.parse(readFileSync(join(root, "package-lock.json"), "utf8")) as {
    packages: Record<string, { dev?: boolean }>;
  };
  for (const [path, { dev }] of Object.entries(lock.packages)) {
    const name = /^node_modules\/((?:@[^/]+\/)?[^/]+)$/.exec(path)?.[1];
    if (name === undefined || dev === true || !existsSync(join(root, path))) continue;
    mkdirSync(dirname(join(modules, name)), { recursive: true });
    symlinkSync(join(root, path), join(modules, name), "junction");
  }
}, 120_000);

describe("the package as it is published", () => {
  const program = () => join(folder, "node_modules/fond-ledger/dist/bin/main.js");

  test("has a program that runs, and its sample project", () => {
    const { version } = JSON.parse(readFileSync(join(root, "package.json"), "utf8")) as { version: string };
    expect(run(program(), "--version").trim()).toBe(version);
    expect(run(program(), "demo", "sample", "--quiet")).toContain("fond");
    expect(() => run(program(), "lint", "--cwd", "sample")).not.toThrow();
  }, 60_000);

  test("is imported, and required", () => {
    const names = "Object.keys(all).length > 10 && typeof all.openProject";
    writeFileSync(join(folder, "a.mjs"), `import * as all from "fond-ledger";\nconsole.log(${names});\n`);
    writeFileSync(join(folder, "a.cjs"), `const all = require("fond-ledger");\nconsole.log(${names});\n`);
    expect(run("a.mjs").trim()).toBe("function");
    expect(run("a.cjs").trim()).toBe("function");
    for (const part of ["message", "catalog", "plan"])
      expect(run("-e", `console.log(typeof require("fond-ledger/${part}"))`).trim()).toBe("object");
    expect(run("-p", 'require("fond-ledger/schema/config.json").type').trim()).toBe("object");
  });

  test("holds nothing that only this checkout has", () => {
    const listed = execFileSync(
      "tar",
      ["tzf", readdirSync(folder).find((one) => one.endsWith(".tgz")) ?? ""],
      { cwd: folder, encoding: "utf8" },
    );
    expect(listed).not.toMatch(/package\/(?:src|test|bench|scripts|node_modules|\.ci)\//);
    expect(listed).toMatch(/package\/LICENSE/);
  });
});
