import { fullEscapes, type EscapeRules } from "../escapes.js";
import type { PatternStyle } from "../readers/code/holes.js";
import type { CodeNode } from "../readers/code/tree.js";
import type { HostLanguage } from "../model.js";
import type { MessageSyntax } from "../../message/names.js";
import type { Habits } from "./habits.js";

/** The languages that are read by a grammar of their own. */
export type CodeLanguage = Exclude<HostLanguage, "script" | "markup">;

/** What the nodes of a language's grammar are for this job, by their types. */
export interface Grammar {
  /** The name of the grammar's file. */
  readonly file: string;
  readonly strings: readonly string[];
  /** Strings whose lines stand between two names (heredocs): their nodes, the node of their lines, and of the name that ends them. */
  readonly blockStrings?: {
    readonly whole: readonly string[];
    readonly body: RegExp;
    readonly end: string;
    /** What stands in the place of such a string, whose lines follow behind the line. */
    readonly opening?: string;
    /** Marks around code in such a string, where code may be put in. */
    readonly marks?: readonly [open: string, close: string];
  };
  /**
   * Set where three quotes and a line end open a string of lines: blanks before each are none of it, as many as the least
   * indented line has ("least"; the closing quotes' own line counts), or as the closing quotes have, with the line end before
   * them ("closing").
   */
  readonly textBlocks?: "least" | "closing";
  /** The inside of a string, where the grammar has nodes for it. */
  readonly contents: readonly string[];
  readonly interpolations: readonly string[];
  readonly escapes: readonly string[];
  readonly calls: readonly string[];
  readonly arguments: readonly string[];
  readonly pairs: readonly string[];
  readonly binaries: readonly string[];
  readonly concatenation: readonly string[];
  /** Operators that append to what is left of them, and so join texts only where that is a text itself. */
  readonly appending?: readonly string[];
  readonly comparisons: readonly string[];
  readonly assignments: readonly string[];
  readonly cases: readonly string[];
  readonly subscripts: readonly string[];
  readonly returns: readonly string[];
  readonly throws: readonly string[];
  readonly annotations: readonly string[];
  readonly imports: readonly string[];
  readonly functions: readonly string[];
  readonly comments: readonly string[];
  /** Calls that fill a pattern with values and return the text: the pattern's place among the arguments. */
  readonly formats: Readonly<Record<string, number>>;
  /** Calls that fill a pattern in percent signs and print the text, or make an error of it. */
  readonly printers: Readonly<Record<string, number>>;
}

/** Where lines that bring other code in are in a file: those lines, and what comes before the first of them. */
export interface ImportPlace {
  readonly lines: RegExp;
  /** What opens a file: the new line goes behind it. */
  readonly head: RegExp;
  /** What opens a file that has no such line. */
  readonly start?: RegExp;
  /** The first declaration: imports behind it belong to other places. */
  readonly body: RegExp;
  /** What a file has to start with to take such a line at all. */
  readonly opens?: RegExp;
  /** Whether the line goes right below what opens the file, without an empty line between. */
  readonly isTight?: boolean;
  /** The names that a file or a line brings in: what is there need not be brought in again. */
  readonly namesIn?: (text: string) => readonly string[];
}

/** Writes the values of a lookup: names and their code, as they go behind the key. */
export type ValueWriter = (values: readonly (readonly [name: string, code: string])[]) => string;

