import type { ArgumentNode, MessageNode, PluralNode, SelectNode, TagNode } from "../model.js";
import { joinTexts, printLiteral } from "./mf2.js";

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

/**
 * Writes nodes as a message of Unicode MessageFormat 2 (UTS #35 Part 9): without a choice as a simple message where it
 * can be one, else with `.match` over whole texts. Where that cannot be, its last branches are written.
 */
export function printMf2(nodes: readonly MessageNode[]): string {
  const flat = flatVariants(nodes);
  if (!flat) return printMf2(lastBranches(nodes));
  const { choices, variants } = flat;
  if (choices.size === 0) {
    const text = printPattern(nodes, "");
    return /^[\s\u3000]*(?:\.|\{\{)/.test(text) ? `{{${text}}}` : text;
  }
  const taken = new Set([...choices.values()].map(({ name }) => name));
  const variables = new Map<string, string>();
  const declarations: string[] = [];
  const inputs = new Set<string>();
  let counted = "";
  for (const [id, choice] of choices) {
    const { name } = choice;
    const of =
      choice.kind === "select"
        ? ":string"
        : choice.pluralKind === "ordinal"
          ? ":number select=ordinal"
          : ":number";
    if (choice.kind === "plural" && choice.offset !== 0) {
      const local = unused(`${name}_rest`, taken);
      if (!inputs.has(name)) declarations.push(`.input {$${name} :number}`);
      inputs.add(name);
      const amount = choice.offset < 0 ? `add=${-choice.offset}` : `subtract=${choice.offset}`;
      declarations.push(`.local $${local} = {$${name} :offset ${amount}}`);
      variables.set(id, local);
      counted = local;
    } else if (inputs.has(name)) {
      const local = unused(`${name}_${choice.kind === "select" ? "case" : choice.pluralKind}`, taken);
      declarations.push(`.local $${local} = {$${name} ${of}}`);
      variables.set(id, local);
    } else {
      declarations.push(`.input {$${name} ${of}}`);
      inputs.add(name);
      variables.set(id, name);
    }
  }
  const lines = variants.map(({ keys, nodes: text }) => {
    const row = [...choices].map(([id, choice]) => {
      const key = keys.get(id) ?? "*";
      if (key === "*") return "*";
      if (!key.startsWith("=") || choice.kind === "select") return printLiteral(key);
      return printLiteral(String(Number(key.slice(1)) - choice.offset));
    });
    return `${row.join(" ")} {{${printPattern(text, counted)}}}`;
  });
  return [
    ...declarations,
    `.match ${[...variables.values()].map((name) => `$${name}`).join(" ")}`,
    ...lines,
  ].join("\n");
}

function unused(wanted: string, taken: Set<string>): string {
  let name = wanted;
  for (let count = 2; taken.has(name); count++) name = `${wanted}${count}`;
  taken.add(name);
  return name;
}

function lastBranches(nodes: readonly MessageNode[]): MessageNode[] {
  return nodes.flatMap((node): MessageNode[] => {
    if (node.kind === "plural" || node.kind === "select")
      return lastBranches(node.branches.at(-1)?.nodes ?? []);
    return node.kind === "tag" ? [{ ...node, children: lastBranches(node.children) }] : [node];
  });
}

function printPattern(nodes: readonly MessageNode[], counted: string): string {
  return nodes
    .map((node): string => {
      switch (node.kind) {
        case "text":
          return node.value.replace(/[\\{}]/g, "\\$&");
        case "argument":
          return `{$${node.name}${printFunction(node)}}`;
        case "count":
          return counted === "" ? "" : `{$${counted}}`;
        case "tag": {
          const options = printOptions(node);
          if (node.selfClosing) return `{#${node.name}${options} /}`;
          return `{#${node.name}${options}}${printPattern(node.children, counted)}{/${node.name}}`;
        }
        case "plural":
        case "select":
          return "";
      }
    })
    .join("");
}

function printFunction({ format }: ArgumentNode): string {
  if (!format) return "";
  const { type, style } = format;
  if (!style) return ` :${type}`;
  if (style.kind === "options") return ` :${type} ${style.text}`;
  if (type === "number") {
    if (style.text === "integer" || style.text === "percent") return ` :${style.text}`;
    const currency = /^currency\/(\w+)$/.exec(style.text)?.[1];
    if (currency !== undefined) return ` :currency currency=${currency}`;
  }
  if ((type === "date" || type === "time") && style.kind === "named") return ` :${type} length=${style.text}`;
  // There is no such function: what reads it back tells the difference.
  return ` :${type} style=${printLiteral(style.text)}`;
}

/** `href="…"` as markup's options. */
function printOptions({ attributes }: TagNode): string {
  let written = "";
  const names: string[] = [];
  for (const node of attributes) {
    if (node.kind === "text") written += node.value.replaceAll("\u0000", "");
    else if (node.kind === "argument") {
      names.push(node.name);
      written += "\u0000";
    }
  }
  let index = 0;
  return [...written.matchAll(/([^\s=]+)\s*=\s*(?:"([^"]*)"|'([^']*)')/g)]
    .map(([, name = "", double, single]) => {
      const value = double ?? single ?? "";
      return ` ${name}=${value === "\u0000" ? `$${names[index++] ?? ""}` : printLiteral(value)}`;
    })
    .join("");
}
