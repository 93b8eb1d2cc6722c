import { describe, expect, test } from "@jest/globals";
import { memoryFiles, type MemoryFiles } from "../../../src/core/files/memory-files.js";
import { applyPlan } from "../../../src/core/plan/apply.js";
import type { Plan } from "../../../src/core/plan/plan.js";
import { convertBook } from "../../../src/core/project/convert.js";
import { extractProject } from "../../../src/core/project/extract-project.js";
import { fixProject, lintProject } from "../../../src/core/project/lint-project.js";
import { openProject, type Project } from "../../../src/core/project/project.js";
import { reconcileProject } from "../../../src/core/project/reconcile-project.js";
import { previewProject } from "../../../src/core/project/preview.js";
import { rekeyProject } from "../../../src/core/project/rekey.js";
import { reviewProject } from "../../../src/core/project/review.js";

const day = "2031-05-04";

function project(book: object, files: Readonly<Record<string, string>>, more: object = {}) {
  const config = {
    source: "en",
    targets: ["de", "fr"],
    books: [{ name: "app", code: [], files: "t/{locale}.json", ...book }],
    ...more,
  };
  const held = memoryFiles({ ...files, "fond.config.json": JSON.stringify(config) });
  return { held, open: () => opened(held) };
}

function opened(files: MemoryFiles): Project {
  const result = openProject(files, undefined, day);
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.project;
}

/** Applies a plan, and shows that doing the same again has nothing to do. */
function settled(held: MemoryFiles, plan: () => Plan): Plan {
  const first = plan();
  expect(applyPlan(held, first)).toMatchObject({ ok: true });
  expect(plan().changes).toEqual([]);
  return first;
}

const reconcile = (held: MemoryFiles) => settled(held, () => reconcileProject(opened(held), {}, day));
const jsonOf = (held: MemoryFiles, file: string) => JSON.parse(held.contents.get(file) ?? "{}") as object;

describe("reconcile", () => {
  test("takes names with a separator in them as names", () => {
    const group = { "m.call": "Call", "m.call.member": "Member" };
    const { held } = project(
      {},
      {
        "t/en.json": JSON.stringify({ g: group, other: { x: "y" } }),
        "t/de.json": JSON.stringify({ other: { x: "z" } }),
        "t/fr.json": "{}",
      },
    );
    expect(reconcile(held).notes).toEqual([]);
    expect(jsonOf(held, "t/de.json")).toEqual({ g: group, other: { x: "z" } });
    expect(jsonOf(held, "t/fr.json")).toEqual({ g: group, other: { x: "y" } });
  });

  test("keeps a text and one below its name side by side where the source does", () => {
    const { held } = project(
      {},
      {
        "t/en.json": '{ "a": "One", "a.b": "Two" }',
        "t/de.json": '{ "c": { "d": "x" } }',
        "t/fr.json": "{}",
      },
    );
    reconcile(held);
    expect(jsonOf(held, "t/de.json")).toEqual({ a: "One", "a.b": "Two" });
  });

  test("writes no record for a key that it cannot add, and loses no translation for it", () => {
    const { held } = project(
      {},
      {
        "t/en.json": '{ "menu": "Menu", "note": "A long enough note" }',
        "t/de.json": '{ "menu": { "kept": "Bleibt" }, "note": "Ein Hinweis" }',
        "t/fr.json": "{}",
      },
      { targets: ["de"] },
    );
    const plan = settled(held, () => reconcileProject(opened(held), {}, day, { keepExtra: true }));
    expect(plan.notes.map(({ undone }) => undone)).toEqual(["broken"]);
    expect(jsonOf(held, "t/de.json")).toEqual({ menu: { kept: "Bleibt" }, note: "Ein Hinweis" });
    expect(held.contents.get("fond-ledger/app.de.txt")).not.toMatch(/^menu\t/m);
  });

  test("fills an empty file", () => {
    for (const empty of ["", "\n", "  \n\n"]) {
      const { held } = project({}, { "t/en.json": '{ "a": "One" }', "t/de.json": empty, "t/fr.json": "{}" });
      reconcile(held);
      expect(jsonOf(held, "t/de.json")).toEqual({ a: "One" });
    }
  });

  test("does not say a comment twice that is above the translation already", () => {
    const { held } = project(
      { files: "t/{locale}.yaml" },
      {
        "t/en.yaml": "# Shown on the button\nsave: Save now\n# Not there yet\nsend: Send now\n",
        "t/de.yaml": "# Shown on the button\nsave: Save now\nsend: Send now\n",
      },
      { targets: ["de"] },
    );
    reconcile(held);
    const text = held.contents.get("t/de.yaml") ?? "";
    expect(text.match(/Shown on the button/g)).toHaveLength(1);
    expect(text).toContain("# fond: note Not there yet");
  });

  test("takes nothing from a ledger that cannot be read", () => {
    const { held } = project(
      {},
      { "t/en.json": '{ "a": "One" }', "t/de.json": '{ "a": "Eins" }', "t/fr.json": "{}" },
    );
    const unreadable = {
      ...held,
      read: (path: string) =>
        path.endsWith("app.de.txt")
          ? ({ ok: false, trouble: "unreadable", detail: "permission is denied" } as const)
          : held.read(path),
    };
    const plan = reconcileProject(opened(unreadable), {}, day);
    expect(plan.notes.map(({ undone }) => undone)).toEqual(["unreadable"]);
    expect(plan.changes.map(({ file }) => file)).not.toContain("fond-ledger/app.de.txt");
  });
});

