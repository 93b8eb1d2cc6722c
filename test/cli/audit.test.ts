import { afterAll, beforeEach, describe, expect, test } from "@jest/globals";
import { readFileSync, readdirSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { cleanUp, fond, smallProject, temporaryProject } from "../support/project.js";

afterAll(cleanUp);

let folder = "";
const files = smallProject();
const config = JSON.parse(files["fond.config.json"] ?? "") as object;
const policy = (audit: object) => {
  writeFileSync(join(folder, "fond.config.json"), JSON.stringify({ ...config, audit }));
};
beforeEach(() => {
  folder = temporaryProject(files);
});

async function verdict(...options: string[]) {
  const { stdout, status } = await fond(folder, "audit", "--format", "json", "--no-cache", ...options);
  const { against, told } = JSON.parse(stdout) as {
    against: { message: string }[];
    told: { message: string }[];
  };
  return { status, against: against.map(({ message }) => message), told: told.map(({ message }) => message) };
}

describe("fond audit", () => {
  test("is in order where everything is there", async () => {
    expect(await verdict()).toEqual({ status: 0, against: [], told: [] });
    const { stdout } = await fond(folder, "audit");
    expect(stdout).toContain("Ready for a release");
  });

  test("says what stands against it, the worst first, and what to run", async () => {
    writeFileSync(join(folder, "texts/pl.json"), '{ "home": { "title": "Rejsy" } }\n');
    writeFileSync(
      join(folder, "texts/de.json"),
      '{ "home": { "title": "Abfahrten", "count": "{m, plural, one {# Schiff} other {# Schiffe}}" } }\n',
    );
    const { status, against } = await verdict();
    expect(status).toBe(1);
    expect(against).toEqual([
      "de: 1 error",
      "pl: 1 error",
      "pl: 50 % of app is translated, and 100 % is wanted; 2 words to do",
    ]);
    const { stdout } = await fond(folder, "audit");
    expect(stdout).toContain("Run next: fond lint --locale de");
  });

  test("goes by the policy: shares, stale ones, reviews, warnings, and locales in beta", async () => {
    writeFileSync(join(folder, "texts/pl.json"), '{ "home": { "title": "Rejsy" } }\n');
    policy({ beta: ["pl"] });
    expect(await verdict()).toMatchObject({
      status: 0,
      against: [],
      told: expect.arrayContaining(["pl: 1 error"]) as unknown,
    });
    policy({ locales: { de: { reviewed: 0.5 } }, beta: ["pl"] });
    expect((await verdict()).against).toEqual(["de: 0 % of app is reviewed, and 50 % is wanted"]);
    await fond(folder, "review", "home.title", "--locale", "de", "--write");
    expect((await verdict()).against).toEqual([]);
    writeFileSync(
      join(folder, "texts/en.json"),
      (files["texts/en.json"] ?? "").replace("Sailings", "All sailings"),
    );
    expect((await verdict()).against).toContain("de: 1 translation of app stale, and 0 allowed");
    policy({ locales: { de: { reviewed: 0, stale: 1, translated: 0.5 } }, beta: ["pl"] });
    expect((await verdict()).against).toEqual([]);
    policy({ failing: "warning", locales: { de: { stale: 1, translated: 0.5 } }, beta: ["pl"] });
    expect((await verdict()).against).toEqual(["de: 1 warning"]);
  });

  test("counts texts left in code: none, those beyond the baseline, or any", async () => {
    const code = (files["src/home.tsx"] ?? "").replace(
      "</main>",
      "<p>All boats leave on time today</p></main>",
    );
    writeFileSync(join(folder, "src/home.tsx"), code);
    expect(await verdict()).toMatchObject({
      status: 0,
      told: ["1 text is hard-coded, and no baseline says which may be"],
    });
    policy({ text: "none" });
    expect((await verdict()).against).toEqual(["1 text is hard-coded"]);
    policy({ text: "any" });
    expect(await verdict()).toEqual({ status: 0, against: [], told: [] });
    policy({});
    await fond(folder, "survey", "--baseline", "--write");
    expect((await verdict()).against).toEqual([]);
    writeFileSync(
      join(folder, "src/home.tsx"),
      code.replace("</main>", "<p>The last boat has left the island</p></main>"),
    );
    expect((await verdict()).against).toEqual(["1 new text is hard-coded"]);
  });

  test("in parts comes to the same verdict as in one", async () => {
    writeFileSync(join(folder, "texts/pl.json"), '{ "home": { "title": "Rejsy" } }\n');
    writeFileSync(
      join(folder, "src/home.tsx"),
      (files["src/home.tsx"] ?? "").replace("</main>", "<p>All boats leave on time today</p></main>"),
    );
    policy({ text: "none" });
    const whole = await verdict();
    const parts = ["1/3", "2/3", "3/3"].map(
      (shard) => [shard, join(folder, `part-${shard.slice(0, 1)}.json`)] as const,
    );
    for (const [shard, file] of parts) {
      const { status } = await fond(
        folder,
        "audit",
        "--no-cache",
        "--shard",
        shard,
        "--format",
        "json",
        "--output",
        file,
      );
      expect(status).toBe(0);
    }
    expect(await verdict("--join", ...parts.map(([, file]) => file))).toEqual(whole);
    const lacking = await fond(folder, "audit", "--join", parts[0]?.[1] ?? "");
    expect(lacking.stderr).toContain("missing parts: 2, 3");
    policy({ text: "any" });
    await fond(
      folder,
      "audit",
      "--no-cache",
      "--shard",
      "2/3",
      "--format",
      "json",
      "--output",
      parts[1]?.[1] ?? "",
    );
    expect((await fond(folder, "audit", "--join", ...parts.map(([, file]) => file))).stderr).toContain(
      "different configurations",
    );
    expect((await fond(folder, "audit", "--shard", "4/3")).status).toBe(2);
  });

  test("writes all reports of one run", async () => {
    writeFileSync(join(folder, "texts/pl.json"), '{ "home": { "title": "Rejsy" } }\n');
    expect((await fond(folder, "audit", "--write-reports", "reports")).status).toBe(1);
    expect(readdirSync(join(folder, "reports")).sort()).toEqual([
      "audit.json",
      "audit.junit.xml",
      "audit.md",
      "audit.sarif",
      "report.html",
    ]);
    for (const name of readdirSync(join(folder, "reports")))
      expect(readFileSync(join(folder, "reports", name), "utf8")).toContain("key/missing");
  });
});
