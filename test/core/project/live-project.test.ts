import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { LiveFiles } from "../../../src/core/files/live-files.js";
import { memoryFiles, type MemoryFiles } from "../../../src/core/files/memory-files.js";
import type { Finding } from "../../../src/core/lint/finding.js";
import { rules } from "../../../src/core/lint/rules/index.js";
import { LiveProject } from "../../../src/core/project/live-project.js";
import { lintProject } from "../../../src/core/project/lint-project.js";
import { declareProject } from "../../../src/core/project/declare.js";
import { openProject } from "../../../src/core/project/project.js";
import { reconcileProject } from "../../../src/core/project/reconcile-project.js";
import { applyPlan } from "../../../src/core/plan/apply.js";

const day = "2026-03-01";

/** What rules have something to say about: the texts of their examples, by rule. */
const pools = rules.map(({ examples }) => [
  ...new Set(
    [...examples.bad, ...examples.good].flatMap(({ source, target, raw }) =>
      [source, raw ? undefined : target].flatMap((one) =>
        one === undefined ? [] : typeof one === "string" ? [one] : Object.values(one),
      ),
    ),
  ),
]);

const locales = ["en", "de", "fr", "pl"] as const;
const names = ["a", "b", "c"].flatMap((group) => [
  `${group}.on`,
  `${group}.off`,
  `${group}.0`,
  `${group}.title`,
]);

function project(pool: readonly string[] = pools.flat()): MemoryFiles {
  const config = {
    source: "en",
    targets: locales.slice(1),
    glossary: "terms.csv",
    books: [
      { name: "site", code: ["web/**"], files: "texts/{locale}/{namespace}.json", declare: "texts.d.ts" },
      { name: "mail", code: ["mail/**"], files: "mail/{locale}.yaml", fallback: ["site"], root: "{locale}" },
    ],
  };
  const texts = (shift: number) =>
    Object.fromEntries(names.map((name, at) => [name, pool[(at * 7 + shift) % pool.length] ?? ""]));
  const files: Record<string, string> = {
    "fond.config.json": JSON.stringify(config),
    "terms.csv": "en,de,fr,pl\nboat,Boot,bateau,łódź\n",
    "web/page.tsx":
      'export const page = () => [t("main.a.on"), t("main.b.tilte", { name: 1 }), t("menu.c.0")];\n',
    "web/locales.ts": 'export const all = ["en", "de"];\n',
    "mail/send.ts": 'export const send = () => t("hello", { name: 1 });\n',
  };
  for (const [at, locale] of locales.entries()) {
    for (const namespace of ["main", "menu"])
      files[`texts/${locale}/${namespace}.json`] = JSON.stringify(texts(at + namespace.length), undefined, 2);
    files[`mail/${locale}.yaml`] =
      `${locale}:\n  hello: "Hello {name}" # fond: text/untranslated the greeting stays\n  open: ""\n`;
  }
  const made = memoryFiles(files);
  const opened = openProject(made);
  if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
  applyPlan(made, reconcileProject(opened.project, {}, day));
  return made;
}

type Edit = (files: MemoryFiles) => readonly string[];

const locale = fc.constantFrom(...locales);
const catalog = fc
  .tuple(locale, fc.constantFrom("main", "menu"))
  .map(([tag, namespace]) => `texts/${tag}/${namespace}.json`);

