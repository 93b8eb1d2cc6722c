import { createRequire } from "node:module";
import type * as TreeSitterModule from "web-tree-sitter";
import { copyTree, type CodeNode } from "./tree.js";
import { languages } from "../../languages/index.js";
import type { CodeLanguage } from "../../languages/language.js";

const require = createRequire(import.meta.url);
type TreeSitter = typeof TreeSitterModule;

const parsers = new Map<CodeLanguage, TreeSitterModule.Parser>();
let starting: Promise<TreeSitter> | undefined;
/** How often the parsers' program broke down: each of its instances is of no use from then on. */
let breakdowns = 0;
let isBroken = false;
/** What belongs to an instance that broke down: it must not be freed, which would be asked of that instance. */
const kept: unknown[] = [];

/** Loads the grammars of some languages, each once. Reading code of a language needs its grammar loaded before. */
export async function loadGrammars(wanted: Iterable<CodeLanguage>): Promise<void> {
  if (isBroken) {
    parsers.clear();
    starting = undefined;
    isBroken = false;
  }
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
  // Under another address the module is loaded anew, with memory of its own.
  const module = (
    breakdowns === 0
      ? await import("web-tree-sitter")
      : await import(`${import.meta.resolve("web-tree-sitter")}?${breakdowns}`)
  ) as TreeSitter;
  await module.Parser.init();
  return module;
}

/**
 * A parser says every hundred steps or so that it is at work: about 15 times in a thousand characters, and without end in broken
 * code that has too many readings. After so many times, and more in longer code, it is stopped: the file counts as one that does
 * not parse, on every machine alike.
 */
const mostSteps = 16_000;
const mostStepsPerUnit = 0.2;

/** What stands for a program that no parser gets through. */
function unparsed(text: string): CodeNode {
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

/**
 * Parses code. Where the parsers' program itself breaks down, as it does on some code of thousands of errors, this file and all after it
 * count as not parsed until grammars are loaded again. Throws where the language's grammar is not loaded: that is a mistake of the caller. */
export function parseCode(language: CodeLanguage, text: string): CodeNode {
  const parser = parsers.get(language);
  if (!parser) throw new Error(`the grammar of ${language} is not loaded`);
  let stepsLeft = mostSteps + text.length * mostStepsPerUnit;
  // Where the callback says true the parser stops; its declaration leaves the result out.
  if (isBroken) return unparsed(text);
  let tree: TreeSitterModule.Tree | null = null;
  try {
    tree = parser.parse(text, null, { progressCallback: () => stepsLeft-- <= 0 });
    if (!tree) {
      parser.reset();
      // Broken code can have so many readings that no parser gets through them.
      return unparsed(text);
    }
    try {
      return copyTree(tree);
    } finally {
      tree.delete();
    }
  } catch (error) {
    if (!(error instanceof Error) || error.name !== "RuntimeError") throw error;
    kept.push(tree, ...parsers.values());
    isBroken = true;
    breakdowns++;
    return unparsed(text);
  }
}
