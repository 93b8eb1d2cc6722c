import { eachPiece, mapPieces } from "./pieces.js";
import type { Branch, MessageNode } from "../message/model.js";
import type { MessageReader } from "../message/parse.js";
import { flatForm, flatVariants } from "../message/variants.js";
import type { Piece } from "./model.js";
import { uniqueNames } from "./readers/expression-names.js";

/** The argument that chooses among plural forms which a book keeps apart: their texts do not name it. */
export const formsArgument = "count";

/** The message that a literal's pieces make: what is filled in becomes arguments, elements tags, choices plurals and selects. */
export function literalNodes(pieces: readonly Piece[], keepsLetters = false): MessageNode[] {
  return pieces.map((piece): MessageNode => {
    switch (piece.kind) {
      case "text":
        return { kind: "text", value: piece.value };
      case "argument": {
        const { type, style } = piece.formatted ?? {};
        const { letter } = piece;
        if (type === undefined)
          return {
            kind: "argument",
            name: piece.name,
            ...(keepsLetters && letter !== undefined && { format: { type: letter } }),
          };
        const isSkeleton = style?.startsWith("::") === true;
        const written = style && {
          kind: isSkeleton ? ("skeleton" as const) : ("named" as const),
          text: isSkeleton ? style.slice(2) : style,
        };
        return { kind: "argument", name: piece.name, format: { type, ...(written && { style: written }) } };
      }
      case "choice": {
        const branches = piece.branches.map((branch) => ({
          selector: branch.selector,
          nodes: literalNodes(branch.pieces, keepsLetters),
        }));
        return piece.choice === "select"
          ? { kind: "select", name: piece.name, branches }
          : { kind: "plural", pluralKind: "cardinal", name: piece.name, offset: 0, branches };
      }
      case "tag":
        return {
          kind: "tag",
          name: piece.name,
          attributes: [],
          children: literalNodes(piece.pieces, keepsLetters),
          selfClosing: piece.close === undefined || piece.pieces.length === 0,
        };
    }
  });
}

/** A literal as a book's messages are written; undefined where they have no room for it, such as a plural. */
export function literalMessage(pieces: readonly Piece[], reader: MessageReader): string | undefined {
  const hasChoice = (list: readonly Piece[]): boolean =>
    list.some((piece) => piece.kind === "choice" || (piece.kind === "tag" && hasChoice(piece.pieces)));
  // In messages that are patterns of the same kind a value stays what it is.
  const keepsLetters = reader.syntax.placeholders.some((kind) => /^percent(?:-paren)?$/.test(kind));
  if (!hasChoice(pieces)) return reader.print(literalNodes(pieces, keepsLetters));
  const whole = wholeSentences(literalNodes(pieces, keepsLetters));
  if (!whole) return undefined;
  const hasSign = reader.syntax.countSign !== undefined && reader.plurals === "inline";
  const nodes = hasSign ? countSigns(withExactOne(whole)) : whole;
  const text = reader.print(nodes);
  const again = reader.read(text);
  return !again.isBroken && flatForm(again.nodes) === flatForm(nodes) ? text : undefined;
}

/** Pieces with their arguments named as a book's messages name them: by number in some syntaxes. */
export function bookPieces(pieces: readonly Piece[], { syntax, plurals }: MessageReader): readonly Piece[] {
  const plain = syntax.hasSkeletons ? pieces : withoutFormats(pieces);
  const named = plurals === "inline" ? plain : withFormsArgument(plain);
  return syntax.numberedFrom === undefined ? named : numbered(named, syntax.numberedFrom);
}

/** The pieces with values as the code formats them, for messages that cannot say how. */
function withoutFormats(pieces: readonly Piece[]): readonly Piece[] {
  // One value that is formatted in two ways is two values then.
  const unique = uniqueNames();
  for (const piece of eachPiece(pieces))
    if (piece.kind === "choice" || (piece.kind === "argument" && !piece.formatted))
      unique(piece.name, piece.code);
  return mapPieces(pieces, (piece) => {
    if (piece.kind !== "argument" || !piece.formatted) return piece;
    const { kind, name, span, mayBeAbsent, formatted } = piece;
    return { kind, name: unique(name, formatted.whole), code: formatted.whole, span, mayBeAbsent };
  });
}

/** The pieces with arguments called by numbers in the order in which they stand. */
function numbered(pieces: readonly Piece[], first: number): readonly Piece[] {
  const numbers = new Map<string, string>();
  for (const piece of eachPiece(pieces))
    if ((piece.kind === "argument" || piece.kind === "choice") && !numbers.has(piece.name))
      numbers.set(piece.name, String(first + numbers.size));
  return mapPieces(pieces, (piece) =>
    piece.kind === "argument" || piece.kind === "choice"
      ? { ...piece, name: numbers.get(piece.name) ?? piece.name }
      : piece,
  );
}

