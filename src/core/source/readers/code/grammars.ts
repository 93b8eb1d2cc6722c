import { createRequire } from "node:module";
import type * as TreeSitterModule from "web-tree-sitter";
import { copyTree, type CodeNode } from "./tree.js";
import { languages } from "../../languages/index.js";
import type { CodeLanguage } from "../../languages/language.js";

const require = createRequire(import.meta.url);
type TreeSitter = typeof TreeSitterModule;

const parsers = new Map<CodeLanguage, TreeSitterModule.Parser>();
let starting: Promise<TreeSitter> | undefined;

/** Loads the grammars of some languages, each once. Reading code of a language needs its grammar loaded before. */
export async function loadGrammars(wanted: Iterable<CodeLanguage>): Promise<void> {
  for (const language of new Set(wanted)) {
    if (parsers.has(language)) continue;
    starting ??= start();
    const { Language, Parser } = await starting;
    const grammar = await Language.load(
      require.resolve(`@vscode/tree-sitter-wasm/wasm/tree-sitter-${languages[language].grammar.file}.wasm`),
    );
    const parser = new Parser();
    parser.setLanguage(grammar);
    parsers.set(language, parser);
  }
}

async function start(): Promise<TreeSitter> {
  const module = await import("web-tree-sitter");
  await module.Parser.init();
  return module;
}

/** After so many milliseconds, and one more for each thousand characters, a parser is stopped: the file counts as one that does not parse. */
const longestParse = 800;

/** Parses code. Throws where the language's grammar is not loaded: that is a mistake of the caller. */
export function parseCode(language: CodeLanguage, text: string): CodeNode {
  const parser = parsers.get(language);
  if (!parser) throw new Error(`the grammar of ${language} is not loaded`);
  const end = performance.now() + longestParse + text.length / 1_000;
  // Where the callback says true the parser stops; its declaration leaves the result out.
  const tree = parser.parse(text, null, { progressCallback: () => performance.now() > end });
  if (!tree) {
    parser.reset();
    // Broken code can have so many readings that no parser gets through them.
    return {
      type: "ERROR",
      named: true,
      field: undefined,
      start: 0,
      end: text.length,
      children: [],
      isError: true,
    };
  }
  try {
    return copyTree(tree);
  } finally {
    tree.delete();
  }
}
