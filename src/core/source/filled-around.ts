/** So much of the code before and behind a call is looked at, in code units. */
const near = 160;

/** Calls that fill a text that they are given: `sprintf(…, name)`, `String.format(…, name)`. */
const filler = /(?:printf|[fF]ormat\w{0,20})\s?\(\s{0,40}$/;

/** What fills the text that a call gives: `… % name`, `….format(name)`, `….replace("%s", name)`. */
const filling =
  /^[\s)]{0,80}(?:%\s{0,9}[\w([{"'*]|(?:\.|->|&\.)\s{0,9}(?:format\w{0,20}|replace\w{0,20}|g?sub!?|tr)\s?\()/;

/** Whether the code around a lookup fills the text that it gives, so that it need not pass the values itself. */
export function isFilledAround(text: string, start: number, end: number): boolean {
  return (
    filling.test(text.slice(end, end + near)) || filler.test(text.slice(Math.max(start - near, 0), start))
  );
}
