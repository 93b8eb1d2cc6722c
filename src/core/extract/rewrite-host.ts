import { languageNamed } from "../source/languages/index.js";
import { countOf, fillTemplate, lookupValues } from "./emit.js";
import type { BoundLookup, Literal, SourceFile } from "../source/model.js";
import { applyIfApart, type TextEdit } from "../text/edits.js";
import type { Span } from "../text/span.js";
import type { Labels } from "./constant-labels.js";
import { type Host, hostFor, isAttribute, templateIn } from "./hosts.js";
import { annotated, isGiven, tagBefore, valueCode } from "./literal-place.js";
import { outermost } from "./rewritten.js";

/** A text with its key, on its way into the code; `by` is the lookup that its file makes itself. */
export interface Keyed {
  readonly literal: Literal;
  readonly key: string;
  readonly by?: BoundLookup;
  /** What was found of it: its message. */
  readonly found?: { readonly message: string };
  /** What makes the constant that it is in be read when it is shown, and not when the file is loaded. */
  readonly deferral?: readonly TextEdit[];
  /** Set where its key takes its place, and what hands it out looks that up. */
  readonly labels?: Labels;
}

/**
 * The edits for the texts of one file. A text inside of another's value is written there; one that stands where the other
 * leaves nothing of it is left out, and not among those that are done.
 */
export function hostEdits<Item extends Keyed>(
  chosen: readonly Item[],
  source: SourceFile,
  host: Host,
): { readonly edits: TextEdit[]; readonly done: ReadonlySet<Item> } {
  const done = new Set<Item>();
  const within = (span: Span, start: number, end: number) => start <= span.start && span.end <= end;
  const editsIn = (given: readonly Item[]): TextEdit[] => {
    const items = given.filter(
      ({ labels }) =>
        !labels ||
        labels.members.every(({ span }) => given.some((one) => one.literal.span.start === span.start)),
    );
    const first = outermost(items.map((item) => ({ item, span: item.literal.span })));
    return first.map(({ item: one }) => {
      done.add(one);
      return hostEdit(one, source, hostFor(host, one.literal), (code, span) => {
        const start = source.text.indexOf(code, span.start);
        const end = start + code.length;
        if (start < 0 || end > span.end) return code;
        const inner = editsIn(
          items.filter((other) => other !== one && within(other.literal.span, start, end)),
        );
        const moved = inner.map((edit) => ({ ...edit, start: edit.start - start, end: edit.end - start }));
        return applyIfApart(code, moved) ?? code;
      });
    });
  };
  const edits = editsIn(chosen);
  const reads = new Map<number, TextEdit>();
  for (const { labels } of done) for (const read of labels?.reads ?? []) reads.set(read.start, read);
  return { edits: [...edits, ...reads.values()], done };
}

/** What takes a text's place. */
function hostEdit(
  { literal, key, labels, found }: Keyed,
  source: SourceFile,
  host: Host,
  codeOf: (code: string, span: Span) => string,
): TextEdit {
  const { form, span, pieces } = literal;
  if (labels) return { ...span, replacement: `"${key}"` };
  if (annotated(literal, host) && host.annotation !== undefined)
    return { ...span, replacement: `"${host.annotation.replace("{key}", () => host.front + key)}"` };
  // What a pattern of such messages was given is written as before.
  const asJoined = /MessageFormat/.test(source.text.slice(span.start, span.end)) ? undefined : host.asJoined;
  const values = lookupValues(pieces, (piece) => {
    const code = valueCode(piece);
    if (code === undefined) return undefined;
    return codeOf(asJoined?.(code, source.text.slice(0, piece.span.start)) ?? code, piece.span);
  });
  const { pass } = host;
  const text = found?.message ?? "";
  // In double quotes some languages read these signs as the start of a value; in single ones they know no line breaks by name.
  const takesVariables = languageNamed(host.language)?.takesVariablesIn === true;
  const isPlain = takesVariables && /[$#]/.test(text);
  const fill = (template: string, wanted: '"' | "'") => {
    const quote = host.onlyQuote ?? (isPlain && template.includes("{text}") ? "'" : wanted);
    const keepsLines = takesVariables && quote === "'";
    const count = countOf(pieces)?.name;
    return fillTemplate(template, { key: host.front + key, text, quote, values, count, pass, keepsLines });
  };
  const ownQuote = (template: string) => (template.includes("'{key}'") ? "'" : '"');
  const first = source.text[span.start];
  if (form === "string" || form === "template") {
    // In an attribute's value its own quotes are taken, and so are those that a template literal avoids.
    const { before = "", after = "" } = literal.frame ?? {};
    const code = before + source.text.slice(span.start, span.end) + after;
    const quoted = literal.context.around && literal.context.role === "attribute";
    const ofAttribute = quoted ? host.quotedCall(values.length > 0) : undefined;
    const call = ofAttribute ?? templateIn(host, "call", literal, values.length > 0) ?? "";
    const quote = host.kind === "markup" && /['`]/.test(code) && !code.includes('"') ? "'" : ownQuote(call);
    const { asString, escapesMarkup } = languageNamed(literal.context.language) ?? {};
    const escapes = literal.betweenApostrophes && ofAttribute === undefined && escapesMarkup !== undefined;
    const written = escapes ? escapesMarkup(fill(call, quote)) : fill(call, quote);
    const isPlain =
      host.atLoad && asString !== undefined && !literal.context.atLoad && !isGiven(literal, source);
    return { ...span, replacement: before + (isPlain ? asString(written) : written) + after };
  }
  const hasTags = pieces.some(({ kind }) => kind === "tag");
  const content = templateIn(host, "content", literal, values.length > 0);
  if (form !== "attribute" && !hasTags && isAttribute(content)) {
    const at = tagBefore(source.text, span)?.end ?? span.start;
    return { start: at, end: at, replacement: ` ${fill(content ?? "", '"')}` };
  }
  if (form !== "attribute") {
    const template = (hasTags ? host.rich : content) ?? "";
    const { before = "", after = "" } = literal.frame ?? {};
    return { ...span, replacement: before + fill(template, ownQuote(template)) + after };
  }
  // Where nothing is escaped, an apostrophe of a translation would end the value.
  const outer = first === "'" && !(host.showsRaw(form) && source.dialect?.isProgram) ? "'" : '"';
  const inner = outer === '"' ? "'" : '"';
  const template = templateIn(host, "attribute", literal, values.length > 0) ?? "";
  if (!template.includes("{name}")) return { ...span, replacement: outer + fill(template, inner) + outer };
  // A binding takes the attribute's name along.
  const name =
    /(?<![^\s<>"'=])[^\s<>"'=]+(?=\s*=\s*$)/.exec(
      source.text.slice(Math.max(span.start - 300, 0), span.start),
    )?.[0] ?? "";
  const start = source.text.lastIndexOf(name, span.start);
  return {
    start,
    end: span.end,
    replacement: fill(
      template,
      /"[^"]*\{key\}/.test(template) && !template.includes('="{key}"') ? "'" : '"',
    ).replace("{name}", () => name),
  };
}
