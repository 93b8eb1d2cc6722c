import { afterAll, expect, test } from "@jest/globals";
import { createRequire } from "node:module";
import { cpSync } from "node:fs";
import { join } from "node:path";
import { cleanUp, fond, root, smallProject, temporaryProject } from "../support/project.js";

/** The schema of SARIF 2.1.0 (OASIS), as a package for tests carries it. */
const require = createRequire(import.meta.url);
const Ajv = require("ajv") as new (options: object) => {
  addMetaSchema(schema: object): void;
  compile(schema: object): ((log: unknown) => boolean) & { errors?: readonly unknown[] };
};
const ajv = new Ajv({ schemaId: "auto", allErrors: true, unknownFormats: ["uri", "uri-reference"] });
ajv.addMetaSchema(require("ajv/lib/refs/json-schema-draft-04.json") as object);
const isSarif = ajv.compile(require("@microsoft/jest-sarif/lib/schemas/sarif-2.1.0-rtm.5.json") as object);

afterAll(cleanUp);

interface Log {
  readonly runs: readonly [
    {
      readonly results: readonly {
        readonly fixes?: readonly unknown[];
        readonly locations: readonly { physicalLocation: { artifactLocation: { uri: string } } }[];
      }[];
    },
  ];
}

async function logOf(folder: string): Promise<Log> {
  const log: unknown = JSON.parse((await await fond(folder, "lint", "--format", "sarif")).stdout);
  expect(isSarif(log) ? [] : isSarif.errors).toEqual([]);
  return log as Log;
}

test("the sample project's findings and repairs are a valid log", async () => {
  const folder = temporaryProject();
  cpSync(join(root, "demo", "ferries"), folder, { recursive: true });
  const { results } = (await logOf(folder)).runs[0];
  expect(results.length).toBeGreaterThan(10);
  expect(results.some(({ fixes }) => fixes !== undefined)).toBe(true);
});

test("so is a log without findings", async () => {
  expect((await logOf(temporaryProject(smallProject()))).runs[0].results).toEqual([]);
});

test("so is one of files that no address could name as they are, or that cannot be read", async () => {
  const config = {
    source: "en",
    targets: ["de"],
    books: [{ name: "a", files: "texts of us/100 %/{locale}.json", code: [] }],
  };
  const { results } = (
    await logOf(
      temporaryProject({
        "fond.config.json": JSON.stringify(config),
        "texts of us/100 %/en.json": '{ "a": "One {n}", "b": "Two" }\n',
        "texts of us/100 %/de.json": '{ "a": "Eins", "c"',
      }),
    )
  ).runs[0];
  expect(results.length).toBeGreaterThan(0);
  for (const { locations } of results)
    for (const { physicalLocation } of locations)
      expect(decodeURIComponent(physicalLocation.artifactLocation.uri)).toMatch(
        /^texts of us\/100 %\/\w+\.json$/,
      );
});

test("the schema is asked in earnest", () => {
  expect(isSarif({ version: "2.1.0", runs: [{ results: [] }] })).toBe(false);
});
