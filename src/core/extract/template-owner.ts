import { posix } from "node:path";
import { notices } from "../message/notices.js";
import type { TemplateOwners } from "../source/dialects/dialect.js";
import type { Obstacle, SourceFile } from "../source/model.js";
import { literally } from "../text/key-pattern.js";
import type { ScriptsNaming } from "./script-parts.js";

const say = notices("extract", {
  "filter-not-listed": {
    message: 'the component of this template does not list what gives its templates the filter "{name}"',
    remedy: 'add it to "imports" of the component in {file}, then extract again',
  },
});

/**
 * Why a template cannot use a filter: its component, in a script that names the template's file, stands alone and lists all that
 * its template may use, and not what gives the filter. Undefined where it can, or nothing says that it cannot.
 */
export function ownerRefusal(
  { file, dialect }: SourceFile,
  template: string | undefined,
  naming: ScriptsNaming | undefined,
): Obstacle | undefined {
  const owners = dialect?.owners;
  const filter = /["']\{key\}["']\s{0,9}\|\s{0,9}(\w{1,60})/.exec(template ?? "")?.[1];
  if (!owners || filter === undefined || !naming) return undefined;
  for (const { file: script, text } of naming(posix.basename(file), file))
    for (const settings of owners.settingsIn(text)) {
      const url = owners.template.exec(settings)?.[1];
      if (url === undefined || posix.join(posix.dirname(script), url) !== file) continue;
      const asked = { owners, settings, file: script, naming };
      if (standsAlone(asked) && !givesFilter(filter, asked))
        return say("filter-not-listed", { name: filter, file: script });
    }
  return undefined;
}

/** What a component says of itself, and where. */
interface Owner {
  readonly owners: TemplateOwners;
  readonly settings: string;
  readonly file: string;
  readonly naming: ScriptsNaming;
}

/** Whether a component lists what its template uses: it says so, or others do and there are no groups to declare it. */
function standsAlone({ owners, settings, file, naming }: Owner): boolean {
  if (owners.inGroup.test(settings)) return false;
  if (owners.alone.test(settings)) return true;
  return (
    naming(owners.groupMark, file).length === 0 &&
    naming(owners.mark, file).some(({ text }) =>
      owners.settingsIn(text).some((other) => owners.alone.test(other)),
    )
  );
}

/** Whether something that a component lists is what gives a filter, or has that in itself. */
function givesFilter(filter: string, { owners, settings, file, naming }: Owner): boolean {
  const wordsOf = (text: string) => text.match(/\w{1,80}/g) ?? [];
  const declared = owners.classOf(filter);
  const own = naming(filter, file).flatMap(({ text }) => declared.exec(text)?.[1] ?? []);
  // What comes with a package is called as its filter is.
  const isIt = (word: string) =>
    own.length > 0 ? own.includes(word) : word.toLowerCase().includes(filter.toLowerCase());
  const holdsIt = (one: string) => {
    const made = new RegExp(`\\b(?:class|const)\\s{1,9}${literally(one)}(?!\\w)`);
    return naming(one, file).some(({ text }) => made.test(text) && wordsOf(text).some(isIt));
  };
  return wordsOf(owners.listed.exec(settings)?.[1] ?? "").some((one) => isIt(one) || holdsIt(one));
}
