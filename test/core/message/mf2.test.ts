import { explainProblem } from "../../../src/core/message/problem-wordings.js";
import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { visitNodes } from "../../../src/core/message/facts.js";
import { fillMessage } from "../../../src/core/message/fill.js";
import type { MessageNode } from "../../../src/core/message/model.js";
import { messageReader } from "../../../src/core/message/parse.js";
import { parseMf2 } from "../../../src/core/message/syntaxes/mf2/mf2.js";
import { printMf2 } from "../../../src/core/message/syntaxes/mf2/mf2-print.js";
import { outline } from "../../support/outline.js";

describe("a message without faults", () => {
  const cases: [string, unknown[]][] = [
    ["", []],
    ["Just text, it's <b>that</b> | @ 100 %", ["Just text, it's <b>that</b> | @ 100 %"]],
    ["Hello {$name}!", ["Hello ", ["name"], "!"]],
    ["  { $name }  ", ["  ", ["name"], "  "]],
    ["\\{ \\} \\\\ \\|", ["{ } \\ |"]],
    ["{|lit {x} \\| eral|} {42}", ["lit {x} | eral 42"]],
    ["{{.dotted {$a}}}", [".dotted ", ["a"]]],
    ["{$n :number}", [["n", "number"]]],
    ["{$n :number minimumFractionDigits=2}", [["n", "number", "options", "minimumFractionDigits=2"]]],
    [
      "{$n :integer} {$n :percent}",
      [["n", "number", "named", "integer"], " ", ["n", "number", "named", "percent"]],
    ],
    ["{$p :currency currency=EUR}", [["p", "number", "skeleton", "currency/EUR"]]],
    ["{$d :date length=short @translate=no}", [["d", "date", "named", "short"]]],
    ["{$x :shop:price style=|a b|}", [["x", "shop:price", "options", "style=|a b|"]]],
    [".input {$n :integer}\n{{{$n} bikes}}", [["n", "number", "named", "integer"], " bikes"]],
    [".local $day = {$when :date length=long} {{On {$day}}}", ["On ", ["when", "date", "named", "long"]]],
    [".local $x = {|quay|} {{At the {$x}}}", ["At the quay"]],
    ["{#b}bold {$a}{/b}{#br /}", [{ "<b>": ["bold ", ["a"]] }, { "<br/>": [] }]],
    [
      "{#a href=|/map| title=$t}map{/a}",
      [{ "<a>": ["map"], attributes: ['href="/map" title="', ["t"], '"'] }],
    ],
    [
      ".input {$n :number} .match $n 0 {{none}} one {{{$n} bike}} * {{{$n} bikes}}",
      [
        {
          "cardinal n": [
            ["=0", ["none"]],
            ["one", [["n"], " bike"]],
            ["other", [["n"], " bikes"]],
          ],
        },
      ],
    ],
    [
      ".input {$n :integer select=ordinal} .match $n one {{st}} * {{th}}",
      [
        {
          "ordinal n": [
            ["one", ["st"]],
            ["other", ["th"]],
          ],
        },
      ],
    ],
    [
      ".input {$n :number}.local $more = {$n :offset subtract=1}.match $more 0 {{only you}} one {{you and {$more}}} * {{you and {$more} more}}",
      [
        {
          "cardinal n offset 1": [
            ["=1", ["only you"]],
            ["one", ["you and ", "#count"]],
            ["other", ["you and ", "#count", " more"]],
          ],
        },
      ],
    ],
    [
      ".input {$g :string} .input {$n :number} .match $g $n f one {{her bike}} f * {{her bikes}} * * {{bikes}}",
      [
        {
          "select g": [
            [
              "f",
              [
                {
                  "cardinal n": [
                    ["one", ["her bike"]],
                    ["other", ["her bikes"]],
                  ],
                },
              ],
            ],
            ["other", [{ "cardinal n": [["other", ["bikes"]]] }]],
          ],
        },
      ],
    ],
    [
      ".input {$g :string} .input {$h :string} .match $g $h a b {{AB}} * c {{C}} * * {{rest}}",
      [
        {
          "select g": [
            [
              "a",
              [
                {
                  "select h": [
                    ["b", ["AB"]],
                    ["c", ["C"]],
                    ["other", ["rest"]],
                  ],
                },
              ],
            ],
            [
              "other",
              [
                {
                  "select h": [
                    ["c", ["C"]],
                    ["other", ["rest"]],
                  ],
                },
              ],
            ],
          ],
        },
      ],
    ],
  ];
  test.each(cases)("%s", (source, expected) => {
    const { nodes, problems } = parseMf2(source);
    expect(problems).toEqual([]);
    expect(outline(nodes)).toEqual(expected);
  });
});

