import { describe, expect, test } from "@jest/globals";
import { shownErrorsIn } from "../../../src/core/survey/shown-errors.js";
import { memoryFiles } from "../../../src/core/files/memory-files.js";
import { explainProject, surveyProject } from "../../../src/core/project/survey-project.js";
import { openProject } from "../../../src/core/project/project.js";

const caught: [string, string, readonly string[]][] = [
  ["desk.py", 'try:\n    lend()\nexcept LoanError as e:\n    flash(str(e), "error")\n', ["LoanError"]],
  [
    "desk.py",
    "try:\n    lend()\nexcept (LoanError, FeeError) as e:\n    QMessageBox.warning(self, e)\n",
    ["LoanError", "FeeError"],
  ],
  [
    "desk.py",
    "try:\n    lend()\nexcept LoanError as e:\n    log.warning('loan', error=str(e))\nflash(str(e))\n",
    [],
  ],
  ["desk.py", "try:\n    lend()\nexcept ValueError as e:\n    flash(str(e))\n", []],
  [
    "Desk.java",
    "void a() { try { lend(); } catch (LoanException | FeeException e) { showError(e.getMessage()); } }",
    ["LoanException", "FeeException"],
  ],
  [
    "Desk.java",
    'void a() { try { lend(); } catch (LoanException e) { request.setAttribute("error", e.getMessage()); } }',
    ["LoanException"],
  ],
  ["Desk.java", "void a() { try { lend(); } catch (LoanException e) { logger.warn(e.getMessage()); } }", []],
  ["Desk.java", "void a() { try { lend(); } catch (IOException e) { showError(e.getMessage()); } }", []],
  [
    "Desk.cs",
    "void A() { try { Lend(); } catch (LoanException ex) { MessageBox.Show(ex.Message); } }",
    ["LoanException"],
  ],
  [
    "Desk.cs",
    'void A() { try { Lend(); } catch (LoanException ex) { TempData["Error"] = ex.Message; } }',
    ["LoanException"],
  ],
  [
    "desk.rb",
    "def a\n  lend\nrescue LoanError => e\n  redirect_to root_path, alert: e.message\nend\n",
    ["LoanError"],
  ],
  [
    "desk.php",
    "<?php try { lend(); } catch (\\Shop\\LoanException $e) { $this->flash->error($e->getMessage()); }",
    ["LoanException"],
  ],
  [
    "desk.ts",
    "try { lend(); } catch (e) { if (e instanceof LoanError) { setError(e.message); } }",
    ["LoanError"],
  ],
];

describe("errors whose message is shown where they are caught", () => {
  test.each(caught)("%s: %s", (file, code, types) => {
    expect(shownErrorsIn(file, code)).toEqual(types);
  });
});

describe("their messages", () => {
  const files = memoryFiles({
    "fond.config.json": JSON.stringify({
      source: "en",
      targets: ["de"],
      books: [{ name: "desk", files: "texts/{locale}.json", code: ["src/**/*.{py,java}"] }],
    }),
    "src/views.py": "try:\n    lend()\nexcept LoanError as e:\n    flash(str(e))\n",
    "src/loans.py": [
      "def lend():",
      '    raise LoanError("This book is on loan.")',
      "def keep():",
      '    raise ShelfError("This shelf is full.")',
    ].join("\n"),
    "src/Desk.java":
      'class Desk { void a() { throw new LoanError("Bring it back on Friday."); } void b() { throw new IllegalStateException("No desk was set."); } }',
    "src/forms.py": [
      "class Order(BaseModel):",
      '    @field_validator("metres")',
      "    def not_too_long(cls, value):",
      '        raise ValueError("The loom takes forty metres.")',
      "    def other(self):",
      '        raise ValueError("The yarn was not set.")',
    ].join("\n"),
  });
  const open = () => {
    const opened = openProject(files);
    if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
    return opened.project;
  };

  test("are texts in every file of the book, and in what checks what people enter", async () => {
    const found = await surveyProject(open());
    const verdicts = Object.fromEntries(
      found.files.flatMap(({ literals }) => literals.map(({ text, verdict }) => [text, verdict])),
    );
    expect(verdicts).toEqual({
      "This book is on loan.": "text",
      "This shelf is full.": "unclear",
      "Bring it back on Friday.": "text",
      "No desk was set.": "unclear",
      "The loom takes forty metres.": "text",
      "The yarn was not set.": "unclear",
    });
  });

  test("are explained by where they are caught", async () => {
    const [one] = await explainProject(open(), "src/loans.py", 2);
    expect(one?.reason).toMatch(/message of LoanError, shown where it is caught/);
  });
});
