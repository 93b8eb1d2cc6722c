import { posix } from "node:path";
import { notices } from "../message/notices.js";
import type { Obstacle, SourceFile } from "../source/model.js";
import { closeOf } from "../text/brackets.js";
import { literally } from "../text/key-pattern.js";
import type { ScriptsNaming } from "./script-parts.js";

const say = notices("extract", {
  "filter-not-listed": {
    message: 'the component of this template does not list what gives its templates the filter "{name}"',
    remedy: 'add it to "imports" of the component in {file}, then extract again',
  },
});

/** What the components of a script say of themselves: `@Component({ … })`. */
function componentsIn(text: string): readonly string[] {
  return [...text.matchAll(/@Component\(/g)].map(({ index, 0: opening }) => {
    const start = index + opening.length;
    return text.slice(start, closeOf(text, start));
  });
}

/**
 * Why a template cannot use a filter: its component, in a script that names the template's file, stands alone and lists all that
 * its template may use, and not what gives the filter. Undefined where it can, or nothing says that it cannot.
 */
export function ownerRefusal(
  { file, dialect }: SourceFile,
  template: string | undefined,
  naming: ScriptsNaming | undefined,
): Obstacle | undefined {
  if (dialect?.filtersInBrackets !== true || template === undefined || !naming) return undefined;
  const name = /["']\{key\}["']\s{0,9}\|\s{0,9}(\w{1,60})/.exec(template)?.[1];
  if (name === undefined) return undefined;
  for (const { file: script, text } of naming(posix.basename(file), file))
    for (const settings of componentsIn(text)) {
      const url = /\btemplateUrl\s{0,9}:\s{0,9}["'`]([^"'`]{1,200})/.exec(settings)?.[1];
      if (url === undefined || posix.join(posix.dirname(script), url) !== file) continue;
      if (standsAlone(settings, script, naming) && !givesFilter(settings, name, script, naming))
        return say("filter-not-listed", { name, file: script });
    }
  return undefined;
}

/** Whether a component lists what its template uses: it says so, or others do and there are no modules to declare it. */
function standsAlone(settings: string, file: string, naming: ScriptsNaming): boolean {
  if (/\bstandalone\s{0,9}:\s{0,9}false\b/.test(settings)) return false;
  if (/\bstandalone\s{0,9}:\s{0,9}true\b|\bimports\s{0,9}:/.test(settings)) return true;
  return (
    naming("NgModule", file).length === 0 &&
    naming("Component", file).some(({ text }) =>
      componentsIn(text).some((other) => /\bimports\s{0,9}:/.test(other)),
    )
  );
}

/** Whether something that a component lists is what gives a filter, or has that in itself. */
function givesFilter(settings: string, name: string, file: string, naming: ScriptsNaming): boolean {
  const listed = /\bimports\s{0,9}:\s{0,9}\[([^\]]{0,2000})\]/.exec(settings)?.[1] ?? "";
  const declared = new RegExp(
    `@Pipe\\(\\s{0,99}\\{[^}]{0,300}\\bname\\s{0,9}:\\s{0,9}["'\`]${literally(name)}["'\`][^}]{0,300}\\}\\s{0,99}\\)\\s{0,99}export\\s{1,9}(?:default\\s{1,9})?class\\s{1,9}(\\w{1,80})`,
  );
  const own = naming(name, file).flatMap(({ text }) => declared.exec(text)?.[1] ?? []);
  // What comes with a package is called as its filter is.
  const isIt = (word: string) =>
    own.length > 0 ? own.includes(word) : word.toLowerCase().includes(name.toLowerCase());
  return (listed.match(/\w{1,80}/g) ?? []).some(
    (one) =>
      isIt(one) ||
      naming(one, file).some(
        ({ text }) =>
          new RegExp(`\\b(?:class|const)\\s{1,9}${literally(one)}(?!\\w)`).test(text) &&
          (text.match(/\w{1,80}/g) ?? []).some(isIt),
      ),
  );
}
