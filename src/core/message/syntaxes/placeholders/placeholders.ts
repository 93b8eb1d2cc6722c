import type { ArgumentNode, Message, MessageNode, MessageProblem } from "../../model.js";
import type { Syntax } from "../syntax.js";
import { mostProblems } from "../most-problems.js";
import { treeOf, type Token } from "../tokens.js";

interface Placeholder {
  readonly name: string;
  /** Where in the match the name stands; absent where it is counted. */
  readonly nameAt?: number;
  readonly type?: string;
  /** What stands behind its type, or in place of one, as it is written. */
  readonly style?: string;
}

/** How one syntax writes placeholders, and what stands for its own signs. */
interface PlaceholderGrammar {
  /** Finds placeholders, escapes and what looks like a placeholder that breaks off. */
  readonly pattern: RegExp | undefined;
  /** What a match is: a placeholder, text, or a problem. */
  read(
    match: RegExpExecArray,
    counted: () => number,
  ):
    | Placeholder
    | { readonly text: string }
    | { readonly problem: Pick<MessageProblem, "name" | "data" | "code"> };
  write(argument: ArgumentNode, index: number): string;
  escape(text: string): string;
  /** Whether what looks like placeholders in a text is something else, all of it. */
  isOther?(text: string): boolean;
}

type Given =
  | "name"
  | "signs"
  | "placeholders"
  | "recognized"
  | "numberedFrom"
  | "countsUnnamed"
  | "isFilledLater"
  | "givenAs"
  | "hasArguments";

/** A syntax whose messages are text with placeholders in it. */
export function placeholderSyntax({
  pattern,
  read,
  write,
  escape,
  isOther,
  ...syntax
}: Pick<Syntax, "name" | "signs" | "placeholders"> &
  Partial<Pick<Syntax, Given>> &
  PlaceholderGrammar): Syntax {
  const grammar = { pattern, read, write, escape, ...(isOther && { isOther }) };
  return {
    hasArguments: true,
    choices: undefined,
    countSign: undefined,
    hasSkeletons: false,
    ...syntax,
    parse: (text, tags) => parsePlaceholders(text, grammar, tags),
    print: (nodes) => printPlaceholders(nodes, grammar),
    writeBranch: (selector) => `${selector} {…}`,
  };
}

/** Reads a message of a syntax whose placeholders stand in plain text. One pass; never throws. */
function parsePlaceholders(
  source: string,
  { pattern, read, isOther }: PlaceholderGrammar,
  tags: boolean,
): Message {
  const tokens: Token[] = [];
  const problems: MessageProblem[] = [];
  let at = 0;
  let count = 0;
  const text = (value: string, start: number, end: number) => {
    if (end > start) tokens.push({ kind: "text", value, start, end });
  };
  if (pattern && !isOther?.(source))
    for (const match of source.matchAll(pattern)) {
      const start = match.index;
      const end = start + match[0].length;
      const found = read(match as RegExpExecArray, () => ++count);
      if (end === start) continue;
      // A text with that many faults is of another syntax: the rest of them would help nobody.
      if (problems.length >= mostProblems) break;
      text(source.slice(at, start), at, start);
      at = end;
      if ("text" in found) text(found.text, start, end);
      else if ("problem" in found) {
        problems.push({ severity: "error", ...found.problem, span: { start, end } });
        text(source.slice(start, end), start, end);
      } else {
        const { name, nameAt, type, style } = found;
        tokens.push({
          kind: "node",
          start,
          end,
          node: {
            kind: "argument",
            name,
            ...(type !== undefined && {
              format: {
                type,
                ...(style !== undefined && { style: { kind: "pattern" as const, text: style } }),
              },
            }),
            span: { start, end },
            nameSpan:
              nameAt === undefined
                ? { start, end }
                : { start: start + nameAt, end: Math.min(start + nameAt + name.length, end) },
          },
        });
      }
    }
  text(source.slice(at), at, source.length);
  return treeOf(source, tokens, problems, tags);
}

/** Writes nodes as a message of the syntax. A plural or select has no place in it: its last branch is written. */
function printPlaceholders(nodes: readonly MessageNode[], grammar: PlaceholderGrammar): string {
  let index = 0;
  const print = (all: readonly MessageNode[]): string =>
    all
      .map((node): string => {
        switch (node.kind) {
          case "text":
            return grammar.escape(node.value);
          case "argument":
            index++;
            return grammar.write(node, index);
          case "count":
            return "";
          case "tag": {
            const attributes = node.attributes.length > 0 ? ` ${print(node.attributes)}` : "";
            return node.selfClosing
              ? `<${node.name}${attributes}/>`
              : `<${node.name}${attributes}>${print(node.children)}</${node.name}>`;
          }
          case "plural":
          case "select":
            return print(node.branches.at(-1)?.nodes ?? []);
        }
      })
      .join("");
  return print(nodes);
}
