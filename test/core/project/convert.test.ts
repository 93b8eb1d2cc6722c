import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { memoryFiles } from "../../../src/core/files/memory-files.js";
import { convertBook, type ConvertOptions } from "../../../src/core/project/convert.js";
import { openProject } from "../../../src/core/project/project.js";
import { loadBook } from "../../../src/core/catalog/book.js";

/** Converts the only book of a project and gives the files as they are then. */
async function convert(book: object, files: Record<string, string>, options: ConvertOptions) {
  const config = { source: "en", targets: ["de"], books: [{ name: "app", ...book }] };
  const held = memoryFiles({
    ...files,
    "fond.config.json": `// ours\n${JSON.stringify(config, undefined, 2)}\n`,
  });
  const opened = openProject(held, undefined, "2031-05-04");
  const first = opened.ok ? opened.project.config.books[0] : undefined;
  if (!opened.ok || !first) throw new Error(JSON.stringify(opened));
  const result = await convertBook(opened.project, first, options);
  if (!result.ok) return { refusals: result.refusals };
  for (const { file, after } of result.plan.changes)
    if (after === undefined) held.contents.delete(file);
    else held.contents.set(file, after);
  return { files: held, notes: result.plan.notes };
}

const textsOf = (files: ReturnType<typeof memoryFiles>) => {
  const opened = openProject(files, undefined, "2031-05-04");
  const first = opened.ok ? opened.project.config.books[0] : undefined;
  if (!opened.ok || !first) throw new Error(JSON.stringify(opened));
  const book = loadBook(files, opened.project.config, first);
  return book.catalogs.map(({ locale, entries }) => [locale, entries.map(({ key, text }) => [key, text])]);
};

