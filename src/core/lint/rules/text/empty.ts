import { showForms } from "../../../message/forms.js";
import { defineRule } from "../../rule.js";

export const textEmpty = defineRule({
  id: "text/empty",
  level: "error",
  summary: "A text with nothing in it, or only white space.",
  why: "Users see an empty button or a gap. Empty in the source and in the translation is an error in the source alone.",
  examples: {
    bad: [
      { source: "Search", target: "" },
      { source: "Search", target: "  " },
    ],
    good: [{ source: "Search", target: "Suche" }],
  },
  looksAt: ["blank", "value"],
  entry(context, { catalog, entry, locale }) {
    const isEmpty = entry.kind === "null" || (entry.kind === "text" && entry.text.trim() === "");
    if (!isEmpty) return;
    const source = locale === context.book.sourceLocale ? undefined : context.sourceOf(catalog, entry.key);
    if (source?.entry.text.trim() === "") return;
    context.report(
      catalog,
      { at: "message", entry },
      {
        message:
          entry.kind === "null"
            ? `value of "${entry.key}" is null, not a text`
            : `empty text for "${entry.key}"`,
        remedy: source ? `translate "${showForms(source.entry.text)}"` : "write the text, or remove the key",
      },
    );
  },
});
