import { boundKeyIn } from "../../bound-key.js";
import { isFilledAround } from "../../filled-around.js";
import { notices } from "../../../message/notices.js";
import { delimitedParts, withoutQuoted } from "../../../text/delimited.js";
import { lineIndex } from "../../../text/line-index.js";
import type { Span } from "../../../text/span.js";
import { byPlace } from "../../model.js";
import type {
  ChoicePiece,
  Literal,
  LiteralContext,
  LiteralRole,
  Lookup,
  LookupKey,
  LookupShapes,
  Obstacle,
  Piece,
  Remark,
  SourceFile,
  SourceProblem,
  WrittenString,
} from "../../model.js";
import { unescaped } from "../../escapes.js";
import { eachPiece, hasLetters, joinTexts, mapPieces, mayHaveParts, trimEnds } from "../../pieces.js";
import { choiceRemark } from "../choice-remark.js";
import { holdsMarkup } from "../../../text/html-elements.js";
import { asksForDebugging } from "../debugging.js";
import { applyMarks, markComment, type CommentMarks } from "../comment-marks.js";
import { nameFromCode, uniqueNames } from "../expression-names.js";
import { choicePiece, flip, isCounted, numbersFor, withOneName, type ChoiceTest } from "../worded-choice.js";
import { parseCode } from "./grammars.js";
import { languages } from "../../languages/index.js";
import type { CodeLanguage, Grammar, Language } from "../../languages/language.js";
import { childIn, namedChildren, type CodeNode } from "./tree.js";

/** Reads Ruby, PHP, Java, Python, Go or C#: literals with their context, and lookups as calls. The grammar must be loaded. */
export function readCode(
  language: CodeLanguage,
  file: string,
  text: string,
  bom: boolean,
  shapes: LookupShapes,
): SourceFile {
  const root = parseCode(language, text);
  const reader = new CodeReader(language, text, shapes);
  try {
    reader.visit(root);
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    reader.problems.push({ ...sayOf("too-deep-code", {}), span: { start: 0, end: 1 } });
  }
  const lines = lineIndex(text);
  const marks: CommentMarks = new Map();
  for (const { start, end } of reader.comments)
    markComment(marks, text.slice(start, end).trimEnd(), lines.position(Math.max(end - 1, start)).line);
  const literals = applyMarks(reader.literals, marks, lines);
  literals.sort(byPlace);
  reader.lookups.sort(byPlace);
  return {
    file,
    text,
    bom,
    lines,
    literals,
    lookups: reader.lookups,
    mentions: reader.mentions,
    problems: reader.problems,
  };
}

type Unique = (wanted: string, code: string) => string;

/** An expression without the brackets, or the signs of interpolation, around it. */
function bareNode(node: CodeNode): CodeNode {
  const [only, ...others] = namedChildren(node).filter(({ type }) => type !== "interpolation_brace");
  return only && others.length === 0 && /^(?:parenthesized_\w+|interpolation|argument)$/.test(node.type)
    ? bareNode(only)
    : node;
}

function isSmallNumber(code: string): boolean {
  return /^[012]$/.test(code.trim());
}

/** Whether reading an expression once more changes nothing: a name, a member, a call. */
function isReadable(node: CodeNode, spec: Grammar): boolean {
  return (
    !/assign|unary|update|conditional|ternary|lambda/.test(node.type) && !spec.binaries.includes(node.type)
  );
}

/** Of what surrounds a string so many nodes are asked what it is for: in a chain of thousands each would ask all. */
const farthest = 250;

/** What a number is turned into text with: a message does that by itself. */
const asText =
  /^(?:str|String|strval|String\.valueOf|Integer\.toString|Convert\.ToString)\(([^()]+)\)$|^\(string\)\s*(\S+)$|^([^()\s]+)\.(?:to_s|ToString\(\)|toString\(\))$/;

/** Pieces in which the number that a choice counts is passed as it is where the text shows it: `str(n)` is `n` then. */
function withBareCounts(pieces: readonly Piece[]): readonly Piece[] {
  const counted = new Set<string>();
  const names = new Map<string, string>();
  const bareOf = (code: string) => {
    const [, one, two, three] = asText.exec(code) ?? [];
    return (one ?? two ?? three)?.trim();
  };
  for (const piece of eachPiece(pieces))
    if (piece.kind === "choice" && piece.choice === "plural") counted.add(piece.code);
  let isWrapped = false;
  for (const piece of eachPiece(pieces)) {
    if (piece.kind !== "argument" && piece.kind !== "choice") continue;
    const bare = piece.kind === "argument" ? bareOf(piece.code) : undefined;
    const code = bare ?? piece.code;
    if (!counted.has(code)) continue;
    isWrapped ||= bare !== undefined;
    // Of the names that one value has by now the shortest is the one without a number behind it.
    const known = names.get(code);
    if (known === undefined || piece.name.length < known.length) names.set(code, piece.name);
  }
  if (!isWrapped) return pieces;
  return mapPieces(pieces, (piece) => {
    if (piece.kind !== "argument" && piece.kind !== "choice") return piece;
    const code = (piece.kind === "argument" ? bareOf(piece.code) : undefined) ?? piece.code;
    const name = names.get(code);
    return name === undefined ? piece : { ...piece, code, name };
  });
}

/** A callee of more characters than this is read from its end. */
const longestCallee = 2_000;

class CodeReader {
  readonly literals: Literal[] = [];
  readonly lookups: Lookup[] = [];
  readonly mentions = new Set<string>();
  readonly problems: SourceProblem[] = [];
  readonly comments: CodeNode[] = [];
  private readonly ancestors: CodeNode[] = [];
  private readonly consumed = new Set<CodeNode>();
  /** Whether nodes join texts: asked of a chain at each of its links. */
  private readonly gluing = new Map<CodeNode, boolean>();
  /** The strings that were read since the last literal. */
  private written: WrittenString[] = [];
  private readonly remarked: { start: number; end: number; remark: Remark }[] = [];
  private readonly spoken: Language;
  private readonly spec: Grammar;

  constructor(
    private readonly language: CodeLanguage,
    private readonly text: string,
    private readonly shapes: LookupShapes,
  ) {
    this.spoken = languages[language];
    this.spec = this.spoken.grammar;
  }

