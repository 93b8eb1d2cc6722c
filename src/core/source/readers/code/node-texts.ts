import { literally } from "../../../text/key-pattern.js";
import { withoutQuoted } from "../../../text/delimited.js";
import type { Span } from "../../../text/span.js";
import { unescaped } from "../../escapes.js";
import { languages } from "../../languages/index.js";
import type { CodeLanguage, Grammar, Language } from "../../languages/language.js";
import { childIn, namedChildren, type CodeNode } from "./tree.js";

/** A callee of more characters than this is read from its end. */
const longestCallee = 2_000;

/** A string whose lines stand between two names, or three quotes. */
export interface BlockString {
  /** Its lines, without the names. */
  readonly inner: Span;
  /** The node whose children are its parts. */
  readonly body: CodeNode;
  /** The name that ends it; empty where quotes do. */
  readonly name: string;
  /** So many blanks at the beginning of each line are none of it. */
  readonly indent: number;
  /** Marks around code in it, where code may be put in. */
  readonly marks?: readonly [open: string, close: string];
}

/** So far before its lines such a string is opened, in code units. */
const longestOpening = 2_000;

/** What nodes of one file's tree say: their texts, the names of what they call, the values of their strings. */
export class NodeTexts {
  readonly spoken: Language;
  readonly spec: Grammar;

  constructor(
    readonly language: CodeLanguage,
    readonly text: string,
  ) {
    this.spoken = languages[language];
    this.spec = this.spoken.grammar;
  }

  private readonly blocks = new WeakMap<CodeNode, BlockString>();

  textOf(node: CodeNode): string {
    return this.text.slice(node.start, node.end);
  }

  /** What is known of a string whose lines stand between two names; undefined for other nodes. */
  blockOf(node: CodeNode): BlockString | undefined {
    const { blockStrings, textBlocks } = this.spec;
    const known = this.blocks.get(node);
    if (known) return known;
    if (textBlocks && this.spec.strings.includes(node.type)) return this.textBlockOf(node, textBlocks);
    if (!blockStrings?.whole.includes(node.type)) return undefined;
    const own = blockStrings.body.test(node.type);
    const body = own ? node : node.children.find(({ type }) => blockStrings.body.test(type));
    const end = node.children.find(({ type }) => type === blockStrings.end);
    const { text } = this;
    const lastLine = end ? text.lastIndexOf("\n", end.start - 1) + 1 : node.end;
    const name = end ? this.textOf(end) : "";
    // How the string is opened: where its lines begin, or in a line before.
    const ahead = own
      ? text.slice(Math.max(node.start - longestOpening, 0), node.start)
      : text.slice(node.start, body?.start ?? node.end);
    const opening = new RegExp(`<<<?([~-]?)[ \\t]*(["'\`]?)${literally(name)}\\2`, "g");
    const [, sign = "", quote = ""] = [...ahead.matchAll(opening)].at(-1) ?? [];
    const start = body
      ? body.start + (/^\r?\n/.exec(text.slice(body.start, body.start + 2))?.[0].length ?? 0)
      : lastLine;
    const stop = own ? lastLine : (body?.end ?? lastLine);
    const lines = text
      .slice(start, Math.max(stop, start))
      .split("\n")
      .filter((line) => line.trim() !== "");
    const indent = own
      ? sign === "~" && lines.length > 0
        ? Math.min(...lines.map((line) => line.length - line.trimStart().length))
        : 0
      : (end?.start ?? 0) - lastLine;
    const found: BlockString = {
      inner: { start, end: Math.max(stop, start) },
      body: body ?? node,
      name,
      indent: Math.max(indent, 0),
      ...(blockStrings.marks && quote !== "'" && { marks: blockStrings.marks }),
    };
    this.blocks.set(node, found);
    return found;
  }

  /** What is known of a string between three quotes whose lines begin behind the first of them. */
  private textBlockOf(node: CodeNode, margin: "least" | "closing"): BlockString | undefined {
    const opening = /^\$*"""[ \t]*\r?\n/.exec(this.text.slice(node.start, node.end))?.[0];
    if (opening === undefined || !this.text.startsWith('"""', node.end - 3)) return undefined;
    const start = node.start + opening.length;
    const closing = node.end - 3;
    const lastLine = Math.max(this.text.lastIndexOf("\n", closing - 1) + 1, start);
    const blanksOf = (line: string) => line.length - line.trimStart().length;
    const isAlone = this.text.slice(lastLine, closing).trim() === "";
    const lines = this.text
      .slice(start, closing)
      .split("\n")
      .filter((line, index, all) => line.trim() !== "" || (isAlone && index === all.length - 1));
    const found: BlockString = {
      inner: { start, end: margin === "least" ? closing : this.lineBefore(lastLine, start) },
      body: node,
      name: "",
      indent: margin === "least" ? Math.min(...lines.map(blanksOf)) : closing - lastLine,
    };
    this.blocks.set(node, found);
    return found;
  }

