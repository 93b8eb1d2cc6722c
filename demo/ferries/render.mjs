// Renders a page of the site to HTML: compiles web/ into a temporary folder and runs it there.
// As a program: node render.mjs [locale] prints every page.
import { mkdirSync, mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath, pathToFileURL } from "node:url";
import typescript from "typescript";

const here = dirname(fileURLToPath(import.meta.url));

/** Compiles the site as it is now and gives a function that renders one of its pages in a locale. */
export async function compileSite() {
  const folder = mkdtempSync(join(here, ".site-"));
  try {
    for (const file of readdirSync(join(here, "web"), { recursive: true, encoding: "utf8" })) {
      if (!/\.tsx?$/.test(file)) continue;
      const { outputText } = typescript.transpileModule(readFileSync(join(here, "web", file), "utf8"), {
        fileName: file,
        compilerOptions: {
          target: typescript.ScriptTarget.ES2022,
          module: typescript.ModuleKind.ESNext,
          jsx: typescript.JsxEmit.ReactJSX,
          jsxImportSource: "preact",
        },
      });
      const target = join(folder, file.replace(/\.tsx?$/, ".js"));
      mkdirSync(dirname(target), { recursive: true });
      writeFileSync(target, outputText.replace(/(from\s*")(\.[^"]*)(")/g, "$1$2.js$3"));
    }
    const load = (name) => import(pathToFileURL(join(folder, name)).href);
    const [{ App, pages }, { install }, { h }, { render }] = [
      await load("app.js"),
      await load("messages.js"),
      await import("preact"),
      await import("preact-render-to-string"),
    ];
    return {
      pages: Object.keys(pages),
      render(page, locale) {
        install(locale, readCatalogs(locale));
        return render(h(App, { page }));
      },
    };
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

function readCatalogs(locale) {
  const folder = join(here, "web", "locales", locale);
  return Object.fromEntries(
    readdirSync(folder).map((file) => [
      file.replace(/\.json$/, ""),
      JSON.parse(readFileSync(join(folder, file), "utf8")),
    ]),
  );
}

if (process.argv[1] && pathToFileURL(process.argv[1]).href === import.meta.url) {
  const site = await compileSite();
  for (const page of site.pages) console.log(site.render(page, process.argv[2] ?? "en"));
}
