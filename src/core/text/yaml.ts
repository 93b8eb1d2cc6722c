import { createRequire } from "node:module";
import type * as Yaml from "yaml";
import { lazily } from "./lazy.js";

/**
 * The parts of the package `yaml` that are used here. It is loaded when one of them is first called: most files are
 * read without it, and loading takes longer than many a command.
 */

const require = createRequire(import.meta.url);
const yaml = lazily(() => require("yaml") as typeof Yaml);

export const isAlias: typeof Yaml.isAlias = (node) => yaml().isAlias(node);
export const isMap: typeof Yaml.isMap = (node): node is never => yaml().isMap(node);
export const isPair: typeof Yaml.isPair = (node): node is never => yaml().isPair(node);
export const isScalar: typeof Yaml.isScalar = (node): node is never => yaml().isScalar(node);
export const isSeq: typeof Yaml.isSeq = (node): node is never => yaml().isSeq(node);
export const parseAllDocuments = ((...given: Parameters<typeof Yaml.parseAllDocuments>) =>
  yaml().parseAllDocuments(...given)) as typeof Yaml.parseAllDocuments;
export const parseDocument = ((...given: Parameters<typeof Yaml.parseDocument>) =>
  yaml().parseDocument(...given)) as typeof Yaml.parseDocument;
export const visit = ((...given: Parameters<typeof Yaml.visit>) =>
  yaml().visit(...given)) as typeof Yaml.visit;
export const lineCounter = (): Yaml.LineCounter => new (yaml().LineCounter)();
