/** Whether a text is one of the ledger's files. */
export function isLedgerText(text: string): boolean {
  return text.startsWith("# Fond Ledger 1");
}

/**
 * Merges two versions of a ledger file by record. Where both sides changed one, the later one counts; on the same day
 * ours does. There are no conflicts: the texts themselves say what holds, and the next reconcile sees to the rest.
 */
export function mergeLedgers(base: string, ours: string, theirs: string): string {
  const [head = ""] = ours.split("\n", 1);
  const isSources = head.includes("source texts");
  const read = (text: string) =>
    new Map(
      text
        .split(/\r?\n/)
        .filter((line) => line !== "" && !line.startsWith("#"))
        .map((line) => [line.split("\t", isSources ? 2 : 1).join("\t"), line] as const),
    );
  const dateOf = (line: string) => line.split("\t")[isSources ? 2 : 5] ?? "";
  const [was, our, their] = [read(base), read(ours), read(theirs)];
  const merged = new Map<string, string>();
  for (const key of new Set([...our.keys(), ...their.keys()])) {
    const [b, o, t] = [was.get(key), our.get(key), their.get(key)];
    const line =
      t === b
        ? o
        : o === b
          ? t
          : o === undefined || t === undefined
            ? (o ?? t)
            : dateOf(t) > dateOf(o)
              ? t
              : o;
    if (line !== undefined) merged.set(key, line);
  }
  const field = (line: string) => line.split("\t", 1)[0] ?? "";
  const compare = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0);
  const lines = [...merged.values()].sort(
    (a, b) => compare(field(a), field(b)) || (isSources ? compare(dateOf(a), dateOf(b)) : 0),
  );
  return [head, ...lines, ""].join("\n");
}
