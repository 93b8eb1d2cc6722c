import { afterAll, describe, expect, test } from "@jest/globals";
import { execFileSync } from "node:child_process";
import { cpSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { cleanUp, fond, root, temporaryProject } from "../support/project.js";

afterAll(cleanUp);

/** What the compiler says of a file, as line and message; nothing where all is well. */
function compiled(folder: string, file: string, ...options: string[]): readonly string[] {
  const tsc = join(root, "node_modules/typescript/bin/tsc");
  const args = [
    tsc,
    "--noEmit",
    "--strict",
    "--target",
    "es2022",
    "--module",
    "nodenext",
    "--skipLibCheck",
    "--typeRoots",
    "none",
    ...options,
    file,
  ];
  try {
    execFileSync(process.execPath, args, { cwd: folder, encoding: "utf8" });
    return [];
  } catch (error) {
    const { stdout } = error as { stdout: string };
    // What has no place is said whole.
    const [other] = /^error .*$/m.exec(stdout) ?? [];
    if (other !== undefined) return [other];
    return [...stdout.matchAll(/\((\d+),\d+\): error (TS\d+)/g)].map(
      ([, line = "", code = ""]) => `${line} ${code}`,
    );
  }
}

describe("fond declare", () => {
  test("gives the compiler keys and values: it finds what is wrong, and nothing else", async () => {
    const folder = temporaryProject();
    cpSync(join(root, "demo/ferries"), folder, { recursive: true });
    expect((await fond(folder, "declare", "--write")).status).toBe(0);
    expect((await fond(folder, "declare", "--check")).status).toBe(0);
    writeFileSync(
      join(folder, "web/uses.ts"),
      `import type { BookingLookup } from "./messages.keys.js";
declare const t: BookingLookup;
t("basket.title");
t("search.results", { count: 3 });
t("sailings.list.deck", { deck: "upper" });
t("sailings.list.deck", { deck: "any other" });
t("fares.terms", { terms: (children: string) => children });
t("basket.titel");
t("search.results", { count: "three" });
t("search.results", { anzahl: 3 });
t("search.results");
t("basket.title", { x: 1 });
`,
    );
    expect(compiled(folder, "web/uses.ts")).toEqual([
      "8 TS2345",
      "9 TS2322",
      "10 TS2353",
      "11 TS2554",
      "12 TS2554",
    ]);
    // A text that changes what it takes changes what the compiler wants.
    const file = join(folder, "web/locales/en/basket.json");
    writeFileSync(file, readFileSync(file, "utf8").replace("Your basket", "Your basket, {name}"));
    expect((await fond(folder, "declare", "--check")).status).toBe(1);
  });

  test("fills in the interface of the module that init --runtime writes", async () => {
    const folder = temporaryProject({
      "package.json": '{ "type": "module" }',
      "src/page.ts":
        'export const page = () => { document.title = "Book a crossing"; document.body.title = "All boats leave today"; return document.title; };\n',
    });
    await fond(folder, "init", "--runtime", "--targets", "de", "--write");
    await fond(folder, "extract", "--write");
    const config = readFileSync(join(folder, "fond.config.json"), "utf8");
    writeFileSync(
      join(folder, "fond.config.json"),
      config.replace(
        '"name": "app",',
        '"name": "app", "declare": { "file": "src/texts.keys.d.ts", "module": "src/texts.ts" },',
      ),
    );
    const lines = [
      'import { t } from "./texts";',
      't("page.bookCrossing");',
      't("page.bookCrossin");',
      't("page.bookCrossing", {});',
    ];
    writeFileSync(join(folder, "src/uses.ts"), `${lines.join("\n")}\n`);
    const options = [
      "--module",
      "esnext",
      "--moduleResolution",
      "bundler",
      "--resolveJsonModule",
      "--lib",
      "es2022,dom",
    ];
    // Before there are declarations, any key will do.
    expect(compiled(folder, "src/uses.ts", ...options)).toEqual([]);
    expect((await fond(folder, "declare", "--write")).status).toBe(0);
    expect(compiled(folder, "src/uses.ts", ...options, "src/texts.keys.d.ts")).toEqual([
      "3 TS2345",
      "4 TS2554",
    ]);
  });

  test("of numbered arguments, keys of any kind, and what ends a comment", async () => {
    const folder = temporaryProject({
      "fond.config.json": JSON.stringify({
        source: "en",
        targets: ["de"],
        books: [{ name: "a-book", code: [], files: "t/{locale}.json", syntax: "java", declare: "keys.d.ts" }],
      }),
      "t/en.json": '{ "Say \\"hi\\" */ {0}": "*/ {0} of {1,number} on {2,date}", "plain": "x" }',
    });
    await fond(folder, "declare", "--write");
    const text = readFileSync(join(folder, "keys.d.ts"), "utf8");
    expect(text).toContain('"Say \\"hi\\" */ {0}": WithValues;');
    expect(text).toContain("type WithValues = readonly [Value, number, Date | number];");
    expect(compiled(folder, "keys.d.ts")).toEqual([]);
    expect(text).toContain("export type ABookKey");
  });

  test("says what to set where no book wants declarations", async () => {
    const folder = temporaryProject({
      "fond.config.json": JSON.stringify({
        source: "en",
        targets: [],
        books: [{ name: "a", files: "t/{locale}.json" }],
      }),
    });
    const { status, stderr } = await fond(folder, "declare");
    expect(status).toBe(2);
    expect(stderr).toContain('set "declare" in a book');
  });
});
