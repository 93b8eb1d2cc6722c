import { spawnSync } from "node:child_process";
import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { messageReader } from "../../../src/core/message/parse.js";

/** The parts of each text as Python reads them, and whether it fills them at all. */
function askPython(
  texts: readonly string[],
): readonly (readonly [string, string | null][] | null)[] | undefined {
  const script = `
import json, string, sys
def parts(text):
    try:
        return [[literal, None if name is None else name] for literal, name, spec, how in string.Formatter().parse(text)]
    except ValueError:
        return None
print(json.dumps([parts(text) for text in json.load(sys.stdin)]))`;
  const run = spawnSync("python3", ["-c", script], {
    input: JSON.stringify(texts),
    encoding: "utf8",
    maxBuffer: 1e8,
  });
  return run.status === 0
    ? (JSON.parse(run.stdout) as (readonly [string, string | null][] | null)[])
    : undefined;
}

const withPython = askPython([]) !== undefined ? test : test.skip;

const piece = fc.constantFrom(
  ..."a b { } {{ }} {} {0} {name} {boat.name} {seat[row]} {n!r} {n:>5} {n:{width}} {0!s:x} : ! . é".split(
    " ",
  ),
  " ",
);

withPython("fields are read as Python reads them", () => {
  const texts = fc.sample(
    fc.array(piece, { maxLength: 7 }).map((pieces) => pieces.join("")),
    { seed: 5, numRuns: 4000 },
  );
  const answers = askPython(texts) ?? [];
  const reader = messageReader("brace-field");
  let filled = 0;
  for (const [index, text] of texts.entries()) {
    const { nodes, problems } = reader.read(text);
    if (!nodes.some(({ kind }) => kind === "argument") || problems.length > 0) continue;
    filled++;
    let counted = 0;
    const theirs = answers[index]?.flatMap(([literal, name]) => [
      ...(literal === "" ? [] : [literal]),
      ...(name === null ? [] : [`⟨${name === "" ? String(counted++) : name}⟩`]),
    ]);
    const ours = nodes.map((node) =>
      node.kind === "text" ? node.value : node.kind === "argument" ? `⟨${node.name}⟩` : "?",
    );
    expect([text, ours.join("")]).toEqual([text, theirs?.join("")]);
  }
  expect(filled).toBeGreaterThan(800);
  // What Python refuses has a problem, where it is filled at all.
  for (const [index, text] of texts.entries())
    if (answers[index] === null) {
      const { nodes, problems } = reader.read(text);
      expect([text, problems.length > 0 || !nodes.some(({ kind }) => kind === "argument")]).toEqual([
        text,
        true,
      ]);
    }
});
