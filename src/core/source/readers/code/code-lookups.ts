import { delimitedParts } from "../../../text/delimited.js";
import { boundKeyIn } from "../../bound-key.js";
import { isFilledAround } from "../../filled-around.js";
import type { LookupKey } from "../../model.js";
import type { CodeTexts } from "./code-texts.js";
import { bareNode, namedChildren, type CodeNode } from "./tree.js";

/** Reads a call that looks up a text; false where it is none. */
export function readLookup(texts: CodeTexts, node: CodeNode): boolean {
  const callee = texts.nodes.calleeOf(node);
  const given = texts.nodes.argumentsOf(node);
  const short = callee.split(/[.:>]+/).pop() ?? callee;
  const shape =
    texts.shapes.calls.get(callee) ??
    (texts.shapes.calls.has(short) && callee.replace(/^(?:\$?this|self|view|helpers)[.>:-]+/, "") === short
      ? texts.shapes.calls.get(short)
      : undefined);
  const place = shape?.key ?? 0;
  const first = given[place];
  if (!shape || !first) return false;
  const key = scopedKey(texts, texts.wording.keyOf(first), node, first);
  const inner = texts.nodes.innerSpan(first);
  const { lookupOptions } = texts.nodes.spoken;
  const all = given.slice(place + 1).flatMap((argument) => argumentNames(texts, argument));
  const names = all.filter((name) => name === undefined || !lookupOptions?.test(name));
  const filled = names.length === 0 ? filledBehind(texts, node) : undefined;
  const fallback = typeof shape.default === "number" ? given[shape.default] : undefined;
  const said = shape.note === undefined ? undefined : given[shape.note];
  texts.lookups.push({
    span: { start: node.start, end: node.end },
    keySpan: inner,
    key,
    argumentNames:
      filled ??
      (names.includes(undefined) || isFilledAround(texts.nodes.text, node.start, node.end)
        ? undefined
        : (names as string[])),
    ...(lookupOptions?.test("default") && all.includes("default") && { hasDefault: true }),
    ...(fallback &&
      texts.nodes.spec.strings.includes(fallback.type) && { defaultText: texts.nodes.plainText(fallback) }),
    ...(said && texts.nodes.spec.strings.includes(said.type) && { note: texts.nodes.plainText(said) }),
  });
  if (key.kind !== "unknown") texts.consume(first);
  if (fallback) texts.consume(fallback);
  if (said) texts.consume(said);
  if (key.kind === "fixed") texts.mentions.add(key.value);
  return true;
}

/** `$texts["cart"]["title"]` of an object of texts: of a chain, the whole of it. */
export function readMember(texts: CodeTexts, node: CodeNode): void {
  const { subscripts, strings } = texts.nodes.spec;
  const parent = texts.around.ancestors.at(-1);
  if (texts.shapes.members.size === 0 || (parent && subscripts.includes(parent.type))) return;
  const path: CodeNode[] = [];
  let at: CodeNode | undefined = node;
  while (at && subscripts.includes(at.type)) {
    const [object, index]: readonly (CodeNode | undefined)[] = namedChildren(at);
    if (!index) return;
    path.unshift(bareNode(index));
    at = object;
  }
  const last = path.at(-1);
  if (!at || !last || !texts.shapes.members.has(texts.nodes.textOf(at).replace(/^[$@]+|\([^()]*\)$/g, "")))
    return;
  const parts = path.map((one) => (strings.includes(one.type) ? texts.nodes.plainText(one) : null));
  const { parts: separator } = texts.shapes.separators;
  if (parts.every((part) => part === null)) return;
  const key: LookupKey = parts.includes(null)
    ? {
        kind: "composed",
        parts: parts.flatMap((part, index) => (index === 0 ? [part] : [separator, part])),
      }
    : { kind: "fixed", value: parts.join(separator) };
  const span = { start: node.start, end: node.end };
  texts.lookups.push({
    span,
    keySpan: texts.nodes.innerSpan(last),
    key,
    argumentNames: undefined,
    isMember: true,
  });
  for (const one of path) if (strings.includes(one.type)) texts.consume(one);
}

/** The string of an annotation that names a key and nothing else: `message = "{order.customer}"`. */
export function readBoundKey(texts: CodeTexts, node: CodeNode): boolean {
  if (texts.shapes.bindings.length === 0 || !texts.around.isInAnnotation()) return false;
  const inner = texts.nodes.innerSpan(node);
  const raw = texts.nodes.text.slice(inner.start, inner.end);
  const bound = boundKeyIn(raw, texts.shapes.bindings, true);
  if (!bound) return false;
  const { key } = bound;
  const start = inner.start + bound.start;
  texts.lookups.push({
    span: { start: node.start, end: node.end },
    keySpan: { start, end: start + key.length },
    key: { kind: "fixed", value: key },
    // What checks a value fills its own numbers in.
    argumentNames: undefined,
  });
  texts.mentions.add(key);
  texts.consume(node);
  return true;
}

