import { numbersOf } from "../lint/plural-words.js";
import {
  hasPluralRules,
  pluralCategoryNames,
  wholeNumberCategories,
  type PluralCategory,
} from "../locale/plural-rules.js";
import type { Branch, MessageNode, PluralNode, SelectNode, TagNode } from "../message/model.js";
import type { MessageReader } from "../message/parse.js";
import { bareForm, flatVariants, joinTexts, type FlatVariant } from "../message/variants.js";
import { rulesOf } from "../message/rules-of-plural.js";
import { scaffoldPlurals } from "../message/scaffold.js";
import { joinInlines, type Inline, type ShownCode } from "./inline.js";

/** One choice that a text is for: the plural category or the case of an argument. */
export interface UnitChoice {
  /** The argument that chooses. */
  readonly name: string;
  readonly kind: "plural" | "ordinal" | "case" | "range";
  /** The category, `=1` for an exact number, the case, or where a range begins. */
  readonly selector: string;
  /** Numbers that take it, for people: `2, 3, 4, 22 …`; none for cases. */
  readonly numbers?: string;
}

/** One whole text of a message, for one combination of its choices. */
export interface MessageUnit {
  readonly choices: readonly UnitChoice[];
  readonly source: readonly Inline[];
  /** The translation that is there, where the message has one. */
  readonly target?: readonly Inline[];
}

/** A message as units for one locale, with what puts it together again. */
export interface MessageUnits {
  readonly units: readonly MessageUnit[];
  readonly codes: ReadonlyMap<string, ShownCode>;
  /**
   * The message that texts for the units make, in their order; undefined where a text has a code that the message does not,
   * or one that cannot stand where it does.
   */
  compose(texts: readonly (readonly Inline[])[]): readonly MessageNode[] | undefined;
}

/** More units than these nobody fills in. */
const mostUnits = 60;

/** Stands for the number that a plural counts, until it is known again which plural is around it. */
const countMark = "\uFDD2";
/** Stands before the name of a select that was made of a value's own choice among texts. */
const rangeMark = "\uFDD3";

/**
 * A source message, and its translation where there is one, as whole texts: one for each category of the locale and each
 * case. Undefined where it has more than anybody would fill in, or choices that cannot be taken apart.
 */
export function messageUnits(
  source: readonly MessageNode[],
  target: readonly MessageNode[] | undefined,
  locale: string,
  reader: MessageReader,
): MessageUnits | undefined {
  const prepared = prepare(source, reader);
  const flat = flatVariants(prepared);
  if (!flat) return undefined;
  const there = target && flatVariants(prepare(target, reader));
  // A translation with a choice of its own is not the source's in other words.
  const translated =
    there && [...there.choices.keys()].every((id) => flat.choices.has(id)) ? there.variants : undefined;
  const codes = new CodeTable(reader);
  const choices = [...flat.choices];
  const leaves: Leaf[] = [];
  const tree = grow(choices, 0, flat.variants, translated, [], leaves, { locale, reader });
  if (leaves.length > mostUnits) return undefined;
  const units = leaves.map(({ picks, source: nodes, target: own }): MessageUnit => {
    const inlines = codes.inlines(nodes);
    return {
      choices: picks.map(({ choice, selector }) => unitChoice(choice, selector, locale)),
      source: inlines,
      ...(own && { target: codes.inlines(own) }),
    };
  });
  return {
    units,
    codes: codes.shown,
    compose(texts) {
      const filled = texts.map((text) => codes.nodes(text));
      if (filled.length !== leaves.length || filled.some((one) => one === undefined)) return undefined;
      return build(tree, filled as readonly (readonly MessageNode[])[], undefined, reader);
    },
  };
}

type Choice = PluralNode | SelectNode;

/** Where each text goes in the message: the branches of choices, one in another. */
type Tree =
  | { readonly kind: "leaf"; readonly index: number }
  | { readonly kind: "choice"; readonly node: Choice; readonly branches: readonly TreeBranch[] };

interface TreeBranch {
  readonly selector: string;
  readonly tree: Tree;
}

interface Setting {
  readonly locale: string;
  readonly reader: MessageReader;
}

/** Whether forms side by side have none for what is left in a locale: the last of those for whole numbers stands for it. */
function isLastForRest(locale: string): boolean {
  return hasPluralRules(locale) && !wholeNumberCategories(locale).includes("other");
}

interface Leaf {
  readonly picks: readonly { readonly choice: Choice; readonly selector: string }[];
  readonly source: readonly MessageNode[];
  readonly target: readonly MessageNode[] | undefined;
}

