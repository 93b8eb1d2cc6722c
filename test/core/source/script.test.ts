import { describe, expect, test } from "@jest/globals";
import { noShapes } from "../../../src/core/source/book-code.js";
import {
  type DescriptorShape,
  fixedText,
  readableText,
  type LookupShapes,
  type SourceFile,
} from "../../../src/core/source/model.js";
import { jsxTextValue } from "../../../src/core/source/readers/script/jsx.js";
import { readScript } from "../../../src/core/source/readers/script/script.js";

const shapes: LookupShapes = {
  ...noShapes,
  calls: new Map([
    ["t", {}],
    ["messages.get", { default: 1 }],
  ]),
  components: new Map([["Message", { key: "id", default: "text" }]]),
  makers: new Map([
    ["useTexts", [{ gives: "say", namespace: 0, prefix: 1 }]],
    ["textsOf", [{ namespace: 0 }]],
  ]),
  descriptors: new Map<string, DescriptorShape>([
    ["message", { key: "id", default: "text" }],
    ["declare", { prefix: 0, texts: 1 }],
    ["defineRule", { prefix: "id", texts: "says" }],
  ]),
};
const read = (code: string, file = "code.tsx"): SourceFile =>
  readScript(file, code, false, { ...shapes, sourceLanguage: "en" });

/** Every literal as form, text, and the code that a rewrite would replace. */
function literals(code: string): [string, string, string][] {
  return read(code).literals.map(({ form, pieces, span }) => [
    form,
    readableText(pieces),
    code.slice(span.start, span.end),
  ]);
}

describe("literals", () => {
  const cases: [string, string, [string, string, string][]][] = [
    ["text between tags", "const a = <p> Hello </p>;", [["content", "Hello", "Hello"]]],
    [
      "text over several lines",
      "const a = <p>\n  One\n  two &amp; three\n</p>;",
      [["content", "One two & three", "One\n  two &amp; three"]],
    ],
    [
      "text with a value",
      "const a = <p>Hello {user.name}!</p>;",
      [["phrase", "Hello {name}!", "Hello {user.name}!"]],
    ],
    [
      "text with an element",
      "const a = <p>Read <a href={x}>this</a> now</p>;",
      [["phrase", "Read this now", "Read <a href={x}>this</a> now"]],
    ],
    ["an icon stays outside", "const a = <b><Icon /> Save</b>;", [["content", "Save", "Save"]]],
    [
      "blocks part a text",
      "const a = <div>One<p>Two</p>three</div>;",
      [
        ["content", "One", "One"],
        ["content", "Two", "Two"],
        ["content", "three", "three"],
      ],
    ],
    [
      "a lookup parts a text",
      'const a = <p>One {t("k")} two</p>;',
      [
        ["content", "One", "One"],
        ["content", "two", "two"],
      ],
    ],
    [
      "an element as a value parts a text",
      "const a = <p>One {list.map((x) => <i>{x}</i>)} two</p>;",
      [
        ["content", "One", "One"],
        ["content", "two", "two"],
      ],
    ],
    ["children are not text", "const a = <p>Total {children}</p>;", [["content", "Total", "Total"]]],
    [
      "a quoted attribute",
      'const a = <p title="A &quot;b&quot;" />;',
      [["attribute", 'A "b"', '"A &quot;b&quot;"']],
    ],
    [
      "an attribute in braces",
      "const a = <p title={`Deck ${deck}`} />;",
      [["template", "Deck {deck}", "`Deck ${deck}`"]],
    ],
    [
      "strings put together",
      'const a = "Hi " + name + ", " + age * 2;',
      [["template", "Hi {name}, {age}", '"Hi " + name + ", " + age * 2']],
    ],
    ["a sum is no text", "const a = 1 + 2;", []],
    [
      "two values of one name",
      "const a = `${from.name} to ${to.name}`;",
      [["template", "{name} to {name2}", "`${from.name} to ${to.name}`"]],
    ],
    [
      "one value twice",
      "const a = `${name} and ${name}`;",
      [["template", "{name} and {name}", "`${name} and ${name}`"]],
    ],
    [
      "module names and types are none",
      'import a from "some thing"; export * from "other thing"; type X = "one thing"; let y: "two things";',
      [],
    ],
    ["directives are none", '"use strict"; "use client";', []],
    ["no letters, no literal", 'const a = "12 : —";', []],
  ];
  test.each(cases)("%s", (_, code, expected) => {
    expect(literals(code)).toEqual(expected);
  });

  const contexts: [string, string, object][] = [
    ["content", "const a = <h1>Title</h1>;", { role: "content", element: "h1", atLoad: true }],
    [
      "attribute",
      'function A() { return <img alt="A boat" />; }',
      { role: "attribute", name: "alt", element: "img", component: "A", atLoad: false },
    ],
    ["argument", 'alert("Stop");', { role: "argument", name: "alert", index: 0 }],
    ["method", 'toast.error(1, "Stop");', { role: "argument", name: "toast.error", index: 1 }],
    [
      "property",
      'f({ label: "Yes" });',
      { role: "property", name: "label", element: "f", properties: ["label"] },
    ],
    [
      "nested property",
      'const a = { b: { title: "Yes" } };',
      { role: "property", name: "title", properties: ["b", "title"] },
    ],
    ["variable", 'const title = on ? "Yes" : "No";', { role: "variable", name: "title" }],
    ["assignment", 'document.title = "Yes";', { role: "assignment", name: "document.title" }],
    ["comparison", 'if (a === "yes") b();', { role: "compared", name: "===" }],
    ["case", 'switch (a) { case "yes": }', { role: "compared", name: "case" }],
    ["index", 'a["yes"];', { role: "index" }],
    ["key", 'const a = { "yes": 1 };', { role: "key" }],
    [
      "parameter",
      'const f = ({ label = "Yes" }) => label;',
      { role: "parameter", name: "label", atLoad: false },
    ],
    ["returned", 'function name() { return "Yes"; }', { role: "returned", name: "name" }],
    ["thrown", 'throw "Yes";', { role: "thrown" }],
    ["class field", 'class A { label = "Yes"; }', { role: "property", name: "label", atLoad: false }],
    ["static field", 'class A { static label = "Yes"; }', { role: "property", name: "label", atLoad: true }],
    ["method of the text", '"yes".trim();', { role: "member" }],
  ];
  test.each(contexts)("context: %s", (_, code, expected) => {
    expect(read(code).literals[0]?.context).toMatchObject(expected);
  });

  test("a comment excuses its own line and the next", () => {
    const code =
      '// fond: skip a product name\nconst a = "Tallow boat";\nconst b = "Other boat";\nconst c = "Third boat"; // fond: skip';
    expect(read(code).literals.map(({ skipped }) => skipped)).toEqual(["a product name", undefined, ""]);
  });

  test.each([
    ["  a  ", "  a  "],
    ["\n  a\n  b\n", "a b"],
    ["a \n\n b", "a b"],
    ["a&nbsp;b&lt;", "a\u00a0b<"],
    ["\n \n", ""],
    ["a\tb", "a b"],
  ])("JSX reads %j as %j", (raw, value) => {
    expect(jsxTextValue(raw)).toBe(value);
  });
});

