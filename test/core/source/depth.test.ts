import { fixedText, type Piece } from "../../../src/core/source/model.js";
import { prepareReaders, readSource } from "../../../src/core/source/read.js";
import { readableText } from "../../../src/core/source/model.js";
import { expect, test } from "@jest/globals";
import { readScript } from "../../../src/core/source/readers/script/script.js";
import { nestsTooDeep } from "../../../src/core/source/readers/script/depth.js";
import { noShapes } from "../../../src/core/source/book-code.js";

const deep: readonly (readonly [string, (count: number) => string])[] = [
  ["parentheses", (count) => `x=${"(".repeat(count)}a${")".repeat(count)}`],
  ["lists", (count) => `x=${"[".repeat(count)}${"]".repeat(count)}`],
  ["arrows", (count) => `x=${"a=>".repeat(count)}a`],
  ["choices", (count) => `x=${"a?b:".repeat(count)}c`],
  ["elements", (count) => `x=${"<a>".repeat(count)}${"</a>".repeat(count)}`],
  ["templates", (count) => `x=${"`${".repeat(count)}a${"}`".repeat(count)}`],
  ["assignments", (count) => `${"a=".repeat(count)}1`],
  ["else if", (count) => `if(a){}${" else if(a){}".repeat(count)}`],
  ["new", (count) => `x=${"new ".repeat(count)}a`],
  ["types", (count) => `type X=${"Array<".repeat(count)}a${">".repeat(count)}`],
  ["types that may be absent", (count) => `x=p${"<?p".repeat(count)}`],
  ["what is never closed", (count) => `x=${"(".repeat(count)}`],
  ["closing brackets in strings between them", (count) => `x=${'(")",'.repeat(count)}a${")".repeat(count)}`],
  ["a pattern that looks like a quote", (count) => `x=/"/;y=${"(".repeat(count)}a${")".repeat(count)};z=/"/`],
  ["patterns with a quote among others", (count) => `x=/["']+/g;y=${"[".repeat(count)}a;z='now'`],
];

test.each(deep)("%s nested by the thousands do not reach the parser, whose stack would end", (_, make) => {
  expect(nestsTooDeep(make(200))).toBe(false);
  expect(nestsTooDeep(make(20_000))).toBe(true);
  const { literals, problems } = readScript("a.tsx", make(20_000), false, noShapes);
  expect(literals).toEqual([]);
  expect(problems[0]?.message).toContain("nested too deeply");
});

test("long files are read whatever they list", () => {
  const list = `export const texts = {\n${Array.from({ length: 9_000 }, (_, at) => `  key${at}: cond ? "Text (${at}" : f(${at}),`).join("\n")}\n};\n`;
  expect(nestsTooDeep(list)).toBe(false);
  const sum = `export const x = ${Array.from({ length: 9_000 }, (_, at) => `a${at}`).join(" + ")};\n`;
  expect(nestsTooDeep(sum)).toBe(false);
});

test.each([
  ["custom elements", "a.jsp", (count: number) => `${"<c:i-x>\n".repeat(count)}Our boats`],
  ["sections", "a.html", (count: number) => `${"<div>\n".repeat(count)}Our boats${"</div>\n".repeat(count)}`],
  ["inline elements", "a.vue", (count: number) => `<template>${"<b>\n".repeat(count)}Our boats</template>`],
  [
    "links in components",
    "a.svelte",
    (count: number) => `${"<a>\n".repeat(count)}Our boats${"</a>\n".repeat(count)}`,
  ],
  [
    "closing tags of what is not open",
    "a.erb",
    (count: number) => `<p>Our boats</p>${"</x>\n".repeat(count)}`,
  ],
])("markup with %s nested by the thousands is read, the text in it too", async (_, file, make) => {
  await prepareReaders([file]);
  for (const count of [150, 40_000]) {
    const { literals } = readSource(file, make(count), false, noShapes);
    expect([count, literals.map(({ pieces }) => readableText(pieces)).join()]).toEqual([
      count,
      expect.stringContaining("Our boats"),
    ]);
  }
});

test("a script with very many backslashes in a row does not reach the parser, whose errors would take all memory", () => {
  const broken = `class A {\n  lab${"\\".repeat(40_000)}\n}\n`;
  expect(readScript("a.ts", broken, false, noShapes).problems[0]?.messageId).toBe("source/backslashes");
  const sound = `const a = <p>Our ${"\\".repeat(60)} boats</p>;\n`;
  expect(readScript("a.tsx", sound, false, noShapes).problems).toEqual([]);
});

test("code that the parser breaks down on counts as not parsed, and what is read later is read as ever", async () => {
  const good = '<p><%= "Our boats" %></p>';
  await prepareReaders(["a.jsp"]);
  const attack = `<%@ page import="x" %>${"'<% S' ".repeat(5_000)} %><%! int x; %>`;
  expect(() => readSource("a.jsp", attack, false, noShapes)).not.toThrow();
  await prepareReaders(["a.jsp"]);
  expect(readSource("a.jsp", good, false, noShapes).literals).toHaveLength(1);
});

test("words chosen inside of chosen words are read once at each level", () => {
  const text = (value: string): Piece => ({ kind: "text", value, span: { start: 0, end: 1 } });
  let piece: Piece = text("deepest of all");
  for (let level = 0; level < 60; level++)
    piece = {
      kind: "choice",
      choice: "select",
      name: "n",
      code: "n",
      value: "n",
      span: { start: 0, end: 1 },
      branches: [
        { selector: "yes", pieces: [piece] },
        { selector: "other", pieces: [text("x")] },
      ],
    };
  expect(fixedText([piece])).toBe("deepest of all");
});
