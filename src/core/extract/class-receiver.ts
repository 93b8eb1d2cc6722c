import { languageNamed, languages } from "../source/languages/index.js";
import type { CodeLanguage, Language } from "../source/languages/language.js";
import { literally } from "../text/key-pattern.js";
import type { Host } from "./hosts.js";
import type { BookClasses, Receiver } from "./member-receiver.js";

/**
 * The class or function that a lookup is asked of, `Texts` of `Texts.get("{key}")`, and whether a file sees it: it stands in the
 * file's own package or namespace, the file brings it in (JLS 7.3 to 7.5; C# specification, Namespaces; PHP manual, "Using
 * namespaces"; Go specification, "Packages"), or another file of the same package uses it and brings nothing of the name in. Undefined where nothing of the kind
 * is called, and in languages without packages.
 */
export function classKnown(
  template: string,
  text: string,
  language: CodeLanguage,
  { named, some }: BookClasses,
): Receiver | undefined {
  const { spaces } = languages[language];
  if (!spaces) return undefined;
  // What is called with the key itself, and not what fills its text around that.
  const [, name, isFunction] =
    /(?<![\w.$\\>:])(?:(\p{Lu}\w{0,80})\s?(?:\.|::)[\w.:]{0,80}(?:\((?:[^()"'`]{0,80},\s?)?["'`]|\[["'])?|([A-Za-z_]\w{0,80})\((?:[^()"'`]{0,80},\s?)?["'`])\{key\}/u.exec(
      template,
    ) ?? [];
  if (name !== undefined)
    return { name, isKnown: isSeen({ name, text, spaces, some, declared: named(name) }) };
  if (isFunction === undefined || spaces.functions === undefined) return undefined;
  const made = new RegExp(spaces.functions.replaceAll("NAME", literally(isFunction)), "m");
  // A function without a namespace is seen everywhere.
  const outside = (file: string) => made.test(file) && spaceIn(file, spaces) === "";
  if (!some((file) => made.test(file)) || some(outside)) return undefined;
  const declared: string[] = [];
  some((file) => {
    if (made.test(file)) declared.push(file);
    return false;
  });
  return { name: isFunction, isKnown: isSeen({ name: isFunction, text, spaces, some, declared }) };
}

interface Wanted {
  readonly name: string;
  readonly text: string;
  readonly spaces: NonNullable<Language["spaces"]>;
  readonly some: BookClasses["some"];
  /** The files that declare it. */
  readonly declared: readonly string[];
}

function isSeen({ name, text, spaces, some, declared }: Wanted): boolean {
  const own = spaceIn(text, spaces);
  const of = declared.map((file) => spaceIn(file, spaces));
  if (of.some((space) => space === own || (spaces.areNested === true && own.startsWith(`${space}.`))))
    return true;
  if (bringsIn(text, name, spaces, of)) return true;
  const used = new RegExp(`(?<![\\w.$>:\\\\])${literally(name)}\\s?(?:\\.|::|\\()`);
  if (declared.length === 0 && used.test(text)) return true;
  return some(
    (file) =>
      spaceIn(file, spaces) === own &&
      !declared.includes(file) &&
      used.test(file) &&
      !bringsIn(file, name, spaces, of),
  );
}

/** A host without the line that brings its lookup in, where a file sees that anyway. */
export function withoutNeedlessLine(host: Host, text: string, classes: BookClasses | undefined): Host {
  const language = languageNamed(host.language)?.name;
  if (host.importLine === undefined || !classes || language === undefined) return host;
  const isKnown = classKnown(host.call ?? host.content ?? "", text, language, classes)?.isKnown;
  return isKnown === true ? { ...host, importLine: undefined } : host;
}

function spaceIn(text: string, { declared }: NonNullable<Language["spaces"]>): string {
  return declared.exec(text)?.[1] ?? "";
}

/** Whether a file brings a class in, by its name or with all of its package. */
function bringsIn(
  text: string,
  name: string,
  { brought }: NonNullable<Language["spaces"]>,
  of: readonly string[] | undefined,
): boolean {
  return [...text.matchAll(brought)].some(
    ([, space = "", one]) =>
      one === name || ((one === undefined || one === "*") && (of?.includes(space) ?? false)),
  );
}
