import type { Ecosystem } from "./ecosystem.js";

export const rubyWeb: Ecosystem = {
  name: "ruby-web",
  shown: "Gemfile and app/views show a web application in Ruby",
  marks: ["Gemfile", "app/views/**/*.erb"],
  letterCase: "snake",
  book: {
    files: "config/locales/{locale}.yml",
    root: "{locale}",
    syntax: "percent-brace",
    plurals: "branches",
    lookups: [{ call: "t" }],
    relative: { root: "app/views", pattern: "{folders}.{file}" },
    emit: { call: 't("{key}"{args})' },
    naming: { case: "snake" },
  },
};
