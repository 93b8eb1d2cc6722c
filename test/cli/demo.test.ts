import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { execFileSync } from "node:child_process";
import { cpSync, readFileSync, rmSync, symlinkSync } from "node:fs";
import { join } from "node:path";
import { cleanUp, filesIn, fond, root, temporaryProject } from "../support/project.js";

afterAll(cleanUp);

/** A copy of the sample project that can be compiled and run. */
function sample(): string {
  const folder = temporaryProject();
  cpSync(join(root, "demo/ferries"), folder, { recursive: true });
  symlinkSync(join(root, "node_modules"), join(folder, "node_modules"));
  return folder;
}

const render = (folder: string, locale: string) =>
  execFileSync(process.execPath, ["render.mjs", locale], { cwd: folder, encoding: "utf8" });
const kiosk = (folder: string, locale: string) =>
  execFileSync(process.execPath, ["kiosk/render.mjs", locale], { cwd: folder, encoding: "utf8" });
const typeCheck = (folder: string) =>
  execFileSync(process.execPath, [join(root, "node_modules/typescript/bin/tsc"), "-p", folder], {
    encoding: "utf8",
  });

describe("extraction from the sample project", () => {
  let folder = "";
  let before = "";
  let kioskBefore = "";
  beforeAll(async () => {
    folder = sample();
    before = render(folder, "en");
    kioskBefore = kiosk(folder, "en");
    expect((await fond(folder, "extract", "--write")).status).toBe(0);
  });

  test("the site in its source language is the same before and after", () => {
    expect(before).toContain("Please read");
    expect(readFileSync(join(folder, "web/pages/basket.tsx"), "utf8")).not.toContain("Please read");
    expect(render(folder, "en")).toBe(before);
  });

  test("so is the kiosk, with its values", () => {
    expect(kioskBefore).toContain("Welcome aboard, Ida!");
    expect(readFileSync(join(folder, "kiosk/pages/ticket.html"), "utf8")).toContain(
      "{{ 'ticket.welcomeAboardName' | text:{ name: name } }}",
    );
    expect(kiosk(folder, "en")).toBe(kioskBefore);
  });

  test("the board in Java fills the text that it looks up", () => {
    expect(readFileSync(join(folder, "harbor/src/lanternfish/harbor/Board.java"), "utf8")).toContain(
      'java.text.MessageFormat.format(texts.getString("board.berthFreeUntilNoon"), String.valueOf(berth))',
    );
  });

  test("it still type-checks", () => {
    expect(() => typeCheck(folder)).not.toThrow();
  });

  test("running it again changes nothing", async () => {
    const again = await fond(folder, "extract", "--check");
    expect(again.status).toBe(0);
    expect(again.stdout).toBe("Nothing to do.\n");
  });
});

describe("init in the sample project", () => {
  test("finds the three books, each with its own code and its own way of writing lookups", async () => {
    const folder = sample();
    rmSync(join(folder, "fond.config.json"));
    expect((await fond(folder, "init", "--write")).status).toBe(0);
    const { books } = JSON.parse(readFileSync(join(folder, "fond.config.json"), "utf8")) as {
      books: { name: string; code: string[]; plurals?: string; emit: { endings?: object } }[];
    };
    expect(books.map(({ name, code, plurals }) => [name, code, plurals])).toEqual([
      ["web", ["web/**/*.tsx"], undefined],
      ["kiosk", ["kiosk/**/*.html"], "branches"],
      ["harbor", ["harbor/**/*.{java,jsp}"], undefined],
    ]);
    expect(books[1]?.emit.endings).toMatchObject({
      ".html": { withValues: { content: "{{ '{key}' | text:{values} }}" } },
    });
    expect(books[2]?.emit.endings).toMatchObject({ ".java": { call: 'texts.getString("{key}")' } });
    const { stdout } = await fond(folder, "extract", "--check");
    expect(stdout).toContain("27 texts replaced");
  });
});

