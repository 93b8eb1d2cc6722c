// Records what java.util.Properties and java.text.MessageFormat make of many texts, for tests on machines without Java. Run it
// where Java is.
import { writeFileSync } from "node:fs";
import { askMessageFormat, messagePatterns } from "../dist/test/support/message-oracle.js";
import { askJava, propertiesTexts } from "../dist/test/support/properties-oracle.js";

const record = (name, cases) => {
  if (!cases) throw new Error("there is no Java on this machine");
  const lines = cases.map((one) => JSON.stringify(one));
  writeFileSync(
    new URL(`../test/fixtures/oracle/${name}.json`, import.meta.url),
    `[\n${lines.join(",\n")}\n]\n`,
  );
  console.log(`${name}: ${cases.length} cases recorded`);
};
record("properties", askJava(propertiesTexts(20310504, 600)));
record("messages", askMessageFormat(messagePatterns(20310505, 1500)));
