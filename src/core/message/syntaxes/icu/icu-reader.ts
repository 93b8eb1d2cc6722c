import { voidElementsInMessages } from "../../../text/html-elements.js";
import { mostProblems } from "../most-problems.js";
import type { ProblemData, ProblemName } from "../../problem-wordings.js";
import { CodeUnits } from "../../../text/code-units.js";
import type { Span } from "../../../text/span.js";
import type { MessageProblem, MessageProblemCode } from "../../model.js";
import { IcuMessage } from "./icu-message.js";
import {
  holdsAttributes,
  holdsContent,
  partArgument,
  partBranch,
  partChoice,
  partCount,
  partEnd,
  partFormatted,
  partNamed,
  partResolved,
  partTag,
  partText,
} from "./icu-parts.js";

/** Deeper nesting than this is a problem, not a message: nobody writes it, and no consumer need recurse further. */
export const deepestNesting = 200;

const nameUnits = /[^\p{Pattern_Syntax}\p{Pattern_White_Space}]+/uy;
const spaces = /\p{Pattern_White_Space}*/uy;
const signedNumber = /[+-]?(?:\d+(?:\.\d*)?|\.\d+)/y;

/** Which units may mean something; zero stands behind the end of a message. */
const isSign = unitTable("\0{}'#<>/");

/** Which units of ASCII names are made of. */
const isNameUnit = unitTable("abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789_");

/** White space of ASCII. */
const isSpace = unitTable(" \n\r\t");

/** A table of all code units, so that no look into it need ask whether the unit is in it. */
function unitTable(units: string): Uint8Array {
  const table = new Uint8Array(0x10000);
  for (const unit of units) table[unit.charCodeAt(0)] = 1;
  return table;
}

const messageUnits = new CodeUnits();

// What is open while a message is read, and what stands directly in it.
const inRoot = 0;
const inBranch = 1;
const inTag = 2;
const inAttributes = 3;
const inChoice = 4;

// What is open, the outermost first: the root, then no more than the deepest nesting and a branch. The engine reads tables
// that are never replaced faster than fields.
const openRoom = 2 * deepestNesting;
const kinds = new Uint8Array(openRoom).fill(inRoot);
/** Where the part of each stands among the parts. */
const places = new Int32Array(openRoom);
/** Whether `#` stands for a number there: directly in a plural's branch, or in tags in it. */
const counting = new Uint8Array(openRoom);
/** Where the last branch that a choice has so far stands among the parts; -1 before the first. */
const lastBranches = new Int32Array(openRoom);
const branchCounts = new Int32Array(openRoom);
/** How many problems there were before a choice, so that an empty one is reported only where nothing else was. */
const problemsBefore = new Int32Array(openRoom);

/** What stands behind a choice's name, by the number that the parts have for it. */
const choiceTypes = ["plural", "selectordinal", "select"] as const;
const pluralUnits = new TextEncoder().encode("plural");
const ordinalUnits = new TextEncoder().encode("selectordinal");
const selectUnits = new TextEncoder().encode("select");
const select = 2;

/** With fewer branches than this a new one is compared with each of them. */
const fewBranches = 12;

// What most messages have none of; not to be added to.
const noProblems: MessageProblem[] = [];
const noSpans: Span[] = [];

/** Reads a message into its parts. One pass; never throws. A problem does not end the reading. */
export function readIcuParts(source: string, tags: boolean): IcuMessage {
  return reader.read(source, tags);
}

/** For how many numbers there is room at once, unless a single message needs more. */
const roomForParts = 1 << 13;

/** Reads one message after the other; what it works with is made once. */
class IcuReader {
  private source = "";
  private tags = true;
  /** The units of the message; behind its end stands a zero. */
  private units: Uint16Array = new Uint16Array(0);
  private at = 0;

  /** The parts of this message from `first` on, behind those of messages before it. */
  private parts = new Int32Array(0);
  private first = 0;
  private size = 0;
  /** How many pieces the text has so far that is being read. */
  private pieces = 0;
  private problems = noProblems;
  private quoted = noSpans;

