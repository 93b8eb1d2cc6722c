import type { ArgumentNode, MessageNode } from "../../../message/model.js";
import { isOfTex } from "../../problems.js";
import { defineRule, type SourceView } from "../../rule.js";
import { languageOf } from "../../text-parts.js";

/** Languages that write words without spaces, or join a small word to the one behind it. */
const joining = new Set(
  "ar he iw fa ur ps ku yi ji mnw shn ksw zh ja ko th lo km my bo dz ga gd sw zu xh st tn mt".split(" "),
);

/** Calls `see` with each value of a message and what stands right before it, a text or another value. */
function eachValue(
  nodes: readonly MessageNode[],
  see: (value: ArgumentNode, before: readonly MessageNode[]) => void,
): void {
  nodes.forEach((node, at) => {
    if (node.kind === "argument") see(node, nodes.slice(Math.max(0, at - 2), at));
    if (node.kind === "tag") eachValue(node.children, see);
    if (node.kind === "plural" || node.kind === "select")
      for (const branch of node.branches) eachValue(branch.nodes, see);
  });
}

/** Whether a letter stands right before a value. */
function isGlued(before: readonly MessageNode[]): boolean {
  const last = before.at(-1);
  return last?.kind === "text" && /[\p{L}\p{M}]$/u.test(last.value);
}

/** Whether a value is the one before it again, with nothing or a space between them. */
function isDoubled(name: string, before: readonly MessageNode[]): boolean {
  const last = before.at(-1);
  const same = (node: MessageNode | undefined) => node?.kind === "argument" && node.name === name;
  return same(last) || (last?.kind === "text" && last.value.trim() === "" && same(before.at(-2)));
}

/** Whether a value of a message stands behind a letter, or twice in it at all. */
function mayBeMisplaced({ entry, message }: SourceView): boolean {
  for (const uses of message.facts.arguments.values()) {
    if (uses.length > 1) return true;
    for (const { span } of uses) {
      const before = span ? entry.text.charCodeAt(span.start - 1) : 0x61;
      if (
        before > 0x7f
          ? /[\p{L}\p{M}\ud800-\udfff]/u.test(String.fromCharCode(before))
          : (before | 0x20) > 0x60 && (before | 0x20) < 0x7b
      )
        return true;
    }
  }
  return false;
}

export const argumentPlace = defineRule({
  id: "argument/place",
  level: "warning",
  summary: "Value that stands twice in a row, or right behind a letter.",
  why: "Users read “Ines Ines”, or a name that runs into the word before it. Values that the source places so, and languages that write no spaces or join small words, are not reported; endings behind a value are not, either.",
  messages: {
    doubled: { message: "{argument} stands twice in a row", remedy: "remove one of the two" },
    glued: {
      message: "{argument} stands right behind a letter, and in the source it does not",
      remedy: "write a space before it",
    },
  },
  examples: {
    bad: [
      { source: "Hello {name}, welcome", target: "Hallo {name} {name}, willkommen" },
      { source: "Hello {name}", target: "Hallo{name}" },
    ],
    good: [
      { source: "Hello {name}", target: "Hallo, {name}" },
      { source: "{name}’s boat", target: "{name}s Boot" },
      { locale: "he", source: "Boats in {quay}", target: "סירות ב{quay}" },
    ],
  },
  needs: ["arguments"],
  pair(target, source, context) {
    // Most values stand alone behind a space or sign.
    if (!mayBeMisplaced(target)) return;
    const from = new Set<string>();
    eachValue(source.message.nodes, ({ name }, before) => {
      if (isGlued(before)) from.add(`glued ${name}`);
      if (isDoubled(name, before)) from.add(`doubled ${name}`);
    });
    const isJoining = joining.has(languageOf(target.locale));
    eachValue(target.message.nodes, ({ name, span }, before) => {
      // What the source does not have is said by another rule.
      if (isOfTex(target.entry.text, span) || !source.message.facts.arguments.has(name)) return;
      const data = { argument: context.argument(name) };
      if (isDoubled(name, before) && !from.has(`doubled ${name}`)) target.report("doubled", data, { span });
      else if (isGlued(before) && !isJoining && !from.has(`glued ${name}`))
        target.report("glued", data, {
          span,
          fix: span && { span: { start: span.start, end: span.start }, text: " " },
        });
    });
  },
});
