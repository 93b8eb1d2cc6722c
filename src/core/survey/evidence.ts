import { fixedText, type Literal } from "../source/model.js";
import { habitsOf } from "../source/languages/index.js";
import type { OwnHabits } from "./own-habits.js";
import { lazily } from "../text/lazy.js";
import {
  evidence,
  givenName,
  isNamedForTexts,
  isOfPairs,
  isOfPhrases,
  type Evidence,
  type Place,
} from "./company.js";
import { shapeOf } from "./shape.js";
import { settled, weights, type EvidenceName } from "./weights.js";
import { around, called } from "./evidence/called.js";
import { attribute, content } from "./evidence/markup.js";
import { named } from "./evidence/names.js";
import { languageInItself } from "./evidence/own-names.js";
import { statusPhrase } from "./evidence/status-phrases.js";
import type { EvidenceSource } from "./evidence/source.js";
import {
  besideChecks,
  besideKey,
  besideWidget,
  debugged,
  described,
  inHeaders,
  loggedOnly,
  marked,
  ofOtherLocale,
  piped,
  used,
} from "./evidence/uses.js";
import { walked } from "./evidence/walked.js";
import { headings, mnemonic, remarked, shaped } from "./evidence/words.js";

/** Everything that is known about a literal, in the order in which it is said. */
export function gatherEvidence(
  literal: Literal,
  own?: OwnHabits,
  place: Place = { literals: [literal], index: 0 },
): readonly Evidence[] {
  const found = [...placedIn(place, own).of(place.index)];
  // What surely is code by its place alone need not be looked at.
  if (!found.some(({ name }) => weights[name] <= settled)) found.push(...ask(looking, literal, own, place));
  const has = (...names: EvidenceName[]) => found.some(({ name }) => names.includes(name));
  if (has("codeName", "shownName") && isOfPhrases(literal, place))
    found.push(evidence("phrasesListed", "one of a list of such texts"));
  else if (isOfPairs(literal, place) && (has("codeName") || !has("listed", "namedTwin")))
    found.push(evidence(has("codeName") ? "phrasesListed" : "listed", "beside what programs call it"));
  if (has("shownName")) {
    if (isNamedForTexts(literal, place))
      found.push(evidence("sentenceName", `${givenName(literal)} is given sentences in this file`));
    else if (has("sentence", "severalWords")) found.push(evidence("phraseForPeople", "more than a word"));
  }
  return has("listed", "besideWidget") ? found.filter(({ name }) => name !== "alone") : found;
}

function ask(
  sources: readonly EvidenceSource[],
  literal: Literal,
  own: OwnHabits | undefined,
  place: Place,
): readonly Evidence[] {
  const habits = habitsOf[literal.context.language];
  return sources.flatMap((source) => source(literal, habits, own, place) ?? []);
}

/** What the places of a file's literals say of them. */
interface Placed {
  of(index: number): readonly Evidence[];
  /** Whether the file shows texts: more than one stands where people read it. */
  shows(): boolean;
  /** Whether half of its literals or more, and not just a few, stand where people read them. */
  showsMostly(): boolean;
  /** Whether a text that people read takes in what a name of a function holds. */
  takesIn(name: string): boolean;
}

const placedByFile = new WeakMap<
  readonly Literal[],
  { readonly own: OwnHabits | undefined; readonly placed: Placed }
>();

