import { messageFacts, plainFacts, type MessageFacts } from "./facts.js";
import type { Message, MessageNode, MessageProblem } from "./model.js";
import type { Span } from "../text/span.js";

/** A message together with what it uses. */
export interface ReadMessage extends Message {
  readonly facts: MessageFacts;
  /** Whether it could not be read as it is written: what it seems to lack may be in the part that was lost. */
  readonly isBroken: boolean;
  /** Whether it is nothing but literal text, as written. */
  readonly isPlain: boolean;
}

/** A message without any sign that its syntax knows; what it is made of is put together when it is asked for. */
export class PlainMessage implements ReadMessage {
  constructor(readonly source: string) {}

  get nodes(): readonly MessageNode[] {
    const { source } = this;
    return source === "" ? [] : [{ kind: "text", value: source, span: { start: 0, end: source.length } }];
  }
  get facts(): MessageFacts {
    return plainFacts(this.source);
  }
  get problems() {
    return nothing;
  }
  get quoted() {
    return nothing;
  }
  get isBroken() {
    return false;
  }
  get isPlain() {
    return true;
  }
}

const nothing: readonly [] = [];

/** A message that its parser made into a tree; what it uses is gathered when it is asked for. */
export class TreeMessage implements ReadMessage {
  readonly source: string;
  readonly nodes: readonly MessageNode[];
  readonly problems: readonly MessageProblem[];
  readonly quoted: readonly Span[];
  private gathered: MessageFacts | undefined = undefined;

  constructor({ source, nodes, problems, quoted }: Message) {
    this.source = source;
    this.nodes = nodes;
    this.problems = problems;
    this.quoted = quoted;
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

/** Whether a message with these problems cannot be shown as it is written. */
export function hasErrors(problems: readonly MessageProblem[]): boolean {
  return problems.length > 0 && problems.some(({ severity }) => severity === "error");
}
