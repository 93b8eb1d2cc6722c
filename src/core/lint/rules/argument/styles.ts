import type { MessageFacts } from "../../../message/facts.js";
import type { ArgumentNode } from "../../../message/model.js";
import { styleFault } from "../../../message/styles.js";
import { nearest } from "../../../text/nearest.js";
import { defineRule } from "../../rule.js";

export const argumentFormat = defineRule({
  id: "argument/format",
  level: "error",
  summary: "A number, date or time style that is not valid, or that differs from the source's.",
  why: "A skeleton that cannot be read ends in an error or in a raw number. A named style or skeleton says what is meant, the same in every language, so another one is likely a slip; patterns such as `dd.MM.yyyy` are a locale's own and may differ.",
  examples: {
    bad: [
      {
        source: "{p, number, ::precent}",
        target: "{p, number, ::percent}",
        note: "the source's skeleton cannot be read",
      },
      { source: "{p, number, ::currency/EUR}", target: "{p, number, ::currency/USD}" },
      { source: "{p, number, percent}", target: "{p, number, prozent}" },
    ],
    good: [
      { source: "{d, date, ::yMMMd}", target: "{d, date, ::yMMMd}" },
      { source: "{d, date, MM/dd/yyyy}", target: "{d, date, dd.MM.yyyy}" },
      { source: "{p, number, ::currency/EUR .00}", target: "{p, number, ::.00 currency/EUR}" },
    ],
  },
  looksAt: ["formats"],
  entry(context, { catalog, entry, message }) {
    if (message.facts.arguments.size === 0 || context.book.config.syntax !== "icu") return;
    for (const use of formatted(message.facts.arguments)) {
      const { format } = use;
      const style = format?.style;
      if (!format || !style) continue;
      const slip =
        style.kind === "pattern" ? nearest(style.text.toLowerCase(), namesOf(format.type)) : undefined;
      const fault =
        slip !== undefined && /^\p{L}+$/u.test(style.text)
          ? { part: style.text, remedy: `did you mean "${slip}"?` }
          : styleFault(format);
      if (!fault) continue;
      context.report(
        catalog,
        { at: "message", entry, ...(style.span && { span: style.span }) },
        {
          message: `"${fault.part}" is not valid in a ${format.type} ${style.kind === "skeleton" ? "skeleton" : "style"}`,
          remedy: fault.remedy,
        },
      );
    }
  },
  pair(context, { catalog, entry, message }, source) {
    if (message.facts.arguments.size === 0) return;
    for (const use of formatted(message.facts.arguments)) {
      const { format } = use;
      const style = format?.style;
      if (
        !format ||
        !style ||
        style.kind === "pattern" ||
        (context.book.config.syntax === "icu" && styleFault(format))
      )
        continue;
      const meant = formatted(source.message.facts.arguments).filter(
        (one) => one.name === use.name && one.format?.type === format.type,
      );
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
      context.report(
        catalog,
        { at: "message", entry, ...(style.span && { span: style.span }) },
        {
          message: `{${use.name}} is formatted as "${style.text}"; the source has "${written}"`,
          remedy: `write ${written}`,
          severity: "warning",
        },
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
