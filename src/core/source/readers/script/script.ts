import { decodeHTMLStrict } from "entities";
import type { JSXChild, MemberExpression, Node } from "oxc-parser";
import { notices } from "../../../message/notices.js";
import { lineIndex } from "../../../text/line-index.js";
import type { Span } from "../../../text/span.js";
import { keyName } from "../../bound-key.js";
import { besideLanguages, oneOfLanguages } from "../../by-language/tables.js";
import { isFilledAround } from "../../filled-around.js";
import { byPlace } from "../../model.js";
import type { BoundLookup, Literal, Lookup, LookupShapes, SourceFile, SourceProblem } from "../../model.js";
import { choiceRemark } from "../choice-remark.js";
import { applyMarks, markComment, type CommentMarks } from "../comment-marks.js";
import { shiftLiteral, shiftLookup } from "../shift.js";
import { languageChoice, languageTable } from "./choices.js";
import {
  countedChoice,
  countedReturns,
  inLanguages,
  isKeyedByLocale,
  languageReturns,
} from "./chosen-texts.js";
import { isDeferring, nameGivenBy } from "./context.js";
import { withoutOptions } from "./format-options.js";
import { textRuns } from "./jsx.js";
import { LookupReader } from "./lookups.js";
import { parseScript } from "./parse.js";
import { isGluing } from "./pieces.js";
import { returnedByElse, returnedByLanguage, returnedBySwitch, returnedInTurn } from "./returned-texts.js";
import { ScriptTexts } from "./script-texts.js";
import { childKeys, framing, leaves } from "./walked-nodes.js";

const say = notices("source", {
  "too-deep": {
    message: "the code is nested too deeply to read whole",
    remedy: "split the expression; the rest of the file was read",
  },
});

