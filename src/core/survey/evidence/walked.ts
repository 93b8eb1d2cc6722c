import { closeOf } from "../../text/brackets.js";
import { literally } from "../../text/key-pattern.js";
import type { Literal } from "../../source/model.js";
import type { Span } from "../../text/span.js";
import { evidence } from "../company.js";
import type { EvidenceSource } from "./source.js";

/** The heads of loops over a list in them, by what stands before the list: `for name in [`, `for (const name of [`. */
const walksBefore =
  /\bfor\s{1,9}(?:\(\s{0,9}(?:const|let|var)\s{1,9})?\(?([A-Za-z_$][\w$]{0,40})(?:\s{0,9},\s{0,9}[\w$]{1,40}){0,3}\)?\s{1,9}(?:in|of)\s{1,9}[[(]/g;

/** The same where the name stands behind the list: `foreach (["a", "b"] as $name)`. */
const walksBehind = /\bforeach\s{0,9}\(\s{0,9}(?:array\s{0,9}\(|\[)/g;

/** So much of a loop is looked at, in code units. */
const looked = 600;

/** What picks something by a name: `row[name]`, `row.get(name)`. */
function picks(name: string): RegExp {
  return new RegExp(
    `(?:[\\w$)\\]]\\[|\\.(?:get|has|pop|setdefault|fetch|containsKey|hasOwnProperty)\\(|(?:get|has|set)attr\\([^,()]{0,60},)\\s{0,9}${literally(name)}\\s{0,9}[\\],)]`,
  );
}

const known = new WeakMap<readonly Literal[], readonly Span[]>();

/** The lists of a file that a loop goes over whose variable picks a property or an entry: `for name in ["a", "b"]: row[name]`. */
function walkedLists(text: string): readonly Span[] {
  const before = [...text.matchAll(walksBefore)].map((match) => {
    const start = match.index + match[0].length;
    return { start, end: closeOf(text, start), name: match[1] };
  });
  const behind = [...text.matchAll(walksBehind)].map((match) => {
    const start = match.index + match[0].length;
    const end = closeOf(text, start);
    return { start, end, name: /^[)\]]\s{1,9}as\s{1,9}(\$\w{1,40})/.exec(text.slice(end, end + 60))?.[1] };
  });
  return [...before, ...behind].filter(
    ({ end, name }) => name !== undefined && picks(name).test(text.slice(end, end + looked)),
  );
}

/** A member of a list whose members pick properties, one after the other: whatever else is done with it, a program knows it. */
export const walked: EvidenceSource = ({ span }, _habits, _own, { text, literals }) => {
  if (text === undefined) return undefined;
  const lists = known.get(literals) ?? walkedLists(text);
  known.set(literals, lists);
  return lists.some(({ start, end }) => start <= span.start && span.end <= end)
    ? evidence("index", "picks a property, as one of those that a loop goes over")
    : undefined;
};
