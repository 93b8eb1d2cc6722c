import { hasPluralRules, pluralRules } from "../locale/plural-rules.js";
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
  type IcuParts,
} from "../message/syntaxes/icu-parts.js";
import { features } from "./features.js";
import { endsInLetter, literalFeatures, runsCode } from "./text-features.js";

/** The number behind a choice's name, in its part. */
const select = 2;

// What the content of a message, a branch or a tag is like.
const endsPlainly = 1 << 0;
const showsNumber = 1 << 1;

/**
 * The features of an ICU message's parts, as the tree made of them would have them, without making it. -1 where only the tree
 * tells: text that quoting has changed, and tags with attributes. `hasOddText` is whether a text of the message may have
 * anything that markup is made of.
 */
export function icuFeatures(message: IcuParts, locale: string, hasOddText: boolean): number {
  return new PartsWalk(message, locale, hasOddText).features();
}

/** A place in the parts of a message. */
class PartsPlace {
  protected readonly parts: Int32Array;
  private readonly last: number;

  constructor(
    readonly message: IcuParts,
    public at = message.first,
  ) {
    this.parts = message.parts;
    this.last = message.last;
  }

  get kind(): number {
    return this.at < this.last ? (this.parts[this.at] ?? partEnd) : partEnd;
  }

  number(index: number): number {
    return this.parts[this.at + index] ?? 0;
  }

  slice(index: number): string {
    return this.message.source.slice(this.number(index), this.number(index + 1));
  }
}

function isArgument(kind: number): boolean {
  return kind === partNamed || kind === partArgument || kind === partFormatted;
}

/** Where the name of an argument stands among its numbers. */
function nameIndex(kind: number): number {
  return kind === partNamed ? 1 : 3;
}

function argumentLength(kind: number): number {
  return kind === partNamed ? 3 : kind === partArgument ? 5 : 9;
}

class PartsWalk extends PartsPlace {
  private found = 0;
  private isUnsure = false;
  /** Whether what was read last is all that there is where it stands. */
  private isAlone = false;

  constructor(
    message: IcuParts,
    private readonly locale: string,
    private readonly hasOddText: boolean,
  ) {
    super(message);
  }

  features(): number {
    const like = this.content(-1);
    if (this.isUnsure) return -1;
    // A plural with something beside it.
    if ((this.found & features.plurals) !== 0 && !this.isAlone) this.found |= features.unevenPlural;
    return this.found | ((like & endsPlainly) === 0 ? features.ending : 0);
  }

  /** Reads up to the end of what the parts stand in, which is a branch of the plural at a place, or of none (-1). */
  private content(plural: number): number {
    let like = 0;
    let members = 0;
    for (;;) {
      const { kind } = this;
      if (kind === partEnd || this.isUnsure) break;
      members++;
      like = (like & showsNumber) | this.part(kind, plural);
    }
    this.at++;
    this.isAlone = members === 1;
    return like;
  }

  private part(kind: number, plural: number): number {
    switch (kind) {
      case partText: {
        const end = this.number(2);
        if (this.hasOddText) this.found |= literalFeatures(this.slice(1));
        this.at += 3;
        return endsInLetter(this.message.source, end) ? endsPlainly : 0;
      }
      case partCount:
        this.at += 2;
        return endsPlainly | showsNumber;
      case partNamed:
      case partArgument:
      case partFormatted: {
        const isNumber = plural >= 0 && this.isNamedAs(plural, nameIndex(kind));
        this.found |= features.arguments;
        if (kind === partFormatted) {
          this.found |= features.formats;
          if (this.number(7) >= 0) this.found |= literalFeatures(this.slice(7));
        }
        this.at += argumentLength(kind);
        return isNumber ? endsPlainly | showsNumber : endsPlainly;
      }
      case partChoice:
        return this.choice();
      case partTag:
        return this.tag();
      default:
        this.isUnsure = true;
        return 0;
    }
  }

  private isNamedAs(plural: number, name: number): boolean {
    const { source } = this.message;
    return this.slice(name) === source.slice(this.parts[plural + 3], this.parts[plural + 4]);
  }

  private tag(): number {
    const holds = this.number(6);
    if ((holds & holdsAttributes) !== 0) {
      this.isUnsure = true;
      return 0;
    }
    this.found |= features.tags;
    if (runsCode(this.slice(3))) this.found |= features.markup;
    this.at += 7;
    return (holds & holdsContent) === 0 ? endsPlainly : this.content(-1) & endsPlainly;
  }

