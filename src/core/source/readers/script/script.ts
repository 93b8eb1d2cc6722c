import { keyName } from "../../bound-key.js";
import { areLocales, besideLanguages, oneOfLanguages } from "../../by-language/tables.js";
import { isFilledAround } from "../../filled-around.js";
import { notices } from "../../../message/notices.js";
import type { Notice } from "../../../text/wording.js";
import { nestsTooDeep } from "./depth.js";
import { decodeHTMLStrict } from "entities";
import {
  parseSync,
  visitorKeys,
  type Comment,
  type ConditionalExpression,
  type Expression,
  type JSXChild,
  type MemberExpression,
  type Node,
  type ObjectExpression,
  type Program,
} from "oxc-parser";
import { lineIndex } from "../../../text/line-index.js";
import type { Span } from "../../../text/span.js";
import { byPlace } from "../../model.js";
import type {
  Literal,
  LiteralForm,
  BoundLookup,
  Lookup,
  LookupShapes,
  Obstacle,
  Piece,
  Remark,
  SourceFile,
  SourceProblem,
  WrittenString,
} from "../../model.js";
import { hasLetters, mayHaveParts } from "../../pieces.js";
import { choiceRemark } from "../choice-remark.js";
import { applyMarks, markComment, type CommentMarks } from "../comment-marks.js";
import { shiftLiteral, shiftLookup } from "../shift.js";
import { contextOf, isDeferring, nameGivenBy, propertyName } from "./context.js";
import { textRuns } from "./jsx.js";
import { LookupReader } from "./lookups.js";
import { uniqueNames } from "../expression-names.js";
import { languageChoice, languageTable, type LanguageBranches } from "./choices.js";
import { isCounted, withOneName } from "../worded-choice.js";
import { isGluing, PieceList, wordByValue } from "./pieces.js";
import {
  returnedByElse,
  returnedByLanguage,
  type LanguageReturns,
  returnedBySwitch,
  returnedInTurn,
  type ReturnedTexts,
} from "./returned-texts.js";

interface ParsedScript {
  readonly program: Program;
  /** Its comments, which take their time to be handed over. */
  comments(): readonly Comment[];
  readonly problems: readonly SourceProblem[];
}

/** What was parsed last: rewriting asks for the tree of the text that was just read. */
let parsed: { readonly file: string; readonly text: string; readonly result: ParsedScript } | undefined;

/** Parses a script for this reader and for rewriting; positions are UTF-16 code units. */
export function parseScript(file: string, text: string): ParsedScript {
  if (parsed?.file === file && parsed.text === text) return parsed.result;
  const result = parseAnew(file, text);
  parsed = { file, text, result };
  return result;
}

const say = notices("source", {
  "too-deep-to-parse": {
    message: "the code is nested too deeply to parse",
    remedy: 'fix it, or exclude the file with the book\'s "ignore"',
  },
  backslashes: {
    message: "the code has hundreds of backslashes in a row",
    remedy: 'fix it, or exclude the file with the book\'s "ignore"',
  },
  unparsed: {
    message: "the code does not parse",
    remedy: 'fix it, or exclude the file with the book\'s "ignore"',
  },
  "too-deep": {
    message: "the code is nested too deeply to read whole",
    remedy: "split the expression; the rest of the file was read",
  },
  syntax: {
    message: "{detail}",
    remedy: "fix the code here; what could be read of the file is still checked",
  },
  "syntax-help": { message: "{detail}", remedy: "{help}" },
});

const sayOf = notices("extract", {
  enum: {
    message: "the values of an enum are fixed when it is compiled",
    remedy: "turn the enum's texts into a function of its members",
  },
  constant: { message: '"as const" takes fixed values only', remedy: "move the text out of the constant" },
  "unnamed-language": {
    message: "code chooses it by the language, and does not say which language the other text is in",
    remedy: "name that language too, or move the texts into the catalogs by hand",
  },
});