describe("a faulty message says what, where and how to correct it", () => {
  test.each([
    ["{name", "argument-unclosed", "{name"],
    ["Hello {name!}", "argument-name", "{name!"],
    ["a } b", "brace-unmatched", "}"],
    ["a \\n b", "brace-unmatched", "\\n"],
    ["{}", "argument-name", "{}"],
    ["{$}", "argument-name", "$"],
    ["{$n :numbr}", "argument-type", ":numbr"],
    ["{$n :number a=1 a=2}", "branch-duplicate", "a"],
    [".input {$n :number} .match $n one {{x", "branch-unclosed", "{{x"],
    [".match $n * {{x}}", "argument-type", "$n"],
    [".input {$n :number} .match $n one * {{x}} * {{y}}", "branch-expected", "one *"],
    [".input {$n :number} .match $n * {{x}} * {{y}}", "branch-duplicate", "*"],
    [".input {$n :number} .input {$n :string} {{x}}", "branch-duplicate", "$n"],
    [".imput {$n :number} {{x}}", "branch-expected", ".imput"],
    ["{{x}} y", "brace-unmatched", "y"],
    ["{#b}x", "tag-unclosed", "{#b}"],
    ["x{/b}", "tag-unopened", "{/b}"],
  ])("%s", (source, code, where) => {
    const [problem] = parseMf2(source).problems;
    expect(problem?.code).toBe(code);
    expect(source.slice(problem?.span.start, problem?.span.end)).toBe(where);
    expect(problem && explainProblem(problem).remedy).toMatch(/./);
  });
});

describe("a value of the message's own that a function formats", () => {
  test.each([
    ["From {1204.5 :number minimumFractionDigits=2} on", "en", "From 1,204.50 on"],
    ["From {1204.5 :number minimumFractionDigits=2} on", "de", "From 1.204,50 on"],
    ["{|2031-05-01| :date length=long}", "en", "May 1, 2031"],
    [".local $day = {|2031-05-01| :date length=long} {{Until {$day}}}", "de", "Until 1. Mai 2031"],
    ["{12 :integer}{30 :integer}", "en", "1230"],
    ["{|as it is| :string}", "en", "as it is"],
  ])("%s in %s: %s", (source, locale, text) => {
    const { nodes, problems } = parseMf2(source);
    expect(problems).toEqual([]);
    expect(fillMessage(nodes, locale, {}).text).toBe(text);
    expect(fillMessage(parseMf2(printMf2(nodes)).nodes, locale, {}).text).toBe(text);
  });

  test("is no argument that code must supply, and no text that translators see", () => {
    const { facts } = messageReader("mf2").read("From {1204.5 :number} on");
    expect([...facts.arguments.keys()]).toEqual([]);
    expect(facts.text).toBe("From  on");
  });
});

describe("attributes, which are for tools and not for readers,", () => {
  test.each([
    ["{$name @translate=no}", "{$name @translate=no}"],
    ["{$n :number @source=|a b| @checked}", "{$n :number @source=|a b| @checked}"],
    ["Call {|ABC| @translate=no} now", "Call {ABC @translate=no} now"],
    ["{|2031 5| :number @fixed}", "{|2031 5| :number @fixed}"],
    ["Read {#link href=|a| @open}this{/link}", "Read {#link href=a @open}this{/link}"],
    ["{#br @wide /}", "{#br @wide /}"],
    ["{$a  @x   @y = 1 }", "{$a @x @y = 1}"],
  ])("are kept: %s", (source, printed) => {
    const { nodes, problems } = parseMf2(source);
    expect(problems).toEqual([]);
    expect(printMf2(nodes)).toBe(printed);
    expect(printMf2(parseMf2(printed).nodes)).toBe(printed);
  });

  test("do not show, and part no words that are read as one text", () => {
    const { nodes } = parseMf2("Call {|ABC| @translate=no} now {$name @translate=no}");
    expect(fillMessage(nodes, "en", { name: "Ida" }).text).toBe("Call ABC now Ida");
    expect(messageReader("mf2").read("Call {|ABC| @translate=no} now").facts.text).toBe("Call ABC now");
  });
});

