import { lineStart as lineStartOf } from "../../../text/line-start.js";
import {
  type VariableDeclarator,
  visitorKeys,
  type ArrowFunctionExpression,
  type Function as FunctionNode,
  type ImportDeclaration,
  type Node,
  type Program,
} from "oxc-parser";
import type { TextEdit } from "../../../text/edits.js";
import type { Span } from "../../../text/span.js";
import { calleeName } from "./context.js";
import { parseAnew } from "./parse.js";

/** Whether a name is declared in a function or block around a place, so that it hides the module's. */
export function isShadowed(program: Program, offset: number, name: string): boolean {
  return innermostBinding(program, offset, name) !== undefined;
}

/** The innermost function or block around a place that declares a name; undefined where none but the program does. */
export function innermostBinding(program: Program, offset: number, name: string): Node | undefined {
  let found: Node | undefined;
  let node: Node | undefined = program;
  while (node) {
    if (node !== program && declaredBy(node).has(name)) found = node;
    node = childrenOf(node).find((child) => child.start <= offset && offset < child.end);
  }
  return found;
}

/** How a script's calls of a function, or of a method of an object, know it; or how its members of an object do. */
interface KnownCalls {
  /** Some call it where nothing in the script makes it known. */
  readonly isFree: boolean;
  /** Some call what the script makes, brings in or is given. */
  readonly isBound: boolean;
  /** Of these, some call what is known in a function or block alone. */
  readonly isGiven: boolean;
}

const callsByProgram = new WeakMap<Program, Map<string, KnownCalls>>();

/** How a script calls something by its name, or a method of it by both: `say`, `texts.say`; looked at once. */
export function callsOf(program: Program, asked: string): KnownCalls {
  const name = asked.split(".", 1)[0] ?? asked;
  return knownIn(program, asked, name, (node) =>
    node.type === "CallExpression" ? calleeName(node.callee) === asked : false,
  );
}

/** How a script takes members of an object: `texts.title`; looked at once. */
export function membersOf(program: Program, name: string): KnownCalls {
  return knownIn(program, `${name}.`, name, (node) =>
    node.type === "MemberExpression" ? node.object.type === "Identifier" && node.object.name === name : false,
  );
}

function knownIn(program: Program, id: string, name: string, isUse: (node: Node) => boolean): KnownCalls {
  const known = callsByProgram.get(program) ?? new Map<string, KnownCalls>();
  callsByProgram.set(program, known);
  const there = known.get(id);
  if (there) return there;
  const isOfModule = moduleBinding(program, name) !== undefined;
  const calls = { isFree: false, isBound: false, isGiven: false };
  const visit = (node: Node): void => {
    if (isUse(node)) {
      const isGiven = isShadowed(program, node.start, name);
      calls.isGiven ||= isGiven;
      if (isGiven || isOfModule) calls.isBound = true;
      else calls.isFree = true;
    }
    for (const child of childrenOf(node)) visit(child);
  };
  visit(program);
  known.set(id, calls);
  return calls;
}

/** Where a module's top level has a name from: an import's module, `local`, or nowhere. */
export function moduleBinding(
  program: Program,
  name: string,
): { readonly from: string } | "local" | undefined {
  for (const statement of program.body) {
    if (statement.type === "ImportDeclaration") {
      if (statement.specifiers.some((specifier) => specifier.local.name === name))
        return { from: statement.source.value };
    } else if (declarationNames(statement).has(name)) {
      const from = requiredFrom(statement, name);
      return from === undefined ? "local" : { from };
    }
  }
  return undefined;
}

/** A declaration that takes names from a module (CommonJS): `const { say } = require("./say")`. */
interface Required {
  readonly from: string;
  readonly names: readonly { readonly local: string; readonly start: number; readonly end: number }[];
  /** Whether the names stand in braces. */
  readonly named: boolean;
}

