import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { cpSync } from "node:fs";
import { join } from "node:path";
import { cleanUp, fond, root, temporaryProject } from "../support/project.js";

afterAll(cleanUp);

describe("fond trace", () => {
  let folder = "";
  beforeAll(() => {
    folder = temporaryProject();
    cpSync(join(root, "demo/ferries"), folder, { recursive: true });
  });

  test("shows text, state, record and place in every locale, the lookups, and what changed in the source", async () => {
    const { stdout, status } = await fond(folder, "trace", "fares.checkIn");
    expect(status).toBe(0);
    expect(stdout).toContain("de  stale");
    expect(stdout).toContain("source since: [-On Saturdays check-][+Check+]-in");
    expect(stdout).toContain("person, 2026-09-14");
    expect(stdout).toMatch(/web\/pages\/fares\.tsx:8:\d+ {2}<p>\{t\("fares\.checkIn"/);
    expect(stdout).toContain("text/stale");
    expect(stdout).toContain("from en, as ja → en are asked");
  });

  test("gives the same as JSON, of one locale, and near keys for one that is not there", async () => {
    const { stdout } = await fond(folder, "trace", "fares.checkIn", "--locale", "ja", "--format", "json");
    const { keys } = JSON.parse(stdout) as {
      keys: { locales: { state: string; from?: string }[]; uses: object[] }[];
    };
    expect(keys[0]?.locales).toMatchObject([
      { locale: "ja", state: "missing", from: "en", chain: ["ja", "en"] },
    ]);
    expect(keys[0]?.uses).toHaveLength(1);
    const wrong = await fond(folder, "trace", "fares.chekIn");
    expect(wrong).toMatchObject({ status: 2 });
    expect(wrong.stderr).toContain("did you mean fares.checkIn");
  });

  test("says where code does not ask for a key", async () => {
    expect((await fond(folder, "trace", "common.nav.timetable")).stdout).toContain(
      "Code does not ask for it",
    );
  });
});
