import { beforeAll, describe, expect, test } from "@jest/globals";
import { configSchema, type LookupConfig } from "../../../src/core/config/schema.js";
import { lookupShapes } from "../../../src/core/source/book-code.js";
import { prepareReaders, readSource } from "../../../src/core/source/read.js";
import * as v from "valibot";

beforeAll(() =>
  prepareReaders(["a.ts", "a.php", "a.py", "a.rb", "a.java", "a.html", "a.jsp", "a.tpl", "a.erb"]),
);

/** The keys that a file asks for: whole ones, and composed ones with `…` for what only a run knows. */
function keysIn(file: string, text: string, lookups: readonly LookupConfig[], naming: object = {}) {
  const book = { name: "app", files: "t/{locale}.json", lookups, naming };
  const config = v.parse(configSchema, { source: "en", targets: [], books: [book] });
  const [parsed] = config.books;
  if (!parsed) throw new Error("no book");
  const source = readSource(file, text, false, lookupShapes(parsed, "en"));
  return source.lookups.map(({ key, keySpan }) => ({
    key:
      key.kind === "fixed"
        ? key.value
        : key.kind === "composed"
          ? key.parts.map((part) => part ?? "…").join("")
          : "?",
    written: text.slice(keySpan.start, keySpan.end),
  }));
}

test.each([
  ["show(t(:title))\n", ["title"]],
  ['show(t(:"cart.title"))\n', ["cart.title"]],
  ['show(t(:"cart.#{kind}"))\n', ["cart.…"]],
  ['show(t(:"#{kind}"))\n', ["?"]],
])("symbols of Ruby are keys: %s", (code, keys) => {
  expect(keysIn("a.rb", code, [{ call: "t" }]).map(({ key }) => key)).toEqual(keys);
});

test("values may stand where a text for the key may stand", () => {
  const config = v.parse(configSchema, {
    source: "en",
    targets: [],
    books: [{ name: "app", files: "t/{locale}.json", lookups: [{ call: "t", default: 1 }] }],
  });
  const [book] = config.books;
  const code = 'f(t("a", { name }), t("b", "Text", { name }), t("c", "Text"), t("d", given));';
  const lookups = book ? readSource("a.ts", code, false, lookupShapes(book, "en")).lookups : [];
  expect(lookups.map(({ argumentNames }) => argumentNames)).toEqual([["name"], ["name"], [], []]);
});

test("a text among the values is the default of the key, and none of them", () => {
  const config = v.parse(configSchema, {
    source: "en",
    targets: [],
    books: [{ name: "app", files: "t/{locale}.json", lookups: [{ call: "t", default: "_" }] }],
  });
  const [book] = config.books;
  if (!book) throw new Error("no book");
  const code = 'f(t("a", { _: "All boats" }), t("b", { name, _: "Boat {name}" }), t("c", { name }), t("d"));';
  const { lookups, literals } = readSource("a.ts", code, false, lookupShapes(book, "en"));
  expect(lookups.map(({ argumentNames, defaultText }) => [argumentNames, defaultText])).toEqual([
    [[], "All boats"],
    [["name"], "Boat {name}"],
    [["name"], undefined],
    [[], undefined],
  ]);
  expect(literals).toEqual([]);
});

