import { syntaxes as registry } from "../../../src/core/message/syntaxes/index.js";
import { memoryFiles } from "../../../src/core/files/memory-files.js";
import { previewProject } from "../../../src/core/project/preview.js";
import { lintProject } from "../../../src/core/project/lint-project.js";
import { openProject } from "../../../src/core/project/project.js";
import { convertBook } from "../../../src/core/project/convert.js";
import { explainProblem } from "../../../src/core/message/problem-wordings.js";
import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { messageSyntaxNames, type MessageSyntax } from "../../../src/core/message/names.js";
import { visitNodes } from "../../../src/core/message/facts.js";
import { fillMessage } from "../../../src/core/message/fill.js";
import type { MessageNode } from "../../../src/core/message/model.js";
import { messageReader } from "../../../src/core/message/parse.js";
import { planInit } from "../../../src/core/project/setup/init-plan.js";

const read = (syntax: MessageSyntax, text: string) => messageReader(syntax).read(text);
/** Text, with arguments as `<name:type>` and tags as they stand. */
const shown = (nodes: readonly MessageNode[]): string =>
  nodes
    .map((node) =>
      node.kind === "text"
        ? node.value
        : node.kind === "argument"
          ? `⟨${node.name}${node.format ? `:${node.format.type}${node.format.style ? `:${node.format.style.text}` : ""}` : ""}⟩`
          : node.kind === "tag"
            ? `[${node.name}${node.selfClosing ? "" : `|${shown(node.children)}`}]`
            : `(${node.kind})`,
    )
    .join("");

describe("what each syntax reads", () => {
  test.each<[MessageSyntax, string, string]>([
    ["double-brace", "Hi {{name}}, {{ user.first }}!", "Hi ⟨name⟩, ⟨user.first⟩!"],
    ["double-brace", "{{price, currency}} {{- raw}} {one}", "⟨price:currency⟩ ⟨raw⟩ {one}"],
    ["percent-brace", "Hi %{name}, 100% of %%{this}", "Hi ⟨name⟩, 100% of %{this}"],
    ["percent-paren", "Hi %(name)s, %(count)d of 100%%", "Hi ⟨name⟩, ⟨count:d⟩ of 100%"],
    ["percent-paren", "%(share).1f", "⟨share:.1f⟩"],
    ["percent-paren", "%s of %s, %03d more", "⟨1⟩ of ⟨2⟩, ⟨3:03d⟩ more"],
    ["percent-paren", "%d/%m/%Y, 50% discount, 5 %d'un", "%d/%m/%Y, 50% discount, 5 ⟨1:d⟩'un"],
    [
      "colon",
      "Hi :name, :Name, :NAME at 12:30, see http://x: a:b ::c",
      "Hi ⟨name⟩, ⟨name:title⟩, ⟨name:capitals⟩ at 12:30, see http://x: a:b ::c",
    ],
    ["printf", "%s has %d of 100%% (%2$s)", "⟨1⟩ has ⟨2:d⟩ of 100% (⟨2⟩)"],
    ["printf", "%1$s %-10.2f %ld %@", "⟨1⟩ ⟨1:-10.2f⟩ ⟨2:ld⟩ ⟨3:@⟩"],
    ["plain", "{a} %s :b %{c}", "{a} %s :b %{c}"],
    ["java", "Hi {0}, it''s {1,number,integer} o'{'clock'}'", "Hi ⟨0⟩, it's ⟨1:number:integer⟩ o{clock}"],
    ["java", "it's {0} here", "its {0} here"],
    ["java", "{0,choice,0#none|1#one|1<many {0}}", "⟨0:choice:0#none|1#one|1<many {0}⟩"],
    ["brace-field", "It's {} of {}, {:>5}", "It's ⟨0⟩ of ⟨1⟩, ⟨2:s::>5⟩"],
    [
      "brace-field",
      "{0.title!r:>{width}} {{as is}} {seat[row]}",
      "⟨0.title:s:!r:>{width}⟩ {as is} ⟨seat[row]⟩",
    ],
    ["brace-field", "a { and {{b}}, as nothing fills it", "a { and {{b}}, as nothing fills it"],
    ["brace-index", "It's {0}, {1,-8:N2} {{as is}}", "It's ⟨0⟩, ⟨1:s:,-8:N2⟩ {as is}"],
    ["brace-index", "{name} and {}", "{name} and {}"],
    ["double-brace", "a <b>{{n}} <i>x</i></b> 1 < 2 <br/> <br>", "a [b|⟨n⟩ [i|x]] 1 < 2 [br] [br]"],
  ])("%s: %s", (syntax, text, expected) => {
    const { nodes, problems } = read(syntax, text);
    expect(problems).toEqual([]);
    expect(shown(nodes)).toBe(expected);
  });

  test.each<[MessageSyntax, string, string, string]>([
    ["double-brace", "a {{name} b", "argument-unclosed", "{{"],
    ["percent-brace", "a %{name b", "argument-unclosed", "%{"],
    ["percent-paren", "a %(name) b", "argument-type", "%(name)"],
    ["printf", "100%", "argument-type", "%"],
    ["java", "a {name} b", "argument-name", "{name}"],
    ["java", "a {0 b", "argument-unclosed", "{"],
    ["java", "{0,plural,x}", "argument-type", "{0,plural,x}"],
    ["brace-field", "{0} of {total", "argument-unclosed", "{"],
    ["brace-field", "{0} of 1}", "argument-unclosed", "}"],
    ["brace-field", "{} of {0} {name}", "argument-name", "{0}"],
    ["brace-index", "{0} of {total}", "argument-unclosed", "{"],
    ["colon", "<b>x", "tag-unclosed", "<b>"],
    ["colon", "x</b>", "tag-unopened", "</b>"],
    ["printf", "<b><i>x</b></i>", "tag-unclosed", "<i>"],
  ])("%s: %s is a problem with its place", (syntax, text, code, place) => {
    const [problem] = read(syntax, text).problems;
    expect(problem?.code).toBe(code);
    expect(text.slice(problem?.span.start, problem?.span.end)).toBe(place);
    expect(problem && explainProblem(problem).remedy).toMatch(/./);
  });
});

