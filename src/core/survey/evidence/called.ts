import { fixedText, type Literal } from "../../source/model.js";
import type { Habits } from "../../source/languages/habits.js";
import { evidence, isTerminalFile, isTerminalProgram, neighbor, type Place } from "../company.js";
import {
  builder,
  lookupByName,
  makesField,
  makesPart,
  opensDialog,
  sentError,
  speaking,
  textVerb,
  writesForDevelopers,
} from "../calls.js";
import { shapeOf } from "../shape.js";
import { weights } from "../weights.js";
import { byName } from "./names.js";
import type { EvidenceSource } from "./source.js";
import { debugged, used } from "./uses.js";

/** Whether a call gets a text and, as its next string, code that looks the same text up: `add("Boats", "${_("Boats")}")`. */
function isLookedUpBeside({ context, pieces }: Literal, place: Place): boolean {
  const next = neighbor(place, 1);
  if (next?.context.name !== context.name || next?.context.index !== 1) return false;
  const [text, other] = [fixedText(pieces), fixedText(next.pieces)];
  return ['"', "'"].some((quote) => {
    const at = other.indexOf(`(${quote}${text}${quote})`);
    const callee = /[\w$.]{1,80}$/.exec(other.slice(Math.max(0, at - 80), Math.max(0, at)))?.[0];
    return callee !== undefined && lookupByName.test(callee);
  });
}

/** Calls that choose one of the forms that they are given by a number. */
export const pluralizing = /(?:^|\.)pluralize$/;

