import { describe, expect, test } from "@jest/globals";
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { measureFile } from "../../support/labels.js";
import { root } from "../../support/project.js";

/** The share of what users read that must be found, and of what is called text that must be right. */
const floors: [string, number, number][] = [
  ["tuned", 0.98, 0.99],
  ["held", 0.975, 0.975],
];

describe.each(floors)("the labelled code in survey/%s", (half, recallFloor, precisionFloor) => {
  test(`is judged with a recall of ${recallFloor} and a precision of ${precisionFloor} at least`, async () => {
    const folder = join(root, "test/fixtures/survey", half);
    const files = await Promise.all(
      readdirSync(folder).map((name) => measureFile(name, readFileSync(join(folder, name), "utf8"))),
    );
    const sum = (pick: (one: (typeof files)[number]) => number) =>
      files.reduce((total, one) => total + pick(one), 0);
    expect(sum(({ labelled }) => labelled)).toBeGreaterThan(400);
    expect(sum(({ found }) => found) / sum(({ labelled }) => labelled)).toBeGreaterThanOrEqual(recallFloor);
    expect(sum(({ shown }) => shown) / sum(({ labelled }) => labelled)).toBeGreaterThanOrEqual(0.985);
    expect(sum(({ right }) => right) / sum(({ called }) => called)).toBeGreaterThanOrEqual(precisionFloor);
  });
});
