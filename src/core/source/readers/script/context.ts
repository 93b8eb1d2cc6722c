import type { JSXElementName, JSXOpeningElement, Node } from "oxc-parser";
import { asksForDebugging } from "../debugging.js";
import { showsPictures } from "../../../text/html-elements.js";
import type { LiteralContext, LiteralRole } from "../../model.js";

/** The nodes around the one being read, outermost first. */
export type Ancestors = readonly Node[];

/** The named functions and classes around the node being read, kept while the tree is walked. */
export interface Enclosing {
  readonly names: readonly string[];
  /** How many functions and instance fields are around it: with none, it is evaluated when the file is loaded. */
  readonly deferred: number;
}

/** Whether a condition around a node asks for debugging: `if (debug)`, `debug && …`. */
function isDebugging(ancestors: Ancestors, node: Node, text: string): boolean {
  return ancestors.some((outer, index) => {
    const inner = ancestors[index + 1] ?? node;
    const condition =
      outer.type === "IfStatement"
        ? outer.test
        : outer.type === "LogicalExpression" && outer.operator === "&&"
          ? outer.left
          : undefined;
    const isTaken = outer.type === "IfStatement" ? inner === outer.consequent : inner !== condition;
    return condition !== undefined && isTaken && asksForDebugging(text.slice(condition.start, condition.end));
  });
}

/** The classes of an element, where they are written out. */
function classOf({ attributes }: JSXOpeningElement): string | undefined {
  for (const one of attributes)
    if (one.type === "JSXAttribute" && /^class(?:Name)?$/.test(String(one.name.name)))
      return one.value?.type === "Literal" ? String(one.value.value) : undefined;
  return undefined;
}

/** Where a literal stands and what the code does with it, read off the nodes around it. */
export function contextOf(
  node: Node,
  ancestors: Ancestors,
  enclosing: Enclosing,
  text: string,
): LiteralContext {
  const properties: string[] = [];
  let inner = node;
  let found: ReturnType<typeof roleIn>;
  for (let index = ancestors.length - 1; index >= 0 && !found; index--) {
    const outer = ancestors[index];
    if (!outer) break;
    found = roleIn(outer, inner, ancestors, index, properties);
    inner = outer;
  }
  const context: { -readonly [Key in keyof LiteralContext]: LiteralContext[Key] } = {
    language: "script",
    atLoad: enclosing.deferred === 0,
    role: found?.role ?? "other",
  };
  const component = enclosing.names[enclosing.names.length - 1];
  if (component !== undefined) context.component = component;
  if (found?.name !== undefined) context.name = found.name;
  if (found?.element !== undefined) context.element = found.element;
  if (found?.index !== undefined) context.index = found.index;
  if (found?.within !== undefined) context.within = found.within;
  if (found?.isPicture) context.isPicture = true;
  if (isDebugging(ancestors, node, text)) context.isDebugging = true;
  if (properties.length > 0) context.properties = properties.reverse();
  // What a function returns is about what the function is named for.
  if (context.role === "returned" && component !== undefined) context.name = component;
  return context;
}

/** Whether an object is what a component is made of. */
function isComponent(node: Node | undefined): boolean {
  return (
    node?.type === "ObjectExpression" &&
    node.properties.some(
      (one) =>
        one.type === "Property" &&
        /^(?:setup|render|props|components|mixins|computed|methods|emits|watch|template)$/.test(
          propertyName(one.key) ?? "",
        ),
    )
  );
}

