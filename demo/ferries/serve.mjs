// Serves the site on this machine: npm install, npm start, then open the address that it prints.
import { createServer } from "node:http";
import { readdirSync } from "node:fs";
import { compileSite } from "./render.mjs";

const port = Number(process.env.PORT ?? 4173);
const locales = readdirSync(new URL("./web/locales/", import.meta.url)).sort();

createServer(async (request, response) => {
  try {
    const { pathname, searchParams } = new URL(request.url ?? "/", "http://localhost");
    const locale = locales.includes(searchParams.get("locale") ?? "") ? searchParams.get("locale") : "en";
    const site = await compileSite();
    const page = site.pages.includes(pathname.slice(1)) ? pathname.slice(1) : "search";
    const links = locales.map((other) => `<a href="?locale=${other}">${other}</a>`).join(" ");
    response.setHeader("content-type", "text/html; charset=utf-8");
    response.end(
      `<!doctype html><html lang="${locale}" dir="${locale === "ar" ? "rtl" : "ltr"}"><meta charset="utf-8"><body>${links}${site.render(page, locale)}</body></html>`,
    );
  } catch (error) {
    response.statusCode = 500;
    response.end(String(error));
  }
}).listen(port, "127.0.0.1", () => console.log(`http://localhost:${port}`));