const syntaxes = messageSyntaxNames.filter((syntax) => syntax !== "icu");

describe.each(syntaxes)("%s", (syntax) => {
  const reader = messageReader(syntax);
  const signs = fc.string({
    unit: fc.constantFrom(
      ..."{}%()':|<>/bn0s$# a,.é".split(""),
      "{{n}}",
      "%{n}",
      "%(n)s",
      ":n",
      "%s",
      "{0}",
      "<b>",
      "</b>",
      "''",
      "%%",
    ),
    maxLength: 14,
  });
  const bare = (nodes: readonly MessageNode[]) =>
    JSON.stringify(nodes, (name, value: unknown) => (/span$/i.test(name) ? undefined : value));

  test("never throws, and spans cover what they stand for", () => {
    fc.assert(
      fc.property(signs, (text) => {
        const { nodes, problems } = reader.read(text);
        let end = 0;
        for (const { span } of nodes) {
          expect(span?.start).toBeGreaterThanOrEqual(end);
          end = span?.end ?? 0;
        }
        expect(end).toBeLessThanOrEqual(text.length);
        for (const { span } of problems) expect(span.end).toBeLessThanOrEqual(text.length);
        visitNodes(nodes, (node) => {
          if (node.kind === "argument" && node.nameSpan && !(syntax === "printf" || /^\d/.test(node.name)))
            expect(text.slice(node.nameSpan.start, node.nameSpan.end).toLowerCase()).toContain(
              node.name.toLowerCase().slice(0, 1),
            );
        });
      }),
      { numRuns: 500 },
    );
  });

  test("what is printed reads back as the same message", () => {
    fc.assert(
      fc.property(signs, (text) => {
        const message = reader.read(text);
        if (message.problems.length > 0) return;
        const printed = reader.print(message.nodes);
        expect([text, printed, bare(reader.read(printed).nodes)]).toEqual([
          text,
          printed,
          bare(message.nodes),
        ]);
      }),
      { numRuns: 1000 },
    );
  });
});

