import { placeholderSyntax } from "./placeholders.js";

/** Text without arguments. */
export const plain = placeholderSyntax({
  name: "plain",
  signs: { single: "<" },
  placeholders: [],
  hasArguments: false,
  pattern: undefined,
  read: () => ({ text: "" }),
  write: () => "",
  escape: (text) => text,
});
