import { holdsMarkup } from "../../../text/html-elements.js";
import { notices } from "../../../message/notices.js";
import type { Grammar } from "../../languages/language.js";
import type { Piece } from "../../model.js";
import { joinTexts, trimEnds } from "../../pieces.js";
import { nameFromCode, uniqueNames } from "../expression-names.js";
import type { CodeTexts } from "./code-texts.js";
import { holesIn, type PatternStyle } from "./holes.js";
import { bareNode, childIn, namedChildren, type CodeNode } from "./tree.js";

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
});

/** Reads a call that fills a pattern, if it is one. */
export function readPatternCall(texts: CodeTexts, node: CodeNode): void {
  const callee = texts.nodes.calleeOf(node);
  const given = texts.nodes.argumentsOf(node);
  const short = callee.split(/[.:>]+/).pop() ?? callee;
  const placeIn = (calls: Grammar["formats"]) =>
    calls[callee] ?? (short !== callee ? calls[short] : undefined);
  const printed = placeIn(texts.nodes.spec.printers);
  const format = placeIn(texts.nodes.spec.formats);
  if (printed !== undefined) readPrinted(texts, node, printed, given);
  else if (format !== undefined) readFormatted(texts, node, format, given);
}

/** `"%s bikes" % count` in Python and Ruby. */
export function isFormatOperator(texts: CodeTexts, node: CodeNode): boolean {
  if (!texts.nodes.spec.binaries.includes(node.type) || texts.nodes.operatorOf(node) !== "%") return false;
  const left = childIn(node, "left");
  return left !== undefined && texts.nodes.spec.strings.includes(bareNode(left).type);
}

export function readFormatOperator(texts: CodeTexts, node: CodeNode): void {
  const left = childIn(node, "left");
  const right = childIn(node, "right");
  if (!left || !right) return;
  const values = /^(tuple|array|parenthesized_expression)$/.test(right.type) ? namedChildren(right) : [right];
  const pattern = bareNode(left);
  readFilled(texts, node, pattern, values, styleOf(texts, "%", pattern));
}

/** A call that fills a pattern and does something with what comes out: it stays, and is given the text instead of the pattern. */
function readPrinted(texts: CodeTexts, call: CodeNode, place: number, given: readonly CodeNode[]): void {
  const pattern = given[place];
  const list = call.children.find(({ type }) => texts.nodes.spec.arguments.includes(type));
  if (!pattern || !list || !texts.nodes.spec.strings.includes(pattern.type)) return;
  // Some print a text that is given alone as it is.
  if (texts.nodes.spoken.hole !== undefined && given.length === place + 1) return;
  const depth = texts.around.ancestors.length;
  texts.around.ancestors.push(call, list);
  const style = styleOf(texts, texts.nodes.calleeOf(call), pattern);
  readFilled(texts, pattern, pattern, given.slice(place + 1), style, true);
  texts.around.ancestors.length = depth;
}

/** A call that fills a pattern, which is an argument, or where `place` is below 0 what the method is called on. */
function readFormatted(texts: CodeTexts, node: CodeNode, place: number, given: readonly CodeNode[]): void {
  const receiver = childIn(node, "object") ?? childIn(node, "receiver") ?? receiverOf(node);
  const pattern = place < 0 ? receiver : given[place];
  if (!pattern || !texts.nodes.spec.strings.includes(pattern.type)) return;
  const style = styleOf(texts, texts.nodes.calleeOf(node), pattern);
  readFilled(texts, node, pattern, place < 0 ? given : given.slice(place + 1), style);
}

/** How the pattern of a call or an operator marks the places of its values. */
function styleOf(texts: CodeTexts, filler: string, pattern: CodeNode): PatternStyle {
  return texts.nodes.spoken.patternStyle?.(filler, texts.nodes.plainText(pattern)) ?? "percent";
}

