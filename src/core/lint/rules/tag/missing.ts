import { elementsOfLook } from "../../../text/html-elements.js";
import { isQuotedAway, matchNames } from "../../name-match.js";
import { defineRule } from "../../rule.js";

export const tagMissing = defineRule({
  id: "tag/missing",
  level: "error",
  summary: "Missing rich-text tag in a translation.",
  why: "Users miss a link or emphasis, and the link may be the only way to continue. Where only the look is lost (`<b>`, `<br>`), it is a warning.",
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
      // Without emphasis a text says the same.
      const severity = elementsOfLook.has(name.toLowerCase()) ? "warning" : undefined;
      if (source.message.facts.tags.get(name)?.[0]?.selfClosing)
        target.report("missing-empty", { tag: `<${name}/>` }, { severity });
      else target.report("missing", { tag: `<${name}>`, end: `</${name}>` }, { severity });
    }
  },
});