  private depth = 0;
  /** The selectors of a choice with a great many of them. */
  private readonly selectors: (Set<string> | undefined)[] = [undefined];

  read(source: string, tags: boolean): IcuMessage {
    this.source = source;
    this.tags = tags;
    this.units = messageUnits.of(source);
    this.at = this.depth = 0;
    // The parts that say most in the fewest units are texts of one unit, with signs of one unit between them.
    const most = 4 * source.length + 16;
    if (this.size + most > this.parts.length) {
      this.parts = new Int32Array(Math.max(most, roomForParts));
      this.size = 0;
    }
    this.first = this.size;
    this.problems = noProblems;
    this.quoted = noSpans;
    for (;;) {
      if (kinds[this.depth] === inChoice) this.readChoicePart();
      else if (!this.readContent()) break;
    }
    return new IcuMessage(source, this.parts, this.first, this.size, this.problems, this.quoted);
  }

  private open(kind: number, place: number, counts: boolean): void {
    const depth = ++this.depth;
    kinds[depth] = kind;
    places[depth] = place;
    counting[depth] = counts ? 1 : 0;
  }

  private add(number: number): void {
    this.parts[this.size++] = number;
  }

  private addArgument(start: number, end: number, nameStart: number, nameEnd: number): void {
    const { parts, size } = this;
    parts[size] = partArgument;
    parts[size + 1] = start;
    parts[size + 2] = end;
    parts[size + 3] = nameStart;
    parts[size + 4] = nameEnd;
    this.size = size + 5;
  }

  /** The text of a part, by the place of its start among the part's numbers. */
  private written(place: number, index: number): string {
    return this.source.slice(this.parts[place + index], this.parts[place + index + 1]);
  }

  /** Reads text up to the next construct and that construct's start or end. False at the end of the message. */
  private readContent(): boolean {
    const { source, units, depth } = this;
    const { length } = source;
    const counts = counting[depth] === 1;
    const kind = kinds[depth];
    const isAttributes = kind === inAttributes;
    let start = this.at;
    /** Where the piece of the text begins that goes on here, as written. */
    let piece = start;
    let at = start;
    for (;;) {
      let unit = units[at] ?? 0;
      // Most units are letters: four are looked at before the loop comes round.
      while (isSign[unit] === 0) {
        unit = units[at + 1] ?? 0;
        if (isSign[unit] !== 0) {
          at += 1;
          break;
        }
        unit = units[at + 2] ?? 0;
        if (isSign[unit] !== 0) {
          at += 2;
          break;
        }
        unit = units[at + 3] ?? 0;
        if (isSign[unit] !== 0) {
          at += 3;
          break;
        }
        at += 4;
        unit = units[at] ?? 0;
      }
      if (at >= length) break;
      switch (unit) {
        case 0x27: {
          const next = units[at + 1];
          if (next === 0x27) {
            this.addPiece(piece, at + 1);
            piece = at += 2;
          } else if (
            next === 0x7b ||
            next === 0x7d ||
            (next === 0x23 && counts) ||
            (next === 0x3c && this.isTagLikeAt(at + 1))
          ) {
            this.addPiece(piece, at);
            this.at = at;
            this.readQuoted();
            piece = at = this.at;
          } else at++;
          continue;
        }
        case 0x7b: {
          this.addText(piece, start, at);
          const end = this.plainNameEnd(at + 1);
          if (end < 0) {
            if (this.readArgument()) return true;
            start = piece = at = this.at;
            continue;
          }
          const { parts, size } = this;
          parts[size] = partNamed;
          parts[size + 1] = at + 1;
          parts[size + 2] = end;
          this.size = size + 3;
          this.at = start = piece = at = end + 1;
          continue;
        }
        case 0x7d:
          if (kind === inBranch) {
            this.addText(piece, start, at);
            this.at = at + 1;
            this.endBranch();
            return true;
          }
          if (this.isInBranch()) {
            this.addText(piece, start, at);
            this.closeBranch();
            return true;
          }
          this.problem("warning", "brace-unmatched", at, at + 1, "unmatched-brace", {});
          at++;
          continue;
        case 0x23:
          if (counts) {
            this.addText(piece, start, at);
            this.add(partCount);
            this.add(at);
            this.at = start = piece = ++at;
            continue;
          }
          at++;
          continue;
        case 0x3c:
          if (!isAttributes && this.isTagAt(at)) {
            this.addText(piece, start, at);
            this.readTag(counts);
            return true;
          }
          at++;
          continue;
        default:
          if (isAttributes && this.endsOpeningTag(at)) {
            this.addText(piece, start, at);
            this.closeAttributes();
            return true;
          }
          at++;
      }
    }
    this.addText(piece, start, length);
    return depth > 0 && this.closeAtEnd();
  }