  visit(node: CodeNode): void {
    const { spec } = this;
    if (node.isError && this.problems.length === 0)
      this.problems.push({
        ...sayOf("syntax-error", {}),
        span: { start: node.start, end: Math.max(node.end, node.start + 1) },
      });
    if (spec.comments.includes(node.type)) {
      this.comments.push(node);
      return;
    }
    if (spec.imports.includes(node.type)) return;
    if (this.isDocumentation(node)) {
      if (this.spoken.shownDocumentation?.(node, this.near, this.text)) this.documentation(node);
      return;
    }
    if (spec.calls.includes(node.type)) this.call(node);
    if (spec.subscripts.includes(node.type)) this.member(node);
    if (/conditional|ternary/.test(node.type)) this.choice(node);
    if (!this.consumed.has(node)) {
      if (this.isGluing(node)) {
        this.glued(node);
        this.consumeGlued(node);
      } else if (this.isFormatOperator(node)) this.formatOperator(node);
      else if (spec.strings.includes(node.type)) this.string(node);
    }
    this.ancestors.push(node);
    for (const child of node.children) this.visit(child);
    this.ancestors.pop();
  }

  /** Strings that document the code: Python's, standing alone as a statement. */
  private isDocumentation(node: CodeNode): boolean {
    return this.spoken.isDocumentation?.(node) ?? false;
  }

  /** What documents the code and is shown as well, as the help of a command. */
  private documentation(node: CodeNode): void {
    const [only] = namedChildren(node);
    if (!only) return;
    this.add("string", only, joinTexts(this.piecesOf(only, uniqueNames())), [], say("constant-only", {}));
    const literal = this.literals.at(-1);
    if (literal?.span.start === only.start)
      this.literals[this.literals.length - 1] = {
        ...literal,
        context: { ...literal.context, role: "property", name: "help" },
      };
  }

  /** Words chosen by a number or by the language: told of with each of them. */
  private choice(node: CodeNode): void {
    const [test] = namedChildren(node);
    if (!test) return;
    const condition = this.conditionalOf(node)?.test ?? test;
    const remark = choiceRemark(this.textOf(condition));
    if (!remark) return;
    this.remarked.push({ start: node.start, end: node.end, remark });
    if (remark.kind === "plural-by-hand" && !this.consumed.has(node)) this.countedChoice(node);
  }

  /** A conditional by itself that chooses between the forms of one text by a number. */
  private countedChoice(node: CodeNode): void {
    const taken: CodeNode[] = [];
    const piece = this.choiceOf(node, uniqueNames(), taken);
    if (
      piece?.choice !== "plural" ||
      !isCounted(
        piece.branches.map(({ pieces }) => pieces),
        piece.code,
      )
    )
      return;
    for (const one of taken) this.consumeChoice(one);
    this.add("template", node, [piece]);
  }

  /** The parts of `test ? first : second`, also in Python's order, and in brackets; undefined for anything else. */
  private conditionalOf(
    node: CodeNode,
  ): { readonly test: CodeNode; readonly first: CodeNode; readonly second: CodeNode } | undefined {
    const bare = bareNode(node);
    if (!/^(?:conditional|ternary)/.test(bare.type)) return undefined;
    const [test, first, second] = this.spoken.conditional?.(bare) ?? [
      childIn(bare, "condition"),
      childIn(bare, "consequence") ?? childIn(bare, "body"),
      childIn(bare, "alternative"),
    ];
    return test && first && second ? { test: bareNode(test), first, second } : undefined;
  }

