import type { HostLanguage } from "../model.js";
import { csharp } from "./csharp/csharp.js";
import { go } from "./go/go.js";
import type { Habits } from "./habits.js";
import { java } from "./java/java.js";
import type { CodeLanguage, Language } from "./language.js";
import { markupHabits } from "./markup/habits.js";
import { php } from "./php/php.js";
import { python } from "./python/python.js";
import { ruby } from "./ruby/ruby.js";
import { scriptHabits } from "./script/habits.js";

/** Every language that is read by a grammar. */
export const languages: Readonly<Record<CodeLanguage, Language>> = { ruby, php, java, python, go, csharp };

/** The language of a file, by its ending. */
export function languageOf(file: string): CodeLanguage | undefined {
  return Object.values(languages).find(({ extensions }) => extensions.some((end) => file.endsWith(end)))
    ?.name;
}

/** The language of a name that may mean another kind of file. */
export function languageNamed(name: string | undefined): Language | undefined {
  return name !== undefined && Object.hasOwn(languages, name) ? languages[name as CodeLanguage] : undefined;
}

/** The habits of every host language. */
export const habitsOf: Readonly<Record<HostLanguage, Habits>> = {
  script: scriptHabits,
  markup: markupHabits,
  ruby: ruby.habits,
  php: php.habits,
  java: java.habits,
  python: python.habits,
  go: go.habits,
  csharp: csharp.habits,
};
