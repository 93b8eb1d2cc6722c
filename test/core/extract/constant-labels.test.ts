import { describe, expect, test } from "@jest/globals";
import { execFileSync, spawnSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { memoryFiles } from "../../../src/core/files/memory-files.js";
import { extractProject } from "../../../src/core/project/extract-project.js";
import { openProject } from "../../../src/core/project/project.js";

/** Extracts one Java file of a book whose lookups take a key in quotes. */
async function extract(code: string, emit: object = {}, lookups: readonly object[] = []) {
  const config = {
    source: "en",
    targets: [],
    books: [
      {
        name: "app",
        code: ["app/**"],
        files: "texts/{locale}.properties",
        format: "properties",
        syntax: "java",
        naming: { shape: "flat" },
        lookups: [{ call: "Texts.get" }, ...lookups],
        emit: { call: 'Texts.get("{key}"{args})', ...emit },
      },
    ],
  };
  const files = memoryFiles({
    "fond.config.json": JSON.stringify(config),
    "texts/en.properties": "",
    "app/Grade.java": code,
  });
  const opened = openProject(files);
  if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
  const plan = await extractProject(opened.project, {}, { least: "unclear" });
  const after = (file: string) => plan.changes.find((change) => change.file === file)?.after;
  return {
    code: after("app/Grade.java") ?? code,
    catalog: after("texts/en.properties") ?? "",
    notes: plan.notes.map(({ message }) => message).join("\n"),
    remedies: plan.notes.map(({ remedy }) => remedy).join("\n"),
  };
}

const grade = (parts: { readonly constants?: string; readonly made?: string; readonly rest?: string } = {}) =>
  `package app;

/** How good it is; "quotes" and {braces} in a comment are no code. */
public enum Grade {
  ${parts.constants ?? 'GOOD("Good work", 1), POOR("Poor work", 2)'};

  private final String label;
  private final int points;

  Grade(String label, int points) {
    ${parts.made ?? "this.label = label;"}
    this.points = points;
  }

  public String label() {
    return label;
  }
${parts.rest ?? ""}}
`;

const taken = (code: string) =>
  code
    .replace('"Good work"', '"grade.goodWork"')
    .replace('"Poor work"', '"grade.poorWork"')
    .replace("return label;", "return Texts.get(label);");

describe("labels of constants", () => {
  test.each<[string, string]>([
    ["their keys take their place, and what hands them out looks them up", grade()],
    ["whatever a string holds", grade({ rest: '  String site() { return "http://x/ \\"label; {"; }\n' })],
    [
      "also where annotations stand beside them",
      grade({ constants: '@Deprecated GOOD("Good work", 1), POOR("Poor work", 2)' }),
    ],
    [
      "also where a constant has a body",
      grade({ constants: 'GOOD("Good work", 1) { int more() { return 1; } }, POOR("Poor work", 2)' }),
    ],
  ])("%s", async (_, code) => {
    const found = await extract(code);
    expect(found.notes).toBe("");
    expect(found.code).toBe(taken(code));
    expect(found.catalog).toContain("grade.goodWork=Good work");
    expect((await extract(found.code)).code).toBe(found.code);
  });

  test("the field is read with `this` as well", async () => {
    const code = grade({ rest: "  @Override public String toString() { return this.label; }\n" });
    expect((await extract(code)).code).toBe(
      taken(code).replace("return this.label;", "return Texts.get(label);"),
    );
  });

  test.each<[string, string, string]>([
    [
      "the field is read for more",
      grade({ rest: "  int size() { return label.length(); }\n" }),
      "reads the field",
    ],
    [
      "it is put in lower case",
      grade({ made: "this.label = label.toLowerCase();" }),
      "before a locale is chosen",
    ],
    [
      "the constructor keeps it twice",
      grade({ made: "this.label = label; all.add(label);" }),
      "before a locale is chosen",
    ],
    [
      "one is given what is no text",
      grade({ constants: 'GOOD("Good work", 1), POOR(WORDS, 2)' }),
      "not all constants",
    ],
    ["one is put together", grade({ constants: 'GOOD("Good work", 1), POOR("Poor " + WORDS, 2)' }), ""],
    [
      "others may read the field",
      grade().replace("private final String label", "final String label"),
      "before a locale",
    ],
    [
      "there are two constructors",
      grade({ rest: "  Grade(String label) { this(label, 0); }\n" }),
      "before a locale",
    ],
    [
      "the class around it reads the field",
      `class Outer {\n${grade().replace("package app;", "")} String of(Grade g) { return g.label; }\n}\n`,
      "line 20 reads the field",
    ],
  ])("none where %s", async (_, code, reason) => {
    const found = await extract(code);
    expect(found.code).toBe(code);
    expect(found.notes).toContain(reason);
  });

  test("none where the text of one stays", async () => {
    const code = grade({ constants: 'GOOD("Good work", 1), NONE("n/a", 2)' });
    expect((await extract(code)).code).toBe(code);
  });

  const hasJava = spawnSync("javac", ["-version"]).status === 0;
  (hasJava ? test : test.skip)("the program says what it said", async () => {
    const code = grade({ rest: "  int points() { return points; }\n" });
    const found = await extract(code);
    const folder = mkdtempSync(join(tmpdir(), "labels-"));
    const say = (source: string, texts: string): string => {
      writeFileSync(join(folder, "Grade.java"), source);
      writeFileSync(join(folder, "texts.properties"), texts);
      writeFileSync(
        join(folder, "Run.java"),
        'package app;\npublic class Run { public static void main(String[] a) { for (Grade g : Grade.values()) System.out.println(g + " " + g.label() + " " + g.points()); } }\n',
      );
      writeFileSync(
        join(folder, "Texts.java"),
        'package app;\nclass Texts { static String get(String key) { try (java.io.Reader in = new java.io.FileReader("texts.properties")) { java.util.Properties p = new java.util.Properties(); p.load(in); return p.getProperty(key); } catch (java.io.IOException e) { throw new RuntimeException(e); } } }\n',
      );
      execFileSync("javac", ["-d", "made", "Grade.java", "Run.java", "Texts.java"], { cwd: folder });
      return execFileSync("java", ["-cp", "made", "app.Run"], { cwd: folder, encoding: "utf8" });
    };
    try {
      expect(say(found.code, found.catalog)).toBe(say(code, ""));
      expect(say(found.code, found.catalog.replace("Good work", "Gute Arbeit"))).toContain("Gute Arbeit 1");
    } finally {
      rmSync(folder, { recursive: true });
    }
  });
});

describe("texts of annotations", () => {
  const code = `package app;
class Order {
  @NotNull(message = "A name is required, please")
  String name;
}
`;

  test("stay where the book names no form for them, with what to set", async () => {
    const found = await extract(code);
    expect(found.code).toBe(code);
    expect(found.remedies).toContain("emit.annotation");
  });

  test("are given by their keys where it does, and found there again", async () => {
    const set = [{ annotation: "{{key}}" }, [{ binding: "{KEY}" }]] as const;
    const found = await extract(code, ...set);
    expect(found.notes).toBe("");
    expect(found.code).toMatch(/message = "\{[\w.]+\}"/);
    expect(found.catalog).toContain("=A name is required, please");
    expect((await extract(found.code, ...set)).code).toBe(found.code);
  });

  test("but not where braces in them would be read as keys", async () => {
    const sized = code.replace("A name is required, please", "At most {max} names are taken");
    const found = await extract(sized, { annotation: "{{key}}" }, [{ binding: "{KEY}" }]);
    expect(found.code).toBe(sized);
  });
});
