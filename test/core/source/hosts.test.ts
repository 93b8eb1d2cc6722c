import { beforeAll, describe, expect, test } from "@jest/globals";
import { noShapes } from "../../../src/core/source/book-code.js";
import { readableText, type LookupShapes, type SourceFile } from "../../../src/core/source/model.js";
import { isReadable, prepareReaders, readSource } from "../../../src/core/source/read.js";

const shapes: LookupShapes = {
  ...noShapes,
  sourceLanguage: "en",
  calls: new Map([
    ["t", { default: 1 }],
    ["say", {}],
    ["texts.get", {}],
  ]),
  components: new Map([
    ["q:text", { key: "key" }],
    ["Say", { key: "id" }],
  ]),
  attributes: new Set(["data-say"]),
  filters: new Set(["said"]),
  bindings: [/text:\s*say\(\s*["'`]?([\p{L}\p{N}_.:/-]+)["'`]?\s*\)/u],
  marked: new Map([["say", { note: "say-note", meaning: "say-meaning", key: "say-key" }]]),
  relative: (file) => file.replace(/\..*$/, "").replaceAll("/", "."),
};

const files =
  "a.html a.vue a.svelte a.erb a.ejs a.jsp a.php a.blade.php a.hbs a.twig a.xml a.rb a.java a.py a.go a.cs".split(
    " ",
  );
beforeAll(() => prepareReaders(files));

const read = (file: string, text: string): SourceFile => readSource(file, text, false, shapes);

/** What a user reads, by the literals whose place says so; each with the code that a rewrite would replace. */
const shown = (file: string, text: string) =>
  read(file, text)
    .literals.filter(
      ({ context, skipped }) =>
        skipped === undefined &&
        !/^(lang|type|translate)$/.test(context.name ?? "") &&
        /^(content|attribute|argument|assignment|variable|returned|other|property)$/.test(context.role),
    )
    .map(({ pieces, span }) => [readableText(pieces), text.slice(span.start, span.end)]);

const keys = (file: string, text: string) =>
  read(file, text).lookups.map(({ key, keySpan }) => [
    key.kind === "fixed" ? key.value : key.kind === "composed" ? key.parts : "?",
    text.slice(keySpan.start, keySpan.end),
  ]);

test.each(files)("%s has a reader", (file) => {
  expect(isReadable(file)).toBe(true);
});

describe("text in markup", () => {
  const cases: [string, string, string, [string, string][]][] = [
    [
      "text and attributes",
      "a.html",
      '<p title="A plan">Hello <b>you</b> &amp; me</p>',
      [
        ["A plan", '"A plan"'],
        ["Hello you & me", "Hello <b>you</b> &amp; me"],
      ],
    ],
    [
      "white space as a page shows it",
      "a.html",
      "<p>\r\n  One\r\n  two\r\n</p>",
      [["One two", "One\r\n  two"]],
    ],
    [
      "blocks part texts",
      "a.html",
      "<div>One<p>Two</p>three</div>",
      [
        ["One", "One"],
        ["Two", "Two"],
        ["three", "three"],
      ],
    ],
    ["an unquoted attribute", "a.html", "<img alt=Harbour>", [["Harbour", "Harbour"]]],
    [
      "elements that nothing closes",
      "a.html",
      "<ul><li>One<li>Two</ul><p>Three<br>four",
      [
        ["One", "One"],
        ["Two", "Two"],
        ["Threefour", "Three<br>four"],
      ],
    ],
    [
      "what is not to be translated",
      "a.html",
      '<p translate="no">Heron</p><p lang="fr">Bonjour</p><p>Yes</p>',
      [["Yes", "Yes"]],
    ],
    ["a button's value", "a.html", '<input type="submit" value="Send it">', [["Send it", '"Send it"']]],
    [
      "values in double braces",
      "a.html",
      "<p>Hello {{ user.name }}, welcome</p>",
      [["Hello {name}, welcome", "Hello {{ user.name }}, welcome"]],
    ],
    [
      "control-flow blocks",
      "a.html",
      "@if (ok) { <b>Yes</b> } @else { <b>No way</b> }",
      [
        ["Yes", "Yes"],
        ["No way", "No way"],
      ],
    ],
    [
      "bound attributes",
      "a.html",
      `<p [title]="'A plan'">x</p>`,
      [
        ["A plan", "'A plan'"],
        ["x", "x"],
      ],
    ],
    [
      "scripts",
      "a.html",
      '<script>f("Some text")</script><style>p { content: "x y" }</style>',
      [["Some text", '"Some text"']],
    ],
    [
      "event handlers",
      "a.html",
      `<a onclick="alert('Gate closed')">Go</a>`,
      [
        ["Gate closed", "'Gate closed'"],
        ["Go", "Go"],
      ],
    ],
    [
      "single-file components",
      "a.vue",
      `<template><p :title="'A plan'">{{ ok ? 'Yes' : name }}</p></template><script setup lang="ts">const a: string = "Some text";</script>`,
      [
        ["A plan", "'A plan'"],
        ["Yes", "'Yes'"],
        ["Some text", '"Some text"'],
      ],
    ],
    [
      "components with one brace",
      "a.svelte",
      '{#if ok}<p>Hello {user.name}!</p>{:else}<a title={"Sign in"}>In</a>{/if}',
      [
        ["Hello {name}!", "Hello {user.name}!"],
        ["Sign in", '"Sign in"'],
        ["In", "In"],
      ],
    ],
    [
      "code in percent marks",
      "a.erb",
      '<p>Hello <%= @user.first_name %>, hi</p><% if x %>One<% else %>Two<% end %><%= link_to "Sign in", path %>',
      [
        ["Hello {first_name}, hi", "Hello <%= @user.first_name %>, hi"],
        ["One", "One"],
        ["Two", "Two"],
        ["Sign in", '"Sign in"'],
      ],
    ],
    [
      "scripts in percent marks",
      "a.ejs",
      "<p>Hello <%= name %></p><% if (x) { %>One<% } %>",
      [
        ["Hello {name}", "Hello <%= name %>"],
        ["One", "One"],
      ],
    ],
    [
      "expressions of pages",
      "a.jsp",
      '<%-- none --%><p>Boats: ${fn:length(boats)}</p><% out.println("All quiet"); %>',
      [
        ["Boats: {boats}", "Boats: ${fn:length(boats)}"],
        ["All quiet", '"All quiet"'],
      ],
    ],
    [
      "code between marks",
      "a.php",
      '<h2>Open on <?= $day ?></h2><?php echo "Hello $name"; ?>',
      [
        ["Open on {day}", "Open on <?= $day ?>"],
        ["Hello {name}", '"Hello $name"'],
      ],
    ],
    [
      "directives",
      "a.blade.php",
      "@if ($ok)\n<p>Hello {{ $user->name }}</p>\n@endif",
      [["Hello {name}", "Hello {{ $user->name }}"]],
    ],
    [
      "helpers",
      "a.hbs",
      '<p>Hello {{user.name}}</p>{{#if ok}}<b title="Close it">One</b>{{else}}Two{{/if}}',
      [
        ["Hello {name}", "Hello {{user.name}}"],
        ["Close it", '"Close it"'],
        ["One", "One"],
        ["Two", "Two"],
      ],
    ],
    [
      "filters",
      "a.twig",
      "{# none #}<p>{{ 'Some text' | upper }}</p>{% if x == 'one' %}Two{% endif %}",
      [
        ["Some text", "'Some text'"],
        ["Two", "Two"],
      ],
    ],
  ];
  test.each(cases)("%s", (_, file, text, expected) => {
    expect(shown(file, text)).toEqual(expected);
  });

  test("a dash behind a percent mark puts out in one dialect and only trims in another", () => {
    expect(shown("a.ejs", "<p>Hello <%- name %></p>")).toEqual([["Hello {name}", "Hello <%- name %>"]]);
    expect(shown("a.erb", "<p>Hello <%- if name -%>you<%- end -%></p>")).toEqual([
      ["Hello", "Hello"],
      ["you", "you"],
    ]);
  });

  test("comments excuse and explain", () => {
    const { literals } = read(
      "a.html",
      "<!-- fond: skip a name -->\n<p>Heron</p>\n<!-- fond: note on the quay -->\n<p>Mind the gap</p>",
    );
    expect(literals.map(({ skipped, note }) => [skipped, note])).toEqual([
      ["a name", undefined],
      [undefined, "on the quay"],
    ]);
    expect(read("a.erb", "<%# fond: skip a name %>\n<p>Heron</p>").literals[0]?.skipped).toBe("a name");
  });
});

describe("text in code", () => {
  const cases: [string, string, string, [string, string][]][] = [
    [
      "Ruby",
      "a.rb",
      'flash[:notice] = "Saved it"\nx = "Hello #{user.name}"\nz = "a" + b + " c"',
      [
        ["Saved it", '"Saved it"'],
        ["Hello {name}", '"Hello #{user.name}"'],
        ["a{b} c", '"a" + b + " c"'],
      ],
    ],
    [
      "Ruby formats",
      "a.rb",
      'format("%d of %s", n, boat)\n"%s is late" % boat',
      [
        ["{n} of {boat}", 'format("%d of %s", n, boat)'],
        ["{boat} is late", '"%s is late" % boat'],
      ],
    ],
    [
      "PHP",
      "a.php",
      "<?php $a = \"Hello $name, {$o->total}\"; $b = 'It\\'s ' . $c; sprintf('%s bikes', $n);",
      [
        ["Hello {name}, {total}", '"Hello $name, {$o->total}"'],
        ["It's {c}", "'It\\'s ' . $c"],
        ["{n} bikes", "sprintf('%s bikes', $n)"],
      ],
    ],
    [
      "Java",
      "a.java",
      'class A { void f() { l.setText("Boats: " + n); String s = String.format("Pier %d", pier); } }',
      [
        ["Boats: {n}", '"Boats: " + n'],
        ["Pier {pier}", 'String.format("Pier %d", pier)'],
      ],
    ],
    [
      "Python",
      "a.py",
      '"""docs"""\nx = f"Seat {seat} for {user.name}"\ny = "Hi {}".format(name)\nz = "a %s" % b',
      [
        ["Seat {seat} for {name}", 'f"Seat {seat} for {user.name}"'],
        ["Hi {name}", '"Hi {}".format(name)'],
        ["a {b}", '"a %s" % b'],
      ],
    ],
    [
      "Go",
      "a.go",
      'package a\nfunc f() { x := fmt.Sprintf("Welcome, %s", name); y := `Raw text` }',
      [
        ["Welcome, {name}", 'fmt.Sprintf("Welcome, %s", name)'],
        ["Raw text", "`Raw text`"],
      ],
    ],
    [
      "C#",
      "a.cs",
      'class A { void F() { var s = $"Hello {user.Name}"; l.Text = "Departures"; var v = @"A path"; } }',
      [
        ["Hello {name}", '$"Hello {user.Name}"'],
        ["Departures", '"Departures"'],
        ["A path", '@"A path"'],
      ],
    ],
  ];
  test.each(cases)("%s", (_, file, text, expected) => {
    expect(shown(file, text)).toEqual(expected);
  });

  const roles: [string, string, object][] = [
    ["a.rb", 'redirect_to x, alert: "Sign in"', { role: "property", name: "alert", element: "redirect_to" }],
    ["a.rb", 'raise "Bad"', { role: "thrown" }],
    ["a.rb", 'x == "one"', { role: "compared" }],
    ["a.rb", 'case x\nwhen "one" then 1\nend', { role: "compared", name: "case" }],
    ["a.rb", 'x["one"]', { role: "index" }],
    ["a.py", 'f(label="Boat")', { role: "property", name: "label", element: "f" }],
    ["a.py", 'raise ValueError("bad")', { role: "argument", name: "ValueError" }],
    ["a.py", 'if x in "abc": pass', { role: "compared" }],
    ["a.java", 'class A { @Size(message = "Too long") String s; }', { role: "property", name: "message" }],
    ["a.java", 'class A { @Column(name = "boat_id") String s; }', { role: "type", name: "Column" }],
    [
      "a.java",
      'class A { boolean f() { return s.equals("open"); } }',
      { role: "argument", name: "s.equals", index: 0 },
    ],
    ["a.php", '<?php $this->setTitle("Boats");', { role: "argument", name: "this.setTitle", index: 0 }],
    ["a.php", "<?php return ['title' => 'Boats'];", { role: "key" }],
    [
      "a.go",
      'package a\nfunc f() error { return errors.New("bad") }',
      { role: "argument", name: "errors.New" },
    ],
    ["a.cs", 'class A { [Display(Name = "Boat name")] string N; }', { role: "property", name: "Name" }],
    [
      "a.cs",
      'class A { void F() { MessageBox.Show("Quit?"); } }',
      { role: "argument", name: "MessageBox.Show", index: 0 },
    ],
  ];
  test.each(roles)("%s: %s", (file, text, expected) => {
    expect(read(file, text).literals[0]?.context).toMatchObject(expected);
  });

  test("comments excuse and explain", () => {
    expect(read("a.py", '# fond: skip a name\nx = "Ninth Wave"').literals[0]?.skipped).toBe("a name");
    expect(
      read("a.java", 'class A { // fond: note on the quay\n String s = "Some text"; }').literals[0]?.note,
    ).toBe("on the quay");
  });

  test.each([
    ["a.tsx", 'const a = n === 1 ? "one bike" : n + " bikes";', "a plural made by hand"],
    ["a.tsx", 'const a = locale === "es" ? "Hola" : "Hello";', "chosen by language in code"],
    ["a.tsx", 'const a = { en: "Good day", de: "Guten Tag" };', "one of several languages in code"],
    [
      "a.tsx",
      'const a = { cz: "Dobrý den", en: "Good day", de: "Guten Tag", fr: "Bonjour" };',
      "one of several languages in code",
    ],
    ["a.tsx", 'const a = "Hi " + name;', "put together with +"],
    ["a.rb", 'x = n == 1 ? "bike" : "bikes"', "a plural made by hand"],
    ["a.java", 'class A { String f() { return n == 1 ? "bike" : "bikes"; } }', "a plural made by hand"],
  ])("%s: %s is said for what it is", (file, text, remark) => {
    const remarks = read(file, text).literals.flatMap((literal) => literal.remarks ?? []);
    expect(remarks.map(({ message }) => message)).toContain(remark);
  });
});

describe("lookups", () => {
  const cases: [string, string, [unknown, string][]][] = [
    [
      "a.html",
      "<p>{{ 'a.b' | said }} and {{ say('c') }}</p>",
      [
        ["a.b", "a.b"],
        ["c", "c"],
      ],
    ],
    [
      "a.html",
      '<p data-say="a.b">Default</p><q:text key="c.d"/>',
      [
        ["a.b", "a.b"],
        ["c.d", "c.d"],
      ],
    ],
    ["a.xml", '<view bind="text: say(a.b)" other="text: x"/>', [["a.b", "a.b"]]],
    [
      "a.vue",
      `<template><p :title="say('a')">{{ t('b') }}</p></template>`,
      [
        ["a", "a"],
        ["b", "b"],
      ],
    ],
    ["a.hbs", '{{say "a.b" name=x}}', [["a.b", "a.b"]]],
    [
      "a.erb",
      "<%= t('.title') %><%= t(\"x.#{y}\") %>",
      [
        ["a.title", ".title"],
        [["x.", null], "x.#{y}"],
      ],
    ],
    [
      "a.jsp",
      '<%= texts.get("a") %><q:text key="b"/>',
      [
        ["a", "a"],
        ["b", "b"],
      ],
    ],
    ["a.php", "<p><?= t('a', 'Some default') ?></p>", [["a", "a"]]],
    [
      "a.blade.php",
      "{{ say('a') }} @say('b')",
      [
        ["a", "a"],
        ["b", "b"],
      ],
    ],
    [
      "a.rb",
      "t('a', name: n)\nself.t(:b)\nother.t2('c')",
      [
        ["a", "a"],
        ["b", ":b"],
      ],
    ],
    [
      "a.py",
      'say("a")\nsay("b" + c)\nsay(d)',
      [
        ["a", "a"],
        [["b", null], '"b" + c'],
        ["?", "d"],
      ],
    ],
    ["a.java", 'class A { String s = texts.get("a"); }', [["a", "a"]]],
    ["a.go", 'package a\nvar x = say("a")', [["a", "a"]]],
    ["a.cs", 'class A { string s = say("a"); }', [["a", "a"]]],
  ];
  test.each(cases)("%s: %s", (file, text, expected) => {
    expect(keys(file, text)).toEqual(expected);
  });

  test("a lookup's output parts the text around it, and its default text is no literal", () => {
    expect(shown("a.erb", "<p><%= t('a') %> and more</p>")).toEqual([["and more", "and more"]]);
    const { literals, lookups } = read("a.php", "<?php echo t('a', 'Some default');");
    expect(literals).toEqual([]);
    expect(lookups[0]?.defaultText).toBe("Some default");
  });
});

describe("awkward files", () => {
  test.each(files)("%s: nonsense is read without an exception", (file) => {
    for (const text of [
      "",
      "<",
      "<p",
      "{{",
      "<%",
      "<?php",
      "'",
      '"',
      "}}}",
      "\uFFFF",
      "a".repeat(10_000),
      "<p>".repeat(3_000),
      "(".repeat(3_000),
    ])
      expect(() => read(file, text)).not.toThrow();
  });

  test("binary, minified and very large files are passed over with a word", () => {
    expect(read("a.js", 'x("Some text")\0').problems[0]?.message).toContain("NUL");
    expect(read("a.js", `x("Some text");${"a".repeat(60_000)}`).problems[0]?.message).toContain("minified");
    expect(read("a.html", "<p>x</p>\n".repeat(700_000)).problems[0]?.message).toContain("too large");
  });

  test("code that does not parse is told of, and the rest is read", () => {
    const { problems, literals } = read("a.py", 'x = "Some text"\ndef f(:\n');
    expect(problems).toHaveLength(1);
    expect(literals).toHaveLength(1);
  });

  test("a thousand levels of nesting end in no crash", () => {
    expect(() => read("a.html", "<div>".repeat(5_000) + "Deep text")).not.toThrow();
  });
});

describe("marks with their companions", () => {
  test("say what translators should know, and the key", () => {
    const file = "a.html";
    const html =
      '<p say="a greeting" say-meaning="greeting" say-key="home.hello">Hello</p><p say say-note="short">Bye</p><p say-note="x">So</p>';
    expect(
      read(file, html).literals.map(({ pieces, note, key }) => [readableText(pieces), note, key]),
    ).toEqual([
      ["Hello", "greeting: a greeting", "home.hello"],
      ["Bye", "short", undefined],
      ["So", undefined, undefined],
    ]);
  });
});

describe("a mark that holds meaning, note and key", () => {
  test.each<[string, string, string | undefined, string | undefined]>([
    ["{meaning}|{note}@{key}", "list|How many@boats.count", "list: How many", "boats.count"],
    ["{meaning}|{note}@{key}", "How many@boats.count", "How many", "boats.count"],
    ["{meaning}|{note}@{key}", "list|How many", "list: How many", undefined],
    ["{meaning}|{note}@{key}", "@boats.count", undefined, "boats.count"],
    ["{meaning}|{note}@{key}", "How many", "How many", undefined],
    ["{key}; {note}", "boats.count; How many", "How many", "boats.count"],
    ["{key}", "boats.count", undefined, "boats.count"],
  ])("%s: %s", (pattern, value, note, key) => {
    const marked = new Map([["data-msg", { pattern }]]);
    const { literals } = readSource("a.html", `<p data-msg="${value}">Boats</p>`, false, {
      ...shapes,
      marked,
    });
    const [literal] = literals;
    expect([literal?.isMarked, literal?.note, literal?.key]).toEqual([true, note, key]);
  });

  test.each([
    [
      "a.php",
      '<?php show("All boats"); ?><p>Quay</p><script type="text/template"><p><?php echo "Late boats"; ?> Pier</p></script>',
      ["All boats", "Quay", "Late boats"],
    ],
    [
      "a.twig",
      '{% if x %}<p>{{ show("All boats") }}</p><script type="text/template"><p>{{ show("Late boats") }}</p>{{ "Pier" }}</script>{% endif %}',
      ["All boats", "Late boats", "Pier"],
    ],
    [
      "a.erb",
      '<p><%= show "All boats" %></p><script type="text/template"><p><%= show "Late boats" %> Pier</p></script>',
      ["All boats", "Late boats"],
    ],
  ])("what a template inside a page has is read once, where it stands: %s", (file, text, expected) => {
    const { literals } = readSource(file, text, false, shapes);
    const found = literals.flatMap(({ pieces, span }) =>
      pieces.length === 1 && pieces[0]?.kind === "text" && !pieces[0].value.includes("/")
        ? [[pieces[0].value, text.slice(span.start, span.end).replace(/^["']|["']$/g, "")]]
        : [],
    );
    expect(found).toEqual(expected.map((value) => [value, value]));
  });

  test("a class marks the content of its elements, or some of their attributes", () => {
    const { literals } = readSource(
      "a.html",
      '<p class="big say" title="Quay">Boats</p><i class="tip" title="Pier">Sea</i><b class="says">Crew</b>',
      false,
      {
        ...shapes,
        classMarks: new Map([
          ["say", {}],
          ["tip", { attributes: ["title"] }],
        ]),
      },
    );
    expect(literals.filter(({ isMarked }) => isMarked).map(({ pieces }) => readableText(pieces))).toEqual([
      "Boats",
      "Pier",
    ]);
  });
});

describe("messages in templates", () => {
  test.each([
    ["{n, plural, =0 {None} other {{{n}} boats}}", "{n, plural, =0 {None} other {{n} boats}}"],
    [
      "Left {n, plural, one {a <b>day</b> ago} other {{{n}} days ago}}",
      "Left {n, plural, one {a <b>day</b> ago} other {{n} days ago}}",
    ],
    ["{kind, select, a {One} other {Two}}", "{kind, select, a {One} other {Two}}"],
    ["{n, plural, one {broken}", undefined],
    ["Hello {{ name }}", undefined],
  ])("%s", (text, message) => {
    expect(read("a.html", `<p>${text}</p>`).literals[0]?.written).toBe(message);
  });
});

describe("templates of markup in scripts", () => {
  const code =
    'const a = (n, ok) => html`<p title="A plan" class="x ${ok ? "is on" : ""}">Hello ${n}</p><b>${ok ? "Yes" : t("no.key")}</b>`;\nconst b = css`color: ${"red"}; content: "Some words"`;\nconst c = dedent`Words of ${a}`;';
  test("are read as pages, their expressions once", () => {
    const { literals, lookups } = read("a.js", code);
    expect(
      literals.map(({ pieces, context }) => [readableText(pieces), context.role, context.element]),
    ).toEqual([
      ["A plan", "attribute", "p"],
      ["x {ok}", "attribute", "p"],
      ["is on", "attribute", "p"],
      ["Hello {n}", "content", "p"],
      ["Yes", "content", "b"],
      ["red", "tagged", undefined],
      ["Words of {a}", "tagged", undefined],
    ]);
    expect(lookups.map(({ key }) => key)).toEqual([{ kind: "fixed", value: "no.key" }]);
    for (const { span, pieces } of literals)
      for (const piece of pieces) {
        expect(piece.span.start).toBeGreaterThanOrEqual(span.start);
        expect(piece.span.end).toBeLessThanOrEqual(span.end);
      }
  });
});

describe("code that does not parse", () => {
  test("is told of with its place, and the other parts are read", () => {
    const code =
      'export const A = () => <p>First text</p>;\nfunction B( { return <p>Lost</p>; }\nexport const C = () => <p title={t("c.key")}>Third text</p>;\n';
    const { literals, lookups, problems } = read("a.tsx", code);
    expect(problems).toHaveLength(1);
    expect(
      literals.map(({ pieces, span }) => [readableText(pieces), code.slice(span.start, span.end)]),
    ).toEqual([
      ["First text", "First text"],
      ["Third text", "Third text"],
    ]);
    expect(lookups.map(({ keySpan }) => code.slice(keySpan.start, keySpan.end))).toEqual(["c.key"]);
  });
});
