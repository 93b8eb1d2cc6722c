import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { formatOf } from "../../../src/core/catalog/formats/index.js";
import type { PathText } from "../../../src/core/catalog/model.js";
import { memoryFiles } from "../../../src/core/files/memory-files.js";
import { rules } from "../../../src/core/lint/rules/index.js";
import { applyPlan } from "../../../src/core/plan/apply.js";
import { fixProject, lintProject } from "../../../src/core/project/lint-project.js";
import { openProject, type Project } from "../../../src/core/project/project.js";

const named = (id: string) => rules.filter((rule) => rule.id === id);

/** A project of one book in memory; `open` reads it anew. */
function projectOf(ending: string, book: Record<string, unknown>, texts: Record<string, string>) {
  const config = {
    source: "en",
    targets: ["de"],
    books: [{ name: "app", code: [], files: `t/{locale}.${ending}`, ...book }],
  };
  const files = memoryFiles({ "fond.config.json": JSON.stringify(config), ...texts });
  const open = (): Project => {
    const opened = openProject(files);
    if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
    return opened.project;
  };
  return { files, open };
}

/** Mends the German file of a book by the rule of order; its text afterwards, and what the plan says of it. */
async function ordered(ending: string, order: string, en: string, de: string) {
  const { files, open } = projectOf(ending, { order }, { [`t/en.${ending}`]: en, [`t/de.${ending}`]: de });
  const plan = await fixProject(open(), { locales: ["de"] }, named("file/order"));
  applyPlan(files, plan);
  const left = await lintProject(open(), { locales: ["de"] }, named("file/order"));
  return { text: files.contents.get(`t/de.${ending}`), notes: plan.notes.length, left: left.length };
}