describe("members of an object of texts", () => {
  const member: LookupConfig[] = [{ member: "strings" }];
  test.each<[string, string, readonly string[]]>([
    ["a.ts", "show(strings.cart.title)", ["cart.title"]],
    ["a.ts", 'show(strings["cart"].title)', ["cart.title"]],
    ["a.ts", "show(strings.cart.title.toUpperCase().trim())", ["cart.title"]],
    ["a.ts", "show(strings.title.length)", ["title"]],
    ["a.ts", "show(strings?.cart?.title)", ["cart.title"]],
    ["a.ts", "show(strings.status[state])", ["status.…"]],
    ["a.ts", "const { cart } = strings; show(cart.title)", ["cart.title"]],
    ["a.ts", "const own = strings.cart; show(own.title)", ["cart", "cart.title"]],
    ["a.ts", "show(other.strings.title, string.title)", []],
    ["a.ts", "show(strings)", []],
    ["a.php", "<?php show($strings['cart']['title']);", ["cart.title"]],
    ["a.php", "<p><?= $strings['title'] ?></p>", ["title"]],
    ["a.php", "<?php show($strings[$key]);", []],
    ["a.py", 'show(strings["cart"]["title"])\n', ["cart.title"]],
    ["a.tpl", "<p>{$strings.cart.title}</p>{if $x}y{/if}", ["cart.title"]],
    ["a.jsp", "<p>${strings.title}</p><%= x %>", ["title"]],
  ])("%s: %s", (file, code, keys) => {
    expect(keysIn(file, code, member).map(({ key }) => key)).toEqual(keys);
  });

  test("a function that gives the object is one as well, in its variable too", () => {
    const code = "const s = textsFor(locale);\nshow(s.cart.title, textsFor(x).menu);\n";
    expect(keysIn("a.ts", code, [{ member: "textsFor" }]).map(({ key }) => key)).toEqual([
      "cart.title",
      "menu",
    ]);
  });
});

test("what an object of texts is made of are its texts, and none to find", () => {
  const code =
    "<?php\n$strings = array('title' => 'All boats', 'b' => array('c' => 'At the quay'));\n$strings['note'] = 'Late today';\n$other['note'] = 'Not one';\n";
  const book = { name: "app", files: "t/{locale}.json", lookups: [{ member: "strings" }] };
  const [parsed] = v.parse(configSchema, { source: "en", targets: [], books: [book] }).books;
  if (!parsed) throw new Error("no book");
  const { literals } = readSource("a.php", code, false, lookupShapes(parsed, "en"));
  const texts = literals.map(({ span }) => code.slice(span.start + 1, span.end - 1));
  expect(texts.filter((text) => /^[A-Z]/.test(text))).toEqual(["Not one"]);
});

describe("keys that templates put together", () => {
  test.each([
    ["a.njk", "{% set a = say('menu.' + node.name) | upper %}", ["menu.…"]],
    ["a.twig", "{{ say('menu.' ~ name) }}", ["menu.…"]],
    ["a.twig", "{{ say('menu') ~ name }}", ["menu"]],
    ["a.njk", "{{ say('menu.title', 1 + 2) }}", ["menu.title"]],
  ])("%s: %s", (file, code, keys) => {
    expect(keysIn(file, code, [{ call: "say" }]).map(({ key }) => key)).toEqual(keys);
  });
});

describe("keys that are another argument than the first", () => {
  test.each<[string, string]>([
    ["a.ts", 'lookup(locale, "top.title", { n })'],
    ["a.php", "<?php lookup($locale, 'top.title');"],
    ["a.py", 'lookup(locale, "top.title")\n'],
    ["a.java", 'class A { void f() { lookup(locale, "top.title"); } }'],
    ["a.rb", 'lookup(locale, "top.title")\n'],
  ])("%s: %s", (file, code) => {
    expect(keysIn(file, code, [{ call: "lookup", key: 1 }])).toEqual([
      { key: "top.title", written: "top.title" },
    ]);
  });
});

