import { describe, expect, test } from "@jest/globals";
import { memoryFiles, type MemoryFiles } from "../../../src/core/files/memory-files.js";
import { applyPlan } from "../../../src/core/plan/apply.js";
import type { Plan } from "../../../src/core/plan/plan.js";
import {
  balanceProject,
  openProject,
  outstandingIn,
  type Project,
} from "../../../src/core/project/project.js";
import { lintProject } from "../../../src/core/project/lint-project.js";
import { reconcileProject } from "../../../src/core/project/reconcile-project.js";
import { reviewProject } from "../../../src/core/project/review.js";
import { parseIcu } from "../../../src/core/message/syntaxes/icu/icu.js";
import { printIcu } from "../../../src/core/message/syntaxes/icu/icu-print.js";
import { scaffoldPlurals } from "../../../src/core/message/scaffold.js";
import { reopened, smallProject } from "../../support/project.js";

const day = "2026-03-01";

function open(more: Record<string, string> = {}): { files: MemoryFiles; project: Project } {
  const files = memoryFiles(smallProject(more));
  return { files, project: reopened(files) };
}

function reconcile(files: MemoryFiles, project: Project, today = day): Plan {
  const plan = reconcileProject(project, {}, today);
  expect(applyPlan(files, plan)).toMatchObject({ ok: true });
  return plan;
}

const en = (home: Record<string, string>) => `${JSON.stringify({ home }, undefined, 2)}\n`;

