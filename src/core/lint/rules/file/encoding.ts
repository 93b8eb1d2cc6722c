import { defineRule } from "../../rule.js";
import { decodedAgain } from "../../mojibake.js";

export const fileEncoding = defineRule({
  id: "file/encoding",
  level: "error",
  summary: "Double-encoded text, or lost characters.",
  why: "A program read UTF-8 as another encoding, and users read `FÃ¤hre`. A replacement character (U+FFFD) marks a character that is lost.",
  messages: {
    lost: {
      message: "lost character: U+FFFD is shown instead of it",
      remedy: "write the character again, and save the file as UTF-8",
    },
    doubled: { message: "double-encoded text", remedy: 'write "{text}"' },
  },
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
  needs: ["decoded"],
  entry(entry) {
    const { text } = entry.entry;
    if (!/[\u0080-\uffff]/.test(text)) return;
    const at = text.indexOf("\uFFFD");
    if (at >= 0) {
      entry.report("lost", {}, { span: { start: at, end: at + 1 } });
      return;
    }
    const meant = decodedAgain(text, entry.locale);
    if (meant !== undefined) entry.report("doubled", { text: meant }, { fix: meant });
  },
});
