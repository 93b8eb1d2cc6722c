import { decodedAgain } from "../../mojibake.js";
import { defineRule } from "../../rule.js";

const suspicious =
  /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f-\u0084\u0086-\u009f\u2028\u2029\u202a-\u202e\u2066-\u2069\ufeff\ufff9-\ufffb]/;

export const textControl = defineRule({
  id: "text/control",
  level: "error",
  summary: "Invisible control characters, and direction controls that are not closed.",
  why: "An isolate (U+2066 to U+2068) or embedding without its end changes the direction of everything that follows on the page; other control characters show as boxes or break a parser. Joiners, soft hyphens and direction marks (U+200E, U+200F) are part of some languages and are not reported.",
  messages: {
    character: { message: "control character {character}", remedy: "remove it" },
    unopened: {
      message: "{character} closes a direction that is not open",
      remedy: "remove it, or open the direction before the text",
    },
    unclosed: {
      message: "{character} opens a direction that is never closed",
      remedy: "write {end} at the end of the text it applies to",
    },
  },
  examples: {
    bad: [
      { locale: "ar", source: "Boat {name}", target: "القارب \u2068{name}" },
      { source: "Boat", target: "Bo\u0007ot" },
    ],
    good: [
      { locale: "ar", source: "Boat {name}", target: "القارب \u2068{name}\u2069" },
      { locale: "fa", source: "Boats", target: "قایق\u200cها" },
    ],
  },
  needs: ["control"],
  entry(entry) {
    const { text } = entry.entry;
    if (!suspicious.test(text) || decodedAgain(text, entry.locale) !== undefined) return;
    const open: { readonly at: number; readonly isIsolate: boolean }[] = [];
    for (let at = 0; at < text.length; at++) {
      const code = text.charCodeAt(at);
      const span = { start: at, end: at + 1 };
      if ((code >= 0x2066 && code <= 0x2068) || (code >= 0x202a && code <= 0x202e && code !== 0x202c))
        open.push({ at, isIsolate: code >= 0x2066 });
      else if (code === 0x2069 || code === 0x202c) {
        if (open.pop()?.isIsolate === (code === 0x2069)) continue;
        entry.report("unopened", { character: codePoint(code) }, { span });
        return;
      } else if (suspicious.test(text[at] ?? "")) {
        entry.report("character", { character: codePoint(code) }, { span });
        return;
      }
    }
    const [first] = open;
    if (!first) return;
    const { at, isIsolate } = first;
    const data = { character: codePoint(text.charCodeAt(at)), end: isIsolate ? "U+2069" : "U+202C" };
    entry.report("unclosed", data, { span: { start: at, end: at + 1 } });
  },
});

function codePoint(code: number): string {
  return `U+${code.toString(16).toUpperCase().padStart(4, "0")}`;
}
