import { CodeUnits } from "../../text/code-units.js";
import type { Span } from "../../text/span.js";
import type {
  ArgumentFormat,
  ArgumentStyle,
  Branch,
  Message,
  MessageNode,
  MessageProblem,
  MessageProblemCode,
  TagNode,
} from "../model.js";

/** What a book can change about how its ICU messages are read. */
export interface IcuOptions {
  /** Whether `<b>…</b>` is rich text (the default) or plain characters. */
  readonly tags?: boolean;
}

/** Deeper nesting than this is a problem, not a message: nobody writes it, and no consumer need recurse further. */
export const deepestNesting = 200;

/** A message with more problems than this is not a message: the rest would help nobody. */
const mostProblems = 100;

/** Elements that HTML never closes (HTML Living Standard, 13.1.2 "void elements"), those that stand in text. */
const voidElements = new Set(["br", "hr", "img", "input", "wbr"]);

const nameUnit = /[^\p{Pattern_Syntax}\p{Pattern_White_Space}]+/uy;
const spaces = /\p{Pattern_White_Space}*/uy;
const signedNumber = /[+-]?(?:\d+(?:\.\d*)?|\.\d+)/y;

/**
 * Reads an ICU MessageFormat (version 1) message, as ICU's MessagePattern does with apostrophe mode
 * DOUBLE_OPTIONAL, plus rich-text tags. One pass; never throws. A problem does not end the reading:
 * the tree holds what could be made out. A plural or select without `other` is a tree without it and no
 * problem here, since rules judge that.
 */
export function parseIcu(source: string, options: IcuOptions = {}): Message {
  // An apostrophe means something before a brace, a tag or another apostrophe only.
  if (!/[{}<]|''/.test(source)) {
    const nodes: MessageNode[] =
      source === "" ? [] : [{ kind: "text", value: source, span: { start: 0, end: source.length } }];
    return { source, nodes, problems: [], quoted: [] };
  }
  return new IcuReader(source, options.tags ?? true).read();
}

/** Which units of ASCII may mean something; zero stands behind the end of a message. */
const isSign = new Uint8Array(0x80);
for (const sign of "\0{}'#<>/") isSign[sign.charCodeAt(0)] = 1;

const messageUnits = new CodeUnits();

/** Something that holds nodes while it is being read: the message itself, a branch, a tag, or a tag's attributes. */
interface Container {
  readonly kind: "root" | "branch" | "tag" | "attributes";
  readonly nodes: MessageNode[];
  readonly start: number;
  /** Whether `#` stands for a number here: directly in a plural's branch, or in tags in it. */
  readonly counts: boolean;
  readonly selector?: string;
  readonly selectorSpan?: Span;
  readonly tag?: OpenTag;
  /** The tags that are open in this branch or root, so that a stray closing tag is known at once. */
  readonly openTags: OpenTags;
}

/** The names of the tags that are open, the innermost last; most branches have none. */
interface OpenTags {
  names?: string[];
}

interface OpenTag {
  readonly name: string;
  readonly start: number;
  openEnd: number;
  attributes: MessageNode[];
}

/** A plural or select while its branches are being read. */
interface Choice {
  readonly kind: "choice";
  readonly type: "plural" | "selectordinal" | "select";
  readonly name: string;
  readonly nameSpan: Span;
  readonly start: number;
  readonly branches: Branch[];
  /** How many problems there were before it, so that an empty choice is reported only where nothing else was. */
  readonly problemsBefore: number;
  offset: number;
}

/** What most messages have none of; not to be added to. */
const noProblems: MessageProblem[] = [];
const noQuotes: Span[] = [];

class IcuReader {
  /** The units of the message; behind its end stands a zero. */
  private readonly units: Uint16Array;
  private at = 0;
  private readonly stack: (Container | Choice)[] = [];
  private problems: MessageProblem[] = noProblems;
  private quoted: Span[] = noQuotes;

