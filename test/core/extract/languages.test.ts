import { describe, expect, test } from "@jest/globals";
import { spawnSync } from "node:child_process";
import { memoryFiles } from "../../../src/core/files/memory-files.js";
import { extractProject } from "../../../src/core/project/extract-project.js";
import { openProject } from "../../../src/core/project/project.js";

/** Extracts from one file of a project in English with German and Arabic. */
async function extract(file: string, given: string) {
  // A function of Python is known where the file brings it in.
  const head = file.endsWith(".py") ? "from words import t\n" : "";
  const code = head + given;
  const endings = {
    ".vue": { content: "{{ t('{key}') }}" },
    ".twig": { content: "{{ '{key}' | text }}" },
    ".tpl": { content: '{t("{key}")}' },
    ".svelte": { content: '{t("{key}"{args})}' },
    ".php": { call: "t('{key}'{args})" },
  };
  const config = {
    source: "en",
    targets: ["de", "ar"],
    books: [
      {
        name: "app",
        files: "t/{locale}.json",
        code: ["src/**"],
        lookups: [{ call: "t" }, { filter: "text" }],
        emit: { call: 't("{key}"{args})', endings },
        naming: { pattern: "{slug}" },
      },
    ],
  };
  const opened = openProject(
    memoryFiles({
      "fond.config.json": JSON.stringify(config),
      "t/en.json": "{}",
      "t/de.json": "{}",
      "t/ar.json": "{}",
      [`src/${file}`]: code,
    }),
  );
  if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
  const plan = await extractProject(opened.project);
  const after = (name: string) => plan.changes.find((change) => change.file === name)?.after;
  const texts = (locale: string) => JSON.parse(after(`t/${locale}.json`) ?? "{}") as Record<string, string>;
  return {
    code: (after(`src/${file}`) ?? code).slice(head.length),
    texts,
    notes: plan.notes.map(({ messageId }) => messageId),
  };
}

describe("two branches that are one text in two languages become one lookup", () => {
  test.each<[string, string, string]>([
    [
      "a.tsx",
      'export const A = ({ lang }) => <div>{lang === "de" ? <h1>Boote von heute</h1> : <h1>Boats of today</h1>}</div>;',
      'export const A = ({ lang }) => <div><h1>{t("boatsToday")}</h1></div>;',
    ],
    [
      "a.vue",
      '<template><div><h1 class="x" v-if="lang === \'de\'">Boote von heute</h1>\n<h1 class="x" v-else>Boats of today</h1></div></template>',
      "<template><div><h1 class=\"x\">{{ t('boatsToday') }}</h1></div></template>",
    ],
    [
      "a.twig",
      "<h1>{% if app.locale == 'de' %}Boote von heute{% else %}Boats of today{% endif %}</h1>",
      "<h1>{{ 'boatsToday' | text }}</h1>",
    ],
    [
      "a.tpl",
      "{if $lang eq 'de'}<h1>Boote von heute</h1>{else}<h1>Boats of today</h1>{/if}<p>{$name}</p>",
      '<h1>{t("boatsToday")}</h1><p>{$name}</p>',
    ],
    [
      "a.ejs",
      '<% if (lang === "de") { %><h1>Boote von heute</h1><% } else { %><h1>Boats of today</h1><% } %>',
      '<h1><%= t("boatsToday") %></h1>',
    ],
    [
      "a.blade.php",
      "@if (app()->getLocale() == 'de')<h1>Boote von heute</h1>@else<h1>Boats of today</h1>@endif",
      "<h1>{{ t('boatsToday') }}</h1>",
    ],
    [
      "a.svelte",
      '{#if lang === "de"}<h1>Boote von heute</h1>{:else}<h1>Boats of today</h1>{/if}',
      '<h1>{t("boatsToday")}</h1>',
    ],
    [
      "a.php",
      "<?php if ($lang == 'de'): ?><h1>Boote von heute</h1><?php else: ?><h1>Boats of today</h1><?php endif; ?>",
      "<h1><?= t('boatsToday') ?></h1>",
    ],
    [
      "a.php",
      "<?php echo ($lang === 'de') ? 'Boote von heute' : 'Boats of today'; ?>",
      "<?php echo t('boatsToday'); ?>",
    ],
    [
      "a.html.erb",
      "<% if I18n.locale == :de %>\n  <h1>Boote von heute</h1>\n<% else %>\n  <h1>Boats of today</h1>\n<% end %>\n",
      '\n  <h1><%= t("boatsToday") %></h1>\n\n',
    ],
    [
      "a.rb",
      'def show\n  flash[:notice] = locale == "de" ? "Boote von heute" : "Boats of today"\nend\n',
      'def show\n  flash[:notice] = t("boatsToday")\nend\n',
    ],
    [
      "a.py",
      'def show(lang):\n    flash("Boote von heute" if lang == "de" else "Boats of today")\n',
      'def show(lang):\n    flash(t("boatsToday"))\n',
    ],
    [
      "A.java",
      'class A { void a(JLabel label, String lang) { label.setText(lang.equals("de") ? "Boote von heute" : "Boats of today"); } }',
      'class A { void a(JLabel label, String lang) { label.setText(t("boatsToday")); } }',
    ],
  ])("%s: %s", async (file, code, expected) => {
    const result = await extract(file, code);
    expect(result.code).toBe(expected);
    expect(result.texts("en")).toEqual({ boatsToday: "Boats of today" });
    expect(result.texts("de")).toEqual({ boatsToday: "Boote von heute" });
    expect(result.notes).toEqual([]);
  });
});

