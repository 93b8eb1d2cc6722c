import { describe, expect, test } from "@jest/globals";
import { extractProject } from "../../../src/core/project/extract-project.js";
import { memoryProject } from "../../support/memory-project.js";

/** What becomes of the source catalogs of a book when the texts of some files move. */
async function moved(
  catalogs: Readonly<Record<string, object>>,
  files: Readonly<Record<string, string>>,
  book: object = {},
): Promise<Record<string, unknown>> {
  const texts = Object.entries(catalogs).map(
    ([name, all]) => [`t/en/${name}.json`, JSON.stringify(all)] as const,
  );
  const project = memoryProject(
    { files: "t/{locale}/{name}.json", code: ["src/**"], emit: { call: 't("{key}"{args})' }, ...book },
    { ...Object.fromEntries(texts), ...files },
  );
  const plan = await extractProject(project);
  return Object.fromEntries(
    plan.changes.flatMap(({ file, after }) =>
      after !== undefined && file.startsWith("t/") ? [[file, JSON.parse(after) as unknown]] : [],
    ),
  );
}

const page = (text: string) => `export const Page = () => <p>${text}</p>;\n`;

describe("a key in a book whose catalogs are one to code", () => {
  const apart = {
    quay: { quay: { open: "Open" } },
    boats: { boats: { late: "Late" } },
    tide: { tide: { low: "Low" } },
  };

  test("goes to the file that has its group", async () => {
    const mixed = { ...apart, more: { other: { a: "A" }, and: { b: "B" } } };
    expect(await moved(mixed, { "src/boats.tsx": page("Boats leave at noon") })).toEqual({
      "t/en/boats.json": { boats: { late: "Late", boatsLeaveNoon: "Boats leave at noon" } },
    });
  });

  test("goes to a new file where each is called as its group", async () => {
    expect(await moved(apart, { "src/crew.tsx": page("Boats leave at noon") })).toEqual({
      "t/en/crew.json": { crew: { boatsLeaveNoon: "Boats leave at noon" } },
    });
  });

  test.each<[string, Readonly<Record<string, object>>]>([
    [
      "one file has groups of other names",
      { ...apart, tide: { tide: { low: "Low" }, moon: { full: "Full" } } },
    ],
    ["there are too few to tell", { quay: apart.quay, boats: apart.boats }],
  ])("goes to the book's home where %s", async (_, catalogs) => {
    const found = await moved(
      catalogs,
      { "src/crew.tsx": page("Boats leave at noon") },
      { naming: { home: "quay" } },
    );
    expect(found).toEqual({
      "t/en/quay.json": { quay: { open: "Open" }, crew: { boatsLeaveNoon: "Boats leave at noon" } },
    });
  });

  test("goes to a file elsewhere that has its group in a group, where those near have none", async () => {
    const catalogs = { "t/en.yml": "en:\n  quay:\n    crew:\n      title: Crew\n  boats: Boats\n" };
    const near = Object.fromEntries(
      ["one", "two"].map((name) => [`src/${name}/t/en.yml`, `en:\n  ${name}:\n    a: A\n`]),
    );
    const project = memoryProject(
      {
        files: "{dir}/t/{name}.yml",
        root: "{locale}",
        code: ["src/**"],
        naming: { pattern: "quay.{file}.{slug}" },
        emit: { call: 't("{key}"{args})' },
      },
      { "lib/t/en.yml": catalogs["t/en.yml"], ...near, "src/three/crew.tsx": page("Boats leave at noon") },
    );
    const plan = await extractProject(project);
    expect(plan.changes.map(({ file }) => file).sort()).toEqual(["lib/t/en.yml", "src/three/crew.tsx"]);
  });

  test("goes nowhere where several files have its group and none is home", async () => {
    const both = { quay: { quay: { open: "Open" } }, more: { quay: { shut: "Shut" } } };
    expect(await moved(both, { "src/quay.tsx": page("Boats leave at noon") })).toEqual({});
  });
});

describe("the group of a key", () => {
  test.each<[string, readonly string[], string, string]>([
    ["the group that has its words", ["crewList", "home", "boat"], "src/crew-list.tsx", "crewList"],
    [
      "most groups are written",
      ["quay_plan", "tide_table", "boat_list", "home"],
      "src/crew-list.tsx",
      "crew_list",
    ],
    ["classes are", ["Quay", "TideTable", "Boats"], "src/crew-list.tsx", "CrewList"],
    ["keys are, where groups are of one word", ["quay", "tide", "boats"], "src/crew-list.tsx", "crewList"],
    [
      "keys are, where groups differ",
      ["quay_plan", "tide_table", "boatList", "crewMember"],
      "src/late-list.tsx",
      "lateList",
    ],
  ])("is called as %s", async (_, groups, file, expected) => {
    const texts = Object.fromEntries(groups.map((group, at) => [group, { text: `Text ${at}` }]));
    const found = await moved({ all: texts }, { [file]: page("Boats leave at noon") });
    expect(found).toEqual({
      "t/en/all.json": expect.objectContaining({
        [expected]: expect.objectContaining({ boatsLeaveNoon: "Boats leave at noon" }) as unknown,
      }) as unknown,
    });
  });
});
