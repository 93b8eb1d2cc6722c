import { variableOf } from "../source/dialects/dialect.js";
import type { SourceFile } from "../source/model.js";
import type { CodeNode } from "../source/readers/code/tree.js";
import { nodesAround, treeOf } from "./code-tree.js";
import { literally } from "../text/key-pattern.js";
import type { Span } from "../text/span.js";

/**
 * The variable that a lookup of PHP is asked of or given, where nothing makes it known at a place: `$desk` of `$desk->say("{key}")`,
 * in a function that neither takes, makes nor declares it, or at the top level of a file that has it nowhere there.
 */
export function lackingVariable(template: string, source: SourceFile, { start }: Span): string | undefined {
  const names = template.matchAll(/(?<![\w$>])(\$[A-Za-z_]\w*)\s?(?:->|\?->|::|\[|\(|,|\))/g);
  return [...names].map(([, name = ""]) => name).find((name) => !isKnown(name, source, start));
}

function isKnown(name: string, source: SourceFile, start: number): boolean {
  const { dialect, text } = source;
  if (dialect?.hasSharedMembers) return true;
  // What a sign takes out of a variable is known as that is, and scripts of components bring it in.
  if (variableOf(name, dialect) !== name) return true;
  // A page of another engine is given its variables: it has those that it shows.
  if (dialect && !dialect.isProgram) return new RegExp(`${literally(name)}(?!\\w)`).test(text);
  const root = treeOf(source, "php");
  const functions = nodesAround(root, start).filter(({ type }) => functionTypes.test(type));
  if (name === "$this") return hasThis(root, functions);
  const scope = functions.findLast(({ type }) => type !== "arrow_function");
  const mentions = mentionsIn(scope ?? root, name, text);
  if (scope) return mentions.some((one) => one.start < start);
  const [first] = mentions;
  // What is read before it is made comes from whoever includes the file, and is there all over.
  return first !== undefined && (!first.isMade || first.start < start);
}

const functionTypes = /^(?:function_definition|method_declaration|anonymous_function|arrow_function)$/;

/** Whether there is an object that the code runs in, inside of functions, from the outermost. */
function hasThis(root: CodeNode, functions: readonly CodeNode[]): boolean {
  for (const { type, children } of functions.toReversed()) {
    if (children.some((child) => child.type === "static_modifier")) return false;
    if (type === "method_declaration") return true;
    if (type === "function_definition") return false;
  }
  // What a file does outside of functions is done for whoever includes it, unless it holds classes.
  return functions.length > 0 || !root.children.some(({ type }) => /^class_|^namespace_/.test(type));
}

/** Where a function, or a file outside of its functions, has a variable; functions inside of it have their own. */
function mentionsIn(
  scope: CodeNode,
  name: string,
  text: string,
): readonly { readonly start: number; readonly isMade: boolean }[] {
  const found: { start: number; isMade: boolean }[] = [];
  const visit = (node: CodeNode, isTarget: boolean) => {
    const { type, start, end } = node;
    if (type === "variable_name" && text.slice(start, end) === name) found.push({ start, isMade: isTarget });
    for (const child of node.children) {
      if (/^(?:property_declaration|class_constant)/.test(child.type)) continue;
      // `Desk::$one` is the class's own.
      if (type === "scoped_property_access_expression" && child.field === "name") continue;
      const isInner = functionTypes.test(child.type) && child.type !== "arrow_function";
      const taken = isInner
        ? child.children.filter((one) => one.type === "anonymous_function_use_clause")
        : [child];
      const isMade = child.field === "left" && /^(?:assignment|reference_assignment)_/.test(type);
      for (const one of taken) visit(one, isMade || (isTarget && /^(?:list|array)/.test(type)));
    }
  };
  visit(scope, false);
  return found;
}
