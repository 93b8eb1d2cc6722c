import type { BookCode } from "../../../source/book-code.js";
import { defineRule } from "../../rule.js";
import { suppliedAt, type SuppliedLookup } from "../../supplied.js";

export const argumentUnsupplied = defineRule({
  id: "argument/unsupplied",
  level: "error",
  summary: "Missing value for an argument in a lookup.",
  why: "Users see the braces, or the program throws an error. Nothing is reported where the code passes a variable or spreads an object, because its members are unknown, and for functions whose many calls never pass a value, where others do or many of their messages need some: they only mark keys. What hardly any lookup passes, such as the name of a product, is given to all messages by the program.",
  messages: {
    unsupplied: {
      message: 'missing value for {arguments}, which the message "{key}" needs',
      remedy: "pass {names}",
    },
  },
  examples: {
    bad: [{ source: { hi: "Hello {name}" }, target: { hi: "Hallo {name}" }, code: 'f(() => t("hi"));' }],
    good: [
      {
        source: { hi: "Hello {name}" },
        target: { hi: "Hallo {name}" },
        code: 'f((name) => t("hi", { name }));',
      },
      { source: { hi: "Hello {name}" }, target: { hi: "Hallo {name}" }, code: 'f((all) => t("hi", all));' },
    ],
  },
  book(context) {
    const all = suppliedAt(context);
    const given = givenEverywhere(all, context.code);
    for (const { source, lookup, key, needed, passed } of all) {
      if (needed.size === 0) continue;
      const missing = [...needed].filter((name) => !passed.includes(name) && !given.has(name));
      if (missing.length === 0) continue;
      const { names: written = "{name}" } = context.book.config.emit;
      const names = missing.map((name) => written.replace("{name}", () => name)).join(", ");
      const data = { arguments: missing.map((name) => context.argument(name)).join(", "), key, names };
      context.reportCode(source, lookup.keySpan, "unsupplied", data, { key });
    }
  },
});

/** So many lookups without a value tell that they need not pass it, where so many values are passed in all. */
const leastWithout = 3;
const leastPassed = 20;
/** The largest part of the lookups that pass such a value all the same. */
const mostPassing = 0.25;

/** The arguments that hardly any lookup of a project passes, where values are passed otherwise: the program adds them itself. */
function givenEverywhere(all: readonly SuppliedLookup[], code: BookCode | undefined): ReadonlySet<string> {
  const counts = new Map<string, { passed: number; readonly keys: Set<string> }>();
  let passedInAll = 0;
  for (const { key, needed, passed } of all)
    for (const name of needed) {
      const own = counts.get(name) ?? { passed: 0, keys: new Set() };
      counts.set(name, own);
      if (passed.includes(name)) {
        own.passed++;
        passedInAll++;
      } else own.keys.add(key);
    }
  if (passedInAll < leastPassed) return new Set();
  const given = new Set(
    [...counts].flatMap(([name, { passed, keys }]) =>
      keys.size >= leastWithout && passed <= (passed + keys.size) * mostPassing ? [name] : [],
    ),
  );
  const isOpen = [...counts].some(([name, { keys }]) => keys.size > 0 && !given.has(name));
  if (given.size > 0 && isOpen && code)
    for (const { text } of code.files) for (const name of addedBeside(given, text)) given.add(name);
  return given;
}

/** What a program adds to the values of its callers together with values that are given everywhere: `{ product, version, ...values }`. */
function addedBeside(given: ReadonlySet<string>, text: string): readonly string[] {
  if (!text.includes("...")) return [];
  return [...text.matchAll(/\{([^{}]{1,600})\}/g)].flatMap(([, inside = ""]) => {
    if (!/\.\.\.[\w$]/.test(inside)) return [];
    const names = [...inside.matchAll(/(?<=^|,)\s*([\w$]{1,60})\s*(?=[:,]|$)/g)].map(([, name = ""]) => name);
    return names.some((name) => given.has(name)) ? names : [];
  });
}
