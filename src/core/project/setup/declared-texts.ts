import { lookupByName } from "../../survey/calls.js";
import { judgeLiteral } from "../../survey/survey.js";
import { readableText, type Literal, type SourceFile } from "../../source/model.js";
import { countHit, most, newUse, type LookupUse } from "./lookup-use.js";

/** A key as code writes one: words parted by marks. */
export const keyLike = /^[A-Za-z][\w-]*(?:[.:/][\w-]+)+$/;
/** A text for people: a capital, or several words. */
export const textLike = /^\p{Lu}|\p{L}\s+\p{L}/u;

/** What the property of a declaration that holds its key is called. */
const keyProperty =
  /^(?:id|key|code|name|token|path|ref)$|[a-z](?:Id|Key|Code|Name|Token)$|_(?:id|key|code|name|token)$/;

/** The first text of an object behind a key stands no further away from it. */
const farthestDefault = 120;

/** Fewer texts with a key beside them are chance. */
const leastDeclared = 2;

/** Calls that bring their texts along, `say("home.title", "All crossings")`, and declarations, `text({ id: "home.title", text: "All crossings" })`. */
export function declaredLookups(code: readonly SourceFile[]): LookupUse[] {
  const uses = new Map<string, LookupUse>();
  const others = new Map<string, number>();
  const wordy = new Map<string, number>();
  const notes = new Map<string, Map<string, number>>();
  for (const source of code)
    for (const [place, literal] of source.literals.entries()) {
      const key = readableText(literal.pieces);
      const found = declarationAt(source, place, literal) ?? elementAt(source, place, literal);
      if (!found) continue;
      if (!keyLike.test(key)) {
        others.set(found.id, (others.get(found.id) ?? 0) + 1);
        continue;
      }
      const use = uses.get(found.id) ?? newUse(found.lookup, found.shown);
      uses.set(found.id, use);
      countHit(use, source, literal);
      if (found.isWordy) wordy.set(found.id, (wordy.get(found.id) ?? 0) + 1);
      const note = noteBeside(source, place);
      const counts = notes.get(found.id) ?? new Map<string, number>();
      notes.set(found.id, counts);
      if (note !== undefined) counts.set(note, (counts.get(note) ?? 0) + 1);
    }
  return (
    [...uses]
      .filter(([id, { hits }]) => hits >= leastDeclared && hits > (others.get(id) ?? 0))
      // Names of a program's states have a capital as well; texts are more than a word, now and then.
      .filter(([id, { hits }]) => (wordy.get(id) ?? 0) * 5 >= hits)
      .map(([id, use]) => withNote(use, notes.get(id) ?? new Map()))
      .sort((a, b) => b.hits - a.hits)
  );
}

/** A lookup with what says of its text what it is, for translators, where more than one of its calls has it. */
function withNote(use: LookupUse, notes: ReadonlyMap<string, number>): LookupUse {
  const note = most(notes);
  const { lookup } = use;
  const takesNotes = "component" in lookup || ("descriptor" in lookup && "key" in lookup);
  return takesNotes && note !== undefined && (notes.get(note) ?? 0) > 1 && note !== lookup.default
    ? { ...use, lookup: { ...lookup, note } }
    : use;
}

/** What a prop or property that tells translators about a text is called. */
const noteProperty = /^(?:notes?|about|comments?|context|desc|description|hint)$/i;

/** The property or prop beside a key that tells about its text; undefined where none does. */
export function noteBeside({ literals }: SourceFile, place: number): string | undefined {
  const key = literals[place];
  return literals.slice(Math.max(place - 3, 0), place + 4).flatMap((other) => {
    const { role, name, element, properties = [] } = other.context;
    const isThere =
      key !== undefined &&
      other !== key &&
      role === key.context.role &&
      element === key.context.element &&
      name !== key.context.name &&
      (role !== "property" || properties.length === 1) &&
      Math.abs(other.span.start - key.span.start) <= 600;
    return isThere && name !== undefined && noteProperty.test(name) ? [name] : [];
  })[0];
}