/** The pieces with the argument of their plural under the name that a book with forms of its own gives it. */
function withFormsArgument(pieces: readonly Piece[]): readonly Piece[] {
  const plural = pieces.find((piece) => piece.kind === "choice" && piece.choice === "plural");
  if (plural?.kind !== "choice") return pieces;
  return mapPieces(pieces, (piece) =>
    (piece.kind === "argument" || piece.kind === "choice") && piece.code === plural.code
      ? { ...piece, name: formsArgument }
      : piece,
  );
}

/** Choices around whole sentences: words chosen inside of one leave a translator no freedom. */
function wholeSentences(nodes: readonly MessageNode[]): readonly MessageNode[] | undefined {
  const flat = flatVariants(nodes);
  if (!flat) return undefined;
  type Row = (typeof flat.variants)[number];
  const build = (ids: readonly string[], rows: readonly Row[]): readonly MessageNode[] => {
    const [id, ...rest] = ids;
    const choice = id === undefined ? undefined : flat.choices.get(id);
    if (id === undefined || !choice) return rows[0]?.nodes ?? [];
    const keys = [...new Set(rows.map((row) => row.keys.get(id) ?? "*"))];
    const rank = (key: string) => (key === "*" ? 2 : key.startsWith("=") ? 0 : 1);
    keys.sort((a, b) => rank(a) - rank(b));
    const branches = keys.map((key): Branch => ({
      selector: key === "*" ? "other" : key,
      nodes: build(
        rest,
        rows.filter((row) => (row.keys.get(id) ?? "*") === key),
      ),
    }));
    return [{ ...choice, branches }];
  };
  return build([...flat.choices.keys()], flat.variants);
}

/**
 * What code says of exactly one thing is no form of the number's words where it leaves the number out and the rest shows it:
 * "due tomorrow" is `=1`. A 1 that is written in it is the number: languages whose \`one\` takes 21 as well show that.
 */
function withExactOne(nodes: readonly MessageNode[]): readonly MessageNode[] {
  return nodes.map((node): MessageNode => {
    if (node.kind === "tag") return { ...node, children: withExactOne(node.children) };
    if (node.kind !== "plural" && node.kind !== "select") return node;
    const branches = node.branches.map((one) => ({ ...one, nodes: withExactOne(one.nodes) }));
    if (node.kind === "select") return { ...node, branches };
    const other = branches.find(({ selector }) => selector === "other");
    if (!other || !showsArgument(other.nodes, node.name)) return { ...node, branches };
    return {
      ...node,
      branches: branches.map((one) => {
        if (one.selector !== "one" || showsArgument(one.nodes, node.name)) return one;
        const counted = withNumber(one.nodes, node.name);
        return counted ? { ...one, nodes: counted } : { ...one, selector: "=1" };
      }),
    };
  });
}

function showsArgument(nodes: readonly MessageNode[], name: string): boolean {
  return nodes.some((node) => {
    if (node.kind === "argument") return node.name === name;
    if (node.kind === "tag") return showsArgument(node.children, name);
    return (
      (node.kind === "plural" || node.kind === "select") &&
      node.branches.some((one) => showsArgument(one.nodes, name))
    );
  });
}

/** Nodes with the only 1 in their text as an argument; undefined where there is none, or more. */
function withNumber(nodes: readonly MessageNode[], name: string): readonly MessageNode[] | undefined {
  const one = /(?<![\p{L}\p{N}.,:/-])1(?![\p{L}\p{N}:/-]|[.,]\p{N})/gu;
  const holders = nodes.filter((node) => node.kind === "text" && (node.value.match(one)?.length ?? 0) > 0);
  const [holder] = holders;
  if (holders.length !== 1 || holder?.kind !== "text" || holder.value.match(one)?.length !== 1)
    return undefined;
  return nodes.flatMap((node): MessageNode[] => {
    if (node !== holder) return [node];
    const at = holder.value.search(one);
    const parts: MessageNode[] = [
      { kind: "text", value: holder.value.slice(0, at) },
      { kind: "argument", name },
      { kind: "text", value: holder.value.slice(at + 1) },
    ];
    return parts.filter((part) => part.kind !== "text" || part.value !== "");
  });
}

/** The number that a plural counts as its sign, where a syntax has one. */
function countSigns(nodes: readonly MessageNode[], counted?: string): readonly MessageNode[] {
  return nodes.map((node): MessageNode => {
    switch (node.kind) {
      case "argument":
        return node.name === counted && !node.format ? { kind: "count" } : node;
      case "plural":
        return {
          ...node,
          branches: node.branches.map((one) => ({ ...one, nodes: countSigns(one.nodes, node.name) })),
        };
      case "select":
        return { ...node, branches: node.branches.map((one) => ({ ...one, nodes: countSigns(one.nodes) })) };
      case "tag":
        return { ...node, children: countSigns(node.children, counted) };
      default:
        return node;
    }
  });
}
