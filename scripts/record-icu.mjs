// Records what ICU4J makes of many messages, for tests on machines without it. Debian's package libicu4j-java has it.
import { writeFileSync } from "node:fs";
import { askIcu, icuQuestions } from "../dist/test/support/icu-oracle.js";

const cases = askIcu(icuQuestions(20310504, 2500));
if (!cases) throw new Error("ICU4J is not on this machine");
const lines = cases.map((one) => JSON.stringify(one));
writeFileSync(new URL("../test/fixtures/oracle/icu.json", import.meta.url), `[\n${lines.join(",\n")}\n]\n`);
console.log(
  `${cases.length} cases recorded, ${cases.filter(({ text }) => text === null).length} of them refused`,
);
