import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { spawnSync } from "node:child_process";
import { tomlFormat } from "../../../src/core/catalog/formats/toml/toml.js";
import type { CatalogChanges, EntryPath } from "../../../src/core/catalog/model.js";

const read = (text: string) => tomlFormat.read(text, ".");
const texts = (text: string) =>
  Object.fromEntries(read(text).entries.map((entry) => [entry.key, entry.text]));

const quay = `# Texts of the quay
title = "Quay" # of all
days = [
  "Mon",
  "Tue",
]
note = { short = 'x', long = "y" }

# The cart
[cart]
empty = "Empty"
full = 'It is "full"'

[cart.items]
one = "1 item"

[shop.open]
a = """
One
two"""
`;

describe("TOML is read", () => {
  test.each<[string, string, Record<string, string>]>([
    [
      "tables in tables",
      "a.b = 'x'\n[c]\nd = \"y\"\n[c.e]\nf = 'z'\n",
      { "a.b": "x", "c.d": "y", "c.e.f": "z" },
    ],
    ["names in quotes", '"a b" = "x"\n[\'c.d\']\n"" = "y"\n', { "a b": "x", "c.d.": "y" }],
    ["escapes", 'a = "\\"\\t\\u00e9\\U0001F600\\\\"\nb = \'\\n\'\n', { a: '"\té😀\\', b: "\\n" }],
    [
      "texts of several lines",
      'a = """\nx\ny \\\n   z"""\nb = \'\'\'\'x\'\'\'\'\nc = """"q""""\r\n',
      { a: "x\ny z", b: "'x'", c: '"q"' },
    ],
    [
      "lists, and tables in braces",
      'a = ["x", # one\n "y"]\nb = { c.d = "z" }\n',
      { "a.0": "x", "a.1": "y", "b.c.d": "z" },
    ],
    [
      "tables of a list",
      '[[a]]\nb = "x"\n[[a]]\nb = "y"\n[a.c]\nd = "z"\n',
      { "a.0.b": "x", "a.1.b": "y", "a.1.c.d": "z" },
    ],
  ])("%s", (_, text, expected) => {
    expect(read(text).problems).toEqual([]);
    expect(texts(text)).toEqual(expected);
    expect(tomlFormat.edit(text, {})).toBe(text);
  });

  test.each<[string, string, string, string]>([
    [
      "a quote in a text",
      'a = "x"\nb = "say "hello" now"\n',
      'hello"',
      "something follows where the line must end",
    ],
    ["a text that is not closed", "a = 'l'\nb = \"eau\n", '"', "the text is not closed on its line"],
    ["no quotes", "a = Quay\n", "Quay", "this is not a value"],
    ["a name twice", 'a = "x"\na = "y"\n', "a", '"a" is defined twice'],
    ["a table twice", '[a]\nb = "x"\n[a]\nc = "y"\n', "[a]", '"a" is defined twice'],
    ["a text that is a table too", 'a = "x"\n[a.b]\n', "[a.b]", '"a.b" is defined twice'],
    ["a bad escape", 'a = "\\q"\n', "\\q", "a backslash or control character that stands for nothing"],
    ["a list that is not closed", 'a = ["x",\n', ",", "unexpected end of file"],
    ["no name", '= "x"\n', "=", "this is not a key"],
    ["a conflict", '<<<<<<< ours\na = "x"\n', "<<<<<<< ours", "conflict marker of version control (<<<<<<<)"],
  ])("%s is said with its place", (_, text, at, message) => {
    const [problem] = read(text).problems;
    expect(problem?.message).toBe(message);
    expect(text.slice(problem?.span.start, problem?.span.end)).toBe(at);
  });

  test("numbers, flags and empty tables are no texts", () => {
    const { entries, emptyGroups } = read(
      "a = 1_000\nb = true\nc = 2031-05-04 10:00:00\nd = {}\ne = []\n[f]\n[g.h]\n",
    );
    expect(entries.map(({ key, kind, text }) => `${key} ${kind} ${text}`)).toEqual([
      "a number 1_000",
      "b boolean true",
      "c number 2031-05-04 10:00:00",
    ]);
    expect(emptyGroups.map((path) => path.join("."))).toEqual(["d", "e", "f", "g.h"]);
  });
});

