import { htmlElements } from "../text/html-elements.js";
import { fixedText, type Literal } from "../source/model.js";
import { habitsOf } from "../source/languages/index.js";
import type { OwnHabits } from "./own-habits.js";
import type { Habits } from "../source/languages/habits.js";
import { isOwnNameOf } from "../locale/own-name.js";
import { lazily } from "../text/lazy.js";
import { styleProperties } from "./habits/styles.js";
import {
  companyOf,
  evidence,
  givenName,
  isBesideWidget,
  isNamedForTexts,
  isOfPhrases,
  isAmongRules,
  isTerminalFile,
  isTerminalProgram,
  neighbor,
  type Evidence,
  type Place,
} from "./company.js";
import {
  builder,
  lookupByName,
  makesField,
  makesPart,
  opensDialog,
  sentError,
  speaking,
  textVerb,
  writesForDevelopers,
} from "./calls.js";
import { shapeOf } from "./shape.js";
import { settled, weights, type EvidenceName } from "./weights.js";

type EvidenceSource = (
  literal: Literal,
  habits: Habits,
  own: OwnHabits | undefined,
  place: Place,
) => Evidence | readonly Evidence[] | undefined;

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

const content: EvidenceSource = ({ context, form, pieces }, habits, _own, around) => {
  if (context.role !== "content") return undefined;
  if (context.element === "option" && isOwnValue(fixedText(pieces).trim(), around))
    return evidence("codeTwin", "the same name as the value that it stands for");
  // Fonts of icons have a picture for each name.
  if (
    (context.isPicture || /(?:Icon|(?:^|-)icon)$/.test(context.element ?? "")) &&
    /^[a-z][a-z0-9_]*$/.test(fixedText(pieces).trim())
  )
    return evidence("contentOfCodeElement", `picture of <${context.element}>`);
  if (/^(?:translat(?:e|ed|ion)|trans|i18n|l10n|locali[sz]ed?)$/i.test(context.element ?? ""))
    return evidence("lookedUp", `<${context.element}> has it translated already`);
  const place = context.element === undefined ? "between tags" : `in <${context.element}>`;
  if (context.element !== undefined && habits.codeElements.has(context.element))
    return evidence("contentOfCodeElement", `content of <${context.element}>`);
  const parts = pieces.flatMap((piece) => (piece.kind === "text" ? [piece.value.trim()] : []));
  if (parts.length > 1 && parts.every((part) => part.length <= 1))
    return evidence("contentOfUnknown", `single letters ${place}`);
  if (isOfNoPage(context))
    return evidence("contentOfUnknown", `in <${context.element}>, which pages do not have`);
  return evidence("content", form === "content" || form === "phrase" ? `text ${place}` : `shown ${place}`);
};

/** Elements that pages have or had and people hardly write, and those of drawings that show text. */
const rarelyWritten =
  /^(?:bdi|blink|dir|hgroup|listing|marquee|menuitem|nobr|noframes|plaintext|rp|rt|ruby|search|slot|xmp|text|tspan|desc)$/;

/** Whether an element is one that no page has, by its name in lower case: a part of a document that a program reads. */
function isOfNoPage({ element = "", language }: Literal["context"]): boolean {
  return (
    language !== "script" &&
    /^[a-z][a-z0-9_]*$/.test(element) &&
    !htmlElements.has(element) &&
    !rarelyWritten.test(element)
  );
}

/** Whether a choice is shown as programs know it, and is no word: `<option value="rye-2.5">rye-2.5</option>`. */
function isOwnValue(text: string, place: Place): boolean {
  if (!/^[\w.:/-]{0,80}[\d._/:-][\w.:/-]{0,80}$/.test(text)) return false;
  const before = neighbor(place, -1);
  return before?.context.element === "option" && fixedText(before.pieces) === text;
}

/** A member of what holds an element's attributes, but for those that people read. */
const codeOfAttributes =
  /(?:attrs?|[aA]ttributes?)\.(?!title$|alt$|placeholder$|label$|aria-|summary$|content$|value$|caption$)[\w-]{1,40}$/;

/** Attributes that are code on HTML's elements and may be anything on a component. */
const ownOfElements = /^(?:headers|list|form|scope|span|shape|data|action|kind|state|type|name)$/;

/** Components whose `name` is that of a field, a picture or a page, as it is on HTML's elements. */
const namedByProgram =
  /(?:Icon|Field|Input|Controller|Control|Route|Screen|Select|Checkbox|Radio|Switch|Slider|Form|Item|Group|Picker|Area|Meta|Slot)$/;

function isOwnOfComponent(element: string, name: string): boolean {
  if (/^[a-z]\w*-/.test(element) && /^(?:headers|list)$/.test(name)) return true;
  return (
    /^[A-Z]/.test(element) && ownOfElements.test(name) && !(name === "name" && namedByProgram.test(element))
  );
}