const sayOf = notices("extract", {
  enum: {
    message: "the values of an enum are fixed when it is compiled",
    remedy: "turn the enum's texts into a function of its members",
  },
  constant: { message: '"as const" takes fixed values only', remedy: "move the text out of the constant" },
});

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
  const literals = applyMarks(withoutOptions(reader.texts.literals), marks, lines);
  literals.sort(byPlace);
  reader.texts.lookups.sort(byPlace);
  return {
    file,
    text,
    bom,
    lines,
    literals,
    lookups: reader.texts.lookups,
    mentions: reader.texts.mentions,
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

const namesKey = new RegExp(`^${keyName}$`);

class ScriptReader {
  readonly templates: Span[] = [];
  readonly texts: ScriptTexts;
  private readonly lookupReader: LookupReader;

  constructor(
    private readonly text: string,
    private readonly shapes: LookupShapes,
  ) {
    this.texts = new ScriptTexts(text, shapes);
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
        if (node.initializer) this.texts.obstruct(node.initializer, sayOf("enum", {}));
        break;
      case "TSAsExpression":
        if (this.text.slice(node.typeAnnotation.start, node.typeAnnotation.end) === "const")
          this.texts.obstruct(node.expression, sayOf("constant", {}));
        break;
      case "ExpressionStatement":
        if ("directive" in node && node.directive) return;
        break;
      case "Literal":
        if (typeof node.value === "string") this.string(node, node.value);
        return;
      case "TemplateLiteral":
        this.texts.template(node, (list) => list.template(node));
        break;
      case "ConditionalExpression": {
        const remark = choiceRemark(this.text.slice(node.test.start, node.test.end));
        if (remark) this.texts.remarked.push({ start: node.test.end, end: node.end, remark });
        if (this.texts.consumed.has(node)) break;
        if (remark?.kind === "plural-by-hand") countedChoice(this.texts, node);
        if (remark?.kind === "chosen-by-language")
          inLanguages(this.texts, node, languageChoice(node, this.text));
        break;
      }
      case "SwitchStatement":
        countedReturns(this.texts, returnedBySwitch(node, this.text));
        languageReturns(this.texts, returnedByLanguage(node, this.text));
        break;
      case "IfStatement":
        if (node.alternate) {
          countedReturns(this.texts, returnedByElse(node, this.text));
          languageReturns(this.texts, returnedByLanguage(node, this.text));
        }
        break;
      case "BlockStatement":
        countedReturns(this.texts, returnedInTurn(node.body, this.text));
        languageReturns(this.texts, returnedByLanguage(node.body, this.text));
        break;
      case "ObjectExpression":
        if (isKeyedByLocale(node.properties)) {
          this.texts.obstruct(node, oneOfLanguages);
          this.texts.remarked.push({
            start: node.start,
            end: node.end,
            remark: besideLanguages,
          });
        }
        break;
      case "VariableDeclarator":
        this.lookupReader.bind(node, this.texts.enclosingScope());
        break;
      case "MemberExpression":
        if (
          node.computed &&
          node.object.type === "ObjectExpression" &&
          isKeyedByLocale(node.object.properties)
        )
          inLanguages(this.texts, node, languageTable(node.object));
        this.member(node);
        break;
      case "TaggedTemplateExpression": {
        const found = this.lookupReader.readTagged(node);
        if (found) {
          this.texts.addLookup(found);
          break;
        }
        const tag = this.text.slice(node.tag.start, node.tag.end);
        if (/(?:^|\.)(?:html|svg|markup)$/.test(tag)) {
          this.templates.push({ start: node.quasi.start + 1, end: node.quasi.end - 1 });
          this.texts.consumed.add(node.quasi);
        } else if (codeTags.test(tag)) this.texts.consumed.add(node.quasi);
        break;
      }
      case "BinaryExpression":
        if (isGluing(node)) {
          this.texts.template(node, (list) => list.glued(node));
          this.texts.consumeGlued(node);
        }
        break;
      case "CallExpression":
        if (this.lookupReader.isLookup(node)) {
          const found = this.lookupReader.readCall(node);
          const isFilled = isFilledAround(this.text, node.start, node.end) || this.givesKey(node);
          this.texts.addLookup(
            isFilled
              ? { ...found, lookups: found.lookups.map((one) => ({ ...one, argumentNames: undefined })) }
              : found,
          );
        }
        break;
      case "JSXElement": {
        const found = this.lookupReader.readComponent(node);
        if (found) this.texts.addLookup(found);
        if (!this.texts.consumed.has(node))
          this.runs(
            node,
            node.children.filter((child) => !this.texts.consumed.has(child)),
          );
        break;
      }
      case "JSXFragment":
        if (!this.texts.consumed.has(node)) this.runs(node, node.children);
        break;
      case "JSXAttribute":
        if (node.value?.type === "Literal" && !this.texts.consumed.has(node.value)) {
          const { value } = node;
          this.texts.ancestors.push(node);
          this.texts.add("attribute", value, value, [
            {
              kind: "text",
              value: decodeHTMLStrict(value.value),
              span: { start: value.start + 1, end: value.end - 1 },
            },
          ]);
          this.texts.ancestors.pop();
          this.texts.mentions.add(value.value);
          return;
        }
        break;
      default:
    }
    this.visitChildren(node);
  }

  /** Whether a call makes the key of an object that goes on to another lookup, with values that are given there: `id: keyOf("a")`. */
  private givesKey(node: Node): boolean {
    const parent = this.texts.ancestors.at(-1);
    return (
      parent?.type === "Property" &&
      parent.value === node &&
      parent.key.type === "Identifier" &&
      namesKey.test(parent.key.name)
    );
  }

  /** A member of an object of texts: of a chain, the whole of it. */
  private member(node: MemberExpression): void {
    const parent = this.texts.ancestors.at(-1);
    if (parent?.type === "MemberExpression" && parent.object === node) return;
    const found = this.lookupReader.readMember(node, parent);
    if (found) this.texts.addLookup(found);
  }

  private visitChildren(node: Node): void {
    const { enclosing } = this.texts;
    const frames = framing.has(node.type);
    const name = frames ? nameGivenBy(node) : undefined;
    const defers = frames && isDeferring(node);
    if (name !== undefined) enclosing.names.push(name);
    if (defers) enclosing.deferred++;
    this.texts.ancestors.push(node);
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
    this.texts.ancestors.pop();
    if (defers) enclosing.deferred--;
    if (name !== undefined) enclosing.names.pop();
  }

  private string(node: Node & Span, value: string): void {
    this.texts.mentions.add(value);
    if (this.texts.consumed.has(node)) return;
    const inner = { start: node.start + 1, end: node.end - 1 };
    this.texts.add("string", node, node, [{ kind: "text", value, span: inner }], undefined, [
      { start: node.start, end: node.end, innerStart: inner.start, innerEnd: inner.end },
    ]);
  }

  private runs(node: Node, children: readonly JSXChild[]): void {
    this.texts.ancestors.push(node);
    for (const run of textRuns(
      children,
      this.text,
      (expression) => this.lookupReader.isLookup(expression),
      this.shapes.sourceLanguage,
    )) {
      const first = run.consumed[0];
      this.texts.add(run.form, first ?? node, run.span, run.pieces, run.obstacle);
      for (const part of run.consumed) {
        this.texts.consumed.add(part);
        this.texts.consumeGlued(part);
      }
    }
    this.texts.ancestors.pop();
  }
}
