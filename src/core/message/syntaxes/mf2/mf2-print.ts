import type { ArgumentNode, MessageNode, TagNode } from "../../model.js";
import { flatVariants } from "../../variants.js";
import { printLiteral } from "./mf2.js";

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
          return node.format || node.toolAttributes
            ? `{${printLiteral(node.value)}${printFunction(node)}${asidesOf(node)}}`
            : node.value.replace(/[\\{}]/g, "\\$&");
        case "argument":
          return `{$${node.name}${printFunction(node)}${asidesOf(node)}}`;
        case "count":
          return counted === "" ? "" : `{$${counted}}`;
        case "tag": {
          const options = printOptions(node) + asidesOf(node);
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

function printFunction({ format }: Pick<ArgumentNode, "format">): string {
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

function asidesOf({ toolAttributes }: { readonly toolAttributes?: string }): string {
  return toolAttributes ? ` ${toolAttributes}` : "";
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
  return [...written.matchAll(/(?<![^\s=])([^\s=]+)\s*=\s*(?:"([^"]*)"|'([^']*)')/g)]
    .map(([, name = "", double, single]) => {
      const value = double ?? single ?? "";
      return ` ${name}=${value === "\u0000" ? `$${names[index++] ?? ""}` : printLiteral(value)}`;
    })
    .join("");
}
