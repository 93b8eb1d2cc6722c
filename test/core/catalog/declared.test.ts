import { describe, expect, test } from "@jest/globals";
import ts from "typescript";
import fc from "fast-check";
import {
  declaredPaths,
  readDeclared,
  withDeclared,
  withRenamed,
} from "../../../src/core/catalog/declared.js";
import type { EntryPath } from "../../../src/core/catalog/model.js";
import { memoryFiles, type MemoryFiles } from "../../../src/core/files/memory-files.js";
import { applyPlan } from "../../../src/core/plan/apply.js";
import { extractProject } from "../../../src/core/project/extract-project.js";
import { lintProject } from "../../../src/core/project/lint-project.js";
import { reconcileProject } from "../../../src/core/project/reconcile-project.js";
import { rekeyProject } from "../../../src/core/project/rekey.js";
import { planInit } from "../../../src/core/project/setup/init-plan.js";
import { reopened } from "../../support/project.js";

const keysOf = (text: string, wanted: readonly EntryPath[] = []) => {
  const { group } = readDeclared("texts.d.ts", text, false, wanted);
  return group && declaredPaths(group).map(({ path }) => path.join("."));
};

describe("the texts that types declare", () => {
  test.each<[string, string, string[] | undefined]>([
    ["an interface", "export interface Texts {\n  title: string;\n  open?: string\n}\n", ["title", "open"]],
    ["a type", "type Texts = { readonly title: string, 'of-all': string };", ["title", "of-all"]],
    [
      "groups",
      "interface T { cart: { empty: string; rows: (n: number) => { a: 1 } }; end: string }",
      ["cart.empty", "cart.rows", "end"],
    ],
    [
      "a type that stands beside it",
      "interface Cart { empty: string }\ninterface T { cart: Cart; end: string }\n",
      undefined,
    ],
    [
      "methods and comments",
      "interface T {\n  // a: string;\n  say(n: number): string;\n  /* b */ c: string // ;\n  d:\n    | 'x'\n    | 'y';\n}\n",
      ["say", "c", "d"],
    ],
    [
      "a module",
      "declare module 'Texts' {\n  interface I { a: string }\n  const texts: I;\n  export = texts;\n}\n",
      ["a"],
    ],
    ["nothing", "declare const a: string;\n", undefined],
  ])("%s", (_, text, expected) => {
    expect(keysOf(text)).toEqual(expected);
  });

  test("a type that has itself below itself is followed once", () => {
    const names = Array.from({ length: 40 }, (_, at) => `m${at}`);
    const text = `interface Schema { title: string; ${names.map((name) => `${name}?: Schema`).join("; ")} }\n`;
    expect(keysOf(text)).toEqual(["title", ...names]);
    const types = Array.from(
      { length: 20 },
      (_, at) => `interface T${at} { ${names.map((name) => `${name}: T${at + 1}`).join("; ")} }`,
    );
    expect(keysOf(types.join("\n"), [["m0"]])).toContain("m0");
  });

  test("of several types the one that has the keys", () => {
    const text =
      "interface Props { label: string; open: string }\ninterface Cart { empty: string }\ninterface T { cart: Cart; end: string }\n";
    expect(keysOf(text, [["cart", "empty"], ["end"]])).toEqual(["cart.empty", "end"]);
  });

  test("types that were added to say what TypeScript says that they do", () => {
    const name = fc.constantFrom("a", "b", "c", "of all", "d-e");
    const start = fc.constantFrom(
      "interface T {\n}\n",
      "interface T { z: string }\n",
      "interface T {\r\n\tz: string,\r\n\ty: {\r\n\t\tx: string;\r\n\t};\r\n}\r\n",
      "interface T {\n  z: string\n  f: (n: number) => string\n}\n",
    );
    fc.assert(
      fc.property(
        start,
        fc.uniqueArray(fc.array(name, { minLength: 1, maxLength: 2 }), { selector: String, maxLength: 6 }),
        (text, some) => {
          const added = some.filter(
            (path) => !some.some((other) => other.length > path.length && other[0] === path[0]),
          );
          const declared = readDeclared("t.d.ts", text, false, []);
          const before = keysOf(text) ?? [];
          const after = withDeclared(declared, added, added);
          expect(membersOf(after).sort()).toEqual([...before, ...added.map((path) => path.join("."))].sort());
          expect(keysOf(after)?.sort()).toEqual(membersOf(after).sort());
          if (text.includes("\r\n")) expect(after.replaceAll("\r\n", "")).not.toContain("\n");
          // What was there stays as it is.
          for (const line of text.split(/\r?\n/).slice(1, -2)) expect(after).toContain(line);
        },
      ),
    );
  });

  test("a renamed text or group keeps its quotes", () => {
    const declared = readDeclared(
      "t.d.ts",
      "interface T {\n  'a': string;\n  b: {\n    c: string;\n  };\n}\n",
      false,
      [],
    );
    expect(withRenamed(declared, ([first, ...rest]) => (first === "a" ? ["x-y"] : ["d", ...rest]))).toBe(
      "interface T {\n  'x-y': string;\n  d: {\n    c: string;\n  };\n}\n",
    );
  });
});

/** The members of the only interface of a file without faults, by TypeScript itself. */
function membersOf(text: string): string[] {
  const source = ts.createSourceFile("t.d.ts", text, ts.ScriptTarget.Latest, true);
  const { parseDiagnostics } = source as unknown as { parseDiagnostics: readonly ts.Diagnostic[] };
  expect(parseDiagnostics.map(({ messageText }) => `${String(messageText)} in ${text}`)).toEqual([]);
  const names = (members: ts.NodeArray<ts.TypeElement>, above: string): string[] =>
    members.flatMap((member) => {
      if (!ts.isPropertySignature(member)) return [];
      const { name, type } = member;
      const path = above + (ts.isStringLiteral(name) ? name.text : name.getText());
      return type && ts.isTypeLiteralNode(type) ? names(type.members, `${path}.`) : [path];
    });
  return source.statements.flatMap((one) => (ts.isInterfaceDeclaration(one) ? names(one.members, "") : []));
}

