import { afterAll, afterEach, beforeEach, describe, expect, test } from "@jest/globals";
import { cpSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import type { Page } from "playwright-core";
import { browser, closePages, openPage, troubles } from "../support/browser.js";
import { messageUnits } from "../../src/core/exchange/units.js";
import type { Inline } from "../../src/core/exchange/inline.js";
import { messageReader } from "../../src/core/message/parse.js";
import { cleanUp, fond, root, temporaryProject } from "../support/project.js";

const inBrowser = browser === undefined ? describe.skip : describe;

let profile = "";
beforeEach(() => {
  troubles.length = 0;
  profile = temporaryProject();
});
afterEach(closePages);
afterAll(cleanUp);

const opened = (file: string, options: { width?: number } = {}) => openPage(file, profile, options);
const close = closePages;

/** The sample project with its texts in the catalogs, and nothing translated yet of what is new. */
async function sample(): Promise<string> {
  const folder = temporaryProject();
  cpSync(join(root, "demo/ferries"), folder, { recursive: true });
  await fond(folder, "extract", "--write");
  await fond(folder, "reconcile", "--write");
  return folder;
}

/** Types a text with its codes: values by their keys, elements around what they hold. */
async function type(page: Page, inlines: readonly Inline[], codes: readonly string[]): Promise<void> {
  for (const one of inlines) {
    if (one.kind === "text") await page.keyboard.insertText(one.value);
    else if (one.kind === "code") await page.keyboard.press(`Alt+${codes.indexOf(one.id) + 1}`);
    else {
      const [inner] = one.children;
      if (one.children.length !== 1 || inner?.kind !== "text")
        throw new Error("only words are typed in elements");
      await page.keyboard.insertText(inner.value);
      for (let count = 0; count < inner.value.length; count++) await page.keyboard.press("Shift+ArrowLeft");
      await page.keyboard.press(`Alt+${codes.indexOf(one.id) + 1}`);
    }
  }
}

inBrowser("the translators' page", () => {
  test("takes a whole translation, is closed and opened again, and what it saves is taken in", async () => {
    // It has most plural forms, and is written from right to left.
    const locale = "ar";
    const folder = await sample();
    const translations = JSON.parse(
      readFileSync(join(folder, "translators", `${locale}.json`), "utf8"),
    ) as Record<string, string>;
    await fond(
      folder,
      "handoff",
      ...Object.keys(translations),
      "--locale",
      locale,
      "--to",
      "page",
      "--write",
    );
    const file = join(folder, "handoff", `${locale}.html`);
    let page = await opened(file);
    const total = await page.locator(".row").count();
    const entries = (await page.evaluate(
      "JSON.parse(document.getElementById('work').textContent).entries",
    )) as { key: string; book: string; codes: object; texts: { source: string } }[];
    expect(total).toBeGreaterThan(5);
    for (const [index, { key, book, codes, texts }] of entries.entries()) {
      // Half of the way, the browser is closed and opened again.
      if (index === Math.floor(entries.length / 2)) {
        await close();
        page = await opened(file);
        expect(await page.locator("header").textContent()).toContain(`${index} of ${entries.length} done`);
      }
      const reader = messageReader(
        book === "booking"
          ? "icu"
          : book === "harbor"
            ? "java"
            : { syntax: "percent-brace", plurals: "branches" },
      );
      const read = (text: string) => reader.read(text, locale).nodes;
      const units =
        messageUnits(read(texts.source), read(translations[key] ?? ""), locale, reader)?.units ?? [];
      await page.selectOption("#filter", "all");
      await page.fill("#search", key);
      await page.locator(".row").first().click();
      for (const [at, { target = [] }] of units.entries()) {
        await page.locator(".field").nth(at).click();
        await type(page, target, Object.keys(codes));
      }
    }
    await page.fill("#search", "");
    await page
      .locator("header", { hasText: `${entries.length} of ${entries.length} done` })
      .waitFor({ timeout: 5000 });
    const [download] = await Promise.all([page.waitForEvent("download"), page.click("#save")]);
    const saved = join(folder, "back.json");
    await download.saveAs(saved);
    await close();
    const taken = await fond(folder, "intake", "back.json", "--write");
    expect(taken.stdout).toContain(`${entries.length} translations taken in`);
    expect(taken.status).toBe(0);
    const { findings } = JSON.parse(
      (await fond(folder, "lint", "--locale", locale, "--format", "json")).stdout,
    ) as { findings: { rule: string; key?: string }[] };
    expect(findings.filter(({ rule }) => rule === "text/untranslated")).toEqual([]);
    expect(troubles).toEqual([]);
  }, 120_000);

  test("says while it is typed what would not be taken in, and keeps codes whole", async () => {
    const folder = await sample();
    await fond(folder, "handoff", "basket.readFareRulesBefore", "--locale", "pl", "--to", "page", "--write");
    const page = await opened(join(folder, "handoff/pl.html"));
    await page.locator(".field").click();
    await page.keyboard.insertText("Przeczytaj zasady");
    await page.locator(".remarks .error").waitFor();
    expect(await page.locator(".remarks").textContent()).toContain("has lost <link>");
    for (let count = 0; count < 6; count++) await page.keyboard.press("Shift+ArrowLeft");
    await page.keyboard.press("Alt+1");
    await page.locator(".row.done, .empty").first().waitFor();
    await page.locator(".remarks .error").waitFor({ state: "detached" });
    expect(await page.locator(".field .chip").allTextContents()).toEqual(["<link>", "</link>"]);
    // Pasted markup is text.
    await page.evaluate(
      "(() => { const data = new DataTransfer(); data.setData('text/html', '<b>x</b>'); data.setData('text/plain', '<img src=x onerror=alert(1)>'); document.querySelector('.field').dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true })); })()",
    );
    expect(await page.locator(".field img").count()).toBe(0);
    expect(await page.locator(".field").textContent()).toContain("<img src=x");
    // With one end of an element gone, that is said.
    await page.evaluate("document.querySelector('.field .chip.close').remove()");
    await page.locator(".field").click();
    await page.keyboard.press("End");
    await page.keyboard.insertText("!");
    await page.locator(".remarks .error").waitFor();
    expect(await page.locator(".remarks").textContent()).toContain("an element is not closed");
    await close();
    expect(troubles).toEqual([]);
  }, 60_000);

  test("is done by keyboard alone, from right to left, and on a phone", async () => {
    const folder = await sample();
    await fond(folder, "handoff", "search.*", "--locale", "ar", "--to", "page", "--write");
    const page = await opened(join(folder, "handoff/ar.html"), { width: 390 });
    expect(await page.locator("#editor").isVisible()).toBe(false);
    await page.keyboard.press("/");
    await page.keyboard.press("Tab");
    await page.keyboard.press("Tab");
    await page.keyboard.press("ArrowDown");
    expect(await page.locator(".field").first().isVisible()).toBe(true);
    expect(await page.locator(".field").first().getAttribute("dir")).toBe("rtl");
    expect(await page.locator("#list").isVisible()).toBe(false);
    const first = await page.locator("h2").textContent();
    await page.keyboard.press("Control+Enter");
    await page.keyboard.insertText("نص");
    expect(await page.locator("h2").textContent()).not.toBe(first);
    expect(await page.evaluate("document.documentElement.scrollWidth <= innerWidth")).toBe(true);
    await page.click("#back");
    expect(await page.locator("#list").isVisible()).toBe(true);
    await close();
    expect(troubles).toEqual([]);
  }, 60_000);

  test("of thousands of texts draws those in sight, and finds any", async () => {
    const many = Object.fromEntries(
      Array.from({ length: 5000 }, (_, index) => [`k${index}`, `Boat number ${index} leaves`]),
    );
    const folder = temporaryProject({
      "fond.config.json": JSON.stringify({
        source: "en",
        targets: ["de"],
        books: [{ name: "b", code: [], files: "t/{locale}.json" }],
      }),
    });
    mkdirSync(join(folder, "t"));
    writeFileSync(
      join(folder, "t/en.json"),
      JSON.stringify({ ...many, evil: "</script><img src=x onerror=alert(1)>" }),
    );
    await fond(folder, "handoff", "--to", "page", "--write");
    const page = await opened(join(folder, "handoff/de.html"));
    expect(await page.locator("header").textContent()).toContain("0 of 5001 done");
    expect(await page.locator(".row").count()).toBeLessThan(60);
    await page.fill("#search", "number 4321 ");
    expect(await page.locator(".row").count()).toBe(1);
    await page.locator(".row").click();
    await page.locator(".field").click();
    await page.keyboard.insertText("Boot 4321 legt ab");
    await page.fill("#search", "legt ab");
    await page.selectOption("#filter", "done");
    await page.locator(".row.done").waitFor();
    await page.selectOption("#filter", "all");
    await page.fill("#search", "evil");
    expect(await page.locator(".row").textContent()).toContain("</script>");
    expect(await page.locator("#page img").count()).toBe(0);
    await close();
    expect(troubles).toEqual([]);
  }, 60_000);
});