/** The role that an outer node gives to what it holds; undefined where the value merely passes through it. */
function roleIn(
  outer: Node,
  inner: Node,
  ancestors: Ancestors,
  index: number,
  properties: string[],
): Pick<LiteralContext, "role" | "name" | "element" | "index" | "within" | "isPicture"> | undefined {
  switch (outer.type) {
    case "JSXAttribute": {
      const opening = ancestors[index - 1];
      const element = opening?.type === "JSXOpeningElement" ? elementName(opening.name) : undefined;
      const name =
        outer.name.type === "JSXIdentifier"
          ? outer.name.name
          : `${outer.name.namespace.name}:${outer.name.name.name}`;
      const isButton =
        element === "input" &&
        name === "value" &&
        opening?.type === "JSXOpeningElement" &&
        opening.attributes.some(
          (other) =>
            other.type === "JSXAttribute" &&
            other.name.name === "type" &&
            other.value?.type === "Literal" &&
            /^(?:submit|button|reset)$/.test(String(other.value.value)),
        );
      return {
        role: "attribute",
        name: isButton ? "title" : name,
        ...(element !== undefined && { element }),
      };
    }
    case "JSXElement":
      return {
        role: "content",
        element: elementName(outer.openingElement.name),
        ...(showsPictures(classOf(outer.openingElement)) && { isPicture: true }),
      };
    case "JSXFragment":
      return { role: "content" };
    case "CallExpression":
    case "NewExpression": {
      if (outer.callee === inner)
        return inner.type === "MemberExpression" && inner.object.type === "ArrayExpression"
          ? undefined
          : { role: "member" };
      const at = outer.arguments.findIndex((argument) => argument === inner);
      const callee = calleeName(outer.callee) ?? "";
      // In a list of objects each member is known by its property: `buildMenu([{ label: "File" }])`.
      if (properties.length > 0) return asProperty(properties, callee);
      const around = ancestors[index - 1];
      const within =
        around?.type === "CallExpression" && around.callee !== outer ? calleeName(around.callee) : undefined;
      return { role: "argument", name: callee, index: at, ...(within !== undefined && { within }) };
    }
    case "Property":
      if (outer.key === inner && !(outer.shorthand && outer.value === inner)) return { role: "key" };
      properties.push(propertyName(outer.key) ?? "");
      // What a component is called, beside what it is made of.
      return properties.length === 1 && properties[0] === "name" && isComponent(ancestors[index - 1])
        ? { role: "type" }
        : undefined;
    case "ObjectExpression": {
      const holder = ancestors[index - 1];
      if (
        holder &&
        (holder.type === "Property" || holder.type === "ArrayExpression" || isPassing(holder.type))
      )
        return undefined;
      const around = roleOfHolder(ancestors, index);
      const isNamed =
        around?.name !== undefined && /^(argument|variable|assignment|property)$/.test(around.role);
      return {
        role: "property",
        name: properties[0] ?? "",
        ...(isNamed && around.name !== undefined && { element: around.name }),
      };
    }
    case "PropertyDefinition":
      if (outer.key === inner) return { role: "key" };
      return asProperty(properties, propertyName(outer.key) ?? "");
    case "TSEnumMember":
      return outer.id === inner ? { role: "key" } : { role: "property", name: propertyName(outer.id) ?? "" };
    case "MethodDefinition":
      return { role: "key" };
    case "VariableDeclarator":
      return asProperty(properties, outer.id.type === "Identifier" ? outer.id.name : "", "variable");
    case "AssignmentExpression":
      return asProperty(properties, calleeName(outer.left) ?? "", "assignment");
    case "AssignmentPattern":
      return { role: "parameter", name: outer.left.type === "Identifier" ? outer.left.name : "" };
    case "ReturnStatement":
    case "ArrowFunctionExpression":
      return properties.length > 0 ? asProperty(properties, "") : { role: "returned" };
    case "BinaryExpression":
      return { role: "compared", name: outer.operator };
    case "SwitchCase":
    case "SwitchStatement":
      return { role: "compared", name: "case" };
    case "ConditionalExpression":
      return outer.test === inner ? { role: "compared", name: "condition" } : undefined;
    case "IfStatement":
    case "WhileStatement":
      return { role: "compared", name: "condition" };
    case "MemberExpression": {
      if (outer.computed && outer.property === inner) return { role: "index" };
      // Which member of a list is picked does not change what the members are.
      if (outer.computed && (inner.type === "ArrayExpression" || inner.type === "ObjectExpression"))
        return undefined;
      const called = outer.property.type === "Identifier" ? outer.property.name : "";
      // What a list is joined or mapped to goes where the call stands; what it is searched for is compared with.
      if (
        inner.type === "ArrayExpression" &&
        /^(?:join|filter|map|forEach|flatMap|at|concat|reverse|slice|flat)$/.test(called)
      )
        return undefined;
      if (inner.type === "ArrayExpression" && /^(?:includes|indexOf|some|find)$/.test(called))
        return { role: "compared", name: "the members of a list" };
      return { role: "member" };
    }
    case "ThrowStatement":
      return { role: "thrown" };
    case "TaggedTemplateExpression":
      return { role: "tagged", name: calleeName(outer.tag) ?? "" };
    case "ImportDeclaration":
    case "ExportNamedDeclaration":
    case "ExportAllDeclaration":
    case "ImportExpression":
    case "ImportAttribute":
      return { role: "module" };
    case "TSLiteralType":
    case "TSModuleDeclaration":
    case "TSImportType":
    case "TSExternalModuleReference":
      return { role: "type" };
    case "ExpressionStatement":
    case "Program":
    case "BlockStatement":
      return { role: "other" };
    default:
      return undefined;
  }
}