function grow(
  choices: readonly (readonly [string, Choice])[],
  depth: number,
  source: readonly FlatVariant[],
  target: readonly FlatVariant[] | undefined,
  picks: Leaf["picks"],
  leaves: Leaf[],
  setting: Setting,
): Tree {
  const next = choices[depth];
  if (!next || leaves.length > mostUnits) {
    leaves.push({ picks, source: source[0]?.nodes ?? [], target: target?.[0]?.nodes });
    return { kind: "leaf", index: leaves.length - 1 };
  }
  const [id, node] = next;
  if (!source.some(({ keys }) => keys.has(id)))
    return grow(choices, depth + 1, source, target && taking(target, id, "*"), picks, leaves, setting);
  const selectors = selectorsFor(node, id, source, target ?? [], setting);
  const branches = selectors.map((selector): TreeBranch => ({
    selector,
    tree: grow(
      choices,
      depth + 1,
      taking(source, id, selector),
      target && translatedAs(target, id, selector),
      [...picks, { choice: node, selector }],
      leaves,
      setting,
    ),
  }));
  return { kind: "choice", node, branches };
}

/** The variants that a choice takes: its own, else those for the rest. */
function taking(variants: readonly FlatVariant[], id: string, selector: string): readonly FlatVariant[] {
  const key = selector === "other" ? "*" : selector;
  const own = variants.filter(({ keys }) => keys.get(id) === key);
  if (own.length > 0) return own;
  const rest = variants.filter(({ keys }) => (keys.get(id) ?? "*") === "*");
  return rest.length > 0 ? rest : variants.slice(0, 1);
}

/** The same of a translation, where a category that it lacks is one that nobody has written. */
function translatedAs(
  variants: readonly FlatVariant[],
  id: string,
  selector: string,
): readonly FlatVariant[] {
  const isCategory = (pluralCategoryNames as readonly string[]).includes(selector);
  const isLacking =
    variants.length > 0 && variants.every(({ keys }) => keys.has(id) && keys.get(id) !== selector);
  return isCategory && selector !== "other" && isLacking ? [] : taking(variants, id, selector);
}

/** What a choice has to have texts for in a locale: the source's exact numbers and cases, the locale's categories. */
function selectorsFor(
  node: Choice,
  id: string,
  source: readonly FlatVariant[],
  target: readonly FlatVariant[],
  { locale, reader }: Setting,
): readonly string[] {
  const of = (variants: readonly FlatVariant[]) => [
    ...new Set(
      variants.flatMap(({ keys }) => keys.get(id) ?? []).map((key) => (key === "*" ? "other" : key)),
    ),
  ];
  const own = of(source);
  const cases = [...own.filter((one) => one !== "other"), ...(own.includes("other") ? ["other"] : [])];
  if (node.kind === "select") return cases;
  const exact = [...new Set([...own, ...of(target)])].filter((one) => one.startsWith("="));
  const branches = [...new Set([...exact, ...own, "other"])].map((selector) => ({ selector, nodes: [] }));
  const [scaffold] = scaffoldPlurals([{ ...node, branches }], locale);
  const all = scaffold?.kind === "plural" ? scaffold.branches.map(({ selector }) => selector) : cases;
  return reader.plurals === "bar" ? all.filter((one) => one !== "other" || !isLastForRest(locale)) : all;
}

function unitChoice(node: Choice, selector: string, locale: string): UnitChoice {
  if (node.kind === "select") {
    const isRange = node.name.startsWith(rangeMark);
    return { name: isRange ? node.name.slice(1) : node.name, kind: isRange ? "range" : "case", selector };
  }
  const kind = node.pluralKind === "ordinal" ? "ordinal" : "plural";
  return {
    name: node.name,
    kind,
    selector,
    ...(!selector.startsWith("=") && {
      numbers: numbersOf(rulesOf(node, locale), selector as PluralCategory),
    }),
  };
}

function build(
  tree: Tree,
  texts: readonly (readonly MessageNode[])[],
  counted: PluralNode | undefined,
  reader: MessageReader,
): readonly MessageNode[] | undefined {
  if (tree.kind === "leaf") return withCounts(texts[tree.index] ?? [], counted, reader);
  const { node } = tree;
  const inner = node.kind === "plural" ? node : counted;
  const branches: Branch[] = [];
  for (const { selector, tree: below } of tree.branches) {
    const nodes = build(below, texts, inner, reader);
    if (!nodes) return undefined;
    branches.push({ selector, nodes });
  }
  if (node.kind === "plural") {
    const { pluralKind, name, offset } = node;
    const last = branches.at(-1);
    if (last && !branches.some(({ selector }) => selector === "other"))
      branches.push({ selector: "other", nodes: last.nodes });
    return [{ kind: "plural", pluralKind, name, offset, branches }];
  }
  if (!node.name.startsWith(rangeMark)) return [{ kind: "select", name: node.name, branches }];
  const style = reader.syntax.ranges?.write(branches, (nodes) => reader.print(nodes));
  if (style === undefined) return undefined;
  const name = node.name.slice(rangeMark.length);
  return [{ kind: "argument", name, format: { type: "choice", style: { kind: "pattern", text: style } } }];
}