/** A pattern with its values, as one literal in the place of the whole call. */
function readFilled(
  texts: CodeTexts,
  whole: CodeNode,
  pattern: CodeNode,
  values: readonly CodeNode[],
  style: PatternStyle,
  isPrinted = false,
): void {
  if (holdsMarkup(texts.nodes.plainText(pattern)) && readFilledMarkup(texts, whole, pattern, style)) return;
  const unique = uniqueNames();
  const taken: CodeNode[] = [];
  const pieces: Piece[] = [];
  let formatted: string | undefined;
  let unknown = false;
  let next = 0;
  for (const piece of texts.wording.piecesOf(pattern, unique, taken)) {
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
      const fixed = hole.text ?? texts.nodes.spoken.patternTexts?.[written];
      if (fixed !== undefined) {
        pieces.push({ kind: "text", value: fixed, span });
        continue;
      }
      if (hole.isFormatted) formatted ??= written;
      const { name: named, picked, letter } = hole;
      const found = named === undefined ? values[hole.place ?? next++] : valueNamed(texts, named, values);
      // A list that is given as its members may be any of them.
      const isSpread =
        found && /^\*|^\.\.\.|\.\.\.$/.test(texts.nodes.text.slice(found.start, found.end).trim());
      const value = isSpread ? undefined : found;
      if (!value) unknown = true;
      const choice = value && picked === "" ? texts.wording.choiceOf(value, unique, taken) : undefined;
      if (choice) {
        pieces.push(choice);
        continue;
      }
      const given = value ? texts.nodes.text.slice(value.start, value.end) : (named ?? written);
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
  texts.consume(pattern);
  for (const one of taken) texts.consumeChoice(one);
  const obstacle =
    formatted !== undefined
      ? say("formatted-value", { code: formatted })
      : unknown
        ? say("unknown-values", {})
        : undefined;
  const joined = joinTexts(pieces);
  if (!isPrinted) {
    texts.add("template", whole, joined, [], obstacle, true);
    return;
  }
  // What is printed around the text stays in a pattern, since the text may hold signs that mean something in one.
  const edge = (piece: Piece | undefined, pattern: RegExp) =>
    piece?.kind === "text" ? (pattern.exec(piece.value)?.[0] ?? "") : "";
  const written = (blanks: string) => JSON.stringify(blanks).slice(1, -1);
  const before = written(edge(joined[0], /^\s*/));
  const after = written(edge(joined.at(-1), /(?<!\s)\s*$/));
  texts.add("template", whole, trimEnds(joined), [], obstacle, true, {
    end: values.at(-1)?.end ?? whole.end,
    before: `"${before}${texts.nodes.spoken.hole ?? "%s"}${after}", `,
  });
}

/**
 * A pattern of markup: its texts are read one by one, with what stands for values in them, and stay where they are. Not
 * where the code writes it otherwise than it reads.
 */
function readFilledMarkup(
  texts: CodeTexts,
  whole: CodeNode,
  pattern: CodeNode,
  style: PatternStyle,
): boolean {
  const unique = uniqueNames();
  const pieces: Piece[] = [];
  for (const piece of texts.wording.piecesOf(pattern, unique)) {
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
  texts.consume(pattern);
  texts.add("template", whole, pieces, [], say("in-pattern", {}));
  return true;
}

/** The value that is given under a name: `name=value`, or a pair of a map that is written out. */
function valueNamed(texts: CodeTexts, name: string, values: readonly CodeNode[]): CodeNode | undefined {
  for (const value of values) {
    const pairs = texts.nodes.spec.pairs.includes(value.type) ? [value] : namedChildren(value);
    for (const pair of pairs)
      if (texts.nodes.spec.pairs.includes(pair.type) && texts.nodes.pairName(pair) === name)
        return childIn(pair, "value") ?? namedChildren(pair).at(-1);
  }
  return undefined;
}

/** The string that a method is called on, in grammars whose calls hold a member expression. */
function receiverOf(node: CodeNode): CodeNode | undefined {
  const head = childIn(node, "function");
  return head && (childIn(head, "object") ?? childIn(head, "expression") ?? childIn(head, "operand"));
}
