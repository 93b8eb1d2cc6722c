import { createRequire } from "node:module";
import type * as Saxes from "saxes";
import { lazily } from "../text/lazy.js";
import { notices } from "../message/notices.js";
import type { Notice } from "../text/wording.js";

const require = createRequire(import.meta.url);
const saxes = lazily(() => require("saxes") as typeof Saxes);

const say = notices("exchange/xml", {
  broken: { message: "not well-formed XML: {detail}", remedy: "send the file as the editor wrote it" },
  doctype: {
    message: "the file declares a document type, which could bring in other files or grow without end",
    remedy: "remove the <!DOCTYPE …> at the beginning",
  },
  deep: {
    message: "elements are nested {depth} deep",
    remedy: "no translation needs that; send the file again",
  },
  long: {
    message: "a text has more than {most} characters",
    remedy: "no translation needs that; check that the file is whole",
  },
});

/** What is met in a document, in its order. */
export interface XmlHandlers {
  open(name: string, attributes: Readonly<Record<string, string>>, line: number): void;
  close(name: string): void;
  text(value: string): void;
}

const deepest = 100;
const longestText = 1_000_000;

/**
 * Reads XML 1.0 piece by piece; names have their prefixes as written. A document type, and with it every entity of the
 * document's own, is refused. Gives what is wrong, with its line; undefined where all is well.
 */
export function readXml(
  chunks: Iterable<string>,
  handlers: XmlHandlers,
): (Notice & { readonly line: number }) | undefined {
  const { SaxesParser } = saxes();
  const parser = new SaxesParser();
  let problem: (Notice & { readonly line: number }) | undefined;
  let depth = 0;
  const stop = (notice: Notice) => {
    problem ??= { ...notice, line: parser.line };
  };
  parser.on("error", (error) => {
    stop(say("broken", { detail: error.message.replace(/^\d+:\d+: /, "") }));
  });
  parser.on("doctype", () => {
    stop(say("doctype", {}));
  });
  parser.on("opentag", ({ name, attributes }) => {
    if (problem) return;
    depth++;
    if (depth > deepest) stop(say("deep", { depth }));
    else handlers.open(name, attributes, parser.line);
  });
  parser.on("closetag", ({ name }) => {
    depth--;
    if (!problem) handlers.close(name);
  });
  const text = (value: string) => {
    if (problem) return;
    if (value.length > longestText) stop(say("long", { most: longestText }));
    else handlers.text(value);
  };
  parser.on("text", text);
  parser.on("cdata", text);
  for (const chunk of chunks) {
    parser.write(chunk);
    if (problem) return problem;
  }
  parser.close();
  return problem;
}

/** A text as the content of an element or the value of an attribute. What XML 1.0 cannot hold is left out. */
export function escapeXml(text: string): string {
  return text.replace(/[&<>"\t\n\r]|[^\u0020-\uD7FF\uE000-\uFFFD\u{10000}-\u{10FFFF}]/gu, (one) => {
    switch (one) {
      case "&":
        return "&amp;";
      case "<":
        return "&lt;";
      case ">":
        return "&gt;";
      case '"':
        return "&quot;";
      case "\t":
      case "\n":
      case "\r":
        return `&#${one.charCodeAt(0)};`;
      default:
        return "";
    }
  });
}

/** What XML 1.0 can hold in no way (section 2.2, "Char"). */
export const notInXml = /[^\t\n\r\u0020-\uD7FF\uE000-\uFFFD\u{10000}-\u{10FFFF}]/u;

/** An opening tag's attributes, those that are undefined left out. */
export function xmlAttributes(attributes: Readonly<Record<string, string | undefined>>): string {
  return Object.entries(attributes)
    .flatMap(([name, value]) => (value === undefined ? [] : ` ${name}="${escapeXml(value)}"`))
    .join("");
}
