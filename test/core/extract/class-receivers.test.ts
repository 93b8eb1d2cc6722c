import { describe, expect, test } from "@jest/globals";
import { extractProject } from "../../../src/core/project/extract-project.js";
import { memoryProject } from "../../support/memory-project.js";

interface Case {
  readonly call: string;
  /** The line that brings the class in. */
  readonly line?: string;
  /** The call with values. */
  readonly filled?: string;
  readonly files: Readonly<Record<string, string>>;
}

/** What becomes of the file `src/X`, and why its texts stayed. */
async function extract(name: string, { call, line, filled, files }: Case) {
  const ending = /\.\w+$/.exec(name)?.[0] ?? "";
  const project = memoryProject(
    {
      code: ["src/**"],
      lookups: [{ call: call.split("(")[0] }],
      emit: {
        endings: {
          [ending]: {
            call,
            ...(line !== undefined && { import: line }),
            ...(filled !== undefined && { withValues: { call: filled } }),
          },
        },
      },
    },
    {
      "t/en.json": "{}",
      ...Object.fromEntries(Object.entries(files).map(([file, code]) => [`src/${file}`, code])),
    },
  );
  const { changes, notes } = await extractProject(project, {}, { least: "unclear" });
  return {
    after: changes.find(({ file }) => file === `src/${name}`)?.after,
    why: notes.filter(({ file }) => file === `src/${name}`).map(({ messageId }) => messageId),
  };
}

