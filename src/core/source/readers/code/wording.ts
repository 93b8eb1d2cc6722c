import { holdsMarkup } from "../../../text/html-elements.js";
import type { Span } from "../../../text/span.js";
import type { ChoicePiece, LookupKey, Piece, WrittenString } from "../../model.js";
import { joinTexts } from "../../pieces.js";
import { nameFromCode, uniqueNames } from "../expression-names.js";
import { countedWord } from "../counted-words.js";
import { asksForAny, choicePiece, flip, numbersFor, type ChoiceTest } from "../worded-choice.js";
import type { Grammar } from "../../languages/language.js";
import { bareNode, childIn, namedChildren, type CodeNode } from "./tree.js";
import { isSideBySide, type NodeTexts } from "./node-texts.js";

/** Gives a value's name, another one where its name is taken. */
export type Unique = (wanted: string, code: string) => string;

function isSmallNumber(code: string): boolean {
  return /^[012]$/.test(code.trim());
}

/** Whether reading an expression once more changes nothing: a name, a member, a call. */
function isReadable(node: CodeNode, spec: Grammar): boolean {
  return (
    !/assign|unary|update|conditional|ternary|lambda/.test(node.type) && !spec.binaries.includes(node.type)
  );
}

/** What expressions say to a reader: texts, values, and words that a condition chooses, put together or not. */
export class Wording {
  /** Whether nodes join texts: asked of a chain at each of its links. */
  private readonly gluing = new Map<CodeNode, boolean>();
  /** The strings that were read since they were last asked for. */
  private written: WrittenString[] = [];

  constructor(
    private readonly nodes: NodeTexts,
    /** The language that the texts are in, as a tag. */
    private readonly sourceLanguage: string | undefined,
  ) {}

  /** The strings that were read in a node since this was last asked. */
  takeWritten(node: Span): readonly WrittenString[] {
    const { written } = this;
    this.written = [];
    return written.filter(({ start, end }) => node.start <= start && end <= node.end);
  }

  /** The parts of `test ? first : second`, also in Python's order, and in brackets; undefined for anything else. */
  conditionalOf(
    node: CodeNode,
  ): { readonly test: CodeNode; readonly first: CodeNode; readonly second: CodeNode } | undefined {
    const bare = bareNode(node);
    if (!/^(?:conditional|ternary)/.test(bare.type)) return undefined;
    const [test, first, second] = this.nodes.spoken.conditional?.(bare) ?? [
      childIn(bare, "condition"),
      childIn(bare, "consequence") ?? childIn(bare, "body"),
      childIn(bare, "alternative"),
    ];
    return test && first && second ? { test: bareNode(test), first, second } : undefined;
  }

  /** Words that a conditional chooses, as a plural or select; undefined where it chooses other things. */
  choiceOf(node: CodeNode, unique: Unique, taken: CodeNode[]): ChoicePiece | undefined {
    return choicePiece<CodeNode>(
      node,
      { start: node.start, end: node.end },
      {
        read: (one) => {
          const parts = this.conditionalOf(one);
          if (!parts || !this.choosesWords(one)) return undefined;
          return { test: this.testOf(parts.test), first: parts.first, second: parts.second };
        },
        pieces: (branch) => joinTexts(this.partsOf(branch, unique, taken)),
        codeOf: (branch) => this.nodes.textOf(branch),
        take: (one) => taken.push(bareNode(one)),
        uniqueName: unique,
        language: this.sourceLanguage,
      },
    );
  }

  /** What a test compares: a number against 0, 1 or 2, or anything that is true or false. */
  private testOf(test: CodeNode): ChoiceTest {
    const isComparison = this.nodes.spec.binaries.includes(test.type);
    const [left, right] = isComparison
      ? [childIn(test, "left") ?? namedChildren(test)[0], childIn(test, "right") ?? namedChildren(test)[1]]
      : [];
    if (left && right) {
      const flipped = isSmallNumber(this.nodes.textOf(left));
      const [operand, bound] = flipped ? [right, left] : [left, right];
      const written = this.nodes.operatorOf(test);
      const operator = flipped ? flip(written) : written;
      const numbers = isSmallNumber(this.nodes.textOf(bound))
        ? numbersFor(operator, Number(this.nodes.textOf(bound)))
        : undefined;
      if (numbers && isReadable(bareNode(operand), this.nodes.spec)) {
        const code = this.nodes.textOf(bareNode(operand));
        const plural = { kind: "plural", code, value: code, name: nameFromCode(code), ...numbers } as const;
        return asksForAny(operator, numbers) ? { ...plural, orElse: this.truthOf(test) } : plural;
      }
    }
    return this.truthOf(test);
  }