  /** Where a name of ASCII letters ends that a brace closes at once, as most arguments are written; -1 for anything else. */
  private plainNameEnd(start: number): number {
    const { units } = this;
    let at = start;
    let unit = units[at] ?? 0;
    if (unit >= 0x30 && unit <= 0x39) return -1;
    while (isNameUnit[unit] === 1) unit = units[++at] ?? 0;
    return unit === 0x7d && at > start ? at : -1;
  }

  /** Adds the text that was read from `start` to `end`, which is where the reading goes on. Its last piece is given. */
  private addText(piece: number, start: number, end: number): void {
    this.at = end;
    if (end === start) return;
    const { parts, size } = this;
    parts[size + 1] = start;
    parts[size + 2] = end;
    if (this.pieces === 0) {
      parts[size] = partText;
      this.size = size + 3;
    } else {
      this.addPiece(piece, end);
      parts[size] = partResolved;
      parts[size + 3] = this.pieces;
      this.size = size + 4 + 2 * this.pieces;
      this.pieces = 0;
    }
  }

  /** Adds a piece of the text that is being read, behind where the text's part is going to stand. */
  private addPiece(start: number, end: number): void {
    const place = this.size + 4 + 2 * this.pieces++;
    this.parts[place] = start;
    this.parts[place + 1] = end;
  }

  /** From an apostrophe that starts quoting to the one that ends it, or to the end: what stands between is text. */
  private readQuoted(): void {
    const { source, units, at: start } = this;
    let from = start + 1;
    for (;;) {
      const mark = source.indexOf("'", from);
      if (mark < 0) {
        this.addPiece(from, source.length);
        this.at = source.length;
        break;
      }
      if (units[mark + 1] !== 0x27) {
        this.addPiece(from, mark);
        this.at = mark + 1;
        break;
      }
      this.addPiece(from, mark + 1);
      from = mark + 2;
    }
    if (this.quoted === noSpans) this.quoted = [];
    this.quoted.push({ start, end: this.at });
  }

  /** Reads `{name}`, `{name, type}`, `{name, type, style}`, or the start of a plural or select: true where one is open now. */
  private readArgument(): boolean {
    const { units, at: start } = this;
    const nameStart = this.spacesEnd(start + 1);
    const nameEnd = this.nameEnd(nameStart);
    let at = this.spacesEnd(nameEnd);
    const after = units[at];
    if (
      nameEnd === nameStart ||
      (after !== 0x7d && after !== 0x2c) ||
      !this.isUsableName(nameStart, nameEnd)
    ) {
      this.recoverArgument(start, nameStart);
      return false;
    }
    at++;
    if (after === 0x7d) {
      this.at = at;
      this.addArgument(start, at, nameStart, nameEnd);
      return false;
    }
    const typeStart = this.spacesEnd(at);
    const typeEnd = this.lettersEnd(typeStart);
    at = this.spacesEnd(typeEnd);
    const separator = units[at];
    const choice = this.choiceType(typeStart, typeEnd);
    if (choice >= 0) {
      this.at = at;
      this.openChoice(choice, start, nameStart, nameEnd, separator === 0x2c);
      return true;
    }
    if (typeEnd === typeStart || (separator !== 0x7d && separator !== 0x2c)) {
      this.at = at;
      if (typeEnd === typeStart || at < this.source.length)
        this.problem("error", "argument-type", typeStart, Math.max(at, typeStart + 1), "no-type", {});
      this.skipPastBrace();
      this.checkClosed(start, this.source.slice(nameStart, nameEnd));
      this.addArgument(start, this.at, nameStart, nameEnd);
      return false;
    }
    const { parts, size } = this;
    this.size = size + 9;
    parts[size] = partFormatted;
    parts[size + 1] = start;
    parts[size + 3] = nameStart;
    parts[size + 4] = nameEnd;
    parts[size + 5] = typeStart;
    parts[size + 6] = typeEnd;
    this.at = at + 1;
    if (separator === 0x2c) this.readStyle(start, size + 7);
    else parts[size + 7] = parts[size + 8] = -1;
    parts[size + 2] = this.at;
    return false;
  }

