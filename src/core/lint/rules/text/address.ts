import { defineRule } from "../../rule.js";

export const textAddress = defineRule({
  id: "text/address",
  level: "warning",
  summary: "URL or e-mail address that differs from the source.",
  why: "Users follow a link that leads nowhere. A page in the reader's language on the same site is not reported, nor is another top-level domain of the same name (`.com`, `.de`).",
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
    ],
  },
  needs: ["address"],
  pair(target, source) {
    const { message } = target;
    const from = source.message.facts.text;
    if (!/@|:\/\/|www\./.test(from)) return;
    const to = message.facts.text;
    const own = addressesIn(to);
    for (const address of addressesIn(from)) {
      // Names that stand for any (RFC 2606) are translated as words are.
      if (own.has(address) || /^example$|@example\.(?:com|org|net)$/.test(address)) continue;
      if (own.size > 0) target.report("changed", { address, others: [...own].join(", ") });
      else target.report("missing", { address });
    }
  },
});

/** E-mail addresses whole, and of web addresses the site without `www` and its last part. */
function addressesIn(text: string): ReadonlySet<string> {
  const found = new Set<string>();
  for (const [mail] of text.matchAll(
    /(?<![\p{L}\p{N}._%+-])[\p{L}\p{N}._%+-]+@[\p{L}\p{N}-]+(?:\.[\p{L}\p{N}-]+)+/gu,
  ))
    found.add(mail.toLowerCase());
  for (const [, host = ""] of text.matchAll(/(?:https?:\/\/|www\.)([\p{L}\p{N}.-]+)/giu)) {
    const parts = host
      .toLowerCase()
      .replace(/^www\./, "")
      .replace(/(?<!\.)\.+$/, "")
      .split(".");
    found.add(parts.length > 1 ? parts.slice(0, -1).join(".") : host.toLowerCase());
  }
  return found;
}