function requiredBy({ id, init }: VariableDeclarator): Required | undefined {
  const call = init?.type === "MemberExpression" ? init.object : init;
  if (call?.type !== "CallExpression" || call.callee.type !== "Identifier" || call.callee.name !== "require")
    return undefined;
  const [source] = call.arguments;
  if (source?.type !== "Literal" || typeof source.value !== "string") return undefined;
  const names =
    id.type === "Identifier"
      ? [{ local: id.name, start: id.start, end: id.end }]
      : id.type === "ObjectPattern"
        ? id.properties.flatMap((one) =>
            one.type === "Property" && one.value.type === "Identifier"
              ? [{ local: one.value.name, start: one.start, end: one.end }]
              : [],
          )
        : [];
  return { from: source.value, names, named: id.type === "ObjectPattern" };
}

/** The module that a declaration takes a name from. */
function requiredFrom(statement: Program["body"][number], name: string): string | undefined {
  if (statement.type !== "VariableDeclaration") return undefined;
  return statement.declarations
    .map(requiredBy)
    .find((required) => required?.names.some(({ local }) => local === name))?.from;
}

/** A line that brings names in, read. */
export interface ImportLine {
  readonly line: string;
  readonly from: string;
  readonly names: readonly { readonly local: string; readonly written: string; readonly named: boolean }[];
  /** Whether it calls `require()`, which only modules of that kind know. */
  readonly isRequire: boolean;
}

/** Reads one import declaration, or one that calls `require()`, as the configuration gives it; undefined where it is none. */
export function readImportLine(line: string): ImportLine | undefined {
  const { program, problems } = parseAnew("line.ts", line);
  const declaration = program.body[0];
  if (problems.length > 0 || program.body.length !== 1) return undefined;
  if (declaration?.type === "VariableDeclaration") {
    const [only, ...others] = declaration.declarations.map(requiredBy);
    if (!only || others.length > 0) return undefined;
    const { from, named } = only;
    const names = only.names.map(({ local, start, end }) => ({
      local,
      written: line.slice(start, end),
      named,
    }));
    return { line, from, names, isRequire: true };
  }
  if (declaration?.type !== "ImportDeclaration") return undefined;
  const names = declaration.specifiers.map((specifier) => ({
    local: specifier.local.name,
    written: line.slice(specifier.start, specifier.end),
    named: specifier.type === "ImportSpecifier",
  }));
  return { line, from: declaration.source.value, names, isRequire: false };
}

/**
 * The edits that import what is needed: a name joins the braces of an import from the same module that is already
 * there, anything else becomes a line behind the last import.
 */
export function importEdits(
  program: Program,
  text: string,
  wanted: readonly ImportLine[],
  start?: number,
): TextEdit[] {
  const imports = program.body.filter(
    (statement): statement is ImportDeclaration => statement.type === "ImportDeclaration",
  );
  const edits: TextEdit[] = [];
  const added = new Map<ImportDeclaration, string[]>();
  const lines: string[] = [];
  const required: string[] = [];
  for (const line of wanted) {
    const missing = line.names.filter(({ local }) => moduleBinding(program, local) === undefined);
    if (missing.length === 0) continue;
    const home = imports.find(
      (statement) =>
        !line.isRequire &&
        statement.source.value === line.from &&
        statement.importKind !== "type" &&
        statement.specifiers.some((one) => one.type === "ImportSpecifier"),
    );
    if (home && missing.every(({ named }) => named))
      added.set(home, [...(added.get(home) ?? []), ...missing.map(({ written }) => written)]);
    else if (line.isRequire) required.push(line.line);
    else lines.push(line.line);
  }
  if (required.length > 0) edits.push(newRequires(program, text, required));
  for (const [home, names] of added) {
    const last = home.specifiers[home.specifiers.length - 1];
    if (last)
      edits.push({ start: last.end, end: last.end, replacement: names.map((name) => `, ${name}`).join("") });
  }
  if (lines.length > 0) edits.push(newImports(program, text, lines, start));
  return edits;
}

function newImports(
  program: Program,
  text: string,
  lines: readonly string[],
  scriptStart: number | undefined,
): TextEdit {
  const lineEnd = text.includes("\r\n") ? "\r\n" : "\n";
  const at = topLevelStart(program, scriptStart);
  if (at !== undefined) return linesAt(program, text, at, lines);
  const start = /^#!.*(?:\r?\n|$)/.exec(text)?.[0].length ?? 0;
  return { start, end: start, replacement: lines.map((line) => line + lineEnd).join("") + lineEnd };
}

