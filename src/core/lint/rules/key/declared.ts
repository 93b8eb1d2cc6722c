import { declaredDifferences } from "../../../reconcile/declared.js";
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
    for (const { catalog, declared, undefined: missing, undeclared } of declaredDifferences(context.book)) {
      for (const { path, member } of missing) {
        const key = path.join(catalog.separator);
        const data = { key, file: catalog.file };
        context.reportCode(declared, member.nameSpan, "undefined", data, { key, severity: "error" });
      }
      for (const entry of undeclared)
        context.report(catalog, entry, "undeclared", { key: entry.key, file: declared.file }, { on: "key" });
    }
  },
});
