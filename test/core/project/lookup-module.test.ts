import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { createRequire } from "node:module";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { runInNewContext } from "node:vm";
import ts from "typescript";
import { fillMessage, type ArgumentValue } from "../../../src/core/message/fill.js";
import { messageReader } from "../../../src/core/message/parse.js";
import { lookupModule } from "../../../src/core/project/setup/lookup-module.js";
import { cleanUp, fond, filesIn, temporaryProject } from "../../support/project.js";

afterAll(cleanUp);

const catalogs = ["en", "pl", "pt-BR"].map((locale) => ({ locale, path: `./texts/${locale}.json` }));

interface Written {
  t(key: string, values?: Record<string, unknown>): string;
  textIn(locale: string, key: string, values?: Record<string, unknown>): string;
  setLocale(locale: string): void;
}

/** The module that is written, as a program imports it, with catalogs of its own. */
async function written(texts: Readonly<Record<string, object>>): Promise<Written> {
  const folder = temporaryProject({
    "package.json": '{ "type": "module" }',
    "texts.js": lookupModule({ isTyped: false, source: "en", catalogs }),
    ...Object.fromEntries(
      catalogs.map(({ locale }) => [`texts/${locale}.json`, JSON.stringify(texts[locale] ?? {})]),
    ),
  });
  return (await import(pathToFileURL(join(folder, "texts.js")).href)) as Written;
}

describe("the module that init writes", () => {
  let module: Written;
  beforeAll(async () => {
    module = await written({
      en: { home: { title: "Boats", name: "Aboard: {name}" }, only: "English" },
      pl: { home: { title: "Łodzie" } },
      "pt-BR": { home: { title: "Barcos" } },
    });
  });

  test("finds texts by their path, in the locale, its language, the source", () => {
    module.setLocale("pl");
    expect(module.t("home.title")).toBe("Łodzie");
    expect(module.t("only")).toBe("English");
    expect(module.t("home.name", { name: "Mara" })).toBe("Aboard: Mara");
    expect(module.textIn("pl-PL", "home.title")).toBe("Łodzie");
    expect(module.textIn("pt-BR", "home.title")).toBe("Barcos");
    module.setLocale("en");
    expect(module.t("home.title")).toBe("Boats");
  });

  test("shows a key that has no text, a group included", () => {
    expect(module.t("home.tilte")).toBe("home.tilte");
    expect(module.t("home")).toBe("home");
  });
});

describe("messages are filled as this package fills them", () => {
  const reader = messageReader({ syntax: "icu", plurals: "inline", tags: false });
  const said = (locale: string, message: string, values: Record<string, ArgumentValue>) =>
    fillMessage(reader.read(message).nodes, locale, values).text;

  test.each<[string, string, Record<string, ArgumentValue>]>([
    ["en", "It''s {n} o''clock, don't '{wait}' '", { n: 5 }],
    ["pl", "{n, plural, one {# łódź} few {# łodzie} many {# łodzi} other {# łodzi}}", { n: 22 }],
    [
      "en",
      "{n, plural, offset:1 =0 {Nobody} =1 {{who}} one {{who} and # more} other {{who} and # more}}",
      { n: 3, who: "Mara" },
    ],
    ["en", "{n, selectordinal, one {#st} two {#nd} few {#rd} other {#th}} boat", { n: 23 }],
    [
      "en",
      "{kind, select, boat {The {n, plural, one {boat} other {# boats}}} other {It}}",
      { kind: "boat", n: 12345 },
    ],
    ["pt-BR", "{n, number} e {p, number, percent}", { n: 1234.5, p: 0.5 }],
    ["en", "'{'#'}' {n, plural, other {'#' is #}}", { n: 2 }],
  ])("%s: %s", async (locale, message, values) => {
    const { textIn } = await written({ [locale]: { m: message } });
    expect(textIn(locale, "m", values)).toBe(said(locale, message, values));
  });

  test("whatever the message", async () => {
    const piece = fc.constantFrom("a", " ", "''", "'{'", "it's ", "{n}", "{who}", "é", "'#'", "{n, number}");
    const flat = fc.array(piece, { maxLength: 5 }).map((list) => list.join(""));
    const plural = fc
      .tuple(flat, flat, flat)
      .map(([one, zero, other]) => `{n, plural, =0 {${zero}} one {#${one}} other {# ${other}}}`);
    const message = fc.array(
      fc.oneof(
        piece,
        plural,
        plural.map((inner) => `{who, select, Mara {${inner}} other {x}}`),
      ),
      { maxLength: 4 },
    );
    const messages = fc.sample(
      message.map((list) => list.join("")),
      { numRuns: 400, seed: 11 },
    );
    const { textIn } = await written({
      en: Object.fromEntries(messages.map((text, index) => [`m${index}`, text])),
    });
    let asked = 0;
    for (const [index, text] of messages.entries()) {
      if (text === "" || reader.read(text).problems.length > 0) continue;
      for (const values of [
        { n: 0, who: "Mara" },
        { n: 1, who: "Ostrel" },
        { n: 1.5, who: "Mara" },
      ]) {
        asked++;
        expect([text, textIn("en", `m${index}`, values)]).toEqual([text, said("en", text, values)]);
      }
    }
    expect(asked).toBeGreaterThan(500);
  });
});