describe("lint of the sample project", () => {
  test("finds each of its mistakes, once", async () => {
    const { stdout, status } = await fond(join(root, "demo/ferries"), "lint", "--format", "json");
    const { findings } = JSON.parse(stdout) as { findings: { rule: string; file: string; key?: string }[] };
    expect(status).toBe(1);
    expect(
      findings.map(({ rule, file, key }) => `${rule} ${file.replace("web/", "")} ${key ?? ""}`.trim()).sort(),
    ).toEqual([
      "argument/unknown harbor/texts/office_pl.properties office.moored",
      "argument/unknown kiosk/locales/de.yaml ticket.departs",
      "argument/unknown locales/de/search.json results",
      "file/locale-code locales/jp/fares.json",
      "key/duplicate locales/ar/basket.json total",
      "key/extra locales/pl/common.json nav.help",
      "key/missing harbor/texts/office_ja.properties office.closed",
      "key/missing locales/ja/search.json form.submit",
      "key/undefined pages/sailings.tsx sailings.list.depature",
      "key/unused locales/en/common.json nav.timetable",
      "plural/idle-category locales/ja/passengers.json bikes",
      "plural/missing-category kiosk/locales/pl.yaml ticket.boarding",
      "plural/missing-category locales/fr/passengers.json bikes",
      "plural/missing-category locales/pl/passengers.json adults",
      "select/cases locales/ja/sailings.json list.deck",
      "syntax/apostrophe harbor/texts/office_fr.properties office.moored",
      "syntax/apostrophe locales/fr/sailings.json title",
      "tag/missing locales/pl/fares.json terms",
      "text/stale locales/de/fares.json checkIn",
    ]);
  });
});

describe("the walk through the job", () => {
  let folder = "";
  let told = "";
  beforeAll(async () => {
    folder = temporaryProject();
    const outcome = await fond(folder, "demo", "walk");
    expect(outcome).toMatchObject({ status: 0, stderr: "" });
    told = outcome.stdout;
    symlinkSync(join(root, "node_modules"), join(folder, "walk/node_modules"));
  });

  test("goes through the commands in the order of the work", () => {
    const commands = [...told.matchAll(/^\$ fond (\w+)/gm)].map((match) => match[1]);
    expect([...new Set(commands)]).toEqual([
      "survey",
      "extract",
      "reconcile",
      "lint",
      "handoff",
      "intake",
      "balance",
    ]);
  });

  test("ends in order, with every language whole", async () => {
    const walk = join(folder, "walk");
    expect((await fond(walk, "lint")).stdout).toBe("✓ no findings\n");
    expect((await fond(walk, "reconcile", "--check")).status).toBe(0);
    expect((await fond(walk, "extract", "--check")).status).toBe(0);
    const { books } = JSON.parse((await fond(walk, "balance", "--format", "json")).stdout) as {
      books: { locales: { share: number }[] }[];
    };
    expect(books.map(({ locales }) => locales.map(({ share }) => share))).toEqual(
      Array.from({ length: 3 }, () => [1, 1, 1, 1, 1]),
    );
  });

  test("leaves a site that type-checks and speaks six languages", () => {
    const walk = join(folder, "walk");
    expect(() => typeCheck(walk)).not.toThrow();
    expect(render(walk, "fr")).toContain("1 vélo à bord");
    expect(render(walk, "pl")).toContain("Dorosły, od 16 lat");
    expect(kiosk(walk, "pl")).toContain("Wejście zamyka się za 1 minutę");
    expect(render(walk, "en")).not.toMatch(/[a-z]+\.[a-z]+[A-Z]/);
  });

  test("never writes into a folder that is not empty", async () => {
    const before = filesIn(folder);
    expect((await fond(folder, "demo", "walk")).status).toBe(2);
    expect(filesIn(folder)).toEqual(before);
  });
});
