import { RegExpParser, type AST } from "@eslint-community/regexpp";
import { describe, expect, test } from "@jest/globals";
import { parseSync } from "oxc-parser";
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { createContext, Script } from "node:vm";
import { root } from "../../support/project.js";

/** A regular expression of the program, and where it is written. */
interface Pattern {
  readonly place: string;
  readonly source: string;
  readonly flags: string;
}

/** Every regular expression literal of the program, each once. */
function patternsOf(folder: string): readonly Pattern[] {
  const found = new Map<string, Pattern>();
  for (const file of readdirSync(folder, { recursive: true, encoding: "utf8" }).sort()) {
    if (!file.endsWith(".ts")) continue;
    const text = readFileSync(join(folder, file), "utf8");
    const visit = (node: unknown): void => {
      if (typeof node !== "object" || node === null) return;
      const { regex, start } = node as {
        regex?: { pattern: string; flags: string };
        start?: number;
      };
      if (regex) {
        const line = text.slice(0, start).split("\n").length;
        const id = `/${regex.pattern}/${regex.flags}`;
        if (!found.has(id))
          found.set(id, { place: `${file}:${line}`, source: regex.pattern, flags: regex.flags });
      }
      Object.values(node).forEach(visit);
    };
    visit(parseSync(file, text).program);
  }
  return [...found.values()];
}

/** Texts that an element matches: the first is the plainest. */
function samples(element: AST.Node, depth = 0): readonly string[] {
  const most = depth === 0 ? 12 : 4;
  switch (element.type) {
    case "Character":
      return [String.fromCodePoint(element.value)];
    case "CharacterSet":
    case "CharacterClass":
    case "ExpressionCharacterClass":
      return membersOf(element);
    case "Alternative": {
      let all: readonly string[] = [""];
      for (const part of element.elements) {
        const own = samples(part, depth + 1);
        all = own.length === 0 ? [] : all.flatMap((one) => own.map((more) => one + more)).slice(0, most);
      }
      return all;
    }
    case "Group":
    case "CapturingGroup":
      return element.alternatives.flatMap((one) => samples(one, depth + 1)).slice(0, most);
    case "Quantifier": {
      const own = samples(element.element, depth + 1);
      return element.min === 0
        ? ["", ...own].slice(0, most)
        : own.map((one) => one.repeat(Math.min(element.min, 4)));
    }
    default:
      return [""];
  }
}

const candidates = [..." \n\t\"'`a_A0-.,:;=<>{}()[]/\\%#@$&|!?é*+"];

function membersOf(set: AST.CharacterSet | AST.CharacterClass | AST.ExpressionCharacterClass) {
  const test = new RegExp(`^(?:${set.raw})$`, set.raw.includes("\\p") || set.raw.includes("\\u{") ? "u" : "");
  const fits = candidates.filter((one) => test.test(one));
  return fits.length > 0 ? fits.slice(0, 5) : ["a"];
}

/** Parts to repeat: what each unbounded repetition takes, with what leads there. */
function attacks(pattern: AST.Pattern): readonly (readonly [lead: string, pump: string])[] {
  const found: [string, string][] = [];
  const opening: [string, string][] = [];
  const visit = (alternatives: readonly AST.Alternative[], lead: string) => {
    for (const { elements } of alternatives) {
      let before = lead;
      for (const element of elements) {
        if (element.type === "Quantifier" && element.max > 1_000)
          for (const pump of samples(element.element)) if (pump !== "") found.push([before, pump]);
        const inner = element.type === "Quantifier" ? element.element : element;
        if ("alternatives" in inner) visit(inner.alternatives, before);
        before += samples(element)[0] ?? "";
        // What opens something, again and again without an end.
        if (before !== "") opening.push(["", before]);
      }
    }
  };
  visit(pattern.alternatives, "");
  // Without a repetition a pattern cannot look far from where it starts.
  return found.length === 0 ? [] : [...found, ...opening];
}

/** How many characters a text of attack has that repeats one. */
const length = 8_000;

/**
 * A pattern without what it wants to see in the text around: attacks do not know that, and what takes exponential time
 * behind it does so without it.
 */