  private openChoice(
    type: number,
    start: number,
    nameStart: number,
    nameEnd: number,
    hasComma: boolean,
  ): void {
    const before = this.problems.length;
    if (hasComma) this.at++;
    else {
      const written = choiceTypes[type] ?? "";
      this.problem("error", "branch-expected", start, this.at, "no-branches-with", {
        type: written,
        written: `{${this.source.slice(nameStart, nameEnd)}, ${written}, other {…}}`,
      });
    }
    if (this.depth >= deepestNesting) {
      this.giveUp(start);
      return;
    }
    this.open(inChoice, this.size, false);
    problemsBefore[this.depth] = before;
    lastBranches[this.depth] = -1;
    branchCounts[this.depth] = 0;
    this.selectors[this.depth] = undefined;
    this.addArgument(start, start, nameStart, nameEnd);
    this.parts[this.size - 5] = partChoice;
    this.add(type);
    this.add(0);
    this.add(0);
  }

  /** Which choice a word names: 0 plural, 1 selectordinal, 2 select; -1 for another word. Capitals count as small letters. */
  private choiceType(start: number, end: number): number {
    switch (end - start) {
      case 6:
        return this.isWord(start, pluralUnits) ? 0 : this.isWord(start, selectUnits) ? 2 : -1;
      case 13:
        return this.isWord(start, ordinalUnits) ? 1 : -1;
      default:
        return -1;
    }
  }

  /** Whether a word stands at a place, in small letters or capitals. */
  private isWord(start: number, word: Uint8Array): boolean {
    const { units } = this;
    let at = 0;
    while (at < word.length && ((units[start + at] ?? 0) | 0x20) === word[at]) at++;
    return at === word.length;
  }

  /** The style of a simple argument, up to and including the argument's closing brace. */
  private readStyle(argumentStart: number, place: number): void {
    const { source, units, parts } = this;
    const start = this.spacesEnd(this.at);
    let depth = 0;
    let end = source.length;
    let closed = false;
    let at = start;
    while (at < source.length) {
      const unit = units[at];
      if (unit === 0x27) {
        const mark = source.indexOf("'", at + 1);
        if (mark < 0) break;
        at = mark;
      } else if (unit === 0x7b) depth++;
      else if (unit === 0x7d && depth-- === 0) {
        end = at++;
        closed = true;
        break;
      }
      at++;
    }
    this.at = at;
    if (!closed) {
      this.at = source.length;
      this.problem("error", "style-unclosed", argumentStart, source.length, "unclosed-style", {});
    }
    const last = units[end - 1] ?? 0;
    const isTrimmed = end > start && last > 0x20 && last < 0x7f;
    parts[place] = start;
    parts[place + 1] = isTrimmed ? end : start + trimmedLength(source.slice(start, end));
  }

