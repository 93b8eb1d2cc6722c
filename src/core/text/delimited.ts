/** A part of a text between two marks, with the matches of both. */
export interface Delimited {
  readonly start: number;
  readonly end: number;
  readonly innerStart: number;
  readonly innerEnd: number;
  readonly open: RegExpExecArray;
  readonly close: RegExpExecArray;
}

/**
 * The parts of a text from an opening mark to the next closing one, none inside another. A pattern for all of it would look
 * for the end again from every opening mark where there is none; this looks once.
 */
export function* delimited(text: string, open: RegExp, close: RegExp): Generator<Delimited> {
  const [opening, closing] = [new RegExp(open, withGlobal(open)), new RegExp(close, withGlobal(close))];
  for (let at = 0; ;) {
    opening.lastIndex = at;
    const first = opening.exec(text);
    if (!first) return;
    closing.lastIndex = first.index + first[0].length;
    const last = closing.exec(text);
    if (!last) return;
    at = last.index + last[0].length;
    yield {
      start: first.index,
      end: at,
      innerStart: first.index + first[0].length,
      innerEnd: last.index,
      open: first,
      close: last,
    };
  }
}

function withGlobal({ flags }: RegExp): string {
  return flags.includes("g") ? flags : `${flags}g`;
}

/** A string as code writes it: with its quotes, and what is between them as it is written. */
export interface Quoted {
  readonly start: number;
  readonly end: number;
  readonly value: string;
}

/** The strings between quotes in a piece of code; a backslash takes the next character along. A quote that nothing ends is passed over. */
export function* quotedIn(code: string, quotes: string): Generator<Quoted> {
  const unended = new Set<string>();
  for (let at = 0; at < code.length; at++) {
    const quote = code[at] ?? "";
    if (!quotes.includes(quote) || unended.has(quote)) continue;
    let end = at + 1;
    while (end < code.length && code[end] !== quote) end += code[end] === "\\" ? 2 : 1;
    // Whatever opens a string of this kind later stands behind a backslash now.
    if (end >= code.length) unended.add(quote);
    else {
      yield { start: at, end: end + 1, value: code.slice(at + 1, end) };
      at = end;
    }
  }
}

/** A piece of code with something else in place of each string between quotes. */
export function withoutQuoted(code: string, quotes: string, instead: (quoted: Quoted) => string): string {
  let result = "";
  let at = 0;
  for (const quoted of quotedIn(code, quotes)) {
    result += code.slice(at, quoted.start) + instead(quoted);
    at = quoted.end;
  }
  return result + code.slice(at);
}

/** What stands between the commas of a list, those in brackets and strings aside. */
export function delimitedParts(list: string): readonly string[] {
  const blank = withoutQuoted(list, "\"'", ({ start, end }) => "_".repeat(end - start));
  const parts: string[] = [];
  let depth = 0;
  let from = 0;
  for (let at = 0; at <= blank.length; at++) {
    const unit = blank[at] ?? ",";
    if (/[([{]/.test(unit)) depth++;
    else if (/[)\]}]/.test(unit)) depth--;
    else if (unit === "," && depth === 0) {
      if (list.slice(from, at).trim() !== "") parts.push(list.slice(from, at));
      from = at + 1;
    }
  }
  return parts;
}
