import { afterAll, describe, expect, test } from "@jest/globals";
import { spawn } from "node:child_process";
import { mkdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { cleanUp, program, smallProject, temporaryProject } from "../support/project.js";

afterAll(cleanUp);

/** A command that goes on: what it has printed, and its end. */
function started(folder: string, ...args: readonly string[]) {
  const child = spawn(process.execPath, [program, ...args], {
    cwd: folder,
    env: { ...process.env, FORCE_COLOR: "0" },
  });
  let printed = "";
  for (const stream of [child.stdout, child.stderr])
    stream.on("data", (chunk: Buffer) => (printed += chunk.toString()));
  return {
    /** Waits until it has printed something, from a place on. */
    async says(words: string): Promise<void> {
      for (let count = 0; !printed.includes(words); count++) {
        if (count > 300) throw new Error(`it never said "${words}": ${printed}`);
        await new Promise((resolve) => setTimeout(resolve, 50));
      }
      printed = printed.slice(printed.indexOf(words) + words.length);
    },
    stop: () =>
      new Promise<number | null>((resolve) => {
        child.on("exit", resolve);
        child.kill("SIGINT");
      }),
  };
}

describe("with --watch", () => {
  test("lint runs again on each change, through what cannot be read for a moment", async () => {
    const folder = temporaryProject(smallProject());
    const file = join(folder, "texts/de.json");
    const before = readFileSync(file, "utf8");
    const run = started(folder, "lint", "--watch");
    await run.says("no findings");
    await run.says("Waiting for changes");
    writeFileSync(file, before.replace("{n,", "{m,"));
    await run.says("unknown argument {m}");
    writeFileSync(join(folder, "fond.config.json"), "{");
    await run.says("fond.config.json");
    writeFileSync(join(folder, "fond.config.json"), smallProject()["fond.config.json"] ?? "");
    writeFileSync(file, before);
    await run.says("no findings");
    expect(await run.stop()).toBe(0);
  }, 60_000);

  test("files that are new are seen, and those that are gone", async () => {
    const folder = temporaryProject(smallProject());
    const run = started(folder, "lint", "--watch");
    await run.says("Waiting for changes");
    mkdirSync(join(folder, "src/more"), { recursive: true });
    writeFileSync(join(folder, "src/more/new.tsx"), 'export const late = () => t("trip.nowhere");\n');
    await run.says("src/more/new.tsx");
    await run.says("Waiting for changes");
    rmSync(join(folder, "src/more"), { recursive: true });
    await run.says("no findings");
    expect(await run.stop()).toBe(0);
  }, 60_000);

  test("reconcile keeps the locales in step with the source", async () => {
    const folder = temporaryProject(smallProject());
    const run = started(folder, "reconcile", "--watch", "--write");
    await run.says("Waiting for changes");
    const source = join(folder, "texts/en.json");
    writeFileSync(
      source,
      readFileSync(source, "utf8").replace('"title"', '"late": "The boat is late",\n    "title"'),
    );
    await run.says("keys added");
    await run.says("Waiting for changes");
    expect(readFileSync(join(folder, "texts/pl.json"), "utf8")).toContain("The boat is late");
    await run.stop();
  }, 60_000);
});
