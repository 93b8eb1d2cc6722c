import { chooses, type Line, type Part } from "./model.js";

/** A language or template engine: how it writes a text, and what runs it. */
export interface Host {
  readonly name: string;
  /** The file whose texts are extracted. */
  readonly file: string;
  /** The program that runs it, or the package of a registry. */
  readonly needs: { readonly command: string } | { readonly packages: readonly string[] };
  /** Signs that texts of its lines may hold; all where not given. */
  readonly signs?: readonly string[];
  /** Whether blanks count as one, as in pages. */
  readonly isPage?: true;
  /** The code of a line, numbered from 0. */
  line(line: Line, at: number): string;
  /** The file around its lines. */
  whole(lines: readonly string[]): string;
  /** What runs the file with all values: the files that it needs, and the command. It prints JSON: a list of outputs by values, each a list by line. */
  readonly runner: { readonly files: Readonly<Record<string, string>>; readonly args: readonly string[] };
  /** How the book writes lookups, where its defaults are not meant. */
  readonly emit?: object;
}

/** How a language of code writes the pieces of a text. */
interface Spelling {
  readonly quote: (text: string) => string;
  /** A string with values in it: its marks, the escapes of its words, and how a value stands in it. */
  readonly inside?: {
    readonly open: string;
    readonly close: string;
    readonly words: (text: string) => string;
    readonly value: (code: string) => string;
  };
  readonly plus: string;
  readonly name: string;
  readonly count: string;
  /** The count as text, where it must be made one to be joined. */
  readonly countText: string;
  readonly isOne: string;
  readonly late: string;
  readonly choose: (condition: string, then: string, otherwise: string) => string;
  readonly pattern?: (pattern: string, values: readonly string[]) => string;
}

function expression(spelling: Spelling, { parts, style }: Line): string {
  const { inside, pattern } = spelling;
  const valueOf = (part: Part): string => {
    switch (part.kind) {
      case "words":
        return spelling.quote(part.text);
      case "name":
        return spelling.name;
      case "count":
        return spelling.count;
      case "late":
        return spelling.choose(
          spelling.late,
          written(part.then, "joined"),
          written(part.otherwise, "joined"),
        );
      case "plural":
        return spelling.choose(spelling.isOne, written(part.one, "joined"), written(part.other, "joined"));
    }
  };
  const joinable = (part: Part) =>
    part.kind === "count"
      ? spelling.countText
      : part.kind === "late" || part.kind === "plural"
        ? `(${valueOf(part)})`
        : valueOf(part);
  const written = (all: readonly Part[], how: Line["style"]): string => {
    if (how === "inside" && inside)
      return `${inside.open}${all.map((part) => (part.kind === "words" ? inside.words(part.text) : inside.value(valueOf(part)))).join("")}${inside.close}`;
    if (how === "pattern" && pattern && !chooses(all)) {
      const values = all.flatMap((part) => (part.kind === "words" ? [] : [valueOf(part)]));
      if (values.length > 0)
        return pattern(
          all
            .map((part) =>
              part.kind === "words" ? part.text.replaceAll("%", "%%") : part.kind === "count" ? "%d" : "%s",
            )
            .join(""),
          values,
        );
    }
    // What is joined first must be a text.
    const joined = all.map(joinable).join(` ${spelling.plus} `);
    return all[0]?.kind === "words" || spelling.plus !== "+" ? joined : `${spelling.quote("")} + ${joined}`;
  };
  return written(parts, style);
}

const json = (text: string) => JSON.stringify(text);
const single = (text: string) => `'${text.replace(/[\\']/g, "\\$&")}'`;

