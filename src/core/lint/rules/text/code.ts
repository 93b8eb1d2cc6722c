import { defineRule } from "../../rule.js";

/** What stands between backticks, in order of the alphabet. */
function codesIn(text: string): readonly string[] {
  return [...text.matchAll(/`([^`\n]{1,200})`/g)].map(([, code = ""]) => code).sort();
}

export const textCode = defineRule({
  id: "text/code",
  level: "warning",
  summary: "Code between backticks that differs from the source's.",
  why: "Commands, names and settings are typed as they are written: a translated one does not work. Prose between backticks, which has spaces and no sign of code, is not reported, and neither is a translation with another number of them. A single word may be what a button is called: it is for information.",
  messages: {
    different: {
      message: "`{found}`; the source has `{source}`",
      remedy: "write `{source}`, as the program knows it",
    },
  },
  examples: {
    bad: [{ source: "Run `boats --list` first", target: "Zuerst `boote --liste` starten" }],
    good: [
      { source: "Run `boats --list` first", target: "Zuerst `boats --list` starten" },
      { source: "Say `good morning`", target: "Sagen Sie `guten Morgen`" },
    ],
  },
  needs: ["extra"],
  pair(target, source) {
    const { text } = target.entry;
    if (!text.includes("`")) return;
    const wanted = codesIn(source.entry.text);
    const found = codesIn(text);
    if (wanted.length === 0 || wanted.length !== found.length) return;
    const plain = (code: string) => code.replace(/\s+/g, "");
    if (wanted.map(plain).join("`") === found.map(plain).join("`")) return;
    const made = found.find((code) => !wanted.includes(code));
    const lost = wanted.find(
      (code) =>
        !found.includes(code) &&
        (!/\s/.test(code) || /[-_=./(){}<>$]/.test(code) || code.split(" ", 1)[0] === made?.split(" ", 1)[0]),
    );
    if (lost === undefined || made === undefined) return;
    const start = text.indexOf(`\`${made}\``) + 1;
    // The name of a button is translated like the button.
    const isWord = /^\p{L}+$/u.test(lost);
    target.report(
      "different",
      { found: made, source: lost },
      {
        span: { start, end: start + made.length },
        fix: isWord ? undefined : lost,
        severity: isWord ? "info" : undefined,
      },
    );
  },
});