describe("forms side by side", () => {
  const reader = messageReader({ syntax: "colon", plurals: "bar" });
  const forms = (text: string) => {
    const [node] = reader.read(text).nodes;
    return node?.kind === "plural"
      ? node.branches.map(({ selector, nodes }) => [selector, shown(nodes)])
      : shown(reader.read(text).nodes);
  };
  test.each<[string, unknown]>([
    [
      "One boat|:count boats",
      [
        ["one", "One boat"],
        ["other", "⟨count⟩ boats"],
      ],
    ],
    [
      "{0} None|[1,*] Some",
      [
        ["=0", "None"],
        ["other", "Some"],
      ],
    ],
    [
      "{0} None|One|Many",
      [
        ["=0", "None"],
        ["one", "One"],
        ["other", "Many"],
      ],
    ],
    ["no bars", "no bars"],
    ["a || b", "a | b"],
    [
      "a||b|c",
      [
        ["one", "a|b"],
        ["other", "c"],
      ],
    ],
  ])("%s", (text, expected) => {
    expect(forms(text)).toEqual(expected);
  });

  test.each<[string, string, string, [string, string][] | string, string]>([
    [
      "||||",
      "en",
      "%{n} boat | ferry |||| %{n} boats",
      [
        ["one", "⟨n⟩ boat | ferry"],
        ["other", "⟨n⟩ boats"],
      ],
      "%{n} boat | ferry |||| %{n} boats",
    ],
    [
      "||||",
      "pl",
      "łódka||||łódki |||| łódek",
      [
        ["one", "łódka"],
        ["few", "łódki"],
        ["many", "łódek"],
        ["other", "łódek"],
      ],
      "łódka |||| łódki |||| łódek",
    ],
    ["||||", "ja", "%{n} 隻", "⟨n⟩ 隻", "%{n} 隻"],
    [
      " ;; ",
      "de",
      "Boot ;; Boote",
      [
        ["one", "Boot"],
        ["other", "Boote"],
      ],
      "Boot ;; Boote",
    ],
    ["||||", "en", "a || b", "a || b", "a || b"],
  ])("between forms may stand %s: %s %s", (separator, locale, text, expected, printed) => {
    const other = messageReader({ syntax: "percent-brace", plurals: "bar", forms: { separator } });
    const { nodes } = other.read(text, locale);
    const [node] = nodes;
    const found =
      node?.kind === "plural"
        ? node.branches.map(({ selector, nodes: inner }) => [selector, shown(inner)])
        : shown(nodes);
    expect(found).toEqual(expected);
    expect(other.print(nodes)).toBe(printed);
  });

  test.each<[string, string, string[]]>([
    ["ru", "лодка|лодки|лодок", ["one", "few", "many", "other"]],
    ["pl", "łódka|łódki|łódek", ["one", "few", "many", "other"]],
    ["lt", "a|b|c", ["one", "few", "other"]],
    ["ar", "0|1|2|3|11|100", ["zero", "one", "two", "few", "many", "other"]],
    ["en", "a|b|c", ["=0", "one", "other"]],
  ])("three and more are those of the language: %s %s", (locale, text, selectors) => {
    const read = reader.read(text, locale);
    const [node] = read.nodes;
    expect(node?.kind === "plural" && node.branches.map(({ selector }) => selector)).toEqual(selectors);
    expect(reader.print(read.nodes)).toBe(locale === "en" ? `{0} ${text}` : text);
  });

  test("are written back as they were", () => {
    for (const text of ["One boat|:count boats", "{0} None|One|Many", "a||b|c", "plain"])
      expect(reader.print(reader.read(text).nodes)).toBe(text);
  });
});