  /** Words that a conditional chooses, as a plural or select; undefined where it chooses other things. */
  private choiceOf(node: CodeNode, unique: Unique, taken: CodeNode[]): ChoicePiece | undefined {
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
        take: (one) => taken.push(bareNode(one)),
        uniqueName: unique,
        language: this.shapes.sourceLanguage,
      },
    );
  }

  /** What a test compares: a number against 0, 1 or 2, or anything that is true or false. */
  private testOf(test: CodeNode): ChoiceTest {
    const isComparison = this.spec.binaries.includes(test.type);
    const [left, right] = isComparison
      ? [childIn(test, "left") ?? namedChildren(test)[0], childIn(test, "right") ?? namedChildren(test)[1]]
      : [];
    if (left && right) {
      const flipped = isSmallNumber(this.textOf(left));
      const [operand, bound] = flipped ? [right, left] : [left, right];
      const operator = this.operatorOf(test);
      const numbers = isSmallNumber(this.textOf(bound))
        ? numbersFor(flipped ? flip(operator) : operator, Number(this.textOf(bound)))
        : undefined;
      if (numbers && isReadable(bareNode(operand), this.spec)) {
        const code = this.textOf(bareNode(operand));
        return { kind: "plural", code, value: code, name: nameFromCode(code), ...numbers };
      }
    }
    const code = this.textOf(test);
    return {
      kind: "select",
      code,
      value: this.spoken.chooseYes(code),
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
    if (this.spec.strings.includes(bare.type)) return /\p{L}/u.test(this.plainText(bare));
    return this.choosesWords(bare);
  }

  /** What an expression inside of a text says: the text of strings, the choice of a conditional, else a value. */
  private partsOf(node: CodeNode, unique: Unique, taken: CodeNode[]): Piece[] {
    const bare = bareNode(node);
    if (this.isGluing(bare))
      return [childIn(bare, "left"), childIn(bare, "right")].flatMap((side) =>
        side ? this.partsOf(side, unique, taken) : [],
      );
    if (this.spec.strings.includes(bare.type)) return this.piecesOf(bare, unique, taken);
    const choice = this.choiceOf(node, unique, taken);
    return [choice ?? this.argument(node, unique)];
  }

  /** The strings of a conditional whose words are part of a text belong to that text. */
  private consumeChoice(node: CodeNode): void {
    this.consumed.add(node);
    const parts = this.conditionalOf(node);
    for (const branch of parts ? [parts.first, parts.second] : []) {
      const bare = bareNode(branch);
      if (this.isGluing(bare)) this.consumeGlued(bare);
      else if (this.spec.strings.includes(bare.type)) this.consume(bare);
    }
  }

  private textOf(node: CodeNode): string {
    return this.text.slice(node.start, node.end);
  }

  /** A call: a lookup, a pattern that is filled, or neither. */
  private call(node: CodeNode): void {
    const callee = this.calleeOf(node);
    const given = this.argumentsOf(node);
    const short = callee.split(/[.:>]+/).pop() ?? callee;
    const shape =
      this.shapes.calls.get(callee) ??
      (this.shapes.calls.has(short) && callee.replace(/^(?:\$?this|self|view|helpers)[.>:-]+/, "") === short
        ? this.shapes.calls.get(short)
        : undefined);
    const place = shape?.key ?? 0;
    const first = given[place];
    if (shape && first) {
      const key = this.scopedKey(this.keyOf(first), node, first);
      const inner = this.innerSpan(first);
      const { lookupOptions } = this.spoken;
      const names = given
        .slice(place + 1)
        .flatMap((argument) => this.argumentNames(argument))
        .filter((name) => name === undefined || !lookupOptions?.test(name));
      const fallback = shape.default === undefined ? undefined : given[shape.default];
      const said = shape.note === undefined ? undefined : given[shape.note];
      this.lookups.push({
        span: { start: node.start, end: node.end },
        keySpan: inner,
        key,
        argumentNames:
          names.includes(undefined) || isFilledAround(this.text, node.start, node.end)
            ? undefined
            : (names as string[]),
        ...(fallback &&
          this.spec.strings.includes(fallback.type) && { defaultText: this.plainText(fallback) }),
        ...(said && this.spec.strings.includes(said.type) && { note: this.plainText(said) }),
      });
      if (key.kind !== "unknown") this.consume(first);
      if (fallback) this.consume(fallback);
      if (said) this.consume(said);
      if (key.kind === "fixed") this.mentions.add(key.value);
      return;
    }
    const placeIn = (calls: Grammar["formats"]) =>
      calls[callee] ?? (short !== callee ? calls[short] : undefined);
    const printed = placeIn(this.spec.printers);
    const format = placeIn(this.spec.formats);
    if (printed !== undefined) this.printed(node, printed, given);
    else if (format !== undefined) this.formatted(node, format, given);
  }

  /** A call that fills a pattern and does something with what comes out: it stays, and is given the text instead of the pattern. */
  private printed(call: CodeNode, place: number, given: readonly CodeNode[]): void {
    const pattern = given[place];
    const list = call.children.find(({ type }) => this.spec.arguments.includes(type));
    if (!pattern || !list || !this.spec.strings.includes(pattern.type)) return;
    // Some print a text that is given alone as it is.
    if (this.spoken.hole !== undefined && given.length === place + 1) return;
    const depth = this.ancestors.length;
    this.ancestors.push(call, list);
    this.filled(pattern, pattern, given.slice(place + 1), true);
    this.ancestors.length = depth;
  }

  /** A key behind what the call's other arguments put before it. */
  private scopedKey(key: LookupKey, call: CodeNode, first: CodeNode): LookupKey {
    const { parts: separator } = this.shapes.separators;
    if (key.kind === "unknown" || (key.kind === "fixed" && key.value.startsWith(separator))) return key;
    const scope =
      this.spoken.keyScope?.(this.text.slice(first.end, Math.min(call.end, first.end + 2_000))) ?? [];
    if (scope.length === 0) return key;
    const own = key.kind === "fixed" ? [key.value] : key.parts;
    const parts = [...scope.flatMap((part) => [part, separator]), ...own];
    return parts.includes(null) ? { kind: "composed", parts } : { kind: "fixed", value: parts.join("") };
  }

  /** A call that fills a pattern, which is an argument, or where `place` is below 0 what the method is called on. */
  private formatted(node: CodeNode, place: number, given: readonly CodeNode[]): void {
    const receiver = childIn(node, "object") ?? childIn(node, "receiver") ?? receiverOf(node);
    const pattern = place < 0 ? receiver : given[place];
    if (!pattern || !this.spec.strings.includes(pattern.type)) return;
    this.filled(node, pattern, place < 0 ? given : given.slice(place + 1));
  }

  /** `$texts["cart"]["title"]` of an object of texts: of a chain, the whole of it. */
  private member(node: CodeNode): void {
    const { subscripts, strings } = this.spec;
    const parent = this.ancestors.at(-1);
    if (this.shapes.members.size === 0 || (parent && subscripts.includes(parent.type))) return;
    const path: CodeNode[] = [];
    let at: CodeNode | undefined = node;
    while (at && subscripts.includes(at.type)) {
      const [object, index]: readonly (CodeNode | undefined)[] = namedChildren(at);
      if (!index) return;
      path.unshift(bareNode(index));
      at = object;
    }
    const last = path.at(-1);
    if (!at || !last || !this.shapes.members.has(this.textOf(at).replace(/^[$@]+|\([^()]*\)$/g, ""))) return;
    const parts = path.map((one) => (strings.includes(one.type) ? this.plainText(one) : null));
    const { parts: separator } = this.shapes.separators;
    if (parts.every((part) => part === null)) return;
    const key: LookupKey = parts.includes(null)
      ? {
          kind: "composed",
          parts: parts.flatMap((part, index) => (index === 0 ? [part] : [separator, part])),
        }
      : { kind: "fixed", value: parts.join(separator) };
    const span = { start: node.start, end: node.end };
    this.lookups.push({ span, keySpan: this.innerSpan(last), key, argumentNames: undefined, isMember: true });
    for (const one of path) if (strings.includes(one.type)) this.consume(one);
  }

  /** A pattern with its values, as one literal in the place of the whole call. */
  private filled(whole: CodeNode, pattern: CodeNode, values: readonly CodeNode[], isPrinted = false): void {
    if (holdsMarkup(this.plainText(pattern)) && this.filledMarkup(whole, pattern)) return;
    const unique = uniqueNames();
    const taken: CodeNode[] = [];
    const pieces: Piece[] = [];
    let formatted: string | undefined;
    let unknown = false;
    let next = 0;
    for (const piece of this.piecesOf(pattern, unique, taken)) {
      if (piece.kind !== "text") {
        pieces.push(piece);
        continue;
      }
      const { value: text, span } = piece;
      let at = 0;
      const put = (to: number) => {
        if (to > at) pieces.push({ kind: "text", value: text.slice(at, to).replaceAll("%%", "%"), span });
      };
      for (const match of text.matchAll(holes)) {
        if (match[0] === "%%") continue;
        put(match.index);
        at = match.index + match[0].length;
        const fixed = this.spoken.patternTexts?.[match[0]];
        if (fixed !== undefined) {
          pieces.push({ kind: "text", value: fixed, span });
          continue;
        }
        if (
          /^%[-+ 0#,]*(?:[1-9]\d*)?\.\d|^%[-+ 0#,]+(?:[1-9]\d*)?[a-z]|:[^}]|^%.*[raw]$|![rsa]/i.test(match[0])
        )
          formatted ??= match[0];
        const isNumber = match[3] !== undefined && /^\d+$/.test(match[3]);
        const place = match[1] !== undefined ? Number(match[1]) - 1 : isNumber ? Number(match[3]) : next++;
        const named = match[2] ?? (isNumber ? undefined : match[3]);
        const value = named === undefined ? values[place] : this.valueNamed(named, values);
        if (!value) unknown = true;
        const choice = value && this.choiceOf(value, unique, taken);
        if (choice) {
          pieces.push(choice);
          continue;
        }
        const code = value ? this.text.slice(value.start, value.end) : (named ?? match[0]);
        const where = value ? { start: value.start, end: value.end } : span;
        pieces.push({
          kind: "argument",
          name: unique(named ?? nameFromCode(code), code),
          code,
          span: where,
          mayBeAbsent: false,
        });
      }
      put(text.length);
    }
    this.consume(pattern);
    for (const one of taken) this.consumeChoice(one);
    const obstacle =
      formatted !== undefined
        ? say("formatted-value", { code: formatted })
        : unknown
          ? say("unknown-values", {})
          : undefined;
    const joined = joinTexts(pieces);
    if (!isPrinted) {
      this.add("template", whole, joined, [], obstacle, true);
      return;
    }
    // What is printed around the text stays in a pattern, since the text may hold signs that mean something in one.
    const edge = (piece: Piece | undefined, pattern: RegExp) =>
      piece?.kind === "text" ? (pattern.exec(piece.value)?.[0] ?? "") : "";
    const written = (blanks: string) => JSON.stringify(blanks).slice(1, -1);
    const before = written(edge(joined[0], /^\s*/));
    const after = written(edge(joined.at(-1), /(?<!\s)\s*$/));
    this.add("template", whole, trimEnds(joined), [], obstacle, true, {
      end: values.at(-1)?.end ?? whole.end,
      before: `"${before}${this.spoken.hole ?? "%s"}${after}", `,
    });
  }

  /**
   * A pattern of markup: its texts are read one by one, with what stands for values in them, and stay where they are. Not
   * where the code writes it otherwise than it reads.
   */
  private filledMarkup(whole: CodeNode, pattern: CodeNode): boolean {
    const unique = uniqueNames();
    const pieces: Piece[] = [];
    for (const piece of this.piecesOf(pattern, unique)) {
      if (piece.kind !== "text") {
        pieces.push(piece);
        continue;
      }
      const { value, span } = piece;
      if (span.end - span.start !== value.length) return false;
      let at = 0;
      const put = (to: number) => {
        if (to <= at) return;
        const own = { start: span.start + at, end: span.start + to };
        pieces.push({ kind: "text", value: value.slice(at, to), span: own });
      };
      for (const { 0: hole, index } of value.matchAll(holes)) {
        if (hole === "%%") continue;
        put(index);
        at = index + hole.length;
        const own = { start: span.start + index, end: span.start + at };
        const name = unique("value", `${hole} ${index}`);
        pieces.push({ kind: "argument", name, code: hole, span: own, mayBeAbsent: false });
      }
      put(value.length);
    }
    this.consume(pattern);
    this.add("template", whole, pieces, [], say("in-pattern", {}));
    return true;
  }

  /** The value that is given under a name: `name=value`, or a pair of a map that is written out. */
  private valueNamed(name: string, values: readonly CodeNode[]): CodeNode | undefined {
    for (const value of values) {
      const pairs = this.spec.pairs.includes(value.type) ? [value] : namedChildren(value);
      for (const pair of pairs)
        if (this.spec.pairs.includes(pair.type) && this.pairName(pair) === name)
          return childIn(pair, "value") ?? namedChildren(pair).at(-1);
    }
    return undefined;
  }

  /** `"%s bikes" % count` in Python and Ruby. */
  private isFormatOperator(node: CodeNode): boolean {
    if (!this.spec.binaries.includes(node.type) || this.operatorOf(node) !== "%") return false;
    const left = childIn(node, "left");
    return left !== undefined && this.spec.strings.includes(bareNode(left).type);
  }

  private formatOperator(node: CodeNode): void {
    const left = childIn(node, "left");
    const right = childIn(node, "right");
    if (!left || !right) return;
    const values = /^(tuple|array|parenthesized_expression)$/.test(right.type)
      ? namedChildren(right)
      : [right];
    this.filled(node, bareNode(left), values);
  }

  private isGluing(node: CodeNode): boolean {
    let known = this.gluing.get(node);
    if (known === undefined) this.gluing.set(node, (known = this.joinsText(node)));
    return known;
  }

  /** Whether what is joined has a text in it; what is to the left of it all is gone through, however long the chain. */
  private joinsText(node: CodeNode): boolean {
    const isText = (side: CodeNode | undefined) =>
      side !== undefined && (this.spec.strings.includes(side.type) || this.choosesWords(side));
    let hasText = false;
    for (let current: CodeNode | undefined = node; ;) {
      const isJoined: boolean =
        current !== undefined &&
        this.spec.binaries.includes(current.type) &&
        this.spec.concatenation.includes(this.operatorOf(current));
      if (!current || !isJoined) return current !== node && (hasText || isText(current));
      const left = childIn(current, "left");
      const right = childIn(current, "right");
      if (
        this.isAppending(current) &&
        !(left && (this.spec.strings.includes(left.type) || this.isGluing(left)))
      )
        return false;
      hasText ||= isText(right) || (right !== undefined && this.isGluing(right));
      if (hasText && !this.spec.appending) return true;
      current = left;
    }
  }

  private isAppending(node: CodeNode): boolean {
    return this.spec.appending?.includes(this.operatorOf(node)) ?? false;
  }

  private glued(node: CodeNode): void {
    const unique = uniqueNames();
    const taken: CodeNode[] = [];
    const pieces = this.partsOf(node, unique, taken);
    for (const one of taken) this.consumeChoice(one);
    const remarks = [{ kind: "glued" as const, message: `put together with ${this.operatorOf(node)}` }];
    this.add("template", node, joinTexts(pieces), remarks);
  }

  private consumeGlued(node: CodeNode): void {
    this.consumed.add(node);
    for (const side of [childIn(node, "left"), childIn(node, "right")]) {
      if (!side) continue;
      if (this.isGluing(side)) this.consumeGlued(side);
      else if (this.spec.strings.includes(side.type)) this.consume(side);
    }
  }

  private consume(node: CodeNode): void {
    this.consumed.add(node);
    for (const child of node.children)
      if (this.spec.strings.includes(child.type) || this.spec.contents.includes(child.type))
        this.consume(child);
    if (node.type === "argument") for (const child of node.children) this.consume(child);
  }

  private isInAnnotation(): boolean {
    return this.near.some(({ type }) => this.spec.annotations.includes(type));
  }

  /** The string of an annotation that names a key and nothing else: `message = "{order.customer}"`. */
  private boundKey(node: CodeNode): boolean {
    if (this.shapes.bindings.length === 0 || !this.isInAnnotation()) return false;
    const inner = this.innerSpan(node);
    const raw = this.text.slice(inner.start, inner.end);
    const bound = boundKeyIn(raw, this.shapes.bindings, true);
    if (!bound) return false;
    const { key } = bound;
    const start = inner.start + bound.start;
    this.lookups.push({
      span: { start: node.start, end: node.end },
      keySpan: { start, end: start + key.length },
      key: { kind: "fixed", value: key },
      // What checks a value fills its own numbers in.
      argumentNames: undefined,
    });
    this.mentions.add(key);
    this.consume(node);
    return true;
  }

  private string(node: CodeNode): void {
    if (this.boundKey(node)) return;
    const taken: CodeNode[] = [];
    const pieces = joinTexts(this.piecesOf(node, uniqueNames(), taken));
    for (const one of taken) this.consumeChoice(one);
    const isPlain = pieces.every(({ kind }) => kind === "text");
    if (isPlain) this.mentions.add(this.plainText(node));
    this.consume(node);
    this.add(isPlain ? "string" : "template", node, pieces);
  }

  private add(
    form: "string" | "template",
    node: CodeNode,
    pieces: readonly Piece[],
    own: readonly Remark[] = [],
    obstacle?: Obstacle,
    isFilled = false,
    printed?: { readonly end: number; readonly before: string },
  ): void {
    const strings = isFilled
      ? []
      : this.written.filter(({ start, end }) => node.start <= start && end <= node.end);
    this.written = [];
    if (!hasLetters(pieces)) return;
    const chosen = this.remarked
      .filter(({ start, end }) => start <= node.start && node.end <= end)
      .map(({ remark }) => remark);
    const remarks = [...(pieces.length > 1 ? own : []), ...chosen];
    const span = { start: node.start, end: printed?.end ?? node.end };
    const context = this.contextOf(node);
    const hindrance =
      obstacle ??
      (context.role === "key"
        ? say("name", {})
        : context.isAnnotation && this.spoken.constantPlaces
          ? say("annotation-only", { example: '"{{key}}"' })
          : this.near.some(({ type }) => this.spoken.constantPlaces?.test(type))
            ? say("constant-only", {})
            : undefined);
    this.literals.push({
      form,
      span,
      pieces: withOneName(withBareCounts(pieces)),
      context,
      ...(mayHaveParts(pieces) && (strings.length > 0 || isFilled) && { strings }),
      ...(remarks.length > 0 && { remarks }),
      ...(printed && { frame: { before: printed.before, after: "" } }),
      ...(hindrance && { obstacle: hindrance }),
    });
  }

  /** The text and values of a string, in order. */
  private piecesOf(node: CodeNode, unique: Unique, taken: CodeNode[] = []): Piece[] {
    if (node.type === "concatenated_string")
      return node.children.flatMap((child) =>
        this.spec.strings.includes(child.type) ? this.piecesOf(child, unique, taken) : [],
      );
    const inner = this.innerSpan(node);
    this.written.push({
      start: node.start,
      end: node.end,
      innerStart: inner.start,
      innerEnd: inner.end,
      ...(/heredoc|nowdoc/.test(node.type) && { isBlock: true as const }),
    });
    const pieces: Piece[] = [];
    let at = inner.start;
    const put = (to: number) => {
      if (to > at)
        pieces.push({
          kind: "text",
          value: this.unescape(node, at, to),
          span: { start: at, end: to },
        });
    };
    for (const child of node.children) {
      if (
        !this.spec.interpolations.includes(child.type) ||
        child.start < inner.start ||
        child.end > inner.end
      )
        continue;
      const braced =
        this.spoken.bracesInterpolation && this.text[child.start - 1] === "{" && this.text[child.end] === "}";
      put(braced ? child.start - 1 : child.start);
      pieces.push(this.choiceOf(child, unique, taken) ?? this.argument(child, unique));
      at = braced ? child.end + 1 : child.end;
    }
    put(inner.end);
    return pieces;
  }

  private argument(node: CodeNode, unique: Unique): Piece {
    const isWrapped = /^interpolation$/.test(node.type);
    const code = this.text.slice(node.start, node.end).replace(isWrapped ? /^(?:#\{|\{)|\}$/g : /^$/, "");
    return {
      kind: "argument",
      name: unique(nameFromCode(code), code),
      code: code.trim(),
      span: { start: node.start, end: node.end },
      mayBeAbsent: false,
    };
  }

  /** The inside of a string, without its quotes and prefix. */
  private innerSpan(node: CodeNode): Span {
    if (node.type === "argument") return this.innerSpan(namedChildren(node)[0] ?? node);
    if (!this.spec.strings.includes(node.type)) return { start: node.start, end: node.end };
    const written = this.text.slice(node.start, node.end);
    const open =
      /^(?:[rRbBuUfF]{0,2}|[$@]{0,2})(?:"""|'''|["'`])|^%[qQwW]?[([{|<!/]|^<<<\s*["']?\w+["']?\r?\n/.exec(
        written,
      )?.[0].length ?? 0;
    const close =
      node.type === "heredoc_body" ? 0 : (/(?:"""|'''|["'`)\]}|>!/])$/.exec(written)?.[0].length ?? 0);
    const isTriple = /^(?:\w{0,2}|[$@]{0,2})(?:"""|''')/.test(written);
    return {
      start: node.start + open,
      end: Math.max(node.end - (isTriple ? 3 : Math.min(close, 1)), node.start + open),
    };
  }

  /** The value of a part of a string. */
  private unescape(node: CodeNode, start: number, end: number): string {
    const written = this.text.slice(start, end);
    if (!/[\\"]/.test(written)) return written;
    const open = this.text.slice(node.start, this.innerSpan(node).start);
    return unescaped(written, this.spoken.escapesIn(open), open.at(-1) ?? "");
  }

  private plainText(node: CodeNode): string {
    const inner = this.innerSpan(node);
    return this.unescape(node, inner.start, inner.end);
  }

  private keyOf(argument: CodeNode): LookupKey {
    const node = argument.type === "argument" ? (namedChildren(argument)[0] ?? argument) : argument;
    if (/^(simple_symbol|hash_key_symbol)$/.test(node.type))
      return { kind: "fixed", value: this.text.slice(node.start, node.end).replace(/^:|:$/g, "") };
    if (!this.spec.strings.includes(node.type) && !this.isGluing(node)) return { kind: "unknown" };
    const parts: (string | null)[] = [];
    const collect = (part: CodeNode | undefined) => {
      if (!part) return;
      if (this.isGluing(part)) {
        collect(childIn(part, "left"));
        collect(childIn(part, "right"));
      } else if (this.spec.strings.includes(part.type))
        parts.push(
          ...this.piecesOf(part, uniqueNames()).map((piece) => (piece.kind === "text" ? piece.value : null)),
        );
      else parts.push(null);
    };
    collect(node);
    const fixed = parts.filter((part): part is string => part !== null).join("");
    if (!parts.includes(null)) return { kind: "fixed", value: fixed };
    return fixed === "" ? { kind: "unknown" } : { kind: "composed", parts };
  }

  /** The names that an argument passes: of keywords and hashes; undefined in the list where code cannot tell. */
  private argumentNames(node: CodeNode): (string | undefined)[] {
    const inner = node.type === "argument" ? (namedChildren(node)[0] ?? node) : node;
    if (this.spec.pairs.includes(inner.type)) return [this.pairName(inner)];
    if (/^(hash|dictionary|array_creation_expression)$/.test(inner.type))
      return namedChildren(inner).flatMap((child) =>
        this.spec.pairs.includes(child.type) ? [this.pairName(child)] : [undefined],
      );
    const written = this.textOf(inner);
    // Maps as Java makes them: of names and values in turn, or by putting each.
    const pairs =
      /^(?:java\.util\.)?(?:Map\.of|Collections\.singletonMap)\(|^new (?:java\.util\.)?HashMap<[^<>]*>\(\)\s*\{\{/.exec(
        written,
      );
    if (pairs) {
      if (/HashMap/.test(pairs[0]))
        return [...written.matchAll(/\bput\(\s*"(\w+)"/g)].map(([, name]) => name);
      const given = this.argumentsOf(inner);
      return given
        .filter((_, at) => at % 2 === 0)
        .map((name) => (this.spec.strings.includes(name.type) ? this.plainText(name) : undefined));
    }
    // An object without a class: `new { n, name = boat.Name, boat.Port }`, named by its members where nothing else is said.
    if (inner.type === "anonymous_object_creation_expression")
      return delimitedParts(written.replace(/^new\s*\{|\}$/g, "")).map(
        (member) =>
          /^\s*(\w+)\s*=(?!=)/.exec(member)?.[1] ?? /^\s*(?:\w+\s*\??\.\s*)*(\w+)\s*$/.exec(member)?.[1],
      );
    if (inner.type === "composite_literal")
      return [...written.matchAll(/[{,]\s*"(\w+)"\s*:/g)].map(([, name]) => name);
    // What a call or a new object holds is not seen here.
    if (this.spec.calls.includes(inner.type)) return [undefined];
    if (
      // A value by itself may be the number that a plural counts.
      /splat|spread|variadic|member|attribute|subscript|selector|field_access/.test(inner.type) ||
      /^(?:identifier|variable_name|(?:instance|class|global)_variable)$/.test(inner.type) ||
      // What is put together is a value, and no default text.
      (this.spec.strings.includes(inner.type) && this.keyOf(inner).kind !== "fixed")
    )
      return [undefined];
    return [];
  }

  private pairName(node: CodeNode): string {
    const key =
      childIn(node, "key") ?? childIn(node, "name") ?? childIn(node, "left") ?? namedChildren(node)[0];
    return key ? this.text.slice(key.start, key.end).replace(/^[:"'$@]+|[:"']+$/g, "") : "";
  }

  private operatorOf(node: CodeNode): string {
    const operator =
      childIn(node, "operator") ?? childIn(node, "operators") ?? node.children.find(({ named }) => !named);
    return operator ? this.text.slice(operator.start, operator.end) : "";
  }

  /** The function or method that a call names: `flash.alert`, `Toast.makeText`, `setError`. */
  private calleeOf(node: CodeNode): string {
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
  private calleeName(node: CodeNode): string {
    const end = this.textOf(node)
      .slice(-100)
      .replace(/\[[^\][]{0,60}\]$/, "");
    return /(?<![\w.])[\w.]+$/.exec(end)?.[0] ?? "";
  }

  private argumentsOf(node: CodeNode): readonly CodeNode[] {
    const list = node.children.find(({ type }) => this.spec.arguments.includes(type));
    if (!list) return [];
    const given = namedChildren(list).filter(({ type }) => !this.spec.comments.includes(type));
    return given.map((argument) => {
      const inside = argument.type === "argument" ? namedChildren(argument) : [];
      return inside.length === 1 ? (inside[0] ?? argument) : argument;
    });
  }

  private contextOf(node: CodeNode): LiteralContext {
    const base = {
      language: this.language,
      atLoad:
        (!this.spoken.runsPerRequest && !this.near.some((around) => this.defers(around))) ||
        this.near.some(({ type }) => this.spoken.fixedPlaces?.test(type)),
    };
    const component = this.enclosingName();
    const common = {
      ...base,
      ...(component !== undefined && { component }),
      ...(this.isDebugging() && { isDebugging: true as const }),
      ...(this.isInAnnotation() && { isAnnotation: true as const }),
    };
    const properties: string[] = [];
    let inner = node;
    const outermost = Math.max(this.ancestors.length - farthest, 0);
    for (let index = this.ancestors.length - 1; index >= outermost; index--) {
      const outer = this.ancestors[index];
      if (!outer) break;
      const role = this.isGivenToError(outer)
        ? { role: "thrown" as const }
        : this.roleIn(outer, inner, index, properties);
      if (role)
        return {
          ...common,
          ...role,
          ...(properties.length > 0 && { properties: [...properties].reverse() }),
        };
      inner = outer;
    }
    return { ...common, role: "other" };
  }

  /** Whether a class of errors hands what it is about to the class that it is made from. */
  private isGivenToError(call: CodeNode): boolean {
    const isUp =
      /^(?:explicit_constructor_invocation|constructor_initializer)$/.test(call.type) ||
      (this.spec.calls.includes(call.type) &&
        /^(?:super(?:\.__init__)?|super\(\)\.__init__|parent\W{1,2}__construct)$/.test(this.calleeOf(call)));
    if (!isUp) return false;
    const holder = this.near.findLast(({ type }) => /^class(?:_declaration|_definition)?$/.test(type));
    const head = holder && /^[^{\n]{0,300}/.exec(this.text.slice(holder.start, holder.start + 300))?.[0];
    return (
      head !== undefined &&
      /(?:Exception|Error|Warning)\b(?!.*\bclass\b)/.test(head.replace(/^.*?\bclass\s+\w+/, ""))
    );
  }

  private defers(node: CodeNode): boolean {
    const { deferring, instanceFields } = this.spoken;
    if (deferring.test(node.type)) return true;
    if (instanceFields?.test(node.type) !== true) return false;
    const [declared = ""] = this.text.slice(node.start, Math.min(node.end, node.start + 200)).split("=", 1);
    return !/\b(?:static|const)\b/.test(declared);
  }

  /** Whether a condition around the node at hand asks for debugging: `if ($debug)`. */
  private isDebugging(): boolean {
    const { task } = this.spoken;
    return this.near.some((node, index, near) => {
      const { type, children } = node;
      if (task && type === "call") {
        // What a task is for stands above it.
        const [next = ""] = /^\s{0,40}\w+/.exec(this.text.slice(node.end, node.end + 80)) ?? [];
        if ((task.test(this.calleeOf(node)) && opensWithBlock(node)) || task.test(next.trim())) return true;
      }
      if (!/^(?:if|unless)(?:_|$)/.test(type)) return false;
      const condition =
        children.find(({ field }) => field === "condition") ?? children.find(({ named }) => named);
      return (
        condition !== undefined && near[index + 1] !== condition && asksForDebugging(this.textOf(condition))
      );
    });
  }

  /** The nodes around the one at hand, as far as they can tell what it is for. */
  private get near(): readonly CodeNode[] {
    return this.ancestors.length > farthest ? this.ancestors.slice(-farthest) : this.ancestors;
  }

  private roleIn(
    outer: CodeNode,
    inner: CodeNode,
    index: number,
    properties: string[],
  ): { role: LiteralRole; name?: string; index?: number; element?: string; within?: string } | undefined {
    const { spec } = this;
    const { type } = outer;
    if (spec.annotations.includes(type)) return this.annotationRole(outer, properties);
    if (spec.pairs.includes(type)) {
      if (inner === namedChildren(outer)[0] && outer.children.length > 1) {
        const value = namedChildren(outer).at(-1);
        const isPlain =
          value && value !== inner && (/symbol/.test(value.type) || spec.strings.includes(value.type));
        return isPlain ? { role: "key", name: this.text.slice(value.start, value.end) } : { role: "key" };
      }
      properties.push(this.pairName(outer));
      const holder = this.ancestors[index - 1];
      if (type === "assignment_expression" && holder && !/initializer|argument|attribute/.test(holder.type))
        return { role: "assignment", name: properties.pop() ?? "" };
      return undefined;
    }
    if (/^(?:attribute_)?argument$/.test(type)) {
      const named = childIn(outer, "name");
      if (named && named !== inner) properties.push(this.textOf(named).replace(/:$/, "").trimEnd());
      return undefined;
    }
    if (spec.arguments.includes(type)) {
      const call = this.ancestors[index - 1];
      const given =
        call?.type === "enum_constant"
          ? this.constantParameter(call, namedChildren(outer).indexOf(inner))
          : undefined;
      if (given !== undefined) return { role: "property", name: given };
      if (!call || !spec.calls.includes(call.type)) return undefined;
      const at = namedChildren(outer).indexOf(inner);
      const name = this.calleeOf(call);
      if (/(?:^|\.)Map\.(?:of|entry)$/.test(name)) {
        if (at % 2 === 0) return { role: "key" };
        const key = namedChildren(outer)[at - 1];
        properties.push(key ? this.text.slice(key.start, key.end).replace(/^"|"$/g, "") : "");
        return undefined;
      }
      // Lines that are joined stand where the joined text does.
      if (this.spoken.joins?.test(name)) return undefined;
      // What is only wrapped is what it would be without the wrapping.
      if (
        /^(?:List|Set|Arrays|Optional|Stream|Collections|ImmutableList|FXCollections)\.(?:of|ofNullable|asList|singletonList|observableArrayList)$/.test(
          name,
        )
      )
        return undefined;
      if (properties.length > 0) return { role: "property", name: properties[0] ?? "", element: name };
      const role = spec.throws.length === 0 && /(?:^|\.)raise$/.test(name) ? "thrown" : "argument";
      const around = this.ancestors[index - 3];
      const isPassed = spec.arguments.includes(this.ancestors[index - 2]?.type ?? "");
      const within =
        isPassed && around && spec.calls.includes(around.type) ? this.calleeOf(around) : undefined;
      return { role, name, index: at, ...(within !== undefined && { within }) };
    }
    if (spec.calls.includes(type)) {
      // What a block gives is given to the call that it is written behind: `logger.info { "Sent" }`.
      if (/^(?:do_)?block$/.test(inner.type) && this.spoken.givesByBlock?.test(this.calleeOf(outer)))
        return { role: "argument", name: this.calleeOf(outer), index: 0 };
      if (inner.field !== "receiver" && inner.field !== "object") return undefined;
      // What is asked whether it holds a value is only compared with; `[…].freeze` is its list all the same.
      if (/include|contains|member|cover/.test(lastWord(this.calleeOf(outer))))
        return { role: "compared", name: "the members of a list" };
      return spec.strings.includes(inner.type) || this.isGluing(inner) ? { role: "member" } : undefined;
    }
    if (type === "arrow_expression_clause") {
      const holder = this.ancestors[index - 1];
      const named = holder && childIn(holder, "name");
      const name = named ? this.text.slice(named.start, named.end) : (this.enclosingName() ?? "");
      return { role: "returned", name };
    }
    if (type === "switch_expression_arm" && inner === namedChildren(outer).at(-1)) return undefined;
    if (type === "anonymous_object_creation_expression") {
      const before = outer.children.slice(0, outer.children.indexOf(inner)).findLast(({ named }) => named);
      if (before) properties.push(this.text.slice(before.start, before.end));
      return undefined;
    }
    if (
      inner.type === "then" ||
      inner.type === "else" ||
      (spec.cases.includes(type) && spec.cases.includes(inner.type))
    )
      return undefined;
    if (spec.cases.includes(type) && inner.field !== "body" && inner.field !== "value_body")
      return /statement|block/.test(inner.type) ? undefined : { role: "compared", name: "case" };
    // Which member of a list is picked does not change what the members are.
    if (
      spec.subscripts.includes(type) &&
      inner === namedChildren(outer)[0] &&
      !spec.strings.includes(inner.type)
    )
      return undefined;
    if (spec.subscripts.includes(type))
      return inner === namedChildren(outer)[0] ? { role: "member" } : { role: "index" };
    if (spec.binaries.includes(type)) {
      const operator = this.operatorOf(outer);
      const into = childIn(outer, "left");
      if (into && into !== inner && this.isAppending(outer))
        return { role: "argument", name: `${this.calleeName(into)}.append`, index: 0 };
      return spec.comparisons.includes(operator) ? { role: "compared", name: operator } : undefined;
    }
    if (spec.assignments.includes(type)) {
      const target = childIn(outer, "left") ?? childIn(outer, "name") ?? namedChildren(outer)[0];
      if (target === inner) return undefined;
      const name = target
        ? this.text
            .slice(target.start, target.end)
            .replace(/^[$@]+/, "")
            .replace(/->/g, ".")
        : "";
      if (properties.length > 0) return { role: "property", name: properties[0] ?? "", element: name };
      const index0 = /\[\s*[:"']?(\w+)["']?\s*\]$/.exec(name)?.[1];
      return index0 !== undefined || /[.]/.test(name)
        ? { role: "assignment", name: index0 === undefined ? name : name.replace(/\[[^]*$/, `.${index0}`) }
        : { role: "variable", name };
    }
    if (spec.returns.includes(type)) return { role: "returned", name: this.enclosingName() ?? "" };
    if (spec.throws.includes(type)) return { role: "thrown" };
    if (type === "echo_statement" || type === "print_intrinsic")
      return { role: "argument", name: "echo", index: 0 };
    if (spec.functions.includes(type)) return { role: "other" };
    return undefined;
  }

  /** What a constant of an enumeration is given: the parameter of its constructor at that place. */
  private constantParameter(constant: CodeNode, at: number): string | undefined {
    const body = this.near[this.near.indexOf(constant) - 1];
    const head =
      body &&
      /(?<![\w.])[A-Z]\w{0,60}\s?\(([^()]{1,300})\)\s*\{/.exec(
        this.text.slice(constant.end, Math.min(body.end, constant.end + 20_000)),
      );
    return /(?<!\w)\w+$/.exec(head?.[1]?.split(",")[at]?.trim() ?? "")?.[0];
  }

  /** A name given in an annotation is text where its member says so: `[Display(Name = "Boat")]`. */
  private annotationRole(
    outer: CodeNode,
    properties: readonly string[],
  ): { role: LiteralRole; name: string } {
    const name = /[A-Za-z_.]+/.exec(this.text.slice(outer.start, outer.end))?.[0] ?? "";
    const member = properties[properties.length - 1];
    if (
      member === undefined &&
      /(?:^|[a-z])(?:Description|DisplayName|Category|Label|Title|Caption|Summary|HelpText|Hint|Placeholder)$/.test(
        name,
      )
    )
      return { role: "property", name: "label" };
    // What a command or one of its options is for is all that such an annotation can say in words.
    if (
      (member === undefined || member === "value") &&
      /(?:Command|Option|Argument|Parameters?|Method|Usage|Help|Menu)$/.test(name)
    )
      return { role: "argument", name };
    return textOfAnnotation.test(member ?? "") &&
      !/^(?:Column|Table|Route|Json\w*|Named\w*|\w*Mapping|PathVariable|Query\w*|Param|Bean|field_declaration|Header|Cookie\w*|Xml\w*|Entity|Index|Sequence\w*|Join\w*|Form|From\w+|DataMember|Action\w*|Event|Web\w+)(?![a-z])/.test(
        name,
      )
      ? { role: "property", name: member ?? "" }
      : { role: "type", name };
  }

  private enclosingName(): string | undefined {
    for (const node of [...this.near].reverse()) {
      if (!this.spec.functions.includes(node.type)) continue;
      const name = childIn(node, "name");
      if (name) return this.text.slice(name.start, name.end);
    }
    return undefined;
  }
}

/** What stands for values in a pattern. */
const holes =
  /%%|%(?:(\d+)\$|\((\w+)\))?[-+ 0#,]*(?:[1-9]\d*)?(?:\.\d+)?[sdifgxXvqcbtTnw@ra]|\{(\w+)?(?:![rsa])?(?::[^}]{0,80})?\}/g;

/** Members of annotations that are texts, wherever they stand: `[Display(ShortName = "By")]`. */
const textOfAnnotation =
  /^(?!param)(?:\w{0,20}(?:message|description|title|label|prompt|summary|heading|header|tooltip|caption|placeholder|hint|text)|name|displayName|shortName|help)$/i;

/** Whether a call is given a block of code. */
function opensWithBlock({ children }: CodeNode): boolean {
  return children.some(({ type }) => /^(?:do_)?block$/.test(type));
}

const sayOf = notices("source", {
  "too-deep-code": {
    message: "the code is nested too deeply to be read whole",
    remedy: 'exclude it with the book\'s "ignore" if nobody writes text in it',
  },
  "syntax-error": {
    message: "the code does not parse here",
    remedy: "fix the code; the rest of the file was read",
  },
});

const say = notices("extract", {
  "formatted-value": {
    message: '"{code}" formats a value in place',
    remedy: "format the value first, or write the message by hand with a typed argument",
  },
  "in-pattern": {
    message: "it is in a string of markup that is filled with values",
    remedy: "move the markup into a template, or the text by hand",
  },
  "unknown-values": {
    message: "its values come from a list or map that is not visible here",
    remedy: "name the values one by one, or write the message by hand",
  },
  "annotation-only": {
    message: "an annotation takes constants alone, and a lookup is a call",
    remedy: "set emit.annotation if what reads it takes a key there, for example to {example}",
  },
  "constant-only": {
    message: "only a constant can stand here, and a lookup is a call",
    remedy: "set the value where it is used, or in the constructor",
  },
  name: {
    message: "it is the name of a value, and code may look it up by this text",
    remedy: "check who reads it, and move it by hand",
  },
});

/** The string that a method is called on, in grammars whose calls hold a member expression. */
function receiverOf(node: CodeNode): CodeNode | undefined {
  const head = childIn(node, "function");
  return head && (childIn(head, "object") ?? childIn(head, "expression") ?? childIn(head, "operand"));
}

/** The word that a name ends in; empty where it ends in something else. */
function lastWord(name: string): string {
  return /(?<!\w)\w+$/.exec(name)?.[0] ?? "";
}
