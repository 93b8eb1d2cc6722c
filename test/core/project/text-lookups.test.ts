import { describe, expect, test } from "@jest/globals";
import { memoryFiles } from "../../../src/core/files/memory-files.js";
import { extractProject } from "../../../src/core/project/extract-project.js";
import { lintProject } from "../../../src/core/project/lint-project.js";
import { openProject } from "../../../src/core/project/project.js";
import { planInit } from "../../../src/core/project/setup/init-plan.js";

interface ProposedBook {
  readonly lookups?: readonly object[];
  readonly emit?: { readonly call?: string; readonly endings?: Readonly<Record<string, object>> };
  readonly code: readonly string[];
}

/** The first book that is proposed for files. */
async function proposed(files: Record<string, string>): Promise<ProposedBook> {
  const result = await planInit(memoryFiles(files));
  if (!result.ok) throw new Error(`there is ${result.file}`);
  const config = JSON.parse(result.plan.changes[0]?.after ?? "{}") as { books: ProposedBook[] };
  const [first] = config.books;
  if (!first) throw new Error("no book");
  return first;
}

/** Files as they are after everything is moved by a proposed configuration. */
async function moved(files: Record<string, string>): Promise<Readonly<Record<string, string>>> {
  const result = await planInit(memoryFiles(files));
  if (!result.ok) throw new Error(`there is ${result.file}`);
  const opened = openProject(
    memoryFiles({ ...files, "fond.config.json": result.plan.changes[0]?.after ?? "" }),
  );
  if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
  const { changes } = await extractProject(opened.project);
  return Object.fromEntries(changes.map(({ file, after }) => [file, after ?? ""]));
}

const many = (line: (at: number) => string) => Array.from({ length: 12 }, (_, at) => line(at)).join("\n");

describe("a function of any name looks texts up where what makes it does", () => {
  const calls = many((at) => `echo say("Boat number ${at}");`);
  test.each<[string, string, boolean]>([
    ["it hands them to a lookup", "function say($text) { return gettext($text); }", true],
    ["it hands them on behind others", 'function say($text) { return boat("quay", $text); }', false],
    [
      "it hands them to what is named for it",
      'function say($text) { return dgettext("quay", $text); }',
      true,
    ],
    ["it takes the member of a table", "function say($text) { return $messages[$text]; }", true],
    [
      "it takes in the file of a language",
      'function say($text) {\ninclude("./lang/$tongue/all.php");\nreturn $text;\n}',
      true,
    ],
    [
      "it takes in another file",
      'function say($text) {\ninclude("./parts/all.php");\nreturn $text;\n}',
      false,
    ],
    ["it only writes them large", "function say($text) { return strtoupper($text); }", false],
    ["another function does", "function tell($text) { return gettext($text); }", false],
  ])("%s", async (_, made, is) => {
    const { lookups = [] } = await proposed({
      "quay/say.php": `<?php\n${made}\n`,
      "quay/a.php": `<?php\n${calls}\n`,
    });
    expect(lookups.some((one) => "call" in one && one.call === "say")).toBe(is);
  });

  test("in Python and in scripts as well", async () => {
    const python = await proposed({
      "quay/say.py":
        "def tell(self, text):\n    return self.catalog.gettext(text)\n\ndef say(text):\n    return gettext(text)\n",
      "quay/a.py": many((at) => `print(say("Boat number ${at}"))`),
    });
    expect(python.lookups).toEqual([{ call: "say" }]);
    const script = await proposed({
      "quay/say.js": "const say = (text) => translations[text];\n",
      "quay/a.js": many((at) => `show(say("Boat number ${at}"));`),
    });
    expect(script.lookups).toEqual([{ call: "say" }]);
  });
});

