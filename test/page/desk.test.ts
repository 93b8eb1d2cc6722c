import { afterAll, afterEach, beforeEach, describe, expect, test } from "@jest/globals";
import { cpSync, readFileSync, writeFileSync } from "node:fs";
import { request } from "node:http";
import { join } from "node:path";
import type { Page } from "playwright-core";
import { openDesk, type Desk } from "../../src/cli/desk.js";
import { openProject } from "../../src/core/project/project.js";
import { diskFiles } from "../../src/disk/disk-files.js";
import { browser, closePages, openAddress, troubles } from "../support/browser.js";
import { cleanUp, fond, root, temporaryProject } from "../support/project.js";

let folder = "";
let desk: Desk;

async function opened(edit: boolean): Promise<void> {
  folder = temporaryProject();
  cpSync(join(root, "demo/ferries"), folder, { recursive: true });
  await fond(folder, "extract", "--write");
  await fond(folder, "reconcile", "--write");
  const files = diskFiles(folder);
  desk = await openDesk({
    folder,
    files,
    edit,
    port: 0,
    trend: () => [],
    open: () => {
      const project = openProject(files);
      if (!project.ok) throw new Error("the project cannot be opened");
      return project.project;
    },
  });
}
beforeEach(() => {
  troubles.length = 0;
});
afterEach(async () => {
  await closePages();
  await desk.close();
});
afterAll(cleanUp);

/** A request as any program can make it, whatever name it calls the machine by. */
function ask(path: string, options: { host?: string; method?: string; origin?: string; body?: string } = {}) {
  const { port, pathname } = new URL(desk.url);
  const { host = `127.0.0.1:${port}`, method = "GET", origin, body } = options;
  return new Promise<{ status: number; text: string; headers: NodeJS.Dict<string | string[]> }>(
    (resolve, reject) => {
      const asked = request(
        {
          host: "127.0.0.1",
          port,
          path: path.startsWith("/") ? path : pathname + path,
          method,
          headers: { host, ...(origin && { origin }) },
        },
        (response) => {
          let text = "";
          response.on("data", (chunk: Buffer) => (text += chunk.toString()));
          response.on("end", () => {
            resolve({ status: response.statusCode ?? 0, text, headers: response.headers });
          });
        },
      );
      asked.on("error", reject);
      asked.end(body);
    },
  );
}

const catalog = () => readFileSync(join(folder, "web/locales/pl/basket.json"), "utf8");
const unit = (text: string, more: object = {}) =>
  JSON.stringify({
    "fond-ledger": "work 1",
    source: "en",
    target: "pl",
    units: [
      {
        id: "booking:basket.readFareRulesBefore",
        text,
        made: { source: "07f4d428adabe5ee", text: "07f4d428adabe5ee" },
      },
    ],
    ...more,
  });

describe("the desk", () => {
  test("answers on this machine, by its address and token alone", async () => {
    await opened(true);
    expect(new URL(desk.url).hostname).toBe("127.0.0.1");
    const report = await ask("");
    expect(report.status).toBe(200);
    expect(report.headers).toMatchObject({ "x-content-type-options": "nosniff", "x-frame-options": "DENY" });
    expect((await ask("", { host: "evil.example" })).status).toBe(421);
    expect((await ask("/")).status).toBe(403);
    expect((await ask("/wrong/edit/pl")).status).toBe(403);
    expect((await ask("edit/xx")).status).toBe(404);
    expect((await ask("../../etc/passwd")).status).toBe(403);
  });

  test("writes what is in order, refuses what is not, and no page of others can make it", async () => {
    await opened(true);
    const { origin } = new URL(desk.url);
    const post = (body: string, from = origin) => ask("save", { method: "POST", origin: from, body });
    expect((await post(unit("Przeczytaj <link>zasady</link>."), "http://evil.example")).status).toBe(403);
    const bad = await post(unit("Przeczytaj zasady."));
    expect(bad.text).toContain("has lost <link>");
    expect(catalog()).not.toContain("Przeczytaj");
    expect((await post("hello")).status).toBe(400);
    const good = await post(unit("Przeczytaj <link>zasady</link>."));
    expect(JSON.parse(good.text)).toMatchObject({ problems: [], entries: [{ what: "done" }] });
    expect(catalog()).toContain("Przeczytaj <link>zasady</link>.");
    // The next one is made from what was there before: both are said, and one is chosen.
    const edited = await post(unit("Czytaj <link>zasady</link>."));
    expect(edited.text).toContain("was edited here in the meantime");
    await post(unit("Czytaj <link>zasady</link>.", { prefer: "file" }));
    expect(catalog()).toContain("Czytaj");
  });

  test("takes texts that come at once one after the other, and loses none", async () => {
    await opened(true);
    const { origin } = new URL(desk.url);
    const texts = {
      "booking:passengers.addBike": "Dodaj rower",
      "booking:search.islandQuay": "Wyspa",
      "booking:sailings.bookSailing": "Zarezerwuj",
      "harbor:board.printList": "Drukuj",
    };
    const all = await Promise.all(
      Object.entries(texts).map(([id, text]) =>
        ask("save", {
          method: "POST",
          origin,
          body: JSON.stringify({
            "fond-ledger": "work 1",
            source: "en",
            target: "pl",
            units: [{ id, text, made: { source: "", text: "-" } }],
          }),
        }),
      ),
    );
    // Digests that are none are those of another source: each says so, and nothing is written.
    expect(all.every(({ text }) => text.includes("has changed since"))).toBe(true);
    const forced = await Promise.all(
      Object.entries(texts).map(([id, text]) =>
        ask("save", {
          method: "POST",
          origin,
          body: JSON.stringify({
            "fond-ledger": "work 1",
            source: "en",
            target: "pl",
            prefer: "file",
            units: [{ id, text, made: { source: "", text: "-" } }],
          }),
        }),
      ),
    );
    expect(forced.map(({ status }) => status)).toEqual([200, 200, 200, 200]);
    const { stdout } = await fond(folder, "list", "**", "--locale", "pl");
    for (const text of Object.values(texts)) expect(stdout).toContain(text);
  });

  test("without --edit writes nothing", async () => {
    await opened(false);
    const { origin } = new URL(desk.url);
    expect((await ask("edit/pl")).status).toBe(404);
    expect((await ask("save", { method: "POST", origin, body: unit("x") })).status).toBe(404);
  });
});

