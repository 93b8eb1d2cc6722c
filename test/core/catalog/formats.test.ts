import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { parseDocument } from "yaml";
import { json5Format, jsoncFormat, jsonFormat } from "../../../src/core/catalog/formats/json/json.js";
import { propertiesFormat } from "../../../src/core/catalog/formats/properties/properties.js";
import { tableFormat } from "../../../src/core/catalog/formats/table/table.js";
import { tomlFormat } from "../../../src/core/catalog/formats/toml/toml.js";
import { KeyPool } from "../../../src/core/catalog/key-pool.js";
import { readYamlLines } from "../../../src/core/catalog/formats/yaml/yaml-lines.js";
import { yamlFormat } from "../../../src/core/catalog/formats/yaml/yaml.js";
import type { CatalogFormat, EntryPath } from "../../../src/core/catalog/model.js";

const table = tableFormat({ id: ["id"], locale: "lang", text: ["text"] });
const formats: readonly CatalogFormat[] = [
  jsonFormat,
  jsoncFormat,
  json5Format,
  yamlFormat,
  propertiesFormat,
  tomlFormat,
  table,
];

const texts = (format: CatalogFormat, text: string) => {
  const { entries, problems } = format.read(text, ".");
  expect(problems).toEqual([]);
  return new Map(entries.map((entry) => [entry.key, entry.text]));
};

const word = fc.stringMatching(/^[a-z][a-zA-Z0-9]{0,5}$/);
const awkward = fc.constantFrom(
  "",
  " ",
  "yes",
  "no",
  "null",
  "~",
  "1",
  "1.5",
  "0x1f",
  "true",
  "- a",
  "a: b",
  "a #b",
  "#",
  "{x}",
  "[y]",
  "*z",
  "&a",
  "!t",
  "'",
  '"',
  "\\",
  "\\n",
  "a\nb",
  "a\n",
  "\n",
  " a",
  "a ",
  "a\tb",
  "é",
  "日本",
  "👍",
  "%a",
  "@b",
  "`",
  "|",
  ">",
  "a,b",
  "a;b",
  '"q"',
  "it's",
  "{n, plural, one {#} other {#}}",
  "a=b",
  "=",
  ":",
  "a:",
  "\u0085",
  "\u2028",
  "---",
  "...",
  "?",
  "? a",
  "2031-05-04",
  "<<",
  "n",
  "12:30:00",
);
const value = fc.oneof(
  awkward,
  fc.string({ unit: "grapheme", maxLength: 12 }).filter((text) => !/[\r\uD800-\uDFFF\0]/.test(text)),
);
/** Paths without one inside another. */
const pathSets = (flat: boolean) =>
  fc
    .uniqueArray(flat ? word.map((name) => [name]) : fc.array(word, { minLength: 1, maxLength: 3 }), {
      maxLength: 8,
      selector: (path) => path.join("."),
    })
    .map((paths) =>
      paths.filter(
        (path) => !paths.some((other) => other !== path && other.join(".").startsWith(`${path.join(".")}.`)),
      ),
    );