function lowerFirst(text: string): string {
  return text.charAt(0).toLowerCase() + text.slice(1);
}

/** A script of which nothing could be parsed. */
function unparsed(file: string, notice: Notice): ParsedScript {
  return {
    program: parseSync(file, "").program,
    comments: () => [],
    problems: [{ ...notice, span: { start: 0, end: 0 } }],
  };
}

/** Parses a script that nobody asks for again. */
export function parseAnew(file: string, text: string): ParsedScript {
  const lang = /\.d\.[mc]?ts$/.test(file)
    ? "dts"
    : file.endsWith(".tsx")
      ? "tsx"
      : /\.[mc]?ts$/.test(file)
        ? "ts"
        : "jsx";
  if (nestsTooDeep(text)) return unparsed(file, say("too-deep-to-parse", {}));
  // The parser words each wrong escape with its whole line: 20 KB of them take half a gigabyte.
  if (/\\{200}/.test(text)) return unparsed(file, say("backslashes", {}));
  const parse = (sourceType: "unambiguous" | "commonjs") =>
    parseSync(file, text, {
      lang,
      sourceType,
      // Types hold no text, and without them the tree is a third smaller.
      astType: "js",
      preserveParens: false,
    });
  let result = parse("unambiguous");
  if (result.errors.length > 0) {
    // A module of Node runs inside a function, and may return from it.
    const inFunction = parse("commonjs");
    if (inFunction.errors.length === 0) result = inFunction;
  }
  let program: Program;
  try {
    ({ program } = result);
  } catch {
    // The parser hands its tree over as JSON, and for some broken code that is none.
    return unparsed(file, say("unparsed", {}));
  }
  const { errors } = result;
  const problems = errors
    .filter((error) => error.severity === "Error")
    .map((error): SourceProblem => {
      const label = error.labels[0];
      return {
        ...(error.helpMessage === null || error.helpMessage === undefined
          ? say("syntax", { detail: lowerFirst(error.message) })
          : say("syntax-help", { detail: lowerFirst(error.message), help: error.helpMessage })),
        span: { start: label?.start ?? 0, end: label?.end ?? 0 },
      };
    });
  return { program, comments: () => result.comments, problems };
}

/** Tags of templates in a language that holds no text for users. */
const codeTags =
  /(?:^|\.)(?:css|styled|keyframes|createGlobalStyle|injectGlobal|gql|graphql|sql|glsl|wgsl|String\.raw)\b/;

/** Reads JavaScript, TypeScript and JSX: literals with their context, and lookups. Never throws on bad code. */
export function readScript(file: string, text: string, bom: boolean, shapes: LookupShapes): SourceFile {
  const { program, comments, problems } = parseScript(file, text);
  if (problems.length > 0 && program.body.length === 0) return readInParts(file, text, bom, shapes, problems);
  const reader = new ScriptReader(text, shapes);
  const lines = lineIndex(text);
  let tooDeep: SourceProblem | undefined;
  try {
    reader.visit(program);
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    tooDeep = {
      ...say("too-deep", {}),
      span: { start: 0, end: 1 },
    };
  }
  const marks: CommentMarks = new Map();
  if (text.includes("fond:"))
    for (const { value, end } of comments())
      if (value.includes("fond:")) markComment(marks, value, lines.position(end).line);
  const literals = applyMarks(withoutOptions(reader.literals), marks, lines);
  literals.sort(byPlace);
  reader.lookups.sort(byPlace);
  return {
    file,
    text,
    bom,
    lines,
    literals,
    lookups: reader.lookups,
    mentions: reader.mentions,
    problems: tooDeep ? [...problems, tooDeep] : problems,
    ...(reader.bound.length > 0 && { bound: reader.bound }),
    ...(reader.templates.length > 0 && { templates: reader.templates }),
  };
}