/** The names that a method of what a lookup gives fills it with: `say("boat.late").format(boat=name)`; undefined for none, or where code cannot tell. */
function filledBehind(texts: CodeTexts, lookup: CodeNode): readonly string[] | undefined {
  const [call, member] = texts.around.ancestors.slice(-2);
  if (!call || !member || !texts.nodes.spec.calls.includes(call.type)) return undefined;
  const method = /^\s*\.\s*(\w+)$/.exec(texts.nodes.text.slice(lookup.end, member.end))?.[1];
  if (method === undefined || texts.nodes.spec.formats[method] !== -1) return undefined;
  const given = texts.nodes.argumentsOf(call);
  if (given.some(({ type }) => /splat/.test(type))) return undefined;
  return given.flatMap((argument) =>
    texts.nodes.spec.pairs.includes(argument.type) ? (texts.nodes.pairName(argument) ?? []) : [],
  );
}

/** A key behind what the call's other arguments put before it. */
function scopedKey(texts: CodeTexts, key: LookupKey, call: CodeNode, first: CodeNode): LookupKey {
  const { parts: separator } = texts.shapes.separators;
  if (key.kind === "unknown" || (key.kind === "fixed" && key.value.startsWith(separator))) return key;
  const scope =
    texts.nodes.spoken.keyScope?.(texts.nodes.text.slice(first.end, Math.min(call.end, first.end + 2_000))) ??
    [];
  if (scope.length === 0) return key;
  const own = key.kind === "fixed" ? [key.value] : key.parts;
  const parts = [...scope.flatMap((part) => [part, separator]), ...own];
  return parts.includes(null) ? { kind: "composed", parts } : { kind: "fixed", value: parts.join("") };
}

/** The names that an argument passes: of keywords and hashes; undefined in the list where code cannot tell. */
function argumentNames(texts: CodeTexts, node: CodeNode): (string | undefined)[] {
  const inner = node.type === "argument" ? (namedChildren(node)[0] ?? node) : node;
  if (texts.nodes.spec.pairs.includes(inner.type)) return [texts.nodes.pairName(inner)];
  if (/^(hash|dictionary|array_creation_expression)$/.test(inner.type))
    return namedChildren(inner).flatMap((child) =>
      texts.nodes.spec.pairs.includes(child.type) ? [texts.nodes.pairName(child)] : [undefined],
    );
  const written = texts.nodes.textOf(inner);
  // Maps as Java makes them: of names and values in turn, or by putting each.
  const pairs =
    /^(?:java\.util\.)?(?:Map\.of|Collections\.singletonMap)\(|^new (?:java\.util\.)?HashMap<[^<>]*>\(\)\s*\{\{/.exec(
      written,
    );
  if (pairs) {
    if (/HashMap/.test(pairs[0])) return [...written.matchAll(/\bput\(\s*"(\w+)"/g)].map(([, name]) => name);
    const given = texts.nodes.argumentsOf(inner);
    return given
      .filter((_, at) => at % 2 === 0)
      .map((name) =>
        texts.nodes.spec.strings.includes(name.type) ? texts.nodes.plainText(name) : undefined,
      );
  }
  // An object without a class: `new { n, name = boat.Name, boat.Port }`, named by its members where nothing else is said.
  if (inner.type === "anonymous_object_creation_expression")
    return delimitedParts(written.replace(/^new\s*\{|\}$/g, "")).map(
      (member) =>
        /^\s*(\w+)\s*=(?!=)/.exec(member)?.[1] ?? /^\s*(?:\w+\s*\??\.\s*)*(\w+)\s*$/.exec(member)?.[1],
    );
  if (inner.type === "composite_literal")
    return [...written.matchAll(/[{,]\s*"(\w+)"\s*:/g)].map(([, name]) => name);
  // What a call or a new object holds is not seen here.
  if (texts.nodes.spec.calls.includes(inner.type)) return [undefined];
  if (
    // A value by itself may be the number that a plural counts.
    /splat|spread|variadic|member|attribute|subscript|selector|field_access/.test(inner.type) ||
    /^(?:identifier|variable_name|(?:instance|class|global)_variable)$/.test(inner.type) ||
    // What a function of the project's own does with a string behind the key only that function says.
    texts.nodes.spec.strings.includes(inner.type)
  )
    return [undefined];
  return [];
}