const attribute: EvidenceSource = (literal, habits, own) => {
  const { context } = literal;
  if (context.role !== "attribute") return undefined;
  const { element = "", properties } = context;
  const name = givenName(literal);
  if (properties)
    return (
      byName(name, `property ${name} given to <${element}>`, habits) ??
      partOf(context.name ?? "", name, literal)
    );
  if (habits.textAttributes.has(name) || own?.textAttributes.includes(name))
    return evidence("textAttribute", `${name} of <${element}>`);
  const custom = /^data-(.+)$/.exec(name)?.[1];
  if (custom !== undefined && !own?.codeAttributes.includes(name)) {
    if (
      habits.textName.test(custom) ||
      habits.textAttributes.has(custom) ||
      /^(?:confirm|empty|loading|success|done|failed)$/.test(custom)
    )
      return evidence("textProp", `${name} of <${element}>`);
    if (shapeOf(fixedText(literal.pieces)).name === "sentence")
      return evidence("unknownElementAttribute", `${name} of <${element}>`);
  }
  // What a page asks before it acts, whatever library reads it: `wire:confirm`, `hx-confirm`.
  if (/^\w{1,12}[:-](?:turbo-)?confirm$/.test(name)) return evidence("textProp", `${name} of <${element}>`);
  if (/^on[A-Z]/.test(name) || (/^on[a-z]+$/.test(name) && /^[a-z]/.test(element)))
    return evidence("eventAttribute", `event handler ${name}`);
  if (
    (habits.codeAttributes.has(name) && !isOwnOfComponent(element, name)) ||
    own?.codeAttributes.includes(name) ||
    /^data-|^xlink:|^xmlns:/.test(name)
  )
    return evidence("codeAttribute", `${name} of <${element}>`);
  if (/^[a-z]/.test(element) && !/[-:.]/.test(element)) {
    // Attributes of a page are written in lower case: others are given to a part of the program.
    if (/[a-z][A-Z]/.test(name) && habits.textName.test(name))
      return evidence("textProp", `${name} of <${element}>`);
    if (name === "value" && /^(?:button|option)$/.test(element)) return undefined;
    return evidence("unknownElementAttribute", `${name} of <${element}>`);
  }
  if (styleProperties.has(name)) return evidence("styleName", `style ${name} of <${element}>`);
  if (habits.textName.test(name)) return evidence("textProp", `${name} of <${element}>`);
  return byName(name, `${name} of <${element}>`, habits);
};

/** Lists of parts of a page, whose members are mostly named by texts: tabs, columns, steps. */
const listOfParts =
  /(?:^|[._]|[a-z])(?:[tT]abs|[cC]olumns|[mM]enus?|[mM]enu_?[iI]tems|[nN]av(?:igation|_?[iI]tems|_?[lL]inks)?|[sS]teps|[bB]readcrumbs|[cC]rumbs|[bB]uttons|[fF]ilters|[sS]ections|[tT]head|[hH]eaders|[lL]egends?|[fF]ieldsets)$/;

/** A word with a capital that names a part of a page: `tabs={[{ tabName: "Profile" }]}`. */
function partOf(holder: string, name: string, { pieces }: Literal): Evidence | undefined {
  return listOfParts.test(holder) &&
    !/^(?:value|id|key|type|icon|as|is)$/.test(name) &&
    shapeOf(fixedText(pieces)).name === "capitalized"
    ? evidence("partOfPage", `one of ${holder}`)
    : undefined;
}

/** Names of what programs read and people are shown as well: a word is for programs, several are for people. */
const alsoShown =
  /(?:^|[_.-])(?:[sS]tatus|[sS]tate|display|prefix|suffix|unit)$|[a-z](?:Status|State|Display|Prefix|Suffix|Unit)$/;

function byName(name: string, reason: string, habits: Habits): Evidence | undefined {
  // Who wrote a module and under what terms: `__authors__`.
  if (
    /^__(?:authors?|maintainers?|contacts?|credits|license|copyright|version|date|status|email|all|slots)__$/.test(
      name,
    )
  )
    return evidence("typeOrModule", "says who wrote the module, and on what terms");
  // What classes, elements of a document and headers are called is for programs: `ElemTitle`, `http_header`.
  if (/^[A-Z][A-Za-z]{0,30}(?:-[A-Z][A-Za-z]{0,30}){1,5}$/.test(name)) return evidence("codeName", reason);
  if (/^(?:class|css|[eE]lem|[aA]ttr|[aA]ttrib|[xX]ml|[cC]ookie|[hH]ttp)(?=[A-Z_-])/.test(name))
    return evidence("codeName", reason);
  if (styleProperties.has(name) || /\.style\.\w{1,30}$/.test(name))
    return evidence("styleName", `style ${name}`);
  // What begins with an underscore is the program's own: `_description` of a setting.
  if (/^_[a-z]/.test(name)) return undefined;
  if (habits.textName.test(name)) return evidence("textName", reason);
  if (habits.codeName.test(name)) return evidence(alsoShown.test(name) ? "shownName" : "codeName", reason);
  if (habits.textPrefix.test(name)) return evidence("textName", reason);
  return undefined;
}

