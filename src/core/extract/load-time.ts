import { posix } from "node:path";
import type { Node, Program, PropertyDefinition } from "oxc-parser";
import { notices } from "../message/notices.js";
import type { Literal, Obstacle, SourceFile } from "../source/model.js";
import { childrenOf, isShadowed, moduleBinding } from "../source/readers/script/scopes.js";
import { literally } from "../text/key-pattern.js";
import { lineStart } from "../text/line-start.js";
import { applyEdits, type TextEdit } from "../text/edits.js";
import { contains, type Span } from "../text/span.js";
import { wholeScript, type ScriptPart, type ScriptsNaming } from "./script-parts.js";

/** How a text that is evaluated when its file is loaded is looked up when it is shown: what else of the file changes. */
export type Deferral =
  | { readonly edits: readonly TextEdit[]; readonly callers?: Callers }
  | { readonly refusal: Obstacle | undefined };

/** A constant that becomes a function, and the other scripts whose uses of it become calls. */
export interface Callers {
  readonly name: string;
  readonly scripts: readonly ScriptPart[];
}

const say = notices("extract", {
  "load-read": {
    message: '"{name}" is read in {place} while files are loaded, before a locale is chosen',
    remedy: "read it in the function that shows it, or set emit.atLoad if your lookups work that early",
  },
  "load-unread": {
    message: '"{name}" is exported, and nothing in this book reads it: who does, and when, is not known here',
    remedy:
      "move the text into the function that shows it, or set emit.atLoad if your lookups work that early",
  },
  "load-exported": {
    message: '"{name}" is exported, and other files read it as it is',
    remedy: "make it a function and call it where it is read, then extract again",
  },
  "load-use": {
    message: '"{name}" is used in {place} where a call cannot stand for it',
    remedy: "make it a function by hand, or move the text to where it is shown",
  },
});

/**
 * The member of a constant object that holds a text becomes a getter, so that who reads it reads on as before; a constant
 * that is a text, or a list of some, becomes a function that each of its uses calls. Either holds only where nothing reads
 * the constant while files are loaded.
 */
