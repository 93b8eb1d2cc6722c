import { CodeUnits } from "../text/code-units.js";
import type { MessageSigns } from "../message/syntaxes/syntax.js";

/**
 * What a message has that a rule may have something to say about. Most messages are plain words, and most rules look at
 * something that plain words lack: one walk over the text tells which rules need not look at all.
 */
export const features = {
  /** Arguments, the arguments of plurals and selects among them. */
  arguments: 1 << 0,
  plurals: 1 << 1,
  selects: 1 << 2,
  tags: 1 << 3,
  /** Ranges in quotes that make them literal. */
  quoted: 1 << 4,
  /** Problems of reading. */
  problems: 1 << 5,
  /** Nothing but white space, or no text at all. */
  blank: 1 << 6,
  /** A number, truth value or null in place of a text. */
  value: 1 << 7,
  /** Space at an end, or twice in a row. */
  space: 1 << 8,
  /** Digits of any script. */
  digits: 1 << 9,
  /** `%` or `$`. */
  signs: 1 << 10,
  /** `<` that is not a tag, tags that do more than mark words, and what addresses that run code begin with. */
  markup: 1 << 11,
  /** `@`, `/`, or a full stop inside a word. */
  address: 1 << 12,
  /** Straight quotation marks, or signs that French spaces. */
  marks: 1 << 13,
  /** An end, in any branch, that is neither a letter nor a value. */
  ending: 1 << 14,
  /** ASCII capitals, `?`, `#` or `-` in a row, brackets, a single word, filler: what marks for translators are made of. */
  marker: 1 << 15,
  /** A word that is the one before it again. */
  repeat: 1 << 16,
  /** Characters that may not be in the normal form NFC. */
  composed: 1 << 17,
  /** Control characters and direction marks. */
  control: 1 << 18,
  /** What UTF-8 looks like in another encoding, and the sign for a lost character. */
  decoded: 1 << 19,
  /** Letters of other scripts than Latin. */
  script: 1 << 20,
  /** A pair of texts that are the same. */
  same: 1 << 21,
  /** A pair whose arguments or tags may not be the same. */
  parts: 1 << 22,
  /** Arguments with a format. */
  formats: 1 << 23,
  /** `{` that opens nothing. */
  braces: 1 << 24,
  /** A plural with something beside it, or with other forms than one for each category that shows the number. */
  unevenPlural: 1 << 25,
  /** Quotation marks that are not straight, backticks, letters that are taken for others, `\` and `&`. */
  extra: 1 << 27,
} as const;

export type Feature = keyof typeof features;

/** The features of several names in one number. */
export function featureMask(names: readonly Feature[]): number {
  return names.reduce((mask, name) => mask | features[name], 0);
}

// What single code units are, which is no feature of a message.
const sign = 1 << 0;
const doubledSign = 1 << 1;
const brace = 1 << 2;
const colon = 1 << 3;
const letter = 1 << 4;
const upper = 1 << 5;
const white = 1 << 6;
const lead = 1 << 7;
const trail = 1 << 8;
const bracket = 1 << 14;
const frame = 1 << 15;
const met = 1 << 30;
/** A letter that is nothing else, as most small ones are. */
const plainLetter = met | letter;

/** The features that a text has when one of its code units has them. */
const ofUnits = featureMask([
  "digits",
  "signs",
  "markup",
  "address",
  "marks",
  "composed",
  "control",
  "decoded",
  "script",
  "extra",
]);

/** Set, beside features, for a text that has a sign of its syntax: whether it is more than plain words, only reading it tells. */
export const mayHoldSigns = 1 << 26;

const controls =
  /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f-\u0084\u0086-\u009f\u2028\u2029\u202a-\u202e\u2066-\u2069\ufeff\ufff9-\ufffb]/;
