/** A script element that a page loads as it is (HTML, "The script element"): modules say that they are such. */
const loading =
  /<script\b([^<>]{0,400}?)\bsrc\s{0,9}=\s{0,9}["']([^"'<>\n]{1,300}?\.js)(?:\?[^"'<>\n]{0,200})?["']([^<>]{0,400})>/gi;

/**
 * The scripts that pages of a project load as they are, and not as modules: the ends of their paths, as far as pages write them.
 * What a bundler makes of a script has mostly another name.
 */
export function scriptsOfPages(pages: Iterable<{ readonly text: string }>): readonly string[] {
  const found = new Set<string>();
  for (const { text } of pages) {
    if (!text.includes("<script")) continue;
    for (const [, before = "", source = "", after = ""] of text.matchAll(loading)) {
      if (/\btype\s{0,9}=\s{0,9}["']?module\b/i.test(before + after)) continue;
      // Behind what a template puts in, and behind the way to it.
      const path = source.replace(/^.*[>}%]/, "").replace(/^(?:[a-z][\w+.-]{0,20}:)?\/\/[^/]{0,200}/, "");
      const end = path.replace(/^(?:\.{0,2}\/)+/, "");
      if (end !== "") found.add(end);
    }
  }
  return [...found].sort();
}

/** Whether a file is one of the scripts that pages load, by the end of its path: the name alone tells only `byName`, since bundles may have it too. */
export function isOfPages(file: string, loaded: readonly string[], byName: boolean): boolean {
  return loaded.some((end) => file === end || (file.endsWith(`/${end}`) && (byName || end.includes("/"))));
}
