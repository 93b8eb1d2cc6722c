import { loadBook } from "../catalog/book.js";
import type { Config } from "../config/schema.js";
import { memoryFiles } from "../files/memory-files.js";
import { readLedger } from "../ledger/ledger.js";
import { messageReader } from "../message/parse.js";
import { readBookCode } from "../source/book-code.js";
import { digestOf } from "../text/digest.js";
import type { Finding } from "./finding.js";
import { readGlossary } from "./glossary.js";
import { lintBook } from "./lint.js";
import type { Example, Rule } from "./rule.js";

/** Lints the small project that an example shows, with the given rules or all of them. One with code needs its reader prepared. */
export function lintExample(example: Example, rules?: readonly Rule[]): Finding[] {
  const locale = example.locale ?? "de";
  const config: Config = {
    source: "en",
    targets: [locale, ...(example.targets ?? [])],
    ledger: "ledger",
    waivers: "fond.waivers.json",
    rules: {},
    levels: [],
    books: [
      {
        name: "example",
        code: example.code === undefined ? [] : ["code.tsx"],
        ignore: [],
        files: "texts/{locale}.json",
        spelling: "hyphen",
        syntax: "icu",
        plurals: "inline",
        tags: true,
        lookups: [{ call: "t" }, { call: "say", default: 1 }],
        assumed: [],
        dialects: {},
        marked: [],
        emit: {},
        naming: example.naming ? { case: example.naming } : {},
        ...(example.order && { order: example.order }),
        ...(example.limits && { limits: example.limits }),
        ...(example.declared !== undefined && { declared: "./texts.d.ts" }),
        ...(example.leaf !== undefined && { leaf: example.leaf }),
        ...(example.paths && { paths: [...example.paths] }),
        rules: {},
        fill: "source",
        hints: true,
      },
    ],
  };
  const book = config.books[0];
  if (!book) return [];
  const files = memoryFiles(exampleFiles(example, locale));
  const code = book.code.length > 0 ? readBookCode(files, book, config.source) : undefined;
  const glossary = example.glossary === undefined ? undefined : readGlossary(files, "terms.csv");
  const subject = {
    book: loadBook(files, config, book),
    code,
    reader: messageReader(book),
    ...(glossary?.ok && { glossary: glossary.concepts }),
    ledger: (tag: string) => readLedger(files, config.ledger, book.name, tag),
  };
  return lintBook(subject, rules ? { rules } : {});
}

/** The files of an example's project, by path. */
function exampleFiles(example: Example, locale: string): Record<string, string> {
  const source = textsOf(example.source ?? (example.raw ? {} : "Text"));
  const { leaf } = example;
  const held =
    leaf === undefined
      ? source
      : Object.fromEntries(Object.entries(source).map(([key, text]) => [key, { [leaf]: text }]));
  const files: Record<string, string> =
    example.hasSource === false ? {} : { "texts/en.json": JSON.stringify(held, undefined, 2) };
  const target = example.target ?? {};
  if (example.raw && typeof target === "string") files[`texts/${locale}.json`] = target;
  else files[`texts/${locale}.json`] = JSON.stringify(textsOf(target), undefined, 2);
  if (example.glossary !== undefined) files["terms.csv"] = example.glossary;
  if (example.code !== undefined) files["code.tsx"] = example.code;
  if (example.declared !== undefined) files["texts/texts.d.ts"] = example.declared;
  if (example.madeFrom !== undefined && typeof target === "string") {
    const record = [
      "key",
      "translated",
      digestOf(example.madeFrom),
      digestOf(target),
      "person",
      "2026-01-05",
    ];
    files[`ledger/example.${locale}.txt`] = `# Fond Ledger 1\n${record.join("\t")}\n`;
  }
  return files;
}

function textsOf(texts: string | Readonly<Record<string, string>>): Readonly<Record<string, string>> {
  return typeof texts === "string" ? { key: texts } : texts;
}