  /** Where the line ends that is before one, its end signs left out. */
  private lineBefore(lineStart: number, least: number): number {
    const end = lineStart - (this.text[lineStart - 2] === "\r" ? 2 : 1);
    return Math.max(end, least);
  }

  /** The inside of a string, without its quotes and prefix. */
  innerSpan(node: CodeNode): Span {
    if (node.type === "argument") return this.innerSpan(namedChildren(node)[0] ?? node);
    if (!this.spec.strings.includes(node.type)) return { start: node.start, end: node.end };
    const block = this.blockOf(node);
    if (block) return block.inner;
    const written = this.text.slice(node.start, node.end);
    const open =
      /^(?:[rRbBuUfF]{0,2}|[$@]{0,2})(?:"""|'''|["'`])|^%[qQwW]?[([{|<!/]/.exec(written)?.[0].length ?? 0;
    const close = /(?:"""|'''|["'`)\]}|>!/])$/.exec(written)?.[0].length ?? 0;
    const isTriple = /^(?:\w{0,2}|[$@]{0,2})(?:"""|''')/.test(written);
    return {
      start: node.start + open,
      end: Math.max(node.end - (isTriple ? 3 : Math.min(close, 1)), node.start + open),
    };
  }

  /** The value of a part of a string. */
  unescape(node: CodeNode, start: number, end: number): string {
    const written = this.text.slice(start, end);
    if (!/[\\"]/.test(written)) return written;
    const open = this.text.slice(node.start, this.innerSpan(node).start);
    return unescaped(written, this.spoken.escapesIn(open), open.at(-1) ?? "");
  }

  plainText(node: CodeNode): string {
    if (isSideBySide(node))
      return node.children
        .filter(({ type }) => this.spec.strings.includes(type))
        .map((one) => this.plainText(one))
        .join("");
    const inner = this.innerSpan(node);
    return this.unescape(node, inner.start, inner.end);
  }

  pairName(node: CodeNode): string {
    const key =
      childIn(node, "key") ?? childIn(node, "name") ?? childIn(node, "left") ?? namedChildren(node)[0];
    return key ? this.text.slice(key.start, key.end).replace(/^[:"'$@]+|[:"']+$/g, "") : "";
  }

  operatorOf(node: CodeNode): string {
    const operator =
      childIn(node, "operator") ?? childIn(node, "operators") ?? node.children.find(({ named }) => !named);
    return operator ? this.text.slice(operator.start, operator.end) : "";
  }

  /** The function or method that a call names: `flash.alert`, `Toast.makeText`, `setError`. */
  calleeOf(node: CodeNode): string {
    const given = node.children.find(({ type }) => this.spec.arguments.includes(type));
    const head = childIn(node, "function") ?? undefined;
    const end = given?.start ?? head?.end ?? node.end;
    // Of a chain of thousands of calls only the last names matter; each call in it asks for its own.
    const callee =
      end - node.start > longestCallee
        ? (/(?<![\p{L}\p{N}_$@.:>?!-])[\p{L}\p{N}_$@.:>?!-]+$/u.exec(this.text.slice(end - 100, end))?.[0] ??
          "")
        : this.text.slice(node.start, end);
    const written = withoutQuoted(callee, `"'`, () => "_")
      .replace(/\s+/g, "")
      .replace(/^new(?=[A-Z])/, "");
    return written
      .replace(/->|::|\?\./g, ".")
      .replace(/\([^()]*\)/g, "")
      .replace(/^[$@.]+/, "")
      .replace(/[({][^]*$/, "")
      .replace(/[!?]$/, "")
      .slice(-80);
  }

  /** What is appended to, as far as its name says what it holds. */
  calleeName(node: CodeNode): string {
    const end = this.textOf(node)
      .slice(-100)
      .replace(/\[[^\][]{0,60}\]$/, "");
    return /(?<![\w.])[\w.]+$/.exec(end)?.[0] ?? "";
  }

  argumentsOf(node: CodeNode): readonly CodeNode[] {
    const list = node.children.find(({ type }) => this.spec.arguments.includes(type));
    if (!list) return [];
    const given = namedChildren(list).filter(({ type }) => !this.spec.comments.includes(type));
    return given.map((argument) => {
      const inside = argument.type === "argument" ? namedChildren(argument) : [];
      return inside.length === 1 ? (inside[0] ?? argument) : argument;
    });
  }
}

/** Whether a node is strings that stand side by side, which are one. */
export function isSideBySide({ type }: CodeNode): boolean {
  return type === "concatenated_string" || type === "chained_string";
}
