import { createInterface } from "node:readline";
import type { Readable, Writable } from "node:stream";
import type { Io } from "../io.js";

/** One of several answers: the key that chooses it, and what it does. */
export interface Choice {
  readonly key: string;
  readonly label: string;
}

export interface Asking {
  /** What an empty answer stands for, as the prompt shows it. */
  readonly usual?: string;
  /** What the answer is before anything is typed, on a terminal. */
  readonly initial?: string;
}

/** Asks, and waits for answers. */
export interface Answers {
  /** A line, without spaces around it; empty where Enter takes what is usual, undefined where nobody answers any more. */
  ask(question: string, more?: Asking): Promise<string | undefined>;
  /** The key of a choice, or what else was answered; empty where Enter takes the first. */
  choose(question: string, choices: readonly Choice[]): Promise<string | undefined>;
  close(): void;
}

/** Asks by prompts on a terminal in color, and line by line where answers come from a file or a plain terminal. */
export async function answersFor(io: Io, print: (text: string) => void, isPlain: boolean): Promise<Answers> {
  return isPlain || io.stdin.isTTY !== true || io.stdout.isTTY !== true
    ? answersByLine(io, print)
    : answersByPrompt(io);
}

function answersByLine({ stdin }: Pick<Io, "stdin">, print: (text: string) => void): Answers {
  const lines = createInterface({ input: stdin, terminal: false });
  const iterator = lines[Symbol.asyncIterator]();
  const next = async (question: string) => {
    print(question);
    const line = await iterator.next();
    if (line.done) return undefined;
    if (!stdin.isTTY) print(`${line.value}\n`);
    return line.value.trim();
  };
  return {
    ask: (question, { usual } = {}) => next(`${question}${usual === undefined ? "" : ` [${usual}]`}  `),
    choose(question, choices) {
      const [first, ...others] = choices;
      const shown = [`Enter ${first?.label ?? ""}`, ...others.map(({ key, label }) => `${key} ${label}`)];
      return next(`${question === "" ? "" : `${question} `}${shown.join(" · ")}\n› `);
    },
    close: () => lines.close(),
  };
}

async function answersByPrompt({ stdin, stdout }: Io): Promise<Answers> {
  const prompts = await import("@clack/prompts");
  // Both are terminals, and those are whole streams.
  const streams = { input: stdin as Readable, output: stdout as unknown as Writable };
  return {
    async ask(message, { usual, initial } = {}) {
      const answer = await prompts.text({
        message,
        ...streams,
        ...(usual !== undefined && { placeholder: usual }),
        ...(initial !== undefined && { initialValue: initial }),
      });
      return prompts.isCancel(answer) ? undefined : (answer ?? "").trim();
    },
    async choose(message, choices) {
      const answer: unknown = await prompts.selectKey({
        message,
        ...streams,
        caseSensitive: true,
        options: choices.map(({ key, label }, at) => ({
          value: key,
          label,
          ...(at === 0 && { hint: "Enter" }),
        })),
      });
      if (prompts.isCancel(answer)) return undefined;
      return typeof answer === "string" ? answer : "";
    },
    close: () => undefined,
  };
}

/** Whether a person sits at the terminal, to read what is shown and to answer. */
export function isAttended(format: string, { stdin, stdout }: Io): boolean {
  return stdin.isTTY === true && stdout.isTTY === true && format === "text";
}
