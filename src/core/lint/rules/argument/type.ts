import type { ArgumentNode } from "../../../message/model.js";
import type { MessageFacts } from "../../../message/facts.js";
import { defineRule } from "../../rule.js";

export const argumentType = defineRule({
  id: "argument/type",
  level: "error",
  summary: "Argument with another type than in the source.",
  why: "The program passes one value: a date formatted as a number shows 1,893,456,000, and a name formatted as a number throws an error. A number that the translation does not format is a warning, because it is shown, only not as the locale writes it.",
  messages: {
    plain: {
      message: "{argument} is a {wanted} in the source, but has no format here",
      remedy: "write {written}",
    },
    other: {
      message: "{argument} is a {wanted} in the source and a {type} here",
      remedy: "write {written}",
    },
    typed: {
      message: "{argument} has no format in the source, but is a {type} here",
      remedy: "write {argument}",
    },
  },
  examples: {
    bad: [
      { source: "On {day, date}", target: "Am {day, number}" },
      { source: "Hello {name}", target: "Hallo {name, number}" },
      { source: "{price, number, ::currency/EUR}", target: "{price} Euro" },
    ],
    good: [
      { source: "On {day, date, short}", target: "Am {day, date, short}" },
      { source: "{day, date} {day, time}", target: "{day, time} {day, date}" },
      {
        source: "{n, plural, one {# boat} other {# boats}}",
        target: "{n, plural, one {ein Boot} other {{n, number} Boote}}",
      },
    ],
  },
  needs: ["parts"],
  pair(target, source, context) {
    const { message } = target;
    for (const [name, uses] of message.facts.arguments) {
      const wanted = typesOf(source.message.facts, name);
      if (wanted.size === 0) continue;
      for (const use of uses) {
        if (use.kind !== "argument") continue;
        const type = typeOf(use);
        if (wanted.has(type)) continue;
        const typed = [...wanted].filter((one) => one !== "plain");
        if (type === "plain" && typed.length === 0) continue;
        const span = use.format?.typeSpan ?? use.span;
        const argument = context.argument(name);
        const [only] = typed;
        if (only === undefined) target.report("typed", { argument, type }, { span });
        else {
          const written = context.print({ kind: "argument", name, format: { type: only } });
          if (type === "plain")
            target.report("plain", { argument, wanted: only, written }, { span, severity: "warning" });
          else target.report("other", { argument, wanted: only, type, written }, { span });
        }
      }
    }
  },
});

/** The types of value that a message takes an argument for; a plural counts numbers, and shows them plain as well. */
function typesOf(facts: MessageFacts, name: string): ReadonlySet<string> {
  const types = new Set<string>();
  for (const use of facts.arguments.get(name) ?? []) {
    if (use.kind === "argument") types.add(typeOf(use));
    else if (use.kind === "plural") types.add("number").add("plain");
    else types.add("plain");
  }
  return types;
}

const numeric =
  /^(?:number|integer|percent|currency|unit|spellout|ordinal|duration|offset|[diuxXeEfFgG]|l?ld|l?lu)$/;
const dated = /^(?:date|time|datetime)$/;

function typeOf({ format }: ArgumentNode): string {
  if (!format || /^(?:capitals|title|string|s|@|v)$/.test(format.type)) return "plain";
  if (numeric.test(format.type)) return "number";
  return dated.test(format.type) ? "date" : format.type;
}
