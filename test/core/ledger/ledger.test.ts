import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { KeyPool } from "../../../src/core/catalog/key-pool.js";
import { jsonFormat } from "../../../src/core/catalog/formats/json/json.js";
import { propertiesFormat } from "../../../src/core/catalog/formats/properties/properties.js";
import { yamlFormat } from "../../../src/core/catalog/formats/yaml/yaml.js";
import { memoryFiles } from "../../../src/core/files/memory-files.js";
import {
  ledgerChanges,
  recordChanges,
  readLedger,
  textFields,
  textOfFields,
  type LedgerRecord,
} from "../../../src/core/ledger/ledger.js";
import { joinForms } from "../../../src/core/message/forms.js";

const digest = fc
  .array(fc.constantFrom(..."0123456789abcdef"), { minLength: 16, maxLength: 16 })
  .map((all) => all.join(""));
const record: fc.Arbitrary<LedgerRecord> = fc.record({
  state: fc.constantFrom("initial", "translated", "reviewed", "final"),
  source: digest,
  text: digest,
  origin: fc.constantFrom("person", "memory", "service", "copy"),
  date: fc.constantFrom("2031-05-04", "2030-12-31"),
});
/** Keys as books have them, and those that a ledger has to write with escapes. */
const key = fc.oneof(
  fc.constantFrom("a.b", "a.bc", "a", "b", "home.title", "home.titles"),
  fc.string({ minLength: 1, maxLength: 6 }),
  fc.constantFrom("tab\there", "#start", "line\nend", "back\\slash", "ünï"),
);
const ledger = fc.uniqueArray(fc.tuple(key, record), { selector: ([one]) => one, maxLength: 12 });

const empty = readLedger(memoryFiles({}), "l", "app", "de");
const written = (rows: readonly (readonly [string, LedgerRecord])[]) =>
  ledgerChanges(empty, new Map(rows), new Map())[0]?.after ?? "";

