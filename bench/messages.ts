import { spawn, type ChildProcess } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { createInterface } from "node:readline";
import { fileURLToPath } from "node:url";
import { messageReader } from "../src/core/message/parse.js";
import { parseIcu } from "../src/core/message/syntaxes/icu/icu.js";
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

/** ICU4J's MessagePattern on the same messages, in a process of its own. */
class MessagePatternRounds {
  private constructor(
    private readonly folder: string,
    private readonly java: ChildProcess,
    private readonly times: AsyncIterator<string>,
  ) {}

  static start(messages: readonly string[]): MessagePatternRounds {
    const folder = mkdtempSync(join(tmpdir(), "fond-bench-"));
    const file = join(folder, "messages.txt");
    writeFileSync(file, messages.join("\n"));
    const source = fileURLToPath(new URL("../../test/oracle/PatternBench.java", import.meta.url));
    const java = spawn("java", ["-cp", "/usr/share/java/icu4j.jar", source, file], {
      stdio: ["pipe", "pipe", "ignore"],
    });
    // Without Java there is nothing to compare with, and no round has a time.
    java.on("error", () => undefined);
    java.stdin.on("error", () => undefined);
    return new MessagePatternRounds(folder, java, createInterface(java.stdout)[Symbol.asyncIterator]());
  }

  /** The milliseconds that the messages from one number up to another take; infinite where ICU4J is not on this machine. */
  async round(from: number, to: number): Promise<number> {
    this.java.stdin?.write(`${from} ${to}\n`);
    const { value } = await this.times.next();
    return typeof value === "string" ? Number(value.split(" ")[0]) / 1e6 : Infinity;
  }

  end(): void {
    this.java.stdin?.end();
    rmSync(this.folder, { recursive: true, force: true });
  }
}

/** So many messages at a time: few enough that the machine lets some rounds through without disturbing them. */
const pieceSize = 25_000;

/**
 * Parsing messages, against ICU4J's MessagePattern where that is there: a piece by one, the same piece by the other, and
 * over all pieces again and again. What counts is the shortest time of each piece.
 */
export async function messageBench(): Promise<void> {
  const messages = mixedMessages(1_000_000);
  console.log(`Parsing of ${messages.length} messages`);
  const pattern = MessagePatternRounds.start(messages);
  const pieces: { parsing: number; baseline: number }[] = [];
  for (let round = 0; round < 15; round++)
    for (let from = 0, piece = 0; from < messages.length; from += pieceSize, piece++) {
      const to = from + pieceSize;
      const best = (pieces[piece] ??= { parsing: Infinity, baseline: Infinity });
      const parsing = await shortest(1, () => {
        const reader = messageReader("icu");
        for (let at = from; at < to; at++) reader.readOnce(messages[at] ?? "");
      });
      best.parsing = Math.min(best.parsing, parsing);
      best.baseline = Math.min(best.baseline, await pattern.round(from, to));
    }
  pattern.end();
  const parsing = pieces.reduce((sum, piece) => sum + piece.parsing, 0);
  const baseline = pieces.reduce((sum, piece) => sum + piece.baseline, 0);
  if (baseline < Infinity)
    console.log(
      showComparison({
        what: "parsing a message, plain or not",
        against: "ICU4J's MessagePattern, warm",
        milliseconds: parsing,
        baseline,
        aim: 1,
      }),
    );
  else
    console.log(
      `  ${((parsing * 1e6) / messages.length).toFixed(0)} ns a message; ICU4J is not on this machine to compare with`,
    );
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
