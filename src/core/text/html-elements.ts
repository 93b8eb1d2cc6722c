/** Elements without an end tag (HTML Living Standard, 13.1.2 "void elements"; `param` was one). */
export const voidElements: ReadonlySet<string> = new Set(
  "area base br col embed hr img input link meta param source track wbr".split(" "),
);

/** Those of them that are written inside messages: others, such as `<link>`, are names of rich text there. */
export const voidElementsInMessages: ReadonlySet<string> = new Set(["br", "hr", "img", "input", "wbr"]);

/** Elements that are part of a sentence (HTML Living Standard, 3.2.5.2.5 "phrasing content", those with text; older ones too). */
export const inlineElements: ReadonlySet<string> = new Set(
  "a abbr b bdi bdo cite code data del dfn em font i ins kbd mark q s samp small span strike strong sub sup time tt u var".split(
    " ",
  ),
);

/** Elements that break a line inside a sentence. */
export const lineBreaks: ReadonlySet<string> = new Set(["br", "wbr"]);
