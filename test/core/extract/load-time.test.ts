import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { runInNewContext } from "node:vm";
import { memoryFiles } from "../../../src/core/files/memory-files.js";
import { extractProject } from "../../../src/core/project/extract-project.js";
import { openProject } from "../../../src/core/project/project.js";

/** Extracts a book of scripts in which `t` is known everywhere. */
async function extract(files: Readonly<Record<string, string>>, emit: object = {}) {
  const config = {
    source: "en",
    targets: [],
    books: [
      {
        name: "app",
        code: ["app/**"],
        files: "texts/{locale}.json",
        naming: { shape: "flat" },
        emit: { call: 't("{key}"{args})', ...emit },
      },
    ],
  };
  const project = openProject(
    memoryFiles({ "fond.config.json": JSON.stringify(config), "texts/en.json": "{}\n", ...files }),
  );
  if (!project.ok) throw new Error(JSON.stringify(project.problems));
  const plan = await extractProject(project.project, {}, { least: "unclear" });
  const after = Object.fromEntries(plan.changes.map(({ file, after: text }) => [file, text ?? ""]));
  return {
    after: { ...files, ...after },
    texts: JSON.parse(after["texts/en.json"] ?? "{}") as Record<string, string>,
    notes: plan.notes.map(({ message }) => message).join("\n"),
  };
}

describe("a constant that holds texts is read when it is shown", () => {
  test.each<[string, string, string]>([
    [
      "a member of an object becomes a getter",
      'const labels = {\n  open: "Open today",\n};\nexport const show = (x) => labels[x];\n',
      'const labels = {\n  get open() {\n    return t("a.openToday");\n  },\n};\nexport const show = (x) => labels[x];\n',
    ],
    [
      "also one inside of lists, and one that is a list",
      'const rows = [{ id: 1, name: "First boat here", hints: ["Look at it", 2] }];\nexport const show = () => rows;\n',
      'const rows = [{ id: 1, get name() { return t("a.firstBoatHere"); }, get hints() { return [t("a.lookAtIt"), 2]; } }];\nexport const show = () => rows;\n',
    ],
    [
      "a text becomes a function that its uses call",
      'const title = "Boats of the lake";\nexport const show = () => ({ title, head: title + "!" });\n',
      'const title = () => t("a.boatsLake");\nexport const show = () => ({ title: title(), head: title() + "!" });\n',
    ],
    [
      "and so does a list of texts; what hides its name is another",
      'const days = ["On Monday morning", "On Tuesday morning"];\nexport const show = (x) => days[x];\nexport const other = (days) => days;\n',
      'const days = () => [t("a.mondayMorning"), t("a.tuesdayMorning")];\nexport const show = (x) => days()[x];\nexport const other = (days) => days;\n',
    ],
  ])("%s", async (_, code, expected) => {
    const { after, notes } = await extract({ "app/a.js": code });
    expect(after["app/a.js"]).toBe(expected);
    expect(notes).toBe("");
    expect((await extract({ "app/a.js": expected })).after["app/a.js"]).toBe(expected);
  });

  test("with its type", async () => {
    const code = 'const days: readonly string[] = ["On Monday morning"];\nexport const show = () => days;\n';
    expect((await extract({ "app/a.ts": code })).after["app/a.ts"]).toContain(
      'const days: () => readonly string[] = () => [t("a.mondayMorning")];\nexport const show = () => days();',
    );
  });

  test("an exported object, where all that read it do so later", async () => {
    const labels = 'export const labels = { open: "Open today" };\n';
    const page = 'import { labels } from "./labels";\nexport const show = (x) => labels[x];\n';
    const { after, notes } = await extract({ "app/labels.js": labels, "app/page.js": page });
    expect(after["app/labels.js"]).toBe(
      'export const labels = { get open() { return t("labels.openToday"); } };\n',
    );
    expect(after["app/page.js"]).toBe(page);
    expect(notes).toBe("");
  });

  test.each<[string, string, string]>([
    [
      "./labels",
      "export const show = (x) => days[x] + title;",
      "export const show = (x) => days()[x] + title();",
    ],
    [
      "./labels.js",
      "export function f() { return { days, title }; }",
      "export function f() { return { days: days(), title: title() }; }",
    ],
    [
      "@/labels",
      "export const f = (title) => [days, title];\nexport const g = () => title;",
      "export const f = (title) => [days(), title];\nexport const g = () => title();",
    ],
    [
      "./labels",
      "export const f = () => g`${days} ${title}`;",
      "export const f = () => g`${days()} ${title()}`;",
    ],
    [
      "./labels",
      "export const f = ({ head = days, ...rest }) => [head, rest, title];",
      "export const f = ({ head = days(), ...rest }) => [head, rest, title()];",
    ],
  ])("an exported text or list, and its uses by way of %s: %s", async (way, uses, expected) => {
    const labels = 'export const title = "Boats of the lake";\nexport const days = ["On Monday morning"];\n';
    const head = `import { days, title } from "${way}";\n`;
    const { after, notes } = await extract({
      "app/labels.js": labels,
      "app/page.js": `\uFEFF${head}${uses}\n`,
    });
    expect(notes).toBe("");
    expect(after["app/labels.js"]).toBe(
      'export const title = () => t("labels.boatsLake");\nexport const days = () => [t("labels.mondayMorning")];\n',
    );
    expect(after["app/page.js"]).toBe(`${head}${expected}\n`);
  });

  test("what takes it may hold texts of its own", async () => {
    const { after } = await extract({
      "app/a.js": 'export const title = "Boats of the lake";\n',
      "app/b.js":
        'import { title } from "./a";\nexport const f = () => say("Look at the lake", `See ${title} now`);\n',
    });
    expect(after["app/b.js"]).toContain('say(t("b.lookLake"), t("b.seeNowTitle", { title: title() }))');
  });

  test("a static field of a class", async () => {
    const { after, notes } = await extract({
      "app/a.ts":
        'export class Boat {\n  static readonly title: string = "Boats of the lake";\n  static words = ["Ahoy there", 2];\n}\n',
      "app/b.ts": 'import { Boat } from "./a";\nexport const f = () => Boat.title;\n',
    });
    expect(notes).toBe("");
    expect(after["app/a.ts"]).toBe(
      'export class Boat {\n  static get title(): string { return t("a.boatsLake"); }\n  static get words() { return [t("a.ahoyThere"), 2]; }\n}\n',
    );
    expect(after["app/b.ts"]).toContain("Boat.title;");
  });
});

