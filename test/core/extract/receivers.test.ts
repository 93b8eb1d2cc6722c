import { describe, expect, test } from "@jest/globals";
import { extractProject } from "../../../src/core/project/extract-project.js";
import { memoryProject } from "../../support/memory-project.js";

/** Extracts from one file; gives what it is then, and why texts stayed. */
async function extract(file: string, code: string, book: Readonly<Record<string, unknown>>) {
  const project = memoryProject({ code: ["src/**"], ...book }, { "t/en.json": "{}", [`src/${file}`]: code });
  const plan = await extractProject(project);
  const after = plan.changes.find((change) => change.file === `src/${file}`)?.after;
  return {
    isMoved: after !== undefined && after !== code,
    notes: plan.notes.map(({ messageId }) => messageId),
  };
}

describe("a variable of PHP that a lookup is asked of has to be known where the lookup stands", () => {
  const book = {
    lookups: [{ call: "desk.say" }],
    emit: {
      endings: { ".php": { call: "$desk->say('{key}'{args})", content: "<?= $desk->say('{key}') ?>" } },
    },
  };
  const shown = "flash('The boat is late today');";
  test.each<[string, string, boolean]>([
    ["is a parameter", `<?php function f(Desk $desk) { ${shown} }`, true],
    ["is made before", `<?php function f() { $desk = desk(); ${shown} }`, true],
    ["is made behind", `<?php function f() { ${shown} $desk = desk(); }`, false],
    ["is that of the program", `<?php function f() { global $desk; ${shown} }`, true],
    ["is taken along", `<?php function f($desk) { g(function () use ($desk) { ${shown} }); }`, true],
    ["is not taken along", `<?php function f($desk) { g(function () { ${shown} }); }`, false],
    ["is another function's", `<?php function g($desk) { } function f() { ${shown} }`, false],
    ["is only in a comment", `<?php function f() { /* $desk */ ${shown} }`, false],
    ["is only in a string", `<?php function f() { g('$desk'); ${shown} }`, false],
    ["has a longer name", `<?php function f($desks) { ${shown} }`, false],
    ["is a function's, and not the file's", `<?php function f($desk) { } ${shown}`, false],
    ["is the name of a property", `<?php class A { private $desk; function f() { ${shown} } }`, false],
    ["is a class's own", `<?php function f() { A::$desk->x(); ${shown} }`, false],
    ["is taken by an arrow function", `<?php function f($desk) { g(fn() => ${shown.slice(0, -1)}); }`, true],
    ["is in a string that takes it in", `<?php function f() { g("$desk->name"); ${shown} }`, true],
    ["is made by the file", `<?php $desk = desk(); ${shown}`, true],
    ["is made by the file later", `<?php ${shown} $desk = desk();`, false],
    ["is there for the page", "<h1>The boat is late today</h1>\n<p><?= $desk->name ?></p>\n", true],
    ["is not there for the page", "<h1>The boat is late today</h1>\n<p><?= $name ?></p>\n", false],
  ])("%s", async (_, code, isMoved) => {
    const found = await extract("a.php", code, book);
    expect(found.isMoved).toBe(isMoved);
    expect(found.notes.includes("extract/not-known") || found.notes.includes("not-known")).toBe(!isMoved);
  });

  const own = { ...book, emit: { endings: { ".php": { call: "$this->say('{key}'{args})" } } } };
  test.each<[string, string, boolean]>([
    ["of an object", `<?php class A { function f() { ${shown} } }`, true],
    ["of no object", `<?php class A { static function f() { ${shown} } }`, false],
    ["of a function in an object", `<?php class A { function f() { g(function () { ${shown} }); } }`, true],
    [
      "of a static function",
      `<?php class A { function f() { g(static fn() => ${shown.slice(0, -1)}); } }`,
      false,
    ],
    ["of a function alone", `<?php function f() { ${shown} }`, false],
    ["of what includes a page", `<?php ${shown}`, true],
  ])("$this %s", async (_, code, isMoved) => {
    expect((await extract("a.php", code, own)).isMoved).toBe(isMoved);
  });
});

describe("a variable that a lookup is asked of has to be known in its function", () => {
  const lookup = { lookups: [{ call: "desk.say" }], emit: { call: 'desk.say("{key}"{args})' } };
  const line = 'flash("The boat is late today")';
  const show = 'show("The boat is late today")';
  const notice = 'flash[:notice] = "The boat is late today"';
  test.each<[string, string, string, boolean]>([
    ["a parameter", "a.py", `def f(desk):\n    ${line}\n`, true],
    ["a parameter with a type", "a.py", `def f(a, desk: Desk = None):\n    ${line}\n`, true],
    ["made before", "a.py", `def f():\n    desk = make()\n    ${line}\n`, true],
    ["made behind", "a.py", `def f():\n    ${line}\n    desk = make()\n`, false],
    ["another function's", "a.py", `def g(desk):\n    pass\n\n\ndef f():\n    ${line}\n`, false],
    [
      "that of the function around",
      "a.py",
      `def f(desk):\n    def g():\n        ${line}\n    return g\n`,
      true,
    ],
    ["taken in by the file", "a.py", `from harbor import desk\n\n\ndef f():\n    ${line}\n`, true],
    ["made by the file", "a.py", `desk = make()\n\n\ndef f():\n    ${line}\n`, true],
    ["free in another function", "a.py", `def g():\n    desk.open()\n\n\ndef f():\n    ${line}\n`, true],
    ["a member of another", "a.py", `def f(a):\n    a.desk.open()\n    ${line}\n`, false],
    ["a parameter", "a.go", `package a\n\nfunc f(desk *Desk) {\n\t${show}\n}\n`, true],
    ["a receiver", "a.go", `package a\n\nfunc (desk *Desk) f() {\n\t${show}\n}\n`, true],
    [
      "another function's",
      "a.go",
      `package a\n\nfunc g(desk *Desk) {\n}\n\nfunc f() {\n\t${show}\n}\n`,
      false,
    ],
    ["a package", "a.go", `package a\n\nimport "harbor/desk"\n\nfunc f() {\n\t${show}\n}\n`, true],
    ["a parameter", "a.rb", `def f(desk)\n  ${notice}\nend\n`, true],
    ["another method's", "a.rb", `def g(desk)\n  desk.open\nend\n\ndef f\n  ${notice}\nend\n`, false],
    ["a method that others ask", "a.rb", `def g\n  desk.open\nend\n\ndef f\n  ${notice}\nend\n`, true],
    ["a method", "a.rb", `class A\n  attr_reader :desk\n  def f\n    ${notice}\n  end\nend\n`, true],
  ])("%s (%s): %s", async (_, file, code, isMoved) => {
    const found = await extract(file, code, lookup);
    expect(found.isMoved).toBe(isMoved);
    if (!isMoved) expect(found.notes).toContain("extract/not-known");
  });
});

describe("`self` of Python has to have the lookup", () => {
  const book = { lookups: [{ call: "self.tr" }], emit: { call: 'self.tr("{key}"{args})' } };
  const line = 'flash("The boat is late today")';
  const uses = '    def g(self):\n        show(self.tr("boat"))\n';
  test.each<[string, string, boolean]>([
    ["its class uses it", `class A(Desk):\n    def f(self):\n        ${line}\n${uses}`, true],
    ["nothing has it", `class A(Desk):\n    def f(self):\n        ${line}\n`, false],
    [
      "its class makes it",
      `class A:\n    def f(self):\n        ${line}\n    def tr(self, key):\n        pass\n`,
      true,
    ],
    [
      "a class above uses it",
      `class A(Desk):\n${uses}\n\nclass B(A):\n    def f(self):\n        ${line}\n`,
      true,
    ],
    [
      "one of the same kind uses it",
      `class A(Desk):\n${uses}\n\nclass B(Desk):\n    def f(self):\n        ${line}\n`,
      true,
    ],
    [
      "one of another kind uses it",
      `class A(Desk):\n${uses}\n\nclass B(Quay):\n    def f(self):\n        ${line}\n`,
      false,
    ],
    [
      "a method without an object",
      `class A(Desk):\n${uses}    @staticmethod\n    def f(a):\n        ${line}\n`,
      false,
    ],
    ["a function", `class A(Desk):\n${uses}\n\ndef f():\n    ${line}\n`, false],
    [
      "a function in a method",
      `class A(Desk):\n${uses}    def f(self):\n        def h():\n            ${line}\n        return h\n`,
      true,
    ],
  ])("%s", async (_, code, isMoved) => {
    const found = await extract("a.py", code, book);
    expect(found.isMoved).toBe(isMoved);
    if (!isMoved) expect(found.notes).toContain("extract/not-known");
  });
});

