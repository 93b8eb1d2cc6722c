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
}

/** Ends the content of a choice, a branch, a tag or a tag's attributes. */
export const partEnd = 0;

/** Text as it is written: start, end. */
export const partText = 1;

/** `#`: its place. */
export const partCount = 2;

/** `{ name }`, or what could be made out of such: start, end, name start, name end. */
export const partArgument = 3;

/** `{name, type, style}`: start, end, name start, name end, type start, type end, style start (or -1), style end. */
export const partFormatted = 4;

/**
 * A plural or select: start, end, name start, name end, what it is (0 plural, 1 selectordinal, 2 select), start and end of
 * the number behind `offset:`. Its branches follow.
 */
export const partChoice = 5;

/** A branch: start, end, selector start, selector end, where the branch before it stands or -1. Its content follows. */
export const partBranch = 6;

/**
 * Text that is not as it is written, since quoting and doubled apostrophes were resolved: start, end, of how many pieces of
 * the message it is made, then start and end of each.
 */
export const partResolved = 8;

/** `{name}`, no white space in it, as nearly all arguments are: name start, name end. */
export const partNamed = 9;

/**
 * A tag: start, end, name start, name end, end of the opening tag, what it holds (of the next four). Its attributes
 * follow, then its content.
 */
export const partTag = 7;

/** What a tag holds: nothing, as it is closed in itself or never closes; attributes; content; both. */
export const holdsAttributes = 1;
export const holdsContent = 2;
