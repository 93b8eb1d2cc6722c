import { lineStart as lineStartOf } from "../text/line-start.js";
import type { SourceProblem } from "./model.js";
import { notices } from "../message/notices.js";
import type { Notice } from "../text/wording.js";
import type { Expression, Node, ObjectExpression } from "oxc-parser";
import type { Span } from "../text/span.js";
import { parseCode } from "./readers/code/grammars.js";
import { namedChildren, type CodeNode } from "./readers/code/tree.js";
import { parseScript } from "./readers/script/script.js";

/** The texts of a module of code that is a catalog in all but its format. */
export interface StringModule {
  readonly entries: readonly {
    readonly path: readonly (string | number)[];
    readonly text: string;
    readonly comment?: string;
  }[];
  /** What is no fixed text, and why the module cannot be taken over as it is. */
  readonly problems: readonly SourceProblem[];
}

/**
 * Reads a module whose value is one object of texts: a default export, `module.exports`, the argument of one call, or
 * its only constant in JavaScript and TypeScript; a returned array in PHP. Literals only: nothing is run. For PHP the
 * grammar must be loaded.
 */
export function readStringModule(file: string, text: string): StringModule {
  const reader = new ModuleReader(text);
  if (file.endsWith(".php")) reader.php(parseCode("php", text));
  else reader.script(file);
  return reader;
}

const say = notices("module", {
  "no-object": {
    message: "the module has no single object of texts",
    remedy: "export one object literal, or name another file",
  },
  "no-array": {
    message: "the file does not return one array of texts",
    remedy: "return one array, or name another file",
  },
  syntax: {
    message: "syntax error: nothing in this file is read",
    remedy: "fix it first; often a quote inside a text ends it early",
  },
  spread: { message: "a spread adds texts from elsewhere", remedy: "write its texts out here" },
  computed: { message: "computed name", remedy: "write the name itself" },
  composed: {
    message: "text composed at run time",
    remedy: "write it as one message with arguments",
  },
  function: {
    message: "function that makes its text at run time",
    remedy: "write it as one message with arguments",
  },
  "not-fixed": { message: "not a fixed text", remedy: "write it as one message with arguments" },
});

class ModuleReader implements StringModule {
  readonly entries: { path: readonly (string | number)[]; text: string; comment?: string }[] = [];
  readonly problems: SourceProblem[] = [];

  constructor(private readonly text: string) {}

  script(file: string): void {
    const { program, problems } = parseScript(file, this.text);
    const [broken] = problems;
    if (broken) {
      this.problems.push(broken);
      return;
    }
    const constants = new Map<string, Expression>();
    let exported: Expression | undefined;
    let several = false;
    for (const statement of program.body) {
      const declared =
        statement.type === "VariableDeclaration"
          ? statement
          : statement.type === "ExportNamedDeclaration" &&
              statement.declaration?.type === "VariableDeclaration"
            ? statement.declaration
            : undefined;
      for (const { id, init } of declared?.declarations ?? [])
        if (id.type === "Identifier" && init && isObject(bare(init))) {
          several ||= constants.size > 0;
          constants.set(id.name, bare(init));
        }
      if (statement.type === "ExportDefaultDeclaration") exported = statement.declaration as Expression;
      if (statement.type !== "ExpressionStatement") continue;
      const { expression } = statement;
      if (
        expression.type === "AssignmentExpression" &&
        /^(?:module\.exports|exports\.default|export)$/.test(
          this.text.slice(expression.left.start, expression.left.end),
        )
      )
        exported = expression.right;
      if (expression.type === "CallExpression") {
        const last = expression.arguments.at(-1);
        if (last && isObject(last)) exported = last as Expression;
      }
    }
    let value = exported && bare(exported);
    if (value?.type === "Identifier") value = constants.get(value.name);
    if (!value && !several) value = [...constants.values()][0];
    if (value?.type !== "ObjectExpression") {
      this.problems.push({
        ...say("no-object", {}),
        span: { start: 0, end: 0 },
      });
      return;
    }
    this.object(value, []);
  }

  private object(object: ObjectExpression, path: readonly (string | number)[]): void {
    for (const property of object.properties) {
      if (property.type !== "Property") {
        this.refuse(property, say("spread", {}));
        continue;
      }
      const { key } = property;
      const name =
        key.type === "Identifier" && !property.computed
          ? key.name
          : key.type === "Literal"
            ? String(key.value)
            : undefined;
      if (name === undefined) this.refuse(property, say("computed", {}));
      else this.value(bare(property.value as Expression), [...path, name], property.start);
    }
  }

