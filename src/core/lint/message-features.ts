import { hasRules, rulesOf } from "../message/rules-of-plural.js";
import type { Branch, MessageNode, PluralNode, TagNode } from "../message/model.js";
import type { ReadMessage } from "../message/read-message.js";
import { features, mayHoldSigns } from "./features.js";
import { endsInLetter, literalFeatures, runsCode } from "./text-features.js";

/** Choices in choices deeper than this are not compared: each takes as long as all branches in it, again and again. */
const deepestCompared = 6;

/** What a message has: what its text has, and what was read of it in a locale. */
export function messageFeatures(message: ReadMessage, locale: string, ofText: number): number {
  let found = ofText & ~mayHoldSigns;
  if (message.isPlain) return found;
  const { isBroken } = message;
  // What stands in the text may be part of an argument or tag that was read; of a broken message that is not sure.
  if (!isBroken) found &= ~(features.braces | features.markup | features.ending);
  const { nodes } = message;
  found |= nodeFeatures(nodes, locale);
  if ((found & features.plurals) !== 0 && nodes.length > 1) found |= features.unevenPlural;
  if (!endsPlainly(nodes)) found |= features.ending;
  if (message.quoted.length > 0) found |= features.quoted;
  if (message.problems.length > 0) found |= features.problems;
  return found;
}

function nodeFeatures(nodes: readonly MessageNode[], locale: string): number {
  let found = 0;
  for (const node of nodes)
    switch (node.kind) {
      case "text":
        found |= literalFeatures(node.value);
        break;
      case "argument":
        found |= features.arguments;
        if (node.format)
          found |= features.formats | (node.format.style ? literalFeatures(node.format.style.text) : 0);
        break;
      case "tag":
        found |= features.tags | nodeFeatures(node.attributes, locale) | nodeFeatures(node.children, locale);
        if (mayAct(node)) found |= features.markup;
        break;
      case "plural":
        found |= features.arguments | features.plurals;
        if (!isEven(node, locale)) found |= features.unevenPlural;
        for (const branch of node.branches) found |= nodeFeatures(branch.nodes, locale);
        break;
      case "select":
        found |= features.arguments | features.selects;
        for (const branch of node.branches) found |= nodeFeatures(branch.nodes, locale);
    }
  return found;
}

/** Whether a tag is more than a mark around words: one that HTML gives a meaning, or one with attributes. */
function mayAct({ name, attributes }: TagNode): boolean {
  return attributes.length > 0 || runsCode(name);
}

/** Whether a plural has one form for each category of the locale, each with the number, and nothing else. */
function isEven(plural: PluralNode, locale: string): boolean {
  const { branches, name, offset } = plural;
  if (offset !== 0 || !hasRules(plural, locale)) return false;
  const { categories } = rulesOf(plural, locale);
  // As many forms as categories, of each of which there is one: then there is no other.
  if (branches.length !== categories.length) return false;
  for (const category of categories)
    if (!branches.some(({ selector }) => selector === category)) return false;
  return branches.every(({ nodes }) =>
    nodes.some((node) => node.kind === "count" || (node.kind === "argument" && node.name === name)),
  );
}

/** Whether every branch ends in a letter, a value or a sign, so that there is no mark to speak of. */
function endsPlainly(nodes: readonly MessageNode[]): boolean {
  const last = nodes[nodes.length - 1];
  switch (last?.kind) {
    case "text":
      return endsInLetter(last.value, last.value.length);
    case "plural":
    case "select":
      return last.branches.every((branch) => endsPlainly(branch.nodes));
    case "tag":
      return last.selfClosing || endsPlainly(last.children);
    default:
      return last !== undefined;
  }
}

/**
 * Whether two messages surely have the same arguments and tags, in the same order: most translations have, and then there
 * is nothing to compare.
 */
export function haveSameParts(one: ReadMessage, other: ReadMessage): boolean {
  if (one.isPlain && other.isPlain) return true;
  return areSameParts(one.nodes, other.nodes, deepestCompared);
}

function areSameParts(one: readonly MessageNode[], other: readonly MessageNode[], levels: number): boolean {
  let at = 0;
  let there = 0;
  for (;;) {
    while (at < one.length && isWords(one[at])) at++;
    while (there < other.length && isWords(other[there])) there++;
    const part = one[at++];
    const like = other[there++];
    if (!part || !like) return part === like;
    if (!isSamePart(part, like, levels)) return false;
  }
}

function isWords(node: MessageNode | undefined): boolean {
  return node !== undefined && (node.kind === "count" || (node.kind === "text" && !node.format));
}

function isSamePart(one: MessageNode, other: MessageNode, levels: number): boolean {
  switch (one.kind) {
    case "argument":
      return (
        other.kind === "argument" &&
        one.name === other.name &&
        one.format?.type === other.format?.type &&
        !one.uses &&
        !other.uses
      );
    case "tag":
      return (
        other.kind === "tag" &&
        one.name === other.name &&
        one.selfClosing === other.selfClosing &&
        areSameParts(one.attributes, other.attributes, levels) &&
        areSameParts(one.children, other.children, levels)
      );
    case "plural":
    case "select": {
      // Languages have other numbers of branches: all must have what the first has.
      if (levels === 0 || other.kind !== one.kind || one.name !== other.name || !areCountedAlike(one, other))
        return false;
      const first = one.branches[0]?.nodes ?? [];
      const isAlike = ({ nodes }: Branch) => areSameParts(first, nodes, levels - 1);
      return one.branches.every(isAlike) && other.branches.every(isAlike);
    }
    default:
      return false;
  }
}

function areCountedAlike(one: MessageNode, other: MessageNode): boolean {
  if (one.kind !== "plural" || other.kind !== "plural") return true;
  return one.pluralKind === other.pluralKind && one.offset === other.offset;
}
