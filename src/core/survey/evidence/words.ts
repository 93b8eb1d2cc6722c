import { fixedText, type Literal } from "../../source/model.js";
import { lazily } from "../../text/lazy.js";
import { companyOf, evidence, givenName, isAmongRules, type Evidence, type Place } from "../company.js";
import { shapeOf } from "../shape.js";
import { pluralizing } from "./called.js";
import type { EvidenceSource } from "./source.js";

/** Whether a text is a name that a value is put into, as templates give parts of a page one: `form_{boat}`. */
function isNameWithValue({ pieces }: Literal, joint: RegExp): boolean {
  if (pieces.length < 2 || pieces.some((piece) => piece.kind === "tag")) return false;
  const name = pieces
    .map((piece) => (piece.kind === "text" ? piece.value : "x"))
    .join("")
    .trim();
  return joint.test(name) && /^[a-z][\w-]{0,60}(?:\.[\w-]{1,60}){0,6}$/.test(name);
}

/** Whether a name with marks is an argument, as widgets take it beside what they show: `Label("Name", "filter_name")`. */
function isNameOfPart({ context: { role, index = 0 }, pieces }: Literal): boolean {
  if (role !== "argument") return false;
  const word = fixedText(pieces).trim();
  // Words with hyphens are written in texts too.
  return (
    /^[a-z][a-z0-9]*(?:_[a-z0-9]+)+$/.test(word) ||
    (index > 0 && /^[a-z][a-z0-9]*(?:-[a-z0-9]+)+$/.test(word))
  );
}

/** What is said of a name of code that is none any more: "on-text is renamed to active-text". */
const renamed =
  /^[`'"<]?[\w.()-]{2,60}[`'">]? (?:is|was|are|has been|have been|will be) (?:renamed to|deprecated|removed in)(?!\p{L})/u;

export const shaped: EvidenceSource = (literal, _habits, _own, place) => {
  const found = shapeOf(fixedText(literal.pieces));
  if (isAmongRules(literal, place)) return [evidence("technicalShape", "among rules for values")];
  const inContent = literal.context.role === "content";
  const all: Evidence[] = found.otherScript
    ? [evidence("otherScript", "letters of a script that code is not written in")]
    : [];
  if (inContent && /^\s*(?:[,:;)\]]|\.\s)/.test(fixedText(literal.pieces)))
    all.push(evidence("restOfSentence", "begins as the rest of a sentence does"));
  if (inContent && /^\s*[a-z][a-z0-9]*(?:_[a-z0-9]+)+:\s*$/.test(fixedText(literal.pieces)))
    all.push(evidence("technicalShape", "a name of a program before its value"));
  if (!inContent && renamed.test(fixedText(literal.pieces)))
    all.push(evidence("codeCall", "tells developers that a name is none any more"));
  if (isNameWithValue(literal, inContent ? /_/ : /[._]/))
    all.push(evidence("technicalShape", "a name with a value in it"));
  switch (found.name) {
    case "technical":
      return [...all, evidence("technicalShape", found.reason)];
    case "identifier":
      if (isNameOfPart(literal)) return [...all, evidence("nameOfPart", found.reason)];
      return [...all, evidence(inContent ? "identifierShapeInContent" : "identifierShape", found.reason)];
    case "classList":
      return inContent ? all : [...all, evidence("classListShape", found.reason)];
    case "sentence":
      return [...all, evidence("sentence", found.reason)];
    case "words":
      return [...all, evidence("severalWords", found.reason)];
    case "datePattern":
      return [
        ...all,
        evidence(literal.context.role === "argument" ? "datePattern" : "technicalShape", found.reason),
      ];
    case "capitalized":
    case "lowerCase": {
      if (isBesideValue(literal) || isAppended(literal))
        return [...all, evidence("severalWords", "a word beside a value")];
      const company = companyOf(literal, found.name, place);
      if (company) all.push(company);
      if (found.name === "lowerCase") {
        if (literal.context.role === "attribute" && /:/.test(literal.context.element ?? ""))
          all.push(evidence("keyOfElement", "a name that an element of the program is given"));
        // The forms of a plural are words, however short they are.
        if (
          literal.pieces.some((piece) => piece.kind === "choice" && piece.choice === "plural") ||
          pluralizing.test(literal.context.name ?? "")
        )
          return all;
        const { role, index = 0 } = literal.context;
        if (role === "argument" && fixedText(literal.pieces).trim().length <= 2)
          all.push(evidence("tooShort", "two letters"));
        // Behind what is shown often stands of which kind it is: `flash("Saved", "success")`.
        const isLater = role === "argument" && index > 0;
        return [
          ...all,
          evidence(
            isLater
              ? "laterLowerCaseWord"
              : isNamedValue(literal) && !isForPeople(literal)
                ? "lowerCaseValue"
                : "lowerCaseWord",
            found.reason,
          ),
        ];
      }
      if (
        /\p{Ll}{2}(?:[?!…]|\.{1,3}|: )$/u.test(
          fixedText(literal.pieces)
            .trimStart()
            .replace(/(?<=[?!….]) +$/, ""),
        )
      )
        all.push(evidence("endMark", "a word with an end mark"));
      return [...all, evidence(isNamedValue(literal) ? "capitalizedValue" : "capitalizedWord", found.reason)];
    }
    case "capitals":
      if (isBesideValue(literal) && currencies().has(fixedText(literal.pieces).trim()))
        return [...all, evidence("technicalShape", "the code of a currency")];
      return inContent || isBesideValue(literal) ? all : [...all, evidence("allCapitals", found.reason)];
    case "short":
      return [...all, evidence("tooShort", found.reason)];
    case "other":
      return all;
  }
};