  constructor(
    private readonly source: string,
    private readonly tags: boolean,
  ) {
    this.units = messageUnits.of(source);
  }

  read(): Message {
    const root: Container = { kind: "root", nodes: [], start: 0, counts: false, openTags: {} };
    this.stack.push(root);
    for (;;) {
      const top = this.stack[this.stack.length - 1] ?? root;
      if (top.kind === "choice") this.readChoicePart(top);
      else if (!this.readContent(top)) break;
    }
    return { source: this.source, nodes: root.nodes, problems: this.problems, quoted: this.quoted };
  }

  /** Reads text up to the next construct and that construct's start or end. False at the end of the message. */
  private readContent(container: Container): boolean {
    const { source, units } = this;
    const { length } = source;
    let start = this.at;
    /** What the text says, up to where it was copied; undefined as long as it is as it is written. */
    let value: string | undefined;
    let copied = start;
    let at = start;
    for (;;) {
      let unit = units[at] ?? 0;
      while (unit > 0x7d || isSign[unit] === 0) unit = units[++at] ?? 0;
      if (at >= length) break;
      switch (unit) {
        case 0x27: {
          const next = source[at + 1];
          if (next === "'") {
            value = (value ?? "") + source.slice(copied, at + 1);
            copied = at += 2;
          } else if (
            next === "{" ||
            next === "}" ||
            (next === "#" && container.counts) ||
            (next === "<" && this.isTagLikeAt(at + 1))
          ) {
            value = (value ?? "") + source.slice(copied, at);
            this.at = at;
            value += this.readQuoted();
            copied = at = this.at;
          } else at++;
          continue;
        }
        case 0x7b: {
          this.addText(container, value, copied, start, at);
          const end = this.plainNameEnd(at + 1);
          if (end < 0) {
            this.readArgument(container);
            return true;
          }
          container.nodes.push({
            kind: "argument",
            name: source.slice(at + 1, end),
            nameSpan: { start: at + 1, end },
            span: { start: at, end: end + 1 },
          });
          this.at = start = copied = at = end + 1;
          value = undefined;
          continue;
        }
        case 0x7d:
          if (this.inBranch()) {
            this.addText(container, value, copied, start, at);
            this.closeBranch();
            return true;
          }
          this.problem(
            "warning",
            "brace-unmatched",
            at,
            at + 1,
            "a } that closes nothing",
            "remove it, or write '}' to show it",
          );
          at++;
          continue;
        case 0x23:
          if (container.counts) {
            this.addText(container, value, copied, start, at);
            container.nodes.push({ kind: "count", span: { start: at, end: at + 1 } });
            this.at = start = copied = ++at;
            value = undefined;
            continue;
          }
          at++;
          continue;
        case 0x3c:
          if (container.kind !== "attributes" && this.isTagAt(at)) {
            this.addText(container, value, copied, start, at);
            this.readTag(container);
            return true;
          }
          at++;
          continue;
        default:
          if (container.kind === "attributes" && this.endsOpeningTag(at)) {
            this.addText(container, value, copied, start, at);
            this.closeAttributes(container);
            return true;
          }
          at++;
      }
    }
    this.addText(container, value, copied, start, length);
    return this.closeAtEnd();
  }

  /** Where a name of ASCII letters ends that a brace closes at once, as most arguments are written; -1 for anything else. */
  private plainNameEnd(start: number): number {
    const { units } = this;
    let at = start;
    let unit = units[at] ?? 0;
    if (unit >= 0x30 && unit <= 0x39) return -1;
    while (isNameUnit(unit)) unit = units[++at] ?? 0;
    return unit === 0x7d && at > start ? at : -1;
  }

  /** Adds the text that was read from `start` to `end`, which is where the reading goes on. */
  private addText(
    container: Container,
    value: string | undefined,
    copied: number,
    start: number,
    end: number,
  ): void {
    this.at = end;
    if (end === start) return;
    const rest = this.source.slice(copied, end);
    container.nodes.push({
      kind: "text",
      value: value === undefined ? rest : value + rest,
      span: { start, end },
    });
  }

