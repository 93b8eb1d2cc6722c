import type { Node, Program } from "oxc-parser";
import { findIslands } from "../source/dialects/index.js";
import type { SourceFile } from "../source/model.js";
import { childrenOf } from "../source/readers/script/scopes.js";
import type { Span } from "../text/span.js";

/**
 * The variable that a lookup of PHP is asked of, where nothing makes it known at a place: `$desk` of `$desk->say("{key}")`, in a
 * function that neither takes, makes nor declares it, or at the top level of a file that has it nowhere there.
 */
export function lackingVariable(template: string, source: SourceFile, { start }: Span): string | undefined {
  const name = /(?<![\w$>])(\$[A-Za-z_]\w*)\s?(?:->|\?->|::|\[|\()/.exec(template)?.[1];
  if (name === undefined) return undefined;
  const { code, functions, top } = structureOf(source);
  const around = functions.filter((one) => one.bodyStart <= start && start < one.end).at(-1);
  if (name === "$this") {
    // What a file does outside of functions is done for whoever includes it.
    if (!around) return /\bclass\s{1,9}\w/.test(code) ? name : undefined;
    return around.isStatic || (around.isNamed && !isInClass(code, around)) ? name : undefined;
  }
  const mention = new RegExp(`\\${name}(?!\\w)`);
  if (around)
    return mention.test(around.takes) || mention.test(code.slice(around.bodyStart, start)) ? undefined : name;
  const first = top.search(mention);
  // What is read before it is made comes from whoever includes the file, and is there all over.
  const isGiven = first >= 0 && !/^\$\w+\s*=(?!=)/.test(top.slice(first, first + 200));
  return isGiven || (first >= 0 && first < start) ? undefined : name;
}

interface Structure {
  readonly code: string;
  readonly functions: readonly WrittenFunction[];
  /** The code with blanks for its functions. */
  readonly top: string;
}

const structures = new WeakMap<SourceFile, Structure>();

/** The code of a file with what stands in its functions, worked out once. */
function structureOf(source: SourceFile): Structure {
  const known = structures.get(source);
  if (known) return known;
  const code = codeOnly(source);
  const functions = functionsIn(code);
  let top = "";
  let at = 0;
  for (const { start, end } of functions) {
    if (start < at) continue;
    top += code.slice(at, start) + " ".repeat(end - start);
    at = end;
  }
  const made = { code, functions, top: top + code.slice(at) };
  structures.set(source, made);
  return made;
}

/** A file's code with blanks for all else: markup, strings, comments. Offsets hold. */
function codeOnly({ text, dialect }: SourceFile): string {
  const blank = (part: string) => part.replace(/[^\n]/g, " ");
  if (!dialect) return withoutStrings(text);
  let code = "";
  let at = 0;
  for (const island of findIslands(text, dialect)) {
    const [start, end] = [island.codeStart, island.codeEnd];
    code += blank(text.slice(at, start)) + withoutStrings(text.slice(start, end));
    at = end;
  }
  return code + blank(text.slice(at));
}

/** Code with blanks for its strings and comments; what a string in double quotes takes in is asked for as well, and stays. */
function withoutStrings(code: string): string {
  const blank = (part: string) => part.replace(/[^\n]/g, " ");
  let result = "";
  let at = 0;
  while (at < code.length) {
    const open = code[at] ?? "";
    const end =
      open === "'" || open === '"'
        ? stringEnd(code, at)
        : code.startsWith("/*", at)
          ? endOf(code, "*/", at)
          : code.startsWith("//", at) || (open === "#" && code[at + 1] !== "[")
            ? endOf(code, "\n", at)
            : at + 1;
    const part = code.slice(at, end);
    result += part.length === 1 ? part : open === '"' ? part.replace(/[{}();"]/g, " ") : blank(part);
    at = end;
  }
  return result;
}

/** Behind the end of what starts at a place. */
function endOf(code: string, mark: string, from: number): number {
  const at = code.indexOf(mark, from + 1);
  return at < 0 ? code.length : at + mark.length;
}

function stringEnd(code: string, from: number): number {
  let at = from + 1;
  while (at < code.length && code[at] !== code[from]) at += code[at] === "\\" ? 2 : 1;
  return Math.min(at + 1, code.length);
}

interface WrittenFunction {
  /** Its parameters, and what it takes from around it. */
  readonly takes: string;
  readonly start: number;
  readonly bodyStart: number;
  readonly end: number;
  readonly isNamed: boolean;
  readonly isStatic: boolean;
}

/** So long the parameters of a function are at most, in code units. */
const longestHead = 2_000;

/** The functions of some code, outer ones before those inside of them. */
function functionsIn(code: string): readonly WrittenFunction[] {
  return [...code.matchAll(/\bfunction\b\s{0,9}&?\s{0,9}(\w{0,80})\s{0,9}\(/g)].flatMap((match) => {
    const [whole, name = ""] = match;
    const start = match.index;
    const open = code.slice(start, start + longestHead).indexOf("{");
    const takes = code.slice(start + whole.length, start + open);
    // One without a body is only declared.
    if (open < 0 || takes.includes(";")) return [];
    const bodyStart = start + open + 1;
    const isStatic = /\bstatic\s{1,9}(?:\w{1,20}\s{1,9}){0,3}$/.test(
      code.slice(Math.max(start - 80, 0), start),
    );
    return { takes, start, bodyStart, end: closing(code, bodyStart), isNamed: name !== "", isStatic };
  });
}

/** Whether a function stands in the braces of a class. */
function isInClass(code: string, { start }: WrittenFunction): boolean {
  return [...code.matchAll(/\b(?:class|trait|enum)\b[^;{]{0,400}\{/g)].some(
    ({ index, 0: head }) => index < start && start < closing(code, index + head.length),
  );
}

/** Where the braces end that are open at a place. */
function closing(code: string, from: number): number {
  let depth = 1;
  for (let at = from; at < code.length; at++) {
    if (code[at] === "{") depth++;
    else if (code[at] === "}" && --depth === 0) return at;
  }
  return code.length;
}

/**
 * Whether `this` at a place of a script has what a lookup of it names: `say` for `this.say("{key}")`. It has where the function,
 * class or object that it is of uses or makes that member itself.
 */
export function thisHas(program: Program, text: string, start: number, callee: string): boolean {
  const member = (callee.replace(/^this\./, "").split(".")[0] ?? "").replaceAll("$", "\\$");
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
  const uses = new RegExp(`\\bthis\\.${member}(?![\\w$])`);
  const makes = new RegExp(`(?<![\\w$.])${member}\\s{0,9}[:(=]`);
  const of = (node: Node | undefined) => (node ? text.slice(node.start, node.end) : "");
  const own = path[owner];
  // A component's template may be of any object: what the file uses is what it has.
  if (!own) return uses.test(text);
  if (uses.test(of(own))) return true;
  const [holder, whole] = [path[owner - 1], path[owner - 2]];
  switch (holder?.type) {
    case "MethodDefinition":
    case "ClassBody":
    case "Property": {
      const body = of(holder.type === "ClassBody" ? holder : whole);
      return uses.test(body) || makes.test(body);
    }
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
        new RegExp(`\\.prototype\\.${member}\\s*=`).test(text)
      );
    default:
      return false;
  }
}
