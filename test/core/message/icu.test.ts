import { explainProblem } from "../../../src/core/message/problem-wordings.js";
import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { messageFacts, visitNodes } from "../../../src/core/message/facts.js";
import type { MessageNode } from "../../../src/core/message/model.js";
import { parseIcu } from "../../../src/core/message/syntaxes/icu/icu.js";
import { printIcu } from "../../../src/core/message/syntaxes/icu/icu-print.js";
import { outline } from "../../support/outline.js";

describe("a message without faults", () => {
  const cases: [string, unknown[]][] = [
    ["", []],
    ["Just text", ["Just text"]],
    ["Hello {name}!", ["Hello ", ["name"], "!"]],
    ["{ 0 } and {\tname\n}", [["0"], " and ", ["name"]]],
    ["{имя} {数}", [["имя"], " ", ["数"]]],
    ["{n, number}", [["n", "number"]]],
    ["{n,number,percent}", [["n", "number", "named", "percent"]]],
    ["{n, number, ::currency/EUR .00}", [["n", "number", "skeleton", "currency/EUR .00"]]],
    ["{n, number, #,##0.00}", [["n", "number", "pattern", "#,##0.00"]]],
    [
      "{d, date, full} {d, time, short}",
      [["d", "date", "named", "full"], " ", ["d", "time", "named", "short"]],
    ],
    ["{d, date, yyyy '}' {x} }", [["d", "date", "pattern", "yyyy '}' {x}"]]],
    [
      "{n, spellout} {n, ordinal} {n, duration}",
      [["n", "spellout"], " ", ["n", "ordinal"], " ", ["n", "duration"]],
    ],
    ["{n, NUMBER}", [["n", "number"]]],
    [
      "{n, plural, one {# boat} other {# boats}}",
      [
        {
          "cardinal n": [
            ["one", ["#count", " boat"]],
            ["other", ["#count", " boats"]],
          ],
        },
      ],
    ],
    [
      "{n,plural,offset:1 =0{none}one{#}other{#}}",
      [
        {
          "cardinal n offset 1": [
            ["=0", ["none"]],
            ["one", ["#count"]],
            ["other", ["#count"]],
          ],
        },
      ],
    ],
    [
      "{n, plural, offset: 2 =1{a} other{b}}",
      [
        {
          "cardinal n offset 2": [
            ["=1", ["a"]],
            ["other", ["b"]],
          ],
        },
      ],
    ],
    [
      "{n, selectordinal, one {#st} other {#th}}",
      [
        {
          "ordinal n": [
            ["one", ["#count", "st"]],
            ["other", ["#count", "th"]],
          ],
        },
      ],
    ],
    [
      "{g, select, female {she} other {they}}",
      [
        {
          "select g": [
            ["female", ["she"]],
            ["other", ["they"]],
          ],
        },
      ],
    ],
    ["{g, select, other {#}}", [{ "select g": [["other", ["#"]]] }]],
    [
      "{n, plural, other {{g, select, other {#}}}}",
      [{ "cardinal n": [["other", [{ "select g": [["other", ["#"]]] }]]] }],
    ],
    ["{n, plural, other {<b>#</b>}}", [{ "cardinal n": [["other", [{ "<b>": ["#count"] }]]] }]],
    ["# outside", ["# outside"]],
    ["It's here", ["It's here"]],
    ["It''s here", ["It's here"]],
    ["'{name}'", ["{name}"]],
    ["'{name} it''s'", ["{name} it's"]],
    ["l'{name", ["l{name"]],
    ["{n, plural, other {'#' #}}", [{ "cardinal n": [["other", ["# ", "#count"]]] }]],
    ["'#'", ["'#'"]],
    ["Read <a>this</a>", ["Read ", { "<a>": ["this"] }]],
    ["<a><b>x</b> y</a>", [{ "<a>": [{ "<b>": ["x"] }, " y"] }]],
    ["a<br/>b<br />c<br>d", ["a", { "<br/>": [] }, "b", { "<br/>": [] }, "c", { "<br/>": [] }, "d"]],
    ["<b>a<br>b</b>", [{ "<b>": ["a", { "<br/>": [] }, "b"] }]],
    ["<link>a page</link>", [{ "<link>": ["a page"] }]],
    ['<a href="{url}">x</a>', [{ "<a>": ["x"], attributes: ['href="', ["url"], '"'] }]],
    ["5 < 6 > 4 and a <3 and <", ["5 < 6 > 4 and a <3 and <"]],
    ["a <b", ["a <b"]],
    ["'<b>'", ["<b>"]],
    ["'<", ["'<"]],
  ];
  test.each(cases)("%j", (source, expected) => {
    const message = parseIcu(source);
    expect(message.problems).toEqual([]);
    expect(outline(message.nodes)).toEqual(expected);
  });

  test("tags can be turned off", () => {
    expect(outline(parseIcu("<b>{x}</b>", { tags: false }).nodes)).toEqual(["<b>", ["x"], "</b>"]);
  });
});

