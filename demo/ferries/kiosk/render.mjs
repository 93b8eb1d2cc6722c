// Prints the kiosk's pages in a locale: node kiosk/render.mjs [locale].
import { readFileSync, readdirSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { parse } from "yaml";

const here = dirname(fileURLToPath(import.meta.url));
const locale = process.argv[2] ?? "en";
const catalog = parse(readFileSync(join(here, "locales", `${locale}.yaml`), "utf8"))[locale];
const plurals = new Intl.PluralRules(locale);

// What the terminal knows when it shows a page.
const data = { quay: "Ostrel", bikes: 3, boat: "Tallow", departs: "16:40", minutes: 1, name: "Ida" };

function text(key, values = {}) {
  const found = key.split(".").reduce((group, part) => group?.[part], catalog) ?? key;
  const form = typeof found === "string" ? found : (found[plurals.select(values.count)] ?? found.other);
  return form.replace(/%\{(\w+)\}/g, (_, name) => values[name]);
}

function shown(expression) {
  const [, value, , values] = /^(.*?)(\|\s*text(?::(.*))?)?$/s.exec(expression.trim());
  const run = (code) => new Function(...Object.keys(data), `return (${code});`)(...Object.values(data));
  return /\|\s*text/.test(expression) ? text(run(value), values && run(values)) : run(value);
}

for (const page of readdirSync(join(here, "pages")).sort())
  console.log(
    readFileSync(join(here, "pages", page), "utf8").replace(/\{\{((?:[^{}]|\{[^{}]*\})*)\}\}/g, (_, code) =>
      shown(code),
    ),
  );
