/** A word as a shell takes it whole: in single quotes where it holds anything that a shell gives a meaning. */
export function shellWord(word: string): string {
  return /^[\p{L}\p{N}_.:/@%+=,-]+$/u.test(word) ? word : `'${word.replaceAll("'", `'\\''`)}'`;
}
