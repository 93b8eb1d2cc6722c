import { describe, expect, test } from "@jest/globals";
import { memoryFiles } from "../../../src/core/files/memory-files.js";
import { openProject } from "../../../src/core/project/project.js";
import { planInit } from "../../../src/core/project/setup/init-plan.js";

/** The configuration that is proposed for files, without what says where the code is. */
async function proposed(files: Record<string, string>): Promise<Record<string, unknown>> {
  const result = await planInit(memoryFiles(files));
  if (!result.ok) throw new Error(`there is ${result.file}`);
  const text = result.plan.changes[0]?.after ?? "";
  const opened = openProject(memoryFiles({ ...files, "fond.config.json": text }));
  if (!opened.ok) throw new Error(`${text}\n${JSON.stringify(opened.problems)}`);
  return JSON.parse(text) as Record<string, unknown>;
}

const two = (name: string) => `${name}:\n  title: Quay\n  open: Open\n`;

describe("init finds the catalogs, wherever they are and however they are written", () => {
  test.each<[string, Record<string, string>, object]>([
    [
      "properties with a source without a suffix",
      {
        "res/messages.properties": "a=One\nb=Two\n",
        "res/messages_de.properties": "a=Eins\n",
        "res/messages_pt_BR.properties": "a=Um\n",
      },
      {
        source: "en",
        targets: ["de", "pt-BR"],
        books: [{ files: "res/messages_{locale}.properties", spelling: { en: "", "pt-BR": "pt_BR" } }],
      },
    ],
    [
      "YAML with the locale at its root",
      { "config/locales/en.yml": two("en"), "config/locales/no.yml": two("no") },
      { source: "en", targets: ["no"], books: [{ files: "config/locales/{locale}.yml", root: "{locale}" }] },
    ],
    [
      "a namespace before the locale",
      { "t/home.en.yaml": "a: One\n", "t/home.de.yaml": "a: Eins\n" },
      { source: "en", targets: ["de"], books: [{ files: "t/home.{locale}.yaml" }] },
    ],
    [
      "all locales in one file",
      { "texts.yaml": two("en") + two("fr") },
      { source: "en", targets: ["fr"], books: [{ files: "texts.yaml", root: "{locale}" }] },
    ],
    [
      "each key holding its locales",
      { "texts.json": '{"a": {"en": "One", "pt_BR": "Um"}, "b": {"en": "Two", "pt_BR": "Dois"}}' },
      {
        source: "en",
        targets: ["pt-BR"],
        books: [{ files: "texts.json", leaf: "{locale}", spelling: "underscore" }],
      },
    ],
    [
      "JSON with comments",
      { "t/en.jsonc": '{ // quay\n "a": "One" }', "t/de.jsonc": '{ "a": "Eins" }' },
      { source: "en", targets: ["de"], books: [{ files: "t/{locale}.jsonc" }] },
    ],
  ])("%s", async (_, files, expected) => {
    expect(await proposed(files)).toMatchObject(expected);
  });

  test.each([
    ["icu", "{n, plural, one {#} other {#}}"],
    ["double-brace", "Hi {{name}}"],
    ["percent-brace", "Hi %{name}"],
    ["percent-paren", "Hi %(name)s"],
    ["java", "Hi {0}"],
    ["printf", "Hi %s, %1$d"],
    ["colon", "Hi :name"],
    ["icu", "at 12:30, 100% sure"],
  ])("the syntax %s is told by its placeholders", async (syntax, text) => {
    const result = await proposed({
      "t/en.json": JSON.stringify({ a: text, b: "plain" }),
      "t/de.json": JSON.stringify({ a: text }),
    });
    const [book] = result["books"] as { syntax?: string }[];
    expect(book?.syntax ?? "icu").toBe(syntax);
  });

  test.each<[string, object]>([
    ["suffix", { a_one: "x", a_other: "y" }],
    ["suffix", { a: "one boat", a_plural: "{count} boats" }],
    ["inline", { a: "Boat", a_plural: "Boats" }],
    ["branches", { a: { one: "x", other: "y" } }],
    ["bar", { a: "One :count|:count many" }],
    ["inline", { a: "{n, plural, one {#} other {#}}", b_one: "x" }],
  ])("plurals kept as %s are told by their keys", async (plurals, texts) => {
    const text = JSON.stringify(texts);
    const [book] = (await proposed({ "t/en.json": text, "t/de.json": text }))["books"] as {
      plurals?: string;
    }[];
    expect(book?.plurals ?? "inline").toBe(plurals);
  });

  test("files of other kinds are no catalogs", async () => {
    const result = await proposed({
      "compose.yaml": two("services"),
      "a/en.json": "[1]",
      ".github/en.yml": two("x"),
      "data.json": '{"en": 1}',
    });
    expect(result).toMatchObject({ targets: [], books: [{ files: "locales/{locale}.json" }] });
  });

  test("a catalog that cannot be read counts by its name, and is told of", async () => {
    const files = { "t/en.yaml": "a: One\n", "t/de.yaml": "a: 1\n<<<<<<< ours\n" };
    expect(await proposed(files)).toMatchObject({ targets: ["de"], books: [{ files: "t/{locale}.yaml" }] });
    const result = await planInit(memoryFiles(files));
    expect(result.ok && result.plan.grounds.join("\n")).toContain(
      "t/de.yaml cannot be read: conflict marker",
    );
  });

  test.each<[string, Record<string, string>, string[]]>([
    ["nothing there", {}, ["targets"]],
    ["code alone", { "a.jsx": "x = <p>Boats of today</p>" }, ["source", "targets", "lookup"]],
    [
      "two locales and a lookup",
      { "l/en.json": '{"a": "A b"}', "l/de.json": '{"a": "B c"}', "a.js": 't("a")' },
      [],
    ],
    [
      "code that asks for nothing",
      { "l/en.json": '{"a": "A b"}', "l/de.json": '{"a": "B c"}', "a.js": "f()" },
      ["lookup"],
    ],
    [
      "two locales that may both be the source",
      { "l/fr.json": '{"a": "A b"}', "l/de.json": '{"a": "B c"}' },
      ["source"],
    ],
    ["one locale", { "l/fr.json": '{"a": "A b"}' }, ["targets"]],
  ])("of %s it is open what is to be asked", async (_name, files, open) => {
    const result = await planInit(memoryFiles(files));
    expect(result.ok && result.plan.open).toEqual(open);
  });

  test("an answer comes before what was found", async () => {
    const files = { "l/fr.json": '{"a": "A b"}', "l/de.json": '{"a": "B c"}', "a.js": "f()" };
    const result = await planInit(memoryFiles(files));
    if (!result.ok) throw new Error(`there is ${result.file}`);
    const plan = result.plan.answer({ source: "de", targets: ["it"], lookup: "ui.say({key})" });
    const config = JSON.parse(plan.changes[0]?.after ?? "null") as unknown;
    expect(config).toMatchObject({
      source: "de",
      targets: ["fr", "it"],
      books: [{ lookups: [{ call: "ui.say" }], emit: { call: "ui.say({key})" } }],
    });
    expect(plan.open).toEqual([]);
  });

  test("keys with a leading dot are resolved", async () => {
    const files = {
      "config/en.yml": "boats:\n  index:\n    title: Quay\n  save: Save\n",
      "config/de.yml": "boats:\n  save: Sichern\n",
      "app/views/boats/_index.html.erb": '<h1><%= t(".title") %></h1><%= t("boats.save") %>\n',
    };
    expect(await proposed(files)).toMatchObject({
      books: [{ relative: { root: "app/views", pattern: "{folders}.{file}" } }],
    });
  });

  test("lookups in use are found in code of every language", async () => {
    const files = {
      "config/en.yml": two("en"),
      "config/de.yml": two("de"),
      "app/a.rb": 'class A\n  def b\n    text("title")\n    text("open")\n  end\nend\n',
    };
    const result = await proposed(files);
    expect(result).toMatchObject({ books: [{ code: ["app/**/*.rb"], lookups: [{ call: "text" }] }] });
  });
});
