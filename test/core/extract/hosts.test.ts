import { describe, expect, test } from "@jest/globals";
import { memoryProject } from "../../support/memory-project.js";
import { memoryFiles } from "../../../src/core/files/memory-files.js";
import { extractProject } from "../../../src/core/project/extract-project.js";
import { openProject } from "../../../src/core/project/project.js";

/** Extracts one file of a book with nothing set but what is given. */
async function extract(file: string, given: string, book: Record<string, unknown> = {}) {
  // A function of Python is known where the file brings it in.
  const head = file.endsWith(".py") && !/"import"/.test(JSON.stringify(book)) ? "from words import t\n" : "";
  const code = head + given;
  const config = {
    source: "en",
    targets: [],
    books: [
      { name: "app", code: ["app/**"], files: "texts/{locale}.json", naming: { shape: "flat" }, ...book },
    ],
  };
  const files = memoryFiles({
    "fond.config.json": JSON.stringify(config),
    "texts/en.json": "{}\n",
    [file]: code,
  });
  const opened = openProject(files);
  if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
  const plan = await extractProject(opened.project, {}, { least: "unclear" });
  const after = (name: string) => plan.changes.find((change) => change.file === name)?.after;
  return {
    code: (after(file) ?? code).slice(head.length),
    texts: JSON.parse(after("texts/en.json") ?? "{}") as Record<string, string>,
    notes: plan.notes.map(({ message }) => message),
    plan,
  };
}

describe("each language gets a lookup of its own kind", () => {
  test.each<[string, string, string, string, string | undefined]>([
    [
      "app/a.rb",
      'def f\n  show("Hello #{user.name}, welcome")\nend\n',
      'show(t("a.helloWelcomeName", name: user.name))',
      "a.helloWelcomeName",
      "Hello {name}, welcome",
    ],
    [
      "app/a.py",
      'def f(name):\n    flash(f"Hello {name}, welcome")\n',
      'flash(t("a.helloWelcomeName", name=name))',
      "a.helloWelcomeName",
      "Hello {name}, welcome",
    ],
    [
      "app/a.py",
      'def f(n):\n    flash("You have %d boats here" % n)\n',
      'flash(t("a.haveBoatsHere", n=n))',
      "a.haveBoatsHere",
      "You have {n} boats here",
    ],
    [
      "app/a.php",
      '<?php function f($name) { return show("Hello $name, welcome"); }\n',
      `show(t("a.helloWelcomeName", ['name' => $name]))`,
      "a.helloWelcomeName",
      "Hello {name}, welcome",
    ],
    [
      "app/a.rb",
      "def f\n  show(<<~TEXT.strip)\n    Hello #{user.name},\n      welcome\n  TEXT\nend\n",
      '    #{t("a.helloWelcomeName", name: user.name)}\n',
      "a.helloWelcomeName",
      "Hello {name},\n  welcome",
    ],
    [
      "app/a.rb",
      "def f\n  show(<<-HTML)\n    <p>Hello #{user.name}, welcome</p>\n  HTML\nend\n",
      '    <p>#{t("a.helloWelcomeName", name: user.name)}</p>\n',
      "a.helloWelcomeName",
      "Hello {name}, welcome",
    ],
    [
      "app/a.php",
      "<?php function f($name) {\n  return show(<<<TEXT\n    Hello $name,\n      welcome\n    TEXT);\n}\n",
      `return show(t("a.helloWelcomeName", ['name' => $name]));`,
      "a.helloWelcomeName",
      "Hello {name},\n  welcome",
    ],
    [
      "app/a.php",
      "<?php function f() {\n  return show(<<<'TEXT'\nHello $name, welcome\nTEXT);\n}\n",
      'return show(t("a.helloNameWelcome"));',
      "a.helloNameWelcome",
      "Hello $name, welcome",
    ],
    [
      "app/A.java",
      'class A { void f() { show("Hello " + name + ", welcome"); } }\n',
      'show(t("a.helloWelcomeName", java.util.Collections.singletonMap("name", name)))',
      "a.helloWelcomeName",
      "Hello {name}, welcome",
    ],
    [
      "app/A.java",
      'class A { void f() { show("""\n      Leave by "eight".\n        Not later.\n      """); } }\n',
      'show(t("a.leaveEightNotLater"));',
      "a.leaveEightNotLater",
      'Leave by "eight".\n  Not later.\n',
    ],
    [
      "app/A.cs",
      'class A { void F() { Show("""\r\n      Leave by eight.\r\n        Not later.\r\n      """); } }\r\n',
      'Show(t("a.leaveEightNotLater"));',
      "a.leaveEightNotLater",
      "Leave by eight.\n  Not later.",
    ],
    [
      "app/a.php",
      "<?php function f() {\r\n  return show(<<<TEXT\r\n    Leave by eight.\r\n      Not later.\r\n    TEXT);\r\n}\r\n",
      'return show(t("a.leaveEightNotLater"));',
      "a.leaveEightNotLater",
      "Leave by eight.\n  Not later.",
    ],
    [
      "app/A.cs",
      'class A { void F() { Show($"""\n      Leave by "eight", {name}.\n        Not later.\n      """); } }\n',
      'Show(t("a.leaveEightNotLater", new { name }));',
      "a.leaveEightNotLater",
      'Leave by "eight", {name}.\n  Not later.',
    ],
    [
      "app/a.go",
      'package a\nfunc f() { show(fmt.Sprintf("You have %d boats here", n)) }\n',
      'show(t("a.haveBoatsHere", map[string]any{"n": n}))',
      "a.haveBoatsHere",
      "You have {n} boats here",
    ],
    [
      "app/A.cs",
      'class A { void F() { Show($"Hello {name}, welcome"); } }\n',
      'Show(t("a.helloWelcomeName", new { name }))',
      "a.helloWelcomeName",
      "Hello {name}, welcome",
    ],
    [
      "app/a.html.erb",
      "<p>Hello <%= user.name %>, welcome</p>\n",
      '<p><%= t("a.helloWelcomeName", name: user.name) %></p>',
      "a.helloWelcomeName",
      "Hello {name}, welcome",
    ],
    [
      "app/a.html.erb",
      "<p title='The deck &amp; more'></p>\n",
      `<p title='<%= t("a.deckMore") %>'></p>`,
      "a.deckMore",
      "The deck & more",
    ],
    [
      "app/a.html.erb",
      '<%= link_to "All boats", boats_path %>\n',
      '<%= link_to t("a.allBoats"), boats_path %>',
      "a.allBoats",
      "All boats",
    ],
    [
      "app/a.ejs",
      "<p>Hello <%= user.name %>, welcome</p>\n",
      '<p><%= t("a.helloWelcomeName", { name: user.name }) %></p>',
      "a.helloWelcomeName",
      "Hello {name}, welcome",
    ],
    [
      "app/a.ejs",
      "<% const title = late ? 'The boat is late' : none; %>\n",
      "title = late ? t('a.boatLate') : none;",
      "a.boatLate",
      "The boat is late",
    ],
    [
      "app/a.php",
      '<?php function f($n) { printf("You have %d boats here\\n", $n); }\n',
      `printf("%s\\n", t("a.haveBoatsHere", ['n' => $n]));`,
      "a.haveBoatsHere",
      "You have {n} boats here",
    ],
    [
      "app/A.java",
      'class A { void f(int n) { System.out.printf("You have %d boats here%n", n); } }\n',
      'System.out.printf("%s\\n", t("a.haveBoatsHere", java.util.Collections.singletonMap("n", n)));',
      "a.haveBoatsHere",
      "You have {n} boats here",
    ],
    [
      "app/a.go",
      'package a\n\nfunc f(n int) error {\n\treturn fmt.Errorf("You have %d boats here", n)\n}\n',
      'fmt.Errorf("%s", t("a.haveBoatsHere", map[string]any{"n": n}))',
      "a.haveBoatsHere",
      "You have {n} boats here",
    ],
    [
      "app/A.cs",
      'class A { void F(int n) { Console.WriteLine("You have {0} boats here", n); } }\n',
      'Console.WriteLine("{0}", t("a.haveBoatsHere", new { n }))',
      "a.haveBoatsHere",
      "You have {n} boats here",
    ],
    [
      "app/a.phtml",
      "<h1>Our <?= $kind ?> boats</h1>\n",
      `<h1><?= t("a.boatsKind", ['kind' => $kind]) ?></h1>`,
      "a.boatsKind",
      "Our {kind} boats",
    ],
    [
      "app/a.phtml",
      "<h1>Our <?php echo htmlspecialchars($kind, ENT_QUOTES); ?> boats</h1>\n",
      `<h1><?= t("a.boatsKind", ['kind' => htmlspecialchars($kind, ENT_QUOTES)]) ?></h1>`,
      "a.boatsKind",
      "Our {kind} boats",
    ],
    [
      "app/a.phtml",
      "<h1>Our <?php print $boat['kind'] ?> boats</h1>\n",
      `<h1><?= t("a.boatsKind", ['kind' => $boat['kind']]) ?></h1>`,
      "a.boatsKind",
      "Our {kind} boats",
    ],
    [
      "app/a.blade.php",
      "<h1>Our {{ $kind }} boats</h1>\n",
      `<h1>{{ t("a.boatsKind", ['kind' => $kind]) }}</h1>`,
      "a.boatsKind",
      "Our {kind} boats",
    ],
    [
      "app/a.jsp",
      "<h1>Our <%= kind %> boats</h1>\n",
      '<h1><%= t("a.boatsKind", java.util.Collections.singletonMap("kind", kind)) %></h1>',
      "a.boatsKind",
      "Our {kind} boats",
    ],
    [
      "app/a.vue",
      "<template><p>Hello {{ user.name }}, welcome</p></template>\n",
      '<p>{{ t("a.helloWelcomeName", { name: user.name }) }}</p>',
      "a.helloWelcomeName",
      "Hello {name}, welcome",
    ],
    [
      "app/a.vue",
      '<template><img alt="A boat at the quay"></template>\n',
      `<img :alt="t('a.boatQuay')">`,
      "a.boatQuay",
      "A boat at the quay",
    ],
    [
      "app/a.svelte",
      '<img alt="A boat at the quay">\n',
      "<img alt={t('a.boatQuay')}>",
      "a.boatQuay",
      "A boat at the quay",
    ],
  ])("%s: %s", async (file, code, expected, key, text) => {
    const found = await extract(file, code);
    expect(found.code).toContain(expected);
    expect(found.texts).toEqual({ [key]: text });
    expect(found.notes).toEqual([]);
    const again = await extract(file, found.code);
    expect(again.plan.extracted).toEqual([]);
  });
});

describe("a book's own templates", () => {
  test("for templates of pages, and for files of one ending", async () => {
    const emit = {
      content: '[[say("{key}"{args})]]',
      attribute: '[[say("{key}")]]',
      endings: { ".rb": { call: 'I18.text("{key}"{args})' } },
    };
    expect((await extract("app/a.html", '<h1 title="All boats">Our boats</h1>', { emit })).code).toBe(
      `<h1 title="All boats">Our boats</h1>`,
    );
    const found = await extract("app/a.rb", 'def f\n  show("Our best boats")\nend\n', { emit });
    expect(found.code).toContain('show(I18.text("a.bestBoats"))');
  });

  test("values go in order where arguments are numbered", async () => {
    const java = 'class A { void f() { show("From " + from + " to " + to + ", welcome"); } }\n';
    const found = await extract("app/A.java", java, { syntax: "java" });
    expect(found.code).toContain('t("a.welcomeFromTo", from, to)');
    expect(found.texts).toEqual({ "a.welcomeFromTo": "From {0} to {1}, welcome" });
  });
});

