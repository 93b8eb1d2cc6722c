import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { spawnSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { runInNewContext } from "node:vm";
import { formatOf, formats } from "../../../src/core/catalog/formats/index.js";
import { memoryFiles } from "../../../src/core/files/memory-files.js";
import { lintProject } from "../../../src/core/project/lint-project.js";
import { openProject } from "../../../src/core/project/project.js";
import { reconcileProject } from "../../../src/core/project/reconcile-project.js";
import { surveyProject } from "../../../src/core/project/survey-project.js";
import { previewProject } from "../../../src/core/project/preview.js";
import type { CatalogChanges, EntryPath } from "../../../src/core/catalog/model.js";

const textsOf = (format: "script" | "php" | "python" | "ruby", text: string) =>
  Object.fromEntries(formats[format].read(text, ".").entries.map((entry) => [entry.key, entry.text]));

describe("modules of scripts are catalogs", () => {
  test.each<[string, string, Record<string, string>]>([
    ["a default export", 'export default { a: "x", "b-c": \'y\' };\n', { a: "x", "b-c": "y" }],
    ["of a constant", 'const texts = { a: "x" };\nexport default texts;\n', { a: "x" }],
    [
      "with types",
      'export const en: Texts = {\n  a: "x",\n} as const satisfies Texts;\n\nexport default en;\n',
      { a: "x" },
    ],
    ["module.exports", '"use strict";\nmodule.exports = { a: { b: `x\ny` } };\n', { "a.b": "x\ny" }],
    ["inside of a call", 'export default defineTexts("cart", { a: "x" });\n', { a: "x" }],
    [
      "a loader's module",
      'define(["b"], function (b) {\n  var c = 1;\n  return { a: "x" };\n});\n',
      { a: "x" },
    ],
    [
      "several constants",
      'export const cart = { a: "x" };\nexport const title = "T";\nconst own = 5;\n',
      { "cart.a": "x", title: "T" },
    ],
    ["escapes", "export default { a: 'l\\'eau \\u00e9\\x41\\u{1f600}\\n' };\n", { a: "l'eau éA😀\n" }],
    ["the file's only call", 'import { add } from "./add";\n\nadd("en", { a: "x" });\n', { a: "x" }],
    ["joined texts", "export default { a: 'l\\'o' + \"n'\" +\n  `g` };\n", { a: "l'on'g" }],
    ["lists", "export default { days: ['Mo', 'Tu'], };\n", { "days.0": "Mo", "days.1": "Tu" }],
  ])("%s", (_, text, expected) => {
    expect(formats.script.read(text, ".").problems).toEqual([]);
    expect(textsOf("script", text)).toEqual(expected);
    expect(formats.script.edit(text, {})).toBe(text);
  });

  test("what is worked out is kept, and is no text", () => {
    const text =
      'export default {\n  a: (n) => n === 1 ? "one" : `${n} of /["}]/`,\n  f() { return { b: 1 }; },\n  get g() { return 2; },\n  ...more,\n  [key]: "x",\n  glued: "a" + b,\n  z: "end",\n};\n';
    const { entries, problems } = formats.script.read(text, ".");
    expect(problems).toEqual([]);
    expect(entries.map(({ key, kind }) => `${key} ${kind}`)).toEqual([
      "a code",
      "f code",
      "g code",
      "glued code",
      "z text",
    ]);
    expect(
      formats.script.edit(text, {
        set: [{ path: ["z"], text: "E" }],
        add: [{ path: ["y"], text: "Why" }],
        order: [["y"], ["z"]],
      }),
    ).toBe(text.replace('  z: "end"', '  y: "Why",\n  z: "E"'));
  });

  test("of joined texts each code unit has its place, and a new text takes the place of them all", () => {
    const text = 'export default { a: "b\\n" + \'c"d\' };\n';
    const [entry] = formats.script.read(text, ".").entries;
    if (!entry) throw new Error("no entry");
    const places = Array.from(entry.text, (_, at) => text[formats.script.offsetInFile(text, entry, at)]);
    expect(places.join("")).toBe('b\\c"d');
    expect(formats.script.edit(text, { set: [{ path: ["a"], text: "e" }] })).toBe(
      'export default { a: "e" };\n',
    );
  });

  test("a new constant of a file of constants", () => {
    const text = "export const cart = {\n  a: 'x',\n};\n";
    const more = `${text}export const menu = { b: 'y' };\n`;
    expect(formats.script.edit(more, { add: [{ path: ["foot", "c"], text: "z" }] })).toBe(
      `${more}\nexport const foot = {\n  c: 'z',\n};\n`,
    );
  });
});

describe("texts in a constant of a file of code", () => {
  const code =
    'import { useLanguage } from "./language";\n\nconst words = {\n  en: { title: "Quay", count: (n) => `${n} boats` },\n  de: { title: "Kai" },\n};\nconst shape = { en: { a: 1 } };\n\nexport function Quay() {\n  const own = words[useLanguage()];\n  return <h1 title="It\'s late">{own.title} it\'s late {/* now */}</h1>;\n}\n';
  const book = {
    name: "app",
    files: "{dir}/{name}.tsx",
    code: ["src/**/*.tsx"],
    constant: "words",
    root: "{locale}",
    lookups: [{ member: "own" }],
  };
  const open = (files: Record<string, string>) => {
    const opened = openProject(
      memoryFiles({
        "fond.config.json": JSON.stringify({ source: "en", targets: ["de"], books: [book] }),
        ...files,
      }),
    );
    if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
    return opened.project;
  };

  test("are read and changed where they stand", () => {
    const format = formatOf({ files: "a.tsx", constant: "words" });
    const { entries, problems } = format.read(code, ".");
    expect(problems).toEqual([]);
    expect(entries.map(({ key, kind }) => `${key} ${kind}`)).toEqual([
      "en.title text",
      "en.count code",
      "de.title text",
    ]);
    expect(format.edit(code, { add: [{ path: ["de", "more"], text: "Mehr" }] })).toBe(
      code.replace('de: { title: "Kai" }', 'de: { title: "Kai", more: "Mehr" }'),
    );
  });

  test("are checked like others, and what the code works out is not to be copied", async () => {
    const project = open({
      "src/Quay.tsx": code,
      "src/Bare.tsx": "export const Bare = () => <p>Nothing of that here</p>;\n",
    });
    const found = await lintProject(project);
    expect(
      found
        .filter(({ severity }) => severity === "error")
        .map(({ file, message, remedy }) => [file, message, remedy]),
    ).toEqual([
      [
        "src/Quay.tsx",
        'missing key "count" in de, which the source works out in code',
        "write it by hand: what code works out is not copied",
      ],
    ]);
  });

  test("are no text in code, and the rest of the file is", async () => {
    const project = open({ "src/Quay.tsx": code });
    const { files } = await surveyProject(project);
    expect(
      files.flatMap(({ literals }) =>
        literals.flatMap(({ verdict, message }) => (verdict === "text" ? [message] : [])),
      ),
    ).toEqual(["It's late", "{title} it's late"]);
  });
});

describe("PHP arrays are catalogs", () => {
  test.each<[string, string, Record<string, string>]>([
    ["short", "<?php\n\nreturn ['a' => 'x', \"b\" => \"y\\n\"];\n", { a: "x", b: "y\n" }],
    ["long, nested", "<?php return array('a' => array('b' => 'x'), 3 => 'z');", { "a.b": "x", "3": "z" }],
    [
      "behind statements and comments",
      "<?php\ndeclare(strict_types=1);\n# one\n/* two */\nreturn [ // three\n  'a' => 'l\\'eau \\\\ \\n',\n];\n",
      { a: "l'eau \\ \\n" },
    ],
    ["joined texts", "<?php return ['a' => 'x\\'' . \"\\ty\" . 'z'];", { a: "x'\tyz" }],
    ["lists", "<?php return ['d' => ['Mo', 'Tu']];", { "d.0": "Mo", "d.1": "Tu" }],
    ["a variable that is returned", "<?php\n$n = 5;\n$texts = ['a' => 'x'];\nreturn $texts;\n", { a: "x" }],
    ["the only array", "<?php\n$lang = array('a' => 'x');\n", { a: "x" }],
    [
      "members assigned one by one",
      "<?php\n$lang = array();\n$lang['a'] = 'x';\n$lang[\"b\"] = \"y\"; // two\n$other['c'] = 'z';\n",
      { a: "x", b: "y" },
    ],
  ])("%s", (_, text, expected) => {
    expect(formats.php.read(text, ".").problems).toEqual([]);
    expect(textsOf("php", text)).toEqual(expected);
    expect(formats.php.edit(text, {})).toBe(text);
  });

  test("what is worked out is kept, and edits keep quotes, comments and the last comma", () => {
    const text =
      "<?php\nreturn [\n    'a' => \"Hi $name\", // greeting\n    'b' => 'x' . y(),\n    'c' => <<<END\n  long ] text\n  END,\n    'd' => \"It's\",\n    'd2' => 'x',\n    'd3' => 'x',\n];\n";
    expect(formats.php.read(text, ".").entries.map(({ key, kind }) => `${key} ${kind}`)).toEqual([
      "a code",
      "b code",
      "c code",
      "d text",
      "d2 text",
      "d3 text",
    ]);
    expect(
      formats.php.edit(text, {
        set: [{ path: ["d"], text: 'A "$b"' }],
        add: [{ path: ["e", "f"], text: "d'accueil" }],
      }),
    ).toBe(
      text.replace(
        `    'd' => "It's",\n    'd2' => 'x',\n    'd3' => 'x',\n`,
        `    'd' => "A \\"\\$b\\"",\n    'd2' => 'x',\n    'd3' => 'x',\n    'e' => [\n        'f' => 'd\\'accueil',\n    ],\n`,
      ),
    );
  });
});

test.each(["//", "#"])("an entry is added behind a comment of %s beside the one before it", (mark) => {
  const text = `<?php\n$labels['a'] = 'x'; ${mark} the last one\n`;
  expect(formats.php.edit(text, { add: [{ path: ["b"], text: "y" }], order: [["a"], ["b"]] })).toBe(
    `${text}$labels['b'] = 'y';\n`,
  );
});

test("members of a variable are set, added in the source's order, and removed with their lines", () => {
  const text =
    "<?php\n\n/* head */\n$labels['a'] = 'x';\n$labels['b']   = \"y\"; // two\n$labels['n'] = 'p' . 'q';\n\n$labels['end'] = 'e';\n?>\n";
  expect(
    formats.php.edit(text, {
      set: [{ path: ["b"], text: "It's $5" }],
      add: [
        { path: ["first"], text: "F" },
        { path: ["mid"], text: "M'd" },
        { path: ["last"], text: "L" },
      ],
      remove: [["end"]],
      order: [["first"], ["a"], ["mid"], ["b"], ["n"], ["end"], ["last"]],
    }),
  ).toBe(
    "<?php\n\n/* head */\n$labels['first'] = 'F';\n$labels['a'] = 'x';\n$labels['mid'] = 'M\\'d';\n$labels['b']   = \"It's \\$5\"; // two\n$labels['n'] = 'p' . 'q';\n$labels['last'] = 'L';\n?>\n",
  );
  const [entry] = formats.php.read(text, ".").entries;
  expect(entry && text.slice(entry.keySpan.start, entry.keySpan.end)).toBe("'a'");
});

describe("a fault is one finding with its likely cause", () => {
  test.each<["script" | "php", string, RegExp, string]>([
    ["script", "export default { a: 'l'eau', b: \"x\" };", /a quote ends the text here/, "'"],
    ["script", 'export default {\n  a: "x"\n  b: "y",\n};', /no comma between two entries/, "b"],
    ["script", 'export default { a: "x",', /unexpected end of file/, ","],
    ["script", "export const f = () => 1;", /no group of texts/, ""],
    ["php", "<?php return array(\n  'a' => 'l'eau',\n);", /a quote ends the text here/, "'"],
    ["php", "<?php return [\n  'a' => 'x'\n  'b' => 'y',\n];", /no comma between two entries/, "'"],
    ["php", "<?php return ['a' => 'x'", /unexpected end of file/, "'"],
    ["php", "<?php $a = 5;", /no group of texts/, ""],
  ])("%s: %s", (format, text, message, at) => {
    const { entries, problems } = formats[format].read(text, ".");
    expect(entries).toEqual([]);
    expect(problems.map((one) => one.message)).toEqual([expect.stringMatching(message)]);
    const [{ span } = { span: { start: 0, end: 0 } }] = problems;
    expect(text.slice(span.start, span.start + at.length)).toBe(at);
  });
});

describe("dictionaries of Python and hashes of Ruby are catalogs", () => {
  test.each<["python" | "ruby", string, Record<string, string>]>([
    [
      "python",
      "# texts\nTEXTS: dict = {\n    'a': \"x\",  # one\n    \"b\": {'c': 'l\\'eau \\u00e9'},\n}\n\nSIZE = 5\n",
      { a: "x", "b.c": "l'eau é" },
    ],
    [
      "python",
      'A = {"x": 1}\nMESSAGES = {"a": "one " "two", "b": r"\\d", "c": """x\ny"""}\n',
      { a: "one two", b: "\\d", c: "x\ny" },
    ],
    [
      "ruby",
      '# texts\n{\n  en: {\n    title: \'Quay\', # head\n    "a-b": "l\'eau \\u00e9",\n  }\n}\n',
      { "en.title": "Quay", "en.a-b": "l'eau é" },
    ],
    [
      "ruby",
      "module Boats\n  TEXTS = { :a => 'x', :b => { :c => \"y\" } }.freeze\nend\n",
      { a: "x", "b.c": "y" },
    ],
    ["ruby", "LABELS = { 'a' => 'x' }\n", { a: "x" }],
  ])("in %s: %s", (format, text, expected) => {
    expect(formats[format].read(text, ".").problems).toEqual([]);
    expect(textsOf(format, text)).toEqual(expected);
    expect(formats[format].edit(text, {})).toBe(text);
  });

  test("what is worked out is kept, and edits keep comments, quotes and the way of names", () => {
    const python = "TEXTS = {\n    'a': f'{x}',  # it's\n    'b': 'y',\n}\n";
    expect(
      formats.python.edit(python, {
        set: [{ path: ["b"], text: "l'eau" }],
        add: [{ path: ["c"], text: "z", comment: "so" }],
      }),
    ).toBe("TEXTS = {\n    'a': f'{x}',  # it's\n    'b': 'l\\'eau',\n    # so\n    'c': 'z',\n}\n");
    const ruby = 'TEXTS = {\n  :a => "Hi #{name}",\n  :b => lambda { |n| n }\n}.freeze\n';
    expect(formats.ruby.read(ruby, ".").entries.map(({ key, kind }) => `${key} ${kind}`)).toEqual([
      "a code",
      "b code",
    ]);
    expect(formats.ruby.edit(ruby, { add: [{ path: ["c-d"], text: "a #{b}" }] })).toBe(
      ruby.replace("|n| n }\n", '|n| n },\n  :"c-d" => "a \\#{b}"\n'),
    );
  });

  test.each<["python" | "ruby", string, string, string]>([
    [
      "python",
      "TEXTS = {\n    'a': 'l'eau',\n}\n",
      "'",
      "a quote ends the text here, and the rest of the line is no code",
    ],
    ["python", "TEXTS = {\n    'a': 'x'\n    'b': 'y',\n}\n", "'", "no comma between two entries"],
    ["ruby", "{\n  a: 'l'eau',\n}\n", "'", "a quote ends the text here, and the rest of the line is no code"],
    ["ruby", "{\n  a: 'x'\n  b: 'y',\n}\n", "b", "no comma between two entries"],
    ["ruby", "puts 1\n", "", "the file has no group of texts that can be read without running it"],
  ])("a fault in %s is said: %s", (format, text, sign, message) => {
    const { entries, problems } = formats[format].read(text, ".");
    expect(entries).toEqual([]);
    expect(problems.map((one) => [one.message, text.slice(one.span.start, one.span.end)])).toEqual([
      [message, sign],
    ]);
  });
});

type Tree = string | { [name: string]: Tree };

const words = fc.string({ unit: "grapheme", maxLength: 12 }).filter((text) => !/[\uD800-\uDFFF]/.test(text));
const names = fc.oneof(
  fc.constantFrom("title", "a-b", "it's", "x y", "class", "größe"),
  fc.stringMatching(/^[a-z]{1,5}$/),
);
const { tree } = fc.letrec<{ tree: Tree; group: { [name: string]: Tree } }>((tie) => ({
  tree: fc.oneof({ depthSize: "small" }, words, tie("group")),
  group: fc.dictionary(names, tie("tree"), { maxKeys: 4, noNullPrototype: true }),
}));
const groups = fc.dictionary(names, tree, { minKeys: 1, maxKeys: 5, noNullPrototype: true });

const flat = (node: Tree, path: EntryPath = []): { path: EntryPath; text: string }[] =>
  typeof node === "string"
    ? [{ path, text: node }]
    : Object.entries(node).flatMap(([name, below]) => flat(below, [...path, name]));

function at(node: Tree, path: EntryPath): Tree {
  return path.reduce<Tree>(
    (found, part) => (typeof found === "string" ? "" : (found[String(part)] ?? "")),
    node,
  );
}

/** A file with a tree in it, written by the format itself. */
function written(format: "script" | "php" | "python" | "ruby", value: Tree): string {
  const add = flat(value);
  const empty = format === "script" ? "module.exports = {};\n" : formats[format].empty;
  return formats[format].edit(empty, { add });
}

const changes = groups.chain((before) =>
  fc.record({
    before: fc.constant(before),
    set: fc
      .subarray(flat(before))
      .chain((list) =>
        fc.tuple(fc.constant(list), fc.array(words, { minLength: list.length, maxLength: list.length })),
      ),
    added: fc.dictionary(fc.stringMatching(/^new[a-z]{1,3}$/), words, { maxKeys: 3, noNullPrototype: true }),
  }),
);

test("in Node, a module holds what was written into it, and nothing else changes", () => {
  fc.assert(
    fc.property(changes, ({ before, set: [list, texts], added }) => {
      const text = written("script", before);
      const load = (code: string): Tree => {
        const module = { exports: {} as Tree };
        runInNewContext(code, { module });
        return JSON.parse(JSON.stringify(module.exports)) as Tree;
      };
      expect(flat(load(text))).toEqual(flat(before));
      const change: CatalogChanges = {
        set: list.map(({ path }, index) => ({ path, text: texts[index] ?? "" })),
        add: Object.entries(added).map(([name, value]) => ({ path: [name], text: value })),
      };
      const after = load(formats.script.edit(text, change));
      for (const { path, text: value } of [...(change.set ?? []), ...(change.add ?? [])])
        expect(at(after, path)).toBe(value);
      expect(flat(after)).toHaveLength(flat(before).length + Object.keys(added).length);
      const read = formats.script.read(text, ".");
      expect(read.entries.map(({ path, text: value }) => ({ path, text: value }))).toEqual(flat(before));
      expect(formats.script.edit(text, { remove: read.entries.map(({ path }) => path) })).not.toContain(
        ": '",
      );
    }),
    { numRuns: 150 },
  );
});

/** The languages that can say what a file holds, each with the program that reads some files and prints them as JSON. */
const readers: readonly [
  name: "php" | "python" | "ruby",
  ending: string,
  command: string,
  args: readonly string[],
][] = [
  [
    "php",
    "php",
    "php",
    [
      "-d",
      "display_errors=stderr",
      "-r",
      "$all = []; for ($i = 0; $i < (int) $argv[2]; $i++) $all[] = require $argv[1] . '/' . $i . '.php'; echo json_encode($all, JSON_FORCE_OBJECT | JSON_THROW_ON_ERROR);",
      "--",
    ],
  ],
  [
    "python",
    "py",
    "python3",
    [
      "-c",
      "import json, runpy, sys\nprint(json.dumps({i: runpy.run_path(f'{sys.argv[1]}/{i}.py')['TEXTS'] for i in range(int(sys.argv[2]))}))",
    ],
  ],
  [
    "ruby",
    "rb",
    "ruby",
    [
      "-rjson",
      "-e",
      "puts JSON.generate((0...ARGV[1].to_i).to_h { |i| [i, eval(File.read(\"#{ARGV[0]}/#{i}.rb\", encoding: 'utf-8'))] })",
      "--",
    ],
  ],
];

describe.each(readers)("%s itself", (name, ending, command, args) => {
  const isThere = spawnSync(command, ["--version"]).status === 0;
  (isThere ? test : test.skip)("reads what was written", () => {
    const folder = mkdtempSync(join(tmpdir(), `fond-${name}-`));
    try {
      const cases = fc.sample(changes, { numRuns: 60, seed: 7 });
      const format = formats[name];
      for (const [index, { before, set, added }] of cases.entries()) {
        const [list, texts] = set;
        const file = format.edit(written(name, before), {
          set: list.map(({ path }, place) => ({ path, text: texts[place] ?? "" })),
          add: Object.entries(added).map(([key, text]) => ({ path: [key], text })),
        });
        writeFileSync(join(folder, `${index}.${ending}`), file);
      }
      const run = spawnSync(command, [...args, folder, String(cases.length)], { encoding: "utf8" });
      expect(run.stderr).toBe("");
      const all = JSON.parse(run.stdout) as Record<string, Tree>;
      for (const [index, { before, set, added }] of cases.entries()) {
        const [list, texts] = set;
        const expected = new Map(flat(before).map(({ path, text }) => [JSON.stringify(path), text]));
        list.forEach(({ path }, place) => expected.set(JSON.stringify(path), texts[place] ?? ""));
        for (const [key, text] of Object.entries(added)) expected.set(JSON.stringify([key]), text);
        const held = flat(all[index] ?? "").map(({ path, text }) => [JSON.stringify(path), text] as const);
        expect(new Map(held)).toEqual(expected);
      }
    } finally {
      rmSync(folder, { recursive: true, force: true });
    }
  });
});

test("what is worked out is neither previewed, nor linted, nor written into other locales", async () => {
  const config = {
    source: "en",
    targets: ["de"],
    books: [{ name: "app", code: ["app/*.ts"], files: "texts/{locale}.ts", lookups: [{ member: "texts" }] }],
  };
  const files = memoryFiles({
    "fond.config.json": JSON.stringify(config),
    "texts/en.ts": 'export const en = {\n  a: "Boats",\n  n: (x) => `${x} {boats}`,\n};\n',
    "texts/de.ts": 'export const de = {\n  a: "Boote",\n};\n',
    "texts/types.ts": "export interface Texts { a: string }\n",
    "app/a.ts": "export const b = texts.a + texts.n(1);\n",
  });
  const opened = openProject(files);
  if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
  const { project } = opened;
  const shown = previewProject(project, {}, ["n"]);
  expect(shown.ok && shown.messages.map(({ trouble, samples }) => [trouble, samples])).toEqual([
    ["code, which is not run", []],
    ["code, which is not run", []],
  ]);
  const findings = await lintProject(project);
  expect(findings.map(({ rule, locale, key }) => `${rule} ${locale ?? ""} ${key ?? ""}`)).toEqual([
    "key/missing de n",
  ]);
  const { changes } = reconcileProject(project, {}, "2031-05-01");
  expect(changes.filter(({ file }) => file.startsWith("texts/"))).toEqual([]);
});