  /** Reads a plural's offset, one selector with the brace that opens its branch, or the brace that closes the choice. */
  private readChoicePart(): void {
    const { source, units, depth } = this;
    const place = places[depth] ?? 0;
    const isSelect = this.parts[place + 5] === select;
    let start = this.spacesEnd(this.at);
    let unit = units[start];
    if (start >= source.length || unit === 0x7d) {
      this.at = unit === 0x7d ? start + 1 : start;
      this.closeChoice(unit === 0x7d);
      return;
    }
    const isOffset = unit === 0x6f && units[start + 1] === 0x66 && source.startsWith("offset:", start);
    if (isOffset && !isSelect && this.size === place + 8) {
      const from = this.spacesEnd(start + "offset:".length);
      this.at = this.endOf(signedNumber, from);
      if (this.at === from) this.problem("error", "offset", start, this.at, "no-offset", {});
      else {
        this.parts[place + 6] = from;
        this.parts[place + 7] = this.at;
      }
      if (this.at > from || !/^[^\s{}]/.test(source.slice(this.at, this.at + 1))) return;
      start = this.at;
      unit = units[start];
    }
    const isExact = !isSelect && unit === 0x3d;
    const end = isExact ? this.endOf(signedNumber, start + 1) : this.nameEnd(start);
    const hasSelector = end > start + (isExact ? 1 : 0);
    this.at = this.spacesEnd(end);
    if (units[this.at] === 0x7b) {
      if (!hasSelector)
        this.problem("error", "branch-expected", start, start + 1, "no-selector", { branch: "other {…}" });
      else if (this.hasBranch(start, end, isExact))
        this.problem("warning", "branch-duplicate", start, end, "duplicate-branch", {
          branch: this.selector(start, end, isExact) ?? "",
        });
      this.at++;
      const { size, parts } = this;
      this.open(inBranch, size, !isSelect);
      parts[size] = partBranch;
      parts[size + 1] = parts[size + 2] = parts[size + 3] = start;
      parts[size + 4] = end;
      parts[size + 5] = lastBranches[depth] ?? -1;
      this.size = size + 6;
      lastBranches[depth] = size;
      branchCounts[depth] = (branchCounts[depth] ?? 0) + 1;
      return;
    }
    if (!hasSelector) this.at++;
    const next = this.at > start ? Math.min(this.at, source.length) : start + 1;
    const found = source.slice(start, end) || source[start];
    this.problem("error", "branch-expected", start, Math.max(end, start + 1), "no-branch", {
      found: found ?? "",
      branch: "other {…}",
    });
    this.at = Math.max(this.at, next);
  }

  private selector(start: number, end: number, isExact: boolean): string {
    return isExact ? `=${Number(this.source.slice(start + 1, end))}` : this.source.slice(start, end);
  }

  /** Whether the innermost choice has a branch with the selector that stands at a place. */
  private hasBranch(start: number, end: number, isExact: boolean): boolean {
    const { depth, parts } = this;
    const isFew = (branchCounts[depth] ?? 0) < fewBranches;
    let branch = lastBranches[depth] ?? -1;
    if (isFew && !isExact) {
      for (; branch >= 0; branch = parts[branch + 5] ?? -1) if (this.isNamed(branch, start, end)) return true;
      return false;
    }
    const selector = this.selector(start, end, isExact);
    let known = this.selectors[depth];
    if (!known) {
      known = new Set();
      for (; branch >= 0; branch = parts[branch + 5] ?? -1) {
        const from = parts[branch + 3] ?? 0;
        known.add(this.selector(from, parts[branch + 4] ?? 0, this.units[from] === 0x3d));
      }
      if (!isFew) this.selectors[depth] = known;
    }
    const isThere = known.has(selector);
    known.add(selector);
    return isThere;
  }

  private closeChoice(closed: boolean): void {
    const place = places[this.depth] ?? 0;
    const before = problemsBefore[this.depth];
    this.depth--;
    const start = this.parts[place + 1] ?? 0;
    const type = choiceTypes[this.parts[place + 5] ?? 0] ?? "";
    if (!closed)
      this.problem("error", "argument-unclosed", start, this.parts[place + 4] ?? 0, "unclosed-argument", {
        type,
        argument: this.written(place, 3),
      });
    if (this.size === place + 8 && closed && this.problems.length === before)
      this.problem("error", "branch-expected", start, this.at, "no-branches", { type, branch: "other {…}" });
    this.parts[place + 2] = this.at;
    this.add(partEnd);
  }

  /** At `}` inside a branch: closes tags left open in it, then the branch. */
  private closeBranch(): void {
    this.closeTagsLeftOpen();
    this.at++;
    this.endBranch();
  }

