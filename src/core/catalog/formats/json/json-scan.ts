import { CodeUnits } from "../../../text/code-units.js";

/** What a scanner meets, in the order of the text. Spans are from `start` to `end`, quotes included. */
export interface JsonVisitor {
  begin?(list: boolean, start: number): void;
  end?(end: number): void;
  key?(name: string, start: number, end: number): void;
  value?(kind: JsonValueKind, start: number, end: number): void;
  comma?(end: number): void;
}

export type JsonValueKind = "text" | "number" | "boolean" | "null";

/** Where a text stops being JSON. */
export interface JsonBreak {
  readonly offset: number;
  readonly length: number;
}

const literalKinds: Readonly<Record<string, JsonValueKind>> = {
  true: "boolean",
  false: "boolean",
  null: "null",
  NaN: "number",
  Infinity: "number",
};

/**
 * Reads JSON (RFC 8259) in one pass, telling the visitor what it meets; `lenient` takes what JSON5 adds to it: comments,
 * commas at the end, names without quotes, single quotes. Stops at the first thing that is no JSON and gives its place.
 * Depth is limited by memory alone.
 */
export function scanJson(text: string, visitor: JsonVisitor, lenient = false): JsonBreak | undefined {
  return new Scanner(text, visitor, lenient).scan();
}

/** What a text in quotes says, which was read without an error before. */
export function decodeJson(written: string, lenient: boolean): string {
  return lenient ? new Scanner(written, {}, lenient).decoded() : (JSON.parse(written) as string);
}

/** The text that is being read, which is one at a time. */
const fileUnits = new CodeUnits();

const isLenientSpace = /[/\s\ufeff]/;

/** Which units do not stand for themselves in a text: its end, escapes, and control characters. */
function specialUnits(quote: number): Uint8Array {
  const special = new Uint8Array(0x10000).fill(1, 0, 0x20);
  special[quote] = special[0x5c] = 1;
  return special;
}
const endsDoubleQuoted = specialUnits(0x22);
const endsSingleQuoted = specialUnits(0x27);

/** Where units end that stand for themselves. A small loop of its own, as the engine soon makes good code of that. */
function plainEnd(units: Uint16Array, start: number, special: Uint8Array): number {
  let at = start;
  for (;;) {
    if (special[units[at] ?? 0] !== 0) return at;
    if (special[units[at + 1] ?? 0] !== 0) return at + 1;
    if (special[units[at + 2] ?? 0] !== 0) return at + 2;
    if (special[units[at + 3] ?? 0] !== 0) return at + 3;
    at += 4;
  }
}

class Stop extends Error {
  constructor(
    readonly offset: number,
    readonly length: number,
  ) {
    super("not JSON");
  }
}

class Scanner {
  private at = 0;
  private expectsValue = true;
  /** Of each open group, whether it is a list. */
  private readonly open: boolean[] = [];
  private readonly units: Uint16Array;

  constructor(
    private readonly text: string,
    private readonly visitor: JsonVisitor,
    private readonly lenient: boolean,
  ) {
    this.units = fileUnits.of(text);
  }

  scan(): JsonBreak | undefined {
    try {
      this.document();
      return undefined;
    } catch (error) {
      if (!(error instanceof Stop)) throw error;
      return { offset: error.offset, length: error.length };
    }
  }

  /** A token at a time: the engine makes good code of a step that is called often long before it would of one loop over a file. */
  private document(): void {
    this.space();
    while (this.expectsValue ? this.value() : this.behindValue());
    this.space();
    if (this.at < this.text.length) this.stop();
  }

  /** A text, number or word, or the start of a group. Says whether more is to come. */
  private value(): boolean {
    const unit = this.units[this.at] ?? 0;
    if (unit === 0x7b || unit === 0x5b) {
      const list = unit === 0x5b;
      this.visitor.begin?.(list, this.at);
      this.open.push(list);
      this.at++;
      this.space();
      if (this.units[this.at] === (list ? 0x5d : 0x7d)) this.expectsValue = false;
      else if (!list) this.name();
      return true;
    }
    this.scalar(unit);
    this.expectsValue = false;
    if (this.open.length === 0) return false;
    this.space();
    return true;
  }

