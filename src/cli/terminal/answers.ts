import { createInterface } from "node:readline";
import type { Io } from "../io.js";

export interface Answers {
  /** The next line, without white space around it; undefined where there is none any more. */
  ask(question: string): Promise<string | undefined>;
  close(): void;
}

/** Reads answers line by line from standard input, from a person or a file. */
export function answerReader({ stdin }: Pick<Io, "stdin">, print: (text: string) => void): Answers {
  const lines = createInterface({ input: stdin, terminal: false });
  const iterator = lines[Symbol.asyncIterator]();
  return {
    async ask(question) {
      print(question);
      const next = await iterator.next();
      if (next.done) return undefined;
      if (!stdin.isTTY) print(`${next.value}\n`);
      return next.value.trim();
    },
    close: () => lines.close(),
  };
}

/** Whether a person sits at the terminal, to read what is shown and to answer. */
export function isAttended(format: string, { stdin, stdout }: Io): boolean {
  return stdin.isTTY === true && stdout.isTTY === true && format === "text";
}
