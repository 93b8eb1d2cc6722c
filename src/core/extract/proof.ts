import { fillMessage, type ArgumentValue } from "../message/fill.js";
import type { MessageReader } from "../message/parse.js";
import type { MessageNode } from "../message/model.js";
import { notices } from "../message/notices.js";
import type { Literal, Obstacle, Piece } from "../source/model.js";

/**
 * What a rewrite proves before it is written: that the message says what the code said, for every way in which the code chooses
 * its words, with every value that the code shows. That the file is still a program, and that it asks for the key, is seen by
 * reading it again.
 */

/** Numbers for which the forms of a plural differ in some language. */
const counts = [0, 1, 2, 5, 1.5];

/** Of more outcomes than this the first are looked at. */
const mostOutcomes = 200;

/** Why a message does not say what a literal says; undefined where it does. */
export function unproved(
  literal: Literal,
  message: string,
  reader: MessageReader,
  locale: string,
): Obstacle | undefined {
  const codes = new Map<string, string>();
  const choices = new Map<string, Set<string>>();
  let clash: string | undefined;
  const collect = (pieces: readonly Piece[]) => {
    for (const piece of pieces) {
      if (piece.kind === "tag") collect(piece.pieces);
      if (piece.kind !== "argument" && piece.kind !== "choice") continue;
      const code = valueOf(piece);
      const known = codes.get(piece.name);
      if (known !== undefined && known !== code) clash ??= piece.name;
      codes.set(piece.name, code);
      if (piece.kind !== "choice") continue;
      const kinds = choices.get(piece.name) ?? new Set();
      kinds.add(piece.choice);
      for (const { selector, pieces: inner } of piece.branches) {
        if (piece.choice === "select") kinds.add(`=${selector}`);
        collect(inner);
      }
      choices.set(piece.name, kinds);
    }
  };
  collect(literal.pieces);
  if (clash !== undefined) return say("two-values", { name: clash });
  const { nodes, isBroken } = reader.read(message);
  if (isBroken) return say("other-text", { text: message });
  const markers = new Map([...codes.keys()].map((name, index) => [name, `⟦${index + 1}⟧`]));
  for (const outcome of outcomes(choices)) {
    const valueFor = (name: string) => outcome.get(name) ?? markers.get(name) ?? "";
    const expected = said(
      literal.pieces,
      valueFor,
      (name) => fillMessage([{ kind: "argument", name }], locale, { [name]: valueFor(name) }).text,
    );
    const values: Record<string, ArgumentValue> = {};
    for (const name of codes.keys()) values[name] = valueFor(name);
    // Formats and elements are compared by what they hold: how a value is formatted was read from the code.
    const filled = fillMessage(withoutFormats(nodes), locale, values);
    if (filled.text !== expected || filled.missing.length > 0)
      return say("other-text", { text: filled.text });
  }
  return undefined;
}

function valueOf(piece: Extract<Piece, { kind: "argument" | "choice" }>): string {
  return piece.kind === "choice" ? piece.value : (piece.formatted?.whole ?? piece.code);
}

/** Every way in which the values that choose words can fall out. */
function outcomes(
  choices: ReadonlyMap<string, ReadonlySet<string>>,
): readonly ReadonlyMap<string, string | number>[] {
  let found: ReadonlyMap<string, string | number>[] = [new Map()];
  for (const [name, kinds] of choices) {
    const values: (string | number)[] = kinds.has("plural")
      ? counts
      : [...kinds]
          .filter((kind) => kind.startsWith("="))
          .map((kind) => (kind === "=other" ? "no" : kind.slice(1)));
    found = found
      .flatMap((before) => values.map((value) => new Map([...before, [name, value]])))
      .slice(0, mostOutcomes);
  }
  return found;
}

/** What the code shows, with the values given. */
function said(
  pieces: readonly Piece[],
  valueFor: (name: string) => string | number,
  shown: (name: string) => string,
): string {
  return pieces
    .map((piece): string => {
      switch (piece.kind) {
        case "text":
          return piece.value;
        case "argument":
          return shown(piece.name);
        case "tag":
          return piece.close === undefined || piece.pieces.length === 0
            ? `<${piece.name}/>`
            : `<${piece.name}>${said(piece.pieces, valueFor, shown)}</${piece.name}>`;
        case "choice": {
          const value = valueFor(piece.name);
          // In code 1 is 1, whatever numbers a language calls `one`.
          const wanted =
            piece.choice === "plural" ? [`=${value}`, ...(value === 1 ? ["one"] : [])] : [String(value)];
          const branch =
            piece.branches.find(({ selector }) => wanted.includes(selector)) ??
            piece.branches.find(({ selector }) => selector === "other");
          return said(branch?.pieces ?? [], valueFor, shown);
        }
      }
    })
    .join("");
}

/** The nodes with every value shown as it is. */
function withoutFormats(nodes: readonly MessageNode[]): readonly MessageNode[] {
  return nodes.map((node): MessageNode => {
    switch (node.kind) {
      case "argument":
        return { kind: "argument", name: node.name };
      case "plural":
      case "select":
        return {
          ...node,
          branches: node.branches.map((branch) => ({ ...branch, nodes: withoutFormats(branch.nodes) })),
        };
      case "tag":
        return { ...node, children: withoutFormats(node.children) };
      default:
        return node;
    }
  });
}

const say = notices("extract", {
  "two-values": {
    message: 'two of its values would both be called "{name}"',
    remedy: "give one of them a variable of its own, then extract again",
  },
  "other-text": {
    message: 'as a message it would say "{text}"',
    remedy: "write the message by hand",
  },
});
