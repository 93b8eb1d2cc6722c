import { holesIn, type PatternStyle } from "./holes.js";
import { boundKeyIn } from "../../bound-key.js";
import { isFilledAround } from "../../filled-around.js";
import { notices } from "../../../message/notices.js";
import { delimitedParts } from "../../../text/delimited.js";
import { lineIndex } from "../../../text/line-index.js";
import { byPlace } from "../../model.js";
import type {
  Literal,
  Lookup,
  LookupKey,
  LookupShapes,
  Obstacle,
  Piece,
  Remark,
  SourceFile,
  SourceProblem,
} from "../../model.js";
import { eachPiece, hasLetters, joinTexts, mapPieces, mayHaveParts, trimEnds } from "../../pieces.js";
import { choiceRemark } from "../choice-remark.js";
import { holdsMarkup } from "../../../text/html-elements.js";
import { applyMarks, markComment, type CommentMarks } from "../comment-marks.js";
import { nameFromCode, uniqueNames } from "../expression-names.js";
import { isCounted, withOneName } from "../worded-choice.js";
import { parseCode } from "./grammars.js";
import type { CodeLanguage, Grammar } from "../../languages/language.js";
import { bareNode, childIn, namedChildren, type CodeNode } from "./tree.js";
import { NodeTexts } from "./node-texts.js";
import { Surroundings } from "./surroundings.js";
import { Wording } from "./wording.js";

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

class CodeReader {
  readonly literals: Literal[] = [];
  readonly lookups: Lookup[] = [];
  readonly mentions = new Set<string>();
  readonly problems: SourceProblem[] = [];
  readonly comments: CodeNode[] = [];
  private readonly consumed = new Set<CodeNode>();
  private readonly remarked: { start: number; end: number; remark: Remark }[] = [];
  private readonly nodes: NodeTexts;
  private readonly wording: Wording;
  private readonly around: Surroundings;

  constructor(
    language: CodeLanguage,
    text: string,
    private readonly shapes: LookupShapes,
  ) {
    this.nodes = new NodeTexts(language, text);
    this.wording = new Wording(this.nodes, shapes.sourceLanguage);
    this.around = new Surroundings(this.nodes, this.wording);
  }

