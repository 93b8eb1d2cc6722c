import type { MessageSyntax } from "../config/names.js";
import { messageFacts, type MessageFacts } from "./facts.js";
import type { Message, MessageNode } from "./model.js";
import { parseIcu } from "./syntaxes/icu.js";
import { printIcu } from "./syntaxes/icu-print.js";

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

/** A reader for one book's syntax; what it has read it keeps, so it should live no longer than one run. */
export function messageReader(syntax: MessageSyntax): MessageReader {
  const known = new Map<string, ReadMessage>();
  const { parse, print } = implementations[syntax];
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

const implementations: Readonly<
  Record<MessageSyntax, { parse(text: string): Message; print(nodes: readonly MessageNode[]): string }>
> = {
  icu: { parse: (text) => parseIcu(text), print: (nodes) => printIcu(nodes) },
};
