import type { Catalog } from "../../../catalog/book.js";
import type { Entry } from "../../../catalog/model.js";
import { scriptOf } from "../../../locale/script.js";
import { defineRule } from "../../rule.js";
import { languageOf, spanInText, textNodesIn } from "../../text-parts.js";

/** Scripts that a locale's own stands for; Latin is allowed everywhere, as names and codes are written in it. */
const companions: Readonly<Record<string, readonly string[]>> = {
  Jpan: ["Hiragana", "Katakana", "Han"],
  Hans: ["Han"],
  Hant: ["Han", "Bopomofo"],
  Kore: ["Hangul", "Han"],
  Cyrl: ["Cyrillic"],
  Grek: ["Greek"],
  Arab: ["Arabic"],
  Hebr: ["Hebrew"],
  Deva: ["Devanagari"],
  Beng: ["Bengali"],
  Thai: ["Thai"],
  Geor: ["Georgian"],
  Armn: ["Armenian"],
  Latn: [],
};

const tested = [
  "Cyrillic",
  "Greek",
  "Arabic",
  "Hebrew",
  "Devanagari",
  "Bengali",
  "Thai",
  "Georgian",
  "Armenian",
  "Hangul",
  "Hiragana",
  "Katakana",
  "Han",
];

/** Languages that are written in several scripts, with those besides the likely one (CLDR, "Language/Script"). */
const alternatives = new Map<string, RegExp>();
for (const [languages, written] of [
  ["bs ro sr", ["Cyrillic"]],
  ["az ku tk uz", ["Cyrillic", "Arabic"]],
  ["ha kk ky ms pa tg", ["Arabic"]],
  ["ug", ["Cyrillic"]],
  ["ks sd", ["Devanagari"]],
] as const)
  for (const language of languages.split(" "))
    alternatives.set(language, new RegExp(`[${written.map((one) => `\\p{Script=${one}}`).join("")}]`, "u"));

const scripts = new Map<string, { readonly foreign: RegExp; readonly mixed: RegExp | undefined }>();

function scriptsOf(locale: string) {
  const made = scripts.get(locale);
  if (made) return made;
  const own = scriptOf(locale);
  const allowed = companions[own];
  const foreign = allowed ? tested.filter((one) => !allowed.includes(one)) : [];
  const [first] = own === "Cyrl" || own === "Grek" ? (allowed ?? []) : [];
  const result = {
    // One letter by itself is a sign, such as µ or Ω.
    foreign:
      foreign.length === 0
        ? /(?!)/
        : new RegExp(`[${foreign.map((one) => `\\p{Script=${one}}`).join("")}]{2,}`, "u"),
    mixed:
      first === undefined
        ? undefined
        : new RegExp(
            `\\p{Script=${first}}+\\p{Script=Latin}\\p{Script=${first}}|(?<![\\p{L}\\\\])\\p{Script=Latin}\\p{Script=${first}}{2,}|\\p{Script=${first}}{2,}\\p{Script=Latin}(?!\\p{L})`,
            "u",
          ),
  };
  scripts.set(locale, result);
  return result;
}

const elsewise = new WeakMap<Catalog, { readonly first: Entry | undefined }>();

/** The first text of a catalog in a script that its locale does not use, where most of them are. */
function firstElsewise(catalog: Catalog, foreign: RegExp): Entry | undefined {
  let known = elsewise.get(catalog);
  if (!known) {
    const texts = [...catalog.byKey.values()].filter(({ text }) => /\p{L}{2}/u.test(text));
    const found = texts.filter(({ text }) => foreign.test(text));
    known = { first: texts.length > 4 && found.length > texts.length / 2 ? found[0] : undefined };
    elsewise.set(catalog, known);
  }
  return known.first;
}

export const textScript = defineRule({
  id: "text/script",
  level: "warning",
  summary: "Letters of a script that the locale does not use, or look-alikes inside a word.",
  why: "Text of another language was pasted in, or a Latin `c` is inside a Russian word: it looks right, and no search finds it. Latin letters, text that the source has too, and single letters are not reported.",
  messages: {
    mixed: {
      message: '"{text}" mixes in a Latin letter that looks like one of its own script',
      remedy: "type the word again in its own script",
    },
    whole: {
      message: 'most texts of the file, such as "{text}", are in a script that {locale} does not use',
      remedy: "check the locale of the file; if it is right, add its script to it, as sr-Cyrl has it",
    },
    foreign: {
      message: '"{text}" is in a script that {locale} does not use',
      remedy: "check whether the text belongs to this locale",
    },
  },
  looks: "beside",
  examples: {
    bad: [
      { source: "Boats", target: "Лодки" },
      { locale: "ru", source: "Timetable", target: "Раcписание", note: "with a Latin c" },
    ],
    good: [
      { locale: "ru", source: "Timetable", target: "Расписание Ferry" },
      { source: "5 µm", target: "5 µm" },
      { locale: "ja", source: "Timetable", target: "時刻表とボート" },
    ],
  },
  needs: ["script"],
  entry(view, context) {
    const { catalog, entry, message, locale } = view;
    const { text } = message.facts;
    if (!/[\u0370-\uffff]/.test(text)) return;
    // A pseudo-locale takes letters from anywhere, and Ossetic has a Latin one.
    if (/^\s*\[{2,}/.test(entry.text) || languageOf(locale) === "os") return;
    const { foreign, mixed } = scriptsOf(locale);
    if (!foreign.test(text) && !mixed?.test(text)) return;
    const isSource = locale === context.book.sourceLocale;
    const source = isSource ? undefined : context.sourceOf(catalog, entry.key);
    const first = foreign.test(text) ? firstElsewise(catalog, foreign) : undefined;
    // A tag that names its script has that one.
    const other = /-[A-Z][a-z]{3}(?:-|$)/.test(locale) ? undefined : alternatives.get(languageOf(locale));
    if (first && other?.test(first.text)) return;
    if (first) {
      // One word for a file that is written in another script as a whole.
      const [quoted = ""] = foreign.exec(text) ?? [];
      if (first.key === entry.key) view.report("whole", { text: quoted, locale });
      return;
    }
    for (const node of textNodesIn(message.nodes)) {
      // A source names languages in their own letters, and gives examples.
      const found = (isSource ? null : foreign.exec(node.value)) ?? mixed?.exec(node.value);
      if (!found || source?.entry.text.includes(found[0])) continue;
      const span = spanInText(node, found.index, found[0].length);
      const [quoted] = found;
      if (/\p{Script=Latin}/u.test(quoted)) view.report("mixed", { text: quoted }, { span });
      else view.report("foreign", { text: quoted, locale }, { span });
      return;
    }
  },
});
