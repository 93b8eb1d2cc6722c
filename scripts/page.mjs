// Joins the translators' page into one script that runs in a browser and loads nothing. Node's modules, and packages that the
// page never needs, are left out: what would use them says so.
import { mkdirSync, readFileSync, readdirSync, statSync, writeFileSync } from "node:fs";
import { createRequire } from "node:module";
import { join } from "node:path";
import commonjs from "@rollup/plugin-commonjs";
import { nodeResolve } from "@rollup/plugin-node-resolve";
import { rollup } from "@rollup/wasm-node";
import { minify } from "terser";
import { licenseOf } from "./bundle.mjs";

const require = createRequire(import.meta.url);

/** What `require` in the core gives in a browser. */
const given = ["fastest-levenshtein"];

/** The CLDR data that the rules for translations need, each as much of it as they look at. */
const cldr = {
  plurals: (data) => data,
  ordinals: (data) => data,
  parentLocales: (data) => data,
  likelySubtags: () => ({ likelySubtags: {} }),
  territoryInfo: () => ({ territoryInfo: {} }),
};

function nodeModule() {
  const data = Object.entries(cldr).map(([name, pick]) => {
    const { supplemental } = require(`cldr-core/supplemental/${name}.json`);
    return [`cldr-core/supplemental/${name}.json`, { supplemental: pick(supplemental) }];
  });
  return [
    ...given.map((name, index) => `import * as given${index} from ${JSON.stringify(name)};`),
    `const modules = { ${given.map((name, index) => `${JSON.stringify(name)}: given${index}`).join(", ")} };`,
    `const data = JSON.parse(${JSON.stringify(JSON.stringify(Object.fromEntries(data)))});`,
    // A digest tells texts apart here; the ledger's own are made elsewhere.
    `modules["node:crypto"] = { hash: (_, text) => { let h = 2166136261; for (let i = 0; i < text.length; i++) h = Math.imul(h ^ text.charCodeAt(i), 16777619); return (h >>> 0).toString(16).padStart(16, "0"); } };`,
    `export const createRequire = () => (name) => { const found = modules[name] ?? data[name]; if (!found) throw new Error(name + " is not on this page"); return found; };`,
  ].join("\n");
}

const inBrowser = {
  name: "in-browser",
  resolveId: (id) => (id === "node:module" ? "\0node-module" : null),
  load: (id) => (id === "\0node-module" ? nodeModule() : null),
};

/** Bundles the pages of `dist/page-src` into `dist/page`, unless nothing was built since it was last done. */
export async function bundlePages(root) {
  const to = join(root, "dist", "page");
  const built = Math.max(newest(join(root, "dist", "page-src")), newest(join(root, "dist", "src", "core")));
  mkdirSync(to, { recursive: true });
  writeFileSync(
    join(to, "LICENSES.txt"),
    [...given, "valibot", "cldr-core"].map((name) => licenseOf(root, name)).join("\n\n"),
  );
  for (const name of ["translate", "report"]) {
    const style = (part) => readFileSync(join(root, "src", "page", `${part}.css`), "utf8");
    writeFileSync(join(to, `${name}.css`), style("base") + style(name));
    const out = join(to, `${name}.js`);
    if (changedAt(out) > built) continue;
    const build = await rollup({
      input: join(root, "dist", "page-src", `${name}.js`),
      onLog: (level, log, handle) => log.code !== "CIRCULAR_DEPENDENCY" && handle(level, log),
      plugins: [inBrowser, nodeResolve({ browser: true }), commonjs()],
    });
    const { output } = await build.generate({ format: "iife" });
    await build.close();
    const { code } = await minify(output[0].code, {
      compress: { passes: 1 },
      format: { comments: /^!|@license/ },
    });
    // Nothing in it ends the element that it is in.
    writeFileSync(out, code.replaceAll("</script", "<\\/script").replaceAll("<!--", "<\\!--"));
  }
}

const changedAt = (file) => statSync(file, { throwIfNoEntry: false })?.mtimeMs ?? 0;

function newest(folder) {
  const files = readdirSync(folder, { recursive: true }).filter((file) => file.endsWith(".js"));
  return Math.max(...files.map((file) => changedAt(join(folder, file))));
}
