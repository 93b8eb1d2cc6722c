import type { ConditionalExpression, Expression, ObjectExpression } from "oxc-parser";
import { areLocales } from "../../by-language/tables.js";
import { notices } from "../../../message/notices.js";
import type { Literal } from "../../model.js";
import { uniqueNames } from "../expression-names.js";
import { isCounted } from "../worded-choice.js";
import type { LanguageBranches } from "./choices.js";
import { propertyName } from "./context.js";
import { PieceList } from "./pieces.js";
import type { LanguageReturns, ReturnedTexts } from "./returned-texts.js";
import type { ScriptTexts } from "./script-texts.js";

const say = notices("extract", {
  "unnamed-language": {
    message: "code chooses it by the language, and does not say which language the other text is in",
    remedy: "name that language too, or move the texts into the catalogs by hand",
  },
});

/** A conditional by itself that chooses between the forms of one text by a number. */
export function countedChoice(texts: ScriptTexts, node: ConditionalExpression): void {
  const list = texts.pieceList();
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
  texts.template(node, (own) => own.expression(node));
}

/** Statements that return the forms of one text by a number: one text in the place of them all. */
export function countedReturns(texts: ScriptTexts, found: ReturnedTexts | undefined): void {
  if (!found) return;
  const { links, last, span } = found;
  const ways = [...links.map(({ text }) => text), last.argument];
  if (ways.some((text) => texts.consumed.has(text))) return;
  const list = texts.pieceList();
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
  for (const text of [...ways, ...list.chosen]) texts.consumeGlued(text);
  texts.ancestors.push(last);
  const count = texts.literals.length;
  texts.add("template", last.argument, span, [piece]);
  texts.ancestors.pop();
  const [literal] = texts.literals.slice(count);
  const after = texts.text.slice(last.start, last.end).endsWith(";") ? ";" : "";
  if (literal) texts.literals[count] = { ...literal, frame: { before: "return ", after, isStatement: true } };
}

/** Statements that return a text in one of several languages: one text in the place of them all. */
export function languageReturns(texts: ScriptTexts, found: LanguageReturns | undefined): void {
  if (!found) return;
  const { branches, last, span } = found;
  if ([...branches.values()].some((text) => texts.consumed.has(text))) return;
  const after = texts.text.slice(last.start, last.end).endsWith(";") ? ";" : "";
  texts.ancestors.push(last);
  inLanguages(texts, last.argument, branches, {
    span,
    frame: { before: "return ", after, isStatement: true },
  });
  texts.ancestors.pop();
}

/** One text in several languages: that of the source, with the others as its translations. */
export function inLanguages(
  texts: ScriptTexts,
  node: Expression,
  given: LanguageBranches | undefined,
  statements?: Pick<Literal, "span" | "frame">,
): void {
  const branches = given && withoutTwin(given, texts.text, texts.shapes.sourceLanguage);
  const own = [...(branches?.keys() ?? [])].find(
    (locale) => locale?.split(/[-_]/, 1)[0] === texts.shapes.sourceLanguage,
  );
  const source = branches?.get(own);
  if (!branches || !source) return;
  if (own !== undefined && branches.has(undefined)) {
    texts.obstruct(node, say("unnamed-language", {}));
    return;
  }
  const unique = uniqueNames();
  const read = (branch: Expression) => {
    const list = new PieceList(texts.text, unique, texts.shapes.sourceLanguage);
    list.expression(branch);
    texts.consumeGlued(branch);
    return list;
  };
  const list = read(source);
  const translations = [...branches].flatMap(([locale, branch]) =>
    locale === undefined || locale === own ? [] : [{ locale, pieces: read(branch).pieces }],
  );
  const count = texts.literals.length;
  texts.add("template", node, statements?.span ?? node, list.pieces, list.obstacle);
  const [literal] = texts.literals.slice(count);
  if (literal)
    texts.literals[count] = {
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

/** Branches without the one for all other languages where it says what the source's own says. */
function withoutTwin(branches: LanguageBranches, code: string, source: string | undefined): LanguageBranches {
  const rest = branches.get(undefined);
  const own = [...branches].find(([locale]) => locale?.split(/[-_]/, 1)[0] === source)?.[1];
  if (!rest || !own || code.slice(rest.start, rest.end) !== code.slice(own.start, own.end)) return branches;
  return new Map([...branches].filter(([locale]) => locale !== undefined));
}

/** Whether an object's keys are all locales, two at least: texts in several languages side by side. */
export function isKeyedByLocale(properties: ObjectExpression["properties"]): boolean {
  if (properties.length < 2) return false;
  const names = properties.map((property) =>
    property.type === "Property" && !property.computed ? propertyName(property.key) : undefined,
  );
  return areLocales(names.map((name) => name ?? ""));
}
