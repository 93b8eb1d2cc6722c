import type { HostLanguage } from "../../source/model.js";
import { csharpHabits } from "./csharp.js";
import { goHabits } from "./go.js";
import type { Habits } from "./habits.js";
import { javaHabits } from "./java.js";
import { markupHabits } from "./markup.js";
import { phpHabits } from "./php.js";
import { pythonHabits } from "./python.js";
import { rubyHabits } from "./ruby.js";
import { scriptHabits } from "./script.js";

/** The habits of every host language. */
export const habitsOf: Readonly<Record<HostLanguage, Habits>> = {
  script: scriptHabits,
  markup: markupHabits,
  ruby: rubyHabits,
  php: phpHabits,
  java: javaHabits,
  python: pythonHabits,
  go: goHabits,
  csharp: csharpHabits,
};

/** What a book adds to the habits of its languages. */
export interface OwnHabits {
  readonly textAttributes: readonly string[];
  readonly codeAttributes: readonly string[];
  readonly textCalls: readonly string[];
  readonly codeCalls: readonly string[];
}