test("for programs that take their modules in by require() it is such a module", async () => {
  const folder = temporaryProject({
    "texts.js": lookupModule({ isTyped: false, isCommon: true, source: "en", catalogs }),
    ...Object.fromEntries(
      catalogs.map(({ path }) => [path, '{ "a": { "b": "{n, plural, one {# boat} other {# boats}}" } }']),
    ),
  });
  const { t, textIn } = createRequire(join(folder, "a.js"))("./texts.js") as Written;
  expect([t("a.b", { n: 1 }), textIn("pl", "a.b", { n: 3 })]).toEqual(["1 boat", "3 boats"]);
});

test("a project of such programs gets it, and its scripts take it in", async () => {
  const folder = temporaryProject({
    "package.json": '{ "name": "quay" }',
    "lib/app.js":
      'var http = require("http");\n\nexports.show = function (page, late) {\n  page.title = late ? "The boat is late today" : "All boats are here";\n};\n',
    "lib/run.js": 'require("./app").show(process, true);\nconsole.log(process.title);\n',
  });
  expect((await fond(folder, "init", "--runtime", "--write")).status).toBe(0);
  expect((await fond(folder, "extract", "--write", "--include", "likely")).status).toBe(0);
  expect(filesIn(folder)["lib/app.js"]).toContain('const { t } = require("../texts.js");\n');
  const page = { title: "" };
  (createRequire(join(folder, "a.js"))("./lib/app.js") as { show(page: object, late: boolean): void }).show(
    page,
    false,
  );
  expect(page.title).toBe("All boats are here");
});

test("in TypeScript it is free of errors under the strictest settings", () => {
  const folder = temporaryProject({
    "texts.ts": lookupModule({ isTyped: true, source: "en", catalogs }),
    ...Object.fromEntries(catalogs.map(({ path }) => [path, '{ "a": { "b": "c" } }'])),
  });
  const program = ts.createProgram([join(folder, "texts.ts")], {
    strict: true,
    noUncheckedIndexedAccess: true,
    exactOptionalPropertyTypes: true,
    noUnusedLocals: true,
    noUnusedParameters: true,
    noImplicitReturns: true,
    noEmit: true,
    resolveJsonModule: true,
    target: ts.ScriptTarget.ES2022,
    module: ts.ModuleKind.ESNext,
    moduleResolution: ts.ModuleResolutionKind.Bundler,
    types: [],
  });
  expect(
    ts
      .getPreEmitDiagnostics(program)
      .map(({ messageText }) => ts.flattenDiagnosticMessageText(messageText, "\n")),
  ).toEqual([]);
});