describe("what stands inside of something else", () => {
  test("a text in another's value goes along", async () => {
    const { code, texts } = await extract(
      "app/a.py",
      'def f(n):\n    flash("You have %s here" % (n or "no boats at all"))\n',
    );
    expect(code).toMatch(/flash\(t\("a\.\w+", n=\(?n or t\("a\.\w+"\)\)?\)\)/);
    expect(Object.values(texts)).toContain("You have {n} here");
    expect(Object.values(texts)).toContain("no boats at all");
  });

  test("in a bound attribute the other quotes are taken", async () => {
    const { code } = await extract(
      "app/a.vue",
      '<template><p :title="`Slide number ${page}`">x</p></template>\n',
    );
    expect(code).toContain(`:title="t('a.slideNumberPage', { page })"`);
  });
});

describe("values that code formats for a locale", () => {
  const emit = { import: 'import { t } from "{to:app/texts}";' };
  const one = async (value: string, book: object = {}) => {
    const found = await extract(
      "app/a.ts",
      `export const f = (a) => \`The value is \${${value}} today\`;\n`,
      { emit, ...book },
    );
    expect(found.notes).toEqual([]);
    return { text: Object.values(found.texts)[0], passed: /, (\{.*\})\)/.exec(found.code)?.[1] };
  };

  test.each([
    ["a.toLocaleDateString()", "{a, date, ::yMd}"],
    [
      'a.toLocaleDateString("en-US", { weekday: "long", month: "short", day: "numeric" })',
      "{a, date, ::EEEEMMMd}",
    ],
    ['a.toLocaleDateString(undefined, { dateStyle: "full" })', "{a, date, full}"],
    ["a.toLocaleTimeString()", "{a, time, ::jms}"],
    ['a.toLocaleTimeString([], { hour: "numeric", minute: "2-digit" })', "{a, time, ::jmm}"],
    ['a.toLocaleTimeString(locale, { timeStyle: "short" })', "{a, time, short}"],
    ["new Intl.DateTimeFormat().format(a)", "{a, date, ::yMd}"],
    ["new Intl.NumberFormat(locale).format(a)", "{a, number}"],
    [
      'new Intl.NumberFormat("en", { style: "currency", currency: "SEK" }).format(a)',
      "{a, number, ::currency/SEK}",
    ],
    [
      'a.toLocaleString(undefined, { style: "percent", maximumFractionDigits: 1 })',
      "{a, number, ::percent scale/100 .#}",
    ],
    [
      "new Intl.NumberFormat(locale, { minimumFractionDigits: 2, maximumFractionDigits: 2 }).format(a)",
      "{a, number, ::.00}",
    ],
  ])("%s", async (value, expected) => {
    expect(await one(value)).toEqual({ text: `The value is ${expected} today`, passed: "{ a }" });
  });

  test.each([
    "a.toLocaleString()",
    'a.toLocaleDateString("de-DE")',
    'a.toLocaleDateString(undefined, { timeZone: "UTC" })',
    "a.toLocaleDateString(undefined, options)",
    'new Intl.NumberFormat(locale, { style: "currency", currency: code }).format(a)',
    "a.toFixed(2)",
  ])("what is not certain stays in code: %s", async (value) => {
    const { text, passed } = await one(value);
    expect(text).toMatch(/^The value is \{\w+\} today$/);
    expect(passed).toContain(value);
  });

  test("in other syntaxes the code goes on formatting, each way under its own name", async () => {
    const { text, passed } = await one("a.toLocaleDateString()} at ${a.toLocaleTimeString()", {
      syntax: "double-brace",
    });
    expect(text).toBe("The value is {{a}} at {{a2}} today");
    expect(passed).toBe("{ a: a.toLocaleDateString(), a2: a.toLocaleTimeString() }");
  });
});

test("icons that a font draws by their names stay outside of texts, or are tags in them", async () => {
  const emit = {
    import: 'import { t } from "{to:app/texts}";',
    rich: 'rich("{key}"{args})',
    call: 't("{key}"{args})',
  };
  const end = "export const A = () => <p>Read more <Icon>arrow_forward</Icon></p>;\n";
  const found = await extract("app/a.tsx", end, { emit });
  expect(Object.values(found.texts)).toEqual(["Read more"]);
  expect(found.code).toContain('<p>{t("a.readMore")} <Icon>arrow_forward</Icon></p>');
  const middle = "export const A = () => <p>Click <Icon>add</Icon> to begin</p>;\n";
  const rich = await extract("app/a.tsx", middle, {
    emit: { ...emit, import: 'import { t, rich } from "{to:app/texts}";' },
  });
  expect(Object.values(rich.texts)).toEqual(["Click <icon/> to begin"]);
  expect(rich.code).toContain("icon: () => <Icon>add</Icon>");
});

describe("texts that statements return by a number", () => {
  const emit = { import: 'import { t } from "{to:app/texts}";' };
  const bikes = "{n, plural, =0 {No bikes} =1 {One bike} other {# bikes}}";

  test.each<[string, string, string]>([
    [
      'return n === 1 ? "1 bike" : n + " bikes";',
      "{n, plural, one {# bike} other {# bikes}}",
      'return t("a.1Bike", { n });',
    ],
    [
      'return n === 1 ? "In 1 of 12 months" : `In ${n} of 12 months`;',
      "{n, plural, one {In # of 12 months} other {In # of 12 months}}",
      'return t("a.112Months", { n });',
    ],
    [
      'if (n === 1) return "due tomorrow"; return `due in ${n} days`;',
      "{n, plural, =1 {due tomorrow} other {due in # days}}",
      '{ return t("a.dueDaysN", { n }); }',
    ],
    [
      'return `Add ${n === 1 ? "a guest" : "guests"} here`;',
      "{n, plural, one {Add a guest here} other {Add guests here}}",
      'return t("a.addGuestHere", { n });',
    ],
    [
      "switch (n) { case 0: return 'No bikes'; case 1: return 'One bike'; default: return `${n} bikes`; }",
      bikes,
      '{ return t("a.oneBike", { n }); }',
    ],
    [
      'switch (n) { case 0: case 1: { return "A bike or none"; } default: return n + " bikes at all" }',
      "{n, plural, =0 {A bike or none} =1 {A bike or none} other {# bikes at all}}",
      '{ return t("a.bikeNone", { n }) }',
    ],
    [
      'if (n === 0) return "No bikes"; if (n === 1) { return "One bike"; } return `${n} bikes`;',
      bikes,
      '{ return t("a.oneBike", { n }); }',
    ],
    [
      'if (n === 0) return "No bikes"; else if (n === 1) return "One bike"; else return n + " bikes";',
      bikes,
      '{ return t("a.oneBike", { n }); }',
    ],
    [
      'if (!ready) return null; if (n < 1) return "No bikes"; return n === 1 ? "One bike" : n + " bikes";',
      bikes,
      '{ if (!ready) return null; return t("a.oneBike", { n }); }',
    ],
  ])("%s", async (body, text, expected) => {
    const code = `export function f(n) ${body.startsWith("{") ? body : `{ ${body} }`}\n`;
    const found = await extract("app/a.ts", code, { emit });
    expect(found.notes).toEqual([]);
    expect(Object.values(found.texts)).toEqual([text]);
    expect(found.code).toContain(expected);
    expect((await extract("app/a.ts", found.code, { emit })).plan.extracted).toEqual([]);
  });

  test.each([
    ["a comment among them", 'if (n === 0) return "No bikes yet"; // none\n return n + " bikes yet";'],
    [
      "other words for each number",
      'switch (n) { case 0: return "Closed today"; default: return "Come back later"; }',
    ],
    ["no number", 'if (kind === "a") return "The first bike"; return "Another bike";'],
    ["no end", 'switch (n) { case 0: return "No bikes yet"; case 1: return "One bike yet"; }'],
    [
      "other values",
      'if (n === 0) return "Nothing here yet"; if (m === 1) return "One bike left"; return "Some cars came";',
    ],
  ])("each stays by itself: %s", async (_, body) => {
    const found = await extract("app/a.ts", `export function f(n) { ${body} }\n`, { emit });
    expect(Object.values(found.texts).length).toBeGreaterThan(1);
    expect(Object.values(found.texts).join()).not.toContain("plural");
  });
});

