/**
 * How a pattern marks the places of its values: by percent signs, by those with names (Ruby) or dates (Java) as well, in braces,
 * or as `MessageFormat` of Java does.
 */
export type PatternStyle = "percent" | "percent-names" | "percent-dates" | "brace" | "message";

/** A part of a pattern that is not as it is written: the place of a value, or signs that stand for others. */
export interface Hole {
  readonly index: number;
  readonly length: number;
  /** What stands here, where it is no value: `%` for `%%`. */
  readonly text?: string;
  /** The value's place from 0, where the pattern says it; else its name, or the next. */
  readonly place?: number;
  readonly name?: string;
  /** What is picked of the value, as code: `.name`, `["name"]`. */
  readonly picked: string;
  /** Set where the pattern says how the value is written. */
  readonly isFormatted: boolean;
  /** The letter of its type, in percent signs. */
  readonly letter?: string;
}

const percent =
  /%(?:%|(?:(\d{1,3})\$|\((\w{1,60})\)|\[(\d{1,3})\]|\{(\w{1,60})\})?((?:[-+ 0#,]|'.)*(?:\*|\d{1,4})?(?:\.(?:\*|\d{0,4}))?)(?:<(\w{1,60})>)?((?:\*|\d{1,4})?(?:\.\d{1,4})?)(?:hh?|ll?|[jzL](?=[diouxX]))?(t[A-Za-z](?![A-Za-z])|[a-zA-Z@])?)/g;

/** Letters of types that a value is written by as it is, or that a message may keep. */
const keptLetter = /^[sdiuvnt@oxXeEfFgGcqb]$/;
const letters = /^[sdiufFeEgGxXobcqvtTnw@raApU]$/;

function* percentHoles(text: string, style: PatternStyle): Generator<Hole> {
  const hasNames = style === "percent-names";
  percent.lastIndex = 0;
  for (let match = percent.exec(text); match; match = percent.exec(text)) {
    const { index } = match;
    const [whole, place, name, indexed, braced, form = "", angled, more = "", type = ""] = match;
    const hole = { index, length: whole.length, picked: "", isFormatted: false };
    if (whole === "%%") {
      yield { ...hole, text: "%" };
      continue;
    }
    // `%{name}` takes no letter.
    if (braced !== undefined) {
      const { length } = `%{${braced}}`;
      percent.lastIndex = index + length;
      if (hasNames) yield { ...hole, length, name: braced };
      continue;
    }
    const isDate = type.length === 2 && style === "percent-dates";
    const letter = isDate ? "t" : type.slice(0, 1);
    if (!letters.test(letter) || (angled !== undefined && !hasNames)) {
      percent.lastIndex = index + 1;
      continue;
    }
    const surplus = isDate ? 0 : Math.max(type.length - 1, 0);
    percent.lastIndex = index + whole.length - surplus;
    const at = place ?? indexed;
    yield {
      ...hole,
      length: whole.length - surplus,
      ...(at !== undefined && { place: Number(at) - 1 }),
      ...((name ?? angled) !== undefined && { name: name ?? angled ?? "" }),
      isFormatted: form + more !== "" || isDate || !keptLetter.test(letter),
      letter,
    };
  }
}

/** Python, "Format String Syntax"; .NET, "Composite formatting". */
const brace =
  /\{\{|\}\}|\{(\w{0,60})((?:\.[A-Za-z_]\w{0,60}|\[[^[\]{}]{1,60}\]){0,9})(,\s{0,3}-?\d{1,4})?(![rsa])?(?::((?:[^{}]|\{[^{}]{0,40}\}){0,80}))?\}/g;

function* braceHoles(text: string): Generator<Hole> {
  for (const match of text.matchAll(brace)) {
    const [whole, name = "", path = "", width, conversion, form = ""] = match;
    const hole = { index: match.index, length: whole.length, picked: pickedBy(path), isFormatted: false };
    if (whole === "{{" || whole === "}}") yield { ...hole, text: whole.charAt(0) };
    else
      yield {
        ...hole,
        ...(name !== "" && (/^\d+$/.test(name) ? { place: Number(name) } : { name })),
        isFormatted:
          width !== undefined ||
          (conversion !== undefined && conversion !== "!s") ||
          !/^[sd]?$/.test(form.trim()),
      };
  }
}

/** What a field of a pattern picks of its value, as code: `[name]` is a key without quotes. */
function pickedBy(path: string): string {
  return path.replace(/\[([^[\]]{0,60})\]/g, (_, key: string) =>
    /^\d+$/.test(key) ? `[${key}]` : `[${JSON.stringify(key)}]`,
  );
}

/** Java's `MessageFormat`: apostrophes quote, and two of them are one. */
const message = /''|'([^']{0,200})'?|\{\s{0,9}(\d{1,3})\s{0,9}(?:,([^{}]{0,80}))?\}/g;

function* messageHoles(text: string): Generator<Hole> {
  for (const match of text.matchAll(message)) {
    const [whole, quoted, place, form] = match;
    const hole = { index: match.index, length: whole.length, picked: "", isFormatted: form !== undefined };
    if (place !== undefined) yield { ...hole, place: Number(place) };
    else yield { ...hole, text: whole === "''" ? "'" : (quoted ?? "") };
  }
}

/** The places of values in a pattern, and what stands for other signs, in order. */
export function holesIn(text: string, style: PatternStyle): readonly Hole[] {
  return [
    ...(style === "brace"
      ? braceHoles(text)
      : style === "message"
        ? messageHoles(text)
        : percentHoles(text, style)),
  ];
}