  private choice(): number {
    const { at: place, parts, locale } = this;
    const type = this.number(5);
    const kind = type === 0 ? "cardinal" : "ordinal";
    const hasRules = type !== select && hasPluralRules(locale, kind);
    const categories: readonly string[] = hasRules ? pluralRules(locale, kind).categories : [];
    this.found |= features.arguments | (type === select ? features.selects : features.plurals);
    const hasOffset = Number(this.slice(6)) !== 0;
    this.at += 8;
    let branches = 0;
    /** A bit for each category that has a branch. */
    let met = 0;
    let like = endsPlainly | showsNumber;
    while (parts[this.at] === partBranch && !this.isUnsure) {
      branches++;
      const category = categories.indexOf(this.slice(3));
      if (category >= 0) met |= 1 << category;
      this.at += 6;
      like &= this.content(type === select ? -1 : place);
    }
    this.at++;
    // As many forms as categories, of each of which there is one: then there is no other.
    const isEven =
      hasRules &&
      !hasOffset &&
      branches === categories.length &&
      met === (1 << categories.length) - 1 &&
      (like & showsNumber) !== 0;
    if (type !== select && !isEven) this.found |= features.unevenPlural;
    return like & endsPlainly;
  }
}

/** Choices in choices deeper than this are not compared: each takes as long as all branches in it, again and again. */
export const deepestCompared = 6;

/**
 * Whether two ICU messages surely have the same arguments and tags, in the same order, as the trees made of their parts would
 * have them.
 */
export function haveSameIcuParts(one: IcuParts, other: IcuParts): boolean {
  return haveSameContent(new PartsPlace(one), new PartsPlace(other), deepestCompared);
}

/** The kind of the first part from a place on that is no words; the place is there then. */
function afterWords(place: PartsPlace): number {
  for (;;) {
    const { kind } = place;
    if (kind === partText) place.at += 3;
    else if (kind === partCount) place.at += 2;
    else if (kind === partResolved) place.at += 4 + 2 * place.number(3);
    else return kind;
  }
}

/** Compares what stands up to the ends of what two places are in; both are behind those then, if it is the same. */
function haveSameContent(one: PartsPlace, other: PartsPlace, levels: number): boolean {
  for (;;) {
    const kind = afterWords(one);
    const otherKind = afterWords(other);
    if (kind === partEnd || otherKind === partEnd) {
      one.at++;
      other.at++;
      return kind === otherKind;
    }
    if (!isSamePart(one, kind, other, otherKind, levels)) return false;
  }
}

function isSamePart(
  one: PartsPlace,
  kind: number,
  other: PartsPlace,
  otherKind: number,
  levels: number,
): boolean {
  if (kind === partTag || kind === partChoice) {
    if (kind !== otherKind || one.slice(3) !== other.slice(3)) return false;
    return kind === partTag ? isSameTag(one, other, levels) : isSameChoice(one, other, levels);
  }
  if (!isArgument(otherKind) || one.slice(nameIndex(kind)) !== other.slice(nameIndex(otherKind)))
    return false;
  const isFormatted = kind === partFormatted;
  if (isFormatted !== (otherKind === partFormatted)) return false;
  if (isFormatted && one.slice(5).toLowerCase() !== other.slice(5).toLowerCase()) return false;
  one.at += argumentLength(kind);
  other.at += argumentLength(otherKind);
  return true;
}

function isSameTag(one: PartsPlace, other: PartsPlace, levels: number): boolean {
  const holds = one.number(6);
  const otherHolds = other.number(6);
  // Attributes are rarely there, and rarely alike.
  if (holds !== otherHolds || (holds & holdsAttributes) !== 0) return false;
  one.at += 7;
  other.at += 7;
  return (holds & holdsContent) === 0 || haveSameContent(one, other, levels);
}

function isSameChoice(one: PartsPlace, other: PartsPlace, levels: number): boolean {
  if (levels === 0 || one.number(5) !== other.number(5)) return false;
  if (Number(one.slice(6)) !== Number(other.slice(6))) return false;
  one.at += 8;
  other.at += 8;
  // Languages have other numbers of branches: all must have what the first has.
  if (one.kind !== partBranch) return false;
  const first = one.at + 6;
  return (
    areBranchesLike(one.message, first, one, levels) && areBranchesLike(one.message, first, other, levels)
  );
}

/** Whether all branches from a place on have what a content has; the place is behind them and their choice then. */
function areBranchesLike(message: IcuParts, first: number, place: PartsPlace, levels: number): boolean {
  while (place.kind === partBranch) {
    place.at += 6;
    if (!haveSameContent(new PartsPlace(message, first), place, levels - 1)) return false;
  }
  place.at++;
  return true;
}