describe("the line that brings a lookup in", () => {
  const emit = (ending: string, line: string) => ({ emit: { endings: { [ending]: { import: line } } } });
  const show = (before: string, after = "") =>
    `${before}class A { void f() { show("The boat leaves now"); } }\n${after}`;
  test.each<[string, string, string, string]>([
    [
      "app/a.py",
      'from x import (\n    a,\n    b,\n)\nimport os\n\n\ndef f():\n    flash("The boat leaves now")\n',
      "from texts import t",
      "import os\nfrom texts import t\n\n\ndef f",
    ],
    [
      "app/a.py",
      '"""About boats."""\n\ndef f():\n    flash("The boat leaves now")\n',
      "from texts import t",
      '"""About boats."""\n\nfrom texts import t\n\ndef f',
    ],
    [
      "app/A.java",
      show("package a.b;\n\nimport java.util.List;\n\n"),
      "import static app.Texts.t;",
      "import java.util.List;\nimport static app.Texts.t;\n\nclass",
    ],
    [
      "app/A.java",
      show("package a.b;\n\n"),
      "import static app.Texts.t;",
      "package a.b;\n\nimport static app.Texts.t;\n\nclass",
    ],
    ["app/A.java", show(""), "import static app.Texts.t;", "import static app.Texts.t;\n\nclass"],
    [
      "app/A.cs",
      'using System;\r\n\r\nclass A { void F() { Show("The boat leaves now"); } }\r\n',
      "using static App.Texts;",
      "using System;\r\nusing static App.Texts;\r\n\r\nclass",
    ],
    [
      "app/a.php",
      '<?php\nnamespace App;\n\nfunction f() { return show("The boat leaves now"); }\n',
      "use function texts\\t;",
      "namespace App;\n\nuse function texts\\t;\n\nfunction",
    ],
    [
      "app/a.rb",
      '# frozen_string_literal: true\n\nrequire "json"\n\ndef f\n  show("The boat leaves now")\nend\n',
      'require "texts"',
      'require "json"\nrequire "texts"\n\ndef',
    ],
    [
      "app/a.go",
      'package main\n\nimport (\n\t"fmt"\n)\n\nfunc f() { show("The boat leaves now") }\n',
      'import . "app/texts"',
      ')\nimport . "app/texts"\n\nfunc',
    ],
  ])("%s: %#", async (file, code, line, expected) => {
    const book = emit(file.slice(file.lastIndexOf(".")), line);
    const found = await extract(file, code, book);
    expect(found.notes).toEqual([]);
    expect(found.code).toContain(expected);
    expect((await extract(file, found.code, book)).code).toBe(found.code);
    // A line that is there already is not written again.
    const again = await extract(file, found.code.replace(/t\("[^"]*"\)/, '"Another boat leaves"'), book);
    expect(again.code.split(line)).toHaveLength(2);
  });

  test("for scripts of one ending", async () => {
    const emit = {
      import: 'import { t } from "{to:app/texts}";',
      endings: { ".ts": { call: 'say("{key}"{args})', import: 'import { say } from "{to:app/say}";' } },
    };
    const code = 'export const f = () => alert("The boat leaves now");\n';
    expect((await extract("app/a.ts", code, { emit })).code).toBe(
      'import { say } from "./say";\n\nexport const f = () => alert(say("a.boatLeavesNow"));\n',
    );
    expect((await extract("app/a.js", code, { emit })).code).toContain('alert(t("a.boatLeavesNow"))');
  });

  test("files without texts get none", async () => {
    const code = "def f(n):\n    return n + 1\n";
    expect((await extract("app/a.py", code, emit(".py", "from texts import t"))).code).toBe(code);
  });
});

describe("what the code tells translators", () => {
  test("stands above the text in formats with comments", async () => {
    const files = memoryFiles({
      "fond.config.json": JSON.stringify({
        source: "en",
        targets: [],
        books: [
          {
            name: "app",
            code: ["app/**"],
            files: "t/{locale}.properties",
            lookups: [{ call: "t", default: 1, note: 2 }],
          },
        ],
      }),
      "t/en.properties": "",
      "app/a.ts": 'export const f = () => t("list.title", "All boats", "above the list");\n',
      "app/b.py":
        'from words import t\n\ndef f():\n    # fond: note on the quay\n    flash("The boat leaves now")\n',
    });
    const opened = openProject(files);
    if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
    const plan = await extractProject(opened.project);
    expect(plan.changes.find(({ file }) => file === "t/en.properties")?.after).toBe(
      "# above the list\nlist.title=All boats\n# on the quay\nb.boatLeavesNow=The boat leaves now\n",
    );
  });
});

describe("strings side by side are one text", () => {
  test.each<[string, string, string, string]>([
    [
      "app/a.rb",
      'def f(n)\n  show "You have #{n} " \\\n    "boats \\"today\\"."\n  tell("a" "b", x)\nend\n',
      'def f(n)\n  show t("a.haveBoatsToday", n: n)\n  tell("a" "b", x)\nend\n',
      'You have {n} boats "today".',
    ],
    [
      "app/a.html.erb",
      "<p><%= show('All boats ' \\\n 'leave today') %></p>\n",
      "<p><%= show(t('a.allBoatsLeaveToday')) %></p>\n",
      "All boats leave today",
    ],
    [
      "app/a.py",
      'def f(n):\n    flash("All boats "\n      f"leave at {n}")\n',
      'def f(n):\n    flash(t("a.allBoatsLeave", n=n))\n',
      "All boats leave at {n}",
    ],
  ])("in %s %#", async (file, before, after, message) => {
    const found = await extract(file, before);
    expect(found.code).toBe(after);
    expect(Object.values(found.texts)).toEqual([message]);
  });
});

describe("tags of a library stand only in pages that know them", () => {
  const book = {
    lookups: [{ component: "say:text", key: "key" }],
    emit: { endings: { ".jsp": { content: '<say:text key="{key}"/>' } } },
  };
  const directive = '<%@ taglib prefix="say" uri="/say" %>';
  test.each([
    [`${directive}<p>Boats</p>`, true],
    [`<html xmlns:say="/say"><p>Boats</p></html>`, true],
    ['<p>Boats</p><say:text key="a.x"/>', true],
    ['<%@ include file="tags.jspf" %><p>Boats</p>', true],
    ['<c:if test="${x}"><p>Boats</p></c:if>', true],
    ["<p>Boats</p>", false],
    ['<%@ taglib prefix="c" uri="/c" %><c:if test="${x}"><p>Boats</p></c:if>', false],
    ['<jsp:useBean id="x" class="X"/><p>Boats</p>', false],
  ])("%s: %s", async (page, isMoved) => {
    const { code, notes } = await extract("app/a.jsp", page, book);
    expect(code.includes('<p><say:text key="a.boats"/></p>')).toBe(isMoved);
    expect(notes.join().includes("declares the tags")).toBe(!isMoved);
  });
});

describe("what an expression of a template joins is one text", () => {
  const book = {
    emit: {
      endings: { ".twig": { content: '{{ t("{key}"{args}) }}', attribute: '{{ t("{key}"{args}) }}' } },
    },
  };
  test.each<[string, string, Record<string, string>]>([
    [
      "<p>{{ 'Boat \"' ~ name|upper ~ '\" is late.' }}</p>",
      '<p>{{ t("a.boatLateName", name=name|upper) }}</p>',
      { "a.boatLateName": 'Boat "{name}" is late.' },
    ],
    [
      "<p>{{ late ? 'Late: '. when(boat.day) : 'Here' }}</p>",
      `<p>{{ late ? t('a.lateDay', day=when(boat.day)) : t('a.here') }}</p>`,
      { "a.lateDay": "Late: {day}", "a.here": "Here" },
    ],
    [
      '<p>{{ show("Boats left") .Boat }}</p>',
      '<p>{{ show(t("a.boatsLeft")) .Boat }}</p>',
      { "a.boatsLeft": "Boats left" },
    ],
    [
      "<p>{{ 'Boat ' . boat->name . ' is late' }}</p>",
      `<p>{{ t('a.boatLateName', name=boat->name) }}</p>`,
      { "a.boatLateName": "Boat {name} is late" },
    ],
    [
      "<p>{{ boat.name + ' is late' }}</p>",
      `<p>{{ t('a.lateName', name=boat.name) }}</p>`,
      { "a.lateName": "{name} is late" },
    ],
    [
      "<p>{{ (day|default('') == 'now') ? 'All boats.' : 'Boats of ' ~ day|default('') ~ ' here.' }}</p>",
      "<p>{{ (day|default('') == 'now') ? t('a.allBoats') : t('a.boatsHereDay', day=day|default('')) }}</p>",
      { "a.allBoats": "All boats.", "a.boatsHereDay": "Boats of {day} here." },
    ],
    [
      "{% set title = 'It\\'s ' ~ boats[0].name(1, 'x')|date('d.m.Y') ~ ' of ' ~ place %}<h1>{{ title }}</h1>",
      `{% set title = t('a.itsOfNamePlace', name=boats[0].name(1, 'x')|date('d.m.Y'), place=place) %}<h1>{{ title }}</h1>`,
      { "a.itsOfNamePlace": "It's {name} of {place}" },
    ],
    [
      "<b>{{ ('Boat of ' ~ name)|upper }}</b>",
      "<b>{{ (t('a.boatName', name=name))|upper }}</b>",
      { "a.boatName": "Boat of {name}" },
    ],
  ])("%s", async (template, code, texts) => {
    expect(await extract("app/a.twig", template, book)).toMatchObject({ code, texts });
  });

  test("where texts are put out by a filter, nothing says how an expression asks for one", async () => {
    const filter = {
      lookups: [{ filter: "text" }, { call: "t" }],
      emit: { endings: { ".twig": { content: "{{ '{key}'|text }}" } } },
    };
    const page = "<p>{{ late ? 'Late today' : boat }}</p><b>All boats</b>";
    const { code, notes } = await extract("app/a.twig", page, filter);
    expect(code).toBe("<p>{{ late ? 'Late today' : boat }}</p><b>{{ 'a.allBoats'|text }}</b>");
    expect(notes.join()).toContain("the book says only how texts are put out");
  });

  test.each([
    ["<p>{{ (n > 1 ? 'Many boats' : 'One boat') ~ ' left' }}</p>", "joined with words"],
    ["<p>{{ 'Boats: ' + count * 2 }}</p>", "other operators"],
    ["<p>{{ 'Boats of ' + day | upper }}</p>", "other operators"],
    ["<p>{{ name ?: '<em>No name given</em>' }}</p>", "elements in a string"],
  ])("%s stays", async (template, reason) => {
    const { code, notes } = await extract("app/a.twig", template, book);
    expect(code).toBe(template);
    expect(notes.join()).toContain(reason);
  });
});

describe("words that code chooses", () => {
  const boats = "{n, plural, =1 {One boat is here} other {# boats are here}}";
  const left = "{n, plural, one {You have # seat left} other {You have # seats left}}";

  test.each<[string, string, string, string]>([
    [
      "app/a.rb",
      'def f(n)\n  show(n == 1 ? "One boat is here" : "#{n} boats are here")\nend\n',
      ", n: n))",
      boats,
    ],
    ["app/a.rb", 'def f(n)\n  show("You have #{n} seat#{n == 1 ? "" : "s"} left")\nend\n', ", n: n))", left],
    [
      "app/a.rb",
      'def f(n)\n  show(format("You have %d seat%s left", n, n == 1 ? "" : "s"))\nend\n',
      ", n: n))",
      left,
    ],
    [
      "app/a.php",
      '<?php function f($n) { return show($n != 1 ? "$n boats are here" : "One boat is here"); }\n',
      "['n' => $n]",
      boats,
    ],
    [
      "app/a.php",
      '<?php function f($n) { return show("You have " . $n . " seat" . ($n > 1 ? "s" : "") . " left"); }\n',
      "['n' => $n]",
      "{n, plural, =0 {You have # seat left} one {You have # seat left} other {You have # seats left}}",
    ],
    [
      "app/a.py",
      'def f(n):\n    flash("One boat is here" if n == 1 else f"{n} boats are here")\n',
      ", n=n))",
      boats,
    ],
    [
      "app/a.py",
      "def f(n):\n    flash(f\"You have {n} seat{'' if n == 1 else 's'} left\")\n",
      ", n=n))",
      left,
    ],
    [
      "app/a.py",
      'def f(n):\n    flash("You have %d seat%s left" % (n, "s" if n != 1 else ""))\n',
      ", n=n))",
      left,
    ],
    [
      "app/a.py",
      'def f(n):\n    flash("No boat" if n == 0 else "One boat" if n == 1 else f"{n} boats")\n',
      ", n=n))",
      "{n, plural, =0 {No boat} =1 {One boat} other {# boats}}",
    ],
    [
      "app/A.java",
      'class A { void f(int n) { show(1 == n ? "One boat is here" : n + " boats are here"); } }\n',
      'singletonMap("n", n))',
      boats,
    ],
    [
      "app/A.java",
      'class A { void f(int n) { show("You have " + n + " seat" + (n == 1 ? "" : "s") + " left"); } }\n',
      'singletonMap("n", n))',
      left,
    ],
    [
      "app/A.cs",
      'class A { void F(int n) { Show($"You have {n} seat{(n == 1 ? "" : "s")} left"); } }\n',
      "new { n })",
      left,
    ],
    [
      "app/A.cs",
      'class A { void F(bool admin) { Show($"The {(admin ? "crew" : "guest")} page is open"); } }\n',
      'new { admin = admin ? "yes" : "no" })',
      "{admin, select, yes {The crew page is open} other {The guest page is open}}",
    ],
    [
      "app/a.py",
      "def f(admin):\n    flash(f\"The {'crew' if admin else 'guest'} page is open\")\n",
      'admin="yes" if admin else "no"',
      "{admin, select, yes {The crew page is open} other {The guest page is open}}",
    ],
    [
      "app/a.html.erb",
      '<p>You have <%= n == 1 ? "one seat" : "#{n} seats" %> left</p>\n',
      "<p><%= t(",
      "{n, plural, =1 {You have one seat left} other {You have # seats left}}",
    ],
    [
      "app/a.phtml",
      '<p>You have <?= $n == 1 ? "one seat" : "$n seats" ?> left</p>\n',
      "<p><?= t(",
      "{n, plural, =1 {You have one seat left} other {You have # seats left}}",
    ],
    [
      "app/a.jsp",
      '<p>You have <%= n == 1 ? "one seat" : n + " seats" %> left</p>\n',
      "<p><%= t(",
      "{n, plural, =1 {You have one seat left} other {You have # seats left}}",
    ],
    [
      "app/a.html.erb",
      '<p>You have <%= pluralize(@seats.size, "seat") %> left</p>\n',
      ", seats: @seats.size) %></p>",
      "{seats, plural, one {You have # seat left} other {You have # seats left}}",
    ],
    [
      "app/a.rb",
      'def f(n)\n  show("You have #{pluralize(n, "seat")} left")\nend\n',
      ", n: n))",
      "{n, plural, one {You have # seat left} other {You have # seats left}}",
    ],
    [
      "app/a.vue",
      '<template><p>You have {{ n === 1 ? "one seat" : n + " seats" }} left</p></template>\n',
      "{ n }) }}</p>",
      "{n, plural, =1 {You have one seat left} other {You have # seats left}}",
    ],
    [
      "app/a.vue",
      "<template><p :title=\"n === 1 ? 'one seat' : n + ' seats'\"></p></template>\n",
      `:title="t('a.oneSeat', { n })"`,
      "{n, plural, =1 {one seat} other {# seats}}",
    ],
  ])("%s: %#", async (file, code, expected, text) => {
    const found = await extract(file, code);
    expect(found.notes).toEqual([]);
    expect(Object.values(found.texts)).toEqual([text]);
    expect(found.code).toContain(expected);
    const again = await extract(file, found.code);
    expect(again.plan.extracted).toEqual([]);
  });

  test("a number that is shown as text is the number that is counted", async () => {
    const found = await extract(
      "app/a.py",
      'def f(n):\n    flash("You have " + str(n) + " seat" + ("" if n == 1 else "s") + " left")\n',
    );
    expect(Object.values(found.texts)).toEqual([left]);
    expect(found.code).toContain(", n=n))");
  });

  test("what no plural says stays, with the reason", async () => {
    const found = await extract(
      "app/a.rb",
      'def f(n)\n  show(n == 0 ? n >= 2 ? "#{n} cabins are left" : "No seats are here" : "One cabin is here")\nend\n',
    );
    expect(found.notes.join()).toMatch(/no plural or select expresses/);
  });

  test("a value that is not counted, and two whole texts, stay what they are", async () => {
    const code = 'def f(open)\n  show(open ? "The quay is open" : "Come back tomorrow")\nend\n';
    const found = await extract("app/a.rb", code);
    expect(Object.values(found.texts)).toEqual(["The quay is open", "Come back tomorrow"]);
    expect(found.code).toMatch(/open \? t\("[^"]+"\) : t\("[^"]+"\)/);
  });

  test("forms side by side, their number under its own name", async () => {
    const code = 'def f(seats)\n  show("You have #{seats} seat#{seats == 1 ? "" : "s"} left")\nend\n';
    const found = await extract("app/a.rb", code, { plurals: "bar" });
    expect(Object.values(found.texts)).toEqual(["You have {count} seat left|You have {count} seats left"]);
    expect(found.code).toContain("count: seats");
  });
});

test.each([
  [
    "app/a.php",
    "<?php function f() { flash('Boat ' . $name . ' is late'); }\n",
    "t('a.boatLateName', ['%name%' => $name])",
  ],
  // Names without quotes have no marks.
  ["app/a.rb", 'def f(name)\n  show("Boat #{name} is late")\nend\n', "t('a.boatLateName', name: name)"],
])("values are named with the marks that the book says: %s", async (file, code, expected) => {
  const names = { emit: { call: "t('{key}'{args})", names: "%{name}%" }, syntax: { argument: "%{name}%" } };
  const found = await extract(file, code, names);
  expect(found.code).toContain(expected);
  expect(Object.values(found.texts)).toEqual(["Boat %name% is late"]);
});

describe("the scripts of components", () => {
  const setup = { setup: "const { t } = useTexts();", import: 'import { useTexts } from "{to:app/texts}";' };
  const plain = { import: 'import { t } from "{to:app/texts}";' };

  test.each<[string, string, Record<string, string>, string[]]>([
    [
      "app/pages/Cabin.vue",
      `<script setup lang="ts">
import { ref } from 'vue'

const label = ref('Book your cabin')
function warn(name: string) {
  alert(\`Hello \${name}, your boat is late\`)
}
</script>

<template>
  <h1>Our best boats</h1>
</template>
`,
      setup,
      [
        "import { ref } from 'vue'\nimport { useTexts } from '../texts'\nconst { t } = useTexts()\n\nconst label",
        "ref(t('cabin.bookCabin'))",
        "alert(t('cabin.helloBoatLate', { name }))",
        '<h1>{{ t("cabin.bestBoats") }}</h1>',
      ],
    ],
    [
      "app/pages/Cabin.svelte",
      '<script>\n\tlet label = "Book your cabin";\n</script>\n\n<h1>{label}</h1>\n',
      setup,
      [
        '<script>\n\timport { useTexts } from "../texts";\n\tconst { t } = useTexts();\n\tlet label = t("cabin.bookCabin");\n',
      ],
    ],
    [
      "app/pages/Cabin.svelte",
      "<script>\n  export let name;\n</script>\n\n<h1>Our best boats</h1>\n",
      setup,
      ["  const { t } = useTexts();\n  export let name;", '<h1>{t("cabin.bestBoats")}</h1>'],
    ],
    [
      "app/pages/Cabin.vue",
      "<script>\nexport default { methods: { t(key) { return say(key); } } };\n</script>\n\n<template><h1>Our best boats</h1></template>\n",
      setup,
      ['<h1>{{ t("cabin.bestBoats") }}</h1>'],
    ],
    [
      "app/pages/Cabin.svelte",
      "<script>\n  export let name;\n</script>\n\n<h1>Our best boats</h1>\n",
      { call: '$say("{key}"{args})', import: 'import { say } from "{to:app/texts}";' },
      ['<script>\n  import { say } from "../texts";\n', '<h1>{$say("cabin.bestBoats")}</h1>'],
    ],
    [
      "app/pages/Cabin.vue",
      '<script>export default { data() { return { label: "Book your cabin" } } }</script>\n',
      plain,
      ['<script>\nimport { t } from "../texts";\nexport default {', 'label: t("cabin.bookCabin")'],
    ],
  ])("%s: %#", async (file, code, emit, expected) => {
    const found = await extract(file, code, { emit });
    for (const part of expected) expect(found.code).toContain(part);
    expect(found.notes).toEqual([]);
    const again = await extract(file, found.code, { emit });
    expect(again.plan.extracted).toEqual([]);
    expect(again.code).toBe(found.code);
  });

  test.each<[string, string, Record<string, string>, RegExp]>([
    [
      "app/a.vue",
      '<script>\nexport default { title: "The cabin page" }\n</script>\n',
      plain,
      /when the file is loaded/,
    ],
    [
      "app/a.svelte",
      '<script module>\n  export const title = name("The cabin page");\n</script>\n',
      plain,
      /when the file is loaded/,
    ],
    [
      "app/a.vue",
      "<script setup>\nconst props = withDefaults(defineProps(), { label: name('The cabin page') });\n</script>\n",
      setup,
      /when the file is loaded/,
    ],
    [
      "app/a.vue",
      '<script setup>\nconst { label = "The cabin page" } = defineProps(["label"]);\n</script>\n',
      setup,
      /when the file is loaded/,
    ],
    [
      "app/a.vue",
      '<template><p>Our best boats</p></template>\n<script>\nexport default { data: () => ({ t: "" }) };\n</script>\n',
      setup,
      /not known in this template/,
    ],
    ["app/a.vue", "<template><p>Our best boats</p></template>\n", plain, /not known in this template/],
    [
      "app/a.vue",
      '<script setup>\nconst t = 3\nconst label = ref("Book your cabin")\n</script>\n',
      setup,
      /means something else/,
    ],
  ])("%s stays: %#", async (file, code, emit, reason) => {
    const found = await extract(file, code, { emit });
    expect(found.code).toBe(code);
    expect(found.notes.join("\n")).toMatch(reason);
  });
});

describe("what stays, with the reason", () => {
  test.each<[string, string, RegExp]>([
    [
      "app/a.js",
      'const stateOf = (b) => (b.full ? "Fully booked" : b.state);\nexport const isFull = (b) => stateOf(b) === "Fully booked";\n',
      /line 2 compares with the same text/,
    ],
    [
      "app/a.rb",
      "def a\n  @subject = \"Re: #{@subject} again\" unless @subject.start_with?('Re:')\nend\n",
      /line 2 compares with the same text/,
    ],
    [
      "app/a.mjs",
      'export const a = (x) => {\n  const title = `Re: ${x} once more`;\n  if (!x.startsWith("Re:")) showMessage(title);\n};\n',
      /line 3 compares with the same text/,
    ],
    [
      "app/a.ejs",
      `<a href="/boats" onclick="return confirm('Delete this boat?')"><%= name %></a>\n`,
      /no lookups are known/,
    ],
    [
      "app/a.go",
      'package a\n\nfunc f(e error) error {\n\treturn fmt.Errorf("The boat is late: %w", e)\n}\n',
      /formats a value in place/,
    ],
    ["app/a.jsp", "<p>${late ? 'The boat is late' : x}</p>\n", /in an expression of the page/],
    ["app/a.html", "<h1>Our best boats</h1>", /does not say how/],
    ["app/A.java", 'class A { static final String T = "Our best boats"; }', /when the file is loaded/],
    ["app/a.py", 'def f(text="Our best boats are here"):\n    pass\n', /when the file is loaded/],
    ["app/a.py", 'def f(p):\n    flash(f"It costs {p:.2f} now")\n', /formatted in place/],
    ["app/a.py", 'def f(p):\n    flash("It costs %.2f now" % p)\n', /formats a value in place/],
    ["app/a.py", 'def f(all):\n    flash("It is %s o’clock at the %s" % all)\n', /list or map/],
    ["app/a.vue", "<template><p>{{ price | money }} per night</p></template>", /cannot be passed/],
    ["app/a.jsp", "<p>Hello ${user.name}, welcome</p>", /cannot be passed/],
    ["app/a.phtml", "<p>Fish &amp; chips on board</p>", /must be escaped/],
    ["app/a.html.erb", '<p>Read <a href="/t">the terms</a> first</p>', /contains elements/],
    ["app/a.js", 'f(() => alert(`You have ${pluralize("boat", n)} left`));\n', /chooses a word/],
    ["app/a.html.erb", '<p>You have <%= pluralize(n, "person") %> left</p>', /chooses a word/],
    [
      "app/a.rb",
      "def f\n  show(<<~'TEXT')\n    Our best boats are here\n  TEXT\nend\n",
      /lookup cannot replace/,
    ],
    [
      "app/a.php",
      "<?php function f() {\nreturn <<<HTML\n<p>Our best boats are here</p>\nHTML;\n}\n",
      /in a string of several lines/,
    ],
    ["app/a.html", '<script>document.title = "Book a cabin";</script>', /script inside markup/],
    [
      "app/a.vue",
      '<script>export default { data() { return { label: "Book a cabin" } } }</script>',
      /"t" is not imported here/,
    ],
  ])("%s: %s", async (file, code, reason) => {
    const found = await extract(file, code);
    expect(found.code).toBe(code);
    expect(found.notes.join("\n")).toMatch(reason);
  });
});

/** Extracts a statement inside of a function, and gives back that statement. */
async function statement(file: string, code: string) {
  const wraps: Readonly<Record<string, readonly [string, string]>> = {
    php: ["<?php\nfunction f($x) {\n", "\n}\n"],
    rb: ["def f(x)\n", "\nend\n"],
    py: ["def f(x):\n    ", "\n"],
    java: ["class A { void f(String x) {\n", "\n} }\n"],
    js: ["export function f(x) {\n", "\n}\n"],
    cs: ["class A { void F(string x) {\n", "\n} }\n"],
    go: ["package a\nfunc f(x string) {\n", "\n}\n"],
  };
  const [before = "", after = ""] = wraps[file.slice(file.lastIndexOf(".") + 1)] ?? [];
  const emit = { call: 't("{key}"{args})' };
  const found = await extract(file, before + code + after, { emit });
  return { ...found, code: found.code.slice(before.length, found.code.length - after.length) };
}

describe("of a string only the text is moved", () => {
  test.each<[string, string, string]>([
    // Markup stays where it is, whatever quotes and joins the string has.
    ["a.php", `echo "<td>Our boats</td>";`, `echo "<td>" . t("a.ourBoats") . "</td>";`],
    [
      "a.php",
      `echo '<td title="Our boats">' . $x . ' berths are left</td>';`,
      `echo '<td title="' . t("a.ourBoats") . '">' . t("a.berthsLeftX", ['x' => $x]) . '</td>';`,
    ],
    [
      "a.php",
      `$s .= "<a href=\\"b.php?id=$x\\">Delete this boat</a>";`,
      `$s .= "<a href=\\"b.php?id=$x\\">" . t("a.deleteBoat") . "</a>";`,
    ],
    [
      "a.js",
      "box.innerHTML = `<li>Cabin ${x} is free</li>`;",
      'box.innerHTML = `<li>${t("a.cabinFreeX", { x })}</li>`;',
    ],
    [
      "a.js",
      `box.append('<input placeholder="Enter the name" value="' + x + '">');`,
      `box.append('<input placeholder="' + t("a.enterName") + '" value="' + x + '">');`,
    ],
    ["a.rb", `show("<p>Boat #{x} is full</p>")`, `show("<p>#{t("a.boatFullX", x: x)}</p>")`],
    ["a.java", `show("<p>All boats left</p>");`, `show("<p>" + t("a.allBoatsLeft") + "</p>");`],
    // Blanks and line ends around it stay too.
    [
      "a.php",
      `print 'All boats left' . PHP_EOL . PHP_EOL;`,
      `print t("a.allBoatsLeft") . PHP_EOL . PHP_EOL;`,
    ],
    ["a.php", `print "All boats left\\n\\n";`, `print t("a.allBoatsLeft") . "\\n\\n";`],
    // So do values that never are words, whatever they are called.
    [
      "a.php",
      `$li = $page['x'] ? '<li>' : PHP_EOL . ' - '; echo $li . 'all boats left' . $li;`,
      `$li = $page['x'] ? '<li>' : PHP_EOL . ' - '; echo $li . t("a.allBoatsLeft") . $li;`,
    ],
    [
      "a.js",
      `const br = "<br>"; alert("All boats left" + br);`,
      `const br = "<br>"; alert(t("a.allBoatsLeft") + br);`,
    ],
    [
      "a.php",
      `$li = $page ? '<li>' : 'Nr. '; echo $li . 'all boats left';`,
      `$li = $page ? '<li>' : t("a.nr") . ' '; echo t("a.allBoatsLeft", ['li' => $li]);`,
    ],
    // An apostrophe of a translation ends no value.
    [
      "a.php",
      `echo "<input value='Moor it'>";`,
      `echo "<input value='" . htmlspecialchars(t("a.moorIt"), ENT_QUOTES) . "'>";`,
    ],
    // A command is no markup.
    ["a.php", `echo 'Usage: moor <template user> <new user>';`, `echo t("a.usageMoorTemplateUser");`],
    ["a.py", `print("\\nAll boats left: " + x + "\\n")`, `print("\\n" + t("a.allBoatsLeft", x=x) + "\\n")`],
    ["a.js", `alert(" All boats left ");`, `alert(" " + t("a.allBoatsLeft") + " ");`],
    ["a.cs", `Show($"All boats left {x}\\n");`, `Show(t("a.allBoatsLeft", new { x }) + $"\\n");`],
    // What is appended to is no part of the text.
    ["a.rb", `errors << "Unknown boat: #{x}"`, `errors << t("a.unknownBoatX", x: x)`],
    ["a.rb", `show("Boats: " << x)`, `show(t("a.boatsX", x: x))`],
  ])("%s: %s", async (file, code, expected) => {
    expect((await statement(`app/${file}`, code)).code).toBe(expected);
  });

  test.each<[string, string, RegExp]>([
    ["a.php", `echo '<p>Click <b>here</b> to go</p>';`, /string of markup/],
    ["a.php", `echo '<p>Terms &amp; more things</p>';`, /must be escaped/],
    ["a.php", `echo '<b title=Moor>' . $x . '</b>';`, /with an apostrophe or a blank/],
    ["a.js", `box.innerHTML = "<b title='All boats left'></b>";`, /with an apostrophe or a blank/],
    ["a.py", `show("<b title='All boats left'></b>")`, /with an apostrophe or a blank/],
    ["a.php", `echo sprintf('<p>The boat %s left</p>', $x);`, /string of markup/],
    ["a.rb", `show("<p>Boat #{x} is full</p>".html_safe)`, /string of markup/],
  ])("or none of it: %s: %s", async (file, code, reason) => {
    const found = await statement(`app/${file}`, code);
    expect(found.code).toBe(code);
    expect(found.notes.join()).toMatch(reason);
  });

  test.each<[string, string]>([
    ["a.py", `pattern = re.compile(r"^(?P<time>All of it)(?P<unit>h|d)$")`],
    ["a.js", `db.query("SELECT <b> FROM boats WHERE left = 1");`],
  ])("what only looks like markup is none: %s: %s", async (file, code) => {
    expect((await statement(`app/${file}`, code)).code).toBe(code);
  });

  test.each<[string, string, string]>([
    ["a.php", `show('It\\'s in C:\\new here');`, "It's in C:\\new here"],
    ["a.php", `show("It\\u{2019}s a\\tboat \\d here");`, "It’s a\tboat \\d here"],
    ["a.rb", `show('It\\'s a boat \\n here')`, "It's a boat \\n here"],
    ["a.py", `show(r"It is a boat \\n here")`, "It is a boat \\n here"],
    ["a.py", `show("It is a boat \\d here\\x21")`, "It is a boat \\d here!"],
    ["a.go", "show(`It is a boat \\n here`)", "It is a boat \\n here"],
    ["a.cs", `Show(@"It is ""a boat"" in C:\\new");`, 'It is "a boat" in C:\\new'],
    ["a.java", `show("It is a boat\\041 \\"here\\"");`, 'It is a boat! "here"'],
  ])("a string says what its language makes of it: %s: %s", async (file, code, text) => {
    const { texts } = await statement(`app/${file}`, code);
    expect(Object.values(texts)).toEqual([text]);
  });
});

describe("what a constant or a class body holds stays", () => {
  test.each<[string, string, RegExp | undefined]>([
    ["app/a.php", `<?php\nfunction f($title = "All our boats") {}\n`, /only a constant/],
    ["app/a.php", `<?php\nclass A { private $title = "All our boats"; }\n`, /only a constant/],
    ["app/a.php", `<?php\nfunction f() { static $titles = ["All our boats"]; }\n`, /only a constant/],
    ["app/a.php", `<p>Hi</p><?php function f($title = "All our boats") {} ?>`, /only a constant/],
    // PHP files run for each request.
    ["app/a.php", `<?php\n$title = "All our boats";\n`, undefined],
    ["app/a.py", `class A:\n    title = "All our boats"\n`, /loaded/],
    ["app/a.py", `@show("All our boats")\ndef f():\n    pass\n`, /loaded/],
    ["app/a.py", `def f(title="All our boats"):\n    pass\n`, /loaded/],
    ["app/a.py", `if x:\n    title = "All our boats"\n`, /loaded/],
    ["app/A.java", `class A { static final String TITLE = "All our boats"; }`, /loaded/],
    ["app/A.java", `class A { String title = "All our boats"; }`, undefined],
    ["app/a.cs", `class A { static string Title = "All our boats"; }`, /loaded/],
    ["app/a.cs", `class A { string Title => "All our boats"; }`, undefined],
    ["app/a.rb", `class A\n  TITLE = "All our boats"\nend\n`, /loaded/],
    ["app/a.go", `package a\nvar Title = "All our boats"\n`, /loaded/],
  ])("%s: %s", async (file, code, reason) => {
    const found = await extract(file, code, { emit: { call: 't("{key}"{args})' } });
    if (reason === undefined) {
      expect(Object.values(found.texts)).toContain("All our boats");
      return;
    }
    expect(Object.values(found.texts)).not.toContain("All our boats");
    expect(found.notes.join()).toMatch(reason);
  });
});

test("elements that code puts at a text's edges stay outside of it", async () => {
  const rows: readonly (readonly [string, string])[] = [
    [
      "<label>Name: <%= text_field_tag 'name' %></label>",
      `<label><%= t("a.name") %> <%= text_field_tag 'name' %></label>`,
    ],
    ["<p><%= icon(:boat) %> All boats left</p>", `<p><%= icon(:boat) %> <%= t("a.allBoatsLeft") %></p>`],
    ["<p>Hello <%= name %> and all</p>", `<p><%= t("a.helloAllName", name: name) %></p>`],
    [
      "<p>It is <%= number_to_currency board.fee, unit if open %> now</p>",
      `<p><%= t("a.nowUnit", unit: (number_to_currency board.fee, unit if open)) %></p>`,
    ],
    [
      "<p>Unsure? <%= button_to 'Leave', path %></p>",
      `<p><%= t("a.unsure") %> <%= button_to t('a.leave'), path %></p>`,
    ],
  ];
  for (const [code, expected] of rows) expect((await extract("app/a.erb", code)).code).toBe(expected);
});

test.each<[string, string]>([
  ["a.erb", "<p>Go to <%= link_to board.name, path %> now</p>"],
  ["a.erb", "<p>The <%= raw board.kind %> is late</p>"],
  ["a.erb", "<p>The <%== board.kind %> is late</p>"],
  ["a.erb", "<p>See <%= board.note.html_safe %> today</p>"],
  ["a.erb", "<p>See <%= board_card board %> today</p>"],
  ["a.erb", "<p>Fill in <%= f.select :kind, kinds %> today</p>"],
  ["a.ejs", "<p>The <%- kind %> is late</p>"],
  ["a.svelte", "<p>The {@html kind} is late</p>"],
  ["a.blade.php", "@if (x) <p>The {!! $kind !!} is late</p> @endif"],
])(
  "%s: a value that may be markup is given to no lookup, which would show its tags: %s",
  async (file, code) => {
    const found = await extract(`app/${file}`, code);
    expect(found.code).toBe(code);
  },
);

test("a comment in the braces of a component opens no string and is no text", async () => {
  const code =
    "<script>let x = 1;</script>\n<li on:keydown={(event) => {\n  // Space's own action; an element like this <li>; Enter has none here\n  go(event);\n}} on:click={() => {}}>All boats left</li>\n";
  expect((await extract("app/a.svelte", code)).code).toBe(
    code.replace("All boats left", '{t("a.allBoatsLeft")}'),
  );
});

test("what other lookups look up is looked up already", async () => {
  for (const call of ["nls.localizeBy", "i18n.say", "localizeByDefault"]) {
    const code = `export function f(n) { return ${call}("{0} boats left", n); }\n`;
    expect((await extract("app/a.ts", code, { emit: { call: 't("{key}"{args})' } })).code).toBe(code);
  }
});

test("a filter or a tag of a template language takes no calls", async () => {
  const emit = { call: 't("{key}"{args})', content: '{{ t("{key}"{args}) }}' };
  const code =
    '<p>{{ boat.name|default:"No name yet" }}</p>{% include "b.html" with title="All our boats" %}';
  expect((await extract("app/a.jinja", code, { emit })).code).toBe(code);
  expect((await extract("app/a.jinja", '<p>{{ show("No name yet") }}</p>', { emit })).code).toBe(
    '<p>{{ show(t("a.noNameYet")) }}</p>',
  );
});

test("values are passed behind the key, or where the template has a place of their own for them", async () => {
  const { code } = await extract(
    "app/a.ts",
    "export const f = (who: string) => show(`Moored by ${who}`) + show('All is quiet');\n",
    {
      emit: { call: 'say({ id: "{key}", with: {values} })', import: 'import { say } from "./say.js"' },
      lookups: [{ descriptor: "say", key: "id" }],
    },
  );
  expect(code).toContain("say({ id: 'a.mooredWho', with: { who } })");
  expect(code).toContain("say({ id: 'a.allQuiet', with: {} })");
});

test("one text has one key where keys say nothing of their places", async () => {
  const code = 'const a = () => show("Back to the quay");\nconst b = () => alert("Back to the quay");\n';
  const { texts } = await extract("app/a.ts", code, {
    emit: { import: 'import { t } from "./t.js"' },
    naming: { pattern: "{slug}", shape: "flat" },
  });
  expect(texts).toEqual({ backQuay: "Back to the quay" });
});

describe("marks of two languages in one template", () => {
  const page =
    "<% if (a) { %><p>{{ name }}</p><b>{{ t('x.y') }}</b><p>Boats leave at {{ time }}</p><p>Quiet here</p><% } %>";

  test("what another language shows is a value that no lookup here can take, and no text", async () => {
    const { code, texts, notes } = await extract("app/a.ejs", `${page}<%= b %>`);
    expect(texts).toEqual({ "a.quietHere": "Quiet here" });
    expect(code).toBe(`${page.replace("Quiet here", '<%= t("a.quietHere") %>')}<%= b %>`);
    expect(notes.join()).toContain('the value of "{{ time }}" cannot be passed to a lookup as it is');
  });

  test("where only the other language shows values, nothing is written in this one's marks", async () => {
    const { code, notes } = await extract("app/a.ejs", page);
    expect(code).toBe(page);
    expect(notes.join()).toContain("the book does not say how a template of this kind looks up a key");
  });
});

describe("attributes that give an element its text", () => {
  const book = {
    lookups: [{ attribute: "data-text" }],
    emit: { endings: { ".html": { content: 'data-text="{key}"' } } },
  };
  test.each<[string, string, string]>([
    [
      "a whole element",
      '<p class="a">Boats leave</p>',
      '<p class="a" data-text="a.boatsLeave">Boats leave</p>',
    ],
    [
      "blanks around the text",
      "<b>\n  Boats leave\n</b>",
      '<b data-text="a.boatsLeave">\n  Boats leave\n</b>',
    ],
    [
      "other content beside it",
      "<p>Boats leave <i class='x'></i><input></p>",
      "<p>Boats leave <i class='x'></i><input></p>",
    ],
    [
      "an element without content before it",
      '<div><input id="a">Boats leave</div>',
      '<div><input id="a">Boats leave</div>',
    ],
    ["an element that ends elsewhere", "<div><p>Boats leave</div>", "<div><p>Boats leave</div>"],
    ["an empty attribute", '<p data-text="">Boats leave</p>', '<p data-text="">Boats leave</p>'],
    ["an attribute", '<img alt="Boats leave">', '<img alt="Boats leave">'],
    ["an element that has it", '<p data-text="a.b">Boats leave</p>', '<p data-text="a.b">Boats leave</p>'],
    [
      "an attribute that a key fills",
      '<img data-text="a.b.alt" alt="Boats leave">',
      '<img data-text="a.b.alt" alt="Boats leave">',
    ],
  ])("%s", async (_, before, after) => {
    expect((await extract("app/a.html", before, book)).code).toBe(after);
  });
});

test("an object of pages is not taken for known in a program of a server", async () => {
  const book = { lookups: [{ call: "Page.text" }], emit: { call: 'Page.text("{key}"{args})' } };
  const code = 'const fs = require("fs");\nexports.show = () => alert("The ferry has left");\n';
  const { code: same, notes } = await extract("app/a.js", code, book);
  expect(same).toBe(code);
  expect(notes.join()).toContain('"Page" is not imported here');
  expect((await extract("app/a.js", code.replace('const fs = require("fs");\n', ""), book)).code).toContain(
    'alert(Page.text("a.ferryHasLeft"))',
  );
});

test.each([
  [
    "app/A.java",
    'class A { void f() { show("The ferry has left"); } }',
    "texts.get",
    '"texts" is not known in this file',
  ],
  [
    "app/a.ts",
    'export const f = () => alert("The ferry has left");\n',
    "lookup(locale, ",
    '"locale" is not known here',
  ],
])("%s: a name that a lookup needs has to be there", async (file, code, start, reason) => {
  const call = start.endsWith(", ") ? `${start}"{key}"{args})` : `${start}("{key}"{args})`;
  const name = /^[\w.]+/.exec(call)?.[0] ?? "";
  const { code: same, notes } = await extract(file, code, {
    lookups: [{ call: name, ...(start.endsWith(", ") && { key: 1 }) }],
    emit: { call },
  });
  expect(same).toBe(code);
  expect(notes.join()).toContain(reason);
});

test("texts under a lookup that the file makes itself get keys of its group", async () => {
  const code =
    'import { useTexts } from "./t.js";\nconst early = "The boat is here";\nexport const A = () => {\n  const { say } = useTexts("deck");\n  return <p title="To the quay">{say("x")} and more</p>;\n};\nexport const B = () => <p>All is quiet</p>;\n';
  const { code: after, texts } = await extract("app/a.tsx", code, {
    lookups: [{ maker: "useTexts", gives: "say", prefix: 0 }],
    emit: { call: 'say("{key}"{args})' },
  });
  expect(after).toContain('title={say("toTheQuay")}');
  expect(texts["deck.toTheQuay"]).toBe("To the quay");
  expect(after).toContain("export const B = () => <p>All is quiet</p>;");
  expect(after).toContain('const early = "The boat is here"');
});

describe("marks of a template are written where a program reads them", () => {
  const book = {
    lookups: [{ filter: "text" }],
    emit: { content: "{{ '{key}' | text }}", attribute: "{{ '{key}' | text }}" },
  };
  const page = (body: string) => `<!doctype html>\n<html><body>${body}</body></html>\n`;

  test.each([
    ["a part of a page", "<p>Our best boats</p>", true],
    ["a page with marks", page("<p>{{ boat }}</p><p>Our best boats</p>{% if x %}{% endif %}"), true],
    ["a page with a value", page("<p>{{ boat }}</p><p>Our best boats</p>"), true],
    ["a whole page without any", page("<p>Our best boats</p>"), false],
  ])("%s", async (_name, code, isMoved) => {
    const found = await extract("app/a.html", code, book);
    expect(found.code.includes("| text }}")).toBe(isMoved);
    expect(found.notes.join().includes("a whole page without marks of a template")).toBe(!isMoved);
  });

  test("a page that the book calls a template is one", async () => {
    const found = await extract("app/a.html", page("<p>Our best boats</p>"), {
      ...book,
      dialects: { "app/**": "braces" },
    });
    expect(found.code).toContain("| text }}");
  });

  test("a script is left alone where the lookups of the book are none of scripts", async () => {
    const code = 'function f() {\n  alert("Our best boats");\n}\n';
    const found = await extract("app/a.js", code, book);
    expect(found.code).toBe(code);
    expect(found.notes.join()).toContain("the book does not say how a script looks up a key");
  });
});

describe("lookups of Python", () => {
  const texts =
    'def f(x):\n    flash("The boat leaves now")\n    return {"note": "The boat is full today"}\n';
  const bare = async (code: string, emit: object) => {
    const project = memoryProject({ code: ["app/**"], emit }, { "t/en.json": "{}", "app/a.py": code });
    const plan = await extractProject(project, {}, { least: "unclear" });
    return plan.changes.find(({ file }) => file === "app/a.py")?.after;
  };

  test("are written where the file knows them alone", async () => {
    expect(await bare(texts, {})).toBeUndefined();
    expect(
      await bare(
        `from words import other\n\n\n${texts}\n\ndef g(all):\n    for t in all:\n        t = t + 1\n`,
        {},
      ),
    ).toBeUndefined();
    expect(await bare(`from words import (\n    a,\n    t,\n)\n\n\n${texts}`, {})).toContain("flash(t(");
    expect(await bare(`from words import t as other\n\n\n${texts}`, {})).toBeUndefined();
    expect(await bare(`def t(key):\n    return key\n\n\n${texts}`, {})).toContain("flash(t(");
    expect(await bare(`from words import t\n\n\n${texts}`, {})).toContain('flash(t("a.boatLeavesNow"))');
    expect(await bare(texts, { endings: { ".py": { import: "from words import t" } } })).toContain(
      "from words import t\n",
    );
  });

  test("that work while a file is loaded are made strings where a program counts on one", async () => {
    const lazy = { endings: { ".py": { import: "from words import lazy as t", atLoad: true } } };
    const code = `TITLE = "All boats of today"\nNAMES = "<b>" + "Late boats" + "</b>"\n\n\n${texts}`;
    const after = (await bare(code, lazy)) ?? "";
    expect(after).toContain('TITLE = t("a.allBoatsToday")\n');
    expect(after).toContain('flash(t("a.boatLeavesNow"))');
    expect(after).toContain('{"note": str(t("a.boatFullToday"))}');
    expect(after).toContain('NAMES = "<b>" + "Late boats" + "</b>"');
  });
});

test("what is evaluated while a file is loaded is looked up by the call for that, each with its line", async () => {
  const early = { call: 'late("{key}")', import: "from words import late" };
  const project = memoryProject(
    {
      code: ["app/**"],
      lookups: [{ call: "t" }, { call: "late" }],
      emit: {
        endings: { ".py": { call: 't("{key}")', import: "from words import t", atLoad: early } },
      },
    },
    {
      "t/en.json": "{}",
      "app/a.py":
        'import os\n\nTITLE = "All boats of today"\n\n\ndef f():\n    flash("The boat leaves now")\n',
      "app/b.py": 'def f():\n    flash("The boat leaves now")\n',
    },
  );
  const { changes } = await extractProject(project, {}, { least: "unclear" });
  const after = new Map(changes.map((change) => [change.file, change.after]));
  expect(after.get("app/a.py")).toBe(
    'import os\nfrom words import late\nfrom words import t\n\nTITLE = late("a.allBoatsToday")\n\n\ndef f():\n    flash(t("a.boatLeavesNow"))\n',
  );
  expect(after.get("app/b.py")).toContain("from words import t\n");
  expect(after.get("app/b.py")).not.toContain("late");
});

test("tags of templates take values behind the key, and their line stands alone", async () => {
  const project = memoryProject(
    {
      code: ["app/**"],
      lookups: [{ call: "words" }],
      emit: {
        endings: {
          ".html": {
            content: '{% words "{key}"{args} %}',
            attribute: '{% words "{key}"{args} %}',
            import: "{% load words %}",
          },
        },
      },
    },
    {
      "t/en.json": "{}",
      "app/a.html": '{% load static %}<p title="Remove {{ boat.name }}">Page {{ n }} of {{ all }}</p>\n',
    },
  );
  const { changes } = await extractProject(project, {}, { least: "unclear" });
  expect(changes.find(({ file }) => file === "app/a.html")?.after).toBe(
    '{% load words %}\n{% load static %}<p title="{% words \'a.removeName\' name=boat.name %}">{% words "a.pageNAll" n=n all=all %}</p>\n',
  );
});

describe("a value in a string of PHP is what it is outside of it", () => {
  test.each([
    ["${hours}", "$hours"],
    ["${row['a']}", "$row['a']"],
    ["${row[0][1]}", "$row[0][1]"],
    ["$row[name]", "$row['name']"],
    ["$row[0]", "$row[0]"],
    ["$row[$at]", "$row[$at]"],
    ["{$row['a']}", "$row['a']"],
    ["{$row[NAME]}", "$row[NAME]"],
    ["$boat->name", "$boat->name"],
    ["${$name}", "${$name}"],
  ])("%s: %s", async (written, value) => {
    const { code } = await extract("app/a.php", `<?php show("The boat of ${written} is late");\n`);
    expect(code).toMatch(/=> [^\n]+\]\)\);\n$/);
    expect(/=> ([^\n]+)\]\)\);\n$/.exec(code)?.[1]).toBe(value);
  });
});

