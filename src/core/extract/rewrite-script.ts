import type { ArrayExpression, Node, Program } from "oxc-parser";
import { notices } from "../message/notices.js";
import { posix } from "node:path";
import type { BookConfig } from "../config/schema.js";
import type { MessageReader } from "../message/parse.js";
import {
  callAroundKey,
  calledIn,
  defaultCall,
  frontOf,
  givenBeforeKey,
  objectOf,
  usesDefaultCall,
} from "../source/book-code.js";
import { literalMessage } from "../source/literal-message.js";
import type { BoundLookup, Literal, Obstacle, SourceFile } from "../source/model.js";
import {
  childrenOf,
  importEdits,
  innermostBinding,
  isShadowed,
  callsOf,
  membersOf,
  moduleBinding,
  readImportLine,
  setupPlace,
  topLevelEdit,
  type ImportLine,
  type SetupLine,
  type SetupPlace,
} from "../source/readers/script/scopes.js";
import { variableOf } from "../source/dialects/dialect.js";
import { literally } from "../text/key-pattern.js";
import { thisHas } from "./this-receiver.js";
import { applyEdits, type TextEdit } from "../text/edits.js";
import { contains, type Span } from "../text/span.js";
import { fillTemplate, lookupValues, takesValues, type LookupValue } from "./emit.js";
import { inOrder, passes } from "./hosts.js";
import { formByHelper, tooManyChoices, type Keyed } from "./rewrite-host.js";
import { callOf, type ScriptPart, type ScriptsNaming } from "./script-parts.js";

/** How a book's scripts write lookups, and what brings them in. */
export interface ScriptEmission {
  readonly book: BookConfig;
  readonly reader: MessageReader;
  readonly imports: readonly ImportLine[];
  readonly setup: SetupLine | undefined;
  /** The book's other scripts that a name stands in; undefined where they are not at hand. */
  readonly scriptsNaming: ScriptsNaming | undefined;
}

const say = notices("extract", {
  "at-load-script": {
    message: "it is evaluated when the file is loaded, before a locale is chosen",
    remedy: "move it into the function that uses it, or set emit.atLoad if your lookups work that early",
  },
  "rich-script": {
    message: "it contains elements, and the book has no way to write them",
    remedy: "set emit.rich, for example to {example}",
  },
  taken: {
    message: '"{name}" means something else here',
    remedy: 'rename the variable "{name}" in this function',
  },
  "no-component": {
    message: 'no component or hook encloses it in which "{setup}" could be written',
    remedy: "move the text into the component that shows it, or pass it there",
  },
  declared: {
    message: 'the file declares its own "{name}"',
    remedy: "rename it, or choose another name in emit",
  },
  "no-value": {
    message: '"{name}" is not known here, and the lookup takes it',
    remedy: 'pass "{name}" to this function, or choose another lookup in emit',
  },
  "no-call-script": {
    message: "the book does not say how a script looks up a key",
    remedy: "set emit.call, for example to {example}",
  },
  "no-args-script": {
    message: "it has values, and the template of the book has no place for them",
    remedy: "put {args} into the template in emit",
  },
  "not-everywhere": {
    message: '"{name}" is not known here: every script that calls it makes it or is given it',
    remedy: "set emit.import or emit.setup to the line that brings it in, or pass it to this function",
  },
  "not-in-scope": {
    message: '"{name}" is made elsewhere in the file, and not known here',
    remedy: "set emit.setup to the line that makes it",
  },
  "not-of-this": {
    message: 'nothing says that "{name}" is there: "this" is another object here, or a function\'s own',
    remedy: "set emit.call to a lookup that is known in all files, or move it by hand",
  },
  "no-import": {
    message: '"{name}" is imported by a statement, and this file takes its modules in by require()',
    remedy: "bring the lookup in by require(), then extract again",
  },
  "of-pages": {
    message: '"{name}" is of another part of the project, and this is a program of a server',
    remedy: "import it by hand if it works there, then extract again",
  },
  "not-of-template": {
    message: '"{name}" is not known in this template: nothing in the script of the component hands it on',
    remedy: "make it a member of the component, or give the component a script that runs for each use",
  },
  "not-imported": {
    message: '"{name}" is not imported here',
    remedy: "set emit.import to the line that imports it",
  },
});