const editsWith = (text: fc.Arbitrary<string>): fc.Arbitrary<Edit> =>
  fc.oneof(
    {
      weight: 6,
      arbitrary: fc.tuple(catalog, fc.constantFrom(...names, "d.new"), text).map(
        ([file, key, to]): Edit =>
          (files) =>
            inJson(files, file, (all) => ({ ...all, [key]: to })),
      ),
    },
    fc.tuple(catalog, fc.constantFrom(...names)).map(
      ([file, key]): Edit =>
        (files) =>
          inJson(files, file, (all) =>
            Object.fromEntries(Object.entries(all).filter(([one]) => one !== key)),
          ),
    ),
    catalog.map(
      (file): Edit =>
        (files) =>
          inJson(files, file, (all) => Object.fromEntries(Object.entries(all).reverse())),
    ),
    catalog.map(
      (file): Edit =>
        (files) =>
          put(files, file, `${files.contents.get(file) ?? "{}"}\n`),
    ),
    catalog.map(
      (file): Edit =>
        (files) =>
          put(files, file, (files.contents.get(file) ?? "{").slice(0, -3)),
    ),
    fc.tuple(catalog, text).map(
      ([file, to]): Edit =>
        (files) =>
          put(files, file, `{\n  "a.on": ${JSON.stringify(to)},\n  "a.on": "twice"\n}\n`),
    ),
    catalog.map((file): Edit => (files) => {
      files.contents.delete(file);
      return [file];
    }),
    fc.tuple(fc.constantFrom("web/page.tsx", "web/new.tsx", "mail/send.ts"), fc.subarray([...names])).map(
      ([file, keys]): Edit =>
        (files) =>
          put(
            files,
            file,
            `export const f = (x) => [${keys.map((key) => `t("main.${key}", { name: x })`).join(", ")}, t(\`menu.\${x}\`)];\n`,
          ),
    ),
    fc.constant<Edit>((files) => {
      files.contents.delete("web/page.tsx");
      return ["web/page.tsx"];
    }),
    fc.tuple(locale, text).map(
      ([tag, to]): Edit =>
        (files) =>
          put(
            files,
            `mail/${tag}.yaml`,
            `${tag}:\n  hello: ${JSON.stringify(to)}\n  # fond: text/empty none here\n  open: ""\n`,
          ),
    ),
    fc.constantFrom("boat,Schiff,bateau,łódź", "boat,Boot,,statek").map(
      (row): Edit =>
        (files) =>
          put(files, "terms.csv", `en,de,fr,pl\n${row}\n`),
    ),
    fc.constantFrom("off", "error").map(
      (level): Edit =>
        (files) =>
          inJson(files, "fond.config.json", (all) => ({ ...all, rules: { "text/*": level } })),
    ),
    locale.map((tag): Edit => (files) => {
      const file = `fond-ledger/site.${tag}.txt`;
      return put(files, file, (files.contents.get(file) ?? "").split("\n").slice(0, -3).join("\n"));
    }),
    fc.constant<Edit>((files) =>
      put(files, "fond.waivers.json", JSON.stringify([{ rule: "text/untranslated", reason: "later" }])),
    ),
  );

/** Edits of a project whose texts are those that one rule has something to say about. */
const sessions = fc.constantFrom(...pools.filter(({ length }) => length > 0)).chain((pool) =>
  fc.record({
    pool: fc.constant(pool),
    made: fc.array(editsWith(fc.constantFrom(...pool)), { minLength: 1, maxLength: 10 }),
  }),
);

function put({ contents }: MemoryFiles, file: string, after: string): readonly string[] {
  contents.set(file, after);
  return [file];
}

function inJson(
  files: MemoryFiles,
  file: string,
  change: (all: Record<string, unknown>) => Record<string, unknown>,
): readonly string[] {
  let all: Record<string, unknown> = {};
  try {
    all = JSON.parse(files.contents.get(file) ?? "{}") as Record<string, unknown>;
  } catch {
    // What was broken before is written anew.
  }
  return put(files, file, JSON.stringify(change(all), undefined, 2));
}

async function linted(opened: ReturnType<typeof openProject>): Promise<readonly Finding[] | string> {
  return opened.ok ? lintProject(opened.project) : JSON.stringify(opened.problems);
}

/** Tells how much memory is in use, and clears what is not. */
async function heapReader() {
  const { setFlagsFromString } = await import("node:v8");
  const { runInNewContext } = await import("node:vm");
  setFlagsFromString("--expose-gc");
  const collect = runInNewContext("gc") as () => void;
  return { gc: () => (collect(), collect()), heapUsed: () => process.memoryUsage().heapUsed };
}