const otherScripts =
  /[\p{Script=Cyrillic}\p{Script=Greek}\p{Script=Arabic}\p{Script=Hebrew}\p{Script=Devanagari}\p{Script=Bengali}\p{Script=Thai}\p{Script=Georgian}\p{Script=Armenian}\p{Script=Hangul}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Han}]/u;

function classOf(code: number, unit: string): number {
  let bits = met;
  const isSurrogate = code >= 0xd800 && code < 0xe000;
  // Of these there are very many, all alike.
  if ((code >= 0x4e00 && code < 0xa000) || (code >= 0xac00 && code < 0xd7a4))
    return bits | letter | features.script;
  if (isSurrogate) return bits | letter | features.script | features.composed | features.digits;
  if (/[\p{L}\p{M}]/u.test(unit)) bits |= letter;
  if (/\p{Lu}/u.test(unit) && code < 0x80) bits |= upper;
  if (/\s/.test(unit)) bits |= white;
  if (/\p{Nd}/u.test(unit)) bits |= features.digits;
  if (/[%$]/.test(unit)) bits |= features.signs;
  if (unit === "{") bits |= brace;
  if (unit === "<") bits |= features.markup;
  if (unit === ":") bits |= colon;
  if (/[@/]/.test(unit)) bits |= features.address;
  if (/["?!;]/.test(unit)) bits |= features.marks;
  if (/[[⟦]/.test(unit)) bits |= bracket;
  if (/[?#-]/.test(unit)) bits |= frame;
  if (/[«»„“”「」『』`şţŞŢ\\&]/.test(unit)) bits |= features.extra;
  if (controls.test(unit)) bits |= features.control;
  if (otherScripts.test(unit)) bits |= features.script;
  // Marks join what is before them; the vowels and finals of Hangul do, too.
  if (
    code >= 0x300 &&
    (/\p{M}/u.test(unit) || (code >= 0x1160 && code < 0x1200) || unit.normalize("NFC") !== unit)
  )
    bits |= features.composed;
  if (code >= 0xc2 && code <= 0xf4) bits |= lead;
  if (/[\u0080-\u00bf€-™Š-žŸƒˆ˜–-•‚-…‡†‰‹›]/.test(unit)) bits |= trail;
  if (code === 0xfffd) bits |= features.decoded;
  return bits;
}

/** Looks at texts of one syntax for what they have by their characters alone. */
export class TextScanner {
  /** What each code unit is, found out when a text first has it; 0 for one that was not met yet. */
  private readonly classes = new Int32Array(0x10000);

  constructor(private readonly signs: MessageSigns) {}

  /** The features of a text, and whether it may be more than plain words. */
  at(units: Uint16Array, start: number, end: number): number {
    const { classes } = this;
    let seen = 0;
    let all = -1;
    let pairs = 0;
    let before = white;
    let found = 0;
    let wordAt = -1;
    for (let at = start; at < end; at++) {
      const code = units[at] ?? 0;
      const bits = classes[code] || this.classAt(code);
      if ((bits & letter) !== 0 && (before & letter) === 0) {
        // The beginning of a word: is it the one before it again, with a space between them?
        if (wordAt >= 0 && units[at - 1] === 0x20 && this.isSameWord(units, wordAt, at, end))
          found |= features.repeat;
        if ((code | 0x20) === 0x69 && isWritten(units, at, end, filler)) found |= features.marker;
        wordAt = at;
      }
      seen |= bits;
      all &= bits;
      if (bits === plainLetter) {
        // The letters behind a letter that is nothing else say nothing new.
        at = Math.min(this.plainEnd(units, at + 1), end) - 1;
      } else {
        pairs |= before & bits;
        if (code === 0x2e && at + 1 < end && isWordUnit(units[at + 1] ?? 0)) found |= features.address;
        if ((bits & trail) !== 0 && (before & lead) !== 0) found |= features.decoded;
      }
      before = bits;
    }
    if ((all & white) !== 0) found |= features.blank;
    if ((before & letter) === 0) found |= features.ending;
    if ((seen & brace) !== 0) found |= features.braces;
    if ((seen & colon) !== 0 && hasScriptAddress(units, start, end)) found |= features.markup;
    if (end > start && ((before & white) !== 0 || (pairs & white) !== 0)) found |= features.space;
    if (
      (pairs & (upper | frame)) !== 0 ||
      (seen & bracket) !== 0 ||
      ((seen & white) === 0 && hasJoint(units, start, end))
    )
      found |= features.marker;
    if ((seen & sign) !== 0 || (pairs & doubledSign) !== 0) found |= mayHoldSigns;
    return (seen & ofUnits) | found;
  }

  /** Where letters end that are nothing else. A small loop of its own, as the engine soon makes good code of that. */
  private plainEnd(units: Uint16Array, start: number): number {
    const { classes } = this;
    let at = start;
    for (;;) {
      if (classes[units[at] ?? 0] !== plainLetter) return at;
      if (classes[units[at + 1] ?? 0] !== plainLetter) return at + 1;
      if (classes[units[at + 2] ?? 0] !== plainLetter) return at + 2;
      if (classes[units[at + 3] ?? 0] !== plainLetter) return at + 3;
      at += 4;
    }
  }

  /** The same for a text that stands by itself. */
  of(text: string): number {
    return this.at(textUnits.of(text), 0, text.length);
  }

  private classAt(code: number): number {
    const unit = String.fromCharCode(code);
    let bits = classOf(code, unit);
    if (this.signs.single.includes(unit)) bits |= sign;
    if (this.signs.doubled === unit) bits |= doubledSign;
    return (this.classes[code] = bits);
  }

  /** Whether the word at `other` is the one at `one`, which stands before it, in any case. */
  private isSameWord(units: Uint16Array, one: number, other: number, end: number): boolean {
    const length = other - 1 - one;
    if (length < 2 || other + length > end) return false;
    for (let at = 0; at < length; at++)
      if (!isSameLetter(units[one + at] ?? 0, units[other + at] ?? 0)) return false;
    if (other + length === end) return true;
    const next = units[other + length] ?? 0;
    return (next >= 0xd800 && next < 0xe000) || ((this.classes[next] || this.classAt(next)) & letter) === 0;
  }
}

const textUnits = new CodeUnits();

/** What filler text begins with: its second word. */
const filler = new TextEncoder().encode("ipsum");

/** What an address that runs code begins with. */
const script = new TextEncoder().encode("script");

/** Whether a word of small ASCII letters stands at a place, in any case. */
function isWritten(units: Uint16Array, start: number, end: number, word: Uint8Array): boolean {
  if (start < 0 || start + word.length > end) return false;
  for (let at = 0; at < word.length; at++) if (((units[start + at] ?? 0) | 0x20) !== word[at]) return false;
  return true;
}

/** Whether `script:` stands in a text, with white space before the colon or without. */
function hasScriptAddress(units: Uint16Array, start: number, end: number): boolean {
  for (let at = start; at < end; at++) {
    if (units[at] !== 0x3a) continue;
    let last = at;
    while (last > start && /\s/.test(String.fromCharCode(units[last - 1] ?? 0))) last--;
    if (last - script.length >= start && isWritten(units, last - script.length, end, script)) return true;
  }
  return false;
}

/** Whether a text has a full stop or `_`, as keys have. */
function hasJoint(units: Uint16Array, start: number, end: number): boolean {
  for (let at = start; at < end; at++) if (units[at] === 0x2e || units[at] === 0x5f) return true;
  return false;
}

function isSameLetter(one: number, other: number): boolean {
  if (one === other || (one | 0x20) === (other | 0x20)) return true;
  return (
    one > 0x7f &&
    other > 0x7f &&
    String.fromCharCode(one).toLowerCase() === String.fromCharCode(other).toLowerCase()
  );
}

function isWordUnit(code: number): boolean {
  return code > 0x2f && code !== 0x3a && code !== 0x3c;
}