describe("TOML is changed in place", () => {
  const edited = (changes: CatalogChanges, text = quay) => {
    const [before, after] = [text.split("\n"), tomlFormat.edit(text, changes).split("\n")];
    return [
      ...before.filter((line) => !after.includes(line)).map((line) => `-${line}`),
      ...after.filter((line) => !before.includes(line)).map((line) => `+${line}`),
    ];
  };
  test.each<[string, CatalogChanges, string[]]>([
    [
      "a text in its quotes",
      { set: [{ path: ["cart", "full"], text: "So" }] },
      ["-full = 'It is \"full\"'", "+full = 'So'"],
    ],
    [
      "quotes that cannot hold it",
      { set: [{ path: ["cart", "full"], text: "don't" }] },
      ["-full = 'It is \"full\"'", '+full = "don\'t"'],
    ],
    [
      "a text of several lines",
      { set: [{ path: ["shop", "open", "a"], text: "One\n2" }] },
      ['-two"""', '+2"""'],
    ],
    ["a member of a list", { add: [{ path: ["days", 2], text: "Wed" }] }, ['+  "Wed",']],
    ["a list loses one", { remove: [["days", 1]] }, ['-  "Tue",']],
    [
      "a member in braces",
      { add: [{ path: ["note", "mid"], text: "m" }], remove: [["note", "short"]] },
      ["-note = { short = 'x', long = \"y\" }", '+note = { long = "y", mid = "m" }'],
    ],
    ["a table that loses all", { remove: [["cart", "items", "one"]] }, ["-[cart.items]", '-one = "1 item"']],
    ["a table of tables gets a text", { add: [{ path: ["shop", "t"], text: "T" }] }, ["+[shop]", '+t = "T"']],
    ["with a comment", { add: [{ path: ["cart", "b"], text: "B", comment: "so" }] }, ["+# so", '+b = "B"']],
  ])("%s", (_, changes, expected) => {
    expect(edited(changes)).toEqual(expected);
  });

  test("new entries stand where the source has them", () => {
    const order: EntryPath[] = [
      ["title"],
      ["sub"],
      ["cart", "first"],
      ["cart", "empty"],
      ["cart", "new", "x"],
      ["shop", "open", "a"],
    ];
    expect(
      tomlFormat.edit(quay, {
        add: [
          { path: ["cart", "new", "x"], text: "N" },
          { path: ["sub"], text: "S" },
          { path: ["cart", "first"], text: "F" },
        ],
        order,
      }),
    ).toBe(
      quay
        .replace("# of all\n", '# of all\nsub = "S"\n')
        .replace("[cart]\n", '[cart]\nfirst = "F"\n')
        .replace('"1 item"\n', '"1 item"\n\n[cart.new]\nx = "N"\n'),
    );
  });

  test("a file of dotted keys gets more of them", () => {
    expect(
      tomlFormat.edit('a.b = "x"\n', {
        add: [
          { path: ["a", "c", "d"], text: "y" },
          { path: ["e", "f"], text: "z" },
        ],
      }),
    ).toBe('a.b = "x"\na.c.d = "y"\ne.f = "z"\n');
  });
});

/** What the reader of Python makes of each text: keys and texts, or that it refuses it; undefined where there is none. */
function askPython(files: readonly string[]): (Record<string, string> | null)[] | undefined {
  const script = `
import json, sys, tomllib
def flat(value, path, found):
    if isinstance(value, dict):
        for name, one in value.items(): flat(one, path + [name], found)
    elif isinstance(value, list):
        for index, one in enumerate(value): flat(one, path + [str(index)], found)
    elif isinstance(value, str): found["\\0".join(path)] = value
    return found
def ask(text):
    try: return flat(tomllib.loads(text), [], {})
    except (tomllib.TOMLDecodeError, ValueError): return None
print(json.dumps([ask(text) for text in json.load(sys.stdin)]))
`;
  const run = spawnSync("python3", ["-c", script], {
    input: JSON.stringify(files),
    encoding: "utf8",
    maxBuffer: 1e8,
  });
  return run.status === 0 ? (JSON.parse(run.stdout) as (Record<string, string> | null)[]) : undefined;
}

