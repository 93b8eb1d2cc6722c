import { rawElements } from "../source/readers/markup/raw-elements.js";
import type { MessageReader } from "../message/parse.js";
import { literalMessage } from "../source/literal-message.js";
import { fixedText, type Literal, type Obstacle, type Piece, type SourceFile } from "../source/model.js";
import { applyIfApart, type TextEdit } from "../text/edits.js";
import type { Span } from "../text/span.js";
import type { Host } from "./hosts.js";

type ArgumentPiece = Extract<Piece, { kind: "argument" }>;

/** Why a text of a template or of code other than script is not replaced; undefined where it is safe. */
export function hostRefusal(
  literal: Literal,
  source: SourceFile,
  host: Host,
  reader: MessageReader,
  atLoad: boolean | undefined,
): Obstacle | undefined {
  const { form, context, pieces, written } = literal;
  if (literal.obstacle) return literal.obstacle;
  if (literal.frame)
    return {
      reason: "several statements return it, and this is no script of its own",
      remedy: "choose the words in a function of the component, or move them by hand",
    };
  if (written !== undefined)
    return {
      reason: "it is a message with plurals or cases already",
      remedy: "move it into the catalog by hand, and pass it its values",
    };
  if (context.atLoad && !atLoad && host.kind === "code")
    return {
      reason: "it is evaluated once, when the file is loaded, before a locale is chosen",
      remedy:
        "move it into the method that uses it, or set emit.atLoad where your lookups can run that early",
    };
  if (literalMessage(pieces, reader) === undefined) return tooManyChoices(reader);
  const isExpression = form === "string" || form === "template";
  if (isExpression && host.kind === "markup" && isInScript(source.text, literal.span.start))
    return {
      reason: "it stands in a script inside of markup, where nothing says which lookups there are",
      remedy: "move the script to a file of its own, or the text by hand",
    };
  if (
    isExpression &&
    !/^(?:["'`]|%[qQ(]|[frFRuUbB$@]{1,2}["']|[\p{L}\d_$@(!])/u.test(source.text.slice(literal.span.start))
  )
    return {
      reason: "it is written in a way that a lookup cannot take the place of",
      remedy: "move it by hand",
    };
  if (pieces.some(({ kind }) => kind === "tag") && host.rich === undefined)
    return {
      reason: "it has elements in it and the book has no way to write that",
      remedy: "set emit.rich, or write the sentence so that the elements are around whole texts",
    };
  const template = form === "attribute" ? host.attribute : isExpression ? host.call : host.content;
  if (template === undefined)
    return {
      reason: "nothing says how a template like this asks for a key",
      remedy: 'set emit.content and emit.attribute, such as "{{ t(\\"{key}\\"{args}) }}"',
    };
  if (!isExpression && host.showsRaw && /[&<"]/.test(fixedText(pieces)))
    return {
      reason: "a sign in it has to be escaped on the page, and what is usual here does not escape",
      remedy: "set emit.content and emit.attribute to templates that escape what the lookup gives",
    };
  const values = valuesOf(pieces);
  if (values.length > 0 && !template.includes("{args}"))
    return {
      reason: "it has values filled in, and the book's template has no place for them",
      remedy: "put {args} into the template in emit",
    };
  for (const { code, span } of values) {
    const island = source.text.slice(span.start, span.end);
    if (!isExpression && !host.readsIsland(island))
      return {
        reason: `the value of “${island}” cannot be passed to a lookup as it is`,
        remedy: "take what it does to the value out of the text, then extract again",
      };
    if (isFormatted(code, context.language))
      return {
        reason: `“${code}” is formatted in place`,
        remedy: "format the value in a variable, or write the message by hand with a typed argument",
      };
  }
  return undefined;
}

/** Why words that code chooses stay: the book's messages have no room for them, or nobody's have. */
export function tooManyChoices({ syntax, plurals }: MessageReader): Obstacle {
  return syntax === "icu" || syntax === "mf2" || plurals !== "inline"
    ? {
        reason: "its words are chosen by a value in a way that no plural and no case says",
        remedy: "write one message for each case",
      }
    : {
        reason: `its words are chosen by a value, and messages in ${syntax} have no plurals or cases`,
        remedy: "set “plurals” to where the book keeps plural forms, or write one message for each case",
      };
}

/** What takes a text's place. */
export function hostEdit(
  literal: Literal,
  source: SourceFile,
  host: Host,
  key: string,
  codeOf: (piece: ArgumentPiece) => string = ({ code }) => code,
): TextEdit {
  const { form, span, pieces } = literal;
  const values = valuesOf(pieces).map((piece) => [piece.name, codeOf(piece)] as const);
  const fill = (template: string, quote: '"' | "'") =>
    template
      .replace(/(["'])\{key\}\1/, `${quote}{key}${quote}`)
      .replace("{key}", () => key)
      .replace("{args}", () => host.pass(values));
  const first = source.text[span.start];
  if (form === "string" || form === "template") {
    // In an attribute's value its own quotes are taken, and so are those that a template literal avoids.
    const code = source.text.slice(span.start, span.end);
    const quote = host.kind === "markup" && /['`]/.test(code) && !code.includes('"') ? "'" : '"';
    return { ...span, replacement: fill(host.call, quote) };
  }
  const hasTags = pieces.some(({ kind }) => kind === "tag");
  if (form !== "attribute")
    return { ...span, replacement: fill((hasTags ? host.rich : host.content) ?? "", '"') };
  const outer = first === "'" ? "'" : '"';
  const inner = outer === '"' ? "'" : '"';
  const template = host.attribute ?? "";
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
    replacement: fill(template, /"[^"]*\{key\}/.test(template) ? "'" : '"').replace("{name}", () => name),
  };
}

/** What went wrong in a rewritten file; undefined where it asks for each key, and its other texts are what they were. */
export function lostInRewrite(
  before: SourceFile,
  after: SourceFile,
  chosen: readonly { readonly literal: Literal; readonly key: string }[],
): string | undefined {
  const [problem] = after.problems;
  if (problem && before.problems.length === 0) return `would not parse any more (${problem.message})`;
  const keys = new Set(after.lookups.flatMap(({ key }) => (key.kind === "fixed" ? [key.value] : [])));
  const lost = chosen.find(({ key }) => !keys.has(key));
  if (lost) return `would not be seen to ask for ${lost.key}`;
  const gone = new Set(chosen.map(({ literal }) => literal));
  const inside = ({ span }: Literal) =>
    chosen.some(({ literal }) => literal.span.start <= span.start && span.end <= literal.span.end);
  const kept = new Set(after.literals.map(({ pieces }) => fixedText(pieces)));
  const missing = before.literals.find(
    (one) => !gone.has(one) && !inside(one) && !kept.has(fixedText(one.pieces)),
  );
  return missing ? `would change “${fixedText(missing.pieces)}” too` : undefined;
}

function valuesOf(pieces: readonly Piece[]): readonly ArgumentPiece[] {
  const found = new Map<string, ArgumentPiece>();
  const collect = (list: readonly Piece[]) => {
    for (const piece of list) {
      if (piece.kind === "argument" && !found.has(piece.name)) found.set(piece.name, piece);
      if (piece.kind === "choice") {
        const { name, value, span } = piece;
        if (!found.has(name))
          found.set(name, { kind: "argument", name, code: value, span, mayBeAbsent: false });
        for (const branch of piece.branches) collect(branch.pieces);
      }
      if (piece.kind === "tag") collect(piece.pieces);
    }
  };
  collect(pieces);
  return [...found.values()];
}

/** Whether an interpolation says how its value is written: `{price:.2f}`, `{name!r}`. */
function isFormatted(code: string, language: Literal["context"]["language"]): boolean {
  if (language !== "python" && language !== "csharp") return false;
  const bare = code.replace(/\([^()]*\)|\[[^[\]]*\]|"[^"]*"|'[^']*'/g, "");
  return language === "python" ? /![rsa]\b|:(?!=)/.test(bare) : !bare.includes("?") && /[:,]/.test(bare);
}

function isInScript(text: string, offset: number): boolean {
  for (const { name, start, end } of rawElements(text))
    if (name === "script" && start <= offset && offset < end) return true;
  return false;
}

/** A text with its key, on its way into the code. */
export interface Keyed {
  readonly literal: Literal;
  readonly key: string;
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
  const editsIn = (items: readonly Item[]): TextEdit[] => {
    const outermost = items.filter(
      (one) =>
        !items.some(
          (other) =>
            other !== one && within(one.literal.span, other.literal.span.start, other.literal.span.end),
        ),
    );
    return outermost.map((one) => {
      done.add(one);
      return hostEdit(one.literal, source, host, one.key, (piece) => {
        const start = source.text.indexOf(piece.code, piece.span.start);
        const end = start + piece.code.length;
        if (start < 0 || end > piece.span.end) return piece.code;
        const inner = editsIn(
          items.filter((other) => other !== one && within(other.literal.span, start, end)),
        );
        const moved = inner.map((edit) => ({ ...edit, start: edit.start - start, end: edit.end - start }));
        return applyIfApart(piece.code, moved) ?? piece.code;
      });
    });
  };
  return { edits: editsIn(chosen), done };
}
