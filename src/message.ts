/** Messages: reading, writing, comparing and filling them, in every syntax. `fond-ledger/message`. */
export { messageReader, type MessageReader, type MessageSettings } from "./core/message/parse.js";
export type { ReadMessage } from "./core/message/read-message.js";
export { fillMessage, type ArgumentValue, type Filled } from "./core/message/fill.js";
export { messageFacts, visitNodes, type MessageFacts } from "./core/message/facts.js";
export { explainProblem } from "./core/message/problem-wordings.js";
export { parseIcu, type IcuOptions } from "./core/message/syntaxes/icu/icu.js";
export { printIcu } from "./core/message/syntaxes/icu/icu-print.js";
export { parseMf2 } from "./core/message/syntaxes/mf2/mf2.js";
export { printMf2 } from "./core/message/syntaxes/mf2/mf2-print.js";
export { syntaxes } from "./core/message/syntaxes/index.js";
export type { Syntax } from "./core/message/syntaxes/syntax.js";
export type * from "./core/message/model.js";
export {
  pluralRules,
  type PluralCategory,
  type PluralKind,
  type PluralRules,
} from "./core/locale/plural-rules.js";
export { parseTag, type LocaleTag } from "./core/locale/tag.js";
