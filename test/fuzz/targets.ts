import { mergeCatalogs } from "../../src/core/catalog/merge.js";
import { formatOf } from "../../src/core/catalog/formats/index.js";
import { formatNames, type FormatName } from "../../src/core/config/names.js";
import { messageSyntaxNames, pluralFormNames } from "../../src/core/message/names.js";
import { memoryFiles } from "../../src/core/files/memory-files.js";
import { mergeLedgers } from "../../src/core/ledger/merge.js";
import { recover } from "../../src/core/plan/apply.js";
import { unifiedDiff } from "../../src/core/plan/diff.js";
import { previewProject } from "../../src/core/project/preview.js";
import { balanceProject, openProject } from "../../src/core/project/project.js";
import { extractProject } from "../../src/core/project/extract-project.js";
import { fixProject, lintProject } from "../../src/core/project/lint-project.js";
import { reconcileProject } from "../../src/core/project/reconcile-project.js";
import { surveyProject } from "../../src/core/project/survey-project.js";
import { readDiff } from "../../src/disk/git.js";

/** Something that reads text from outside. It must come back, without throwing, in time in proportion to the text. */
export interface FuzzTarget {
  readonly name: string;
  /** The endings of the corpus files that it starts from. */
  readonly corpus: readonly string[];
  /** Pieces that mean something to it, to be put in anywhere. */
  readonly tokens: readonly string[];
  run(text: string): void | Promise<void>;
}

const codeEndings =
  "tsx ts js cjs vue svelte html erb ejs jsp php blade.php hbs jinja py rb java go cs".split(" ");
const day = "2031-05-04";
const marks = [
  "<<<<<<< ours\n",
  "=======\n",
  ">>>>>>> theirs\n",
  "\uFEFF",
  "\0",
  "\r",
  "\r\n",
  "\u2028",
  "\ud800",
];

interface Settings {
  readonly book?: object;
  readonly more?: object;
  readonly files: Readonly<Record<string, string>>;
}

/** Everything that commands do with a project, one after the other. */
async function useProject({ book = {}, more = {}, files }: Settings): Promise<void> {
  const config = {
    source: "en",
    targets: ["de", "ar"],
    books: [{ name: "app", files: "t/{locale}.json", code: ["src/**"], ...book }],
    ...more,
  };
  const opened = openProject(
    memoryFiles({ "fond.config.json": JSON.stringify(config), ...files }),
    undefined,
    day,
  );
  if (!opened.ok) return;
  const { project } = opened;
  await lintProject(project);
  await fixProject(project);
  for (const change of reconcileProject(project, {}, day).changes) unifiedDiff(change);
  balanceProject(project);
  previewProject(project, {}, ["**"]);
}

const formatTarget = (format: FormatName): FuzzTarget => {
  const ending =
    { jsonc: "json", json5: "json", script: "js", python: "py", ruby: "rb" }[format as string] ?? format;
  return {
    name: `catalog ${format}`,
    corpus: [`.${ending}`],
    tokens: [
      ...marks,
      ...'{ } [ ] : , " \' \\ \\u0041 \\ud83d # // /* */ - ? & * << ! | > | |2- >+ = ; key: "k": &a *a null true .5 0x1 "" % @ ` ---'.split(
        " ",
      ),
      "\n",
      "\n  ",
      "\t",
      '"a": "b"',
      "\na: b",
      ..."=> array( ) <?php return module.exports = export default const x = function () { `x${ <<<E $a ... /[/".split(
        " ",
      ),
    ],
    async run(text) {
      const reader = formatOf({ files: "t/{locale}.json", format });
      const content = reader.read(text, ".");
      if (content.problems.length === 0) {
        const [first] = content.entries;
        const edited = reader.edit(text, {
          ...(first?.kind === "text" &&
            !first.isInherited && { set: [{ path: first.path, text: 'x "y" \n z' }] }),
          add: [{ path: ["fuzzed key"], text: "a: b # c" }],
        });
        reader.read(edited, ".");
      }
      mergeCatalogs(reader, text, text.replace("a", "b"), text.replace("e", "f"));
      const name = `t/{locale}.${format}`;
      await useProject({
        book: { files: name, format, code: [], plurals: pluralFormNames[text.length % 4] },
        files: { [`t/en.${format}`]: text, [`t/de.${format}`]: text.slice(0, text.length / 2) },
      });
    },
  };
};

const syntaxTarget = (syntax: (typeof messageSyntaxNames)[number]): FuzzTarget => ({
  name: `message ${syntax}`,
  corpus: [".message"],
  tokens: [
    ...marks,
    ..."{ } {{ }} # ' '' | \\ < > </ /> <b> {n} {0} {n, plural, one {#} other {#}} {n, select, a {x} other {y}} {n,number,#,##0.00} {0,choice,0#a|1<b} %s %1$s %d %(n)s %{n} :name =1 offset:1 .input .match .local $n :number @attr 0 5 99999999999999999999 é 漢 م".split(
      " ",
    ),
    " ",
    "\n",
    "{n, date, ::yMMMd}",
  ],
  async run(text) {
    const half = text.slice(0, text.length / 2);
    const plurals = pluralFormNames[text.length % pluralFormNames.length];
    await useProject({
      book: { syntax, plurals, code: [] },
      files: {
        "t/en.json": JSON.stringify({ a: text, b: "Hi", c_one: half, c_other: text }),
        "t/de.json": JSON.stringify({ a: half, b: text, c_one: text, c_other: text }),
        "t/ar.json": JSON.stringify({ a: `${text} ${half}`, b: text }),
      },
    });
  },
});

