import type { Io } from "../io.js";

/** Shows on a terminal how far long work is, once it has taken a second. */
export interface Progress {
  step(done: number, of: number): void;
  /** Takes the line away again. */
  end(): void;
}

/** Milliseconds before anything is shown, and between two updates. */
const patience = 1000;
const pace = 100;

/** Progress on stderr; nothing where that is no terminal, or with `quiet`. */
export function showProgress(what: string, quiet: boolean, { stderr }: Pick<Io, "stderr">): Progress {
  const start = Date.now();
  let shown = 0;
  return {
    step(done, of) {
      const now = Date.now();
      if (quiet || !stderr.isTTY || now - start < patience || now - shown < pace) return;
      shown = now;
      const width = 24;
      const filled = Math.round((width * done) / Math.max(of, 1));
      stderr.write(`\r${what} ${"█".repeat(filled)}${"░".repeat(width - filled)} ${done}/${of}`);
    },
    end() {
      if (shown > 0) stderr.write("\r\u001b[2K");
    },
  };
}
