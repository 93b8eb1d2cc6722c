/** Longer conditions ask for more than that. */
const longest = 100;

/** Whether a condition is true only while somebody looks for faults in the program: `if (DEBUG)`, `if (options.verbose)`. */
export function asksForDebugging(condition: string): boolean {
  return (
    condition.length <= longest &&
    /(?<![a-zA-Z0-9])(?:is_?)?(?:debug(?:ging|_?mode|_?level|_?enabled)?|verbose|trace)(?![a-z])/i.test(
      condition,
    ) &&
    !/^[(\s]*(?:!|not\b)/.test(condition)
  );
}
