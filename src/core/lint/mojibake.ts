import { scriptOf } from "../locale/script.js";
/** What the bytes 0x80 to 0x9F are in Windows-1252, which programs take UTF-8 for most. */
const windows1252 = "€\u0081‚ƒ„…†‡ˆ‰Š‹Œ\u008dŽ\u008f\u0090‘’“”•–—˜™š›œ\u009džŸ";

/** Letters and punctuation so frequent that one of them, decoded twice, is proof enough. */
const frequent = new Set(
  "äöüÄÖÜßéèêëàâáãçñóòôõíìîïúùûýÿøåæœÉÈÀÇÑÓØÅÆąćęłńśźżĄĆĘŁŃŚŹŻřšžčěůťďňŘŠŽČğışİŞșțăőűŐŰ’‘“”„–—…«»€·•°§©®™¿¡º\u00a0",
);

/** Punctuation and symbols that any language may have. */
const shared =
  /[\u0000-\u007f\u00a0-\u00bf\u00d7\u00f7\u2010-\u206f\u20a0-\u20bf\u2100-\u214f\u2190-\u22ff]/u;

/**
 * The text that was meant where UTF-8 was taken for Windows-1252 or ISO-8859-1; undefined where that is not proved. Proof
 * is that the whole text decodes, that what comes out are letters of the locale's script, and that it is a frequent letter
 * or more than one.
 */
export function decodedAgain(text: string, locale: string): string | undefined {
  if (!/[\u00c2-\u00f4][\u0080-\u00bf€-™Š-žŸƒˆ˜–-•‚-…‡†‰‹›]/u.test(text)) return undefined;
  const bytes: number[] = [];
  for (const unit of text) {
    const code = unit.codePointAt(0) ?? 0;
    const high = code > 0xff ? windows1252.indexOf(unit) : -1;
    if (code <= 0xff) bytes.push(code);
    else if (high >= 0) bytes.push(0x80 + high);
    else return undefined;
  }
  let meant: string;
  try {
    meant = new TextDecoder("utf-8", { fatal: true }).decode(Uint8Array.from(bytes));
  } catch {
    return undefined;
  }
  const decoded = [...meant].filter((unit) => (unit.codePointAt(0) ?? 0) > 0x7f);
  const isOwn = lettersOf(locale);
  const fits = decoded.every((unit) => shared.test(unit) || isOwn.test(unit));
  const isProved = decoded.length > 1 || decoded.some((unit) => frequent.has(unit));
  return meant !== text && fits && isProved ? meant : undefined;
}

const letters = new Map<string, RegExp>();

/** The letters of a locale's script with the marks on them, and emoji. */
function lettersOf(locale: string): RegExp {
  const known = letters.get(locale);
  if (known) return known;
  const script = scriptOf(locale);
  const names: Readonly<Record<string, readonly string[]>> = {
    Jpan: ["Han", "Hiragana", "Katakana"],
    Kore: ["Hangul", "Han"],
    Hans: ["Han"],
    Hant: ["Han"],
  };
  const own = (names[script] ?? [script]).map((name) => `\\p{Script=${name}}`).join("");
  const made = new RegExp(
    `[${own}\\p{Script=Inherited}\\p{Extended_Pictographic}\\u3000-\\u303f\\uff00-\\uffef]`,
    "u",
  );
  letters.set(locale, made);
  return made;
}
