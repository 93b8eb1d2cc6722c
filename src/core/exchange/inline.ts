/** What a unit's text is made of: words, and codes that stand for what a translator moves and never writes. */
export type Inline = TextInline | CodeInline | PairInline;

export interface TextInline {
  readonly kind: "text";
  readonly value: string;
}

/** Something that stands alone: a value that is filled in, an element without content. */
export interface CodeInline {
  readonly kind: "code";
  /** Which code it is, the same in source and translation; letters, digits, `_`, `-`, `.`. */
  readonly id: string;
}

/** An element around some of the text. */
export interface PairInline {
  readonly kind: "pair";
  readonly id: string;
  readonly children: readonly Inline[];
}

/** How codes look to people, by their ids. */
export interface ShownCode {
  /** As the message writes it; of an element its opening tag. */
  readonly open: string;
  /** The closing tag of an element that has content. */
  readonly close?: string;
}

/** The words of a text, without its codes. */
export function wordsOf(inlines: readonly Inline[]): string {
  return inlines
    .map((one) => (one.kind === "text" ? one.value : one.kind === "pair" ? wordsOf(one.children) : ""))
    .join("");
}

/** The ids of all codes in a text, in their order, with repeats. */
export function codesIn(inlines: readonly Inline[]): readonly string[] {
  return inlines.flatMap((one) =>
    one.kind === "text" ? [] : one.kind === "code" ? [one.id] : [one.id, ...codesIn(one.children)],
  );
}

/** Texts beside each other as one, and empty ones gone. */
export function joinInlines(inlines: readonly Inline[]): readonly Inline[] {
  const joined: Inline[] = [];
  for (const one of inlines) {
    const last = joined.at(-1);
    if (one.kind === "text" && last?.kind === "text")
      joined[joined.length - 1] = { kind: "text", value: last.value + one.value };
    else if (one.kind === "pair") joined.push({ ...one, children: joinInlines(one.children) });
    else if (one.kind === "code" || one.value !== "") joined.push(one);
  }
  return joined;
}

/** Whether two texts are the same, words and codes. */
export function sameInlines(one: readonly Inline[], other: readonly Inline[]): boolean {
  return JSON.stringify(joinInlines(one)) === JSON.stringify(joinInlines(other));
}

/** A text as cells of a table have it, `{name}` and `<link>…</link>` for codes; braces and angles of its own stand behind a backslash. */
export function inlineText(inlines: readonly Inline[]): string {
  return inlines
    .map((one) => {
      if (one.kind === "text") return one.value.replace(/[\\{}<>]/g, "\\$&");
      return one.kind === "code" ? `{${one.id}}` : `<${one.id}>${inlineText(one.children)}</${one.id}>`;
    })
    .join("");
}

/** The text that `inlineText` wrote; undefined where a code is torn. Elements must be closed, each in the one around it. */
export function readInlineText(text: string): readonly Inline[] | undefined {
  const stack: { readonly id: string; readonly inlines: Inline[] }[] = [{ id: "", inlines: [] }];
  const part = /\\([\\{}<>])|\{([\w.-]{1,200})\}|<(\/?)([\w.-]{1,200})>|[{}<>]/g;
  let at = 0;
  const say = (value: string) => stack.at(-1)?.inlines.push({ kind: "text", value });
  for (const match of text.matchAll(part)) {
    say(text.slice(at, match.index));
    at = match.index + match[0].length;
    const [, escaped, code, closing, element] = match;
    if (escaped !== undefined) say(escaped);
    else if (code !== undefined) stack.at(-1)?.inlines.push({ kind: "code", id: code });
    else if (element === undefined) return undefined;
    else if (closing === "") stack.push({ id: element, inlines: [] });
    else {
      const open = stack.pop();
      if (!open || open.id !== element || stack.length === 0) return undefined;
      stack.at(-1)?.inlines.push({ kind: "pair", id: element, children: joinInlines(open.inlines) });
    }
  }
  say(text.slice(at));
  const [whole] = stack;
  return stack.length === 1 && whole ? joinInlines(whole.inlines) : undefined;
}
