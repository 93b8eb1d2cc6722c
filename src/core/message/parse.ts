import { ownText } from "../text/own-text.js";
import { partEnds, type KeyNaming } from "../text/separators.js";
import type { MessageSyntax, PluralForms, SyntaxSetting } from "./names.js";
import { syntaxOf } from "./syntaxes/index.js";
import type { MessageSigns, Syntax } from "./syntaxes/syntax.js";
import { hasPluralRules, wholeNumberCategories, type CountedForm } from "../locale/plural-rules.js";
import { keyTest } from "../text/key-pattern.js";
import type { Message, MessageNode } from "./model.js";
import { bar, printBars, readBars } from "./bars.js";
import { formMark, printForms, readForms } from "./forms.js";
import { IcuMessage } from "./syntaxes/icu/icu-message.js";
import { PlainMessage, TreeMessage, type ReadMessage } from "./read-message.js";

/** A reader that parses equal texts once. */
export interface MessageReader {
  readonly syntax: Syntax;
  readonly plurals: PluralForms;
  readonly signs: MessageSigns;
  /**
   * Reads a text. The locale matters where forms stand side by side without names, the key where a book says by keys
   * which messages hold markup.
   */
  read(text: string, locale?: string, key?: string): ReadMessage;
  /** The same for a text that hardly comes again: nothing of it is kept. */
  readOnce(text: string, locale?: string, key?: string): ReadMessage;
  print(nodes: readonly MessageNode[]): string;
}

/** What of a book decides how its messages are read. */
export interface MessageSettings {
  readonly syntax: SyntaxSetting;
  /** Where plurals are: in the message, forms side by side, or forms under keys of their own. */
  readonly plurals?: PluralForms;
  /** How forms are told apart: for forms side by side, what stands between them, a bar where not given; and those that the program knows. */
  readonly forms?:
    | { readonly separator?: string | undefined; readonly known?: readonly CountedForm[] | undefined }
    | undefined;
  /** Whether `<b>…</b>` is rich text, or the patterns of the keys whose messages hold it; true where not given. */
  readonly tags?: boolean | readonly string[];
  /** What is between the parts of a key, for those patterns. */
  readonly naming?: KeyNaming;
}

/** A reader for one book's messages; what it has read it keeps, so it should live no longer than one run. */
export function messageReader(settings: MessageSettings | MessageSyntax): MessageReader {
  const {
    syntax,
    plurals = "inline",
    forms,
    tags = true,
    naming = {},
  }: MessageSettings = typeof settings === "string" ? { syntax: settings } : settings;
  if (typeof tags !== "boolean") return readerByKey({ syntax, plurals, forms }, tags, partEnds({ naming }));
  const known = new RecentTexts<ReadMessage>();
  const own = syntaxOf(syntax);
  const inline: Implementation = {
    parse: (text) => own.parse(text, tags),
    print: (nodes) => own.print(nodes, tags),
  };
  const between = (plurals === "bar" && forms?.separator) || bar;
  const mark = plurals === "bar" ? between.trim().charAt(0) : signsBetweenForms[plurals];
  const signs: MessageSigns = { ...own.signs, single: own.signs.single + mark };
  const hasSigns = signTest(signs);
  const { parse, print } =
    plurals === "inline"
      ? inline
      : plurals === "bar"
        ? withBars(inline, between, forms?.known)
        : withForms(inline, forms?.known);
  return {
    syntax: own,
    plurals,
    signs,
    read(text, locale) {
      if (!hasSigns.test(text)) return new PlainMessage(text);
      // Only three forms side by side and more are another message in another language.
      const isBound = plurals === "bar" && locale !== undefined && text.split(between, 3).length > 2;
      const there = known.get(isBound ? `${locale}\u0000${text}` : text);
      if (there) return there;
      // What is kept must not hold the file that the text was cut out of.
      const cut = ownText(text);
      const message = withFacts(parse(cut, locale));
      known.set(isBound ? `${locale}\u0000${cut}` : cut, message);
      return message;
    },
    readOnce: (text, locale) =>
      hasSigns.test(text) ? withFacts(parse(text, locale)) : new PlainMessage(text),
    print,
  };
}

function withFacts(message: Message): ReadMessage {
  return message instanceof IcuMessage ? message : new TreeMessage(message);
}

/** A reader for a book in which some keys hold markup and the others plain text. */
function readerByKey(
  settings: Pick<MessageSettings, "syntax" | "forms"> & { readonly plurals: PluralForms },
  patterns: readonly string[],
  ends: readonly string[],
): MessageReader {
  const { plurals } = settings;
  const rich = messageReader({ ...settings, tags: true });
  const plain = messageReader({ ...settings, tags: false });
  const tests = patterns.map((pattern) => keyTest(pattern, ends));
  const readerOf = (key: string | undefined) =>
    key !== undefined && tests.some((test) => test(key)) ? rich : plain;
  return {
    syntax: rich.syntax,
    plurals,
    signs: rich.signs,
    read: (text, locale, key) => readerOf(key).read(text, locale),
    readOnce: (text, locale, key) => readerOf(key).readOnce(text, locale),
    print: plain.print,
  };
}

/** What was made of the texts that came last: all of a large project would take its memory. */
class RecentTexts<Value> {
  private young = new Map<string, Value>();
  private old: ReadonlyMap<string, Value> = new Map();

  get(text: string): Value | undefined {
    const value = this.young.get(text);
    if (value !== undefined) return value;
    const kept = this.old.get(text);
    if (kept !== undefined) this.set(text, kept);
    return kept;
  }

  set(text: string, value: Value): void {
    if (this.young.size >= mostRecent) {
      this.old = this.young;
      this.young = new Map();
    }
    this.young.set(text, value);
  }
}

/** How many texts with signs are kept at least. */
const mostRecent = 25_000;

/** What parts the forms of a plural, where they are in one text or were put into one. */
const signsBetweenForms: Readonly<Record<PluralForms, string>> = {
  inline: "",
  bar: "|",
  suffix: formMark,
  branches: formMark,
};

function signTest({ single, doubled = "" }: MessageSigns): RegExp {
  return new RegExp(`[${single.replace("\\", "\\\\")}]${doubled && `|${doubled}${doubled}`}`);
}

interface Implementation {
  parse(text: string, locale?: string): Message;
  print(nodes: readonly MessageNode[]): string;
}

function withForms(
  { parse, print }: Implementation,
  known: readonly CountedForm[] | undefined,
): Implementation {
  return {
    parse: (text) => knownAs(readForms(text, parse), known),
    print: (nodes) => printForms(nodes, print),
  };
}

/** A message whose forms are chosen among those that the program knows. */
function knownAs(message: Message, known: readonly CountedForm[] | undefined): Message {
  const [only] = message.nodes;
  if (known === undefined || only?.kind !== "plural") return message;
  return { ...message, nodes: [{ ...only, known }] };
}

/** The categories of languages with many forms, where the language is not known. */
const manyForms = ["one", "few", "many", "other"];

function withBars(
  { parse, print }: Implementation,
  between: string,
  known: readonly CountedForm[] | undefined,
): Implementation {
  const formsOf = (locale: string | undefined) =>
    known ??
    (locale !== undefined && hasPluralRules(locale, "cardinal") ? wholeNumberCategories(locale) : manyForms);
  return {
    parse: (text, locale) =>
      text.includes(between.trim())
        ? knownAs(readBars(text, parse, formsOf(locale), between), known)
        : parse(text),
    print: (nodes) => printBars(nodes, print, between),
  };
}