/** Whether a call gets a text and, as its next string, code that looks the same text up: `add("Boats", "${_("Boats")}")`. */
function isLookedUpBeside({ context, pieces }: Literal, place: Place): boolean {
  const next = neighbor(place, 1);
  if (next?.context.name !== context.name || next?.context.index !== 1) return false;
  const [text, other] = [fixedText(pieces), fixedText(next.pieces)];
  return ['"', "'"].some((quote) => {
    const at = other.indexOf(`(${quote}${text}${quote})`);
    const callee = /[\w$.]{1,80}$/.exec(other.slice(Math.max(0, at - 80), Math.max(0, at)))?.[0];
    return callee !== undefined && lookupByName.test(callee);
  });
}

/** Calls that choose one of the forms that they are given by a number. */
const pluralizing = /(?:^|\.)pluralize$/;

const called: EvidenceSource = (literal, habits, own, place) => {
  const { context } = literal;
  if (context.role !== "argument" && !(context.role === "property" && context.element)) return undefined;
  const callee = ((context.role === "argument" ? context.name : context.element) ?? "").replace(/<\w*>$/, "");
  if (context.role === "property") return undefined;
  if (habits.developerCall.test(callee) && habits.printingCall.test(callee) && isTerminalProgram(place))
    return evidence("printed", `printed by ${callee}(), in a program for terminals`);
  if (habits.errorStream.test(callee))
    return /^Usage\b/.test(fixedText(literal.pieces).trim())
      ? evidence("printed", `how the program is called, written by ${callee}()`)
      : isLongText(literal) && printsToo(place, habits)
        ? evidence("printed", `a sentence written by ${callee}()`)
        : evidence("developerError", `written by ${callee}() where errors go`);
  if (writesForDevelopers(callee, habits))
    return evidence("codeCall", `written by ${callee}() for developers`);
  if ((context.index ?? 0) <= 1 && lookupByName.test(callee) && !own?.textCalls.includes(callee))
    return evidence("lookedUp", `looked up by ${callee.startsWith("|") ? callee : `${callee}()`} already`);
  if (context.index === 0 && isLookedUpBeside(literal, place))
    return evidence("lookedUp", "looked up beside it, for the same call");
  if (context.index === 0 && makesPart.test(callee) && !habits.textCall.test(callee)) {
    const text = fixedText(literal.pieces);
    if (/^\s*[\p{Lu}\p{N}].*(?:\s|\p{Ll})|:\s*$/u.test(text))
      return evidence("partLabel", `the label of what ${callee}() makes`);
  }
  if (opensDialog.test(callee) && /^\p{Lu}/u.test(fixedText(literal.pieces)) && !habits.textCall.test(callee))
    return evidence("partLabel", `in what ${callee}() opens`);
  // A field of a form is named for the program first: `addSelect("kind", "Kind of bread:")`.
  if (context.index === 1 && makesField.test(callee)) {
    const named = neighbor(place, -1);
    const isNamed = named?.context.index === 0 && named.context.name === context.name;
    if (
      isNamed &&
      /^[a-z][\w.-]*$/.test(fixedText(named.pieces)) &&
      /^\p{Lu}/u.test(fixedText(literal.pieces))
    )
      return evidence("partLabel", `the label of what ${callee}() makes`);
  }
  if (context.index === 0 && habits.namedFirst.test(callee) && !/\s/.test(fixedText(literal.pieces).trim()))
    return evidence("codeCall", `names what ${callee}() is about`);
  // What stands above a command says what it is for, where the call is given nothing else.
  const next = neighbor(place, 1)?.context;
  if (
    /(?:^|\.)desc$/.test(callee) &&
    context.index === 0 &&
    !(next?.name === context.name && next?.index === 1)
  )
    return evidence("inTerminal", `what ${callee}() tells of, to who runs it in a terminal`);
  const shown = habits.textAt.find(([call]) => call.test(callee));
  if (shown)
    return (context.index ?? 0) >= shown[1] && (context.index ?? 0) <= (shown[2] ?? shown[1])
      ? evidence("textCall", `told of by ${callee}()`)
      : evidence("codeCall", `names what ${callee}() is about`);
  if (context.index === 1 && habits.namingCall.test(callee)) {
    const named = neighbor(place, -1);
    const name = named?.context.index === 0 && named.context.name === callee ? fixedText(named.pieces) : "";
    if (habits.textAttributes.has(name)) return evidence("textAttribute", `${name}, set by ${callee}()`);
    const holder = callee.replace(/\.[^.]*$/, "");
    if (holder !== callee && habits.textHolder.test(holder))
      return evidence("textHolder", `one of ${holder}`);
    return (
      byName(name, `${name}, set by ${callee}()`, habits) ??
      (/-/.test(name)
        ? evidence("codeCall", `argument of ${callee}()`)
        : evidence("unknownCall", `argument of ${callee}()`))
    );
  }
  // What a call gets or looks for is named for the program.
  if (
    context.index === 0 &&
    /^(?:[gG]et|[fF]ind|[hH]as|[iI]s|[cC]ontains|[rR]emove|[fF]etch|[lL]oad)(?:[A-Z_]\w{0,30})?$/.test(
      lastWordOf(callee),
    ) &&
    shapeOf(fixedText(literal.pieces)).name === "capitalized"
  )
    return evidence("got", `named for ${callee}(), which gets it`);
  // The forms that a number chooses are words, whatever a program calls them.
  if (pluralizing.test(callee)) return evidence("pluralByHand", `a form that ${callee}() chooses`);
  if (/(?:starts?_?with|ends?_?with|has_?prefix|has_?suffix)$/i.test(callee.slice(-40)))
    return evidence("codeCall", `looked for by ${callee}()`);
  // What `$` is given is looked for in the page, or put into it.
  if (/^(?:\$|jQuery)$/.test(callee) && !/^\s*</.test(fixedText(literal.pieces)))
    return evidence("codeCall", `looked for by ${callee}()`);
  if (habits.printingCall.test(callee)) return evidence("printed", `printed by ${callee}()`);
  if (textVerb.test(callee) || habits.textCall.test(callee) || own?.textCalls.includes(callee)) {
    if (isNameOfNext(literal, place)) return evidence("codeCall", `names what ${callee}() is about`);
    if (isTerminalFile(place, habits.terminalFile))
      return evidence("inTerminal", `shown by ${callee}(), in a program for terminals`);
    // Behind its text a button is told how it looks.
    if (
      (context.index ?? 0) > 0 &&
      /button$/i.test(callee) &&
      /^[a-z]+(?:[ -][a-z]+){0,3}$/.test(fixedText(literal.pieces))
    )
      return evidence("unknownCall", `argument of ${callee}()`);
    return evidence("textCall", `shown by ${callee}()`);
  }
  const method = /\.(\w+)$/.exec(callee)?.[1];
  if (method !== undefined && context.index === 0 && builder.test(method))
    return evidence("textBuilder", `the ${method} that ${callee}() sets`);
  const holder = /^(.*)\.(?:push|add|append|unshift|prepend|concat)$/i.exec(callee)?.[1];
  if (holder !== undefined && habits.textHolder.test(holder))
    return evidence("textHolder", `one of ${holder}`);
  if (
    holder !== undefined &&
    /(?:^|[._>]|[a-z])(?:[pP]arts|[wW]ords|[pP]ieces|[bB]its|[sS]entences|[pP]hrases)$/.test(holder)
  )
    return evidence("unknownHelper", `one of ${holder}`);
  if (context.isShown) return evidence("textCall", `message of ${callee}, shown where it is caught`);
  if (sentError.test(callee)) return evidence("printed", `sent to who asked, by ${callee}`);
  if (habits.errorCall.test(callee))
    return evidence("developerError", `message of ${callee}, which developers read`);
  if (own?.codeCalls.includes(callee)) return evidence("codeCall", `argument of ${callee}()`);
  // A part of a page is made by its label, where it is not made by its name: `Column::make("Paid on")`.
  const isPart = /(?:Column|Filter|Field|Input|Action|Button|Tab|Section|Card|Stat)\.make$/.test(callee);
  if (isPart && context.index === 0 && /^\p{Lu}/u.test(fixedText(literal.pieces)))
    return isTextApart(callee, place)
      ? evidence("codeCall", `names what ${callee}() makes, whose text is given apart`)
      : evidence("textBuilder", `what ${callee}() makes is called`);
  // What stands for what is not found: `subjects.get(kind, "News from the fold")`.
  if (
    context.index === 1 &&
    /\.(?:get|getOrDefault|fetch|pop)$/.test(callee) &&
    /\S \S/.test(fixedText(literal.pieces))
  )
    return evidence("unknownHelper", `what ${callee}() gives where there is nothing`);
  if (habits.codeCall.test(callee) || /(?:^|[A-Za-z.])[fF]ont(?:Family)?$/.test(callee))
    return isLongText(literal)
      ? evidence("codeCallWithText", `argument of ${callee}(), though it reads as a text`)
      : evidence("codeCall", `argument of ${callee}()`);
  // What a call that nobody knows makes of it goes on to the call around it.
  const { within } = context;
  if (within !== undefined && writesForDevelopers(within, habits) && !isTerminalProgram(place))
    return evidence("codeCall", `written by ${within}() for developers`);
  // What somebody may do is named for the program: `hasPermission("Delete visits")`.
  if (
    /(?:has|check|require|is)_?(?:\w{0,20}_?)(?:Access|Permission|Privilege|Role|Right|Allowed|Granted)s?$/i.test(
      callee,
    )
  )
    return evidence("codeCall", `argument of ${callee}()`);
  if (isReadBy(callee, literal, place))
    return evidence("codeCall", `what ${callee}() gives is shown by what is around it`);
  if (speaking.test(callee)) return evidence("textBuilder", `${callee}() tells or asks by its name`);
  return context.isOutput || context.language === "markup"
    ? evidence("unknownHelper", `put on the page by ${callee || "a call"}()`)
    : evidence("unknownCall", `argument of ${callee || "a call"}()`);
};

