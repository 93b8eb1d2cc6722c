import { placeholderSyntax } from "./placeholders.js";

/** A colon: `:name`, `:Name`, `:NAME`. */
export const colon = placeholderSyntax({
  name: "colon",
  signs: { single: ":<" },
  placeholders: [],
  recognized: { pattern: /(?<![\p{L}\p{N}_:]):[a-z_]{2,}\b(?!:)/u, isWeak: true },

  pattern: /(?<![\p{L}\p{N}_:]):([A-Za-z_][A-Za-z0-9_]*)/gu,
  read: ([, written = ""]) => {
    const isCapitals = written.length > 1 && written === written.toUpperCase() && /[A-Z]/.test(written);
    const isTitle = !isCapitals && /^[A-Z]/.test(written);
    const name = isCapitals
      ? written.toLowerCase()
      : isTitle
        ? written.charAt(0).toLowerCase() + written.slice(1)
        : written;
    // The same argument in another case: how it is shown, not another one.
    return { name, nameAt: 1, ...(isCapitals ? { type: "capitals" } : isTitle ? { type: "title" } : {}) };
  },
  write: ({ name, format }) =>
    `:${format?.type === "capitals" ? name.toUpperCase() : format?.type === "title" ? name.charAt(0).toUpperCase() + name.slice(1) : name}`,
  escape: (text) => text,
});
