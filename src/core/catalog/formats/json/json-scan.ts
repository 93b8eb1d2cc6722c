/** What a scanner meets, in the order of the text. Spans are from `start` to `end`, quotes included. */
export interface JsonVisitor {
  begin(list: boolean, start: number): void;
  end(end: number): void;
  key(name: string, start: number, end: number): void;
  /** A text is decoded; anything else is as written. */
  value(kind: JsonValueKind, text: string, start: number, end: number): void;
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
  private nextBackslash = -1;
  private nextLineEnd = -1;
  /** Whether texts must be searched for characters that JSON wants escaped. */
  private readonly hasControls: boolean;

  constructor(
    private readonly text: string,
    private readonly visitor: JsonVisitor,
    private readonly lenient: boolean,
  ) {
    this.hasControls = !lenient && /[\0-\x09\x0b\x0c\x0e-\x1f]/.test(text);
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

  private document(): void {
    const { visitor } = this;
    const open: boolean[] = [];
    this.space();
    let expectsValue = true;
    for (;;) {
      if (expectsValue) {
        const unit = this.text.charCodeAt(this.at);
        if (unit === 0x7b || unit === 0x5b) {
          const list = unit === 0x5b;
          visitor.begin(list, this.at);
          open.push(list);
          this.at++;
          this.space();
          if (this.text.charCodeAt(this.at) === (list ? 0x5d : 0x7d)) expectsValue = false;
          else if (!list) this.name();
          continue;
        }
        this.scalar(unit);
        expectsValue = false;
        if (open.length === 0) break;
        this.space();
        continue;
      }
      // Behind a value, or right inside an empty group.
      const list = open[open.length - 1] ?? false;
      const unit = this.text.charCodeAt(this.at);
      if (unit === 0x2c) {
        this.at++;
        visitor.comma?.(this.at);
        this.space();
        const after = this.text.charCodeAt(this.at);
        if (this.lenient && after === (list ? 0x5d : 0x7d)) continue;
        if (!list) this.name();
        expectsValue = true;
      } else if (unit === (list ? 0x5d : 0x7d)) {
        this.at++;
        visitor.end(this.at);
        open.pop();
        if (open.length === 0) break;
        this.space();
      } else this.stop();
    }
    this.space();
    if (this.at < this.text.length) this.stop();
  }

  private name(): void {
    const start = this.at;
    const unit = this.text.charCodeAt(start);
    let name: string;
    if (unit === 0x22 || (this.lenient && unit === 0x27)) name = this.quoted(unit);
    else {
      const plain = this.lenient ? this.match(/[\p{L}_$][\p{L}\p{N}_$\u200c\u200d]*/uy) : undefined;
      if (plain === undefined) return this.stop();
      name = plain;
    }
    this.visitor.key(name, start, this.at);
    this.space();
    if (this.text.charCodeAt(this.at) !== 0x3a) this.stop();
    this.at++;
    this.space();
  }

  private scalar(unit: number): void {
    const start = this.at;
    if (unit === 0x22 || (this.lenient && unit === 0x27)) {
      const value = this.quoted(unit);
      this.visitor.value("text", value, start, this.at);
      return;
    }
    const number = this.match(
      this.lenient
        ? /[+-]?(?:0[xX][\da-fA-F]+|Infinity|NaN|(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?)/y
        : /-?(?:0|[1-9]\d*)(?:\.\d+)?(?:[eE][+-]?\d+)?/y,
    );
    if (number !== undefined) return this.visitor.value("number", number, start, this.at);
    const word = this.match(/[A-Za-z]+/y);
    const kind = word === undefined || !Object.hasOwn(literalKinds, word) ? undefined : literalKinds[word];
    if (word === undefined || kind === undefined || (kind === "number" && !this.lenient)) {
      this.at = start;
      return this.stop(word?.length);
    }
    this.visitor.value(kind, word, start, this.at);
  }

  /** A text in quotes, decoded; what stands most often, a text without escapes, is found by two searches. */
  private quoted(quote: number): string {
    const { text } = this;
    const start = this.at + 1;
    const close = text.indexOf(quote === 0x22 ? '"' : "'", start);
    if (this.nextBackslash < start) {
      const found = text.indexOf("\\", start);
      this.nextBackslash = found < 0 ? Infinity : found;
    }
    if (this.nextLineEnd < start) {
      const found = text.indexOf("\n", start);
      this.nextLineEnd = found < 0 ? Infinity : found;
    }
    if (close >= 0 && close < this.nextBackslash) {
      if (this.nextLineEnd < close) this.stop(this.nextLineEnd - this.at);
      this.at = close + 1;
      const value = text.slice(start, close);
      if (this.hasControls) this.refuseControls(value, start);
      return value;
    }
    return this.escaped(quote, start);
  }

  private escaped(quote: number, start: number): string {
    const { text } = this;
    let value = "";
    let from = start;
    let at = start;
    for (;;) {
      const unit = text.charCodeAt(at);
      if (unit === quote) break;
      if (Number.isNaN(unit) || unit === 0x0a) this.stop(at - this.at);
      if (unit !== 0x5c) {
        at++;
        continue;
      }
      value += text.slice(from, at);
      const [decoded, length] = this.escape(at);
      value += decoded;
      at += length;
      from = at;
    }
    value += text.slice(from, at);
    if (this.hasControls) this.refuseControls(text.slice(start, at), start);
    this.at = at + 1;
    return value;
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

  private refuseControls(value: string, start: number): void {
    const found = /[\0-\x1f]/.exec(value);
    if (!found) return;
    this.at = start + found.index;
    this.stop(1);
  }

  private space(): void {
    const { text } = this;
    for (;;) {
      const unit = text.charCodeAt(this.at);
      if (unit === 0x20 || unit === 0x0a || unit === 0x0d || unit === 0x09) this.at++;
      else if (this.lenient && unit === 0x2f) {
        const comment = this.match(/\/\/[^\n]*|\/\*[^]*?\*\//y);
        if (comment === undefined) return;
      } else if (this.lenient && (unit === 0xa0 || unit === 0xfeff || unit === 0x0b || unit === 0x0c))
        this.at++;
      else return;
    }
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
      value: (kind, _, start, end) => put({ kind, start, end, members: [] }),
      comma(end) {
        const last = open[open.length - 1]?.members.at(-1);
        if (last) last.commaEnd = end;
      },
    },
    lenient,
  );
  return broken ? undefined : root;
}
