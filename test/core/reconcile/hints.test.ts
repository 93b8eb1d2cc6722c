import { reopened } from "../../support/project.js";
import { describe, expect, test } from "@jest/globals";
import { memoryFiles } from "../../../src/core/files/memory-files.js";
import { applyPlan } from "../../../src/core/plan/apply.js";
import { lintProject } from "../../../src/core/project/lint-project.js";
import { openProject } from "../../../src/core/project/project.js";
import { reconcileProject } from "../../../src/core/project/reconcile-project.js";

/** A project of one book that is reconciled again and again; gives the target's text after each time. */
function project(ending: string, book: object = {}) {
  const files = memoryFiles({
    "fond.config.json": JSON.stringify({
      source: "en",
      targets: ["de"],
      books: [{ name: "app", files: `t/{locale}.${ending}`, ...book }],
    }),
  });
  return (changes: Record<string, string> = {}) => {
    for (const [locale, text] of Object.entries(changes)) files.contents.set(`t/${locale}.${ending}`, text);
    const opened = reopened(files);
    const plan = reconcileProject(opened, {}, "2031-05-04");
    applyPlan(files, plan);
    const again = reconcileProject(opened, {}, "2031-06-07");
    expect(again.changes).toEqual([]);
    return { text: files.contents.get(`t/de.${ending}`), summary: plan.summary };
  };
}

describe("what translators find above an entry", () => {
  const source =
    "# All texts of the quay.\n\n# The button under the list.\nsearch: Search\npage:\n  title: All boats\n";

  test("new entries say the source text and what its catalog says of them, until they are translated", () => {
    const run = project("yaml", { fill: "empty" });
    expect(run({ en: source, de: "" }).text).toBe(
      '# fond: source Search\n# fond: note The button under the list.\nsearch: ""\npage:\n  # fond: source All boats\n  title: ""\n',
    );
    expect(
      run({
        de: "# fond: source Search\n# fond: note The button under the list.\nsearch: Suchen\npage:\n  # mine\n  # fond: source All boats\n  title: Alle Boote\n",
      }).text,
    ).toBe("search: Suchen\npage:\n  # mine\n  title: Alle Boote\n");
  });

  test("a translation whose source text changed gets it, and loses it when it is corrected", () => {
    const run = project("yaml");
    const de = "search: Suchen\npage:\n  title: Alle Boote\n";
    expect(run({ en: source, de }).text).toBe(de);
    expect(run({ en: source.replace("All boats", "Every boat") }).text).toBe(
      "search: Suchen\npage:\n  # fond: source Every boat\n  title: Alle Boote\n",
    );
    expect(run({ en: source.replace("All boats", "Each\u00a0boat") }).text).toBe(
      "search: Suchen\npage:\n  # fond: source Each\u00a0boat\n  title: Alle Boote\n",
    );
    const corrected = "search: Suchen\npage:\n  # fond: source Each\u00a0boat\n  title: Jedes Boot\n";
    expect(run({ de: corrected }).text).toBe("search: Suchen\npage:\n  title: Jedes Boot\n");
  });

  test("properties in Latin-1 get escapes, line ends stay", () => {
    const run = project("properties", { fill: "empty" });
    expect(run({ en: "a=Fähre\nb=One\\nline\n", de: "a=F\r\n" }).text).toBe(
      "a=F\r\n# fond: source One\\nline\r\nb=\r\n",
    );
  });

  test("properties that are written in ASCII stay so", () => {
    const run = project("properties", { fill: "empty" });
    expect(run({ en: "a=F\\u00e4hre\n# Caf\\u00e9\nb=K\\u00e4se\n", de: "a=F\\u00e4hre 1\n" }).text).toBe(
      "a=F\\u00e4hre 1\n# fond: source K\\u00e4se\n# fond: note Caf\\u00e9\nb=\n",
    );
  });

  test("comments of JSON with comments", () => {
    const run = project("jsonc", { fill: "empty" });
    expect(run({ en: '{\n  // How many.\n  "a": "Boats"\n}\n', de: "{}\n" }).text).toBe(
      '{\n  // fond: source Boats\n  // fond: note How many.\n  "a": ""\n}\n',
    );
  });

  test("none where the book wants none, and none in formats without comments", () => {
    expect(project("yaml", { fill: "empty", hints: false })({ en: source, de: "" }).text).not.toContain("#");
    expect(project("json", { fill: "empty" })({ en: '{"a": "Boats"}\n', de: "{}\n" }).text).not.toContain(
      "fond",
    );
  });
});

