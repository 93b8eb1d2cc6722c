/** So far from a place its brackets are looked for, in code units. */
const farthest = 4_000;

/** Where the bracket around a place closes; the end of the code where none does near it. Signs in strings count. */
export function closeOf(code: string, from: number): number {
  const most = Math.min(code.length, from + farthest);
  let depth = 0;
  for (let at = from; at < most; at++) {
    const unit = code[at] ?? "";
    if (/[([{]/.test(unit)) depth++;
    else if (/[)\]}]/.test(unit) && depth-- === 0) return at;
  }
  return code.length;
}

/** The brackets that are open at a place, innermost first, as many as are wanted. */
export function bracketsAround(
  code: string,
  from: number,
  wanted: number,
): readonly { readonly sign: string; readonly at: number }[] {
  const found: { sign: string; at: number }[] = [];
  let depth = 0;
  for (let at = from - 1; at >= Math.max(from - farthest, 0) && found.length < wanted; at--) {
    const unit = code[at] ?? "";
    if (/[)\]}]/.test(unit)) depth++;
    else if (/[([{]/.test(unit) && depth-- <= 0) {
      depth = 0;
      found.push({ sign: unit, at });
    }
  }
  return found;
}