  /** A comma or the end of a group: behind a value, or right inside an empty group. */
  private behindValue(): boolean {
    const { open } = this;
    const list = open[open.length - 1] ?? false;
    const unit = this.units[this.at] ?? 0;
    if (unit === 0x2c) {
      this.at++;
      this.visitor.comma?.(this.at);
      this.space();
      if (this.lenient && this.units[this.at] === (list ? 0x5d : 0x7d)) return true;
      if (!list) this.name();
      this.expectsValue = true;
      return true;
    }
    if (unit !== (list ? 0x5d : 0x7d)) this.stop();
    this.at++;
    this.visitor.end?.(this.at);
    open.pop();
    if (open.length === 0) return false;
    this.space();
    return true;
  }

  private name(): void {
    const start = this.at;
    const unit = this.text.charCodeAt(start);
    let name: string;
    if (unit === 0x22 || (this.lenient && unit === 0x27)) name = this.decoded();
    else {
      const plain = this.lenient ? this.match(/[\p{L}_$][\p{L}\p{N}_$\u200c\u200d]*/uy) : undefined;
      if (plain === undefined) return this.stop();
      name = plain;
    }
    this.visitor.key?.(name, start, this.at);
    this.space();
    if (this.units[this.at] !== 0x3a) this.stop();
    this.at++;
    this.space();
  }

  private scalar(unit: number): void {
    const start = this.at;
    if (unit === 0x22 || (this.lenient && unit === 0x27)) {
      this.quoted(unit);
      this.visitor.value?.("text", start, this.at);
      return;
    }
    const number = this.match(
      this.lenient
        ? /[+-]?(?:0[xX][\da-fA-F]+|Infinity|NaN|(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?)/y
        : /-?(?:0|[1-9]\d*)(?:\.\d+)?(?:[eE][+-]?\d+)?/y,
    );
    if (number !== undefined) return this.visitor.value?.("number", start, this.at);
    const word = this.match(/[A-Za-z]+/y);
    const kind = word === undefined || !Object.hasOwn(literalKinds, word) ? undefined : literalKinds[word];
    if (word === undefined || kind === undefined || (kind === "number" && !this.lenient)) {
      this.at = start;
      return this.stop(word?.length);
    }
    this.visitor.value?.(kind, start, this.at);
  }

  /** Goes behind a text in quotes, and says whether it has escapes. */
  private quoted(quote: number): boolean {
    const { units, lenient } = this;
    const special = quote === 0x22 ? endsDoubleQuoted : endsSingleQuoted;
    let hasEscapes = false;
    let at = plainEnd(units, this.at + 1, special);
    for (let unit = units[at]; unit !== quote; unit = units[at]) {
      if (unit === 0x5c) {
        hasEscapes = true;
        at += this.escape(at)[1];
      } else if (unit === 0x0a || at >= this.text.length) this.stop(at - this.at);
      else if (lenient) at++;
      else this.refuseControl(at);
      at = plainEnd(units, at, special);
    }
    this.at = at + 1;
    return hasEscapes;
  }

  /** A control character in a text, which JSON wants escaped; where the line ends before the text does, that is what is wrong. */
  private refuseControl(at: number): never {
    const lineEnd = this.text.indexOf("\n", at);
    const close = this.text.indexOf('"', at);
    if (lineEnd >= 0 && (close < 0 || lineEnd < close)) this.stop(lineEnd - this.at);
    this.at = at;
    this.stop(1);
  }

  /** What a text in quotes says, which starts here. */
  decoded(): string {
    const { text } = this;
    const start = this.at + 1;
    if (!this.quoted(text.charCodeAt(this.at))) return text.slice(start, this.at - 1);
    const end = this.at - 1;
    let said = "";
    let from = start;
    for (let at = text.indexOf("\\", start); at >= 0 && at < end; at = text.indexOf("\\", from)) {
      const [unit, length] = this.escape(at);
      said += text.slice(from, at) + unit;
      from = at + length;
    }
    return said + text.slice(from, end);
  }

  private escape(at: number): readonly [string, number] {
    const unit = this.text[at + 1] ?? "";
    const simple = { '"': '"', "\\": "\\", "/": "/", b: "\b", f: "\f", n: "\n", r: "\r", t: "\t" }[unit];
    if (simple !== undefined) return [simple, 2];
    if (unit === "u") {
      const hex = this.text.slice(at + 2, at + 6);
      if (/^[\da-fA-F]{4}$/.test(hex)) return [String.fromCharCode(parseInt(hex, 16)), 6];
    }
    if (this.lenient) {
      if (unit === "\r" && this.text[at + 2] === "\n") return ["", 3];
      if (/[\n\r\u2028\u2029]/.test(unit)) return ["", 2];
      const hex = unit === "x" ? this.text.slice(at + 2, at + 4) : "";
      if (/^[\da-fA-F]{2}$/.test(hex)) return [String.fromCharCode(parseInt(hex, 16)), 4];
      const plain = { v: "\v", "0": "\0" }[unit];
      if (plain !== undefined) return [plain, 2];
      if (unit !== "" && !/[\dxu]/.test(unit)) return [unit, 2];
    }
    this.at = at;
    return this.stop(2);
  }

  private space(): void {
    const { units } = this;
    let { at } = this;
    let unit = units[at] ?? 0;
    while (unit === 0x20 || unit === 0x0a || unit === 0x0d || unit === 0x09) unit = units[++at] ?? 0;
    this.at = at;
    // JSON5 has comments and more blanks.
    if (this.lenient && isLenientSpace.test(String.fromCharCode(unit)))
      this.match(/(?:\/\/[^\n]*|\/\*[^]*?\*\/|[\s\ufeff])+/y);
  }

  private match(pattern: RegExp): string | undefined {
    pattern.lastIndex = this.at;
    const found = pattern.exec(this.text)?.[0];
    if (found === undefined) return undefined;
    this.at += found.length;
    return found;
  }

  /** Ends the scan here; without a length, at the whole word, quoted text or comment that stands here. */
  private stop(length?: number): never {
    const token = /"(?:\\.|[^"\\\n])*"|'(?:\\.|[^'\\\n])*'|\/\/[^\r\n]*|\/\*[^]*?\*\/|[\p{L}\p{N}_$.+-]+/uy;
    token.lastIndex = this.at;
    throw new Stop(this.at, length ?? token.exec(this.text)?.[0].length ?? 1);
  }
}

