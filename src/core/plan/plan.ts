import type { TextEncoding } from "../files/files.js";
import type { Notice } from "../text/wording.js";
import { digestOf } from "../text/digest.js";

/** One file as a plan would leave it. `before` is undefined for a new file, `after` for one to remove. */
export interface FileChange {
  readonly file: string;
  /** The text as it was read, without its byte order mark. */
  readonly before: string | undefined;
  readonly after: string | undefined;
  /** Whether the file starts with a byte order mark, which stays. */
  readonly bom?: boolean;
  /** How the file is written, where it is not UTF-8. */
  readonly encoding?: TextEncoding;
  /** Whether it is a record that the project keeps for itself: people are shown how much changes in it, not what. */
  readonly isRecord?: boolean;
}

/** Everything that a command would change, and what it has to say about it. */
export interface Plan {
  readonly changes: readonly FileChange[];
  /** Counts for people, by what they count: `{ "keys added": 3 }`. */
  readonly summary: Readonly<Record<string, number>>;
  /** What the command left alone, and why. */
  readonly notes: readonly PlanNote[];
}

/** Something that a plan skips: where, why, and what a person can do. */
export interface PlanNote extends Notice {
  readonly file: string;
  readonly line?: number;
  readonly column?: number;
  /**
   * Set where part of the work could not be done because of this: a file that the system does not let us read, one whose
   * content is broken, or a text that stays in the code.
   */
  readonly undone?: "unreadable" | "broken" | "refused";
}

/** A plan of the changes that really change something, sorted by file. */
export function makePlan(
  changes: readonly FileChange[],
  summary: Readonly<Record<string, number>>,
  notes: readonly PlanNote[] = [],
): Plan {
  const real = changes.filter((change) => change.before !== change.after);
  real.sort((a, b) => (a.file < b.file ? -1 : a.file > b.file ? 1 : 0));
  return { changes: real, summary, notes };
}

/** What kind of change it is, in the words of the JSON output. */
export function changeKind(change: FileChange): "create" | "change" | "remove" {
  return change.before === undefined ? "create" : change.after === undefined ? "remove" : "change";
}

/** The digest of a text that a change starts from or leads to; `absent` stands for no file. */
export function contentDigest(text: string | undefined): string {
  return text === undefined ? "absent" : digestOf(text);
}