  /** From an apostrophe that starts quoting to the one that ends it, or to the end: the text without the quote marks. */
  private readQuoted(): string {
    const { source } = this;
    const start = this.at;
    let value = "";
    let from = start + 1;
    for (;;) {
      const mark = source.indexOf("'", from);
      if (mark < 0) {
        value += source.slice(from);
        this.at = source.length;
        break;
      }
      value += source.slice(from, mark);
      if (source[mark + 1] !== "'") {
        this.at = mark + 1;
        break;
      }
      value += "'";
      from = mark + 2;
    }
    if (this.quoted === noQuotes) this.quoted = [];
    this.quoted.push({ start, end: this.at });
    return value;
  }

  /** `{name}`, `{name, type}`, `{name, type, style}`, or the start of a plural or select. */
  private readArgument(container: Container): void {
    const start = this.at;
    this.at++;
    this.skipSpaces();
    const nameStart = this.at;
    const name = this.matchName();
    const nameSpan = { start: nameStart, end: this.at };
    this.skipSpaces();
    const after = this.units[this.at];
    if (name === "" || (after !== 0x7d && after !== 0x2c) || !isUsableName(name)) {
      this.recoverArgument(container, start, nameStart);
      return;
    }
    this.at++;
    if (after === 0x7d) {
      container.nodes.push({ kind: "argument", name, nameSpan, span: { start, end: this.at } });
      return;
    }
    this.skipSpaces();
    const typeStart = this.at;
    const type = this.matchType();
    const typeSpan = { start: typeStart, end: this.at };
    this.skipSpaces();
    const separator = this.units[this.at];
    if (type === "plural" || type === "selectordinal" || type === "select") {
      const problemsBefore = this.problems.length;
      if (separator === 0x2c) this.at++;
      else
        this.problem(
          "error",
          "branch-expected",
          start,
          this.at,
          `a ${type} without branches`,
          `write {${name}, ${type}, other {…}}`,
        );
      if (this.stack.length > deepestNesting) this.giveUp(start);
      else
        this.stack.push({
          kind: "choice",
          type,
          name,
          nameSpan,
          start,
          branches: [],
          problemsBefore,
          offset: 0,
        });
      return;
    }
    if (type === "" || (separator !== 0x7d && separator !== 0x2c)) {
      if (type === "" || this.at < this.source.length)
        this.problem(
          "error",
          "argument-type",
          typeStart,
          Math.max(this.at, typeStart + 1),
          "an argument's type is expected here",
          "write number, date, time, plural, selectordinal or select, then a comma or }",
        );
      this.skipPastBrace();
      this.checkClosed(start, name);
      container.nodes.push({ kind: "argument", name, nameSpan, span: { start, end: this.at } });
      return;
    }
    this.at++;
    const style = separator === 0x2c ? this.readStyle(type, start) : undefined;
    const format: ArgumentFormat = style ? { type, style, typeSpan } : { type, typeSpan };
    container.nodes.push({ kind: "argument", name, nameSpan, format, span: { start, end: this.at } });
  }