describe("keys in step", () => {
  test("with nothing to do no catalog changes, and a second run changes nothing at all", () => {
    const { files, project } = open();
    const plan = reconcile(files, project);
    expect(plan.changes.map(({ file }) => file)).toEqual([
      "fond-ledger/app.de.txt",
      "fond-ledger/app.pl.txt",
      "fond-ledger/app.sources.txt",
    ]);
    expect(reconcile(files, project, "2027-01-01").changes).toEqual([]);
  });

  test("a missing key is added where the source has it, with the plural forms of the locale", () => {
    const { files, project } = open({ "texts/pl.json": '{\n  "home": {\n    "title": "Rejsy"\n  }\n}\n' });
    reconcile(files, project);
    expect(files.contents.get("texts/pl.json")).toBe(
      '{\n  "home": {\n    "title": "Rejsy",\n    "count": "{n, plural, one {# boat} few {# boats} many {# boats} other {# boats}}"\n  }\n}\n',
    );
    expect(files.contents.get("fond-ledger/app.pl.txt")).toMatch(
      /^home\.count\tinitial\t[0-9a-f]{16}\t[0-9a-f]{16}\tcopy\t2026-03-01$/m,
    );
  });

  test("a locale without any file gets one", () => {
    const { files, project } = open();
    files.contents.delete("texts/de.json");
    reconcile(files, project);
    expect(
      Object.keys((JSON.parse(files.contents.get("texts/de.json") ?? "{}") as { home: object }).home),
    ).toEqual(["title", "count"]);
  });

  test("a key that left is set aside with its text, and comes back with it", () => {
    const { files, project } = open();
    reconcile(files, project);
    const whole = files.contents.get("texts/en.json") ?? "";
    files.contents.set("texts/en.json", en({ count: "{n, plural, one {# boat} other {# boats}}" }));
    const plan = reconcile(files, project);
    expect(plan.summary).toEqual({ "keys set aside": 2 });
    expect(files.contents.get("texts/de.json")).not.toContain("Abfahrten");
    expect(files.contents.get("fond-ledger/app.de.attic.txt")).toContain("Abfahrten");
    files.contents.set("texts/en.json", whole);
    const back = reconcile(files, project);
    expect(back.summary).toEqual({ "keys restored": 2 });
    expect(files.contents.get("texts/de.json")).toContain('"title": "Abfahrten"');
    expect(files.contents.has("fond-ledger/app.de.attic.txt")).toBe(false);
  });

  test("a key that comes back with another source text counts as stale, with the same as not", () => {
    const { files, project } = open();
    reconcile(files, project);
    const whole = files.contents.get("texts/en.json") ?? "";
    files.contents.set("texts/en.json", en({ count: "{n, plural, one {# boat} other {# boats}}" }));
    reconcile(files, project);
    files.contents.set("texts/en.json", whole.replace("Sailings", "Departures"));
    expect(reconcile(files, project).summary).toEqual({ "keys restored": 2, "translations stale": 2 });
  });

  test("extra keys can be left", () => {
    const { project } = open({
      "texts/de.json": '{\n  "home": {\n    "title": "A",\n    "count": "B",\n    "more": "C"\n  }\n}\n',
    });
    expect(
      reconcileProject(project, {}, day, { keepExtra: true }).changes.map(({ file }) => file),
    ).not.toContain("texts/de.json");
  });

  test("a catalog that writes keys flat goes on doing so", () => {
    const { files, project } = open({ "texts/de.json": '{\n  "home.title": "Abfahrten"\n}\n' });
    reconcile(files, project);
    expect(files.contents.get("texts/de.json")).toContain('  "home.count": "{n, plural,');
  });

  test("a text in the way of a group is said, not overwritten", () => {
    const { project } = open({ "texts/en.json": '{ "a": { "b": "x" } }', "texts/de.json": '{ "a": "y" }' });
    const plan = reconcileProject(project, { locales: ["de"] }, day, { keepExtra: true });
    expect(plan.notes).toMatchObject([{ file: "texts/de.json", line: 1, column: 3 }]);
    expect(plan.changes.map(({ file }) => file)).not.toContain("texts/de.json");
  });

  test("a broken catalog is left alone, its ledger too, and the others are done", () => {
    const { files, project } = open();
    reconcile(files, project);
    const ledger = files.contents.get("fond-ledger/app.de.txt");
    files.contents.set("texts/de.json", '{ "home": {');
    files.contents.set(
      "texts/en.json",
      en({ title: "Sailings", count: "{n, plural, one {# boat} other {# boats}}", more: "More" }),
    );
    const plan = reconcile(files, project);
    expect(plan.notes.map(({ file }) => file)).toEqual(["texts/de.json"]);
    expect(files.contents.get("texts/de.json")).toBe('{ "home": {');
    expect(files.contents.get("fond-ledger/app.de.txt")).toBe(ledger);
    expect(files.contents.get("texts/pl.json")).toContain('"more": "More"');
  });

  test("without any source catalog no translation is touched, and its ledger neither", () => {
    const { files, project } = open();
    reconcile(files, project);
    const before = new Map(files.contents);
    files.contents.delete("texts/en.json");
    before.delete("texts/en.json");
    const plan = reconcile(files, project);
    expect(plan.changes).toEqual([]);
    expect(plan.notes.map(({ file, undone }) => [file, undone])).toEqual([["texts/en.json", "broken"]]);
    expect(plan.notes[0]?.message).toContain("no source catalog");
    expect(new Map(files.contents)).toEqual(before);
  });

  test("a namespace that left the source is set aside with its file, where the source has others", () => {
    const files = memoryFiles({
      "fond.config.json": JSON.stringify({
        source: "en",
        targets: ["de"],
        books: [{ name: "app", files: "t/{locale}/{namespace}.json" }],
      }),
      "t/en/home.json": '{"a":"One text"}',
      "t/de/home.json": '{"a":"Ein Text"}',
      "t/de/old.json": '{"b":"Alter Text"}',
    });
    const project = reopened(files);
    expect(reconcile(files, project).summary).toEqual({ "keys set aside": 1 });
    expect(files.contents.has("t/de/old.json")).toBe(false);
    expect(files.contents.get("fond-ledger/app.de.attic.txt")).toContain("Alter Text");
    files.contents.set("t/en/old.json", '{"b":"Old text"}');
    reconcile(files, project);
    expect(files.contents.get("t/de/old.json")).toContain('"b": "Alter Text"');
  });

  test("a regional variant lacks nothing that its language has", async () => {
    const { files } = open();
    const config = JSON.parse(files.contents.get("fond.config.json") ?? "{}") as { targets: string[] };
    config.targets = ["de", "de-AT"];
    files.contents.set("fond.config.json", JSON.stringify(config));
    files.contents.set("texts/de-AT.json", '{\n  "home": {\n    "title": "Abfahrten heute"\n  }\n}\n');
    const opened = openProject(files);
    if (!opened.ok) throw new Error("the configuration is sound");
    expect(reconcileProject(opened.project, {}, day).changes.map(({ file }) => file)).not.toContain(
      "texts/de-AT.json",
    );
    expect((await lintProject(opened.project, {})).filter(({ rule }) => rule === "key/missing")).toEqual([]);
    expect(balanceProject(opened.project)[0]?.locales[1]).toMatchObject({
      locale: "de-AT",
      missing: 0,
      share: 1,
    });
  });
});