export const called: EvidenceSource = (literal, habits, own, place) => {
  const { context } = literal;
  if (context.role !== "argument" && !(context.role === "property" && context.element)) return undefined;
  const callee = ((context.role === "argument" ? context.name : context.element) ?? "").replace(/<\w*>$/, "");
  if (context.role === "property") return undefined;
  if (habits.developerCall.test(callee) && habits.printingCall.test(callee) && isTerminalProgram(place))
    return evidence("printed", `printed by ${callee}(), in a program for terminals`);
  if (habits.errorStream.test(callee))
    return /^Usage\b/.test(fixedText(literal.pieces).trim())
      ? evidence("printed", `how the program is called, written by ${callee}()`)
      : isLongText(literal) && printsToo(place, habits)
        ? evidence("printed", `a sentence written by ${callee}()`)
        : evidence("developerError", `written by ${callee}() where errors go`);
  if (writesForDevelopers(callee, habits))
    return evidence("codeCall", `written by ${callee}() for developers`);
  if ((context.index ?? 0) <= 2 && lookupByName.test(callee) && !own?.textCalls.includes(callee))
    return evidence("lookedUp", `looked up by ${callee.startsWith("|") ? callee : `${callee}()`} already`);
  if (context.index === 0 && isLookedUpBeside(literal, place))
    return evidence("lookedUp", "looked up beside it, for the same call");
  if (context.index === 0 && makesPart.test(callee) && !habits.textCall.test(callee)) {
    const text = fixedText(literal.pieces);
    if (/^\s*[\p{Lu}\p{N}].*(?:\s|\p{Ll})|:\s*$/u.test(text))
      return evidence("partLabel", `the label of what ${callee}() makes`);
  }
  if (opensDialog.test(callee) && /^\p{Lu}/u.test(fixedText(literal.pieces)) && !habits.textCall.test(callee))
    return evidence("partLabel", `in what ${callee}() opens`);
  // A field of a form is named for the program first: `addSelect("kind", "Kind of bread:")`.
  if (context.index === 1 && makesField.test(callee)) {
    const named = neighbor(place, -1);
    const isNamed = named?.context.index === 0 && named.context.name === context.name;
    if (
      isNamed &&
      /^[a-z][\w.-]*$/.test(fixedText(named.pieces)) &&
      /^\p{Lu}/u.test(fixedText(literal.pieces))
    )
      return evidence("partLabel", `the label of what ${callee}() makes`);
  }
  if (context.index === 0 && habits.namedFirst.test(callee) && !/\s/.test(fixedText(literal.pieces).trim()))
    return evidence("codeCall", `names what ${callee}() is about`);
  // What stands above a command says what it is for, where the call is given nothing else.
  const next = neighbor(place, 1)?.context;
  if (
    /(?:^|\.)desc$/.test(callee) &&
    context.index === 0 &&
    !(next?.name === context.name && next?.index === 1)
  )
    return evidence("inTerminal", `what ${callee}() tells of, to who runs it in a terminal`);
  const shown = habits.textAt.find(([call]) => call.test(callee));
  if (shown)
    return (context.index ?? 0) >= shown[1] && (context.index ?? 0) <= (shown[2] ?? shown[1])
      ? evidence("textCall", `told of by ${callee}()`)
      : evidence("codeCall", `names what ${callee}() is about`);
  if (context.index === 1 && habits.namingCall.test(callee)) {
    const named = neighbor(place, -1);
    const name = named?.context.index === 0 && named.context.name === callee ? fixedText(named.pieces) : "";
    if (habits.textAttributes.has(name)) return evidence("textAttribute", `${name}, set by ${callee}()`);
    const holder = callee.replace(/\.[^.]*$/, "");
    if (holder !== callee && habits.textHolder.test(holder))
      return evidence("textHolder", `one of ${holder}`);
    return (
      byName(name, `${name}, set by ${callee}()`, habits) ??
      (/-/.test(name)
        ? evidence("codeCall", `argument of ${callee}()`)
        : evidence("unknownCall", `argument of ${callee}()`))
    );
  }
  // What a call gets or looks for is named for the program.
  if (
    context.index === 0 &&
    /^(?:[gG]et|[fF]ind|[hH]as|[iI]s|[cC]ontains|[rR]emove|[fF]etch|[lL]oad)(?:[A-Z_]\w{0,30})?$/.test(
      lastWordOf(callee),
    ) &&
    shapeOf(fixedText(literal.pieces)).name === "capitalized"
  )
    return evidence("got", `named for ${callee}(), which gets it`);
  // The forms that a number chooses are words, whatever a program calls them.
  if (pluralizing.test(callee)) return evidence("pluralByHand", `a form that ${callee}() chooses`);
  if (/(?:starts?_?with|ends?_?with|has_?prefix|has_?suffix)$/i.test(callee.slice(-40)))
    return evidence("codeCall", `looked for by ${callee}()`);
  // What `$` is given is looked for in the page, or put into it.
  if (/^(?:\$|jQuery)$/.test(callee) && !/^\s*</.test(fixedText(literal.pieces)))
    return evidence("codeCall", `looked for by ${callee}()`);
  if (habits.printingCall.test(callee)) return evidence("printed", `printed by ${callee}()`);
  if (textVerb.test(callee) || habits.textCall.test(callee) || own?.textCalls.includes(callee)) {
    if (isNameOfNext(literal, place)) return evidence("codeCall", `names what ${callee}() is about`);
    if (isTerminalFile(place, habits.terminalFile))
      return evidence("inTerminal", `shown by ${callee}(), in a program for terminals`);
    // Behind its text a button is told how it looks.
    if (
      (context.index ?? 0) > 0 &&
      /button$/i.test(callee) &&
      /^[a-z]+(?:[ -][a-z]+){0,3}$/.test(fixedText(literal.pieces))
    )
      return evidence("unknownCall", `argument of ${callee}()`);
    // And what it is called by the program: `Label(say("Boats"), "filter_boats")`.
    if ((context.index ?? 0) > 0 && shapeOf(fixedText(literal.pieces)).name === "identifier")
      return evidence("codeCall", `names what ${callee}() is about`);
    return evidence("textCall", `shown by ${callee}()`);
  }
  const method = /\.(\w+)$/.exec(callee)?.[1];
  if (method !== undefined && context.index === 0 && builder.test(method))
    return evidence("textBuilder", `the ${method} that ${callee}() sets`);
  const holder = /^(.*)\.(?:push|add|append|unshift|prepend|concat)$/i.exec(callee)?.[1];
  if (holder !== undefined && habits.textHolder.test(holder))
    return evidence("textHolder", `one of ${holder}`);
  if (
    holder !== undefined &&
    /(?:^|[._>]|[a-z])(?:[pP]arts|[wW]ords|[pP]ieces|[bB]its|[sS]entences|[pP]hrases)$/.test(holder)
  )
    return evidence("unknownHelper", `one of ${holder}`);
  if (context.isShown) return evidence("textCall", `message of ${callee}, shown where it is caught`);
  if (sentError.test(callee)) return evidence("printed", `sent to who asked, by ${callee}`);
  if (habits.errorCall.test(callee))
    return evidence("developerError", `message of ${callee}, which developers read`);
  if (own?.codeCalls.includes(callee)) return evidence("codeCall", `argument of ${callee}()`);
  // A part of a page is made by its label, where it is not made by its name: `Column::make("Paid on")`.
  const isPart = /(?:Column|Filter|Field|Input|Action|Button|Tab|Section|Card|Stat)\.make$/.test(callee);
  if (isPart && context.index === 0 && /^\p{Lu}/u.test(fixedText(literal.pieces)))
    return isTextApart(callee, place)
      ? evidence("codeCall", `names what ${callee}() makes, whose text is given apart`)
      : evidence("textBuilder", `what ${callee}() makes is called`);
  // What stands for what is not found: `subjects.get(kind, "News from the fold")`.
  if (
    context.index === 1 &&
    /\.(?:get|getOrDefault|fetch|pop)$/.test(callee) &&
    /\S \S/.test(fixedText(literal.pieces))
  )
    return evidence("unknownHelper", `what ${callee}() gives where there is nothing`);
  if (habits.codeCall.test(callee) || /(?:^|[A-Za-z.])[fF]ont(?:Family)?$/.test(callee))
    return isLongText(literal)
      ? evidence("codeCallWithText", `argument of ${callee}(), though it reads as a text`)
      : evidence("codeCall", `argument of ${callee}()`);
  // What a call that nobody knows makes of it goes on to the call around it.
  const { within } = context;
  if (within !== undefined && writesForDevelopers(within, habits) && !isTerminalProgram(place))
    return evidence("codeCall", `written by ${within}() for developers`);
  // What somebody may do is named for the program: `hasPermission("Delete visits")`.
  if (
    /(?:has|check|require|is)_?(?:\w{0,20}_?)(?:Access|Permission|Privilege|Role|Right|Allowed|Granted)s?$/i.test(
      callee,
    )
  )
    return evidence("codeCall", `argument of ${callee}()`);
  if (isReadBy(callee, literal, place))
    return evidence("codeCall", `what ${callee}() gives is shown by what is around it`);
  if (speaking.test(callee)) return evidence("textBuilder", `${callee}() tells or asks by its name`);
  return context.isOutput || context.language === "markup"
    ? evidence("unknownHelper", `put on the page by ${callee || "a call"}()`)
    : evidence("unknownCall", `argument of ${callee || "a call"}()`);
};

