import type { SelectNode } from "../../../message/model.js";
import { nearest } from "../../../text/nearest.js";
import { defineRule } from "../../rule.js";

export const selectCases = defineRule({
  id: "select/cases",
  level: "error",
  summary: "Select whose cases differ from the source.",
  why: "The program passes the values of the source, untranslated. A case with another name is never selected, and users read `other` instead.",
  messages: {
    misspelled: {
      message: 'unknown case "{case}" of {argument}: the program never selects it',
      remedy: 'write "{meant}"; cases are names in the program and are not translated',
    },
    unknown: {
      message: 'unknown case "{case}" of {argument}: the program never selects it',
      remedy: "the source's cases are {known}",
    },
    missing: {
      message: 'missing case "{case}" of {argument}; users read "other" instead',
      remedy: "add {written}",
    },
  },
  examples: {
    bad: [
      {
        source: "{deck, select, upper {Upper} other {Main}}",
        target: "{deck, select, oben {Oben} other {Haupt}}",
        note: "the case was translated",
      },
      {
        source: "{deck, select, upper {Upper} car {Car} other {Main}}",
        target: "{deck, select, upper {Oben} other {Haupt}}",
      },
    ],
    good: [
      {
        source: "{deck, select, upper {Upper} other {Main}}",
        target: "{deck, select, upper {Oben} other {Haupt}}",
      },
    ],
  },
  needs: ["selects"],
  pair(target, source, context) {
    const { message } = target;
    const wantedByName = casesByName(source.message.facts.selects);
    const ownByName = casesByName(message.facts.selects);
    const seen = new Set<string>();
    for (const select of message.facts.selects) {
      const wanted = wantedByName.get(select.name);
      if (!wanted || wanted.size === 0) continue;
      const argument = context.argument(select.name);
      const own = ownByName.get(select.name) ?? new Set();
      const missing = new Set([...wanted].filter((name) => !own.has(name)));
      for (const branch of select.branches) {
        const { selector } = branch;
        if (selector === "other" || wanted.has(selector)) continue;
        const [only] = missing;
        const meant = nearest(selector, missing) ?? (missing.size === 1 ? only : undefined);
        if (meant !== undefined) missing.delete(meant);
        const data = { case: selector, argument };
        const at = { span: branch.selectorSpan };
        if (meant) target.report("misspelled", { ...data, meant }, at);
        else target.report("unknown", { ...data, known: [...wanted].join(", ") }, at);
      }
      if (seen.has(select.name)) continue;
      seen.add(select.name);
      for (const name of missing) {
        const written = context.syntax.writeBranch(name);
        target.report("missing", { case: name, argument, written }, { span: select.nameSpan });
      }
    }
  },
});

/** The cases of a message's selects by argument, without `other`. */
function casesByName(selects: readonly SelectNode[]): ReadonlyMap<string, ReadonlySet<string>> {
  const found = new Map<string, Set<string>>();
  for (const { name, branches } of selects) {
    const cases = found.get(name) ?? new Set();
    found.set(name, cases);
    for (const { selector } of branches) if (selector !== "other") cases.add(selector);
  }
  return found;
}