describe("filling messages", () => {
  const fill = (text: string, locale: string, values: Parameters<typeof fillMessage>[2]) =>
    fillMessage(read("icu", text).nodes, locale, values).text;
  const date = new Date(Date.UTC(2031, 4, 4, 9, 30));
  test.each<[string, string, Parameters<typeof fillMessage>[2], string]>([
    ["{n, plural, one {# boat} other {# boats}}", "en", { n: 1234 }, "1,234 boats"],
    [
      "{n, plural, one {# statek} few {# statki} many {# statków} other {# statku}}",
      "pl",
      { n: 22 },
      "22 statki",
    ],
    [
      "{n, plural, offset:1 =0 {nobody} =1 {you} one {you and # more} other {you and # more}}",
      "en",
      { n: 2 },
      "you and 1 more",
    ],
    ["{n, selectordinal, one {#st} two {#nd} few {#rd} other {#th}}", "en", { n: 23 }, "23rd"],
    ["{p, number, ::currency/EUR}", "de", { p: 24.5 }, "24,50 €"],
    ["{p, number, percent}", "en", { p: 0.75 }, "75%"],
    ["{p, number, ::.00}", "en", { p: 2 }, "2.00"],
    ["{d, date, long}", "en", { d: date }, "May 4, 2031"],
    ["{d, date, ::yMMMd}", "fr", { d: date }, "4 mai 2031"],
    ["{d, time, short}", "de", { d: date }, "09:30"],
    ["{k, select, sea {Sea} other {Land}}", "en", { k: "air" }, "Land"],
    ["<b>{who}</b> and {all}", "en", { who: "Mara", all: ["Ole", "Kim"] }, "<b>Mara</b> and Ole and Kim"],
    ["{who} and {gone}", "en", { who: "Mara" }, "Mara and {gone}"],
  ])("%s in %s", (text, locale, values, expected) => {
    expect(fill(text, locale, values).replaceAll("\u00a0", " ")).toBe(expected);
  });

  test("arguments without a value are told of", () => {
    expect(fillMessage(read("icu", "{a} {b}").nodes, "en", { a: "x" }).missing).toEqual(["b"]);
  });
});

test("tags only under the keys that a book says hold markup", () => {
  const reader = messageReader({ syntax: "icu", tags: ["**.*_html"] });
  const kinds = (key: string) => reader.read("<b>a</b>", "en", key).nodes.map(({ kind }) => kind);
  expect([kinds("page.intro_html"), kinds("page.intro")]).toEqual([["tag"], ["text"]]);
});