describe.each(formats.map((format) => [format.name, format] as const))("%s", (name, format) => {
  const locale = name === "csv" ? ["de"] : [];
  const run = fc.gen();
  test("what is added, set and removed is what is read afterwards, and nothing else changes", () => {
    fc.assert(
      fc.property(pathSets(!format.nests || name === "csv"), run, (paths, gen) => {
        const model = new Map<string, string>();
        const own = (path: readonly string[]): EntryPath => [...path, ...locale];
        let text = format.empty;
        const start = paths.slice(0, Math.ceil(paths.length / 2));
        text = format.edit(text, {
          add: start.map((path) => {
            const one = gen(() => value);
            model.set(own(path).join("."), one);
            return { path: own(path), text: one };
          }),
        });
        expect(texts(format, text)).toEqual(model);
        if (![...model.values()].some((one) => one.includes("\n")) && gen(fc.boolean))
          text = text.replaceAll("\n", "\r\n");
        for (const path of paths) {
          const key = own(path).join(".");
          const there = model.has(key);
          const removes = there && gen(fc.boolean);
          const one = gen(() => value);
          const before = text;
          if (removes) {
            text = format.edit(text, { remove: [own(path)] });
            model.delete(key);
          } else {
            text = format.edit(
              text,
              there
                ? { set: [{ path: own(path), text: one }] }
                : { add: [{ path: own(path), text: one }], order: paths.map(own) },
            );
            model.set(key, one);
          }
          const read = texts(format, text);
          expect([...read].sort()).toEqual([...model].sort());
          const isPlain = ![...model.values()].some((one) => one.includes("\n"));
          if (before.includes("\r\n") && isPlain && !before.replaceAll("\r\n", "").includes("\n"))
            expect(text.replaceAll("\r\n", "")).not.toContain("\n");
        }
      }),
      { numRuns: 300 },
    );
  });

  test("an offset inside a text leads to where the file writes that unit", () => {
    fc.assert(
      fc.property(
        value.filter((text) => !text.includes("\n")),
        (text) => {
          const file = format.edit(format.empty, { add: [{ path: ["key", ...locale], text }] });
          const [entry] = format.read(file, ".").entries;
          if (!entry) throw new Error("nothing was read");
          let last = -1;
          for (let unit = 0; unit < text.length; unit++) {
            const at = format.offsetInFile(file, entry, unit);
            expect(at).toBeGreaterThan(last);
            expect(at).toBeLessThan(entry.valueSpan.end);
            if (/[\p{L}\p{N}]/u.test(text[unit] ?? "") && file[at] !== "\\")
              expect(file[at]).toBe(text[unit]);
            last = at;
          }
        },
      ),
    );
  });

  test("any text at all is read without an exception", () => {
    fc.assert(
      fc.property(fc.string({ unit: fc.constantFrom(..."{}[]\":,'#\n\r\t -|>&*!%@\\au0:=?~") }), (text) => {
        for (const { valueSpan } of format.read(text, ".").entries) {
          expect(valueSpan.start).toBeGreaterThanOrEqual(0);
          expect(valueSpan.end).toBeLessThanOrEqual(text.length);
        }
      }),
      { numRuns: 1000 },
    );
  });
});

