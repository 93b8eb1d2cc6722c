import { posix } from "node:path";
import { writtenLocale } from "./written-locale.js";

/** The locale in the path of a module. Folders of code are called like languages by chance: `src`, `lib`. */
export function moduleLocale(file: string): LocalePlace | undefined {
  const place = localeIn(file);
  return place && !isByChance(place) ? place : undefined;
}

export function isByChance({ isWeak, written }: LocalePlace): boolean {
  return isWeak || /^[a-z]{3}$/.test(written);
}

/** So many locales beside it make a short name one as well. */
export const leastSure = 3;

/** Where the locale stands in the path of a file. */
export interface LocalePlace {
  /** The path with `{locale}`, and `{namespace}` for the name of a file in a folder of a locale. */
  readonly pattern: string;
  readonly locale: string;
  readonly written: string;
  readonly isWeak: boolean;
  readonly namespace: string | undefined;
}

/**
 * The locale in a path: a folder, the file's name, or the end of its name; the last that there is. Folders with names that are
 * languages by chance are none, but where `takesFolders` says that they are looked at as well.
 */
export function localeIn(file: string, takesFolders = false): LocalePlace | undefined {
  const ending = posix.extname(file);
  const parts = file.slice(0, -ending.length).split("/");
  const last = parts.length - 1;
  const placeAt = (at: number, written: string, part: string): LocalePlace | undefined => {
    const read = writtenLocale(written);
    const behind = last - at;
    if (!read || behind > 1) return undefined;
    const path = parts.map((one, index) => (index === at ? part : index > at ? "{namespace}" : one));
    const namespace = behind === 1 ? parts[last] : undefined;
    return { ...read, pattern: path.join("/") + ending, written, namespace };
  };
  for (let at = last; at >= Math.max(0, last - 1); at--) {
    const part = parts[at] ?? "";
    // A name of three letters is a language by chance where the folder is one: `messages/de/app.php`.
    const folder = at === last && /^[a-z]{3}$/.test(part) ? parts[last - 1] : undefined;
    const around = folder === undefined ? undefined : placeAt(last - 1, folder, "{locale}");
    if (around && !isByChance(around)) return around;
    const whole = placeAt(at, part, "{locale}");
    if (whole && (takesFolders || !(whole.isWeak && at < last))) return whole;
    if (at !== last) continue;
    const [, start, suffix] =
      /^(.+?[-_.])([a-z]{2,3}(?:[-_]?[A-Z][A-Za-z]{1,3}|[-_][A-Za-z0-9]{2,8}){0,3})$/.exec(part) ?? [];
    const ended = suffix === undefined ? undefined : placeAt(at, suffix, `${start}{locale}`);
    if (ended) return ended;
    if (whole) return whole;
  }
  return undefined;
}