  /** The style of a simple argument, up to and including the argument's closing brace. */
  private readStyle(type: string, argumentStart: number): ArgumentStyle {
    const { source, units } = this;
    this.skipSpaces();
    const start = this.at;
    let depth = 0;
    let end = source.length;
    let closed = false;
    let at = start;
    while (at < source.length) {
      const unit = units[at];
      if (unit === 0x27) {
        const mark = source.indexOf("'", at + 1);
        if (mark < 0) break;
        at = mark;
      } else if (unit === 0x7b) depth++;
      else if (unit === 0x7d && depth-- === 0) {
        end = at++;
        closed = true;
        break;
      }
      at++;
    }
    this.at = at;
    if (!closed) {
      this.at = source.length;
      this.problem(
        "error",
        "style-unclosed",
        argumentStart,
        source.length,
        "this argument's style never ends",
        "close it with }, and end quoted text in it with '",
      );
    }
    const written = source.slice(start, end);
    const isTrimmed =
      written.charCodeAt(written.length - 1) > 0x20 && written.charCodeAt(written.length - 1) < 0x7f;
    const text = isTrimmed ? written : written.replace(/\p{Pattern_White_Space}+$/u, "");
    const span = { start, end: start + text.length };
    if (text.startsWith("::")) return { kind: "skeleton", text: text.slice(2), span };
    return { kind: isNamedStyle(type, text) ? "named" : "pattern", text, span };
  }

  /** Reads a plural's offset, one selector with the brace that opens its branch, or the brace that closes the choice. */
  private readChoicePart(choice: Choice): void {
    const { source, units } = this;
    this.skipSpaces();
    const start = this.at;
    const unit = units[start];
    if (start >= source.length || unit === 0x7d) {
      if (unit === 0x7d) this.at++;
      this.closeChoice(choice, unit === 0x7d);
      return;
    }
    if (choice.type !== "select" && choice.branches.length === 0 && source.startsWith("offset:", start)) {
      this.at += "offset:".length;
      this.skipSpaces();
      const number = this.match(signedNumber);
      if (number === "")
        this.problem(
          "error",
          "offset",
          start,
          this.at,
          "a number is expected after offset:",
          "write offset:1, for example",
        );
      else choice.offset = Number(number);
      if (number !== "" || !/^[^\s{}]/.test(source.slice(this.at, this.at + 1))) return;
    }
    const selector = choice.type !== "select" && unit === 0x3d ? this.readExact() : this.matchName();
    const selectorSpan = { start, end: this.at };
    this.skipSpaces();
    if (selector !== "" && units[this.at] === 0x7b) {
      if (choice.branches.some((branch) => branch.selector === selector))
        this.problem(
          "warning",
          "branch-duplicate",
          start,
          selectorSpan.end,
          `the branch ${selector} is there twice`,
          "keep one of the two",
        );
      this.at++;
      this.stack.push({
        kind: "branch",
        nodes: [],
        start,
        counts: choice.type !== "select",
        selector,
        selectorSpan,
        openTags: {},
      });
      return;
    }
    if (selector === "" && units[this.at] === 0x7b) {
      this.problem(
        "error",
        "branch-expected",
        start,
        start + 1,
        "a branch without a selector",
        choice.type === "select"
          ? "name the case before the {, such as other {…}"
          : "name the category before the {, such as other {…}",
      );
      this.at++;
      this.stack.push({
        kind: "branch",
        nodes: [],
        start,
        counts: choice.type !== "select",
        selector: "",
        selectorSpan,
        openTags: {},
      });
      return;
    }
    if (selector === "") this.at++;
    const end = this.at > start ? Math.min(this.at, source.length) : start + 1;
    const found = source.slice(start, selectorSpan.end) || source[start];
    this.problem(
      "error",
      "branch-expected",
      start,
      Math.max(selectorSpan.end, start + 1),
      `a branch is expected here, found “${found}”`,
      "write a selector and its text in braces, such as other {…}",
    );
    this.at = Math.max(this.at, end);
  }

  private readExact(): string {
    this.at++;
    const number = this.match(signedNumber);
    return number === "" ? "" : `=${Number(number)}`;
  }

