// Records what ICU4J makes of many messages, for tests on machines without it. Debian's package libicu4j-java has it.
import { writeFileSync } from "node:fs";
import { askIcu, icuQuestions, styleQuestions } from "../dist/test/support/icu-oracle.js";

for (const [name, questions] of [
  ["icu", icuQuestions(20310504, 2500)],
  ["styles", styleQuestions(20310504, 700)],
]) {
  const cases = askIcu(questions);
  if (!cases) throw new Error("ICU4J is not on this machine");
  const lines = cases.map((one) => JSON.stringify(one));
  writeFileSync(
    new URL(`../test/fixtures/oracle/${name}.json`, import.meta.url),
    `[\n${lines.join(",\n")}\n]\n`,
  );
  console.log(
    `${name}: ${cases.length} cases recorded, ${cases.filter(({ text }) => text === null).length} of them refused`,
  );
}
