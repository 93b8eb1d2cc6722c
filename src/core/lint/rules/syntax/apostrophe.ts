import { defineRule } from "../../rule.js";

export const syntaxApostrophe = defineRule({
  id: "syntax/apostrophe",
  level: "error",
  summary: "Apostrophe that quotes a placeholder.",
  why: "In ICU messages, an apostrophe right before a brace or tag starts quoted text: `l'{name}` shows users the characters `{name}`. French, Italian and English contractions cause it. Reported if the quoted text is an argument or tag of the source, or if the quoting runs to the end of the message.",
  messages: {
    source: {
      message: "the apostrophes quote {quoted}, so users see it as text; {locale} has it as an argument",
      remedy: "write {typographic} with typographic apostrophes, or double them: {doubled}",
    },
    quotes: {
      message: "the apostrophe quotes {quoted}, so users see it as text",
      remedy: "write ’ (U+2019), or double the apostrophe: ''",
    },
    swallowed: {
      message: "the apostrophes around {quoted} quote it, so users see none of them",
      remedy: "write ’ (U+2019), or double the apostrophes: ''",
    },
    open: {
      message: "the apostrophe quotes everything to the end of the message",
      remedy: "write ’ (U+2019), or double the apostrophe: ''",
    },
  },
  looks: "around",
  examples: {
    bad: [
      { locale: "fr", source: "Island {name}", target: "L'île d'{name}" },
      { locale: "it", source: "About <b>{boat}</b>", target: "Sull'<b>{boat}</b>" },
    ],
    good: [
      { locale: "fr", source: "Island {name}", target: "L'île d''{name}" },
      {
        locale: "fr",
        source: "Island {name}",
        target: "L’île d’{name}",
        note: "a typographic apostrophe never quotes",
      },
      { source: "Type '{'name'}'", target: "Tippen Sie '{'name'}'", note: "quoted in the source too" },
    ],
  },
  needs: ["quoted"],
  entry(view, context) {
    const { catalog, entry, message, locale } = view;
    if (locale !== context.book.sourceLocale) return;
    for (const span of message.quoted) {
      const name = /\{\s*([\p{L}\p{N}_.]+)\s*\}/u.exec(message.source.slice(span.start, span.end))?.[1];
      if (name === undefined || message.facts.arguments.has(name)) continue;
      const target = context.book.targetLocales.find((one) => {
        const text = context.book.catalog(one, catalog.namespace)?.byKey.get(entry.key)?.text;
        return text !== undefined && context.message(text, one, entry.key).facts.arguments.has(name);
      });
      if (target === undefined) continue;
      view.report(
        "source",
        { quoted: `{${name}}`, locale: target, typographic: "’{…}’", doubled: "''{…}''" },
        { span },
      );
    }
  },
  pair(target, source, context) {
    const { message } = target;
    const isNumbered = context.syntax.numberedFrom !== undefined;
    // Where numbers name the arguments, programs format only texts that have some, unless the book says otherwise.
    const isFormatted =
      !isNumbered ||
      context.book.config.formatted === "always" ||
      message.facts.arguments.size > 0 ||
      source.message.facts.arguments.size > 0;
    if (!isFormatted) return;
    for (const span of message.quoted) {
      const quoted = message.source.slice(span.start, span.end);
      const hidden = hiddenIn(quoted, source.message.facts, message.facts);
      const isOpen = !quoted.endsWith("'") || quoted.length === 1;
      const isSwallowed =
        isNumbered &&
        !isOpen &&
        /^'[^{}']*\p{L}[^{}']*'$/u.test(quoted) &&
        source.message.quoted.length === 0;
      if (hidden === undefined && isSwallowed) {
        target.report(
          "swallowed",
          { quoted: quoted.length > 40 ? `${quoted.slice(0, 39)}…` : quoted },
          { span },
        );
        continue;
      }
      if (hidden === undefined && !(isOpen && source.message.quoted.length === 0)) continue;
      if (hidden) target.report("quotes", { quoted: hidden }, { span });
      else target.report("open", {}, { span });
    }
  },
});

interface Names {
  readonly arguments: ReadonlyMap<string, unknown>;
  readonly tags: ReadonlyMap<string, unknown>;
}

/** The argument or tag of the source that quoted text hides, as it is written; undefined where there is none. */
export function hiddenIn(quoted: string, source: Names, target: Names): string | undefined {
  for (const name of source.arguments.keys())
    if (!target.arguments.has(name) && quoted.includes(`{${name}`)) return `{${name}}`;
  for (const name of source.tags.keys())
    if (!target.tags.has(name) && quoted.includes(`<${name}`)) return `<${name}>`;
  return undefined;
}
