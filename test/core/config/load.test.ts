import { openProject } from "../../../src/core/project/project.js";
import { describe, expect, test } from "@jest/globals";
import { loadConfig } from "../../../src/core/config/load.js";
import { memoryFiles } from "../../../src/core/files/memory-files.js";

const book = '{ "name": "app", "files": "{locale}.json" }';

describe("a sound configuration", () => {
  test("comments and trailing commas are allowed, and defaults filled in", () => {
    const text = `{\n  // what we write in\n  "source": "en", "targets": ["de",], "books": [${book}],\n}`;
    const loaded = loadConfig(memoryFiles({ "fond.config.json": text }));
    expect(loaded).toMatchObject({
      ok: true,
      file: "fond.config.json",
      config: { ledger: "fond-ledger", books: [{ code: [], syntax: "icu", fill: "source" }] },
    });
  });

  test("YAML does as well", () => {
    const text = "source: en\ntargets: [de]\nbooks:\n  - name: app\n    files: '{locale}.json'\n";
    expect(loadConfig(memoryFiles({ "fond.config.yaml": text }))).toMatchObject({
      ok: true,
      config: { source: "en" },
    });
  });
});

describe("a faulty configuration is told of with place, path and remedy", () => {
  const cases: [
    string,
    string,
    { line: number; column: number; path: string; message: RegExp; remedy: RegExp },
  ][] = [
    [
      "an unknown key",
      `{\n "source": "en", "targets": [],\n "bokos": [], "books": [${book}] }`,
      { line: 3, column: 2, path: "bokos", message: /unknown setting/, remedy: /"books"/ },
    ],
    [
      "a key missing",
      `{ "source": "en", "books": [${book}] }`,
      { line: 1, column: 1, path: "targets", message: /missing/, remedy: /add it/ },
    ],
    [
      "a wrong type",
      `{ "source": 3, "targets": [], "books": [${book}] }`,
      {
        line: 1,
        column: 13,
        path: "source",
        message: /found 3, expected the source locale/,
        remedy: /change/,
      },
    ],
    [
      "a word that is near",
      `{ "source": "en", "targets": [], "books": [{ "name": "a", "files": "{locale}.json", "syntax": "ico" }] }`,
      { line: 1, column: 95, path: "books[0].syntax", message: /found "ico"/, remedy: /"icu"/ },
    ],
    [
      "no locale in the path",
      `{ "source": "en", "targets": [], "books": [{ "name": "a", "files": "en.json" }] }`,
      { line: 1, column: 68, path: "books[0].files", message: /\{locale\}/, remedy: /./ },
    ],
    [
      "a level that is none",
      `{ "source": "en", "targets": [], "books": [${book}], "rules": { "key/missing": "warn" } }`,
      {
        line: 1,
        column: 116,
        path: "rules.key/missing",
        message: /expected off, info, warning or error/,
        remedy: /"warning"/,
      },
    ],
    [
      "a tag with an underscore",
      `{ "source": "en", "targets": ["pt_BR"], "books": [${book}] }`,
      { line: 1, column: 31, path: "targets[0]", message: /not a language tag/, remedy: /"pt-BR"/ },
    ],
    [
      "a locale twice",
      `{ "source": "en", "targets": ["de", "DE"], "books": [${book}] }`,
      { line: 1, column: 37, path: "targets[1]", message: /duplicate locale/, remedy: /one of the two/ },
    ],
    [
      "two books of one name",
      `{ "source": "en", "targets": [], "books": [${book}, ${book}] }`,
      { line: 1, column: 99, path: "books[1].name", message: /duplicate book/, remedy: /own/ },
    ],
    [
      "broken JSON",
      '{\n  "source": "en"\n  "targets": [] }',
      { line: 3, column: 3, path: "", message: /invalid JSON: comma expected/, remedy: /syntax/ },
    ],
    ["an empty file", "", { line: 1, column: 1, path: "", message: /invalid JSON/, remedy: /syntax/ }],
  ];
  test.each(cases)("%s", (_, text, expected) => {
    const loaded = openProject(memoryFiles({ "fond.config.json": text }));
    const problem = loaded.ok ? undefined : loaded.problems[0];
    expect(problem).toMatchObject({
      file: "fond.config.json",
      line: expected.line,
      column: expected.column,
      path: expected.path,
    });
    expect(problem?.message).toMatch(expected.message);
    expect(problem?.remedy).toMatch(expected.remedy);
  });

  test("YAML has places too", () => {
    const loaded = loadConfig(
      memoryFiles({
        "fond.config.yaml":
          "source: en\ntargets: [de]\nbooks:\n  - name: app\n    flies: x\n    files: '{locale}.json'\n",
      }),
    );
    expect(loaded).toMatchObject({ ok: false, problems: [{ line: 5, column: 5, path: "books[0].flies" }] });
  });

  test("no configuration at all names the way to one", () => {
    const loaded = loadConfig(memoryFiles());
    expect(loaded.ok ? "" : loaded.problems[0]?.remedy).toContain("fond init");
  });
});