describe("a text that gives its key no words", () => {
  test.each([
    ["<p>すべての船</p>", "textHASH"],
    ["<button>すべての船</button>", "buttonHASH"],
    ['<b title="すべての船">1</b>', "titleHASH"],
    ["<ui-button>すべての船</ui-button>", "buttonHASH"],
    ["<p>APP 船の一覧</p>", "textHASH"],
    ["<p>All boats 船</p>", "allBoats"],
  ])("is called by what it is: %s", async (page, name) => {
    const book = {
      name: "app",
      code: ["app/**"],
      files: "t/{locale}.json",
      emit: { call: 't("{key}"{args})' },
    };
    const opened = openProject(
      memoryFiles({
        "fond.config.json": JSON.stringify({ source: "ja", targets: [], books: [book] }),
        "t/ja.json": "{}",
        "app/a.vue": `<template><div>${page}</div></template>\n`,
      }),
    );
    if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
    const { extracted } = await extractProject(opened.project);
    expect(extracted[0]?.key.replace(/[A-Fa-f0-9]{6}$/, "HASH")).toBe(`a.${name}`);
  });
});

describe("words of a file's name in capitals", () => {
  test.each([
    ["app/BoatSQLPane.php", "boatSqlPane"],
    ["app/GraphEdXMenu.php", "graphEdXMenu"],
    ["app/AllURLs.php", "allUrls"],
  ])("%s", async (file, group) => {
    const { texts } = await extract(file, '<?php show("Our best boats are here");\n');
    expect(Object.keys(texts)[0]?.split(".")[0]).toBe(group);
  });
});

