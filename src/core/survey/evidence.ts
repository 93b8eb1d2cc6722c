import { fixedText, type Literal } from "../source/model.js";
import { habitsOf, type OwnHabits } from "./habits/index.js";
import type { Habits } from "./habits/habits.js";
import { shapeOf } from "./shape.js";
import { settled, weights, type EvidenceName } from "./weights.js";

/** One thing that speaks for or against a literal being text, with its reason in words. */
export interface Evidence {
  readonly name: EvidenceName;
  readonly reason: string;
}

type Witness = (
  literal: Literal,
  habits: Habits,
  own: OwnHabits | undefined,
) => Evidence | readonly Evidence[] | undefined;

const evidence = (name: EvidenceName, reason: string): Evidence => ({ name, reason });

/** Everything that is known about a literal, in the order in which it is said. */
export function gatherEvidence(literal: Literal, own?: OwnHabits): readonly Evidence[] {
  const habits = habitsOf[literal.context.language];
  const found: Evidence[] = [];
  const ask = (witness: Witness) => {
    const told = witness(literal, habits, own);
    if (!told) return;
    if (Array.isArray(told)) found.push(...(told as readonly Evidence[]));
    else found.push(told as Evidence);
  };
  placing.forEach(ask);
  // What surely is code by its place alone need not be looked at.
  if (!found.some(({ name }) => weights[name] <= settled)) looking.forEach(ask);
  return found;
}

/** The name that the literal's value is given: the innermost property, else what the role is about. */
function givenName(literal: Literal): string {
  const { properties, name } = literal.context;
  return properties?.[properties.length - 1] ?? name ?? "";
}

const content: Witness = ({ context, form }, habits) => {
  if (context.role !== "content") return undefined;
  const place = context.element === undefined ? "between tags" : `in <${context.element}>`;
  if (context.element !== undefined && habits.codeElements.has(context.element))
    return evidence("contentOfCodeElement", `content of <${context.element}>`);
  return evidence("content", form === "content" || form === "phrase" ? `text ${place}` : `shown ${place}`);
};

const attribute: Witness = (literal, habits, own) => {
  const { context } = literal;
  if (context.role !== "attribute") return undefined;
  const { element = "", properties } = context;
  const name = givenName(literal);
  if (properties) return byName(name, `property ${name} given to <${element}>`, habits);
  if (habits.textAttributes.has(name) || own?.textAttributes.includes(name))
    return evidence("textAttribute", `${name} of <${element}>`);
  if (/^on[A-Z]/.test(name) || (/^on[a-z]+$/.test(name) && /^[a-z]/.test(element)))
    return evidence("eventAttribute", `event handler ${name}`);
  if (
    habits.codeAttributes.has(name) ||
    own?.codeAttributes.includes(name) ||
    /^data-|^xlink:|^xmlns:/.test(name)
  )
    return evidence("codeAttribute", `${name} of <${element}>`);
  if (/^[a-z]/.test(element) && !element.includes("-")) {
    if (name === "value" && /^(?:button|option)$/.test(element)) return undefined;
    return evidence("unknownElementAttribute", `${name} of <${element}>`);
  }
  if (habits.textName.test(name)) return evidence("textProp", `${name} of <${element}>`);
  return byName(name, `${name} of <${element}>`, habits);
};

function byName(name: string, reason: string, habits: Habits): Evidence | undefined {
  if (habits.textName.test(name)) return evidence("textName", reason);
  if (habits.codeName.test(name)) return evidence("codeName", reason);
  return undefined;
}

