/**
 * An ICU message that was read but not yet made into a tree: its parts in a row of numbers, as most messages are only asked
 * for a few things. Each part is one of the kinds below with the numbers named behind it; places are code units of the
 * message. What stands inside a part follows it, up to a `partEnd`.
 */
export interface IcuParts {
  readonly source: string;
  /** Numbers of many messages; this one's are those from `first` up to `last`. */
  readonly parts: Int32Array;
  readonly first: number;
  readonly last: number;
  /** The texts that are not as they are written, as quoting and doubled apostrophes were resolved. */
  readonly texts: readonly string[];
}

/** Ends the content of a choice, a branch, a tag or a tag's attributes. */
export const partEnd = 0;

/** Text: start, end, its place among the texts or -1 where it is as written. */
export const partText = 1;

/** `#`: its place. */
export const partCount = 2;

/** `{name}`: start, end, name start, name end. */
export const partArgument = 3;

/** `{name, type, style}`: start, end, name start, name end, type start, type end, style start (or -1), style end. */
export const partFormatted = 4;

/**
 * A plural or select: start, end, name start, name end, what it is (0 plural, 1 selectordinal, 2 select), start and end of
 * the number behind `offset:`. Its branches follow.
 */
export const partChoice = 5;

/** A branch: start, end, selector start, selector end. Its content follows. */
export const partBranch = 6;

/**
 * A tag: start, end, name start, name end, end of the opening tag, what it holds (of the next four). Its attributes
 * follow, then its content.
 */
export const partTag = 7;

/** What a tag holds: nothing, as it is closed in itself or never closes; attributes; content; both. */
export const holdsAttributes = 1;
export const holdsContent = 2;