/** Reads what it can of a script that does not parse: each part that starts a line with a statement's word, by itself. */
function readInParts(
  file: string,
  text: string,
  bom: boolean,
  shapes: LookupShapes,
  problems: readonly SourceProblem[],
): SourceFile {
  const starts = [
    ...text.matchAll(
      /^(?=(?:import|export|function|class|const|let|var|async|interface|type|enum|abstract|declare|@\w)\b)/gm,
    ),
  ].map(({ index }) => index);
  const literals: Literal[] = [];
  const lookups: Lookup[] = [];
  const mentions = new Set<string>();
  if (starts.length > 1)
    for (const [at, start] of starts.entries()) {
      const part = text.slice(start, starts[at + 1] ?? text.length);
      const { program } = parseScript(file, part);
      if (program.body.length === 0) continue;
      const read = readScript(file, part, false, shapes);
      literals.push(...read.literals.map((one) => shiftLiteral(one, start)));
      lookups.push(...read.lookups.map((one) => shiftLookup(one, start)));
      for (const mention of read.mentions) mentions.add(mention);
    }
  return { file, text, bom, lines: lineIndex(text), literals, lookups, mentions, problems };
}

/** Nodes that name what is in them, or put off when it is evaluated. */
const framing: ReadonlySet<string> = new Set([
  "FunctionDeclaration",
  "FunctionExpression",
  "ArrowFunctionExpression",
  "ClassDeclaration",
  "ClassExpression",
  "VariableDeclarator",
  "MethodDefinition",
  "PropertyDefinition",
]);

/** Nodes that hold nothing to read. */
const leaves: ReadonlySet<string> = new Set([
  "Identifier",
  "JSXIdentifier",
  "JSXText",
  "JSXEmptyExpression",
  "ThisExpression",
  "PrivateIdentifier",
  "TemplateElement",
  "JSXClosingElement",
  "EmptyStatement",
  "Super",
]);

/** The children of each kind of node that can hold text or lookups: types and decorators' types cannot. */
const childKeys: Readonly<Record<string, readonly string[]>> = Object.fromEntries(
  Object.entries(visitorKeys).map(([type, keys]) => [
    type,
    keys.filter(
      (key) =>
        !/^(typeAnnotation|typeArguments|typeParameters|returnType|superTypeArguments|implements|closingElement|label)$/.test(
          key,
        ),
    ),
  ]),
);

/** Branches without the one for all other languages where it says what the source's own says. */
function withoutTwin(branches: LanguageBranches, code: string, source: string | undefined): LanguageBranches {
  const rest = branches.get(undefined);
  const own = [...branches].find(([locale]) => locale?.split(/[-_]/, 1)[0] === source)?.[1];
  if (!rest || !own || code.slice(rest.start, rest.end) !== code.slice(own.start, own.end)) return branches;
  return new Map([...branches].filter(([locale]) => locale !== undefined));
}

const namesKey = new RegExp(`^${keyName}$`);

class ScriptReader {
  readonly literals: Literal[] = [];
  readonly lookups: Lookup[] = [];
  readonly mentions = new Set<string>();
  private readonly ancestors: Node[] = [];
  private readonly enclosing = { names: [] as string[], deferred: 0 };
  /** Nodes that are part of a literal or lookup already found. */
  private readonly consumed = new Set<Node>();
  /** Parts of the code that cannot be rewritten as a whole, so neither can the words in them. */
  private readonly obstructed: { span: Span; obstacle: Obstacle }[] = [];

  readonly templates: Span[] = [];
  private readonly remarked: { start: number; end: number; remark: Remark }[] = [];
  private readonly lookupReader: LookupReader;

  constructor(
    private readonly text: string,
    private readonly shapes: LookupShapes,
  ) {
    this.lookupReader = new LookupReader(shapes);
  }

  get bound(): readonly BoundLookup[] {
    return this.lookupReader.boundLookups;
  }