describe("a message with faults", () => {
  const cases: [string, [string, string][]][] = [
    ["{name", [["argument-unclosed", "{name"]]],
    ["a {", [["argument-unclosed", "{"]]],
    ["{}", [["argument-name", "{}"]]],
    ["{user.name}", [["argument-name", "user.name"]]],
    ["{first name}", [["argument-name", "first name"]]],
    ["{007}", [["argument-name", "007"]]],
    ["{n plural, other {x}}", [["argument-name", "n plural"]]],
    ["{n, }", [["argument-type", "}"]]],
    ["{n, plural}", [["branch-expected", "{n, plural"]]],
    ["{n, plural, }", [["branch-expected", "{n, plural, }"]]],
    ["{n, plural, one}", [["branch-expected", "one"]]],
    ["{n, plural, {x} other {y}}", [["branch-expected", "{"]]],
    ["{n, plural, one {x} one {y} other {z}}", [["branch-duplicate", "one"]]],
    ["{n, plural, offset: one {x} other {y}}", [["offset", "offset: "]]],
    ["{n, plural, one {x} other {y}", [["argument-unclosed", "{n"]]],
    ["{n, plural, one {x", [["branch-unclosed", "one"]]],
    ["{d, date, 'x}", [["style-unclosed", "{d, date, 'x}"]]],
    ["<b>x", [["tag-unclosed", "<b>"]]],
    ["x</b>", [["tag-unopened", "</b>"]]],
    [
      "<a><b>x</a></b>",
      [
        ["tag-unclosed", "<b>"],
        ["tag-unopened", "</b>"],
      ],
    ],
    ["{n, plural, other {<b>x}}", [["tag-unclosed", "<b>"]]],
    ["x }", [["brace-unmatched", "}"]]],
    ["{\u00a0a b}", [["argument-name", "a b"]]],
    ["{n, plural, offset:é {x} other {y}}", [["offset", "offset:"]]],
    ["{n, plural, = {x} other {y}}", [["branch-expected", "="]]],
    [
      "{a.b} and {c d}",
      [
        ["argument-name", "a.b"],
        ["argument-name", "c d"],
      ],
    ],
  ];
  test.each(cases)("%j", (source, expected) => {
    const { problems } = parseIcu(source);
    expect(problems.map(({ code, span }) => [code, source.slice(span.start, span.end)])).toEqual(expected);
    for (const problem of problems) expect(explainProblem(problem).remedy).not.toBe("");
  });

  test("what can be made out is in the tree all the same", () => {
    const facts = messageFacts(parseIcu("{name and {count, plural, one {<b>x</b>}"));
    expect([...facts.arguments.keys()]).toEqual([]);
    expect([...messageFacts(parseIcu("{a.b} {c} <b>{d}")).arguments.keys()]).toEqual(["a.b", "c", "d"]);
  });

  test("nesting has an end, and so have the problems of one message", () => {
    const deep = parseIcu("{n,plural,other{".repeat(20_000));
    expect(deep.problems.map(({ code }) => code)).toContain("too-deep");
    expect(parseIcu("<b>".repeat(20_000)).problems.map(({ code }) => code)).toContain("too-deep");
    expect(parseIcu("</b>".repeat(1_000)).problems.length).toBeLessThanOrEqual(100);
  });
});

