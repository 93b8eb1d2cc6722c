import { spawnSync } from "node:child_process";
import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { holesIn, type PatternStyle } from "../../../src/core/source/readers/code/holes.js";

const values = ["<a>", "<b>", "<c>"];
const names: Readonly<Record<string, string>> = { boat: "<boat>", n: "<n>" };

/** What a pattern gives by the holes that are read in it; undefined where one of them writes its value in another way. */
function filled(pattern: string, style: PatternStyle): string | undefined {
  let result = "";
  let at = 0;
  let next = 0;
  for (const { index, length, text, place, name, isFormatted, picked } of holesIn(pattern, style)) {
    result += pattern.slice(at, index);
    at = index + length;
    if (text !== undefined) result += text;
    else if (isFormatted || picked !== "") return undefined;
    else {
      const value = name === undefined ? values[place ?? next++] : names[name];
      if (value === undefined) return undefined;
      result += value;
    }
  }
  return result + pattern.slice(at);
}

interface Oracle {
  readonly style: PatternStyle;
  readonly language: string;
  readonly parts: readonly string[];
  /** A program that reads a list of patterns in JSON, and prints what each gives, or null where it is refused. */
  readonly command: readonly [string, ...string[]];
}

const given = JSON.stringify(values);
const named = JSON.stringify(names);

const oracles: readonly Oracle[] = [
  {
    style: "brace",
    language: "python",
    parts: [
      "Sold ",
      "{}",
      "{0}",
      "{1}",
      "{boat}",
      "{n!s}",
      "{n!r}",
      "{0:>5}",
      "{{",
      "}}",
      "%s",
      " %",
      "{n:s}",
      "'",
    ],
    command: [
      "python3",
      "-c",
      `import json, sys
def one(p):
    try: return p.format(*${given}, **${named})
    except Exception: return None
print(json.dumps([one(p) for p in json.load(sys.stdin)]))`,
    ],
  },
  {
    style: "percent",
    language: "python",
    parts: ["Sold ", "%s", "%%", "{0}", " %s ", "%r", "%5s", "%-5s", "{{", "}}", "%.1s", "100%% "],
    command: [
      "python3",
      "-c",
      `import json, sys
def one(p):
    for count in range(4):
        try: return p % tuple(${given}[:count])
        except Exception: pass
    return None
print(json.dumps([one(p) for p in json.load(sys.stdin)]))`,
    ],
  },
  {
    style: "percent-names",
    language: "ruby",
    parts: ["Sold ", "%<boat>s", "%{n}", "%%", "{n}", "%-9<n>s", "%<n>9s", "}", "{", "100%% "],
    command: [
      "ruby",
      "-rjson",
      "-e",
      `names = JSON.parse('${named}').transform_keys(&:to_sym)
puts JSON.parse(STDIN.read).map { |p| begin; format(p, names); rescue StandardError; nil; end }.to_json`,
    ],
  },
  {
    style: "percent",
    language: "php",
    parts: ["Sold ", "%s", "%1$s", "%2$s", "%%", "{0}", "%5s", "%'x5s", "{", "}", "%.1s", "100%% "],
    command: [
      "php",
      "-r",
      `echo json_encode(array_map(function ($p) {
        try { return @vsprintf($p, json_decode('${given}')); } catch (Throwable $e) { return null; }
      }, json_decode(stream_get_contents(STDIN))));`,
    ],
  },
];

test.each(oracles)("$language fills $style patterns as they are read", ({ style, parts, command }) => {
  const pattern = fc
    .array(fc.constantFrom(...parts), { minLength: 1, maxLength: 6 })
    .map((list) => list.join(""));
  const patterns = fc.sample(pattern, { numRuns: 2_000, seed: 20_311_130 });
  const [program, ...args] = command;
  const { stdout, error } = spawnSync(program, args, { input: JSON.stringify(patterns), encoding: "utf8" });
  // Where the language is not installed, nothing is compared.
  if (error) return;
  const said = JSON.parse(stdout) as readonly (string | null)[];
  const compared = patterns.flatMap((one, at) => {
    const expected = said[at] ?? undefined;
    const own = expected === undefined ? undefined : filled(one, style);
    return own === undefined ? [] : [{ pattern: one, own, expected }];
  });
  expect(compared.length).toBeGreaterThan(200);
  expect(compared.filter(({ own, expected }) => own !== expected)).toEqual([]);
});