describe("what a lookup of texts is given besides is written as it is there", () => {
  const project = (behind: (at: number) => string, text = (at: number) => `Boat number ${at}`) => ({
    "quay/a.php": `<?php\n${many((at) => `echo translate("${text(at)}"${behind(at)});`)}\n`,
  });
  test.each<[string, Record<string, string>, string | undefined]>([
    ["nothing", project(() => ""), 'translate("{key}")'],
    ["a constant now and then", project((at) => (at % 4 === 0 ? ", 0" : "")), 'translate("{key}")'],
    ["the same constant everywhere", project(() => ", false"), 'translate("{key}", false)'],
    ["the name of a domain", project(() => ", 'harbor'"), "translate(\"{key}\", 'harbor')"],
    ["the same variable everywhere", project(() => ", $page"), 'translate("{key}", $page)'],
    ["a name that may not be known elsewhere", project(() => ", page()"), undefined],
    ["what nobody knows", project((at) => `, $page->part(${at})`), undefined],
    [
      "blanks in the brackets, and other calls around and before it",
      {
        "quay/a.php": `<?php\n${many((at) =>
          at % 3 === 0
            ? `printf( /* boats ('x' */ translate( "Boat %s of ${at}" ), $n );\n// shown by printf('one')`
            : `echo translate( "Boat number ${at}" );`,
        )}\n`,
      },
      'translate("{key}")',
    ],
    [
      "a name that others have in theirs",
      {
        "quay/say.php": "<?php\nfunction tr($text) {\n  return $lang[$text] ?? $text;\n}\n",
        "quay/a.php": `<?php\n${many((at) => `echo strtr( "a${at}", tr("Boat number ${at}") );`)}\n`,
      },
      'tr("{key}")',
    ],
    [
      "values where there are places for them",
      project(
        (at) => (at % 2 === 0 ? ", $count" : ""),
        (at) => (at % 2 === 0 ? `%s boats at quay ${at}` : `Boat number ${at}`),
      ),
      'translate("{key}"{args})',
    ],
  ])("%s", async (_, files, call) => {
    const { emit } = await proposed(files);
    expect((emit?.endings?.[".php"] as { call?: string } | undefined)?.call ?? emit?.call).toBe(call);
  });

  test("a constant is no value: the text is filled around the lookup", async () => {
    const files = {
      ...project((at) => (at % 4 === 0 ? ", 0" : "")),
      "quay/b.php": '<?php\necho "Boat " . $n . " has left";\n',
    };
    files["quay/a.php"] += many((at) => `echo translate("%s boats left at ${at}");`);
    expect((await moved(files))["quay/b.php"]).toContain('sprintf(translate("Boat %s has left"), $n)');
  });

  test("a variable is written only where it is known", async () => {
    const files = {
      ...project(() => ", $page"),
      "quay/b.php": '<?php\nfunction tell() {\n  echo "The boat has left the quay";\n}\n',
      "quay/c.php": '<?php\nfunction tell($page) {\n  echo "The ferry has left the quay";\n}\n',
    };
    const after = await moved(files);
    expect(after["quay/b.php"]).toBeUndefined();
    expect(after["quay/c.php"]).toContain('translate("The ferry has left the quay", $page)');
  });
});

test("a name that all calls of a script share may not be known elsewhere", async () => {
  const { emit } = await proposed({
    "quay/a.js": many((at) => `show(translate("Boat number ${at}", page));`),
  });
  expect(emit).toBeUndefined();
});

test("what marks texts for later is not written where a lookup is", async () => {
  const { emit } = await proposed({
    "quay/a.py": `${many((at) => `N_("Boat number ${at}")`)}\n${many((at) => `N_("Pier number ${at}")`)}\n${many((at) => `show(_("Quay number ${at}"))`)}\n`,
  });
  expect(emit?.call ?? emit?.endings?.[".py"]).toBe('_("{key}")');
});

test("strings with a filter in single braces are looked up, and written so", async () => {
  const files = {
    "tpl/a.html": `<body>{if="$open"}\n${many((at) => `<p title="{'Row ${at}'|t}">{'Boat number ${at}'|t}</p>`)}\n{/if}\n{ignore}a note for who writes pages{/ignore}<b>{$name}</b></body>\n`,
    "tpl/b.html": "<body>{if=\"$open\"}<h2>{'Boat'|t}</h2><p>The boat has left</p>{/if}</body>\n",
  };
  expect((await proposed(files)).lookups).toEqual([{ filter: "t" }]);
  const after = await moved(files);
  expect(after["tpl/b.html"]).toContain("<p>{'The boat has left'|t}</p>");
  expect(after["tpl/a.html"]).toBeUndefined();
});

describe("a function that makes keys is no lookup by itself", () => {
  const texts = { title: "Boats", open: "Open", close: "Close", list: "All boats" };
  const files = {
    "t/en.json": JSON.stringify(texts),
    "t/de.json": JSON.stringify(texts),
    "src/keyOf.js": "const keyOf = (id) => `harbor.${id}`;\nexport default keyOf;\n",
    "src/A.jsx": `import { useTexts } from "texts";\nimport keyOf from "./keyOf";\nexport function A() {\n  const { say } = useTexts();\n  return <p>${Object.keys(
      texts,
    )
      .map((key) => `{say({ id: keyOf("${key}"), defaultMessage: "Some text" })}`)
      .join("")}</p>;\n}\n`,
    "src/B.jsx": "export function B() {\n  return <p>The boat has left</p>;\n}\n",
    "server/c.js":
      '"use strict";\nconst run = require("run");\nmodule.exports = () => run.alert("The ferry has left");\n',
  };
  test("what is around it is written, with all that it needs, and default texts stay", async () => {
    expect((await proposed(files)).emit).toEqual({
      call: 'say({ id: keyOf("{key}") }{args})',
      import: ['import keyOf from "{to:src/keyOf}";', 'import { useTexts } from "texts";'],
      setup: "const { say } = useTexts();",
    });
    const after = await moved(files);
    expect(Object.keys(after).sort()).toEqual(["src/B.jsx", "t/en.json"]);
    expect(after["src/B.jsx"]).toBe(
      'import keyOf from "./keyOf";\nimport { useTexts } from "texts";\n\nexport function B() {\n  const { say } = useTexts();\n  return <p>{say({ id: keyOf("boatHasLeft") })}</p>;\n}\n',
    );
  });
});

describe("init passes over what others made", () => {
  const texts = JSON.stringify({ title: "Boats", open: "Open", close: "Close" });
  const page = (name: string) => `export const ${name} = () => t("title") + t("open") + t("close");\n`;
  const names = ["a", "b", "c", "d", "e", "f"];

  test("what a compiler made of the sources, with the catalogs that it took along", async () => {
    const files = Object.fromEntries([
      ...["src", "lib"].flatMap((folder) => [
        [`${folder}/t/en.json`, texts],
        [`${folder}/t/de.json`, texts],
      ]),
      ...names.flatMap((name) => [
        [`src/pages/${name}.ts`, page(name)],
        [`lib/pages/${name}.js`, page(name)],
      ]),
    ]) as Record<string, string>;
    const result = await planInit(memoryFiles(files));
    if (!result.ok) throw new Error("there is one");
    const { books } = JSON.parse(result.plan.changes[0]?.after ?? "{}") as { books: object[] };
    expect(books).toMatchObject([{ files: "src/t/{locale}.json", code: ["src/**/*.ts"] }]);
  });

  test("a folder in which most files of each locale are programs", async () => {
    const program = (word: string) => `<?php\nswitch ($text) {\ncase "Boot": $text = "${word}"; break;\n}\n`;
    const files = Object.fromEntries(
      ["en", "es"].flatMap((locale) => [
        ...names.map((name) => [`lang/${locale}/${name}.php`, program(`${locale} boat`)]),
        [`lang/${locale}/quay.php`, '<?php\n$texts = array("a" => "Boat", "b" => "Pier", "c" => "Quay");\n'],
      ]),
    ) as Record<string, string>;
    const result = await planInit(memoryFiles(files));
    if (!result.ok) throw new Error("there is one");
    expect(result.plan.grounds.join("\n")).toContain("No catalogs found");
  });
});

test("code that asks one book for its texts is that one's, but for what stands beside another", async () => {
  const files = {
    "src/lang/en.json": JSON.stringify({ title: "Boats", open: "Open", close: "Close" }),
    "src/lang/de.json": JSON.stringify({ title: "Boote", open: "Offen", close: "Zu" }),
    "src/parts/Crop/texts/all.json": JSON.stringify({
      en: { save: "Save", turn: "Turn" },
      de: { save: "Sichern", turn: "Drehen" },
    }),
    "src/parts/Crop/index.js": "export const crop = (lang) => lang.save + lang.turn;\n",
    "src/a.js": 'export const a = () => t("title") + t("open") + t("close");\n',
    "src/parts/b.js": 'export const b = () => alert("The boat has left");\n',
  };
  const result = await planInit(memoryFiles(files));
  if (!result.ok) throw new Error("there is one");
  const text = result.plan.changes[0]?.after ?? "";
  const { books } = JSON.parse(text) as { books: ProposedBook[] };
  expect(books.map(({ code }) => code)).toEqual([["src/**/*.js"], []]);
  const opened = openProject(memoryFiles({ ...files, "fond.config.json": text }));
  if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
  const { changes } = await extractProject(opened.project);
  expect(changes.map(({ file }) => file).sort()).toEqual(["src/lang/en.json", "src/parts/b.js"]);
});

describe("programs of PHP under endings that others use as well", () => {
  test.each<[string, boolean]>([
    ["<?php\nfunction moor() {\n  echo say('Boats are late');\n}\n", true],
    ["; boats of the assembler\n  mov ax, 1\n", false],
  ])("%j", async (text, is) => {
    const { code } = await proposed({ "quay/boats.inc": text, "quay/a.php": "<?php echo 'Our boats';\n" });
    expect(code.join()).toBe(is ? "quay/**/*.{inc,php}" : "quay/**/*.php");
    const after = await moved({
      "quay/boats.inc": text,
      "quay/a.php": `<?php\n${many((at) => `echo __("Boat number ${at}");`)}\n`,
      "quay/b.inc": "<?php\nfunction b() {\n  echo 'Our boats left';\n}\n",
    });
    expect(after["quay/b.inc"]).toContain('echo __("Our boats left");');
    expect(after["quay/boats.inc"]).toBeUndefined();
  });
});

test("a text of several lines is written as its language has them", async () => {
  const asked = many((at) => `  puts _('Boat number ${at}')`);
  const after = await moved({
    "quay/a.php": `<?php\n${many((at) => `echo _('Boat number ${at}');`)}\nfunction f() {\n  echo "The boats\n  left late";\n}\n`,
    "quay/a.rb": `def a\n${asked}\n  flash[:notice] = "The boats\n  left early"\nend\n`,
  });
  expect(after["quay/a.php"]).toContain("echo _('The boats\n  left late');");
  expect(after["quay/a.rb"]).toContain("= _('The boats\n  left early')");
});

test("attributes ask the lookup that they mostly ask", async () => {
  const after = await moved({
    "quay/a.php": [
      "<?php",
      many((at) => `echo __('Boat number ${at}');`),
      many((at) => `echo "<b title='" . __esc('Pier number ${at}') . "'></b>";`),
      many((at) => `echo __('Crew number ${at}');`),
      many((at) => `echo __('Mate number ${at}');`),
      "?>",
      many((at) => `<b title="<?php print __esc('Quay number ${at}'); ?>"></b>`),
    ].join("\n"),
    "quay/b.php": "<b title='All boats'>Our boats</b><?php echo '<b title=\"More boats\"></b>'; ?>\n",
  });
  expect(after["quay/b.php"]).toBe(
    `<b title='<?= __esc("All boats") ?>'><?= __('Our boats') ?></b><?php echo '<b title="' . __esc('More boats') . '"></b>'; ?>\n`,
  );
});

test("a bare mark of pages asks for the texts of elements where these are keys of the catalog", async () => {
  const texts = Array.from({ length: 30 }, (_, at) => `Boat number ${at} of the harbor`);
  const files = {
    "t/en.json": JSON.stringify(
      Object.fromEntries([...texts, "Never asked for"].map((text) => [text, text])),
    ),
    "t/de.json": JSON.stringify({ [texts[0] ?? ""]: "Boot 0" }),
    "quay/a.html": `${texts.map((text) => `<p translate>\n  ${text.replace(" of ", "\n  of ")}\n</p>`).join("\n")}\n<b translate>Our boats</b>`,
    "quay/a.js": texts
      .slice(0, 8)
      .map((text) => `desk.say("${text}");`)
      .join("\n"),
  };
  const result = await planInit(memoryFiles(files));
  if (!result.ok) throw new Error("there is one");
  expect(result.plan.grounds.join("\n")).toContain("translate marks the texts of templates");
  const opened = openProject(
    memoryFiles({ ...files, "fond.config.json": result.plan.changes[0]?.after ?? "" }),
  );
  if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
  const unused = (await lintProject(opened.project)).filter(({ rule }) => rule === "key/unused");
  expect(unused.map(({ key }) => key)).toEqual(["Never asked for"]);
  const { changes } = await extractProject(opened.project);
  expect(changes.map(({ file }) => file)).not.toContain("quay/a.html");
});
