import picomatch from "picomatch";

/** A test for paths (relative, with `/`) against glob patterns; with no pattern nothing matches. */
export function globTest(patterns: readonly string[]): (path: string) => boolean {
  if (patterns.length === 0) return () => false;
  return picomatch([...patterns], { dot: false });
}
