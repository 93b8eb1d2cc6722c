import type { MessageSyntax, PluralForms } from "../config/names.js";
import { messageFacts, type MessageFacts } from "./facts.js";
import type { Message, MessageNode } from "./model.js";
import { printBars, readBars } from "./bars.js";
import { printForms, readForms } from "./forms.js";
import { parseIcu } from "./syntaxes/icu.js";
import { printIcu } from "./syntaxes/icu-print.js";
import { parseMf2 } from "./syntaxes/mf2.js";
import { printMf2 } from "./syntaxes/mf2-print.js";
import { parseJava, printJava } from "./syntaxes/java.js";
import { parsePlaceholders, printPlaceholders } from "./syntaxes/placeholders.js";

/** A message together with what it uses. */
export interface ReadMessage extends Message {
  readonly facts: MessageFacts;
  /** Whether it could not be read as it is written: what it seems to lack may be in the part that was lost. */
  readonly isBroken: boolean;
}

/** A reader that parses equal texts once. */
export interface MessageReader {
  read(text: string): ReadMessage;
  print(nodes: readonly MessageNode[]): string;
}

/** What of a book decides how its messages are read. */
export interface MessageSettings {
  readonly syntax: MessageSyntax;
  /** Where plurals are: in the message, forms side by side, or forms under keys of their own. */
  readonly plurals?: PluralForms;
  /** Whether `<b>…</b>` is rich text; true where not given. */
  readonly tags?: boolean;
}

/** A reader for one book's messages; what it has read it keeps, so it should live no longer than one run. */
export function messageReader(settings: MessageSettings | MessageSyntax): MessageReader {
  const {
    syntax,
    plurals = "inline",
    tags = true,
  } = typeof settings === "string" ? { syntax: settings } : settings;
  const known = new Map<string, ReadMessage>();
  const inline = implementation(syntax, tags);
  const { parse, print } =
    plurals === "inline" ? inline : plurals === "bar" ? withBars(inline) : withForms(inline);
  return {
    read(text) {
      let message = known.get(text);
      if (!message) {
        const parsed = parse(text);
        const { source, nodes, problems, quoted } = parsed;
        const isBroken = problems.length > 0 && problems.some(({ severity }) => severity === "error");
        message = { source, nodes, problems, quoted, facts: messageFacts(parsed), isBroken };
        known.set(text, message);
      }
      return message;
    },
    print,
  };
}

interface Implementation {
  parse(text: string): Message;
  print(nodes: readonly MessageNode[]): string;
}

function implementation(syntax: MessageSyntax, tags: boolean): Implementation {
  switch (syntax) {
    case "icu":
      return { parse: (text) => parseIcu(text, { tags }), print: (nodes) => printIcu(nodes, { tags }) };
    case "mf2":
      return { parse: parseMf2, print: printMf2 };
    case "java":
      return { parse: (text) => parseJava(text, tags), print: printJava };
    default:
      return {
        parse: (text) => parsePlaceholders(text, syntax, tags),
        print: (nodes) => printPlaceholders(nodes, syntax),
      };
  }
}

function withForms({ parse, print }: Implementation): Implementation {
  return { parse: (text) => readForms(text, parse), print: (nodes) => printForms(nodes, print) };
}

/** More than two forms take the categories of languages with that many, in CLDR's order. */
const manyForms = ["one", "few", "many", "other"];

function withBars({ parse, print }: Implementation): Implementation {
  return {
    parse: (text) => (text.includes("|") ? readBars(text, parse, manyForms) : parse(text)),
    print: (nodes) => printBars(nodes, print),
  };
}