/** New lines that call `require()`, behind those that a script begins with. */
function newRequires(program: Program, text: string, lines: readonly string[]): TextEdit {
  const isHead = (statement: Program["body"][number]) =>
    (statement.type === "VariableDeclaration" &&
      statement.declarations.some((one) => requiredBy(one) !== undefined)) ||
    (statement.type === "ExpressionStatement" &&
      (Boolean("directive" in statement && statement.directive) ||
        /^require\(/.test(text.slice(statement.start, statement.end))));
  const first = program.body.findIndex((statement) => !isHead(statement));
  const last = program.body[(first < 0 ? program.body.length : first) - 1];
  return last ? linesAt(program, text, last.end, lines) : newImports(program, text, lines, undefined);
}

/** Behind which place of a script the first of its own statements stands; undefined for the beginning of a file. */
function topLevelStart(program: Program, scriptStart: number | undefined): number | undefined {
  const last = program.body.findLast(({ type }) => type === "ImportDeclaration");
  const directive = program.body.findLast(
    (statement) =>
      statement.type === "ExpressionStatement" && "directive" in statement && statement.directive,
  );
  return (last ?? directive)?.end ?? scriptStart;
}

/** How the statements of a script are indented. */
function indentOf(program: Program, text: string): string {
  const [first] = program.body;
  return first ? (/^[ \t]*$/.exec(text.slice(lineStartOf(text, first.start), first.start))?.[0] ?? "") : "";
}

/** The edit that puts a statement at the top level of a part of a file, behind its imports. */
export function topLevelEdit(
  { program, text, span }: { readonly program: Program; readonly text: string; readonly span: Span },
  line: string,
): TextEdit {
  return linesAt(program, text, topLevelStart(program, span.start) ?? span.start, [line]);
}

/** New lines behind a place; what stands on the line of a script's own tag moves to the next one. */
function linesAt(program: Program, text: string, at: number, lines: readonly string[]): TextEdit {
  const lineEnd = text.includes("\r\n") ? "\r\n" : "\n";
  const isInFront =
    program.body.every(({ start }) => start >= at) && !/^[ \t]*(?:\r?\n|$)/.test(text.slice(at));
  const indent = isInFront ? "" : indentOf(program, text);
  const added = lines.map((line) => lineEnd + indent + line).join("");
  return { start: at, end: at, replacement: added + (isInFront ? lineEnd : "") };
}

/** A statement that makes a lookup for the component or hook around it, read. */
export interface SetupLine {
  readonly line: string;
  /** The names that it declares. */
  readonly names: readonly string[];
  /** The function that it calls, which an import brings in. */
  readonly callee: string | undefined;
}

/** Reads a set-up statement as the configuration gives it; undefined where it declares nothing. */
export function readSetupLine(line: string): SetupLine | undefined {
  const { program, problems } = parseAnew("line.ts", line);
  const [statement] = program.body;
  if (problems.length > 0 || program.body.length !== 1 || statement?.type !== "VariableDeclaration")
    return undefined;
  const init = statement.declarations[0]?.init;
  const callee =
    init?.type === "CallExpression" && init.callee.type === "Identifier" ? init.callee.name : undefined;
  return { line: line.trim(), names: [...declarationNames(statement)], callee };
}

/** A function that a set-up statement can go into: a component or hook, by its name. */
export interface SetupPlace {
  readonly start: number;
  readonly end: number;
  /** Whether the statement already exists, the name is declared in another way, or nothing is. */
  readonly state: "there" | "taken" | "free";
  readonly edits: readonly TextEdit[];
}

/** The outermost component or hook around a place, with what puts a set-up statement at its start. */
export function setupPlace(
  program: Program,
  text: string,
  offset: number,
  setup: SetupLine,
): SetupPlace | undefined {
  let node: Node | undefined = program;
  let given: string | undefined;
  while (node) {
    const made = asFunction(node);
    if (made?.body) {
      const name = "id" in made && made.id ? made.id.name : given;
      const isHook = name !== undefined && /^use[A-Z]/.test(name);
      const isComponent = name !== undefined && /^[A-Z]/.test(name) && !makesComponent(made.body);
      if (isHook || isComponent) return placeIn(made.body, text, setup, node);
    }
    if (node.type === "VariableDeclarator") given = node.id.type === "Identifier" ? node.id.name : undefined;
    else if (made) given = undefined;
    node = childrenOf(node).find((child) => child.start <= offset && offset < child.end);
  }
  return undefined;
}

function asFunction(node: Node): FunctionNode | ArrowFunctionExpression | undefined {
  return node.type === "FunctionDeclaration" ||
    node.type === "FunctionExpression" ||
    node.type === "ArrowFunctionExpression"
    ? node
    : undefined;
}

/** Whether a function gives back a component that it makes, by itself or wrapped, as no component does. */
function makesComponent(body: Node): boolean {
  if (body.type !== "BlockStatement") return isMade(body, new Set());
  const own = new Set<string>();
  const add = (name: string | undefined) => {
    if (name !== undefined && /^[A-Z]/.test(name)) own.add(name);
  };
  for (const statement of body.body)
    if (statement.type === "FunctionDeclaration" || statement.type === "ClassDeclaration")
      add(statement.id?.name);
    else if (statement.type === "VariableDeclaration")
      for (const { id, init } of statement.declarations)
        if (id.type === "Identifier" && init && isMade(init, own)) add(id.name);
  return body.body.some(
    (statement) =>
      statement.type === "ReturnStatement" && statement.argument && isMade(statement.argument, own),
  );
}

/** What wraps a component into another one: `memo(Cart)`, `withTheme(Cart)`. */
const wrapper = /^(?:memo|forwardRef|observer|inject[A-Z]\w*|with[A-Z]\w*)$/;

/** Whether an expression is a class or a function, one of these names, or one of both in what wraps components. */
function isMade(node: Node, names: ReadonlySet<string>): boolean {
  if (node.type === "Identifier") return names.has(node.name);
  if (node.type !== "CallExpression")
    return node.type === "ClassExpression" || asFunction(node) !== undefined;
  const { callee } = node;
  const name = calleeName(callee)?.split(".").at(-1) ?? "";
  // `connect(choose)(Cart)` is a call of what a call gives.
  return (
    (callee.type === "CallExpression" || wrapper.test(name)) &&
    node.arguments.some((one) => isMade(one, names))
  );
}

function placeIn(body: Node, text: string, setup: SetupLine, { start, end }: Node): SetupPlace {
  const lineEnd = text.includes("\r\n") ? "\r\n" : "\n";
  const indentAt = (at: number) => /^[ \t]*/.exec(text.slice(lineStartOf(text, at)))?.[0] ?? "";
  const own = indentAt(start);
  const unit = /\n(\t| {2,8})\S/.exec(text)?.[1] ?? "  ";
  if (body.type !== "BlockStatement") {
    const inner = `${own}${unit}`;
    const open = /\(\s*$/.exec(text.slice(0, body.start))?.[0];
    const close = /^\s*\)/.exec(text.slice(body.end))?.[0];
    const from = open !== undefined && close !== undefined ? body.start - open.length : body.start;
    const to = open !== undefined && close !== undefined ? body.end + close.length : body.end;
    return {
      start,
      end,
      state: "free",
      edits: [
        { start: from, end: from, replacement: `{${lineEnd}${inner}${setup.line}${lineEnd}${inner}return ` },
        { start: to, end: to, replacement: `;${lineEnd}${own}}` },
      ],
    };
  }
  const plain = (code: string) => code.replace(/\s+|;$/g, "");
  const statements = body.body;
  const isThere = statements.some((one) => plain(text.slice(one.start, one.end)) === plain(setup.line));
  const isTaken = statements.some((one) => setup.names.some((name) => declarationNames(one).has(name)));
  const sameMaker = statements.some(
    (one) =>
      one.type === "VariableDeclaration" &&
      setup.names.every((name) => declarationNames(one).has(name)) &&
      one.declarations.some(
        ({ init }) =>
          init?.type === "CallExpression" &&
          init.callee.type === "Identifier" &&
          init.callee.name === setup.callee,
      ),
  );
  const [first] = statements.filter((one) => !("directive" in one && one.directive));
  const before = statements[first ? statements.indexOf(first) - 1 : -1]?.end ?? body.start + 1;
  const at = first ? withComments(text, before, first.start) : body.start + 1;
  const indent = first ? indentAt(at) : `${own}${unit}`;
  const onOneLine = first !== undefined && !text.slice(body.start, first.start).includes("\n");
  return {
    start,
    end,
    state: isThere || sameMaker ? "there" : isTaken ? "taken" : "free",
    edits: [
      {
        start: at,
        end: at,
        replacement: first
          ? `${setup.line}${onOneLine ? " " : lineEnd + indent}`
          : `${lineEnd}${indent}${setup.line}${lineEnd}${own}`,
      },
    ],
  };
}

/** Where a statement begins with the comments on the lines before it, which are about it: `// eslint-disable-next-line`. */
function withComments(text: string, before: number, start: number): number {
  const comments = /\n[ \t\r]{0,200}(?=\/[/*])/.exec(text.slice(before, start));
  return comments ? before + comments.index + comments[0].length : start;
}

/** The nodes right below a node, in the order of the code. */
export function childrenOf(node: Node): Node[] {
  const children: Node[] = [];
  for (const key of visitorKeys[node.type] ?? []) {
    const child = (node as unknown as Record<string, Node | readonly (Node | null)[] | null | undefined>)[
      key
    ];
    if (Array.isArray(child)) {
      for (const item of child as readonly (Node | null)[]) if (item) children.push(item);
    } else if (child) children.push(child as Node);
  }
  return children;
}

/** The names that a node declares for what is inside it. */
function declaredBy(node: Node): ReadonlySet<string> {
  const names = new Set<string>();
  switch (node.type) {
    case "FunctionDeclaration":
    case "FunctionExpression":
    case "ArrowFunctionExpression":
      for (const parameter of node.params) patternNames(parameter, names);
      if (node.type === "FunctionExpression" && node.id) names.add(node.id.name);
      break;
    case "BlockStatement":
    case "StaticBlock":
      for (const statement of node.body) for (const name of declarationNames(statement)) names.add(name);
      break;
    case "SwitchStatement":
      for (const one of node.cases)
        for (const statement of one.consequent)
          for (const name of declarationNames(statement)) names.add(name);
      break;
    case "ForStatement":
      if (node.init) for (const name of declarationNames(node.init)) names.add(name);
      break;
    case "ForInStatement":
    case "ForOfStatement":
      for (const name of declarationNames(node.left)) names.add(name);
      break;
    case "CatchClause":
      if (node.param) patternNames(node.param, names);
      break;
    default:
  }
  return names;
}

function declarationNames(statement: Node): ReadonlySet<string> {
  const names = new Set<string>();
  switch (statement.type) {
    case "VariableDeclaration":
      for (const declarator of statement.declarations) patternNames(declarator.id, names);
      break;
    case "FunctionDeclaration":
    case "ClassDeclaration":
    case "TSEnumDeclaration":
      if (statement.id) names.add(statement.id.name);
      break;
    case "ExportNamedDeclaration":
    case "ExportDefaultDeclaration":
      if (statement.declaration) return declarationNames(statement.declaration);
      break;
    default:
  }
  return names;
}

function patternNames(pattern: Node, names: Set<string>): void {
  switch (pattern.type) {
    case "Identifier":
      names.add(pattern.name);
      break;
    case "ObjectPattern":
      for (const property of pattern.properties)
        patternNames(property.type === "Property" ? property.value : property.argument, names);
      break;
    case "ArrayPattern":
      for (const element of pattern.elements) if (element) patternNames(element, names);
      break;
    case "AssignmentPattern":
      patternNames(pattern.left, names);
      break;
    case "RestElement":
      patternNames(pattern.argument, names);
      break;
    case "TSParameterProperty":
      patternNames(pattern.parameter, names);
      break;
    default:
  }
}
