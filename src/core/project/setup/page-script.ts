import { posix } from "node:path";
import type { SourceFile } from "../../source/model.js";
import type { FileChange } from "../../plan/plan.js";

/** Where the head of a page ends, which need not be written. */
const inHead = /<\/head>|<body\b/i;

/** Attributes of a page's elements that people read. */
const shownAttributes = ["placeholder", "title", "alt", "aria-label", "value"];

/** A script that fills the texts of plain pages, and where it goes. */
export interface PageScript {
  readonly file: string;
  /** The pages that load it. */
  readonly pages: readonly SourceFile[];
}

/** Where such a script goes; undefined where there are no plain pages, or something else is there as well. */
export function pageScriptFor(code: readonly SourceFile[]): PageScript | undefined {
  const pages = code.filter(({ file, text }) => /\.html?$/.test(file) && inHead.test(text));
  if (pages.length === 0 || pages.length < code.length) return undefined;
  const folders = pages.map(({ file }) => posix.dirname(file).split("/"));
  const [first = []] = folders;
  const shared = first.filter(
    (part, at) =>
      folders.every((folder) => folder.slice(0, at + 1).join("/") === first.slice(0, at + 1).join("/")) &&
      part !== ".",
  );
  return { file: posix.join(...shared, "texts.js"), pages };
}

/** How elements of plain pages say their keys. */
export const pageLookups = [
  { attribute: "data-text" },
  ...shownAttributes.map((name) => ({ attribute: `data-text-${name}` })),
];

export const pageEmission = {
  endings: { ".html": { content: 'data-text="{key}"', attribute: 'data-text-{name}="{key}"' } },
};

/** The script's text, for some locales whose catalogs are at `files`, as the script's folder sees them. */
export function pageScript(source: string, locales: readonly string[], files: string): string {
  const path = files.replace("{locale}", "${locale}");
  return `// Fills the texts of a page. \`fond init --runtime\` wrote it; it is yours to change.
// An element says its key: <h1 data-text="top.title">…</h1>, its attributes likewise: data-text-placeholder="top.hint".
(() => {
  const sourceLocale = "${source}";
  const locales = [${locales.map((locale) => `"${locale}"`).join(", ")}];
  const here = document.currentScript.src;

  /** The first locale that somebody wants and the page has: ?lang=de comes before what the browser says. */
  function wanted() {
    const asked = new URLSearchParams(location.search).get("lang");
    for (const one of [asked, ...navigator.languages])
      for (const locale of locales) if (one && (one === locale || one.split("-")[0] === locale)) return locale;
    return sourceLocale;
  }

  async function load(locale) {
    const answer = await fetch(new URL(\`${path}\`, here));
    return answer.ok ? answer.json() : {};
  }

  const find = (catalog, key) => key.split(".").reduce((group, part) => group?.[part], catalog);

  async function fill() {
    const locale = wanted();
    const catalogs = await Promise.all([...new Set([locale, sourceLocale])].map(load));
    const textOf = (key) => catalogs.map((one) => find(one, key)).find((text) => typeof text === "string");
    document.documentElement.lang = locale;
    document.documentElement.dir = /^(?:ar|fa|he|ur)(?:-|$)/.test(locale) ? "rtl" : "ltr";
    for (const element of document.querySelectorAll("*"))
      for (const { name, value } of [...element.attributes]) {
        if (!name.startsWith("data-text")) continue;
        const text = textOf(value);
        if (text === undefined) continue;
        if (name === "data-text") element.textContent = text;
        else element.setAttribute(name.slice("data-text-".length), text);
      }
  }

  if (document.readyState === "loading") document.addEventListener("DOMContentLoaded", fill);
  else fill();
})();
`;
}

/** The pages with the script in their head. */
export function pagesWithScript({ file, pages }: PageScript): readonly FileChange[] {
  return pages.map(({ file: page, text, bom }) => {
    const path = posix.relative(posix.dirname(page), file);
    const at = text.search(inHead);
    const indent = /(?:^|\n)([ \t]*)$/.exec(text.slice(0, at))?.[1];
    const line = `<script src="${path}"></script>`;
    const added = indent === undefined ? line : `  ${line}\n${indent}`;
    return { file: page, before: text, after: text.slice(0, at) + added + text.slice(at), bom };
  });
}
