import { isKnownLanguage } from "../../../locale/mistaken-tag.js";
import { isExample } from "../../text-parts.js";
import { defineRule } from "../../rule.js";

/** What addresses are called that stand for any: `jane@doe.com`, `yourquay.com`. */
const standsForAny =
  /^(?:domain|website|site|host|hostname|server|company)$|(?:^|[@.-])(?:your|my(?=site|app|shop|domain|company)|sample|acme|foo|bar|john|jane|name@)|(?:^|[@.-])doe(?:$|[@.-])/i;

export const textAddress = defineRule({
  id: "text/address",
  level: "warning",
  summary: "URL or e-mail address that differs from the source.",
  why: "Users follow a link that leads nowhere. A page in the reader's language on the same site is not reported, nor is another top-level domain of the same name (`.com`, `.de`), nor an address for one that stands for any (`jane@doe.com`).",
  messages: {
    missing: {
      message: "missing address {address}, which the source has",
      remedy: "write {address}, unless this language has another one",
    },
    changed: {
      message: "missing address {address}, which the source has; the translation has {others}",
      remedy: "write {address}, unless this language has another one",
    },
  },
  examples: {
    bad: [
      { source: "Write to help@quay.example", target: "Schreiben Sie an hilfe@quay.example" },
      { source: "See https://quay.example/terms", target: "Siehe https://kai.example/terms" },
    ],
    good: [
      { source: "Write to help@quay.example", target: "Schreiben Sie an help@quay.example" },
      { source: "See https://quay.example/en/terms", target: "Siehe https://quay.example/de/agb" },
      { source: "e.g. jane@quay.example", target: "z. B. erika@kai.example" },
      { source: "From jane@doe.com", target: "Von erika@muster.de" },
    ],
  },
  needs: ["address"],
  pair(target, source) {
    const { message } = target;
    const from = source.message.facts.text;
    if (!/@|:\/\/|www\./.test(from) || isExample(from)) return;
    const to = message.facts.text;
    const own = addressesIn(to);
    for (const [site, address] of addressesIn(from)) {
      // Names that stand for any (RFC 2606), or plainly for the reader's own, are translated as words are.
      if (own.has(site) || /^example$|@example\.(?:com|org|net)$/.test(site)) continue;
      if (own.size > 0 && standsForAny.test(site)) continue;
      if (own.size > 0) target.report("changed", { address, others: [...own.values()].join(", ") });
      else target.report("missing", { address });
    }
  },
});

/**
 * The addresses of a text as it has them, by what they lead to: e-mail addresses as a whole, and of web addresses the site without
 * `www`, a language in front of it and its last part.
 */
function addressesIn(text: string): ReadonlyMap<string, string> {
  const found = new Map<string, string>();
  for (const [mail] of text.matchAll(
    /(?<![\p{L}\p{N}._%+-])[\p{L}\p{N}._%+-]+@[\p{L}\p{N}-]+(?:\.[\p{L}\p{N}-]+)+/gu,
  ))
    found.set(mail.toLowerCase(), mail);
  for (const [, host = ""] of text.matchAll(/(?:https?:\/\/|www\.)([\p{L}\p{N}.-]+)/giu)) {
    const address = host.replace(/(?<!\.)\.+$/, "");
    const parts = address
      .toLowerCase()
      .replace(/^www\./, "")
      .replace(/^([a-z]{2,3})(?:-[a-z]{2,4})?\.(?=[^.]+\.[^.]+$)/, (label, language: string) =>
        isKnownLanguage(language) ? "" : label,
      )
      .split(".");
    found.set(parts.length > 1 ? parts.slice(0, -1).join(".") : address.toLowerCase(), address);
  }
  return found;
}