  private endBranch(): void {
    this.parts[(places[this.depth] ?? 0) + 2] = this.at;
    this.depth--;
    this.add(partEnd);
  }

  /** At the end of the message: closes what is innermost, saying so. False when nothing is left open. */
  private closeAtEnd(): boolean {
    this.closeTagsLeftOpen();
    if (kinds[this.depth] !== inBranch) return false;
    const place = places[this.depth] ?? 0;
    this.problem(
      "error",
      "branch-unclosed",
      this.parts[place + 1] ?? 0,
      this.parts[place + 4] ?? 0,
      "unclosed-branch",
      { branch: this.written(place, 3) },
    );
    this.endBranch();
    // The missing brace of the branch is the fault; the choice around it would be reported for the same one.
    const before = this.problems.length;
    this.closeChoice(false);
    this.problems.length = before;
    return true;
  }

  private isInBranch(): boolean {
    let { depth } = this;
    while (kinds[depth] === inTag || kinds[depth] === inAttributes) depth--;
    return kinds[depth] === inBranch;
  }

  /** Whether a tag starts at `offset`: a name, and a `>` before the next `<`. */
  private isTagAt(offset: number): boolean {
    if (!this.tags) return false;
    const { source, units } = this;
    const isClosing = units[offset + 1] === 0x2f;
    let at = this.tagNameEnd(isClosing ? offset + 2 : offset + 1);
    if (at < 0) return false;
    for (; at < source.length; at++) {
      const unit = units[at];
      if (unit === 0x3e) return true;
      if (unit === 0x3c) return false;
    }
    return false;
  }

  /** Where a tag's name that starts at a place ends; -1 where there is none. */
  private tagNameEnd(start: number): number {
    const { source, units } = this;
    let at = start;
    let code = (units[at] ?? 0) | 0x20;
    if (!(code >= 0x61 && code <= 0x7a)) return -1;
    for (;;) {
      code = units[++at] ?? 0;
      const letter = code | 0x20;
      const isInside =
        (letter >= 0x61 && letter <= 0x7a) ||
        (code >= 0x30 && code <= 0x3a) ||
        code === 0x5f ||
        code === 0x2e ||
        code === 0x2d;
      if (!isInside) break;
    }
    return code === 0x3e || code === 0x2f || code === 0x20 || /\s/.test(source.charAt(at)) ? at : -1;
  }

  /** Whether what stands at `offset` is near enough to a tag for an apostrophe before it to quote it. */
  private isTagLikeAt(offset: number): boolean {
    return this.tags && /^<\/?[A-Za-z]/.test(this.source.slice(offset, offset + 3));
  }

  private endsOpeningTag(at: number): boolean {
    const unit = this.units[at];
    return unit === 0x3e || (unit === 0x2f && this.units[at + 1] === 0x3e);
  }

  private readTag(counts: boolean): void {
    const { source, units, at: start } = this;
    const isClosing = units[start + 1] === 0x2f;
    const nameStart = isClosing ? start + 2 : start + 1;
    const nameEnd = this.tagNameEnd(nameStart);
    if (isClosing) {
      this.at = source.indexOf(">", start) + 1;
      this.closeTag(start, nameStart, nameEnd);
      return;
    }
    if (this.depth >= deepestNesting) {
      this.giveUp(start);
      return;
    }
    const hasAttributes = units[nameEnd] !== 0x3e;
    this.open(hasAttributes ? inAttributes : inTag, this.size, counts);
    this.addArgument(start, start, nameStart, nameEnd);
    this.parts[this.size - 5] = partTag;
    this.at = hasAttributes ? nameEnd : nameEnd + 1;
    this.add(this.at);
    this.add(hasAttributes ? holdsAttributes : holdsContent);
  }

  /** At the end of an opening tag that has attributes. */
  private closeAttributes(): void {
    const place = places[this.depth] ?? 0;
    const isAll = this.units[this.at] === 0x2f;
    this.at += isAll ? 2 : 1;
    this.parts[place + 2] = this.parts[place + 5] = this.at;
    this.add(partEnd);
    if (isAll) this.depth--;
    else {
      kinds[this.depth] = inTag;
      this.parts[place + 6] = holdsAttributes | holdsContent;
    }
  }

