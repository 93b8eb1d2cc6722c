import { beforeAll, describe, expect, test } from "@jest/globals";
import { lintExample } from "../../../src/core/lint/example.js";
import { rules } from "../../../src/core/lint/rules/index.js";
import { prepareReaders } from "../../../src/core/source/read.js";

// Some examples have code.
beforeAll(() => prepareReaders(["code.tsx"]));

describe.each(rules.map((rule) => [rule.id, rule] as const))("%s", (id, rule) => {
  test.each(rule.examples.bad.map((example, index) => [index, example] as const))(
    "finds its bad example %i",
    (_, example) => {
      const found = lintExample(example).filter((finding) => finding.rule === id);
      expect(found.length).toBeGreaterThan(0);
      for (const finding of found) {
        expect(finding.remedy).not.toBe("");
        expect(finding.line).toBeGreaterThan(0);
        expect(finding.endLine * 10_000 + finding.endColumn).toBeGreaterThanOrEqual(
          finding.line * 10_000 + finding.column,
        );
      }
    },
  );

  test.each(rule.examples.good.map((example, index) => [index, example] as const))(
    "lets its good example %i pass, and so does every other rule",
    (_, example) => {
      expect(lintExample(example).filter(({ severity }) => severity === "error")).toEqual([]);
      expect(lintExample(example, [rule])).toEqual([]);
    },
  );

  test("mends its bad examples where it can, and then finds nothing", () => {
    for (const example of rule.examples.bad) {
      if (example.fixed === undefined) continue;
      const [found] = lintExample(example, [rule]);
      expect(found?.fix).toMatchObject({ text: example.fixed });
      expect(lintExample({ ...example, target: example.fixed }, [rule])).toEqual([]);
    }
  });

  test("has a summary, a reason and examples", () => {
    expect(rule.summary).toMatch(/\.$/);
    expect(rule.why.length).toBeGreaterThan(40);
    expect(rule.examples.bad.length).toBeGreaterThan(0);
    expect(rule.examples.good.length).toBeGreaterThan(0);
  });
});

describe("one fault is one finding", () => {
  const cases: [string, Parameters<typeof lintExample>[0], string[]][] = [
    [
      "a broken message does not also lose its arguments",
      { source: "{a} {b} <i>c</i>", target: "{a" },
      ["syntax/unreadable"],
    ],
    [
      "a renamed argument is not missing as well",
      { source: "{count} bikes", target: "{anzahl} Räder" },
      ["argument/unknown"],
    ],
    [
      "a quoted argument is not missing as well",
      { locale: "fr", source: "{name} is here", target: "C'est d'{name}" },
      ["syntax/apostrophe"],
    ],
    [
      "a renamed tag is not missing as well",
      { source: "<a>x</a> y z", target: "<b>u</b> v w" },
      ["tag/unknown"],
    ],
    [
      "a renamed case is not missing as well",
      { source: "{d, select, up {U} other {O}}", target: "{d, select, oben {A} other {B}}" },
      ["select/cases"],
    ],
    [
      "a misspelled lookup does not make the key unused",
      { source: { title: "Sailings" }, target: { title: "Abfahrten" }, code: 'f(() => t("titel"));' },
      ["key/undefined"],
    ],
    [
      "a file that cannot be read lacks no keys",
      { source: { a: "Text" }, raw: true, target: '{ "a": ' },
      ["file/unreadable"],
    ],
    [
      "two mistakes in one message are two findings",
      { source: "{a} and {b} here", target: "{a.b} und {c d}" },
      ["syntax/unreadable", "syntax/unreadable"],
    ],
    [
      "an empty translation lacks no arguments of its own",
      { source: "Hello there", target: "" },
      ["text/empty"],
    ],
  ];
  test.each(cases)("%s", (_, example, expected) => {
    expect(lintExample(example).map(({ rule }) => rule)).toEqual(expected);
  });
});

describe("places", () => {
  test("a finding points into the message, past the file's escapes", () => {
    const [finding] = lintExample({
      raw: true,
      source: { key: "Say {name}" },
      target: '{\n  "key": "Sag \\"\\u00e9\\" {nmae}"\n}',
    });
    expect(finding).toMatchObject({
      rule: "argument/unknown",
      line: 2,
      column: 27,
      endColumn: 31,
      locale: "de",
      key: "key",
      file: "texts/de.json",
    });
  });

  test("a missing key points behind the one that precedes it in the source", () => {
    const [finding] = lintExample({
      source: { a: "One", b: "Two", c: "Three" },
      target: { a: "Eins", c: "Drei" },
    });
    expect(finding).toMatchObject({
      rule: "key/missing",
      file: "texts/de.json",
      locale: "de",
      key: "b",
      line: 2,
    });
  });
});
