import { afterAll, expect, test } from "@jest/globals";
import { cleanUp, fond, smallProject, temporaryProject } from "../support/project.js";

afterAll(cleanUp);

const line = (stdout: string, name: string) =>
  stdout
    .split("\n")
    .find((one) => one.startsWith(name))
    ?.slice(name.length)
    .trim();

test("alone, the program shows what there is and what to run next", async () => {
  const folder = temporaryProject(
    smallProject({
      "src/page.tsx": "export const Page = () => <p>Boats leave every morning</p>;\n",
      "texts/de.json": '{ "home": { "title": "Abfahrten" } }\n',
    }),
  );
  const { status, stdout, stderr } = await fond(folder);
  expect(status).toBe(0);
  expect(stderr).toBe("");
  expect(line(stdout, "Book")).toBe("app: 2 keys in texts/{locale}.json");
  expect(line(stdout, "Translated")).toBe("de 50 %, pl 100 %");
  expect(line(stdout, "Left in code")).toBe("1 text for sure, 0 likely, in 2 files");
  expect(line(stdout, "Findings")).toContain("1 error");
  expect(line(stdout, "Next")).toBe("`fond lint`");
  expect(stdout.trim().split("\n").length).toBeLessThanOrEqual(10);
});

test.each<[string, Record<string, string>, string]>([
  [
    "text in code",
    { "src/page.tsx": "export const Page = () => <p>Boats leave at ten</p>;\n" },
    "`fond extract`",
  ],
  ["nothing to do", {}, "nothing: all is in order"],
])("the next step with %s", async (_, more, next) => {
  const { stdout } = await fond(temporaryProject(smallProject(more)));
  expect(line(stdout, "Next")).toBe(next);
});

test("without a configuration it is what init would write, and init is next", async () => {
  const rest = Object.entries(smallProject()).filter(([file]) => file !== "fond.config.json");
  const { stdout, stderr } = await fond(temporaryProject(Object.fromEntries(rest)));
  expect(stderr).toContain("No configuration: reading texts/{locale}.json");
  expect(line(stdout, "Next")).toBe("`fond init`");
});

test("in a folder with nothing to read it is the help", async () => {
  const { status, stdout } = await fond(temporaryProject({ "notes.txt": "" }));
  expect(status).toBe(0);
  expect(stdout).toContain("Usage: fond");
});
