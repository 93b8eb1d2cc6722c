import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { memoryFiles } from "../../../src/core/files/memory-files.js";
import type { MessageNode } from "../../../src/core/message/model.js";
import { messageReader } from "../../../src/core/message/parse.js";
import { extractProject } from "../../../src/core/project/extract-project.js";
import { openProject } from "../../../src/core/project/project.js";

const noun = fc.constantFrom("boat", "bike", "seat", "cabin");
const test1 = fc.constantFrom(
  "n === 1",
  "n === 0",
  "n > 1",
  "n >= 2",
  "1 === n",
  "n !== 1",
  "n < 2",
  "n <= 1",
  "n == 0",
  "0 < n",
);

/** An expression that says something about `n` things, with the words chosen in every way that people choose them. */
const flat = fc.oneof(
  noun.map((one) => `"No ${one}s are here"`),
  noun.map((one) => `"One ${one} is here"`),
  noun.map((one) => `\`\${n} ${one}s are left\``),
  noun.map((one) => `n + " ${one}s are left"`),
  fc
    .tuple(noun, test1, fc.constantFrom("", "s"), fc.constantFrom("s", ""))
    .map(([one, is, a, b]) => `\`You have \${n} ${one}\${${is} ? "${a}" : "${b}"} left\``),
  fc.tuple(noun, test1).map(([one, is]) => `"You have " + n + " ${one}" + (${is} ? "" : "s") + " left"`),
  fc
    .tuple(noun, test1)
    .map(([one, is]) => `\`\${who} has \${${is} ? "one ${one}" : n + " ${one}s"} at the quay\``),
);
const chosen = fc.tuple(test1, flat, flat).map(([is, a, b]) => `${is} ? ${a} : ${b}`);
const either = fc.oneof(flat, chosen);
/** Tests of one number or of another, and what is shown then. */
const link = fc.record({
  is: fc.tuple(test1, fc.constantFrom("n", "n", "m")).map(([is, name]) => is.replace("n", name)),
  text: flat,
});
const chain = fc.tuple(fc.array(link, { minLength: 2, maxLength: 3 }), either);
const body = fc.oneof(
  chain.map(
    ([links, last]) =>
      `${links.map(({ is, text }) => `if (${is}) { return ${text}; }`).join(" else ")} else { return ${last}; }`,
  ),
  chain.map(
    ([links, last]) =>
      `${links.map(({ is, text }) => `if (${is}) return ${text};`).join(" ")} return ${last};`,
  ),
  chain.map(
    ([links, last]) => `return ${links.map(({ is, text }) => `${is} ? ${text} : `).join("")}${last};`,
  ),
  either.map((one) => `return ${one};`),
  fc.tuple(flat, either).map(([a, b]) => `switch (n) { case 0: return ${a}; default: return ${b}; }`),
  fc
    .tuple(flat, flat, either)
    .map(([a, b, c]) => `switch (n) { case 0: return ${a}; case 1: return ${b}; default: return ${c}; }`),
  fc
    .tuple(flat, flat, either)
    .map(([a, b, c]) => `if (n === 0) return ${a}; if (n === 1) { return ${b}; } return ${c};`),
  fc.tuple(test1, flat, either).map(([is, a, b]) => `if (${is}) { return ${a}; } else { return ${b}; }`),
);

type Say = (n: number, who: string, m: number) => string;

/** The function that code of a module defines; `t` is what it calls for texts. */
function defined(code: string, t: (key: string, values?: Record<string, unknown>) => string): Say {
  return (new Function("t", code.replace("export function f", "return function f")) as (t: unknown) => Say)(
    t,
  );
}

/** A message as English shows it. */
function shown(nodes: readonly MessageNode[], values: Record<string, unknown>, count?: number): string {
  return nodes
    .map((node): string => {
      switch (node.kind) {
        case "text":
          return node.value;
        case "argument":
          return String(values[node.name]);
        case "count":
          return String(count);
        case "plural":
        case "select": {
          const value = values[node.name];
          const names =
            node.kind === "plural" ? [`=${String(value)}`, value === 1 ? "one" : "other"] : [value];
          const found = [...names, "other"].map((name) => node.branches.find((one) => one.selector === name));
          return shown(
            found.find((one) => one)?.nodes ?? [],
            values,
            node.kind === "plural" ? Number(value) : count,
          );
        }
        default:
          return "?";
      }
    })
    .join("");
}

describe("words that code chooses by a number", () => {
  test("say the same after extraction, for every number", async () => {
    const reader = messageReader("icu");
    let plurals = 0;
    await fc.assert(
      fc.asyncProperty(body, async (statements) => {
        const code = `export function f(n, who, m) {\n  ${statements}\n}\n`;
        const book = { name: "app", code: ["app/**"], files: "t/{locale}.json", naming: { shape: "flat" } };
        const files = memoryFiles({
          "fond.config.json": JSON.stringify({
            source: "en",
            targets: [],
            books: [{ ...book, emit: { call: 't("{key}"{args})' } }],
          }),
          "t/en.json": "{}\n",
          "app/a.ts": code,
        });
        const opened = openProject(files);
        if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
        const plan = await extractProject(opened.project, {}, { least: "unclear" });
        const after = (file: string) => plan.changes.find((change) => change.file === file)?.after;
        const texts = JSON.parse(after("t/en.json") ?? "{}") as Record<string, string>;
        plurals += Object.values(texts).filter((text) => text.includes(", plural,")).length;
        const t = (key: string, values: Record<string, unknown> = {}) =>
          shown(reader.read(texts[key] ?? `no ${key}`).nodes, values);
        const before = defined(code, t);
        const now = defined(after("app/a.ts") ?? code, t);
        for (const n of [0, 1, 2, 3, 11])
          for (const m of [0, 1, 2, 11]) expect(now(n, "Ines", m)).toBe(before(n, "Ines", m));
      }),
      { numRuns: 400, seed: 11 },
    );
    expect(plurals).toBeGreaterThan(100);
  });
});
