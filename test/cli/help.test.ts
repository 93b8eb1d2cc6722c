import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { execFileSync } from "node:child_process";
import { cpSync, existsSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { commandNames } from "../../src/cli/run.js";
import { cleanUp, fond, fondProgram, program, root, temporaryProject } from "../support/project.js";

afterAll(cleanUp);

/** The words of a line of examples, as a shell takes them. */
function wordsOf(line: string): readonly string[] {
  return [...line.matchAll(/'([^']*)'|"([^"]*)"|(\S+)/g)].map(
    ([, single, double, bare]) => single ?? double ?? bare ?? "",
  );
}

describe("the help of each command", () => {
  let folder = "";
  beforeAll(() => {
    folder = temporaryProject();
    cpSync(join(root, "demo/ferries"), folder, { recursive: true });
  });

  test.each(commandNames)("%s: its examples run as they are printed", async (name) => {
    const { stdout, status } = await fond(folder, name, "--help");
    expect(status).toBe(0);
    expect(stdout).toContain("Usage: fond");
    const examples = /\nExamples:\n([^]*)$/.exec(stdout)?.[1] ?? "";
    for (const line of examples.split("\n").filter((one) => one.trim() !== "")) {
      const [, command = ""] = /^ {2}fond (.+?) {2,}\S/.exec(line) ?? [];
      // What writes is tried in a folder of its own.
      const place = temporaryProject();
      cpSync(folder, place, { recursive: true });
      const ran = await fond(place, ...wordsOf(command));
      expect({ command, stderr: ran.stderr, isDone: ran.status === 0 || ran.status === 1 }).toMatchObject({
        isDone: true,
      });
    }
  });
});

test("the program prints the same help and version without loading its commands", async () => {
  const folder = temporaryProject();
  for (const option of ["--help", "--version"]) {
    const alone = fondProgram(folder, option);
    expect(alone.status).toBe(0);
    expect(alone.stdout).toBe((await fond(folder, option)).stdout);
  }
});

describe("words that can come next", () => {
  const folder = () => {
    const place = temporaryProject();
    cpSync(join(root, "demo/ferries"), place, { recursive: true });
    return place;
  };
  test.each([
    [["re"], ["reconcile", "rekey", "review", "report"]],
    [["lint", "--r"], ["--rule"]],
    [["lint", "--rule", "plural/m"], ["plural/missing-category"]],
    [["lint", "--format", "sa"], ["sarif"]],
    [["lint", "--locale", "de", "f"], ["fr"]],
    [
      ["balance", "--book", ""],
      ["booking", "kiosk", "harbor"],
    ],
    [
      ["trace", "fares.ch"],
      ["fares.checkIn", "fares.children"],
    ],
    [
      ["handoff", "--to", "xl"],
      ["xliff", "xliff-1.2", "xlsx"],
    ],
    [["handoff", "--state", "r"], ["reviewed"]],
    [["draft", "--service", "s"], ["stand-in"]],
    [["nothing", "x"], []],
  ])("after %j are %j", async (words, wanted) => {
    const { stdout } = await fond(folder(), "completion", "--words", ...words);
    expect(
      stdout
        .split("\n")
        .filter((one) => one !== "")
        .sort(),
    ).toEqual([...wanted].filter((one) => !(words.length === 1 && !commandNames.includes(one))).sort());
  });

  test("come in a shell", () => {
    const bash = "/bin/bash";
    if (!existsSync(bash)) return;
    const place = folder();
    const script = join(place, "complete.sh");
    writeFileSync(
      script,
      `fond() { "${process.execPath}" "${program}" "$@"; }
eval "$(fond completion bash)"
COMP_WORDS=(fond lint --locale p); COMP_CWORD=3; _fond; echo "\${COMPREPLY[@]}"
`,
    );
    expect(execFileSync(bash, [script], { cwd: place, encoding: "utf8" })).toBe("pl\n");
  });
});
