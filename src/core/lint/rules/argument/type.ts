import type { ArgumentNode } from "../../../message/model.js";
import type { MessageFacts } from "../../../message/facts.js";
import { defineRule } from "../../rule.js";

export const argumentType = defineRule({
  id: "argument/type",
  level: "error",
  summary: "An argument that is a number here, a date there, plain elsewhere.",
  why: "The program passes one value: a date that is formatted as a number shows 1,893,456,000, and a name formatted as a number ends in an error. A number that the translation shows plain is a warning, since it is shown, only not as the locale writes it.",
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
  looksAt: ["parts"],
  pair(context, { catalog, entry, message }, source) {
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
        context.report(
          catalog,
          { at: "message", entry, ...(span && { span }) },
          {
            message:
              type === "plain"
                ? `{${name}} is ${article(typed[0] ?? "")} in the source, but has no format here`
                : typed.length > 0
                  ? `{${name}} is ${article(typed[0] ?? "")} in the source and ${article(type)} here`
                  : `{${name}} has no format in the source, but is ${article(type)} here`,
            remedy: typed.length > 0 ? `write {${name}, ${typed[0] ?? ""}}` : `write {${name}}`,
            ...(type === "plain" && { severity: "warning" as const }),
          },
        );
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

function article(type: string): string {
  return type === "plain" ? type : `a ${type}`;
}
