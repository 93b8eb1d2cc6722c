import type { MessageFacts } from "../../../message/facts.js";
import type { ArgumentNode } from "../../../message/model.js";
import { styleFault } from "../../../message/styles.js";
import { groupBy } from "../../../text/group-by.js";
import { nearest } from "../../../text/nearest.js";
import { defineRule } from "../../rule.js";

export const argumentFormat = defineRule({
  id: "argument/format",
  level: "error",
  summary: "Invalid number, date or time style, or one that differs from the source.",
  why: "An invalid skeleton throws an error or shows a raw number. A named style or skeleton means the same in every language, so a different one is probably a mistake. Patterns such as `dd.MM.yyyy` are specific to a locale and may differ.",
  messages: {
    misspelled: { message: '"{style}" is not valid in a {type} style', remedy: 'did you mean "{meant}"?' },
    "misspelled-type": {
      message: '"{type}" is no type that {argument} can have: programs throw an error',
      remedy: "did you mean {meant}?",
    },
    "unknown-type": {
      message: '"{type}" is no type that {argument} can have: programs throw an error',
      remedy: "use one of the types {types}",
    },
    different: {
      message: '{argument} is formatted as "{style}"; the source has "{source}"',
      remedy: "write {source}",
    },
  },
  examples: {
    bad: [
      {
        source: "{p, number, ::precent}",
        target: "{p, number, ::percent}",
        note: "the source's skeleton cannot be read",
      },
      { source: "{p, number, ::currency/EUR}", target: "{p, number, ::currency/USD}" },
      { source: "{p, number, percent}", target: "{p, number, prozent}" },
      { source: "{p, number}", target: "{p, nubmer}" },
    ],
    good: [
      { source: "{d, date, ::yMMMd}", target: "{d, date, ::yMMMd}" },
      { source: "{d, date, MM/dd/yyyy}", target: "{d, date, dd.MM.yyyy}" },
      { source: "{p, number, ::currency/EUR .00}", target: "{p, number, ::.00 currency/EUR}" },
    ],
  },
  needs: ["formats"],
  entry(entry, context) {
    const { message } = entry;
    const { argumentTypes: types, hasSkeletons } = context.syntax;
    if (message.facts.arguments.size === 0) return;
    for (const use of formatted(message.facts.arguments)) {
      const { format } = use;
      if (format && types && !types.includes(format.type)) {
        // What the source has wrong is said there.
        const isSource = entry.locale === context.book.sourceLocale;
        const source = isSource ? undefined : context.sourceOf(entry.catalog, entry.entry.key)?.message;
        const inSource = source ? formatted(source.facts.arguments) : [];
        if (inSource.some((one) => one.name === use.name && one.format?.type === format.type)) continue;
        const data = { argument: context.argument(use.name), type: format.type };
        const meant = nearest(format.type, types);
        const at = { span: format.typeSpan };
        if (meant !== undefined) entry.report("misspelled-type", { ...data, meant }, at);
        else entry.report("unknown-type", { ...data, types: types.join(", ") }, at);
        continue;
      }
      if (!hasSkeletons) continue;
      const style = format?.style;
      if (!format || !style) continue;
      const slip =
        style.kind === "pattern" ? nearest(style.text.toLowerCase(), namesOf(format.type)) : undefined;
      const { span } = style;
      if (slip !== undefined && /^\p{L}+$/u.test(style.text)) {
        entry.report("misspelled", { style: style.text, type: format.type, meant: slip }, { span });
        continue;
      }
      const fault = styleFault(format);
      if (fault) entry.reportNotice(fault, { span });
    }
  },
  pair(target, source, context) {
    const { message } = target;
    const sourceUses = groupBy(formatted(source.message.facts.arguments), ({ name }) => name);
    if (message.facts.arguments.size === 0) return;
    for (const use of formatted(message.facts.arguments)) {
      const { format } = use;
      const style = format?.style;
      if (
        !format ||
        !style ||
        style.kind === "pattern" ||
        (context.syntax.hasSkeletons && styleFault(format))
      )
        continue;
      const meant = (sourceUses.get(use.name) ?? []).filter((one) => one.format?.type === format.type);
      const styles = meant.flatMap((one) => one.format?.style ?? []);
      if (meant.length === 0 || styles.length < meant.length || styles.some(({ kind }) => kind === "pattern"))
        continue;
      if (
        styles.some(
          (one) => sorted(one.text) === sorted(style.text) || styleFault({ type: format.type, style: one }),
        )
      )
        continue;
      const [first] = styles;
      const written = first?.kind === "skeleton" ? `::${first.text}` : (first?.text ?? "");
      target.report(
        "different",
        { argument: context.argument(use.name), style: style.text, source: written },
        { span: style.span, severity: "warning" },
      );
    }
  },
});

function formatted(uses: MessageFacts["arguments"]): readonly ArgumentNode[] {
  let found: ArgumentNode[] | undefined;
  for (const all of uses.values())
    for (const use of all) if (use.kind === "argument" && use.format) (found ??= []).push(use);
  return found ?? none;
}

const none: readonly ArgumentNode[] = [];

/** A skeleton's tokens in no particular order. */
function sorted(style: string): string {
  return style.split(/\s+/).sort().join(" ");
}

function namesOf(type: string): readonly string[] {
  if (type === "number") return ["integer", "percent", "currency"];
  return type === "date" || type === "time" ? ["short", "medium", "long", "full"] : [];
}