const called: Witness = (literal, habits, own) => {
  const { context } = literal;
  if (context.role !== "argument" && !(context.role === "property" && context.element)) return undefined;
  const callee = (context.role === "argument" ? context.name : context.element) ?? "";
  if (context.role === "property") return undefined;
  if (habits.developerCall.test(callee)) return evidence("codeCall", `written by ${callee}() for developers`);
  if (context.index === 0 && habits.namedFirst.test(callee) && !/\s/.test(fixedText(literal.pieces).trim()))
    return evidence("codeCall", `names what ${callee}() is about`);
  if (habits.textCall.test(callee) || own?.textCalls.includes(callee))
    return evidence("textCall", `shown by ${callee}()`);
  if (habits.errorCall.test(callee))
    return evidence("developerError", `message of ${callee}, which developers read`);
  if (habits.codeCall.test(callee) || own?.codeCalls.includes(callee))
    return evidence("codeCall", `argument of ${callee}()`);
  return evidence("unknownCall", `argument of ${callee || "a call"}()`);
};

const named: Witness = (literal, habits) => {
  const { role } = literal.context;
  const name = givenName(literal);
  if (role === "property") {
    const own = byName(name, `property ${name}`, habits);
    const holder = literal.context.element?.replace(/s$/, "") ?? "";
    return (
      own ??
      (habits.textName.test(holder) ? evidence("textHolder", `one of ${literal.context.element}`) : undefined)
    );
  }
  if (role === "parameter") return byName(name, `default of ${name}`, habits);
  if (role === "variable")
    return (
      byName(name, `value of ${name}`, habits) ??
      evidence("plainVariable", `value of ${name || "a variable"}`)
    );
  if (role === "assignment") {
    if (habits.textMember.test(name)) return evidence("textMember", `assigned to ${name}`);
    return byName(name, `assigned to ${name}`, habits);
  }
  if (role === "returned" && habits.textName.test(name))
    return evidence("returnedFromTextFunction", `returned by ${name}`);
  return undefined;
};

const used: Witness = ({ context }, habits) => {
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
      return evidence("objectKey", "the name of a property");
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
      return evidence("developerError", "thrown, so developers read it");
    default:
      return undefined;
  }
};

const shaped: Witness = (literal) => {
  const found = shapeOf(fixedText(literal.pieces));
  const inContent = literal.context.role === "content";
  const all: Evidence[] = found.otherScript
    ? [evidence("otherScript", "letters of a script that code is not written in")]
    : [];
  switch (found.name) {
    case "technical":
      return [...all, evidence("technicalShape", found.reason)];
    case "identifier":
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
    case "capitalised":
    case "lowerCase": {
      if (isBesideValue(literal)) return [...all, evidence("severalWords", "a word beside a value")];
      if (found.name === "lowerCase") return [...all, evidence("lowerCaseWord", found.reason)];
      return [...all, evidence(isNamedValue(literal) ? "capitalisedValue" : "capitalisedWord", found.reason)];
    }
    case "capitals":
      return inContent || isBesideValue(literal) ? all : [...all, evidence("allCapitals", found.reason)];
    case "short":
      return [...all, evidence("tooShort", found.reason)];
    case "other":
      return all;
  }
};

/** Whether the literal is the value of a name, as data is: a name of somebody, a unit, a code. */
function isNamedValue({ context }: Literal): boolean {
  return (
    context.role === "property" ||
    context.role === "variable" ||
    context.role === "attribute" ||
    context.role === "assignment"
  );
}

/** Whether a word stands beside a value with white space between them, as words in a sentence do. */
function isBesideValue({ pieces }: Literal): boolean {
  return (
    pieces.some(({ kind }) => kind === "argument") &&
    pieces.some((piece) => piece.kind === "text" && /\s/.test(piece.value))
  );
}

const remarked: Witness = ({ remarks }) => {
  if (remarks?.some(({ kind }) => kind === "plural-by-hand"))
    return evidence("pluralByHand", "a plural made by hand");
  if (remarks?.some(({ kind }) => kind === "chosen-by-language"))
    return evidence("chosenByLanguage", "chosen by language in code");
  return undefined;
};

const placing: readonly Witness[] = [content, attribute, called, named, used];
const looking: readonly Witness[] = [shaped, remarked];