describe("a field of a pattern of Python may pick a part of its value", () => {
  test.each([
    ['"Sold {0.boats} boats".format(day)', "boats=day.boats", "Sold {boats} boats"],
    ['"Sold {0[boats]} boats".format(day)', 'boats=day["boats"]', "Sold {boats} boats"],
    ['"Sold {0[2]} boats".format(day)', "day=day[2]", "Sold {day} boats"],
    ['"Sold {d.boats} boats".format(d=day.all)', "boats=day.all.boats", "Sold {boats} boats"],
    ['"Sold {d.a[b].c} boats".format(d=f(x))', 'c=f(x).a["b"].c', "Sold {c} boats"],
    ['"Sold {.boats} boats".format(day)', "boats=day.boats", "Sold {boats} boats"],
    ['"Sold {0.boats} boats".format(a or b)', "boats=(a or b).boats", "Sold {boats} boats"],
    ['"Sold {0.a} and {0.b} boats".format(day)', "a=day.a, b=day.b", "Sold {a} and {b} boats"],
  ])("%s", async (code, values, message) => {
    const found = await extract("app/a.py", `from words import t\n\n\ndef f(day):\n    flash(${code})\n`);
    expect(Object.values(found.texts)).toEqual([message]);
    expect(/flash\(t\("[\w.]+", (.*)\)\)\n$/.exec(found.code)?.[1]).toBe(values);
  });

  test.each([
    ['"Sold {0.boats:>5} boats".format(day)', "formats a value in place"],
    ['"Sold {0.boats} boats".format(*days)', "not visible here"],
  ])("%s stays", async (code, reason) => {
    const found = await extract("app/a.py", `from words import t\n\n\ndef f(day):\n    flash(${code})\n`);
    expect(found.texts).toEqual({});
    expect(found.notes.join()).toContain(reason);
  });
});