describe("a project's own comments for translators", () => {
  const hints = { source: "{entry},", open: "TODO please translate" };
  const en = (more = "") => `{\n  "a": "Boats",\n  "b": "Say \\"go\\""${more}\n}\n`;
  const said = {
    a: '  // "a": "Boats",\n',
    b: '  // "b": "Say \\"go\\"",\n',
    open: "  // TODO please translate\n",
  };

  test("are written above what is new, and the open one goes with the translation", () => {
    const run = project("jsonc", { hints });
    const first = run({ en: en(), de: `{\n${said.a}  "a": "Boote"\n}\n` }).text ?? "";
    expect(first).toBe(`{\n${said.a}  "a": "Boote",\n${said.b}${said.open}  "b": "Say \\"go\\""\n}\n`);
    expect(run({ de: first.replace(/"Say .*"\n}/, '"Los"\n}') }).text).toBe(
      `{\n${said.a}  "a": "Boote",\n${said.b}  "b": "Los"\n}\n`,
    );
  });

  test("follow the source text, and ask again where it has changed", () => {
    const run = project("jsonc", { hints });
    const de = `{\n  // mine\n${said.a}  "a": "Boote",\n${said.b}  "b": "Los"\n}\n`;
    expect(run({ en: en(), de }).text).toBe(de);
    expect(run({ en: en().replace("Boats", "All boats") }).text).toBe(
      de.replace(said.a, `  // "a": "All boats",\n${said.open}`),
    );
  });

  test("keep their order and their way of writing", () => {
    const run = project("jsonc", { hints });
    const de = `{\n${said.open}${said.a.replace("// ", "//")}  "a": "Boats",\n${said.b}  "b": "Los"\n}\n`;
    expect(run({ en: en(), de }).text).toBe(de);
  });

  test("can show the text or the key inside of words", () => {
    const run = project("yaml", { hints: { open: "TODO ({key}): {text}" } });
    expect(run({ en: "page:\n  title: Boats\n", de: "" }).text).toBe(
      "page:\n  # TODO (page.title): Boats\n  title: Boats\n",
    );
  });

  test("lint says which are no longer true", async () => {
    const files = memoryFiles({
      "fond.config.json": JSON.stringify({
        source: "en",
        targets: ["de"],
        books: [{ name: "app", files: "t/{locale}.jsonc", hints }],
      }),
      "t/en.jsonc": en(),
      "t/de.jsonc": `{\n  // "a": "Boat",\n${said.open}  "a": "Boote",\n${said.b}${said.open}  "b": "Say \\"go\\""\n}\n`,
    });
    const opened = openProject(files);
    if (!opened.ok) throw new Error("no project");
    const found = (await lintProject(opened.project)).filter(({ rule }) => rule === "text/marker");
    expect(
      found.map(({ line, column, severity, message }) => `${line}:${column} ${severity} ${message}`),
    ).toEqual([
      "2:3 info the comment does not show the source text of today",
      "3:3 warning the comment asks for a translation, but there is one",
    ]);
  });

  test("need words of their own to be known again", () => {
    const config = (open: string) =>
      openProject(
        memoryFiles({
          "fond.config.json": JSON.stringify({
            source: "en",
            targets: [],
            books: [{ name: "a", files: "{locale}.yaml", hints: { open } }],
          }),
        }),
      );
    expect(config("{text}").ok).toBe(false);
    expect(config("TODO {text}").ok).toBe(true);
  });
});

describe("copies of the source text that nobody has translated", () => {
  test("follow the source, with the locale's plural forms", () => {
    const run = project("json");
    const en = (title: string, boats: string) => JSON.stringify({ title, boats });
    const boats = (one: string) => `{n, plural, one {# ${one}} other {# ${one}s}}`;
    run({ en: en("Boats", boats("boat")), de: "{}" });
    const second = run({ en: en("All boats", boats("ship")) });
    expect(JSON.parse(second.text ?? "")).toEqual({ title: "All boats", boats: boats("ship") });
    expect(second.summary).toMatchObject({ "untranslated copies renewed": 2 });
  });

  test("stay where somebody has been at work", () => {
    const run = project("json");
    run({ en: '{"title":"Boats"}', de: '{"title":"Boote"}' });
    expect(run({ en: '{"title":"All boats"}' }).text).toBe('{"title":"Boote"}');
    const empty = project("json", { fill: "empty" });
    empty({ en: '{"title":"Boats"}', de: "{}\n" });
    expect(JSON.parse(empty({ en: '{"title":"All boats"}' }).text ?? "")).toEqual({ title: "" });
  });
});
