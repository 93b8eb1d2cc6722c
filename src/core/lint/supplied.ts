import { visitNodes } from "../message/facts.js";
import type { Lookup, SourceFile } from "../source/model.js";
import { formsArgument } from "../source/literal-message.js";
import type { RuleContext } from "./rule.js";

/** A lookup whose arguments are known, with what its message uses. */
export interface SuppliedLookup {
  readonly source: SourceFile;
  readonly lookup: Lookup;
  readonly key: string;
  /** The arguments of the source message. */
  readonly needed: ReadonlySet<string>;
  /** What any locale's message uses: arguments, tags, and what the book's plurals choose by. */
  readonly known: ReadonlySet<string>;
  readonly passed: readonly string[];
}

const found = new WeakMap<object, readonly SuppliedLookup[]>();

/** The lookups of a book's code that pass their arguments by name, where code alone says which. */
export function suppliedAt(context: RuleContext): readonly SuppliedLookup[] {
  const { book, code } = context;
  const made = code && found.get(code);
  if (made) return made;
  const result: SuppliedLookup[] = [];
  // Numbered arguments are passed in order, without names.
  if (code && context.syntax.numberedFrom === undefined)
    for (const source of code.files)
      for (const lookup of source.lookups) {
        const { key, argumentNames } = lookup;
        if (key.kind !== "fixed" || !argumentNames) continue;
        const resolved = book.resolve(key.value);
        if (!resolved) continue;
        const { catalog, entry } = resolved;
        const message = context.message(entry.text, book.sourceLocale, entry.key);
        if (message.isBroken) continue;
        const known = new Set<string>();
        for (const locale of [book.sourceLocale, ...book.targetLocales]) {
          const text = book.catalog(locale, catalog.namespace)?.byKey.get(entry.key)?.text;
          if (text === undefined) continue;
          const { facts, nodes } = context.message(text, locale, entry.key);
          for (const name of [...facts.arguments.keys(), ...facts.tags.keys()]) known.add(name);
          visitNodes(nodes, (node) => {
            if (node.kind === "plural" && book.config.plurals !== "inline") known.add(formsArgument);
          });
        }
        result.push({
          source,
          lookup,
          key: key.value,
          needed: new Set(message.facts.arguments.keys()),
          known,
          passed: argumentNames,
        });
      }
  if (code) found.set(code, result);
  return result;
}