/** Whether nothing but a word for people stands in such a place, in whatever case. */
function isForPeople(literal: Literal): boolean {
  return (
    literal.pieces.length > 1 ||
    literal.context.isShown === true ||
    /^(?:verbose|display|plural|human)_|^(?:verbose|display|plural|human)[A-Z]/.test(givenName(literal))
  );
}

/** The codes of currencies (ISO 4217). */
const currencies = lazily(() => new Set(Intl.supportedValuesOf("currency")));

/** Whether the literal is the value of a name, as data is: a name of somebody, a unit, a code. */
function isNamedValue({ context }: Literal): boolean {
  return (
    context.role === "property" ||
    context.role === "variable" ||
    context.role === "attribute" ||
    context.role === "assignment"
  );
}

/** Whether a word is put to others with the space between them: `text.append(" is ")`. */
function isAppended({ context, pieces }: Literal): boolean {
  return (
    context.role === "argument" &&
    /append|print|write/i.test(/(?<!\w)\w+$/.exec(context.name ?? "")?.[0] ?? "") &&
    /^ +\S|\S +$/.test(fixedText(pieces))
  );
}

/** Whether a word stands beside a value with white space between them, as words in a sentence do. */
function isBesideValue({ pieces }: Pick<Literal, "pieces">): boolean {
  const isChosen = pieces.some(
    (piece) => piece.kind === "choice" && piece.branches.some((branch) => isBesideValue(branch)),
  );
  const texts = pieces.flatMap((piece) =>
    piece.kind === "choice" ? (piece.branches.at(-1)?.pieces ?? []) : [piece],
  );
  return (
    isChosen ||
    (pieces.some(({ kind }) => kind === "argument") &&
      texts.some((piece) => piece.kind === "text" && /\s/.test(piece.value)))
  );
}

/** Whether a literal that a number chooses is a form of a text: a word beside one like it, or more than a word. */
function isForm(literal: Literal, place: Place): boolean {
  const text = fixedText(literal.pieces).trim();
  // Names of a program are chosen by a number too: `late ? "boatRow isLate" : "boatRow"`.
  if (
    /(?:^|\s)[a-z]{2,30}(?:[A-Z][a-z]+){2,}(?:\s|$)|(?:^|\s)[a-z]+(?:[_-]{1,2}[a-z]+){2,}(?:\s|$)/.test(text)
  )
    return false;
  if (literal.pieces.some(({ kind }) => kind !== "text") || !/^[\p{Ll}\p{N}-]*$/u.test(text)) return true;
  const stem = (word: string) => word.toLowerCase().slice(0, 3);
  return [-1, 1].some((step) => {
    const other = place.literals[place.index + step];
    const isBeside = other?.remarks?.some(({ kind }) => kind === "plural-by-hand") === true;
    return (
      isBeside &&
      fixedText(other.pieces)
        .match(/\p{L}+/gu)
        ?.some((word) => stem(word) === stem(text))
    );
  });
}

export const remarked: EvidenceSource = (literal, _habits, _own, place) => {
  const { remarks, pieces } = literal;
  const isPlural = pieces.some((piece) => piece.kind === "choice" && piece.choice === "plural");
  const isChosen = remarks?.some(({ kind }) => kind === "plural-by-hand") === true;
  const hasWord = /\p{L}\p{L}/u.test(fixedText(pieces)) || pieces.some(({ kind }) => kind === "choice");
  // Keys of forms are chosen so as well: `n > 1 ? "boatsSaved_plural" : "boatsSaved"`.
  const isName = () => /^(?:identifier|technical)$/.test(shapeOf(fixedText(pieces)).name);
  const [only] = pieces;
  if (isPlural && pieces.length === 1 && only?.kind === "choice") {
    const forms = only.branches.map((branch) => fixedText(branch.pieces)).filter((form) => form !== "");
    if (forms.length > 0 && forms.every((form) => shapeOf(form).name === "identifier"))
      return evidence("identifierShape", "a number chooses between names");
  }
  if (isPlural || (isChosen && hasWord && isForm(literal, place) && !isName()))
    return evidence("pluralByHand", "a plural made by hand");
  if (remarks?.some(({ kind }) => kind === "chosen-by-language"))
    return evidence("chosenByLanguage", "chosen by language in code");
  return undefined;
};

/** A letter that opens an entry of a menu is marked in it: `&Rename tab`, `E&xit`. */
export const mnemonic: EvidenceSource = ({ pieces, context }) => {
  const text = fixedText(pieces).trim();
  return context.role !== "content" &&
    text.length <= 60 &&
    /^[^=?;<>&/\\]*(?<!\S[^\p{L}]?)&\p{L}[^=;<>&]*$|^\p{L}+&\p{Ll}[^=;<>&]*$/u.test(text) &&
    /\p{Ll}{2}/u.test(text)
    ? evidence("mnemonic", "a letter in it is marked to be typed")
    : undefined;
};

/** The headings of a table, as they stand above its rows in a file: `Store;Sacks;Since`. */
export const headings: EvidenceSource = ({ pieces, context }) =>
  context.role !== "content" &&
  /^\p{Lu}[\p{L} ]{1,40}(?:([;,\t])\p{Lu}[\p{L} ]{1,40})(?:\1\p{Lu}[\p{L} ]{1,40}){1,40}$/u.test(
    fixedText(pieces).trim(),
  )
    ? evidence("headings", "the headings of a table")
    : undefined;