describe("a project without lookups is localized in five commands", () => {
  const page = `export function Page({ n, name }: { n: number; name: string }) {
  return (
    <main title="All crossings of the day">
      <h1>Welcome aboard, {name}</h1>
      <p>{n === 1 ? "One seat left" : \`\${n} seats left\`}</p>
    </main>
  );
}
`;

  test("init, extract, reconcile, lint, survey", async () => {
    const folder = temporaryProject({ "package.json": "{}", "src/Page.tsx": page });
    const init = await fond(folder, "init", "--yes", "--runtime", "--targets", "de", "--write");
    expect(init.status).toBe(0);
    expect((await fond(folder, "extract", "--write")).status).toBe(0);
    expect((await fond(folder, "reconcile", "--write")).status).toBe(0);
    const files = filesIn(folder);
    expect(files["src/Page.tsx"]).toContain('import { t } from "./texts";');
    expect(files["src/Page.tsx"]).toContain('<p>{t("page.oneSeatLeft", { n })}</p>');
    expect(files["src/texts.ts"]).toContain('import de from "./locales/de.json";');
    expect((await fond(folder, "lint")).status).toBe(0);
    expect((await fond(folder, "survey")).stdout).toContain("0 text, 0 unclear");
  });

  test("plain pages get a script that fills their elements", async () => {
    const page = (script: string, title: string, hint: string) =>
      `<!DOCTYPE html>\n<html lang="en">\n  <head>\n    <title${title}>Ferries</title>\n${script}  </head>\n  <body>\n    <h1>Boats of today</h1>\n    <input ${hint}>\n  </body>\n</html>\n`;
    const folder = temporaryProject({
      "index.html": page("", "", 'placeholder="Name of an island"'),
      "more/prices.html": page("", "", 'type="text"'),
    });
    for (const step of [
      ["init", "--yes", "--runtime", "--targets", "de", "--write"],
      ["extract", "--write"],
      ["reconcile", "--write"],
      ["lint"],
    ])
      expect([step[0], (await fond(folder, ...step)).status]).toEqual([step[0], 0]);
    const files = filesIn(folder);
    expect(files["index.html"]).toBe(
      page(
        '    <script src="texts.js"></script>\n',
        ' data-text="index.ferries"',
        'data-text-placeholder="index.nameIsland"',
      ).replace("<h1>", '<h1 data-text="index.boatsToday">'),
    );
    expect(files["more/prices.html"]).toContain('<script src="../texts.js"></script>');
    expect((await fond(folder, "survey")).stdout).toContain("0 text, 0 unclear");

    // The script fills what the page says, in the locale that was asked for.
    const script = files["texts.js"] ?? "";
    const heading = element({ "data-text": "index.boatsToday" });
    const input = element({ "data-text-placeholder": "index.nameIsland", type: "text" });
    const root = { lang: "", dir: "" };
    const asked: string[] = [];
    const texts: Record<string, unknown> = {
      "https://quay.example/locales/de.json": { index: { boatsToday: "Boote von heute" } },
      "https://quay.example/locales/en.json": JSON.parse(files["locales/en.json"] ?? "{}"),
    };
    runInNewContext(script, {
      document: {
        currentScript: { src: "https://quay.example/texts.js" },
        readyState: "complete",
        documentElement: root,
        querySelectorAll: () => [heading, input],
      },
      location: { search: "?lang=de-AT" },
      navigator: { languages: ["fr"] },
      URLSearchParams,
      URL,
      fetch: (url: URL) => {
        asked.push(url.href);
        return Promise.resolve({ ok: true, json: () => Promise.resolve(texts[url.href]) });
      },
    });
    await new Promise((done) => setTimeout(done, 20));
    expect(asked.sort()).toEqual(Object.keys(texts).sort());
    expect(root).toEqual({ lang: "de", dir: "ltr" });
    expect(heading.textContent).toBe("Boote von heute");
    expect(input.set).toEqual({ placeholder: "Name of an island" });

    // A new locale has its place in the script's list.
    expect((await fond(folder, "locale", "add", "pl", "--write")).status).toBe(0);
    expect(filesIn(folder)["texts.js"]).toContain('const locales = ["en", "de", "pl"];');
  });

  test("where there are lookups none is written", async () => {
    const folder = temporaryProject({
      "package.json": "{}",
      "locales/en.json": '{ "a.b": "One", "a.c": "Two" }',
      "locales/de.json": '{ "a.b": "Eins" }',
      "src/a.ts": 'show(say("a.b"), say("a.c"));\n',
    });
    const { status, stderr } = await fond(folder, "init", "--runtime");
    expect(status).toBe(2);
    expect(stderr).toContain("only where nothing does that yet");
  });
});

/** An element of a page, as far as the script asks. */
function element(attributes: Readonly<Record<string, string>>) {
  const set: Record<string, string> = {};
  return {
    attributes: Object.entries(attributes).map(([name, value]) => ({ name, value })),
    textContent: "",
    set,
    setAttribute(name: string, value: string) {
      set[name] = value;
    },
  };
}