describe("the places of values in a pattern are those of its language", () => {
  test.each([
    [
      "a.rb",
      'def f\n  show(format("Sold %<boats>d boats", boats: n))\nend\n',
      "boats: n",
      "Sold {boats} boats",
    ],
    ["a.rb", 'def f\n  show("Sold %{a} boats" % { a: n })\nend\n', "a: n", "Sold {a} boats"],
    ["a.rb", 'def f\n  show("Sold {a} %s boats" % n)\nend\n', "n: n", "Sold '{'a'}' {n} boats"],
    [
      "a.go",
      'package a\nfunc f() { show(fmt.Sprintf("Sold %[2]d boats by %[1]s", x, n)) }\n',
      '"n": n, "x": x',
      "Sold {n} boats by {x}",
    ],
    [
      "a.php",
      "<?php show(sprintf('Sold %2$s boats by %1$s', $x, $n));\n",
      "'n' => $n, 'x' => $x",
      "Sold {n} boats by {x}",
    ],
    ["a.php", "<?php show(sprintf('Sold {a} %s boats', $n));\n", "'n' => $n", "Sold '{'a'}' {n} boats"],
    [
      "A.java",
      "class A { void f() { show(MessageFormat.format(\"It''s boat {1} of {0}\", n, x)); } }\n",
      'put("x", x); put("n", n);',
      "It's boat {x} of {n}",
    ],
    [
      "A.java",
      'class A { void f() { show(String.format("Sold {a} %2$s of %1$s boats", n, x)); } }\n',
      'put("x", x); put("n", n);',
      "Sold '{'a'}' {x} of {n} boats",
    ],
    [
      "A.cs",
      'class A { void F() { Show(string.Format("Sold {{a}} {1} of {0} boats", n, x)); } }\n',
      "x, n",
      "Sold '{'a'}' {x} of {n} boats",
    ],
    [
      "a.py",
      'from words import t\n\n\ndef f():\n    show("Sold {{a}} {n} %s boats".format(n=n))\n',
      "n=n",
      "Sold '{'a'}' {n} %s boats",
    ],
  ])("app/%s: %s", async (file, code, values, message) => {
    const found = await extract(`app/${file}`, code);
    expect(Object.values(found.texts)).toEqual([message]);
    expect(found.code).toContain(values);
  });

  test.each([
    ["A.cs", 'class A { void F() { Show(string.Format("Sold {0,10} boats", n)); } }\n'],
    ["A.cs", 'class A { void F() { Show(string.Format("Sold {0:N2} boats", n)); } }\n'],
    ["A.java", 'class A { void f() { show(MessageFormat.format("Sold {0,number,#} boats", n)); } }\n'],
    ["A.java", 'class A { void f() { show(String.format("Sold on %tD by boat", n)); } }\n'],
    ["a.go", 'package a\nfunc f() { show(fmt.Sprintf("The boat %q is late", x)) }\n'],
    ["a.go", 'package a\nfunc f() { show(fmt.Sprintf("Sold %v boats", all...)) }\n'],
    ["a.php", "<?php show(sprintf('Sold %05d boats', $n));\n"],
    ["a.rb", 'def f\n  show(format("Sold %-10<boats>s boats", boats: n))\nend\n'],
    ["a.py", 'from words import t\n\n\ndef f():\n    show("Sold {n!r} boats".format(n=n))\n'],
  ])("app/%s stays, whose values are written in another way: %s", async (file, code) => {
    const found = await extract(`app/${file}`, code);
    expect(found.texts).toEqual({});
    expect(found.code).toBe(code);
  });
});

