/** An element whose content is no markup (HTML, section 13.1.2: raw text elements). */
export interface RawElement {
  readonly name: string;
  readonly attributes: string;
  readonly start: number;
  readonly end: number;
  readonly contentStart: number;
  readonly contentEnd: number;
}

/** The `script` and `style` elements of a page, in order. */
export function* rawElements(text: string): Generator<RawElement> {
  const opening = /<(script|style)\b/gi;
  // A name whose end is nowhere behind one place has none behind a later place either.
  const unended = new Set<string>();
  for (let match = opening.exec(text); match; match = opening.exec(text)) {
    const name = (match[1] ?? "").toLowerCase();
    if (unended.has(name)) continue;
    const tagEnd = text.indexOf(">", opening.lastIndex);
    if (tagEnd < 0) return;
    const closing = new RegExp(`</${name}\\s*>`, "gi");
    closing.lastIndex = tagEnd + 1;
    const close = closing.exec(text);
    if (!close) {
      unended.add(name);
      continue;
    }
    const end = close.index + close[0].length;
    yield {
      name,
      attributes: text.slice(opening.lastIndex, tagEnd),
      start: match.index,
      end,
      contentStart: tagEnd + 1,
      contentEnd: close.index,
    };
    opening.lastIndex = end;
  }
}
