import { afterAll, describe, expect, test } from "@jest/globals";
import { spawnSync } from "node:child_process";
import { readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { cleanUp, fond, program, smallProject, temporaryProject } from "../support/project.js";

afterAll(cleanUp);

/** A project with so many files of code that threads share them out. */
function manyFiles(): string {
  const code = Object.fromEntries(
    Array.from({ length: 170 }, (_, at) => [
      `src/page${at}.tsx`,
      `export const page${at} = (x) => [${'t("home.title"), '.repeat(10)}t("${at % 2 === 1 ? `no.such.key${at}` : "home.title"}"), t(\`trip.\${x}\`), rich("trip.seats", { m: x })];\n`,
    ]),
  );
  return temporaryProject({ ...smallProject(), ...code, "src/broken.tsx": "export const = <p>\n" });
}

describe("what lint reads of code", () => {
  test("is the same with any number of threads, with the cache and without", () => {
    const folder = manyFiles();
    const cache = temporaryProject();
    const lint = (...more: readonly string[]) =>
      spawnSync(process.execPath, [program, "lint", "--verbose", ...more], {
        cwd: folder,
        encoding: "utf8",
        env: { ...process.env, XDG_CACHE_HOME: cache, FORCE_COLOR: "0" },
      }).stdout;
    const alone = lint("--no-cache", "--jobs", "1");
    expect(alone).toContain("no.such.key169");
    expect(alone).toContain("src/broken.tsx");
    expect(lint("--no-cache", "--jobs", "2")).toBe(alone);
    expect(lint()).toBe(alone);
    expect(readdirSync(join(cache, "fond-ledger"))).toHaveLength(1);
    expect(lint()).toBe(alone);
    // Only the file that changed is read anew; what the others ask for is known.
    writeFileSync(join(folder, "src/page7.tsx"), 'export const page7 = t("another.key");\n');
    const changed = lint();
    expect(changed).toContain("another.key");
    expect(changed).not.toContain('"no.such.key7"');
    expect(changed).toBe(lint("--no-cache", "--jobs", "1"));
    const config = join(folder, "fond.config.json");
    writeFileSync(config, readFileSync(config, "utf8").replace('{"call":"t"},', ""));
    expect(lint()).toBe(lint("--no-cache", "--jobs", "1"));
    const [file = ""] = readdirSync(join(cache, "fond-ledger"));
    writeFileSync(join(cache, "fond-ledger", file), "{ damaged");
    expect(lint()).toBe(lint("--no-cache"));
  }, 120_000);

  test("needs no configuration on disk, for few files or many", async () => {
    const folder = manyFiles();
    rmSync(join(folder, "fond.config.json"));
    for (const args of [
      ["lint"],
      ["trace", "home.title"],
      ["survey"],
      [],
      ["lint", "--jobs", "2", "--no-cache"],
    ]) {
      const { status, stderr } = await fond(folder, ...args);
      if (status !== 0 && status !== 1) throw new Error(`fond ${args.join(" ")}: ${stderr}`);
    }
  }, 60_000);
});