describe("what is shown in another language alone stays in the code, and is said", () => {
  test.each<[string, string, Record<string, string>, string]>([
    [
      "a.tsx",
      'export const A = ({ lang }) => <div>{lang === "de" && <p>Alles fährt</p>} <p>All boats sail</p></div>;',
      { allBoatsSail: "All boats sail" },
      "extract/other-language",
    ],
    [
      "a.tsx",
      'export const A = ({ lang }) => <div>{lang === "de" ? <h1>Boote</h1> : <h2>Boats of today</h2>}</div>;',
      { boatsToday: "Boats of today" },
      "extract/other-language",
    ],
    [
      "a.tsx",
      'export function note(lang) { let note; if (lang === "de") note = "Das Boot ist spät."; else note = "The boat is late."; return <p>{note}</p>; }',
      { boatLate: "The boat is late." },
      "extract/other-language",
    ],
    [
      "a.php",
      "<?php if ($lang == 'de'): ?><h1>Boote</h1><?php endif; ?><p>All boats sail</p>",
      { allBoatsSail: "All boats sail" },
      "extract/other-language",
    ],
    [
      "a.twig",
      "{% if locale == 'fr' %}<p>Tous les bateaux</p>{% else %}<p>All boats sail</p>{% endif %}",
      {},
      "extract/foreign-locale",
    ],
    [
      "a.tsx",
      "export const A = () => <ul><li>العربية</li><li>All boats sail</li></ul>;",
      { allBoatsSail: "All boats sail" },
      "extract/other-script",
    ],
  ])("%s: %s", async (file, code, texts, reason) => {
    const result = await extract(file, code);
    expect(result.texts("en")).toEqual(texts);
    expect(result.notes).toEqual([reason]);
  });

  test.each<[string, string, string]>([
    [
      "behind the branch",
      "a.tsx",
      'export const A = ({ lang }) => <div dir={lang === "ar" ? "rtl" : "ltr"}><p>All boats sail</p></div>;',
    ],
    [
      "in the branch of all others",
      "a.tsx",
      'export function A({ lang }) { if (lang === "ar") { return null; } return <p>All boats sail</p>; }',
    ],
    [
      "for the language of the source",
      "a.php",
      "<?php if ($lang == 'en'): ?><p>All boats sail</p><?php endif; ?>",
    ],
    ["for others than one", "a.html.erb", '<% if locale != "ar" %><p>All boats sail</p><% end %>'],
    [
      "with a sign of another alphabet",
      "a.tsx",
      "export const A = () => <p>All boats sail</p>; export const unit = <b>Ω</b>;",
    ],
  ])("a text %s is one", async (_, file, code) => {
    expect((await extract(file, code)).texts("en")).toEqual({ allBoatsSail: "All boats sail" });
  });
});