test.each([
  'b"<h1>Boats are late</h1>"',
  'b"Boats are late"',
  'rb"Boats are late"',
  '(b"Boats " + b"are late")',
])("a string of bytes gets no lookup: %s", async (code) => {
  const found = await extract("app/a.py", `from words import t\n\n\ndef f():\n    flash(${code})\n`);
  expect(found.texts).toEqual({});
});

describe("what goes on with a sentence stays", () => {
  test.each([
    [
      "app/a.py",
      'from words import t\n\n\ndef f(kind):\n    note = show()\n    note += f" by the {kind}"\n    flash(note)\n',
      false,
    ],
    [
      "app/a.php",
      '<?php function f($kind) { $message .= " by the $kind of boats"; echo $message; }\n',
      false,
    ],
    ["app/a.php", '<?php function f($kind) { $message .= " By the $kind of boats"; echo $message; }\n', true],
    ["app/a.php", '<?php function f($kind) { $message = " by the $kind of boats"; echo $message; }\n', true],
  ])("%s: %s", async (file, code, isMoved) => {
    const found = await extract(file, code);
    expect(Object.keys(found.texts)).toHaveLength(isMoved ? 1 : 0);
    if (!isMoved) expect(found.notes.join()).toContain("begins in what it is appended to");
  });
});

describe("a template of Go", () => {
  const content = '{{ say "{key}"{args} }}';
  const book = {
    emit: { endings: { ".gohtml": { content, attribute: content } } },
    lookups: [{ call: "say" }],
  };
  const page = (text: string) => `{{ if .Late }}${text}{{ end }}\n`;

  test("gets calls without brackets, in double quotes, in attributes too", async () => {
    const { code } = await extract("app/a.gohtml", page(`<p title='All boats'>Late boats</p>`), book);
    expect(code).toBe(page(`<p title='{{ say "a.allBoats" }}'>{{ say "a.lateBoats" }}</p>`));
  });

  test("keeps texts with values, which no call takes by name", async () => {
    const { code, notes } = await extract("app/a.gohtml", page("<p>Boat {{ .Name }}</p>"), book);
    expect(code).toBe(page("<p>Boat {{ .Name }}</p>"));
    expect(notes.join()).toContain("given theirs without names");
  });

  test("passes values in order where messages number them", async () => {
    const numbered = { ...book, syntax: "printf" };
    const { code } = await extract(
      "app/a.gohtml",
      page("<p>Boat {{ .Name }} of {{ len .Boats }}</p>"),
      numbered,
    );
    expect(code).toContain('{{ say "a.boatNameBoats" .Name (len .Boats) }}');
  });

  test("gets no call that nothing shows", async () => {
    const { code, notes } = await extract("app/a.gohtml", page("<p>All boats</p>"), {});
    expect(code).toBe(page("<p>All boats</p>"));
    expect(notes.join()).toContain("does not say how a template of this kind looks up a key");
  });
});

describe("the usual call of a book that says no more is written where the language has it", () => {
  const moved = async (files: Record<string, string>) => {
    const project = memoryProject(
      { code: ["app/**"], lookups: [{ call: "t" }] },
      { "t/en.json": "{}", ...files },
    );
    const plan = await extractProject(project, {}, { least: "unclear" });
    return plan.changes.flatMap(({ file }) => (file.startsWith("app/") ? [file] : []));
  };
  const php = '<?php function f() { return show("Our best boats are here"); }\n';
  const ruby = 'def f\n  show("Our best boats are here")\nend\n';
  const java = 'class A { String f() { return show("Our best boats are here"); } }\n';
  const page = "<p>Our best boats</p>\n";

  test.each<[string, Record<string, string>, string[]]>([
    ["no file asks", { "app/a.php": php, "app/a.rb": ruby, "app/A.java": java, "app/a.erb": page }, []],
    [
      "one asks",
      { "app/a.php": php, "app/b.php": "<p><?= t('a') ?></p>\n", "app/a.rb": ruby },
      ["app/a.php"],
    ],
    ["one asks without brackets", { "app/a.rb": ruby, "app/b.rb": "show t 'a'\n" }, ["app/a.rb"]],
    [
      "one makes it that it extends",
      {
        "app/A.java": java.replace("class A", "class A extends B"),
        "app/B.java": "class B { String t(String k) { return k; } }\n",
      },
      ["app/A.java"],
    ],
    [
      "one makes it for its own objects",
      { "app/A.java": java, "app/B.java": "class B { String t(String k) { return k; } }\n" },
      [],
    ],
    ["a method of another object", { "app/a.php": php, "app/b.php": "<?php $x->t('a');\n" }, []],
    [
      "a remark has it",
      { "app/a.php": php, "app/b.php": "<?php\n/**\n * {t \"Hello\"} and t('a')\n */\n" },
      [],
    ],
    ["a string has it", { "app/a.php": php, "app/b.php": "<?php $x = 'a t \"b\"';\n" }, []],
    [
      "a script of the page has it",
      { "app/a.php": php, "app/b.php": "<p><?= $x ?></p>\n<script>say(t('a'));</script>\n" },
      [],
    ],
  ])("%s", async (_name, files, expected) => {
    expect(await moved(files)).toEqual(expected);
  });
});