export function deferralOf(
  part: ScriptPart,
  { literals, lines }: SourceFile,
  { span }: Literal,
  scriptsNaming: ScriptsNaming | undefined,
): Deferral {
  const none = { refusal: undefined };
  if (!scriptsNaming) return none;
  const { program, text } = part;
  const place = constantAround(program, span);
  if (!place) return staticGetter(part, lines, span, scriptsNaming);
  const { name, isExported, init, path } = place;
  const own = usesOf(program, name, part.runsPerUse);
  const placeOf = ({ node }: Use) => `line ${lines.position(node.start).line}`;
  if (own.some(({ kind }) => kind === "default")) return { refusal: say("load-exported", { name }) };
  const early = own.find(({ isEarly }) => isEarly);
  if (early) return { refusal: say("load-read", { name, place: placeOf(early) }) };
  const isNamedOutside = isExported || own.some(({ kind }) => kind === "exported");
  let readers = own.filter(({ kind }) => kind !== "exported").length;
  if (isNamedOutside)
    for (const other of scriptsNaming(name, part.file)) {
      const uses = usesOf(other.program, name, other.runsPerUse, true);
      const first = uses.find(({ isEarly }) => isEarly);
      if (first) return { refusal: say("load-read", { name, place: other.file }) };
      readers += uses.length;
    }
  if (isNamedOutside && readers === 0) return { refusal: say("load-unread", { name }) };
  const property = path.findLast((node) => node.type === "Property");
  if (property) {
    const { key, value } = property;
    if (property.kind !== "init" || property.method || property.shorthand || property.computed) return none;
    if (path.slice(path.indexOf(property) + 1).some(({ type }) => type === "ObjectExpression")) return none;
    if (!isData(value)) return none;
    const written = text.slice(key.start, key.end);
    const start = lineStart(text, property.start);
    const indent = text.slice(start, property.start);
    const isAlone = /^[ \t]*$/.test(indent);
    const unit = /\n(\t| {2,8})\S/.exec(text)?.[1] ?? "  ";
    const lineEnd = text.includes("\r\n") ? "\r\n" : "\n";
    const [open, close] = isAlone
      ? [`{${lineEnd}${indent}${unit}return `, `;${lineEnd}${indent}}`]
      : ["{ return ", "; }"];
    return {
      edits: [
        { start: property.start, end: value.start, replacement: `get ${written}() ${open}` },
        { start: value.end, end: value.end, replacement: close },
      ],
    };
  }
  if (!isData(init)) return none;
  const callers = isNamedOutside ? callersOf(name, part.file, scriptsNaming(name, part.file)) : [];
  if (!callers) return { refusal: say("load-exported", { name }) };
  const holdsPlace = (use: Use) =>
    literals.some(
      (one) => one.pieces.length > 1 && one.span.start <= use.node.start && use.node.end <= one.span.end,
    );
  const odd = own.find((use) => use.kind === "other" || use.isWatched || holdsPlace(use));
  if (odd) return { refusal: say("load-use", { name, place: placeOf(odd) }) };
  const asType = typeOf(name).exec(text);
  if (asType)
    return { refusal: say("load-use", { name, place: `line ${lines.position(asType.index).line}` }) };
  const colon = text.slice(place.typed.start, place.typed.end).indexOf(":");
  const typeStart = place.typed.start + colon;
  return {
    edits: [
      ...(colon < 0 ? [] : [{ start: typeStart, end: typeStart + 1, replacement: ": () =>" }]),
      { start: init.start, end: init.start, replacement: "() => " },
      ...callEdits(own, name),
    ],
    ...(callers.length > 0 && { callers: { name, scripts: callers } }),
  };
}

/** A type that goes by a constant: types are not in the tree. */
const typeOf = (name: string) => new RegExp(`\\btypeof\\s{1,9}${literally(name)}(?![\\w$])`);

/** What makes the uses of a constant calls of the function that it has become. */
function callEdits(uses: readonly Use[], name: string): readonly TextEdit[] {
  return uses
    .filter(({ kind }) => kind === "value" || kind === "shorthand")
    .map(({ node, kind }) => ({
      start: node.end,
      end: node.end,
      replacement: kind === "shorthand" ? `: ${name}()` : "()",
    }));
}

/** A script in which the constants of other files that have become functions are called. */
export function withCalls(file: string, text: string, names: Iterable<string>): string {
  let after = text;
  for (const name of names) {
    const { program } = wholeScript({ file, text: after });
    after = applyEdits(after, callEdits(findUses(program, name, false, false), name));
  }
  return after;
}

/** The scripts that take a constant from its module and can call it; undefined where one cannot, or where that is not known. */
function callersOf(
  name: string,
  module: string,
  others: readonly ScriptPart[],
): readonly ScriptPart[] | undefined {
  const callers: ScriptPart[] = [];
  for (const other of others) {
    const { program, text, file } = other;
    const imports = program.body.filter((one) => one.type === "ImportDeclaration");
    const takes = imports.find(({ specifiers }) =>
      specifiers.some((one) => one.type === "ImportSpecifier" && one.local.name === name),
    );
    const isTaken = takes !== undefined && isModule(takes.source.value, file, module);
    if (!isTaken) {
      // A name of its own is another; a way round through a third file is not followed.
      if (takes !== undefined || passesOn(program, file, module)) return undefined;
      if (moduleBinding(program, name) === undefined && usesOf(program, name, other.runsPerUse).length > 0)
        return undefined;
      continue;
    }
    if (!other.isWhole || passesOn(program, file, module) || typeOf(name).test(text)) return undefined;
    const uses = usesOf(program, name, other.runsPerUse);
    if (uses.some((use) => !/^(?:value|shorthand)$/.test(use.kind) || use.isWatched)) return undefined;
    callers.push(other);
  }
  return callers;
}