describe("a book told apart by folders", () => {
  const files = {
    "rooms/res/Texts.properties": "a.b=Hello\n",
    "rooms/res/Texts_de.properties": "a.b=Hallo\n",
    "billing/res/Texts.properties": "c.d=Total\n",
    "rooms/src/Room.java":
      'class Room { void show() { label.setText("The room is free today"); getString("a.b"); } }\n',
    "Main.java": 'class Main { void show() { label.setText("Nothing is near here"); } }\n',
  };
  const book = {
    files: "{dir}/Texts{locale}.properties",
    spelling: { en: "", de: "_de" },
    code: ["**/*.java"],
    lookups: [{ call: "getString" }],
    emit: { endings: { ".java": { call: 'getString("{key}"{args})' } } },
  };
  const start = () => project(book, files, { targets: ["de"] });

  test("extract takes the catalog that is nearest to the code, and none where several are", async () => {
    const plan = await extractProject(start().open());
    expect(plan.changes.map(({ file }) => file)).toEqual([
      "rooms/res/Texts.properties",
      "rooms/src/Room.java",
    ]);
    expect(plan.notes).toMatchObject([{ file: "Main.java", undone: "refused" }]);
  });

  test("rekey renames where a key is", async () => {
    const result = await rekeyProject(start().open(), {}, "a.b", "a.z");
    expect(result.ok && result.plan.changes.map(({ file, after }) => [file, after?.split("\n")[0]])).toEqual([
      ["rooms/res/Texts.properties", "a.z=Hello"],
      ["rooms/res/Texts_de.properties", "a.z=Hallo"],
      ["rooms/src/Room.java", files["rooms/src/Room.java"].trim().replace("a.b", "a.z")],
    ]);
  });
});