const scriptSpelling: Spelling = {
  quote: json,
  inside: {
    open: "`",
    close: "`",
    words: (text) => text.replace(/[\\`]|\$(?=\{)/g, "\\$&"),
    value: (code) => `\${${code}}`,
  },
  plus: "+",
  name: "name",
  count: "count",
  countText: "count",
  isOne: "count === 1",
  late: "late",
  choose: (condition, then, otherwise) => `${condition} ? ${then} : ${otherwise}`,
};

const rubySpelling: Spelling = {
  quote: (text) => single(text),
  inside: {
    open: '"',
    close: '"',
    words: (text) => text.replace(/[\\"]|#(?=[{$@])/g, "\\$&"),
    value: (code) => `#{${code}}`,
  },
  plus: "+",
  name: "name",
  count: "count",
  countText: "count.to_s",
  isOne: "count == 1",
  late: "late",
  choose: (condition, then, otherwise) => `${condition} ? ${then} : ${otherwise}`,
  pattern: (pattern, values) => `format(${single(pattern)}, ${values.join(", ")})`,
};

const phpSpelling: Spelling = {
  quote: single,
  inside: {
    open: '"',
    close: '"',
    words: (text) => text.replace(/[\\"$]/g, "\\$&"),
    value: (code) => `{${code}}`,
  },
  plus: ".",
  name: "$name",
  count: "$count",
  countText: "$count",
  isOne: "$count === 1",
  late: "$late",
  choose: (condition, then, otherwise) => `${condition} ? ${then} : ${otherwise}`,
  pattern: (pattern, values) => `sprintf(${single(pattern)}, ${values.join(", ")})`,
};

const pythonSpelling: Spelling = {
  quote: json,
  plus: "+",
  name: "name",
  count: "count",
  countText: "str(count)",
  isOne: "count == 1",
  late: "late",
  choose: (condition, then, otherwise) => `${then} if ${condition} else ${otherwise}`,
  pattern: (pattern, values) => `${json(pattern)} % (${values.join(", ")},)`,
};

const javaSpelling: Spelling = {
  quote: json,
  plus: "+",
  name: "name",
  count: "count",
  countText: "count",
  isOne: "count == 1",
  late: "late",
  choose: (condition, then, otherwise) => `${condition} ? ${then} : ${otherwise}`,
  pattern: (pattern, values) => `String.format(${json(pattern)}, ${values.join(", ")})`,
};

/** Strings of PHP and Ruby with values in them hold variables and calls alone, so words that code chooses are joined. */
function withoutChoicesInside(line: Line): Line {
  return line.style === "inside" && chooses(line.parts) ? { ...line, style: "joined" } : line;
}

/** How a template language writes what stands between tags, or in an attribute's value. */
interface Marks {
  readonly name: string;
  readonly count: string;
  readonly block: (condition: "late" | "one", then: string, otherwise: string) => string;
  readonly escape?: (words: string) => string;
}

function content(marks: Marks, parts: readonly Part[]): string {
  return parts
    .map((part): string => {
      switch (part.kind) {
        case "words":
          return (marks.escape ?? ((text: string) => text.replaceAll("&", "&amp;")))(part.text);
        case "name":
          return marks.name;
        case "count":
          return marks.count;
        case "late":
          return marks.block("late", content(marks, part.then), content(marks, part.otherwise));
        case "plural":
          return marks.block("one", content(marks, part.one), content(marks, part.other));
      }
    })
    .join("");
}

/** A line of a page: a text between tags, and every third an attribute, without words that are chosen by blocks. */
function pageLine(marks: Marks): Host["line"] {
  return ({ parts }, at) =>
    at % 3 === 2 && !chooses(parts)
      ? `<p data-line="${at}"><img alt="${content(marks, parts).replaceAll('"', "&quot;")}"></p>`
      : `<p data-line="${at}">${content(marks, parts)}</p>`;
}

const scriptLookup = `globalThis.t = (key, values = {}) => "@@" + Buffer.from(JSON.stringify([key, values])).toString("hex") + "@@";\n`;
const valuesInScript = `const all = [];
for (const name of ["Ines", "O'Hara & Söhne {x} <b>"]) for (const count of [0, 1, 2, 5]) for (const late of [true, false]) all.push({ name, count, late });
`;
const pageSigns = ["'", "%", "|", "#", "$", "&", "…"];

/** Prints what a page shows, part by part. */
const printPages = `const partsOf = (page) => page.split(/(?=<p data-line=)/).filter((part) => part.startsWith("<p data-line"));
`;

const rubyValues = `require "json"
def t(key, **values) = "@@" + JSON.generate([key, values]).unpack1("H*") + "@@"
ALL = ["Ines", "O'Hara & Söhne {x} <b>"].product([0, 1, 2, 5], [true, false])
`;

export const hosts: readonly Host[] = [
  {
    name: "JavaScript",
    file: "page.mjs",
    needs: { command: "node" },
    line: (line, at) =>
      `export function line${at}(name, count, late) { return showMessage(${expression(scriptSpelling, line)}); }`,
    whole: (all) => `const showMessage = (text) => text;\n${all.join("\n")}\n`,
    emit: { call: 't("{key}"{args})' },
    runner: {
      args: ["node", "run.mjs"],
      files: {
        "run.mjs": `${scriptLookup}${valuesInScript}const page = await import("./page.mjs");
const names = Object.keys(page).sort((a, b) => a.slice(4) - b.slice(4));
console.log(JSON.stringify(all.map(({ name, count, late }) => names.map((one) => page[one](name, count, late)))));
`,
      },
    },
  },
  {
    name: "JSX",
    file: "page.jsx",
    needs: { packages: ["typescript"] },
    isPage: true,
    signs: pageSigns,
    line: (line, at) =>
      at % 2 === 0
        ? `export const Line${at} = ({ name, count, late }) => <p>${content(
            {
              name: "{name}",
              count: "{count}",
              block: (condition, then, otherwise) =>
                `{${condition === "late" ? "late" : "count === 1"} ? <>${then}</> : <>${otherwise}</>}`,
            },
            line.parts,
          )}</p>;`
        : `export const Line${at} = ({ name, count, late }) => <img alt={${expression(scriptSpelling, line)}} />;`,
    whole: (all) => `${all.join("\n")}\n`,
    emit: { call: 't("{key}"{args})' },
    runner: {
      args: ["node", "run.mjs"],
      files: {
        "run.mjs": `import { readFileSync, writeFileSync } from "node:fs";
import { createRequire } from "node:module";
${scriptLookup}${valuesInScript}const ts = createRequire(import.meta.url)("typescript");
const flat = (child) => (Array.isArray(child) ? child.map(flat).join("") : child === null || child === undefined || child === false || child === true ? "" : String(child));
globalThis.Frag = "";
globalThis.h = (tag, given, ...children) => tag === "" ? flat(children) : "<" + tag + Object.entries(given ?? {}).map(([key, value]) => " " + key + "=" + value).join("") + ">" + flat(children) + "</" + tag + ">";
const { outputText } = ts.transpileModule(readFileSync("page.jsx", "utf8"), { fileName: "page.jsx", compilerOptions: { jsx: 2, jsxFactory: "h", jsxFragmentFactory: "Frag", module: "esnext", target: "es2022" } });
writeFileSync("made.mjs", outputText);
const page = await import("./made.mjs");
const names = Object.keys(page).sort((a, b) => a.slice(4) - b.slice(4));
console.log(JSON.stringify(all.map((values) => names.map((one) => page[one](values)))));
`,
      },
    },
  },
  {
    name: "Vue",
    file: "page.vue",
    needs: { packages: ["vue", "@vue/server-renderer"] },
    isPage: true,
    signs: pageSigns,
    line: (line, at) =>
      at % 3 === 1
        ? `<p data-line="${at}"><img :alt='${expression({ ...scriptSpelling, quote: (text) => json(text).replaceAll("&", "&amp;").replaceAll("'", "&#39;") }, { ...line, style: "joined" })}'></p>`
        : // Values stand in no plain attribute there.
          pageLine({
            name: "{{ name }}",
            count: "{{ count }}",
            block: (condition, then, otherwise) =>
              `<span v-if="${condition === "late" ? "late" : "count === 1"}">${then}</span><span v-else>${otherwise}</span>`,
          })(line, at % 3 === 2 && line.parts.every(({ kind }) => kind === "words") ? at : 0).replace(
            /data-line="\d+"/,
            `data-line="${at}"`,
          ),
    whole: (all) => `<template>\n<div>\n${all.join("\n")}\n</div>\n</template>\n`,
    emit: { call: 't("{key}"{args})' },
    runner: {
      args: ["node", "run.mjs"],
      files: {
        "run.mjs": `import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
${scriptLookup}${valuesInScript}${printPages}const require = createRequire(import.meta.url);
const { createSSRApp } = require("vue");
const { renderToString } = require("@vue/server-renderer");
const template = /<template>([^]*)<\\/template>/.exec(readFileSync("page.vue", "utf8"))[1];
const out = [];
for (const values of all) {
  const app = createSSRApp({ template, data: () => values });
  app.config.globalProperties.t = t;
  out.push(partsOf((await renderToString(app)).replace(/<!--[^]*?-->/g, "")));
}
console.log(JSON.stringify(out));
`,
      },
    },
  },
  {
    name: "Svelte",
    file: "page.svelte",
    needs: { packages: ["svelte"] },
    isPage: true,
    signs: pageSigns,
    line: (line, at) =>
      at % 3 === 1
        ? `<p data-line="${at}"><img alt={${expression(scriptSpelling, line)}}></p>`
        : pageLine({
            name: "{name}",
            count: "{count}",
            block: (condition, then, otherwise) =>
              `{#if ${condition === "late" ? "late" : "count === 1"}}${then}{:else}${otherwise}{/if}`,
          })(line, at),
    whole: (all) =>
      `<script>\n  export let name;\n  export let count;\n  export let late;\n</script>\n\n<div>\n${all.join("\n")}\n</div>\n`,
    emit: { call: 't("{key}"{args})' },
    runner: {
      args: ["node", "run.mjs"],
      files: {
        "run.mjs": `import { readFileSync, writeFileSync } from "node:fs";
import { compile } from "svelte/compiler";
import { render } from "svelte/server";
${scriptLookup}${valuesInScript}${printPages}const { js } = compile(readFileSync("page.svelte", "utf8"), { generate: "server" });
writeFileSync("made.mjs", js.code);
const page = (await import("./made.mjs")).default;
console.log(JSON.stringify(all.map((props) => partsOf(render(page, { props }).body.replace(/<!--[^]*?-->/g, "")))));
`,
      },
    },
  },
  {
    name: "EJS",
    file: "page.ejs",
    needs: { packages: ["ejs"] },
    isPage: true,
    signs: pageSigns,
    line: (line, at) =>
      at % 3 === 1
        ? `<p data-line="${at}"><%= ${expression(scriptSpelling, line)} %></p>`
        : pageLine({
            name: "<%= name %>",
            count: "<%= count %>",
            block: (condition, then, otherwise) =>
              `<% if (${condition === "late" ? "late" : "count === 1"}) { %>${then}<% } else { %>${otherwise}<% } %>`,
          })(line, at),
    whole: (all) => `<main>\n${all.join("\n")}\n</main>\n`,
    runner: {
      args: ["node", "run.mjs"],
      files: {
        "run.mjs": `import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
${scriptLookup}${valuesInScript}${printPages}const ejs = createRequire(import.meta.url)("ejs");
const page = readFileSync("page.ejs", "utf8");
console.log(JSON.stringify(all.map((values) => partsOf(ejs.render(page, { ...values, t })))));
`,
      },
    },
  },
  {
    name: "Handlebars",
    file: "page.hbs",
    needs: { packages: ["handlebars"] },
    isPage: true,
    signs: ["'", "%", "|", "#", "$", "&", "…"],
    line: pageLine({
      name: "{{name}}",
      count: "{{count}}",
      block: (condition, then, otherwise) =>
        `{{#if ${condition === "late" ? "late" : "isOne"}}}${then}{{else}}${otherwise}{{/if}}`,
    }),
    whole: (all) => `<main>\n${all.join("\n")}\n</main>\n`,
    emit: { content: '{{t "{key}"{args}}}' },
    runner: {
      args: ["node", "run.mjs"],
      files: {
        "run.mjs": `import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
${scriptLookup}${valuesInScript}${printPages}const engine = createRequire(import.meta.url)("handlebars");
engine.registerHelper("t", (key, { hash }) => t(key, hash));
const page = engine.compile(readFileSync("page.hbs", "utf8"));
console.log(JSON.stringify(all.map((values) => partsOf(page({ ...values, isOne: values.count === 1 })))));
`,
      },
    },
  },
  {
    name: "Nunjucks",
    file: "page.njk",
    needs: { packages: ["nunjucks"] },
    isPage: true,
    signs: pageSigns,
    line: pageLine({
      name: "{{ name }}",
      count: "{{ count }}",
      block: (condition, then, otherwise) =>
        `{% if ${condition === "late" ? "late" : "count == 1"} %}${then}{% else %}${otherwise}{% endif %}`,
    }),
    whole: (all) => `<main>\n${all.join("\n")}\n</main>\n`,
    emit: { content: '{{ t("{key}"{args}) }}' },
    runner: {
      args: ["node", "run.mjs"],
      files: {
        "run.mjs": `import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
${scriptLookup}${valuesInScript}${printPages}const engine = new (createRequire(import.meta.url)("nunjucks").Environment)(null, { autoescape: true });
engine.addGlobal("t", (key, { __keywords, ...values } = {}) => t(key, values));
const page = readFileSync("page.njk", "utf8");
console.log(JSON.stringify(all.map((values) => partsOf(engine.renderString(page, values)))));
`,
      },
    },
  },
  {
    name: "Jinja",
    file: "page.jinja",
    needs: { command: "python3" },
    isPage: true,
    signs: pageSigns,
    line: (line, at) =>
      at % 3 === 1
        ? `<p data-line="${at}">{{ ${expression({ ...pythonSpelling, plus: "~", countText: "count" }, { ...line, style: "joined" })} }}</p>`
        : pageLine({
            name: "{{ name }}",
            count: "{{ count }}",
            block: (condition, then, otherwise) =>
              `{% if ${condition === "late" ? "late" : "count == 1"} %}${then}{% else %}${otherwise}{% endif %}`,
          })(line, at),
    whole: (all) => `<main>\n${all.join("\n")}\n</main>\n`,
    runner: {
      args: ["python3", "run.py"],
      files: {
        "run.py": `import itertools, json, re
from jinja2 import Environment
engine = Environment(autoescape=True)
engine.globals["t"] = lambda key, **values: "@@" + json.dumps([key, {k: str(v) if not isinstance(v, (int, float)) else v for k, v in values.items()}]).encode().hex() + "@@"
page = engine.from_string(open("page.jinja", encoding="utf-8").read())
out = []
for name, count, late in itertools.product(["Ines", "O'Hara & Söhne {x} <b>"], [0, 1, 2, 5], [True, False]):
    out.append(re.findall(r"<p data-line=.*?</p>", page.render(name=name, count=count, late=late), re.S))
print(json.dumps(out))
`,
      },
    },
  },
  {
    name: "ERB",
    file: "page.html.erb",
    needs: { command: "ruby" },
    isPage: true,
    signs: pageSigns,
    line: (line, at) =>
      at % 3 === 1
        ? `<p data-line="${at}"><%= ${expression(rubySpelling, line)} %></p>`
        : pageLine({
            name: "<%= name %>",
            count: "<%= count %>",
            block: (condition, then, otherwise) =>
              `<% if ${condition === "late" ? "late" : "count == 1"} %>${then}<% else %>${otherwise}<% end %>`,
          })(line, at),
    whole: (all) => `<main>\n${all.join("\n")}\n</main>\n`,
    runner: {
      args: ["ruby", "run.rb"],
      files: {
        "run.rb": `${rubyValues}require "erb"
page = ERB.new(File.read("page.html.erb", encoding: "utf-8"))
puts JSON.generate(ALL.map { |name, count, late| page.result(binding).scan(/<p data-line=.*?<\\/p>/m) })
`,
      },
    },
  },
  {
    name: "Ruby",
    file: "page.rb",
    needs: { command: "ruby" },
    line: (line, at) =>
      `  def line${at}(name, count, late)\n    message(${expression(rubySpelling, line)})\n  end`,
    whole: (all) => `class Page\n  def message(text)\n    text\n  end\n\n${all.join("\n\n")}\nend\n`,
    runner: {
      args: ["ruby", "run.rb"],
      files: {
        "run.rb": `${rubyValues}require_relative "page"
page = Page.new
names = Page.instance_methods(false).select { |name| name.start_with?("line") }.sort_by { |name| name[4..].to_i }
puts JSON.generate(ALL.map { |values| names.map { |name| page.send(name, *values) } })
`,
      },
    },
  },
  {
    name: "PHP",
    file: "page.php",
    needs: { command: "php" },
    line: (line, at) =>
      `function line${at}($name, $count, $late)\n{\n    return message(${expression(phpSpelling, withoutChoicesInside(line))});\n}`,
    whole: (all) => `<?php\n\nfunction message($text)\n{\n    return $text;\n}\n\n${all.join("\n\n")}\n`,
    runner: {
      args: ["php", "run.php"],
      files: {
        "run.php": `<?php
function t($key, $values = []) { return "@@" . bin2hex(json_encode([$key, (object) $values])) . "@@"; }
require "page.php";
$out = [];
$all = array_values(array_filter(get_defined_functions()["user"], fn($one) => preg_match('/^line\\d+$/', $one)));
usort($all, fn($a, $b) => (int) substr($a, 4) - (int) substr($b, 4));
foreach (["Ines", "O'Hara & Söhne {x} <b>"] as $name) foreach ([0, 1, 2, 5] as $count) foreach ([true, false] as $late)
  $out[] = array_map(fn($one) => $one($name, $count, $late), $all);
echo json_encode($out);
`,
      },
    },
  },
  {
    name: "PHP pages",
    file: "page.phtml",
    needs: { command: "php" },
    isPage: true,
    signs: pageSigns,
    line: (line, at) =>
      at % 3 === 1
        ? `<p data-line="${at}"><?= ${expression(phpSpelling, withoutChoicesInside(line))} ?></p>`
        : pageLine({
            name: "<?= $name ?>",
            count: "<?= $count ?>",
            block: (condition, then, otherwise) =>
              `<?php if (${condition === "late" ? "$late" : "$count === 1"}): ?>${then}<?php else: ?>${otherwise}<?php endif ?>`,
          })(line, at),
    whole: (all) => `<main>\n${all.join("\n")}\n</main>\n`,
    runner: {
      args: ["php", "run.php"],
      files: {
        "run.php": `<?php
function t($key, $values = []) { return "@@" . bin2hex(json_encode([$key, (object) $values])) . "@@"; }
$out = [];
foreach (["Ines", "O'Hara & Söhne {x} <b>"] as $name) foreach ([0, 1, 2, 5] as $count) foreach ([true, false] as $late) {
  ob_start();
  include "page.phtml";
  preg_match_all('/<p data-line=.*?<\\/p>/s', ob_get_clean(), $found);
  $out[] = $found[0];
}
echo json_encode($out);
`,
      },
    },
  },
  {
    name: "Python",
    file: "page.py",
    needs: { command: "python3" },
    line: (line, at) =>
      `def line${at}(name, count, late):\n    return message(${expression(pythonSpelling, line)})`,
    whole: (all) =>
      `from builtins import t\n\n\ndef message(text):\n    return text\n\n\n${all.join("\n\n\n")}\n`,
    runner: {
      args: ["python3", "run.py"],
      files: {
        "run.py": `import builtins, itertools, json
builtins.t = lambda key, **values: "@@" + json.dumps([key, values]).encode().hex() + "@@"
import page
names = sorted((one for one in dir(page) if one.startswith("line")), key=lambda one: int(one[4:]))
out = []
for values in itertools.product(["Ines", "O'Hara & Söhne {x} <b>"], [0, 1, 2, 5], [True, False]):
    out.append([getattr(page, one)(*values) for one in names])
print(json.dumps(out))
`,
      },
    },
  },
  {
    name: "Java",
    file: "Page.java",
    needs: { command: "java" },
    line: (line, at) =>
      `  static String line${at}(String name, int count, boolean late) { return message(${expression(javaSpelling, line)}); }`,
    whole: (all) => `class Page extends Texts {
  static String message(String text) { return text; }
${all.join("\n")}
}
`,
    runner: {
      args: [
        "sh",
        "-c",
        "javac -encoding UTF-8 -d made Texts.java Page.java Run.java && java -Dstdout.encoding=UTF-8 -Dfile.encoding=UTF-8 -cp made Run",
      ],
      files: {
        "Texts.java": `import java.util.*;
class Texts {
  static String quoted(Object value) {
    if (value instanceof Number) return value.toString();
    return "\\"" + String.valueOf(value).replace("\\\\", "\\\\\\\\").replace("\\"", "\\\\\\"").replace("\\n", "\\\\n") + "\\"";
  }
  static String t(String key) { return t(key, Map.of()); }
  static String t(String key, Map<String, ?> values) {
    var all = new StringJoiner(",", "{", "}");
    for (var one : values.entrySet()) all.add(quoted(one.getKey()) + ":" + quoted(one.getValue()));
    var out = new StringBuilder("@@");
    for (var unit : ("[" + quoted(key) + "," + all + "]").getBytes(java.nio.charset.StandardCharsets.UTF_8)) out.append(String.format("%02x", unit));
    return out.append("@@").toString();
  }
}
`,
        "Run.java": `import java.util.*;
class Run {
  public static void main(String[] arguments) throws Exception {
    var methods = new ArrayList<java.lang.reflect.Method>();
    for (var one : Page.class.getDeclaredMethods()) if (one.getName().startsWith("line")) methods.add(one);
    methods.sort(Comparator.comparingInt(one -> Integer.parseInt(one.getName().substring(4))));
    var out = new StringJoiner(",", "[", "]");
    for (var name : List.of("Ines", "O'Hara & Söhne {x} <b>")) for (var count : List.of(0, 1, 2, 5)) for (var late : List.of(true, false)) {
      var all = new StringJoiner(",", "[", "]");
      for (var one : methods) all.add(Texts.quoted(one.invoke(null, name, count, late)));
      out.add(all.toString());
    }
    System.out.println(out);
  }
}
`,
      },
    },
  },
];
