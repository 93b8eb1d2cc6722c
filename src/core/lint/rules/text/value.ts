import type { BookConfig } from "../../../config/schema.js";
import type { Entry } from "../../../catalog/model.js";
import { dialectByName } from "../../../source/dialects/index.js";
import { isScript } from "../../../source/readers/script/endings.js";
import { defineRule } from "../../rule.js";

export const textValue = defineRule({
  id: "text/value",
  level: "warning",
  summary: "Number or boolean where a text is expected.",
  why: "Programs show it in their own way (`1.5`, `true`), drop it, or stop. In YAML, an unquoted `yes`, `no`, `on` or `off` is a text to some programs and a boolean to others: put it in quotes. Not reported where all of a book's code is JavaScript, whose loaders read YAML 1.2.",
  messages: {
    number: {
      message: 'value of "{key}" is a number ({text}), not a text',
      remedy: 'put it in quotes: "{text}"',
    },
    boolean: {
      message: 'value of "{key}" is true or false ({text}), not a text',
      remedy: 'put it in quotes: "{text}"',
    },
  },
  examples: {
    bad: [
      { source: { rate: "1.50" }, target: '{ "rate": 1.5 }', raw: true },
      { source: { answer: "Yes" }, target: '{ "answer": true }', raw: true },
    ],
    good: [{ source: { rate: "1.50" }, target: { rate: "1,50" } }],
  },
  needs: ["value"],
  entry(view, context) {
    const { catalog, entry, locale } = view;
    const { key, text } = entry;
    const { config } = context.book;
    const kind = kindOf(entry, config);
    if (kind !== "number" && kind !== "boolean") return;
    const isSource = locale === context.book.sourceLocale;
    // In the source it is a setting, unless it is one of the words that only some programs take for a boolean.
    if (isSource && !doubtful.test(text)) return;
    const source = isSource ? undefined : context.sourceOf(catalog, key);
    if (!isSource && (!source || kindOf(source.entry, config) !== "text")) return;
    view.report(kind, { key, text });
  },
});

/** Words that YAML 1.1 takes for values, and YAML 1.2 does not. */
const doubtful = /^(?:yes|no|on|off|y|n)$/i;

/** What an entry's value is to the programs that read it. */
function kindOf({ kind, text }: Entry, book: BookConfig): Entry["kind"] {
  return kind === "boolean" && doubtful.test(text) && isReadByScripts(book) ? "text" : kind;
}

/** Whether all of a book's code is JavaScript, as far as its patterns say: its loaders follow YAML 1.2, where `yes` is a text. */
function isReadByScripts({ code }: BookConfig): boolean {
  const endings = code.flatMap((pattern) => {
    const [, ending = ""] = /\.(\{[\w,]{1,100}\}|\w{1,20})$/.exec(pattern) ?? [];
    return ending.replace(/[{}]/g, "").split(",");
  });
  const files = endings.map((ending) => `file.${ending}`);
  return (
    files.some((file) => isScript(file) || dialectByName(file)?.isComponent === true) &&
    files.every(
      (file) => isScript(file) || /^(?:script|expression)$/.test(dialectByName(file)?.language ?? ""),
    )
  );
}
