import { expect, test } from "@jest/globals";
import { torture, writings } from "./main.js";

test("killed at random moments, each file is old or new, and a second run ends what the first began", async () => {
  const said: string[] = [];
  const failures = await torture(10, 1, writings, (line) => said.push(line));
  expect(failures).toEqual([]);
  expect(said.length).toBe(writings.length);
}, 400_000);
