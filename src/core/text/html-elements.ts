/** Elements without an end tag (HTML Living Standard, 13.1.2 "void elements"; `param` was one). */
export const voidElements: ReadonlySet<string> = new Set(
  "area base br col embed hr img input link meta param source track wbr".split(" "),
);

/** Those of them that are written inside messages: others, such as `<link>`, are names of rich text there. */
export const voidElementsInMessages: ReadonlySet<string> = new Set([
  "br",
  "hr",
  "img",
  "input",
  "meta",
  "wbr",
]);

/** Elements that are part of a sentence (HTML Living Standard, 3.2.5.2.5 "phrasing content", those with text; older ones too). */
export const inlineElements: ReadonlySet<string> = new Set(
  "a abbr b bdi bdo cite code data del dfn em font i ins kbd mark q s samp small span strike strong sub sup time tt u var".split(
    " ",
  ),
);

/** All elements of HTML that people write (HTML Living Standard, section 4, and older ones). */
export const htmlElements: ReadonlySet<string> = new Set(
  `a abbr acronym address article aside audio b base bdi bdo big blockquote body br button canvas caption center cite code
  col colgroup data datalist dd del details dfn dialog div dl dt em embed fieldset figcaption figure font footer form frame
  frameset h1 h2 h3 h4 h5 h6 head header hr html i iframe img input ins kbd label legend li link main map mark menu meta
  meter nav noscript object ol optgroup option output p param picture pre progress q s samp script section select small
  source span strike strong style sub summary sup svg table tbody td template textarea tfoot th thead time title tr track
  tt u ul var video wbr`.split(/\s+/),
);

/** Whether an element's classes say that its font has pictures for names: `class="quay-icons"` with `save` in it. */
export function showsPictures(classes: string | undefined): boolean {
  return classes !== undefined && /(?:^|[\s_-])(?:icons|symbols)(?:[\s_-]|$)/.test(classes.slice(0, 200));
}

/** Elements that break a line inside a sentence. */
export const lineBreaks: ReadonlySet<string> = new Set(["br", "wbr"]);

/** Elements that change how a text looks and nothing else: without them it says the same. */
export const elementsOfLook: ReadonlySet<string> = new Set(
  "b big br center div em font h1 h2 h3 h4 h5 h6 hr i kbd li mark ol p pre s small span strong sub sup tt u ul wbr".split(
    " ",
  ),
);

/**
 * Whether a text has an element of HTML in it, or part of one. What stands for values behind commas is none,
 * `get[host,<address>,<time>]`, and neither is what a text quotes as code, between backticks.
 */
export function holdsMarkup(quoting: string): boolean {
  if (!quoting.includes("<")) return false;
  const text = quoting.replace(/`[^`\n]{1,200}`/g, "");
  if (/^[^<>]{0,100}[,[(|=] ?<[^<>/]{1,40}>(?:[,|] ?<[^<>/]{1,40}>|[\w ,.[\]()|=]){0,40}$/.test(text))
    return false;
  if (isProgram.test(text)) return false;
  // One element around the whole, of a document that is no page: `<Message>No boat today</Message>`.
  if (/^\s{0,40}<([A-Z][\w-]{0,40})>[^<>]{0,2000}<\/\1>\s{0,9}$/.test(text)) return true;
  const found = [...text.matchAll(/(?<!\?P?|%)<(\/?)([a-zA-Z][a-zA-Z0-9]*)(?=([\s/>](?:[\w ]{1,40}>)?))/g)];
  const ofHtml = found.filter(([, , name = ""]) => htmlElements.has(name.toLowerCase()));
  // What a command is given is in such brackets as well: `copy <source> <target>`.
  if (
    ofHtml.length < found.length &&
    ofHtml.every(([, close, , next = ""]) => close === "" && next.endsWith(">"))
  )
    return ofHtml.some(([, , name = ""]) => noWords.test(name));
  return ofHtml.length > 0;
}

/** Elements whose names say nothing that a command could be given: `<source>` may be a file. */
const noWords = /^(?:br|hr|p|li|td|tr|b|i|h[1-6])$/i;

/** What only a program's own lines begin with. */
const isProgram =
  /^\s*(?:import\s[^;\n]{1,120}\sfrom\s['"]|(?:export\s)?(?:const|let|var)\s\w{1,60}\s?=|(?:export\s)?(?:class|interface)\s[A-Z]\w{0,60}\s?\{)/;

/** Elements that a program puts its own text in place of, by their names in any case. */
export const lookupElement = /^(?:translat(?:e|ed|ion)|trans|n?gettext|i18n|l10n|locali[sz]ed?)$/i;