/** Why replacing a literal of a script might change what the program does; undefined where it is safe. */
export function scriptRefusal(
  literal: Literal,
  part: ScriptPart,
  emission: ScriptEmission,
  by?: BoundLookup,
  bound: readonly BoundLookup[] = [],
): Obstacle | undefined {
  const { book, reader, imports, setup, scriptsNaming } = emission;
  if (literalMessage(literal.pieces, reader) === undefined) return tooManyChoices(reader);
  if (literal.context.atLoad && !book.emit.atLoad && !part.runsPerUse) return say("at-load-script", {});
  if (isHoisted(part, literal.span)) return say("at-load-script", {});
  for (const piece of literal.pieces) {
    const helped = piece.kind === "argument" ? formByHelper(piece.code) : undefined;
    if (helped) return helped;
  }
  if (by) {
    const name = rootOf(by.name);
    return isHidden(part, literal.span.start, by.name, by.scope.start) ? say("taken", { name }) : undefined;
  }
  const template = templateAt(part, literal, emission);
  // The usual call is not that of a book whose lookups are others.
  if (template === defaultCall && book.emit.call === undefined && !usesDefaultCall(book.lookups))
    return say("no-call-script", { example: JSON.stringify(defaultCall) });
  if (template === undefined) return say("rich-script", { example: '"rich("{key}"{args})"' });
  const hasValues = lookupValues(literal.pieces, (piece) => piece.name).length > 0;
  if (hasValues && !takesValues(template)) return say("no-args-script", { args: "{args}" });
  const lacking = givenBeforeKey(template).find(
    (one) =>
      !isShadowed(part.program, literal.span.start, one) && moduleBinding(part.program, one) === undefined,
  );
  if (lacking !== undefined) return say("no-value", { name: lacking });
  // What fills a text is around the lookup, and the lookup is what has to be there.
  // Where a call makes its key, what gives the text is the call around that.
  const asked = callAroundKey(template) ?? calledIn(template)[0];
  const name = (asked ?? objectOf(template) ?? "").split(".")[0] ?? "";
  if (name === "this" && asked !== undefined && !thisHas(part, literal.span.start, asked, scriptsNaming))
    return say("not-of-this", { name: asked });
  if (name === "" || name === "this") return undefined;
  const { program } = part;
  const { start } = literal.span;
  const binding = moduleBinding(program, name);
  // A sign before a name takes what a component has brought in under the name without it.
  const variable = variableOf(name, part);
  const store = variable === name ? undefined : moduleBinding(program, variable);
  if (typeof store === "object") return undefined;
  const isTaken = say("taken", { name });
  if (setup?.names.includes(name) && (binding === undefined || part.runsPerUse)) {
    if (part.runsPerUse)
      return isShadowed(program, start, name) || (binding !== undefined && !hasSetup(part, setup))
        ? isTaken
        : undefined;
    const place = setupPlace(program, part.text, start, setup);
    if (!place) return say("no-component", { setup: setup.line });
    const hides =
      place.state === "free"
        ? isShadowed(program, start, name)
        : isHidden(part, start, asked ?? name, place.edits[0]?.start ?? place.start);
    return place.state === "taken" || hides ? isTaken : undefined;
  }
  const [object, method] = (asked ?? "").split(".");
  // An object of texts is what a function makes for itself or is given, unless it is plainly something else.
  if (isShadowed(program, start, name)) {
    const isMeant =
      objectOf(template) === name ||
      (asked !== undefined && method !== undefined && isGivenAround(asked, part, scriptsNaming));
    return isMeant && !isPlainValue(part.text, name) ? undefined : isTaken;
  }
  // What the file makes is the lookup where the file itself looks texts up with it.
  if (binding === "local") {
    const isInTemplate = part.runsPerUse && asked !== undefined && callOf(asked).test(part.template ?? "");
    return isInTemplate || (method !== undefined && part.text.includes(`${asked ?? ""}(`))
      ? undefined
      : say("declared", { name });
  }
  // A project that names the call and no import has it everywhere, or brings it in by itself.
  // One that the file makes elsewhere is known there alone.
  const isEverywhere =
    book.emit.call !== undefined &&
    book.emit.import === undefined &&
    !bound.some((one) => one.name === asked);
  // What another function of the file makes for itself is known there alone.
  if (!binding && isEverywhere && isMadeInside(part.text, name)) return say("not-in-scope", { name });
  if (!binding && isEverywhere && !isFreeAround(asked ?? `${name}.`, part, scriptsNaming))
    return say("not-everywhere", { name });
  if (
    !binding &&
    isEverywhere &&
    method !== undefined &&
    object !== undefined &&
    // An object that scripts of pages have is not there in programs of a server.
    (isServerProgram(part.text, object) || !isUsedAround(object, part, scriptsNaming))
  )
    return say("not-imported", { name });
  if (
    !binding &&
    !isEverywhere &&
    !imports.some((line) => line.names.some(({ local }) => local === variable))
  )
    return say("not-imported", { name });
  const line = imports.find(({ names }) => names.some(({ local }) => local === variable));
  if (!binding && line && isFromAnotherProgram(line, part)) return say("of-pages", { name });
  if (!binding && line && isOfOldModules(part)) return say("no-import", { name });
  return undefined;
}

