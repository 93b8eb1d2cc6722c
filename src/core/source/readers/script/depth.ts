/** What the parser can nest before its own stack ends, which would end the process; with room to spare on threads. */
const deepestGroups = 1_000;
/** The same for expressions that nest without brackets: `a ? b : c ? d : …`, `a => b => …`, `a = b = …`. */
const longestChain = 3_000;
/** From how many characters on a string may be none. */
const longString = 500;

/**
 * Whether a script nests deeper than its parser can follow. Strings and comments do not count; where a quote may be part of
 * a pattern or an apostrophe, everything is counted as well, and one view that is too deep is enough.
 */
export function nestsTooDeep(text: string): boolean {
  if (!mayNest(text)) return false;
  const seen = viewOf(text, true);
  return seen.isTooDeep || (seen.isDoubtful && viewOf(text, false).isTooDeep);
}

/** Whether a script has enough of what nests at all: nearly none has, and this is quickly seen. */
function mayNest(text: string): boolean {
  if (text.length < deepestGroups) return false;
  let opening = 0;
  let chaining = 0;
  for (let at = 0; at < text.length; at++) {
    const unit = text.charCodeAt(at);
    if (unit === 0x28 || unit === 0x5b || unit === 0x7b || unit === 0x3c) opening++;
    else if (unit === 0x3a || unit === 0x3d || unit === 0x3f) chaining++;
  }
  return (
    opening > deepestGroups ||
    chaining > longestChain ||
    (text.match(/\b(?:new|else|await|typeof|void)\b/g)?.length ?? 0) > longestChain
  );
}

function viewOf(
  text: string,
  skipsStrings: boolean,
): { readonly isTooDeep: boolean; readonly isDoubtful: boolean } {
  let groups = 0;
  let tags = 0;
  let chain = 0;
  let isDoubtful = false;
  /** The last character that is no white space. */
  let before = 0;
  for (let at = 0; at < text.length; at++) {
    const unit = text.charCodeAt(at);
    if (unit <= 0x20) continue;
    const next = text.charCodeAt(at + 1);
    if (skipsStrings) {
      const isQuote = unit === 0x22 || unit === 0x27;
      // Behind a slash, a backslash or a letter a quote is hardly the start of a string.
      if (isQuote && (before === 0x2f || before === 0x5c || isLetter(before))) isDoubtful = true;
      const end = skippedTo(text, at, unit, next);
      if (end > at) {
        // What looks like a long string may be all that stands between two quotes of patterns.
        if (isQuote && end - at > longString) isDoubtful = true;
        at = end;
        before = unit;
        continue;
      }
    }
    switch (unit) {
      case 0x28: // (
      case 0x5b: // [
      case 0x7b: // {
        groups++;
        break;
      case 0x29:
      case 0x5d:
      case 0x7d:
        if (groups > 0) groups--;
        break;
      case 0x3c: // <: a tag or type arguments
        if (next === 0x2f) tags -= tags > 0 ? 1 : 0;
        // `a<?b<?c…`: each of these types takes several calls of the parser.
        else if (next === 0x3f) chain += 3;
        else if (next === 0x3e || isLetter(next)) {
          if (isLetter(before)) chain++;
          else tags++;
        }
        break;
      case 0x2f: // />
        if (next === 0x3e && tags > 0) tags--;
        break;
      case 0x3b: // ;
      case 0x2c: // ,
        chain = 0;
        break;
      case 0x3f: // ?
      case 0x3d: // =
      case 0x3a: // :
        chain++;
        break;
      default:
        // `new new new …`, `else if … else if …`, unary words.
        if (
          isLetter(unit) &&
          !isLetter(text.charCodeAt(at - 1)) &&
          /^(?:new|else|await|typeof|void)\b/.test(text.slice(at, at + 8))
        )
          chain++;
    }
    if (groups + tags > deepestGroups || chain > longestChain) return { isTooDeep: true, isDoubtful };
    before = unit;
  }
  return { isTooDeep: false, isDoubtful };
}

/** The end of a string or comment that starts at a place; the place itself where none does. */
function skippedTo(text: string, at: number, unit: number, next: number): number {
  if (unit === 0x2f && (next === 0x2f || next === 0x2a)) {
    const end = next === 0x2f ? text.indexOf("\n", at) : text.indexOf("*/", at + 2);
    return end < 0 ? text.length : end + (next === 0x2f ? 0 : 1);
  }
  if (unit !== 0x22 && unit !== 0x27) return at;
  for (let end = at + 1; end < text.length; end++) {
    const one = text.charCodeAt(end);
    if (one === unit) return end;
    if (one === 0x5c) end++;
    // A quote that its line does not end is an apostrophe in text, or part of a pattern.
    else if (one === 0x0a) return at;
  }
  return at;
}

function isLetter(unit: number): boolean {
  return (unit >= 0x61 && unit <= 0x7a) || (unit >= 0x41 && unit <= 0x5a) || unit === 0x5f || unit === 0x24;
}