describe("lookups", () => {
  const cases: [string, string, [unknown, readonly string[] | undefined][]][] = [
    ["a call", 't("a.b")', [["a.b", []]]],
    ["a method", 'messages.get("a")', [["a", []]]],
    ["arguments by name", 't("a", { n, m: 1 })', [["a", ["n", "m"]]]],
    [
      "arguments that code alone cannot tell",
      't("a", { ...rest }); t("b", args)',
      [
        ["a", undefined],
        ["b", undefined],
      ],
    ],
    ["a component", 'const a = <Message id="a" />;', [["a", undefined]]],
    ["a component with braces", 'const a = <Message id={"a"} />;', [["a", undefined]]],
    ["a template", "t(`a.${b}.c`)", [[["a.", null, ".c"], []]]],
    ["strings put together", 't("a." + b)', [[["a.", null], []]]],
    [
      "a choice",
      't(x ? "a" : "b")',
      [
        ["a", []],
        ["b", []],
      ],
    ],
    ["a variable", "t(x)", [["unknown", []]]],
    ["another function", 'u("a"); t.u("b");', []],
    [
      "a hook's result",
      'function A() { const { say } = useTexts("home"); say("a", { n }); }',
      [["home.a", ["n"]]],
    ],
    [
      "a hook's result under another name, with a prefix",
      'function A() { const { say: s } = useTexts("home", "form"); s("a"); }',
      [["home.form.a", []]],
    ],
    ["a hook's result as an object", 'const x = useTexts("home"); x.say("a");', [["home.a", []]]],
    ["a maker's result", 'const tx = await textsOf("home"); tx(`a.${b}`);', [[["home.a.", null], []]]],
    [
      "a namespace known at run time only",
      'const { say } = useTexts(which); say("a");',
      [[[null, ".a"], []]],
    ],
    ["a name bound elsewhere only", 'function A() { const { say } = useTexts("home"); } say("a");', []],
  ];
  test.each(cases)("%s", (_, code, expected) => {
    const found = read(code).lookups.map(({ key, argumentNames }) => [
      key.kind === "fixed" ? key.value : key.kind === "composed" ? key.parts : key.kind,
      argumentNames,
    ]);
    expect(found).toEqual(expected);
  });

  test.each<[string, string, readonly (readonly [string, string | undefined, string])[]]>([
    [
      "one text",
      'message({ id: "cart.title", text: "Your cart" })',
      [["cart.title", "Your cart", "cart.title"]],
    ],
    ["one without a default", 'message({ id: "cart.title" })', [["cart.title", undefined, "cart.title"]]],
    [
      "several, in groups",
      'declare("cart", { title: "Your cart", empty: { "no-lead": `None` } } as const)',
      [
        ["cart.title", "Your cart", "title"],
        ["cart.empty.no-lead", "None", "no-lead"],
      ],
    ],
    [
      "several beside a prefix in the same object",
      'defineRule({ id: "a.b", says: { c: "Is wrong" }, why: "No key" })',
      [["a.b.c", "Is wrong", "c"]],
    ],
    ["a prefix that is not fixed", 'declare(area, { title: "Your cart" })', []],
    ["what is no fixed text", 'declare("cart", { title: make(), [x]: "Your cart", ...more })', []],
  ])("texts declared in code: %s", (_, code, expected) => {
    const { lookups, literals: rest } = read(code);
    expect(
      lookups.map(({ key, defaultText, keySpan }) => [
        key.kind === "fixed" ? key.value : key.kind,
        defaultText,
        code.slice(keySpan.start, keySpan.end),
      ]),
    ).toEqual(expected);
    const declared = expected.flatMap(([, text]) => text ?? []);
    expect(rest.filter(({ pieces }) => declared.includes(readableText(pieces)))).toEqual([]);
  });

  test.each<[string, string, string, readonly string[]]>([
    ["one against the rest", '{n === 1 ? "bike" : "bikes"}', "plural", ["one bike", "other bikes"]],
    ["not one", '{n !== 1 ? "bikes" : "bike"}', "plural", ["one bike", "other bikes"]],
    ["more than one", '{n > 1 ? "bikes" : "bike"}', "plural", ["=0 bike", "one bike", "other bikes"]],
    ["the number first", '{1 === n ? "bike" : "bikes"}', "plural", ["one bike", "other bikes"]],
    [
      "three forms",
      '{n === 0 ? "no bikes" : n === 1 ? "bike" : "bikes"}',
      "plural",
      ["=0 no bikes", "one bike", "other bikes"],
    ],
    ["a number that counts nothing", '{n === 1 ? "left" : "right"}', "plural", ["=1 left", "other right"]],
    [
      "a closed set of values",
      '{k === "sea" ? "boat" : k === "rail" ? "train" : "bus"}',
      "select",
      ["sea boat", "rail train", "other bus"],
    ],
    ["true or false", '{ok && late ? "late" : "in time"}', "select", ["yes late", "other in time"]],
  ])("words chosen in a sentence are its plural or cases: %s", (_, choice, kind, branches) => {
    const { literals } = read(`const a = <p>It is {x} ${choice} now</p>;`);
    expect(literals.filter(({ context }) => context.role !== "compared")).toHaveLength(1);
    const found = literals[0]?.pieces.find((piece) => piece.kind === "choice");
    expect(found?.kind === "choice" && found.choice).toBe(kind);
    expect(
      found?.kind === "choice" &&
        found.branches.map(({ selector, pieces }) => `${selector} ${fixedText(pieces)}`),
    ).toEqual(branches);
  });

  test("words chosen by a test keep their sentence from being rewritten where no message can say it", () => {
    const found = read('const a = <p>Hello {ok && "dear"} guest</p>;').literals;
    expect(found[0]?.obstacle?.messageId).toBe("extract/word-by-code");
    const whole = read('const a = <p>Hello {name || "guest"}, welcome</p>;').literals;
    expect(whole.map(({ pieces, obstacle }) => [readableText(pieces), obstacle])).toEqual([
      ["Hello {name}, welcome", undefined],
      ["guest", undefined],
    ]);
  });

  test("keys are no literals, but they are mentioned", () => {
    const source = read('t("some key"); const tab = { label: "other.key" };');
    expect(source.literals.map(({ pieces }) => readableText(pieces))).toEqual(["other.key"]);
    expect([...source.mentions]).toEqual(expect.arrayContaining(["some key", "other.key"]));
  });
});

describe("awkward code", () => {
  test("what does not parse is told of with its place", () => {
    const { problems } = read("const a = <p>;\nlet x = ;");
    expect(problems.length).toBeGreaterThan(0);
    expect(problems[0]?.remedy).not.toBe("");
  });

  test.each([
    ["code.js", "const a = <p>Hi</p>;"],
    ["code.ts", "const a = <string>b; enum E { A = 'x y' }"],
    ["code.mts", "export const a: string = 'Some text';"],
    ["code.cjs", "module.exports = { title: 'Some text' };"],
  ])("%s is read as what its ending says", (file, code) => {
    expect(read(code, file).problems).toEqual([]);
  });

  test("very deep nesting does not end the program", () => {
    const deep = `const a = ${"[".repeat(3000)}"Some text"${"]".repeat(3000)};`;
    expect(() => read(deep)).not.toThrow();
  });
});
