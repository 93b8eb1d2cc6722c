import pc from "picocolors";

/** Colours and marks for text that a person reads; plain functions where there is no colour. */
export type Style = ReturnType<typeof pc.createColors>;

/** Whether to colour what goes to a stream: never with --no-color or NO_COLOR, always with FORCE_COLOR, else on a terminal. */
export function wantsColor(
  stream: { readonly isTTY?: boolean },
  flag: boolean,
  env: NodeJS.ProcessEnv,
): boolean {
  if (!flag || (env["NO_COLOR"] ?? "") !== "") return false;
  const forced = env["FORCE_COLOR"];
  if (forced !== undefined) return forced !== "0" && forced !== "false";
  return stream.isTTY === true && env["TERM"] !== "dumb";
}

export function makeStyle(color: boolean): Style {
  return pc.createColors(color);
}

/** A whole number as English writes it, thousands parted: 12,345. The engine's own way takes long to load its data. */
export function grouped(count: number): string {
  return String(count).replace(/\B(?=(?:\d{3})+$)/g, ",");
}

/** “1 key”, “2 keys”: a count with its noun. */
export function counted(count: number, one: string, many = `${one}s`): string {
  return `${grouped(count)} ${count === 1 ? one : many}`;
}