const printing = new WeakMap<readonly Literal[], boolean>();

/** Whether a file also writes to the terminal what is no error, as programs do that are used there. */
function printsToo({ literals }: Place, habits: Habits): boolean {
  let is = printing.get(literals);
  if (is === undefined) {
    is = literals.some(
      ({ context: { role, name = "" } }) => role === "argument" && habits.printingCall.test(name),
    );
    printing.set(literals, is);
  }
  return is;
}

/** Whether a literal is three words or more that start and end as a sentence does, as names and settings never do. */
function isLongText({ pieces }: Literal): boolean {
  const text = fixedText(pieces).trim();
  return (
    shapeOf(text).name === "sentence" && /^[\p{Lu}][^]*[.!?…]$/u.test(text) && /\S\s+\S+\s+\S/.test(text)
  );
}

/** Whether a word in lower case is only the name of what the next argument says: `setError("email", { message: "…" })`. */
function isNameOfNext({ context, pieces }: Literal, { literals, index }: Place): boolean {
  if (context.index !== 0 || !/^\p{Ll}[\p{L}\p{N}_.-]*$/u.test(fixedText(pieces).trim())) return false;
  let at = index + 1;
  while (literals[at]?.context.role === "key") at++;
  const next = literals[at]?.context;
  return next?.role === "argument"
    ? next.name === context.name && next.index === 1
    : context.language === "script" && next?.role === "property" && next.element === context.name;
}

