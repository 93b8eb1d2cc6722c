import { mostProblems } from "../most-problems.js";
import type { ProblemData, ProblemName } from "../../problem-wordings.js";
import { nearest } from "../../../text/nearest.js";
import type { Span } from "../../../text/span.js";
import type {
  ArgumentFormat,
  ArgumentNode,
  Message,
  MessageNode,
  MessageProblem,
  MessageProblemCode,
  TagNode,
} from "../../model.js";
import { joinTexts } from "../../variants.js";
import { deepestNesting } from "../icu/icu-reader.js";
import { choiceTree, type Selector, type Variant } from "./mf2-choices.js";

/** Characters of names: all but the delimiters, white space and controls (UTS #35 Part 9, "Names and Identifiers"). */
const nameUnits =
  /[A-Za-z0-9_+.\-\u00a1-\u061b\u061d-\u167f\u1681-\u1fff\u200b-\u200d\u2010-\u2027\u2030-\u205e\u2060-\u2065\u206a-\u2fff\u3001-\ud7ff\ue000-\ufdcf\ufdf0-\ufffd\u{10000}-\u{10fffd}]+/uy;
const spaces = /[ \t\r\n\u3000\u061c\u200e\u200f\u2066-\u2069]*/y;

/** The functions that every implementation has (UTS #35 Part 9, "Default Functions"). */
const defaultFunctions = [
  "string",
  "number",
  "integer",
  "offset",
  "percent",
  "currency",
  "unit",
  "date",
  "time",
  "datetime",
] as const;

const countingFunctions = new Set(["number", "integer", "offset", "percent"]);

/** A function with its options, as written behind an operand. */
interface Annotation {
  readonly name: string;
  readonly options: ReadonlyMap<string, Operand>;
  readonly span: Span;
}

type Operand =
  | { readonly kind: "literal"; readonly value: string; readonly span: Span }
  | { readonly kind: "variable"; readonly name: string; readonly span: Span };

interface Expression {
  readonly operand: Operand | undefined;
  readonly annotation: Annotation | undefined;
  readonly toolAttributes: string;
  readonly span: Span;
}

/** What a declared name stands for: an argument of the message, or a literal, with what formats it. */
interface Declared {
  readonly argument: string | undefined;
  readonly literal: string | undefined;
  readonly annotation: Annotation | undefined;
  /** What `:offset` took off. */
  readonly offset: number;
}

/** Ends the reading of one construct; what is wrong is told already. */
/** Thrown inside this file alone; no error, as each would take the stack along. */
class Unreadable {
  readonly isUnreadable = true;
}

/**
 * Reads a message of Unicode MessageFormat 2 (UTS #35 Part 9). Declarations are resolved, so that the tree names the
 * arguments that the program passes; `.match` becomes plurals and selects, one inside the other, in the order of its
 * selectors, and markup becomes tags. One pass; never throws.
 */
export function parseMf2(source: string): Message {
  const simple = !/[\\{}]/.test(source) && !/^[\s\u3000]*\./.test(source);
  if (simple)
    return {
      source,
      nodes: source === "" ? [] : [{ kind: "text", value: source, span: { start: 0, end: source.length } }],
      problems: [],
      quoted: [],
    };
  return new Mf2Reader(source).read();
}

class Mf2Reader {
  private at = 0;
  private readonly problems: MessageProblem[] = [];
  private readonly quoted: Span[] = [];
  private readonly declared = new Map<string, Declared>();
  /** The variables behind `.match` that an offset changes: in its variants they are what a plural counts. */
  private readonly counted = new Set<string>();

  constructor(private readonly source: string) {}

  read(): Message {
    const { source, problems, quoted } = this;
    let nodes: readonly MessageNode[] = [];
    try {
      this.skipSpaces();
      const isComplex = source[this.at] === "." || source.startsWith("{{", this.at);
      if (isComplex) nodes = this.readComplex();
      else {
        this.at = 0;
        nodes = this.readPattern(false);
      }
    } catch (error) {
      if (!(error instanceof Unreadable)) throw error;
    }
    return { source, nodes, problems, quoted };
  }