describe("the ledger", () => {
  test("a changed source makes translations stale until they are edited", async () => {
    const { files, project } = open();
    reconcile(files, project);
    files.contents.set(
      "texts/en.json",
      (files.contents.get("texts/en.json") ?? "").replace("Sailings", "All sailings"),
    );
    expect(reconcile(files, project).summary).toEqual({ "translations stale": 2 });
    const stale = async () =>
      (await lintProject(project)).filter(({ rule }) => rule === "text/stale").map(({ locale }) => locale);
    expect(await stale()).toEqual(["de", "pl"]);
    files.contents.set(
      "texts/de.json",
      (files.contents.get("texts/de.json") ?? "").replace("Abfahrten", "Alle Abfahrten"),
    );
    expect(await stale()).toEqual(["pl"]);
    reconcile(files, project);
    expect(
      balanceProject(project)[0]?.locales.map(({ locale, stale: count, share }) => [locale, count, share]),
    ).toEqual([
      ["de", 0, 1],
      ["pl", 1, 0.5],
    ]);
  });

  test("what a translation was made from is kept and shown beside the source of now", async () => {
    const { files, project } = open();
    reconcile(files, project);
    const change = (from: string, to: string) =>
      files.contents.set("texts/en.json", (files.contents.get("texts/en.json") ?? "").replace(from, to));
    change("Sailings", "All sailings");
    reconcile(files, project, "2026-03-02");
    change("All sailings", "Every sailing");
    reconcile(files, project, "2026-03-03");
    const kept = files.contents.get("fond-ledger/app.sources.txt") ?? "";
    expect(kept).toMatch(
      /home\.title\t\w{16}\t2026-03-01\tSailings\nhome\.title\t\w{16}\t2026-03-03\tEvery sailing\n/,
    );
    expect(outstandingIn(project).filter(({ locale }) => locale === "de")).toEqual([
      expect.objectContaining({
        key: "home.title",
        what: "stale",
        former: "Sailings",
        source: "Every sailing",
      }),
    ]);
    const [finding] = (await lintProject(project)).filter(({ rule }) => rule === "text/stale");
    expect(finding?.message).toContain('"Sailings"');
    expect(reviewProject(project, {}, ["home.title"], { sameMeaning: true, today: day })).toMatchObject({
      ok: true,
    });
    const reviewed = reviewProject(project, {}, ["home.*"], { sameMeaning: true, today: day });
    if (reviewed.ok) applyPlan(files, reviewed.plan);
    expect(outstandingIn(project)).toEqual([]);
    reconcile(files, project, "2026-03-04");
    expect(files.contents.get("fond-ledger/app.sources.txt")).not.toContain("\tSailings\n");
  });

  test("a review raises states, of what is translated only, and knows its keys", () => {
    const { files, project } = open({ "texts/de.json": '{ "home": { "title": "Abfahrten", "count": "" } }' });
    reconcile(files, project);
    const result = reviewProject(project, { locales: ["de"] }, ["home.*"], { state: "final", today: day });
    if (!result.ok) throw new Error(result.message);
    expect(result.plan.notes.map(({ message }) => message)).toEqual([expect.stringContaining("home.count")]);
    applyPlan(files, result.plan);
    expect(files.contents.get("fond-ledger/app.de.txt")).toMatch(/home\.title\tfinal/);
    expect(reviewProject(project, {}, ["home.titel"], { today: day })).toMatchObject({
      ok: false,
      remedy: 'did you mean "home.title"?',
    });
  });

  test("a key that was renamed in the source takes its translations and their states along", () => {
    const { files, project } = open();
    reconcile(files, project);
    const raised = (files.contents.get("fond-ledger/app.de.txt") ?? "").replaceAll(
      "\ttranslated\t",
      "\treviewed\t",
    );
    files.contents.set("fond-ledger/app.de.txt", raised);
    const source = files.contents.get("texts/en.json") ?? "";
    files.contents.set("texts/en.json", source.replace('"title"', '"heading"'));
    expect(reconcile(files, project).summary).toEqual({ "keys renamed": 2 });
    expect(files.contents.get("texts/de.json")).toContain('"heading": "Abfahrten"');
    expect(files.contents.get("fond-ledger/app.de.txt")).toMatch(/home\.heading\treviewed/);
    expect(files.contents.has("fond-ledger/app.de.attic.txt")).toBe(false);
  });

  test("where very many keys left and came, none is proposed, and that is said", () => {
    const texts = (name: string, words: string) =>
      en(
        Object.fromEntries(
          Array.from({ length: 400 }, (_, at) => [`${name}${at}`, `${words} number ${at} of today`]),
        ),
      );
    const { files, project } = open({
      "texts/en.json": texts("boat", "Boat"),
      "texts/de.json": texts("boat", "Boot"),
    });
    reconcile(files, project);
    files.contents.set("texts/en.json", texts("ferry", "Boats"));
    const { notes } = reconcile(files, project);
    expect(notes.filter(({ message }) => message.includes("too many to detect"))).toHaveLength(2);
    expect(notes.filter(({ message }) => message.includes("looks like"))).toEqual([]);
    expect(notes[0]).toMatchObject({
      message: expect.stringMatching(/^400 keys were added and 400 were removed/) as unknown as string,
    });
  });

  test("a key whose text is only alike is proposed, not assumed", () => {
    const { files, project } = open({
      "texts/en.json": en({ title: "All sailings of today from here", count: "x" }),
      "texts/de.json": en({ title: "Alle Abfahrten von heute", count: "y" }),
    });
    reconcile(files, project);
    files.contents.set("texts/en.json", en({ heading: "All the sailings of today from here", count: "x" }));
    const plan = reconcile(files, project);
    expect(plan.summary).toMatchObject({
      "keys added": 2,
      "keys set aside": expect.any(Number) as unknown as number,
    });
    expect(plan.notes[0]).toMatchObject({
      message: expect.stringContaining('"home.heading" looks like "home.title" renamed') as unknown as string,
      remedy: expect.stringContaining("fond rekey home.title home.heading") as unknown as string,
    });
  });

  test("a state stays until the text changes, and never rises by itself", () => {
    const { files, project } = open();
    reconcile(files, project);
    const raised = (files.contents.get("fond-ledger/app.de.txt") ?? "").replaceAll(
      "\ttranslated\t",
      "\treviewed\t",
    );
    files.contents.set("fond-ledger/app.de.txt", raised);
    expect(reconcile(files, project).changes).toEqual([]);
    files.contents.set(
      "texts/de.json",
      (files.contents.get("texts/de.json") ?? "").replace("Abfahrten", "Fahrten"),
    );
    reconcile(files, project);
    expect(files.contents.get("fond-ledger/app.de.txt")).toMatch(/home\.title\ttranslated/);
    expect(files.contents.get("fond-ledger/app.de.txt")).toMatch(/home\.count\treviewed/);
  });

  test("conflict markers and nonsense in it are repaired with a word", () => {
    const { files, project } = open();
    reconcile(files, project);
    const sound = files.contents.get("fond-ledger/app.de.txt") ?? "";
    files.contents.set("fond-ledger/app.de.txt", `<<<<<<< ours\n${sound}=======\nnonsense\n>>>>>>> theirs\n`);
    const plan = reconcile(files, project);
    expect(plan.notes.map(({ line }) => line)).toEqual([1, 5, 6, 7]);
    expect(files.contents.get("fond-ledger/app.de.txt")).toBe(sound);
  });

  test("without it states are worked out from the texts", () => {
    const { project } = open({ "texts/de.json": '{ "home": { "title": "Sailings", "count": "" } }' });
    expect(balanceProject(project)[0]?.locales[0]).toEqual({
      locale: "de",
      translated: 0,
      reviewed: 0,
      stale: 0,
      initial: 2,
      missing: 0,
      extra: 0,
      words: 3,
      share: 0,
    });
  });

  test("keys with tabs, line ends and marks survive it", () => {
    const odd = { "a\tb": "x y", "#c": "z", "d\\n": "w" };
    const { files, project } = open({
      "texts/en.json": JSON.stringify(odd),
      "texts/de.json": JSON.stringify({ ...odd, gone: "line\nline" }),
    });
    reconcile(files, project);
    expect(files.contents.get("fond-ledger/app.de.attic.txt")).toContain("line\\nline");
    expect(reconcile(files, project).changes).toEqual([]);
  });
});