describe("the values that a call passes", () => {
  test.each<[string, string, readonly string[] | undefined]>([
    ["a.rb", "t(:late, name: boat, locale: :de, default: '')\n", ["name"]],
    ["a.rb", "t(:late, @boat)\n", undefined],
    ["a.rb", 't(:late, "\\"#{boat}\\"")\n', undefined],
    ["a.rb", "t(:late) % boat\n", undefined],
    ["a.rb", "<%= t(:late) %>\n", []],
    ["a.erb", "<%= t(:late) %>\n", []],
    ["a.py", 'show(t("late") % {\n  "name": boat })\n', undefined],
    ["a.py", 'show(t("late").format(name=boat))\n', ["name"]],
    ["a.js", 'let late = t("late");\nif (boat) late = late.replace("$name", boat);\n', undefined],
    ["a.js", 'let late = t("late");\nshow(late, boat.replace("a", "b"));\n', []],
    ["a.php", "<?php $late = t('late'); echo str_replace('$name', $boat, $late);", undefined],
    ["a.py", 'show(t("late").format(**boat))\n', undefined],
    ["a.py", 'show(t("late").strip())\n', []],
    ["a.py", 'show(t("late", name=boat))\n', ["name"]],
    ["a.php", "<?php echo sprintf(t('late'), $boat);", undefined],
    ["a.php", "<?php echo t('late');", []],
    ["a.rb", "show(t(:late, 'Boat'))\n", undefined],
    ["a.rb", "show(t(:late, name: boat, default: 'Late'))\n", ["name"]],
    ["a.ts", 'show(t("late").replace("%s", boat))', undefined],
    ["a.ts", 'show(t("late"), format(t("soon")))', []],
    ["a.html", "{% t 'See <a href=\"x\">the boats</a>' %}{{#if x}}{{/if}}", []],
  ])("%s: %s", (file, code, names) => {
    const config = v.parse(configSchema, {
      source: "en",
      targets: [],
      books: [{ name: "app", files: "t/{locale}.json", lookups: [{ call: "t" }] }],
    });
    const [book] = config.books;
    const [lookup] = book ? readSource(file, code, false, lookupShapes(book, "en")).lookups : [];
    expect(lookup).toBeDefined();
    expect(lookup?.argumentNames).toEqual(names);
  });
});

describe("filters", () => {
  test.each<[string, readonly string[]]>([
    ["{{ 'a.b' | text }}", ["a.b"]],
    ["{{ (on ? 'a.on' : 'a.off') | text }}", ["a.on", "a.off"]],
    ["{{ (kind === 'x' ? 'a.on' : 'a.off') | text }}", ["a.on", "a.off"]],
    ["{{ 'status.' + state | text }}", ["status.…"]],
    ["{{ ('status.' + state + '.short') | text }}", ["status.….short"]],
    ["{{ label || 'a.b' | text }}", ["a.b"]],
    ["{{ 'a.b' | text | upper }}", ["a.b"]],
    ["{{ day | date: 'short' }}", []],
    ["<p [title]=\"'a.b' | text: { n: count }\">x</p>", ["a.b"]],
  ])("%s", (code, keys) => {
    expect(keysIn("a.html", code, [{ filter: "text" }]).map(({ key }) => key)).toEqual(keys);
  });

  test("the values that a filter passes are known where they are written out", () => {
    const config = v.parse(configSchema, {
      source: "en",
      targets: [],
      books: [{ name: "app", files: "t/{locale}.json", lookups: [{ filter: "text" }] }],
    });
    const [book] = config.books;
    const namesIn = (code: string) =>
      book && readSource("a.html", code, false, lookupShapes(book, "en")).lookups[0]?.argumentNames;
    expect(namesIn("{{ 'a' | text: { n: count, who } }}")).toEqual(["n", "who"]);
    expect(namesIn("{{ 'a' | text(n=count) }}")).toEqual(["n"]);
    expect(namesIn("{{ 'a' | text }}")).toEqual([]);
    expect(namesIn("{{ 'a' | text: values }}")).toBeUndefined();
    expect(namesIn("{{ 'a' | text | replace({ n: 1 }) }}")).toBeUndefined();
  });
});

