import { beforeAll, describe, expect, test } from "@jest/globals";
import { excerpt } from "../../../src/cli/terminal/excerpt.js";
import { countFindings, renderFindings } from "../../../src/cli/terminal/findings.js";
import { listPlan, renderPlan, sumUp } from "../../../src/cli/terminal/plan.js";
import { columnsOf } from "../../../src/cli/terminal/table.js";
import { counted, grouped, makeStyle, wantsColor } from "../../../src/cli/terminal/style.js";
import type { Finding } from "../../../src/core/lint/finding.js";
import { makePlan } from "../../../src/core/plan/plan.js";
import { displayWidth, prepareWidths } from "../../../src/core/text/width.js";

const style = makeStyle(false);
const plain = (text: string) => text;

beforeAll(prepareWidths);

describe("the width of a text", () => {
  test.each([
    ["plain words", 11],
    ["“größer” – Ещё… και", 19],
    ["日本語", 6],
    ["한국", 4],
    ["e\u0301", 1],
    ["⛴️ 🇳🇴", 5],
    ["a\u00adb", 2],
  ])("%s takes %i columns", (text, columns) => {
    expect(displayWidth(text)).toBe(columns);
  });

  test("is the package's for every letter that is told without it", async () => {
    const { default: stringWidth } = await import("string-width");
    for (let unit = 0x20; unit < 0x530; unit++) {
      const letter = String.fromCharCode(unit);
      expect([unit, displayWidth(letter)]).toEqual([unit, stringWidth(letter)]);
    }
    for (let unit = 0x2010; unit < 0x2028; unit++)
      expect(displayWidth(String.fromCharCode(unit))).toBe(stringWidth(String.fromCharCode(unit)));
  });
});

describe("an excerpt", () => {
  const at = (line: string, column: number, endColumn: number, width = 60) =>
    excerpt(line, { line: 7, column, endLine: 7, endColumn }, width, style, plain);

  test("shows the line without its indent, and marks the place", () => {
    expect(at('    "key": "text",', 5, 10)).toEqual(['     7 │ "key": "text",', "       │ ^^^^^"]);
  });

  test("is cut around a place far to the right, and never wider than asked", () => {
    const long = `${"x".repeat(200)}HERE${"y".repeat(200)}`;
    const [line = "", marks = ""] = at(long, 201, 205);
    expect(line.length).toBeLessThanOrEqual(60);
    expect(line.slice(marks.indexOf("^"), marks.lastIndexOf("^") + 1)).toBe("HERE");
  });

  test("takes no time for the line of a minified file", () => {
    const [line = "", marks = ""] = at(
      `${"日本 ".repeat(400_000)}HERE${"x".repeat(1_000_000)}`,
      1_200_001,
      1_200_005,
    );
    expect(displayWidth(line)).toBeLessThanOrEqual(60);
    expect(marks).toContain("^^^^");
    expect(line).toContain("HERE");
  });

  test("counts wide letters as two columns", () => {
    const [line = "", marks = ""] = at('"日本": "x"', 7, 10);
    expect(line).toContain('"日本": "x"');
    expect(marks.indexOf("^")).toBe(line.indexOf('"x"') + 2);
  });

  test("marks something even where the place is empty or past the end", () => {
    expect(at("ab", 3, 3)[1]).toContain("^");
    expect(at("ab", 50, 60)[1]).toContain("^");
  });
});

describe("findings for people", () => {
  const finding = (rule: string, line: number, severity: Finding["severity"] = "error"): Finding => ({
    rule,
    messageId: "wrong",
    data: {},
    severity,
    message: "it is wrong",
    remedy: "right it",
    file: "a.json",
    line,
    column: 1,
    endLine: line,
    endColumn: 2,
    book: "app",
    locale: "de",
    key: `k${line}`,
  });

  const view = { lineOf: () => "line", style, width: 80, verbose: false, order: "rule" as const };

  test("many of one kind are told once, with three examples and the locales, unless all are wanted", () => {
    const many = Array.from({ length: 9 }, (_, index) => ({
      ...finding("key/missing", index + 1),
      locale: index < 6 ? "de" : `x${index}`,
    }));
    const short = renderFindings(many, { ...view, summaryOf: () => "Missing key." });
    expect(short.match(/it is wrong/g)).toHaveLength(3);
    expect(short).toContain("9 × key/missing  Missing key.\n          de 6, x6 1, x7 1, x8 1\n");
    // The examples are of several locales.
    expect(short).toMatch(/de · k1\n[^]*x6 · k7\n[^]*x7 · k8\n/);
    expect(short).toContain("… and 6 more (--rule key/missing --verbose shows them)");
    expect(renderFindings(many, { ...view, verbose: true }).match(/it is wrong/g)).toHaveLength(9);
    const files = renderFindings(many, { ...view, order: "file" });
    expect(files.match(/it is wrong/g)).toHaveLength(5);
    expect(files).toContain("… and 4 more findings of key/missing");
  });

  test("errors come first, each with its file", () => {
    const both = [
      { ...finding("text/space", 1), severity: "warning" as const },
      { ...finding("key/missing", 2), severity: "error" as const },
    ];
    const text = renderFindings(both, view);
    expect(text.indexOf("key/missing  a.json:2:1")).toBeLessThan(text.indexOf("text/space  a.json:1:1"));
    expect(text).toContain("key/missing  a.json:2:1");
  });

  test("are counted by level and file", () => {
    expect(
      countFindings([finding("a/b", 1), finding("a/b", 2, "warning"), finding("a/b", 3, "warning")], style),
    ).toBe("1 error, 2 warnings in 1 file");
    expect(countFindings([], style)).toBe("✓ no findings");
  });
});

