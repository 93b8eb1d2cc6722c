import { notices } from "../../message/notices.js";
import type { Notice } from "../../text/wording.js";
import type { Inline } from "../inline.js";
import { escapeXml, notInXml, readXml, xmlAttributes } from "../xml.js";
import type { Carrier } from "./carrier.js";
import { codeOfPlace, InlineReader, placeIds } from "./xliff-inlines.js";

const say = notices("exchange/tmx", {
  "no-memory": {
    message: "not a translation memory in TMX: no <tmx> element",
    remedy: "give a TMX 1.4 file",
  },
});

/** Translation Memory eXchange 1.4b (LISA, 2005): texts with their translations, for other programs' memories. */
export const tmx: Carrier = {
  name: "tmx",
  ending: ".tmx",
  summary: "a translation memory of what is translated",
  *write({ source, target, entries }) {
    yield `<?xml version="1.0" encoding="UTF-8"?>\n<tmx version="1.4">\n  <header${xmlAttributes({
      creationtool: "fond-ledger",
      creationtoolversion: "1",
      segtype: "block",
      "o-tmf": "fond-ledger",
      adminlang: "en",
      srclang: source,
      datatype: "plaintext",
    })}/>\n  <body>\n`;
    for (const entry of entries)
      for (const unit of entry.units) {
        if (!unit.target || entry.what !== "done") continue;
        yield `    <tu${xmlAttributes({ tuid: unit.id })}>\n`;
        for (const [locale, text] of [
          [source, unit.source],
          [target, unit.target],
        ] as const)
          yield `      <tuv${xmlAttributes({ "xml:lang": locale })}><seg>${writeInlines(text)}</seg></tuv>\n`;
        yield "    </tu>\n";
      }
    yield "  </body>\n</tmx>\n";
  },
};

function writeInlines(inlines: readonly Inline[], idOf = placeIds(), next = { number: 1 }): string {
  return inlines
    .map((one) => {
      if (one.kind === "text")
        return [...one.value].map((sign) => (notInXml.test(sign) ? "" : sign)).join("") === one.value
          ? escapeXml(one.value)
          : escapeXml(one.value.replace(new RegExp(notInXml, "gu"), ""));
      if (one.kind === "code") return `<ph x="${next.number++}" type="${escapeXml(one.id)}"/>`;
      const number = next.number++;
      const type = escapeXml(one.id);
      return `<bpt i="${number}" x="${number}" type="${type}"/>${writeInlines(one.children, idOf, next)}<ept i="${number}"/>`;
    })
    .join("");
}

/** One text of a memory with its translation. */
export interface MemoryPair {
  readonly source: readonly Inline[];
  readonly target: readonly Inline[];
}

/** Reads a memory piece by piece, and gives each pair of two languages as it comes; regions do not count. */
export function readTmx(
  chunks: Iterable<string>,
  source: string,
  target: string,
  take: (pair: MemoryPair) => void,
): (Notice & { readonly line?: number }) | undefined {
  const language = (tag: string) => tag.toLowerCase().split(/[-_]/, 1)[0] ?? "";
  let isTmx = false;
  let texts = new Map<string, readonly Inline[]>();
  let at = "";
  let part: InlineReader | undefined;
  let native = 0;
  const problem = readXml(chunks, {
    open(name, attributes) {
      if (name === "tmx") isTmx = true;
      else if (name === "tu") texts = new Map();
      else if (name === "tuv") at = language(attributes["xml:lang"] ?? attributes["lang"] ?? "");
      else if (name === "seg") part = new InlineReader();
      else if (part) {
        const id = codeOfPlace(attributes["type"] ?? attributes["x"] ?? attributes["i"] ?? "");
        if (native++ > 0 || name === "hi") return;
        if (name === "bpt") part.open(id, attributes["i"] ?? "");
        else if (name === "ept") part.close(attributes["i"] ?? "");
        else part.code(id);
      }
    },
    close(name) {
      if (name === "seg") {
        const inlines = part?.inlines;
        if (inlines) texts.set(at, inlines);
        part = undefined;
      } else if (part) native--;
      else if (name === "tu") {
        const from = texts.get(language(source));
        const to = texts.get(language(target));
        if (from && to) take({ source: from, target: to });
      }
    },
    text(value) {
      if (native === 0) part?.text(value);
    },
  });
  return problem ?? (isTmx ? undefined : say("no-memory", {}));
}
