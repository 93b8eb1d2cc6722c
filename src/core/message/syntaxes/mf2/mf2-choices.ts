import type { Span } from "../../../text/span.js";
import type { Branch, MessageNode } from "../../model.js";

/** More combinations of keys than this are no message that anybody maintains. */
const mostVariants = 2000;

/** A variable behind `.match`, as what chooses in the model. */
export interface Selector {
  readonly kind: "plural" | "ordinal" | "select";
  readonly name: string;
  readonly nameSpan: Span;
  readonly offset: number;
}

/** One row of keys with its text. */
export interface Variant {
  readonly keys: readonly string[];
  readonly nodes: readonly MessageNode[];
  readonly selectorSpan: Span;
  readonly span: Span;
}

/**
 * Plurals and selects for the variants of `.match`: for each combination of keys the variant that the standard's
 * "Pattern Selection" takes, where the first selector weighs most; what makes no difference is left out.
 */
export function choiceTree(
  selectors: readonly Selector[],
  variants: readonly Variant[],
  span: Span,
  onTooMany: () => void,
): readonly MessageNode[] {
  let leaves = 0;
  const build = (
    index: number,
    rows: readonly Variant[],
    chosen: readonly string[],
  ): readonly MessageNode[] | undefined => {
    const selector = selectors[index];
    if (leaves > mostVariants) return undefined;
    if (!selector) {
      leaves++;
      return best(rows, chosen)?.nodes;
    }
    const keys = [...new Set(rows.map(({ keys: own }) => own[index] ?? "*"))].sort(
      (a, b) => Number(a === "*") - Number(b === "*"),
    );
    const branches: Branch[] = [];
    for (const key of keys) {
      const matching = rows.filter(({ keys: own }) => own[index] === key || own[index] === "*");
      const first = matching.find(({ keys: own }) => own[index] === key) ?? matching[0];
      const nodes = build(index + 1, matching, [...chosen, key]);
      if (!nodes || !first) continue;
      branches.push({
        selector: selectorName(selector, key, keys),
        nodes,
        selectorSpan: first.selectorSpan,
        span: first.span,
      });
    }
    const other = branches.find(({ selector: name }) => name === "other");
    const distinct = branches.filter(
      (branch) => branch === other || !other || !isSameTree(branch.nodes, other.nodes),
    );
    const { name, nameSpan, offset } = selector;
    if (distinct.length === 0) return undefined;
    return selector.kind === "select"
      ? [{ kind: "select", name, branches: distinct, span, nameSpan }]
      : [
          {
            kind: "plural",
            pluralKind: selector.kind === "ordinal" ? "ordinal" : "cardinal",
            name,
            offset,
            branches: distinct,
            span,
            nameSpan,
          },
        ];
  };
  const nodes = build(0, variants, []);
  if (leaves > mostVariants) onTooMany();
  return nodes ?? [];
}

/** Whether two subtrees lead to the same variants. */
function isSameTree(a: readonly MessageNode[], b: readonly MessageNode[]): boolean {
  const [one, two] = [a[0], b[0]];
  if (a === b) return true;
  if (a.length !== 1 || b.length !== 1 || !one || !two || !("branches" in one) || !("branches" in two))
    return false;
  return (
    one.branches.length === two.branches.length &&
    one.branches.every(({ selector, nodes }, index) => {
      const other = two.branches[index];
      return other?.selector === selector && isSameTree(nodes, other.nodes);
    })
  );
}

/** The variant whose keys fit best, the first selector weighing most. */
function best(rows: readonly Variant[], chosen: readonly string[]): Variant | undefined {
  const rank = ({ keys }: Variant) =>
    keys.map((key, index) => (key === chosen[index] && key !== "*" ? "0" : "1")).join("");
  return rows.reduce<Variant | undefined>(
    (found, row) => (found && rank(found) <= rank(row) ? found : row),
    undefined,
  );
}

/** `*` is the model's `other`, except where a key `other` stands beside it. */
function selectorName(selector: Selector, key: string, keys: readonly string[]): string {
  if (key === "*") return keys.includes("other") ? "*" : "other";
  if (key === "\\*") return "*";
  const isNumber = selector.kind !== "select" && /^-?\d+(?:\.\d+)?$/.test(key);
  return isNumber ? `=${Number(key) + selector.offset}` : key;
}
