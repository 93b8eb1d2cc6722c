// Records what java.util.Properties makes of many texts, for tests on machines without Java. Run it where Java is.
import { writeFileSync } from "node:fs";
import { askJava, propertiesTexts } from "../dist/test/support/properties-oracle.js";

const cases = askJava(propertiesTexts(20310504, 600));
if (!cases) throw new Error("there is no Java on this machine");
const lines = cases.map((one) => JSON.stringify(one));
writeFileSync(
  new URL("../test/fixtures/oracle/properties.json", import.meta.url),
  `[\n${lines.join(",\n")}\n]\n`,
);
console.log(`${cases.length} cases recorded`);
