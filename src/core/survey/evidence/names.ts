import { fixedText, type Literal } from "../../source/model.js";
import type { Habits } from "../../source/languages/habits.js";
import { styleProperties } from "../habits/styles.js";
import { evidence, givenName, isTerminalFile, type Evidence, type Place } from "../company.js";
import { sentError, writesForDevelopers } from "../calls.js";
import { shapeOf } from "../shape.js";
import type { EvidenceSource } from "./source.js";

/** A member of what holds an element's attributes, but for those that people read. */
const codeOfAttributes =
  /(?:attrs?|[aA]ttributes?)\.(?!title$|alt$|placeholder$|label$|aria-|summary$|content$|value$|caption$)[\w-]{1,40}$/;

/** Lists of parts of a page, whose members are mostly named by texts: tabs, columns, steps. */
const listOfParts =
  /(?:^|[._]|[a-z])(?:[tT]abs|[cC]olumns|[mM]enus?|[mM]enu_?[iI]tems|[nN]av(?:igation|_?[iI]tems|_?[lL]inks)?|[sS]teps|[bB]readcrumbs|[cC]rumbs|[bB]uttons|[fF]ilters|[sS]ections|[tT]head|[hH]eaders|[lL]egends?|[fF]ieldsets)$/;

/** A word with a capital that names a part of a page: `tabs={[{ tabName: "Profile" }]}`. */
export function partOf(holder: string, name: string, { pieces }: Literal): Evidence | undefined {
  return listOfParts.test(holder) &&
    !/^(?:value|id|key|type|icon|as|is)$/.test(name) &&
    shapeOf(fixedText(pieces)).name === "capitalized"
    ? evidence("partOfPage", `one of ${holder}`)
    : undefined;
}

/** Names of what programs read and people are shown as well: a word is for programs, several are for people. */
const alsoShown =
  /(?:^|[_.-])(?:[sS]tatus|[sS]tate|display|prefix|suffix|unit)$|[a-z](?:Status|State|Display|Prefix|Suffix|Unit)$/;

export function byName(name: string, reason: string, habits: Habits): Evidence | undefined {
  // Who wrote a module and under what terms: `__authors__`.
  if (
    /^__(?:authors?|maintainers?|contacts?|credits|license|copyright|version|date|status|email|all|slots)__$/.test(
      name,
    )
  )
    return evidence("typeOrModule", "says who wrote the module, and on what terms");
  // What classes, elements of a document and headers are called is for programs: `ElemTitle`, `http_header`.
  if (/(?:^|\[["'])[A-Z][A-Za-z]{0,30}(?:-[A-Z][A-Za-z]{0,30}){1,5}(?:["']\])?$/.test(name))
    return evidence("codeName", reason);
  if (/^(?:class|css|[eE]lem|[aA]ttr|[aA]ttrib|[xX]ml|[cC]ookie|[hH]ttp)(?=[A-Z_-])/.test(name))
    return evidence("codeName", reason);
  if (styleProperties.has(name) || /\.style\.\w{1,30}$/.test(name))
    return evidence("styleName", `style ${name}`);
  // What begins with an underscore is the program's own: `_description` of a setting.
  if (/^_[a-z]/.test(name)) return undefined;
  // What is done on an event is no text: `IGNORED_ON_COPY`.
  if (/_ON_[A-Z]{2,20}$/.test(name)) return undefined;
  if (habits.textName.test(name)) return evidence("textName", reason);
  if (habits.codeName.test(name)) return evidence(alsoShown.test(name) ? "shownName" : "codeName", reason);
  if (habits.textPrefix.test(name)) return evidence("textName", reason);
  return undefined;
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

/** Whether an object says beside a text who vouches for it and how long, as claims do (RFC 7519, section 4.1). */
function isClaim({ context }: Literal, { literals, index }: Place): boolean {
  return literals.slice(Math.max(index - 4, 0), index + 5).some((other) => {
    const name = givenName(other);
    return (
      other.context.role === "property" &&
      other.context.element === context.element &&
      /^(?:issuer|audience|jwtid|expiresIn|notBefore|algorithms?)$/.test(name)
    );
  });
}

export const named: EvidenceSource = (literal, habits, _own, place) => {
  const { role } = literal.context;
  const name = givenName(literal);
  if (/^(?:help|description|epilog|usage)$/.test(name) && isTerminalFile(place, habits.terminalFile))
    return evidence("inTerminal", `${name} of a program for terminals`);
  if (/^commit_?(?:[mM]essage|[mM]sg|MESSAGE|MSG)$/.test(name))
    return evidence("developerError", `${name} of a change that is recorded, for developers`);
  if (role === "property" && name === "subject" && isClaim(literal, place))
    return evidence("codeName", "whom a token is about, which programs compare");
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
    // What is given to a call by a name is one of that: `field(error_messages={"required": "Please give a length"})`.
    const within = literal.context.properties?.at(-2) ?? holder;
    return (
      own ??
      (habits.textHolder.test(within) && (within !== holder || !isWidget)
        ? evidence("textHolder", `one of ${within}`)
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