/** A language that is read by a grammar: everything that the rest of the program knows of it. */
export interface Language {
  readonly name: CodeLanguage;
  /** The endings of its files, with the period. */
  readonly extensions: readonly string[];
  readonly grammar: Grammar;
  /** What names mean in its programs. */
  readonly habits: Habits;
  /** What a string that opens so writes with backslashes. */
  escapesIn(open: string): EscapeRules;
  readonly passValues: ValueWriter;
  /** Lookups of the language's own library that take a key and no values. */
  readonly keyAlone?: RegExp;
  /** What fills a text that has been looked up, by the syntax of the text, with `{call}` and `{values}`. */
  readonly fillers?: Readonly<Partial<Record<MessageSyntax, string>>>;
  readonly imports: ImportPlace;
  /** The string that a lookup stands for which is worked out only when it is shown, where the language does not ask for it by itself. */
  readonly asString?: (call: string) => string;
  /** An expression with the signs of markup in its text escaped, quotes too, by what the language has without any import. */
  readonly escapesMarkup?: (call: string) => string;
  /** Types of nodes whose insides run when they are called, and not when the file is loaded. */
  readonly deferring: RegExp;
  /** Types of declarations that run for each object, unless they are said to be of the class. */
  readonly instanceFields?: RegExp;
  /** Calls that take what their block gives for their argument. */
  readonly givesByBlock?: RegExp;
  /** Calls whose blocks are run by who keeps the program going, and by none of its users. */
  readonly task?: RegExp;
  /** Types of nodes whose values are worked out once, when a file is loaded, even inside of functions. */
  readonly fixedPlaces: RegExp | undefined;
  /** Types of nodes that take constants alone: no call can stand in them. */
  readonly constantPlaces?: RegExp;
  /** Set where constants of an enumeration are made by its constructor, each with what it is called: `GOOD("Good work")`. */
  readonly labelsConstants?: true;
  /** Names by which lookups are given what is none of their message's values: `locale: :de`. */
  readonly lookupOptions?: RegExp;
  /** Set where files run anew for each request, so that their own statements are no different from those of functions. */
  readonly runsPerRequest?: true;
  /** Set where a function is called without brackets around what it is given as well. */
  readonly callsBare?: true;
  /** A value as it is passed on, where not every expression can stand among arguments. */
  passable?(code: string): string;
  /** The test, and what is chosen by it, of a conditional expression; undefined for the order of most languages. */
  conditional?(node: CodeNode): readonly (CodeNode | undefined)[];
  /**
   * A value as joining writes it, where a message in {0} and {1} would write it in the manner of the locale, with marks between
   * its thousands; undefined where both are the same, or nothing tells. `before` is the file up to the text.
   */
  asJoined?(code: string, before: string): string | undefined;
  /** A conditional expression that makes a test "yes" or "no". */
  chooseYes(test: string): string;
  /** Whether a statement is a string that documents the code. */
  isDocumentation?(node: CodeNode): boolean;
  /** Whether such a string, inside the given nodes, is shown to people too, as the help of a command is. */
  shownDocumentation?(node: CodeNode, around: readonly CodeNode[], text: string): boolean;
  /** Which names a file has to declare or bring in before it uses them: all, or those that are no types. */
  readonly declared?: "all" | "values";
  /** The source of a pattern by which a file makes or brings in a function, where it knows no other, with NAME for its name. */
  readonly ownFunctions?: string;
  /**
   * Whether a call describes how the program that a file starts is called in a terminal, so that it runs before what a line brings
   * in is set up.
   */
  runsBeforeSetup?(callee: string, text: string, line: string): boolean;
  /** Whether what a call says at a place ends the program before the file has taken in others, the one with the lookup among them. */
  endsBeforeLoading?(callee: string, text: string, at: number): boolean;
  /**
   * The source of a pattern, with NAME, by which a function gives a name to a value of its own, where that hides a function of the
   * same name. Lines are apart.
   */
  readonly rebinds?: string;
  /** A line outside of functions that makes a name or takes one in, where variables are otherwise those of a function alone. */
  readonly makesOutside?: RegExp;
  /** What a method calls its object by, where it is a parameter like others: the first. */
  readonly receiver?: string;
  /** How classes are written, where functions are members of them alone. */
  readonly classes?: {
    /** The class that another extends, by its head. */
    readonly above: RegExp;
    /** What brings static methods in: their class, and the method or a sign for all. */
    readonly broughtIn: RegExp;
    /** Set where a class inside another sees nothing of the objects around it. */
    readonly areApart?: true;
  };
  /** The packages or namespaces that classes stand in, where a file sees those of its own alone. */
  readonly spaces?: {
    /** The one that a file declares. */
    readonly declared: RegExp;
    /** What brings classes in: their package or namespace, and the name of one; none or a sign for all. */
    readonly brought: RegExp;
    /** Set where what stands in one is seen in those inside it as well. */
    readonly areNested?: true;
    /** The source of a pattern, with NAME, by which a function is made in one. */
    readonly functions?: string;
  };
  /** How classes and modules are written, where functions that are called by their name alone come from those around and above. */
  readonly mixins?: {
    /** Each class or module that a file opens: its name, and the class above it. */
    readonly opened: RegExp;
    /** What a class takes its functions from besides: the name of a module. */
    readonly taken: RegExp;
    /** The types of nodes whose functions are of a class and not of its objects. */
    readonly ofClass: RegExp;
    /** The types of nodes that are a class or a module. */
    readonly holder: RegExp;
    /** The source of a pattern by which a function is made, with NAME for its name. */
    readonly made: string;
    /** Functions that frameworks give to the classes of some names. */
    readonly given?: { readonly names: RegExp; readonly to: RegExp };
  };
  /** Set where a string in double quotes takes variables in by their own signs. */
  readonly takesVariablesIn?: true;
  /** What a call's other arguments put before its key, by their code; null for what is known at run time only. */
  keyScope?(given: string): readonly (string | null)[];
  /** Groups of keys that its frameworks ask for by names that they put together. */
  readonly frameworkKeys?: RegExp;
  /** Whether braces around an interpolation are part of it, though not of its node. */
  readonly bracesInterpolation?: boolean;
  /** How a string begins that holds bytes, which no text can take the place of. */
  readonly ofBytes?: RegExp;
  /** What a value in a string is outside of it, where that is written in another way. */
  outsideString?(code: string): string;
  /** Helpers that put out a number and its word, which they choose by it: `pluralize(count, "boat")`. */
  readonly counts?: RegExp;
  /** Calls that join lines to one text. */
  readonly joins?: RegExp;
  /** Whether an interpolation says how its value is written: `{price:.2f}`. */
  formatsInPlace?(code: string): boolean;
  /** How the pattern of a call or an operator marks the places of its values, by percent signs where not given. */
  patternStyle?(filler: string, pattern: string): PatternStyle;
  /** What in a pattern stands for a fixed text: `%n` for the end of a line. */
  readonly patternTexts?: Readonly<Record<string, string>>;
  /** What stands for a value in the patterns of printing calls, where that is not `%s`: they print a text without values as it is. */
  readonly hole?: string;
}