  private closeChoice(choice: Choice, closed: boolean): void {
    this.stack.pop();
    const parent = this.stack[this.stack.length - 1];
    const span = { start: choice.start, end: this.at };
    if (!closed)
      this.problem(
        "error",
        "argument-unclosed",
        choice.start,
        choice.nameSpan.end,
        `the ${choice.type} of ${choice.name} is never closed`,
        "count its braces: a } is missing",
      );
    if (choice.branches.length === 0 && closed && this.problems.length === choice.problemsBefore)
      this.problem(
        "error",
        "branch-expected",
        choice.start,
        this.at,
        `a ${choice.type} without branches`,
        "give it at least other {…}",
      );
    const { name, nameSpan, branches, offset } = choice;
    if (!parent || parent.kind === "choice") return;
    if (choice.type === "select") parent.nodes.push({ kind: "select", name, nameSpan, branches, span });
    else
      parent.nodes.push({
        kind: "plural",
        pluralKind: choice.type === "plural" ? "cardinal" : "ordinal",
        name,
        nameSpan,
        offset,
        branches,
        span,
      });
  }

  /** At `}` inside a branch: closes tags left open in it, then the branch. */
  private closeBranch(): void {
    this.closeTagsLeftOpen();
    this.at++;
    this.endBranch();
  }

  private endBranch(): void {
    const branch = this.stack.pop();
    const choice = this.stack[this.stack.length - 1];
    if (branch?.kind !== "branch" || choice?.kind !== "choice") return;
    const span = { start: branch.start, end: this.at };
    const { selector = "", nodes, selectorSpan } = branch;
    choice.branches.push(selectorSpan ? { selector, nodes, selectorSpan, span } : { selector, nodes, span });
  }

  /** At the end of the message: closes what is innermost, saying so. False when nothing is left open. */
  private closeAtEnd(): boolean {
    this.closeTagsLeftOpen();
    const top = this.stack[this.stack.length - 1];
    if (top?.kind !== "branch") return false;
    this.problem(
      "error",
      "branch-unclosed",
      top.start,
      top.selectorSpan?.end ?? this.at,
      `the branch ${top.selector ?? ""} is never closed`,
      "count its braces: a } is missing",
    );
    this.endBranch();
    const choice = this.stack[this.stack.length - 1];
    if (choice?.kind === "choice") {
      // The missing brace of the branch is the fault; the choice around it would be reported for the same one.
      const before = this.problems.length;
      this.closeChoice(choice, false);
      this.problems.length = before;
    }
    return true;
  }

  private inBranch(): boolean {
    for (let index = this.stack.length - 1; index >= 0; index--) {
      const kind = this.stack[index]?.kind;
      if (kind === "branch") return true;
      if (kind === "root") return false;
    }
    return false;
  }

  /** Whether a tag starts at `offset`: a name, and a `>` before the next `<`. */
  private isTagAt(offset: number): boolean {
    if (!this.tags) return false;
    const { source, units } = this;
    const isClosing = units[offset + 1] === 0x2f;
    let at = this.tagNameEnd(isClosing ? offset + 2 : offset + 1);
    if (at < 0) return false;
    for (; at < source.length; at++) {
      const unit = units[at];
      if (unit === 0x3e) return true;
      if (unit === 0x3c) return false;
    }
    return false;
  }

  /** Where a tag's name that starts at a place ends; -1 where there is none. */
  private tagNameEnd(start: number): number {
    const { source, units } = this;
    let at = start;
    let code = (units[at] ?? 0) | 0x20;
    if (!(code >= 0x61 && code <= 0x7a)) return -1;
    for (;;) {
      code = units[++at] ?? 0;
      const letter = code | 0x20;
      const isInside =
        (letter >= 0x61 && letter <= 0x7a) ||
        (code >= 0x30 && code <= 0x3a) ||
        code === 0x5f ||
        code === 0x2e ||
        code === 0x2d;
      if (!isInside) break;
    }
    return code === 0x3e || code === 0x2f || code === 0x20 || /\s/.test(source.charAt(at)) ? at : -1;
  }

  /** Whether what stands at `offset` is near enough to a tag for an apostrophe before it to quote it. */
  private isTagLikeAt(offset: number): boolean {
    return this.tags && /^<\/?[A-Za-z]/.test(this.source.slice(offset, offset + 3));
  }

