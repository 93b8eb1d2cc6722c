/** Folders and files that hold texts, by their names. */
const textPlace =
  /^(?:lang|langs|languages?|locales?|locali[sz]ations?|i18n|l10n|nls|translations?|messages?|texts?|strings|dictionar(?:y|ies)|copy)$/i;

/** Whether a folder or file, without its ending, is named for the texts that it holds. */
export function isTextPlace(name: string): boolean {
  return textPlace.test(name);
}