const printing = new WeakMap<readonly Literal[], boolean>();

/** Whether a file also writes to the terminal what is no error, as programs do that are used there. */
function printsToo({ literals }: Place, habits: Habits): boolean {
  let is = printing.get(literals);
  if (is === undefined) {
    is = literals.some(
      ({ context: { role, name = "" } }) => role === "argument" && habits.printingCall.test(name),
    );
    printing.set(literals, is);
  }
  return is;
}

/** Whether a literal is three words or more that start and end as a sentence does, as names and settings never do. */
function isLongText({ pieces }: Literal): boolean {
  const text = fixedText(pieces).trim();
  return (
    shapeOf(text).name === "sentence" && /^[\p{Lu}][^]*[.!?…]$/u.test(text) && /\S\s+\S+\s+\S/.test(text)
  );
}

/** Whether a word in lower case is only the name of what the next argument says: `setError("email", { message: "…" })`. */
function isNameOfNext({ context, pieces }: Literal, { literals, index }: Place): boolean {
  if (context.index !== 0 || !/^\p{Ll}[\p{L}\p{N}_.-]*$/u.test(fixedText(pieces).trim())) return false;
  let at = index + 1;
  while (literals[at]?.context.role === "key") at++;
  const next = literals[at]?.context;
  return next?.role === "argument"
    ? next.name === context.name && next.index === 1
    : context.language === "script" && next?.role === "property" && next.element === context.name;
}

/** Whether a call is given a text by a name elsewhere in the file, behind what it is given first: `Button.make("Remove", text=say("…"))`. */
function isTextApart(callee: string, { text }: Place): boolean {
  const called = callee.replace(/\W/g, "\\$&");
  return (
    text !== undefined &&
    new RegExp(
      `(?<!\\w)${called}\\(\\s{0,99}["'][^"'\\n]{1,60}["']\\s?,\\s{0,99}(?:[^()"']{0,200},\\s{0,99})?(?:text|label|title|caption)\\s?[=:](?!=)`,
    ).test(text)
  );
}

/** Whether a method of another object is asked for something by a word, and its answer is put out: `echo $boat->display("Name")`. */
function isReadBy(callee: string, literal: Literal, { text }: Place): boolean {
  if (text === undefined || !/^(?!this\b|self\b).{1,80}[.>]display$/.test(callee)) return false;
  return (
    /^\w{1,40}$/.test(fixedText(literal.pieces)) &&
    /(?:echo|print|return|=>|[=.,(?:])\s{0,9}\$?[\w.>()-]{1,80}\(\s?$/.test(
      text.slice(Math.max(literal.span.start - 120, 0), literal.span.start),
    )
  );
}

/** Calls that put markup into a page, as none does that reads it. */
const insertion =
  /^(?:\w{0,20}_)?(?:append|prepend|add|html|before|after|write(?:ln)?|replaceWith|insert\w{0,20}|wrap\w{0,20}|set|push|put|render|print|echo|trusted|safe)$/i;

/** The last name of a callee. */
function lastWordOf(callee: string): string {
  return callee.slice(-60).split(/[^\w]/).at(-1) ?? "";
}

/** What a program does with the string of markup that a text is in: it is none where nobody is shown that. */
export const around: EvidenceSource = (literal, habits, own, place) => {
  const { around: context } = literal.context;
  if (!context) return undefined;
  const whole = { ...literal, context };
  // Markup that a program looks for, or takes out of a page: `getBetween(page, "Sent to: <b>", "</b>")`.
  if (
    context.role === "argument" &&
    /^(?:get|find|extract|index|last_?index|match|contains|skip|split|strip|remove|search|has|is|test)(?=[A-Z_]|$)(?!\w{0,30}By)/i.test(
      lastWordOf(context.name ?? ""),
    )
  )
    return evidence("codeCall", `looked for by ${context.name}()`);
  return [called, used, debugged]
    .flatMap((source) => source(whole, habits, own, place) ?? [])
    .filter(
      ({ name }) =>
        weights[name] <= -3 && !(name === "codeCall" && insertion.test(lastWordOf(context.name ?? ""))),
    );
};