/** What places say, found once for each literal: others of the file are judged by it too. */
function placedIn(place: Place, own: OwnHabits | undefined): Placed {
  const { literals } = place;
  const known = placedByFile.get(literals);
  if (known && known.own === own) return known.placed;
  const found: (readonly Evidence[])[] = [];
  const of = (index: number) => {
    const literal = literals[index];
    return literal ? (found[index] ??= ask(placing, literal, own, { ...place, index })) : [];
  };
  const shows = lazily(() => {
    let count = 0;
    for (let index = 0; index < literals.length && count < 2; index++)
      if (of(index).some(({ name }) => placesOfTexts.has(name))) count++;
    return count > 1;
  });
  const showsMostly = lazily(() => {
    let count = 0;
    for (let index = 0; index < literals.length; index++)
      if (of(index).some(({ name }) => placesOfTexts.has(name))) count++;
    return count >= fewest && count * 2 >= literals.length;
  });
  const taken = lazily(() => {
    const names = new Set<string>();
    for (const [index, { context, pieces }] of literals.entries()) {
      if (context.role === "attribute" || pieces.length < 2) continue;
      if (!of(index).some(({ name }) => placesOfTexts.has(name))) continue;
      for (const piece of pieces)
        if (piece.kind === "argument") names.add(`${context.component ?? ""} ${piece.code.trim()}`);
    }
    return names;
  });
  const placed = { of, shows, showsMostly, takesIn: (name: string) => taken().has(name) };
  placedByFile.set(literals, { own, placed });
  return placed;
}

/** Evidence of a place that people read. */
const placesOfTexts: ReadonlySet<EvidenceName> = new Set([
  "content",
  "textAttribute",
  "textProp",
  "textCall",
  "textBuilder",
  "textName",
  "textMember",
  "textHolder",
  "shownMember",
  "returnedFromTextFunction",
]);

/** A file with fewer literals says nothing of any of them. */
const fewest = 6;

/** What only looks like a text, in a file that shows nothing to anybody. */
const alone: EvidenceSource = (_literal, _habits, own, place) => {
  const placed = placedIn(place, own);
  return place.literals.length < fewest ||
    placed.shows() ||
    placed.of(place.index).some(({ name }) => weights[name] > 0)
    ? undefined
    : evidence("alone", "nothing in the file is surely shown");
};

/** What a name holds that a shown text of the same function takes in: `kind = "anchor rope"; flash(f"The {kind} is ready.")`. */
const filledIn: EvidenceSource = (literal, _habits, own, place) => {
  const { role, component } = literal.context;
  if (role !== "variable" && role !== "assignment") return undefined;
  const name = givenName(literal);
  return name !== "" && placedIn(place, own).takesIn(`${component ?? ""} ${name}`)
    ? evidence("filledIn", `${name} is put into a text`)
    : undefined;
};

/** A word with a capital that nothing is known of, in a file of which most is shown. */
const amongShown: EvidenceSource = (literal, _habits, own, place) => {
  const placed = placedIn(place, own);
  return shapeOf(fixedText(literal.pieces)).name === "capitalized" &&
    placed.of(place.index).every(({ name }) => name === "plainVariable") &&
    placed.showsMostly()
    ? evidence("amongShown", "most of the file is shown")
    : undefined;
};

/** So many texts looked up, and more of them than others that are shown, make a file one whose texts are out already. */
const leastLookups = 3;

/** What is left in capitals in a file whose texts are out: mostly a word of another language, such as SQL, or an abbreviation. */
const leftInCapitals: EvidenceSource = (literal, _habits, own, place) => {
  const { lookups = 0, literals } = place;
  if (lookups < leastLookups || !isInCapitals(literal)) return undefined;
  const placed = placedIn(place, own);
  const shown = literals.filter(
    (one, at) => !isInCapitals(one) && placed.of(at).some(({ name }) => placesOfTexts.has(name)),
  );
  return shown.length <= lookups
    ? evidence("leftInCapitals", "in capitals, in a file whose texts are looked up")
    : undefined;
};

function isInCapitals({ pieces }: Literal): boolean {
  const text = fixedText(pieces);
  return /\p{Lu}{2}/u.test(text) && !/\p{Ll}/u.test(text);
}

const placing: readonly EvidenceSource[] = [
  content,
  attribute,
  called,
  named,
  used,
  described,
  debugged,
  around,
  marked,
  ofOtherLocale,
  languageInItself,
  statusPhrase,
  besideChecks,
];

const looking: readonly EvidenceSource[] = [
  besideKey,
  piped,
  loggedOnly,
  walked,
  shaped,
  headings,
  inHeaders,
  mnemonic,
  besideWidget,
  remarked,
  filledIn,
  amongShown,
  leftInCapitals,
  alone,
];
