import type { Program } from "oxc-parser";
import { countOf, lookupValues, pluralExample, takesAll } from "./emit.js";
import { isCommonModule } from "../source/readers/script/module-kind.js";
import { isOfPages } from "./page-scripts.js";
import { notices } from "../message/notices.js";
import { literalMessage } from "../source/literal-message.js";
import type { BoundLookup, Literal, Obstacle, SourceFile } from "../source/model.js";
import { contains, type Span } from "../text/span.js";
import {
  callAroundKey,
  calledIn,
  defaultCall,
  givenBeforeKey,
  objectOf,
  usesDefaultCall,
} from "../source/book-code.js";
import {
  callsOf,
  type ImportLine,
  type SetupLine,
  innermostBinding,
  isShadowed,
  membersOf,
  moduleBinding,
  setupPlace,
} from "../source/readers/script/scopes.js";
import { variableOf } from "../source/dialects/dialect.js";
import { literally } from "../text/key-pattern.js";
import { thisHas } from "./this-receiver.js";
import { callOf, type ScriptPart, type ScriptsNaming } from "./script-parts.js";
import { formByHelper, tooManyChoices } from "./host-refusal.js";
import { hasSetup, rootOf, type ScriptEmission, templateAt } from "./script-template.js";

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
  "taken-in-part": {
    message: 'the script takes "{other}" from what makes lookups, and not "{name}"',
    remedy: 'take "{name}" there too, then extract again',
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
  "no-plural-script": {
    message: "another lookup chooses the forms of plurals, and the book does not say how it is written here",
    remedy: "set emit.plural to that call, for example to {example}",
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
  "page-script": {
    message: 'pages load this script as it is, so that it cannot bring in "{name}"',
    remedy:
      "load it as a module, or let a script before it give the lookup to all: emit.call without emit.import",
  },
  "no-require": {
    message: '"{name}" is taken in by require(), and nothing shows that this file knows that',
    remedy: "bring the lookup in as this file brings in others, then extract again",
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
  const { book, reader, imports, setup, scriptsNaming, ofPages } = emission;
  if (literalMessage(literal.pieces, reader) === undefined) return tooManyChoices(reader);
  if (literal.context.atLoad && !book.emit.atLoad && !part.runsPerUse) return say("at-load-script", {});
  if (isHoisted(part, literal.span)) return say("at-load-script", {});
  for (const piece of literal.pieces) {
    const helped = piece.kind === "argument" ? formByHelper(piece.code) : undefined;
    if (helped) return helped;
  }
  const counted = countOf(literal.pieces)?.name;
  // What the file makes for itself is not known to choose the forms of plurals.
  if (counted !== undefined && (book.emit.plural === false || (by && book.emit.plural !== undefined)))
    return say("no-plural-script", { example: pluralExample });
  if (by) {
    const name = rootOf(by.name);
    return isHidden(part, literal.span.start, by.name, by.scope.start) ? say("taken", { name }) : undefined;
  }
  const template = templateAt(part, literal, emission);
  // The usual call is not that of a book whose lookups are others.
  if (template === defaultCall && book.emit.call === undefined && !usesDefaultCall(book.lookups))
    return say("no-call-script", { example: JSON.stringify(defaultCall) });
  if (template === undefined) return say("rich-script", { example: '"rich("{key}"{args})"' });
  const values = lookupValues(literal.pieces, (piece) => piece.name);
  if (!takesAll(template, values, counted)) return say("no-args-script", { args: "{args}" });
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
    if (part.runsPerUse) {
      const other = binding === undefined ? otherDeclared(part, setup) : undefined;
      if (other !== undefined) return say("taken-in-part", { name, other });
      return isShadowed(program, start, name) || (binding !== undefined && !hasSetup(part, setup))
        ? isTaken
        : undefined;
    }
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
  if (!binding && line && isLoaded(part, line, ofPages)) return say("page-script", { name });
  if (!binding && line && !line.isRequire && isOfOldModules(part)) return say("no-import", { name });
  if (!binding && line?.isRequire && !isOfOldModules(part)) return say("no-require", { name });
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
  const instance = parts.find(({ runsPerUse }) => runsPerUse);
  const isPerUse = instance !== undefined;
  if (isBroughtIn && instance) {
    const isNew = setup?.names.includes(name) === true && moduleBinding(instance.program, name) === undefined;
    const other = isNew ? otherDeclared(instance, setup) : undefined;
    return other === undefined ? undefined : say("taken-in-part", { name, other });
  }
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

/** The name that a script has already of those that the set-up statement makes, and would have twice. */
function otherDeclared({ program }: ScriptPart, setup: SetupLine | undefined): string | undefined {
  return setup?.names.find((name) => moduleBinding(program, name) !== undefined);
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
function isFromAnotherProgram({ line, isRequire }: ImportLine, { text, file }: ScriptPart): boolean {
  // What is taken in by require() is for programs of a server.
  if (isRequire) return false;
  const [, part] = /\{to:([^/{}]{1,80})\//.exec(line) ?? [];
  return part !== undefined && file.includes("/") && !file.startsWith(`${part}/`) && takesInNode(text);
}

/** Whether pages load a script as it is, and not as a module that could bring something in by a line. */
function isLoaded(
  { file, program, isWhole }: ScriptPart,
  { isRequire }: ImportLine,
  ofPages: readonly string[],
): boolean {
  if (!isWhole || !file.endsWith(".js")) return false;
  return !isModule(program) && isOfPages(file, ofPages, !isRequire);
}

/** Whether a script imports or exports by statements (ECMA-262, section 16.2). */
function isModule({ body }: Program): boolean {
  return body.some(({ type }) => /^(?:Import|Export)/.test(type));
}

/** Whether a script is a CommonJS module, in which nothing is imported by a statement. */
function isOfOldModules({ file, text, program, isWhole }: ScriptPart): boolean {
  return isWhole && /\.c?js$/.test(file) && isCommonModule(text) && !isModule(program);
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
