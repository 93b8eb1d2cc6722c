import { existsSync } from "node:fs";
import { chromium, type BrowserContext, type Page } from "playwright-core";

/** The browser of this machine; undefined where it has none. */
export const browser = [
  process.env["CHROMIUM"],
  "/usr/bin/chromium",
  "/usr/bin/chromium-browser",
  "/usr/bin/google-chrome",
].find((path) => path !== undefined && existsSync(path));
if (browser === undefined) process.stderr.write("No Chromium here: the pages are not tried in a browser.\n");

let contexts: BrowserContext[] = [];

/** What went wrong on pages, and what they asked for from anywhere. */
export const troubles: string[] = [];

/** Opens a page from disk, as from a mail, in a browser that keeps what it kept in a profile; whatever goes wrong or out is noted. */
export async function openPage(
  file: string,
  profile: string,
  options: { width?: number; hash?: string; address?: string } = {},
): Promise<Page> {
  const context = await chromium.launchPersistentContext(profile, {
    executablePath: browser ?? "",
    args: [
      "--no-sandbox",
      "--disable-gpu",
      "--disable-quic",
      "--no-first-run",
      "--disable-background-networking",
      "--disable-component-update",
      "--disable-sync",
    ],
    viewport: { width: options.width ?? 1280, height: 800 },
  });
  contexts.push(context);
  const page = await context.newPage();
  page.on("console", (message) => troubles.push(message.text()));
  page.on("pageerror", (error) => troubles.push(error.message));
  page.on("request", (request) => {
    if (!/^(?:file|blob):/.test(request.url())) troubles.push(`asks for ${request.url()}`);
  });
  await page.goto(options.address ?? `file://${file}${options.hash ?? ""}`);
  return page;
}

/** The same for an address of a server on this machine. */
export async function openAddress(address: string, profile: string): Promise<Page> {
  const page = await openPage("", profile, { address });
  return page;
}

/** Closes all browsers that are open. */
export async function closePages(): Promise<void> {
  for (const context of contexts) await context.close();
  contexts = [];
}