  private endsOpeningTag(at: number): boolean {
    return this.source[at] === ">" || (this.source[at] === "/" && this.source[at + 1] === ">");
  }

  private readTag(container: Container): void {
    const { source, units, at: start } = this;
    const isClosing = units[start + 1] === 0x2f;
    const nameEnd = this.tagNameEnd(isClosing ? start + 2 : start + 1);
    const name = source.slice(isClosing ? start + 2 : start + 1, nameEnd);
    if (isClosing) {
      this.at = source.indexOf(">", start) + 1;
      this.closeTag(name, start);
      return;
    }
    if (this.stack.length > deepestNesting) {
      this.giveUp(start);
      return;
    }
    this.at = nameEnd;
    const tag: OpenTag = { name, start, openEnd: start, attributes: [] };
    if (units[nameEnd] === 0x3e) {
      this.openTag(container, tag);
      return;
    }
    this.stack.push({
      kind: "attributes",
      nodes: [],
      start: this.at,
      counts: container.counts,
      tag,
      openTags: {},
    });
  }

  private closeAttributes(attributes: Container): void {
    this.stack.pop();
    const parent = this.stack[this.stack.length - 1];
    const tag = attributes.tag;
    if (!tag || !parent || parent.kind === "choice") return;
    const slash = this.source[this.at] === "/";
    this.at += slash ? 2 : 1;
    tag.attributes = trimAttributes(attributes.nodes);
    if (slash) {
      tag.openEnd = this.at;
      parent.nodes.push(this.makeTag(tag, [], true));
    } else {
      this.at--;
      this.openTag(parent, tag);
    }
  }

  /** At the `>` of an opening tag: what follows stands in it. */
  private openTag(parent: Container, tag: OpenTag): void {
    tag.openEnd = ++this.at;
    const { openTags } = parent;
    const open = (openTags.names ??= []);
    open.push(tag.name);
    this.stack.push({ kind: "tag", nodes: [], start: tag.start, counts: parent.counts, tag, openTags });
  }

  private closeTag(name: string, start: number): void {
    const top = this.stack[this.stack.length - 1];
    if (!top || top.kind === "choice" || !top.openTags.names?.includes(name)) {
      this.problem(
        "error",
        "tag-unopened",
        start,
        this.at,
        `</${name}> closes a tag that is not open here`,
        `remove it, or open <${name}> before it`,
      );
      return;
    }
    for (;;) {
      const innermost = this.stack[this.stack.length - 1];
      const isIt = innermost?.kind === "tag" && innermost.tag?.name === name;
      const open = this.popTag(!isIt);
      if (isIt) return;
      if (open)
        this.problem(
          "error",
          "tag-unclosed",
          open.start,
          open.openEnd,
          `<${open.name}> is still open where </${name}> comes`,
          `close </${open.name}> before </${name}>`,
        );
    }
  }

  private closeTagsLeftOpen(): void {
    for (
      let top = this.stack[this.stack.length - 1];
      top?.kind === "tag" || top?.kind === "attributes";
      top = this.stack[this.stack.length - 1]
    ) {
      const { tag } = top;
      if (top.kind === "attributes") {
        this.stack.pop();
        if (tag)
          this.problem(
            "error",
            "tag-unclosed",
            tag.start,
            this.at,
            `the tag <${tag.name} never ends`,
            "end it with >",
          );
      } else {
        if (this.popTag(true) && tag)
          this.problem(
            "error",
            "tag-unclosed",
            tag.start,
            tag.openEnd,
            `<${tag.name}> is never closed`,
            `write </${tag.name}> where it ends`,
          );
      }
    }
  }