/** Whether a call is given a text by a name elsewhere in the file, behind what it is given first: `Button.make("Remove", text=say("…"))`. */
function isTextApart(callee: string, { text }: Place): boolean {
  const called = callee.replace(/\W/g, "\\$&");
  return (
    text !== undefined &&
    new RegExp(
      `(?<!\\w)${called}\\(\\s{0,99}["'][^"'\\n]{1,60}["']\\s?,\\s{0,99}(?:[^()"']{0,200},\\s{0,99})?(?:text|label|title|caption)\\s?[=:](?!=)`,
    ).test(text)
  );
}

/** Whether a method of another object is asked for something by a word, and its answer is put out: `echo $boat->display("Name")`. */
function isReadBy(callee: string, literal: Literal, { text }: Place): boolean {
  if (text === undefined || !/^(?!this\b|self\b).{1,80}[.>]display$/.test(callee)) return false;
  return (
    /^\w{1,40}$/.test(fixedText(literal.pieces)) &&
    /(?:echo|print|return|=>|[=.,(?:])\s{0,9}\$?[\w.>()-]{1,80}\(\s?$/.test(
      text.slice(Math.max(literal.span.start - 120, 0), literal.span.start),
    )
  );
}

/** Whether a name is that of an event's attribute in HTML: `onclick`. */
function isEvent(name: string): boolean {
  return /^on(?:click|dblclick|change|submit|reset|input|focus|blur|load|unload|select|error|key(?:up|down|press)|mouse(?:over|out|up|down|enter|leave|move)|touch(?:start|end|move)|pointer\w+|drag\w*|drop|paste|copy|cut|scroll|wheel|toggle)$/i.test(
    name,
  );
}

/** Whether an object says beside a text of which type a value is, as schemas do: `{ type: "number", description: "…" }`. */
function isBesideType({ context }: Literal, place: Place): boolean {
  return [-3, -2, -1, 1, 2, 3].some((step) => {
    const other = place.literals[place.index + step];
    return (
      other?.context.role === "property" &&
      other.context.element === context.element &&
      givenName(other) === "type" &&
      /^(?:string|number|integer|boolean|object|array)$/.test(fixedText(other.pieces))
    );
  });
}

/** So many operations with names make a file the description of an interface of programs. */
const leastOperations = 3;

const interfaces = new WeakMap<readonly Literal[], boolean>();

/** Whether a file describes an interface of programs, by the names of its operations (OpenAPI 3.1, 4.8.10, Operation Object). */
function isOfInterface({ literals }: Place): boolean {
  const known = interfaces.get(literals);
  if (known !== undefined) return known;
  const operations = literals.filter(
    ({ context }) => context.role === "property" && context.name === "operationId",
  ).length;
  const found = operations >= leastOperations;
  interfaces.set(literals, found);
  return found;
}

const named: EvidenceSource = (literal, habits, _own, place) => {
  const { role } = literal.context;
  const name = givenName(literal);
  if (/^(?:help|description|epilog|usage)$/.test(name) && isTerminalFile(place, habits.terminalFile))
    return evidence("inTerminal", `${name} of a program for terminals`);
  if (role === "property" && name === "description" && isBesideType(literal, place))
    return evidence("inSchema", "describes a value beside its type");
  if (
    role === "property" &&
    name === "description" &&
    /^props,[^,]*,description$/.test(String(literal.context.properties))
  )
    return evidence("ofInterface", "describes what a component is given, for those who use it");
  if (role === "property" && /^(?:summary|description|title)$/.test(name) && isOfInterface(place))
    return evidence("ofInterface", `${name} of an interface of programs, which developers read`);
  if (role === "property") {
    if (literal.context.isShown)
      return evidence("shownMember", `one of ${literal.context.element ?? "those"}, which the page shows`);
    if (isEvent(name)) return evidence("eventAttribute", `event handler ${name}`);
    const own =
      /^[A-Z]/.test(name) && habits.textMember.test(name)
        ? evidence("textMember", `${name} of what the page shows`)
        : byName(name, `property ${name}`, habits);
    const holder = literal.context.element ?? "";
    if (/deprecat/i.test(holder)) return evidence("codeCall", `told developers by ${holder}()`);
    if (holder !== "" && literal.context.properties?.length === 1 && writesForDevelopers(holder, habits))
      return evidence("codeCall", `written by ${holder}() for developers`);
    if (own?.name === "textName" && habits.errorCall.test(holder) && !sentError.test(holder))
      return evidence("developerError", `${name} of ${holder}, which developers read`);
    if (name === "string" && /(?:^|\.)fields\.[A-Z]\w*$/.test(holder))
      return evidence("textName", "what a field is called");
    // What a widget such as `Label` is made with is mostly how it looks.
    const isWidget = /(?:^|\.)\p{Lu}[\p{L}\p{N}_]*[^\P{L}s]$/u.test(holder);
    return (
      own ??
      (habits.textHolder.test(holder) && !isWidget
        ? evidence("textHolder", `one of ${holder}`)
        : partOf(holder, name, literal))
    );
  }
  if (role === "parameter") return byName(name, `default of ${name}`, habits);
  if (role === "variable") {
    // A component that is named for one text, such as `Label`, holds much that is none.
    const around = literal.context.component ?? "";
    const holder = habits.textHolder.test(name) || !/[sS]$/.test(around) ? name : around;
    return (
      byName(name, `value of ${name}`, habits) ??
      (habits.textHolder.test(holder)
        ? evidence("textHolder", `one of ${holder}`)
        : (partOf(name, "", literal) ?? evidence("plainVariable", `value of ${name || "a variable"}`)))
    );
  }
  if (role === "assignment") {
    if (/\.displayName$/.test(name)) return evidence("codeName", "the name of a component");
    if (codeOfAttributes.test(name)) return evidence("codeName", `assigned to ${name}`);
    if (habits.textMember.test(name)) return evidence("textMember", `assigned to ${name}`);
    const holder = name.replace(/[.[][^.[]*$/, "");
    return holder !== name && habits.textHolder.test(holder)
      ? evidence("textHolder", `one of ${holder}`)
      : byName(name, `assigned to ${name}`, habits);
  }
  if (role === "returned" && habits.textName.test(name))
    return evidence("returnedFromTextFunction", `returned by ${name}`);
  return undefined;
};

/** Calls that put markup into a page, as none does that reads it. */
const insertion =
  /^(?:\w{0,20}_)?(?:append|prepend|add|html|before|after|write(?:ln)?|replaceWith|insert\w{0,20}|wrap\w{0,20}|set|push|put|render|print|echo|trusted|safe)$/i;

/** The last name of a callee. */
function lastWordOf(callee: string): string {
  return callee.slice(-60).split(/[^\w]/).at(-1) ?? "";
}

/** What a program does with the string of markup that a text is in: it is none where nobody is shown that. */
const around: EvidenceSource = (literal, habits, own, place) => {
  const { around: context } = literal.context;
  if (!context) return undefined;
  const whole = { ...literal, context };
  // Markup that a program looks for, or takes out of a page: `getBetween(page, "Sent to: <b>", "</b>")`.
  if (
    context.role === "argument" &&
    /^(?:get|find|extract|index|last_?index|match|contains|skip|split|strip|remove|search|has|is|test)(?=[A-Z_]|$)(?!\w{0,30}By)/i.test(
      lastWordOf(context.name ?? ""),
    )
  )
    return evidence("codeCall", `looked for by ${context.name}()`);
  return [called, used, debugged]
    .flatMap((source) => source(whole, habits, own, place) ?? [])
    .filter(
      ({ name }) =>
        weights[name] <= -3 && !(name === "codeCall" && insertion.test(lastWordOf(context.name ?? ""))),
    );
};

/** What an object says of itself: `toString` with its values. */
const described: EvidenceSource = ({ context, pieces }) =>
  /^(?:toString|ToString|__repr__|inspect|GoString|debugDescription)$/.test(context.component ?? "") &&
  (pieces.length > 1 || /[=:[\](),]/.test(fixedText(pieces)))
    ? evidence("described", "part of what an object says of itself")
    : undefined;

const debugged: EvidenceSource = ({ context }) =>
  context.isDebugging ? evidence("debugging", "reached only while debugging, or in a task") : undefined;

const used: EvidenceSource = ({ context, pieces }, habits) => {
  switch (context.role) {
    case "compared":
      return evidence(
        "compared",
        context.name === "case"
          ? "a case of a switch"
          : context.name === "condition"
            ? "decides a condition"
            : `compared with ${context.name}`,
      );
    case "key":
      return context.name !== undefined &&
        (/^[:'"]?[a-z][\w-]*['"]?$/.test(context.name) ||
          // Choices with what they count for: `{ "Two weeks" => 14 }`.
          (/^\d{1,4}(?:\.\d)?$/.test(context.name) && /^\p{Lu}.*\p{L} \p{L}/u.test(fixedText(pieces))))
        ? evidence("namedChoice", `shown for ${context.name}, perhaps`)
        : evidence("objectKey", "the name of a property");
    case "index":
      return evidence("index", "picks a property");
    case "tagged":
      return habits.codeTemplate.test(context.name ?? "")
        ? evidence("tagged", `a template of ${context.name}`)
        : evidence("unknownCall", `a template of ${context.name}`);
    case "type":
    case "module":
      return evidence("typeOrModule", context.role === "type" ? "part of a type" : "the name of a module");
    case "member":
      return evidence("methodOfString", "a method is called on it");
    case "thrown":
      if (context.isShown) return evidence("textCall", "thrown, and shown where it is caught");
      return evidence("developerError", "thrown, so developers read it");
    default:
      return undefined;
  }
};

/** Whether a text is a name that a value is put into, as templates give parts of a page one: `form_{boat}`. */
function isNameWithValue({ pieces }: Literal): boolean {
  return (
    pieces.length > 1 &&
    pieces.every((piece) => piece.kind !== "tag") &&
    /^(?=.*_)[a-z][\w-]{0,60}$/.test(
      pieces.map((piece) => (piece.kind === "text" ? piece.value.trim() : "x")).join(""),
    )
  );
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

const shaped: EvidenceSource = (literal, _habits, _own, place) => {
  const found = shapeOf(fixedText(literal.pieces));
  if (isAmongRules(literal, place)) return [evidence("technicalShape", "among rules for values")];
  const inContent = literal.context.role === "content";
  const all: Evidence[] = found.otherScript
    ? [evidence("otherScript", "letters of a script that code is not written in")]
    : [];
  if (inContent && /^\s*(?:[,:;)\]]|\.\s)/.test(fixedText(literal.pieces)))
    all.push(evidence("restOfSentence", "begins as the rest of a sentence does"));
  if (inContent && isNameWithValue(literal))
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

const remarked: EvidenceSource = (literal, _habits, _own, place) => {
  const { remarks, pieces } = literal;
  const isPlural = pieces.some((piece) => piece.kind === "choice" && piece.choice === "plural");
  const isChosen = remarks?.some(({ kind }) => kind === "plural-by-hand") === true;
  const hasWord = /\p{L}\p{L}/u.test(fixedText(pieces)) || pieces.some(({ kind }) => kind === "choice");
  if (isPlural || (isChosen && hasWord && isForm(literal, place)))
    return evidence("pluralByHand", "a plural made by hand");
  if (remarks?.some(({ kind }) => kind === "chosen-by-language"))
    return evidence("chosenByLanguage", "chosen by language in code");
  return undefined;
};

/** A mark that gives a text its key: the text is found by that, and stands in the template on purpose. */
function marked({ isMarked, isBesideKey, key }: Literal): Evidence | undefined {
  if (isBesideKey) return evidence("lookedUp", "given to a lookup with its key");
  return isMarked === true && key !== undefined
    ? evidence("lookedUp", `its mark gives it the key "${key}"`)
    : undefined;
}

/** How values are checked: `required|max:40`. */
const checks = /^[a-z_]{2,40}(?::[\w,.-]{1,60})?(?:\|[a-z_]{2,40}(?:[: ][^|]{1,80})?){1,20}$/;

/** What stands among such checks is one, whatever its name: `["description" => "string", "name" => "required|string"]`. */
const besideChecks: EvidenceSource = ({ context }, _habits, _own, { literals, index }) => {
  if (context.role !== "property" || context.properties === undefined) return undefined;
  const group = literals
    .slice(Math.max(index - 16, 0), index + 17)
    .filter(({ context: other }) => other.role === "property" && other.element === context.element);
  const texts = group.map(({ pieces }) => fixedText(pieces));
  const isProse = (text: string) => /[.!?]$/.test(text) || (/^\p{Lu}/u.test(text) && text.includes(" "));
  return texts.some((text) => checks.test(text)) && !texts.some(isProse)
    ? evidence("valueCheck", "says how a value is checked, as those beside it do")
    : undefined;
};

/** A table of the code has the source's text beside it. */
const ofOtherLocale: EvidenceSource = ({ inLocale }) =>
  inLocale === undefined
    ? undefined
    : evidence("otherLanguage", `the text for ${inLocale}, beside those of other locales`);

/** A list of languages calls each as its readers do: no reader is shown it in another language. */
const languageInItself: EvidenceSource = (literal, _habits, _own, place) => {
  const isOne =
    isLanguageInItself(literal, place, 0) ||
    // The source's own language among them.
    (fixedText(literal.pieces) === "English" &&
      // The value of each choice may stand between, and its other attributes.
      stepsOfList.some((step) => {
        const other = place.literals[place.index + step];
        const isNext = Math.abs(step) <= 2;
        const isAlike =
          literal.context.role === "content" &&
          other?.context.role === "content" &&
          other.context.element === literal.context.element;
        return step !== 0 && other && (isNext || isAlike) && isLanguageInItself(other, place, step);
      })) ||
    isInListOfLanguages(literal, place);
  return isOne ? evidence("languageName", "the name of a language in that language") : undefined;
};

/**
 * Whether a literal is a member of a table from tags to names, of which most are what each language calls itself: the others are
 * written in another way, or go by a country's code.
 */
function isInListOfLanguages(literal: Literal, place: Place): boolean {
  const tagOf = (one: Literal) => one.context.properties?.at(-1) ?? "";
  const isTag = (name: string) => /^[a-z]{2,3}(?:[-_][A-Za-z]{2,4})?$/.test(name);
  const { context } = literal;
  if (context.role !== "property" || !isTag(tagOf(literal))) return false;
  const { literals, index } = place;
  const table = stepsOfList.filter((step) => {
    const other = literals[index + step];
    return (
      other !== undefined &&
      other.context.role === "property" &&
      other.context.element === context.element &&
      isTag(tagOf(other))
    );
  });
  const named = table.filter((step) => {
    const other = literals[index + step];
    return other !== undefined && isLanguageInItself(other, place, step);
  });
  return table.length >= 4 && named.length * 2 > table.length;
}

/** So many literals before and behind one are looked at for a list that it is in. */
const reachOfList = 8;
const stepsOfList = Array.from({ length: 2 * reachOfList + 1 }, (_, step) => step - reachOfList);

/** Whether a literal, so far from the place, is what the tag beside it or its key stands for. */
function isLanguageInItself({ context, pieces }: Literal, { literals, index }: Place, step: number): boolean {
  const text = fixedText(pieces).trim();
  if (pieces.length !== 1 || text.length > 40 || !/^[\p{L}\p{M}]/u.test(text)) return false;
  const beside = [-1, 1].map((one) => literals[index + step + one]);
  const tags = [
    context.properties?.at(-1),
    ...beside.map((other) => (other?.pieces.length === 1 ? fixedText(other.pieces) : undefined)),
  ];
  return tags.some((tag) => tag !== undefined && isOwnNameOf(text, tag));
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
  besideChecks,
];

const besideWidget: EvidenceSource = (literal, _habits, _own, place) => {
  const before = neighbor(place, -1);
  if (before && isBesideWidget(before, { ...place, index: place.index - 1 }))
    return evidence("codeTwin", "the kind of a part of a window");
  return isBesideWidget(literal, place) && /\p{Lu}.*(?:\p{L}|:)|\s/u.test(fixedText(literal.pieces))
    ? evidence("besideWidget", "stands beside the kind of a part of a window")
    : undefined;
};

/** A letter that opens an entry of a menu is marked in it: `&Rename tab`, `E&xit`. */
const mnemonic: EvidenceSource = ({ pieces, context }) => {
  const text = fixedText(pieces).trim();
  return context.role !== "content" &&
    text.length <= 60 &&
    /^[^=?;<>&/\\]*(?<!\S[^\p{L}]?)&\p{L}[^=;<>&]*$|^\p{L}+&\p{Ll}[^=;<>&]*$/u.test(text) &&
    /\p{Ll}{2}/u.test(text)
    ? evidence("mnemonic", "a letter in it is marked to be typed")
    : undefined;
};

/** The headings of a table, as they stand above its rows in a file: `Store;Sacks;Since`. */
const headings: EvidenceSource = ({ pieces, context }) =>
  context.role !== "content" &&
  /^\p{Lu}[\p{L} ]{1,40}(?:([;,\t])\p{Lu}[\p{L} ]{1,40})(?:\1\p{Lu}[\p{L} ]{1,40}){1,40}$/u.test(
    fixedText(pieces).trim(),
  )
    ? evidence("headings", "the headings of a table")
    : undefined;

/** What stands beside a key, and is shown only where no catalog has the key. */
const besideKey: EvidenceSource = (literal) => {
  const name =
    literal.context.role === "attribute"
      ? (literal.context.name ?? "")
      : (literal.context.properties?.at(-1) ?? "");
  return /^default(?:Message|Text|Translation)$/.test(name)
    ? evidence("lookedUp", `${name}, which stands for a key`)
    : undefined;
};

const looking: readonly EvidenceSource[] = [
  besideKey,
  shaped,
  headings,
  mnemonic,
  besideWidget,
  remarked,
  filledIn,
  amongShown,
  alone,
];
