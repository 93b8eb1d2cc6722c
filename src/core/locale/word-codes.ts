/** Codes of languages that are words of English, or short for some, with which people and programs mark files: `texts_new`, `all.js`. */
const words =
  /^(?:all|any|api|app|ban|bas|bin|bug|cli|com|day|den|dev|doc|ext|fan|fat|gay|got|hit|lib|log|mad|map|men|min|mix|mod|nap|new|old|out|raw|sad|sat|son|src|sub|sun|tmp|war|was|web)$/;

/** Whether the code of a language that is written somewhere may well be a word that marks a file. */
export function isWordOfEnglish(written: string): boolean {
  return words.test(written);
}