/** Text with the numbers of its plurals as the syntax shows them: the innermost plural's by its sign, others by their names. */
function withCounts(
  nodes: readonly MessageNode[],
  counted: PluralNode | undefined,
  reader: MessageReader,
): readonly MessageNode[] {
  return nodes.map((node): MessageNode => {
    if (node.kind === "tag")
      return {
        ...node,
        attributes: withCounts(node.attributes, counted, reader),
        children: withCounts(node.children, counted, reader),
      };
    if (node.kind !== "argument" || !node.name.startsWith(countMark)) return node;
    const [pluralKind, offset, ...rest] = node.name.slice(1).split(" ");
    const name = rest.join(" ");
    const isInner =
      counted?.name === name && counted.pluralKind === pluralKind && counted.offset === Number(offset);
    if (isInner && reader.syntax.countSign !== undefined) return { kind: "count" };
    return reader.syntax.hasSkeletons
      ? { kind: "argument", name, format: { type: "number" } }
      : { kind: "argument", name };
  });
}

/** A message whose counted numbers are arguments, and whose values that choose among texts are selects. */
function prepare(
  nodes: readonly MessageNode[],
  reader: MessageReader,
  counted?: PluralNode,
): readonly MessageNode[] {
  return nodes.map((node): MessageNode => {
    switch (node.kind) {
      case "count":
        return counted
          ? { kind: "argument", name: `${countMark}${counted.pluralKind} ${counted.offset} ${counted.name}` }
          : node;
      case "plural":
        return { ...node, branches: preparedBranches(node.branches, reader, node) };
      case "select":
        return { ...node, branches: preparedBranches(node.branches, reader, counted) };
      case "tag":
        return {
          ...node,
          attributes: prepare(node.attributes, reader, counted),
          children: prepare(node.children, reader, counted),
        };
      case "argument": {
        const { type, style } = node.format ?? {};
        const branches =
          type === "choice" && style
            ? reader.syntax.ranges?.read(style.text, (text) => reader.readOnce(text).nodes)
            : undefined;
        return branches ? { kind: "select", name: rangeMark + node.name, branches } : node;
      }
      default:
        return node;
    }
  });
}

function preparedBranches(
  branches: readonly Branch[],
  reader: MessageReader,
  counted: PluralNode | undefined,
): readonly Branch[] {
  return branches.map((branch) => ({ ...branch, nodes: prepare(branch.nodes, reader, counted) }));
}

/** The codes of one message: what each stands for, and how it looks. */
class CodeTable {
  readonly shown = new Map<string, ShownCode>();
  private readonly nodesById = new Map<string, MessageNode>();
  private readonly idByForm = new Map<string, string>();

  constructor(private readonly reader: MessageReader) {}

  inlines(nodes: readonly MessageNode[]): readonly Inline[] {
    return joinInlines(
      nodes.map((node): Inline => {
        if (node.kind === "text" && !node.format && !node.toolAttributes)
          return { kind: "text", value: node.value };
        if (node.kind === "tag" && !node.selfClosing)
          return { kind: "pair", id: this.idOf(node), children: this.inlines(node.children) };
        return { kind: "code", id: this.idOf(node) };
      }),
    );
  }

  /** The nodes that a text means; undefined where it has a code that the message does not have. */
  nodes(inlines: readonly Inline[]): readonly MessageNode[] | undefined {
    const nodes: MessageNode[] = [];
    for (const one of joinInlines(inlines)) {
      if (one.kind === "text") {
        nodes.push({ kind: "text", value: one.value });
        continue;
      }
      const known = this.nodesById.get(one.id);
      if (!known || (known.kind === "tag" && !known.selfClosing) !== (one.kind === "pair")) return undefined;
      if (one.kind === "code") nodes.push(known);
      else {
        const children = this.nodes(one.children);
        if (!children) return undefined;
        nodes.push({ ...(known as TagNode), children });
      }
    }
    return joinTexts(nodes);
  }

  private idOf(given: MessageNode): string {
    const node = given.kind === "tag" ? { ...given, children: [] } : given;
    const form = bareForm([node]);
    const there = this.idByForm.get(form);
    if (there !== undefined) return there;
    const base = nameOf(node).replace(/[^A-Za-z0-9_.-]/g, "_") || "value";
    let id = base;
    for (let number = 2; this.nodesById.has(id); number++) id = `${base}-${number}`;
    this.idByForm.set(form, id);
    this.nodesById.set(id, node);
    this.shown.set(id, this.show(node));
    return id;
  }

  private show(node: MessageNode): ShownCode {
    if (node.kind === "tag" && !node.selfClosing) {
      const attributes = node.attributes.length > 0 ? ` ${this.print(node.attributes)}` : "";
      return { open: `<${node.name}${attributes}>`, close: `</${node.name}>` };
    }
    return { open: this.print([node]) };
  }

  private print(nodes: readonly MessageNode[]): string {
    const plain = nodes.map((node): MessageNode => {
      const name = countedName(node);
      return name === undefined ? node : { kind: "argument", name };
    });
    return this.reader.print(plain);
  }
}

/** The name of the number that a node stands for, where it was a plural's sign for it; undefined for others. */
function countedName(node: MessageNode): string | undefined {
  return node.kind === "argument" && node.name.startsWith(countMark)
    ? node.name.split(" ").slice(2).join(" ")
    : undefined;
}

function nameOf(node: MessageNode): string {
  const counted = countedName(node);
  if (counted !== undefined) return counted;
  if (node.kind === "argument" || node.kind === "tag") return node.name;
  return node.kind === "count" ? "count" : "value";
}