const hasPython = askPython([]) !== undefined;
const withPython = hasPython ? test : test.skip;

const piece = fc.constantFrom(
  ..."a b . = [ ] { } , # \" ' \\ \n".split(" "),
  " ",
  "\r\n",
  'a = "x"\n',
  "b.c = 'y'\n",
  "[a]\n",
  "[a.b]\n",
  "[b]\n",
  "[[c]]\n",
  "[c.d]\n",
  'c = ["x", "y"]\n',
  'd = { e = "z", f.g = 1 }\n',
  'e = """\nx\\\n  y\n""""\n',
  "f = '''z''\n'''\n",
  "g = 1.5e3\n",
  "h = 2031-05-04 # when\n",
  '"k l"."m" = "\\u00e9\\t"\n',
  "true",
  "x\\q",
);

withPython("accepts, refuses and reads what Python's reader does", () => {
  const files = fc.sample(
    fc.array(piece, { maxLength: 9 }).map((pieces) => pieces.join("")),
    { seed: 3, numRuns: 6000 },
  );
  const answers = askPython(files) ?? [];
  let accepted = 0;
  for (const [index, file] of files.entries()) {
    const { entries, problems } = read(file);
    const found =
      problems.length > 0
        ? null
        : Object.fromEntries(
            entries.flatMap(({ kind, path, text }) => (kind === "text" ? [[path.join("\0"), text]] : [])),
          );
    expect({ file, found }).toEqual({ file, found: answers[index] });
    if (found) accepted++;
  }
  expect(accepted).toBeGreaterThan(500);
});

withPython("Python reads what was written", () => {
  const name = fc.constantFrom("a", "b", "c d", "é", "e.f");
  const value = fc.oneof(
    fc.constantFrom("x", "it's", 'say "so"', "\\", "a\nb", "\t", "'''", '"""', "", "\u0001", "👍"),
    fc.string({ unit: "grapheme", maxLength: 6 }).filter((one) => !/[\uD800-\uDFFF]/u.test(one)),
  );
  const path = fc.array(name, { minLength: 1, maxLength: 3 });
  const starts = fc.constantFrom(
    "",
    quay,
    quay.replaceAll("\n", "\r\n"),
    'a.b = "x"\n',
    "[[t]]\nn = 'x'\n",
    "a = { b = 'x' }\n# end",
  );
  const isFree = (paths: readonly EntryPath[], one: EntryPath) =>
    !paths.some(
      (other) =>
        other.every((part, at) => at >= one.length || part === one[at]) ||
        one.every((part, at) => at >= other.length || part === other[at]),
    );
  const cases = fc.sample(
    fc.record({
      start: starts,
      steps: fc.array(fc.record({ path, value, drop: fc.nat(20) }), { maxLength: 8 }),
    }),
    { seed: 11, numRuns: 800 },
  );
  const files: string[] = [];
  const expected: Record<string, string>[] = [];
  for (const { start, steps } of cases) {
    let text = start;
    const model = new Map(
      read(text).entries.map((entry) => [entry.path.join("\0"), { path: entry.path, text: entry.text }]),
    );
    for (const { path: own, value: said, drop } of steps) {
      const paths = [...model.values()].map((one) => one.path);
      const there = [...model.values()][drop];
      if (there && !there.path.some((part) => typeof part === "number")) {
        text = tomlFormat.edit(
          text,
          drop % 2 === 0 ? { remove: [there.path] } : { set: [{ path: there.path, text: said }] },
        );
        if (drop % 2 === 0) model.delete(there.path.join("\0"));
        else model.set(there.path.join("\0"), { ...there, text: said });
      } else if (isFree(paths, own)) {
        text = tomlFormat.edit(text, { add: [{ path: own, text: said }], order: [own, ...paths] });
        model.set(own.join("\0"), { path: own, text: said });
      }
    }
    files.push(text);
    expected.push(Object.fromEntries([...model].map(([key, one]) => [key, one.text])));
  }
  expect(askPython(files)).toEqual(expected);
});