const codeTarget = (ending: string): FuzzTarget => ({
  name: `code .${ending}`,
  corpus: [`.${ending}`],
  tokens: [
    ...marks,
    ...'( ) { } [ ] < > </p> <p> <b>x</b> "Hello there" \'it\' ` ${x} \\ // /* */ # <!-- --> <% %> <%= {{ }} {% %} {# #} <?php ?> <?= {x} {#if} @if( => ; , : . = == ? && || t("a.b") <script> </script> <style> onclick=" title="Big boat" %s {0} f"{x}" :sym #{x} fond:'.split(
      " ",
    ),
    " ",
    "\n",
    " fond: skip ",
  ],
  async run(text) {
    const files = {
      "t/en.json": '{ "a": { "b": "Hello" } }',
      [`src/page.${ending}`]: text,
    };
    const config = {
      source: "en",
      targets: ["de"],
      books: [
        {
          name: "app",
          files: "t/{locale}.json",
          code: ["src/**"],
          lookups: [{ call: "t" }, { filter: "text" }],
        },
      ],
    };
    const opened = openProject(
      memoryFiles({ "fond.config.json": JSON.stringify(config), ...files }),
      undefined,
      day,
    );
    if (!opened.ok) throw new Error("the fuzzed project has a configuration that is wrong");
    await surveyProject(opened.project, {}, { all: true });
    const { changes } = await extractProject(opened.project, {}, { least: "unclear" });
    for (const change of changes) unifiedDiff(change);
    await lintProject(opened.project);
  },
});

const own: readonly FuzzTarget[] = [
  ...["json", "yaml"].map((ending): FuzzTarget => ({
    name: `configuration ${ending}`,
    corpus: [`.config.${ending}`],
    tokens: [
      ...marks,
      ...'{ } [ ] : , " "source" "targets" "books" "name" "files" "{locale}" "code" "lookups" "**" "rules" "levels" "only" "naming" null 1e9 true & * - // #'.split(
        " ",
      ),
      "\n",
    ],
    async run(text) {
      const files = memoryFiles({
        [`fond.config.${ending}`]: text,
        "t/en.json": '{ "a": "One" }',
        "t/de.json": "{}",
      });
      const opened = openProject(files, undefined, day);
      if (!opened.ok) return;
      // Whatever it says, commands must cope with it; code is not read, as its patterns may match anything.
      const { project } = opened;
      const books = project.config.books.map((book) => ({ ...book, code: [] }));
      await lintProject({ ...project, config: { ...project.config, books } });
      reconcileProject(project, {}, day);
      balanceProject(project);
    },
  })),
  {
    name: "waivers",
    corpus: [".waivers.json"],
    tokens: [...marks, ...'{ } [ ] , : " "rule" "key" "**" "literal" "until" "reason" 1 null'.split(" ")],
    run: (text) => useProject({ files: { "fond.waivers.json": text, "t/en.json": '{ "a": "One" }' } }),
  },
  {
    name: "ledger",
    corpus: [".ledger.txt"],
    tokens: [...marks, "\t", "\n", "\\t", "# Fond Ledger 1", "translated", "person", "2031-01-02"],
    async run(text) {
      mergeLedgers(text, text.replace("a", "b"), text.slice(0, text.length / 2));
      recover(memoryFiles({ ".fond-journal.json": text }));
      await useProject({
        book: { code: [] },
        files: {
          "fond-ledger/app.de.txt": text,
          "fond-ledger/app.de.attic.txt": text,
          "fond-ledger/app.sources.txt": text,
          "t/en.json": '{ "a": "One" }',
          "t/de.json": '{ "a": "Eins" }',
        },
      });
    },
  },
  ...["terms.csv", "tbx"].map((ending): FuzzTarget => ({
    name: `glossary ${ending}`,
    corpus: [`.${ending}`],
    tokens: [
      ...marks,
      ...'< > </ /> "" , ; | <term> </term> <conceptEntry> <langSec xml:lang="de"> &amp; &#x0; en de'.split(
        " ",
      ),
      "\n",
    ],
    run: (text) =>
      useProject({
        book: { code: [] },
        more: { glossary: ending === "tbx" ? "terms.tbx" : "terms.csv" },
        files: {
          [ending === "tbx" ? "terms.tbx" : "terms.csv"]: text,
          "t/en.json": '{ "a": "The sailing leaves from the berth" }',
          "t/de.json": '{ "a": "Die Abfahrt ist am Liegeplatz" }',
        },
      }),
  })),
  {
    name: "diff",
    corpus: [".diff"],
    tokens: [...marks, "@@ -1 +1,2 @@", "+++ b/", "--- a/", "diff --git ", '"b/\\303"', "\n", "+", "-"],
    run: (text) => void readDiff(text),
  },
];

export const fuzzTargets: readonly FuzzTarget[] = [
  ...formatNames.map(formatTarget),
  ...messageSyntaxNames.map(syntaxTarget),
  ...codeEndings.map(codeTarget),
  ...own,
];
