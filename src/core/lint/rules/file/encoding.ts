import { defineRule } from "../../rule.js";
import { decodedAgain } from "../../mojibake.js";

export const fileEncoding = defineRule({
  id: "file/encoding",
  level: "error",
  summary: "Text that was decoded twice, or that lost characters on the way.",
  why: "A program took UTF-8 for something else: users read `FÃ¤hre`. A replacement character (U+FFFD) stands for one that is lost.",
  examples: {
    bad: [
      { source: "Ferry", target: "FÃ¤hre" },
      { source: "Ferry", target: "F\uFFFDhre" },
    ],
    good: [
      { source: "Ferry", target: "Fähre" },
      { locale: "pt", source: "No", target: "NÃO" },
      {
        locale: "fi",
        source: "Z–A",
        target: "Ö–A",
        note: "the end of the alphabet, not a letter decoded twice",
      },
    ],
  },
  looksAt: ["decoded"],
  entry(context, { catalog, entry, locale }) {
    const { text } = entry;
    if (!/[\u0080-\uffff]/.test(text)) return;
    if (text.includes("\uFFFD")) {
      const at = text.indexOf("\uFFFD");
      context.report(
        catalog,
        { at: "message", entry, span: { start: at, end: at + 1 } },
        {
          message: "a character was lost here (U+FFFD stands in its place)",
          remedy: "write it anew, and see that the file is saved as UTF-8",
        },
      );
      return;
    }
    const meant = decodedAgain(text, locale);
    if (meant === undefined) return;
    context.report(
      catalog,
      { at: "message", entry },
      {
        message: "this was decoded twice on its way",
        remedy: `write “${meant}”`,
        fix: { text: meant },
      },
    );
  },
});
