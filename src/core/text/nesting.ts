/** Groups nested deeper than this are not what people write: readers go down by recursion, and say so instead. */
export const deepestNesting = 200;

/**
 * The place where brackets and braces nest deeper than `deepestNesting` in a text of JSON, with or without comments;
 * undefined where they do not. Brackets in texts between double quotes do not count.
 */
export function tooDeepInJson(text: string): number | undefined {
  let depth = 0;
  for (let at = 0; at < text.length; at++) {
    const unit = text.charCodeAt(at);
    if (unit === 0x22) {
      at++;
      while (at < text.length && text.charCodeAt(at) !== 0x22) at += text.charCodeAt(at) === 0x5c ? 2 : 1;
    } else if (unit === 0x7b || unit === 0x5b) {
      if (++depth > deepestNesting) return at;
    } else if (unit === 0x7d || unit === 0x5d) depth--;
  }
  return undefined;
}

/**
 * The place where flow collections or dashes on one line of YAML nest deeper than `deepestNesting`, or lines are indented
 * deeper than so many groups need; brackets in texts count only within a line.
 */
export function tooDeepInYaml(text: string): number | undefined {
  let depth = 0;
  const indents: number[] = [];
  for (let at = 0; at < text.length; at++) {
    const unit = text.charCodeAt(at);
    if (
      unit === 0x5b ||
      unit === 0x7b ||
      ((unit === 0x2d || unit === 0x3f) && text.charCodeAt(at + 1) === 0x20)
    ) {
      if (++depth > deepestNesting) return at;
    } else if (unit === 0x5d || unit === 0x7d) depth = Math.max(depth - 1, 0);
    else if (unit === 0x0a) {
      if (!/[[{,:]\s*$/.test(text.slice(Math.max(at - 20, 0), at))) depth = 0;
      let indent = 0;
      while (text.charCodeAt(at + 1 + indent) === 0x20) indent++;
      while (indents.length > 0 && (indents.at(-1) ?? 0) >= indent) indents.pop();
      if (indent > 0) indents.push(indent);
      if (indents.length > deepestNesting) return at + 1;
    }
  }
  return undefined;
}
