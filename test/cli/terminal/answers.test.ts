import { describe, expect, test } from "@jest/globals";
import { PassThrough } from "node:stream";
import { answersFor, type Choice } from "../../../src/cli/terminal/answers.js";

const choices: readonly Choice[] = [
  { key: "t", label: "accept" },
  { key: "a", label: "accept all of this kind" },
  { key: "A", label: "accept all" },
];

/** Asks on a terminal, where these keys are pressed one after the other; gives the answers, and what was drawn. */
async function onTerminal(
  keys: readonly string[],
  ask: (answers: Awaited<ReturnType<typeof answersFor>>) => Promise<unknown>,
) {
  const stdin = Object.assign(new PassThrough(), { isTTY: true, setRawMode: () => stdin });
  const stdout = Object.assign(new PassThrough(), { isTTY: true, columns: 80, rows: 24 });
  let drawn = "";
  stdout.on("data", (part: Buffer) => (drawn += part.toString()));
  const answers = await answersFor(
    { stdin, stdout, stderr: stdout, env: {}, cwd: "." },
    () => undefined,
    false,
  );
  const answer = ask(answers);
  for (const key of keys) {
    await new Promise((resolve) => setTimeout(resolve, 30));
    stdin.write(key);
  }
  return { answer: await answer, drawn };
}

/** The same where answers come line by line. */
async function byLine(
  lines: string,
  ask: (answers: Awaited<ReturnType<typeof answersFor>>) => Promise<unknown>,
) {
  const stdin = new PassThrough();
  stdin.end(lines);
  let printed = "";
  const sink = { write: (text: string) => (printed += text) };
  const io = { stdin, stdout: sink, stderr: sink, env: {}, cwd: "." };
  return { answer: await ask(await answersFor(io, (text) => (printed += text), true)), printed };
}

describe("answers on a terminal", () => {
  test.each<[string, readonly string[], string | undefined]>([
    ["Enter takes the first", ["\r"], ""],
    ["a key takes its own", ["a"], "a"],
    ["whose case counts", ["A"], "A"],
    ["Ctrl+C ends it", ["\u0003"], undefined],
  ])("of several choices, %s", async (_, keys, expected) => {
    const { answer, drawn } = await onTerminal(keys, (answers) => answers.choose("Extract it?", choices));
    expect(answer).toBe(expected);
    expect(drawn).toContain("accept all of this kind");
  });

  test("a line starts with what there is, and can be edited", async () => {
    const ask = (keys: readonly string[]) =>
      onTerminal(keys, (answers) => answers.ask("Key:", { initial: "search.a" }));
    expect((await ask(["\r"])).answer).toBe("search.a");
    expect((await ask(["\u007f", "b ", "\r"])).answer).toBe("search.b");
    expect((await ask(["\u0003"])).answer).toBeUndefined();
  });

  test("an empty line stands for what is usual, which is shown", async () => {
    const { answer, drawn } = await onTerminal(["\r"], (answers) =>
      answers.ask("Locales?", { usual: "none" }),
    );
    expect(answer).toBe("");
    expect(drawn).toContain("one");
  });
});

describe("answers from a file", () => {
  test("are taken line by line, and their end is the end", async () => {
    const { answer, printed } = await byLine(" de pl \n\nA\n", async (answers) => [
      await answers.ask("Locales?", { usual: "none" }),
      await answers.ask("Key:", { initial: "a" }),
      await answers.choose("Extract it?", choices),
      await answers.choose("Extract it?", choices),
    ]);
    expect(answer).toEqual(["de pl", "", "A", undefined]);
    expect(printed).toContain("Locales? [none]");
    expect(printed).toContain("Extract it? Enter accept · a accept all of this kind · A accept all");
  });
});