  private readComplex(): readonly MessageNode[] {
    const { source } = this;
    for (;;) {
      this.skipSpaces();
      const start = this.at;
      if (source.startsWith("{{", start)) {
        const nodes = this.readQuotedPattern();
        this.expectEnd();
        return nodes;
      }
      if (source.startsWith(".input", start)) {
        this.at += ".input".length;
        this.skipSpaces();
        const { operand, annotation, span } = this.readExpression();
        if (operand?.kind !== "variable")
          this.fail("argument-name", span, "mf2-input", { written: ".input {$name :number}" });
        this.declare(operand.name, operand.span, {
          argument: operand.name,
          literal: undefined,
          annotation,
          offset: 0,
        });
      } else if (source.startsWith(".local", start)) {
        this.at += ".local".length;
        this.skipSpaces();
        const variable = this.readVariable();
        this.skipSpaces();
        if (source[this.at] !== "=")
          this.fail("argument-name", this.here(), "mf2-equals", { written: ".local $name = {…}" });
        this.at++;
        this.skipSpaces();
        const { operand, annotation } = this.readExpression();
        this.declare(variable.name, variable.span, this.resolve(operand, annotation));
      } else if (source.startsWith(".match", start)) {
        this.at += ".match".length;
        return this.readMatch(start);
      } else {
        const word = /^\.?[\w]*/.exec(source.slice(start, start + 40))?.[0] ?? "";
        const span = { start, end: Math.min(source.length, start + Math.max(word.length, 1)) };
        const text = "{{…}}";
        if (start >= source.length) this.fail("branch-expected", span, "mf2-no-pattern", { text });
        this.fail("branch-expected", span, "mf2-start", { found: word || source.charAt(start), text });
      }
    }
  }

  private declare(name: string, span: Span, declared: Declared): void {
    if (this.declared.has(name))
      this.problem("error", "branch-duplicate", span, "mf2-declared", { variable: `$${name}` });
    this.declared.set(name, declared);
  }

  private resolve(operand: Operand | undefined, annotation: Annotation | undefined): Declared {
    const base: Declared =
      operand?.kind === "variable"
        ? (this.declared.get(operand.name) ?? {
            argument: operand.name,
            literal: undefined,
            annotation: undefined,
            offset: 0,
          })
        : { argument: undefined, literal: operand?.value ?? "", annotation: undefined, offset: 0 };
    if (!annotation) return base;
    const less = annotation.name === "offset" ? annotation.options : undefined;
    const number = (name: string) => {
      const option = less?.get(name);
      return option?.kind === "literal" ? Number(option.value) || 0 : 0;
    };
    return { ...base, annotation, offset: base.offset + number("subtract") - number("add") };
  }

