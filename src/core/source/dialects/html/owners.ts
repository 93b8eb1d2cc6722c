import { closeOf } from "../../../text/brackets.js";
import { literally } from "../../../text/key-pattern.js";
import type { TemplateOwners } from "../dialect.js";

/** Components whose decorator names the file of their template, and lists what it may use unless a module declares them. */
export const decorated: TemplateOwners = {
  mark: "Component",
  groupMark: "NgModule",
  settingsIn: (text) =>
    [...text.matchAll(/@Component\(/g)].map(({ index, 0: opening }) => {
      const start = index + opening.length;
      return text.slice(start, closeOf(text, start));
    }),
  template: /\btemplateUrl\s{0,9}:\s{0,9}["'`]([^"'`]{1,200})/,
  listed: /\bimports\s{0,9}:\s{0,9}\[([^\]]{0,2000})\]/,
  alone: /\bstandalone\s{0,9}:\s{0,9}true\b|\bimports\s{0,9}:/,
  inGroup: /\bstandalone\s{0,9}:\s{0,9}false\b/,
  classOf: (filter) =>
    new RegExp(
      `@Pipe\\(\\s{0,99}\\{[^}]{0,300}\\bname\\s{0,9}:\\s{0,9}["'\`]${literally(filter)}["'\`][^}]{0,300}\\}\\s{0,99}\\)\\s{0,99}export\\s{1,9}(?:default\\s{1,9})?class\\s{1,9}(\\w{1,80})`,
    ),
};
