import type { ClassBody, Node, ObjectExpression, Program } from "oxc-parser";
import { childrenOf } from "../source/readers/script/scopes.js";
import { dialectByName } from "../source/dialects/index.js";
import { literally } from "../text/key-pattern.js";
import { callOf, type ScriptPart, type ScriptsNaming } from "./script-parts.js";

/**
 * Whether `this` at a place of a script has what a lookup of it names: `say` for `this.say("{key}")`. It has where the function,
 * class or object that it is of uses or makes that member itself, or where all functions of a component share it.
 */
export function thisHas(part: ScriptPart, start: number, callee: string, naming?: ScriptsNaming): boolean {
  const { program, text } = part;
  const members = callee.replace(/^this\./, "");
  const [member = "", ...deeper] = members.split(".");
  const path = pathTo(program, start);
  const owner = ownerIn(path);
  const uses = new RegExp(`\\bthis\\.${literally(members)}(?![\\w$])`, "g");
  const hasUse = (node: Node | undefined) =>
    node !== undefined && text.slice(node.start, node.end).search(uses) >= 0;
  const makes = (whole: Node | undefined) =>
    deeper.length === 0 &&
    (whole?.type === "ClassBody" || whole?.type === "ObjectExpression") &&
    hasMember(whole, member);
  const own = path[owner];
  // Outside of functions it is the module's, or that of whoever the file is included by.
  if (!own) return [...text.matchAll(uses)].some(({ index }) => ownerIn(pathTo(program, index)) < 0);
  if (hasUse(own)) return true;
  const [holder, whole] = [path[owner - 1], path[owner - 2]];
  switch (holder?.type) {
    case "ClassBody":
      return hasUse(holder) || makes(holder);
    case "MethodDefinition":
      return hasUse(whole) || makes(whole);
    case "Property":
      if (!part.isWhole) {
        const place = placeInComponent(path, owner - 1);
        if (place !== undefined) return place === "shared" && componentHas(part, members, naming);
      }
      return hasUse(whole) || makes(whole);
    // `this.show = function () { … }`, `Desk.prototype.show = function () { … }`
    case "AssignmentExpression": {
      const left = text.slice(holder.start, holder.end);
      if (left.startsWith("this."))
        return hasUse(
          path
            .slice(0, owner)
            .findLast(({ type }) => type === "FunctionDeclaration" || type === "FunctionExpression"),
        );
      return (
        /^[\w$.]{1,100}\.prototype\./.test(left) &&
        new RegExp(`\\.prototype\\.${literally(member)}\\s*=`).test(text)
      );
    }
    default:
      return false;
  }
}

/** The nodes around a place, from the outermost. */
function pathTo(program: Program, start: number): readonly Node[] {
  const path: Node[] = [program];
  for (;;) {
    const next = childrenOf(path.at(-1) ?? program).find(
      (child) => child.start <= start && start < child.end,
    );
    if (!next) return path;
    path.push(next);
  }
}

/** Which of the nodes around a place gives it its `this`; -1 outside of functions and classes. */
function ownerIn(path: readonly Node[]): number {
  return path.findLastIndex(
    ({ type }) =>
      type === "FunctionDeclaration" || type === "FunctionExpression" || type === "PropertyDefinition",
  );
}

/** Groups of a component's functions that have its `this`: the term is common to all that describe components by objects. */
const sharedGroups = /^(?:methods|computed|watch)$/;
/** What is called before there is a component. */
const earlyFunctions = /^(?:setup|asyncData|beforeRouteEnter|validate|head)$/;

/**
 * Whether a function in the object that a component exports has the component as its `this`, by the property that it is; undefined
 * for functions of other objects.
 */
function placeInComponent(path: readonly Node[], at: number): "shared" | "other" | undefined {
  const names: string[] = [];
  for (let index = at; path[index]?.type === "Property" && names.length < 3; index -= 2) {
    const property = path[index];
    names.unshift(
      property?.type === "Property" && property.key.type === "Identifier" ? property.key.name : "",
    );
    if (path[index - 1]?.type !== "ObjectExpression") return undefined;
    const around = path[index - 2]?.type === "CallExpression" ? path[index - 3] : path[index - 2];
    if (around?.type !== "ExportDefaultDeclaration") continue;
    const [first = ""] = names;
    const isShared = names.length === 1 ? !earlyFunctions.test(first) : sharedGroups.test(first);
    return isShared ? "shared" : "other";
  }
  return undefined;
}

/**
 * Whether the functions of a component have a member: its script uses it, its template calls it, or other components do that
 * name it nowhere else, so that all have it.
 */
function componentHas(
  { text, file, template = "" }: ScriptPart,
  members: string,
  naming: ScriptsNaming | undefined,
): boolean {
  const used = new RegExp(`\\bthis\\.${literally(members)}(?![\\w$])`, "g");
  const call = callOf(members);
  if (text.search(used) >= 0 || call.test(template)) return true;
  const mention = new RegExp(`(?<![\\w$])${literally(members)}(?![\\w$])`, "g");
  const having = (naming?.(members, file) ?? []).filter((other) => {
    if (other.isWhole) return false;
    const mentions = other.text.match(mention)?.length ?? 0;
    // What a template calls and its script does not name is there for all.
    if (mentions === 0) return other.template !== undefined && call.test(other.template);
    return mentions === other.text.match(used)?.length;
  });
  // What a program gives to all components is called so.
  if (having.length > 0 && members.startsWith("$") && dialectByName(file)?.hasSharedMembers) return true;
  const mixed = having.map((other) => mixinsIn(other.text));
  const [first] = mixed;
  if (!first) return false;
  // What each of them takes in from others may be what has it.
  if (mixed.some((names) => names.length === 0)) return true;
  const own = mixinsIn(text);
  return first.some((name) => own.includes(name) && mixed.every((names) => names.includes(name)));
}

/** The objects and classes that a component takes members from: `mixins: [Popup, Focus("input")]`, `extends: Base`, `mixins(Popup)`. */
function mixinsIn(text: string): readonly string[] {
  const found = [
    ...text.matchAll(/(?<![\w$.])mixins\s{0,9}(?::\s{0,9}\[|\()([^\])]{0,600})/g),
    ...text.matchAll(/(?<![\w$.])extends\s{0,9}:\s{0,9}([\w$.]{1,80})/g),
  ];
  return found.flatMap(([, names = ""]) => names.match(/[A-Za-z_$][\w$]{0,80}/g) ?? []);
}

/** Whether a class or an object has a member of a name. */
function hasMember(whole: ClassBody | ObjectExpression, member: string): boolean {
  const members = whole.type === "ClassBody" ? whole.body : whole.properties;
  return members.some(
    (one) => "key" in one && !one.computed && one.key.type === "Identifier" && one.key.name === member,
  );
}