  private readMatch(start: number): readonly MessageNode[] {
    const { source } = this;
    const selectors: Selector[] = [];
    for (;;) {
      this.skipSpaces();
      if (source[this.at] !== "$") break;
      const variable = this.readVariable();
      const selector = this.selectorOf(variable);
      selectors.push(selector);
      if (selector.offset !== 0 && selector.kind !== "select") this.counted.add(variable.name);
    }
    if (selectors.length === 0) this.fail("branch-expected", { start, end: this.at }, "mf2-match", {});
    const variants: Variant[] = [];
    const seen = new Set<string>();
    while (this.at < source.length) {
      const variantStart = this.at;
      const keys: string[] = [];
      let keysEnd = variantStart;
      while (this.at < source.length && !source.startsWith("{{", this.at)) {
        if (source[this.at] === "*") {
          keys.push("*");
          this.at++;
        } else {
          const literal = this.readLiteral();
          if (!literal)
            this.fail("branch-expected", this.here(), "mf2-key", {
              found: source.charAt(this.at),
              text: "{{…}}",
            });
          keys.push(literal.value === "*" ? "\\*" : literal.value.normalize("NFC"));
        }
        keysEnd = this.at;
        this.skipSpaces();
      }
      const selectorSpan = { start: variantStart, end: keysEnd };
      if (this.at >= source.length)
        this.fail("branch-expected", { start: variantStart, end: source.length }, "mf2-variant", {
          text: "{{…}}",
        });
      const nodes = this.readQuotedPattern();
      const span = { start: variantStart, end: this.at };
      this.skipSpaces();
      if (keys.length !== selectors.length) {
        this.problem(
          "error",
          "branch-expected",
          selectorSpan.end > selectorSpan.start ? selectorSpan : { start: span.start, end: span.start + 1 },
          "mf2-keys",
          { keys: keys.length, variables: selectors.length },
        );
        continue;
      }
      const id = JSON.stringify(keys);
      if (seen.has(id))
        this.problem("error", "branch-duplicate", selectorSpan, "mf2-duplicate", { keys: keys.join(" ") });
      else variants.push({ keys, nodes, selectorSpan, span });
      seen.add(id);
    }
    if (variants.length === 0) {
      if (this.problems.length === 0)
        this.problem("error", "branch-expected", { start, end: source.length }, "mf2-no-variants", {});
      return [];
    }
    return choiceTree(selectors, variants, { start, end: source.length }, () =>
      this.problem("error", "too-deep", { start, end: source.length }, "mf2-combinations", {}),
    );
  }

  private selectorOf({ name, span }: { readonly name: string; readonly span: Span }): Selector {
    const declared = this.declared.get(name);
    const { annotation } = declared ?? {};
    if (!annotation)
      this.problem("error", "argument-type", span, "mf2-undeclared", {
        variable: `$${name}`,
        written: `.input {$${name} :number}`,
      });
    const mode = annotation?.options.get("select");
    const written = mode?.kind === "literal" ? mode.value : "plural";
    return {
      kind:
        !annotation || !countingFunctions.has(annotation.name) || written === "exact"
          ? "select"
          : written === "ordinal"
            ? "ordinal"
            : "plural",
      name: declared?.argument ?? name,
      nameSpan: { start: span.start + 1, end: span.end },
      offset: declared?.offset ?? 0,
    };
  }

  private readQuotedPattern(): readonly MessageNode[] {
    this.at += 2;
    return this.readPattern(true);
  }