  visit(node: Node): void {
    switch (node.type) {
      case "ImportDeclaration":
      case "ExportAllDeclaration":
      case "TSInterfaceDeclaration":
      case "TSTypeAliasDeclaration":
      case "TSTypeAnnotation":
      case "TSTypeParameterInstantiation":
      case "TSTypeParameterDeclaration":
      case "TSModuleDeclaration":
        return;
      case "TSEnumMember":
        if (node.initializer) this.obstruct(node.initializer, sayOf("enum", {}));
        break;
      case "TSAsExpression":
        if (this.text.slice(node.typeAnnotation.start, node.typeAnnotation.end) === "const")
          this.obstruct(node.expression, sayOf("constant", {}));
        break;
      case "ExpressionStatement":
        if ("directive" in node && node.directive) return;
        break;
      case "Literal":
        if (typeof node.value === "string") this.string(node, node.value);
        return;
      case "TemplateLiteral":
        this.template(node, (list) => list.template(node));
        break;
      case "ConditionalExpression": {
        const remark = choiceRemark(this.text.slice(node.test.start, node.test.end));
        if (remark) this.remarked.push({ start: node.test.end, end: node.end, remark });
        if (this.consumed.has(node)) break;
        if (remark?.kind === "plural-by-hand") this.countedChoice(node);
        if (remark?.kind === "chosen-by-language") this.inLanguages(node, languageChoice(node, this.text));
        break;
      }
      case "SwitchStatement":
        this.countedReturns(returnedBySwitch(node, this.text));
        this.languageReturns(returnedByLanguage(node, this.text));
        break;
      case "IfStatement":
        if (node.alternate) {
          this.countedReturns(returnedByElse(node, this.text));
          this.languageReturns(returnedByLanguage(node, this.text));
        }
        break;
      case "BlockStatement":
        this.countedReturns(returnedInTurn(node.body, this.text));
        this.languageReturns(returnedByLanguage(node.body, this.text));
        break;
      case "ObjectExpression":
        if (isKeyedByLocale(node.properties)) {
          this.obstruct(node, oneOfLanguages);
          this.remarked.push({
            start: node.start,
            end: node.end,
            remark: besideLanguages,
          });
        }
        break;
      case "VariableDeclarator":
        this.lookupReader.bind(node, this.enclosingScope());
        break;
      case "MemberExpression":
        if (
          node.computed &&
          node.object.type === "ObjectExpression" &&
          isKeyedByLocale(node.object.properties)
        )
          this.inLanguages(node, languageTable(node.object));
        this.member(node);
        break;
      case "TaggedTemplateExpression": {
        const found = this.lookupReader.readTagged(node);
        if (found) {
          this.addLookup(found);
          break;
        }
        const tag = this.text.slice(node.tag.start, node.tag.end);
        if (/(?:^|\.)(?:html|svg|markup)$/.test(tag)) {
          this.templates.push({ start: node.quasi.start + 1, end: node.quasi.end - 1 });
          this.consumed.add(node.quasi);
        } else if (codeTags.test(tag)) this.consumed.add(node.quasi);
        break;
      }
      case "BinaryExpression":
        if (isGluing(node)) {
          this.template(node, (list) => list.glued(node));
          this.consumeGlued(node);
        }
        break;
      case "CallExpression":
        if (this.lookupReader.isLookup(node)) {
          const found = this.lookupReader.readCall(node);
          const isFilled = isFilledAround(this.text, node.start, node.end) || this.givesKey(node);
          this.addLookup(
            isFilled
              ? { ...found, lookups: found.lookups.map((one) => ({ ...one, argumentNames: undefined })) }
              : found,
          );
        }
        break;
      case "JSXElement": {
        const found = this.lookupReader.readComponent(node);
        if (found) this.addLookup(found);
        if (!this.consumed.has(node))
          this.runs(
            node,
            node.children.filter((child) => !this.consumed.has(child)),
          );
        break;
      }
      case "JSXFragment":
        if (!this.consumed.has(node)) this.runs(node, node.children);
        break;
      case "JSXAttribute":
        if (node.value?.type === "Literal" && !this.consumed.has(node.value)) {
          const { value } = node;
          this.ancestors.push(node);
          this.add("attribute", value, value, [
            {
              kind: "text",
              value: decodeHTMLStrict(value.value),
              span: { start: value.start + 1, end: value.end - 1 },
            },
          ]);
          this.ancestors.pop();
          this.mentions.add(value.value);
          return;
        }
        break;
      default:
    }
    this.visitChildren(node);
  }

