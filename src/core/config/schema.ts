import * as v from "valibot";
import { formatNames, letterCases } from "./names.js";
import { countedForms } from "../locale/plural-rules.js";
import { messageSyntaxNames, pluralFormNames } from "../message/names.js";

const nonEmpty = (what: string) =>
  v.pipe(v.string(`${what}, as text in quotes`), v.nonEmpty(`${what}, not an empty text`));
const wholeNumber = (what: string) =>
  v.pipe(v.number(what), v.integer("a whole number"), v.minValue(1, "a number from 1"));
const globs = v.array(nonEmpty("a glob pattern"), "a list of glob patterns");

const argumentPlace = v.pipe(
  v.number("the place of an argument, from 0"),
  v.integer("a whole number"),
  v.minValue(0, "a number from 0"),
);

/** A part of a call: an argument by its place, or a property of the first argument by its name. */
const partPlace = v.union(
  [argumentPlace, nonEmpty("the name of a property")],
  "the place of an argument, or the name of a property of the first one",
);

/** The place of default text: an argument by its place, or a property of the object behind the key by its name. */
const textPlace = v.union(
  [argumentPlace, nonEmpty("the name of a property")],
  "the place of an argument, or the name of a property of the object behind the key",
);

const lookupSchema = v.union(
  [
    v.strictObject({
      // `Texts::get` and `$texts->get` are `Texts.get` and `texts.get` in every language.
      call: v.pipe(
        nonEmpty("the name of a function, or object.method"),
        v.transform((call) => call.replace(/^\$/, "").replace(/::|\??->/g, ".")),
      ),
      key: v.optional(argumentPlace),
      default: v.optional(textPlace),
      note: v.optional(argumentPlace),
    }),
    v.strictObject({
      component: nonEmpty("the name of a component"),
      key: nonEmpty("the prop that holds the key"),
      default: v.optional(nonEmpty("the prop that holds default text")),
      note: v.optional(nonEmpty("the prop that describes the text for translators")),
    }),
    v.strictObject({
      maker: nonEmpty("the function that makes a lookup"),
      gives: v.optional(nonEmpty("the member of its result that is the lookup")),
      namespace: v.optional(argumentPlace),
      prefix: v.optional(argumentPlace),
    }),
    v.strictObject({
      descriptor: nonEmpty("the function that declares a text"),
      key: nonEmpty("the property that holds the key"),
      default: v.optional(nonEmpty("the property that holds default text")),
      note: v.optional(nonEmpty("the property that describes the text for translators")),
    }),
    v.strictObject({
      descriptor: nonEmpty("the function that declares texts"),
      prefix: v.optional(partPlace),
      texts: partPlace,
    }),
    v.strictObject({
      member: nonEmpty("the object, or the function that gives it, whose members are texts"),
    }),
    v.strictObject({ attribute: nonEmpty("the attribute whose value is a key") }),
    v.strictObject({
      mark: v.pipe(
        nonEmpty("a pattern around KEY"),
        v.regex(/^\S.{0,40}KEY.{0,40}\S$/, "a pattern with marks before and behind KEY"),
      ),
    }),
    v.strictObject({ filter: nonEmpty("the filter that a key goes through") }),
    v.strictObject({
      tag: nonEmpty("the tag that asks for a key"),
      key: nonEmpty("its attribute that holds the key"),
    }),
    v.strictObject({
      binding: v.pipe(nonEmpty("a pattern around KEY"), v.includes("KEY", "a pattern with KEY in it")),
    }),
  ],
  'a lookup such as { "call": "t" }, { "component": "Message", "key": "id" } or { "filter": "text" }',
);

const habitsSchema = v.strictObject({
  textAttributes: v.optional(v.array(nonEmpty("the name of an attribute")), []),
  codeAttributes: v.optional(v.array(nonEmpty("the name of an attribute")), []),
  textCalls: v.optional(v.array(nonEmpty("the name of a function, or object.method")), []),
  codeCalls: v.optional(v.array(nonEmpty("the name of a function, or object.method")), []),
});

