/** A text for a line of output: whole where it is short, else its start with an ellipsis, `most` code units at most. */
export function shortened(text: string, most = 50): string {
  return text.length > most ? `${text.slice(0, most - 3)}…` : text;
}