const inBrowser = browser === undefined ? describe.skip : describe;
inBrowser("the desk in browsers", () => {
  const edit = async (page: Page, key: string, text: string) => {
    await page.selectOption("#filter", "all");
    await page.fill("#search", key);
    await page.locator(".row").first().click();
    await page.locator(".field").first().fill("");
    await page.locator(".field").first().click();
    await page.keyboard.insertText(text);
  };

  test("two people edit at once, and one with an editor: nothing is lost", async () => {
    await opened(true);
    const one = await openAddress(`${desk.url}edit/pl`, temporaryProject());
    const two = await openAddress(`${desk.url}edit/pl`, temporaryProject());
    await edit(one, "passengers.addBike", "Dodaj rower");
    await edit(two, "search.islandQuay", "Wyspa lub nabrzeże");
    await one.locator("header", { hasText: "Written: passengers.addBike" }).waitFor();
    await two.locator("header", { hasText: "Written: search.islandQuay" }).waitFor();
    expect(readFileSync(join(folder, "web/locales/pl/passengers.json"), "utf8")).toContain("Dodaj rower");
    // Meanwhile somebody changes a text by hand that the first one edits, too.
    const file = join(folder, "web/locales/pl/passengers.json");
    writeFileSync(file, readFileSync(file, "utf8").replace("Dodaj rower", "Weź rower"));
    await edit(one, "passengers.addBike", "Dołóż rower");
    await one.locator(".remarks .error", { hasText: "not written" }).waitFor();
    expect(readFileSync(file, "utf8")).toContain("Weź rower");
    await one.getByRole("button", { name: "Keep theirs" }).click();
    // Four programs on few processors: a step that takes a second may take half a minute.
    await one.locator(".field", { hasText: "Weź rower" }).waitFor({ timeout: 90_000 });
    await closePages();
    expect(troubles.filter((one) => !one.includes("127.0.0.1"))).toEqual([]);
  }, 180_000);

  test("what cannot be written since somebody writes is sent again", async () => {
    await opened(true);
    const one = await openAddress(`${desk.url}edit/pl`, temporaryProject());
    let refused = 0;
    await one.route("**/save", async (route) => {
      if (refused === 2) return route.continue();
      refused++;
      const problems = [{ message: "somebody writes", remedy: "try again" }];
      return route.fulfill({
        status: 409,
        contentType: "application/json",
        body: JSON.stringify({ problems }),
      });
    });
    await edit(one, "passengers.addBike", "Dodaj rower");
    await one.locator("header", { hasText: "Written: passengers.addBike" }).waitFor();
    expect(refused).toBe(2);
    expect(readFileSync(join(folder, "web/locales/pl/passengers.json"), "utf8")).toContain("Dodaj rower");
  }, 90_000);

  test("the report is loaded again when catalogs change", async () => {
    await opened(false);
    const page = await openAddress(desk.url, temporaryProject());
    const before = await page.locator(".dim").first().textContent();
    const file = join(folder, "web/locales/en/search.json");
    await Promise.all([
      page.waitForEvent("load"),
      (async () => {
        await new Promise((resolve) => setTimeout(resolve, 300));
        writeFileSync(
          file,
          readFileSync(file, "utf8").replace('"title"', '"another": "Another text",\n  "title"'),
        );
      })(),
    ]);
    expect(await page.locator(".dim").first().textContent()).not.toBe(before);
  }, 60_000);
});
