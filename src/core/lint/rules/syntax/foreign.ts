import type { MessageSyntax } from "../../../message/names.js";
import { defineRule } from "../../rule.js";
import { spanInText, textNodesIn } from "../../text-parts.js";

/** Placeholders by the syntaxes that write them so. */
const signs: readonly { readonly pattern: RegExp; readonly of: readonly MessageSyntax[] }[] = [
  { pattern: /\{\{\s*[\p{L}_$][\w.$]*\s*\}\}/u, of: ["double-brace"] },
  { pattern: /\$\{[\p{L}_$][\w.$]*\}/u, of: [] },
  { pattern: /#\{[\p{L}_@][\w.@]*\}/u, of: [] },
  { pattern: /%\{[\p{L}_]\w*\}/u, of: ["percent-brace"] },
  { pattern: /%\([\p{L}_]\w*\)[sdif]/u, of: ["percent-paren"] },
  {
    pattern: /(?<![\p{N}%])%(?:\d+\$)?(?:[sd@]|l[du]|\.\d+f)(?![\p{L}\p{N}])/u,
    of: ["printf", "percent-paren"],
  },
  { pattern: /(?<![{$%#\p{L}\p{N}])\{[\p{L}_$][\w.]*\}(?!\})/u, of: ["icu", "java", "mf2"] },
  { pattern: /(?<![{$%#\p{L}\p{N}])\{\d\}(?!\})/u, of: ["icu", "java"] },
  { pattern: /\{\s*\$[\p{L}_][\w-]*\s*\}/u, of: ["mf2"] },
];

export const syntaxForeign = defineRule({
  id: "syntax/foreign",
  level: "error",
  summary: "A placeholder as another syntax writes it.",
  why: "The program does not know it, so users see it as it stands: `Hello %s`. What stands in the source too is told of there alone, and what is quoted on purpose is let pass.",
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
    const { syntax } = context.book.config;
    if (syntax === "plain") return;
    const mayHold = message.facts.text.includes("{") || message.facts.text.includes("%");
    if (!mayHold && !(syntax === "icu" && message.facts.arguments.size > 0 && entry.text.includes("${")))
      return;
    const source = locale === context.book.sourceLocale ? undefined : context.sourceOf(catalog, entry.key);
    for (const node of textNodesIn(message.nodes)) {
      if (!/[{%]/.test(node.value)) continue;
      const isQuoted = message.quoted.some(
        (span) => node.span && span.start < node.span.end && node.span.start < span.end,
      );
      if (isQuoted) continue;
      for (const { pattern, of } of signs) {
        if (of.includes(syntax)) continue;
        const found = pattern.exec(node.value);
        if (!found || source?.message.facts.text.includes(found[0])) continue;
        // In ICU and Java a dollar or a number sign before an argument is only a character.
        const span = spanInText(node, found.index, found[0].length);
        const known = source && [...source.message.facts.arguments.keys()];
        const name = /[\p{L}_][\w.]*/u.exec(found[0])?.[0] ?? "";
        const isKnown = known?.includes(name);
        const written = context.argument(isKnown || name !== "" ? name : "name");
        if (isKnown) view.report("known", { found: found[0], written }, { span });
        else view.report("foreign", { found: found[0], syntax, written }, { span });
        break;
      }
    }
    // `${name}` is read as an argument behind a lone sign.
    if (syntax !== "icu") return;
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
