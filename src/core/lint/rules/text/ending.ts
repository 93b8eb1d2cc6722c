import type { MessageNode } from "../../../message/model.js";
import { defineRule } from "../../rule.js";
import { endingsOf, languageOf } from "../../text-parts.js";

type Ending = "stop" | "question" | "exclamation" | "colon" | "ellipsis" | "none";

/** Languages in which a sentence may end without a stop. */
const stopless = new Set(["th", "lo", "km", "my", "ja", "zh", "ko", "bo", "dz"]);

const names: Readonly<Record<Ending, string>> = {
  stop: "a period",
  question: "a question mark",
  exclamation: "an exclamation mark",
  colon: "a colon",
  ellipsis: "an ellipsis",
  none: "no punctuation",
};

export const textEnding = defineRule({
  id: "text/ending",
  level: "info",
  summary: "Text that ends with other punctuation than the source.",
  why: "A question without its question mark reads as a statement, and a label without its colon looks unlike the others. The punctuation of each script is known (`？`, `؟`, `。`, `।`, the Greek `;`), with spaces before it. Languages that omit periods are not reported, nor is an exclamation mark that became a period or the reverse.",
  messages: {
    ending: {
      message: "the source ends with {wanted}, the translation with {own}",
      remedy: "end it with {wanted}, as the language writes it",
    },
    extra: {
      message: "the source ends with {wanted}, the translation with {own}",
      remedy: "remove it, unless the language needs it",
    },
  },
  examples: {
    bad: [
      { source: "Leave now?", target: "Jetzt ablegen" },
      { source: "Name", target: "Name:" },
    ],
    good: [
      { source: "Leave now?", target: "Jetzt ablegen?" },
      { locale: "el", source: "Leave now?", target: "Αναχώρηση τώρα;" },
      { locale: "ja", source: "Your boat is late.", target: "船は遅れています" },
      { locale: "fr", source: "Name:", target: "Nom :" },
    ],
  },
  needs: ["ending"],
  pair(target, source) {
    const { entry, message, locale } = target;
    const from = source.entry.text;
    if (entry.text === from) return;
    // A sign by itself ends nothing, and what shortens one word is a part of it.
    if (
      /^[\p{P}\p{S}\s]*$/u.test(from) ||
      (/^\p{L}{1,20}$/u.test(from) && /^\p{L}{1,6}\.$/u.test(entry.text))
    )
      return;
    const wanted = kindsAt(source.message.nodes, source.locale);
    const [meant, ...others] = wanted;
    if (meant === undefined || others.some((one) => one.kind !== meant.kind)) return;
    const language = languageOf(locale);
    for (const { kind, span } of kindsAt(message.nodes, locale)) {
      if (kind === meant.kind) continue;
      const pair = new Set([kind, meant.kind]);
      if (pair.has("stop") && (pair.has("exclamation") || (pair.has("none") && stopless.has(language))))
        continue;
      if (pair.has("ellipsis") && (pair.has("stop") || pair.has("none"))) continue;
      const data = { wanted: names[meant.kind], own: names[kind] };
      const last = span && { start: Math.max(span.end - 1, span.start), end: span.end };
      target.report(meant.kind === "none" ? "extra" : "ending", data, { span: last });
      return;
    }
  },
});

function kindsAt(nodes: readonly MessageNode[], locale: string) {
  return endingsOf(nodes).map(({ text, span }) => ({ kind: endingOf(text, languageOf(locale)), span }));
}

function endingOf(text: string, language: string): Ending {
  const bare = text.replace(
    /(?<![\s\u200e\u200f\u061c\u2066-\u2069"'”’»«“)\]）」』】›])[\s\u200e\u200f\u061c\u2066-\u2069"'”’»«“)\]）」』】›]+$/u,
    "",
  );
  const last = bare.at(-1) ?? "";
  if (/\.{3}$|…$|⋯$/.test(bare)) return "ellipsis";
  if (language === "el" && (last === ";" || last === "\u037e")) return "question";
  if (language === "hy" && last === ":") return "stop";
  if (/[.。．｡।॥۔։܁᠃᙮༎]/u.test(last)) return "stop";
  if (/[?？؟⁇՞፧]/u.test(last)) return "question";
  if (/[!！¡՜]/u.test(last)) return "exclamation";
  if (/[:：∶]/u.test(last)) return "colon";
  return "none";
}