describe("a class that a lookup is asked of is seen from its own package, or brought in", () => {
  const javaTexts =
    "package a.util;\npublic class Texts { public static String get(String key) { return key; } }\n";
  const java = (head: string, more: Record<string, string> = {}, hasTexts = true): Case => ({
    call: 'Texts.get("{key}"{args})',
    files: {
      ...(hasTexts && { "util/Texts.java": javaTexts }),
      ...more,
      "X.java": `${head}\nclass X { void f() { label.setText("Our best boats"); } }\n`,
    },
  });
  const sharp = (head: string, more: Record<string, string> = {}): Case => ({
    call: 'Texts.Get("{key}"{args})',
    files: {
      "Texts.cs":
        "namespace A.Util;\npublic static class Texts { public static string Get(string key) => key; }\n",
      ...more,
      "X.cs": `${head}\nclass X { void F() { label.Text = "Our best boats"; } }\n`,
    },
  });
  const phpTexts = "<?php\nnamespace A\\Util;\nclass Texts { static function get($key) { return $key; } }\n";
  const php = (head: string, more: Record<string, string> = {}): Case => ({
    call: "Texts::get('{key}'{args})",
    files: {
      "Texts.php": phpTexts,
      ...more,
      "X.php": `<?php\n${head}\nclass X { function f() { $this->flash('Our best boats'); } }\n`,
    },
  });
  const say = (
    head: string,
    file = "<?php\nnamespace A\\Util;\nfunction say($key) { return $key; }\n",
  ): Case => ({
    call: "say('{key}'{args})",
    files: {
      "say.php": file,
      "X.php": `<?php\n${head}\nclass X { function f() { $this->flash('Our best boats'); } }\n`,
    },
  });
  const uses = "class Y { void f() { label.setText(Texts.get(key)); } }\n";

  const go = (head: string): Case => ({
    call: 'Say("{key}"{args})',
    files: {
      "web/say.go": "package web\n\nfunc Say(key string, args ...any) string { return key }\n",
      "X.go": `${head}\n\nfunc f() { http.Error(w, "Our best boats", 404) }\n`,
    },
  });

  test.each<[string, string, Case, boolean]>([
    ["Go, same package", "X.go", go("package web"), true],
    ["Go, another package", "X.go", go("package main"), false],
    ["Go, with all of the package", "X.go", go('package main\n\nimport . "example.org/web"'), true],
    ["Java, same package", "X.java", java("package a.util;"), true],
    ["Java, another package", "X.java", java("package a.ui;"), false],
    ["Java, a package inside", "X.java", java("package a.util.deep;"), false],
    ["Java, by its name", "X.java", java("package a.ui;\nimport a.util.Texts;"), true],
    ["Java, with all of its package", "X.java", java("package a.ui;\nimport a.util.*;"), true],
    ["Java, with all of another package", "X.java", java("package a.ui;\nimport a.other.*;"), false],
    [
      "Java, not in the code, as a neighbor has it",
      "X.java",
      java("package a.ui;", { "Y.java": `package a.ui;\n${uses}` }, false),
      true,
    ],
    [
      "Java, not in the code, and a neighbor brings it in",
      "X.java",
      java("package a.ui;", { "Y.java": `package a.ui;\nimport b.Texts;\n${uses}` }, false),
      false,
    ],
    ["Java, not in the code at all", "X.java", java("package a.ui;", {}, false), false],
    ["C#, same namespace", "X.cs", sharp("namespace A.Util;"), true],
    ["C#, a namespace inside", "X.cs", sharp("namespace A.Util.Deep;"), true],
    ["C#, another namespace", "X.cs", sharp("namespace A.Ui;"), false],
    ["C#, with its namespace", "X.cs", sharp("using A.Util;\nnamespace A.Ui;"), true],
    ["PHP, same namespace", "X.php", php("namespace A\\Util;"), true],
    ["PHP, another namespace", "X.php", php("namespace A;"), false],
    ["PHP, a namespace inside", "X.php", php("namespace A\\Util\\Deep;"), false],
    ["PHP, none", "X.php", php(""), false],
    ["PHP, by its name", "X.php", php("namespace A;\nuse A\\Util\\Texts;"), true],
    ["PHP, in a group", "X.php", php("namespace A;\nuse A\\Util\\{Other, Texts};"), true],
    ["PHP, by another's name", "X.php", php("namespace A;\nuse B\\Words as Texts;"), true],
    [
      "PHP, none, as others without one",
      "X.php",
      php("", { "Y.php": "<?php\nclass Y { function f() { echo Texts::get($key); } }\n" }),
      true,
    ],
    [
      "PHP, what fills a text and another namespace has as well",
      "X.php",
      {
        call: "say('{key}')",
        filled: "sprintf(say('{key}'), {values})",
        files: {
          "say.php": "<?php\nnamespace Safe;\nfunction sprintf($format) { return $format; }\n",
          "X.php":
            "<?php\nnamespace A;\nclass X { function f($n) { $this->flash('Our best boats: ' . $n); } }\n",
        },
      },
      true,
    ],
    ["PHP, a function in its namespace", "X.php", say("namespace A\\Util;"), true],
    ["PHP, a function of another namespace", "X.php", say("namespace A;"), false],
    ["PHP, a function by its name", "X.php", say("namespace A;\nuse function A\\Util\\say;"), true],
    [
      "PHP, a function without one",
      "X.php",
      say("namespace A;", "<?php\nfunction say($key) { return $key; }\n"),
      true,
    ],
  ])("%s", async (_, file, given, isMoved) => {
    const { after, why } = await extract(file, given);
    expect(after !== undefined).toBe(isMoved);
    expect(why.includes("extract/not-known")).toBe(!isMoved);
  });

  const phpLine = "use A\\Util\\Texts;";
  test.each<[string, string, Case, boolean | undefined]>([
    ["Java, another package", "X.java", { ...java("package a.ui;"), line: "import a.util.Texts;" }, true],
    ["Java, same package", "X.java", { ...java("package a.util;"), line: "import a.util.Texts;" }, false],
    ["C#, a namespace inside", "X.cs", { ...sharp("namespace A.Util.Deep;"), line: "using A.Util;" }, false],
    ["PHP, another namespace", "X.php", { ...php("namespace A;"), line: phpLine }, true],
    ["PHP, same namespace", "X.php", { ...php("namespace A\\Util;"), line: phpLine }, false],
    [
      "PHP, a file without a place for it",
      "X.php",
      {
        ...php(""),
        files: { "Texts.php": phpTexts, "X.php": "<?php if ($late) { $page->flash('Our best boats'); }\n" },
        line: phpLine,
      },
      undefined,
    ],
  ])("the line that brings it in is written where it is needed: %s", async (_, file, given, isWritten) => {
    const { after, why } = await extract(file, given);
    expect(after?.includes(given.line ?? "")).toBe(isWritten);
    expect(why.includes("extract/no-import-place")).toBe(isWritten === undefined);
  });
});