/** Whether a script hands on all of a module, or takes it as one object. */
function passesOn(program: Program, file: string, module: string): boolean {
  return program.body.some(
    (one) =>
      ((one.type === "ExportAllDeclaration" ||
        (one.type === "ImportDeclaration" &&
          one.specifiers.some(({ type }) => type === "ImportNamespaceSpecifier"))) &&
        isModule(one.source.value, file, module)) ||
      (one.type === "ExportNamedDeclaration" &&
        one.source !== null &&
        isModule(one.source.value, file, module)),
  );
}

/** Whether what a file imports is a module of the book: by the way there, or by the end of an alias such as `@/shop/labels`. */
function isModule(specifier: string, from: string, module: string): boolean {
  const bare = (path: string) => path.replace(/\.[cm]?[jt]sx?$/, "").replace(/(?:^|\/)index$/, "");
  if (specifier.startsWith(".")) return bare(posix.join(posix.dirname(from), specifier)) === bare(module);
  const [, rest] = /^(?:[@~#]\w{0,30})?\/(.{1,300})$/.exec(specifier) ?? [];
  return rest !== undefined && `/${bare(module)}`.endsWith(`/${bare(rest)}`);
}

/** A static field that holds a text becomes a getter, where nothing takes the class while files are loaded. */
function staticGetter(
  { program, text, file, runsPerUse }: ScriptPart,
  lines: SourceFile["lines"],
  span: Span,
  scriptsNaming: ScriptsNaming,
): Deferral {
  const none = { refusal: undefined };
  const field = staticFieldAround(program, span);
  if (!field?.value || field.computed || !isData(field.value)) return none;
  const { holder, key, value } = field;
  const { name, isExported } = holder;
  const written = text.slice(key.start, key.end);
  const own = usesOf(program, name, runsPerUse).filter(
    ({ kind }) => kind !== "exported" && kind !== "default",
  );
  const early = own.find(({ isEarly }) => isEarly);
  if (early)
    return { refusal: say("load-read", { name, place: `line ${lines.position(early.node.start).line}` }) };
  const assigned = new RegExp(`[.]\\s{0,9}${literally(written)}\\s{0,9}=(?![=>])`);
  const others = isExported ? scriptsNaming(name, file) : [];
  for (const other of others)
    if (usesOf(other.program, name, other.runsPerUse, true).some(({ isEarly }) => isEarly))
      return { refusal: say("load-read", { name, place: other.file }) };
  if (isExported && others.length + own.length === 0) return { refusal: say("load-unread", { name }) };
  const changed = [{ text, file }, ...others].find((one) => assigned.test(one.text));
  if (changed) return { refusal: say("load-use", { name: `${name}.${written}`, place: changed.file }) };
  const modifiers = text.slice(field.start, key.start).replace(/\breadonly\s+/, "");
  const typed = text.slice(key.end, value.start).trimEnd().replace(/=$/, "").trimEnd();
  return {
    edits: [
      { start: field.start, end: value.start, replacement: `${modifiers}get ${written}()${typed} { return ` },
      { start: value.end, end: field.end, replacement: "; }" },
    ],
  };
}

/** A class's static field around a place, of a class of the module's top level that has a name. */
function staticFieldAround(
  program: Program,
  span: Span,
):
  | (PropertyDefinition & { readonly holder: { readonly name: string; readonly isExported: boolean } })
  | undefined {
  for (const statement of program.body) {
    if (!contains(statement, span)) continue;
    const isExported = /^Export/.test(statement.type);
    const declared =
      statement.type === "ExportNamedDeclaration" || statement.type === "ExportDefaultDeclaration"
        ? statement.declaration
        : statement;
    if (declared?.type !== "ClassDeclaration" || !declared.id) return undefined;
    const field = declared.body.body.find((one) => contains(one, span));
    return field?.type === "PropertyDefinition" && field.static
      ? { ...field, holder: { name: declared.id.name, isExported } }
      : undefined;
  }
  return undefined;
}

interface Constant {
  readonly name: string;
  readonly isExported: boolean;
  readonly init: Node;
  /** Where its type stands, with the colon; empty where it has none. */
  readonly typed: Span;
  /** What stands around the text, from the value of the constant inwards. */
  readonly path: readonly Node[];
}

/** The constant of a module's top level whose value is data with a text in it. */
function constantAround(program: Program, span: Span): Constant | undefined {
  for (const statement of program.body) {
    if (!contains(statement, span)) continue;
    const isExported = statement.type === "ExportNamedDeclaration";
    const declaration = isExported ? statement.declaration : statement;
    if (declaration?.type !== "VariableDeclaration" || declaration.kind !== "const") return undefined;
    const found = declaration.declarations.find(({ init }) => init && contains(init, span));
    if (found?.id.type !== "Identifier" || !found.init) return undefined;
    const path: Node[] = [];
    let node: Node | undefined = found.init;
    while (node && !(node.start === span.start && node.end === span.end)) {
      if (
        !/^(?:ObjectExpression|ArrayExpression|Property|ParenthesizedExpression|TSSatisfiesExpression)$/.test(
          node.type,
        )
      )
        return undefined;
      path.push(node);
      node = childrenOf(node).find((child) => contains(child, span));
    }
    if (!node) return undefined;
    const { name, start, end } = found.id;
    return { name, isExported, init: found.init, typed: { start: start + name.length, end }, path };
  }
  return undefined;
}

/** Whether a value is texts, numbers and lists of them: the same whenever it is made. */
function isData(node: Node): boolean {
  if (node.type === "ArrayExpression") return node.elements.every((one) => one !== null && isData(one));
  if (node.type === "TemplateLiteral") return node.expressions.length === 0;
  return node.type === "Literal";
}

/** A place where a name is used. */
interface Use {
  readonly node: Node;
  readonly kind: "value" | "shorthand" | "exported" | "default" | "other";
  /** Whether the place is reached while the file is loaded. */
  readonly isEarly: boolean;
  /** Whether a change of it is waited for, as in the list of what an effect depends on. */
  readonly isWatched: boolean;
}

/** Calls that call at once what they are given, or hand it on to where that is not known. */
const callsLater =
  /^(?:memo|forwardRef|lazy|observer|connect|defineComponent|defineStore|(?:with|use)[A-Z]\w{0,40}|on|once|get|post|put|patch|delete|all|addEventListener|then|catch|finally|setTimeout|setInterval|requestAnimationFrame|subscribe)$/;

const usesByProgram = new WeakMap<Program, Map<string, readonly Use[]>>();

/** Every use of a name of the module, its declaration aside. `fromElsewhere` takes it as a member of anything as well. */
function usesOf(program: Program, name: string, runsPerUse: boolean, fromElsewhere = false): readonly Use[] {
  const known = usesByProgram.get(program) ?? new Map<string, readonly Use[]>();
  usesByProgram.set(program, known);
  // One constant holds many texts.
  const wanted = fromElsewhere ? `.${name}` : name;
  const found = known.get(wanted) ?? findUses(program, name, runsPerUse, fromElsewhere);
  known.set(wanted, found);
  return found;
}

function findUses(
  program: Program,
  name: string,
  runsPerUse: boolean,
  fromElsewhere: boolean,
): readonly Use[] {
  const uses: Use[] = [];
  const add = (node: Node, kind: Use["kind"], isLate: boolean, isWatched: boolean) => {
    if (kind === "value" && isShadowed(program, node.start, name)) return;
    uses.push({ node, kind, isEarly: !isLate && kind !== "exported" && kind !== "default", isWatched });
  };
  const visit = (node: Node, isLate: boolean, isWatched: boolean): void => {
    switch (node.type) {
      case "Identifier":
        if (node.name === name) add(node, "value", isLate, isWatched);
        return;
      case "JSXIdentifier":
        if (node.name === name) add(node, "other", isLate, false);
        return;
      case "ImportDeclaration":
        // Under another name its uses are not followed.
        for (const one of node.specifiers)
          if (one.type === "ImportSpecifier" && isNamed(one.imported, name) && one.local.name !== name)
            add(one, "other", false, false);
        return;
      case "ExportSpecifier":
        if (node.local.type === "Identifier" && node.local.name === name)
          add(node, isNamed(node.exported, name) ? "exported" : "default", true, false);
        return;
      case "ExportDefaultDeclaration":
        if (node.declaration.type === "Identifier" && node.declaration.name === name) {
          add(node, "default", true, false);
          return;
        }
        break;
      case "VariableDeclarator":
        if (node.id.type !== "Identifier") visit(node.id, isLate, false);
        if (node.init) visit(node.init, isLate, false);
        return;
      case "MemberExpression":
        visit(node.object, isLate, isWatched);
        if (node.computed) visit(node.property, isLate, false);
        else if (fromElsewhere && node.property.type === "Identifier" && node.property.name === name)
          add(node, "other", isLate, false);
        return;
      case "ObjectPattern":
        // What it names is made here, and is no use.
        for (const one of node.properties) {
          const given = one.type === "Property" ? one.value : one.argument;
          if (one.type === "Property" && one.computed) visit(one.key, isLate, false);
          if (given.type === "AssignmentPattern") visit(given.right, isLate, false);
          if (given.type === "ObjectPattern") visit(given, isLate, false);
        }
        return;
      case "Property":
        if (node.shorthand && node.value.type === "Identifier") {
          if (node.value.name === name) add(node.value, "shorthand", isLate, false);
          return;
        }
        if (node.computed) visit(node.key, isLate, false);
        visit(node.value, isLate, isWatched);
        return;
      case "PropertyDefinition":
        if (node.value) visit(node.value, isLate || !node.static, false);
        return;
      case "ClassDeclaration":
      case "ClassExpression":
        for (const child of childrenOf(node)) if (child !== node.id) visit(child, isLate, false);
        return;
      case "MethodDefinition":
        visit(node.value, true, false);
        return;
      case "FunctionDeclaration":
      case "FunctionExpression":
      case "ArrowFunctionExpression":
        for (const child of childrenOf(node)) if (child !== node.id) visit(child, true, false);
        return;
      case "CallExpression":
      case "NewExpression": {
        const { callee } = node;
        const called = callee.type === "MemberExpression" ? callee.property : callee;
        const later = called.type === "Identifier" && callsLater.test(called.name);
        if (/Function/.test(callee.type)) for (const child of childrenOf(callee)) visit(child, isLate, false);
        else visit(callee, isLate, false);
        for (const [at, argument] of node.arguments.entries()) {
          const isCalled = /^(?:Function|ArrowFunction)Expression$/.test(argument.type) && !later && !isLate;
          // The last list that a hook is given says what it waits for.
          const waits = argument.type === "ArrayExpression" && at > 0 && at === node.arguments.length - 1;
          if (isCalled) for (const child of childrenOf(argument)) visit(child, false, false);
          else visit(argument, isLate, waits);
        }
        return;
      }
      default:
        if (/^TS(?!AsExpression|SatisfiesExpression|NonNullExpression)/.test(node.type)) return;
    }
    for (const child of childrenOf(node)) visit(child, isLate, isWatched);
  };
  for (const statement of program.body) visit(statement, runsPerUse, false);
  return uses;
}

function isNamed(node: Node, name: string): boolean {
  return node.type === "Identifier" && node.name === name;
}
