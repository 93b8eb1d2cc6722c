import type { Book } from "../../../catalog/book.js";
import { isTimePattern } from "../../time-pattern.js";
import { placeholderShapes, type PlaceholderShape } from "../../../message/syntaxes/syntax.js";
import { defineRule } from "../../rule.js";
import { spanInText, textNodesIn } from "../../text-parts.js";

const shapes = Object.entries(placeholderShapes) as readonly [PlaceholderShape, RegExp][];

const secondShapes = new WeakMap<Book, Map<PlaceholderShape, boolean>>();

/** Whether so many texts of the source have placeholders of a second kind that the program must know them, too. */
function knowsToo(book: Book, shape: PlaceholderShape, pattern: RegExp): boolean {
  const known = secondShapes.get(book) ?? new Map<PlaceholderShape, boolean>();
  secondShapes.set(book, known);
  let is = known.get(shape);
  if (is === undefined) {
    const all = book.catalogsOf(book.sourceLocale).flatMap(({ byKey }) => [...byKey.values()]);
    const count = all.filter(({ text }) => /[{%]/.test(text) && pattern.test(text)).length;
    known.set(shape, (is = count >= 3));
  }
  return is;
}

export const syntaxForeign = defineRule({
  id: "syntax/foreign",
  level: "error",
  summary: "Placeholder of another syntax.",
  why: "The program does not know it, so users see it literally: `Hello %s`. If the source has it too, it is reported only there, for information: it may be about such signs, or a part of the program fills it in by itself. Quoted text is not reported, and neither is a second kind of placeholders that three texts of the source or more have.",
  messages: {
    foreign: {
      message: '"{found}" is not a placeholder in this book\'s syntax; users see it as text',
      remedy: "write it as {syntax} does: {written}",
    },
    known: {
      message: '"{found}" is not a placeholder in this book\'s syntax; users see it as text',
      remedy: "write {written}",
    },
    dollar: {
      message: '"$" before {argument} is not part of the placeholder; users see it',
      remedy: "write {argument}",
    },
  },
  looks: "around",
  examples: {
    bad: [
      { source: "Hello %s", target: "Hallo %s" },
      { source: "Hello {name}", target: "Hallo ${name}" },
    ],
    good: [
      { source: "Hello {name}", target: "Hallo {name}" },
      { source: "100 % sure", target: "100 % sicher" },
      { source: "Save 20%", target: "20% sparen" },
    ],
  },
  needs: ["signs", "braces"],
  entry(view, context) {
    const { catalog, entry, message, locale } = view;
    const { syntax } = context;
    if (!syntax.hasArguments) return;
    // A dollar sign in front of an argument is only a character, but `${name}` was likely meant.
    const readsDollar = syntax.numberedFrom === undefined && context.argument("x") === "{x}";
    const mayHold = message.facts.text.includes("{") || message.facts.text.includes("%");
    if (!mayHold && !(readsDollar && message.facts.arguments.size > 0 && entry.text.includes("${"))) return;
    const source = locale === context.book.sourceLocale ? undefined : context.sourceOf(catalog, entry.key);
    for (const node of textNodesIn(message.nodes)) {
      if (!/[{%]/.test(node.value)) continue;
      const isQuoted = message.quoted.some(
        (span) => node.span && span.start < node.span.end && node.span.start < span.end,
      );
      if (isQuoted) continue;
      for (const [shape, pattern] of shapes) {
        if (syntax.placeholders.includes(shape)) continue;
        const found = pattern.exec(node.value);
        if (!found || source?.message.facts.text.includes(found[0]) || isTimePattern(node.value)) continue;
        // A text of values alone is a pattern that the program fills, whatever kind they are of.
        if (!/\p{L}/u.test(message.facts.text.replace(new RegExp(pattern.source, "gu"), ""))) continue;
        if (knowsToo(context.book, shape, pattern)) continue;
        const span = spanInText(node, found.index, found[0].length);
        const known = source && [...source.message.facts.arguments.keys()];
        const name = /[\p{L}_][\w.]*/u.exec(found[0])?.[0] ?? "";
        const isKnown = known?.includes(name);
        const { numberedFrom } = syntax;
        const written = context.argument(numberedFrom === undefined ? name || "name" : String(numberedFrom));
        if (isKnown) view.report("known", { found: found[0], written }, { span });
        else
          view.report(
            "foreign",
            { found: found[0], syntax: syntax.name, written },
            // The source may be about such signs: `Write {{boat}} where its name goes`.
            { span, ...(source === undefined && { severity: "info" as const }) },
          );
        break;
      }
    }
    // `${name}` is read as an argument behind a lone sign.
    if (!readsDollar) return;
    for (const [name, uses] of message.facts.arguments)
      for (const { span } of uses) {
        if (!span || entry.text[span.start - 1] !== "$" || /^\d/.test(name)) continue;
        // A dollar in front of an amount is one.
        if (/price|amount|total|cost|fee|fare|sum|balance|value|dollar|usd/i.test(name)) continue;
        if (source?.entry.text.includes(`\${${name}`)) continue;
        view.report(
          "dollar",
          { argument: context.argument(name) },
          { span: { start: span.start - 1, end: span.end }, severity: "warning" },
        );
      }
  },
});