describe("marks, and keys without their namespace", () => {
  test("marks stand anywhere in a file, with values or without", () => {
    const page = '<h1 title="[[top:lead]]">[[top:title, 3]]</h1><p>[[ no key ]] [1]</p>';
    expect(keysIn("a.html", page, [{ mark: "[[KEY]]" }])).toEqual([
      { key: "top:lead", written: "top:lead" },
      { key: "top:title", written: "top:title" },
    ]);
  });

  test.each([
    ["say('[[top:' + kind + ']]')", ["top:…"]],
    ["say('[[top:' + kind + ', ' + n + ']]')", ["top:…"]],
    ["say('[[top:' + kind + '-late, ' + n + ']]')", ["top:…-late"]],
    ["say('[[top:' + kind + '.' + state + '.lead]]')", ["top:….….lead"]],
    ["say('[[' + kind + '_two, ' + n + ']]')", ["…_two"]],
    ["say('[[' + key + ']]')", ["?"]],
    ["say(`[[top:${kind}-late]]`)", ["top:…-late"]],
    ["say(`[[top:lead, ${n}]]`)", ["top:lead"]],
    ["say('[[top:lead, ' + n + ']]')", ["top:lead"]],
    ["say([['top'], ['lead' + n]])", []],
  ])("a mark whose key the code puts together: %s", (code, keys) => {
    expect(keysIn("a.ts", code, [{ mark: "[[KEY]]" }]).map(({ key }) => key)).toEqual(keys);
  });

  test("what is nothing but a mark is no text", () => {
    const config = v.parse(configSchema, {
      source: "en",
      targets: [],
      books: [{ name: "app", files: "t/{locale}.json", lookups: [{ mark: "[[KEY]]" }] }],
    });
    const [book] = config.books;
    const read =
      book && readSource("a.html", "<p>[[a:b]]</p><p>Boats [[a:c]]</p>", false, lookupShapes(book, "en"));
    expect(read?.literals.map(({ span }) => span.start)).toEqual([17]);
  });

  test("a key that names the home namespace is the one without it", () => {
    const code = 'say("editor:save"); say("save"); say("common:close");';
    const naming = { namespace: ":", home: "editor" };
    expect(keysIn("a.ts", code, [{ call: "say" }], naming).map(({ key }) => key)).toEqual([
      "save",
      "save",
      "common:close",
    ]);
  });

  test("tags in the value of an attribute ask for their keys", () => {
    const page = `<%= x %><input value="<q:text key='a.b'/>"><q:text key="a.c"/>`;
    expect(keysIn("a.jsp", page, [{ tag: "q:text", key: "key" }]).map(({ key }) => key)).toEqual([
      "a.b",
      "a.c",
    ]);
  });
});

describe("what stands before a key, and around it", () => {
  test.each<[string, string, readonly string[]]>([
    ["a.rb", "t(:title, scope: [:boats, :index])\n", ["boats.index.title"]],
    ["a.rb", "t('title', scope: 'boats.index', count: 2)\n", ["boats.index.title"]],
    ["a.rb", "t(:title, :scope => [:boats])\n", ["boats.title"]],
    ["a.rb", "t(:title, scope: [:boats, kind])\n", ["boats.….title"]],
    ["a.rb", "t('.title', scope: [:boats])\n", [".title"]],
    ["a.erb", "<%= t(:title, scope: [:boats]) %>", ["boats.title"]],
  ])("%s: %s", (file, code, keys) => {
    expect(keysIn(file, code, [{ call: "t" }]).map(({ key }) => key)).toEqual(keys);
  });

  test("an attribute holds several keys, each for an attribute in brackets", () => {
    const page = '<p data-text="[title]a.lead; a.title;">x</p><p data-text="a.b">y</p>';
    expect(keysIn("a.html", page, [{ attribute: "data-text" }])).toEqual([
      { key: "a.lead", written: "a.lead" },
      { key: "a.title", written: "a.title" },
      { key: "a.b", written: "a.b" },
    ]);
    const text = '<p data-text="[title]Tea &amp; cake; [alt]A &lt;b&gt;">x</p>';
    expect(keysIn("a.html", text, [{ attribute: "data-text" }])).toEqual([
      { key: "Tea & cake", written: "Tea &amp; cake" },
      { key: "A <b>", written: "A &lt;b&gt;" },
    ]);
  });

  test("an attribute's key may be filled in by a template, and so may the values behind it", () => {
    const page =
      '<p data-text="a.<%= x %>">x</p><p data-text="a.lead,<%= time %>">x</p><p data-text="<%= key %>">y</p><p data-text="A b, c">z</p>';
    expect(keysIn("a.erb", page, [{ attribute: "data-text" }]).map(({ key }) => key)).toEqual([
      "a.…",
      "a.lead",
      "A b, c",
    ]);
  });

  test("a lookup may be the tag of a template", () => {
    const code = "f(say`a.b`, say`a.${c}`, html`a.c`)";
    expect(keysIn("a.js", code, [{ call: "say" }])).toEqual([
      { key: "a.b", written: "a.b" },
      { key: "a.…", written: "a.${c}" },
    ]);
  });
});

