import type {
  CallExpression,
  Expression,
  JSXElement,
  JSXOpeningElement,
  MemberExpression,
  Node,
  TaggedTemplateExpression,
  VariableDeclarator,
} from "oxc-parser";
import type { Span } from "../../../text/span.js";
import type { BoundLookup, DescriptorShape, Lookup, LookupKey, LookupShapes } from "../../model.js";
import { calleeName, elementName, propertyName } from "./context.js";
import { jsxTextValue } from "./jsx.js";
import { isGluing } from "./pieces.js";

/** A lookup together with the nodes that write its key or default text, which are no literals of their own. */
export interface FoundLookup {
  readonly lookups: readonly Lookup[];
  readonly keyNodes: readonly Node[];
}

/** A name that stands for a lookup in part of a file. */
interface BoundName {
  readonly name: string;
  readonly scope: Span;
  /** What precedes every key; null for what is known at run time only. */
  readonly prefix: readonly (string | null)[];
  /** Where its declaration ends, in bindings by a maker. */
  readonly from?: number;
}

/** A name that stands for an object of texts, or for a group in one, in part of a file. */
interface BoundMember {
  readonly name: string;
  readonly scope: Span;
  /** Where in the object it is; null for what is known at run time only. */
  readonly path: readonly (string | null)[];
}

/** Finds the lookups of one file: by the book's shapes, and by names that the file binds to lookups itself. */
export class LookupReader {
  private readonly bound: BoundName[] = [];
  /** Names of objects of texts, or of groups in them. */
  private readonly boundMembers: BoundMember[] = [];

  constructor(private readonly shapes: LookupShapes) {}

  /** The names that are lookups, as far as what precedes their keys is known. */
  get boundLookups(): readonly BoundLookup[] {
    return this.bound.flatMap(({ name, scope: { start, end }, prefix, from = start }) =>
      prefix.includes(null) ? [] : [{ name, scope: { start: from, end }, prefix: prefix.join("") }],
    );
  }

  /** Takes note of `const { t: say } = useTexts("search")`: from here to the end of `scope`, `say` is a lookup. */
  bind(declarator: VariableDeclarator, scope: Span): void {
    const call = declarator.init?.type === "AwaitExpression" ? declarator.init.argument : declarator.init;
    if (call) this.bindMembers(declarator.id, call, scope);
    if (call?.type !== "CallExpression") return;
    for (const maker of this.shapes.makers.get(calleeName(call.callee) ?? "") ?? [])
      this.bindMade(declarator, call, maker, scope);
  }

  /** Takes note of one function that a call gives. */
  private bindMade(
    { id, end }: VariableDeclarator,
    call: CallExpression,
    maker: { readonly gives?: string; readonly namespace?: number; readonly prefix?: number },
    scope: Span,
  ): void {
    const { parts, namespace } = this.shapes.separators;
    const prefix = [
      ...fixedArgument(call, maker.namespace, namespace),
      ...fixedArgument(call, maker.prefix, parts),
    ];
    const add = (name: string) => this.bound.push({ name, scope, prefix, from: end });
    if (id.type === "Identifier") add(maker.gives === undefined ? id.name : `${id.name}.${maker.gives}`);
    else if (id.type === "ObjectPattern" && maker.gives !== undefined) {
      for (const property of id.properties) {
        if (property.type !== "Property" || propertyName(property.key) !== maker.gives) continue;
        const value = property.value.type === "AssignmentPattern" ? property.value.left : property.value;
        if (value.type === "Identifier") add(value.name);
      }
    } else if (id.type === "ArrayPattern") {
      const [first] = id.elements;
      if (first?.type === "Identifier") add(first.name);
    }
  }

  /** Takes note of `const { cart } = texts` and `const own = textsFor(locale)`. */
  private bindMembers(id: VariableDeclarator["id"], value: Node, scope: Span): void {
    const found = this.memberPath(value);
    if (!found) return;
    if (id.type === "Identifier") this.boundMembers.push({ name: id.name, scope, path: found.path });
    if (id.type !== "ObjectPattern") return;
    for (const property of id.properties) {
      if (property.type !== "Property" || property.value.type !== "Identifier") continue;
      const name = propertyName(property.key);
      if (name !== undefined)
        this.boundMembers.push({ name: property.value.name, scope, path: [...found.path, name] });
    }
  }