  /** Whether a call makes the key of an object that goes on to another lookup, with values that are given there: `id: keyOf("a")`. */
  private givesKey(node: Node): boolean {
    const parent = this.ancestors.at(-1);
    return (
      parent?.type === "Property" &&
      parent.value === node &&
      parent.key.type === "Identifier" &&
      namesKey.test(parent.key.name)
    );
  }

  /** A member of an object of texts: of a chain, the whole of it. */
  private member(node: MemberExpression): void {
    const parent = this.ancestors.at(-1);
    if (parent?.type === "MemberExpression" && parent.object === node) return;
    const found = this.lookupReader.readMember(node, parent);
    if (found) this.addLookup(found);
  }

  private visitChildren(node: Node): void {
    const { enclosing } = this;
    const frames = framing.has(node.type);
    const name = frames ? nameGivenBy(node) : undefined;
    const defers = frames && isDeferring(node);
    if (name !== undefined) enclosing.names.push(name);
    if (defers) enclosing.deferred++;
    this.ancestors.push(node);
    for (const key of childKeys[node.type] ?? []) {
      const child = (node as unknown as Record<string, Node | readonly (Node | null)[] | null | undefined>)[
        key
      ];
      if (!child) continue;
      // What decorates a field, and what its name is worked out from, is evaluated with the class.
      const isEarly = defers && (key === "decorators" || key === "key");
      if (isEarly) enclosing.deferred--;
      if (Array.isArray(child)) {
        for (const item of child as readonly (Node | null)[])
          if (item && !leaves.has(item.type)) this.visit(item);
      } else if (!leaves.has((child as Node).type)) this.visit(child as Node);
      if (isEarly) enclosing.deferred++;
    }
    this.ancestors.pop();
    if (defers) enclosing.deferred--;
    if (name !== undefined) enclosing.names.pop();
  }

  private string(node: Node & Span, value: string): void {
    this.mentions.add(value);
    if (this.consumed.has(node)) return;
    const inner = { start: node.start + 1, end: node.end - 1 };
    this.add("string", node, node, [{ kind: "text", value, span: inner }], undefined, [
      { start: node.start, end: node.end, innerStart: inner.start, innerEnd: inner.end },
    ]);
  }

  /** A conditional by itself that chooses between the forms of one text by a number. */
  private countedChoice(node: ConditionalExpression): void {
    const list = this.pieceList();
    list.expression(node);
    const [only] = list.pieces;
    if (only?.kind !== "choice" || only.choice !== "plural" || list.obstacle) return;
    if (
      !isCounted(
        only.branches.map(({ pieces }) => pieces),
        only.code,
      )
    )
      return;
    this.template(node, (own) => own.expression(node));
  }

  /** Statements that return the forms of one text by a number: one text in the place of them all. */
  private countedReturns(found: ReturnedTexts | undefined): void {
    if (!found) return;
    const { links, last, span } = found;
    const texts = [...links.map(({ text }) => text), last.argument];
    if (texts.some((text) => this.consumed.has(text))) return;
    const list = this.pieceList();
    const piece = list.returned(links, last.argument, span);
    if (
      !piece ||
      list.obstacle ||
      !isCounted(
        piece.branches.map(({ pieces }) => pieces),
        piece.code,
      )
    )
      return;
    for (const text of [...texts, ...list.chosen]) this.consumeGlued(text);
    this.ancestors.push(last);
    const count = this.literals.length;
    this.add("template", last.argument, span, [piece]);
    this.ancestors.pop();
    const [literal] = this.literals.slice(count);
    const after = this.text.slice(last.start, last.end).endsWith(";") ? ";" : "";
    if (literal)
      this.literals[count] = { ...literal, frame: { before: "return ", after, isStatement: true } };
  }