  private closeTag(start: number, nameStart: number, nameEnd: number): void {
    let depth = this.depth;
    while (kinds[depth] === inTag && !this.isNamed(places[depth] ?? 0, nameStart, nameEnd)) depth--;
    const name = this.source.slice(nameStart, nameEnd);
    if (kinds[depth] !== inTag) {
      this.problem("error", "tag-unopened", start, this.at, "unopened-tag", {
        tag: `<${name}>`,
        end: `</${name}>`,
      });
      return;
    }
    while (this.depth > depth) {
      const place = places[this.depth] ?? 0;
      if (this.leaveTag()) continue;
      const open = this.written(place, 3);
      this.problem(
        "error",
        "tag-unclosed",
        this.parts[place + 1] ?? 0,
        this.parts[place + 5] ?? 0,
        "crossed-tag",
        { tag: `<${open}>`, end: `</${open}>`, other: `</${name}>` },
      );
    }
    this.endTag();
  }

  /** Whether a tag has the name, or a branch the selector, that stands at a place. */
  private isNamed(part: number, start: number, end: number): boolean {
    const { parts, units } = this;
    const own = parts[part + 3] ?? 0;
    const length = end - start;
    if ((parts[part + 4] ?? 0) - own !== length) return false;
    for (let at = 0; at < length; at++) if (units[own + at] !== units[start + at]) return false;
    return true;
  }

  private closeTagsLeftOpen(): void {
    for (;;) {
      const kind = kinds[this.depth];
      if (kind !== inTag && kind !== inAttributes) return;
      const place = places[this.depth] ?? 0;
      const start = this.parts[place + 1] ?? 0;
      const name = this.written(place, 3);
      if (kind === inAttributes) {
        this.depth--;
        this.size = place;
        this.problem("error", "tag-unclosed", start, this.at, "unfinished-tag", { tag: `<${name}` });
      } else if (!this.leaveTag())
        this.problem("error", "tag-unclosed", start, this.parts[place + 5] ?? 0, "unclosed-tag", {
          tag: `<${name}>`,
          end: `</${name}>`,
        });
    }
  }

  private endTag(): void {
    this.parts[(places[this.depth] ?? 0) + 2] = this.at;
    this.depth--;
    this.add(partEnd);
  }

  /**
   * Leaves the innermost tag, which nothing closed. One that HTML never closes stands alone, and what follows it is not
   * inside it: true for such a one, of which there is nothing to complain.
   */
  private leaveTag(): boolean {
    const place = places[this.depth] ?? 0;
    const isVoid = voidElementsInMessages.has(this.written(place, 3).toLowerCase());
    if (!isVoid) this.endTag();
    else {
      this.depth--;
      this.parts[place + 2] = this.parts[place + 5] ?? 0;
      this.parts[place + 6] = (this.parts[place + 6] ?? 0) & ~holdsContent;
    }
    return isVoid;
  }

  /** A `{` that no argument follows: says why and goes on after the brace that closes it. */
  private recoverArgument(start: number, contentStart: number): void {
    const { source } = this;
    if (source[contentStart] === undefined) {
      this.at = source.length;
      this.checkClosed(start, "");
      return;
    }
    this.at = contentStart;
    const closed = this.skipPastBrace();
    const content = source.slice(contentStart, closed ? this.at - 1 : this.at).trimEnd();
    // ICU's white space is not all that there is.
    const written = content.trimStart();
    const nameStart = contentStart + content.length - written.length;
    const name = /^[^,{}]*/.exec(written)?.[0].trim() ?? "";
    if (!closed) {
      const before = this.problems.length;
      this.checkClosed(start, name);
      if (this.problems.length === before)
        this.problem("error", "argument-unclosed", start, start + 1, "unclosed-brace", {});
    } else if (/^\S+\s+(plural|select|selectordinal|number|date|time)\b/.test(written))
      this.problem("error", "argument-name", nameStart, nameStart + name.length, "no-comma", {
        argument: name,
        written: `{${name.replace(/\s+/, ", ")}, …}`,
      });
    else if (written === "") this.problem("error", "argument-name", start, this.at, "empty-braces", {});
    else
      this.problem("error", "argument-name", nameStart, nameStart + name.length || this.at, "bad-name", {
        name,
      });
    if (name !== "" && /^[^\s{}]+$/.test(name))
      this.addArgument(start, this.at, nameStart, nameStart + name.length);
  }

