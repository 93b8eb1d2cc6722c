import { countOf, fillTemplate, type LookupValue, lookupValues } from "./emit.js";
import { applyEdits, type TextEdit } from "../text/edits.js";
import { contains, type Span } from "../text/span.js";
import type { ArrayExpression, Node, Program } from "oxc-parser";
import { posix } from "node:path";
import { frontOf } from "../source/book-code.js";
import {
  importEdits,
  childrenOf,
  type ImportLine,
  isShadowed,
  moduleBinding,
  readImportLine,
  type SetupLine,
  setupPlace,
  type SetupPlace,
  topLevelEdit,
} from "../source/readers/script/scopes.js";
import { variableOf } from "../source/dialects/dialect.js";
import { inOrder, passes } from "./hosts.js";
import type { ScriptPart } from "./script-parts.js";
import type { Keyed } from "./rewrite-host.js";
import { namesCalled, rootOf, type ScriptEmission, templateAt } from "./script-template.js";

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
        count: countOf(literal.pieces)?.name,
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
  const imports = [...text.matchAll(/\b(?:from\s*|require\(\s*)(["'])/g)].map((match) => match[1]);
  const marks =
    imports.length > 0 ? imports : [...text.matchAll(/[=(,:[]\s*(["'])/g)].map((match) => match[1]);
  const single = marks.filter((mark) => mark === "'").length;
  return single > marks.length - single ? "'" : '"';
}