  /** Statements that return a text in one of several languages: one text in the place of them all. */
  private languageReturns(found: LanguageReturns | undefined): void {
    if (!found) return;
    const { branches, last, span } = found;
    if ([...branches.values()].some((text) => this.consumed.has(text))) return;
    const after = this.text.slice(last.start, last.end).endsWith(";") ? ";" : "";
    this.ancestors.push(last);
    this.inLanguages(last.argument, branches, {
      span,
      frame: { before: "return ", after, isStatement: true },
    });
    this.ancestors.pop();
  }

  /** One text in several languages: that of the source, with the others as its translations. */
  private inLanguages(
    node: Expression,
    given: LanguageBranches | undefined,
    statements?: Pick<Literal, "span" | "frame">,
  ): void {
    const branches = given && withoutTwin(given, this.text, this.shapes.sourceLanguage);
    const own = [...(branches?.keys() ?? [])].find(
      (locale) => locale?.split(/[-_]/, 1)[0] === this.shapes.sourceLanguage,
    );
    const source = branches?.get(own);
    if (!branches || !source) return;
    if (own !== undefined && branches.has(undefined)) {
      this.obstruct(node, sayOf("unnamed-language", {}));
      return;
    }
    const unique = uniqueNames();
    const read = (branch: Expression) => {
      const list = new PieceList(this.text, unique, this.shapes.sourceLanguage);
      list.expression(branch);
      this.consumeGlued(branch);
      return list;
    };
    const list = read(source);
    const translations = [...branches].flatMap(([locale, branch]) =>
      locale === undefined || locale === own ? [] : [{ locale, pieces: read(branch).pieces }],
    );
    const count = this.literals.length;
    this.add("template", node, statements?.span ?? node, list.pieces, list.obstacle);
    const [literal] = this.literals.slice(count);
    if (literal)
      this.literals[count] = {
        ...literal,
        ...statements,
        translations,
        remarks: [
          {
            kind: "chosen-by-language",
            message:
              node.type === "ConditionalExpression" || statements
                ? "chosen by language in code"
                : "one of several languages in code",
          },
        ],
      };
  }

  private pieceList(): PieceList {
    return new PieceList(this.text, undefined, this.shapes.sourceLanguage);
  }

  private template(node: Expression, fill: (list: PieceList) => void): void {
    if (this.consumed.has(node)) return;
    const list = this.pieceList();
    fill(list);
    for (const chosen of list.chosen) this.consumeGlued(chosen);
    const only = list.pieces.length === 1 ? list.pieces[0] : undefined;
    if (only?.kind === "text") this.mentions.add(only.value);
    this.add("template", node, node, list.pieces, list.obstacle, list.strings);
  }

  /** The strings and templates that a `+` joins belong to the whole. */
  private consumeGlued(node: Node): void {
    if (node.type === "BinaryExpression" && isGluing(node)) {
      this.consumed.add(node);
      this.consumeGlued(node.left);
      this.consumeGlued(node.right);
    } else if (node.type === "ConditionalExpression") {
      this.consumed.add(node);
      this.consumeGlued(node.consequent);
      this.consumeGlued(node.alternate);
    } else if (node.type === "TemplateLiteral" || node.type === "Literal") this.consumed.add(node);
  }

  private runs(node: Node, children: readonly JSXChild[]): void {
    this.ancestors.push(node);
    for (const run of textRuns(
      children,
      this.text,
      (expression) => this.lookupReader.isLookup(expression),
      this.shapes.sourceLanguage,
    )) {
      const first = run.consumed[0];
      this.add(run.form, first ?? node, run.span, run.pieces, run.obstacle);
      for (const part of run.consumed) {
        this.consumed.add(part);
        this.consumeGlued(part);
      }
    }
    this.ancestors.pop();
  }

