import { between, passesButRaw, type Dialect, type Island } from "../dialect.js";

/** The names of attributes that fill something in: `th:text`, and as pages without namespaces have them, `data-th-text`. */
const prefix = /^(?:th:|data-th-)(?=[a-z])/;

/** Values in the text: `[[${boat.name}]]`, and unescaped `[(${boat.name})]`. */
const inlined = (text: string): Island[] => [
  ...between(text, /\[\[(?=\s{0,9}[$#@*~'|(\w])/, /\]\]/, () => "output"),
  ...between(text, /\[\((?=\s{0,9}[$#@*~'|])/, /\)\]/, () => "output"),
];

/**
 * Pages whose elements and attributes a program fills in by attributes beside them, and whose own texts only show what the page
 * looks like: `<p th:text="#{boat.title}">Sea Rose</p>`.
 */
export const filled: Dialect = {
  name: "filled",
  language: "expression",
  extensions: [],
  sign: /\s(?:th:|data-th-)(?:text|utext|each|if|unless|switch|case|href|src|value|field|object|action|replace|insert|include|fragment|attr|class\w*|title|placeholder|alt|remove|with|inline|lang|style\w*)\s?=/g,
  islands: inlined,
  bindsAttributes: false,
  fills: {
    isOwn: (name) => prefix.test(name),
    filledBy(name, value) {
      const own = name.replace(prefix, "");
      if (own === name) return undefined;
      if (/^u?text$/.test(own)) return "content";
      if (/^(?:replace|insert|include)$/.test(own)) return "content";
      if (own === "remove") return /^\s*(?:all|body)\s*$/.test(value) ? "content" : undefined;
      if (/^attr(?:append|prepend)?$/.test(own))
        return [...value.matchAll(/(?:^|,)\s{0,40}([\w-]{1,60})\s{0,9}=/g)].map(
          ([, written = ""]) => written,
        );
      return [own];
    },
    mark: "#{KEY}",
    content: 'th:text="#{{key}}"',
    attribute: 'th:{name}="#{{key}}"',
    withValues: 'th:text="#{{key}({values})}"',
  },
  passesIsland: passesButRaw("[("),
};