describe("a plan for people", () => {
  const plan = makePlan(
    [
      { file: "a.json", before: "1\n", after: "2\n" },
      { file: "ledger.txt", before: "1\n", after: "1\n2\n", isRecord: true },
      { file: "new.json", before: undefined, after: "x\n" },
    ],
    { "keys added": 1, "texts replaced": 2 },
    [
      {
        file: "b.ts",
        line: 3,
        column: 4,
        messageId: "a/b",
        data: {},
        message: "it stays",
        remedy: "move it",
      },
    ],
  );

  test("shows diffs, sums up records, and says what is left and why", () => {
    const text = renderPlan(plan, style, false);
    expect(text).toContain("a.json (change)\n@@ -1,1 +1,1 @@\n-1\n+2");
    expect(text).toContain("ledger.txt (change)\n  +1 -0 lines");
    expect(text).toContain("new.json (new file)");
    expect(text).toContain("b.ts:3:4  it stays\n    → move it");
    expect(renderPlan(plan, style, true)).toContain(" 1\n+2");
  });

  test("is summed up in one line, singular where it is one", () => {
    expect(sumUp(plan)).toBe("1 key added, 2 texts replaced, 3 files to change");
    expect(listPlan(plan, style)).toContain("  new     new.json\n");
  });
});

describe("colour", () => {
  test.each([
    [{ isTTY: true }, true, {}, true],
    [{ isTTY: false }, true, {}, false],
    [{ isTTY: true }, false, {}, false],
    [{ isTTY: true }, true, { NO_COLOR: "1" }, false],
    [{ isTTY: true }, true, { NO_COLOR: "" }, true],
    [{ isTTY: false }, true, { FORCE_COLOR: "1" }, true],
    [{ isTTY: true }, true, { FORCE_COLOR: "0" }, false],
    [{ isTTY: true }, true, { TERM: "dumb" }, false],
  ])("%j, --color %s, %j: %s", (stream, flag, env, expected) => {
    expect(wantsColor(stream, flag, env)).toBe(expected);
  });

  test("counts have their noun", () => {
    expect([0, 999, 1000, 12345, 1234567].map(grouped)).toEqual(["0", "999", "1,000", "12,345", "1,234,567"]);
    expect([counted(1, "key"), counted(0, "key"), counted(2000, "entry", "entries")]).toEqual([
      "1 key",
      "0 keys",
      "2,000 entries",
    ]);
  });
});

describe("a table", () => {
  const head = ["locale", "file", "", "translated", "stale", "missing"];
  const rows = [
    ["de", "handoff/de.xlf", "97.2 %", "36", "0", "1"],
    ["pt-BR", "handoff/pt-BR.xlf", "100.0 %", "1036", "0", "0"],
  ];
  const aligns: ("left" | "right")[] = ["left", "left", "right", "right", "right", "right"];
  const lines = (width?: number) => columnsOf(head, rows, aligns, width).split("\n");

  test("is drawn whole where there is room", () => {
    expect(lines(90)).toEqual(lines());
    expect(lines()[0]).toContain("stale");
    expect(lines()[1]).toMatch(/^de +handoff\/de\.xlf +97\.2 % +36 +0 +1$/);
  });

  test("leaves out columns that say nothing, then becomes a list", () => {
    const whole = Math.max(...lines().map(displayWidth));
    const narrower = lines(whole - 1);
    expect(narrower[0]).not.toContain("stale");
    expect(narrower[1]).toMatch(/97\.2 % +36 +1$/);
    expect(lines(34)).toEqual([
      "de handoff/de.xlf 97.2 %",
      "  36 translated, 1 missing",
      "pt-BR handoff/pt-BR.xlf 100.0 %",
      "  1036 translated",
    ]);
  });

  test("fits every window that its words fit", () => {
    for (let width = 24; width < 120; width++)
      for (const line of lines(width)) expect(displayWidth(line)).toBeLessThanOrEqual(width);
  });
});