describe("the quick reader of YAML", () => {
  /** What the whole parser makes of a text, as keys and texts. */
  const whole = (text: string): [string, unknown][] | undefined => {
    const document = parseDocument(text, { logLevel: "silent" });
    if (document.errors.some(({ code }) => code !== "DUPLICATE_KEY")) return undefined;
    if (document.errors.length > 0) return [];
    const found: [string, unknown][] = [];
    const walk = (node: unknown, path: string[]): void => {
      if (node !== null && typeof node === "object" && !(node instanceof Date))
        for (const [key, inner] of Object.entries(node)) walk(inner, [...path, key]);
      else if (path.length > 0) found.push([path.join("."), node]);
    };
    walk(document.toJS(), []);
    return found;
  };
  const usual = fc.tuple(
    fc.constant(""),
    fc.constantFrom("a: ", "b: ", '"c": ', "'d': ", "e f: ", "g:\n  h: ", "i:\n    - ", "j:\n  k:\n    l: "),
    fc.constantFrom(
      "text",
      "two words",
      '"quoted \\u0041\\n"',
      "'it''s' # note",
      "a#b",
      "no",
      "1.5",
      "~",
      "|\n        x\n\n        y",
      ">-\n        x\n        y\n\n        z",
      "",
    ),
  );
  const odd = fc.tuple(
    fc.constantFrom("", "  ", "    ", " "),
    fc.constantFrom("a:", "b: ", '"c": ', "'d': ", "e f: ", "- ", "-", "# ", "", "g:", "---", "on: "),
    fc.constantFrom(
      "",
      "text",
      "two words",
      '"quoted"',
      "'single'",
      '"esc\\u0041\\n"',
      "'it''s'",
      "text # note",
      "a#b",
      "|",
      ">",
      "|-",
      ">-",
      "|+",
      "# only",
      "1.5",
      "true",
      "a: b",
      "[x]",
      "*r",
      "{n}",
      "http://x",
      '"a" b',
      "- x",
      "~",
      "'open",
    ),
  );
  const line = fc.oneof({ weight: 5, arbitrary: usual }, { weight: 1, arbitrary: odd });
  test("agrees with the whole parser wherever it reads at all", () => {
    let read = 0;
    fc.assert(
      fc.property(fc.array(line, { maxLength: 9 }), fc.boolean(), (lines, ends) => {
        const text = lines.map((parts) => parts.join("")).join("\n") + (ends ? "\n" : "");
        if (!readYamlLines(text, ".", new KeyPool())) return;
        const expected = whole(text);
        if (expected === undefined) throw new Error(`read what is no YAML: ${JSON.stringify(text)}`);
        if (expected.length === 0) return; // The same key twice: the whole parser keeps one of them.
        read++;
        const last = new Map(yamlFormat.read(text, ".").entries.map((item) => [item.key, item]));
        expect([...last.keys()].sort()).toEqual([...new Set(expected.map(([key]) => key))].sort());
        for (const [key, wanted] of expected) {
          const item = last.get(key);
          if (item?.kind === "text") expect(item.text).toBe(wanted);
          else if (item?.kind === "null") expect(wanted).toBeNull();
          else if (item?.kind === "number") expect(typeof wanted).toBe("number");
        }
      }),
      { numRuns: 1500 },
    );
    expect(read).toBeGreaterThan(225);
  });
});

describe("removing an entry keeps what belongs to the one before", () => {
  test.each([
    ["a block text", yamlFormat, "a: |\n  x\n  # y\nb: z\n", "a: |\n  x\n  # y\n"],
    [
      "a block text below a group",
      yamlFormat,
      "g:\n  a: |\n    x\n    # y\n  b: z\n",
      "g:\n  a: |\n    x\n    # y\n",
    ],
    [
      "a text over several lines in quotes",
      yamlFormat,
      'a: "x\n  # y\n  # z"\nb: z\n',
      'a: "x\n  # y\n  # z"\n',
    ],
    ["a comment of its own", yamlFormat, "a: x\n# of b\nb: z\n", "a: x\n"],
    ["a block text and a comment", yamlFormat, "a: |\n  x\n  # y\n# of b\nb: z\n", "a: |\n  x\n  # y\n"],
    ["a continued line", propertiesFormat, "a=x \\\n  # y\nb=z\n", "a=x \\\n  # y\n"],
    ["a continued line and a comment", propertiesFormat, "a=x \\\n  # y\n# of b\nb=z\n", "a=x \\\n  # y\n"],
  ])("%s", (_, format, before, after) => {
    const path = format.read(before, ".").entries.find(({ key }) => /\bb$/.test(key))?.path;
    expect(format.edit(before, { remove: path ? [path] : [] })).toBe(after);
  });
});

test("of a name that stands twice in YAML the last one is changed, and a group is none", () => {
  const twice = "a: x\na:\n  b: y\n";
  expect(yamlFormat.edit(twice, { set: [{ path: ["a"], text: "z" }] })).toBe(twice);
  expect(yamlFormat.edit("a: x\na: y\n", { set: [{ path: ["a"], text: "z" }] })).toBe("a: x\na: z\n");
});

test("a YAML key longer than the standard allows is a problem, as the parser of edits has it", () => {
  expect(yamlFormat.read(`${"k".repeat(2_000)}: x\n`, ".").problems).toHaveLength(1);
  expect(yamlFormat.read(`${"k".repeat(1_000)}: x\n`, ".").problems).toEqual([]);
});
