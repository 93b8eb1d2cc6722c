import { describe, expect, test } from "@jest/globals";
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { fillMessage } from "../../../src/core/message/fill.js";
import { visitNodes } from "../../../src/core/message/facts.js";
import { parseIcu } from "../../../src/core/message/syntaxes/icu/icu.js";
import { styleFault } from "../../../src/core/message/styles.js";
import {
  askIcu,
  icuQuestions,
  oracleLocales,
  styleQuestions,
  type IcuCase,
} from "../../support/icu-oracle.js";
import { parseJava } from "../../../src/core/message/syntaxes/java/java.js";
import { askMessageFormat, messagePatterns, type MessageCase } from "../../support/message-oracle.js";
import { root } from "../../support/project.js";

/** Whether a plural or select lacks `other`: ICU refuses it, here a rule judges it. */
function lacksOther(message: ReturnType<typeof parseIcu>): boolean {
  let lacks = false;
  visitNodes(message.nodes, (node) => {
    if (
      (node.kind === "plural" || node.kind === "select") &&
      !node.branches.some(({ selector }) => selector === "other")
    )
      lacks = true;
  });
  return lacks;
}

function agree({ message, locale, n, text }: IcuCase): void {
  const read = parseIcu(message, { tags: false });
  const refused = read.problems.some(({ severity }) => severity === "error") || lacksOther(read);
  if (text === null || refused) {
    expect([message, refused]).toEqual([message, text === null]);
    return;
  }
  const formatted = fillMessage(read.nodes, locale, { n, name: "Mara", kind: "sea" });
  expect([message, locale, n, formatted.text]).toEqual([message, locale, n, text]);
}

describe("messages are taken, refused and filled as ICU4J does it", () => {
  test("on what was recorded of it", () => {
    const cases = JSON.parse(readFileSync(join(root, "test/fixtures/oracle/icu.json"), "utf8")) as IcuCase[];
    expect(new Set(cases.map(({ locale }) => locale)).size).toBe(oracleLocales.length);
    expect(cases.filter(({ text }) => text !== null).length).toBeGreaterThan(1200);
    expect(cases.filter(({ text }) => text === null).length).toBeGreaterThan(200);
    cases.forEach(agree);
  });

  // Where ICU4J is not installed the test is shown as skipped: nothing was asked.
  const isHere = askIcu(icuQuestions(1, 1)) !== undefined;
  (isHere ? test : test.skip)("on new messages, asked of ICU4J on this machine", () => {
    const cases = askIcu(icuQuestions(Date.now() % 2 ** 31, 3000));
    expect(cases?.length).toBeGreaterThan(2000);
    cases?.forEach(agree);
  });
});

describe("styles of numbers and dates are refused as ICU4J refuses them", () => {
  /** Those that the two judge differently, each with its reason. */
  const known = [
    // ICU lets a unit follow the token that says there is none, and says nothing of fields in two ways of counting.
    /base-unit/,
    /::(?=.*w)(?=.*y)/,
  ];
  const agreeOn = (cases: readonly IcuCase[]) => {
    for (const { message, text } of cases) {
      const [node] = parseIcu(message).nodes;
      if (node?.kind !== "argument" || !node.format || known.some((one) => one.test(message))) continue;
      expect([message, styleFault(node.format) !== undefined]).toEqual([message, text === null]);
    }
  };
  test("on what was recorded of it", () => {
    const cases = JSON.parse(
      readFileSync(join(root, "test/fixtures/oracle/styles.json"), "utf8"),
    ) as IcuCase[];
    expect(cases.filter(({ text }) => text === null).length).toBeGreaterThan(200);
    agreeOn(cases);
  });

  const isHere = askIcu(styleQuestions(1, 1)) !== undefined;
  (isHere ? test : test.skip)("on new ones, asked of ICU4J on this machine", () => {
    const cases = askIcu(styleQuestions(Date.now() % 2 ** 31, 1000)) ?? [];
    expect(cases.length).toBeGreaterThan(500);
    agreeOn(cases);
  });
});

describe("patterns are taken, refused and filled as java.text.MessageFormat does it", () => {
  const agreeOn = (cases: readonly MessageCase[]) => {
    for (const { pattern, shown } of cases) {
      const { nodes, problems } = parseJava(pattern, false);
      const isRefused = problems.some(({ severity }) => severity === "error");
      // Of an argument without end Java drops the rest of the message, if a brace is open inside: here that is an error too.
      if (problems.some(({ name }) => name === "unclosed-brace")) continue;
      expect([pattern, isRefused]).toEqual([pattern, shown === "refused"]);
      const hasFormats = nodes.some((node) => node.kind === "argument" && node.format);
      if (isRefused || hasFormats) continue;
      // Values that a message has no number for stay as they are written.
      const values = { "0": "A0", "1": "A1", "2": "A2", "3": "A3" };
      expect([pattern, fillMessage(nodes, "en", values).text]).toEqual([pattern, shown]);
    }
  };
  test("on what was recorded of it", () => {
    const cases = JSON.parse(
      readFileSync(join(root, "test/fixtures/oracle/messages.json"), "utf8"),
    ) as MessageCase[];
    expect(cases.filter(({ shown }) => shown === "refused").length).toBeGreaterThan(500);
    expect(cases.filter(({ shown }) => shown !== "refused").length).toBeGreaterThan(200);
    agreeOn(cases);
  });

  const isHere = askMessageFormat(messagePatterns(1, 1)) !== undefined;
  (isHere ? test : test.skip)("on new ones, asked of the JDK on this machine", () => {
    const cases = askMessageFormat(messagePatterns(Date.now() % 2 ** 31, 4_000)) ?? [];
    expect(cases.length).toBeGreaterThan(3_000);
    agreeOn(cases);
  });
});
