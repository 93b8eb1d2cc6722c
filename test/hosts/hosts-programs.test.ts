import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { tmpdir } from "node:os";
import { compare } from "./compare.js";
import { hosts } from "./hosts.js";
import { lines } from "./model.js";

const script = hosts.find(({ name }) => name === "JavaScript");

test("random programs of JavaScript print the same before and after", async () => {
  if (!script) throw new Error("no host");
  const all = fc.sample(lines(script.signs), { seed: 4, numRuns: 80 });
  const { taken, outputs, wrong } = await compare(script, all, tmpdir());
  expect(wrong).toEqual([]);
  expect(taken).toBeGreaterThan(60);
  expect(outputs).toBe(80 * 16);
});

test("a lookup that loses its values is seen", async () => {
  if (!script) throw new Error("no host");
  const { files, args } = script.runner;
  const lossy = { "run.mjs": (files["run.mjs"] ?? "").replace("[key, values]", "[key, {}]") };
  const all = fc.sample(lines(script.signs), { seed: 4, numRuns: 20 });
  expect((await compare({ ...script, runner: { files: lossy, args } }, all, tmpdir())).wrong).not.toEqual([]);
});
