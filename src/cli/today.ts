/** Today in UTC, as YYYY-MM-DD, so that the ledger's days do not depend on where a command ran. */
export function today(): string {
  return new Date().toISOString().slice(0, 10);
}
