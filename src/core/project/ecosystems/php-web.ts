import type { Ecosystem } from "./ecosystem.js";

export const phpWeb: Ecosystem = {
  name: "php-web",
  shown: "composer.json and resources/views show a web application in PHP",
  marks: ["composer.json", "resources/views/**/*.php"],
  book: {
    files: "lang/{locale}.json",
    syntax: "colon",
    plurals: "bar",
    lookups: [{ call: "__" }, { call: "trans" }],
    emit: { call: '__("{key}"{args})' },
    naming: { shape: "flat" },
  },
};
