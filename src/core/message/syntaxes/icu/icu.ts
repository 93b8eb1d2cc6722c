import type { Message, MessageNode } from "../../model.js";
import { readIcuParts } from "./icu-reader.js";

/** What a book can change about how its ICU messages are read. */
export interface IcuOptions {
  /** Whether `<b>…</b>` is rich text (the default) or plain characters. */
  readonly tags?: boolean;
}

/**
 * Reads an ICU MessageFormat (version 1) message, as ICU's MessagePattern does with apostrophe mode
 * DOUBLE_OPTIONAL, plus rich-text tags. One pass; never throws. A problem does not end the reading:
 * the tree holds what could be made out. A plural or select without `other` is a tree without it and no
 * problem here, since rules judge that.
 */
export function parseIcu(source: string, options: IcuOptions = {}): Message {
  // An apostrophe means something before a brace, a tag or another apostrophe only.
  if (!/[{}<]|''/.test(source)) {
    const nodes: MessageNode[] =
      source === "" ? [] : [{ kind: "text", value: source, span: { start: 0, end: source.length } }];
    return { source, nodes, problems: [], quoted: [] };
  }
  const { nodes, problems, quoted } = readIcuParts(source, options.tags ?? true);
  return { source, nodes, problems, quoted };
}