/** Declares a language, with what most of them have in common. */
export function defineLanguage(
  language: Omit<Language, "chooseYes" | "escapesIn"> & Partial<Pick<Language, "chooseYes" | "escapesIn">>,
): Language {
  return { chooseYes: (test) => `${test} ? "yes" : "no"`, escapesIn: () => fullEscapes, ...language };
}

export const comparisons = [
  "==",
  "!=",
  "===",
  "!==",
  "<",
  ">",
  "<=",
  ">=",
  "=~",
  "<=>",
  "in",
  "not in",
  "is",
];

/** Parts of a method that are fixed when it is compiled or defined. */
export const parametersAndConstants =
  /^(?:(?:typed_)?default_parameter|simple_parameter|parameter|.*annotation|attribute(?:_list)?)$/;

/** Values by name, written one after the other. */
export function listed(
  before: string,
  pair: (name: string, code: string) => string,
  after: string,
  between = ", ",
): ValueWriter {
  return (values) =>
    values.length === 0
      ? ""
      : `, ${before}${values.map(([name, code]) => pair(name, code)).join(between)}${after}`;
}

/** Code without what is in brackets and quotes. */
export function withoutNested(code: string): string {
  return code.replace(/\([^()]*\)|\[[^[\]]*\]|"[^"]*"|'[^']*'/g, "");
}