describe("repairs", () => {
  const fixed = async (en: string, de: string, fr?: string) => {
    const { held, open } = project(
      {},
      {
        "t/en.json": JSON.stringify({ a: en }),
        "t/de.json": JSON.stringify({ a: de }),
        ...(fr !== undefined && { "t/fr.json": JSON.stringify({ a: fr }) }),
      },
      fr === undefined ? { targets: ["de"] } : {},
    );
    expect(applyPlan(held, await fixProject(open()))).toMatchObject({ ok: true });
    return ["en", "de", "fr"].flatMap((locale) => {
      const text = held.contents.get(`t/${locale}.json`);
      return text === undefined ? [] : [(JSON.parse(text) as { a: string }).a];
    });
  };
  test.each([
    ["Ö–A", "Ö–A"],
    ["Å–Ø", "Å–Ø"],
    ["FÃ¤hre", "Fähre"],
    ["GroÃŸe FÃ¤hre", "Große Fähre"],
    ["NÃO", "NÃO"],
    ["Ð¿Ñ€Ð¸Ð²ÐµÑ‚", "Ð¿Ñ€Ð¸Ð²ÐµÑ‚"],
  ])("of an encoding need proof: %s becomes %s", async (written, meant) => {
    expect((await fixed("Ferry", written))[1]).toBe(meant);
  });

  test("take a stray space from the source, and give it to no translation", async () => {
    expect(await fixed("Sailings ", "Abfahrten", "Départs")).toEqual(["Sailings", "Abfahrten", "Départs"]);
    expect(await fixed("Hello ", "Hallo ", "Bonjour")).toEqual(["Hello ", "Hallo ", "Bonjour "]);
    expect(await fixed("Total: ", "Summe:")).toEqual(["Total: ", "Summe: "]);
    const { open } = project(
      {},
      {
        "t/en.json": '{ "a": "Sailings " }',
        "t/de.json": '{ "a": "Abfahrten" }',
        "t/fr.json": '{ "a": "Départs" }',
      },
    );
    const found = (await lintProject(open())).filter(({ rule }) => rule === "text/space");
    expect(found.map(({ locale }) => locale)).toEqual(["en"]);
  });
});

test("a PHP file with a syntax error gives nothing", async () => {
  const { open } = project(
    {},
    { "lang/en.php": "<?php return ['a' => 'It's late', 'b' => 'Boats'];\n", "t/en.json": "{}" },
  );
  const opened = open();
  const [book] = opened.config.books;
  if (!book) throw new Error("no book");
  const result = await convertBook(opened, book, { from: "lang/{locale}.php" });
  expect(result.ok).toBe(false);
  expect(result.ok ? [] : result.refusals.map(({ file }) => file)).toEqual(["lang/en.php"]);
});

describe("key patterns follow the book's separators", () => {
  const files = {
    "t/en.json": '{ "a:b": "A long text", "a:b:c": "Another text" }',
    "t/de.json": '{ "a:b": "Ein langer Text", "a:b:c": "Ein anderer" }',
  };
  const start = (book: object, more: object = {}) =>
    project({ naming: { separator: ":" }, ...book }, files, { targets: ["de"], ...more });
  const keysFor = async (book: object, rule: string) =>
    (await lintProject(start(book).open())).filter((one) => one.rule === rule).map(({ key }) => key);

  test("limits and levels", async () => {
    expect(await keysFor({ limits: { "a:*": 3 } }, "text/length")).toEqual(["a:b", "a:b"]);
    const off = start(
      { limits: { "**": 3 } },
      { levels: [{ rules: ["text/length"], keys: ["a:*"], level: "off" }] },
    );
    expect((await lintProject(off.open())).map(({ key }) => key)).toEqual(["a:b:c", "a:b:c"]);
  });

  test("preview, review and waivers", async () => {
    const shown = previewProject(start({}).open(), {}, ["a:*"]);
    expect(shown.ok && [...new Set(shown.messages.map(({ key }) => key))]).toEqual(["a:b"]);
    const reviewed = reviewProject(start({}).open(), {}, ["a:*"], { state: "reviewed", today: day });
    expect(reviewed.ok && reviewed.plan.summary).toEqual({ "translations reviewed": 1 });
    const { held } = start({ limits: { "**": 3 } });
    held.contents.set(
      "fond.waivers.json",
      JSON.stringify({ waivers: [{ rule: "text/length", key: "a:*", reason: "fits" }] }),
    );
    expect((await lintProject(opened(held))).map(({ key }) => key)).toEqual(["a:b:c", "a:b:c"]);
  });
});
