import { expect, test } from "@jest/globals";
import { torture, writings } from "./main.js";

test("killed at random moments, each file is old or new, and a second run ends what the first began", async () => {
  // Each of them many times is what `npm run torture` is for.
  const some = writings.filter((_, at) => at % 2 === 0);
  const said: string[] = [];
  const failures = await torture(1, 1, some, (line) => said.push(line));
  expect(failures).toEqual([]);
  expect(said.length).toBe(some.length);
}, 400_000);
