import type { Notice } from "../text/wording.js";
import type { LineIndex } from "../text/line-index.js";
import type { Span } from "../text/span.js";
import type { Dialect } from "./dialects/dialect.js";

/** The families of host languages: what a file's names and habits are judged by. */
export type HostLanguage = "script" | "markup" | "ruby" | "php" | "java" | "python" | "go" | "csharp";

/** What one file of code holds for this job: strings, and places that ask for keys. */
export interface SourceFile {
  readonly file: string;
  readonly text: string;
  readonly bom: boolean;
  readonly lines: LineIndex;
  readonly literals: readonly Literal[];
  readonly lookups: readonly Lookup[];
  /** Every fixed string of the code, whatever it is for: a key that stands here may be asked for indirectly. */
  readonly mentions: ReadonlySet<string>;
  readonly problems: readonly SourceProblem[];
  /** How a template or page mixes code into its markup; undefined for other files. */
  readonly dialect?: Dialect;
  /** The lookups that a script makes itself, with what stands before each of their keys. */
  readonly bound?: readonly BoundLookup[];
  /** Templates of markup in a script: the insides of the literals behind tags such as html. */
  readonly templates?: readonly Span[];
}

/** A name that is a lookup in part of a file: `say` after `const { say } = useTexts("search")`, for keys that start with `search.`. */
export interface BoundLookup {
  readonly name: string;
  readonly scope: Span;
  readonly prefix: string;
}

/** Why a file of code could not be read, or not whole. */
export interface SourceProblem extends Notice {
  readonly span: Span;
  /** Set where nobody wrote the file as it is (it is minified, or too large), so that nothing of the project's own is missed in it. */
  readonly isUnwritten?: true;
}

/** A string in code, or text of an interface with everything that belongs to its sentence. */
export interface Literal {
  readonly form: LiteralForm;
  /** What a rewrite replaces. */
  readonly span: Span;
  readonly pieces: readonly Piece[];
  readonly context: LiteralContext;
  /** What a literal is besides its text: put together from pieces, chosen by a number or a language, a fixed format. */
  readonly remarks?: readonly Remark[];
  /** What a comment or an attribute beside it tells translators. */
  readonly note?: string;
  /** The key that the markup itself gives it. */
  readonly key?: string;
  /** Set where the markup marks it as a text, with a key or without. */
  readonly isMarked?: true;
  /** Set where a lookup is given it right behind its key: what is shown where no catalog has the text. */
  readonly isBesideKey?: true;
  /** The message as the template itself writes it, where that is a whole message in ICU's syntax. */
  readonly written?: string;
  /** The locale that a table of the code has it for, as written there, where that is not the source's language. */
  readonly inLocale?: string;
  /** The same text in other languages, where code chooses by the language: by locale as the code writes it. */
  readonly translations?: readonly { readonly locale: string; readonly pieces: readonly Piece[] }[];
  /** What has to stand around what takes its place: the ends of the strings that it was part of, or statements that return it. */
  readonly frame?: { readonly before: string; readonly after: string; readonly isStatement?: true };
  /** Set for an attribute's value between apostrophes in a string of markup, which one in a translation would end. */
  readonly betweenApostrophes?: true;
  /** The strings of the code that its text is written in, where not all in them may be one text. */
  readonly strings?: readonly WrittenString[];
  /** Set where a comment or the markup says that it is not to be translated, with its reason. */
  readonly skipped?: string;
  /** Set where a rewrite could not keep the program's behavior, or would break a sentence apart. */
  readonly obstacle?: Obstacle;
}

/**
 * What a literal is in its language's grammar, and so what must stand in its place:
 * `content` text between tags, `phrase` text with expressions or elements between tags,
 * `attribute` an attribute's quoted value, `string` and `template` expressions.
 */
export type LiteralForm = "content" | "phrase" | "attribute" | "string" | "template";

/** A string of the code: from quote to quote, and what is between them. */
export interface WrittenString extends Span {
  readonly innerStart: number;
  readonly innerEnd: number;
  /** Set where it cannot end in the middle of a line, as those of several lines with a word at their end. */
  readonly isBlock?: true;
  /** So many blanks at the beginning of each line are none of its text. */
  readonly indent?: number;
  /** Marks around code in such a string, where code may be put in. */
  readonly marks?: readonly [open: string, close: string];
}

/** Part of a literal. Spans are in the file. */
export type Piece =
  | { readonly kind: "text"; readonly value: string; readonly span: Span }
  | {
      readonly kind: "argument";
      readonly name: string;
      readonly code: string;
      readonly span: Span;
      readonly mayBeAbsent: boolean;
      /** Set where the code formats the value in a way that a message can say: then `code` is the value itself. */
      readonly formatted?: FormattedValue;
      /** The letter by which a pattern of the code says what kind of value it is, `d` of `%d`; not there for any value, `%s`. */
      readonly letter?: string;
    }
  | ChoicePiece
  | {
      readonly kind: "tag";
      readonly name: string;
      readonly span: Span;
      /** From `<` to `>`; the whole element where it has no content. */
      readonly open: Span;
      readonly close: Span | undefined;
      readonly pieces: readonly Piece[];
    };

