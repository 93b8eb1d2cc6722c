/** So much of the code before and behind a call is looked at, in code units. */
const near = 160;

/** Calls that fill a text that they are given: `sprintf(…, name)`, `String.format(…, name)`. */
const filler = /(?:printf|[fF]ormat\w{0,20})\s?\(\s{0,40}$/;

/** What fills the text that a call gives: `… % name`, `….format(name)`, `….replace("%s", name)`. */
const filling =
  /^[\s)]{0,80}(?:%\s{0,9}[\w([{"'*]|(?:\.|->|&\.)\s{0,9}(?:format\w{0,20}|replace\w{0,20}|g?sub!?|tr)\s?\()/;

/** What the text of a lookup is given to: `label = say("boat.late")`. */
const givenTo = /(?:^|[\s({,;])(\$?[A-Za-z_]\w{0,60})\s{0,9}=\s{0,9}$/;

/** So much behind a call is looked at for what fills its text under the name that it is given, in code units. */
const far = 2_000;

/** Whether code behind a lookup fills the text that it gives, under the name that it has there. */
function isFilledLater(text: string, start: number, end: number): boolean {
  const name = givenTo.exec(text.slice(Math.max(start - 80, 0), start))?.[1];
  if (name === undefined) return false;
  const own = `(?<![\\w$.])${name.replace("$", "\\$")}`;
  return new RegExp(
    `${own}\\s?(?:\\.|->|&\\.)\\s?(?:format\\w{0,20}|replace\\w{0,20}|g?sub!?)\\s?\\(|(?:[rR]eplace|printf|[fF]ormat|strtr)\\w{0,20}\\([^;\\n]{0,200}${own}(?!\\w)`,
  ).test(text.slice(end, end + far));
}

/** Whether the code around a lookup fills the text that it gives, so that it need not pass the values itself. */
export function isFilledAround(text: string, start: number, end: number): boolean {
  return (
    filling.test(text.slice(end, end + near)) ||
    filler.test(text.slice(Math.max(start - near, 0), start)) ||
    isFilledLater(text, start, end)
  );
}