describe("a ledger that is read", () => {
  test("has the records that were written, alone and with the keys of others", () => {
    fc.assert(
      fc.property(ledger, ledger, fc.constantFrom("\n", "\r\n"), (one, two, lineEnd) => {
        const files = memoryFiles({
          "l/app.de.txt": written(one).replaceAll("\n", lineEnd),
          "l/app.fr.txt": written(two),
        });
        const pool = new KeyPool();
        for (const [locale, rows] of [
          ["de", one],
          ["fr", two],
          ["de", one],
        ] as const) {
          const read = readLedger(files, "l", "app", locale, pool);
          expect(new Map(read.records)).toEqual(new Map(rows));
          expect(read.size).toBe(rows.length);
          expect(read.problems).toEqual([]);
          for (const [full, { source, text }] of rows) {
            const place = pool.placeOf(full) ?? -1;
            expect(read.lines.matches(place, source, text)).toBe(true);
            expect(read.lines.matches(place, source, `${text.slice(1)}x`)).toBe(false);
          }
          expect(read.lines.matches(pool.size, "", "")).toBe(false);
        }
      }),
      { numRuns: 300, seed: 3 },
    );
  });

  test("has records changed, new and gone just as if all were written", () => {
    const change = fc.record({
      changed: ledger,
      gone: fc.array(fc.nat(), { maxLength: 3 }),
      attic: fc.boolean(),
    });
    let onLines = 0;
    fc.assert(
      fc.property(
        ledger,
        change,
        fc.constantFrom("\n", "\r\n"),
        (rows, { changed, gone, attic }, lineEnd) => {
          const text = written(rows).replaceAll("\n", lineEnd);
          const read = readLedger(memoryFiles({ "l/app.de.txt": text }), "l", "app", "de");
          const left = new Map(rows);
          for (const at of gone) {
            const row = rows[at % Math.max(1, rows.length)];
            if (row) left.delete(row[0]);
          }
          const all = new Map([...left, ...changed]);
          const unchanged = [...left.keys()].filter((key) => !new Map(changed).has(key));
          const aside = new Map(
            attic && rows[0] ? [[rows[0][0], { ...rows[0][1], kept: "Quay" }] as const] : [],
          );
          const found = recordChanges(read, unchanged, new Map(changed), aside);
          if (found.length > 0 && lineEnd === "\n") onLines++;
          const wanted = ledgerChanges(read, all, aside);
          // What stands with other ends of lines may be written anew.
          expect(found).toEqual(wanted);
        },
      ),
      { numRuns: 500, seed: 26 },
    );
    expect(onLines).toBeGreaterThan(100);
  });

  test("without an end to its last line it is not written for that alone, and else anew", () => {
    fc.assert(
      fc.property(ledger, record, (rows, other) => {
        fc.pre(rows.length > 1);
        const whole = written(rows);
        const read = readLedger(memoryFiles({ "l/app.de.txt": whole.slice(0, -1) }), "l", "app", "de");
        const records = new Map(rows);
        expect(ledgerChanges(read, records, new Map())).toEqual([]);
        const changed = new Map([[rows[0]?.[0] ?? "", other]]);
        const unchanged = rows.slice(1).map(([key]) => key);
        const [change] = recordChanges(read, unchanged, changed, new Map());
        expect(change?.after).toBe(written([...records, ...changed]));
      }),
    );
  });

  test("is written anew where its lines are out of order, or its head is missing", () => {
    const line = (name: string) =>
      `${name}\ttranslated\t0123456789abcdef\t0123456789abcdef\tperson\t2031-05-04\n`;
    const one: LedgerRecord = {
      state: "final",
      source: "0123456789abcdef",
      text: "0123456789abcdef",
      origin: "person",
      date: "2031-05-04",
    };
    for (const [text, name, left] of [
      [`# Fond Ledger 1\n${line("b")}${line("a")}`, "a", ["b"]],
      [line("a"), "a", []],
    ] as const) {
      const read = readLedger(memoryFiles({ "l/app.de.txt": text }), "l", "app", "de");
      const [change] = recordChanges(read, left, new Map([[name, one]]), new Map());
      const changed = `a\tfinal\t${one.source}\t${one.text}\tperson\t2031-05-04\n`;
      expect(change?.after).toBe(`# Fond Ledger 1\n${changed}${left.map(line).join("")}`);
    }
  });

  test.each([
    ["a digest that is too short", "a\ttranslated\t0123\t0123456789abcdef\tperson\t2031-05-04"],
    ["a state that is none", "a\tdone\t0123456789abcdef\t0123456789abcdef\tperson\t2031-05-04"],
    ["a field too many", "a\tfinal\t0123456789abcdef\t0123456789abcdef\tperson\t2031-05-04\tmore"],
    ["letters that are no digits", "a\tfinal\t0123456789abcdeg\t0123456789abcdef\tperson\t2031-05-04"],
  ])("tells of %s, with its line", (_, line) => {
    const good = "b\tfinal\t0123456789abcdef\t0123456789abcdef\tperson\t2031-05-04";
    const read = readLedger(
      memoryFiles({ "l/app.de.txt": `# Fond Ledger 1\n${line}\n${good}\n` }),
      "l",
      "app",
      "de",
    );
    expect(read.problems.map((problem) => problem.line)).toEqual([2]);
    expect([...read.records.keys()]).toEqual(["b"]);
    expect(read.lines.matches(0, "0123456789abcdef", "0123456789abcdef")).toBe(true);
  });

  test("of a key that is there twice the last counts", () => {
    const line = (state: string) => `a\t${state}\t0123456789abcdef\t0123456789abcdef\tperson\t2031-05-04\n`;
    const read = readLedger(
      memoryFiles({ "l/app.de.txt": line("initial") + line("final") }),
      "l",
      "app",
      "de",
    );
    expect(read.records.get("a")?.state).toBe("final");
    expect([read.size, read.record("a")?.state]).toEqual([1, "final"]);
  });
});

