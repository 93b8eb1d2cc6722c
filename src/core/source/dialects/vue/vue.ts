import { hasNoFilter, type Dialect } from "../dialect.js";
import { braceIslands } from "../braces/braces.js";

/** Components whose expressions stand in double braces. */
export const vue: Dialect = {
  name: "vue",
  language: "script",
  extensions: [".vue"],
  islands: (text) => braceIslands(text, false),
  isComponent: true,
  hasSharedMembers: true,
  elementBindings: String.raw`^v-for="[^"]*?NAME[^"]*?\s(?:in|of)\s|^(?:v-slot[\w:.-]*|#[\w.-]*|slot-scope)="[^"]*?NAME`,
  bindsAttributes: true,
  runsPerUse: (attributes) => /\bsetup\b/.test(attributes),
  hoisted: /(?<![\w$.])(?:withDefaults|define(?:Props|Emits|Options|Model|Slots))\s{0,9}[<(]/,
  shown: ["{{ ", " }}"],
  attribute: (call) => `:{name}="${call.replaceAll('"', "'")}"`,
  asItIs: "v-pre",
  conditional: { shown: "v-if", otherwise: "v-else" },
  passesIsland: hasNoFilter,
};