  /** Text and placeholders up to the end of the message, or up to `}}`. */
  private readPattern(isQuoted: boolean): readonly MessageNode[] {
    const { source } = this;
    const start = this.at;
    const root: MessageNode[] = [];
    const open: {
      name: string;
      attributes: readonly MessageNode[];
      toolAttributes: string;
      children: MessageNode[];
      start: number;
      end: number;
    }[] = [];
    let nodes = root;
    let value = "";
    let textStart = this.at;
    const flush = () => {
      if (value !== "") pushText(nodes, value, { start: textStart, end: this.at });
      value = "";
    };
    const close = () => {
      const tag = open.pop();
      nodes = open.at(-1)?.children ?? root;
      return tag;
    };
    for (;;) {
      const unit = source[this.at];
      if (unit === undefined || (isQuoted && unit === "}" && source[this.at + 1] === "}")) {
        flush();
        if (unit === undefined && isQuoted)
          this.fail("branch-unclosed", { start: start - 2, end: source.length }, "mf2-unclosed-text", {
            end: "}}",
          });
        if (unit !== undefined) this.at += 2;
        break;
      }
      if (unit === "\\") {
        if (value === "") textStart = this.at;
        const next = source[this.at + 1];
        if (next === "\\" || next === "{" || next === "}" || next === "|") {
          this.quoted.push({ start: this.at, end: this.at + 2 });
          value += next;
          this.at += 2;
        } else {
          this.problem(
            "error",
            "brace-unmatched",
            { start: this.at, end: Math.min(this.at + 2, source.length) },
            "mf2-backslash",
            { written: "\\\\" },
          );
          value += "\\";
          this.at++;
        }
      } else if (unit === "}") {
        this.problem(
          "error",
          "brace-unmatched",
          { start: this.at, end: this.at + 1 },
          "mf2-unmatched-brace",
          { written: "\\}" },
        );
        if (value === "") textStart = this.at;
        value += unit;
        this.at++;
      } else if (unit === "{") {
        flush();
        const placeholderStart = this.at;
        this.readPlaceholder(nodes, (markup) => {
          if (markup.kind === "close") {
            const depth = open.findLastIndex(({ name }) => name === markup.name);
            if (depth < 0) {
              this.problem("warning", "tag-unopened", markup.span, "mf2-unopened", {
                tag: `{#${markup.name}}`,
                end: `{/${markup.name}}`,
              });
              return;
            }
            while (open.length > depth) {
              const tag = close();
              if (!tag) return;
              if (open.length > depth) this.unclosed(tag);
              nodes.push(tagOf(tag, this.at));
            }
          } else if (markup.kind === "alone")
            nodes.push({
              ...tagOf(
                { ...markup, children: [], start: markup.span.start, end: markup.span.end },
                markup.span.end,
              ),
              selfClosing: true,
            });
          else if (open.length >= deepestNesting)
            this.fail("too-deep", { start: placeholderStart, end: this.at }, "too-deep", {
              levels: deepestNesting,
            });
          else {
            open.push({
              name: markup.name,
              attributes: markup.attributes,
              toolAttributes: markup.toolAttributes,
              children: [],
              start: markup.span.start,
              end: markup.span.end,
            });
            nodes = open.at(-1)?.children ?? root;
          }
        });
      } else {
        if (value === "") textStart = this.at;
        const end = nextSign(source, this.at);
        value += source.slice(this.at, end);
        this.at = end;
      }
    }
    while (open.length > 0) {
      const tag = close();
      if (!tag) break;
      this.unclosed(tag);
      nodes.push(tagOf(tag, this.at));
    }
    return root;
  }

  private unclosed({
    name,
    start,
    end,
  }: {
    readonly name: string;
    readonly start: number;
    readonly end: number;
  }): void {
    this.problem("warning", "tag-unclosed", { start, end }, "mf2-unclosed", {
      tag: `{#${name}}`,
      end: `{/${name}}`,
      alone: `{#${name} /}`,
    });
  }

