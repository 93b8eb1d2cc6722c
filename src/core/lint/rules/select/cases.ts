import type { SelectNode } from "../../../message/model.js";
import { nearest } from "../../../text/nearest.js";
import { defineRule } from "../../rule.js";

export const selectCases = defineRule({
  id: "select/cases",
  level: "error",
  summary: "A select whose cases are not the source's.",
  why: "The program passes the source's values, untranslated. A case with another name is never chosen, and users read `other` in its place.",
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
  looksAt: ["selects"],
  pair(context, { catalog, entry, message }, source) {
    for (const select of message.facts.selects) {
      const wanted = casesOf(source.message.facts.selects, select.name);
      if (wanted.size === 0) continue;
      const own = casesOf(message.facts.selects, select.name);
      const missing = new Set([...wanted].filter((name) => !own.has(name)));
      for (const branch of select.branches) {
        const { selector } = branch;
        if (selector === "other" || wanted.has(selector)) continue;
        const [only] = missing;
        const meant = nearest(selector, missing) ?? (missing.size === 1 ? only : undefined);
        if (meant !== undefined) missing.delete(meant);
        context.report(
          catalog,
          { at: "message", entry, ...(branch.selectorSpan && { span: branch.selectorSpan }) },
          {
            message: `unknown case "${selector}" of {${select.name}}: the program never selects it`,
            remedy: meant
              ? `write "${meant}"; cases are names in the program and are not translated`
              : `the source's cases are ${[...wanted].join(", ")}`,
          },
        );
      }
      if (select !== message.facts.selects.find(({ name }) => name === select.name)) continue;
      for (const name of missing) {
        context.report(
          catalog,
          { at: "message", entry, ...(select.nameSpan && { span: select.nameSpan }) },
          {
            message: `missing case "${name}" of {${select.name}}; users read "other" instead`,
            remedy: `add ${name} {…}`,
          },
        );
      }
    }
  },
});

function casesOf(selects: readonly SelectNode[], name: string): ReadonlySet<string> {
  return new Set(
    selects
      .filter((select) => select.name === name)
      .flatMap(({ branches }) => branches.map(({ selector }) => selector))
      .filter((selector) => selector !== "other"),
  );
}