describe("catalogs that are read with one pool of keys", () => {
  const name = fc.constantFrom("a", "b", "c", "ab", "x y", "1", "ü", 'q"q');
  const tree = fc.letrec<{ group: Record<string, unknown> }>((tie) => ({
    group: fc.dictionary(
      name,
      fc.oneof({ weight: 3, arbitrary: fc.constantFrom("Boat", "Quay") }, tie("group")),
      {
        maxKeys: 4,
      },
    ),
  })).group;

  test.each([
    ["json", jsonFormat],
    ["yaml", yamlFormat],
    ["properties", propertiesFormat],
  ] as const)("have the keys that they have alone: %s", (_, format) => {
    const leaves = (value: unknown, path: readonly string[] = []): { path: string[]; text: string }[] =>
      typeof value === "string"
        ? [{ path: !format.nests ? [path.join(".")] : [...path], text: value }]
        : Object.entries(value as object).flatMap(([one, inner]) => leaves(inner, [...path, one]));
    fc.assert(
      fc.property(fc.array(tree, { minLength: 1, maxLength: 4 }), (trees) => {
        const pool = new KeyPool();
        for (const one of [...trees, ...trees]) {
          const text = format.edit(format.empty, { add: leaves(one) });
          const outline = (read: ReturnType<typeof format.read>) =>
            read.entries.map((entry) => [entry.key, entry.path, entry.text, entry.keySpan, entry.valueSpan]);
          expect(outline(format.read(text, ".", pool))).toEqual(outline(format.read(text, ".")));
        }
      }),
      { numRuns: 150, seed: 9 },
    );
  });
});

test("one record is the same as the one among all, whatever ledgers were read with the same keys before", () => {
  const line = (key: string, source: string) =>
    `${key}\ttranslated\t${source.repeat(16)}\t${"b".repeat(16)}\tperson\t2026-01-02\n`;
  const files = memoryFiles({
    "l/web.de.txt": `# Fond Ledger 1\n${line("a", "1")}${line("b", "2")}`,
    "l/web.fr.txt": `# Fond Ledger 1\n${line("a", "1")}${line("c", "3")}${line("d\\te", "4")}${line("c", "5")}`,
    "l/web.pl.txt": `# Fond Ledger 1\n${line("b", "6")}`,
  });
  const pool = new KeyPool();
  const read = ["de", "fr", "pl"].map((locale) => readLedger(files, "l", "web", locale, pool));
  for (const ledger of read) {
    for (const key of ["a", "b", "c", "d\te", "none"]) {
      const record = ledger.records.get(key);
      expect(ledger.record(key)).toEqual(record);
      for (const digit of "123456")
        expect(ledger.isFrom(key, digit.repeat(16))).toBe(record && record.source === digit.repeat(16));
    }
  }
  expect(read.map((ledger) => ledger.record("b")?.source[0])).toEqual(["2", undefined, "6"]);
  expect(read[1]?.record("c")?.source[0]).toBe("5");
});

test("plural forms of several keys are a field each, and texts that hold anything else are themselves", () => {
  const forms = joinForms([
    { selector: "one", text: "1\tboat = 1" },
    { selector: "other", text: "#\nboats" },
  ]);
  expect(textFields(forms)).toEqual(["", "one=1\\tboat = 1", "other=\\#\\nboats"]);
  expect(textOfFields(["", "two=x", "odd=y"])).toBeUndefined();
  expect(textOfFields([])).toBeUndefined();
  fc.assert(
    fc.property(fc.string({ unit: "grapheme" }), fc.string(), (one, other) => {
      const clean = (text: string) => text.replace(/[\ufdd0\ufdd1]/g, "");
      const joined = joinForms([
        { selector: "one", text: clean(one) },
        { selector: "other", text: clean(other) },
      ]);
      for (const text of [joined, clean(one), "", "one=x"]) {
        const fields = textFields(text);
        expect(textOfFields(fields)).toBe(text);
        expect(fields.join("")).not.toMatch(/[\ufdd0\t\n]/);
      }
    }),
  );
});
