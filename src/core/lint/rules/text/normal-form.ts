import { defineRule } from "../../rule.js";

export const textNormalForm = defineRule({
  id: "text/normal-form",
  level: "warning",
  summary: "Text that is not in Unicode normal form NFC.",
  why: "`ä` can be one character or two that look the same: search, comparison and counting fail where both are used. NFC (UAX 15) is what keyboards and the web use.",
  messages: {
    "not-nfc": {
      message: "not in normal form NFC: letters and their accents are separate characters",
      remedy: "convert it to NFC; `fond lint --fix --write` does",
    },
  },
  examples: {
    bad: [{ source: "Ferry", target: "Fa\u0308hre", fixed: "Fähre" }],
    good: [{ source: "Ferry", target: "Fähre" }],
  },
  needs: ["composed"],
  entry(view) {
    const { entry } = view;
    const { text } = entry;
    if (entry.kind !== "text" || !/[\u0300-\uffff]/.test(text)) return;
    const normal = text.normalize("NFC");
    // Where the form has as many characters or more, marks are only in another order, or a letter has no composed form in it.
    if (normal.length >= text.length) return;
    let at = 0;
    while (text[at] === normal[at]) at++;
    const whole = { start: 0, end: text.length };
    view.report(
      "not-nfc",
      {},
      { span: { start: at, end: Math.min(at + 2, text.length) }, fix: { span: whole, text: normal } },
    );
  },
});
