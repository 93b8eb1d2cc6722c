/** The escapes of a language's strings. */
export interface StringEscapes {
  /** An escape; its groups are a line end, three ways to write a character by hexadecimal digits, octal digits, and one sign. */
  readonly pattern: RegExp;
  /** What single signs stand for. */
  readonly plain: Readonly<Record<string, string>>;
  /** Whether a backslash before any other sign is dropped; else it stays. */
  readonly drops?: true;
}

/** What a string says, its escapes undone. */
export function escapedText(written: string, { pattern, plain, drops }: StringEscapes): string {
  if (!written.includes("\\")) return written;
  return written.replace(
    pattern,
    (
      whole: string,
      line: string | undefined,
      long: string | undefined,
      short: string | undefined,
      byte: string | undefined,
      octal: string | undefined,
      unit: string | undefined,
    ) => {
      const hex = long ?? short ?? byte;
      if (hex !== undefined) return String.fromCodePoint(Math.min(parseInt(hex, 16), 0x10ffff));
      if (octal !== undefined) return String.fromCharCode(parseInt(octal, 8) & 0x1ff);
      if (line !== undefined) return "";
      return unit === undefined ? whole : (plain[unit] ?? (drops ? unit : whole));
    },
  );
}