  private value(value: Expression, path: readonly (string | number)[], start: number): void {
    if (value.type === "ObjectExpression") this.object(value, path);
    else if (value.type === "ArrayExpression")
      value.elements.forEach((element, index) => {
        if (element) this.value(bare(element as Expression), [...path, index], element.start);
      });
    else if (value.type === "Literal" && (typeof value.value === "string" || typeof value.value === "number"))
      this.add(path, String(value.value), start);
    else if (value.type === "TemplateLiteral" && value.expressions.length === 0)
      this.add(path, value.quasis[0]?.value.cooked ?? "", start);
    else if (value.type === "BinaryExpression" && value.operator === "+") {
      const glued = this.glued(value);
      if (glued === undefined) this.refuse(value, say("composed", {}));
      else this.add(path, glued, start);
    } else
      this.refuse(
        value,
        value.type === "ArrowFunctionExpression" || value.type === "FunctionExpression"
          ? say("function", {})
          : say("not-fixed", {}),
      );
  }

  /** Fixed texts joined by `+`. */
  private glued(value: Node): string | undefined {
    if (value.type === "Literal") return typeof value.value === "string" ? value.value : undefined;
    if (value.type !== "BinaryExpression" || value.operator !== "+") return undefined;
    const left = this.glued(value.left);
    const right = this.glued(value.right);
    return left === undefined || right === undefined ? undefined : left + right;
  }

  private add(path: readonly (string | number)[], text: string, start: number): void {
    const lineStart = lineStartOf(this.text, start);
    const above = /(?:^|\n)[ \t]*(?:\/\/|#)[ \t]?([^\r\n]*)\r?\n$/.exec(
      this.text.slice(Math.max(lineStart - 400, 0), lineStart),
    );
    const comment = above?.[1]?.trim();
    this.entries.push({ path, text, ...(comment !== undefined && comment !== "" && { comment }) });
  }

  private refuse(node: Span, notice: Notice): void {
    this.problems.push({ ...notice, span: { start: node.start, end: node.end } });
  }

  php(root: CodeNode): void {
    const broken = firstError(root);
    if (broken) {
      this.refuse(broken, say("syntax", {}));
      return;
    }
    const found: CodeNode[] = [];
    const look = (node: CodeNode) => {
      if (node.type === "return_statement") {
        const [value] = namedChildren(node);
        if (value?.type === "array_creation_expression") found.push(value);
        return;
      }
      if (!/^(?:function_definition|method_declaration|class_declaration)$/.test(node.type))
        for (const child of node.children) look(child);
    };
    look(root);
    const [array] = found;
    if (!array || found.length > 1) this.refuse({ start: 0, end: 0 }, say("no-array", {}));
    else this.phpArray(array, []);
  }

  private phpArray(array: CodeNode, path: readonly (string | number)[]): void {
    let next = 0;
    for (const element of namedChildren(array)) {
      if (element.type !== "array_element_initializer") continue;
      const inside = namedChildren(element);
      const [first, second] = inside;
      if (!first) continue;
      const name = second ? this.phpText(first) : next++;
      const value = second ?? first;
      if (name === undefined) {
        this.refuse(element, say("computed", {}));
        continue;
      }
      const here = [...path, name];
      const text = this.phpText(value);
      if (value.type === "array_creation_expression") this.phpArray(value, here);
      else if (text === undefined) this.refuse(value, say("not-fixed", {}));
      else this.add(here, text, element.start);
    }
  }

  /** A fixed string or number; undefined for anything that is worked out. */
  private phpText(node: CodeNode): string | undefined {
    const written = this.text.slice(node.start, node.end);
    if (node.type === "integer" || node.type === "float") return written;
    if (node.type === "string") return written.slice(1, -1).replace(/\\(['\\])/g, "$1");
    if (node.type === "binary_expression") {
      const sides = namedChildren(node).map((side) => this.phpText(side));
      return sides.every((side) => side !== undefined) && /\.\s*["']|["']\s*\./.test(written)
        ? sides.join("")
        : undefined;
    }
    if (
      node.type !== "encapsed_string" ||
      namedChildren(node).some(({ type }) => !/^(?:string_content|string_value|escape_sequence)$/.test(type))
    )
      return undefined;
    const named: Readonly<Record<string, string>> = {
      n: "\n",
      t: "\t",
      r: "\r",
      '"': '"',
      "\\": "\\",
      $: "$",
      e: "\x1b",
      v: "\v",
      f: "\f",
    };
    return written
      .slice(1, -1)
      .replace(/\\(?:u\{([\da-fA-F]+)\}|([\s\S]))/g, (whole, point?: string, unit?: string) =>
        point !== undefined ? String.fromCodePoint(parseInt(point, 16)) : (named[unit ?? ""] ?? whole),
      );
  }
}

/** The first node of a tree that the parser could make nothing of, or that is missing. */
function firstError(node: CodeNode): CodeNode | undefined {
  if (node.isError) return node;
  for (const child of node.children) {
    const found = firstError(child);
    if (found) return found;
  }
  return undefined;
}

/** An expression without what only the type checker reads, and without parentheses. */
function bare(expression: Expression): Expression {
  let at = expression;
  while (
    at.type === "TSAsExpression" ||
    at.type === "TSSatisfiesExpression" ||
    at.type === "ParenthesizedExpression"
  )
    at = at.expression;
  return at;
}

function isObject(node: Node): boolean {
  return node.type === "ObjectExpression";
}
