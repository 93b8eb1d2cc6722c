import type { ClassBody, Node, ObjectExpression, Program } from "oxc-parser";
import { childrenOf } from "../source/readers/script/scopes.js";
import { literally } from "../text/key-pattern.js";

/**
 * Whether `this` at a place of a script has what a lookup of it names: `say` for `this.say("{key}")`. It has where the function,
 * class or object that it is of uses or makes that member itself.
 */
export function thisHas(program: Program, text: string, start: number, callee: string): boolean {
  const member = callee.replace(/^this\./, "").split(".")[0] ?? "";
  const path: Node[] = [program];
  for (;;) {
    const next = childrenOf(path.at(-1) ?? program).find(
      (child) => child.start <= start && start < child.end,
    );
    if (!next) break;
    path.push(next);
  }
  const owner = path.findLastIndex(
    ({ type }) =>
      type === "FunctionDeclaration" || type === "FunctionExpression" || type === "PropertyDefinition",
  );
  const uses = new RegExp(`\\bthis\\.${literally(member)}(?![\\w$])`);
  const of = (node: Node | undefined) => (node ? text.slice(node.start, node.end) : "");
  const own = path[owner];
  // A component's template may be of any object: what the file uses is what it has.
  if (!own) return uses.test(text);
  if (uses.test(of(own))) return true;
  const [holder, whole] = [path[owner - 1], path[owner - 2]];
  switch (holder?.type) {
    case "ClassBody":
      return uses.test(of(holder)) || makes(holder, member);
    case "MethodDefinition":
    case "Property":
      return (
        uses.test(of(whole)) ||
        ((whole?.type === "ClassBody" || whole?.type === "ObjectExpression") && makes(whole, member))
      );
    // `this.show = function () { … }`, `Desk.prototype.show = function () { … }`
    case "AssignmentExpression":
      if (/^this\./.test(of(holder))) {
        const maker = path
          .slice(0, owner)
          .findLast(({ type }) => type === "FunctionDeclaration" || type === "FunctionExpression");
        return uses.test(of(maker));
      }
      return (
        /^[\w$.]{1,100}\.prototype\./.test(of(holder)) &&
        new RegExp(`\\.prototype\\.${literally(member)}\\s*=`).test(text)
      );
    default:
      return false;
  }
}

/** Whether a class or an object has a member of a name. */
function makes(whole: ClassBody | ObjectExpression, member: string): boolean {
  const members = whole.type === "ClassBody" ? whole.body : whole.properties;
  return members.some(
    (one) => "key" in one && !one.computed && one.key.type === "Identifier" && one.key.name === member,
  );
}