test.each([
  ["ja", "{n, plural, one {# boat} other {# boats}}", "{n, plural, other {# boats}}"],
  [
    "ar",
    "{n, plural, =0 {none} one {# b} other {# bs}}",
    "{n, plural, =0 {none} one {# b} two {# bs} few {# bs} many {# bs} other {# bs}}",
  ],
  ["de", "{n, plural, =1 {a b} other {# bs}}", "{n, plural, =1 {a b} other {# bs}}"],
  [
    "ru",
    "{n, plural, =1 {a b} other {# bs}}",
    "{n, plural, =1 {a b} one {# bs} few {# bs} many {# bs} other {# bs}}",
  ],
  [
    "fr",
    "<b>{n, plural, one {# b} other {# bs}}</b>",
    "<b>{n, plural, one {# b} many {# bs} other {# bs}}</b>",
  ],
  ["de", "{n, plural, one {# b} other {# bs}}", "{n, plural, one {# b} other {# bs}}"],
  ["de", "{n, selectordinal, one {#st} other {#th}}", "{n, selectordinal, other {#th}}"],
  [
    "pl",
    "{g, select, a {{n, plural, one {x} other {y}}} other {z}}",
    "{g, select, a {{n, plural, one {x} few {y} many {y} other {y}}} other {z}}",
  ],
])("a plural for %s: %s", (locale, source, expected) => {
  expect(printIcu(scaffoldPlurals(parseIcu(source).nodes, locale))).toBe(expected);
});