function asProperty(
  properties: readonly string[],
  holder: string,
  role: LiteralRole = "property",
): Pick<LiteralContext, "role" | "name" | "element"> {
  const inside = properties[0];
  return inside === undefined ? { role, name: holder } : { role: "property", name: inside, element: holder };
}

/** What an object as a whole is for: its role one level up, without its members. */
function roleOfHolder(
  ancestors: Ancestors,
  index: number,
): Pick<LiteralContext, "role" | "name"> | undefined {
  const node = ancestors[index];
  const outer = ancestors[index - 1];
  return node && outer ? roleIn(outer, node, ancestors, index - 1, []) : undefined;
}

/** Nodes that hand their value on unchanged. */
function isPassing(type: Node["type"]): boolean {
  return /^(TSAsExpression|TSSatisfiesExpression|TSNonNullExpression|ParenthesizedExpression|LogicalExpression|ConditionalExpression|JSXExpressionContainer)$/.test(
    type,
  );
}

const longestChain = 40;

/** The name of a function or member being called or assigned: `toast.error`, `alert`, `this.setError`. */
export function calleeName(node: Node, depth = 0): string | undefined {
  // Of a chain of thousands of calls the end tells what is called.
  if (depth > longestChain) return undefined;
  switch (node.type) {
    case "Identifier":
      return node.name;
    case "ThisExpression":
      return "this";
    case "Super":
      return "super";
    case "MemberExpression": {
      const object = calleeName(node.object, depth + 1);
      const property = memberName(node) ?? "[]";
      return object === undefined ? property : `${object}.${property}`;
    }
    case "ChainExpression":
    case "TSNonNullExpression":
    case "ParenthesizedExpression":
      return calleeName(node.expression, depth);
    case "CallExpression":
      return calleeName(node.callee, depth);
    default:
      return undefined;
  }
}

/** The name of a member as code writes it, also between quotes: `a.b`, `a["b"]`. */
function memberName({ computed, property }: Extract<Node, { type: "MemberExpression" }>): string | undefined {
  if (!computed) return "name" in property ? property.name : undefined;
  if (property.type !== "Literal" || typeof property.value !== "string") return undefined;
  return /^[A-Za-z_][\w-]{0,40}$/.test(property.value) ? property.value : undefined;
}

export function propertyName(key: Node): string | undefined {
  if (key.type === "Identifier" || key.type === "PrivateIdentifier") return key.name;
  return key.type === "Literal" ? String(key.value) : undefined;
}

export function elementName(name: JSXElementName): string {
  switch (name.type) {
    case "JSXIdentifier":
      return name.name;
    case "JSXNamespacedName":
      return `${name.namespace.name}:${name.name.name}`;
    case "JSXMemberExpression":
      return `${elementName(name.object)}.${name.property.name}`;
  }
}

/** The name that a node gives to what is inside it; undefined for a node that names nothing. */
export function nameGivenBy(node: Node): string | undefined {
  switch (node.type) {
    case "FunctionDeclaration":
    case "FunctionExpression":
    case "ClassDeclaration":
    case "ClassExpression":
      return node.id?.name;
    case "VariableDeclarator":
      return node.id.type === "Identifier" && node.init && isFunctionLike(node.init)
        ? node.id.name
        : undefined;
    case "MethodDefinition":
      return propertyName(node.key);
    default:
      return undefined;
  }
}

/** A function, or a call that wraps one (`memo(() => …)`). */
function isFunctionLike(node: Node): boolean {
  if (node.type === "ArrowFunctionExpression" || node.type === "FunctionExpression") return true;
  return node.type === "CallExpression" && node.arguments.some(isFunctionLike);
}

/** Whether what is inside a node is evaluated later than when the file is loaded. */
export function isDeferring(node: Node): boolean {
  const { type } = node;
  return (
    type === "FunctionDeclaration" ||
    type === "FunctionExpression" ||
    type === "ArrowFunctionExpression" ||
    (type === "PropertyDefinition" && !node.static)
  );
}
