import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, test } from "@jest/globals";
import { cpSync, mkdirSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { browser, closePages, openPage, troubles } from "../support/browser.js";
import { cleanUp, fond, root, temporaryProject } from "../support/project.js";

const inBrowser = browser === undefined ? describe.skip : describe;

let profile = "";
beforeEach(() => {
  troubles.length = 0;
  profile = temporaryProject();
});
afterEach(closePages);
afterAll(cleanUp);

inBrowser("the report", () => {
  let file = "";
  beforeAll(async () => {
    const folder = temporaryProject();
    cpSync(join(root, "demo/ferries"), folder, { recursive: true });
    const { stdout } = await fond(folder, "report", "--into", "state.html");
    expect(stdout).toContain("Not ready");
    file = join(folder, "state.html");
  });

  test("shows the verdict, what stands against it, and a share for each locale and namespace", async () => {
    const page = await openPage(file, profile);
    expect(await page.locator("h1").textContent()).toContain("not ready");
    expect(await page.locator(".reasons").first().textContent()).toContain("fond lint --locale pl");
    const row = page.locator(".heat tr", { hasText: "booking · fares" });
    expect(await row.locator("td").allTextContents()).toEqual([
      "5",
      "80.0 %5 words, 1 stale",
      "100.0 %",
      "100.0 %",
      "100.0 %",
      "0.0 %26 words",
    ]);
    await closePages();
    expect(troubles).toEqual([]);
  }, 60_000);

  test("filters and searches findings, and opens the message of one", async () => {
    const page = await openPage(file, profile);
    await page.click("#tab-findings");
    const rows = page.locator("#findings .row");
    await page.locator("#findings select").nth(1).selectOption("plural/missing-category");
    expect(await rows.count()).toBe(3);
    await page.locator("#findings select").nth(2).selectOption("fr");
    expect(await rows.count()).toBe(1);
    await rows.first().click();
    expect(await page.locator("#message-key").textContent()).toBe("passengers.bikes");
    expect(page.url()).toContain("#message=booking%2Fpassengers.bikes");
    await closePages();
    expect(troubles).toEqual([]);
  }, 60_000);

  test("has a link for each message, with all locales side by side, each in its direction", async () => {
    const page = await openPage(file, profile, { hash: "#message=booking/sailings.list.seats" });
    expect(await page.locator("#detail tr").count()).toBe(6);
    expect(await page.locator("#detail td[lang=ar]").getAttribute("dir")).toBe("rtl");
    expect(await page.locator("#detail td[lang=pl] .samples").textContent()).toContain("2 miejsca");
    expect(await page.locator("#detail mark").first().textContent()).toBe("count =0");
    expect(await page.locator("#detail").textContent()).toContain("web/pages/sailings.tsx:15");
    await page.fill("#messages input", "Samstags");
    expect(await page.locator("#messages .row").count()).toBe(1);
    await page.locator("#messages .row").click();
    const stale = page.locator("#detail tr.stale");
    expect(await stale.textContent()).toContain("The source has changed: On Saturdays");
    expect(await stale.locator("del").first().textContent()).toContain("On Saturdays");
    expect(await stale.locator("ins").count()).toBeGreaterThan(0);
    await closePages();
    expect(troubles).toEqual([]);
  }, 60_000);

  test("is used by keyboard, and fits a phone", async () => {
    const page = await openPage(file, profile, { width: 390 });
    await page.locator("#tab-overview").focus();
    await page.keyboard.press("ArrowRight");
    await page.keyboard.press("ArrowRight");
    await page.locator("#messages").waitFor();
    await page.keyboard.press("/");
    await page.keyboard.type("seat");
    await page.locator("#messages .list").focus();
    await page.keyboard.press("ArrowDown");
    expect(await page.locator("#message-key").textContent()).toBe("sailings.list.seats");
    expect(await page.evaluate("document.documentElement.scrollWidth <= innerWidth")).toBe(true);
    await closePages();
    expect(troubles).toEqual([]);
  }, 60_000);

  test("of tens of thousands of keys draws what is in sight, and shows markup as text", async () => {
    const folder = temporaryProject({
      "fond.config.json": JSON.stringify({
        source: "en",
        targets: ["de"],
        books: [{ name: "b", code: [], files: "t/{locale}.json" }],
      }),
    });
    mkdirSync(join(folder, "t"));
    const many = Object.fromEntries(Array.from({ length: 50_000 }, (_, at) => [`k${at}`, `Boat ${at}`]));
    writeFileSync(
      join(folder, "t/en.json"),
      JSON.stringify({ ...many, evil: "</script><img src=x onerror=alert(1)>" }),
    );
    await fond(folder, "report");
    const page = await openPage(join(folder, "fond-report.html"), profile);
    await page.click("#tab-messages");
    expect(await page.locator("#messages .row").count()).toBeLessThan(60);
    await page.fill("#messages input", "boat 43210");
    expect(await page.locator("#messages .row").count()).toBe(1);
    await page.fill("#messages input", "evil");
    await page.locator("#messages .row").click();
    expect(await page.locator("#detail td").first().textContent()).toContain("</script><img");
    expect(await page.locator("#page img").count()).toBe(0);
    await closePages();
    expect(troubles).toEqual([]);
  }, 120_000);
});
