import { jsonFormat } from "../src/core/catalog/formats/json/json.js";
import { yamlFormat } from "../src/core/catalog/formats/yaml/yaml.js";
import { pluralRules } from "../src/core/locale/plural-rules.js";

/** Made-up projects of a wanted size, the same on every run. */

/** A source of numbers from 0 to 1 that starts from a seed (mulberry32). */
function random(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
  };
}

export const vocabulary =
  "harbour quay lantern island ferry sailing deck seat bike ticket basket fare storm tide captain crew morning evening return single adult child search choose arrive depart delay cancel refund window cabin luggage route winter summer".split(
    " ",
  );

/** TSX files of about `bytesEach` bytes with components as people write them, by path. */
export function tsxFiles(count: number, bytesEach: number): Record<string, string> {
  const next = random(7);
  const word = () => vocabulary[Math.floor(next() * vocabulary.length)] ?? "quay";
  const words = (number: number) => Array.from({ length: number }, word).join(" ");
  const sentence = (number: number) => words(number).replace(/^./, (letter) => letter.toUpperCase());
  const files: Record<string, string> = {};
  for (let file = 0; file < count; file++) {
    const parts = [
      'import { useState } from "preact/hooks";',
      'import { t } from "../messages";',
      `import type { Sailing } from "../data";`,
      "",
    ];
    for (let component = 0; parts.join("\n").length < bytesEach; component++) {
      const name = `${sentence(1)}${component}`;
      parts.push(
        `interface ${name}Props {`,
        `  ${word()}: string;`,
        `  state: "idle" | "busy" | "done";`,
        `  sailings: readonly Sailing[];`,
        `}`,
        ``,
        `export function ${name}({ state, sailings }: ${name}Props) {`,
        `  const [chosen, setChosen] = useState("none");`,
        `  const total = sailings.reduce((sum, sailing) => sum + sailing.fare * 1.19, 0);`,
        `  if (state === "busy") return <p className="loading loading-${word()}">{t("common.${word()}.${word()}")}</p>;`,
        `  const label = sailings.length > ${file % 9} ? \`${sentence(2)} \${chosen}\` : "${sentence(3)}";`,
        `  return (`,
        `    <section className="page ${word()}-list" data-kind="${word()}">`,
        `      <h2 title="${sentence(3)}">${sentence(4)}</h2>`,
        `      <p>`,
        `        ${sentence(5)} {total.toFixed(2)} ${words(3)} <a href="/${word()}/${word()}">${words(2)}</a>.`,
        `      </p>`,
        `      <ul>`,
        `        {sailings.map((sailing) => (`,
        `          <li key={sailing.id} onClick={() => setChosen(sailing.id)}>`,
        `            <span className={chosen === sailing.id ? "row row-chosen" : "row"}>{sailing.boat}</span>`,
        `            <input type="checkbox" name="${word()}" aria-label={label} placeholder="${sentence(2)}" />`,
        `            {t("${word()}.list.${word()}", { count: sailing.seats })}`,
        `          </li>`,
        `        ))}`,
        `      </ul>`,
        `    </section>`,
        `  );`,
        `}`,
        ``,
      );
    }
    files[`web/part${file % 40}/page${file}.tsx`] = parts.join("\n");
  }
  return files;
}

/** Nested JSON catalogs of `keys` keys in each locale, by path; messages with arguments, plurals and tags among plain ones. */
export function jsonCatalogs(locales: readonly string[], keys: number): Record<string, string> {
  const files: Record<string, string> = {};
  for (const locale of locales) {
    const next = random(11);
    const word = () => vocabulary[Math.floor(next() * vocabulary.length)] ?? "quay";
    const words = (number: number) =>
      Array.from({ length: number }, () => (locale === "en" ? word() : `${word()}${locale}`)).join(" ");
    const root: Record<string, Record<string, Record<string, string>>> = {};
    for (let key = 0; key < keys; key++) {
      const group = ((root[`page${Math.floor(key / 200)}`] ??= {})[`part${Math.floor(key / 20) % 10}`] ??=
        {});
      const kind = key % 10;
      group[`text${key}`] =
        kind === 0
          ? `{count, plural,${pluralRules(locale)
              .categories.map((category) => ` ${category} {# ${words(1)}}`)
              .join("")}}`
          : kind === 1
            ? `${words(3)} {name} ${words(2)}`
            : kind === 2
              ? `${words(2)} <link>${words(2)}</link>`
              : words(3 + (key % 6));
    }
    // One piece of text, as what is read from a disk is.
    files[`web/locales/${locale}.json`] = Buffer.from(JSON.stringify(root, undefined, 2) + "\n").toString();
  }
  return files;
}

/** The same catalogs in YAML. */
export function yamlOf(catalogs: Readonly<Record<string, string>>): Record<string, string> {
  return Object.fromEntries(
    Object.entries(catalogs).map(([file, text]) => {
      const add = jsonFormat.read(text, ".").entries.map((entry) => ({ path: entry.path, text: entry.text }));
      const written = yamlFormat.edit(yamlFormat.empty, { add });
      return [file.replace(/json$/, "yaml"), Buffer.from(written).toString()];
    }),
  );
}

export const thirtyLocales =
  "en de fr es it pt nl sv da nb fi pl cs sk sl hr ro hu el tr ru uk bg ja ko zh ar he th vi".split(" ");