describe("numbers and dates are joined to a text as before, where a message would write them in the manner of the locale", () => {
  test.each([
    ["int port = 8080;", '"The port is " + port', "String.valueOf(port)"],
    ["String name = n();", '"The name is " + name', "name"],
    ["Date day = d();", '"It is late on " + day', "String.valueOf(day)"],
    ["", '"Number of boats: " + boats.size()', "String.valueOf(boats.size())"],
    ["", '"Boats of owner " + owner.getId()', "String.valueOf(owner.getId())"],
    ["", '"Boats of owner " + owner.getName()', "owner.getName()"],
    ["int n = 3;", 'String.format("There are %d boats", n)', "String.valueOf(n)"],
    ["int n = 3;", 'MessageFormat.format("There are {0} boats", n)', "n"],
  ])("%s %s", async (before, joined, value) => {
    const project = memoryProject(
      {
        files: "t/{locale}.properties",
        syntax: "java",
        code: ["src/**"],
        lookups: [{ call: "say" }],
        emit: { endings: { ".java": { call: 'say("{key}"{args})' } } },
      },
      {
        "t/en.properties": "",
        "src/A.java": `class A { void f() { ${before} label.setText(${joined}); } }\n`,
      },
    );
    const { changes } = await extractProject(project);
    const after = changes.find(({ file }) => file === "src/A.java")?.after ?? "";
    expect(/say\("[^"]+", (.*)\)\); \} \}/.exec(after)?.[1]).toBe(value);
  });
});

describe("a variable that a lookup is given besides its key has to be known where it stands", () => {
  const java = (body: string): Case => ({
    call: 'say("{key}", locale)',
    files: { "X.java": `class X {\n${body}\n}\n` },
  });
  const shown = 'label.setText("Our best boats");';
  const python = (body: string): Case => ({
    call: 'say("{key}", locale)',
    files: { "X.py": `from texts import say\n${body}` },
  });
  test.each<[string, string, Case, boolean]>([
    ["Java, a parameter", "X.java", java(`  void f(Locale locale) { ${shown} }`), true],
    [
      "Java, of another method",
      "X.java",
      java(`  void f() { ${shown} }\n  void g(Locale locale) { }`),
      false,
    ],
    ["Java, a field", "X.java", java(`  private final Locale locale;\n  void f() { ${shown} }`), true],
    ["Java, made before", "X.java", java(`  void f() { Locale locale = l(); ${shown} }`), true],
    ["Java, made behind", "X.java", java(`  void f() { ${shown} Locale locale = l(); }`), false],
    ["Java, in a string", "X.java", java(`  void f() { g("locale"); ${shown} }`), false],
    ["Java, around a lambda", "X.java", java(`  void f(Locale locale) { each(x -> { ${shown} }); }`), true],
    ["Python, a parameter", "X.py", python('def f(locale):\n    flash("Our best boats")\n'), true],
    ["Python, of the file", "X.py", python('locale = "en"\ndef f():\n    flash("Our best boats")\n'), true],
    ["Python, of nobody", "X.py", python('def f():\n    flash("Our best boats")\n'), false],
  ])("%s", async (_, file, given, isMoved) => {
    const { after, why } = await extract(file, given);
    expect(after !== undefined).toBe(isMoved);
    expect(why.includes("extract/not-known")).toBe(!isMoved);
  });
});
