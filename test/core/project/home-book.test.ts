import { describe, expect, test } from "@jest/globals";
import { memoryFiles } from "../../../src/core/files/memory-files.js";
import { extractProject } from "../../../src/core/project/extract-project.js";
import { openProject } from "../../../src/core/project/project.js";
import { explainProject, surveyProject } from "../../../src/core/project/survey-project.js";

const shown = 'export const f = () => alert("The boat is late today");\n';

/** A project of two books with a call each. */
function project(one: object, two: object, code: Record<string, string>) {
  const emit = (name: string) => ({
    lookups: [{ call: name }],
    emit: { call: `${name}("{key}"{args})`, import: `import { ${name} } from "${name}";` },
  });
  const books = [
    { name: "one", code: ["**/*.js"], files: "one/{locale}.json", ...emit("say"), ...one },
    { name: "two", code: ["**/*.js"], files: "two/{locale}.json", ...emit("tell"), ...two },
  ];
  const files = memoryFiles({
    "fond.config.json": JSON.stringify({ source: "en", targets: [], books }),
    "one/en.json": "{}",
    "two/en.json": "{}",
    "two/t/en.json": "{}",
    ...code,
  });
  const opened = openProject(files);
  if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
  return opened.project;
}

describe("a text in a file that two books name goes into one of them", () => {
  test.each<[string, object, object, string, string]>([
    ["the first", {}, {}, "src/a.js", "one"],
    ["that with the nearer catalogs", {}, {}, "two/a.js", "two"],
    [
      "that with the nearer catalogs, however deep",
      {},
      { files: "two/t/{locale}.json" },
      "two/t/x/a.js",
      "two",
    ],
    [
      "that of the part that the file is in, and not one beside it",
      { files: "src/lang/{locale}.json" },
      { files: "src/parts/crop/all/{locale}.json" },
      "src/parts/a.js",
      "one",
    ],
    ["that of the innermost part", {}, { files: "src/parts/lang/{locale}.json" }, "src/parts/a.js", "two"],
    ["that whose code patterns say more", {}, { code: ["src/**/*.js"] }, "src/a.js", "two"],
    ["the only one", { code: ["lib/**"] }, {}, "src/a.js", "two"],
    ["the only one that does not ignore it", { ignore: ["src/**"] }, {}, "src/a.js", "two"],
  ])("%s", async (_, one, two, file, home) => {
    const opened = project(one, two, { [file]: shown });
    const { files } = await surveyProject(opened);
    expect(files.flatMap(({ literals }) => literals.map(({ book }) => book))).toEqual([home]);
    expect((await explainProject(opened, file, 1)).map(({ book }) => book)).toEqual([home]);
    const plan = await extractProject(opened);
    const name = home === "one" ? "say" : "tell";
    expect(plan.changes.map((change) => change.file).filter((one) => one.endsWith(".js"))).toEqual([file]);
    expect(plan.changes.find((change) => change.file === file)?.after).toContain(`${name}("`);
    // Looked at by itself the other book has nothing there.
    const other = home === "one" ? "two" : "one";
    expect(
      (await surveyProject(opened, { books: [other] })).files.flatMap(({ literals }) => literals),
    ).toEqual([]);
  });

  test("what the other book's call is given is none of its texts", async () => {
    const opened = project(
      {},
      {},
      { "src/a.js": `${shown}export const g = () => alert(tell("The boat at the quay"));\n` },
    );
    const { files } = await surveyProject(opened);
    expect(files.flatMap(({ literals }) => literals.map(({ text }) => text))).toEqual([
      "The boat is late today",
    ]);
  });
});