describe("a project that declares its texts", () => {
  const files = (): MemoryFiles =>
    memoryFiles({
      "src/loc/en.js":
        'define([], function () {\n  return {\n    "title": "Quay",\n    "gone": "Gone",\n    "all": "All boats"\n  };\n});\n',
      "src/loc/de.js":
        'define([], function () {\n  return {\n    "title": "Kai",\n    "gone": "Weg",\n    "all": "Alle Boote"\n  };\n});\n',
      "src/loc/texts.d.ts":
        "declare interface Texts {\n  title: string;\n  all: string;\n  buy: string;\n}\ndeclare module 'Texts' {\n  const texts: Texts;\n  export = texts;\n}\n",
      "src/Quay.jsx":
        "import * as texts from 'Texts';\nexport const Quay = () => <p title={texts.title}>{texts.all}<b>The sea is calm</b></p>;\n",
    });

  test("goes from init to a clean lint, with its types", async () => {
    const store = files();
    const init = await planInit(store);
    if (!init.ok) throw new Error("no plan");
    applyPlan(store, init.plan);
    expect(store.contents.get("fond.config.json")).toContain('"declared": "./texts.d.ts"');
    const found = (await lintProject(reopened(store))).filter(({ rule }) => rule === "key/declared");
    expect(found.map(({ file, line, severity, message }) => [file, line, severity, message])).toEqual([
      ["src/loc/en.js", 4, "warning", 'text "gone" is not declared in src/loc/texts.d.ts'],
      ["src/loc/texts.d.ts", 4, "error", 'declared text "buy" is not defined in src/loc/en.js'],
    ]);

    applyPlan(store, reconcileProject(reopened(store), {}, "2031-05-04"));
    expect(store.contents.get("src/loc/texts.d.ts")).toContain(
      "  title: string;\n  gone: string;\n  all: string;\n  buy: string;\n}",
    );
    expect(store.contents.get("src/loc/en.js")).toContain('"all": "All boats",\n    "buy": ""\n');
    expect(reconcileProject(reopened(store), {}, "2031-05-05").changes).toEqual([]);

    applyPlan(store, await extractProject(reopened(store)));
    expect(store.contents.get("src/Quay.jsx")).toContain("<b>{texts.seaCalm}</b>");
    expect(store.contents.get("src/loc/texts.d.ts")).toContain("  seaCalm: string;\n}");

    const renamed = await rekeyProject(reopened(store), {}, "title", "heading");
    if (!renamed.ok) throw new Error(renamed.message);
    applyPlan(store, renamed.plan);
    expect(store.contents.get("src/loc/texts.d.ts")).toContain("  heading: string;\n  gone");
    const left = (await lintProject(reopened(store))).filter(({ rule }) => rule === "key/declared");
    expect(left).toEqual([]);
  });
});

test("types that several catalogs share are held against all of them, and a text of none is left to people", async () => {
  const store = memoryFiles({
    "fond.config.json": JSON.stringify({
      source: "en",
      targets: ["de"],
      books: [
        { name: "app", files: "t/{namespace}.{locale}.json", declared: "./texts.d.ts", fallback: ["common"] },
        { name: "common", files: "common/{locale}.json" },
      ],
    }),
    "t/a.en.json": '{"one": "One"}',
    "t/b.en.json": '{"two": "Two"}',
    "t/a.de.json": '{"one": "Eins", "save": "Kaufen"}',
    "t/b.de.json": '{"two": "Zwei"}',
    "t/texts.d.ts": "interface Texts {\n  one: string;\n  three: string;\n}\n",
    "common/en.json": '{"a.save": "Save"}',
    "common/de.json": '{"a.save": "Sichern"}',
  });
  const found = (await lintProject(reopened(store))).filter(({ rule }) => rule === "key/declared");
  expect(found.map(({ message }) => message)).toEqual([
    'text "two" is not declared in t/texts.d.ts',
    'declared text "three" is not defined in any of t/a.en.json, t/b.en.json',
  ]);
  const plan = reconcileProject(reopened(store), {}, "2031-05-04");
  expect(plan.summary).toEqual({ "texts declared": 1 });
  applyPlan(store, plan);
  expect(store.contents.get("t/texts.d.ts")).toBe(
    "interface Texts {\n  one: string;\n  two: string;\n  three: string;\n}\n",
  );
  expect(store.contents.get("t/a.de.json")).toContain("Kaufen");
  expect(reconcileProject(reopened(store), {}, "2031-05-05").changes).toEqual([]);
});

test.each([
  ["that is not there", undefined],
  ["without a type", "declare const a: string;\n"],
  ["whose braces do not close", "interface Texts { one: string\n"],
])("a file %s is said", async (_, types) => {
  const store = memoryFiles({
    "fond.config.json": JSON.stringify({
      source: "en",
      targets: [],
      books: [{ name: "app", files: "t/{locale}.json", declared: "./texts.d.ts" }],
    }),
    "t/en.json": '{"one": "One"}',
    ...(types !== undefined && { "t/texts.d.ts": types }),
  });
  const found = await lintProject(reopened(store));
  expect(found.map(({ rule, file, message }) => [rule, file, message])).toEqual([
    ["key/declared", "t/texts.d.ts", "t/texts.d.ts declares no texts that can be read"],
  ]);
  expect(reconcileProject(reopened(store), {}, "2031-05-04").changes).toEqual([]);
});
