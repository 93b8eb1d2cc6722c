import { fixedText, type Literal } from "../source/model.js";
import { shapeOf, type Shape } from "./shape.js";
import type { EvidenceName } from "./weights.js";

/** One thing that speaks for or against a literal being text, with its reason in words. */
export interface Evidence {
  readonly name: EvidenceName;
  readonly reason: string;
}

/** Where a literal stands among those of its file. */
export interface Place {
  readonly literals: readonly Literal[];
  readonly index: number;
  /** What the file holds. */
  readonly text?: string;
  /** So many texts the file looks up already. */
  readonly lookups?: number;
}

export const evidence = (name: EvidenceName, reason: string): Evidence => ({ name, reason });

/** The name that the literal's value is given: the innermost property, else what the role is about. */
export function givenName(literal: Literal): string {
  const { properties, name } = literal.context;
  return properties?.[properties.length - 1] ?? name ?? "";
}

/** What stands beside a single word: the same word as programs write it, or more of its kind. */
export function companyOf(
  literal: Literal,
  shape: "capitalized" | "lowerCase",
  place: Place,
): Evidence | undefined {
  const word = fixedText(literal.pieces).trim();
  const plain = plainWord(word);
  const isTwin = (other: string) => other !== word && plainWord(other) === plain;
  const beside = [neighbor(place, -1), neighbor(place, 1)].map((one) =>
    one ? fixedText(one.pieces).trim() : "",
  );
  if (shape === "lowerCase") {
    if (beside.some((other) => isTwin(other) && /^\p{Lu}/u.test(other)))
      return evidence("codeTwin", "stands beside the same word with a capital");
    if (isNamedForPhrases(literal, place))
      return evidence("alike", `${givenName(literal)} is given more than words in this file`);
    return isAnswerAmongTexts(literal, place)
      ? evidence("answerAmongTexts", "the others that stand for it are texts")
      : undefined;
  }
  if (isAmongNames(literal, place) && !isOfPairs(literal, place))
    return evidence("codeTwin", "in a list with names of the program");
  const name = literal.context.role === "property" ? givenName(literal) : "";
  if (/^["']?[^\P{L}A-Za-z]["']?$/u.test(name) && word.length <= 3)
    return evidence("codeTwin", "what a letter is written as");
  if (/^[\p{Ll}_]/u.test(name) && isTwin(name)) return evidence("namedTwin", `what ${name} is called`);
  const twin = beside.find((other) => /^\p{Ll}/u.test(other) && isTwin(other));
  if (twin !== undefined) return evidence("namedTwin", `what ${twin} is called`);
  if (runOf(place, groupOf)?.isOfPairs) return evidence("listed", "named beside what programs call it");
  if (isAmongTexts(literal, place))
    return evidence("alike", `${givenName(literal) || "the same"} is given texts in this file`);
  if (/^(?:name|NAME)$/.test(literal.context.properties?.at(-1) ?? name) && isMenuEntry(literal, place))
    return evidence("menuEntry", "the name of an entry with an icon or address");
  return isListed(literal, place) ? evidence("listed", "one of a list of such words") : undefined;
}

/** Whether a word stands in a list beside names that no text has: `["Pier", "PierName", "Depth"]`. */
function isAmongNames({ context: { role, name } }: Literal, place: Place): boolean {
  if (role !== "variable" && role !== "returned") return false;
  return ([-1, 1] as const).some((step) => {
    const other = neighbor(place, step);
    return (
      other?.context.role === role &&
      other.context.name === name &&
      /^[A-Z][a-z0-9]+(?:[A-Z][a-z0-9]+)+$|^[A-Za-z][A-Za-z0-9]*_\w+$/.test(fixedText(other.pieces))
    );
  });
}

/** Kinds of parts of a window, as lists of them say. */
const kindOfWidget =
  /^(?:l?label|heading|button|(?:check|radio|toggle|push|tool|spin)(?:button|box)|check|radio|toggle|slider|combo(?:box)?|entry|textfield|textarea|dropdown|textinput|menuitem|submenu|fieldset)$/i;

/** Whether a literal stands before the name of a kind of widget, in a list: `("Match pan", "checkbutton")`. */
export function isBesideWidget(literal: Literal, place: Place): boolean {
  const { role } = literal.context;
  if (
    role !== "variable" &&
    role !== "returned" &&
    role !== "argument" &&
    role !== "property" &&
    role !== "other"
  )
    return false;
  if (kindOfWidget.test(fixedText(literal.pieces).trim())) return false;
  const next = neighbor(place, 1);
  return (
    next?.context.role === role &&
    next.context.name === literal.context.name &&
    kindOfWidget.test(fixedText(next.pieces))
  );
}

/** What programs for terminals read arguments and ask with, by the names it usually has. */
const terminalCall =
  /^(?:program|commander|[cC]ommand|yargs|inquirer|prompts|enquirer|cli|rl|readline)(?:\.|$)|(?:^|\.)(?:requiredOption|addHelpText)$/;

const terminalPrograms = new WeakMap<readonly Literal[], boolean>();

/** Whether the file is part of a program that talks to its users in a terminal. */
export function isTerminalProgram({ literals }: Place): boolean {
  let is = terminalPrograms.get(literals);
  if (is === undefined) {
    is = literals.some(
      ({ context: { role, name = "", element = "" } }) =>
        (role === "argument" && terminalCall.test(name)) ||
        (role === "property" && terminalCall.test(element)),
    );
    terminalPrograms.set(literals, is);
  }
  return is;
}

const terminalFiles = new WeakMap<readonly Literal[], boolean>();

/** Whether a file, by what its language has for terminals alone, prints there what it prints. */
export function isTerminalFile({ literals, text }: Place, sign: RegExp | undefined): boolean {
  if (!sign || text === undefined) return false;
  let is = terminalFiles.get(literals);
  if (is === undefined) {
    is = sign.test(text);
    terminalFiles.set(literals, is);
  }
  return is;
}

/** Literals that stand one behind the other and have something in common. */
interface Run {
  /** Whether they are words with a capital, or longer texts, and more than one. */
  readonly isOfWords: boolean;
  /** Whether they are three or more, all begin with a capital, and are more than a word. */
  readonly isOfPhrases: boolean;
  /** Whether names and words alternate: what programs and what people call each value. */
  readonly isOfPairs: boolean;
}

/** What literals of a run have in common; undefined for those that are passed over. */
type Common = (literal: Literal) => string | undefined;

const runsByFile = new WeakMap<readonly Literal[], Map<Common, readonly (Run | undefined)[]>>();

/** The run that a literal stands in. All runs of a file are found at once: a list may have thousands of words. */
function runOf({ literals, index }: Place, common: Common): Run | undefined {
  let runs = runsByFile.get(literals);
  if (!runs) runsByFile.set(literals, (runs = new Map()));
  let found = runs.get(common);
  if (!found) runs.set(common, (found = findRuns(literals, common)));
  return found[index];
}

/** What stands further apart than so many characters is not in one list. */
const farApart = 60;

/** The parts of a run that stand apart in the code. */
function apart(members: readonly Literal[]): readonly { readonly from: number; readonly to: number }[] {
  const parts: { from: number; to: number }[] = [];
  for (const [index, { span }] of members.entries()) {
    const last = members[index - 1];
    const part = parts.at(-1);
    if (part && last && span.start - last.span.end <= farApart) part.to = index + 1;
    else parts.push({ from: index, to: index + 1 });
  }
  return parts;
}

function findRuns(literals: readonly Literal[], common: Common): readonly (Run | undefined)[] {
  const found = new Array<Run | undefined>(literals.length);
  let places: number[] = [];
  let group: string | undefined;
  const close = () => {
    const members = places.flatMap((at) => literals[at] ?? []);
    if (members.length > 1) {
      const shapes = members.map(({ pieces }) => shapeOf(fixedText(pieces)).name);
      const isOfPhrases =
        members.length > 2 && members.every(({ pieces }) => /^\p{Lu}\S{1,40} \S/u.test(fixedText(pieces)));
      const run = { isOfWords: areWords(shapes), isOfPairs: arePairs(shapes), isOfPhrases };
      for (const at of places) found[at] = run;
      // Of several lists that have all of that in common some may be of words.
      if (!run.isOfWords)
        for (const { from, to } of apart(members))
          if (areWords(shapes.slice(from, to)))
            for (const at of places.slice(from, to)) found[at] = { ...run, isOfWords: true };
    }
    places = [];
  };
  for (const [at, literal] of literals.entries()) {
    const own = common(literal);
    if (own === undefined) continue;
    if (own !== group) close();
    group = own;
    places.push(at);
  }
  close();
  return found;
}

function areWords(shapes: readonly Shape["name"][]): boolean {
  // `ID` among names of columns says nothing of them.
  const told = shapes.filter((name) => name !== "capitals");
  return told.length > 1 && told.every((name) => /^(?:capitalized|sentence|words)$/.test(name));
}

/** `[["n", "New"], ["s", "Search"]]`: two pairs at least, each of a short name and words. */
function arePairs(shapes: readonly Shape["name"][]): boolean {
  const isWord = (name: Shape["name"] | undefined) => name === "capitalized" || name === "sentence";
  const isName = (name: Shape["name"]) =>
    /^(?:technical|lowerCase|identifier|short|capitals|other)$/.test(name);
  // The other way round: `[["New", "n"], ["Search", "s"]]`.
  if (shapes.length >= 4 && shapes.every((name, at) => (at % 2 === 0 ? isWord(name) : isName(name))))
    return true;
  // What stands for “none yet” has an empty value, which is no literal: `[["", "Choose one"], …]`.
  const first = isWord(shapes[0]) ? 1 : 0;
  if ((shapes.length - first) % 2 === 1 || shapes.length - first < 4) return false;
  return shapes.every((name, at) => (at < first || (at - first) % 2 === 1 ? isWord(name) : isName(name)));
}

const textsByPlace = new WeakMap<readonly Literal[], ReadonlyMap<string, number>>();

/** Where code gives the same function, property or attribute texts that are surely such, and nothing that is surely none. */
function isAmongTexts(literal: Literal, place: Place): boolean {
  return !/^(?:variable|assignment)$/.test(literal.context.role) && isNamedForTexts(literal, place);
}

/** How many texts stand in each place that a file gives several; less than none where names for programs do. */
function countTexts(literals: readonly Literal[]): ReadonlyMap<string, number> {
  const counts = new Map<string, number>();
  for (const literal of literals) {
    const id = placeId(literal);
    if (id === undefined) continue;
    const { name } = shapeOf(fixedText(literal.pieces));
    const before = counts.get(id) ?? 0;
    if (/^(?:identifier|technical|classList|lowerCase|datePattern)$/.test(name)) counts.set(id, -Infinity);
    else if (name === "sentence") counts.set(id, before + 1);
  }
  return counts;
}

const phrasesByPlace = new WeakMap<readonly Literal[], ReadonlyMap<string, number>>();

/** Whether a file gives a property, besides words in lower case, texts of several words, and no names for programs. */
function isNamedForPhrases(literal: Literal, { literals }: Place): boolean {
  if (literal.context.role !== "property") return false;
  let phrases = phrasesByPlace.get(literals);
  if (!phrases) {
    const counts = new Map<string, number>();
    for (const one of literals) {
      const id = one.context.role === "property" ? placeId(one) : undefined;
      if (id === undefined) continue;
      const { name } = shapeOf(fixedText(one.pieces));
      const before = counts.get(id) ?? 0;
      if (/^(?:identifier|technical|classList|datePattern)$/.test(name)) counts.set(id, -Infinity);
      else if (name === "sentence" || name === "words") counts.set(id, before + 1);
    }
    phrasesByPlace.set(literals, (phrases = counts));
  }
  return (phrases.get(placeId(literal) ?? "") ?? 0) > 0;
}

const answersByFile = new WeakMap<readonly Literal[], ReadonlyMap<string, boolean>>();

/** Whose answers a literal is one of: those of a function, or of a list that a function fills. */
function answerId({ context, span }: Literal, before?: Literal, after?: Literal): string | undefined {
  const { role, component, language, properties, name = "" } = context;
  if (component === undefined || properties) return undefined;
  // The last expression of a function is what it returns, in some languages.
  if (role === "returned") return component;
  if (role === "other" && language === "ruby") {
    const isListed =
      (before && span.start - before.span.end < 5) || (after && after.span.start - span.end < 5);
    return isListed ? undefined : component;
  }
  return role === "argument" && /\.(?:append|push|add)$/.test(name) ? `${component} ${name}` : undefined;
}

/** Whether a word is one of several answers that are texts otherwise: more than a word, or with a value in them. */
function isAnswerAmongTexts(literal: Literal, { literals, index }: Place): boolean {
  const asked = answerId(literal, literals[index - 1], literals[index + 1]);
  if (asked === undefined) return false;
  let answers = answersByFile.get(literals);
  if (!answers) {
    const found = new Map<string, boolean>();
    for (const [at, one] of literals.entries()) {
      const own = answerId(one, literals[at - 1], literals[at + 1]);
      if (own === undefined) continue;
      const { name } = shapeOf(fixedText(one.pieces));
      if (/^(?:identifier|technical|classList|datePattern)$/.test(name)) found.set(own, false);
      else if (name === "sentence" || name === "words") found.set(own, found.get(own) ?? true);
    }
    answersByFile.set(literals, (answers = found));
  }
  return answers.get(asked) === true;
}

/** Whether a file gives the name that a value is given whole sentences too: `status = "All is saved."`. */
export function isNamedForTexts(literal: Literal, { literals }: Place): boolean {
  let places = textsByPlace.get(literals);
  if (!places) textsByPlace.set(literals, (places = countTexts(literals)));
  const id = placeId(literal);
  return id !== undefined && (places.get(id) ?? 0) > 0;
}

function placeId(literal: Literal): string | undefined {
  const { role, name, index, element } = literal.context;
  // `_status`, `this.Status` and `status` are one.
  if (role === "variable" || role === "assignment")
    return `=${(name ?? "")
      .replace(/^[^]*\./, "")
      .replace(/_/g, "")
      .toLowerCase()}`;
  if (role === "argument") return name === undefined || name === "" ? undefined : `${name}() ${index ?? 0}`;
  if (role === "property") return `.${givenName(literal)}`;
  return role === "attribute" ? `<${element ?? ""} ${name ?? ""}>` : undefined;
}

/** Whether the object that a name stands in also has an icon, an address or a layout of its own. */
function isMenuEntry(literal: Literal, { literals, index }: Place): boolean {
  const group = groupOf(literal);
  return [-3, -2, -1, 1, 2, 3].some((step) => {
    const other = literals[index + step];
    return (
      other !== undefined &&
      groupOf(other) === group &&
      /^(?:icon|iconName|href|to|url|link|layout)$/.test(givenName(other))
    );
  });
}

function plainWord(text: string): string {
  return text.toLowerCase().replace(/[\s_.-]/g, "");
}

/** The next literal in a direction that is a value: names of properties and comparisons are passed over. */
export function neighbor({ literals, index }: Place, step: 1 | -1): Literal | undefined {
  for (let at = index + step; at >= 0 && at < literals.length; at += step) {
    const { role } = literals[at]?.context ?? {};
    if (role !== "key" && role !== "compared") return literals[at];
  }
  return undefined;
}

/** Whether a word stands in a list or group whose members are all words with a capital, or longer texts. */
function isListed(literal: Literal, place: Place): boolean {
  if (literal.context.role === "returned" || literal.context.role === "content") return false;
  return kinds.some((common) => runOf(place, common)?.isOfWords);
}

/** Whether a literal stands in a list of three or more that all begin with a capital, as no names for programs do with blanks in them. */
export function isOfPhrases(literal: Literal, place: Place): boolean {
  return (
    /^(?:variable|property)$/.test(literal.context.role) &&
    runOf(place, kinds[0] ?? groupOf)?.isOfPhrases === true
  );
}

/** Whether a literal is what people call a value, in a list that has what programs call it beside that: `[("sail", "Sailing boat"), …]`. */
export function isOfPairs(literal: Literal, place: Place): boolean {
  return (
    /^(?:variable|argument|property|returned|other)$/.test(literal.context.role) &&
    runOf(place, groupOf)?.isOfPairs === true &&
    /^(?:capitalized|sentence)$/.test(shapeOf(fixedText(literal.pieces)).name)
  );
}

/** Calls that take any number of things of one kind. */
const takesMany = /(?:All|Items|Rows?|Values|Options|Choices|Columns|Headers?|Labels|push|unshift|concat)$/;

/** What the members of an object or list have in common. */
function groupOf({ context }: Literal): string {
  const { role, name, element, index, properties, component } = context;
  const path = properties?.slice(0, -1).join(".") ?? "";
  return [role, role === "property" ? "" : name, element, index, path, properties?.length, component].join(
    "|",
  );
}

const passingKeys =
  (common: Common): Common =>
  (literal) =>
    literal.context.role === "key" ? undefined : common(literal);

/** The members of a list, by its name; those of a group; the arguments of a call that takes many of a kind. */
const kinds: readonly Common[] = [
  passingKeys((literal) => [groupOf(literal), literal.context.properties?.at(-1)].join("|")),
  passingKeys(groupOf),
  passingKeys((literal) => {
    const { role, name = "" } = literal.context;
    return role === "argument" && takesMany.test(name) ? name : groupOf(literal);
  }),
];

/** So many of the values near it in one object are rules where a value without a capital is one. */
const leastRules = 2;

const columnRule = /^([a-z]{2,20}) [a-z_]\w{0,60}\.[a-z_]\w{0,60}$/;

/** Whether a value stands in an object of rules that a program checks values by: `{ size: "int|ge 1", owner: "db boats.id" }`. */
export function isAmongRules({ context, pieces }: Literal, { literals, index }: Place): boolean {
  if (context.role !== "property" || /\p{Lu}|[.!?]$/u.test(fixedText(pieces))) return false;
  const depth = context.properties?.length;
  const near = literals
    .slice(Math.max(index - 16, 0), index + 17)
    .filter(({ context: other }) => other.role === "property" && other.properties?.length === depth);
  const texts = near.map(({ pieces: own }) => fixedText(own));
  // The same word before the name of a column each time: `db boats.name`.
  const [, word] = columnRule.exec(fixedText(pieces)) ?? [];
  return (
    texts.filter((text) => /rules for a value$/.test(shapeOf(text).reason)).length >= leastRules ||
    (word !== undefined && texts.filter((text) => columnRule.exec(text)?.[1] === word).length > leastRules)
  );
}
