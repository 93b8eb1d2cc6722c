import { visitorKeys, type ImportDeclaration, type Node, type Program } from "oxc-parser";
import type { TextEdit } from "../../../text/edits.js";
import { parseScript } from "./script.js";

/** Whether a name is declared in a function or block around a place, so that it hides the module's. */
export function isShadowed(program: Program, offset: number, name: string): boolean {
  let node: Node | undefined = program;
  while (node) {
    if (node !== program && declaredBy(node).has(name)) return true;
    node = childrenOf(node).find((child) => child.start <= offset && offset < child.end);
  }
  return false;
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
    } else if (declarationNames(statement).has(name)) return "local";
  }
  return undefined;
}

/** An import line, read. */
export interface ImportLine {
  readonly line: string;
  readonly from: string;
  readonly names: readonly { readonly local: string; readonly written: string; readonly named: boolean }[];
}

/** Reads one import declaration as the configuration gives it; undefined where it is none. */
export function readImportLine(line: string): ImportLine | undefined {
  const { program, problems } = parseScript("line.ts", line);
  const declaration = program.body[0];
  if (problems.length > 0 || program.body.length !== 1 || declaration?.type !== "ImportDeclaration")
    return undefined;
  const names = declaration.specifiers.map((specifier) => ({
    local: specifier.local.name,
    written: line.slice(specifier.start, specifier.end),
    named: specifier.type === "ImportSpecifier",
  }));
  return { line, from: declaration.source.value, names };
}

/**
 * The edits that import what is needed: a name joins the braces of an import from the same module that is already
 * there, anything else becomes a line behind the last import.
 */
export function importEdits(program: Program, text: string, wanted: readonly ImportLine[]): TextEdit[] {
  const imports = program.body.filter(
    (statement): statement is ImportDeclaration => statement.type === "ImportDeclaration",
  );
  const edits: TextEdit[] = [];
  const added = new Map<ImportDeclaration, string[]>();
  const lines: string[] = [];
  for (const line of wanted) {
    const missing = line.names.filter(({ local }) => moduleBinding(program, local) === undefined);
    if (missing.length === 0) continue;
    const home = imports.find(
      (statement) =>
        statement.source.value === line.from &&
        statement.importKind !== "type" &&
        statement.specifiers.some((one) => one.type === "ImportSpecifier"),
    );
    if (home && missing.every(({ named }) => named))
      added.set(home, [...(added.get(home) ?? []), ...missing.map(({ written }) => written)]);
    else lines.push(line.line);
  }
  for (const [home, names] of added) {
    const last = home.specifiers[home.specifiers.length - 1];
    if (last)
      edits.push({ start: last.end, end: last.end, replacement: names.map((name) => `, ${name}`).join("") });
  }
  if (lines.length > 0) edits.push(newImports(program, text, imports, lines));
  return edits;
}

function newImports(
  program: Program,
  text: string,
  imports: readonly ImportDeclaration[],
  lines: readonly string[],
): TextEdit {
  const lineEnd = text.includes("\r\n") ? "\r\n" : "\n";
  const last = imports[imports.length - 1];
  if (last)
    return { start: last.end, end: last.end, replacement: lines.map((line) => lineEnd + line).join("") };
  const directives = program.body.filter(
    (statement) =>
      statement.type === "ExpressionStatement" && "directive" in statement && statement.directive,
  );
  const after = directives[directives.length - 1];
  if (after)
    return { start: after.end, end: after.end, replacement: lines.map((line) => lineEnd + line).join("") };
  const start = /^#!.*(?:\r?\n|$)/.exec(text)?.[0].length ?? 0;
  return { start, end: start, replacement: lines.map((line) => line + lineEnd).join("") + lineEnd };
}

function childrenOf(node: Node): Node[] {
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
