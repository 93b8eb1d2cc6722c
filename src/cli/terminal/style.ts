import pc from "picocolors";
import { safeText } from "../../output/safe-text.js";

/** Colors and weights for text that a person reads; plain functions without color. */
export type Style = ReturnType<typeof pc.createColors>;

/** Whether to color what goes to a stream: never with --no-color or NO_COLOR, always with FORCE_COLOR, else on a terminal. */
export function wantsColor(
  stream: { readonly isTTY?: boolean },
  flag: boolean,
  env: Readonly<Record<string, string | undefined>>,
): boolean {
  if (!flag || (env["NO_COLOR"] ?? "") !== "") return false;
  const forced = env["FORCE_COLOR"];
  if (forced !== undefined) return forced !== "0" && forced !== "false";
  return stream.isTTY === true && env["TERM"] !== "dumb";
}

/**
 * A number that nothing outside this process knows. Escape sequences of ours carry it as a last parameter until they are
 * printed, so that those in texts, keys and file names can be told from them.
 */
const seal = String(100_000_000 + Math.floor(Math.random() * 900_000_000));
const sealed = new RegExp(`\\u001b\\[(\\d+);${seal}m`, "g");
const isolate = 2068;

/** Styles whose escape sequences pass `terminalText`. */
export function makeStyle(color: boolean): Style {
  const colors = pc.createColors(color);
  if (!color) return colors;
  const withSeal = (paint: (text: string) => string) => (text: unknown) =>
    throughPlainCodes([String(text)], ([one = ""]) => paint(one));
  return Object.fromEntries(
    Object.entries(colors).map(([name, value]) => [
      name,
      typeof value === "function" ? withSeal(value as (text: string) => string) : value,
    ]),
  ) as unknown as Style;
}

/**
 * What some code makes of texts that knows plain escape sequences only, such as one that lays tables out. In what it is given
 * only our own sequences are left, so that all in its result are ours as well.
 */
export function throughPlainCodes(texts: readonly string[], make: (texts: string[]) => string): string {
  const plain = texts.map((text) => shown(text).replace(sealed, "\u001b[$1m"));
  return make(plain).replace(/\u001b\[(\d+)m/g, `\u001b[$1;${seal}m`);
}

/** A line that keeps its own direction, whatever stands beside it (FSI and PDI of UAX #9). */
export function isolated(text: string): string {
  return `\u001b[${isolate};${seal}m${text}\u001b[${isolate + 1};${seal}m`;
}

/** What may go to a terminal: only the escape sequences of `makeStyle` and `isolated` are left, all others are visible. */
export function terminalText(text: string): string {
  return shown(text).replace(sealed, (_, code: string) =>
    Number(code) >= isolate ? (Number(code) === isolate ? "\u2068" : "\u2069") : `\u001b[${code}m`,
  );
}

/** A text with everything replaced that could act on a terminal, but for sealed sequences. */
function shown(text: string): string {
  if (!text.includes("\u001b")) return safeText(text);
  let result = "";
  let from = 0;
  for (const match of text.matchAll(sealed)) {
    result += safeText(text.slice(from, match.index)) + match[0];
    from = match.index + match[0].length;
  }
  return result + safeText(text.slice(from));
}

/** A whole number as English writes it, thousands parted: 12,345. The engine's own way takes long to load its data. */
export function grouped(count: number): string {
  const digits = String(count);
  const parts: string[] = [];
  for (let end = digits.length; end > 0; end -= 3) parts.unshift(digits.slice(Math.max(end - 3, 0), end));
  return parts.join(",");
}

/** “1 key”, “2 keys”: a count with its noun. */
export function counted(count: number, one: string, many = `${one}s`): string {
  return `${grouped(count)} ${count === 1 ? one : many}`;
}