/**
 * Why a template of a component cannot call a lookup: all components that do make it or are given it in their scripts, and this
 * one does not. Undefined where it can.
 */
export function templateRefusal(
  { file, dialect }: SourceFile,
  template: string | undefined,
  parts: readonly ScriptPart[],
  { imports, setup, scriptsNaming }: ScriptEmission,
): Obstacle | undefined {
  if (dialect?.isComponent !== true || template === undefined || !scriptsNaming) return undefined;
  const [asked] = calledIn(template);
  const name = rootOf(asked ?? "");
  if (asked === undefined || name === "this") return undefined;
  const variable = variableOf(name, dialect);
  const isBroughtIn =
    setup?.names.includes(name) === true ||
    imports.some(({ names }) => names.some(({ local }) => local === variable));
  const isPerUse = parts.some(({ runsPerUse }) => runsPerUse);
  if (isBroughtIn && isPerUse) return undefined;
  // A mark before a name takes what is in a variable of the name without it.
  const plain = literally(name).replace(/^\\\$/, "\\$?");
  const word = new RegExp(`(?<![\\w$.])${plain}(?![\\w$])`);
  // What is no script of each use hands its template members alone.
  const member = new RegExp(
    `[{,]\\s{0,99}(?:async\\s{1,9})?${plain}\\s{0,9}(?:[,}(]|:\\s{0,9}[^\\s"'\`\\d[{])`,
  );
  const call = callOf(asked);
  if (parts.some(({ text, template = "" }) => (isPerUse ? word : member).test(text) || call.test(template)))
    return undefined;
  // What is brought into a script that runs once is not there in the template.
  if (isBroughtIn) return say("not-of-template", { name });
  const scripts = new Map<string, string>();
  for (const { file: other, template: page = "", text } of scriptsNaming(name, file))
    if (call.test(page)) scripts.set(other, (scripts.get(other) ?? "") + text);
  if (scripts.size === 0 || [...scripts.values()].some((text) => !word.test(text))) return undefined;
  return say("not-everywhere", { name });
}

/**
 * Whether an inner function or block gives the name of a lookup, which is made at a place before, to something else. One that
 * calls it with texts itself was handed it by that name.
 */
function isHidden({ program, text }: ScriptPart, at: number, asked: string, made: number): boolean {
  const inner = innermostBinding(program, at, rootOf(asked));
  return (
    inner !== undefined && inner.start >= made && !callOf(asked).test(text.slice(inner.start, inner.end))
  );
}

/** Whether a statement around a place runs when the file is loaded, though its neighbors run for each use. */
function isHoisted({ program, text, hoisted }: ScriptPart, span: Span): boolean {
  if (hoisted === undefined) return false;
  const around = program.body.find((statement) => contains(statement, span));
  return around !== undefined && hoisted.test(text.slice(around.start, around.end));
}