/** A value that code formats for a locale: how, in ICU's words, and where the value itself and the code around it stand. */
export interface FormattedValue {
  readonly type: "number" | "date" | "time";
  /** A named style, or a skeleton behind `::`; undefined for the type's own. */
  readonly style: string | undefined;
  readonly value: Span;
  /** The whole code, for messages that cannot say it. */
  readonly whole: string;
}

/** Words that code chooses by a number or another value: the forms of a plural, or the cases of a select. */
export interface ChoicePiece {
  readonly kind: "choice";
  readonly choice: "plural" | "select";
  /** The argument that chooses. */
  readonly name: string;
  /** The code of what is compared. */
  readonly code: string;
  /** The code of the argument's value. */
  readonly value: string;
  /** The whole conditional. */
  readonly span: Span;
  /** `one`, `=0`, `yes`, …, and `other` last. */
  readonly branches: readonly { readonly selector: string; readonly pieces: readonly Piece[] }[];
}

/** Something about a literal that translators or code will trip over. */
export interface Remark {
  readonly kind: "glued" | "plural-by-hand" | "chosen-by-language" | "fixed-format" | "compared";
  /** In words: “put together with +”. */
  readonly message: string;
}

/** Why a text cannot be moved: the message is the reason as a clause ("a value in it is formatted in place"). */
export type Obstacle = Notice;

/** Where a literal stands and what the code does with it. */
export interface LiteralContext {
  readonly language: HostLanguage;
  readonly role: LiteralRole;
  /** What the role is about: the attribute, property or variable, the function called, the operator. */
  readonly name?: string;
  /** The element or component, for content and attributes. */
  readonly element?: string;
  /** The place among a call's arguments, from 0. */
  readonly index?: number;
  /** The call that the call around it is an argument of: `console.log` for `console.log(red("Failed"))`. */
  readonly within?: string;
  /** Set where it is reached only while somebody debugs the program. */
  readonly isDebugging?: true;
  /**
   * Set where the object that it is a member of is looked into by what a page of the same file shows: `{units[kind]}`; and
   * where it is the message of an error that is shown where it is caught.
   */
  readonly isShown?: true;
  /** Set where it stands in an annotation. */
  readonly isAnnotation?: true;
  /** Set for the content of an element whose class says that its font has pictures for letters. */
  readonly isPicture?: true;
  /** Set where a template puts on the page what the call makes of it. */
  readonly isOutput?: true;
  /** Where the string stands that holds the markup that it is a text of. */
  readonly around?: LiteralContext;
  /** The names of the properties around it, outermost first, for a literal inside an object. */
  readonly properties?: readonly string[];
  /** The function, component or class that it stands in, innermost that has a name. */
  readonly component?: string;
  /** Whether it is evaluated once, when the file is loaded, and not each time a function runs. */
  readonly atLoad: boolean;
}

export type LiteralRole =
  | "content"
  | "attribute"
  | "argument"
  | "property"
  | "variable"
  | "assignment"
  | "returned"
  | "compared"
  | "key"
  | "index"
  | "parameter"
  | "thrown"
  | "tagged"
  | "type"
  | "module"
  | "member"
  | "other";

/** A place that asks for a key. */
export interface Lookup {
  readonly span: Span;
  /** The key's place: the string's inside, without quotes. */
  readonly keySpan: Span;
  readonly key: LookupKey;
  /** The text that code gives for a key without one. */
  readonly defaultText?: string;
  /** Set where code gives a text or other keys for a key without a text, whatever they are. */
  readonly hasDefault?: true;
  /** What the code tells translators about the text. */
  readonly note?: string;
  /** Set for the members of an object of texts, where a group of texts may be meant. */
  readonly isMember?: true;
  /** The arguments passed by name, or undefined where code alone cannot tell (a variable, a spread). */
  readonly argumentNames: readonly string[] | undefined;
}

/** What code says of the key: all of it, its fixed parts (null stands for what is known at run time only), or nothing. */
export type LookupKey =
  | { readonly kind: "fixed"; readonly value: string }
  | { readonly kind: "composed"; readonly parts: readonly (string | null)[] }
  | { readonly kind: "unknown" };

