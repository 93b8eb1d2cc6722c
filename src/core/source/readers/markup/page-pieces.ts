import { decodeHTML } from "entities";
import type { Piece } from "../../model.js";
import { languageNamed } from "../../languages/index.js";
import { countedWord } from "../counted-words.js";
import { nameFromCode } from "../expression-names.js";
import type { Page } from "./page.js";
import { endOf } from "./parts.js";
import type { MarkupNode } from "./tree.js";

/** What stands in a node as pieces of a text, its elements as tags. */
export function nodePieces(
  page: Page,
  node: MarkupNode,
  pieces: Piece[],
  unique: (wanted: string, code: string) => string,
): void {
  if (node.kind === "text") {
    textPieces(page, node.start, node.end, pieces, unique, true);
    return;
  }
  const inner: Piece[] = [];
  for (const child of node.children) nodePieces(page, child, inner, unique);
  const open = { start: node.start, end: node.openEnd };
  const plain = node.name.toLowerCase();
  const name = plain === "a" || plain === "router-link" ? "link" : plain.replace(/[^a-z0-9]/g, "") || "tag";
  pieces.push({
    kind: "tag",
    name: unique(name, page.text.slice(open.start, open.end)),
    span: { start: node.start, end: endOf(node) },
    open,
    close: node.close,
    pieces: inner,
  });
}

/** Text with what islands fill in, entities decoded; `collapse` reads white space as a page shows it. */
export function textPieces(
  page: Page,
  start: number,
  end: number,
  pieces: Piece[],
  unique: (wanted: string, code: string) => string,
  collapse: boolean,
): void {
  let at = start;
  const put = (from: number, to: number) => {
    const raw = page.text.slice(from, to);
    const value = decodeHTML(collapse ? raw.replace(/[ \t\r\n\f]+/g, " ") : raw);
    if (value === "") return;
    const last = pieces[pieces.length - 1];
    if (last?.kind === "text")
      pieces[pieces.length - 1] = {
        kind: "text",
        value: last.value + value,
        span: { start: last.span.start, end: to },
      };
    else pieces.push({ kind: "text", value, span: { start: from, end: to } });
  };
  for (const island of page.islandsIn(start, end)) {
    put(at, island.start);
    at = island.end;
    if (island.kind !== "output") continue;
    const code = page.text.slice(island.codeStart, island.codeEnd).trim();
    const span = { start: island.start, end: island.end };
    const counts = languageNamed(page.dialect.language)?.counts;
    const counted = countedWord(code, span, counts, unique, page.shapes.sourceLanguage);
    if (counted) {
      pieces.push(counted);
      continue;
    }
    pieces.push({
      kind: "argument",
      name: unique(nameFromCode(code), code),
      code,
      span,
      mayBeAbsent: false,
    });
  }
  put(at, end);
}
