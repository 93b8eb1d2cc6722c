import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { jsonFormat } from "../../../src/core/catalog/formats/json/json.js";
import { propertiesFormat } from "../../../src/core/catalog/formats/properties/properties.js";
import { yamlFormat } from "../../../src/core/catalog/formats/yaml/yaml.js";
import { KeyPool } from "../../../src/core/catalog/key-pool.js";
import type { CatalogContent, CatalogFormat, Entry } from "../../../src/core/catalog/model.js";

/** Everything of an entry that a caller can see. */
const shown = ({ key, path, text, kind, keySpan, valueSpan }: Entry) => ({
  key,
  path,
  text,
  kind,
  keySpan,
  valueSpan,
});

/** What a table says of its entries without making them. */
const column = ({ table }: CatalogContent) =>
  Array.from({ length: table.size }, (_, index) => ({
    key: table.keyAt(index),
    text: table.textAt(index),
    isText: table.isTextAt(index),
  }));

const formats: readonly (readonly [string, CatalogFormat])[] = [
  ["JSON", jsonFormat],
  ["YAML", yamlFormat],
  ["properties", propertiesFormat],
];

const name = fc.constantFrom(
  "save",
  "cancel",
  "a",
  "title of the page",
  "größe",
  "a\\b",
  'q"t',
  "\u{1f6a2}",
  "x y",
);
const value = fc.oneof(
  fc.string(),
  fc.constantFrom("Save", "It’s “here”", 'a "quote"', "back\\slash", "line\nbreak", "日本", " edge ", "{n}"),
);
/** A few catalogs of one book: most keys are in all of them, in an order that is nearly the same. */
const catalogs = fc.array(
  fc.array(fc.tuple(fc.array(name, { minLength: 1, maxLength: 3 }), value), { maxLength: 12 }),
  {
    minLength: 1,
    maxLength: 4,
  },
);

describe.each(formats)("the table of a catalog in %s", (_, format) => {
  test("says the same as its entries, and the same whatever was read with its keys before", () => {
    fc.assert(
      fc.property(catalogs, (books) => {
        const pool = new KeyPool();
        for (const rows of books) {
          const taken = new Set<string>();
          const add = rows.flatMap(([parts, text]) => {
            const path = !format.nests ? [parts.join(".")] : parts;
            // No key twice, and none that would have to be a text and a group.
            const id = path.join("\u0000");
            if (
              [...taken].some(
                (one) => `${one}\u0000`.startsWith(`${id}\u0000`) || `${id}\u0000`.startsWith(`${one}\u0000`),
              )
            )
              return [];
            taken.add(id);
            return [{ path, text }];
          });
          const text = format.edit(format.empty, { add });
          const alone = format.read(text, ".");
          const beside = format.read(text, ".", pool);
          expect(column(beside)).toEqual(column(alone));
          expect(column(alone)).toEqual(
            alone.entries.map((entry) => ({
              key: entry.key,
              text: entry.text,
              isText: entry.kind === "text",
            })),
          );
          expect(beside.entries.map(shown)).toEqual(alone.entries.map(shown));
          for (const { keySpan, valueSpan } of alone.entries) {
            expect(keySpan.end).toBeLessThanOrEqual(valueSpan.start);
            expect(valueSpan.end).toBeLessThanOrEqual(text.length);
          }
          for (const { key } of alone.entries) {
            const last = alone.entries.findLastIndex((entry) => entry.key === key);
            expect(beside.table.find(key)).toBe(last);
            expect(beside.table.byKey.get(key)?.text).toBe(alone.entries[last]?.text);
          }
          for (let index = 0; index < beside.table.size; index++) {
            const start = beside.table.plainStartAt(index);
            const meant = beside.table.textAt(index);
            if (start < 0) continue;
            expect(text.slice(start, start + meant.length)).toBe(meant);
            expect(beside.table.plainLengthAt(index)).toBe(meant.length);
          }
          expect(beside.table.find("nowhere")).toBe(-1);
          expect([...beside.table.byKey.keys()]).toEqual([...new Set(alone.entries.map(({ key }) => key))]);
        }
      }),
      { numRuns: 150 },
    );
  });
});

test("of a key that is there twice the last counts, and the table says that not all are one", () => {
  const pool = new KeyPool();
  jsonFormat.read('{"a": "1", "b": "2"}', ".", pool);
  const { table } = jsonFormat.read('{"b": "3", "a": "4", "b": "5"}', ".", pool);
  expect(table.isUnique).toBe(false);
  expect([...table.byKey].map(([key, { text }]) => [key, text])).toEqual([
    ["b", "5"],
    ["a", "4"],
  ]);
  expect(table.find("b")).toBe(2);
});

test("keys that another catalog brought are not found in one that was read before", () => {
  const pool = new KeyPool();
  const first = jsonFormat.read('{"a": "1"}', ".", pool);
  const other = jsonFormat.read('{"b": "1"}', ".", pool);
  jsonFormat.read('{"a": "1", "b": "2", "c": "3"}', ".", pool);
  expect(["a", "b", "c"].map((key) => first.table.find(key))).toEqual([0, -1, -1]);
  expect(["a", "b", "c"].map((key) => other.table.find(key))).toEqual([-1, 0, -1]);
});

test.each([
  ["a key without a name", "   = value", ["", "value", 3, 3]],
  ["blanks around the sign", "name \t: value", ["name", "value", 0, 4]],
  ["blanks alone", "  name   value", ["name", "value", 2, 6]],
  ["a sign in the value", "name== x", ["name", "= x", 0, 4]],
  ["no value", "  name  ", ["name", "", 2, 6]],
  ["an escape in the name", "a\\=b=c", ["a=b", "c", 0, 4]],
])("the place of a property’s name: %s", (_, text, expected) => {
  const [entry] = propertiesFormat.read(text, ".").entries;
  expect([entry?.key, entry?.text, entry?.keySpan.start, entry?.keySpan.end]).toEqual(expected);
});
