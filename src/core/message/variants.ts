import type { MessageNode, PluralNode, SelectNode, TextNode } from "./model.js";

/** A whole text for one combination of choices: what each choice must be, by its place among them. */
export interface FlatVariant {
  readonly keys: ReadonlyMap<string, string>;
  readonly nodes: readonly MessageNode[];
}

/** More variants than this nobody could read. */
const mostVariants = 1000;

interface Flattened {
  /** The choices in the order in which they are met, by identity. */
  readonly choices: ReadonlyMap<string, PluralNode | SelectNode>;
  readonly variants: readonly FlatVariant[];
}

/**
 * A message as whole texts, one for each combination of the branches of its plurals and selects, wherever they stand in
 * it. Undefined where there are too many, or where one number would have to be chosen by in two ways at once.
 */
export function flatVariants(nodes: readonly MessageNode[]): Flattened | undefined {
  const choices = new Map<string, PluralNode | SelectNode>();
  let failed = false;
  const cross = (first: readonly FlatVariant[], second: readonly FlatVariant[]): FlatVariant[] => {
    const both: FlatVariant[] = [];
    for (const a of first)
      for (const b of second) {
        const keys = new Map(a.keys);
        let fits = true;
        for (const [id, key] of b.keys) {
          const there = keys.get(id);
          if (there === undefined || there === "*") keys.set(id, key);
          else if (key !== "*" && key !== there) {
            // `one` and `=1` both hold for 1, but not in each language.
            if (there.startsWith("=") !== key.startsWith("=")) failed = true;
            fits = false;
          }
        }
        if (fits) both.push({ keys, nodes: joinTexts([...a.nodes, ...b.nodes]) });
        if (both.length > mostVariants) failed = true;
        if (failed) return [];
      }
    // Of two ways to the same keys the first is meant: the other one went through a branch for the rest.
    const seen = new Set<string>();
    return both.filter(({ keys }) => {
      const id = JSON.stringify([...keys].sort());
      return !seen.has(id) && seen.add(id);
    });
  };
  const expand = (all: readonly MessageNode[], counted: PluralNode | undefined): readonly FlatVariant[] => {
    let variants: readonly FlatVariant[] = [{ keys: new Map(), nodes: [] }];
    for (const node of all) {
      if (failed) return [];
      if (node.kind === "plural" || node.kind === "select") {
        const id =
          node.kind === "plural" ? `${node.pluralKind} ${node.offset} ${node.name}` : `select ${node.name}`;
        if (!choices.has(id)) choices.set(id, node);
        const inner = node.branches.flatMap(({ selector, nodes: branch }) =>
          cross(
            [{ keys: new Map([[id, selector === "other" ? "*" : selector]]), nodes: [] }],
            expand(branch, node.kind === "plural" ? node : counted),
          ),
        );
        variants = cross(variants, inner);
      } else if (node.kind === "tag") {
        const inner = expand(node.children, counted);
        variants = cross(
          variants,
          inner.map(({ keys, nodes: children }) => ({ keys, nodes: [{ ...node, children }] })),
        );
      } else {
        const plain =
          node.kind === "count" && counted?.offset === 0
            ? { kind: "argument" as const, name: counted.name }
            : node;
        variants = variants.map((variant) => ({ ...variant, nodes: joinTexts([...variant.nodes, plain]) }));
      }
    }
    return variants;
  };
  const variants = expand(nodes, undefined);
  return failed ? undefined : { choices, variants };
}

/** Texts beside each other as one. */
export function joinTexts(nodes: readonly MessageNode[]): MessageNode[] {
  const joined: MessageNode[] = [];
  for (const node of nodes) {
    const last = joined.at(-1);
    if (node.kind === "text" && last?.kind === "text" && isBare(node) && isBare(last))
      joined[joined.length - 1] = { ...last, value: last.value + node.value };
    else joined.push(node);
  }
  return joined;
}

/** Whether a text is nothing but its words. */
function isBare({ format, toolAttributes }: TextNode): boolean {
  return !format && !toolAttributes;
}

/** Nodes without their places, for comparing. */
export function bareForm(nodes: readonly MessageNode[]): string {
  return JSON.stringify(nodes, (name, value: unknown) => (/span$/i.test(name) ? undefined : value));
}

/** The texts of a message for each choice in a form for comparing, where it may stand in another shape. */
export function flatForm(nodes: readonly MessageNode[]): string {
  const flat = flatVariants(nodes);
  return flat
    ? JSON.stringify([
        [...flat.choices.keys()],
        flat.variants.map(({ keys, nodes: text }) => [
          [...keys].sort().filter(([, key]) => key !== "*"),
          bareForm(text),
        ]),
      ])
    : bareForm(nodes);
}
