import { defineRule } from "../../rule.js";

export const textAddress = defineRule({
  id: "text/address",
  level: "warning",
  summary: "An address of the source (web, e-mail) that the translation changed or lost.",
  why: "A link that leads nowhere is found by a user. A page in the reader's own language on the same site is let pass, and so is another ending of the same name (`.com`, `.de`).",
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
  looksAt: ["address"],
  pair(context, { catalog, entry, message }, source) {
    const from = source.message.facts.text;
    if (!/@|:\/\/|www\./.test(from)) return;
    const to = message.facts.text;
    const own = addressesIn(to);
    for (const address of addressesIn(from)) {
      if (own.has(address)) continue;
      context.report(
        catalog,
        { at: "message", entry },
        {
          message: `missing ${address.includes("@") ? "address" : "site"} ${address}, which the source has${own.size > 0 ? `; the translation has ${[...own].join(", ")}` : ""}`,
          remedy: `write ${address}, unless this language has another one`,
        },
      );
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