describe("`this` of a script has to have the lookup", () => {
  const book = { lookups: [{ call: "this.say" }], emit: { call: 'this.say("{key}"{args})' } };
  const shown = 'alert("The boat is late today");';
  test.each<[string, string, boolean]>([
    ["a class that makes it", `class A { say(key) { return key; } show() { ${shown} } }`, true],
    [
      "a class that uses it",
      `class A extends B { name() { return this.say("a.b"); } show() { ${shown} } }`,
      true,
    ],
    ["a class that calls a function of that name", `class A { show() { say("a"); ${shown} } }`, false],
    ["a class with a field", `class A { say = (key) => key; show() { ${shown} } }`, true],
    ["a class that has nothing of it", `class A { show() { ${shown} } }`, false],
    [
      "an arrow function inside",
      `class A { say(key) { return key; } show() { g(() => { ${shown} }); } }`,
      true,
    ],
    [
      "a function inside",
      `class A { say(key) { return key; } show() { g(function () { ${shown} }); } }`,
      false,
    ],
    ["an object that makes it", `const a = { say(key) { return key; }, show() { ${shown} } };`, true],
    ["another object", `const a = { say(key) { return key; } }; const b = { show() { ${shown} } };`, false],
    [
      "what a function makes",
      `function A() { this.say = function (key) { return key; }; this.show = function () { ${shown} }; }`,
      true,
    ],
    ["what a function makes without it", `function A() { this.show = function () { ${shown} }; }`, false],
    [
      "a prototype",
      `function A() {}\nA.prototype.say = function (key) { return key; };\nA.prototype.show = function () { ${shown} };`,
      true,
    ],
    [
      "a member whose name begins alike",
      `class A { sayAll(key) { return key; } show() { ${shown} } }`,
      false,
    ],
  ])("%s", async (_, code, isMoved) => {
    const found = await extract("a.js", code, book);
    expect(found.isMoved).toBe(isMoved);
  });
});

