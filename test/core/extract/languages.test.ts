import { describe, expect, test } from "@jest/globals";
import { memoryFiles } from "../../../src/core/files/memory-files.js";
import { extractProject, openProject } from "../../../src/core/project/project.js";

/** Extracts from one file of a project in English with German and Arabic. */
async function extract(file: string, code: string) {
  const endings = {
    ".vue": { content: "{{ t('{key}') }}" },
    ".twig": { content: "{{ '{key}' | text }}" },
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
  return { code: after(`src/${file}`) ?? code, texts, notes: plan.notes.map(({ messageId }) => messageId) };
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
