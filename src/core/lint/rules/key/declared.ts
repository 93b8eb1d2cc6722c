import { declaredDifferences } from "../../../catalog/declared-differences.js";
import { defineRule } from "../../rule.js";

export const keyDeclared = defineRule({
  id: "key/declared",
  level: "warning",
  summary: "Text that a file of types declares and the source lacks, or the other way round.",
  why: "A program whose texts are declared in a `.d.ts` compiles with a text that is not there (an error, since users read `undefined`), and does not with one that is not declared. Only checked in books that set `declared`.",
  messages: {
    undefined: {
      message: 'declared text "{key}" is not defined in {file}',
      remedy: "write the text, or remove the declaration; `fond reconcile --write` adds it, empty",
    },
    "no-types": {
      message: "{file} declares no texts that can be read",
      remedy: 'set "declared" in the book to the file that does, or close its braces',
    },
    nowhere: {
      message: 'declared text "{key}" is not defined in any of {files}',
      remedy: "write the text, or remove the declaration",
    },
    undeclared: {
      message: 'text "{key}" is not declared in {file}',
      remedy: "declare it, or remove the text; `fond reconcile --write` declares it",
    },
  },
  examples: {
    bad: [
      {
        source: { title: "Quay" },
        target: { title: "Kai" },
        declared: "export interface Texts { title: string; open: string }",
        note: "`open` is not defined",
      },
      {
        source: { title: "Quay", open: "Open" },
        target: { title: "Kai", open: "Offen" },
        declared: "export interface Texts { title: string }",
        note: "`open` is not declared",
      },
    ],
    good: [
      {
        source: { title: "Quay" },
        target: { title: "Kai" },
        declared: "export interface Texts { title: string }",
      },
    ],
  },
  applies: ({ book }) => book.config.declared !== undefined,
  book(context) {
    for (const { file, group } of context.book.declarations())
      if (!group) context.reportFile(file, "no-types", { file });
    for (const { declared, undefined: missing, undeclared } of declaredDifferences(context.book)) {
      const [only, ...others] = declared.catalogs;
      const files = declared.catalogs.map(({ file }) => file).join(", ");
      for (const { path, member } of only ? missing : []) {
        const key = path.join(only?.separator ?? ".");
        const more = { key, severity: "error" as const };
        if (others.length > 0) context.reportCode(declared, member.nameSpan, "nowhere", { key, files }, more);
        else context.reportCode(declared, member.nameSpan, "undefined", { key, file: files }, more);
      }
      for (const { catalog, entry } of undeclared)
        context.report(catalog, entry, "undeclared", { key: entry.key, file: declared.file }, { on: "key" });
    }
  },
});
