import { describe, expect, test } from "@jest/globals";
import { memoryFiles } from "../../../src/core/files/memory-files.js";
import { extractProject } from "../../../src/core/project/extract-project.js";
import { lintProject } from "../../../src/core/project/lint-project.js";
import { surveyProject } from "../../../src/core/project/survey-project.js";
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
      "files that each hold all locales, as one book",
      Object.fromEntries(
        ["desk", "quay", "mail"].flatMap((name) => [
          [
            `parts/${name}/texts.json`,
            `{ "en": { "${name}": "Boats of ${name}" }, "de": { "${name}": "Boote" } }`,
          ],
          [`words/${name}.all.json`, `{ "${name}": { "en": "Boats of ${name}", "de": "Boote" } }`],
          [`words/${name}.json`, `{ "x": "${name}" }`],
        ]),
      ),
      {
        books: [
          { files: "{dir}/texts.json", root: "{locale}" },
          { files: "{dir}/{namespace}.all.json", leaf: "{locale}" },
        ],
      },
    ],
    [
      "properties with a source without a suffix beside a file of its own language",
      {
        "l/words.properties": "a=The boat\nb=The quay\nc=Of the day\n",
        "l/words_en.properties": "",
        "l/words_de.properties": "a=Das Boot\nb=Die Kaimauer\n",
        "l/words_new.properties": "a=The boat\nb=The quay\nc=Of the day\n",
      },
      { source: "en-US", targets: ["de", "en"], books: [{ files: "l/words_{locale}.properties" }] },
    ],
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
      "a source catalog that cannot be read",
      { "t/en.json": '{ "a": "One', "t/de.json": '{ "a": "Eins" }', "t/fr.json": '{ "a": "Un" }' },
      { source: "en", targets: ["de", "fr"], books: [{ files: "t/{locale}.json" }] },
    ],
    [
      "YAML with the locale at its root",
      { "config/locales/en.yml": two("en"), "config/locales/no.yml": two("no") },
      { source: "en", targets: ["no"], books: [{ files: "config/locales/{locale}.yml", root: "{locale}" }] },
    ],
    [
      "settings that hold their texts by locale, with one by default",
      {
        "src/panel.json":
          '{"id": "x", "size": 3, "title": {"default": "All boats of today", "it-it": "Tutte le barche"}, "note": {"default": "They leave at the quay", "it-it": "Partono dal molo"}, "group": {"default": "Other"}}',
      },
      {
        source: "en",
        targets: ["it-IT"],
        books: [{ files: "src/panel.json", leaf: "{locale}", spelling: { en: "default", "it-IT": "it-it" } }],
      },
    ],
    [
      "values in braces behind a sign",
      {
        "t/en.json":
          '{"a": "${count} boats", "b": "Sort ${kind}", "c": "See ${boat}", "d": "${n} of ${all}", "e": "At ${quay}"}',
        "t/pl.json": '{"a": "${count} łodzi"}',
      },
      { targets: ["pl"], books: [{ syntax: { argument: "${{name}}" } }] },
    ],
    [
      "forms with four bars between them",
      {
        "t/en.json": '{"a": "%{count} boat |||| %{count} boats", "b": "One | two"}',
        "t/pl.json": '{"a": "%{count} łódź |||| %{count} łodzie |||| %{count} łodzi"}',
      },
      {
        targets: ["pl"],
        books: [{ syntax: "percent-brace", plurals: "bar", forms: { separator: "||||" } }],
      },
    ],
    [
      "tables of TOML",
      {
        "t/en.toml": '[a]\nb = "One"\n',
        "t/de.toml": '[a]\nb = "Eins"\n',
        "pyproject.toml": '[project]\nname = "x"\n',
      },
      { source: "en", targets: ["de"], books: [{ files: "t/{locale}.toml" }] },
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

  const guide = (count: number) =>
    Array.from({ length: count }, (_, at) => `  show(_("Boat number ${at} is late"))\n`).join("");

  test("code that looks texts up by themselves keeps to its way, without a catalog", async () => {
    const files = {
      "quay/shop.py": `from lines import tell as _\n\ndef f(boat):\n  show(_("%(boat)s is late, %(why)s") % { "boat": boat.name, "why": boat.why })\n  show(_("%s boats") % boat.count)\n  show(many("One boat", "Many boats", boat.count))\n${guide(6)}`,
      "quay/page.html":
        '{% extends "a.html" %}\n{% load quay words %}\n' +
        ["All crossings", "Your trips", "New trip", "Late boats", "No boats", "More boats"]
          .map((text) => `<p>{% trans "${text}" %}</p>\n`)
          .join(""),
      "quay/new.html": '{% extends "a.html" %}\n{% load quay %}\n<h1>The boat is late</h1>\n',
      "quay/lang/de.po": 'msgid "No boats"\nmsgstr "Keine Boote"\n',
    };
    const result = await planInit(memoryFiles(files));
    if (!result.ok) throw new Error(`there is ${result.file}`);
    const { plan } = result;
    const config = JSON.parse(plan.changes[0]?.after ?? "{}") as { books: object[] };
    expect(config.books).toMatchObject([
      {
        lookups: [{ call: "_" }, { call: "trans" }],
        emit: {
          endings: {
            ".html": {
              content: '{% trans "{key}" %}',
              attribute: '{% trans "{key}" %}',
              import: "{% load quay words %}",
            },
            ".py": {
              call: '_("{key}")',
              withValues: { call: '_("{key}") % dict({values})' },
              import: "from lines import tell as _",
            },
          },
        },
        syntax: "percent-paren",
        naming: { pattern: "{text}", shape: "flat" },
      },
    ]);
    expect(plan.grounds.join("\n")).toMatch(
      /_\(TEXT\) looks a text up by itself 8 times[^]*de\.po is in a format/,
    );
    const opened = openProject(memoryFiles({ ...files, "fond.config.json": JSON.stringify(config) }));
    if (!opened.ok) throw new Error("no project");
    const { changes } = await extractProject(opened.project, {}, { collectOnly: true });
    const texts = JSON.parse(changes[0]?.after ?? "{}") as Record<string, string>;
    expect(Object.keys(texts)).toHaveLength(14);
    expect(texts).toMatchObject({ "%s boats": "%s boats", "No boats": "No boats" });
    const after = openProject(
      memoryFiles({
        ...files,
        "fond.config.json": JSON.stringify(config),
        "locales/en.json": changes[0]?.after ?? "",
      }),
    );
    if (!after.ok) throw new Error("no project");
    expect(await lintProject(after.project)).toEqual([]);
    const moved = await extractProject(after.project);
    expect(moved.changes.find(({ file }) => file === "quay/new.html")?.after).toBe(
      '{% extends "a.html" %}\n{% load quay words %}\n{% load quay %}\n<h1>{% trans "The boat is late" %}</h1>\n',
    );
  });

  test.each([
    ['const { say } = require("./lib/texts");', 'const { say } = require("{to:lib/texts}");'],
    ["var say = require('./lib/texts').say;", 'const say = require("{to:lib/texts}").say;'],
    ["const { tell: say } = require('harbor-texts')", 'const { tell: say } = require("harbor-texts");'],
    ['import { say } from "./lib/texts";', 'import { say } from "{to:lib/texts}";'],
  ])("the line that brings a lookup in is found: %s", async (line, expected) => {
    const keys = ["boats.title", "boats.empty", "boats.late"];
    const files = {
      "texts/de.json": '{ "boats": { "title": "A", "empty": "B", "late": "C" } }',
      "texts/en.json": '{ "boats": { "title": "D", "empty": "E", "late": "F" } }',
      "a.js": `${line}\n${keys.map((key) => `show(say("${key}"));\n`).join("")}`,
    };
    const result = await planInit(memoryFiles(files));
    if (!result.ok) throw new Error("no plan");
    const { books } = JSON.parse(result.plan.changes[0]?.after ?? "{}") as {
      books: { emit?: { import?: string } }[];
    };
    expect(books[0]?.emit?.import).toBe(expected);
  });

  test("catalogs whose keys are texts have the domain in their name, and code gives it first", async () => {
    const texts =
      "<?php\nreturn ['All boats' => 'B', 'The boat is late' => 'C', 'Name' => 'N', 'Save' => 'S'];\n";
    const asked = ["All boats", "The boat is late", "Name", "Save"];
    const result = await planInit(
      memoryFiles({
        "messages/de/all.php": texts,
        "messages/fr/all.php": texts,
        "a.php": `<?php\n${asked.map((text) => `echo Quay::t('all', '${text}', $values);\n`).join("")}`,
      }),
    );
    if (!result.ok) throw new Error("no plan");
    const { source, books } = JSON.parse(result.plan.changes[0]?.after ?? "{}") as {
      source: string;
      books: object[];
    };
    expect(source).toBe("en");
    expect(books).toMatchObject([
      {
        files: "messages/{locale}/all.php",
        lookups: [{ call: "Quay.t", key: 1 }],
        emit: { call: "Quay::t('all', '{key}'{args})" },
        naming: { pattern: "{text}" },
      },
    ]);
  });

  test("a file is no locale by its name in the folder of one", async () => {
    const texts = "<?php\nreturn ['title' => 'Boats', 'save' => 'Save'];\n";
    const files = ["de", "en", "fr"].map((locale) => [`messages/${locale}/all.php`, texts]);
    const result = await planInit(memoryFiles(Object.fromEntries(files) as Record<string, string>));
    if (!result.ok) throw new Error("no plan");
    const { books, targets } = JSON.parse(result.plan.changes[0]?.after ?? "{}") as {
      books: { files: string }[];
      targets: string[];
    };
    expect([books[0]?.files, targets]).toEqual(["messages/{locale}/{namespace}.php", ["de", "fr"]]);
  });

  test.each([
    ["app", "app", { call: "Quay.t", key: 1 }, "Quay::t('app', '{key}')"],
    // Which of several domains a new text is of nobody knows.
    ["app", "crew", undefined, undefined],
  ])("a lookup by text is given a domain first: %s, %s", async (one, other, lookup, call) => {
    const texts = [
      "All boats",
      "The boat is late",
      "No boats yet",
      "Save the boat",
      "Leave the quay",
      "A new boat",
    ];
    const calls = texts.map((text, n) => `echo Quay::t('${n % 2 ? one : other}', '${text}');\n`);
    const result = await planInit(memoryFiles({ "a.php": `<?php\n${calls.join("")}` }));
    if (!result.ok) throw new Error("no plan");
    const { books } = JSON.parse(result.plan.changes[0]?.after ?? "{}") as {
      books: { lookups: object[]; emit?: { call: string } }[];
    };
    expect([books[0]?.lookups[0], books[0]?.emit?.call]).toEqual([lookup ?? { call: "t" }, call]);
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

  test.each([
    ["snake", ["cart_title", "cart_empty"], "boat_full"],
    ["kebab", ["cart-title", "cart-empty"], "boat-full"],
    ["pascal", ["CartTitle", "Empty"], "BoatFull"],
    ["upper", ["CART_TITLE", "EMPTY"], "BOAT_FULL"],
    [undefined, ["cartTitle", "empty"], "boatFull"],
  ])("keys are written in the letter case of those that are there: %s", async (letterCase, keys, written) => {
    const texts = JSON.stringify(Object.fromEntries(keys.map((key) => [key, "Two boats"])));
    const files = {
      "t/en.json": texts,
      "t/de.json": texts,
      "a.jsx": `import { t } from "./t";\nexport const A = () => <p title={t("${keys[0] ?? ""}")} alt={t("${keys[1] ?? ""}")}>The boat is full</p>;\n`,
    };
    const result = await proposed(files);
    const [book] = result["books"] as { naming?: { case?: string } }[];
    expect(book?.naming?.case).toBe(letterCase);
    const opened = openProject(memoryFiles({ ...files, "fond.config.json": JSON.stringify(result) }));
    if (!opened.ok) throw new Error("no project");
    const plan = await extractProject(opened.project);
    expect(plan.extracted.map(({ key }) => key)).toEqual([written]);
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

  test("texts in English that are keys have their source in no catalog", async () => {
    const texts = ["All boats of the day", "The quay is closed", "Open", "You are not on board", "Late"];
    const translated = (end: string) =>
      JSON.stringify(Object.fromEntries(texts.map((text) => [text, `${text.length} ${end}`])));
    const files = {
      "t/de.json": translated("Boote"),
      "t/fr.json": translated("bateaux"),
      "app.js": texts.map((text) => `show(say("${text}"));`).join("\n"),
      "page.html": texts.map((text) => `<p title="${text}">Quay</p>`).join("\n"),
    };
    const config = await proposed(files);
    expect(config).toMatchObject({
      source: "en",
      targets: ["de", "fr"],
      books: [{ lookups: [{ call: "say" }] }],
    });
    const opened = openProject(memoryFiles({ ...files, "fond.config.json": JSON.stringify(config) }));
    if (!opened.ok) throw new Error("no project");
    const { changes } = await extractProject(opened.project, {}, { collectOnly: true });
    expect(JSON.parse(changes[0]?.after ?? "{}")).toEqual(
      Object.fromEntries(texts.map((text) => [text, text])),
    );
    expect(
      (await proposed({ ...files, "t/fr.json": translated("").replace(/"\d+ "/g, '"Quai"') })).source,
    ).toBe("en");
  });

  test("labels that many languages have translated are in English", async () => {
    const labels = ["Add file", "Stop upload", "File name", "Size", "Status"];
    const files = Object.fromEntries(
      "cs de fr ja nl sv"
        .split(" ")
        .map((locale) => [
          `t/${locale}.json`,
          JSON.stringify(Object.fromEntries(labels.map((label, at) => [label, `${locale} ${at}`]))),
        ]),
    );
    expect((await proposed(files)).source).toBe("en");
  });

  test.each<[string, readonly string[], string]>([
    ["labels of a word", ["Open the list", "Gate of boats", "Late", "Open", "Quay:", "Berth", "Close"], "en"],
    [
      "names among them",
      ["Open the list", "Gate of boats", "late", "boat.open", "quay_title", "isOpen"],
      "de",
    ],
    ["names alone", ["openList", "gate_of_boats", "late.title", "open"], "de"],
  ])("keys of which some are texts, with %s: the source is %3$s", async (_name, keys, source) => {
    const translated = (words: string) =>
      JSON.stringify(Object.fromEntries(keys.map((key, at) => [key, `${words} ${at}`])));
    const config = await proposed({
      "t/de.json": translated("Boote der Tide"),
      "t/fr.json": translated("bateaux de la rade"),
      "app.js": keys.map((key) => `show(say("${key}"));`).join("\n"),
    });
    expect(config.source).toBe(source);
  });

  test("texts that Python fills by a method are written so, with imports that hold in every folder", async () => {
    const files = {
      "t/en.json": '{"quay": {"title": "Quay", "sent": "It\'s {} boats", "late": "{boat} is late"}}',
      "t/de.json": '{"quay": {"title": "Kai", "sent": "{} Boote", "late": "{boat} ist spät"}}',
      "src/boats/__init__.py": "",
      "src/boats/words.py": "def say(key):\n    return texts[key]\n",
      "src/boats/inner/__init__.py": "",
      "src/boats/inner/quay.py":
        'from ..words import say\n\n\ndef show(window, boat, n):\n    window.title(say("quay.title"))\n    window.add(say("quay.sent").format(n))\n    window.add(say("quay.late").format(boat=boat.name))\n    Label(window, text=f"Hello {boat.name}, welcome aboard")\n',
      "src/boats/pier.py":
        'from tkinter import Label\n\n\ndef show(window, boat):\n    Label(window, text="Sent {} boats".format(boat.count))\n    Label(window, text="The gate {here}")\n',
    };
    const config = await proposed(files);
    expect(config).toMatchObject({
      books: [
        {
          syntax: "brace-field",
          emit: {
            endings: {
              ".py": {
                call: 'say("{key}")',
                withValues: { call: 'say("{key}").format({values})' },
                import: "from boats.words import say",
              },
            },
          },
        },
      ],
    });
    const opened = openProject(memoryFiles({ ...files, "fond.config.json": JSON.stringify(config) }));
    if (!opened.ok) throw new Error("no project");
    const { changes } = await extractProject(opened.project);
    const after = (file: string) => changes.find((change) => change.file === file)?.after;
    expect(after("src/boats/inner/quay.py")).toBe(
      files["src/boats/inner/quay.py"].replace(
        'f"Hello {boat.name}, welcome aboard"',
        'say("quay.helloWelcomeAboard").format(name=boat.name)',
      ),
    );
    expect(after("src/boats/pier.py")).toMatch(
      /import Label\nfrom boats\.words import say\n[^]*text=say\("pier\.\w+"\)\.format\(\w+=boat\.count\)\)\n[^]*"The gate \{here\}"/,
    );
    expect((await lintProject(opened.project)).filter(({ severity }) => severity === "error")).toEqual([]);
  });

  test("texts without values that Ruby looks up have its placeholders", async () => {
    const files = {
      "config/locales/en.yml": "en:\n  boats:\n    title: Boats\n    lead: Late\n",
      "config/locales/de.yml": "de:\n  boats:\n    title: Boote\n    lead: Spät\n",
      "app/views/boats.html.erb": '<h1><%= t("boats.title") %></h1><p><%= t("boats.lead") %></p>',
    };
    expect(await proposed(files)).toMatchObject({
      books: [{ syntax: "percent-brace", naming: { case: "snake" } }],
    });
  });

  test("texts of C# have their items in braces", async () => {
    expect(
      await proposed({
        "t/en.json":
          '{"quay": {"late": "It\'s {0}", "sum": "{0:N2} in all", "none": "No boats", "open": "Open"}}',
        "t/de.json":
          '{"quay": {"late": "Um {0}", "sum": "Zusammen {0:N2}", "none": "Keine Boote", "open": "Auf"}}',
        "Quay.cs":
          'class Quay { void Show() { Say(string.Format(Texts.Get("quay.late"), at)); Say(Texts.Get("quay.none")); Say(Texts.Get("quay.open")); } }',
      }),
    ).toMatchObject({ books: [{ syntax: "brace-index" }] });
  });

  test("classes mark the texts that a script looks up by them", async () => {
    const loop =
      '$(".say, .words").each(function () {\n  $(this).text(translate($(this).text()));\n});\n$(".tip").each(function () {\n  $(this).attr("title", translate($(this).attr("title")));\n});\n$(".late").each(function () {\n  $(this).hide();\n});\n';
    const config = await proposed({
      "say.js": `function translate(text) {\n  return translations[text] || text;\n}\n${loop}`,
      "app.js": ["All boats", "The quay", "Open now", "Late boats", "No boats", "More boats"]
        .map((text) => `show(translate("${text}"));`)
        .join("\n"),
      "page.html": '<p class="say">Boats</p>',
    });
    expect(config).toMatchObject({
      books: [
        {
          lookups: [{ call: "translate" }],
          marked: [{ class: "say" }, { class: "words" }, { class: "tip", attributes: ["title"] }],
        },
      ],
    });
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

  test.each<[string, string, string, string, object | undefined]>([
    [
      "the source entry above all, and what asks for a translation",
      "jsonc",
      '{\n  "a": "Boats",\n  "b": "All boats",\n  "c": "Quay",\n  "d": "Sea",\n  "e": "Pier",\n  "f": "Crew",\n}\n',
      '{\n  // "a": "Boats",\n  "a": "Boote",\n  // "b": "All boats",\n  "b": "Alle Boote",\n  // "c": "Quay",\n  "c": "Kai",\n  // "d": "Sea",\n  // TODO translate me\n  "d": "Sea",\n  // "e": "Pier",\n  // TODO translate me\n  "e": "Pier",\n  // "f": "Crew",\n  // TODO translate me\n  "f": "Crew",\n}\n',
      { source: "{entry},", open: "TODO translate me" },
    ],
    [
      "the text behind a word",
      "yaml",
      "a: Boats\nb: All boats\nc: Quay\nd: Sea\n",
      "# TODO: Boats\na: ''\n# TODO: All boats\nb: ''\n# TODO: Quay\nc: Quay\nd: Meer\n",
      { open: "TODO: {text}" },
    ],
    [
      "comments about other things",
      "yaml",
      "a: Boats\nb: All boats\nc: Quay\nd: Sea\n",
      "# a button\na: Boote\n# a button\nb: Alle Boote\n# a button\nc: Kai\n# Sea\nd: Meer\n",
      undefined,
    ],
  ])("comments for translators: %s", async (_, ending, en, de, expected) => {
    const [book] = (await proposed({ [`t/en.${ending}`]: en, [`t/de.${ending}`]: de }))["books"] as {
      hints?: object;
    }[];
    expect(book?.hints).toEqual(expected);
  });

  test("a comment that every locale has above the same key asks for nothing", async () => {
    const comment = "# TODO: the direction of dir\n";
    const [book] = (
      await proposed({
        "t/en.yaml": "dir: ltr\na: Boats\n",
        ...Object.fromEntries(
          ["de", "fr", "pl", "es"].map((locale) => [
            `t/${locale}.yaml`,
            `${comment}dir: ltr\na: ${locale} boats\n`,
          ]),
        ),
      })
    )["books"] as { hints?: object }[];
    expect(book?.hints).toBeUndefined();
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
    [
      "a catalog that cannot be read, which may be the source",
      { "l/sv.json": '{"a": "A', "l/de.json": '{"a": "B c"}', "a.js": 't("a")' },
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

  test.each<[string, Record<string, string>, string[]]>([
    [
      "nothing is there",
      {},
      ["fond.config.json", "src/locales/de.json", "src/locales/en.json", "src/texts.js"],
    ],
    [
      "the source catalog is there",
      { "src/locales/en.json": '{"a": "Boats"}' },
      ["fond.config.json", "src/locales/de.json", "src/texts.js"],
    ],
    [
      "a module of that name is there",
      { "src/texts.js": "export const a = 1;" },
      ["fond.config.json", "src/locales/de.json", "src/locales/en.json", "src/page-texts.js"],
    ],
    [
      "catalogs are of a format that scripts do not import",
      { "src/locales/en.yml": "a: Boats\n" },
      ["fond.config.json"],
    ],
  ])("a module that looks texts up, where %s", async (_name, files, written) => {
    const result = await planInit(
      memoryFiles({
        "package.json": '{"dependencies": {"vue": "3"}}',
        "src/a.vue": "<template><p>All boats</p></template>",
        ...files,
      }),
    );
    if (!result.ok) throw new Error(`there is ${result.file}`);
    const { changes } = result.plan.answer({ runtime: true, targets: ["de"] });
    expect(changes.map(({ file }) => file)).toEqual(written);
    expect(changes.every(({ before }) => before === undefined)).toBe(true);
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

  test("keys with a part in another argument are those of both, and frameworks ask for their own", async () => {
    const quay = "en:\n  quay:\n    flash:\n      saved: Saved\n      gone: Gone\n      late: Late\n";
    const files = {
      "config/en.yml": `${quay}  activerecord:\n    models:\n      boat: Boat\n  old:\n    note: Note\n`,
      "config/de.yml": "de:\n  quay:\n    flash:\n      saved: Gesichert\n",
      "app/a.rb":
        "class A\n  def b\n    I18n.t(:saved, scope: %i[quay flash])\n    I18n.t(:gone, scope: [:quay, :flash])\n    I18n.t('late', scope: 'quay.flash')\n  end\nend\n",
    };
    const result = await proposed(files);
    expect(result).toMatchObject({
      books: [{ lookups: [{ call: "I18n.t" }], assumed: ["activerecord.**"] }],
    });
    const opened = openProject(memoryFiles({ ...files, "fond.config.json": JSON.stringify(result) }));
    if (!opened.ok) throw new Error();
    const found = await lintProject(opened.project);
    expect(
      found.flatMap(({ rule, key }) => (/unused|undefined/.test(rule) ? [`${rule} ${key ?? ""}`] : [])),
    ).toEqual(["key/unused old.note"]);
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

test("a table from languages to what each calls itself is no catalog, and countries stand for languages beside several", async () => {
  const table = (of: (locale: string) => string) =>
    `export const all = {\n${["en", "fi", "es", "fr", "cn", "jp"].map((locale) => `  ${locale}: ${of(locale)},\n`).join("")}};\n`;
  const names: Record<string, string> = {
    en: "English",
    fi: "Suomi",
    es: "Español",
    fr: "Français",
    cn: "中文",
    jp: "日本語",
  };
  const result = await proposed({
    "src/lang/list.ts": table((locale) => JSON.stringify(names[locale])),
    "src/lang/texts.ts": table((locale) => `{ quay: "${locale} quay", pier: "${locale} pier" }`),
  });
  expect(result).toMatchObject({
    targets: ["es", "fi", "fr", "ja", "zh"],
    books: [{ files: "src/lang/texts.ts", root: "{locale}", spelling: { ja: "jp", zh: "cn" } }],
  });
});

test("what goes on as no language does is none", async () => {
  const yaml = "title: One boat\nlead: Two boats\nnote: Three boats\n";
  const files = Object.fromEntries(
    ["os_linux_active", "os_windows_agent", "os_solaris"].map((name) => [`t/template_${name}.yaml`, yaml]),
  );
  expect(await proposed({ ...files, "src/a.ts": "f();" })).toMatchObject({ source: "en", targets: [] });
  expect(
    await proposed({ "t/en.yaml": yaml, "t/be-tarask.yaml": yaml, "t/de-formal.yaml": yaml }),
  ).toMatchObject({ targets: ["be-tarask", "de-formal"] });
});

describe("init tells catalogs by their content where their ending names no format", () => {
  const family = (content: string) =>
    Object.fromEntries(["en", "de", "fr", "ua"].map((tag) => [`texts/${tag}.lang`, content]));

  test.each<[string, string, object]>([
    [
      "PHP that assigns texts",
      "<?php\n// Texts\n$words['quay'] = 'Quay';\n$words['open'] = 'Open now';\n",
      { files: "texts/{locale}.lang", format: "php", spelling: { uk: "ua" } },
    ],
    ["an object", '{"quay": "Quay", "open": "Open now"}', { format: "json" }],
    ["lines", "# Texts\na=Quay\nb=Open\nc=Full\nd = Late\n\ne=Now\n", { format: "properties" }],
  ])("%s", async (_name, content, book) => {
    expect(await proposed(family(content))).toMatchObject({ source: "en", books: [book] });
  });

  test.each([
    ["values in quotes", 'a="Quay"\nb="Open"\nc="Full"\nd="Late"\ne="Now"\n'],
    ["sections", "[a]\nb=Open\n[c]\nd=Late\n[e]\nf=Now\n"],
    ["prose", "The boat leaves.\nIt comes back.\nThat is all.\nYes.\nNo.\n"],
    ["too few lines", "a=Quay\nb=Open\n"],
  ])("%s are none", async (_name, content) => {
    expect(await proposed(family(content))).toMatchObject({ books: [{ files: "locales/{locale}.json" }] });
  });

  test("two locales of an unknown ending are none", async () => {
    const text = "a=Quay\nb=Open\nc=Full\nd=Late\ne=Now\n";
    expect(await proposed({ "t/en.lang": text, "t/de.lang": text })).toMatchObject({
      books: [{ files: "locales/{locale}.json" }],
    });
  });
});

describe("init sees which forms a program knows", () => {
  const catalogs = (forms: readonly string[], locales: readonly string[]) =>
    Object.fromEntries(
      locales.map((locale) => [
        `t/${locale}.json`,
        JSON.stringify({ boats: Object.fromEntries(forms.map((form) => [form, `${form} %d`])) }),
      ]),
    );
  test.each<[string, readonly string[], readonly string[], unknown]>([
    [
      "none by name, in languages with more",
      ["zero", "one", "other"],
      ["en", "ru", "pl"],
      { known: ["zero", "one", "other"] },
    ],
    ["too few languages with more", ["zero", "one", "other"], ["en", "de", "pl"], undefined],
    ["no form for none", ["one", "other"], ["en", "ru", "pl"], undefined],
    [
      "one in languages that have no form for it",
      ["one", "other"],
      ["en", "ja", "zh", "ko", "ru", "pl"],
      { known: ["one", "other"] },
    ],
    ["one in too few of them", ["one", "other"], ["en", "ja", "zh", "ru", "pl"], undefined],
    ["a form of one language", ["zero", "one", "few", "other"], ["en", "ru", "pl"], undefined],
  ])("%s", async (_name, forms, locales, expected) => {
    const { books } = (await proposed(catalogs(forms, locales))) as { books: { forms?: unknown }[] };
    expect(books[0]?.forms).toEqual(expected);
  });
});

describe("init tells plurals from other texts with bars", () => {
  test.each([
    ["One boat | %{n} boats", "bar"],
    ["%{n} jours | %{n} semaines", "bar"],
    ["{0} Empty|[1,*] Many here", "bar"],
    ["-1 = closed | 0 = no limit", undefined],
    ["Quay | All times", undefined],
  ])("%s: %s", async (text, plurals) => {
    const catalog = JSON.stringify({ a: text, b: "%{name} leaves", c: "%{name} is late" });
    const { books } = (await proposed({ "t/en.json": catalog, "t/de.json": catalog })) as {
      books: { plurals?: string }[];
    };
    expect(books[0]?.plurals).toBe(plurals);
  });
});

describe("init reads locales however they are written", () => {
  const json = (text: string) => JSON.stringify({ a: text, b: `${text} ${text}`, c: `${text}!` });
  test.each<[string, Record<string, string>, object]>([
    [
      "tags run together and in small letters",
      { "t/en.json": json("One"), "t/ptBR.json": json("Um"), "t/zh_hans.json": json("一") },
      {
        targets: ["pt-BR", "zh-Hans"],
        books: [{ files: "t/{locale}.json", spelling: { "pt-BR": "ptBR", "zh-Hans": "zh_hans" } }],
      },
    ],
    [
      "a country's code whose texts are in the country's script",
      { "t/en.json": json("One"), "t/kr.json": json("하나입니다 하나") },
      { targets: ["ko"], books: [{ spelling: { ko: "kr" } }] },
    ],
    [
      "a country's code whose texts are half translated, where the language has another script in it",
      {
        "t/en.json": json("One"),
        "t/tw.json": JSON.stringify({ a: "渡輪時刻表渡輪時刻表", b: "Not yet translated at all", c: "Quay" }),
      },
      { targets: ["zh-TW"], books: [{ spelling: { "zh-TW": "tw" } }] },
    ],
    [
      "a country's code that is no language",
      { "t/en.json": json("One"), "t/jp.json": json("ひとつです") },
      { targets: ["ja"], books: [{ spelling: { ja: "jp" } }] },
    ],
    [
      "a code that is what it says",
      { "t/en.json": json("One"), "t/kr.json": json("Tiló") },
      { targets: ["kr"], books: [{ files: "t/{locale}.json" }] },
    ],
    [
      "words of three letters that are the code of no language with a name",
      { "t/en.json": json("One"), "t/kab.json": json("Yiwen"), "t/dev.json": json("x") },
      { targets: ["kab"] },
    ],
    [
      "such codes beside many locales",
      Object.fromEntries(
        "en de fr es it pt nl sv da fi pl azb dev".split(" ").map((one) => [`t/${one}.json`, json(one)]),
      ),
      { targets: ["azb", "da", "de", "dev", "es", "fi", "fr", "it", "nl", "pl", "pt", "sv"] },
    ],
    [
      "English names of languages",
      { "lang/english.yml": "a: One\nb: Two\n", "lang/german.yml": "a: Eins\nb: Zwei\n" },
      {
        source: "en",
        targets: ["de"],
        books: [{ files: "lang/{locale}.yml", spelling: { de: "german", en: "english" } }],
      },
    ],
    [
      "a file without a locale in the language that it is in",
      {
        "res/m.properties": "a=Das Boot ist nicht da\nb=Die Fahrt mit der Fähre\nc=Ein Platz für das Rad\n",
        "res/m_en.properties": "a=The boat is not there\nb=The trip\nc=A place\n",
      },
      { targets: ["de"], books: [{ spelling: { de: "" } }] },
    ],
    [
      "folders with catalogs of their own as one book",
      Object.fromEntries(
        ["a", "b", "c"].flatMap((name) => [
          [`web/${name}/texts.en.json`, json("One")],
          [`web/${name}/texts.de.json`, json("Eins")],
        ]),
      ),
      { books: [{ files: "{dir}/texts.{locale}.json" }] },
    ],
    [
      "a country's code, as the language that the others have no file for",
      Object.fromEntries(["en", "de", "fr", "ru", "kz", "ua"].map((name) => [`t/${name}.json`, json("One")])),
      { targets: ["de", "fr", "kk", "ru", "uk"], books: [{ spelling: { kk: "kz", uk: "ua" } }] },
    ],
    [
      "folders in camel case",
      Object.fromEntries(["en", "de", "fr", "ptBr"].map((name) => [`t/${name}/home.json`, json("One")])),
      {
        targets: ["de", "fr", "pt-BR"],
        books: [{ files: "t/{locale}/home.json", spelling: { "pt-BR": "ptBr" } }],
      },
    ],
    [
      "the source under a name of its own",
      {
        "t/main.json": JSON.stringify({ a: "The boats have left", b: "Where is the crew of it?" }),
        "t/en.json": "{}",
        "t/de.json": JSON.stringify({ a: "Die Boote sind weg", b: "Wo ist die Mannschaft?" }),
        "t/fr.json": JSON.stringify({ a: "Les bateaux sont partis" }),
        "t/es.json": JSON.stringify({ a: "Los barcos se han ido" }),
      },
      {
        source: "en",
        targets: ["de", "es", "fr"],
        books: [{ files: "t/{locale}.json", spelling: { en: "main" } }],
      },
    ],
    [
      "what only stands beside the catalogs",
      {
        "t/main.json": JSON.stringify({ size: "The size of it all", width: "What is the width of it?" }),
        "t/en.json": JSON.stringify({ a: "The boats have left" }),
        "t/de.json": JSON.stringify({ a: "Die Boote sind weg" }),
        "t/fr.json": JSON.stringify({ a: "Les bateaux sont partis" }),
        "t/es.json": JSON.stringify({ a: "Los barcos se han ido" }),
      },
      { source: "en", targets: ["de", "es", "fr"] },
    ],
    [
      "numbers and names in braces",
      {
        "t/en.json": JSON.stringify({ a: "Row {0}", b: "Boat {1}", c: "Pier {page}", d: "Crew {0} of {1}" }),
        "t/de.json": JSON.stringify({
          a: "Zeile {0}",
          b: "Boot {1}",
          c: "Steg {page}",
          d: "Crew {0} von {1}",
        }),
      },
      { targets: ["de"], books: [{ files: "t/{locale}.json" }] },
    ],
    [
      "catalogs of libraries left out",
      {
        "t/en.json": json("One"),
        "t/de.json": json("Eins"),
        "lib/box/LICENSE": "Anyone may use this.",
        "lib/box/lang/en.js": 'box.texts = { open: "Open", shut: "Shut" };\n',
        "lib/box/lang/fr.js": 'box.texts = { open: "Ouvrir", shut: "Fermer" };\n',
      },
      { targets: ["de"], books: [{ files: "t/{locale}.json" }] },
    ],
    [
      "catalogs of tests left out",
      {
        "t/en.json": json("One"),
        "t/de.json": json("Eins"),
        "test/fixtures/t/en.json": json("X"),
        "test/fixtures/t/fr.json": json("Y"),
      },
      { targets: ["de"], books: [{ files: "t/{locale}.json" }] },
    ],
  ])("%s", async (_name, files, config) => {
    expect(await proposed(files)).toMatchObject(config);
  });
});

describe("init finds lookups by the keys of the catalog", () => {
  const catalogs = {
    "t/en.json": JSON.stringify({ home: { title: "One", lead: "Two" }, foot: { note: "Three" } }),
    "t/de.json": JSON.stringify({ home: { title: "Eins", lead: "Zwei" }, foot: { note: "Drei" } }),
  };
  test.each<[string, Record<string, string>, object]>([
    [
      "one name around all texts, which code leaves out",
      {
        "t/en.json": JSON.stringify({
          texts: { home: { title: "One", lead: "Two" }, foot: { note: "Three" } },
        }),
        "t/de.json": JSON.stringify({
          texts: { home: { title: "Eins", lead: "Zwei" }, foot: { note: "Drei" } },
        }),
        "a.ts": 'say("home.title"); say("home.lead"); say("foot.note");\n',
      },
      { root: "texts", lookups: [{ call: "say" }] },
    ],
    [
      "keys in an object, with what makes their function",
      {
        "a.tsx":
          'import { useWords } from "words";\nexport function A() {\n  const { say, locale } = useWords();\n  return [say({ id: "home.title" }), locale];\n}\n',
        "b.tsx":
          'import { useWords } from "words";\nexport function B() {\n  const { say } = useWords();\n  return [say({ id: "home.lead" }), say({ id: "foot.note" })];\n}\n',
      },
      {
        lookups: [{ descriptor: "say", key: "id" }],
        emit: {
          call: 'say({ id: "{key}" }{args})',
          import: 'import { useWords } from "words";',
          setup: "const { say } = useWords();",
        },
      },
    ],
    [
      "no keys of objects that nothing is given, or that are none's argument",
      {
        "a.ts":
          'show([{ label: "home.title" }, { label: "home.lead" }]);\nexport default () => ({ label: "foot.note" });\nconst menu = { label: "home.title" };\nsay("home.title"); say("home.lead"); say("foot.note");\n',
      },
      { lookups: [{ call: "say" }] },
    ],
    [
      "parts of templates that the function of code's calls fills in",
      {
        "a.js": 'say("home.title"); say("home.lead"); say("foot.note");\n',
        "a.html": "{{#x}}<p>{{#say}}home.title{{/say}}</p><b>{{#say}}other.key{{/say}}</b>{{/x}}\n",
      },
      {
        lookups: [{ call: "say" }, { mark: "{{#say}}KEY{{/say}}" }],
        emit: {
          call: 'say("{key}"{args})',
          endings: { ".html": { content: "{{#say}}{key}{{/say}}", attribute: "{{#say}}{key}{{/say}}" } },
        },
      },
    ],
    [
      "what templates alone call is proposed for them, and not for scripts",
      {
        "a.vue":
          "<template><p>{{ $say('home.title') }}{{ $say('home.lead') }}{{ $say('foot.note') }}</p></template>\n",
        "b.js": "export const late = 'Late today';\n",
        "c.js": "export const key = 'home.title';\n",
      },
      { emit: { endings: { ".vue": { call: "$say('{key}'{args})" } } } },
    ],
    [
      "values of templates that have parts, which are no braces of another syntax",
      {
        "t/en.json": JSON.stringify({
          home: { title: "{{#late}}Late{{/late}}{{^late}}On time{{/late}}", lead: "At {{quay}}" },
          foot: { note: "Three" },
        }),
        "a.js": 'say("home.title"); say("home.lead"); say("foot.note");\n',
      },
      { syntax: "double-brace" },
    ],
    [
      "members of an array, as the language and its templates write them",
      {
        "t/en.json": JSON.stringify({ title: "One", lead: "Two", note: "Three", quay: "Four" }),
        "t/de.json": JSON.stringify({ title: "Eins", lead: "Zwei", note: "Drei", quay: "Vier" }),
        "a.php": "<?php\necho $texts['title'];\necho $texts['lead'];\necho $texts['note'];\n",
        "a.tpl": "{if $x}<p>{$texts.title}</p>{/if}<b>{$texts.lead}</b><i>{$texts.quay}</i>\n",
      },
      {
        lookups: [{ member: "texts" }],
        emit: {
          endings: {
            ".php": { call: "$texts['{key}']" },
            ".tpl": { content: "{$texts.{key}}", attribute: "{$texts.{key}}" },
          },
        },
      },
    ],
    [
      "lookups that work while a file is loaded, by the name of what is brought in",
      {
        "a.py":
          'from words import find_lazy as say\n\nT = say("home.title")\nU = say("home.lead")\nV = say("foot.note")\n',
      },
      {
        lookups: [{ call: "say" }],
        emit: {
          endings: {
            ".py": {
              call: 'say("{key}"{args})',
              import: "from words import find_lazy as say",
              atLoad: true,
            },
          },
        },
      },
    ],
    [
      "calls as templates show them whose language does not say how",
      {
        "a.twig":
          "{% if x %}<p>{{- say('home.title') -}}</p>{% endif %}<b>{{- say('home.lead') -}}</b><i>{{- say('foot.note') -}}</i>\n",
      },
      {
        lookups: [{ call: "say" }],
        emit: {
          endings: {
            ".twig": { content: "{{- say('{key}') -}}", attribute: "{{- say('{key}') -}}" },
          },
        },
      },
    ],
    [
      "calls of few templates, each alone in its marks, with values by their names",
      {
        "a.html":
          "{% if x %}<p>{{ say('home.title') }}</p>{% endif %}<b>{{ say('home.lead', name=name) }}</b>{{ say('foot.note') }}\n",
      },
      {
        emit: {
          endings: {
            ".html": {
              call: "say('{key}'{args})",
              content: "{{ say('{key}'{args}) }}",
              attribute: "{{ say('{key}'{args}) }}",
            },
          },
        },
      },
    ],
    [
      "tags of templates that take values",
      {
        "a.html":
          '{% load words %}<p>{% say "home.title" %}</p><b>{% say "home.lead" name=boat.name %}</b>{% say "foot.note" %}\n',
      },
      {
        emit: {
          endings: {
            ".html": {
              content: '{% say "{key}"{args} %}',
              attribute: '{% say "{key}"{args} %}',
              import: "{% load words %}",
            },
          },
        },
      },
    ],
    [
      "another lookup for what is evaluated while a file is loaded",
      {
        "a.py":
          'from words import say, say_lazy\n\nT = say_lazy("home.title")\nU = say_lazy("home.lead")\n\n\ndef f():\n    show(say("foot.note"))\n',
      },
      {
        emit: {
          endings: {
            ".py": {
              call: 'say("{key}"{args})',
              import: "from words import say",
              atLoad: { call: 'say_lazy("{key}"{args})', import: "from words import say_lazy" },
            },
          },
        },
      },
    ],
    [
      "values that a function of Python fills in",
      {
        "t/en.json": '{ "home": { "title": "Open {boat}", "lead": "Shut" }, "foot": { "note": "Note" } }',
        "words.py": "def say(key, **values):\n    return texts[key].format(**values)\n",
        "a.html":
          "{% if x %}{{ say('home.title', boat=1) }}{{ say('home.lead') }}{{ say('foot.note') }}{% endif %}\n",
      },
      { syntax: "brace-field" },
    ],
    [
      "values that a function of a script puts in place of names",
      {
        "t/en.json": '{ "home": { "title": "Open {boat}", "lead": "Shut" }, "foot": { "note": "Note" } }',
        "words.js":
          "export function say(key, values = {}) {\n  return texts[key].replace(/\\{(\\w+)\\}/g, (_, name) => values[name]);\n}\n",
        "a.js": 'show(say("home.title", { boat: 1 }), say("home.lead"), say("foot.note"));\n',
      },
      { syntax: { argument: "{{name}}" } },
    ],
    [
      "values that an exported function puts in place of names",
      {
        "t/en.json": '{ "home": { "title": "Open {boat}", "lead": "Shut" }, "foot": { "note": "Note" } }',
        "words.js":
          "exports.say = function (key, values) {\n  return texts[key].replace('{' + name + '}', values[name]);\n};\n",
        "a.js": 'show(say("home.title", { boat: 1 }), say("home.lead"), say("foot.note"));\n',
      },
      { syntax: { argument: "{{name}}" } },
    ],
    [
      "the lookup that chooses the forms of plurals by a number, where the usual one asks for none",
      {
        "t/en.json":
          '{ "home": { "title": "Home", "boats": "One boat|:count boats" }, "foot": { "note": "Note" } }',
        "a.php": "<?php\nshow(say('home.title'), say('foot.note'), choose('home.boats', count($boats)));\n",
      },
      { plurals: "bar", emit: { call: "say('{key}'{args})", plural: "choose('{key}', {count})" } },
    ],
    [
      "such a lookup with values behind the number",
      {
        "t/en.json":
          '{ "home": { "title": "Home", "boats": "One boat of :name|:count boats of :name" }, "foot": { "note": "Note" } }',
        "a.php":
          "<?php\nshow(say('home.title'), say('foot.note'), choose('home.boats', $n, ['name' => $name]));\n",
      },
      { emit: { call: "say('{key}'{args})", plural: "choose('{key}', {count}{args})" } },
    ],
    [
      "such a lookup that is given the number by its name",
      {
        "t/en.json":
          '{ "home": { "title": "Home", "boats_one": "{{count}} boat", "boats_other": "{{count}} boats" }, "foot": { "note": "Note" } }',
        "a.js": 'show(say("home.title"), say("foot.note"), choose("home.boats", { count: n }));\n',
      },
      { plurals: "suffix", emit: { call: 'say("{key}"{args})', plural: 'choose("{key}"{args})' } },
    ],
    [
      "such a lookup that no pattern writes",
      {
        "t/en.json":
          '{ "home": { "title": "Home", "boats": "One boat|:count boats" }, "foot": { "note": "Note" } }',
        "a.php":
          "<?php\nshow(say('home.title'), say('foot.note'), choose('home.boats', ['place' => 1], $n));\n",
      },
      { emit: { call: "say('{key}'{args})", plural: false } },
    ],
    [
      "the usual lookup for plurals too, where it asks for some",
      {
        "t/en.json":
          '{ "home": { "title": "Home", "boats": "One boat|:count boats" }, "foot": { "note": "Note" } }',
        "a.php":
          "<?php\nshow(say('home.title'), say('foot.note'), choose('home.boats', $n), say('home.boats', ['count' => $n]));\n",
      },
      { emit: { call: "say('{key}'{args})" } },
    ],
    [
      "values in one list in their order",
      {
        "t/en.json": '{ "home": { "title": "Home", "lead": "%s of %s" }, "foot": { "note": "Note" } }',
        "a.php":
          "<?php\nshow(say( 'home.title' ), say('foot.note'), say('home.lead', array( $name, $owner )));\n",
      },
      {
        syntax: "printf",
        emit: { call: "say('{key}')", withValues: { call: "say('{key}', array( {values} ))" } },
      },
    ],
    [
      "default texts among the values",
      {
        "src/a.js":
          'show(say("home.title", { _: "Home of boats" }), say("home.lead", { name, _: "Lead" }), say("foot.note"));\n',
      },
      { lookups: [{ call: "say", default: "_" }], emit: { call: 'say("{key}"{args})' } },
    ],
    [
      "a lookup for plurals that comes with the usual one",
      {
        "t/en.json":
          '{ "home": { "title": "Home", "lead": "Hello {name}", "boats": "one boat | {count} boats" }, "foot": { "note": "Note" } }',
        "src/texts.ts":
          "export function useTexts() {\n  const say = (key, values) => texts[key].replace(/\\{(\\w+)\\}/g, (_, name) => values[name]);\n  return { say, sayMany };\n}\n",
        "src/A.vue":
          '<script setup>\nimport { useTexts } from "./texts";\nconst { say, sayMany } = useTexts();\n</script>\n\n<template><h1>{{ say("home.title") }}</h1><p>{{ say("home.lead", { name }) }} {{ sayMany("home.boats", n) }} {{ say("foot.note") }}</p></template>\n',
      },
      {
        syntax: { argument: "{{name}}" },
        plurals: "bar",
        emit: {
          call: 'say("{key}"{args})',
          plural: 'sayMany("{key}", {count})',
          import: 'import { useTexts } from "{to:src/texts}";',
          setup: "const { say, sayMany } = useTexts();",
        },
      },
    ],
    [
      "keys with a sign of their own between their parts",
      { "src/a.ts": 'show(say("home|title"), say("home|lead"), say("foot|note"));\n' },
      { lookups: [{ call: "say" }], naming: { separator: "|" } },
    ],
    [
      "what scripts of components alone make for themselves",
      {
        "src/A.vue":
          '<script setup>\nimport { useTexts } from "./texts";\nconst { say } = useTexts();\n</script>\n\n<template><h1>{{ say("home.title") }}</h1><p>{{ say("home.lead") }} {{ say("foot.note") }}</p></template>\n',
      },
      {
        lookups: [{ maker: "useTexts", gives: "say" }],
        emit: {
          call: 'say("{key}"{args})',
          import: 'import { useTexts } from "{to:src/texts}";',
          setup: "const { say } = useTexts();",
        },
      },
    ],
    [
      "names of values with marks around them",
      {
        "t/en.json":
          '{ "home": { "title": "Open %boat%", "lead": "Shut %boat% of %owner%" }, "foot": { "note": "Note" } }',
        "src/a.php":
          "<?php\nshow(say('home.title', ['%boat%' => 1]), say('home.lead', ['%boat%' => 1, '%owner%' => 2]), say('foot.note'));\n",
      },
      { syntax: { argument: "%{name}%" }, emit: { call: "say('{key}'{args})", names: "%{name}%" } },
    ],
    [
      "a store of components, by what brings its variable in",
      {
        "src/A.svelte":
          '<script>\n  import { say } from "./texts";\n</script>\n\n<h1>{$say("home.title")}</h1><p>{$say("home.lead")} {$say("foot.note")}</p>\n',
      },
      {
        lookups: [{ call: "$say" }],
        emit: {
          endings: {
            ".svelte": { call: '$say("{key}"{args})', import: 'import { say } from "{to:src/texts}";' },
          },
        },
      },
    ],
    [
      "what all calls get behind the key, with a place for values",
      {
        "src/A.java":
          'class A { void f(Locale locale) { show(texts.get("home.title", null, locale), texts.get("home.lead", new Object[]{name}, locale), texts.get("foot.note", null, locale)); } }\n',
      },
      {
        lookups: [{ call: "texts.get" }],
        emit: {
          call: 'texts.get("{key}", null, locale)',
          withValues: { call: 'texts.get("{key}", new Object[]{{values}}, locale)' },
        },
      },
    ],
    [
      "what all calls get behind values that the language names itself",
      {
        "src/a.php":
          "<?php\nshow(say('home.title', [], 'web'), say('home.lead', ['name' => $name], 'web'), say('foot.note', [], 'web'));\n",
      },
      {
        emit: {
          call: "say('{key}', [], 'web')",
          withValues: { call: "say('{key}', {values}, 'web')" },
        },
      },
    ],
    [
      "what all calls get behind the key, the values without names",
      {
        "src/a.php":
          "<?php\nshow(say('home.title', [], 'web'), say('home.lead', [$name], 'web'), say('foot.note', [], 'web'));\n",
      },
      { emit: { call: "say('{key}', [], 'web')" } },
    ],
    [
      "what all calls get right behind the key",
      {
        "src/a.py":
          'def f(locale):\n    show(say("home.title", locale), say("home.lead", locale), say("foot.note", locale))\n',
      },
      {
        lookups: [{ call: "say" }],
        emit: { call: 'say("{key}", locale)' },
      },
    ],
    [
      "what some calls get behind the key alone",
      {
        "src/a.py":
          'def f(name):\n    show(say("home.title"), say("home.lead", name=name), say("foot.note"))\n',
      },
      {
        lookups: [{ call: "say" }],
        emit: { call: 'say("{key}"{args})' },
      },
    ],
    [
      "a class of C#, with its namespace and not any other line",
      {
        "src/Texts.cs": "namespace Desk.Util;\npublic static class Texts { }\n",
        "src/A.cs":
          'using System;\nusing Desk.Util;\nnamespace Desk;\nclass A { void F() { Show(Texts.Get("home.title"), Texts.Get("home.lead"), Texts.Get("foot.note")); } }\n',
      },
      {
        lookups: [{ call: "Texts.Get" }],
        emit: { endings: { ".cs": { call: 'Texts.Get("{key}"{args})', import: "using Desk.Util;" } } },
      },
    ],
    [
      "tags of templates",
      {
        "src/a.js":
          'import { say } from "./texts.js";\nshow(say`home.title`, say`home.lead`, say`foot.note`);\n',
      },
      {
        lookups: [{ call: "say" }],
        emit: { call: "say`{key}`", import: 'import { say } from "{to:src/texts.js}";' },
      },
    ],
    [
      "numbers in braces that programs replace, with apostrophes that quote nothing",
      Object.fromEntries(
        ["en", "fr"].map((tag) => [
          `t/${tag}.json`,
          JSON.stringify({
            home: {
              title: "It's {0}",
              lead: "'{0}' isn't here",
              a: "{0}'s",
              b: "Can't load {0}",
              c: "'{1}' of {0}",
            },
            foot: { note: "{0} boats" },
          }),
        ]),
      ),
      { syntax: { argument: "{{0}}" } },
    ],
    [
      "formats of Java, whose apostrophes are doubled",
      Object.fromEntries(
        ["en", "fr"].map((tag) => [
          `t/${tag}.json`,
          JSON.stringify({
            home: {
              title: "It''s {0}",
              lead: "''{0}'' isn''t here",
              a: "{0}''s",
              b: "Can''t load {0}",
              c: "'{1}'",
            },
            foot: { note: "{0} boats" },
          }),
        ]),
      ),
      { syntax: "java" },
    ],
    [
      "attributes that name several keys",
      {
        "src/a.html":
          '<p data-say="home.title"></p><a data-say="[title]home.lead;[alt]foot.note"></a><b data-say="[alt]home.title;home.lead"></b>',
      },
      { lookups: [{ attribute: "data-say" }] },
    ],
    [
      "a function that each file makes for a group",
      {
        "src/a.ts":
          'import { textsOf } from "./texts";\nexport const f = () => {\n  const say = textsOf("home");\n  return say("title") + say("lead");\n};\n',
      },
      { lookups: [{ maker: "textsOf", prefix: 0 }] },
    ],
    [
      "a member of what a function gives, with its set-up line",
      {
        "src/a.tsx":
          'import { useTexts } from "./texts";\nexport const A = () => {\n  const { t: say } = useTexts();\n  return <p title={say("home.lead")}>{say("home.title")}</p>;\n};\n',
      },
      {
        lookups: [{ maker: "useTexts", gives: "t" }],
        emit: {
          call: 'say("{key}"{args})',
          import: 'import { useTexts } from "{to:src/texts}";',
          setup: "const { t: say } = useTexts();",
        },
      },
    ],
    [
      "a member of what a function gives, with the text and the values that others take behind the key",
      {
        "src/a.tsx":
          'import { useTexts } from "./texts";\nexport const A = () => {\n  const { say } = useTexts();\n  return <p title={say("home.lead", "Some of it")} lang={say("home.lead", "Some of it")}>{say("home.title", "All of it")} {say("foot.note", "Prices")}</p>;\n};\n',
        "src/b.ts":
          'export const f = (say) => show(say("home.title", "All of it"), say("home.lead", "Some of it"), say("foot.note", "Prices in {x}", { x: unit }));\n',
      },
      {
        lookups: [
          { maker: "useTexts", gives: "say" },
          { call: "say", default: 1 },
        ],
        emit: {
          call: 'say("{key}", "{text}"{args})',
          import: 'import { useTexts } from "{to:src/texts}";',
          setup: "const { say } = useTexts();",
        },
      },
    ],
    [
      "how each kind of file writes lookups, however many another has",
      {
        "a/list.rb": `class A\n  def f\n    show ${'say("home.title"), say("home.lead"), say("foot.note"), '.repeat(20)}1\n  end\nend\n`,
        "src/page.erb":
          '<h1><%= say("home.title") %></h1><p><%= say("home.lead") %> <%= say("foot.note") %></p>\n',
      },
      {
        emit: {
          endings: {
            ".erb": expect.objectContaining({ call: 'say("{key}")' }),
            ".rb": { call: 'say("{key}")' },
          },
        },
      },
    ],
    [
      "keys as symbols, where most of Ruby's code has them so",
      {
        "a/list.rb":
          'class A\n  def f\n    say :home_title\n    say :home_lead, x: 1\n    say "foot_note"\n  end\nend\n',
        "src/page.erb": "<h1><%= say(:home_title) %></h1><p><%= say :home_lead %></p>\n",
        "src/b.erb": '<p><%= say "foot_note" %><%= say "home_lead" %></p>\n'.repeat(3),
        "en.json":
          '{ "home_title": "All of it", "home_lead": "Some of it", "foot_note": "Prices in shells" }',
      },
      {
        emit: {
          endings: {
            ".erb": expect.objectContaining({ call: expect.stringContaining('say("{key}"') }),
            ".rb": { call: expect.stringMatching(/^say\(:(["'])\{key\}\1\{args\}\)$/) },
          },
        },
      },
    ],
    [
      "keys as symbols alone",
      {
        "a/list.rb":
          "class A\n  def f\n    say :home_title\n    say(:home_lead, x: 1)\n    say :foot_note\n    say :foot_note\n".concat(
            "    say :foot_note\n".repeat(20),
            "  end\nend\n",
          ),
        "en.json":
          '{ "home_title": "All of it", "home_lead": "Some of it", "foot_note": "Prices in shells" }',
      },
      { emit: { call: "say(:'{key}'{args})" } },
    ],
    [
      "declarations by a property",
      {
        "src/a.ts":
          'show(text({ id: "home.title", text: "All of it" }), text({ id: "home.lead", text: "Some of it" }), text({ id: "foot.note", text: "Prices in shells" }));\n',
      },
      { lookups: [{ descriptor: "text", key: "id", default: "text" }] },
    ],
    [
      "the import under another name, and the place of default texts",
      {
        "src/a.ts":
          'import say, { x } from "./say";\nshow(say("home.title", "All of it"), say("home.lead", "Some of it"));\n',
      },
      {
        lookups: [{ call: "say", default: 1 }],
        emit: { call: 'say("{key}", "{text}"{args})', import: 'import say from "{to:src/say}";' },
      },
    ],
    [
      "the separators that code has",
      { "src/a.ts": 'show(say("home/title"), say("home/lead"), say("foot/note"));\n' },
      { lookups: [{ call: "say" }], naming: { separator: "/" } },
    ],
    [
      "attributes of plain pages",
      {
        "src/a.html":
          '<p data-text="home.title"></p><p data-text="home.lead"></p><b data-text="foot.note"></b>',
      },
      { lookups: [{ attribute: "data-text" }] },
    ],
    [
      "no calls that take such a word by chance",
      {
        "t/en.json": JSON.stringify({
          title: "T",
          name: "N",
          open: "O",
          close: "C",
          save: "S",
          edit: "E",
          total: "T",
          more: "M",
          less: "L",
          all: "A",
          none: "N",
        }),
        "t/de.json": JSON.stringify({ title: "T" }),
        "src/a.ts":
          'list.add("open"); list.add("hidden"); on("close", f); emit("save"); get("name"); get("id"); say("title"); say("total"); say("more"); say("less"); say("all"); say("none");\n',
      },
      { lookups: [{ call: "say" }] },
    ],
    [
      "the namespace that code leaves out",
      {
        "t/en.json": "{}",
        "l/en/editor.json": JSON.stringify({ bar: { save: "Save", load: "Load", undo: "Undo" } }),
        "l/en/common.json": JSON.stringify({ word: { yes: "Yes", no: "No" } }),
        "l/de/editor.json": JSON.stringify({ bar: { save: "Sichern" } }),
        "l/de/common.json": JSON.stringify({ word: { yes: "Ja" } }),
        "src/a.ts": 'show(say("bar.save"), say("bar.load"), say("bar.undo"), say("common:word.yes"));\n',
      },
      {
        files: "l/{locale}/{namespace}.json",
        lookups: [{ call: "say" }],
        naming: { namespace: ":", home: "editor" },
      },
    ],
  ])("%s", async (_name, files, book) => {
    const config = await proposed({ ...catalogs, ...files });
    const books = config["books"] as { lookups?: unknown }[];
    expect(books).toContainEqual(expect.objectContaining(book));
  });

  test("a call that is named as lookups are is one, whatever it asks of other programs", async () => {
    const words = (start: string, count: number) =>
      Array.from({ length: count }, (_, at) => `${start}${String.fromCharCode(97 + at)}`);
    const catalog = JSON.stringify(Object.fromEntries(words("boat", 20).map((one) => [one, `All ${one}`])));
    const calls = (call: string) =>
      [...words("boat", 10), ...words("harbor", 24)].map((one) => `$this->${call}('${one}');`).join("\n");
    const files = { "texts/en.json": catalog, "texts/de.json": catalog };
    expect(await proposed({ ...files, "a.php": `<?php\n${calls("gettext")}` })).toMatchObject({
      books: [{ lookups: [{ call: "this.gettext" }] }],
    });
    expect(await proposed({ ...files, "a.php": `<?php\n${calls("span")}` })).toMatchObject({
      books: [{ lookups: [{ call: "t" }] }],
    });
  });

  test("templates that nothing reads are said", async () => {
    const result = await planInit(
      memoryFiles({
        "a/page.pug": "p Boats",
        "a/quay.pug": "p Quay",
        "b/page.xaml": "<A/>",
        "b/page.erb": "<p>Boats</p>",
      }),
    );
    expect(result.ok && result.plan.grounds).toContain(
      "Templates that are not read: 2 files with .pug, 1 file with .xaml. Texts in them are not found.",
    );
  });

  test("a small book is asked by the lookup of a larger one, whatever else that asks for", async () => {
    const words = (start: string, count: number) =>
      Array.from({ length: count }, (_, at) => `${start}.word${String.fromCharCode(65 + at)}`);
    const catalog = (list: readonly string[]) =>
      JSON.stringify(Object.fromEntries(list.map((one) => [one, `All ${one}`])));
    const [desk, mail] = [words("desk", 24), words("mail", 5)];
    const page = (list: readonly string[]) => list.map((one) => `<p data-say="${one}"></p>`).join("\n");
    const config = await proposed({
      "desk/texts/en.json": catalog(desk),
      "desk/texts/de.json": catalog(desk),
      "mail/words/en.json": catalog(mail),
      "mail/words/de.json": catalog(mail),
      "desk/page.html": page([...desk, ...desk.slice(0, 9), ...mail.slice(0, 4)]),
    });
    expect(config).toMatchObject({
      books: [
        { files: "desk/texts/{locale}.json", lookups: [{ attribute: "data-say" }] },
        { files: "mail/words/{locale}.json", lookups: [{ attribute: "data-say" }], code: ["desk/**/*.html"] },
      ],
    });
  });

  test("keys in braces in annotations are found, and texts there are written so", async () => {
    const config = await proposed({
      "texts/messages.properties": "order.customer=A customer is needed\norder.day=A day is needed\n",
      "texts/messages_de.properties": "order.customer=Ein Kunde fehlt\norder.day=Ein Tag fehlt\n",
      "app/Order.java":
        'class Order {\n  @NotNull(message = "{order.customer}") String customer;\n  @NotNull(message = "{order.day}") String day;\n}\n',
    });
    expect(config).toMatchObject({
      books: [{ lookups: [{ binding: "{KEY}" }], emit: { annotation: "{{key}}" } }],
    });
  });

  test("files of a folder whose names code leaves out are one book of keys without them", async () => {
    const words = Array.from({ length: 30 }, (_, at) => `word${String.fromCharCode(97 + (at % 26))}${at}`);
    const catalog = (list: readonly string[], mark: string) =>
      `<?php\n$labels = [];\n${list.map((word) => `$labels['${word}'] = '${mark} ${word} $count';\n`).join("")}`;
    const files = Object.fromEntries(
      ["en_US", "de_DE", "fr_FR", "kab"].flatMap((locale) => [
        [`app/localization/${locale}/labels.inc`, catalog(words.slice(0, 15), locale)],
        [`app/localization/${locale}/notes.inc`, catalog(words.slice(15), locale)],
      ]),
    );
    const code = `<?php\n${words.map((word) => `echo $desk->say('${word}');\n`).join("")}`;
    expect(await proposed({ ...files, "app/page.php": code })).toMatchObject({
      source: "en-US",
      targets: ["de-DE", "fr-FR", "kab"],
      books: [
        {
          files: "app/localization/{locale}/{name}.inc",
          syntax: { argument: "${name}" },
          lookups: [{ call: "desk.say" }],
        },
      ],
    });
    const named = code.replace(/'(word\w+)'/g, (_, word: string) =>
      words.indexOf(word) < 15 ? `'labels.${word}'` : `'notes.${word}'`,
    );
    expect(await proposed({ ...files, "app/page.php": named })).toMatchObject({
      books: [{ files: "app/localization/{locale}/{namespace}.inc" }],
    });
  });

  const calls = (call: (key: string) => string) =>
    Array.from(
      { length: 24 },
      (_, at) => `  show(${call(["home.title", "home.lead", "foot.note"][at % 3] ?? "")});\n`,
    ).join("");

  test("what files of one language call is not proposed for those of another", async () => {
    const asks = (call: string) => `<?php\n${Array.from({ length: 3 }, () => `${call};`).join("\n")}\n`;
    const files = { ...catalogs, "src/a.php": asks("say('home.title')") };
    const emit = async (more: Readonly<Record<string, string>>) => {
      const [book] = (await proposed({ ...files, ...more }))["books"] as { emit?: unknown }[];
      return book?.emit;
    };
    const call = "say('{key}'{args})";
    expect(await emit({})).toEqual({ call });
    expect(await emit({ "src/b.js": 'alert("The boat is late");\n' })).toEqual({
      endings: { ".php": { call } },
    });
  });

  test("arrays of PHP beside others are catalogs, and names that are keys by chance are no lookups", async () => {
    const words = Array.from({ length: 40 }, (_, at) => `Boat${String.fromCharCode(97 + (at % 26))}${at}`);
    const catalog = (tag: string) =>
      `<?php\n$texts = array(\n${words.map((word) => `  '${word}' => '${word} ${tag}',`).join("\n")}\n);\n` +
      "$more = array(1 => 'boat', 2 => 'boats');\nfunction pick($all, $n) { return $all[$n]; }\n";
    const config = await proposed({
      "lang/en.php": catalog("one"),
      "lang/de.php": catalog("eins"),
      "src/a.php": `<?php\n${words.map((word) => `say('${word}');`).join("\n")}\n${words
        .slice(0, 6)
        .map((word) => `mayEdit('${word}');`)
        .join("\n")}\n`,
    });
    expect(config).toMatchObject({ source: "en", targets: ["de"] });
    expect(config["books"]).toMatchObject([{ files: "lang/{locale}.php", lookups: [{ call: "say" }] }]);
  });

  test("calls that never get values are proposed without room for them", async () => {
    const emitted = async (code: string) =>
      (await proposed({ ...catalogs, "src/a.ts": code })) as { books: readonly [{ emit: { call: string } }] };
    const plain = calls((key) => `say("${key}")`);
    expect((await emitted(plain)).books[0].emit.call).toBe('say("{key}")');
    expect((await emitted(`${plain}show(say("home.title", { n }));\n`)).books[0].emit.call).toBe(
      'say("{key}"{args})',
    );
  });

  test("what all of a program can ask is proposed before what is asked of one object", async () => {
    const { books } = (await proposed({
      ...catalogs,
      "src/a.js": `class A { f() {\n${calls((key) => `this.say("${key}")`)}} }\n`,
      "src/b.js": `show(desk.say("home.title"));\nshow(desk.say("home.lead"));\nshow(desk.say("foot.note"));\n`,
    })) as { books: readonly [{ emit: { call: string } }] };
    expect(books[0].emit.call).toMatch(/^desk\.say/);
  });

  test("what is proposed is held against the catalogs", async () => {
    const result = await planInit(
      memoryFiles({
        ...catalogs,
        "src/a.ts": 'show(say("home.title"), say("home.lead"), say("home.tilte"));\n',
      }),
    );
    expect(result.ok && result.plan.grounds.join("\n")).toContain(
      'Held against the catalogs: 2 lookups find their keys, 1 does not ("home.tilte" in src/a.ts); 1 of 3 keys is not looked up.',
    );
  });
});

test("init sees filters that look texts up by themselves, and writes the same", async () => {
  const pages = Object.fromEntries(
    Array.from({ length: 6 }, (_, at) => [
      `web/p${at}.twig`,
      `<p>{{ 'Boat number ${at} is late'|trans }}</p>\n`,
    ]),
  );
  const written = "{{ '{key}' | trans }}";
  expect(await proposed(pages)).toMatchObject({
    books: [
      {
        lookups: [{ filter: "trans" }],
        emit: { endings: { ".twig": { content: written, attribute: written } } },
        naming: { pattern: "{text}", shape: "flat" },
      },
    ],
  });
});

test("calls that are named as lookups are and ask for keys are lookups without any catalog", async () => {
  const page = (keys: readonly string[]) =>
    `<script>export let i18n;</script>${keys.map((key) => `<p>{i18n("${key}")}</p>`).join("")}`;
  const result = await proposed({ "src/a.svelte": page(["desk.title", "desk.lead", "desk.note"]) });
  expect(result).toMatchObject({ books: [{ lookups: [{ call: "i18n" }] }] });
  const few = await proposed({ "src/a.svelte": page(["desk.title", "desk.title"]) });
  expect(few).toMatchObject({ books: [{ lookups: [{ call: "t" }] }] });
});

test("the source is the language whose letters the texts in the code have, where these tell", async () => {
  const page = (texts: readonly string[]) => texts.map((text) => `<p>${text}</p>`).join("\n");
  const han = Array.from(
    { length: 40 },
    (_, at) => `今天的船${"大小上下左右前后中外".charAt(at % 10)}第${at}`,
  );
  const kana = han.map((text, at) => (at % 2 ? text : `${text}です`));
  const source = async (files: Record<string, string>) => (await proposed(files))["source"];
  expect(await source({ "src/a.vue": `<template><div>${page(han)}</div></template>` })).toBe("zh-CN");
  expect(await source({ "src/a.vue": `<template><div>${page(kana)}</div></template>` })).toBe("ja");
  const english = Array.from({ length: 60 }, (_, at) => `The boat ${at} is late today`);
  expect(await source({ "src/a.vue": `<template><div>${page([...han, ...english])}</div></template>` })).toBe(
    "en",
  );
  const catalogs = { "t/en.json": '{"a":"Boat"}', "t/zh-chs.json": '{"a":"船"}' };
  const files = { ...catalogs, "src/a.vue": `<template><div>{{ $t('a') }}${page(han)}</div></template>` };
  expect(await proposed(files)).toMatchObject({
    source: "zh-Hans",
    targets: ["en"],
    books: [{ spelling: { "zh-Hans": "zh-chs" } }],
  });
  // Where the texts are in catalogs, what the code has left in such letters are names.
  const texts = Object.fromEntries(Array.from({ length: 20 }, (_, at) => [`key${at}`, "Boat"]));
  const whole = { "t/en.json": JSON.stringify(texts), "t/zh.json": JSON.stringify(texts) };
  expect(
    await source({ ...whole, "src/a.vue": `<template><div>{{ $t('key1') }}${page(han)}</div></template>` }),
  ).toBe("en");
});

test("helpers that are given texts look them up, and are written as templates show them", async () => {
  const texts = ["All boats", "Boats of today", "The boat is late", "Sail with us", "Leave the quay"];
  const helpers = texts.map((text) => `<p>{{t '${text}'}}</p>`).join("\n");
  const result = await proposed({ "views/a.hbs": `${helpers}\n<p>{{t 'Boat {name}' name=boat}}</p>\n` });
  expect(result).toMatchObject({
    books: [
      {
        lookups: [{ call: "t" }],
        naming: { pattern: "{text}" },
        emit: { endings: { ".hbs": { content: "{{t '{key}'{args}}}" } } },
      },
    ],
  });
});

test("calls that are named as lookups are bring their texts, and what only takes note of an object is none", async () => {
  const files = {
    "src/a.ts":
      'import { nls } from "x";\ncolors.register({ id: "desk.red", description: "Color of the late boats" });\ncolors.register({ id: "desk.blue", description: "Color of all boats" });\nshow(nls.localize("desk/title", "All boats"), nls.localize("desk/lead", "Boats of {0}", day));\nalert("The boat is late");\n',
  };
  const result = await proposed(files);
  expect(result).toMatchObject({
    books: [
      {
        lookups: [{ call: "nls.localize", default: 1 }],
        emit: { call: 'nls.localize("{key}", "{text}"{args})' },
      },
    ],
  });
});

test("where none of many texts has a value, the program is not taken to fill any", async () => {
  const texts = (count: number, last = "Boat") =>
    JSON.stringify(
      Object.fromEntries(
        Array.from({ length: count }, (_, at) => [`boat${at}`, at === 0 ? last : `Boat ${at}`]),
      ),
    );
  const syntaxOf = async (count: number, last?: string) => {
    const { books } = (await proposed({
      "t/en.json": texts(count, last),
      "t/de.json": texts(count, last),
    })) as {
      books: { syntax?: string }[];
    };
    return books[0]?.syntax;
  };
  expect(await syntaxOf(300)).toBe("plain");
  expect(await syntaxOf(300, "Boat {name}")).toBeUndefined();
  expect(await syntaxOf(200)).toBeUndefined();
});

describe("files with a locale around their entries", () => {
  const rooted = (name: string, text: string) =>
    `en:\n  ${name}:\n    title: ${text}\n    lead: Some of it\n`;
  const files = {
    "texts/locales/en.yml": rooted("home", "All boats"),
    "texts/locales/mails.yml": rooted("mails", "All mails"),
    "texts/locales/list_ps.yml": rooted("list", "All lists"),
    "src/a.rb":
      'class A\n  def f\n    say("home.title")\n    say("mails.title")\n    say("list.lead")\n  end\nend\n',
  };

  test("are one book with those that are called for their locale", async () => {
    const { books } = (await proposed(files)) as { books: object[] };
    expect(books).toEqual([
      expect.objectContaining({
        files: "texts/locales/{name}.yml",
        root: "{locale}",
        lookups: [{ call: "say" }],
      }),
    ]);
  });

  test("are books of their own where none is called so", async () => {
    const mails = rooted("mails", "All").replace("en:", "root:");
    const others = Object.fromEntries(Object.entries(files).filter(([file]) => !file.endsWith("/en.yml")));
    const { books } = (await proposed({ ...others, "texts/locales/mails.yml": mails })) as {
      books: { files: string }[];
    };
    expect(books.map(({ files: pattern }) => pattern)).not.toContain("texts/locales/{name}.yml");
  });

  test("have no plurals in bars where several lines show commands", async () => {
    const help = "|-\n      late boats | sort boats\n\n      late boats | list boats";
    const texts = rooted("home", "All boats").replace("Some of it", help);
    const { books } = (await proposed({ ...files, "texts/locales/en.yml": texts })) as { books: object[] };
    expect(books).toEqual([expect.not.objectContaining({ plurals: "bar" })]);
  });
});

describe("texts in a member of objects", () => {
  const texts = (locale: string) =>
    JSON.stringify({
      ...Object.fromEntries(
        ["ferry", "quay", "tide_low", "boat_late", "crew"].map((key) => [
          key,
          { message: `${key} in ${locale}`, description: "What the boats are called, for all of you" },
        ]),
      ),
      many: { message: "$COUNT$ boats", placeholders: { count: { content: "$1", example: "3" } } },
    });
  const files = {
    "app/_locales/en/texts.json": texts("en"),
    "app/_locales/de/texts.json": texts("de"),
    "app/_locales/en/table.json": '{ "first": "First", "last": "Last" }',
    "app/_locales/de/table.json": '{ "first": "Erste", "last": "Letzte" }',
    "app/manifest.json": '{ "name": "__MSG_crew__" }',
    "app/a.html": '<p title="__MSG_ferry__: __MSG_tide_low__">__MSG_quay__</p>\n',
    "app/a.js":
      'show(i18n.getMessage("boat_late"), i18n.getMessage("many", [3]), i18n.getMessage("@@ui_locale"));\n',
  };

  test("are found, by themselves where other files stand beside them, with their marks in pages", async () => {
    const { books } = (await proposed(files)) as { books: object[] };
    expect(books).toHaveLength(2);
    expect(books).toContainEqual(
      expect.objectContaining({
        files: "app/_locales/{locale}/texts.json",
        leaf: "message",
        lookups: [{ call: "i18n.getMessage" }, { mark: "__MSG_KEY__" }],
        emit: {
          call: 'i18n.getMessage("{key}")',
          withValues: { call: 'i18n.getMessage("{key}", [{values}])' },
          endings: { ".html": { content: "__MSG_{key}__", attribute: "__MSG_{key}__" } },
        },
      }),
    );
    expect(books).toContainEqual(expect.not.objectContaining({ leaf: "message" }));
  });

  test("are looked up where code, pages and what describes the program have them", async () => {
    const result = await planInit(memoryFiles(files));
    if (!result.ok) throw new Error(result.file);
    const opened = openProject(
      memoryFiles({ ...files, "fond.config.json": result.plan.changes[0]?.after ?? "" }),
    );
    if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
    const found = await lintProject(opened.project);
    expect(found.filter(({ rule }) => /^key\/(?:un|missing|extra)/.test(rule))).toEqual([]);
  });

  test("are none where some entries have no such member, or few have", async () => {
    const some = { ...files, "app/_locales/de/texts.json": texts("de").replace('"message"', '"note"') };
    const few = Object.fromEntries(
      ["en", "de"].map((locale) => [
        `app/${locale}.json`,
        `{ "a": { "text": "A ${locale}" }, "b": { "text": "B ${locale}" } }`,
      ]),
    );
    for (const one of [some, few])
      expect(
        ((await proposed(one)) as { books: { leaf?: string }[] }).books.filter(({ leaf }) => leaf),
      ).toEqual([]);
  });
});

test("elements with a key hold their texts, and what tells translators about a text is none", async () => {
  const said = (id: string, text: string) => `<Say id="desk.${id}" about="Where the boats are">${text}</Say>`;
  const files = {
    "src/a.tsx": `export const A = ({ n }) => <p>\n  ${said("title", "\n    All &amp; every boat\n  ")}${said("lead", "{'Boats of {n}'}")}${said("rich", "Read <b>more</b>")}</p>;\nexport const b = () => say({ id: "desk.late", text: "Late boats", about: "Of today" });\nexport const c = () => say({ id: "desk.all", text: "All boats", about: "Of all days" });\n`,
  };
  const result = await planInit(memoryFiles(files));
  if (!result.ok) throw new Error(result.file);
  const config = result.plan.changes[0]?.after ?? "";
  const [book] = (JSON.parse(config) as { books: { lookups: unknown[] }[] }).books;
  expect(book?.lookups).toEqual([
    { component: "Say", key: "id", default: "children", note: "about" },
    { descriptor: "say", key: "id", default: "text", note: "about" },
  ]);
  const opened = openProject(memoryFiles({ ...files, "fond.config.json": config }));
  if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
  const { changes } = await extractProject(opened.project, {}, { collectOnly: true });
  expect(changes.map(({ after }) => JSON.parse(after ?? "") as unknown)).toEqual([
    { desk: { title: "All & every boat", lead: "Boats of {n}", late: "Late boats", all: "All boats" } },
  ]);
  const survey = await surveyProject(opened.project);
  const shown = survey.files
    .flatMap(({ literals }) => literals)
    .filter(({ verdict }) => verdict === "text")
    .map(({ text }) => text);
  expect(shown).toEqual(["Read more"]);
});

test("a lookup is given its text with its key, escaped for its quotes, and not where the message needs other signs", async () => {
  const files = {
    "fond.config.json": JSON.stringify({
      source: "en",
      targets: [],
      books: [
        {
          name: "app",
          files: "t/{locale}.json",
          code: ["src/**"],
          lookups: [{ call: "say", default: 1 }],
          emit: {
            call: "say('{key}', '{text}'{args})",
            endings: { ".php": { call: 'say("{key}", "{text}")' } },
          },
        },
      ],
    }),
    "t/en.json": "{}",
    "src/a.js":
      'f = () => { alert("It\'s late"); alert(`Boat ${name} is late`); alert("Write {} to the desk"); };\n',
    "src/b.php": "<?php function b() { flash('The $boat is late today'); }\n",
  };
  const opened = openProject(memoryFiles(files));
  if (!opened.ok) throw new Error();
  const { changes } = await extractProject(opened.project);
  const after = (file: string) => changes.find((one) => one.file === file)?.after ?? "";
  expect(after("src/a.js")).toContain('alert(say("a.itsLate", "It\'s late"))');
  expect(after("src/a.js")).toContain('"Boat {name} is late", { name })');
  expect(after("src/a.js")).toContain('alert("Write {} to the desk")');
  expect(after("src/b.php")).toContain("'The $boat is late today')");
});

describe("init tells declarations of texts from other pairs of strings", () => {
  const config = (code: string) => proposed({ "src/a.ts": code });
  test.each([
    [
      "a declaration",
      'text({ id: "home.title", text: "All crossings" }); text({ id: "home.lead", text: "Pick one" });',
      true,
    ],
    [
      "a query",
      'find({ filter: "type:boat", order: "name ASC, size DESC" }); find({ filter: "mail:null", order: "sent ASC, a DESC" });',
      false,
    ],
    [
      "a chain of calls",
      'db.from("x").join("y").on("z").where("roles.name", "Owner of it"); db.from("x").join("y").on("z").where("users.name", "Guest of it");',
      false,
    ],
  ])("%s", async (_, code, isFound) => {
    const { books } = (await config(code)) as { books: readonly { lookups: readonly object[] }[] };
    expect(books[0]?.lookups.some((one) => "default" in one) ?? false).toBe(isFound);
  });

  test("scripts that were built say nothing of lookups", async () => {
    const built = `${"let a = !0, b = void 0;\n".repeat(200)}HI({ name: "a.b", label: "Some text" }); HI({ name: "a.c", label: "Some more" });`;
    const { books } = (await config("f();")) as { books: readonly object[] };
    const withBuilt = (await proposed({ "src/a.ts": "f();", "src/page.js": built })) as {
      books: readonly { lookups?: unknown }[];
    };
    expect(withBuilt.books[0]?.lookups).toEqual((books[0] as { lookups?: unknown }).lookups);
  });
});

describe("init proposes what is usual where there are no catalogs yet", () => {
  test.each<[string, Record<string, string>, object]>([
    [
      "a web application in Ruby",
      { Gemfile: "", "app/views/boats/index.html.erb": "<p>Boats</p>", "package.json": "{}", "src/a.js": "" },
      {
        files: "config/locales/{locale}.yml",
        root: "{locale}",
        plurals: "branches",
        emit: { call: 't("{key}"{args})' },
      },
    ],
    [
      "a web application in PHP",
      { "composer.json": "{}", "resources/views/a.php": "<p>Boats</p>" },
      { files: "lang/{locale}.json", syntax: "colon" },
    ],
    [
      "a program in Java",
      { "src/main/java/A.java": "class A {}" },
      { syntax: "java", spelling: "underscore" },
    ],
    [
      "a program in TypeScript",
      { "package.json": "{}", "src/a.ts": "f();" },
      { files: "src/locales/{locale}.json" },
    ],
  ])("%s", async (_name, files, book) => {
    expect(await proposed(files)).toMatchObject({ books: [book] });
  });
});

test("a name around all texts that code writes is part of its keys", async () => {
  const texts = { texts: { home: { title: "One", lead: "Two" } } };
  const files = {
    "t/en.json": JSON.stringify(texts),
    "t/de.json": JSON.stringify(texts),
    "a.ts": 'say("texts.home.title"); say("texts.home.lead");\n',
  };
  const { books } = await proposed(files);
  expect(books).toEqual([expect.not.objectContaining({ root: expect.anything() as unknown })]);
});

describe("init tells catalogs from what programs keep of languages", () => {
  test("a table of other values by language", async () => {
    const table = (locale: string, name: string) =>
      `  "${locale}": { text: "${name}", grid: grid${name}, dates: dates${name} },\n`;
    const files = {
      "t/en.json": '{ "title": "One" }',
      "t/de.json": '{ "title": "Eins" }',
      "src/i18n/languages.ts": `export const languages = {\n${table("en", "English")}${table("de", "Deutsch")}};\n`,
    };
    expect((await proposed(files)).books).toMatchObject([{ files: "t/{locale}.json" }]);
    expect((await proposed(files)).books).toHaveLength(1);
  });

  test("a template that has keys in marks alone is one of several books' code", async () => {
    const files = {
      "a/en.json": '{ "home": { "title": "One", "lead": "Two", "note": "Three" } }',
      "a/de.json": '{ "home": { "title": "Eins", "lead": "Zwei", "note": "Drei" } }',
      "b/en.json": '{ "desk": { "title": "One", "lead": "Two" } }',
      "b/de.json": '{ "desk": { "title": "Eins", "lead": "Zwei" } }',
      "src/a.js":
        'say("home.title"); say("home.lead"); say("home.note"); tell("desk.title"); tell("desk.lead");\n',
      "src/a.html": "{{#x}}<p>{{#say}}home.title{{/say}}</p>{{/x}}\n",
    };
    const [book] = (await proposed(files)).books as { lookups: unknown }[];
    expect(book?.lookups).toEqual([{ call: "say" }, { mark: "{{#say}}KEY{{/say}}" }]);
  });

  test("keys in code of languages that are not read count as used", async () => {
    const files = {
      "t/en.json": '{ "home": { "title": "One", "lead": "Two", "note": "Three", "gone": "Four" } }',
      "t/de.json": '{ "home": { "title": "Eins", "lead": "Zwei", "note": "Drei", "gone": "Vier" } }',
      "src/a.js": 'say("home.title");\nsay("home.lead");\n',
      "views/a.pug": 'h1= say("home.note")\n',
    };
    const result = await planInit(memoryFiles(files));
    if (!result.ok) throw new Error(result.file);
    expect(result.plan.grounds.join("\n")).toMatch(/1 file with \.pug/);
    const opened = openProject(
      memoryFiles({ ...files, "fond.config.json": result.plan.changes[0]?.after ?? "" }),
    );
    if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
    const unused = (await lintProject(opened.project)).filter(({ rule }) => rule === "key/unused");
    expect(unused.map(({ key }) => key)).toEqual(["home.gone"]);
  });
});