describe("properties", () => {
  const word = fc.constantFrom("a", "n", "count", "имя");
  const text = fc.string({ unit: fc.constantFrom(..."ab .{}\\|#<'$:"), minLength: 1, maxLength: 8 });
  const flat = fc.oneof(
    text.map((value): MessageNode => ({ kind: "text", value })),
    fc.constantFrom("1204.5", "7").map((value): MessageNode => ({
      kind: "text",
      value,
      format: { type: "number", style: { kind: "options", text: "minimumFractionDigits=2" } },
    })),
    word.map((name): MessageNode => ({ kind: "argument", name })),
    word.map((name): MessageNode => ({
      kind: "argument",
      name,
      format: { type: "number", style: { kind: "named", text: "integer" } },
    })),
    fc.tuple(word, text).map(([name, value]): MessageNode => ({
      kind: "tag",
      name: "b",
      attributes: [],
      children: [
        { kind: "text", value },
        { kind: "argument", name },
      ],
      selfClosing: false,
    })),
  );
  const branches = (keys: readonly string[]) =>
    fc
      .tuple(fc.subarray([...keys]), fc.infiniteStream(fc.array(flat, { maxLength: 3 })))
      .map(([chosen, texts]) =>
        [...chosen, "other"].map((selector) => ({ selector, nodes: texts.next().value ?? [] })),
      );
  const choice = fc.oneof(
    fc.tuple(fc.constantFrom("x", "y"), branches(["=0", "=7", "one"])).map(([name, all]): MessageNode => ({
      kind: "plural",
      pluralKind: "cardinal",
      name,
      offset: 0,
      branches: all,
    })),
    fc
      .tuple(fc.constantFrom("s", "t"), branches(["f", "m m"]))
      .map(([name, all]): MessageNode => ({ kind: "select", name, branches: all })),
  );
  const message = fc.tuple(
    fc.array(fc.oneof({ weight: 3, arbitrary: flat }, { weight: 1, arbitrary: choice }), { maxLength: 4 }),
  );

  test("what is printed reads back as what it was, and says the same in each case", () => {
    fc.assert(
      fc.property(message, fc.constantFrom(0, 1, 2, 7), fc.constantFrom("f", "m m", "k"), ([nodes], n, s) => {
        const choices = nodes.filter(({ kind }) => kind === "plural" || kind === "select");
        const names = choices.map((node) => ("name" in node ? node.name : ""));
        fc.pre(new Set(names).size === names.length);
        const again = parseMf2(printMf2(nodes));
        expect(again.problems).toEqual([]);
        const values = { a: "A", n: 5, count: 3, имя: "I", x: n, y: 2, s, t: "f" };
        expect(fillMessage(again.nodes, "en", values).text).toBe(fillMessage(nodes, "en", values).text);
      }),
      { numRuns: 500 },
    );
  });

  test("no input makes it throw, and spans lie in the text", () => {
    const piece = fc.constantFrom(
      ..."{}|\\$:#/@=* .\n".split(""),
      ".input {$n :number}",
      ".local $x = {$n}",
      ".match $n",
      "{{",
      "}}",
      "one",
      "{$n}",
      "{#b}",
      "{/b}",
      "{#br /}",
      "|a|",
      "text",
    );
    fc.assert(
      fc.property(
        fc.array(piece, { maxLength: 14 }).map((all) => all.join("")),
        (source) => {
          const { nodes, problems } = parseMf2(source);
          for (const { span } of problems) {
            expect(span.start).toBeLessThanOrEqual(span.end);
            expect(span.end).toBeLessThanOrEqual(source.length);
          }
          visitNodes(nodes, (node) => {
            if (node.span) expect(node.span.end).toBeLessThanOrEqual(source.length);
          });
        },
      ),
      { numRuns: 2000 },
    );
  });

  test.each([
    ["braces", "{".repeat(500_000)],
    ["spaces", `{${" ".repeat(1_000_000)}`],
    ["open markup", "{#b}".repeat(20_000)],
    ["closing markup", `${"{#a}".repeat(150)}${"{/b}".repeat(100_000)}`],
    [
      "selectors",
      `.input {$n :string} .match ${"$n ".repeat(40)}${Array.from({ length: 40 }, (_, at) => `${"* ".repeat(at)}k ${"* ".repeat(39 - at)}{{x}}`).join("")}${"* ".repeat(40)}{{y}}`,
    ],
  ])("many %s end in a finding", (_, source) => {
    const { nodes, problems } = parseMf2(source);
    expect(problems.length).toBeGreaterThan(0);
    visitNodes(nodes, () => undefined);
  });
});

test("filling formats with its functions", () => {
  const read = (text: string) => messageReader("mf2").read(text).nodes;
  const fill = (text: string) =>
    fillMessage(read(text), "de", { n: 1234.5, d: new Date("2031-05-17T10:00:00Z") }).text;
  expect(fill("{$n :integer}")).toBe("1.235");
  expect(fill("{$n :number minimumFractionDigits=2}")).toBe("1.234,50");
  expect(fill("{$n :currency currency=EUR}").replace(/\s/g, " ")).toBe("1.234,50 €");
  expect(fill("{$n :unit unit=kilometer}").replace(/\s/g, " ")).toBe("1.234,5 km");
  expect(fill("{$d :date length=long}")).toBe("17. Mai 2031");
});
