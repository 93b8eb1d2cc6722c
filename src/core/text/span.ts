/** A range of a text in UTF-16 code units: `start` is the first unit in it, `end` the first after it. */
export interface Span {
  readonly start: number;
  readonly end: number;
}

/** A place in a file as people count: lines and columns from 1, columns in UTF-16 code units. */
export interface Position {
  readonly line: number;
  readonly column: number;
}

/** The same as a `Span`, as people count. */
export interface Range {
  readonly line: number;
  readonly column: number;
  readonly endLine: number;
  readonly endColumn: number;
}

/** Whether one range is inside of another, or the same. */
export function contains(outer: Span, inner: Span): boolean {
  return outer.start <= inner.start && inner.end <= outer.end;
}