  /** Where an expression is an object of texts or below one: its path there. */
  private memberPath(node: Node): { readonly path: readonly (string | null)[] } | undefined {
    const path: (string | null)[] = [];
    let at = node;
    for (let depth = 0; depth < deepestMember; depth++) {
      if (at.type === "ChainExpression" || at.type === "TSNonNullExpression") at = at.expression;
      else if (at.type === "CallExpression") {
        // A function that gives the object; a call of something below it is none.
        return this.shapes.members.has(calleeName(at.callee) ?? "") ? { path } : undefined;
      } else if (this.shapes.members.has(calleeName(at) ?? "")) return { path };
      else if (at.type === "Identifier") {
        const bound = this.boundIn(this.boundMembers, at.name, at.start);
        return bound && { path: [...bound.path, ...path] };
      } else if (at.type === "MemberExpression") {
        path.unshift(memberName(at));
        at = at.object;
      } else return undefined;
    }
    return undefined;
  }

  /** Reads `texts.cart.title` and `texts["cart"].title`; undefined for members of other objects. */
  readMember(node: MemberExpression, parent: Node | undefined): FoundLookup | undefined {
    if (this.shapes.members.size === 0) return undefined;
    // What every string has is not a key: its length, or a method of every string.
    const own = parent?.type === "CallExpression" && parent.callee === node ? stringMethods : stringMembers;
    const inner = own.has(memberName(node) ?? "") ? node.object : node;
    const found = this.memberPath(inner);
    if (!found || found.path.length === 0 || inner.type !== "MemberExpression") return undefined;
    const { parts } = this.shapes.separators;
    const written = joined(found.path.flatMap((part, index) => (index === 0 ? [part] : [parts, part])));
    const [only] = written;
    const key: LookupKey =
      written.length === 1 && typeof only === "string"
        ? { kind: "fixed", value: only }
        : { kind: "composed", parts: written };
    const { property, computed } = inner;
    const quotes = computed && property.type === "Literal" ? 1 : 0;
    const keySpan = { start: property.start + quotes, end: property.end - quotes };
    const span = { start: inner.start, end: inner.end };
    return {
      lookups: [{ span, keySpan, key, argumentNames: undefined, isMember: true }],
      keyNodes: computed && property.type === "Literal" ? [property] : [],
    };
  }

  /** Whether an expression is a call that asks for a key. */
  isLookup(node: Node): node is CallExpression {
    if (node.type !== "CallExpression") return false;
    const name = calleeName(node.callee);
    return (
      name !== undefined &&
      (this.shapes.calls.has(name) ||
        this.shapes.descriptors.has(name) ||
        this.bindingOf(name, node.start) !== undefined)
    );
  }

  /** Reads `t("key", { … })`. A key chosen by a condition gives a lookup for each of its values. */
  readCall(call: CallExpression): FoundLookup {
    const descriptor = this.shapes.descriptors.get(calleeName(call.callee) ?? "");
    if (descriptor) return readDescriptor(call, descriptor, this.shapes.separators.parts);
    const name = calleeName(call.callee) ?? "";
    const prefix = this.bindingOf(name, call.start)?.prefix ?? [];
    const shape = this.shapes.calls.get(name);
    const place = shape?.key ?? 0;
    const first = call.arguments[place];
    if (!first || first.type === "SpreadElement") return { lookups: [], keyNodes: [] };
    const argumentAt = (place: number | undefined) => {
      const argument = place === undefined ? undefined : call.arguments[place];
      return argument?.type === "SpreadElement" ? undefined : argument;
    };
    // Where a text may stand behind the key, an object in its place has the values.
    const behind = call.arguments[place + 1];
    const inObject = typeof shape?.default === "string" ? shape.default : undefined;
    const defaultText =
      typeof shape?.default === "string"
        ? expressionOf(propertyIn(behind, shape.default))
        : argumentAt(shape?.default);
    const texts = readTexts(defaultText, argumentAt(shape?.note));
    const hasText = shape?.default === place + 1 && behind?.type !== "ObjectExpression";
    const values = hasText ? call.arguments[place + 2] : behind;
    const names = values === undefined ? [] : values.type === "SpreadElement" ? undefined : namesIn(values);
    const argumentNames = names?.filter((name) => name !== inObject);
    return withTexts(
      keyAlternatives(first, { start: call.start, end: call.end }, argumentNames, prefix, texts),
      texts,
    );
  }

