import { doubtTag } from "../../../locale/mistaken-tag.js";
import { defineRule } from "../../rule.js";

export const fileLocaleCode = defineRule({
  id: "file/locale-code",
  level: "error",
  summary: "A catalog file named by something that is no language tag, or by one that surely means another.",
  why: "Browsers and servers ask for languages by their tags (BCP 47): Japanese is `ja`, and a file named `jp`, the country, is never chosen. A well-formed tag that the configuration does not name is a warning: nothing looks after that file.",
  examples: {
    bad: [
      { locale: "jp", target: "出航", note: "Japan's code, not Japanese's" },
      { locale: "ch", target: "Abfahrt", note: "Chamorro, where Switzerland was meant" },
    ],
    good: [
      { locale: "ja", target: "出航" },
      { locale: "pt-BR", target: "Partida" },
      { locale: "cy", target: "Ymadael" },
    ],
  },
  book(context) {
    const { book } = context;
    const locales = [book.sourceLocale, ...book.targetLocales];
    for (const locale of locales) {
      const catalog = book.catalogsOf(locale).find((one) => one.exists);
      const doubt = doubtTag(
        locale,
        locales.filter((other) => other !== locale),
      );
      if (!catalog || !doubt) continue;
      const remedy = doubt.suggestion
        ? `rename it to "${doubt.suggestion}", here and in the configuration`
        : "use a tag such as de or pt-BR";
      context.report(
        catalog,
        { at: "file", span: { start: 0, end: 0 } },
        { message: doubt.message, remedy, severity: doubt.kind === "invalid" ? "error" : "warning" },
      );
    }
    for (const stray of book.strays) {
      const written = book.layout.place(stray.file)?.written ?? stray.locale;
      const doubt = doubtTag(written, locales);
      const suggestion = doubt && (doubt.suggestion ?? undefined);
      const words = doubt
        ? {
            message: doubt.message,
            remedy: suggestion
              ? `rename it to "${suggestion}"`
              : 'rename it, or exclude it with the book\'s "ignore"',
          }
        : {
            message: `unknown locale "${written}": this file is in no run, because the configuration does not list it`,
            remedy: `add "${stray.locale}" to "targets", or exclude the file with the book's "ignore"`,
          };
      context.report(
        stray,
        { at: "file", span: { start: 0, end: 0 } },
        { ...words, severity: suggestion && doubt.kind === "invalid" ? "error" : "warning" },
      );
    }
  },
});