/** A value with what is below it, for editing. */
export interface JsonNode {
  readonly kind: JsonValueKind | "object" | "list";
  readonly start: number;
  end: number;
  readonly members: JsonMember[];
}

export interface JsonMember {
  readonly name: string | number;
  /** Where the member starts: its key, or its value in a list. */
  readonly start: number;
  readonly value: JsonNode;
  /** The offset behind the comma that follows. */
  commaEnd?: number;
}

/** The tree of a text, or undefined where it is no JSON. */
export function jsonTree(text: string, lenient = false): JsonNode | undefined {
  let root: JsonNode | undefined;
  const open: JsonNode[] = [];
  let key: { name: string; start: number } | undefined;
  const put = (node: JsonNode) => {
    const parent = open[open.length - 1];
    if (!parent) root = node;
    else if (parent.kind === "list")
      parent.members.push({ name: parent.members.length, start: node.start, value: node });
    else parent.members.push({ name: key?.name ?? "", start: key?.start ?? node.start, value: node });
  };
  const broken = scanJson(
    text,
    {
      begin(list, start) {
        const node: JsonNode = { kind: list ? "list" : "object", start, end: start, members: [] };
        put(node);
        open.push(node);
      },
      end(end) {
        const node = open.pop();
        if (node) node.end = end;
      },
      key(name, start) {
        key = { name, start };
      },
      value: (kind, start, end) => put({ kind, start, end, members: [] }),
      comma(end) {
        const last = open[open.length - 1]?.members.at(-1);
        if (last) last.commaEnd = end;
      },
    },
    lenient,
  );
  return broken ? undefined : root;
}
