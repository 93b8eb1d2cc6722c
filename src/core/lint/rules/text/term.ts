import { defineRule } from "../../rule.js";
import { inLocale, termTest } from "../../glossary.js";

export const textTerm = defineRule({
  id: "text/term",
  level: "warning",
  summary: "Glossary term that the translation does not use, or a forbidden word.",
  why: 'If one thing has two names, readers take it for two things. The configuration names the glossary, a CSV table or TBX-Basic: `"glossary": "terms.csv"`. Endings of words may differ; a `*` in the glossary marks how much of a word must stay. In compounds of German and related languages, only the start of the word is found.',
  messages: {
    forbidden: {
      message: '"{word}" is a term that the glossary forbids',
      remedy: "use the glossary's term",
    },
    unused: {
      message: 'glossary term not used: "{term}" is {wanted}',
      remedy: 'use "{first}" in the form that the sentence needs',
    },
  },
  examples: {
    bad: [
      {
        source: "Book your berth",
        target: "Buchen Sie Ihr Bett",
        glossary: "en,de,de avoid\nberth,Koje,Schiff\n",
      },
      { source: "Our boats", target: "Unser Schiff", glossary: "en,de,de avoid\nberth,Koje,Schiff\n" },
    ],
    good: [
      {
        source: "Book your berth",
        target: "Buchen Sie Ihre Koje",
        glossary: "en,de,de avoid\nberth,Koje,Schiff\n",
      },
      { source: "All berths", target: "Alle Kojen", glossary: "en,de\nberth,Koje\n", note: "another ending" },
      { source: "Book your cabin", target: "Buchen Sie Ihre Kabine", glossary: "en,de\nberth,Koje\n" },
    ],
  },
  applies: ({ glossary }) => glossary.length > 0,
  entry(view, context) {
    const { message, locale } = view;
    for (const { avoided } of context.glossary) {
      for (const word of inLocale(avoided, locale) ?? []) {
        if (!termTest(word, true).test(message.facts.text)) continue;
        view.report("forbidden", { word });
      }
    }
  },
  pair(target, source, context) {
    const { message, locale } = target;
    const bare = (term: string) => term.replace("*", "");
    for (const { terms } of context.glossary) {
      const wanted = inLocale(terms, locale);
      const own = inLocale(terms, source.locale)?.find((term) =>
        termTest(term).test(source.message.facts.text),
      );
      if (!wanted || own === undefined || wanted.some((term) => termTest(term).test(message.facts.text)))
        continue;
      target.report("unused", {
        term: bare(own),
        wanted: wanted.map((term) => `"${bare(term)}"`).join(" or "),
        first: bare(wanted[0] ?? ""),
      });
    }
  },
});
