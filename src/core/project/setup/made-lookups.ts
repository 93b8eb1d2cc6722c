import { lookupByName } from "../../survey/calls.js";

/** So much of a function is looked at for what it does with its first argument, in code units. */
const longestBody = 1_500;

/** What functions that look texts up are called in part, or what holds the texts of a language. */
const ofLanguages =
  /gettext|translat|i18n|l10n|locali[sz]|locale|lang|message|catalog|dictionar|^_+$|^[dnp]{1,3}_{1,2}$/i;

/**
 * Which of these functions look up the text that they are given first, as the code that makes them shows: they hand it to a
 * lookup, take the member of an object of texts by it, or take in a file that is named for languages and give it back.
 */
export function madeLookups(names: ReadonlySet<string>, texts: Iterable<string>): ReadonlySet<string> {
  const found = new Set<string>();
  if (names.size === 0) return found;
  const plain = [...names].map((name) => name.replace(/[^\w]/g, "\\$&")).join("|");
  const made = new RegExp(
    `(?<![\\w$.>:])(?:function\\s{1,9}&?|def\\s{1,9}(?:self\\.)?|(?:const|let|var)\\s{1,9}|(?:static|public|private|protected|string|String)\\s{1,9})(${plain})\\s{0,9}(?:=\\s{0,9}(?:function\\s{0,9}\\w{0,60})?)?\\(\\s{0,99}(?:self\\s{0,9},\\s{0,9})?(?:[\\w\\\\?]{1,60}\\s{1,9})?&?(\\$?\\w{1,60})`,
    "g",
  );
  for (const text of texts)
    for (const { 0: head, 1: name = "", 2: first = "", index } of text.matchAll(made)) {
      const start = index + head.length;
      const whole = text.slice(start, start + longestBody);
      const end = whole.search(
        /\n(?:end\b|def\s|(?:export\s)?(?:async\s)?function\s|class\s)|\n\s{2,8}def\s/,
      );
      if (looksUp(end < 0 ? whole : whole.slice(0, end), first)) found.add(name);
    }
  return found;
}

/** Whether a function looks up what it is given, by its body. */
function looksUp(body: string, first: string): boolean {
  const own = first.replace(/\$/g, "\\$");
  const given = new RegExp(
    `([\\w$]{1,60})\\(\\s{0,9}(?:[\\w$.'"]{1,60}\\s{0,9},\\s{0,9}){0,2}${own}(?!\\w)`,
    "g",
  );
  for (const [, callee = ""] of body.matchAll(given))
    if (lookupByName.test(callee) || ofLanguages.test(callee)) return true;
  const taken = new RegExp(`([\\w$]{1,60})(?:\\[\\w{1,40}\\])?\\[\\s{0,9}${own}\\s{0,9}\\]`, "g");
  for (const [, object = ""] of body.matchAll(taken)) if (ofLanguages.test(object)) return true;
  return (
    /\b(?:include|require|load)(?:_once)?\b[^\n]{0,200}[/"'](?:lang\w{0,12}|locales?|i18n|translations?)[/."']/.test(
      body,
    ) && new RegExp(`\\breturn\\s{1,9}\\(?${own}(?!\\w)`).test(body)
  );
}
