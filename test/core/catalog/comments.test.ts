import { describe, expect, test } from "@jest/globals";
import { commentLines, commentsAbove } from "../../../src/core/catalog/comments.js";
import { commentAbove, descriptionOf, type Catalog } from "../../../src/core/catalog/book.js";
import { formats } from "../../../src/core/catalog/formats/index.js";
import type { FormatName } from "../../../src/core/config/names.js";
import { lineIndex } from "../../../src/core/text/line-index.js";

/** A file as a catalog of its own. */
function catalogOf(name: FormatName, content: string): Catalog {
  const format = formats[name];
  const { table } = format.read(content, ".");
  return { format, content, table, lines: lineIndex(content) } as unknown as Catalog;
}

describe("the comment of an entry", () => {
  test.each<[string, FormatName, string, string, string | undefined]>([
    ["one line", "yaml", "a: x\n# of b\nb: y\n", "b", "of b"],
    ["several lines, some of them indented", "yaml", "a: x\n# one\n#   two\nb: y\n", "b", "one\n  two"],
    ["in a file that starts with an empty line", "properties", "\n! of a\na=x\n", "a", "of a"],
    ["in YAML that starts with empty lines", "yaml", "\n\n# of a\na: x\n", "a", "of a"],
    ["either mark", "properties", "a=x\n! one\n# two\nb=y\n", "b", "one\ntwo"],
    ["another mark than the format has", "properties", "a=x\n// no\nb=y\n", "b", undefined],
    ["a line of the text above", "yaml", "a: |\n  x\n  # y\nb: z\n", "b", undefined],
    ["a line that continues the text above", "properties", "a=x \\\n  #y\nb=z\n", "b", undefined],
    ["a comment in JSONC", "jsonc", '{\n  "a": "x",\n  // of b\n  "b": "y"\n}', "b", "of b"],
    ["a block on one line", "jsonc", '{\n  "a": "x",\n  /* of b */\n  "b": "y"\n}', "b", "of b "],
    [
      "a block on several lines",
      "jsonc",
      '{\n  "a": "x",\n  /*\n   * of b\n   */\n  "b": "y"\n}',
      "b",
      "\nof b\n",
    ],
    ["a block behind an entry", "jsonc", '{\n  "a": "x", /* of a\n */\n  "b": "y"\n}', "b", undefined],
    ["a comment in strict JSON", "json", '{\n  "a": "x",\n  "b": "y"\n}', "b", undefined],
  ])("%s", (_, name, content, key, expected) => {
    const catalog = catalogOf(name, content);
    const entry = catalog.table.entryAt(catalog.table.find(key));
    const found = commentAbove(catalog, entry);
    expect(found?.replace(/ +$/gm, "")).toBe(expected?.replace(/ +$/gm, ""));
  });

  test("is not what opens the file", () => {
    const catalog = catalogOf("yaml", "# The booking site.\na: x\n# of b\nb: y\n");
    const [first, second] = catalog.table.entries;
    expect(first && descriptionOf(catalog, first)).toBeUndefined();
    expect(second && descriptionOf(catalog, second)).toBe("of b");
  });
});

test("comments are found by the format's own marks, each with its place", () => {
  const text = "a\n  # one\r\n// two\n/* three */ x\n/* four */\n";
  const found = (syntax: Parameters<typeof commentLines>[1]) =>
    commentLines(text, syntax).map((line) => [line.text, text.slice(line.start, line.end).trim()]);
  expect(found({ line: ["#"] })).toEqual([["one", "# one"]]);
  expect(found({ line: ["//"], block: ["/*", "*/"] })).toEqual([
    ["two", "// two"],
    ["four", "/* four */"],
  ]);
  expect(commentsAbove(text, { line: ["#"] }, 0)).toEqual([]);
});
