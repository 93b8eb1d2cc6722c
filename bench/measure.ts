/** The shortest of several runs, in milliseconds: the one that the machine disturbed least. */
export async function shortest(runs: number, work: () => unknown): Promise<number> {
  let best = Infinity;
  for (let run = 0; run < runs; run++) {
    const start = performance.now();
    await work();
    best = Math.min(best, performance.now() - start);
  }
  return best;
}

/**
 * The shortest of several runs of two works in turn, in milliseconds. A machine that is slower for a while is so for both.
 */
export async function shortestInTurn(
  runs: number,
  one: () => unknown,
  other: () => unknown,
): Promise<readonly [number, number]> {
  let best: readonly [number, number] = [Infinity, Infinity];
  for (let run = 0; run < runs; run++)
    best = [Math.min(best[0], await shortest(1, one)), Math.min(best[1], await shortest(1, other))];
  return best;
}

export interface Comparison {
  readonly what: string;
  readonly against: string;
  readonly milliseconds: number;
  readonly baseline: number;
  /** The ratio that the project sets itself; undefined where there is none yet. */
  readonly aim?: number;
}

/** One line: the ratio, what it compares, and how it stands to its aim. */
export function showComparison({ what, against, milliseconds, baseline, aim }: Comparison): string {
  const ratio = milliseconds / baseline;
  const verdict =
    aim === undefined ? "" : ratio <= aim ? `  (aim ${aim} x: met)` : `  (aim ${aim} x: NOT met)`;
  return `${ratio.toFixed(2).padStart(7)} x  ${what}: ${milliseconds.toFixed(0)} ms, against ${against}: ${baseline.toFixed(0)} ms${verdict}`;
}