function withoutLooking({ place, source, flags }: Pattern): Pattern {
  const parsed = new RegExpParser().parsePattern(source, 0, source.length, {
    unicode: flags.includes("u"),
    unicodeSets: flags.includes("v"),
  });
  const looks: AST.Node[] = [];
  const visit = (alternatives: readonly AST.Alternative[]) => {
    for (const { elements } of alternatives)
      for (const element of elements) {
        const inner = element.type === "Quantifier" ? element.element : element;
        if (inner.type === "Assertion" && "alternatives" in inner && !inner.negate) looks.push(element);
        else if ("alternatives" in inner) visit(inner.alternatives);
      }
  };
  visit(parsed.alternatives);
  let bare = source;
  for (const { start, end } of looks.reverse()) bare = bare.slice(0, start) + bare.slice(end);
  return { place, source: bare, flags };
}

/** The attack that a pattern needs more than linear time for, if there is one; `upTo` is the longest text that is tried. */
function weakness({ source, flags }: Pattern, upTo = Infinity): string | undefined {
  const parsed = new RegExpParser().parsePattern(source, 0, source.length, {
    unicode: flags.includes("u"),
    unicodeSets: flags.includes("v"),
  });
  const regex = new RegExp(source, flags);
  // What matching may take: a part of what one with quadratic time takes on this machine, as busy as it is.
  longest ??= Math.min(100, shortest(/\s+$/, `${" ".repeat(length)}\u0001`) / 3);
  const seen = new Set<string>();
  const tries = attacks(parsed).flatMap(([lead, pump]) =>
    ["", "\n\u0001"].flatMap((end) => {
      const id = JSON.stringify([lead, pump, end]);
      if (seen.has(id)) return [];
      seen.add(id);
      // The longer what is repeated, the fewer places there are to begin at: quadratic time shows later.
      const longestText = Math.round(length * Math.sqrt(Math.min(pump.length, 9)));
      const textOf = (size: number) => lead + pump.repeat(Math.ceil(size / pump.length)) + end;
      // Short ones first: what takes exponential time shows there.
      return [28, 400, longestText].filter((size) => size <= upTo).map((size) => ({ id, size, textOf }));
    }),
  );
  // All at once: to start the clock takes longer than most matching.
  if (timeOf(regex, ...tries.map(({ size, textOf }) => textOf(size))) <= longest) return undefined;
  for (const { id, size, textOf } of tries) {
    if (timeOf(regex, textOf(size)) <= longest) continue;
    // The machine may have been busy: four times the text takes a linear pattern four times as long, a quadratic one 16 times.
    const [whole, quarter] = [shortest(regex, textOf(size)), shortest(regex, textOf(size / 4))];
    if (whole === Infinity || (whole > longest && whole > 8 * quarter)) return `${id} × ${size}`;
  }
  return undefined;
}

function weaknessBehindLooks(pattern: Pattern): string | undefined {
  return (
    weakness(pattern) ?? (pattern.source.includes("(?") ? weakness(withoutLooking(pattern), 400) : undefined)
  );
}

/** Milliseconds. */
let longest: number | undefined;
const context = createContext({});
const replacing = new Script("for (const text of texts) text.replace(regex, '')");

/** Milliseconds after which matching is given up. */
const tooLong = 400;

/** Milliseconds that matching keeps the processor busy: other tests run beside this one. */
function timeOf(regex: RegExp, ...texts: readonly string[]): number {
  const start = process.cpuUsage();
  try {
    Object.assign(context, { texts, regex });
    replacing.runInContext(context, { timeout: tooLong });
  } catch {
    return Infinity;
  }
  return process.cpuUsage(start).user / 1000;
}

function shortest(regex: RegExp, text: string): number {
  return Math.min(...[1, 2, 3].map(() => timeOf(regex, text)));
}

describe("a pattern", () => {
  test.each([
    ["quadratic", "\\s+$", ""],
    ["quadratic", "<script\\b[^>]*>[\\s\\S]*?</script>", "g"],
    ["exponential", "^(?:[a-z]+ ?)+$", ""],
    ["exponential", "^(?=[^%]{0,80}%s)(?:[a-z]\\w{0,40}|%s)+$", ""],
  ])("that takes %s time is found: %s", (_, source, flags) => {
    expect(weaknessBehindLooks({ place: "", source, flags })).toBeDefined();
  });

  test("of the program takes linear time, whatever text it reads", () => {
    const weak = patternsOf(join(root, "src")).flatMap((pattern) => {
      const attack = weaknessBehindLooks(pattern);
      return attack === undefined
        ? []
        : [`${pattern.place} /${pattern.source}/${pattern.flags} on ${attack}`];
    });
    expect(weak).toEqual([]);
  });
});