  /** Reads ``t`key` ``; undefined where the tag is no lookup, or one whose key is not what it is given first. */
  readTagged({ tag, quasi, start, end }: TaggedTemplateExpression): FoundLookup | undefined {
    const name = calleeName(tag) ?? "";
    const shape = this.shapes.calls.get(name);
    const bound = this.bindingOf(name, start);
    if ((!shape && !bound) || (shape?.key ?? 0) !== 0) return undefined;
    return keyAlternatives(quasi, { start, end }, undefined, bound?.prefix ?? [], { nodes: [] });
  }

  /** Reads `<Message id="key" …>`; undefined where the component's key prop is not there. */
  readComponent({ openingElement: opening, ...element }: JSXElement): FoundLookup | undefined {
    const shape = this.shapes.components.get(elementName(opening.name));
    if (!shape) return undefined;
    const valueOf = (prop: string | undefined) =>
      prop === undefined ? undefined : attributeValue(opening, prop);
    const content = shape.default === contentProp ? onlyText(element) : undefined;
    const texts = readTexts(content ? undefined : valueOf(shape.default), valueOf(shape.note));
    const said = {
      ...texts,
      ...(content && { defaultText: content.text, nodes: [...texts.nodes, ...content.nodes] }),
    };
    const key = attributeValue(opening, shape.key);
    if (!key) return undefined;
    return withTexts(
      keyAlternatives(key, { start: opening.start, end: opening.end }, undefined, [], said),
      said,
    );
  }

  private bindingOf(name: string, offset: number): BoundName | undefined {
    return this.boundIn(this.bound, name, offset);
  }

  private boundIn<Bound extends Pick<BoundName, "name" | "scope">>(
    names: readonly Bound[],
    name: string,
    offset: number,
  ): Bound | undefined {
    return names.findLast((one) => one.name === name && one.scope.start <= offset && offset < one.scope.end);
  }
}

/** Texts are not nested deeper in objects than this. */
const deepestMember = 20;

const stringMembers: ReadonlySet<string> = new Set(["length"]);
const stringMethods: ReadonlySet<string> = new Set(
  Object.getOwnPropertyNames(String.prototype).filter((name) => name !== "constructor"),
);

/** A member's name; null where it is known at run time only. */
function memberName({ property, computed }: MemberExpression): string | null {
  if (!computed) return "name" in property ? property.name : null;
  return property.type === "Literal" && typeof property.value === "string" ? property.value : null;
}

/** Reads a declaration of texts: each is a lookup of its key, with the default text. */
function readDescriptor(call: CallExpression, shape: DescriptorShape, separator: string): FoundLookup {
  const [first] = call.arguments;
  const part = (place: number | string | undefined) =>
    place === undefined
      ? undefined
      : typeof place === "number"
        ? call.arguments[place]
        : propertyIn(first, place);
  if ("key" in shape) {
    const key = expressionOf(part(shape.key));
    if (!key) return { lookups: [], keyNodes: [] };
    const texts = readTexts(expressionOf(part(shape.default)), expressionOf(part(shape.note)));
    // One object alone may be a declaration, whose values come later.
    const values = call.arguments[1];
    const names = values && values.type !== "SpreadElement" ? namesIn(values) : undefined;
    return withTexts(keyAlternatives(key, { start: call.start, end: call.end }, names, [], texts), texts);
  }
  const prefixNode = part(shape.prefix);
  const prefix = prefixNode === undefined ? "" : fixedText(prefixNode);
  const found: { lookups: Lookup[]; keyNodes: Node[] } = { lookups: [], keyNodes: [] };
  if (prefix === undefined) return found;
  if (prefixNode) found.keyNodes.push(prefixNode);
  collectTexts(part(shape.texts), prefix === "" ? [] : [prefix], separator, found);
  return found;
}

