import { isOfTex } from "../../problems.js";
import { isCountOfForms } from "../../form-count.js";
import { isQuotedAway, matchNames } from "../../name-match.js";
import { defineRule, type SourceView } from "../../rule.js";

/** Whether a text is one of a numbered few (`rows.0`, `rows.1`, `rows._`), and another of them has the argument. */
function isOfSibling(name: string, { catalog, entry }: SourceView): boolean {
  const at = entry.key.lastIndexOf(catalog.separator);
  if (at < 0 || !/^\d+$/.test(entry.key.slice(at + 1))) return false;
  const group = entry.key.slice(0, at + 1);
  return ["_", "other", "n", "1", "2"].some((last) => {
    const sibling = catalog.byKey.get(group + last);
    return sibling !== undefined && sibling.key !== entry.key && sibling.text.includes(marks(name));
  });
}

/** How numbered values are written in placeholders of percent signs; others by their names. */
function marks(name: string): string {
  return /^\d+$/.test(name) ? "%" : name;
}

export const argumentUnknown = defineRule({
  id: "argument/unknown",
  level: "error",
  summary: "Unknown argument in a translation.",
  why: "The program passes no such value: it throws an error, or users see the braces. Translated and misspelled names are the usual cause.",
  messages: {
    misspelled: { message: "unknown argument {argument}", remedy: "did you mean {meant}?" },
    unknown: {
      message: "unknown argument {argument}",
      remedy: "write one of the source's arguments: {known}",
    },
    none: { message: "unknown argument {argument}", remedy: "remove it: the source has no arguments" },
  },
  looks: "beside",
  examples: {
    bad: [
      { source: "Hello {name}", target: "Hallo {nmae}", fixed: "Hallo {name}" },
      { source: "{count} bikes", target: "{anzahl} Räder", note: "the name was translated" },
    ],
    good: [{ source: "Hello {name}", target: "Hallo {name}" }],
  },
  needs: ["parts"],
  pair(target, source, context) {
    const { entry, message } = target;
    const { unknown } = matchNames(source.message.facts.arguments, message.facts.arguments);
    if (unknown.length === 0) return;
    const known = [...source.message.facts.arguments.keys()].map((name) => context.argument(name)).join(", ");
    for (const { name, meant } of unknown) {
      // An argument that the source quotes is reported there.
      if (isQuotedAway(source.message, `{${name}`)) continue;
      if (isCountOfForms(name, target, source, context)) continue;
      if (isOfSibling(name, source) || isOfTex(entry.text, message.facts.arguments.get(name)?.[0]?.nameSpan))
        continue;
      const argument = context.argument(name);
      for (const { nameSpan: span } of message.facts.arguments.get(name) ?? []) {
        // Only a misspelled name is fixed: another one may be another value.
        if (meant !== undefined)
          target.report(
            "misspelled",
            { argument, meant: context.argument(meant) },
            { span, fix: span && entry.text.slice(span.start, span.end) === name ? meant : undefined },
          );
        else if (known !== "") target.report("unknown", { argument, known }, { span });
        else target.report("none", { argument }, { span });
      }
    }
  },
});