  private checkClosed(start: number, name: string): void {
    const { length } = this.source;
    if (this.at < length || this.source[this.at - 1] === "}") return;
    if (name === "") this.problem("error", "argument-unclosed", start, length, "unclosed-brace", {});
    else
      this.problem("error", "argument-unclosed", start, length, "unclosed-name", {
        name,
        argument: `{${name}}`,
      });
  }

  /** Goes past the `}` that ends the braces around the current place. False where there is none. */
  private skipPastBrace(): boolean {
    let depth = 0;
    while (this.at < this.source.length) {
      const unit = this.source[this.at++];
      if (unit === "{") depth++;
      else if (unit === "}" && depth-- === 0) return true;
    }
    return false;
  }

  /** Too deep: takes the rest of the message as read. */
  private giveUp(start: number): void {
    this.problem("error", "too-deep", start, start + 1, "too-deep", { levels: deepestNesting });
    this.at = this.source.length;
    // What is open has no end.
    if (this.depth > 0) this.size = places[1] ?? 0;
    this.depth = 0;
  }

  private problem<N extends ProblemName>(
    severity: "error" | "warning",
    code: MessageProblemCode,
    start: number,
    end: number,
    name: N,
    data: ProblemData<N>,
  ): void {
    if (this.problems.length >= mostProblems) return;
    const last = Math.min(end, this.source.length);
    if (this.problems === noProblems) this.problems = [];
    this.problems.push({
      severity,
      code,
      name,
      data,
      span: { start: Math.min(start, last), end: last },
    });
  }

  private spacesEnd(start: number): number {
    const { units } = this;
    let at = start;
    let code = units[at] ?? 0;
    while (isSpace[code] === 1) code = units[++at] ?? 0;
    // Other white space is rare, and none of it is a letter, digit or brace of ASCII.
    return code < 0x20 || code > 0x7d ? this.endOf(spaces, at) : at;
  }

  /** Where a name ends: letters, digits and _ of ASCII most of the time, and what Unicode calls neither syntax nor white space. */
  private nameEnd(start: number): number {
    const { units } = this;
    let at = start;
    let code = units[at] ?? 0;
    while (isNameUnit[code] === 1) code = units[++at] ?? 0;
    return code > 0x7d ? this.endOf(nameUnits, start) : at;
  }

  /** Where a word of ASCII letters ends. */
  private lettersEnd(start: number): number {
    const { units } = this;
    let at = start;
    let code = (units[at] ?? 0) | 0x20;
    while (code >= 0x61 && code <= 0x7a) code = (units[++at] ?? 0) | 0x20;
    return at;
  }

  /** Where what a sticky pattern matches ends; where it starts if it matches nothing. */
  private endOf(pattern: RegExp, start: number): number {
    pattern.lastIndex = start;
    return pattern.test(this.source) ? pattern.lastIndex : start;
  }

  /** Whether ICU takes a name: any identifier, digits first too, but a number only without leading zeros and in 32 bits. */
  private isUsableName(start: number, end: number): boolean {
    const first = this.units[start] ?? 0;
    if (first < 0x30 || first > 0x39) return true;
    const name = this.source.slice(start, end);
    return !/^\d+$/.test(name) || name === "0" || (!name.startsWith("0") && Number(name) < 2_147_483_640);
  }
}

const reader = new IcuReader();

/** The length of a text without the white space at its end. */
function trimmedLength(text: string): number {
  return text.replace(/(?<!\p{Pattern_White_Space})\p{Pattern_White_Space}+$/u, "").length;
}
