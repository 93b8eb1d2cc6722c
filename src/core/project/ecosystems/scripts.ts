import type { Ecosystem } from "./ecosystem.js";

export const scripts: Ecosystem = {
  name: "scripts",
  shown: "package.json and src show a program in JavaScript or TypeScript",
  marks: ["package.json", "src/**/*.{js,jsx,ts,tsx,mjs,vue,svelte}"],
  book: { files: "src/locales/{locale}.json", lookups: [{ call: "t" }] },
};
