import { visitorKeys } from "oxc-parser";

/** Nodes that name what is in them, or put off when it is evaluated. */
export const framing: ReadonlySet<string> = new Set([
  "FunctionDeclaration",
  "FunctionExpression",
  "ArrowFunctionExpression",
  "ClassDeclaration",
  "ClassExpression",
  "VariableDeclarator",
  "MethodDefinition",
  "PropertyDefinition",
]);

/** Nodes that hold nothing to read. */
export const leaves: ReadonlySet<string> = new Set([
  "Identifier",
  "JSXIdentifier",
  "JSXText",
  "JSXEmptyExpression",
  "ThisExpression",
  "PrivateIdentifier",
  "TemplateElement",
  "JSXClosingElement",
  "EmptyStatement",
  "Super",
]);

/** The children of each kind of node that can hold text or lookups: types and decorators' types cannot. */
export const childKeys: Readonly<Record<string, readonly string[]>> = Object.fromEntries(
  Object.entries(visitorKeys).map(([type, keys]) => [
    type,
    keys.filter(
      (key) =>
        !/^(typeAnnotation|typeArguments|typeParameters|returnType|superTypeArguments|implements|closingElement|label)$/.test(
          key,
        ),
    ),
  ]),
);