  private obstruct({ start, end }: Span, obstacle: Obstacle): void {
    this.obstructed.push({ span: { start, end }, obstacle });
  }

  /** The innermost function, or the whole file. */
  private enclosingScope(): Span {
    const found = this.ancestors.findLast(
      (node) =>
        node.type === "FunctionDeclaration" ||
        node.type === "FunctionExpression" ||
        node.type === "ArrowFunctionExpression",
    );
    return found ? { start: found.start, end: found.end } : { start: 0, end: this.text.length };
  }

  private addLookup(found: { lookups: readonly Lookup[]; keyNodes: readonly Node[] }): void {
    this.lookups.push(...found.lookups);
    for (const node of found.keyNodes) {
      this.consumed.add(node);
      this.consumeGlued(node);
    }
  }

  private add(
    form: LiteralForm,
    node: Node,
    span: Span,
    pieces: readonly Piece[],
    obstacle?: Obstacle,
    strings?: readonly WrittenString[],
  ): void {
    if (obstacle) this.obstructed.push({ span: { start: span.start, end: span.end }, obstacle });
    if (!hasLetters(pieces)) return;
    const named = withOneName(pieces);
    const within = this.obstructed.find(
      (outer) => outer.span.start <= span.start && span.end <= outer.span.end,
    );
    const found = within?.obstacle ?? obstacle;
    const remarks = this.remarked
      .filter((one) => one.start <= span.start && span.end <= one.end)
      .map((one) => one.remark);
    if (form === "template" && node.type === "BinaryExpression" && pieces.length > 1)
      remarks.unshift({ kind: "glued", message: "put together with +" });
    const isPlural = pieces.some((piece) => piece.kind === "choice" && piece.choice === "plural");
    if (
      (isPlural || found?.messageId === wordByValue) &&
      !remarks.some(({ kind }) => kind === "plural-by-hand")
    )
      remarks.push({ kind: "plural-by-hand", message: "a plural made by hand" });
    this.literals.push({
      form,
      span: { start: span.start, end: span.end },
      pieces: named,
      context: contextOf(node, this.ancestors, this.enclosing, this.text),
      ...(strings && mayHaveParts(named) && { strings }),
      ...(remarks.length > 0 && { remarks }),
      ...(found && { obstacle: found }),
    });
  }
}

/** The literals without those that only say how a value of another is formatted: that message says it. */
function withoutOptions(literals: readonly Literal[]): Literal[] {
  const formatted = literals.flatMap(({ pieces }) => formattedIn(pieces));
  if (formatted.length === 0) return [...literals];
  const within = (inner: Span, outer: Span) => outer.start <= inner.start && inner.end <= outer.end;
  return literals.filter(
    ({ span }) => !formatted.some((one) => within(span, one.span) && !within(span, one.value)),
  );
}

function formattedIn(pieces: readonly Piece[]): { readonly span: Span; readonly value: Span }[] {
  return pieces.flatMap((piece) => {
    switch (piece.kind) {
      case "argument":
        return piece.formatted ? [{ span: piece.span, value: piece.formatted.value }] : [];
      case "choice":
        return piece.branches.flatMap((branch) => formattedIn(branch.pieces));
      case "tag":
        return formattedIn(piece.pieces);
      case "text":
        return [];
    }
  });
}

/** Whether an object's keys are all locales, two at least: texts in several languages side by side. */
function isKeyedByLocale(properties: ObjectExpression["properties"]): boolean {
  if (properties.length < 2) return false;
  const names = properties.map((property) =>
    property.type === "Property" && !property.computed ? propertyName(property.key) : undefined,
  );
  return areLocales(names.map((name) => name ?? ""));
}