  /** A test as what is true or not. */
  private truthOf(test: CodeNode): ChoiceTest {
    const code = this.nodes.textOf(test);
    return {
      kind: "select",
      code,
      value: this.nodes.spoken.chooseYes(code),
      name: nameFromCode(code),
      first: ["yes"],
      second: ["other"],
    };
  }

  private choosesWords(node: CodeNode): boolean {
    const parts = this.conditionalOf(node);
    return parts !== undefined && (this.hasWords(parts.first) || this.hasWords(parts.second));
  }

  private hasWords(node: CodeNode): boolean {
    const bare = bareNode(node);
    if (this.isGluing(bare)) return true;
    if (this.nodes.spec.strings.includes(bare.type)) return /\p{L}/u.test(this.nodes.plainText(bare));
    return this.choosesWords(bare);
  }

  /** What an expression inside of a text says: the text of strings, the choice of a conditional, else a value. */
  partsOf(node: CodeNode, unique: Unique, taken: CodeNode[]): Piece[] {
    const bare = bareNode(node);
    if (this.isGluing(bare))
      return [childIn(bare, "left"), childIn(bare, "right")].flatMap((side) =>
        side ? this.partsOf(side, unique, taken) : [],
      );
    if (this.nodes.spec.strings.includes(bare.type)) return this.piecesOf(bare, unique, taken);
    const choice = this.choiceOf(node, unique, taken) ?? this.countOf(node, unique);
    return [choice ?? this.argument(node, unique)];
  }

  isGluing(node: CodeNode): boolean {
    let known = this.gluing.get(node);
    if (known === undefined) this.gluing.set(node, (known = this.joinsText(node)));
    return known;
  }

  /** Whether what is joined has a text in it; what is to the left of it all is gone through, however long the chain. */
  private joinsText(node: CodeNode): boolean {
    const isText = (side: CodeNode | undefined) =>
      side !== undefined && (this.nodes.spec.strings.includes(side.type) || this.choosesWords(side));
    let hasText = false;
    for (let current: CodeNode | undefined = node; ;) {
      const isJoined: boolean =
        current !== undefined &&
        this.nodes.spec.binaries.includes(current.type) &&
        this.nodes.spec.concatenation.includes(this.nodes.operatorOf(current));
      if (!current || !isJoined) return current !== node && (hasText || isText(current));
      const left = childIn(current, "left");
      const right = childIn(current, "right");
      if (
        this.isAppending(current) &&
        !(left && (this.nodes.spec.strings.includes(left.type) || this.isGluing(left)))
      )
        return false;
      hasText ||= isText(right) || (right !== undefined && this.isGluing(right));
      if (hasText && !this.nodes.spec.appending) return true;
      current = left;
    }
  }

  isAppending(node: CodeNode): boolean {
    return this.nodes.spec.appending?.includes(this.nodes.operatorOf(node)) ?? false;
  }

