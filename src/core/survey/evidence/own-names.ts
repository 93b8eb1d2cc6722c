import { fixedText, type Literal } from "../../source/model.js";
import { isOwnNameOf } from "../../locale/own-name.js";
import { evidence, type Place } from "../company.js";
import type { EvidenceSource } from "./source.js";

/** A list of languages calls each as its readers do: no reader is shown it in another language. */
export const languageInItself: EvidenceSource = (literal, _habits, _own, place) => {
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