  visit(node: CodeNode): void {
    const { spec } = this.nodes;
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
      if (this.nodes.spoken.shownDocumentation?.(node, this.around.near, this.nodes.text))
        this.documentation(node);
      return;
    }
    if (spec.calls.includes(node.type)) this.call(node);
    if (spec.subscripts.includes(node.type)) this.member(node);
    if (/conditional|ternary/.test(node.type)) this.choice(node);
    if (!this.consumed.has(node)) {
      if (this.wording.isGluing(node)) {
        this.glued(node);
        this.consumeGlued(node);
      } else if (this.isFormatOperator(node)) this.formatOperator(node);
      else if (spec.strings.includes(node.type)) this.string(node);
    }
    this.around.ancestors.push(node);
    for (const child of node.children) this.visit(child);
    this.around.ancestors.pop();
  }

  /** Strings that document the code: Python's, standing alone as a statement. */
  private isDocumentation(node: CodeNode): boolean {
    return this.nodes.spoken.isDocumentation?.(node) ?? false;
  }

  /** What documents the code and is shown as well, as the help of a command. */
  private documentation(node: CodeNode): void {
    const [only] = namedChildren(node);
    if (!only) return;
    this.add(
      "string",
      only,
      joinTexts(this.wording.piecesOf(only, uniqueNames())),
      [],
      say("constant-only", {}),
    );
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
    const condition = this.wording.conditionalOf(node)?.test ?? test;
    const remark = choiceRemark(this.nodes.textOf(condition));
    if (!remark) return;
    this.remarked.push({ start: node.start, end: node.end, remark });
    if (remark.kind === "plural-by-hand" && !this.consumed.has(node)) this.countedChoice(node);
  }

  /** A conditional by itself that chooses between the forms of one text by a number. */
  private countedChoice(node: CodeNode): void {
    const taken: CodeNode[] = [];
    const piece = this.wording.choiceOf(node, uniqueNames(), taken);
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

  /** The strings of a conditional whose words are part of a text belong to that text. */
  private consumeChoice(node: CodeNode): void {
    this.consumed.add(node);
    const parts = this.wording.conditionalOf(node);
    for (const branch of parts ? [parts.first, parts.second] : []) {
      const bare = bareNode(branch);
      if (this.wording.isGluing(bare)) this.consumeGlued(bare);
      else if (this.nodes.spec.strings.includes(bare.type)) this.consume(bare);
    }
  }

  /** A call: a lookup, a pattern that is filled, or neither. */
  private call(node: CodeNode): void {
    const callee = this.nodes.calleeOf(node);
    const given = this.nodes.argumentsOf(node);
    const short = callee.split(/[.:>]+/).pop() ?? callee;
    const shape =
      this.shapes.calls.get(callee) ??
      (this.shapes.calls.has(short) && callee.replace(/^(?:\$?this|self|view|helpers)[.>:-]+/, "") === short
        ? this.shapes.calls.get(short)
        : undefined);
    const place = shape?.key ?? 0;
    const first = given[place];
    if (shape && first) {
      const key = this.scopedKey(this.wording.keyOf(first), node, first);
      const inner = this.nodes.innerSpan(first);
      const { lookupOptions } = this.nodes.spoken;
      const all = given.slice(place + 1).flatMap((argument) => this.argumentNames(argument));
      const names = all.filter((name) => name === undefined || !lookupOptions?.test(name));
      const filled = names.length === 0 ? this.filledBehind(node) : undefined;
      const fallback = shape.default === undefined ? undefined : given[shape.default];
      const said = shape.note === undefined ? undefined : given[shape.note];
      this.lookups.push({
        span: { start: node.start, end: node.end },
        keySpan: inner,
        key,
        argumentNames:
          filled ??
          (names.includes(undefined) || isFilledAround(this.nodes.text, node.start, node.end)
            ? undefined
            : (names as string[])),
        ...(lookupOptions?.test("default") && all.includes("default") && { hasDefault: true }),
        ...(fallback &&
          this.nodes.spec.strings.includes(fallback.type) && { defaultText: this.nodes.plainText(fallback) }),
        ...(said && this.nodes.spec.strings.includes(said.type) && { note: this.nodes.plainText(said) }),
      });
      if (key.kind !== "unknown") this.consume(first);
      if (fallback) this.consume(fallback);
      if (said) this.consume(said);
      if (key.kind === "fixed") this.mentions.add(key.value);
      return;
    }
    const placeIn = (calls: Grammar["formats"]) =>
      calls[callee] ?? (short !== callee ? calls[short] : undefined);
    const printed = placeIn(this.nodes.spec.printers);
    const format = placeIn(this.nodes.spec.formats);
    if (printed !== undefined) this.printed(node, printed, given);
    else if (format !== undefined) this.formatted(node, format, given);
  }

  /** A call that fills a pattern and does something with what comes out: it stays, and is given the text instead of the pattern. */
  private printed(call: CodeNode, place: number, given: readonly CodeNode[]): void {
    const pattern = given[place];
    const list = call.children.find(({ type }) => this.nodes.spec.arguments.includes(type));
    if (!pattern || !list || !this.nodes.spec.strings.includes(pattern.type)) return;
    // Some print a text that is given alone as it is.
    if (this.nodes.spoken.hole !== undefined && given.length === place + 1) return;
    const depth = this.around.ancestors.length;
    this.around.ancestors.push(call, list);
    const style = this.styleOf(this.nodes.calleeOf(call), pattern);
    this.filled(pattern, pattern, given.slice(place + 1), style, true);
    this.around.ancestors.length = depth;
  }

  /** The names that a method of what a lookup gives fills it with: `say("boat.late").format(boat=name)`; undefined for none, or where code cannot tell. */
  private filledBehind(lookup: CodeNode): readonly string[] | undefined {
    const [call, member] = this.around.ancestors.slice(-2);
    if (!call || !member || !this.nodes.spec.calls.includes(call.type)) return undefined;
    const method = /^\s*\.\s*(\w+)$/.exec(this.nodes.text.slice(lookup.end, member.end))?.[1];
    if (method === undefined || this.nodes.spec.formats[method] !== -1) return undefined;
    const given = this.nodes.argumentsOf(call);
    if (given.some(({ type }) => /splat/.test(type))) return undefined;
    return given.flatMap((argument) =>
      this.nodes.spec.pairs.includes(argument.type) ? (this.nodes.pairName(argument) ?? []) : [],
    );
  }

  /** A key behind what the call's other arguments put before it. */
  private scopedKey(key: LookupKey, call: CodeNode, first: CodeNode): LookupKey {
    const { parts: separator } = this.shapes.separators;
    if (key.kind === "unknown" || (key.kind === "fixed" && key.value.startsWith(separator))) return key;
    const scope =
      this.nodes.spoken.keyScope?.(this.nodes.text.slice(first.end, Math.min(call.end, first.end + 2_000))) ??
      [];
    if (scope.length === 0) return key;
    const own = key.kind === "fixed" ? [key.value] : key.parts;
    const parts = [...scope.flatMap((part) => [part, separator]), ...own];
    return parts.includes(null) ? { kind: "composed", parts } : { kind: "fixed", value: parts.join("") };
  }

  /** A call that fills a pattern, which is an argument, or where `place` is below 0 what the method is called on. */
  private formatted(node: CodeNode, place: number, given: readonly CodeNode[]): void {
    const receiver = childIn(node, "object") ?? childIn(node, "receiver") ?? receiverOf(node);
    const pattern = place < 0 ? receiver : given[place];
    if (!pattern || !this.nodes.spec.strings.includes(pattern.type)) return;
    const style = this.styleOf(this.nodes.calleeOf(node), pattern);
    this.filled(node, pattern, place < 0 ? given : given.slice(place + 1), style);
  }

  /** How the pattern of a call or an operator marks the places of its values. */
  private styleOf(filler: string, pattern: CodeNode): PatternStyle {
    return this.nodes.spoken.patternStyle?.(filler, this.nodes.plainText(pattern)) ?? "percent";
  }

  /** `$texts["cart"]["title"]` of an object of texts: of a chain, the whole of it. */
  private member(node: CodeNode): void {
    const { subscripts, strings } = this.nodes.spec;
    const parent = this.around.ancestors.at(-1);
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
    if (!at || !last || !this.shapes.members.has(this.nodes.textOf(at).replace(/^[$@]+|\([^()]*\)$/g, "")))
      return;
    const parts = path.map((one) => (strings.includes(one.type) ? this.nodes.plainText(one) : null));
    const { parts: separator } = this.shapes.separators;
    if (parts.every((part) => part === null)) return;
    const key: LookupKey = parts.includes(null)
      ? {
          kind: "composed",
          parts: parts.flatMap((part, index) => (index === 0 ? [part] : [separator, part])),
        }
      : { kind: "fixed", value: parts.join(separator) };
    const span = { start: node.start, end: node.end };
    this.lookups.push({
      span,
      keySpan: this.nodes.innerSpan(last),
      key,
      argumentNames: undefined,
      isMember: true,
    });
    for (const one of path) if (strings.includes(one.type)) this.consume(one);
  }

  /** A pattern with its values, as one literal in the place of the whole call. */
  private filled(
    whole: CodeNode,
    pattern: CodeNode,
    values: readonly CodeNode[],
    style: PatternStyle,
    isPrinted = false,
  ): void {
    if (holdsMarkup(this.nodes.plainText(pattern)) && this.filledMarkup(whole, pattern, style)) return;
    const unique = uniqueNames();
    const taken: CodeNode[] = [];
    const pieces: Piece[] = [];
    let formatted: string | undefined;
    let unknown = false;
    let next = 0;
    for (const piece of this.wording.piecesOf(pattern, unique, taken)) {
      if (piece.kind !== "text") {
        pieces.push(piece);
        continue;
      }
      const { value: text, span } = piece;
      let at = 0;
      const put = (to: number) => {
        if (to > at) pieces.push({ kind: "text", value: text.slice(at, to), span });
      };
      for (const hole of holesIn(text, style)) {
        put(hole.index);
        const written = text.slice(hole.index, hole.index + hole.length);
        at = hole.index + hole.length;
        const fixed = hole.text ?? this.nodes.spoken.patternTexts?.[written];
        if (fixed !== undefined) {
          pieces.push({ kind: "text", value: fixed, span });
          continue;
        }
        if (hole.isFormatted) formatted ??= written;
        const { name: named, picked, letter } = hole;
        const found = named === undefined ? values[hole.place ?? next++] : this.valueNamed(named, values);
        // A list that is given as its members may be any of them.
        const isSpread =
          found && /^\*|^\.\.\.|\.\.\.$/.test(this.nodes.text.slice(found.start, found.end).trim());
        const value = isSpread ? undefined : found;
        if (!value) unknown = true;
        const choice = value && picked === "" ? this.wording.choiceOf(value, unique, taken) : undefined;
        if (choice) {
          pieces.push(choice);
          continue;
        }
        const given = value ? this.nodes.text.slice(value.start, value.end) : (named ?? written);
        const code = picked === "" ? given : (/^[\w.[\]()"']+$/.test(given) ? given : `(${given})`) + picked;
        const where = value ? { start: value.start, end: value.end } : span;
        pieces.push({
          kind: "argument",
          name: unique(
            (picked === "" ? named : /[A-Za-z]/.test(picked) ? nameFromCode(`value${picked}`) : undefined) ??
              nameFromCode(code),
            code,
          ),
          code,
          span: where,
          mayBeAbsent: false,
          ...(letter !== undefined && /^[diouxXeEfFgGcqvb]$/.test(letter) && { letter }),
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
      before: `"${before}${this.nodes.spoken.hole ?? "%s"}${after}", `,
    });
  }

  /**
   * A pattern of markup: its texts are read one by one, with what stands for values in them, and stay where they are. Not
   * where the code writes it otherwise than it reads.
   */
  private filledMarkup(whole: CodeNode, pattern: CodeNode, style: PatternStyle): boolean {
    const unique = uniqueNames();
    const pieces: Piece[] = [];
    for (const piece of this.wording.piecesOf(pattern, unique)) {
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
      for (const { index, length, text } of holesIn(value, style)) {
        if (text !== undefined) continue;
        put(index);
        at = index + length;
        const code = value.slice(index, at);
        const own = { start: span.start + index, end: span.start + at };
        const name = unique("value", `${code} ${index}`);
        pieces.push({ kind: "argument", name, code, span: own, mayBeAbsent: false });
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
      const pairs = this.nodes.spec.pairs.includes(value.type) ? [value] : namedChildren(value);
      for (const pair of pairs)
        if (this.nodes.spec.pairs.includes(pair.type) && this.nodes.pairName(pair) === name)
          return childIn(pair, "value") ?? namedChildren(pair).at(-1);
    }
    return undefined;
  }

  /** `"%s bikes" % count` in Python and Ruby. */
  private isFormatOperator(node: CodeNode): boolean {
    if (!this.nodes.spec.binaries.includes(node.type) || this.nodes.operatorOf(node) !== "%") return false;
    const left = childIn(node, "left");
    return left !== undefined && this.nodes.spec.strings.includes(bareNode(left).type);
  }

  private formatOperator(node: CodeNode): void {
    const left = childIn(node, "left");
    const right = childIn(node, "right");
    if (!left || !right) return;
    const values = /^(tuple|array|parenthesized_expression)$/.test(right.type)
      ? namedChildren(right)
      : [right];
    const pattern = bareNode(left);
    this.filled(node, pattern, values, this.styleOf("%", pattern));
  }

  private glued(node: CodeNode): void {
    const unique = uniqueNames();
    const taken: CodeNode[] = [];
    const pieces = this.wording.partsOf(node, unique, taken);
    for (const one of taken) this.consumeChoice(one);
    const remarks = [{ kind: "glued" as const, message: `put together with ${this.nodes.operatorOf(node)}` }];
    this.add("template", node, joinTexts(pieces), remarks);
  }

  private consumeGlued(node: CodeNode): void {
    this.consumed.add(node);
    for (const side of [childIn(node, "left"), childIn(node, "right")]) {
      if (!side) continue;
      if (this.wording.isGluing(side)) this.consumeGlued(side);
      else if (this.nodes.spec.strings.includes(side.type)) this.consume(side);
    }
  }

  private consume(node: CodeNode): void {
    this.consumed.add(node);
    for (const child of node.children)
      if (this.nodes.spec.strings.includes(child.type) || this.nodes.spec.contents.includes(child.type))
        this.consume(child);
    if (node.type === "argument") for (const child of node.children) this.consume(child);
  }

  /** The string of an annotation that names a key and nothing else: `message = "{order.customer}"`. */
  private boundKey(node: CodeNode): boolean {
    if (this.shapes.bindings.length === 0 || !this.around.isInAnnotation()) return false;
    const inner = this.nodes.innerSpan(node);
    const raw = this.nodes.text.slice(inner.start, inner.end);
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
    const pieces = joinTexts(this.wording.piecesOf(node, uniqueNames(), taken));
    for (const one of taken) this.consumeChoice(one);
    const isPlain = pieces.every(({ kind }) => kind === "text");
    if (isPlain) this.mentions.add(this.nodes.plainText(node));
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
    const written = this.wording.takeWritten(node);
    const strings = isFilled ? [] : written;
    if (!hasLetters(pieces)) return;
    const chosen = this.remarked
      .filter(({ start, end }) => start <= node.start && node.end <= end)
      .map(({ remark }) => remark);
    const remarks = [...(pieces.length > 1 ? own : []), ...chosen];
    const span = { start: node.start, end: printed?.end ?? node.end };
    const context = this.around.contextOf(node);
    const { ofBytes } = this.nodes.spoken;
    const isOfBytes =
      ofBytes !== undefined &&
      [node, ...written].some(({ start }) => ofBytes.test(this.nodes.text.slice(start, start + 4)));
    const hindrance =
      obstacle ??
      (isOfBytes ? say("bytes", {}) : undefined) ??
      (context.role === "key"
        ? say("name", {})
        : context.isAnnotation && this.nodes.spoken.constantPlaces
          ? say("annotation-only", { example: '"{{key}}"' })
          : this.around.near.some(({ type }) => this.nodes.spoken.constantPlaces?.test(type))
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

  /** The names that an argument passes: of keywords and hashes; undefined in the list where code cannot tell. */
  private argumentNames(node: CodeNode): (string | undefined)[] {
    const inner = node.type === "argument" ? (namedChildren(node)[0] ?? node) : node;
    if (this.nodes.spec.pairs.includes(inner.type)) return [this.nodes.pairName(inner)];
    if (/^(hash|dictionary|array_creation_expression)$/.test(inner.type))
      return namedChildren(inner).flatMap((child) =>
        this.nodes.spec.pairs.includes(child.type) ? [this.nodes.pairName(child)] : [undefined],
      );
    const written = this.nodes.textOf(inner);
    // Maps as Java makes them: of names and values in turn, or by putting each.
    const pairs =
      /^(?:java\.util\.)?(?:Map\.of|Collections\.singletonMap)\(|^new (?:java\.util\.)?HashMap<[^<>]*>\(\)\s*\{\{/.exec(
        written,
      );
    if (pairs) {
      if (/HashMap/.test(pairs[0]))
        return [...written.matchAll(/\bput\(\s*"(\w+)"/g)].map(([, name]) => name);
      const given = this.nodes.argumentsOf(inner);
      return given
        .filter((_, at) => at % 2 === 0)
        .map((name) =>
          this.nodes.spec.strings.includes(name.type) ? this.nodes.plainText(name) : undefined,
        );
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
    if (this.nodes.spec.calls.includes(inner.type)) return [undefined];
    if (
      // A value by itself may be the number that a plural counts.
      /splat|spread|variadic|member|attribute|subscript|selector|field_access/.test(inner.type) ||
      /^(?:identifier|variable_name|(?:instance|class|global)_variable)$/.test(inner.type) ||
      // What a function of the project's own does with a string behind the key only that function says.
      this.nodes.spec.strings.includes(inner.type)
    )
      return [undefined];
    return [];
  }
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
  bytes: {
    message: "it is a string of bytes, and a lookup gives text",
    remedy: "make a text of it that is encoded where it is sent, then extract again",
  },
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