  /** An expression or a piece of markup in a pattern. A broken one is reported and skipped. */
  private readPlaceholder(nodes: MessageNode[], onMarkup: (markup: Markup) => void): void {
    const start = this.at;
    const { source } = this;
    try {
      const sign = /[#/]/.exec(source.slice(start + 1).trimStart()[0] ?? "")?.[0];
      if (sign !== undefined) {
        onMarkup(this.readMarkup(start));
        return;
      }
      const { operand, annotation, toolAttributes, span } = this.readExpression();
      const declared = this.resolve(operand, annotation);
      if (operand?.kind !== "variable" || declared.argument === undefined) {
        const value = declared.literal ?? "";
        const format = formatOf(declared.annotation, annotation !== undefined);
        if (value === "") return;
        if (format || toolAttributes !== "")
          nodes.push({
            kind: "text",
            value,
            ...(format && { format }),
            ...(toolAttributes && { toolAttributes }),
            span,
          });
        else pushText(nodes, value, span);
        return;
      }
      if (this.counted.has(operand.name) && !annotation) {
        nodes.push({ kind: "count", span });
        return;
      }
      const format = formatOf(declared.annotation, annotation !== undefined);
      const uses = [...(declared.annotation?.options.values() ?? [])].flatMap((option) =>
        option.kind === "variable" ? [option.name] : [],
      );
      const node: ArgumentNode = {
        kind: "argument",
        name: declared.argument,
        ...(format && { format }),
        ...(uses.length > 0 && { uses }),
        ...(toolAttributes && { toolAttributes }),
        span,
        nameSpan: { start: operand.span.start + 1, end: operand.span.end },
      };
      nodes.push(node);
    } catch (error) {
      if (!(error instanceof Unreadable)) throw error;
      const end = source.indexOf("}", this.at);
      this.at = end < 0 ? source.length : end + 1;
      if (end < 0) throw error;
    }
  }

  private readMarkup(start: number): Markup {
    const { source } = this;
    this.at = start + 1;
    this.skipSpaces();
    const isClose = source[this.at] === "/";
    this.at++;
    const name = this.readName();
    if (name === "")
      this.fail("argument-name", { start, end: this.at }, "mf2-markup", {
        written: isClose ? "{/name}" : "{#name}",
      });
    const options = this.readOptions();
    const toolAttributes = this.readAttributes();
    this.skipSpaces();
    const isAlone = !isClose && source[this.at] === "/";
    if (isAlone) this.at++;
    this.closeBrace(start);
    const span = { start, end: this.at };
    const attributes: MessageNode[] = [];
    for (const [option, operand] of options) {
      const lead = `${attributes.length > 0 ? " " : ""}${option}="`;
      if (operand.kind === "literal") attributes.push({ kind: "text", value: `${lead}${operand.value}"` });
      else
        attributes.push(
          { kind: "text", value: lead },
          {
            kind: "argument",
            name: this.declared.get(operand.name)?.argument ?? operand.name,
            span: operand.span,
            nameSpan: { start: operand.span.start + 1, end: operand.span.end },
          },
          { kind: "text", value: '"' },
        );
    }
    return {
      kind: isClose ? "close" : isAlone ? "alone" : "open",
      name,
      attributes: joinTexts(attributes),
      toolAttributes,
      span,
    };
  }

  /** `{operand :function option=value @attribute}`. */
  private readExpression(): Expression {
    const { source } = this;
    const start = this.at;
    if (source[start] !== "{")
      this.fail("argument-name", this.here(), "mf2-expression", {
        variable: "{$name}",
        typed: "{$name :number}",
      });
    this.at++;
    this.skipSpaces();
    let operand: Operand | undefined;
    if (source[this.at] === "$") operand = { kind: "variable", ...this.readVariable() };
    else if (source[this.at] !== ":") {
      operand = this.readLiteral();
      if (!operand) {
        const found = source.slice(this.at, this.at + 1);
        const span = { start, end: Math.min(this.at + 1, source.length) };
        const data = { variable: "{$name}", brace: "\\{" };
        if (found === "}") this.fail("argument-name", span, "mf2-empty-braces", data);
        this.fail("argument-name", span, "mf2-value", { ...data, found });
      }
    }
    this.skipSpaces();
    let annotation: Annotation | undefined;
    if (source[this.at] === ":") {
      const functionStart = this.at++;
      const name = this.readName();
      const span = { start: functionStart, end: this.at };
      if (name === "") this.fail("argument-type", this.here(), "mf2-function", {});
      const near = nearest(name, defaultFunctions);
      if (!name.includes(":") && !defaultFunctions.some((known) => known === name) && near !== undefined)
        this.problem("warning", "argument-type", span, "mf2-unknown-function", {
          name: `:${name}`,
          meant: `:${near}`,
        });
      annotation = { name, options: this.readOptions(), span };
    }
    const toolAttributes = this.readAttributes();
    if (
      operand?.kind === "literal" &&
      !annotation &&
      this.at < source.length &&
      !/^[\s}@]/.test(source.charAt(this.at))
    )
      this.fail("argument-name", { start, end: this.at + 1 }, "mf2-character", {
        found: source.charAt(this.at),
      });
    this.closeBrace(start);
    return { operand, annotation, toolAttributes, span: { start, end: this.at } };
  }

  private closeBrace(start: number): void {
    this.skipSpaces();
    const found = this.source.charAt(this.at);
    if (found !== "}") {
      const span = { start, end: Math.min(this.at + 1, this.source.length) };
      const brace = "\\{";
      if (found === "") this.fail("argument-unclosed", span, "mf2-unclosed-brace", { brace });
      this.fail("argument-unclosed", span, "mf2-brace", { found, brace });
    }
    this.at++;
  }