const names = fc.constantFrom("n", "name", "count", "0", "12", "größe");
const pieces = fc.string();
const { nodes } = fc.letrec<{ nodes: MessageNode[]; node: MessageNode }>((tie) => ({
  node: fc.oneof(
    { maxDepth: 3, withCrossShrink: true },
    fc
      .oneof(pieces, fc.constantFrom("'", "''", "{", "}", "#", "<b>", "it's", "'{", "a < b", "|"))
      .map((value): MessageNode => ({ kind: "text", value })),
    names.map((name): MessageNode => ({ kind: "argument", name })),
    fc.constantFrom("number", "date").chain((type) =>
      names.map((name): MessageNode => ({
        kind: "argument",
        name,
        format: { type, style: { kind: "skeleton", text: "x/y" } },
      })),
    ),
    fc
      .tuple(names, tie("nodes"), tie("nodes"), fc.constantFrom(0, 1))
      .map(([name, one, other, offset]): MessageNode => ({
        kind: "plural",
        pluralKind: offset ? "ordinal" : "cardinal",
        name,
        offset,
        branches: [
          { selector: "=1", nodes: one },
          { selector: "other", nodes: [{ kind: "count" }, ...other] },
        ],
      })),
    fc.tuple(names, tie("nodes")).map(([name, other]): MessageNode => ({
      kind: "select",
      name,
      branches: [{ selector: "other", nodes: other }],
    })),
    tie("nodes").map((children): MessageNode => ({
      kind: "tag",
      name: "b",
      attributes: [],
      children,
      selfClosing: false,
    })),
  ),
  nodes: fc.array(tie("node"), { maxLength: 4 }),
}));

/** The same tree with neighbouring texts joined and empty ones gone, as a parser would give it. */
function joined(list: readonly MessageNode[]): unknown[] {
  const result: unknown[] = [];
  for (const part of outline(list)) {
    if (part === "") continue;
    const last = result[result.length - 1];
    if (typeof part === "string" && typeof last === "string" && part !== "#count" && last !== "#count")
      result[result.length - 1] = last + part;
    else result.push(part);
  }
  return result;
}

function normalise(list: readonly MessageNode[]): MessageNode[] {
  const result: MessageNode[] = [];
  for (const node of list) {
    const last = result[result.length - 1];
    if (node.kind === "text" && last?.kind === "text")
      result[result.length - 1] = { kind: "text", value: last.value + node.value };
    else if (node.kind === "text") {
      if (node.value !== "") result.push(node);
    } else if (node.kind === "plural" || node.kind === "select")
      result.push({
        ...node,
        branches: node.branches.map((branch) => ({ ...branch, nodes: normalise(branch.nodes) })),
      });
    else if (node.kind === "tag") result.push({ ...node, children: normalise(node.children) });
    else result.push(node);
  }
  return result;
}

describe("properties", () => {
  test("what is printed reads back as the same tree", () => {
    fc.assert(
      fc.property(nodes, (list) => {
        const tree = normalise(list);
        const printed = printIcu(tree);
        const read = parseIcu(printed);
        expect(read.problems).toEqual([]);
        expect(joined(normalise(read.nodes))).toEqual(joined(tree));
      }),
      { numRuns: 1000 },
    );
  });

  const rough = fc
    .array(
      fc.constantFrom(
        "{",
        "}",
        "'",
        "<",
        ">",
        "/",
        "b",
        "n",
        ",",
        " ",
        "#",
        "plural",
        "select",
        "other",
        "offset:",
        "=1",
        "0",
        "é",
        "😀",
      ),
      { maxLength: 40 },
    )
    .map((list) => list.join(""));

  test("a parser never throws, and every span lies in the message", () => {
    fc.assert(
      fc.property(fc.oneof(rough, fc.string({ maxLength: 60 })), (source) => {
        const { nodes: found, problems } = parseIcu(source);
        const check = (span: { start: number; end: number } | undefined) => {
          if (!span) return;
          expect(span.start).toBeGreaterThanOrEqual(0);
          expect(span.end).toBeLessThanOrEqual(source.length);
          expect(span.end).toBeGreaterThanOrEqual(span.start);
        };
        for (const { span } of problems) check(span);
        visitNodes(found, (node) => check(node.span));
      }),
      { numRuns: 1000 },
    );
  });

  test("what was read before leaves no trace", () => {
    const message = fc.oneof(
      rough,
      nodes.map((list) => printIcu(normalise(list))),
    );
    fc.assert(
      fc.property(message, message, (before, source) => {
        const first = parseIcu(source);
        parseIcu(before);
        expect(parseIcu(source)).toEqual(first);
      }),
      { numRuns: 1000 },
    );
  });

  test("the spans of a sound message's top level cover it without gap or overlap", () => {
    fc.assert(
      fc.property(nodes, (list) => {
        const source = printIcu(normalise(list));
        let at = 0;
        for (const node of parseIcu(source).nodes) {
          expect(node.span?.start).toBe(at);
          at = node.span?.end ?? -1;
        }
        expect(at).toBe(source.length);
      }),
      { numRuns: 1000 },
    );
  });
});