describe("a project that is looked at again", () => {
  test("says what one says that is opened anew, after any edits", async () => {
    await fc.assert(
      fc.asyncProperty(sessions, async ({ pool, made }) => {
        const files = project(pool);
        const live = new LiveProject(new LiveFiles(() => files));
        await linted(live.open(day));
        for (const edit of made) {
          live.changed(edit(files));
          expect(await linted(live.open(day))).toEqual(await linted(openProject(files, undefined, day)));
        }
      }),
      { numRuns: 12 },
    );
  });

  test("is brought into step and declared as one that is opened anew, after any edits, written or not", () => {
    const plan = (opened: ReturnType<typeof openProject>, today: string) =>
      opened.ok ? reconcileProject(opened.project, {}, today) : opened.problems;
    const declared = (opened: ReturnType<typeof openProject>) =>
      opened.ok ? declareProject(opened.project) : opened.problems;
    fc.assert(
      fc.property(
        sessions,
        fc.array(fc.boolean(), { minLength: 10, maxLength: 10 }),
        ({ pool, made }, written) => {
          const files = project(pool);
          const live = new LiveProject(new LiveFiles(() => files));
          for (const [at, edit] of made.entries()) {
            // What is written on another day shows which records were touched.
            const today = `2026-03-${String(at + 2)}`.replace(/-(\d)$/, "-0$1");
            live.changed(edit(files));
            const anew = plan(openProject(files, undefined, today), today);
            const again = plan(live.open(today), today);
            expect(again).toEqual(anew);
            expect(declared(live.open(today))).toEqual(declared(openProject(files, undefined, today)));
            if (!written[at] || !("changes" in again)) continue;
            applyPlan(files, again);
            live.changed(again.changes.map(({ file }) => file));
            expect(plan(live.open(today), today)).toEqual(plan(openProject(files, undefined, today), today));
          }
        },
      ),
      { numRuns: 40 },
    );
  });

  // Few keys and few texts: what a rule says of one locale changes with another.
  const further = rules
    .filter(({ id, looks }) => looks !== undefined || id === "text/repeat")
    .map(({ id }) => id);
  test.each(further)("also where %s looks at more than one entry", async (id) => {
    const pool = pools[rules.findIndex((rule) => rule.id === id)] ?? [];
    const texts = fc.constantFrom(...pool, ...pool.map((one) => one.trim()), "Boat", "Boot");
    const edit = fc.record({
      locale: fc.constantFrom("en", "de", "fr"),
      key: fc.constantFrom("rows.0", "rows.1"),
      text: fc.option(texts, { freq: 8, nil: undefined }),
    });
    const config = { source: "en", targets: ["de", "fr"], books: [{ name: "site", files: "{locale}.json" }] };
    await fc.assert(
      fc.asyncProperty(fc.array(edit, { minLength: 1, maxLength: 25 }), async (made) => {
        const files = memoryFiles({ "fond.config.json": JSON.stringify(config), "en.json": "{}" });
        const live = new LiveProject(new LiveFiles(() => files));
        for (const { locale: tag, key, text } of made) {
          live.changed(inJson(files, `${tag}.json`, (all) => ({ ...all, [key]: text })));
          expect(await linted(live.open(day))).toEqual(await linted(openProject(files, undefined, day)));
        }
      }),
      { numRuns: 15 },
    );
  });

  test("also where keys come and go that code asks for, means, puts together or has as strings", async () => {
    const kept = Array.from({ length: 120 }, (_, at) => `list.row${at}.label`);
    const moving = [
      "quay.open",
      "quay.opne",
      "quay",
      "quay.row.label",
      "boat_first",
      "boat_other",
      "boat",
      "tide",
    ];
    const asked = ["quay.open", "quay.opened", "quay", "boat", "tide", "list.row3.lable"];
    const written = fc.constantFrom(
      ...asked.map((key) => `t("${key}")`),
      ...asked.map((key) => `t("${key}", { name: x })`),
      ...["`quay.${x}`", "`${x}.label`", "x"].map((key) => `t(${key})`),
      ...moving.map((key) => `"${key}"`),
    );
    const edit = fc.oneof(
      fc.record({
        file: fc.constant("en.json"),
        keys: fc.subarray(moving, { maxLength: 3 }),
      }),
      fc.record({
        file: fc.constantFrom("web/a.js", "web/b.js"),
        calls: fc.array(written, { maxLength: 3 }),
      }),
    );
    const config = {
      source: "en",
      targets: [],
      books: [
        {
          name: "site",
          code: ["web/**"],
          files: "{locale}.json",
          plurals: "suffix",
        },
      ],
      rules: { "*": "off", "key/unused": "warning", "key/undefined": "error" },
    };
    await fc.assert(
      fc.asyncProperty(fc.array(edit, { minLength: 2, maxLength: 12 }), async (made) => {
        const files = memoryFiles({ "fond.config.json": JSON.stringify(config) });
        inJson(files, "en.json", () => Object.fromEntries(kept.map((key) => [key, key])));
        put(files, "web/all.js", `export const all = (x) => t(\`list.\${x}\`);\n`);
        const live = new LiveProject(new LiveFiles(() => files));
        for (const one of made) {
          const changed =
            "calls" in one
              ? put(files, one.file, `export const f = (x) => [${one.calls.join(", ")}];\n`)
              : inJson(files, one.file, (all) => {
                  const left = Object.entries(all).filter(([key]) => !one.keys.includes(key));
                  const added = one.keys.filter((key) => !(key in all)).map((key) => [key, key]);
                  return Object.fromEntries([...left, ...added]) as Record<string, unknown>;
                });
          live.changed(changed);
          const again = await linted(live.open(day));
          expect(again).toEqual(await linted(openProject(files, undefined, day)));
          expect(typeof again).toBe("object");
        }
      }),
      { numRuns: 60 },
    );
  });

  test("also where a rule looks at the source's texts in another file", async () => {
    const files = project(["Boats"]);
    inJson(files, "texts/en/menu.json", (all) => ({ ...all, note: "Line\nby line" }));
    inJson(files, "texts/fr/menu.json", (all) => ({ ...all, note: "Ligne\\n par ligne" }));
    const live = new LiveProject(new LiveFiles(() => files));
    const ofEscapes = async () => {
      const findings = await linted(live.open(day));
      return typeof findings === "string"
        ? findings
        : findings.filter(({ rule }) => rule === "text/escape").length;
    };
    expect(await ofEscapes()).toBe(1);
    // A program that reads such signs has them in its source texts as well.
    live.changed(inJson(files, "texts/en/main.json", (all) => ({ ...all, typed: "Type \\n here" })));
    expect(await ofEscapes()).toBe(0);
  });

  test("does not read again what did not change", async () => {
    const files = project();
    const read: string[] = [];
    const counted = { ...files, read: (path: string) => (read.push(path), files.read(path)) };
    const live = new LiveProject(new LiveFiles(() => counted));
    const first = await linted(live.open(day));
    read.length = 0;
    expect(await linted(live.open(day))).toEqual(first);
    expect(read).toEqual([]);
    live.changed(put(files, "web/page.tsx", 'export const page = () => t("main.a.on");\n'));
    await linted(live.open(day));
    expect(read).toEqual(["web/page.tsx"]);
  });

  test("lets go of what files were before", async () => {
    // A browser or an editor is open for days, and every letter typed makes another file.
    const { heapUsed, gc } = await heapReader();
    const texts = (words: string) =>
      Object.fromEntries(Array.from({ length: 2000 }, (_, at) => [`key${at}`, `${words} ${at} ahoi {time}`]));
    const files = memoryFiles({
      "fond.config.json": JSON.stringify({
        source: "en",
        targets: ["de"],
        books: [{ name: "site", files: "{locale}.json" }],
      }),
      "en.json": JSON.stringify(texts("The boat that leaves the quay at last is number"), undefined, 2),
      "de.json": JSON.stringify(texts("Das Boot, das zuletzt vom Kai ablegt, hat die Nummer"), undefined, 2),
    });
    const live = new LiveProject(new LiveFiles(() => files));
    const edit = async (at: number) => {
      for (const locale of ["en", "de"]) {
        const text = files.contents.get(`${locale}.json`) as string;
        const longer = text.replace(` ${at} ahoi`, ` ${at} and ahoi`);
        live.changed(put(files, `${locale}.json`, Buffer.from(longer).toString()));
      }
      await linted(live.open(day));
      const opened = live.open(day);
      if (opened.ok) reconcileProject(opened.project, {}, day);
    };
    for (let at = 0; at < 5; at++) await edit(at);
    gc();
    const before = heapUsed();
    for (let at = 5; at < 35; at++) await edit(at * 50);
    gc();
    // All the files that the rounds made have 10 million bytes.
    expect(heapUsed() - before).toBeLessThan(3_000_000);
  });

  test("sees files that are new or gone, and folders", async () => {
    const files = project();
    const live = new LiveProject(new LiveFiles(() => files));
    const undefinedKeys = async () => {
      const found = await linted(live.open(day));
      return typeof found === "string"
        ? [found]
        : found.filter(({ rule }) => rule === "key/undefined").map(({ file }) => file);
    };
    expect(await undefinedKeys()).toEqual(["web/page.tsx"]);
    files.contents.set("web/more/new.tsx", 'export const f = () => t("main.none");\n');
    live.changed(["web/more"]);
    expect(await undefinedKeys()).toEqual(["web/more/new.tsx", "web/page.tsx"]);
    files.contents.delete("web/more/new.tsx");
    live.changed(["web/more"]);
    expect(await undefinedKeys()).toEqual(["web/page.tsx"]);
  });

  test("takes what is open in an editor for its file, until it is closed", async () => {
    const files = project();
    const live = new LiveProject(new LiveFiles(() => files));
    const rulesFound = async () => {
      const found = await linted(live.open(day));
      return typeof found === "string" ? found : found.filter(({ file }) => file === "web/page.tsx").length;
    };
    const before = await rulesFound();
    live.put("web/page.tsx", "export const page = 1;\n");
    expect(await rulesFound()).toBe(0);
    live.put("web/page.tsx", undefined);
    expect(await rulesFound()).toBe(before);
    live.put("fond.config.json", "{");
    expect(await rulesFound()).toContain("fond.config.json");
  });
});
