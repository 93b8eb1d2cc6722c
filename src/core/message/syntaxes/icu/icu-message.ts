import type { Span } from "../../../text/span.js";
import { messageFacts, type MessageFacts } from "../../facts.js";
import type { MessageNode, MessageProblem } from "../../model.js";
import { hasErrors, type ReadMessage } from "../../read-message.js";
import type { IcuParts } from "./icu-parts.js";
import { icuTree } from "./icu-tree.js";

/**
 * A message that was read into parts; the tree is made of them when it is first asked for. A class of its own, as one that
 * extends another takes the engine longer to make; what is not set by the constructor is not set before it is asked for.
 */
export class IcuMessage implements IcuParts, ReadMessage {
  private tree: readonly MessageNode[] | undefined;
  private gathered: MessageFacts | undefined;

  constructor(
    readonly source: string,
    readonly parts: Int32Array,
    readonly first: number,
    readonly last: number,
    readonly problems: readonly MessageProblem[],
    readonly quoted: readonly Span[],
  ) {}

  get nodes(): readonly MessageNode[] {
    return (this.tree ??= icuTree(this));
  }
  get facts(): MessageFacts {
    return (this.gathered ??= messageFacts(this));
  }
  get isBroken(): boolean {
    return hasErrors(this.problems);
  }
  get isPlain() {
    return false;
  }
}