  /**
   * Takes the innermost tag off the stack into its parent and returns it. One that was left open and that HTML
   * never closes stands alone, and what follows it is not inside it: then nothing is returned to complain of.
   */
  private popTag(leftOpen: boolean): OpenTag | undefined {
    const container = this.stack[this.stack.length - 1];
    if (container?.kind !== "tag" || !container.tag) return undefined;
    this.stack.pop();
    const { tag } = container;
    container.openTags.names?.pop();
    const parent = this.stack[this.stack.length - 1];
    if (!parent || parent.kind === "choice") return tag;
    if (leftOpen && voidElements.has(tag.name.toLowerCase())) {
      parent.nodes.push(
        { ...this.makeTag(tag, [], true), span: { start: tag.start, end: tag.openEnd } },
        ...container.nodes,
      );
      return undefined;
    }
    parent.nodes.push(this.makeTag(tag, container.nodes, false));
    return tag;
  }

  private makeTag(tag: OpenTag, children: MessageNode[], selfClosing: boolean): TagNode {
    const { name, attributes, start, openEnd } = tag;
    return {
      kind: "tag",
      name,
      attributes,
      children,
      selfClosing,
      span: { start, end: this.at },
      openSpan: { start, end: openEnd },
    };
  }

  /** A `{` that no argument follows: says why and goes on after the brace that closes it. */
  private recoverArgument(container: Container, start: number, nameStart: number): void {
    const { source } = this;
    if (source[nameStart] === undefined) {
      this.at = source.length;
      this.checkClosed(start, "");
      return;
    }
    this.at = nameStart;
    const closed = this.skipPastBrace();
    const written = source.slice(nameStart, closed ? this.at - 1 : this.at).trim();
    const name = /^[^,{}]*/.exec(written)?.[0].trim() ?? "";
    if (!closed) {
      const before = this.problems.length;
      this.checkClosed(start, name);
      if (this.problems.length === before)
        this.problem(
          "error",
          "argument-unclosed",
          start,
          start + 1,
          "a brace that is never closed",
          "write } where the argument ends, or '{' to show a brace",
        );
    } else if (/^\S+\s+(plural|select|selectordinal|number|date|time)\b/.test(written))
      this.problem(
        "error",
        "argument-name",
        nameStart,
        nameStart + name.length,
        `a comma is missing in “${name}”`,
        `write {${name.replace(/\s+/, ", ")}, …}`,
      );
    else if (written === "")
      this.problem(
        "error",
        "argument-name",
        start,
        this.at,
        "braces with no argument in them",
        "name the argument, or write '{' and '}' to show braces",
      );
    else
      this.problem(
        "error",
        "argument-name",
        nameStart,
        nameStart + name.length || this.at,
        `“${name}” is not an argument name`,
        "use letters, digits and _, or a number without leading zeros; to show braces, write '{' and '}'",
      );
    if (name !== "" && /^[^\s{}]+$/.test(name))
      container.nodes.push({
        kind: "argument",
        name,
        nameSpan: { start: nameStart, end: nameStart + name.length },
        span: { start, end: this.at },
      });
  }

  private checkClosed(start: number, name: string): void {
    if (this.at >= this.source.length && this.source[this.at - 1] !== "}")
      this.problem(
        "error",
        "argument-unclosed",
        start,
        this.source.length,
        name === "" ? "a { that is never closed" : `the argument ${name} is never closed`,
        name === "" ? "close it with }, or write '{' to show a brace" : `write {${name}}`,
      );
  }

  /** Goes past the `}` that ends the braces around the current place. False where there is none. */
  private skipPastBrace(): boolean {
    let depth = 0;
    while (this.at < this.source.length) {
      const unit = this.source[this.at++];
      if (unit === "{") depth++;
      else if (unit === "}" && depth-- === 0) return true;
    }
    return false;
  }

  /** Too deep: takes the rest of the message as read. */
  private giveUp(start: number): void {
    this.problem(
      "error",
      "too-deep",
      start,
      start + 1,
      `nested deeper than ${deepestNesting} levels`,
      "split the message",
    );
    this.at = this.source.length;
    this.stack.length = 1;
  }