describe("placeholders by a book's own pattern", () => {
  const reader = messageReader({ syntax: { argument: "__{name}__" }, tags: true });
  const names = (text: string) => [...reader.read(text).facts.arguments.keys()];

  test.each<[string, readonly string[]]>([
    ["__count__ boats", ["count"]],
    ["__first_name__ and __user.name__", ["first_name", "user.name"]],
    ["__a____b__", ["a", "b"]],
    ["snake_case_word", []],
    ["__", []],
    ["____", []],
    ["<b>__x__</b>", ["x"]],
  ])("%s", (text, expected) => {
    expect(names(text)).toEqual(expected);
    expect(reader.print(reader.read(text).nodes)).toBe(text);
  });

  test.each([
    ["@{name}", "by @captain and @a.b"],
    ["[%{name}%]", "by [%captain%]"],
    ["$({name})", "by $(captain)"],
    ["{{={name}}}", "by {{=captain}}"],
  ])("%s: a pattern's signs are plain characters", (argument, text) => {
    const own = messageReader({ syntax: { argument }, tags: true });
    expect([...own.read(text).facts.arguments.keys()][0]).toBe("captain");
    expect(own.print(own.read(text).nodes)).toBe(text);
  });

  test.each<[string, string, readonly string[]]>([
    ["%{1}", "%1 of %2, 50 % or 5%", ["1", "2"]],
    ["%{1}", "%1个、50%的", ["1"]],
    ["%{0}", "'%0'</b> %12", ["0", "12"]],
    ["[{1}]", "[1] [a] [123]", ["1"]],
  ])("%s numbers those of %s", (argument, text, expected) => {
    const own = messageReader({ syntax: { argument }, tags: false });
    expect([...own.read(text).facts.arguments.keys()]).toEqual(expected);
    expect(own.print(own.read(text).nodes)).toBe(text);
  });

  test.each<[string, string, string, string]>([
    ["%{1}", 'const a = <p>{t("x")}</p>;', "%1 and %2", "%2 und %1"],
    ["%{0}", 'const a = <p>{t("x")}</p>;', "%0 and %1", "%1 und %0"],
  ])("init finds %s, and lint knows its placeholders in any order", async (argument, code, en, de) => {
    const texts = (text: string, last: string) =>
      JSON.stringify({ x: text, b: text, c: text, d: text, e: text, f: last });
    const files = { "a.tsx": code, "t/en.json": texts(en, en), "t/de.json": texts(de, "Eins") };
    const result = await planInit(memoryFiles(files));
    if (!result.ok) throw new Error(`there is ${result.file}`);
    const config = result.plan.changes[0]?.after ?? "";
    expect(JSON.parse(config)).toMatchObject({ books: [{ syntax: { argument } }] });
    const opened = openProject(memoryFiles({ ...files, "fond.config.json": config }));
    if (!opened.ok) throw new Error(opened.problems[0]?.message);
    const findings = await lintProject(opened.project);
    const missing = findings.filter(({ rule }) => rule.startsWith("argument/"));
    expect(missing.map(({ rule, key }) => [rule, key])).toEqual([
      ["argument/missing", "f"],
      ["argument/missing", "f"],
    ]);
  });

  test("of another syntax, a placeholder is told to be written by its number", async () => {
    const book = { name: "app", files: "t/{locale}.json", syntax: { argument: "%{1}" } };
    const opened = openProject(
      memoryFiles({
        "fond.config.json": JSON.stringify({ source: "en", targets: ["de"], books: [book] }),
        "t/en.json": '{"a": "Hello %1"}',
        "t/de.json": '{"a": "Hallo %1 {name}"}',
      }),
    );
    if (!opened.ok) throw new Error(opened.problems[0]?.message);
    const findings = await lintProject(opened.project);
    expect(findings.map(({ rule, data }) => [rule, data["written"]])).toEqual([["syntax/foreign", "%1"]]);
  });

  test("rules, preview and conversion know them", async () => {
    const book = { name: "app", files: "t/{locale}.json", syntax: { argument: "__{name}__" } };
    const opened = openProject(
      memoryFiles({
        "fond.config.json": JSON.stringify({ source: "en", targets: ["de"], books: [book] }),
        "t/en.json": '{"a": "Hello __name__"}',
        "t/de.json": '{"a": "Hallo __nmae__, {name}"}',
      }),
    );
    if (!opened.ok) throw new Error(opened.problems[0]?.message);
    const { project } = opened;
    const findings = await lintProject(project);
    expect(findings.map(({ rule, messageId, data }) => [rule, messageId, data])).toEqual([
      ["argument/unknown", "misspelled", { argument: "__nmae__", meant: "__name__" }],
      ["syntax/foreign", "known", { found: "{name}", written: "__name__" }],
    ]);
    expect(findings[0]?.fix).toMatchObject({ text: "Hallo __name__, {name}" });
    const preview = previewProject(project, {}, ["a"], { values: { name: "Ada" } });
    expect(JSON.stringify(preview)).toContain("Hello Ada");
    const [config] = project.config.books;
    const converted = config && (await convertBook(project, config, { syntax: "icu" }));
    expect(JSON.stringify(converted)).toContain("Hello {name}");
  });
});

test("every syntax that a book can name is its own object", () => {
  expect(
    Object.values(registry)
      .map(({ name }) => name)
      .sort(),
  ).toEqual([...messageSyntaxNames].sort());
});
