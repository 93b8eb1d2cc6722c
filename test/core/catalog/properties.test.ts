import { describe, expect, test } from "@jest/globals";
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { propertiesFormat } from "../../../src/core/catalog/formats/properties/properties.js";
import { askJava, propertiesTexts, type PropertiesCase } from "../../support/properties-oracle.js";
import { root } from "../../support/project.js";

function agree({ text, entries }: PropertiesCase): void {
  const read = propertiesFormat.read(text, ".");
  if (entries === "refused") {
    expect([text, read.problems.length]).toEqual([text, 1]);
    return;
  }
  const found = [...new Map(read.entries.map((entry) => [entry.key, entry.text]))].sort(([a], [b]) =>
    a < b ? -1 : 1,
  );
  expect([text, found, read.problems]).toEqual([text, [...entries].sort(([a], [b]) => (a < b ? -1 : 1)), []]);
}

describe("reading agrees with java.util.Properties", () => {
  test("on what was recorded of it", () => {
    const cases = JSON.parse(
      readFileSync(join(root, "test/fixtures/oracle/properties.json"), "utf8"),
    ) as PropertiesCase[];
    expect(cases.length).toBeGreaterThanOrEqual(600);
    cases.forEach(agree);
  });

  test("an escape with a fold inside is read as one", () => {
    agree({ text: "a=\\u00\\\n  e9!", entries: [["a", "é!"]] });
  });

  test("on new texts, where Java is there to ask", () => {
    const cases = askJava(propertiesTexts(Date.now() % 2 ** 31, 2000));
    (cases ?? []).forEach(agree);
  });
});

describe("editing keeps the file's ways", () => {
  const file =
    "# The catalog of the quay.\n\n# greets skippers\ngreeting : Ahoy\nlong = one \\\n    two\ncity=Caf\\u00E9\n! last\nbye:Farewell";
  test.each<[string, Parameters<typeof propertiesFormat.edit>[1], string]>([
    ["a text", { set: [{ path: ["greeting"], text: "Ahoy, é" }] }, file.replace("Ahoy", "Ahoy, \\u00E9")],
    [
      "a text over lines",
      { set: [{ path: ["long"], text: "three" }] },
      file.replace("one \\\n    two", "three"),
    ],
    [
      "a new key behind its neighbour, with its comment",
      {
        add: [{ path: ["mail.subject"], text: "a=b", comment: "of the mail" }],
        order: [["greeting"], ["mail.subject"]],
      },
      file.replace("Ahoy\n", "Ahoy\n# of the mail\nmail.subject : a=b\n"),
    ],
    [
      "a key at the end of a file without a last line end",
      { add: [{ path: ["z z"], text: " x" }] },
      `${file}\nz\\ z : \\ x`,
    ],
    [
      "a key taken out with its comment",
      { remove: [["greeting"]] },
      file.replace("# greets skippers\ngreeting : Ahoy\n", ""),
    ],
    ["the last key taken out", { remove: [["bye"]] }, file.replace("! last\nbye:Farewell", "")],
  ])("%s", (_, changes, expected) => {
    expect(propertiesFormat.edit(file, changes)).toBe(expected);
  });

  test("what opens the file stays when the first key goes", () => {
    expect(propertiesFormat.edit("# About this file.\na=1\nb=2\n", { remove: [["a"]] })).toBe(
      "# About this file.\nb=2\n",
    );
  });

  test("a line that continues an entry is no comment of the next", () => {
    expect(propertiesFormat.edit("a=1 \\\n  !2\nb=2\n", { remove: [["b"]] })).toBe("a=1 \\\n  !2\n");
    expect(propertiesFormat.edit("a=1 \\\n  !2\nb=2\n", { remove: [["a"], ["b"]] })).toBe("");
  });

  test("in ISO-8859-1 only what it lacks is escaped", () => {
    expect(
      propertiesFormat.edit("a=\u00e9\n", { set: [{ path: ["a"], text: "\u00fc\u4e2d" }] }, "latin1"),
    ).toBe("a=\u00fc\\u4e2d\n");
  });
});