/** The texts of an object, and of the objects in it, each as a lookup. */
function collectTexts(
  node: Node | undefined,
  names: readonly string[],
  separator: string,
  found: { readonly lookups: Lookup[]; readonly keyNodes: Node[] },
): void {
  const group = node && bare(node);
  if (group?.type !== "ObjectExpression") return;
  for (const property of group.properties) {
    const name = property.type === "Property" && !property.computed ? propertyName(property.key) : undefined;
    if (name === undefined || property.type !== "Property") continue;
    const { key, value } = property;
    const path = [...names, name];
    const defaultText = fixedText(value);
    if (defaultText === undefined) {
      collectTexts(value, path, separator, found);
      continue;
    }
    const isQuoted = key.type === "Literal";
    found.lookups.push({
      span: { start: property.start, end: property.end },
      keySpan: isQuoted ? { start: key.start + 1, end: key.end - 1 } : { start: key.start, end: key.end },
      key: { kind: "fixed", value: path.join(separator) },
      argumentNames: undefined,
      defaultText,
    });
    found.keyNodes.push(value);
  }
}

function propertyIn(node: Node | undefined, name: string): Node | undefined {
  const group = node && bare(node);
  if (group?.type !== "ObjectExpression") return undefined;
  const found = group.properties.find(
    (property) => property.type === "Property" && !property.computed && propertyName(property.key) === name,
  );
  return found?.type === "Property" ? found.value : undefined;
}

function expressionOf(node: Node | undefined): Expression | undefined {
  return node === undefined || node.type === "SpreadElement" ? undefined : (node as Expression);
}

/** A text that is written out whole: a string, or a template without values. */
function fixedText(node: Node): string | undefined {
  if (node.type === "Literal") return typeof node.value === "string" ? node.value : undefined;
  return node.type === "TemplateLiteral" && node.expressions.length === 0
    ? (node.quasis[0]?.value.cooked ?? undefined)
    : undefined;
}

/** The prop that stands for what is between the tags of an element. */
const contentProp = "children";

/** The text that is all that an element holds, and the nodes that write it; undefined for anything else. */
function onlyText({
  children,
}: Pick<JSXElement, "children">): { readonly text: string; readonly nodes: readonly Node[] } | undefined {
  const [child, other] = children.filter((one) => one.type !== "JSXText" || one.value.trim() !== "");
  if (!child || other) return undefined;
  if (child.type === "JSXText") return { text: jsxTextValue(child.raw ?? child.value), nodes: [child] };
  if (child.type !== "JSXExpressionContainer") return undefined;
  const text = fixedText(child.expression);
  return text === undefined ? undefined : { text, nodes: [child, child.expression] };
}

function bare(node: Node): Node {
  return node.type === "TSAsExpression" || node.type === "TSSatisfiesExpression"
    ? bare(node.expression)
    : node;
}

/** What a lookup says of its text beside the key: the text itself where no catalog has it, and a note for translators. */
interface LookupTexts {
  readonly defaultText?: string;
  readonly note?: string;
  readonly nodes: readonly Node[];
}

function readTexts(fallback: Expression | undefined, note: Expression | undefined): LookupTexts {
  const fixed = (node: Expression | undefined) =>
    node?.type === "Literal" && typeof node.value === "string" ? node.value : undefined;
  const defaultText = fixed(fallback);
  const noteText = fixed(note);
  return {
    ...(defaultText !== undefined && { defaultText }),
    ...(noteText !== undefined && { note: noteText }),
    nodes: [
      ...(fallback && defaultText !== undefined ? [fallback] : []),
      ...(note && noteText !== undefined ? [note] : []),
    ],
  };
}

