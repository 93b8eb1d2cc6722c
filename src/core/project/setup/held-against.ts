import * as v from "valibot";
import { configSchema, type BookConfig } from "../../config/schema.js";
import { composedKeyTest } from "../../text/key-pattern.js";
import { lookupShapes } from "../../source/book-code.js";
import type { SourceFile } from "../../source/model.js";
import { readSource } from "../../source/read.js";
import { separatorsOf } from "../../text/separators.js";
import type { FoundBook } from "./found-book.js";
import { pluralBase, type KeyIndex } from "./key-index.js";

/** What a proposed book's lookups ask for, held against its catalogs. */
export interface HeldAgainst {
  readonly found: number;
  readonly unknown: number;
  /** An example of what is unknown, with its file. */
  readonly example: { readonly key: string; readonly file: string } | undefined;
  readonly keys: number;
  /** Those of them that nothing asks for. */
  readonly unused: ReadonlySet<string>;
}

/**
 * Reads code once more, as the proposed configuration has it, and counts which keys it asks for. What other books have that the
 * same lookups ask is not counted.
 */
export function heldAgainst(
  book: object,
  source: string,
  code: readonly SourceFile[],
  { keys }: FoundBook,
  others: readonly KeyIndex[],
): HeldAgainst | undefined {
  const parsed = v.safeParse(configSchema, { source, targets: [], books: [book] });
  const config: BookConfig | undefined = parsed.success ? parsed.output.books[0] : undefined;
  if (!config) return undefined;
  const { parts, namespace } = separatorsOf(config);
  const all = new Set(
    [...keys].flatMap(([name, set]) =>
      [...set].map(
        (key) =>
          (name === "" || name === config.naming.home ? "" : name + namespace) + key.replaceAll(".", parts),
      ),
    ),
  );
  // A plural whose forms have keys of their own is asked for by the key that they share.
  const baseOf = (key: string) => pluralBase(key, all) ?? key;
  const bases = new Set([...all].map(baseOf));
  const shapes = lookupShapes(config, source);
  const asked = new Set<string>();
  const tests: ((key: string) => boolean)[] = [];
  let found = 0;
  let unknown = 0;
  let example: HeldAgainst["example"];
  for (const { file, text, bom } of code) {
    const read = readSource(file, text, bom, shapes);
    for (const mention of read.mentions) asked.add(mention);
    for (const { key, isMember } of read.lookups) {
      if (key.kind === "unknown" || (key.kind === "fixed" && key.value === "")) continue;
      if (key.kind === "composed") {
        tests.push(composedKeyTest(key.parts));
        continue;
      }
      asked.add(key.value);
      if (all.has(key.value) || bases.has(key.value)) found++;
      else if (isMember) tests.push((other) => other.startsWith(key.value + parts));
      else if (!others.some((other) => other.match(key.value) !== undefined)) {
        unknown++;
        example ??= { key: key.value, file };
      }
    }
  }
  const unused = new Set(
    [...all].filter((key) => !asked.has(key) && !asked.has(baseOf(key)) && !tests.some((test) => test(key))),
  );
  return { found, unknown, example, keys: all.size, unused };
}
