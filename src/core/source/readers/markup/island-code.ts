import type { Span } from "../../../text/span.js";
import { notices } from "../../../message/notices.js";
import type { Island, IslandLanguage } from "../../dialects/dialect.js";
import type { Literal, LiteralContext } from "../../model.js";
import { readScript } from "../script/script.js";
import { attributeContext, contentContext } from "./element-places.js";
import { placed, readPlainExpression, readScriptExpression } from "./expressions.js";
import type { Page } from "./page.js";
import { elementAt, isExpression } from "./parts.js";
import type { MarkupElement } from "./tree.js";

const say = notices("extract", {
  "page-expression": {
    message: "it is in an expression of the page, where no lookup can be written",
    remedy: "choose between two lookups outside of the expression, by hand",
  },
});

/** The code of the islands: strings that are shown, and lookups. */
export function readIslandCode(page: Page, root: MarkupElement): void {
  const { language } = page.dialect;
  foreignLookups(page);
  if (language === "ruby" || language === "java" || language === "php") {
    const code = page.dialect.isProgram ? page.text : codeAlone(page, language);
    const content = page.readEmbedded(language, code, page.shapes);
    page.take({
      ...content,
      literals: content.literals
        .filter(({ span }) => !page.isReadAlone(span))
        .map((literal) => inOutput(page, literal, root)),
      lookups: content.lookups.filter(({ span }) => !page.isReadAlone(span)),
    });
    if (page.dialect.hasLooseLookups) looseExpressions(page, root);
    return;
  }
  if (page.dialect.isScripted && scriptProgram(page, root)) return;
  for (const island of page.islands) {
    if (island.kind === "comment" || island.isForeign || page.isReadAlone(island)) continue;
    const place = island.kind === "code" && !island.isShown ? undefined : placeOf(page, island, root);
    const read = language === "expression" ? readPlainExpression : readScriptExpression;
    page.take(read(page.text, island.codeStart, island.codeEnd, page.shapes, place));
  }
}

/** Reads the islands as one program of statements; false where they are none, and each has to be read by itself. */
function scriptProgram(page: Page, root: MarkupElement): boolean {
  const source = readScript("template.js", codeAlone(page, "script"), false, page.shapes);
  if (source.problems.length > 0) return false;
  const literals = source.literals
    .filter(({ span }) => !page.isReadAlone(span))
    .map((literal) => inOutput(page, { ...literal, context: { ...literal.context, atLoad: false } }, root));
  const lookups = source.lookups.filter(({ span }) => !page.isReadAlone(span));
  page.take({ ...source, literals, lookups });
  return true;
}

/** Lookups in the marks of another language; its strings are none of this one's texts. */
function foreignLookups(page: Page): void {
  for (const { isForeign, codeStart, codeEnd } of page.islands) {
    if (!isForeign) continue;
    const { lookups, mentions } = readScriptExpression(page.text, codeStart, codeEnd, page.shapes, undefined);
    page.take({ literals: [], lookups, mentions });
  }
}

/** What islands hold that are no whole statements of their language, such as `@lang('key')` and `${text('key')}`. */
function looseExpressions(page: Page, root: MarkupElement): void {
  const known = new Set(page.lookups.map(({ keySpan }) => keySpan.start));
  for (const island of page.islands) {
    if (island.kind === "comment" || island.isForeign) continue;
    const isAlone = isExpression(page.text, island);
    const { literals, lookups, mentions } = readPlainExpression(
      page.text,
      island.codeStart,
      island.codeEnd,
      page.shapes,
      isAlone ? placeOf(page, island, root) : undefined,
    );
    page.take({
      literals: isAlone
        ? literals.map((literal) => ({ ...literal, obstacle: say("page-expression", {}) }))
        : [],
      lookups: lookups.filter(({ keySpan }) => !known.has(keySpan.start)),
      mentions,
    });
  }
}

function inOutput(page: Page, literal: Literal, root: MarkupElement): Literal {
  const { role, name = "" } = literal.context;
  const isPrinted = role === "argument" && /^(?:echo|print|out\.print)$/.test(name);
  if (role !== "other" && role !== "argument") return literal;
  const holds = ({ start, end }: Span) => start <= literal.span.start && literal.span.end <= end;
  const bound = page.boundCode.find(holds);
  if (bound) return role === "other" ? { ...literal, context: placed(literal, bound.place) } : literal;
  const island = page.islands.find(holds);
  if (!island || (island.kind !== "output" && !island.isShown && !isPrinted)) return literal;
  const place = placeOf(page, island, root);
  if (isPrinted) return place.role === "attribute" ? { ...literal, context: place } : literal;
  return role === "other"
    ? { ...literal, context: placed(literal, place) }
    : { ...literal, context: { ...literal.context, isOutput: true } };
}

/** Where an island's value is shown: in an attribute, or between tags. */
function placeOf(page: Page, island: Island, root: MarkupElement): LiteralContext {
  if (page.isScript) return { language: "markup", role: "other", atLoad: false };
  const element = elementAt(root, island.start);
  const isInTag = element !== undefined && element.name !== "" && island.start < element.openEnd;
  const attribute = isInTag
    ? element.attributes.find(({ start, end }) => start <= island.start && island.end <= end)
    : undefined;
  // What stands where names do names an attribute, or the element.
  if (isInTag && (attribute?.raw === undefined || island.end <= attribute.valueStart))
    return { language: "markup", role: "key", atLoad: false };
  return attribute && element
    ? attributeContext(page.dialect, element, attribute.name.replace(/^[:[]|\]$/g, ""))
    : contentContext(element);
}

/** The islands' code as one program of the same length: white space for the markup, statement ends between islands. */
function codeAlone(page: Page, language: Exclude<IslandLanguage, "expression">): string {
  let code = "";
  let at = 0;
  const blank = (from: number, to: number) => page.text.slice(from, to).replace(/[^\r\n]/g, " ");
  const bound = [...page.boundCode];
  for (const island of page.islands) {
    for (let next = bound[0]; next && next.end <= island.start; next = bound[0]) {
      // The signs around the value become those of a statement: `="…" `.
      code += `${blank(at, next.start - 2)};(${page.text.slice(next.start, next.end)})`;
      at = next.end + 1;
      bound.shift();
    }
    code += blank(at, island.start);
    at = island.start;
    if (island.kind === "comment" || island.isForeign || isExpression(page.text, island)) continue;
    const statement = page.dialect.statement?.(page.text.slice(island.start, island.end));
    if (statement !== undefined) {
      code += statement;
      at = island.end;
      continue;
    }
    const gap = blank(at, island.codeStart);
    const ending = blank(island.codeEnd, island.end);
    const inner = page.text.slice(island.codeStart, island.codeEnd);
    if (language === "script") {
      // A value that is put out stands in brackets: a string alone would be a directive.
      const isShown = island.kind === "output";
      const isOpen = /[{(,:;]\s*$|^\s*$/.test(inner);
      code += isShown ? `${gap.slice(1)}(${inner})${ending.slice(1, -1)};` : gap + inner;
      code += isShown ? "" : isOpen ? ending : `;${ending.slice(1)}`;
      at = island.end;
      continue;
    }
    const close =
      ending.length > 0
        ? `${language === "ruby" && /(?:\bdo|\{)\s*(?:\|[^|]*\|\s*)?$/.test(inner) ? "\n" : ";"}${ending.slice(1)}`
        : "";
    code += language === "php" && gap.length >= 2 ? `${gap.slice(2)}; ${inner}${close}` : gap + inner + close;
    at = island.end;
  }
  return code + blank(at, page.text.length);
}
