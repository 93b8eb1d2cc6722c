import { spawnSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { fileURLToPath } from "node:url";
import { messageReader } from "../src/core/message/parse.js";
import { parseIcu } from "../src/core/message/syntaxes/icu.js";
import { shortest, showComparison } from "./measure.js";

/** A million messages as catalogs hold them: most of them plain, some with arguments, a few with plurals. */
function mixedMessages(count: number): string[] {
  const message = (index: number) => {
    switch (index % 10) {
      case 0:
        return `{count, plural, one {# boat at quay ${index}} other {# boats at quay ${index}}}`;
      case 1:
      case 2:
        return `Hello {name}, your boat ${index} leaves from {quay} at {time, time, short}`;
      case 3:
        return `It''s boat ${index}, read {link}`;
      default:
        return `Plain text number ${index} of the sailing's page`;
    }
  };
  // Cut out of one text, as messages are that were read from a file.
  return Buffer.from(Array.from({ length: count }, (_, index) => message(index)).join("\n"))
    .toString()
    .split("\n");
}

/** Parsing messages, against ICU4J's MessagePattern on the JVM where that is there. */
export async function messageBench(): Promise<void> {
  const messages = mixedMessages(1_000_000);
  console.log(`Parsing of ${messages.length} messages`);
  // As many rounds as the other side has.
  const parsing = await shortest(12, () => {
    const reader = messageReader("icu");
    for (const message of messages) reader.readOnce(message);
  });
  const perMessage = (parsing * 1e6) / messages.length;
  const folder = mkdtempSync(join(tmpdir(), "fond-bench-"));
  writeFileSync(join(folder, "messages.txt"), messages.join("\n"));
  const source = fileURLToPath(new URL("../../test/oracle/PatternBench.java", import.meta.url));
  const { status, stdout } = spawnSync(
    "java",
    ["-cp", "/usr/share/java/icu4j.jar", source, join(folder, "messages.txt")],
    { encoding: "utf8" },
  );
  rmSync(folder, { recursive: true, force: true });
  if (status === 0)
    console.log(
      showComparison({
        what: "parsing a message, plain or not",
        against: "ICU4J's MessagePattern, warm",
        milliseconds: parsing,
        baseline: (Number(stdout.split(" ")[0]) * messages.length) / 1e6,
        aim: 1,
      }),
    );
  else console.log(`  ${Math.round(perMessage)} ns a message; ICU4J is not on this machine to compare with`);
  const plain = messages.filter((message) => !/[{}<]|''/.test(message));
  const finding = await shortest(3, () => {
    let special = 0;
    for (const message of plain) if (/[{}<]|''/.test(message)) special++;
    return special;
  });
  const plainParsing = await shortest(3, () => {
    for (const message of plain) parseIcu(message);
  });
  console.log(
    showComparison({
      what: "parsing plain messages",
      against: "finding that they are plain",
      milliseconds: plainParsing,
      baseline: finding,
      aim: 3,
    }),
  );
  const treeing = await shortest(6, () => {
    const reader = messageReader("icu");
    let nodes = 0;
    for (const message of messages) nodes += reader.readOnce(message).nodes.length;
    return nodes;
  });
  console.log(
    showComparison({
      what: "parsing with the tree of nodes",
      against: "parsing alone",
      milliseconds: treeing,
      baseline: parsing,
    }),
  );
  // As many as a reader is sure to keep.
  const special = messages.filter((message) => /[{}<]|''/.test(message)).slice(0, 20_000);
  const twice = [...special, ...special];
  const once = await shortest(3, () => {
    const reader = messageReader("icu");
    for (const message of special) reader.read(message);
  });
  console.log(
    showComparison({
      what: "reading each message twice in one run",
      against: "reading it once",
      milliseconds: await shortest(3, () => {
        const reader = messageReader("icu");
        for (const message of twice) reader.read(message);
      }),
      baseline: once,
      aim: 1.5,
    }),
  );
}