describe("a book moves to another format or layout and keeps its texts, order and comments", () => {
  const json = {
    "t/en.json": '{\n  "home": { "title": "Quay", "open": "Open: now" },\n  "end": "it\'s \\"it\\""\n}\n',
    "t/de.json": '{\n  "home": { "title": "Kai" }\n}\n',
  };
  test.each<[string, object, Record<string, string>, ConvertOptions, Record<string, string>]>([
    [
      "JSON to YAML",
      { files: "t/{locale}.json" },
      json,
      { format: "yaml" },
      {
        "t/en.yaml": 'home:\n  title: Quay\n  open: "Open: now"\nend: it\'s "it"\n',
        "t/de.yaml": "home:\n  title: Kai\n",
      },
    ],
    [
      "JSON to properties",
      { files: "t/{locale}.json" },
      json,
      { files: "r/app_{locale}.properties" },
      {
        "r/app_en.properties": 'home.title=Quay\nhome.open=Open: now\nend=it\'s "it"\n',
        "r/app_de.properties": "home.title=Kai\n",
      },
    ],
    [
      "files of their own to one for all, by root",
      { files: "t/{locale}.json" },
      json,
      { files: "all.yaml", inside: "root" },
      {
        "all.yaml":
          'en:\n  home:\n    title: Quay\n    open: "Open: now"\n  end: it\'s "it"\nde:\n  home:\n    title: Kai\n',
      },
    ],
    [
      "properties to YAML with comments",
      { files: "t/{locale}.properties" },
      { "t/en.properties": "# said once\na.b=One\na.c=Two\n", "t/de.properties": "a.b=Eins\n" },
      { format: "yaml" },
      { "t/en.yaml": "a:\n  # said once\n  b: One\n  c: Two\n", "t/de.yaml": "a:\n  b: Eins\n" },
    ],
    [
      "keys that cannot be groups stay whole",
      { files: "t/{locale}.properties" },
      { "t/en.properties": "a=One\na.b=Two\n" },
      { format: "json" },
      { "t/en.json": '{\n  "a": "One",\n  "a.b": "Two"\n}\n' },
    ],
  ])("%s", async (_, book, files, options, expected) => {
    const result = await convert(book, files, options);
    if (!result.files) throw new Error(JSON.stringify(result.refusals));
    const { "fond.config.json": config, ...after } = Object.fromEntries(result.files.contents);
    expect(after).toEqual(expected);
    expect(config).toContain("// ours");
    textsOf(result.files);
  });

  test("there and back again changes no text", async () => {
    const word = fc.stringMatching(/^[a-z]{1,4}$/);
    await fc.assert(
      fc.asyncProperty(
        fc.dictionary(
          word,
          fc.oneof(fc.string(), fc.dictionary(word, fc.string({ unit: "grapheme" }), { minKeys: 1 })),
          { minKeys: 1 },
        ),
        async (texts) => {
          const files = { "t/en.json": JSON.stringify(texts) };
          const yaml = await convert({ files: "t/{locale}.json" }, files, { format: "yaml" });
          if (!yaml.files) throw new Error(JSON.stringify(yaml.refusals));
          const properties = await convert(
            { files: "t/{locale}.yaml" },
            { "t/en.yaml": yaml.files.contents.get("t/en.yaml") ?? "" },
            { format: "properties" },
          );
          if (!properties.files) throw new Error(JSON.stringify(properties.refusals));
          const back = await convert(
            { files: "t/{locale}.properties" },
            { "t/en.properties": properties.files.contents.get("t/en.properties") ?? "" },
            { format: "json" },
          );
          if (!back.files) throw new Error(JSON.stringify(back.refusals));
          expect(JSON.parse(back.files.contents.get("t/en.json") ?? "")).toEqual(texts);
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe("texts are read from modules of code, and nothing is run", () => {
  const expected = {
    "t/en.json":
      '{\n  "home": {\n    "title": "Quay",\n    "list": [\n      "a",\n      "b"\n    ]\n  },\n  "n": "1"\n}\n',
  };
  test.each<[string, string, string]>([
    [
      "a default export",
      "ts",
      'export default {\n  home: { title: "Quay", list: ["a", `b`] },\n  n: 1,\n} as const;\n',
    ],
    [
      "a constant that is exported",
      "js",
      'const texts = { home: { title: "Qu" + "ay", "list": ["a", "b"] }, n: "1" };\nexport default texts;\n',
    ],
    ["module.exports", "js", 'module.exports = { home: { title: "Quay", list: ["a", "b"] }, n: 1 };\n'],
    [
      "the one call of a module",
      "js",
      'define("texts", { home: { title: "Quay", list: ["a", "b"] }, n: 1 });\n',
    ],
    [
      "a returned array",
      "php",
      "<?php\nreturn [\n  'home' => ['title' => 'Qu' . 'ay', 'list' => array(\"a\", 'b')],\n  'n' => 1,\n];\n",
    ],
  ])("%s", async (_, ending, code) => {
    const result = await convert(
      { files: "t/{locale}.json" },
      { [`src/texts.en.${ending}`]: code },
      { from: `src/texts.{locale}.${ending}` },
    );
    if (!result.files) throw new Error(JSON.stringify(result.refusals));
    expect(result.files.contents.get("t/en.json")).toBe(expected["t/en.json"]);
    expect(result.files.contents.has(`src/texts.en.${ending}`)).toBe(true);
  });

  test.each<[string, string, RegExp, number]>([
    ["a function", "export default {\n  a: (n) => `x ${n}` };", /"a" is code/, 2],
    ["a computed name", "export default {\n\n  [b]: 'x' };", /only running it tells/, 3],
    ["a spread", "export default { ...others };", /only running it tells/, 1],
    ["a value worked out", "export default { a: one() };", /"a" is code/, 1],
    ["no object", "export const a = 1;", /no group of texts/, 1],
    ["broken code", "export default {", /./, 1],
  ])("%s is refused with its place", async (_, code, words, line) => {
    const result = await convert(
      { files: "t/{locale}.json" },
      { "src/en.js": code },
      { from: "src/{locale}.js" },
    );
    expect(result.refusals?.[0]?.message).toMatch(words);
    expect(result.refusals?.[0]?.line).toBe(line);
  });
});

describe("code in the catalogs themselves", () => {
  const book = { files: "t/{locale}.js", syntax: "percent-brace" };
  const files = {
    "t/en.js": 'export default {\n  a: "Hi %{name}",\n  b: (n) => `${n} %{x}`,\n  ...c,\n};\n',
  };
  test("is no text of another format", async () => {
    const { refusals } = await convert(book, files, { format: "json" });
    expect(refusals?.map(({ line, message }) => `${String(line)} ${message}`)).toEqual([
      expect.stringMatching(/^4 code adds texts/),
      expect.stringMatching(/^3 the value of "b" is code/),
    ]);
  });

  test("stays as it is where the messages beside it are written anew", async () => {
    const result = await convert(book, files, { syntax: "icu" });
    expect(result.files?.contents.get("t/en.js")).toBe(files["t/en.js"].replace("%{name}", "{name}"));
  });
});

describe("what the new form cannot hold is refused, and nothing is written", () => {
  test.each<[string, object, Record<string, string>, ConvertOptions, RegExp]>([
    [
      "a catalog that cannot be read",
      { files: "t/{locale}.json" },
      { "t/en.json": "{" },
      { format: "yaml" },
      /cannot be read/,
    ],
    [
      "a key that is there twice",
      { files: "t/{locale}.json" },
      { "t/en.json": '{"a": "1", "a": "2"}' },
      { format: "yaml" },
      /duplicate key/,
    ],
    [
      "a file in the way",
      { files: "t/{locale}.json" },
      { "t/en.json": '{"a": "1"}', "t/en.yaml": "x: y\n" },
      { format: "yaml" },
      /already exists/,
    ],
    [
      "namespaces without a place",
      { files: "t/{locale}/{namespace}.json" },
      { "t/en/a.json": '{"a": "1"}' },
      { files: "t/{locale}.yaml" },
      /several catalogs/,
    ],
    [
      "a value of the message's own that a function formats",
      { files: "t/{locale}.json", syntax: "mf2" },
      { "t/en.json": '{"a": "From {12.5 :number minimumFractionDigits=2} on"}' },
      { syntax: "icu" },
      /cannot be written in icu: the format of the value "12.5"/,
    ],
    ["nothing there", { files: "t/{locale}.json" }, {}, { format: "yaml" }, /nothing to convert/],
  ])("%s", async (_, book, files, options, words) => {
    const result = await convert(book, files, options);
    expect(result.refusals?.map(({ message }) => message).join("\n")).toMatch(words);
  });

  test("numbers become texts, and comments without a place are told of", async () => {
    const result = await convert(
      { files: "t/{locale}.yaml" },
      { "t/en.yaml": "# of a\na: 1.50\nb: x\n" },
      { format: "json" },
    );
    expect(result.files?.contents.get("t/en.json")).toBe('{\n  "a": "1.50",\n  "b": "x"\n}\n');
    expect(result.notes).toHaveLength(2);
  });
});

describe("messages move to another syntax and plural form, or are refused with what is lost", () => {
  test.each<[string, object, string, ConvertOptions, string]>([
    [
      "percent-brace to icu",
      { syntax: "percent-brace" },
      "Hi %{name}, it's {x} and <b>%{n}</b>",
      { syntax: "icu" },
      "Hi {name}, it's '{'x'}' and <b>{n}</b>",
    ],
    [
      "icu to double-brace",
      { syntax: "icu" },
      "Hi {name}, it''s",
      { syntax: "double-brace" },
      "Hi {{name}}, it's",
    ],
    [
      "java to icu",
      { syntax: "java" },
      "Hi {0}, it''s {1,number,integer}",
      { syntax: "icu" },
      "Hi {0}, it's {1, number, integer}",
    ],
    [
      "printf to percent-brace is refused",
      { syntax: "printf" },
      "Hi %s",
      { syntax: "percent-brace" },
      "REFUSED",
    ],
    [
      "a plural to forms side by side",
      { syntax: "icu" },
      "{count, plural, one {One boat} other {{count} boats}}",
      { syntax: "colon", plurals: "bar" },
      "One boat|:count boats",
    ],
    [
      "forms side by side to a plural",
      { syntax: "colon", plurals: "bar" },
      "{0} None|One|:count boats",
      { syntax: "icu", plurals: "inline" },
      "{count, plural, =0 {None} one {One} other {{count} boats}}",
    ],
    [
      "a select has no place",
      { syntax: "icu" },
      "{k, select, a {x} other {y}}",
      { syntax: "colon" },
      "REFUSED",
    ],
    ["java to printf", { syntax: "java" }, "{1} of {0}", { syntax: "printf" }, "%2$s of %1$s"],
    ["printf to java", { syntax: "printf" }, "%s of %s", { syntax: "java" }, "{0} of {1}"],
    ["numbers of its own", { syntax: { argument: "%{0}" } }, "%0 of %1", { syntax: "printf" }, "%s of %s"],
    ["numbers to names", { syntax: { argument: "%{1}" } }, "%1 of %2", { syntax: "icu" }, "{1} of {2}"],
    ["no place has the number 0", { syntax: "icu" }, "Hi {0}", { syntax: "printf" }, "REFUSED"],
    ["a named argument has no number", { syntax: "icu" }, "Hi {name}", { syntax: "java" }, "REFUSED"],
  ])("%s", async (_, book, text, options, expected) => {
    const result = await convert(
      { files: "t/{locale}.json", ...book },
      { "t/en.json": JSON.stringify({ a: text }) },
      options,
    );
    if (!result.files) {
      expect(expected).toBe("REFUSED");
      expect(result.refusals[0]).toMatchObject({ file: "t/en.json", line: 1 });
      return;
    }
    const apart = { a_one: "{{count}} <b>boat</b>", a_other: "{{count}} boats" };
    expect(JSON.parse(result.files.contents.get("t/en.json") ?? "")).toEqual(
      expected === "" ? apart : { a: expected },
    );
    textsOf(result.files);
  });
});

test("where only the messages change, the files keep their comments, blank lines and order", async () => {
  const yaml =
    "# about boats\n\n# shown on the quay\nhello: Hi %{name} # greets\n\nboat:\n  one: a boat\n  other: '%{count} boats'\nend: \"End\"\n";
  const result = await convert(
    { files: "t/{locale}.yaml", syntax: "percent-brace", plurals: "branches" },
    { "t/en.yaml": yaml },
    { syntax: "double-brace" },
  );
  expect(result.files?.contents.get("t/en.yaml")).toBe(
    yaml.replaceAll(/%\{(\w+)\}/g, "{{$1}}").replace("Hi {{name}}", "Hi {{name}}"),
  );
  const inline = await convert(
    { files: "t/{locale}.yaml", syntax: "percent-brace", plurals: "branches" },
    { "t/en.yaml": yaml },
    { syntax: "icu", plurals: "inline" },
  );
  expect(inline.files?.contents.get("t/en.yaml")).toBe(
    '# about boats\n\n# shown on the quay\nhello: Hi {name} # greets\nboat: "{count, plural, one {a boat} other {{count} boats}}"\n\nend: "End"\n',
  );
});