const emitTemplates = {
  call: v.optional(nonEmpty("an expression with {key} and {args}")),
  rich: v.optional(nonEmpty("an expression with {key} and {args}")),
  plural: v.optional(
    v.union(
      [nonEmpty("an expression with {key}, {count} and {args}"), v.literal(false)],
      "an expression with {key}, {count} and {args}, or false where none can be written",
    ),
  ),
  content: v.optional(nonEmpty("what stands between tags, with {key} and {args}")),
  attribute: v.optional(nonEmpty("an attribute's value, with {key} and {args}")),
  annotation: v.optional(
    v.pipe(
      nonEmpty("what an annotation's string says, with {key}"),
      v.includes("{key}", "a text with {key} in it"),
    ),
  ),
  withValues: v.optional(
    v.strictObject({
      call: v.optional(nonEmpty("an expression with {key} and {values}")),
      content: v.optional(nonEmpty("what stands between tags, with {key} and {values}")),
      attribute: v.optional(nonEmpty("an attribute's value, with {key} and {values}")),
    }),
  ),
};

const importLine = v.pipe(
  nonEmpty("an import line"),
  v.regex(
    /^\s*(?:import\b|(?:const|var|let)\s[^=]{1,300}=\s{0,9}require\()/,
    'an import line such as import { t } from "./texts"; or const { t } = require("./texts");',
  ),
);

const emitSchema = v.strictObject({
  ...emitTemplates,
  endings: v.optional(
    v.record(
      v.pipe(v.string(), v.regex(/^\.\w+$/, "an ending such as .rb")),
      v.strictObject({
        ...emitTemplates,
        import: v.optional(nonEmpty("the line that brings the lookup in")),
        atLoad: v.optional(
          v.union(
            [
              v.boolean("true or false"),
              v.strictObject({
                call: nonEmpty("an expression with {key} and {args}"),
                import: v.optional(nonEmpty("the line that brings that lookup in")),
              }),
            ],
            "true, false, or the lookup for what is evaluated while a file is loaded",
          ),
        ),
      }),
      "a map from endings of files to templates",
    ),
  ),
  names: v.optional(
    v.pipe(
      nonEmpty("how code writes the name of a value, with {name}"),
      v.includes("{name}", "a text with {name} in it"),
    ),
  ),
  setup: v.optional(
    v.pipe(
      nonEmpty("a statement such as const { t } = useTexts();"),
      v.regex(/^\s*(?:const|let|var)\b/, "a statement such as const { t } = useTexts();"),
    ),
  ),
  import: v.optional(v.union([importLine, v.array(importLine)], "an import line, or a list of them")),
  atLoad: v.optional(v.boolean("true or false")),
});

const namingSchema = v.strictObject({
  shape: v.optional(v.picklist(["nested", "flat"], "nested or flat")),
  case: v.optional(v.picklist(letterCases, letterCases.join(", "))),
  pattern: v.optional(nonEmpty("a pattern such as {folder}.{file}.{slug}")),
  separator: v.optional(nonEmpty("the text between the parts of a key")),
  namespace: v.optional(nonEmpty("the text between namespace and key")),
  home: v.optional(
    nonEmpty("the namespace of keys that code writes without one, or the {name} of the catalog for new keys"),
  ),
});

const columnNames = v.union(
  [
    nonEmpty("the name of a column"),
    v.pipe(v.array(nonEmpty("the name of a column")), v.minLength(1, "a column")),
  ],
  "the name of a column, or a list of names",
);

const ruleLevel = v.picklist(["off", "info", "warning", "error"], "off, info, warning or error");

/** The ways of mixing code into markup, by name. */
export const dialectNames = [
  "erb",
  "ejs",
  "jsp",
  "directives",
  "php",
  "svelte",
  "vue",
  "braces",
  "curly",
  "commented",
  "capitals",
  "go",
  "filled",
  "faces",
  "mako",
  "html",
] as const;

export type DialectName = (typeof dialectNames)[number];

/** What a comment above an entry says; words of its own make it known again. */
const hintPattern = v.pipe(
  v.string("a comment's text"),
  v.check(
    (pattern) =>
      /[^\s{}]{2}/.test(pattern.replace(/\{(?:text|key|entry)\}/g, " ")) || /\{(?:key|entry)\}/.test(pattern),
    "a comment's text with words of its own, {key} or {entry}",
  ),
);

const bookSchema = v.strictObject({
  name: v.pipe(nonEmpty("a name"), v.regex(/^[\w-]+$/, "a name of letters, digits, - and _")),
  code: v.optional(globs, []),
  ignore: v.optional(globs, []),
  files: nonEmpty("a path with {locale}"),
  format: v.optional(v.picklist(formatNames, formatNames.join(", "))),
  /** What stands around all entries of a file: the locale, a name, or a name below the locale. */
  root: v.optional(
    v.pipe(
      nonEmpty("{locale}, or a name such as texts"),
      v.regex(
        /^(?:\{locale\}|[^\s{}.]+)(?:\.[^\s{}.]+)*$/,
        "{locale}, a name such as texts, or {locale}.texts",
      ),
    ),
  ),
  leaf: v.optional(
    v.pipe(
      nonEmpty("{locale}, or the name of the member that holds an entry's text"),
      v.regex(/^(?:\{locale\}|[^{}.]+)$/, "{locale}, or the name of the member that holds an entry's text"),
    ),
  ),
  table: v.optional(
    v.strictObject({
      id: v.optional(columnNames),
      locale: v.optional(nonEmpty("the name of a column")),
      text: v.optional(columnNames),
    }),
  ),
  only: v.optional(
    v.record(
      v.string(),
      v.array(nonEmpty("a locale's tag"), "a list of locale tags"),
      "a map from a pattern for keys to locales",
    ),
  ),
  spelling: v.optional(
    v.union(
      [v.picklist(["hyphen", "underscore"]), v.record(v.string(), v.string())],
      'hyphen, underscore, or a map such as { "de": "de_DE" }',
    ),
    "hyphen",
  ),
  syntax: v.optional(
    v.union(
      [
        v.picklist(messageSyntaxNames, messageSyntaxNames.join(", ")),
        v.strictObject({
          argument: v.pipe(
            nonEmpty("a pattern around {name} or the first number"),
            v.regex(
              /^(?:[^<{}\s]|\{(?!(?:name|[01])\})).*?\{(?:name|[01])\}/,
              "a pattern that starts with a mark before {name}, or before {1} or {0} where placeholders are numbered",
            ),
          ),
        }),
      ],
      `${messageSyntaxNames.join(", ")}, or a pattern such as { "argument": "__{name}__" } or { "argument": "%{1}" }`,
    ),
    "icu",
  ),
  plurals: v.optional(v.picklist(pluralFormNames, pluralFormNames.join(", ")), "inline"),
  /** Whether the program formats every text, or only those with arguments: apostrophes quote in texts that are formatted. */
  formatted: v.optional(v.picklist(["always", "arguments"], "always, arguments")),
  forms: v.optional(
    v.strictObject({
      separator: v.optional(nonEmpty("the text before a form's name")),
      second: v.optional(nonEmpty("the name of the second of two forms")),
      /** The forms that the program knows, where it chooses them by the number itself and not by the rules of each language. */
      known: v.optional(
        v.pipe(
          v.array(v.picklist(countedForms, countedForms.join(", "))),
          v.minLength(1, "at least one form"),
        ),
      ),
      /** By locale, what stands behind a key for each category: `{ "ru": { "few": "plural_2", "many": "plural_5" } }`. */
      names: v.optional(
        v.record(
          nonEmpty("a locale"),
          v.partial(
            v.strictObject({
              zero: v.string(),
              one: v.string(),
              two: v.string(),
              few: v.string(),
              many: v.string(),
              other: v.string(),
            }),
          ),
        ),
      ),
    }),
  ),
  tags: v.optional(
    v.union([v.boolean(), v.array(nonEmpty("a pattern of keys"))], "true, false, or a list of key patterns"),
    true,
  ),
  lookups: v.optional(v.array(lookupSchema, "a list of lookups"), []),
  dialects: v.optional(
    v.record(nonEmpty("a glob"), v.picklist(dialectNames, dialectNames.join(", ")), "globs with dialects"),
    {},
  ),
  assumed: v.optional(v.array(nonEmpty("a pattern for keys"), "a list of patterns for keys"), []),
  /** Other books in which a lookup's key is looked for where this one does not have it. */
  fallback: v.optional(v.array(nonEmpty("the name of a book"), "a list of names of books")),
  relative: v.optional(
    v.strictObject({
      root: v.optional(v.string("a folder"), ""),
      pattern: v.optional(nonEmpty("a pattern such as {folders}.{file}"), "{folders}.{file}"),
    }),
  ),
  marked: v.optional(
    v.array(
      v.union(
        [
          nonEmpty("the name of an attribute"),
          v.strictObject({
            class: nonEmpty("the name of a class"),
            attributes: v.optional(v.array(nonEmpty("the name of an attribute"), "a list of attributes")),
          }),
          v.strictObject({
            attribute: nonEmpty("the name of an attribute"),
            meaning: v.optional(nonEmpty("the name of an attribute")),
            note: v.optional(nonEmpty("the name of an attribute")),
            key: v.optional(nonEmpty("the name of an attribute")),
            pattern: v.optional(
              v.pipe(
                nonEmpty("a pattern with {key}"),
                v.regex(
                  /^(?=.*\{key\})(?!.*\}\{)(?:[^{}]|\{(?:meaning|note|key)\})*$/,
                  "a pattern such as {meaning}|{note}@{key}, with something between its parts",
                ),
              ),
            ),
          }),
        ],
        "the name of an attribute, an object with attribute, meaning, note, key and pattern, or one with class and attributes",
      ),
      "a list of attributes",
    ),
    [],
  ),
  habits: v.optional(habitsSchema),
  emit: v.optional(emitSchema, {}),
  naming: v.optional(namingSchema, {}),
  limits: v.optional(
    v.record(
      v.string(),
      v.union(
        [
          v.pipe(v.number(), v.minValue(1)),
          v.strictObject({
            characters: v.optional(v.pipe(v.number("a number"), v.minValue(1, "a number from 1"))),
            columns: v.optional(v.pipe(v.number("a number"), v.minValue(1, "a number from 1"))),
          }),
        ],
        'a number of characters, or { "columns": 20 }',
      ),
      "a map from key patterns to lengths",
    ),
  ),
  paths: v.optional(v.array(nonEmpty("a pattern of keys"), "a list of key patterns")),
  rules: v.optional(v.record(v.string(), ruleLevel, "a map from rule to level"), {}),
  constant: v.optional(
    v.pipe(
      nonEmpty("the name of a constant"),
      v.regex(/^[\p{L}_$][\p{L}\p{N}_$]*$/u, "the name of a constant"),
    ),
  ),
  declared: v.optional(nonEmpty("the path of a file of types")),
  declare: v.optional(
    v.union(
      [
        nonEmpty("the path of a .d.ts file"),
        v.strictObject({
          file: nonEmpty("the path of a .d.ts file"),
          module: v.optional(nonEmpty("the path of the module whose interface Texts is filled in")),
        }),
      ],
      "the path of a .d.ts file, or { file, module }",
    ),
  ),
  order: v.optional(v.picklist(["source", "alphabet"], "source or alphabet")),
  hints: v.optional(
    v.union(
      [
        v.boolean(),
        v.strictObject({
          source: v.optional(hintPattern),
          open: v.optional(hintPattern),
        }),
      ],
      'true, false, or the project\'s own comments: { "source": "…", "open": "…" }',
    ),
    true,
  ),
  fill: v.optional(v.picklist(["source", "empty", "absent"], "source, empty or absent"), "source"),
});

/** The shape of the configuration file. The text of each check says what is expected there. */
const share = (what: string) =>
  v.pipe(v.number(what), v.minValue(0, "a share from 0 to 1"), v.maxValue(1, "a share from 0 to 1"));

/** What a locale must have before a release. */
const auditShares = {
  translated: v.optional(share("how much must be translated, from 0 to 1")),
  reviewed: v.optional(share("how much must be reviewed, from 0 to 1")),
  stale: v.optional(
    v.pipe(v.number("how many may be stale"), v.integer("a whole number"), v.minValue(0, "a number from 0")),
  ),
};

export const configSchema = v.strictObject({
  /** The JSON Schema that an editor checks the file with. */
  $schema: v.optional(v.string("the path or address of a JSON Schema")),
  source: nonEmpty("the source locale's tag"),
  targets: v.array(nonEmpty("a locale's tag"), "a list of locale tags"),
  pseudo: v.optional(v.array(nonEmpty("a locale's tag"), "a list of locale tags")),
  ledger: v.optional(nonEmpty("a folder"), "fond-ledger"),
  waivers: v.optional(nonEmpty("a file"), "fond.waivers.json"),
  books: v.pipe(v.array(bookSchema, "a list of books"), v.minLength(1, "at least one book")),
  rules: v.optional(v.record(v.string(), ruleLevel, "a map from rule to level"), {}),
  levels: v.optional(
    v.array(
      v.strictObject({
        rules: v.array(nonEmpty("a rule, or a family such as text/*"), "a list of rules"),
        books: v.optional(v.array(v.string(), "a list of books")),
        locales: v.optional(v.array(v.string(), "a list of locale tags")),
        keys: v.optional(v.array(nonEmpty("a pattern of keys"), "a list of key patterns")),
        level: ruleLevel,
      }),
      "a list of levels",
    ),
    [],
  ),
  glossary: v.optional(nonEmpty("a file of terms")),
  audit: v.optional(
    v.strictObject({
      ...auditShares,
      failing: v.optional(v.picklist(["error", "warning"], '"error" or "warning"')),
      text: v.optional(v.picklist(["none", "baseline", "any"], '"none", "baseline" or "any"')),
      beta: v.optional(v.array(nonEmpty("a locale's tag"), "a list of locale tags")),
      locales: v.optional(v.record(v.string(), v.strictObject(auditShares), "a map from locales to shares")),
    }),
  ),
  services: v.optional(
    v.record(
      v.pipe(v.string(), v.regex(/^[a-z][\w-]*$/, "a name in lower case")),
      v.strictObject({
        url: v.pipe(v.string(), v.url("an address such as https://translate.example/v1")),
        keyFrom: v.optional(
          v.pipe(v.string(), v.regex(/^[A-Z_][A-Z0-9_]*$/, "the name of an environment variable")),
        ),
        perRequest: v.optional(wholeNumber("how many texts a request has"), 50),
        perMinute: v.optional(wholeNumber("how many requests go out in a minute"), 60),
        timeout: v.optional(wholeNumber("how many seconds an answer may take"), 30),
        mostCharacters: v.optional(wholeNumber("how many characters a run may send"), 100_000),
      }),
      "a map from names to services",
    ),
  ),
});

export type Config = v.InferOutput<typeof configSchema>;
export type BookConfig = Config["books"][number];
export type LookupConfig = BookConfig["lookups"][number];
export type RuleLevel = v.InferOutput<typeof ruleLevel>;
