import { isQuotedAway, matchNames } from "../../name-match.js";
import { defineRule } from "../../rule.js";

export const tagMissing = defineRule({
  id: "tag/missing",
  level: "error",
  summary: "A rich-text tag that the translation lost.",
  why: "Users miss a link or an emphasis; a link that is gone may be the only way on.",
  examples: {
    bad: [{ source: "Read <terms>the terms</terms>", target: "Lesen Sie die Bedingungen" }],
    good: [{ source: "Read <terms>the terms</terms>", target: "<terms>Bedingungen</terms> lesen" }],
  },
  looksAt: ["parts"],
  pair(context, { catalog, entry, message }, source) {
    const { missing } = matchNames(source.message.facts.tags, message.facts.tags);
    for (const name of missing) {
      if (isQuotedAway(message, `<${name}`)) continue;
      const selfClosing = source.message.facts.tags.get(name)?.[0]?.selfClosing ?? false;
      context.report(
        catalog,
        { at: "message", entry },
        {
          message: `missing tag <${name}>`,
          remedy: selfClosing
            ? `write <${name}/> where it belongs`
            : `put <${name}>…</${name}> around the words that it marks`,
        },
      );
    }
  },
});
