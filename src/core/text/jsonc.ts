import { createRequire } from "node:module";
import type * as Jsonc from "jsonc-parser";
import { lazily } from "./lazy.js";

/** The parts of the package `jsonc-parser` that are used here, loaded when one of them is first called. */

const require = createRequire(import.meta.url);
const jsonc = lazily(() => require("jsonc-parser") as typeof Jsonc);

export const applyEdits: typeof Jsonc.applyEdits = (text, edits) => jsonc().applyEdits(text, edits);
export const findNodeAtLocation: typeof Jsonc.findNodeAtLocation = (tree, path) =>
  jsonc().findNodeAtLocation(tree, path);
export const modify: typeof Jsonc.modify = (text, path, value, options) =>
  jsonc().modify(text, path, value, options);
export const parse: typeof Jsonc.parse = (text, errors, options) =>
  jsonc().parse(text, errors, options) as unknown;
export const parseTree: typeof Jsonc.parseTree = (text, errors, options) =>
  jsonc().parseTree(text, errors, options);
export const printParseErrorCode: typeof Jsonc.printParseErrorCode = (code) =>
  jsonc().printParseErrorCode(code);
