/** A message with more problems than this is not a message: the rest would help nobody. */
export const mostProblems = 100;