  private readOptions(): ReadonlyMap<string, Operand> {
    const options = new Map<string, Operand>();
    for (;;) {
      const before = this.at;
      this.skipSpaces();
      const start = this.at;
      const name = this.readName();
      if (name === "") {
        this.at = before;
        return options;
      }
      const span = { start, end: this.at };
      this.skipSpaces();
      if (this.source[this.at] !== "=")
        this.fail("argument-type", span, "mf2-option", { name, written: `${name}=…` });
      this.at++;
      this.skipSpaces();
      const value =
        this.source[this.at] === "$"
          ? { kind: "variable" as const, ...this.readVariable() }
          : this.readLiteral();
      if (!value) this.fail("argument-type", span, "mf2-option", { name, written: `${name}=…` });
      if (options.has(name))
        this.problem("error", "branch-duplicate", span, "mf2-duplicate-option", { name });
      options.set(name, value);
    }
  }

  /** Attributes, as written with a space between them; an empty text for none. */
  private readAttributes(): string {
    const found: string[] = [];
    for (;;) {
      const before = this.at;
      this.skipSpaces();
      const start = this.at;
      if (this.source[start] !== "@") {
        this.at = before;
        return found.join(" ");
      }
      this.at++;
      const name = this.readName();
      if (name === "") this.fail("argument-type", this.here(), "mf2-attribute", {});
      const afterName = this.at;
      this.skipSpaces();
      if (this.source[this.at] !== "=") {
        this.at = afterName;
        found.push(this.source.slice(start, afterName));
        continue;
      }
      this.at++;
      this.skipSpaces();
      if (!this.readLiteral())
        this.fail("argument-type", this.here(), "mf2-attribute-value", {
          name: `@${name}`,
          written: `@${name}=value`,
        });
      found.push(this.source.slice(start, this.at));
    }
  }

  private readVariable(): { readonly name: string; readonly span: Span } {
    const start = this.at;
    if (this.source[start] !== "$") this.fail("argument-name", this.here(), "mf2-variable", {});
    this.at++;
    const name = this.match(nameUnits);
    if (name === "") this.fail("argument-name", { start, end: this.at }, "mf2-no-name", {});
    return { name: name.normalize("NFC"), span: { start, end: this.at } };
  }

  /** A name with its namespace, such as `shop:price`. */
  private readName(): string {
    const first = this.match(nameUnits);
    if (first === "" || this.source[this.at] !== ":") return first;
    this.at++;
    return `${first}:${this.match(nameUnits)}`;
  }

  private readLiteral(): Extract<Operand, { kind: "literal" }> | undefined {
    const { source } = this;
    const start = this.at;
    if (source[start] !== "|") {
      const value = this.match(nameUnits);
      return value === "" ? undefined : { kind: "literal", value, span: { start, end: this.at } };
    }
    let value = "";
    for (this.at++; this.at < source.length; this.at++) {
      const unit = source.charAt(this.at);
      if (unit === "|") {
        this.at++;
        this.quoted.push({ start, end: this.at });
        return { kind: "literal", value, span: { start, end: this.at } };
      }
      if (unit === "\\") this.at++;
      value += source.charAt(this.at);
    }
    return this.fail("style-unclosed", { start, end: source.length }, "mf2-bar", {});
  }

  private expectEnd(): void {
    this.skipSpaces();
    if (this.at < this.source.length)
      this.problem("error", "brace-unmatched", { start: this.at, end: this.source.length }, "mf2-after", {
        end: "}}",
      });
  }

  private skipSpaces(): void {
    this.match(spaces);
  }

  private match(pattern: RegExp): string {
    pattern.lastIndex = this.at;
    const found = pattern.exec(this.source)?.[0] ?? "";
    this.at += found.length;
    return found;
  }