/** What a book says about how its code asks for keys. */
export interface LookupShapes {
  /** Functions and methods that take a key, with the places of arguments that hold it (first where not given), default text and a note; default text may be in a property of the object behind the key. */
  readonly calls: ReadonlyMap<
    string,
    { readonly key?: number; readonly default?: number | string; readonly note?: number }
  >;
  /** Objects whose members are texts, and functions that give such objects. */
  readonly members: ReadonlySet<string>;
  /** The props that hold the key, default text and a note, by component or tag. */
  readonly components: ReadonlyMap<
    string,
    { readonly key: string; readonly default?: string; readonly note?: string }
  >;
  /** Functions that make a lookup, with the places of a namespace and of a prefix for its keys. */
  readonly makers: ReadonlyMap<
    string,
    readonly { readonly gives?: string; readonly namespace?: number; readonly prefix?: number }[]
  >;
  /** Functions that declare texts: their argument holds keys and default texts. */
  readonly descriptors: ReadonlyMap<string, DescriptorShape>;
  /** Attributes whose value is a key. */
  readonly attributes: ReadonlySet<string>;
  readonly filters: ReadonlySet<string>;
  /** Patterns of attribute values around a key, which is their first group. */
  readonly bindings: readonly RegExp[];
  /** Attributes that mark an element's content, or with `-name` behind one of its attributes, as text. */
  readonly marked: ReadonlyMap<string, MarkCompanions>;
  /** Classes of elements whose content is marked as text, or in place of it the attributes of these names. */
  readonly classMarks: ReadonlyMap<string, ClassMark>;
  /** Patterns of marks around a key, anywhere in the texts of a file; the key is their first group. */
  readonly marks: readonly RegExp[];
  /** Patterns of marks that open in a string and whose key goes on in another or in a value. */
  readonly openMarks: readonly RegExp[];
  /** The namespace of keys without one, with what stands behind it. */
  readonly home?: string;
  /** What stands between the parts of a key, and between namespace and key. */
  readonly separators: { readonly parts: string; readonly namespace: string };
  /** The language that texts are written in: markup in another one is not to be translated. */
  readonly sourceLanguage?: string;
  /** The constant that holds the texts of a file: those are taken out of the code already. */
  readonly constant?: string;
  /** The dialect that a book names for a template; undefined where the file itself shows it. */
  dialect?(file: string): Dialect | undefined;
  /** What a key with a leading separator stands for in a file; undefined where the book has no such keys. */
  relative?(file: string): string;
}

/**
 * Where a declaration of texts has its parts: one text, by the properties of the first argument; or several in an object, by
 * the last parts of their keys. A number is the place of an argument, a name a property of the first one.
 */
export type DescriptorShape =
  | { readonly key: string; readonly default?: string | undefined; readonly note?: string | undefined }
  | { readonly prefix?: number | string | undefined; readonly texts: number | string };

/** The attributes that say more of what a mark marks. */
export interface MarkCompanions {
  /** How the value of the mark itself holds them: `{meaning}|{note}@{key}`. */
  readonly pattern?: string | undefined;
  readonly meaning?: string | undefined;
  readonly note?: string | undefined;
  readonly key?: string | undefined;
  /** Set where what the mark stands on is its own key. */
  readonly isOwnKey?: true;
}

/** What a class marks: the content of its elements, or these attributes of theirs. */
export interface ClassMark {
  readonly attributes?: readonly string[] | undefined;
  /** Set where what the mark stands on is its own key. */
  readonly isOwnKey?: true;
}

/** Text of pieces as a user reads it, arguments and empty elements in braces: `Room {name}`. */
export function readableText(pieces: readonly Piece[]): string {
  return pieces
    .map((piece) => {
      if (piece.kind === "text") return piece.value;
      return piece.kind === "argument" ? `{${piece.name}}` : readableText(insideOf(piece));
    })
    .join("");
}

/** The fixed text of pieces alone, without what is filled in. */
export function fixedText(pieces: readonly Piece[]): string {
  return pieces
    .map((piece) => {
      if (piece.kind === "text") return piece.value;
      if (piece.kind === "tag") return fixedText(piece.pieces);
      if (piece.kind === "argument") return "";
      // Each branch is read once: choices inside of choices would be read twice as often at each level.
      const texts = piece.branches.map((branch) => fixedText(branch.pieces));
      return texts[mostSaid(texts)] ?? "";
    })
    .join("");
}

/** The place of the text that says most, the last of several. */
function mostSaid(texts: readonly string[]): number {
  const sizes = texts.map((text) => text.trim().length);
  return sizes.lastIndexOf(Math.max(...sizes));
}

/** The pieces that stand in a text for a tag or a choice: of a choice the branch that says most. */
export function insideOf(piece: Extract<Piece, { kind: "tag" | "choice" }>): readonly Piece[] {
  if (piece.kind === "tag") return piece.pieces;
  return piece.branches[mostSaid(piece.branches.map(({ pieces }) => fixedText(pieces)))]?.pieces ?? [];
}

/** The order of a file: by where a thing starts, what holds another before it. */
export function byPlace(a: { readonly span: Span }, b: { readonly span: Span }): number {
  return a.span.start - b.span.start || b.span.end - a.span.end;
}
