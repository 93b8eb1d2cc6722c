/** What the bytes 0x80 to 0x9F are in Windows-1252, which programs take UTF-8 for most. */
const windows1252 = "€\u0081‚ƒ„…†‡ˆ‰Š‹Œ\u008dŽ\u008f\u0090‘’“”•–—˜™š›œ\u009džŸ";

/** The text that was meant where UTF-8 was taken for Windows-1252 or ISO-8859-1; undefined where it was not. */
export function decodedAgain(text: string): string | undefined {
  if (!/[\u00c2-\u00f4][\u0080-\u00bf€-™Š-žŸƒˆ˜–-•‚-…‡†‰‹›]/u.test(text)) return undefined;
  const bytes: number[] = [];
  for (const unit of text) {
    const code = unit.codePointAt(0) ?? 0;
    const high = code > 0xff ? windows1252.indexOf(unit) : -1;
    if (code <= 0xff) bytes.push(code);
    else if (high >= 0) bytes.push(0x80 + high);
    else return undefined;
  }
  try {
    const meant = new TextDecoder("utf-8", { fatal: true }).decode(Uint8Array.from(bytes));
    return meant === text ? undefined : meant;
  } catch {
    return undefined;
  }
}
