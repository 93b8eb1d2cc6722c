import { expect, test } from "@jest/globals";
import { nameFromCode } from "../../../src/core/source/readers/expression-names.js";
import { nameForExpression } from "../../../src/core/source/readers/script/names.js";
import { parseScript } from "../../../src/core/source/readers/script/parse.js";

function scriptName(code: string): string {
  const [statement] = parseScript("a.ts", `(${code});`).program.body;
  if (statement?.type !== "ExpressionStatement") throw new Error(code);
  return nameForExpression(statement.expression);
}

/** What translators read as the name of a value, by its code, in scripts and in other languages. */
test.each([
  ["user.firstName", "firstName", "firstName"],
  ["boats.length", "boatCount", "boats"],
  ['t("main.title")', "title", "title"],
  ['getSetting("site_name")', "site_name", "site_name"],
  ['texts.get("boat-desk.lead")', "lead", "lead"],
  ['day.format("YYYY")', "day", "day"],
  ['names.join("and")', "names", "names"],
  ["total(price)", "price", "price"],
])("%s", (code, inScripts, inOthers) => {
  expect(scriptName(code)).toBe(inScripts);
  expect(nameFromCode(code)).toBe(inOthers);
});
