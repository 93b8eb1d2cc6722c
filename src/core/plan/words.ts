import { createRequire } from "node:module";
import type * as Diff from "diff";
import { lazily } from "../text/lazy.js";

const require = createRequire(import.meta.url);
const diff = lazily(() => require("diff") as typeof Diff);

/** A part of a text: as it was and is, or only one of the two. */
export interface TextChange {
  readonly text: string;
  readonly kind: "same" | "removed" | "added";
}

/** How one text became another, word by word. */
export function wordChanges(before: string, after: string): readonly TextChange[] {
  return diff()
    .diffWordsWithSpace(before, after)
    .map(({ value, added, removed }) => ({
      text: value,
      kind: added ? "added" : removed ? "removed" : "same",
    }));
}