describe("a method or an object of Java has to be known in the classes around a place", () => {
  const shown = 'label.setText("The boat is late today");';
  const call = (emit: string) => ({
    lookups: [{ call: emit.replace(/\(.*/, "") }],
    emit: { endings: { ".java": { call: emit } } },
  });
  const method = call('say("{key}")');
  const field = call('texts.get("{key}")');
  const elsewhere = "class X { String say(String key) { return texts.get(key); } private Texts texts; }";
  const other = "class B { protected String say(String key) { return key; } }";
  const apart = "class B { private String say(String key) { return key; } }";
  test.each<[name: string, book: Record<string, unknown>, code: string, isMoved: boolean, more?: string]>([
    ["declared", method, `class A { String say(String k) { return k; } void f() { ${shown} } }`, true],
    ["not there", method, `class A { void f() { ${shown} } }`, false],
    [
      "another class's",
      method,
      `class A { void f() { ${shown} } } class C { String say(String k) { return k; } }`,
      false,
    ],
    ["inherited", method, `class A extends B { void f() { ${shown} } }`, true, other],
    [
      "of what is extended, for itself alone",
      method,
      `class A extends B { void f() { ${shown} } }`,
      false,
      apart,
    ],
    [
      "of a class outside, used",
      method,
      `class A extends Frame { void g() { p(say("a")); } void f() { ${shown} } }`,
      true,
    ],
    [
      "of a class outside, not used",
      method,
      `class A extends Frame { void f() { p(x.say("a")); ${shown} } }`,
      false,
    ],
    [
      "of objects, in a static method",
      method,
      `class A { String say(String k) { return k; } static void f() { ${shown} } }`,
      false,
    ],
    [
      "static, in a static method",
      method,
      `class A { static String say(String k) { return k; } static void f() { ${shown} } }`,
      true,
    ],
    [
      "of the class around",
      method,
      `class A { String say(String k) { return k; } class In { void f() { ${shown} } } }`,
      true,
    ],
    [
      "of the class around, from a static one",
      method,
      `class A { String say(String k) { return k; } static class In { void f() { ${shown} } } }`,
      false,
    ],
    [
      "of the class around an object",
      method,
      `class A { String say(String k) { return k; } void g() { new Thread() { public void run() { ${shown} } }; } }`,
      true,
    ],
    ["imported", method, `import static b.Texts.say;\nclass A { void f() { ${shown} } }`, true],
    [
      "imported with all of its class",
      method,
      `import static b.B.*;\nclass A { void f() { ${shown} } }`,
      true,
      "class B { public static String say(String k) { return k; } }",
    ],
    [
      "in what is imported from outside",
      method,
      `import static b.Hints.*;\nclass A { void f() { ${shown} } }`,
      false,
    ],
    ["a field", field, `class A { Texts texts; void f() { ${shown} } }`, true],
    ["a parameter", field, `class A { void f(Texts texts) { ${shown} } }`, true],
    ["a variable", field, `class A { void f() { Texts texts = make(); ${shown} } }`, true],
    ["a later variable", field, `class A { void f() { ${shown} Texts texts = make(); } }`, false],
    [
      "another method's variable",
      field,
      `class A { void g() { Texts texts = make(); texts.get("a"); } void f() { ${shown} } }`,
      false,
    ],
    ["a part of a record", field, `record A(Texts texts) { void f() { ${shown} } }`, true],
    [
      "an inherited field",
      field,
      `class A extends B { void f() { ${shown} } }`,
      true,
      "class B { protected Texts texts = make(); }",
    ],
  ])("%s", async (...[, book, code, isMoved, more = ""]) => {
    const project = memoryProject(
      { code: ["src/**"], ...book },
      { "t/en.json": "{}", "src/A.java": code, "src/B.java": more, "src/X.java": elsewhere },
    );
    const plan = await extractProject(project);
    expect(plan.changes.some(({ file }) => file === "src/A.java")).toBe(isMoved);
  });

  test("what no code has yet is known to the book alone", async () => {
    const found = await extract("A.java", `class A { void f() { ${shown} } }`, method);
    expect(found.isMoved).toBe(true);
  });

  const sharp = (emit: string) => ({
    lookups: [{ call: emit.replace(/\(.*/, "") }],
    emit: { endings: { ".cs": { call: emit } } },
  });
  test.each<[string, Record<string, unknown>, string, boolean]>([
    [
      "declared",
      sharp('Say("{key}")'),
      'class A { string Say(string k) => k; void F() { label.Text = "The boat is late today"; } }',
      true,
    ],
    [
      "not there",
      sharp('Say("{key}")'),
      'class A { void F() { label.Text = "The boat is late today"; } }',
      false,
    ],
    [
      "a field",
      sharp('_texts.Get("{key}")'),
      'class A { readonly ITexts _texts; void F() { label.Text = "The boat is late today"; } }',
      true,
    ],
    [
      "no field",
      sharp('_texts.Get("{key}")'),
      'namespace N { class A { void F() { label.Text = "The boat is late today"; } } }',
      false,
    ],
    [
      "a property",
      sharp('texts.Get("{key}")'),
      'class A { ITexts texts { get; } void F() { label.Text = "The boat is late today"; } }',
      true,
    ],
  ])("in C#: %s", async (_, book, code, isMoved) => {
    const elsewhere = "class X { string Say(string k) => texts.Get(k) + _texts.Get(k); }";
    const project = memoryProject(
      { code: ["src/**"], ...book },
      { "t/en.json": "{}", "src/A.cs": code, "src/X.cs": elsewhere },
    );
    const plan = await extractProject(project);
    expect(plan.changes.some(({ file }) => file === "src/A.cs")).toBe(isMoved);
  });
});

describe("a function of Ruby that is called by its name alone has to be there for a class", () => {
  const shown = 'flash[:notice] = "The boat is late today"';
  const book = {
    lookups: [{ call: "say" }],
    emit: { endings: { ".rb": { call: "say('{key}'{args})" } } },
  };
  const elsewhere = { "src/pages/list.rb": 'class List < Page\n  def a\n    show say("a.b")\n  end\nend\n' };
  const inClass = (head: string, body: string) => `${head}\n  ${body.replaceAll("\n", "\n  ")}\nend\n`;
  const method = `def f\n  ${shown}\nend`;
  test.each<[name: string, file: string, code: string, isMoved: boolean, more?: Record<string, string>]>([
    ["used in the file", "src/a.rb", inClass("class A", `def g\n  p say("a")\nend\n${method}`), true],
    [
      "used under a longer name",
      "src/a.rb",
      inClass("class A", `def g\n  p say_all("a")\nend\n${method}`),
      false,
    ],
    [
      "used of another object",
      "src/a.rb",
      inClass("class A", `def g\n  p x.say("a")\nend\n${method}`),
      false,
    ],
    ["nowhere near", "src/a.rb", inClass("class A", method), false],
    [
      "of objects, in a method of the class",
      "src/a.rb",
      inClass("class A", `def g\n  p say("a")\nend\ndef self.f\n  ${shown}\nend`),
      false,
    ],
    [
      "in methods of the class",
      "src/a.rb",
      inClass("class A", `def self.g\n  p say("a")\nend\ndef self.f\n  ${shown}\nend`),
      true,
    ],
    [
      "of the class above",
      "src/a.rb",
      inClass("class A < B", method),
      true,
      { "src/x/b.rb": inClass("class B", "def say(key)\n  key\nend") },
    ],
    [
      "of the class above that",
      "src/a.rb",
      inClass("class A < M::B", method),
      true,
      {
        "src/x/b.rb": inClass("class B < C", "def x\nend"),
        "src/x/c.rb": inClass("class C", 'def x\n  p say "a"\nend'),
      },
    ],
    [
      "of a module that is taken in",
      "src/a.rb",
      inClass("class A", `include Words\n${method}`),
      true,
      { "src/x/words.rb": inClass("module Words", "def say(key)\n  key\nend") },
    ],
    [
      "of a module that is not taken in",
      "src/a.rb",
      inClass("class A", method),
      false,
      { "src/x/words.rb": inClass("module Words", "def say(key)\n  key\nend") },
    ],
    ["of a class of the same kind beside it", "src/pages/a.rb", inClass("class A < Page", method), true],
    ["of a class of another kind beside it", "src/pages/a.rb", inClass("class A < Record", method), false],
    [
      "of code without a class beside a template",
      "src/a.rb",
      `${method}\n`,
      false,
      { "src/x/page.erb": "<p><%= say('a') %></p>\n" },
    ],
    [
      "of code without a class beside such code",
      "src/a.rb",
      `${method}\n`,
      true,
      { "src/x/b.rb": 'show say "a"\n' },
    ],
    ["of code without a class", "src/a.rb", `${method}\n`, false],
  ])("%s", async (...[, file, code, isMoved, more = {}]) => {
    const project = memoryProject(
      { code: ["src/**"], ...book },
      { "t/en.json": "{}", ...elsewhere, ...more, [file]: code },
    );
    const plan = await extractProject(project);
    expect(plan.changes.some((change) => change.file === file)).toBe(isMoved);
    if (!isMoved) expect(plan.notes.map(({ messageId }) => messageId)).toContain("extract/not-known");
  });
});

test.each([
  ["a controller", "class BoatsController < ApplicationController", true],
  ["a mailer", "class Notices < ActionMailer::Base", true],
  ["a model", "class Boat < ApplicationRecord", false],
])("what a framework gives is there in %s", async (_, head, isMoved) => {
  const code = `${head}\n  def f\n    flash[:notice] = "The boat is late today"\n  end\nend\n`;
  const project = memoryProject(
    { code: ["src/**"], emit: { endings: { ".rb": { call: "t('{key}'{args})" } } } },
    { "t/en.json": "{}", "src/a.rb": code, "src/page.erb": "<p><%= t('a') %></p>\n" },
  );
  const plan = await extractProject(project);
  expect(plan.changes.some(({ file }) => file === "src/a.rb")).toBe(isMoved);
});

test.each([
  ["a name", "say(:'{key}'{args})", "{file}_{slug}", "say(:a_boatsLateN, n: n)"],
  ["parts", "say(:'{key}'{args})", "{file}.{slug}", "say(:'a.boatsLateN', n: n)"],
  ["a string", "say('{key}'{args})", "{file}_{slug}", "say('a_boatsLateN', n: n)"],
])("a key of Ruby is written as a symbol where the book says so: %s", async (_, call, pattern, written) => {
  const code = (shown: string) =>
    `class A < Page\n  def f(n)\n    say "x"\n    flash[:notice] = ${shown}\n  end\nend\n`;
  const project = memoryProject(
    {
      code: ["src/**"],
      lookups: [{ call: "say" }],
      naming: { pattern },
      emit: { endings: { ".rb": { call } } },
    },
    { "t/en.json": "{}", "src/a.rb": code('"Boats: #{n} late"') },
  );
  const plan = await extractProject(project);
  expect(plan.changes.find(({ file }) => file === "src/a.rb")?.after).toBe(code(written));
});

test("plain text of several lines stays, since its line breaks are seen", async () => {
  const book = { emit: { endings: { ".erb": { content: "<%= t('{key}'{args}) %>" } } } };
  const lines = "The boat is late today.\nIt leaves at noon from the quay.\n<%= say(x) %>\n";
  const found = await extract("mail.text.erb", lines, book);
  expect(found).toEqual({ isMoved: false, notes: ["extract/lines"] });
  expect((await extract("mail.html.erb", `<p>${lines}</p>`, book)).notes).not.toContain("extract/lines");
  const one = await extract("mail.text.erb", "<% if late %>\nThe boat is late today.\n<% end %>\n", book);
  expect(one).toEqual({ isMoved: true, notes: [] });
});

test.each([
  ["a text", "t('{key}', '{text}'{args})", 'say("late", "The boat is late")'],
  ["a text and no place for values", "t('{key}', '{text}')", 'say("late", "The boat is late")'],
  ["no text", 't("{key}"{args})', 'say("late")'],
  ["an object", 't({ id: "{key}" }{args})', 'say("late")'],
])(
  "a lookup that a script makes itself is given what the book's has behind its key: %s",
  async (_, call, written) => {
    const code =
      'const { t: say } = useTexts();\nshow(say("open"));\nexport const f = () => flash("The boat is late");\n';
    const project = memoryProject(
      {
        code: ["src/**"],
        lookups: [{ maker: "useTexts", gives: "t" }],
        emit: { call },
        naming: { pattern: "late", shape: "flat" },
      },
      { "t/en.json": '{ "open": "Open" }', "src/a.ts": code },
    );
    const plan = await extractProject(project);
    const after = plan.changes.find(({ file }) => file === "src/a.ts")?.after;
    expect(after?.replaceAll("'", '"')).toContain(`flash(${written})`);
  },
);

describe("a component's functions call what `this` has where the usual lookup is one of templates", () => {
  const book = {
    lookups: [{ call: "$say" }, { call: "this.$say" }],
    emit: { call: "$say('{key}'{args})" },
  };
  const shown = 'alert("The boat is late today");';
  const component = (members: string, open = "{", close = "}") =>
    `<template><p>{{ $say("a.b") }}</p></template>\n<script>\nexport default ${open} ${members} ${close};\n</script>\n`;
  test.each<[string, string, boolean]>([
    ["a method", component(`methods: { go() { ${shown} } }`), true],
    ["a method as a function", component(`methods: { go: function () { ${shown} } }`), true],
    ["a hook", component(`mounted() { ${shown} }`), true],
    ["a computed value that is set", component(`computed: { a: { set() { ${shown} } } }`), true],
    ["what is watched", component(`watch: { a: { handler() { ${shown} } } }`), true],
    ["an arrow function in a method", component(`methods: { go() { g(() => { ${shown} }); } }`), true],
    ["a component that a function makes", component(`mounted() { ${shown} }`, "make({", "})"), true],
    ["a function in a method", component(`methods: { go() { g(function () { ${shown} }); } }`), false],
    ["an arrow function as a method", component(`methods: { go: () => { ${shown} } }`), false],
    ["what is called before there is a component", component(`setup() { ${shown} }`), false],
    ["a group whose functions are called alone", component(`filters: { go() { ${shown} } }`), false],
    [
      "a function beside the component",
      `${component("a: 1")}<script>\nfunction f() { ${shown} }\n</script>`,
      false,
    ],
  ])("%s", async (_, code, isMoved) => {
    const found = await extract("a.vue", code, book);
    expect(found.isMoved).toBe(isMoved);
    expect(found.notes.includes("extract/not-everywhere")).toBe(!isMoved);
  });

  test("the call is written with its object, and the template's without", async () => {
    const project = memoryProject(
      { code: ["src/**"], ...book },
      {
        "t/en.json": "{}",
        "src/a.vue": component(`methods: { go() { alert(\`The boat \${this.name} is late\`); } }`).replace(
          "<p>",
          "<h1>The boat is late today</h1><p>",
        ),
      },
    );
    const plan = await extractProject(project);
    const { after = "" } = plan.changes.find(({ file }) => file === "src/a.vue") ?? {};
    expect(after).toContain("<h1>{{ $say('a.boatLateToday') }}</h1>");
    expect(after).toContain('alert(this.$say("a.boatLateName", { name: this.name }))');
  });

  test.each<[string, string, string, boolean]>([
    [
      "of a class that is given it",
      "class A extends B { show() { f(this.props.say('a.b')); } go() { SHOWN } }",
      "this.props.say",
      true,
    ],
    [
      "of a class that is given something else",
      "class A extends B { show() { f(this.props.name); } go() { SHOWN } }",
      "this.props.say",
      false,
    ],
    ["of a module", "const f = () => { SHOWN }; class A { go() { this.say('a.b'); } }", "this.say", false],
  ])("%s", async (_, code, call, isMoved) => {
    const own = { lookups: [{ call }], emit: { call: `${call}('{key}'{args})` } };
    expect((await extract("a.js", code.replace("SHOWN", shown), own)).isMoved).toBe(isMoved);
  });
});

test("what all templates of components have is written into those that have none of it yet", async () => {
  const book = {
    lookups: [{ call: "$say" }],
    emit: { endings: { ".vue": { call: "$say('{key}'{args})" } } },
  };
  const page = "<template><h1>The boat is late</h1></template>\n<script>\nexport default {};\n</script>\n";
  expect((await extract("a.vue", page, book)).isMoved).toBe(true);
});

test("a tag that the template replaces takes no other such tag into its attributes", async () => {
  const book = {
    lookups: [{ tag: "desk:text", key: "name" }],
    emit: {
      endings: {
        ".html": { content: '<desk:text name="{key}"/>', attribute: "<desk:text name='{key}'/>" },
      },
    },
  };
  const page = (element: string) =>
    `<main><h1><desk:text name="a"/></h1><${element} src="a.svg" alt="The boat at the quay"/></main>`;
  expect((await extract("a.html", page("img"), book)).isMoved).toBe(true);
  const found = await extract("a.html", page("desk:picture"), book);
  expect(found.isMoved).toBe(false);
});

test("what scripts of pages have without an import is not written into programs beside them", async () => {
  const book = {
    code: ["**/*.js"],
    lookups: [{ call: "words.get" }],
    emit: { call: "words.get('{key}'{args})" },
  };
  const plan = async (files: Readonly<Record<string, string>>) => {
    const { changes } = await extractProject(memoryProject(book, { "t/en.json": "{}", ...files }));
    return changes.map(({ file }) => file).filter((file) => file.endsWith(".js"));
  };
  const shown = 'function f() { alert("The boat is late today"); }\n';
  const asks = 'function g() { show(words.get("a.b")); }\n';
  expect(
    await plan({ "page/js/a.js": asks, "page/js/b.js": shown, "page/more/c.js": shown, "desk/d.js": shown }),
  ).toEqual(["page/js/b.js"]);
  expect(await plan({ "web/page/js/a.js": asks, "web/page/more/c.js": shown })).toEqual([
    "web/page/more/c.js",
  ]);
  expect(await plan({ "desk/d.js": shown })).toEqual(["desk/d.js"]);
  expect(await plan({ "desk/d.js": `var words = {}; ${asks}${shown}` })).toEqual(["desk/d.js"]);
  expect(await plan({ "desk/d.js": `var words = {}; ${shown}` })).toEqual([]);
});

test.each([
  ["The boat is 10 % full", false],
  ["The boat is full", true],
])("a text that is its own key stays where its syntax would double a sign: %s", async (text, isMoved) => {
  const book = {
    syntax: "percent-paren",
    naming: { pattern: "{text}", shape: "flat" },
    emit: { endings: { ".py": { call: "_('{key}')" } } },
  };
  expect(
    (await extract("a.py", `from words import _\n\ndef f():\n    flash("${text}")\n`, book)).isMoved,
  ).toBe(isMoved);
});

test("a text of several lines is its own key with one blank between them", async () => {
  const lookup = '{% trans "{key}" %}';
  const book = {
    syntax: "percent-paren",
    naming: { pattern: "{text}", shape: "flat" },
    lookups: [{ call: "trans" }],
    emit: { endings: { ".html": { content: lookup } } },
  };
  const page = "{% extends 'a' %}\n<p>The boat is late today,\n   and so is the next one.</p>\n";
  expect((await extract("a.html", page, book)).isMoved).toBe(true);
});

describe("a lookup that is the tag of a template", () => {
  const book = {
    code: ["**/*.js"],
    lookups: [{ call: "say" }],
    naming: { pattern: "{text}", shape: "flat" },
    emit: { call: "say`{key}`", import: 'import { say } from "{to:page/texts.js}";' },
  };
  const extracted = async (file: string, code: string, catalog: object = {}) => {
    const files = { "t/en.json": JSON.stringify(catalog), "page/texts.js": "", [file]: code };
    const { changes, notes } = await extractProject(memoryProject(book, files));
    const after = (name: string) => changes.find((one) => one.file === name)?.after;
    return { code: after(file), texts: after("t/en.json"), notes: notes.map(({ messageId }) => messageId) };
  };

  const shown = 'export const f = () => alert("The boat is late today");\n';

  test("is written with the import that it needs", async () => {
    const { code, texts } = await extracted("page/a.js", shown);
    expect(code).toBe(
      'import { say } from "./texts.js";\n\nexport const f = () => alert(say`The boat is late today`);\n',
    );
    expect(JSON.parse(texts ?? "{}")).toEqual({ "The boat is late today": "The boat is late today" });
  });

  test("shows the text itself, whatever the catalog has under it", async () => {
    const catalog = { "The boat is late today": "Das Boot ist heute spät" };
    const { code, texts } = await extracted("page/a.js", shown, catalog);
    expect(code).toContain("alert(say`The boat is late today`);");
    expect(texts).toBeUndefined();
  });

  test("is not taken from pages into a program of a server", async () => {
    const program = `import path from "node:path";\n${shown}`;
    expect(await extracted("desk/a.js", program)).toMatchObject({
      code: undefined,
      notes: ["extract/of-pages"],
    });
    expect((await extracted("page/a.js", program)).code).toContain("say`");
    expect((await extracted("desk/a.js", shown)).code).toContain("say`");
  });
});

test("new keys go to the catalog that the book names, where several are equally near", async () => {
  const book = {
    files: "t/{locale}/{name}.json",
    code: ["src/**"],
    emit: { call: 't("{key}"{args})', atLoad: true },
  };
  const files = {
    "t/en/labels.json": "{}",
    "t/en/notes.json": "{}",
    "src/a.js": 'alert("The boat is late today");\n',
  };
  const changed = async (home: object) => {
    const project = memoryProject({ ...book, naming: { pattern: "{slug}", ...home } }, files);
    return (await extractProject(project)).changes.map(({ file }) => file).sort();
  };
  expect(await changed({ home: "notes" })).toEqual(["src/a.js", "t/en/notes.json"]);
  expect(await changed({})).toEqual([]);
});

describe("a lookup that some functions of scripts are given is not known everywhere", () => {
  const moved = async (files: Readonly<Record<string, string>>, book: Readonly<Record<string, unknown>>) => {
    const project = memoryProject({ code: ["**/*.js"], ...book }, { "t/en.json": "{}", ...files });
    const { changes, notes } = await extractProject(project);
    const ids = notes.map(({ messageId }) => messageId);
    return [changes.map(({ file }) => file).filter((file) => file.endsWith(".js")), ids] as const;
  };
  const shown = 'alert("The boat is late today");';
  const say = { lookups: [{ call: "say" }], emit: { call: 'say("{key}"{args})' } };
  test.each<[string, string, boolean]>([
    ["is given to all that call it", 'exports.f = (say) => say("a.b");\n', false],
    ["is made by all that call it", 'const say = (key) => key;\nsay("a.b");\n', false],
    ["is called by somebody who neither makes it nor is given it", 'show(say("a.b"));\n', true],
    ["is a method of that name", "class A { say(key) { return key; } }\n", true],
    ["is called by nobody", "show(1);\n", true],
  ])("a function %s", async (_, other, isMoved) => {
    const files = { "src/a.js": `function f() { ${shown} }\n`, "src/b.js": other };
    const [changed, notes] = await moved(files, say);
    expect(changed).toEqual(isMoved ? ["src/a.js"] : []);
    expect(notes).toEqual(isMoved ? [] : ["extract/not-everywhere"]);
  });

  test.each([
    [
      "templates of components have",
      "<template><p>{{ say('a.b') }}</p></template>\n<script>\nexport default {};\n</script>\n",
      false,
    ],
    [
      "scripts of components have",
      "<template><p>x</p></template>\n<script>\nf(say('a.b'));\n</script>\n",
      true,
    ],
  ])("a function that %s", async (_, component, isMoved) => {
    const [changed] = await moved(
      { "src/a.js": `function f() { ${shown} }\n`, "src/b.vue": component },
      { ...say, code: ["src/**"] },
    );
    expect(changed).toEqual(isMoved ? ["src/a.js"] : []);
  });

  test.each<[string, string, boolean]>([
    ["is a value of a function", "function g() { const [texts] = useState(en); show(texts.a.b); }\n", false],
    ["is given to all", "exports.g = (texts) => show(texts.a.b);\n", false],
    ["is brought in by all", 'import texts from "./texts";\nshow(texts.a.b);\n', false],
    ["is there for somebody", "show(texts.a.b);\n", true],
    ["is nowhere", "show(texts);\n", true],
  ])("an object of texts that %s", async (_, other, isMoved) => {
    const files = { "src/a.js": `function f() { ${shown} }\n`, "src/b.js": other };
    const book = { lookups: [{ member: "texts" }], emit: { call: "texts.{key}" } };
    const [changed, notes] = await moved(files, book);
    expect(changed).toEqual(isMoved ? ["src/a.js"] : []);
    expect(notes).toEqual(isMoved ? [] : ["extract/not-everywhere"]);
  });

  const ofRequest = { lookups: [{ call: "req.say" }], emit: { call: 'req.say("{key}"{args})' } };
  const asks = 'exports.g = (req) => req.say("a.b");\n';
  test.each<[string, string, string, boolean]>([
    ["where it is given as well", `exports.f = (req) => { ${shown} };\n`, "src/b.js", true],
    ["where it is not given", `exports.f = () => { ${shown} };\n`, "src/b.js", false],
    ["where another one is given", `exports.f = (res) => { ${shown} };\n`, "src/b.js", false],
    [
      "where it is something else",
      `exports.f = () => { const req = new Request(); ${shown} };\n`,
      "src/b.js",
      false,
    ],
    ["where nobody near is given it", `exports.f = (req) => { ${shown} };\n`, "other/b.js", false],
  ])("a method of what functions are given, %s", async (_, code, other, isMoved) => {
    const [changed] = await moved({ "src/a.js": code, [other]: asks }, ofRequest);
    expect(changed).toEqual(isMoved ? ["src/a.js"] : []);
  });
});

test.each([
  ['out.print("<p>The boat at the quay [");', false],
  ['out.print("<p>] is late today</p>");', false],
  ['out.print("<p>The boat (of today) is late</p>");', true],
  ['out.print("<p>The boat at the quay:</p>");', true],
])("a part of a sentence whose bracket stands elsewhere stays: %s", async (print, isMoved) => {
  const book = { lookups: [{ call: "say" }], emit: { endings: { ".java": { call: 'say("{key}"{args})' } } } };
  expect((await extract("A.java", `class A { void f() { ${print} } }`, book)).isMoved).toBe(isMoved);
});

test("what makes a lookup stands before the comments on a component's first statement", async () => {
  const project = memoryProject(
    {
      code: ["src/**"],
      emit: {
        call: 'say({ id: "{key}" }{args})',
        import: 'import { useWords } from "words";',
        setup: "const { say } = useWords();",
      },
    },
    {
      "t/en.json": "{}",
      "src/a.jsx":
        "export function Quay({ n }) {\n  // lint-off: next line\n  const kind = KIND;\n  return <p>Boat {n} is late</p>;\n}\n",
    },
  );
  const { changes } = await extractProject(project);
  expect(changes.find(({ file }) => file === "src/a.jsx")?.after).toBe(
    'import { useWords } from "words";\n\nexport function Quay({ n }) {\n  const { say } = useWords();\n  // lint-off: next line\n  const kind = KIND;\n  return <p>{say({ id: "a.boatLateN" }, { n })}</p>;\n}\n',
  );
});

test("keys have before them what code writes before all keys of the book", async () => {
  const book = {
    code: ["src/**"],
    lookups: [{ call: "say" }],
    emit: { call: 'say("{key}"{args})', endings: { ".html": { content: '{{ say("{key}") }}' } } },
    naming: { home: "harbor", namespace: ":", shape: "flat", pattern: "{slug}" },
  };
  const files = {
    "src/a.js": 'function f() { alert("The boat is late"); }\nsay("harbor:quay");\n',
    "src/b.html": "<p>All aboard now</p>\n",
    "t/en.json": '{ "quay": "Quay" }',
  };
  const project = memoryProject(book, files);
  const { changes } = await extractProject(project);
  expect(Object.fromEntries(changes.map(({ file, after }) => [file, after]))).toMatchObject({
    "src/a.js": 'function f() { alert(say("harbor:boatLate")); }\nsay("harbor:quay");\n',
    "src/b.html": '<p>{{ say("harbor:allAboardNow") }}</p>\n',
    "t/en.json": expect.stringContaining('"boatLate": "The boat is late"') as unknown,
  });
});

test.each([
  ["printf", "Boat %d of %s has %x", "Boat %d of %s has %x"],
  ["percent-paren", "Boat %d of %s has %x", "Boat %(n)d of %(quay)s has %(seats)x"],
  ["icu", "Boat %d of %s has %u", "Boat {n} of {quay} has {seats}"],
  ["icu", "Boat %d of %s has %x", ""],
  ["icu", "Boat %d of %s has %f", ""],
])("a value of a pattern stays what it is in messages in %s", async (syntax, pattern, message) => {
  const book = {
    code: ["src/**"],
    syntax,
    lookups: [{ call: "say" }],
    emit: { endings: { ".php": { call: "say('{key}'{args})" } } },
  };
  const code = `<?php flash(sprintf('${pattern}', $n, $quay, $seats));\n`;
  const { changes } = await extractProject(memoryProject(book, { "t/en.json": "{}", "src/a.php": code }));
  const texts = JSON.parse(changes.find(({ file }) => file === "t/en.json")?.after ?? "{}") as object;
  if (message === "") expect(texts).toEqual({});
  else expect(JSON.stringify(texts)).toContain(JSON.stringify(message));
});

describe("sentences that blocks of a template divide stay", () => {
  const book = {
    lookups: [{ call: "say" }],
    emit: {
      endings: {
        ".hbs": { content: '{{say "{key}"{args}}}' },
        ".svelte": { call: 'say("{key}"{args})' },
        ".erb": { call: 'say("{key}"{args})' },
        ".php": { call: "say('{key}'{args})" },
        ".html": { content: '{{ say("{key}"{args}) }}' },
      },
    },
  };
  test.each<[string, string, boolean]>([
    ["a.hbs", '<p>This {{#is "page"}}page{{else}}post{{/is}} is for members</p>', false],
    ["a.hbs", "<p>You have {{#most 5}}left{{/most}} of it</p>", false],
    ["a.hbs", "<p>{{#each boats}}Boat {{name}}, {{/each}}all boats are late</p>", false],
    ["a.hbs", "<p>By {{#each crew}}{{name}}{{/each}} of the lake</p>", false],
    [
      "a.html",
      "{% extends 'x' %}<p>This {% if page %}page{% else %}post{% endif %} is for members</p>",
      false,
    ],
    ["a.svelte", "<p>This {#if page}page{:else}post{/if} is for members</p>", false],
    ["a.erb", "<p>All <% boats.each do |b| %><%= b %><% end %> are late</p>", false],
    ["a.php", "<p>This <?php if ($page) { ?>page<?php } else { ?>post<?php } ?> is for members</p>", false],
    ["a.hbs", "<p>The boat is <b>{{#if late}}late{{else}}here{{/if}}.</b></p>", false],
    ["a.php", "<p>You may sail with the <?php boat($id, 'x'); ?>.</p>", false],
    ["a.php", "<p>You may sail with <?php boat($id, 'x'); ?></p>", true],
    ["a.php", "<p>You may sail with <?php if ($x): ?>.<?php endif; ?></p>", false],
    ["a.hbs", "<p><b>Boats</b> {{#if late}}<i>late today</i>{{/if}}</p>", true],
    ["a.hbs", "<p>{{#if late}}Your boat is late{{/if}} {{#if full}}Your boat is full{{/if}}</p>", true],
    ["a.hbs", "<p>Boats: {{#each boats}}{{name}}{{/each}}</p>", true],
    ["a.hbs", "<p>{{#if on}}The boat sails{{else}}the boat stays{{/if}}</p>", true],
    ["a.hbs", "<p>{{#if on}}The boat sails{{/if}}</p> <p>and all others do</p>", true],
    ["a.erb", "<p><% if late %>Your boat is late<% else %>All is well<% end %></p>", true],
  ])("%s: %s", async (file, code, isMoved) => {
    const found = await extract(file, code, book);
    expect(found.isMoved).toBe(isMoved);
    expect(found.notes.includes("extract/divided")).toBe(!isMoved);
  });

  test.each<[string, boolean]>([
    ["Turn all every <select name='s'><option value='1'>minute</option></select> seconds", false],
    ["Turn all, <textarea></textarea> please", false],
    ["Turn all: <select name='s'></select> seconds", true],
    ["Turn all <select name='s'></select> Seconds to go", true],
    ["Turn all <b>boats</b> now", true],
  ])("a field inside of a sentence: %s", async (sentence, isMoved) => {
    const found = await extract("a.erb", `<p>${sentence}</p>`, {
      ...book,
      emit: { endings: { ".erb": { call: 'say("{key}"{args})', rich: '<%= rich("{key}"{args}) %>' } } },
    });
    expect(found.notes.includes("extract/field")).toBe(!isMoved);
  });

  test("a helper inside of another is in brackets", async () => {
    const project = memoryProject(
      { code: ["src/**"], ...book },
      {
        "t/en.json": "{}",
        "src/a.hbs": '<p>{{> button label="Save the boat"}}{{input hint="Your name"}}</p>',
      },
    );
    const { changes } = await extractProject(project);
    expect(changes.find(({ file }) => file === "src/a.hbs")?.after).toBe(
      '<p>{{> button label=(say "a.saveBoat")}}{{input hint=(say "a.yourName")}}</p>',
    );
  });
});

test("a component calls with a sign what it brings in without", async () => {
  const book = { lookups: [{ call: "$say" }], emit: { call: "$say('{key}'{args})" } };
  const component = (line: string) =>
    `<script>${line} function f() { alert("The boat is late today"); }</script><p>{$say('a.b')}</p>`;
  const found = await extract("a.svelte", component('import { say } from "./texts.js";'), book);
  expect(found.isMoved).toBe(true);
  expect((await extract("a.svelte", component("let n = 1;"), book)).isMoved).toBe(false);
});

test("what all components make or are given before their templates call it is not there in those that do not", async () => {
  const book = {
    lookups: [{ call: "say" }],
    emit: { endings: { ".svelte": { call: "say('{key}'{args})" } } },
  };
  const moved = async (other: string) => {
    const project = memoryProject(
      { code: ["src/**"], ...book },
      { "t/en.json": "{}", "src/a.svelte": "<h1>The boat is late</h1>\n", "src/b.svelte": other },
    );
    return (await extractProject(project)).changes.some(({ file }) => file === "src/a.svelte");
  };
  expect(await moved("<script>export let say;</script><p>{say('x.y')}</p>")).toBe(false);
  expect(await moved("<script>let n = 1;</script><p>{say('x.y')}</p>")).toBe(true);
  expect(await moved("<p>no lookup</p>")).toBe(true);
});

describe("a lookup is not called by a name that a value has at the place", () => {
  const text = "The boat is late today";
  const elsewhere = 'def g():\n    flash(_("a.b"))\n';
  test.each<[string, string, string, boolean]>([
    ["of a loop", "a.py", `${elsewhere}def f():\n    for _ in range(3):\n        flash("${text}")\n`, false],
    [
      "of a loop before",
      "a.py",
      `${elsewhere}def f():\n    for n, _ in x:\n        go()\n    flash("${text}")\n`,
      false,
    ],
    ["of several", "a.py", `${elsewhere}def f():\n    name, _ = pair()\n    flash("${text}")\n`, false],
    ["of a parameter", "a.py", `${elsewhere}def f(_, boat):\n    flash("${text}")\n`, false],
    ["of a block", "a.py", `${elsewhere}def f():\n    with x() as _:\n        flash("${text}")\n`, false],
    [
      "of another function",
      "a.py",
      `${elsewhere}def f():\n    flash("${text}")\ndef h():\n    _ = 1\n`,
      true,
    ],
    [
      "of a list worked out",
      "a.py",
      `${elsewhere}def f():\n    flash("${text}")\n    return [_ for _ in x]\n`,
      true,
    ],
    [
      "which is the lookup itself",
      "a.py",
      `def f():\n    _ = words()\n    flash(_("a.b"))\n    flash("${text}")\n`,
      true,
    ],
    ["with more behind it", "a.py", `${elsewhere}def f():\n    __ = 1\n    flash("${text}")\n`, true],
    [
      "of a loop",
      "a.go",
      `package a\nfunc f() {\n\tfor i, _ := range x {\n\t\tw.SetText("${text}")\n\t}\n}\n`,
      false,
    ],
    [
      "of a loop before",
      "a.go",
      `package a\nfunc f() {\n\tfor i, _ := range x {\n\t}\n\tw.SetText("${text}")\n\tw.SetText(_("a.b"))\n}\n`,
      true,
    ],
    ["of a loop", "a.njk", `<p>{{ _("a.b") }}</p>{% for _ in boats %}<p>${text}</p>{% endfor %}`, false],
    [
      "of a loop inside",
      "a.njk",
      `{% for _ in boats %}{% for x in y %}{% endfor %}<p>${text}</p>{% endfor %}`,
      false,
    ],
    [
      "of a loop before",
      "a.njk",
      `<p>{{ _("a.b") }}</p>{% for _ in boats %}{% endfor %}<p>${text}</p>`,
      true,
    ],
    ["of the page", "a.njk", `{% set _ = 1 %}<p>${text}</p>`, false],
    ["of a function", "a.ejs", `<% boats.forEach(function (_) { %><p>${text}</p><% }) %>`, false],
    ["of a function before", "a.ejs", `<% boats.forEach((_) => { %><p></p><% }) %><p>${text}</p>`, true],
    ["of an element", "a.vue", `<template><p v-for="(_, n) in boats">${text}</p></template>`, false],
    ["of an element around", "a.vue", `<template><X #row="{ _ }"><p>${text}</p></X></template>`, false],
    [
      "of an element before",
      "a.vue",
      `<template><div><p v-for="_ in boats"></p><p>${text}</p></div></template>`,
      true,
    ],
    ["of a block", "a.svelte", `{#each boats as _}<p>${text}</p>{/each}`, false],
    ["of a block before", "a.svelte", `{#each boats as _}<p></p>{/each}<p>${text}</p>`, true],
  ])("%s in %s", async (_, file, code, isMoved) => {
    const call = '_("{key}"{args})';
    const content = `{{ ${call} }}`;
    const book = {
      lookups: [{ call: "_" }],
      emit: { call, endings: { ".py": { call }, ".njk": { content }, ".go": { call }, ".vue": { content } } },
    };
    const found = await extract(file, code, book);
    expect(found).toMatchObject({ isMoved });
    if (!isMoved) expect(found.notes.join()).toContain("shadowed");
  });
});

test("what says how a program is called gets no lookup that would have to be brought in first", async () => {
  const book = (line: string) => ({
    lookups: [{ call: "_" }],
    emit: { endings: { ".py": { call: '_("{key}")', import: line } } },
  });
  const program = (head: string) =>
    `${head}import argparse\ndef f():\n    p = argparse.ArgumentParser()\n    p.add_argument("--pier", help="The pier of the boat")\n`;
  const line = "from pier.words import say as _";
  expect((await extract("a.py", program(""), book(line))).isMoved).toBe(false);
  expect((await extract("a.py", program(`${line}\n`), book(line))).isMoved).toBe(true);
  expect((await extract("a.py", program(""), book("from gettext import gettext as _"))).isMoved).toBe(true);
});

test("a call that a line of scripts brings in is written into no language that has no such function", async () => {
  const shown = "flash('The boat is late today');";
  const written = async (other: string, emit: object) => {
    const project = memoryProject(
      { code: ["src/**"], lookups: [{ call: "say" }], emit },
      {
        "t/en.json": "{}",
        "src/a.php": `<?php ${shown}`,
        "src/b.js": `function f() { alert("The boat is late today"); }`,
        ...(other && { "src/c.php": other }),
      },
    );
    return (await extractProject(project)).changes
      .map(({ file }) => file)
      .filter((file) => file.startsWith("src/"));
  };
  const line = 'import { say } from "{to:src/words.js}";';
  const call = 'say("{key}"{args})';
  expect(await written("", { call, import: line })).toEqual(["src/b.js"]);
  expect(await written("<?php say('x.y');", { call, import: line })).toEqual(["src/a.php", "src/b.js"]);
  expect(await written("", { call })).toEqual(["src/a.php", "src/b.js"]);
  expect(await written("", { call, import: line, endings: { ".php": { call } } })).toEqual([
    "src/a.php",
    "src/b.js",
  ]);
});

test("what a browser works out in a page has no function of the scripts, where the book says how pages ask", async () => {
  const page = "<p>{{ late ? 'The boat is late today' : boat }}</p>";
  const book = (endings: object) => ({ lookups: [{ call: "say" }], emit: { call: "say('{key}')", endings } });
  const own = { content: "{{ '{key}' | words }}", attribute: "{{ '{key}' | words }}" };
  expect((await extract("a.html", page, book({ ".html": own }))).isMoved).toBe(false);
  expect((await extract("a.html", page, book({ ".html": { ...own, call: "say('{key}')" } }))).isMoved).toBe(
    true,
  );
});

test("texts of which most is in other letters than the source's stay, whatever names they have in Latin letters", async () => {
  const book = { emit: { call: "say('{key}')" } };
  const moved = async (text: string) => {
    const project = memoryProject(
      { code: ["src/**"], ...book },
      { "t/en.json": "{}", "src/a.jsx": `export const A = () => <p>${text}</p>;` },
    );
    return (await extractProject(project)).changes.length > 0;
  };
  expect(await moved("导出 CSV 成功")).toBe(false);
  expect(await moved("Лодка ABC")).toBe(false);
  expect(await moved("Written by 王小虎 for us")).toBe(true);
  expect(await moved("The letter Ω and µ")).toBe(true);
});

test("a lookup in a store is hidden where the variable that it is in is", async () => {
  const text = "The boat is late today";
  const script = '<script>\nimport { _ } from "./texts";\n</script>\n';
  const call = '$_("{key}"{args})';
  const book = { lookups: [{ call: "$_" }], emit: { call } };
  const inside = await extract("a.svelte", `${script}{#each boats as _}<p>${text}</p>{/each}`, book);
  expect(inside.notes.join()).toContain("shadowed");
  const beside = await extract("a.svelte", `${script}{#each boats as b}<p>${text}</p>{/each}`, book);
  expect(beside.isMoved).toBe(true);
  // Other templates have names that begin with the sign.
  const page = `<template><p v-for="_ in boats">${text}</p></template>`;
  expect((await extract("a.vue", page, book)).isMoved).toBe(true);
});

describe("a lookup that a component of a script has made", () => {
  const book = { lookups: [{ maker: "useTexts", gives: "t" }], emit: { call: 't("{key}"{args})' } };
  const component = (body: string) =>
    `import { useTexts } from "./texts";\nexport function Desk({ boats }) {\n  const { t } = useTexts();\n  ${body}\n}\n`;
  async function written(body: string) {
    const code = component(body);
    const project = memoryProject({ code: ["src/**"], ...book }, { "t/en.json": "{}", "src/a.tsx": code });
    const { changes, notes } = await extractProject(project);
    const after = changes.find(({ file }) => file === "src/a.tsx")?.after ?? code;
    return {
      body: after.slice(component("").length - 3, -3).trim(),
      why: notes.map(({ messageId }) => messageId),
    };
  }

  test.each([
    ["a value of a callback", "return boats.map((t) => <li>The boat {t.name} is late</li>);"],
    ["a value of a loop", 'for (const t of boats) alert("The boat is late");'],
    ["a value of a block", 'if (boats) {\n    const t = 1;\n    alert("The boat is late");\n  }'],
  ])("is hidden by %s", async (_, body) => {
    expect(await written(body)).toEqual({ body, why: ["extract/taken"] });
  });

  test.each([
    [
      "one that hands it on",
      'const name = (t) => t("a.b");\n  alert("The boat is late");',
      'alert(t("a.boatLate"));',
    ],
    ["one beside", 'boats.map((t) => t.name);\n  alert("The boat is late");', 'alert(t("a.boatLate"));'],
    [
      "a function that calls it",
      'const f = (t) => [t("a.b"), { label: "The late boat" }];',
      'label: t("a.lateBoat")',
    ],
  ])("is not hidden by %s", async (_, body, expected) => {
    expect((await written(body)).body).toContain(expected);
  });

  test("is what memoized functions depend on", async () => {
    const { body } = await written(
      'const one = useCallback(() => { alert("The boat is late"); }, []);\n  const two = useMemo(() => ({ label: "All late boats" }), [boats]);\n  useEffect(() => { alert("The boat is late"); }, []);',
    );
    expect(body.match(/\[[^\]]*\]/g)).toEqual(["[t]", "[boats, t]", "[]"]);
  });
});

test("elements side by side with one value among them are no sentence", async () => {
  const project = memoryProject(
    { code: ["src/**"], emit: { call: 'say("{key}")' } },
    {
      "t/en.json": "{}",
      "src/a.jsx":
        'export const A = () => <div><Tag>All boats</Tag><Button label="Save the boat" /><b>Late boats</b>{late && "The boat is late"}</div>;\n',
    },
  );
  const { extracted, notes } = await extractProject(project);
  expect(notes).toEqual([]);
  expect(extracted.map(({ message }) => message).sort()).toEqual([
    "All boats",
    "Late boats",
    "Save the boat",
    "The boat is late",
  ]);
});

test.each<[string, Record<string, unknown>, string, boolean]>([
  ["nobody says how it looks texts up", {}, "export const x = 1;", false],
  ["another one has it", {}, '<template><p>{{ t("a.b") }}</p></template>', true],
  ["the book says it", { emit: { call: 't("{key}"{args})' } }, "export const x = 1;", true],
])("a template of a component gets a lookup where %s: %#", async (_, book, script, isMoved) => {
  const project = memoryProject(
    { code: ["src/**"], lookups: [{ call: "t" }], ...book },
    {
      "t/en.json": "{}",
      "src/a.vue": "<template><p>The boat is late today</p></template>\n",
      [script.startsWith("<") ? "src/b.vue" : "src/b.js"]: `${script}\n`,
    },
  );
  const { extracted } = await extractProject(project);
  expect(extracted.length > 0).toBe(isMoved);
});

test.each<[string, string, boolean]>([
  [
    "where a file could not be taken in",
    'if (!@include_once("a.php")) {\n  echo "The boats could not be found";\n  exit;\n}\n',
    false,
  ],
  [
    "before the first file",
    'if ($old) {\n  echo "This program needs newer boats";\n  exit;\n}\nrequire "a.php";\n',
    false,
  ],
  [
    "behind the first file",
    'require "a.php";\nif ($old) {\n  echo "This program needs newer boats";\n  exit;\n}\n',
    true,
  ],
  [
    "in a function",
    'function f() {\n  echo "This program needs newer boats";\n  exit;\n}\nrequire "a.php";\n',
    true,
  ],
  ["on its page", 'echo "All the boats are here";\ninclude "foot.php";\n', true],
  ["in parts", 'echo "In the boat ", $boat, " of ", $owner;\n', false],
  ["with its end", 'echo "All the boats are late", $n, "<br>";\n', true],
])("what a script of PHP says %s", async (_, code, isMoved) => {
  const emit = { endings: { ".php": { call: "say('{key}'{args})" } } };
  const project = memoryProject(
    { code: ["a/**"], lookups: [{ call: "say" }], emit },
    { "t/en.json": "{}", "a/a.php": `<?php\n${code}` },
  );
  const { extracted } = await extractProject(project);
  expect(extracted.length > 0).toBe(isMoved);
});

test.each<[string, Readonly<Record<string, string>>, string, boolean]>([
  ["share what it takes in", { b: "mixins: [Texts, Move]," }, "mixins: [Texts],", true],
  ["take in something else", { b: "mixins: [Texts]," }, "mixins: [Move],", false],
  ["take in what makes it", { b: "mixins: [Texts('a')]," }, "", false],
  ["have no others", { b: "", c: "mixins: [Move]," }, "", true],
  ["are made of another", { b: "extends: Texts," }, "extends: Base,", false],
  ["take in something else, and the program gives it to all", { $: "mixins: [Move]," }, "", true],
])("a component asks itself for a text where others that do %s", async (_, others, own, isMoved) => {
  const asked = "$" in others ? "this.$t" : "this.t";
  const component = (head: string, body: string) =>
    `<script>\nexport default {\n  ${head}\n  methods: { show() { alert(${body}); } },\n};\n</script>\n`;
  const project = memoryProject(
    { code: ["src/**"], lookups: [{ call: asked }], emit: { call: `${asked}("{key}"{args})` } },
    {
      "t/en.json": '{ "a": "All boats" }',
      "src/a.vue": component(own, '"The boat is late today"'),
      ...Object.fromEntries(
        Object.entries(others).map(([name, head]) => [`src/${name}b.vue`, component(head, `${asked}("a")`)]),
      ),
    },
  );
  const { extracted } = await extractProject(project);
  expect(extracted.length > 0).toBe(isMoved);
});

test.each<[string, string, string, boolean]>([
  ["loads as it is", '<script src="/js/a.js?v=2"></script>', 'import { t } from "{to:t.js}";', false],
  [
    "loads behind what it puts in",
    '<script src="{{ root }}/js/a.js"></script>',
    'import { t } from "{to:t.js}";',
    false,
  ],
  [
    "loads as a module",
    '<script type="module" src="js/a.js"></script>',
    'import { t } from "{to:t.js}";',
    true,
  ],
  ["does not load", '<script src="js/other-a.js"></script>', 'import { t } from "{to:t.js}";', true],
  [
    "loads, and that knows require()",
    '<script src="js/a.js"></script>',
    'const { t } = require("{to:t.js}");',
    false,
  ],
])("a script that a page %s brings a lookup in", async (_, page, line, isMoved) => {
  const project = memoryProject(
    { code: ["web/**"], emit: { call: 't("{key}"{args})', import: line } },
    {
      "t/en.json": "{}",
      "web/a.html": `<p class="x">{{ boats }}</p>${page}\n`,
      "web/js/a.js": `${line.includes("require") ? 'const x = require("x");\n' : ""}show(() => alert("The boat is late"));\n`,
    },
  );
  const { extracted } = await extractProject(project);
  expect(extracted.some(({ file }) => file === "web/js/a.js")).toBe(isMoved);
});

test.each<[string, string | undefined, string?]>([
  [
    'const a = require("a");\nrun(a);\n',
    'const a = require("a");\nconst { t } = require("../../t.js");\nrun(a);\n',
  ],
  [
    '"use strict";\nvar a = require("a")\n  , b = require("b").c;\nrun(a);\n',
    'const { t } = require("../../t.js");\nrun(a);\n',
  ],
  [
    'const path = require("path");\nrun(path);\n',
    'const path = require("path");\nconst { t } = require("../../lib/t.js");\nrun(path);\n',
    "lib/t.js",
  ],
  ["exports.a = 1;\n", 'const { t } = require("../../t.js");\n\nexports.a = 1;\n'],
  ['import a from "a";\n', undefined],
])(
  "a lookup is taken in by require() where a script takes others in so: %#",
  async (head, expected, to = "t.js") => {
    const project = memoryProject(
      {
        code: ["web/**"],
        emit: { call: 't("{key}"{args})', import: `const { t } = require("{to:${to}}");` },
      },
      { "t/en.json": "{}", "web/js/a.js": `${head}show(() => alert("The boat is late"));\n` },
    );
    const { changes } = await extractProject(project);
    const after = changes.find(({ file }) => file === "web/js/a.js")?.after;
    if (expected === undefined) expect(after).toBeUndefined();
    else expect(after).toContain(expected);
  },
);

test.each<[string, string, string, boolean]>([
  ["nothing gives it", "", 'res.render("a", { boats })', false],
  ["the program gives it to all", "", "app.locals.t = t", true],
  ["the program gives it among others", "", "Object.assign(app.locals, { user, t })", true],
  ["the program gives it to one", "", 'res.render("a", { boats, t })', true],
  ["the environment gives it", "", 'env.addGlobal("t", t)', true],
  ["another value of the name is given", "", "app.locals.title = title", false],
  ["another template has it", '<p><%= t("a.b") %></p>', "run()", true],
])("a template that a program renders has a lookup of scripts where %s", async (_, other, code, isMoved) => {
  const emit = { call: 't("{key}"{args})', import: 'import { t } from "{to:src/texts.js}";' };
  const project = memoryProject(
    { code: ["src/**"], lookups: [{ call: "t" }], emit },
    {
      "t/en.json": "{}",
      "src/a.ejs": "<p>The boat is late today</p><%= user %>\n",
      "src/b.ejs": `<%= user %>${other}\n`,
      "src/app.js": `${code};\n`,
    },
  );
  const { extracted, notes } = await extractProject(project);
  expect(extracted.length > 0).toBe(isMoved);
  if (!isMoved) expect(notes[0]?.message).toContain('nothing gives them "t"');
});

describe("a filter in the template of a component", () => {
  const pipe =
    '@Pipe({ name: "say", pure: false })\nexport class SayPipe {\n  transform(key: string) {\n    return key;\n  }\n}\n';
  const component = (settings: string, name = "Boats") =>
    `@Component({ selector: "app-boats", templateUrl: "./${name.toLowerCase()}.html"${settings} })\nexport class ${name} {}\n`;
  const after = async (scripts: Readonly<Record<string, string>>) => {
    const book = {
      code: ["app/**"],
      lookups: [{ filter: "say" }],
      emit: { endings: { ".html": { content: "{{ '{key}' | say }}" } } },
    };
    const page = "<p (click)='go()'>The gate is open</p>\n";
    const files = { "t/en.json": "{}", "app/say.pipe.ts": pipe, "app/boats/boats.html": page, ...scripts };
    const plan = await extractProject(memoryProject(book, files), {}, { least: "unclear" });
    return {
      page: plan.changes.find(({ file }) => file === "app/boats/boats.html")?.after,
      notes: plan.notes.map(({ message }) => message).join(),
    };
  };

  test.each([
    ["lists it", { "app/boats/boats.ts": component(", imports: [SayPipe]") }],
    [
      "lists what has it",
      {
        "app/boats/boats.ts": component(", imports: [Shared]"),
        "app/shared.ts": "export const Shared = [SayPipe, Other];\n",
      },
    ],
    [
      "is of a module",
      { "app/boats/boats.ts": component(""), "app/mod.ts": "@NgModule({})\nexport class M {}\n" },
    ],
    [
      "says nothing, as all do",
      { "app/boats/boats.ts": component(""), "app/quay.ts": component("", "Quay") },
    ],
    ["is not at hand", {}],
  ])("that %s is written", async (_name, scripts) => {
    expect((await after(scripts)).page).toMatch(/\{\{ '[\w.]+' \| say \}\}/);
  });

  test.each([
    ["lists others", { "app/boats/boats.ts": component(", imports: [Other]") }],
    ["stands alone", { "app/boats/boats.ts": component(", standalone: true") }],
    [
      "says nothing where others list theirs",
      { "app/boats/boats.ts": component(""), "app/quay.ts": component(", imports: [SayPipe]", "Quay") },
    ],
  ])("that %s stays", async (_name, scripts) => {
    const { page, notes } = await after(scripts);
    expect(page).toBeUndefined();
    expect(notes).toContain('does not list what gives its templates the filter "say"');
  });
});