describe("parts of a template that a function fills in", () => {
  const filled: LookupConfig[] = [{ mark: "{{#say}}KEY{{/say}}" }];
  test.each<[string, readonly string[]]>([
    ["<p>{{#say}}cart.title{{/say}}</p>", ["cart.title"]],
    ["<p>{{#say}} cart.title {{/say}}</p>", ["cart.title"]],
    ["<p>{{#say}}cart.{{name}}.title{{/say}}</p>", ["cart.….title"]],
    ["<p>{{#open}}cart.title{{/open}}</p>", []],
    ["<p>{{#say}}The boat is late{{/say}}</p>", []],
  ])("%s", (page, keys) => {
    expect(keysIn("a.html", page, filled).map(({ key }) => key)).toEqual(keys);
  });
});

describe("keys in an object", () => {
  const declared: LookupConfig[] = [{ descriptor: "say", key: "id", default: "text" }];
  const values = (code: string) => {
    const book = { name: "app", files: "t/{locale}.json", lookups: declared };
    const [parsed] = v.parse(configSchema, { source: "en", targets: [], books: [book] }).books;
    if (!parsed) throw new Error("no book");
    return readSource("a.ts", code, false, lookupShapes(parsed, "en"));
  };
  test.each<[string, readonly string[] | undefined]>([
    ['say({ id: "a.b" }, { name })', ["name"]],
    ['say({ id: "a.b" }, {})', []],
    // A declaration may get its values later.
    ['say({ id: "a.b" })', undefined],
  ])("%s passes what stands behind it", (code, names) => {
    expect(values(code).lookups.map(({ argumentNames }) => argumentNames)).toEqual([names]);
  });

  test("the text beside a key is none to find, whatever the object is given to", () => {
    const { literals } = values(
      'later({ id: "a.b", text: "The boat is late" }); say({ id: `a.${b}`, text: n > 1 ? "boats" : "boat" }); show({ text: "All aboard" });',
    );
    expect(
      literals.map(({ pieces }) => pieces.map((piece) => "value" in piece && piece.value).join()),
    ).toEqual(["a.b", "All aboard"]);
  });
});

describe("scripts of a page are code by their type", () => {
  test.each([
    "",
    ' type="text/babel"',
    ' type="application/x-javascript"',
    ' type="text/javascript; charset=utf-8"',
    ' type="text/jsx"',
  ])("<script%s>", (type) => {
    const page = `<h1>x</h1><script${type}>say("a.b")</script>`;
    expect(keysIn("a.html", page, [{ call: "say" }]).map(({ key }) => key)).toEqual(["a.b"]);
  });
});

describe("templates that a page holds for its scripts", () => {
  const read = (type: string) => {
    const config = v.parse(configSchema, {
      source: "en",
      targets: [],
      books: [{ name: "app", files: "t/{locale}.json", lookups: [{ attribute: "data-text" }] }],
    });
    const [book] = config.books;
    const page = `<script type="${type}"><p data-text="a.b" title="To the quay">Boats</p></script>`;
    const source = book && readSource("a.html", page, false, lookupShapes(book, "en"));
    return {
      keys: source?.lookups.map(({ key }) => key),
      texts: source?.literals
        .filter(({ context }) => context.name !== "type")
        .map(({ span }) => page.slice(span.start, span.end)),
    };
  };

  test.each(["text/html", "text/x-template", "text/x-page-template", "text/template", "x-tmpl-page"])(
    "%s",
    (type) => {
      expect(read(type)).toEqual({
        keys: [{ kind: "fixed", value: "a.b" }],
        texts: ['"To the quay"'],
      });
    },
  );

  test.each(["application/json", "text/plain", "importmap"])("%s is none", (type) => {
    expect(read(type)).toEqual({ keys: [], texts: [] });
  });
});
