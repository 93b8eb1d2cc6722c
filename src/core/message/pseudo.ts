import { pluralCategoryNames } from "../locale/plural-rules.js";
import type { Branch, MessageNode } from "./model.js";
import { placeholderShapes } from "./syntaxes/syntax.js";

/** How a text becomes one that is plainly no language, and can be read all the same. */
export interface PseudoOptions {
  /** Written from right to left, by the marks of the Unicode Bidirectional Algorithm (UAX 9). */
  readonly mirror?: boolean;
  /** Every plural has all six categories, each with its name before the text. */
  readonly plurals?: boolean;
  /** How the syntax keeps texts that a value chooses by ranges, where it does. */
  readonly ranges?: {
    read(style: string): readonly Branch[] | undefined;
    write(branches: readonly Branch[]): string | undefined;
  };
}

const plain = "AaBbCcDdEeFfGgHhIiJjKkLlMmNnOoPpQqRrSsTtUuVvWwXxYyZz";
const accented = [..."ÅåƁƀÇçÐðÉéƑƒĜĝĤĥÎîĴĵĶķĻļṀṁÑñÖöÞþǪǫŔŕŠšŢţÛûṼṽŴŵẊẋÝýŽž"];
const accents = new Map([...plain].map((letter, index) => [letter, accented[index] ?? letter]));

/** A right-to-left isolate around a whole text, and an override around its words: what is filled in keeps its own direction. */
const isolate = ["\u2067", "\u2069"] as const;
const override = ["\u202E", "\u202C"] as const;

/** How much longer translations of English are, by the length of the text: short ones grow most. */
const growth = [
  [10, 1],
  [20, 0.8],
  [30, 0.6],
  [50, 0.4],
  [70, 0.35],
  [Infinity, 0.3],
] as const;

/** What a text may have that no reader sees as words: markup, entities, addresses, values of other syntaxes. */
const kept = new RegExp(
  [
    /<[^<>]{1,200}>/u,
    /&(?:#\d{1,7}|#x[\da-f]{1,6}|[a-z][a-z\d]{1,30});/iu,
    /\b(?:https?:\/\/|mailto:|www\.)[^\s<>"]{1,300}/u,
    /[\w.+-]{1,60}@[\w-]{1,60}\.[\w.-]{1,60}/u,
    /\\[nrt"'\\]/u,
    ...Object.values(placeholderShapes),
  ]
    .map(({ source }) => `(?:${source})`)
    .join("|"),
  "giu",
);

/** A message in the pseudo-locale: its words changed, its values, elements and choices as they are, in brackets as a whole. */
export function pseudoMessage(
  nodes: readonly MessageNode[],
  options: PseudoOptions = {},
): readonly MessageNode[] {
  return inBrackets(nodes, options, undefined);
}

function inBrackets(
  nodes: readonly MessageNode[],
  options: PseudoOptions,
  category: string | undefined,
): readonly MessageNode[] {
  const choice = nodes.find(({ kind }) => kind === "plural" || kind === "select");
  const [only] = nodes;
  // Whole texts are in brackets, and no message has them twice.
  if (nodes.length === 1 && only && (only.kind === "plural" || only.kind === "select"))
    return [withBranches(only, options)];
  const words = nodes.reduce((sum, node) => sum + lengthOf(node), 0);
  const inner = nodes.map((node) => changed(node, options));
  const wanted = Math.ceil(words * (growth.find(([most]) => words <= most)?.[1] ?? 0.3));
  const filler = choice || words === 0 ? "" : ` ${"~".repeat(Math.max(wanted - 1, 1))}`;
  const [before, after] = options.mirror ? isolate : (["", ""] as const);
  return [
    { kind: "text", value: `${before}⟦${category === undefined ? "" : `${category}: `}` },
    ...inner,
    { kind: "text", value: `${filler}⟧${after}` },
  ];
}

function withBranches<Node extends MessageNode & { readonly branches: readonly Branch[] }>(
  node: Node,
  options: PseudoOptions,
): Node {
  const isSplit = options.plurals === true && node.kind === "plural";
  const branches = isSplit ? allCategories(node.branches) : node.branches;
  return {
    ...node,
    branches: branches.map((branch) => ({
      ...branch,
      nodes: inBrackets(branch.nodes, options, isSplit ? branch.selector : undefined),
    })),
  };
}

function allCategories(branches: readonly Branch[]): readonly Branch[] {
  const other = branches.find(({ selector }) => selector === "other") ?? branches.at(-1);
  if (!other) return branches;
  return [
    ...branches.filter(({ selector }) => selector.startsWith("=")),
    ...pluralCategoryNames.map(
      (selector) => branches.find((one) => one.selector === selector) ?? { ...other, selector },
    ),
  ];
}

function changed(node: MessageNode, options: PseudoOptions): MessageNode {
  switch (node.kind) {
    case "text":
      return node.format ? node : { ...node, value: directed(pseudoText(node.value), options) };
    case "tag":
      return { ...node, children: node.children.map((child) => changed(child, options)) };
    case "plural":
    case "select":
      return {
        ...node,
        branches: (options.plurals && node.kind === "plural"
          ? allCategories(node.branches)
          : node.branches
        ).map((branch) => ({ ...branch, nodes: branch.nodes.map((child) => changed(child, options)) })),
      };
    case "argument": {
      const { type, style } = node.format ?? {};
      const { ranges } = options;
      const read = type === "choice" && style ? ranges?.read(style.text) : undefined;
      const text =
        read &&
        ranges?.write(
          read.map((one) => ({ ...one, nodes: one.nodes.map((child) => changed(child, options)) })),
        );
      return text === undefined || !style
        ? node
        : { ...node, format: { ...node.format, type: "choice", style: { ...style, text } } };
    }
    default:
      return node;
  }
}

function directed(text: string, { mirror }: PseudoOptions): string {
  return mirror && text.trim() !== "" ? override.join(text) : text;
}

/** A text with its letters accented; what no reader sees stays. */
export function pseudoText(text: string): string {
  let result = "";
  let at = 0;
  for (const match of text.matchAll(kept)) {
    result += accent(text.slice(at, match.index)) + match[0];
    at = match.index + match[0].length;
  }
  return result + accent(text.slice(at));
}

function accent(text: string): string {
  return text.replace(/[A-Za-z]/g, (letter) => accents.get(letter) ?? letter);
}

function lengthOf(node: MessageNode): number {
  if (node.kind === "text") return node.value.replace(kept, "").trim().length;
  if (node.kind === "tag") return node.children.reduce((sum, child) => sum + lengthOf(child), 0);
  if (node.kind === "plural" || node.kind === "select")
    return Math.max(
      0,
      ...node.branches.map(({ nodes }) => nodes.reduce((sum, one) => sum + lengthOf(one), 0)),
    );
  return 0;
}
