import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { formatOf } from "../../../src/core/catalog/formats/index.js";
import { mergeCatalogs } from "../../../src/core/catalog/merge.js";
import { mergeLedgers } from "../../../src/core/ledger/merge.js";

const endings = ["json", "yaml", "properties"] as const;

function catalog(ending: string, texts: Readonly<Record<string, string>>): string {
  const format = formatOf({ files: `a.${ending}` });
  return format.edit(format.empty, {
    add: Object.entries(texts).map(([key, text]) => ({ path: [key], text })),
  });
}

function textsIn(ending: string, text: string): Record<string, string> {
  const { entries, problems } = formatOf({ files: `a.${ending}` }).read(text, ".");
  expect(problems).toEqual([]);
  return Object.fromEntries(entries.map((entry) => [entry.key, entry.text]));
}

describe.each(endings)("%s", (ending) => {
  const format = formatOf({ files: `a.${ending}` });
  const merge = (
    base: Record<string, string>,
    ours: Record<string, string>,
    theirs: Record<string, string>,
  ) => mergeCatalogs(format, catalog(ending, base), catalog(ending, ours), catalog(ending, theirs));

  test("neighbouring additions, edits and removals of both sides meet", () => {
    const merged = merge(
      { a: "1", b: "2", c: "3", d: "4" },
      { a: "one", b: "2", ours: "x", d: "4" },
      { a: "1", b: "2", theirs: "y", c: "3", d: "four" },
    );
    expect(merged?.conflicts).toEqual([]);
    expect(textsIn(ending, merged?.text ?? "")).toEqual({
      a: "one",
      b: "2",
      ours: "x",
      theirs: "y",
      d: "four",
    });
  });

  test("both sides changed one text differently: a conflict around it, and the rest is merged", () => {
    const merged = merge({ a: "1", b: "2" }, { a: "one", b: "2" }, { a: "uno", b: "2", c: "3" });
    expect(merged?.conflicts).toEqual(["a"]);
    const sides = /<<<<<<< ours\n([^]*?)=======\n([^]*?)>>>>>>> theirs\n/.exec(merged?.text ?? "");
    expect([sides?.[1], sides?.[2]]).toEqual([
      expect.stringContaining("one"),
      expect.stringContaining("uno"),
    ]);
    const [whole = "", own = ""] = sides ?? [];
    expect(textsIn(ending, (merged?.text ?? "").replace(whole, own))).toEqual({ a: "one", b: "2", c: "3" });
  });

  test("any two sets of changes to different keys give both", () => {
    const text = fc
      .string({ unit: fc.constantFrom(..."ab ä:#'\"\\{}".split("")), maxLength: 6 })
      .map((one) => `x${one}x`);
    const key = fc.constantFrom("a", "b", "c", "d", "e", "f");
    const texts = fc.dictionary(key, text);
    fc.assert(
      fc.property(
        texts,
        fc.dictionary(key, fc.option(text)),
        fc.subarray(["a", "b", "c", "d", "e", "f"]),
        (base, changed, own) => {
          const apply = (isOurs: boolean, start: Record<string, string>) => {
            const after = { ...start };
            for (const [name, value] of Object.entries(changed)) {
              if (own.includes(name) !== isOurs) continue;
              if (value === null) delete after[name];
              else after[name] = value;
            }
            return after;
          };
          const merged = merge(base, apply(true, base), apply(false, base));
          expect(merged?.conflicts).toEqual([]);
          expect(textsIn(ending, merged?.text ?? "")).toEqual(apply(false, apply(true, base)));
        },
      ),
      { numRuns: 150 },
    );
  });
});

test("a version that cannot be read, or a group of a text, is left to a merge by lines", () => {
  const format = formatOf({ files: "a.json" });
  expect(mergeCatalogs(format, "{}", "{", "{}")).toBeUndefined();
  expect(mergeCatalogs(format, "{}", '{ "a": "x" }', '{ "a": { "b": "y" } }')).toBeUndefined();
});

test("a mark above an entry that one side took away stays away, and a new entry brings its comments", () => {
  const format = formatOf({ files: "a.yaml" });
  const base = "# TODO\na: x\n# TODO\nb: y\n# kept\nc: z\n";
  const ours = base.replace("# TODO\na: x", "a: one");
  const theirs = `${base.replace("# TODO\nb: y", "b: two").replace("c: z", "c: three")}# TODO\nd: w\n`;
  expect(mergeCatalogs(format, base, ours, theirs)).toEqual({
    text: "a: one\nb: two\n# kept\nc: three\n# TODO\nd: w\n",
    conflicts: [],
  });
});

test("a merge by lines is taken where it says the same, since it keeps comments", () => {
  const format = formatOf({ files: "a.yaml" });
  const byLine = "# theirs\na: one\nb: two\n";
  expect(mergeCatalogs(format, "a: x\n", "a: one\n", "# theirs\na: x\nb: two\n", byLine)?.text).toBe(byLine);
});

test("ledgers merge by record, the later one counts, and nothing is in conflict", () => {
  const head = "# Fond Ledger 1\n";
  const record = (key: string, state: string, date: string) => `${key}\t${state}\tx\ty\tperson\t${date}\n`;
  const base = head + record("a", "initial", "2026-01-01") + record("c", "initial", "2026-01-01");
  const ours =
    head +
    record("a", "translated", "2026-02-01") +
    record("b", "initial", "2026-02-01") +
    record("c", "initial", "2026-01-01");
  const theirs = head + record("a", "reviewed", "2026-02-02") + record("d", "initial", "2026-02-01");
  expect(mergeLedgers(base, ours, theirs)).toBe(
    head +
      record("a", "reviewed", "2026-02-02") +
      record("b", "initial", "2026-02-01") +
      record("d", "initial", "2026-02-01"),
  );
});