  private here(): Span {
    const { length } = this.source;
    return { start: Math.min(this.at, Math.max(length - 1, 0)), end: Math.min(this.at + 1, length) };
  }

  private problem<N extends ProblemName>(
    severity: MessageProblem["severity"],
    code: MessageProblemCode,
    span: Span,
    name: N,
    data: ProblemData<N>,
  ): void {
    if (this.problems.length < mostProblems) this.problems.push({ severity, code, span, name, data });
  }

  private fail<N extends ProblemName>(
    code: MessageProblemCode,
    span: Span,
    name: N,
    data: ProblemData<N>,
  ): never {
    this.problem("error", code, span, name, data);
    throw new Unreadable();
  }
}

interface Markup {
  readonly kind: "open" | "close" | "alone";
  readonly name: string;
  readonly attributes: readonly MessageNode[];
  readonly toolAttributes: string;
  readonly span: Span;
}

function tagOf(
  tag: {
    readonly name: string;
    readonly attributes: readonly MessageNode[];
    readonly toolAttributes: string;
    readonly children: readonly MessageNode[];
    readonly start: number;
    readonly end: number;
  },
  end: number,
): TagNode {
  const { name, attributes, toolAttributes, children, start } = tag;
  return {
    kind: "tag",
    name,
    attributes,
    children,
    selfClosing: false,
    ...(toolAttributes && { toolAttributes }),
    span: { start, end },
    openSpan: { start, end: tag.end },
  };
}

function nextSign(source: string, from: number): number {
  for (let at = from; at < source.length; at++) {
    const code = source.charCodeAt(at);
    if (code === 0x5c || code === 0x7b || code === 0x7d) return at;
  }
  return source.length;
}

function pushText(nodes: MessageNode[], value: string, span: Span): void {
  const last = nodes.at(-1);
  if (last?.kind === "text" && last.span && !last.format && !last.toolAttributes)
    nodes[nodes.length - 1] = {
      ...last,
      value: last.value + value,
      span: { start: last.span.start, end: span.end },
    };
  else nodes.push({ kind: "text", value, span });
}

/** A function as the format of an argument: those that other syntaxes have too under their names, the rest with their options. */
function formatOf(annotation: Annotation | undefined, isOwn: boolean): ArgumentFormat | undefined {
  if (!annotation) return undefined;
  const { name, options, span } = annotation;
  const plain = [...options].filter(([option]) => option !== "select");
  const text = plain
    .map(
      ([option, operand]) =>
        `${option}=${operand.kind === "literal" ? printLiteral(operand.value) : `$${operand.name}`}`,
    )
    .join(" ");
  const only = plain.length === 1 ? plain[0] : undefined;
  const value = only?.[1].kind === "literal" ? only[1].value : undefined;
  if (name === "string" && plain.length === 0) return undefined;
  // What counts in .match is formatted as a number wherever it stands: only its own options say more.
  if (name === "number" && plain.length === 0) return isOwn ? { type: "number", typeSpan: span } : undefined;
  if (name === "offset") return { type: "number", typeSpan: span };
  if ((name === "integer" || name === "percent") && plain.length === 0)
    return { type: "number", style: { kind: "named", text: name }, typeSpan: span };
  if (name === "currency" && only?.[0] === "currency" && value !== undefined)
    return { type: "number", style: { kind: "skeleton", text: `currency/${value}` }, typeSpan: span };
  if ((name === "date" && only?.[0] === "length") || (name === "time" && only?.[0] === "length"))
    return { type: name, style: { kind: "named", text: value ?? "" }, typeSpan: span };
  return { type: name, ...(text !== "" && { style: { kind: "options", text } as const }), typeSpan: span };
}

/** A literal as an option's value or a key: bare where it is a name, else between bars. */
export function printLiteral(value: string): string {
  nameUnits.lastIndex = 0;
  return nameUnits.exec(value)?.[0] === value ? value : `|${value.replace(/[\\|]/g, "\\$&")}|`;
}