function withTexts({ lookups, keyNodes }: FoundLookup, { nodes }: LookupTexts): FoundLookup {
  return { lookups, keyNodes: [...keyNodes, ...nodes] };
}

function fixedArgument(
  call: CallExpression,
  place: number | undefined,
  separator: string,
): (string | null)[] {
  const argument = place === undefined ? undefined : call.arguments[place];
  if (!argument) return [];
  return argument.type === "Literal" && typeof argument.value === "string"
    ? [argument.value + separator]
    : [null, separator];
}

function attributeValue(opening: JSXOpeningElement, name: string): Expression | undefined {
  for (const attribute of opening.attributes) {
    if (
      attribute.type !== "JSXAttribute" ||
      attribute.name.type !== "JSXIdentifier" ||
      attribute.name.name !== name
    )
      continue;
    const { value } = attribute;
    const found = value?.type === "JSXExpressionContainer" ? value.expression : value;
    return found && found.type !== "JSXEmptyExpression" ? (found as Expression) : undefined;
  }
  return undefined;
}

function keyAlternatives(
  key: Expression,
  span: Span,
  argumentNames: readonly string[] | undefined,
  prefix: readonly (string | null)[],
  texts: LookupTexts,
): FoundLookup {
  if (key.type === "ConditionalExpression") {
    const parts = [key.consequent, key.alternate].map((part) =>
      keyAlternatives(part, span, argumentNames, prefix, texts),
    );
    return {
      lookups: parts.flatMap((part) => part.lookups),
      keyNodes: parts.flatMap((part) => part.keyNodes),
    };
  }
  const isQuoted = key.type === "Literal" || key.type === "TemplateLiteral";
  const keySpan = isQuoted ? { start: key.start + 1, end: key.end - 1 } : { start: key.start, end: key.end };
  const read = readKey(key, prefix);
  const lookup: Lookup = {
    span,
    keySpan,
    key: read,
    argumentNames,
    ...(texts.defaultText !== undefined && { defaultText: texts.defaultText }),
    ...(texts.note !== undefined && { note: texts.note }),
  };
  return { lookups: [lookup], keyNodes: read.kind === "unknown" ? [] : [key] };
}

function readKey(node: Expression, prefix: readonly (string | null)[]): LookupKey {
  const parts = joined([...prefix, ...keyParts(node)]);
  const [only] = parts;
  if (parts.length === 1 && typeof only === "string") return { kind: "fixed", value: only };
  return parts.some((part) => part !== null && part !== "")
    ? { kind: "composed", parts }
    : { kind: "unknown" };
}

/** The parts of a key put together in code; null for what is known at run time only. Neighbors of a kind are joined. */
function keyParts(node: Expression): (string | null)[] {
  if (node.type === "Literal" && typeof node.value === "string") return [node.value];
  if (node.type === "TSAsExpression" || node.type === "TSNonNullExpression") return keyParts(node.expression);
  if (node.type === "TemplateLiteral") {
    const parts = node.quasis.flatMap((quasi, index) => {
      const expression = node.expressions[index];
      return [quasi.value.cooked ?? "", ...(expression ? keyParts(expression) : [])];
    });
    return joined(parts);
  }
  if (node.type === "BinaryExpression" && isGluing(node))
    return joined([...keyParts(node.left as Expression), ...keyParts(node.right)]);
  return [null];
}

function joined(parts: readonly (string | null)[]): (string | null)[] {
  const result: (string | null)[] = [];
  for (const part of parts) {
    const last = result[result.length - 1];
    if (typeof part === "string" && typeof last === "string") result[result.length - 1] = last + part;
    else if (part !== "" || parts.length === 1) result.push(part);
  }
  return result;
}

function namesIn(node: Expression): readonly string[] | undefined {
  if (node.type !== "ObjectExpression") return undefined;
  const names: string[] = [];
  for (const property of node.properties) {
    const name = property.type === "Property" && !property.computed ? propertyName(property.key) : undefined;
    if (name === undefined) return undefined;
    names.push(name);
  }
  return names;
}