  /** The text and values of a string, in order. */
  piecesOf(node: CodeNode, unique: Unique, taken: CodeNode[] = []): Piece[] {
    if (isSideBySide(node))
      return node.children.flatMap((child) =>
        this.nodes.spec.strings.includes(child.type) ? this.piecesOf(child, unique, taken) : [],
      );
    const inner = this.nodes.innerSpan(node);
    const block = this.nodes.blockOf(node);
    // What stands in a page is shown without such blanks anyway, and its places stay as they are.
    const isPage = block !== undefined && holdsMarkup(this.nodes.text.slice(inner.start, inner.end));
    const indent = block && !isPage ? block.indent : 0;
    this.written.push({
      start: node.start,
      end: node.end,
      innerStart: inner.start,
      innerEnd: inner.end,
      ...(block && { isBlock: true as const, ...(block.marks && { marks: block.marks }) }),
      ...(indent > 0 && { indent }),
    });
    const margin = new RegExp(`(\\n)[ \\t]{1,${Math.max(indent, 1)}}`, "g");
    const valueOf = (from: number, to: number) => {
      const written = this.nodes.unescape(node, from, to);
      // A line ends in the same way to the program's readers, whatever the file writes.
      const value = block ? written.replaceAll("\r\n", "\n") : written;
      if (indent === 0) return value;
      return from === inner.start ? `\n${value}`.replace(margin, "$1").slice(1) : value.replace(margin, "$1");
    };
    const pieces: Piece[] = [];
    let at = inner.start;
    const put = (to: number) => {
      if (to > at)
        pieces.push({
          kind: "text",
          value: valueOf(at, to),
          span: { start: at, end: to },
        });
    };
    for (const child of (block?.body ?? node).children) {
      if (
        !this.nodes.spec.interpolations.includes(child.type) ||
        child.start < inner.start ||
        child.end > inner.end
      )
        continue;
      const braced =
        this.nodes.spoken.bracesInterpolation &&
        this.nodes.text[child.start - 1] === "{" &&
        this.nodes.text[child.end] === "}";
      put(braced ? child.start - 1 : child.start);
      pieces.push(
        this.choiceOf(child, unique, taken) ??
          this.countOf(child, unique) ??
          this.argument(child, unique, !braced),
      );
      at = braced ? child.end + 1 : child.end;
    }
    put(inner.end);
    return pieces;
  }

  /** A number with its word, where a helper puts both out. */
  private countOf(node: CodeNode, unique: Unique): ChoicePiece | undefined {
    const { counts } = this.nodes.spoken;
    if (!counts) return undefined;
    const code = this.nodes.textOf(node).replace(/^#\{|\}$/g, "");
    return countedWord(code, { start: node.start, end: node.end }, counts, unique, this.sourceLanguage);
  }

  private argument(node: CodeNode, unique: Unique, isInString = false): Piece {
    const isWrapped = /^interpolation$/.test(node.type);
    const written = this.nodes.text
      .slice(node.start, node.end)
      .replace(isWrapped ? /^(?:#\{|\{)|\}$/g : /^$/, "");
    const code = (isInString ? this.nodes.spoken.outsideString?.(written) : undefined) ?? written;
    return {
      kind: "argument",
      name: unique(nameFromCode(code), code),
      code: code.trim(),
      span: { start: node.start, end: node.end },
      mayBeAbsent: false,
    };
  }

  keyOf(argument: CodeNode): LookupKey {
    const node = argument.type === "argument" ? (namedChildren(argument)[0] ?? argument) : argument;
    if (/^(simple_symbol|hash_key_symbol)$/.test(node.type))
      return { kind: "fixed", value: this.nodes.text.slice(node.start, node.end).replace(/^:|:$/g, "") };
    const isQuotedSymbol = node.type === "delimited_symbol";
    if (!isQuotedSymbol && !this.nodes.spec.strings.includes(node.type) && !this.isGluing(node))
      return { kind: "unknown" };
    const parts: (string | null)[] = [];
    const collect = (part: CodeNode | undefined) => {
      if (!part) return;
      if (this.isGluing(part)) {
        collect(childIn(part, "left"));
        collect(childIn(part, "right"));
      } else if (this.nodes.spec.strings.includes(part.type))
        parts.push(
          ...this.piecesOf(part, uniqueNames()).map((piece) => (piece.kind === "text" ? piece.value : null)),
        );
      else parts.push(null);
    };
    if (isQuotedSymbol)
      for (const { type, start, end } of namedChildren(node))
        parts.push(type === "string_content" ? this.nodes.text.slice(start, end) : null);
    else collect(node);
    const fixed = parts.filter((part): part is string => part !== null).join("");
    if (!parts.includes(null)) return { kind: "fixed", value: fixed };
    return fixed === "" ? { kind: "unknown" } : { kind: "composed", parts };
  }
}
