import { languageOfTexts } from "../../../locale/language-of-texts.js";
import { defineRule } from "../../rule.js";
import { languageName } from "../../plural-words.js";
import { languageOf, spanInText, textNodesIn } from "../../text-parts.js";

/** The quotation marks that each language writes first (CLDR, "delimiters"). */
const quotes: Readonly<Record<string, readonly [string, string]>> = {
  bg: ["„", "“"],
  cs: ["„", "“"],
  da: ["“", "”"],
  de: ["„", "“"],
  el: ["«", "»"],
  es: ["«", "»"],
  et: ["„", "“"],
  fi: ["”", "”"],
  fr: ["«\u00a0", "\u00a0»"],
  hr: ["„", "“"],
  hu: ["„", "”"],
  is: ["„", "“"],
  it: ["«", "»"],
  ja: ["「", "」"],
  lt: ["„", "“"],
  lv: ["“", "”"],
  nb: ["«", "»"],
  nl: ["‘", "’"],
  no: ["«", "»"],
  pl: ["„", "”"],
  pt: ["“", "”"],
  ro: ["„", "”"],
  ru: ["«", "»"],
  sk: ["„", "“"],
  sl: ["„", "“"],
  sr: ["„", "”"],
  sv: ["”", "”"],
  uk: ["«", "»"],
};

export const textTypography = defineRule({
  id: "text/typography",
  level: "info",
  summary:
    "Typography that the locale does not use: straight quotation marks, no space before French punctuation, no sign that opens a Spanish question, narrow marks in Chinese and Japanese.",
  why: "It looks careless. Straight quotation marks are reported only if the source has typographic ones, so that projects with straight ones are not bothered. French spaces are checked right after letters, and not for Canada and Switzerland, where usage differs.",
  messages: {
    quotes: {
      message: "straight quotation marks; the source has typographic ones",
      remedy: "write {better}",
    },
    opening: {
      message: 'question without "{opening}", which Spanish opens it with',
      remedy: 'write "{opening}" where it begins',
    },
    wide: {
      message: 'narrow "{character}" behind a character; {language} writes a wide one',
      remedy: 'write "{wide}"',
    },
    space: {
      message: 'missing narrow space before "{character}", which French uses',
      remedy: "write U+202F before it",
    },
  },
  examples: {
    bad: [
      {
        source: "The boat “Tallow” is late",
        target: 'Das Boot "Talg" ist verspätet',
        fixed: "Das Boot „Talg“ ist verspätet",
      },
      { locale: "fr", source: "Leave now?", target: "Partir maintenant?", fixed: "Partir maintenant\u202f?" },
      { locale: "es", source: "Leave now?", target: "Salir ahora?" },
      { locale: "zh-CN", source: "Leave now?", target: "现在离开?", fixed: "现在离开？" },
    ],
    good: [
      { source: "The boat “Tallow” is late", target: "Das Boot „Talg“ ist verspätet" },
      { source: 'The boat "Tallow" is late', target: 'Das Boot "Talg" ist verspätet' },
      { locale: "fr", source: "Leave now?", target: "Partir maintenant ?" },
    ],
  },
  needs: ["marks", "extra"],
  pair(target, source) {
    const { entry, message, locale } = target;
    const { text } = message.facts;
    const language = languageOf(locale);
    const own = quotes[language];
    if (
      own &&
      text.includes('"') &&
      /[“”„«»]/.test(source.message.facts.text) &&
      !source.message.facts.text.includes('"')
    ) {
      for (const node of textNodesIn(message.nodes)) {
        const found = /"([^"<>]+)"/.exec(node.value);
        const span = found && spanInText(node, found.index, found[0].length);
        if (!found || !span) continue;
        const better = own[0] + (found[1] ?? "") + own[1];
        const isExact = entry.text.slice(span.start, span.end) === found[0];
        target.report("quotes", { better }, { span, fix: isExact ? better : undefined });
        return;
      }
    }
    // What is not translated is a question of the source's language.
    if (
      language === "es" &&
      entry.text !== source.entry.text &&
      /\p{L}\?(?:\s|$)/u.test(text) &&
      !/[¿]/.test(text) &&
      source.message.facts.text.includes("?")
    )
      target.report("opening", { opening: "¿" });
    if (language === "zh" || language === "ja") {
      for (const node of textNodesIn(message.nodes)) {
        const found =
          /(?<=[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}])[?!;](?=\s*$|[\p{Script=Han}])/u.exec(
            node.value,
          );
        const span = found && spanInText(node, found.index, 1);
        if (!found || !span) continue;
        const [character] = found;
        const wide = { "?": "？", "!": "！", ";": "；" }[character] ?? "";
        const isExact = entry.text.slice(span.start, span.end) === character;
        target.report(
          "wide",
          { character, wide, language: languageName(locale) },
          { span, fix: isExact ? wide : undefined },
        );
        return;
      }
    }
    if (locale !== "fr" && locale !== "fr-FR") return;
    // An earlier text of the source is a question of its language.
    if ((languageOfTexts([text]) ?? language) !== language) return;
    for (const node of textNodesIn(message.nodes)) {
      const found = /(?<=\p{L})(?<!&\w{2,8})[?!;](?=\s|$)/u.exec(node.value);
      const span = found && spanInText(node, found.index, 1);
      if (!found || !span || entry.text[span.start] !== found[0]) continue;
      target.report("space", { character: found[0] }, { span, fix: `\u202f${found[0]}` });
      return;
    }
  },
});
