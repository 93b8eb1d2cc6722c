import { defineRule } from "../../rule.js";

const dangers: readonly (readonly [RegExp, string])[] = [
  [/<\s*(?:\/\s*)?script\b/i, "a script"],
  [
    /<\s*(?:iframe|object|embed|form|link|base)\s[^<>]*=|<\s*meta\s[^<>]{0,300}http-equiv\s{0,9}=\s{0,9}["']?refresh/i,
    "an element that loads or sends something",
  ],
  [/<[^<>]*\son[a-z]{3,}\s*=/i, "an event handler"],
  [
    /(?:href|src|action|formaction)\s*=\s*(?:["']\s*)?(?:javascript|vbscript|data\s*:\s*text\/html)/i,
    "an address that runs code",
  ],
  [/(?<![\p{L}\p{N}])javascript\s*:\s*[\p{L}(]/iu, "an address that runs code"],
];

export const markupUnsafe = defineRule({
  id: "markup/unsafe",
  level: "error",
  summary: "Markup in a text that could run code.",
  why: "Translations come from many people. Where a text is inserted as markup, a script or an event handler in it runs for every user. What the source has itself is reported there alone.",
  messages: {
    unsafe: { message: "text contains {what}", remedy: "remove it: code belongs in the program" },
  },
  examples: {
    bad: [
      { source: "Read more", target: "Mehr <script>steal()</script>" },
      { source: "Read <a href='/x'>more</a>", target: "<a href='/x' onclick='steal()'>Mehr</a> lesen" },
      { source: "Read <a href='/x'>more</a>", target: "<a href='javascript:steal()'>Mehr</a> lesen" },
    ],
    good: [
      { source: "Read <a href='/x'>more</a>", target: "<a href='/x'>Mehr</a> lesen" },
      {
        source: "<head><meta name='a' content='b'></head>Hello",
        target: "<head><meta name='a' content='b'></head>Hallo",
        note: "it loads nothing",
      },
      {
        source: "Rules for the <iframe> of the page",
        target: "Regeln für das <iframe> der Seite",
        note: "an element that the text speaks of",
      },
      {
        source: "JavaScript: the basics",
        target: "JavaScript: die Grundlagen",
        note: "the language's name in a title",
      },
    ],
  },
  looks: "around",
  needs: ["markup"],
  readsBroken: true,
  entry(entry, context) {
    const { text } = entry.entry;
    if (!text.includes("<") && !/script\s*:/i.test(text)) return;
    for (const [pattern, what] of dangers) {
      const found = pattern.exec(text);
      if (
        !found ||
        (found.index === 0 && /^javascript\s*:\s+\p{L}/iu.test(text)) ||
        /^javascript\s*:\s/i.test(found[0])
      )
        continue;
      // What the source has is said there: a translation that keeps it is none's doing.
      if (entry.locale !== context.book.sourceLocale) {
        const source = context.sourceOf(entry.catalog, entry.entry.key)?.entry.text ?? "";
        if (pattern.test(source)) continue;
      }
      entry.report("unsafe", { what }, { span: { start: found.index, end: found.index + found[0].length } });
      return;
    }
  },
});