describe("keys out of order are moved", () => {
  test.each<[string, string, string, string, string, string]>([
    [
      "in JSON, to where the source has them",
      "json",
      "source",
      '{\n  "a": "A",\n  "b": "B",\n  "c": "C"\n}\n',
      '{\n  "c": "Z",\n  "a": "X",\n  "b": "Y"\n}\n',
      '{\n  "a": "X",\n  "b": "Y",\n  "c": "Z"\n}\n',
    ],
    [
      "in groups of JSON, whole groups too",
      "json",
      "alphabet",
      "{}",
      '{\n  "z": {\n    "b": "1",\n    "a": "2"\n  },\n  "m": "3"\n}\n',
      '{\n  "m": "3",\n  "z": {\n    "a": "2",\n    "b": "1"\n  }\n}\n',
    ],
    [
      "with the comments above them",
      "properties",
      "source",
      "first=1\nsecond=2\nthird=3\n",
      "second=Zwei\nthird=Drei\n# of the first\nfirst=Eins\n",
      "# of the first\nfirst=Eins\nsecond=Zwei\nthird=Drei\n",
    ],
    [
      "in YAML",
      "yaml",
      "source",
      "menu:\n  open: Open\n  close: Close\n",
      "menu:\n  # shuts it\n  close: Zu\n  open: Auf\n",
      "menu:\n  open: Auf\n  # shuts it\n  close: Zu\n",
    ],
    [
      "but those that the source lacks stay",
      "json",
      "source",
      '{ "a": "A", "b": "B" }',
      '{\n  "b": "Y",\n  "own": "O",\n  "a": "X"\n}\n',
      '{\n  "own": "O",\n  "a": "X",\n  "b": "Y"\n}\n',
    ],
  ])("%s", async (_, ending, order, en, de, expected) => {
    const { text, left, notes } = await ordered(ending, order, en, de);
    expect(text).toBe(expected);
    expect([left, notes]).toEqual([0, 0]);
  });

  test("unless a comment beside a value would be lost: the file stays, and the plan says so", async () => {
    const de = "b: Y # beside\na: X # too\n";
    expect(await ordered("yaml", "source", "a: A\nb: B\n", de)).toEqual({ text: de, notes: 1, left: 1 });
  });

  test("with plural forms that are keys of their own, in a file of all locales", async () => {
    const { files, open } = projectOf(
      "yaml",
      {
        files: "t/all.yaml",
        root: "{locale}",
        order: "source",
        syntax: "percent-brace",
        plurals: "branches",
      },
      {
        "t/all.yaml":
          "en:\n  bye: Bye\n  boats:\n    one: A boat\n    other: Boats\n" +
          "de:\n  boats:\n    one: Ein Boot\n    other: Boote\n  # for good\n  bye: Ade\n",
      },
    );
    applyPlan(files, await fixProject(open(), {}, named("file/order")));
    const [, german] = (files.contents.get("t/all.yaml") ?? "").split("de:\n");
    expect(german).toBe("  # for good\n  bye: Ade\n  boats:\n    one: Ein Boot\n    other: Boote\n");
    expect(await lintProject(open(), {}, named("file/order"))).toEqual([]);
  });

  test("and of as few as can be is told", async () => {
    const { open } = projectOf(
      "json",
      { order: "source" },
      {
        "t/en.json": '{ "a": "A", "b": "B", "c": "C", "d": "D" }',
        "t/de.json": '{ "b": "2", "c": "3", "a": "1", "d": "4" }',
      },
    );
    expect(
      (await lintProject(open(), {}, named("file/order"))).map(({ message, remedy }) => [message, remedy]),
    ).toEqual([['key "a" is out of order', 'move it before "b"; `fond lint --fix` does']]);
  });

  test("as few as can be, in any order", async () => {
    const names = ["a", "b", "c", "d", "e", "f"];
    const textOf = (list: readonly string[]) =>
      JSON.stringify(Object.fromEntries(list.map((one) => [one, one])));
    /** The longest list of names that stand in order, by looking at every choice of them. */
    const longest = (list: readonly string[]) => {
      let most = 0;
      for (let choice = 0; choice < 1 << list.length; choice++) {
        const chosen = list.filter((_, index) => (choice & (1 << index)) !== 0);
        if (chosen.every((one, index) => index === 0 || one > (chosen[index - 1] ?? "")))
          most = Math.max(most, chosen.length);
      }
      return most;
    };
    await fc.assert(
      fc.asyncProperty(fc.shuffledSubarray(names, { minLength: 2 }), async (list) => {
        const { open } = projectOf(
          "json",
          { order: "source" },
          { "t/en.json": textOf(names), "t/de.json": textOf(list) },
        );
        const [found, ...others] = await lintProject(open(), {}, named("file/order"));
        expect(others).toEqual([]);
        const moved = found?.fix && "move" in found.fix ? found.fix.move : [];
        expect(moved.length).toBe(list.length - longest(list));
        const kept = list.filter((one) => !moved.includes(one));
        expect(kept).toEqual(kept.toSorted());
      }),
      { numRuns: 200 },
    );
  });

  test("in random catalogs of each format, without a text lost", async () => {
    const name = fc.constantFrom("a", "b", "c", "d", "e");
    const paths = fc.uniqueArray(
      fc.oneof(
        name.map((one) => [`t${one}`]),
        fc.tuple(name, name).map(([group, one]) => [`g${group}`, one]),
      ),
      { maxLength: 12, selector: (path) => path.join(".") },
    );
    await fc.assert(
      fc.asyncProperty(
        fc.constantFrom("json", "yaml", "properties"),
        paths.chain((list) =>
          fc.tuple(
            fc.shuffledSubarray(list, { minLength: list.length }),
            fc.shuffledSubarray(list, { minLength: list.length }),
          ),
        ),
        fc.constantFrom("source", "alphabet"),
        async (ending, [en, de], order) => {
          const format = formatOf({ files: `x.${ending}` });
          if (!format) throw new Error(ending);
          const write = (list: readonly string[][]) =>
            format.edit(format.empty, {
              add: list.map((path): PathText => ({
                path: !format.nests ? [path.join(".")] : path,
                text: `Text ${path.join(" ")}`,
              })),
            });
          const { text, left, notes } = await ordered(ending, order, write(en), write(de));
          expect([left, notes]).toEqual([0, 0]);
          const textsOf = (written: string) =>
            format
              .read(written, ".")
              .entries.map(({ key, text: said }) => `${key}=${said}`)
              .toSorted();
          expect(textsOf(text ?? "")).toEqual(textsOf(write(de)));
        },
      ),
      { numRuns: 200 },
    );
  });
});

describe("keys that no code asks for", () => {
  const project = () =>
    projectOf(
      "json",
      { code: ["*.tsx"], lookups: [{ call: "t" }] },
      {
        "t/en.json": '{\n  "title": "Boats",\n  "old": "Timetable"\n}\n',
        "t/de.json": '{\n  "title": "Boote",\n  "old": "Fahrplan"\n}\n',
        "page.tsx": 'export const title = () => t("title");\n',
      },
    );

  test("are removed from the source where the rule is named", async () => {
    const { files, open } = project();
    applyPlan(files, await fixProject(open(), {}, named("key/unused")));
    expect(files.contents.get("t/en.json")).toBe('{\n  "title": "Boats"\n}\n');
    expect(files.contents.get("t/de.json")).toContain("Fahrplan");
  });

  test("are not removed where a file of code cannot be read", async () => {
    const { files, open } = project();
    files.contents.set("broken.tsx", "export const = (;\n");
    expect((await fixProject(open(), {}, named("key/unused"))).changes).toEqual([]);
  });

  test("stay where it is not", async () => {
    const { open } = project();
    expect((await fixProject(open())).changes).toEqual([]);
  });

  test("stay where a lookup takes its key from a variable", async () => {
    const { files, open } = project();
    files.contents.set("page.tsx", 'export const title = (key) => t("title") + t(key);\n');
    expect((await lintProject(open(), {}, named("key/unused"))).length).toBe(1);
    expect((await fixProject(open(), {}, named("key/unused"))).changes).toEqual([]);
  });
});