/** How a language runs a file in a locale: what comes before it, with the texts that its lookup finds, and the command. */
const runners: readonly [
  file: string,
  command: readonly [string, ...string[]],
  run: (code: string, lang: string, texts: Record<string, string>) => string,
  code: string,
][] = [
  [
    "a.php",
    ["php"],
    (code, lang, texts) =>
      `<?php $lang = '${lang}'; $texts = json_decode('${JSON.stringify(texts)}', true); function t($key) { global $texts; return $texts[$key]; } ?>${code}`,
    "<?php if ($lang == 'de'): ?><h1 class=\"a\">Boote von heute</h1><?php else: ?><h1 class=\"a\">Boats of today</h1><?php endif; ?>\n<p><?= ($lang === 'de') ? 'Alle Inseln' : 'All islands' ?>, <?php echo $lang == 'de' ? \"Eine Karte\" : \"One map\"; ?></p>\n<?php if ($lang == 'de') { ?><b>Heute</b><?php } else { ?><b>Right now</b><?php } ?>\n",
  ],
  [
    "a.html.erb",
    ["ruby", "-rerb", "-rjson", "-"],
    (code, lang, texts) =>
      `module I18n; def self.locale; :${lang}; end; end\nTEXTS = JSON.parse(${JSON.stringify(JSON.stringify(texts))})\ndef t(key); TEXTS[key]; end\ndef locale; "${lang}"; end\nputs ERB.new(${JSON.stringify(code)}).result(binding)\n`,
    '<% if I18n.locale == :de %>\n  <h1>Boote von heute</h1>\n<% else %>\n  <h1>Boats of today</h1>\n<% end %>\n<p title="<%= locale == "de" ? "Alle Inseln" : "All islands" %>"><% if locale == "de" %>Eine Karte<% else %>One map<% end %></p>\n',
  ],
  [
    "a.py",
    ["python3", "-"],
    (code, lang, texts) =>
      `TEXTS = ${JSON.stringify(texts)}\ndef t(key): return TEXTS[key]\nflash = print\n${code}\nshow("${lang}")\n`,
    'def show(lang):\n    flash("Boote von heute" if lang == "de" else "Boats of today")\n    flash(("Alle Inseln" if lang == "de" else "All islands"))\n    if lang == "de":\n        flash("Eine Karte")\n    else:\n        flash("One map here")\n',
  ],
];

describe.each(runners)("in both languages %s prints", (file, [command, ...args], run, code) => {
  const isThere = spawnSync(command, ["--version"]).status === 0;
  (isThere ? test : test.skip)("what it printed before", async () => {
    const after = await extract(file, code);
    expect(after.code).not.toBe(code);
    for (const lang of ["en", "de"]) {
      const printed = [code, after.code].map((one) => {
        const texts = { ...after.texts("en"), ...after.texts(lang) };
        const done = spawnSync(command, args, { input: run(one, lang, texts), encoding: "utf8" });
        expect(done.stderr).toBe("");
        return done.stdout.replace(/\s+/g, " ").replace(/(<\/(?:h1|p)>) /g, "$1");
      });
      expect(printed[1]).toBe(printed[0]);
      expect(printed[0]).toContain(lang === "de" ? "Boote von heute" : "Boats of today");
    }
  });
});

describe("tables by locale stay in the code, in every language", () => {
  test.each<[string, string]>([
    [
      "a.php",
      "<?php\n$titles = ['en' => 'Boats of today', 'de' => 'Boote von heute'];\nshow($titles[$lang]);\n",
    ],
    ["a.py", 'TITLES = {"en": "Boats of today", "de": "Boote von heute"}\n'],
    ["a.rb", 'TITLES = { "en" => "Boats of today", "de" => "Boote von heute" }\n'],
    ["b.rb", 'TITLES = { en: "Boats of today", de: "Boote von heute" }\n'],
    [
      "A.java",
      'class A { Map<String, String> titles() { return Map.of("en", "Boats of today", "de", "Boote von heute"); } }\n',
    ],
    ["a.ts", 'steps.push({ title: { "en-US": "<p>Boats of today</p>", de: "<p>Boote von heute</p>" } });\n'],
  ])("%s", async (file, code) => {
    const found = await extract(file, code);
    expect(found.code).toBe(code);
    expect(found.texts("en")).toEqual({});
  });

  test.each<[string, string, string[]]>([
    [
      "short words that are names of languages too",
      "<?php\n$titles = ['no' => 'Not on board', 'to' => 'To the quay'];\n",
      ["Not on board", "To the quay"],
    ],
    [
      "names of languages",
      "<?php\n$titles = ['en' => 'English', 'de' => 'German language', 'fr' => 'French', 'nl' => 'Nederlands'];\n",
      ["English", "German language", "French"],
    ],
    [
      "a list with a key that is none",
      "<?php\n$titles = ['title' => 'Boats of today', 'de' => 'Of all of them'];\n",
      ["Boats of today", "Of all of them"],
    ],
  ])("%s", async (_, code, texts) => {
    expect(Object.values((await extract("a.php", code)).texts("en"))).toEqual(texts);
  });
});