describe("plurals whose form another lookup chooses", () => {
  const plural = "choose('{key}', {count}{args})";
  const book = { lookups: [{ call: "t" }, { call: "choose" }], plurals: "bar", syntax: "colon" };

  test.each([
    [
      "in code",
      "app/a.php",
      "<?php\nshow($n === 1 ? 'One boat is late' : \"$n boats are late\");\n",
      "show(choose('KEY', $n, ['count' => $n]))",
    ],
    [
      "in a page",
      "app/a.php",
      "<p>You have <?= $n ?> boat<?= $n == 1 ? '' : 's' ?></p>\n<p>The gate is open</p>\n",
      "<p><?= choose('KEY', $n, ['count' => $n]) ?></p>\n<p><?= t('KEY') ?></p>",
    ],
    [
      "in a script",
      "app/a.js",
      'import { t, choose } from "words";\nexport const f = (n) => show(t("a"), n === 1 ? "One boat is late" : `${n} boats are late`);\n',
      'show(t("a"), choose("KEY", n, { count: n }))',
    ],
  ])("%s", async (_name, file, code, expected) => {
    const { code: after } = await extract(file, code, {
      ...book,
      emit: { call: "t('{key}'{args})", plural },
    });
    expect(after.replace(/(["'])a\.\w+\1/g, "$1KEY$1")).toContain(expected);
  });

  test.each([
    ["app/a.php", "<?php\nshow($n === 1 ? 'One boat is late' : \"$n boats are late\");\n"],
    [
      "app/a.js",
      'export const f = (n) => show(t("a"), n === 1 ? "One boat is late" : `${n} boats are late`);\n',
    ],
  ])("stay where it cannot be written: %s", async (file, code) => {
    const { code: after, notes } = await extract(file, code, {
      ...book,
      emit: { call: "t('{key}'{args})", plural: false },
    });
    expect(after).toBe(code);
    expect(notes.join()).toContain("another lookup chooses the forms of plurals");
  });
});

test.each([
  [
    '<x-button label="Save the boat">Save it now</x-button>',
    "<x-button :label=\"t('KEY')\">{{ t('KEY') }}</x-button>",
  ],
  ['<x-card title="Boat {{ $name }} is here" />', "<x-card :title=\"t('KEY', ['name' => $name])\" />"],
  ['<img alt="The boat is here">', "<img alt=\"{{ t('KEY') }}\">"],
])("an attribute of a component takes an expression: %s", async (page, expected) => {
  const { code } = await extract("app/a.blade.php", `@if (true)\n${page}\n@endif\n`, {
    emit: { call: "t('{key}'{args})" },
  });
  expect(code.replace(/'a\.\w+'/g, "'KEY'")).toBe(`@if (true)\n${expected}\n@endif\n`);
});

describe("marks that are put out as they are", () => {
  const page = "<p>The gate is open</p>";
  test.each([
    ["app/a.blade.php", "@if (true)\n@endif\n<p>Hello @{{ name }}, welcome</p>"],
    ["app/a.blade.php", "@if (true)\n@endif\n<p>Hello @{!! name !!}, welcome</p>"],
    ["app/a.blade.php", "@if (true)\n@endif\n<p>Write @@if to begin a block</p>"],
    ["app/a.hbs", "<p>Hello \\{{name}}, welcome</p>"],
    ["app/a.twig", "<p>Write {{ '{{ name }}' }} to show it</p>"],
    ["app/a.vue", "<template><div><p v-pre>Hello {{ name }} today</p></div></template>"],
    ["app/a.html", "<app-boat (open)='f()'><p ngNonBindable>Hello {{ name }} today</p></app-boat>"],
    ["app/a.hbs", '<script type="text/x-template"><p>Berth \\{{berth}} is free</p></script>'],
    ["app/a.erb", '<script type="text/x-template"><p>Berth {{berth}} is free</p></script>'],
  ])("%s stays: %s", async (file, code) => {
    const content = file.endsWith(".erb") ? "<%= t('{key}'{args}) %>" : "{{ t('{key}'{args}) }}";
    const { code: after } = await extract(file, `${code}\n${page}\n`, {
      emit: { call: "t('{key}'{args})", content, attribute: content },
    });
    expect(after).toContain(code);
  });

  test("values that a helper gives stand in brackets", async () => {
    const { code } = await extract(
      "app/a.hbs",
      "{{#if late}}x{{/if}}<p>Here since {{day boat.since tide.zone}} in berth {{berth}}</p>\n",
      { emit: { content: '{{t "{key}"{args}}}', attribute: '{{t "{key}"{args}}}' } },
    );
    expect(code).toMatch(/\{\{t "[\w.]+" \w+=\(day boat\.since tide\.zone\) berth=berth\}\}/);
  });
});

describe("a filter of a page", () => {
  const emit = {
    endings: {
      ".html": {
        content: "{{ '{key}' | say }}",
        attribute: "[{name}]=\"'{key}' | say\"",
        withValues: {
          content: "{{ '{key}' | say:{values} }}",
          attribute: "[{name}]=\"'{key}' | say:{values}\"",
        },
      },
    },
  };
  test.each([
    [
      "<p [hint]=\"open ? 'The gate is open' : 'The gate is shut'\"></p>",
      "<p [hint]=\"open ? ('KEY' | say) : ('KEY' | say)\"></p>",
    ],
    ["<p [hint]=\"'Only ' + left + ' boats left'\"></p>", "<p [hint]=\"('KEY' | say:{ left: left })\"></p>"],
    [
      "<p>{{ state === 'open' ? 'Open now' : 'Closed now' }}</p>",
      "<p>{{ state === 'open' ? ('KEY' | say) : ('KEY' | say) }}</p>",
    ],
    [
      "<b [columns]=\"[{ key: 'name', label: 'Name of it' }]\"></b>",
      "<b [columns]=\"[{ key: 'name', label: ('KEY' | say) }]\"></b>",
    ],
    ["<b (click)=\"ask('Remove the boat?')\"></b>", "<b (click)=\"ask('Remove the boat?')\"></b>"],
    ["<b *ngIf=\"find('All boats are here')\"></b>", "<b *ngIf=\"find('All boats are here')\"></b>"],
  ])("stands in brackets in what shows something: %s", async (page, expected) => {
    const { code } = await extract("app/a.html", `${page}\n<i (a)="b()"></i>\n`, {
      lookups: [{ filter: "say" }],
      emit,
    });
    expect(code.split("\n")[0]?.replace(/'a\.\w+'/g, "'KEY'")).toBe(expected);
  });
});

test("values in a list are put out on a page as in code", async () => {
  const { code } = await extract(
    "app/a.php",
    "<p>Open from <?= $start ?> to <?= $end ?></p>\n<p>Open now</p>\n",
    {
      syntax: "printf",
      emit: { call: "t('{key}')", withValues: { call: "t('{key}', [{values}])" } },
    },
  );
  expect(code.replace(/'a\.\w+'/g, "'KEY'")).toBe(
    "<p><?= t('KEY', [$start, $end]) ?></p>\n<p><?= t('KEY') ?></p>\n",
  );
});

describe("a script in a string of markup", () => {
  test.each([
    ["app/a.php", "<?php\necho '<script>alert(\"All boats are late\");</script>';\n"],
    ["app/a.py", "def f(self):\n    self.write(\"<script>alert('All boats are late');</script>\")\n"],
    ["app/a.js", "el.innerHTML = `<script>alert('All boats are late')</script>`;\n"],
    ["app/a.php", "<?php\necho '\n\treturn valid;\n}\n</script>';\n"],
  ])("%s stays: %s", async (file, code) => {
    expect((await extract(file, code, { emit: { call: "t('{key}')" } })).code).toBe(code);
  });

  test("and the texts around it are moved", async () => {
    const { code } = await extract(
      "app/a.php",
      "<?php\necho '<p>All boats</p><script>go(\"Go on\")</script>';\n",
      {
        emit: { call: "t('{key}')" },
      },
    );
    expect(code).toMatch(/echo '<p>' \. t\('[\w.]+'\) \. '<\/p><script>go\("Go on"\)<\/script>';/);
  });
});

describe("several lookups that one call gives", () => {
  const book = {
    lookups: [
      { maker: "useTexts", gives: "say" },
      { maker: "useTexts", gives: "sayMany" },
    ],
    syntax: { argument: "{{name}}" },
    plurals: "bar",
    emit: {
      call: 'say("{key}"{args})',
      plural: 'sayMany("{key}", {count})',
      import: 'import { useTexts } from "{to:app/texts}";',
      setup: "const { say, sayMany } = useTexts();",
    },
  };
  const counted = '<p>You have {{ n }} boat{{ n === 1 ? "" : "s" }} here.</p>';

  test("are each written in its place, in a component that has none", async () => {
    const { code } = await extract(
      "app/A.vue",
      `<script setup>\nconst n = 3;\n</script>\n\n<template><div>${counted}<p>All boats are here</p></div></template>\n`,
      book,
    );
    expect(code).toContain("const { say, sayMany } = useTexts();");
    expect(code).toMatch(/<p>\{\{ sayMany\("[\w.]+", n\) \}\}<\/p><p>\{\{ say\("[\w.]+"\) \}\}<\/p>/);
  });

  test("are not made twice where a script takes some of them", async () => {
    const { code, notes } = await extract(
      "app/A.vue",
      `<script setup>\nimport { useTexts } from "./texts";\nconst { say } = useTexts();\n</script>\n\n<template><div>${counted}<p>All boats are here</p></div></template>\n`,
      book,
    );
    expect(code).toContain(counted);
    expect(code).toMatch(/<p>\{\{ say\("[\w.]+"\) \}\}<\/p>/);
    expect(code.match(/useTexts\(\)/g)).toHaveLength(1);
    expect(notes.join()).toContain('takes "say" from what makes lookups, and not "sayMany"');
  });

  test("the usual one is called where a function has made both", async () => {
    const { code } = await extract(
      "app/a.js",
      'import { useTexts } from "./texts";\nexport function A() {\n  const { say, sayMany } = useTexts();\n  return <p title={say("a")}>All boats are here</p>;\n}\n',
      book,
    );
    expect(code).toMatch(/\{say\("[\w.]+"\)\}<\/p>/);
  });
});

test("the number that chooses and the number that is shown are one value", async () => {
  const { code, texts } = await extract(
    "app/A.vue",
    '<template><p>There {{ boats.length === 1 ? "is" : "are" }} {{ boats.length }} boat{{ boats.length === 1 ? "" : "s" }}.</p></template>\n',
    { emit: { call: 't("{key}"{args})' } },
  );
  expect(code).toMatch(/t\("[\w.]+", \{ \w+: boats\.length \}\)/);
  expect(Object.values(texts)).toEqual([expect.stringMatching(/^\{\w+, plural, one \{There is # boat\.\}/)]);
});

test("the template of a component inside code stays, and its blocks are no text", async () => {
  const code =
    '@Component({\n  template: `<p title="Open daily">Gate</p>@if (late()) { <b>The boat is late</b> } @else { <i>Closed</i> }`,\n})\nexport class A {}\n';
  const { code: after, notes, texts } = await extract("app/a.ts", code, { emit: { call: "t('{key}')" } });
  expect(after).toBe(code);
  expect(texts).toEqual({});
  expect(notes).toHaveLength(4);
  expect(notes.every((note) => note.includes("in the template of a component inside code"))).toBe(true);
  expect(notes.join()).not.toContain("@if");
});
