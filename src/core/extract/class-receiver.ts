import { languageNamed, languages } from "../source/languages/index.js";
import type { CodeLanguage, Language } from "../source/languages/language.js";
import { literally } from "../text/key-pattern.js";
import type { Host } from "./hosts.js";
import type { BookClasses, Receiver } from "./member-receiver.js";

/**
 * The class or function that a lookup is asked of, `Texts` of `Texts.get("{key}")`, and whether a file sees it: it stands in the
 * file's own package or namespace, the file brings it in (JLS 7.3 to 7.5; C# specification, Namespaces; PHP manual, "Using
 * namespaces"; Go specification, "Packages"), or another file of the same package uses it and brings nothing of the name in.
 * Undefined where nothing of the kind is called, and in languages without packages.
 */
export function classKnown(
  template: string,
  text: string,
  language: CodeLanguage,
  classes: BookClasses,
): Receiver | undefined {
  const { spaces } = languages[language];
  if (!spaces) return undefined;
  // What is called with the key itself, and not what fills its text around that.
  const [, owner, called] =
    /(?<![\w.$\\>:])(?:(\p{Lu}\w{0,80})\s?(?:\.|::)[\w.:]{0,80}(?:\((?:[^()"'`]{0,80},\s?)?["'`]|\[["'])?|([A-Za-z_]\w{0,80})\((?:[^()"'`]{0,80},\s?)?["'`])\{key\}/u.exec(
      template,
    ) ?? [];
  if (owner !== undefined)
    return { name: owner, isKnown: isSeen(owner, text, spaces, classes, classes.named(owner)) };
  if (called === undefined || spaces.functions === undefined) return undefined;
  const declared = classes.fitting(new RegExp(spaces.functions.replaceAll("NAME", literally(called)), "m"));
  // A function without a namespace is seen everywhere.
  if (declared.length === 0 || declared.some((file) => spaceIn(file, spaces) === "")) return undefined;
  return { name: called, isKnown: isSeen(called, text, spaces, classes, declared) };
}

type Spaces = NonNullable<Language["spaces"]>;

/** Whether a file sees what some files declare, by its name. */
function isSeen(
  name: string,
  text: string,
  spaces: Spaces,
  classes: BookClasses,
  declared: readonly string[],
): boolean {
  const own = spaceIn(text, spaces);
  const of = declared.map((file) => spaceIn(file, spaces));
  if (of.some((space) => space === own || (spaces.areNested === true && own.startsWith(`${space}.`))))
    return true;
  if (bringsIn(text, name, spaces, of)) return true;
  const used = new RegExp(`(?<![\\w.$>:\\\\])${literally(name)}\\s?(?:\\.|::|\\()`);
  if (declared.length === 0 && used.test(text)) return true;
  const neighbors = classes
    .fitting(used)
    .filter((file) => spaceIn(file, spaces) === own && !declared.includes(file));
  return neighbors.some((file) => !bringsIn(file, name, spaces, of));
}

/** A host without the line that brings its lookup in, where a file sees that anyway. */
export function withoutNeedlessLine(host: Host, text: string, classes: BookClasses | undefined): Host {
  const language = languageNamed(host.language)?.name;
  if (host.importLine === undefined || !classes || language === undefined) return host;
  const isKnown = classKnown(host.call ?? host.content ?? "", text, language, classes)?.isKnown;
  return isKnown === true ? { ...host, importLine: undefined } : host;
}

function spaceIn(text: string, { declared }: Spaces): string {
  return declared.exec(text)?.[1] ?? "";
}

/** Whether a file brings a class in, by its name or with all of its package. */
function bringsIn(text: string, name: string, { brought }: Spaces, of: readonly string[]): boolean {
  return [...text.matchAll(brought)].some(
    ([, space = "", one]) => one === name || ((one === undefined || one === "*") && of.includes(space)),
  );
}
