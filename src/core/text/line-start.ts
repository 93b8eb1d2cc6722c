/** Where the line of a place starts; the place itself may be its line feed or the end of the text. */
export function lineStart(text: string, at: number): number {
  // With a place before the text the search would look at the first character all the same.
  return at <= 0 ? 0 : text.lastIndexOf("\n", at - 1) + 1;
}
