import { isQuotedAway, matchNames } from "../../name-match.js";
import { defineRule } from "../../rule.js";

export const tagMissing = defineRule({
  id: "tag/missing",
  level: "error",
  summary: "A rich-text tag that the translation lost.",
  why: "Users miss a link or an emphasis; a link that is gone may be the only way on.",
  messages: {
    missing: {
      message: "missing tag {tag}",
      remedy: "put {tag}…{end} around the words that it marks in the source",
    },
    "missing-empty": { message: "missing tag {tag}", remedy: "write {tag} where it belongs" },
  },
  examples: {
    bad: [{ source: "Read <terms>the terms</terms>", target: "Lesen Sie die Bedingungen" }],
    good: [{ source: "Read <terms>the terms</terms>", target: "<terms>Bedingungen</terms> lesen" }],
  },
  needs: ["parts"],
  pair(target, source) {
    const { message } = target;
    const { missing } = matchNames(source.message.facts.tags, message.facts.tags);
    for (const name of missing) {
      if (isQuotedAway(message, `<${name}`)) continue;
      if (source.message.facts.tags.get(name)?.[0]?.selfClosing)
        target.report("missing-empty", { tag: `<${name}/>` });
      else target.report("missing", { tag: `<${name}>`, end: `</${name}>` });
    }
  },
});
