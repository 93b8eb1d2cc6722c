/**
 * What each piece of evidence weighs, in log-odds: added up, the score is 1 / (1 + e^-sum).
 * Positive speaks for text that users read, negative for code. All weights stand here so that they
 * can be tuned against each other.
 */
export const weights = {
  content: 3.5,
  contentOfCodeElement: -4,
  /** Of an element that is none of a page's: an entry of a document, or a part that the program makes for itself. */
  contentOfUnknown: 0.8,
  textAttribute: 3.5,
  codeAttribute: -6,
  eventAttribute: -6,
  textProp: 2.2,
  unknownElementAttribute: -2,
  textCall: 2.8,
  /** A method of a builder that is named for a text. */
  textBuilder: 1.6,
  /** What stands first where a part of a window is made. */
  partLabel: 1.1,
  codeCall: -5,
  /** A sentence given to a call whose name is one that programs use for themselves: `open`, `make`. */
  codeCallWithText: -1.8,
  /** It is a key, or a text that stands for one. */
  lookedUp: -7,
  /** What a table of the code has for another language than the source's. */
  otherLanguage: -7,
  /** "Deutsch" beside "de". */
  languageName: -7,
  /** "Not Found" beside 404, in a table of such. */
  statusPhrase: -7,
  /** "required" among "required|string". */
  valueCheck: -6,
  /** Only who looks for faults in the program sees it. */
  debugging: -5,
  unknownCall: -0.8,
  /** A call in a template that puts something on the page. */
  unknownHelper: -0.1,
  developerError: -1.6,
  /** What an object says of itself, with its values: mostly for who looks for faults. */
  described: -1.5,
  /** A word in lower case that an element of the program is given: mostly a key that it looks up. */
  keyOfElement: -1.2,
  textName: 2.8,
  codeName: -3,
  /** A name of what programs read and people are shown as well: `status`. */
  shownName: -3,
  /** More than a word under such a name. */
  phraseForPeople: 2,
  /** Elsewhere in the file it is surely a text that is given that name. */
  sentenceName: 3.5,
  /** A property of CSS. */
  styleName: -5,
  /** A member of an object that a page picks by a value and shows. */
  shownMember: 2.8,
  /** The name of an entry beside its icon or address, as menus have them. */
  menuEntry: 0.7,
  /** The name of a tab, a column, a step. */
  partOfPage: 0.9,
  plainVariable: -0.6,
  textMember: 3,
  compared: -5,
  /** Another program is given it to read. */
  piped: -6,
  objectKey: -7,
  /** A name in quotes for a plain word, as choices are listed in some languages: `"Pale ale" => :pale`. */
  namedChoice: -0.1,
  index: -6,
  tagged: -5,
  typeOrModule: -9,
  methodOfString: -2.5,
  returnedFromTextFunction: 1.2,
  sentence: 2.2,
  /** What it continues is written elsewhere, so it is not a text by itself. */
  restOfSentence: -3,
  severalWords: 1.4,
  /** It is in a file in which nothing stands where texts do. */
  alone: -0.75,
  /** A word in capitals where all other texts are looked up. */
  leftInCapitals: -2,
  /** “Loading…”, “Delete?” */
  endMark: 0.9,
  capitalizedWord: 1.15,
  capitalizedValue: 0.6,
  textHolder: 1.2,
  allCapitals: -1.2,
  lowerCaseWord: -1.7,
  /** Such a word as the value of a name, where programs keep theirs too. */
  lowerCaseValue: -2,
  laterLowerCaseWord: -2.6,
  otherScript: 4,
  identifierShape: -3.4,
  identifierShapeInContent: -3.2,
  /** Such a name with marks as an argument: what is shown has blanks. */
  nameOfPart: -7,
  technicalShape: -4.5,
  datePattern: 0,
  pluralByHand: 2.9,
  chosenByLanguage: 1.5,
  classListShape: -3,
  tooShort: -2.2,
  /** Beside it stands the same word as a program writes it: `{ value: "rye", label: "Rye" }`. */
  namedTwin: 1.6,
  /** The other of the two. */
  codeTwin: -3,
  /** Beside it stands of which kind the part of the window is: `("Match pan", "checkbutton")`. */
  besideWidget: 1.6,
  /** All of a list are words with a capital. */
  listed: 1.3,
  /** Others that the same function or property is given in this file are surely texts. */
  alike: 0.8,
  /** A word returned beside others that are more than a word. */
  answerAmongTexts: 3,
  /** A text that people read takes it in. */
  filledIn: 3.4,
  /** What it names is got by a call. */
  got: -3.6,
  /** Most of the file is shown to people. */
  amongShown: 0.5,
  /** Texts in a list whose name is one that programs use for themselves: `classes = ["First class", …]`. */
  phrasesListed: 3,
  /** `Store;Sacks;Since`. */
  headings: 1.5,
  /** `&Rename tab`. */
  mnemonic: 2,
  printed: -0.4,
  /** In a file that is run in a terminal, where who keeps the program reads it. */
  inTerminal: -1,
  /** What a schema says of a value: for who writes settings, or for who fills in a form. */
  inSchema: 0,
  /** What the description of an interface of programs says of an operation. */
  ofInterface: -5,
} as const;

/** Evidence of at most this weight settles the matter: the text itself is not looked at any more. */
export const settled = -6;

export type EvidenceName = keyof typeof weights;

/**
 * From `text` on a literal is `text`, and from `sure` on it surely is; at most `code` and it is `code`; between them it is
 * `unclear`.
 */
export const thresholds = { sure: 0.96, text: 0.73, code: 0.3 } as const;
