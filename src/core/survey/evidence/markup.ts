import { lookupElement } from "../../text/html-elements.js";
import { htmlElements } from "../../text/html-elements.js";
import { fixedText, type Literal } from "../../source/model.js";
import { styleProperties } from "../habits/styles.js";
import { evidence, givenName, neighbor, type Place } from "../company.js";
import { shapeOf } from "../shape.js";
import { byName, partOf } from "./names.js";
import type { EvidenceSource } from "./source.js";

export const content: EvidenceSource = ({ context, form, pieces }, habits, _own, around) => {
  if (context.role !== "content") return undefined;
  if (context.element === "option" && isOwnValue(fixedText(pieces).trim(), around))
    return evidence("codeTwin", "the same name as the value that it stands for");
  // Fonts of icons have a picture for each name.
  if (
    (context.isPicture || /(?:Icon|(?:^|-)icon)$/.test(context.element ?? "")) &&
    /^[a-z][a-z0-9_]*$/.test(fixedText(pieces).trim())
  )
    return evidence("contentOfCodeElement", `picture of <${context.element}>`);
  if (lookupElement.test(context.element ?? ""))
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

export const attribute: EvidenceSource = (literal, habits, own) => {
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