describe("a constant stays, with the reason", () => {
  test.each<[string, Record<string, string>, RegExp]>([
    [
      "read while the file is loaded",
      { "app/a.js": 'const labels = { open: "Open today" };\nexport const first = labels.open;\n' },
      /"labels" is read in line 2 while files are loaded/,
    ],
    [
      "read by a function that is called at once",
      {
        "app/a.js":
          'const labels = { open: "Open today" };\nexport const all = ["open"].map((one) => labels[one]);\n',
      },
      /is read in line 2/,
    ],
    [
      "read by another file while that is loaded",
      {
        "app/a.js": 'export const labels = { open: "Open today" };\n',
        "app/b.js": 'import { labels } from "./a";\nexport const copy = { ...labels };\n',
      },
      /is read in app\/b\.js/,
    ],
    [
      "taken by another file under a name of its own",
      {
        "app/a.js": 'export const labels = { open: "Open today" };\n',
        "app/b.js": 'import { labels as own } from "./a";\nexport const f = () => own.open;\n',
      },
      /is read in app\/b\.js/,
    ],
    [
      "read by nobody that is known",
      { "app/a.js": 'export const metadata = { title: "Boats of the lake" };\n' },
      /nothing in this book reads it/,
    ],
    ...[
      'import * as all from "./a";\nexport const f = () => all.title;\n',
      'export { title } from "./a";\n',
      'export * from "./a";\nexport const f = (title) => title;\n',
      'import { title } from "./through";\nexport const f = () => title;\n',
      "export const f = () => title;\n",
      'import { title } from "./a";\nexport const f = () => <title />;\n',
      'import { title } from "./a";\nexport const f = () => useMemo(() => title, [title]);\n',
    ].map((code): [string, Record<string, string>, RegExp] => [
      `a text that another file reads so: ${code}`,
      { "app/a.js": 'export const title = "Boats of the lake";\n', "app/b.jsx": code },
      /other files read it as it is|read in app|nothing in this book reads it/,
    ]),
    [
      "a text that a component's page may show",
      {
        "app/a.js": 'export const title = "Boats of the lake";\n',
        "app/B.vue":
          '<script setup>\nimport { title } from "./a";\nconst f = () => title;\n</script>\n<template><p>{{ title }}</p></template>\n',
      },
      /other files read it as it is/,
    ],
    [
      "a static field that the program sets",
      {
        "app/a.js":
          'class Boat { static title = "Boats of the lake"; }\nexport const f = () => { Boat.title = ""; };\n',
      },
      /"Boat\.title" is used in app\/a\.js/,
    ],
    [
      "a static field of a class that something takes at once",
      { "app/a.js": 'class Boat { static title = "Boats of the lake"; }\nregister(Boat);\n' },
      /"Boat" is read in line 2/,
    ],
    [
      "a list that an effect waits for",
      {
        "app/a.js":
          'const days = ["On Monday morning"];\nexport function useDays() { useEffect(() => {}, [days]); }\n',
      },
      /where a call cannot stand for it/,
    ],
    [
      "a type that goes by it",
      {
        "app/a.ts":
          'const days = ["On Monday morning"];\ntype Days = typeof days;\nexport const f = (): Days => days;\n',
      },
      /in line 2 where a call cannot stand/,
    ],
    [
      "made by a call",
      { "app/a.js": 'const labels = make({ open: "Open today" });\nexport const f = () => labels.open;\n' },
      /evaluated when the file is loaded/,
    ],
  ])("%s", async (_, files, reason) => {
    const { after, notes } = await extract(files);
    for (const [file, code] of Object.entries(files)) expect(after[file]).toBe(code);
    expect(notes).toMatch(reason);
  });

  test("where lookups need a line in a component", async () => {
    const code = 'const labels = { open: "Open today" };\nexport const f = (x) => labels[x];\n';
    const setup = { setup: "const { t } = useTexts();", import: 'import { useTexts } from "./texts";' };
    const { after, notes } = await extract({ "app/a.js": code }, setup);
    expect(after["app/a.js"]).toBe(code);
    expect(notes).toMatch(/no component or hook encloses it/);
  });
});

test("whatever data a constant holds, a program reads the same from it", async () => {
  const text = fc.constantFrom("Open today", "Closed until May", "Boats of the lake", "Not before eight");
  const { data } = fc.letrec((tie) => ({
    data: fc.oneof(
      { maxDepth: 3 },
      text,
      fc.integer({ min: 0, max: 9 }),
      fc.array(tie("data"), { maxLength: 3 }),
      fc.dictionary(fc.constantFrom("name", "label", "rows", "a-b"), tie("data"), { maxKeys: 3 }),
    ),
  }));
  let moved = 0;
  await fc.assert(
    fc.asyncProperty(data, async (value) => {
      const code = `const held = ${JSON.stringify(value)};\nfunction show() { return JSON.stringify([held, 1]); }\n`;
      const { after, texts } = await extract({ "app/a.js": code });
      const run = (script: string) =>
        runInNewContext(`${script}\nshow()`, { t: (key: string) => texts[key] }) as string;
      expect(run(after["app/a.js"] ?? "")).toBe(run(code));
      moved += Object.keys(texts).length;
    }),
    { numRuns: 150 },
  );
  expect(moved).toBeGreaterThan(20);
});