  private problem(
    severity: "error" | "warning",
    code: MessageProblemCode,
    start: number,
    end: number,
    message: string,
    remedy: string,
  ): void {
    if (this.problems.length >= mostProblems) return;
    const last = Math.min(end, this.source.length);
    if (this.problems === noProblems) this.problems = [];
    this.problems.push({
      severity,
      code,
      message,
      remedy,
      span: { start: Math.min(start, last), end: last },
    });
  }

  private skipSpaces(): void {
    const { units } = this;
    let { at } = this;
    let code = units[at] ?? 0;
    while (code === 0x20 || code === 0x0a || code === 0x0d || code === 0x09) code = units[++at] ?? 0;
    this.at = at;
    // Other white space is rare, and none of it is a letter, digit or brace of ASCII.
    if (code < 0x20 || code > 0x7d) this.match(spaces);
  }

  /** A name: letters, digits and _ of ASCII most of the time, and what Unicode calls neither syntax nor white space. */
  private matchName(): string {
    const { source, units, at: start } = this;
    let at = start;
    let code = units[at] ?? 0;
    while (isNameUnit(code)) code = units[++at] ?? 0;
    if (code > 0x7d) return this.match(nameUnit);
    this.at = at;
    return source.slice(start, at);
  }

  /** A word of ASCII letters, in lower case. */
  private matchType(): string {
    const { source, units, at: start } = this;
    let at = start;
    let hasCapitals = false;
    for (;;) {
      const code = units[at] ?? 0;
      if (code >= 0x41 && code <= 0x5a) hasCapitals = true;
      else if (!(code >= 0x61 && code <= 0x7a)) break;
      at++;
    }
    this.at = at;
    const word = source.slice(start, at);
    return usualType(hasCapitals ? word.toLowerCase() : word);
  }

  private match(pattern: RegExp): string {
    pattern.lastIndex = this.at;
    if (!pattern.test(this.source)) return "";
    const found = this.source.slice(this.at, pattern.lastIndex);
    this.at = pattern.lastIndex;
    return found;
  }
}

/** Leading and trailing white space of the attributes means nothing. */
function trimAttributes(nodes: readonly MessageNode[]): MessageNode[] {
  const trimmed = nodes.map((node, index) => {
    if (node.kind !== "text") return node;
    let { value } = node;
    if (index === 0) value = value.trimStart();
    if (index === nodes.length - 1) value = value.trimEnd();
    return { ...node, value };
  });
  return trimmed.filter((node) => node.kind !== "text" || node.value !== "");
}

/** A type as the one text that stands for it, where it is a usual one: such are told apart at once. */
function usualType(word: string): string {
  switch (word.length) {
    case 4:
      return word === "date" ? "date" : word === "time" ? "time" : word;
    case 6:
      return word === "plural"
        ? "plural"
        : word === "number"
          ? "number"
          : word === "select"
            ? "select"
            : word;
    default:
      return word;
  }
}

/** Whether a code unit is a letter or digit of ASCII, or `_`. */
function isNameUnit(code: number): boolean {
  return (
    (code >= 0x61 && code <= 0x7a) ||
    (code >= 0x41 && code <= 0x5a) ||
    (code >= 0x30 && code <= 0x39) ||
    code === 0x5f
  );
}

/** Whether ICU takes a name: any identifier, digits first too, but a number only without leading zeros and in 32 bits. */
function isUsableName(name: string): boolean {
  const first = name.charCodeAt(0);
  return (
    !(first >= 0x30 && first <= 0x39) ||
    !/^\d+$/.test(name) ||
    name === "0" ||
    (!name.startsWith("0") && Number(name) < 2_147_483_640)
  );
}

function isNamedStyle(type: string, text: string): boolean {
  switch (type) {
    case "number":
      return text === "integer" || text === "currency" || text === "percent";
    case "date":
    case "time":
      return text === "short" || text === "medium" || text === "long" || text === "full";
    default:
      return false;
  }
}