/** An element with a key that holds its text: `<Say id="home.title">All crossings</Say>`. */
function elementAt({ literals, text }: SourceFile, place: number, { context, span }: Literal) {
  const { role, name, element } = context;
  if (role !== "attribute" || name === undefined || element === undefined) return undefined;
  if (!/^[A-Z]/.test(element) || !keyProperty.test(name)) return undefined;
  const content = literals.slice(place + 1, place + 5).find((one) => one.context.role !== "attribute");
  if (content?.context.element !== element) return undefined;
  // The tag of the key is the one that opens right before the text.
  const between = text.slice(span.end, content.span.start);
  if (between.length > longestCall || !/>\s*(?:\{\s*)?$/.test(between) || between.includes("<"))
    return undefined;
  const written = readableText(content.pieces);
  if (!textLike.test(written)) return undefined;
  return {
    id: `component ${element} ${name}`,
    lookup: { component: element, key: name, default: "children" },
    shown: `<${element} ${name}=KEY>TEXT</${element}>`,
    isWordy: /\p{L}\s+\p{L}/u.test(written),
  };
}

/** What the property of an object that has default text among a message's values is called. */
const defaultProperty = /^(?:_|default(?:[_-]?(?:value|text|message|string))?|fallback(?:[_-]?text)?)$/i;

/**
 * The argument of a call that holds default texts, where keys of a book are given to it, or the property of the object behind the
 * key; undefined where none is.
 */
export function defaultPlace({ samples }: LookupUse): number | string | undefined {
  const inObject = new Map<string, number>();
  for (const { source, literal } of samples) {
    const next = source.literals[source.literals.indexOf(literal) + 1];
    const { role, name = "", element, properties } = next?.context ?? {};
    if (!next || role !== "property" || properties?.length !== 1 || element !== literal.context.name)
      continue;
    if (next.span.start - literal.span.end > farthestDefault || !defaultProperty.test(name)) continue;
    if (textLike.test(readableText(next.pieces))) inObject.set(name, (inObject.get(name) ?? 0) + 1);
  }
  const property = most(inObject);
  if (property !== undefined) return property;
  const withText = samples.filter(({ source, literal }) => {
    const next = source.literals[source.literals.indexOf(literal) + 1];
    return next !== undefined && isBeside(literal, next) && textLike.test(readableText(next.pieces));
  });
  return withText.length * 2 > samples.length ? 1 : undefined;
}

/** The texts that stand behind the keys of declarations. */
export function textsBeside({ samples }: LookupUse): readonly string[] {
  return samples.flatMap(({ source: { literals }, literal }) => {
    const next = literals[literals.indexOf(literal) + 1];
    return next ? [readableText(next.pieces)] : [];
  });
}

function declarationAt(source: SourceFile, place: number, literal: Literal) {
  const { role, name, element, index = 0, properties = [] } = literal.context;
  const next = source.literals[place + 1];
  if (!next || name === undefined || !textLike.test(readableText(next.pieces))) return undefined;
  if (isOfChain(element ?? name) || !isText(next, source, place + 1)) return undefined;
  const isWordy = /\p{L}\s+\p{L}/u.test(readableText(next.pieces));
  if (role === "argument" && index === 0 && isBeside(literal, next))
    return { id: `call ${name}`, lookup: { call: name, default: 1 }, shown: `${name}(KEY, TEXT)`, isWordy };
  const own = next.context;
  const isPair =
    role === "property" &&
    own.role === "property" &&
    element !== undefined &&
    own.element === element &&
    own.name !== undefined &&
    properties.length === 1 &&
    own.properties?.length === 1 &&
    keyProperty.test(name) &&
    next.span.start - literal.span.end < 80 &&
    isDeclared(source, literal);
  if (!isPair) return undefined;
  return {
    id: `descriptor ${element} ${name}`,
    lookup: { descriptor: element, key: name, default: own.name ?? "" },
    shown: `${element}({ ${name}: KEY, ${own.name ?? ""}: TEXT })`,
    isWordy,
  };
}

/** Whether a name has more parts than that of a lookup: calls of calls, as queries are put together. */
function isOfChain(name: string): boolean {
  return name.split(/[.:>]+/).length > 3;
}

/** Whether nothing says that a string is for the program, but perhaps the call that it is given to. */
function isText(literal: Literal, { literals }: SourceFile, index: number): boolean {
  return (
    lookupByName.test(literal.context.name ?? "") ||
    judgeLiteral(literal, undefined, { literals, index }).verdict !== "code"
  );
}

/** So far before one of its strings the call that a declaration is given to begins at most, in code units. */
const longestCall = 400;

/**
 * Whether an object is all that a call is given before it, and the call gives something back: a method that stands as a statement
 * takes note of what it is given.
 */
function isDeclared({ text }: SourceFile, { context: { element = "" }, span }: Literal): boolean {
  const before = text.slice(Math.max(span.start - longestCall, 0), span.start);
  const at = before.lastIndexOf(`${element}(`);
  if (at < 0 || !/^\s*\{/.test(before.slice(at + element.length + 1))) return false;
  return !element.includes(".") || !/(?:^|[;{}])\s*(?:(?:this|self)\.)?$/.test(before.slice(0, at));
}

/** Whether a string is the argument right behind another. */
export function isBeside({ context, span }: Literal, next: Literal): boolean {
  const { role, name, index } = next.context;
  return (
    role === "argument" &&
    name === context.name &&
    index === (context.index ?? 0) + 1 &&
    next.span.start - span.end < 80
  );
}
