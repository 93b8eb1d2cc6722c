import { expect, test } from "@jest/globals";
import { corpusOf } from "./main.js";
import { mutated } from "./mutate.js";
import { fuzzTargets } from "./targets.js";

test.each(fuzzTargets.map((target) => [target.name, target] as const))(
  "%s: no text makes it throw",
  async (_, target) => {
    const samples = corpusOf(target);
    expect(samples.length).toBeGreaterThan(0);
    for (const sample of samples) await target.run(sample);
    for (let seed = 1; seed <= 12; seed++) await target.run(mutated(seed, samples, target.tokens));
  },
);
