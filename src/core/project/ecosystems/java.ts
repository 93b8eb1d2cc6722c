import type { Ecosystem } from "./ecosystem.js";

export const java: Ecosystem = {
  name: "java",
  shown: "src/main/java shows a program in Java",
  marks: ["src/main/java/**/*.java"],
  book: {
    files: "src/main/resources/messages_{locale}.properties",
    spelling: "underscore",
    syntax: "java",
    lookups: [{ call: "getString" }],
    naming: { shape: "flat" },
  },
};