/** Whether a program of a server would take in a module of another part of the project, which may be for pages. */
function isFromAnotherProgram({ line }: ImportLine, { text, file }: ScriptPart): boolean {
  const [, part] = /\{to:([^/{}]{1,80})\//.exec(line) ?? [];
  return part !== undefined && file.includes("/") && !file.startsWith(`${part}/`) && takesInNode(text);
}

/** Whether a script is a CommonJS module, in which nothing is imported by a statement. */
function isOfOldModules({ file, text, program, isWhole }: ScriptPart): boolean {
  return (
    isWhole &&
    /\.c?js$/.test(file) &&
    /\brequire\(\s{0,9}["'`]|\bmodule\.exports\b|^exports\.\w/m.test(text) &&
    !program.body.some(({ type }) => /^(?:Import|Export)/.test(type))
  );
}

/** Whether a script gives a name a value that is no object of texts. */
function isPlainValue(text: string, name: string): boolean {
  const plain = name.replaceAll("$", "\\$");
  return new RegExp(
    String.raw`\b(?:const|let|var)\s{1,20}${plain}\s{0,20}=\s{0,20}(?:["'\`\d[]|new\b|\(|function\b|async\b)`,
  ).test(text);
}

/** Whether some function of a script declares a name. */
function isMadeInside(text: string, name: string): boolean {
  const plain = name.replaceAll("$", "\\$");
  return new RegExp(
    String.raw`\b(?:const|let|var)\s{1,20}(?:${plain}\s{0,20}[=:]|[{[][^=;{}]{0,200}(?<![\w$])${plain}(?![\w$])[^=;{}]{0,200}[}\]]\s{0,20}=)`,
  ).test(text);
}

/**
 * Whether a script, or one in a folder around it, has an object that no import brings in; or none has, so that only the book
 * knows of it.
 */
function isUsedAround(
  object: string,
  { text, file }: ScriptPart,
  naming: ScriptsNaming | undefined,
): boolean {
  if (!naming || text.includes(`${object}.`)) return true;
  const others = naming(object, file).filter((other) => other.text.includes(`${object}.`));
  return others.length === 0 || others.some((other) => areNear(other.file, file));
}

/**
 * Whether some script calls a function, or a method of an object, or takes members of one (`texts.`), that it neither makes nor is
 * given, so that it is known everywhere; or none does, so that only the book knows of it.
 */
function isFreeAround(asked: string, part: ScriptPart, naming: ScriptsNaming | undefined): boolean {
  if (!naming) return true;
  const name = rootOf(asked);
  const others = naming(name, part.file);
  const calls = [part, ...others].map(({ program }) =>
    asked.endsWith(".") ? membersOf(program, name) : callsOf(program, asked),
  );
  if (calls.some(({ isFree }) => isFree)) return true;
  // What the templates of components alone have is not there in scripts.
  const call = asked.endsWith(".") ? new RegExp(`(?<![\\w$.])${literally(asked)}`) : callOf(asked);
  const isOfTemplates = [part, ...others].some(
    ({ template, text }) => template !== undefined && call.test(template) && !call.test(text),
  );
  return !isOfTemplates && !calls.some(({ isBound }) => isBound);
}

/** Whether a script, or one near it, calls a method of an object that its functions are given by the same name: `req.say(…)`. */
function isGivenAround(asked: string, part: ScriptPart, naming: ScriptsNaming | undefined): boolean {
  if (!naming) return false;
  return [part, ...naming(rootOf(asked), part.file)].some(
    ({ program, file }) =>
      (file === part.file || areNear(file, part.file)) && callsOf(program, asked).isGiven,
  );
}

/** The object that a method is called of, or the function itself: what has to be known. */
function rootOf(asked: string): string {
  return asked.split(".", 1)[0] ?? asked;
}

/** Whether the folder of one file is that of another or holds it, or both are in one that is not at the top. */
function areNear(one: string, other: string): boolean {
  const [a, b] = [one, other].map((file) => file.split("/").slice(0, -1)) as [string[], string[]];
  let shared = 0;
  while (shared < Math.min(a.length, b.length) && a[shared] === b[shared]) shared++;
  return shared >= 2 || shared === Math.min(a.length, b.length);
}

/** Whether a script is a program of a server, which never mentions an object. */
function isServerProgram(text: string, object: string): boolean {
  return takesInNode(text) && !text.includes(`${object}.`);
}

/** Whether a script takes in modules that only programs outside of pages have. */
function takesInNode(text: string): boolean {
  return /(?:\brequire\(\s{0,4}|\bfrom\s{1,4})["'](?:node:\w{2,20}(?:\/\w{2,20})?|fs|path|http|https|os|child_process|net|express)["']/.test(
    text,
  );
}

/** How a book's scripts look a text up; undefined where they have no way to write elements in it. */
function templateFor({ emit }: BookConfig, { pieces }: Literal, by?: BoundLookup): string | undefined {
  if (pieces.some(({ kind }) => kind === "tag")) return emit.rich;
  const hasValues = lookupValues(pieces, (piece) => piece.name).length > 0;
  const usual = (hasValues ? emit.withValues?.call : undefined) ?? emit.call ?? defaultCall;
  if (!by) return usual;
  // What the file has made is called as the book's lookup is, with a text behind the key where that has one.
  const behind = /^[\w$.]{1,100}(\((["'])\{key\}\2, (["'])\{text\}\3(?:\{args\})?\))$/.exec(usual)?.[1];
  const takesThem = behind !== undefined && (!hasValues || takesValues(usual));
  return by.name + (takesThem ? behind : '("{key}"{args})');
}

/**
 * The template for a text of a script: where the usual lookup is not known and the book's lookups name a method of `this` that is
 * there, it is called in its place.
 */
function templateAt(
  part: ScriptPart,
  literal: Literal,
  { book, setup, scriptsNaming }: ScriptEmission,
  by?: BoundLookup,
): string | undefined {
  const usual = templateFor(book, literal, by);
  if (usual === undefined || by || part.runsPerUse) return usual;
  const [, asked = ""] = /^([\w$.]{1,100})\(["'`]\{key\}/.exec(usual) ?? [];
  const root = rootOf(asked);
  const { program } = part;
  const { start } = literal.span;
  if (
    asked === "" ||
    root === "this" ||
    setup?.names.includes(root) ||
    moduleBinding(program, root) !== undefined ||
    isShadowed(program, start, root)
  )
    return usual;
  const own = book.lookups.flatMap((one) =>
    "call" in one && one.call.startsWith("this.") && (one.key ?? 0) === 0 ? [one.call] : [],
  );
  const ending = `.${asked.split(".").at(-1) ?? asked}`;
  const found = [...own]
    .sort((one, other) => Number(other.endsWith(ending)) - Number(one.endsWith(ending)))
    .find((one) => thisHas(part, start, one, scriptsNaming));
  return found === undefined ? usual : found + usual.slice(asked.length);
}

/** The lookup that a script has made where a text stands, which takes its key; elements need one that can write them. */
export function boundLookup(
  { bound = [] }: SourceFile,
  part: ScriptPart | undefined,
  { span, pieces }: Literal,
): BoundLookup | undefined {
  return part?.isWhole && !pieces.some(({ kind }) => kind === "tag")
    ? bound.findLast(({ scope }) => contains(scope, span))
    : undefined;
}

/** The code of a value of a script; an element is a function that puts it around what the message has inside. */
function valueCode(piece: LookupValue["piece"], codeOf: (span: Span) => string): string {
  if (piece.kind === "choice") return piece.value;
  if (piece.kind === "argument") {
    const code = codeOf(piece.formatted?.value ?? piece.span);
    return piece.mayBeAbsent ? `${code} ?? ""` : code;
  }
  if (piece.close === undefined || piece.pieces.length === 0) return `() => ${codeOf(piece.span)}`;
  return `(children) => ${codeOf(piece.open)}{children}${codeOf(piece.close)}`;
}

/** Whether the set-up statement stands at a script's top level already, or another that makes the same names of the same call. */
function hasSetup({ program, text }: ScriptPart, setup: SetupLine): boolean {
  const plain = (code: string) => code.replace(/\s+|;$/g, "");
  return program.body.some((statement) => {
    const code = plain(text.slice(statement.start, statement.end));
    return code === plain(setup.line) || (setup.callee !== undefined && code.includes(`=${setup.callee}(`));
  });
}

/**
 * The edits for the texts of one script: lookups in their place, and the imports and set-up statements that those need.
 * `alsoCalled` are functions that something else calls, such as the template of a component.
 */
export function scriptEdits(
  chosen: readonly Keyed[],
  part: ScriptPart,
  emission: ScriptEmission,
  alsoCalled: readonly string[] = [],
): TextEdit[] {
  const { book, reader, imports, setup } = emission;
  const { text, program } = part;
  const quote = dominantQuote(text);
  const templates = new Set<string>();
  const editsWithin = (span: Span, own?: Keyed): TextEdit[] => {
    const inside = chosen.filter(({ literal }) => literal !== own?.literal && contains(span, literal.span));
    const outermost = inside.filter(
      ({ literal }) =>
        !inside.some((other) => other.literal !== literal && contains(other.literal.span, literal.span)),
    );
    return outermost.flatMap((one) => {
      const { literal, by } = one;
      const template = templateAt(part, literal, emission, by);
      if (template === undefined) return [];
      if (!by) templates.add(template);
      const key = by ? one.key.slice(by.prefix.length) : frontOf(book) + one.key;
      const all = [...literal.pieces, ...(literal.translations ?? []).flatMap(({ pieces }) => pieces)];
      const values = lookupValues(all, (piece) => valueCode(piece, (within) => codeOf(within, one)));
      const call = fillTemplate(template, {
        key,
        text: one.found?.message ?? "",
        quote,
        values,
        // Messages whose values have numbers get them in that order.
        pass: reader.syntax.numberedFrom === undefined ? passes.script : inOrder,
      });
      const { before = "", after = "" } = literal.frame ?? {};
      const isInMarkup = /^(?:content|phrase|attribute)$/.test(literal.form);
      return [{ ...literal.span, replacement: before + (isInMarkup ? `{${call}}` : call) + after }];
    });
  };
  const codeOf = (span: Span, own: Keyed): string => {
    const edits = editsWithin(span, own).map((edit) => ({
      ...edit,
      start: edit.start - span.start,
      end: edit.end - span.start,
    }));
    return applyEdits(text.slice(span.start, span.end), edits);
  };
  const edits = [...deferrals(chosen), ...editsWithin(part.span), ...watched(chosen, part, setup, text)];
  const called = new Set(
    [...alsoCalled, ...[...templates].flatMap(namesCalled)].map((name) => variableOf(name, part)),
  );
  const isBare = !hasSemicolons(part);
  const setups = setupEdits(chosen, part, setup, called);
  const needed = imports
    .filter((line) => line.names.some(({ local }) => called.has(local)))
    .map((line) => relativeImport(line, part.file, [...called], quote))
    .flatMap((line) => (line ? [isBare ? { ...line, line: bareLine(line.line) } : line] : []));
  const top = [...importEdits(program, text, needed, part.isWhole ? undefined : part.span.start)];
  if (setups === "top" && setup) {
    const last = top.findIndex(({ start, end }) => start === end && topLevelEdit(part, "").start === start);
    const whole = topLevelEdit(part, setup.line);
    const line = isBare ? withBareSetup(whole, setup, text) : whole;
    if (last < 0) top.push(line);
    else top[last] = { ...line, replacement: (top[last]?.replacement ?? "") + line.replacement };
    return [...edits, ...top];
  }
  const own = setups === "top" ? [] : setups;
  const added = isBare && setup ? own.map((edit) => withBareSetup(edit, setup, text)) : own;
  return [...edits, ...added, ...top];
}

/**
 * What a function makes anew when the locale changes is something that memoized functions in it depend on: the edits that put it
 * into their lists.
 */
function watched(
  chosen: readonly Keyed[],
  { program, runsPerUse }: ScriptPart,
  setup: SetupLine | undefined,
  text: string,
): readonly TextEdit[] {
  if (runsPerUse) return [];
  const missing = new Map<ArrayExpression, Set<string>>();
  for (const { literal, by } of chosen) {
    // What the whole file has made is the same for all of its functions.
    const names = by
      ? [rootOf(by.name)].filter((name) => isShadowed(program, literal.span.start, name))
      : (setup?.names ?? []);
    if (names.length === 0) continue;
    for (const list of listsAround(program, literal.span)) {
      const listed = list.elements.map((one) => (one ? text.slice(one.start, one.end) : ""));
      const lacking = missing.get(list) ?? new Set();
      for (const name of names) if (!listed.includes(name)) lacking.add(name);
      missing.set(list, lacking);
    }
  }
  return [...missing].flatMap(([list, names]): TextEdit[] => {
    if (names.size === 0) return [];
    const last = list.elements.at(-1);
    const at = last?.end ?? list.end - 1;
    return [{ start: at, end: at, replacement: (last ? ", " : "") + [...names].join(", ") }];
  });
}

/** The lists of what hooks depend on, of the hooks whose function holds a place: `useCallback(() => …, [name])`. */
function listsAround(program: Program, span: Span): readonly ArrayExpression[] {
  const found: ArrayExpression[] = [];
  let node: Node | undefined = program;
  while (node) {
    if (node.type === "CallExpression") {
      const { callee } = node;
      const called = callee.type === "MemberExpression" ? callee.property : callee;
      const [made] = node.arguments;
      const list = node.arguments.at(-1);
      if (
        called.type === "Identifier" &&
        // An effect that waits for more would run more often than it did.
        /^use(?!\w*Effect$)[A-Z]/.test(called.name) &&
        made &&
        /Function/.test(made.type) &&
        contains(made, span) &&
        list?.type === "ArrayExpression"
      )
        found.push(list);
    }
    node = childrenOf(node).find((child) => contains(child, span));
  }
  return found;
}

/** What makes constants be read when they are shown, each once: several texts may be members of one. */
function deferrals(chosen: readonly Keyed[]): readonly TextEdit[] {
  const edits = new Map<string, TextEdit>();
  for (const { deferral = [] } of chosen)
    for (const edit of deferral) edits.set(`${edit.start}-${edit.end}-${edit.replacement}`, edit);
  return [...edits.values()];
}

/** The names that a template's lookups begin with: what has to be in scope. */
export function namesCalled(template: string): readonly string[] {
  const object = objectOf(template);
  return [
    ...[callAroundKey(template) ?? [], calledIn(template)].flat().map((name) => name.split(".")[0] ?? name),
    ...(object === undefined ? [] : [object]),
  ];
}

/**
 * The set-up statements that the lookups of a script need, each once; what they call joins the names that are called.
 * `top` for one at the top level.
 */
function setupEdits(
  chosen: readonly Keyed[],
  part: ScriptPart,
  setup: SetupLine | undefined,
  called: Set<string>,
): TextEdit[] | "top" {
  const { program, text } = part;
  if (!setup?.names.some((name) => called.has(name) && moduleBinding(program, name) === undefined)) return [];
  const places = new Map<number, SetupPlace>();
  if (!part.runsPerUse)
    for (const { literal } of chosen) {
      const place = setupPlace(program, text, literal.span.start, setup);
      if (place?.state === "free") places.set(place.start, place);
    }
  for (const name of setup.names) called.delete(name);
  if ((places.size > 0 || part.runsPerUse) && setup.callee !== undefined) called.add(setup.callee);
  return part.runsPerUse ? "top" : [...places.values()].flatMap(({ edits }) => edits);
}

/** The import line as one file writes it: `{to:web/messages}` becomes the way there, and only names in use stay. */
function relativeImport(
  line: ImportLine,
  file: string,
  called: readonly string[],
  quote: '"' | "'",
): ImportLine | undefined {
  const written = line.line.replace(/\{to:([^{}]+)\}/, (_, target: string) => {
    const way = posix.relative(posix.dirname(file), target);
    return way.startsWith(".") ? way : `./${way}`;
  });
  const read = readImportLine(quote === "'" ? written.replaceAll('"', "'") : written);
  if (!read) return undefined;
  const names = read.names.filter(({ local, named }) => !named || called.includes(local));
  const unused = read.names.filter((name) => !names.includes(name));
  if (unused.length === 0) return read;
  const kept = names.filter(({ named }) => named).map((name) => name.written);
  return readImportLine(read.line.replace(/\{[^{}]*\}/, `{ ${kept.join(", ")} }`));
}

/** Whether a script ends its statements with semicolons, as far as those show that need none. */
function hasSemicolons({ program, text }: ScriptPart): boolean {
  const ended = program.body.filter(({ type }) =>
    /^(?:Import|ExportAll|Variable|Expression)(?:Declaration|Statement)?$/.test(type),
  );
  return ended.length < 2 || ended.some(({ start, end }) => text.slice(start, end).endsWith(";"));
}

/** A line as a script without semicolons has it. */
function bareLine(line: string): string {
  return line.replace(/;\s*$/, "");
}

/** An edit that adds a set-up line, without its semicolon; what follows must not be taken for more of the line. */
function withBareSetup(edit: TextEdit, { line }: SetupLine, text: string): TextEdit {
  const joins = /^\s*[([`+\-/*.,]/.test(text.slice(edit.end, edit.end + 400));
  // Only the end of a line ends a statement as well.
  const at = edit.replacement.indexOf(line);
  const isLine =
    at >= 0 && /^\r?\n/.test(edit.replacement.slice(at + line.length) + text.slice(edit.end, edit.end + 2));
  return joins || !isLine
    ? edit
    : { ...edit, replacement: edit.replacement.replace(line, () => bareLine(line)) };
}

/** The quote that the file's own strings use more. */
function dominantQuote(text: string): '"' | "'" {
  const imports = [...text.matchAll(/\bfrom\s*(["'])/g)].map((match) => match[1]);
  const marks =
    imports.length > 0 ? imports : [...text.matchAll(/[=(,:[]\s*(["'])/g)].map((match) => match[1]);
  const single = marks.filter((mark) => mark === "'").length;
  return single > marks.length - single ? "'" : '"';
}
