import { describe, expect, test } from "@jest/globals";
import { extractProject } from "../../../src/core/project/extract-project.js";
import { memoryProject } from "../../support/memory-project.js";

/** The texts that move out of some files, sure or not, and the reasons why others stay. */
async function extracted(files: Readonly<Record<string, string>>) {
  const content = "<?= t('{key}'{args}) ?>";
  const erb = '<%= t("{key}"{args}) %>';
  const project = memoryProject(
    {
      files: "t/{locale}.json",
      code: ["src/**"],
      lookups: [{ call: "t" }],
      emit: {
        call: 't("{key}"{args})',
        endings: { ".php": { content, attribute: content }, ".erb": { content: erb, attribute: erb } },
      },
    },
    { "t/en.json": "{}", ...files },
  );
  const { changes, notes } = await extractProject(project, {}, { least: "unclear" });
  const after = changes.find(({ file }) => file === "t/en.json")?.after ?? "{}";
  const textsOf = (value: unknown): string[] =>
    typeof value === "string"
      ? [value]
      : Object.values(value as Record<string, unknown>).flatMap((one) => textsOf(one));
  return { moved: textsOf(JSON.parse(after)).sort(), stays: notes.map(({ message }) => message) };
}

const option = "a form sends this text and a program may store it";
const button = "a form sends this text with its button's name";
const choice = "the value to choose as well";
const used = "for more than to show it";
const elsewhere = "code in another place compares with the same text";
const parts = "joins it to values, as a part of a sentence";
const line = "compares with the same text, and would not find it any more";

