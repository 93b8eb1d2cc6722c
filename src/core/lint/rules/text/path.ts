import { partEnds } from "../../../text/separators.js";
import { keyTest } from "../../../text/key-pattern.js";
import { defineRule } from "../../rule.js";

export const textPath = defineRule({
  id: "text/path",
  level: "error",
  summary: "Part of a URL that is not safe or not unique.",
  why: 'A site with translated URLs takes them from the catalogs: a space or an accent breaks the link, and two pages with one URL hide each other. The configuration names such keys: `"paths": ["slugs.**"]`.',
  messages: {
    unsafe: {
      message: '"{character}" is not safe in an address',
      remedy: "use only letters a to z, digits, - and _ (RFC 3986, section 2.3)",
    },
    upper: {
      message: '"{character}" is a capital letter; the source has none in its address',
      remedy: "write it small: servers tell capital letters apart",
    },
    duplicate: {
      message: 'duplicate address "{address}", also used by "{other}"',
      remedy: "give each page its own address",
    },
  },
  examples: {
    bad: [
      {
        source: { "slugs.terms": "terms" },
        target: { "slugs.terms": "allgemeine bedingungen" },
        paths: ["slugs.*"],
      },
      {
        source: { "slugs.a": "boats", "slugs.b": "ferries" },
        target: { "slugs.a": "boote", "slugs.b": "boote" },
        paths: ["slugs.*"],
      },
      { source: { "slugs.terms": "terms" }, target: { "slugs.terms": "Bedingungen" }, paths: ["slugs.*"] },
    ],
    good: [
      { source: { "slugs.terms": "terms" }, target: { "slugs.terms": "bedingungen" }, paths: ["slugs.*"] },
    ],
  },
  file(context, catalog) {
    const { paths } = context.book.config;
    if (!paths || paths.length === 0) return;
    const tests = paths.map((pattern) => keyTest(pattern, partEnds(context.book.config)));
    const seen = new Map<string, string>();
    for (const entry of catalog.byKey.values()) {
      if (!tests.some((test) => test(entry.key))) continue;
      const odd = /[^a-z0-9\-_.~/]/i.exec(entry.text);
      const group = entry.key.slice(0, entry.key.lastIndexOf(catalog.separator) + 1);
      const other = seen.get(`${group} ${entry.text}`);
      const upper = odd ? null : /[A-Z]/.exec(entry.text);
      const source = upper ? context.sourceOf(catalog, entry.key) : undefined;
      if (upper && source && source.catalog !== catalog && !/[A-Z]/.test(source.entry.text))
        context.report(
          catalog,
          entry,
          "upper",
          { character: upper[0] },
          { span: { start: upper.index, end: upper.index + 1 } },
        );
      if (odd)
        context.report(
          catalog,
          entry,
          "unsafe",
          { character: odd[0] },
          { span: { start: odd.index, end: odd.index + 1 } },
        );
      else if (other !== undefined)
        context.report(catalog, entry, "duplicate", { address: entry.text, other });
      else seen.set(`${group} ${entry.text}`, entry.key);
    }
  },
});