describe("a text that a program reads back stays", () => {
  const server = "<?php\nif ($_POST['do'] == 'Sell boat') { sell(); }\n";
  const page = (code: string) => `export const Page = ({ set }) => <div>${code}</div>;\n`;
  const list = (body: string) => page(`{["Open berth", "Closed berth"].map((one) => ${body})}`);
  const view = (code: string) => `<h1><%= t("boats") %></h1>\n<%= ${code} %>\n`;

  test.each<[string, Record<string, string>, string[], string | undefined]>([
    ["of an option without a value", { "src/a.php": "<option>Red sail</option>" }, [], option],
    ["not with a value", { "src/a.php": '<option value="r">Red sail</option>' }, ["Red sail"], undefined],
    [
      "not where code may give one",
      { "src/a.tsx": page("<option {...set}>Red sail</option>") },
      ["Red sail"],
      undefined,
    ],
    [
      "not where it cannot be chosen",
      { "src/a.php": "<option disabled>Red sail</option>" },
      ["Red sail"],
      undefined,
    ],
    ["in a component", { "src/a.tsx": page("<option>Red sail</option>") }, [], option],
    [
      "not of another element",
      { "src/a.php": "<optgroup><li>Red sail</li></optgroup>" },
      ["Red sail"],
      undefined,
    ],
    [
      "of a button that code compares with",
      { "src/a.php": '<input type="submit" name="do" value="Sell boat">', "src/b.php": server },
      [],
      button,
    ],
    [
      "not of one that it asks for alone",
      { "src/a.php": '<input type="submit" name="do" value="Keep boat">', "src/b.php": server },
      ["Keep boat"],
      undefined,
    ],
    [
      "not of one that no form sends",
      { "src/a.php": '<input type="submit" value="Sell boat">', "src/b.php": server },
      ["Sell boat"],
      undefined,
    ],
    [
      "of a helper's button",
      {
        "src/a.html.erb": view('f.submit "Sell boat"'),
        "src/b.rb": 'def update\n  sell if params[:commit] == "Sell boat"\nend\n',
      },
      [],
      button,
    ],
    [
      "of a choice that has no value",
      { "src/a.html.erb": view('f.select :kind, ["Sail boat", "Motor boat"]') },
      [],
      choice,
    ],
    [
      "not of one that has",
      { "src/a.html.erb": view('f.select :kind, [["Sail boat", "s1"]]') },
      ["Sail boat"],
      undefined,
    ],
    [
      "of a list whose members are given on",
      { "src/a.tsx": list("<li onClick={() => set(one)}>{one}</li>") },
      [],
      used,
    ],
    [
      "of a list whose members are values",
      { "src/a.tsx": list("<option value={one}>{one}</option>") },
      [],
      used,
    ],
    [
      "of a list of options without values",
      { "src/a.tsx": list("<option key={one}>{one}</option>") },
      [],
      used,
    ],
    [
      "not of a list that is shown",
      { "src/a.tsx": list("<li key={one} title={one}>{one}</li>") },
      ["Closed berth", "Open berth"],
      undefined,
    ],
    [
      "of a list that is joined to a sentence",
      { "src/a.ts": 'export const f = (n) => alert(["You sold", n, "boats today"].join(" "));\n' },
      [],
      parts,
    ],
    [
      "not of a list that is joined by signs",
      { "src/a.ts": 'export const f = (n) => alert(["Sold boats", name(n)].join(", "));\n' },
      ["Sold boats"],
      undefined,
    ],
    [
      "not of a list of texts alone",
      {
        "src/a.ts": 'export const f = (n) => alert(["All boats are sold.", "Come back later."].join(" "));\n',
      },
      ["All boats are sold.", "Come back later."],
      undefined,
    ],
    [
      "of a call that joins",
      {
        "src/A.cs":
          'class A { void F(int n) { label.Text = string.Concat("You sold ", n, " boats today"); } }\n',
      },
      [],
      parts,
    ],
    [
      "of a widget whose text an event brings back",
      {
        "src/A.java":
          'class A { void f() { JButton b = new JButton("Raise sail"); if (e.getActionCommand().equals("Raise sail")) g(); } }\n',
      },
      [],
      line,
    ],
    [
      "of one in another file",
      {
        "src/A.java": 'class A { void f() { JButton b = new JButton("Raise sail"); } }\n',
        "src/B.java": 'class B { void g() { if ("Raise sail".equals(e.getActionCommand())) h(); } }\n',
      },
      [],
      elsewhere,
    ],
    [
      "not of what is put out",
      {
        "src/A.java": 'class A { void f() { JOptionPane.showMessageDialog(null, "Raise sail"); } }\n',
        "src/B.java": 'class B { void g() { if ("Raise sail".equals(e.getActionCommand())) h(); } }\n',
      },
      ["Raise sail"],
      undefined,
    ],
    [
      "of a tab that is asked for by it",
      {
        "src/A.java":
          'class A { void f() { tabs.addTab("Red sails", p); tabs.addTab("Blue sails", p); go(tabs.indexOfTab("Red sails")); } }\n',
      },
      ["Blue sails"],
      line,
    ],
    [
      "of a page that another file shows by it",
      {
        "src/A.java": 'class A { void f() { frame.add(p, "Red sails"); } }\n',
        "src/B.java": 'class B { void g() { cards.show(frame, "Red sails"); } }\n',
      },
      [],
      elsewhere,
    ],
    [
      "of a column that is asked for by it",
      {
        "src/A.cs":
          'class A { void F() { grid.Columns.Add("Red sails"); grid.Columns.Add("Blue sails"); go(grid.GetColumn("Red sails")); } }\n',
      },
      ["Blue sails"],
      line,
    ],
    [
      "not where the ending of a file is looked for",
      {
        "src/a.ts":
          'export const f = (x) => {\n  const title = "Name a file that ends in .js";\n  if (x.endsWith(".js")) alert(title);\n};\n',
      },
      ["Name a file that ends in .js"],
      undefined,
    ],
    [
      "not for a key of the keyboard",
      {
        "src/A.java": 'class A { String f() { return "Page Down"; } }\n',
        "src/b.ts": 'on((e) => { if (e.key === "Page Down") next(); });\n',
      },
      ["Page Down"],
      undefined,
    ],
  ])("%s", async (_, files, moved, reason) => {
    const found = await extracted(files);
    expect(found.moved).toEqual(moved);
    if (reason !== undefined) expect(found.stays.join("\n")).toContain(reason);
    else expect(found.stays).toEqual([]);
  });
});

test("what a setter is given that code looks up by its text where it shows it gets no second lookup", async () => {
  const moved = async (other: string, naming: object = { pattern: "{text}", shape: "flat" }) => {
    const project = memoryProject(
      { code: ["src/**"], lookups: [{ call: "say" }], emit: { call: "say('{key}'{args})" }, naming },
      {
        "t/en.json": "{}",
        "src/a.php": "<?php function f($boat) { $boat->setLabel('The red boat'); }",
        "src/b.php": `<?php ${other}`,
      },
    );
    return (await extractProject(project)).changes.some(({ file }) => file === "src/a.php");
  };
  expect(await moved("echo say($boat->getLabel());")).toBe(false);
  expect(await moved("echo say($this->label);")).toBe(false);
  expect(await moved("echo say($this->title); echo $boat->label;")).toBe(true);
  expect(await moved("echo say($boat->labels());")).toBe(true);
  expect(await moved("echo say($boat->getLabel());", {})).toBe(true);
});
