import { describe, expect, test } from "@jest/globals";
import { noShapes } from "../../../src/core/source/book-code.js";
import { messageReader } from "../../../src/core/message/parse.js";
import { prepareReaders, readSource } from "../../../src/core/source/read.js";
import { readScript } from "../../../src/core/source/readers/script/script.js";
import { fixedText } from "../../../src/core/source/model.js";
import { surveyFile } from "../../../src/core/survey/survey.js";

const survey = (code: string) =>
  surveyFile(
    readScript("code.tsx", code, false, { ...noShapes, calls: new Map([["t", {}]]) }),
    "app",
    messageReader("icu"),
  ).literals;

describe("what users read is called text", () => {
  test.each([
    "<h1>Sailings</h1>",
    "<p>From {price} on</p>",
    "<button>OK</button>",
    '<img alt="The harbour at dawn" />',
    '<input placeholder="Island" />',
    '<div aria-label="Close" />',
    '<Card title="Your basket" />',
    '<Row options={[{ value: "a", label: "Morning" }]} />',
    '<p>{ok ? "All aboard" : "Wait"}</p>',
    'alert("Nothing chosen")',
    'app.alertSuccess("Boat saved")',
    "toast.success(`Seat ${seat} is yours`)",
    'setError("No such island")',
    'document.title = "Your basket"',
    'f({ label: "Morning sailing" })',
    'const message = "The boat is full"',
    'f("Готово")',
    'action("&Rename tab", this)',
    'const classes = ["First class", "Second class", "Third class"]; g(classes)',
    'const kind = big ? "an anchor rope" : "a thin line"; alert(`You get ${kind} today.`)',
    'write("Store;Sacks;Since")',
    'check({ shape: "round|square", title: "Pick a shape that fits." })',
    'f("Write to <b>us</b>, <i>soon</i>")',
    'form.addSelect("kind", "Kind of bread:")',
    'labels.get(kind, "News from the fold")',
    'const x = "もう一度"',
    // A page of errors may say it as the standard does.
    'const labels = { title: { 404: "Not Found", 418: "No boat here", 500: "Boat is aground" } }',
    'f([{ name: "Sailings", icon: "boat-front", path: "/sailings" }])',
    '<Table head={["ID", "Island", "Fare"]} />',
    'f(n === 1 ? "seat" : "seats")',
    "f(n + (n === 1 ? ' boat' : ' boats'))",
    // One name of a language among others is none of a list of them.
    'const texts = { de: "Deutsch", no: "No boat today", in: "In the harbor", it: "It is late" }; f(texts.no)',
  ])("%s", (code) => {
    expect(
      survey(`function A() { ${/^</.test(code) ? `return ${code}` : code}; }`).map(({ verdict }) => verdict),
    ).toContain("text");
  });
});

describe("what only programs read is called code", () => {
  test.each([
    '<p className="card card-wide" />',
    '<a href="/sailings/list" target="blank" />',
    '<input type="text" name="island" autoComplete="off" />',
    '<p data-state="open and shut" onClick="go there" />',
    'logger.error({ error, message: "Adding the fare failed" })',
    'out.verbose("Reading all of the fares")',
    'add(`{% if open %}<i class="late"></i>{% endif %}`)',
    'render("{{ boat_name + colon }}")',
    'const languages = [["da", "Dansk"], ["de", "Deutsch"]]',
    'jsCode("Functions.showMessage(\'")',
    'show("#boats .card.open")',
    'title = "\\\\multicolumn{2}{|c|}{Sails and masts}"',
    'use("VDT 0000K x 0.0000 y 0.000")',
    "label = `ranges.${boat}`",
    'use("Connection: close")',
    'use("# Set the name of it\\necho boats > /pier/boats\\nchmod o-w /pier/boats")',
    "use(\"document.getElementById('boat'+n).style.height = height + 'px';\")",
    "use(\"'+boats+'</select>\")",
    'use("num=3,6-9")',
    'headers = ["Host: " + host]',
    'use("DELIMITER ;;\\nCREATE PROCEDURE boats (INOUT name text) BEGIN")',
    'use(", onload: partial(verify, ")',
    'use(", true")',
    'use("Start_Flags=x1 End_Flags=x2")',
    "use(\"pick('select').onchange = change;\")",
    'use("[sensor_boats] ACCESS")',
    'use("Topic :: Boats :: Sails")',
    'warning = "\\\\D+: Warning -.*"',
    'find("<title>(.+?) Report")',
    'title = "::pier.boats"',
    'title = "=boatName"',
    'title = "BoatController as boat"',
    'title = ",hidden"',
    'title = "$title$"',
    'title = "{$boat.tons | tons$}"',
    'title = "[[> boat]] [[> pier]]"',
    'use(["Courier New", "Lucida Console"])',
    'use("Lorem ipsum dolor sit amet")',
    'answer = "yes, all\\n" + boats; spawn("moor", { input: answer })',
    'child.stdin.write("All the boats")',
    'title = "%s: %s[br]%s"',
    'title = "VDEF:boats_min=boats,MINIMUM"',
    'message = "echo \'"',
    'show("true")',
    'message = \'data-boat="sails now" data-name="late boats"\'',
    'show("app:\\n  description: Sail boat\\n  kind: boat\\n  masts: two masts\\n  name: none\\n")',
    'const phrases = { 403: "Forbidden", 404: "Not Found", 409: "Conflict", 410: "Gone", 501: "Not implemented" }',
    '<select><option value="en">English</option><option value="de">Deutsch</option></select>',
    'const languages = { fr: "Français", nb: "Norsk bokmål", en: "English" }',
    'f("%(kind)s: %(name)s")',
    'const names = { de: "Deutsch", fr: "Français", kr: "한국어", "pt-BR": "Português do Brasil", hu: "Magyar" }',
    'write("# HELP boats_out The boats that are out.")',
    'write("##boat_name.checkbox##")',
    'write("COMMIT;")',
    "write('QuayList\" method=POST>')",
    'write(`<?xml version="1.0" ?>\\n<boats><boat>Sea Otter</boat></boats>`)',
    'write(`<boats xmlns="urn:boats"><boat>Sea Otter</boat></boats>`)',
    'const message = "ℹ️"',
    'check({ name: "required|string|max:40", description: "string", title: "in 1", message: "db notes.text" })',
    'const text = "boat.get[quay,<address>,<time>,<output>]"',
    "<td>Apache-2.0</td>",
    'useState("idle")',
    'a === "Some text"',
    'switch (a) { case "Some text": }',
    'a["Some text"]',
    '<i className="boat-icons outlined">save</i>',
    'f("!modules/*/**", "boats-*.css", "*.ts")',
    'f("[[boats:" + id + "]]")',
    'f(": quay.example, islands.example")',
    'const hidden = open ? "" : "display : none"',
    'f("#{first_name} #{last_name.upcase}.")',
    'const a = { "Some text": 1 }',
    'console.log("Something happened")',
    'document.querySelector("main .card")',
    'fetch("https://quay.example/sailings")',
    'const color = "#aabbcc"',
    'const url = "mailto:quay@ferries.example"',
    'const query = "SELECT name FROM boats WHERE id = 1"',
    'run("UPDATE " + table + " SET name = 1")',
    "run(`UPDATE ${table} SET name = 'All'`)",
    "run(\"COMMENT ON TABLE boats IS 'All of them'\")",
    "const column = \"timestamp with time zone default '2031-01-01'\"",
    'const column = "varchar(20) NOT NULL"',
    'const field = "UTF-8"',
    'show("@echo off")',
    'show("REM Open all the boats now")',
    "show(\"{ 'data' : 'All boats', 'name' : 'Quay' }\")",
    "show(\"window.opener.document.forms['boats'].submit();\")",
    "const sum = `CASE ${days} WHEN 0 THEN none ELSE ${days} END`",
    'run("SET CHARACTER SET utf8")',
    'const type = "application/json"',
    'f({ textTransform: "uppercase", willChange: "box-shadow, transform" })',
    "f({ marginTop: `${a} !important`, border: `${a} solid ${b}` })",
    '<Box textAlign="center" borderRadius={first === 0 ? "lg" : "sm"} />',
    "<Icon>shopping_basket</Icon>",
    "const sizes = `@media (min-width: ${a}px)`",
    'const fonts = \'"Quay Sans", "Harbour", sans-serif\'',
    'const words = "^[ab]+(?:boat|quay) \\\\w+$"',
    'const eventName = "boatLeft"',
    'const f = "dd.MM.yyyy"',
    'const path = "M10 10 L20 20 Z"',
    "css`color: red`",
    "<code>npm install</code>",
    'f({ onclick: "show(this); return false" })',
    'where("effective_date BETWEEN ? AND ?")',
    "where(`${table}.id IN (${ids})`)",
    "select('id, author_id, count(*) as total')",
    'debuglog(`the tide "${name}" came with <audio id="${id}">`)',
    'const file = `import A from "a";\\nconst B: C<Props> = () => {\\n  return <div>One boat</div>;\\n}`',
    'const pattern = "/\u00e0|\u00e1|\u0456/u"',
    'if (DEBUG) note("Reading all the boats now")',
    'options.verbose && print("Reading all the boats now")',
    'deprecated.warn("User.key is going away, use User.token")',
    'const title = "[[global:welcome]] on board"',
    'f("(?<first>All of it)(?<b>or none)")',
  ])("%s", (code) => {
    const verdicts = survey(`function A() { ${/^</.test(code) ? `return ${code}` : code}; }`).map(
      ({ verdict }) => verdict,
    );
    expect(verdicts.filter((verdict) => verdict !== "code")).toEqual([]);
  });
});

describe("a word is judged by what stands around it", () => {
  const verdicts = (found: ReturnType<typeof survey>) =>
    Object.fromEntries(found.map(({ text, verdict }) => [text, verdict]));

  test.each<[string, string, Record<string, string>]>([
    [
      "members of a list that is handed over are known by their properties",
      'build([{ label: "Pier", role: "quit", type: "Plain", click: go }])',
      { Pier: "text", quit: "code", Plain: "code" },
    ],
    [
      "what stands behind the text of a part of a window is its name",
      'new Label("Boats", "filter_boats__ids"); new SubmitButton("Go", "boat.create")',
      { Boats: "text", Go: "text", filter_boats__ids: "code", "boat.create": "code" },
    ],
    [
      "pairs of what programs and people call it",
      'const keys = new Map([["n", "New"], ["f", "Find"], ["q", "Leave"]])',
      { n: "code", New: "text", Find: "text", Leave: "text" },
    ],
    [
      "two words in a list of one pair only say nothing",
      'const pair = make(["q", "Leave"])',
      { q: "code", Leave: "unclear" },
    ],
    [
      "what else the same function is given",
      'put("Gangway"); put("The gangway is down.")',
      { Gangway: "text", "The gangway is down.": "text" },
    ],
    [
      "a function that is given names as well",
      'put("Gangway"); put("The gangway is down."); put("gang-way")',
      { Gangway: "unclear", "The gangway is down.": "text", "gang-way": "code" },
    ],
    [
      "the name of a tab beside its picture",
      'function A() { return <Tabs tabs={[{ tabName: "Crew", tabIcon: face }]} />; }',
      { Crew: "text" },
    ],
    [
      "the name of a step, and that of a field",
      'function A() { return <><Step name="Pay now" /><TextField name="Island" /><Step name="pay" /></>; }',
      { "Pay now": "text", Island: "code", pay: "code" },
    ],
    [
      "an end mark behind a single word",
      'f("Loading…"); g("Leave?"); h("Leave")',
      { "Loading…": "text", "Leave?": "text", Leave: "unclear" },
    ],
    [
      "what a program for terminals prints",
      'program.name("kiosk"); console.log("The kiosk is closed.")',
      { kiosk: "code", "The kiosk is closed.": "text" },
    ],
    [
      "what a page prints for its developers",
      'console.log("The kiosk is closed.")',
      { "The kiosk is closed.": "code" },
    ],
    [
      "the name of a field, and what is said of it",
      'setError("email", { message: "Not an address" }); setError("Not known")',
      { email: "code", "Not an address": "text", "Not known": "text" },
    ],
    [
      "methods of builders that are named for a text",
      'command.description("sell tickets").alias("st")',
      { "sell tickets": "text", st: "code" },
    ],
    ["the name of a component", 'Modal.displayName = "Modal"', { Modal: "code" }],
    [
      "a state that starts with a sentence, and one with a word",
      'useState("Choose an island"); useState("open")',
      { "Choose an island": "text", open: "code" },
    ],
    [
      "errors that servers send to clients, and others",
      'throw new NotFoundException("There is no such boat."); fail(new Error("The boat is no boat."))',
      { "There is no such boat.": "text", "The boat is no boat.": "unclear" },
    ],
    [
      "names of what is shown, with a word and with a phrase",
      'const status = "open"; const saleStatus = `${n} of ${m} seats sold`; f({ perSeatSuffix: "per seat", unit: "kg" })',
      { open: "code", "{n} of {m} seats sold": "unclear", "per seat": "unclear", kg: "code" },
    ],
    [
      "words in brackets, and a media query",
      '<p>(max = 5, in steps)</p>; f("(max-width: 600px)"); f("(hover)")',
      { "(max = 5, in steps)": "text", "(max-width: 600px)": "code", "(hover)": "code" },
    ],
    [
      "attributes of a page's own",
      'f(<><p data-tooltip="Sails at noon" /><p data-crumb="Home of boats" /><p data-state="sold out" data-kind="Boat" /></>)',
      { "Sails at noon": "text", "Home of boats": "unclear", "sold out": "code", Boat: "code" },
    ],
    [
      "settings, queries and selectors",
      'f("width=device-width, initial-scale=1"); f("screen and (max-width: 640px)"); $("html, body"); $("<p>Sold out</p>")',
      {
        "width=device-width, initial-scale=1": "code",
        "screen and (max-width: 640px)": "code",
        "html, body": "code",
        "<p>Sold out</p>": "text",
      },
    ],
    [
      "the members of a list, of which one is picked",
      'f(["Sunday", "Monday", "Tuesday"][day]); f({ a: "Outer quay", b: "Inner quay" }[side])',
      { Sunday: "text", Tuesday: "text", "Outer quay": "text" },
    ],
    [
      "a page in a string, its style sheet passed over",
      "element.innerHTML = `<style>p { color: navy }</style><p>Buy a ticket</p>`",
      { "<style>p { color: navy }</style><p>Buy a ticket</p>": "text" },
    ],
    [
      "names with marks, conditions, sizes, headers",
      'f("ui-1_bell-53"); f("2_control"); f("!inDebugMode"); f("2xl"); f("Content-Length"); f("debug:data://")',
      {
        "ui-1_bell-53": "code",
        "2_control": "code",
        "!inDebugMode": "code",
        "2xl": "code",
        "Content-Length": "code",
        "debug:data://": "code",
      },
    ],
  ])("%s", (_name, code, expected) => {
    expect(verdicts(survey(code))).toMatchObject(expected);
  });

  test.each<[string, string, Record<string, string>]>([
    [
      "boats.py",
      'menu = tk.Label(window, justify="left", text="Boats")\nbody = "\\n".join(["The boat is full.", "Try the next one."])\n',
      { left: "code", Boats: "text", "The boat is full.": "text", "Try the next one.": "text" },
    ],
    [
      "boats.py",
      'print({"a": "Island", "b": "Mainland"}[side])\nfieldsets = [("Fares", {"fields": ["adult"]})]\n',
      { Island: "text", Mainland: "text", Fares: "text", adult: "code" },
    ],
    [
      "boats.rb",
      "title = <<~SQL\n  Choose all boats of the pier\nSQL\nnotice = <<~TEXT\n  All boats are late\nTEXT\nrun(<<~EOH)\n  # Set the name of it\n  if [[ x ]]; then\n    set x\n  fi\nEOH\n",
      {
        "Choose all boats of the pier\n": "code",
        "All boats are late": "text",
        "# Set the name of it\nif [[ x ]]; then\n  set x\nfi": "code",
      },
    ],
    [
      "boats.php",
      "<?php\n$title = <<<SQL\nChoose all boats of the pier\nSQL;\n$notice = <<<TEXT\n  All boats are late\n  TEXT;\necho <<<HTML\n<h1>The old pier</h1>\nHTML;\n",
      {
        "Choose all boats of the pier": "code",
        "All boats are late": "text",
        "The old pier": "text",
      },
    ],
    [
      "boats.php",
      `<?php $fields = ['name' => 'required|db boats.name', 'size' => 'int32|ge 1', 'kind' => 'in 0,1', 'note' => 'db boats.note', 'why' => 'late today'];
       $sql = 'boats b'; $where = 'b.quayid=q.quayid'; go('desk.php?action=boat.edit'); $color = '039BE5'; $name = "row[%s]";
       $form->add(new CLabel('Name of the boat', 'filter_name'))->add(new CLabel('Weeks of the year', 'label-every-week'));`,
      {
        "required|db boats.name": "code",
        "in 0,1": "code",
        "db boats.note": "code",
        "boats b": "code",
        "b.quayid=q.quayid": "code",
        "desk.php?action=boat.edit": "code",
        "039BE5": "code",
        "row[%s]": "code",
        "Name of the boat": "text",
        filter_name: "code",
        "Weeks of the year": "text",
        "label-every-week": "code",
      },
    ],
    [
      "boats.py",
      'window.show_help("Help:Late Boats")\nlabel.set_text("TODO boats of today")\nlabel.set_text("Help: Late boats")\n',
      { "Help:Late Boats": "code", "TODO boats of today": "code", "Help: Late boats": "text" },
    ],
    [
      "boats.hbs",
      "{{#block 'form'}}form_{{boat}}{{/block}}<p>Boat {{name}}</p>",
      { "form_{boat}": "code", "Boat {name}": "text" },
    ],
    ["boats.hbs", "<p>Boat {{name}}</p><p>{{#if late", { "Boat {name}": "text", "{{#if late": "code" }],
    [
      "Boat.vue",
      "<script>export default { props: { size: { type: String, description: 'Size of the boat, from small to large' } }, data() { return { boat: { description: 'A boat for all of us' } }; } };</script>",
      { "Size of the boat, from small to large": "code", "A boat for all of us": "text" },
    ],
    [
      "boats.php",
      "<?php $titles = ['name' => 'db boats.name', 'about' => 'The kind of boat', 'size' => 'Meters of it', 'full' => 'The boat is full'];",
      { "The kind of boat": "text", "The boat is full": "text" },
    ],
    [
      "boats.py",
      'say = ngettext_lazy(\n    "The boat is late",\n    # all of them\n    "The boats are late",\n    count\n)\n',
      { "The boat is late": "code", "The boats are late": "code" },
    ],
    [
      "boats.rb",
      'prompt.select("Which boat?", { "Fast boat" => :fast, "Slow boat" => :slow })\nLABELS.fetch(kind, "Unknown")\n',
      { "Fast boat": "text", "Slow boat": "text", Unknown: "text" },
    ],
    [
      "cli.rb",
      'ui.warn "No boat"\nwarn "No boat is left"\nadd_option("-f", "--[no-]force", "do not ask")\n',
      { "No boat": "text", "No boat is left": "unclear", "--[no-]force": "code", "do not ask": "text" },
    ],
    [
      "Boats.java",
      'class Boats { void a() { chooser.getItems().addAll("Islands", "Harbours"); System.err.println("The boat has left."); } }',
      { Islands: "text", Harbours: "text", "The boat has left.": "unclear" },
    ],
    [
      "Chart.java",
      'class Chart { void a() { box.addNumericField("  Depth:", 0, 4, "metres"); addPopupItem("Split"); new TreeNode("General "); new Thread("Depth"); } }',
      { "Depth:": "text", Split: "text", General: "text", metres: "code", Depth: "unclear" },
    ],
    [
      "chart.py",
      '__authors__ = ["The Pilots", "Ada Fane"]\nrows = (("Follow tide", "checkbutton"), ("Depth:", "label", "depth", "combobox"))\n@deprecated(reason="Tides moved")\ndef f(): pass\n',
      {
        "The Pilots": "code",
        "Follow tide": "text",
        checkbutton: "code",
        "Depth:": "text",
        "Tides moved": "code",
      },
    ],
    [
      "page.php",
      "<div class=\"<?php if ($a) { echo 'hidden warning'; } ?>\" title=\"<?php if ($a) { echo 'Boats of today'; } ?>\">Tides</div>",
      { "hidden warning": "code", "Boats of today": "text", Tides: "text" },
    ],
    [
      "make.php",
      '<?php echo "<?php endforeach; ?>\\n"; echo "/**\\n * Boats of today\\n */"; echo "\'$field\' => array("; $alts = array("Pier", "PierName", "Depth");',
      {
        "<?php endforeach; ?>": "code",
        "/**\n * Boats of today\n */": "code",
        "'{field}' => array(": "code",
        Pier: "code",
        Depth: "code",
      },
    ],
    [
      "members.php",
      "<?php $a = $this->{'Name of it'}; $b->{'Do it'}(); $labelAttributes['for'] .= 'Hour'; $labelAttributes['title'] = 'Hours of today'; $h = \"Content-type: text/plain\\r\\n\";",
      { "Name of it": "code", "Do it": "code", Hour: "code", "Hours of today": "text" },
    ],
    [
      "choice.html",
      '<select><option value="rye-2.5">rye-2.5</option><option value="wheat">Wheat bread</option></select><li>"%bread%"</li>',
      { "rye-2.5": "code", "Wheat bread": "text", '"%bread%"': "code" },
    ],
    [
      "copy.py",
      'print("Copies the boats of <source> that are not in <dest>")\nprint("<p>Boats of today</p>")\n',
      { "Copies the boats of <source> that are not in <dest>": "text", "Boats of today": "text" },
    ],
  ])("in %s: %s", async (file, code, expected) => {
    await prepareReaders([file]);
    const source = readSource(file, code, false, noShapes);
    expect(verdicts(surveyFile(source, "app", messageReader("icu")).literals)).toMatchObject(expected);
  });

  test("a list of very many words is one list", () => {
    const words = Array.from({ length: 20_000 }, (_, index) => `"Quay${"abcdefghij".charAt(index % 10)}"`);
    const found = survey(`const names = [${words.join(", ")}]; const odd = [${words.join(", ")}, "quay"]`);
    expect(found.slice(0, 20_000).every(({ verdict }) => verdict === "text")).toBe(true);
    expect(found.slice(20_000).some(({ verdict }) => verdict === "text")).toBe(false);
  });

  test("the name of a value is shown, but not moved", async () => {
    await prepareReaders(["a.rb"]);
    const source = readSource("a.rb", 'select({ "Fast boat" => :fast })', false, noShapes);
    expect(source.literals.map(({ obstacle }) => obstacle?.messageId)).toEqual(["extract/name"]);
  });
});

test("a judgement says why, and what the message would be", () => {
  const [found] = survey('function A() { return <p title="Deck plan">x</p>; }');
  expect(found).toMatchObject({
    verdict: "text",
    text: "Deck plan",
    message: "Deck plan",
    line: 1,
    column: 32,
    endColumn: 43,
  });
  expect(found?.reason).toContain("title of <p>");
  const [phrase] = survey(
    "function A() { return <p>\n  Read <a>the {kind} rules</a>,\n  it's {fast}.\n</p>; }",
  );
  expect(phrase).toMatchObject({
    text: "Read the {kind} rules, it's {fast}.",
    message: "Read <link>the {kind} rules</link>, it's {fast}.",
  });
});

test("scores lie between 0 and 1 and agree with the verdict", () => {
  for (const { score, verdict } of survey(
    'function A() { f("One two"); return <p className="a b">Text <i>here</i> "x"</p>; }',
  )) {
    expect(score).toBeGreaterThanOrEqual(0);
    expect(score).toBeLessThanOrEqual(1);
    expect(verdict).toBe(score >= 0.75 ? "text" : score <= 0.3 ? "code" : "unclear");
  }
});

describe("constants that differ in a language alone", () => {
  const constants = (first: string, second: string, rest = "") =>
    `const ${first} = { open: "The quay is open", late: "The boat is late"${rest} };\n` +
    `const ${second} = { open: "Der Kai ist offen", late: "Das Boot ist spät" };\n`;
  const verdicts = (code: string) =>
    surveyFile(
      readSource("code.ts", code, false, { ...noShapes, sourceLanguage: "en" }),
      "app",
      messageReader("icu"),
    ).literals.map(({ verdict, literal }) => `${verdict}${literal.obstacle ? ", not moved" : ""}`);

  test.each([
    ["textsEN", "textsDE"],
    ["texts_en", "texts_de"],
    ["textsEn", "textsDe"],
  ])("%s and %s are tables of one text each", (first, second) => {
    expect(verdicts(constants(first, second))).toEqual([
      "text, not moved",
      "text, not moved",
      "code, not moved",
      "code, not moved",
    ]);
  });

  test("and so are members of one object", () => {
    const code = (first: string, second: string) =>
      constants("a", "b").replace("const a", first).replace("const b", second);
    const notMoved = ["text, not moved", "text, not moved", "code, not moved", "code, not moved"];
    const shown = (first: string, second: string) =>
      verdicts(code(first, second)).filter((one) => one !== "code");
    expect(shown('$.quay.words["en_GB"]', "$.quay.words['de_DE']")).toEqual(notMoved);
    expect(shown("quay.words.en", "quay.words.de")).toEqual(notMoved);
    expect(shown('quay.words["open"]', 'quay.words["late"]')).toEqual(["text", "text", "text", "text"]);
  });

  test.each([
    ["textsEN", "labelsDE"],
    ["textsXX", "textsDE"],
    ["dozen", "dozde"],
  ])("%s and %s are none", (first, second) => {
    expect(verdicts(constants(first, second))).toEqual(["text", "text", "text", "text"]);
  });
});

test("blocks of a template that a string holds are no text, and what stands between them is", () => {
  const code = 'render(`{% if open %}<b class="wide">All boats are late</b>{% else %} {% endif %}`);\n';
  const { literals } = surveyFile(readSource("code.ts", code, false, noShapes), "app", messageReader("icu"));
  expect(literals.flatMap(({ verdict, message }) => (verdict === "code" ? [] : [message]))).toEqual([
    "All boats are late",
  ]);
});

describe("sentences in a string of markup", () => {
  const shown = (code: string) =>
    surveyFile(readSource("code.js", code, false, noShapes), "app", messageReader("icu")).literals.flatMap(
      ({ verdict, message }) => (verdict === "code" ? [] : [message]),
    );

  test.each([
    ["The quay is open.<br />Come in.", ["The quay is open.", "Come in."]],
    ["The quay is open.<br>\\n  Come in!<br> Now", ["The quay is open.", "Come in!", "Now"]],
    ["The quay<br>is open.", ["The quay<br/>is open."]],
    ["Shows `<b>` and `<a href='x'>` as boats", ["Shows `'<b'>` and `'<a' href='x'>` as boats"]],
    ["The quay is open.<br>Come <b>in</b>.", ["The quay is open.<br/>Come <b>in</b>."]],
  ])("%s", (markup, texts) => {
    expect(shown(`show({ message: "${markup}" });\n`)).toEqual(texts);
  });

  test("values in it are arguments", () => {
    expect(shown('show("<p>There are <b>" + n + "</b> boats.</p>");\n')).toEqual([
      "There are <b>{n}</b> boats.",
    ]);
  });
});

test("a text behind the key of a lookup is shown in its place, and is none to move", () => {
  const shapes = { ...noShapes, calls: new Map([["t", {}]]) };
  const code =
    'f(t("quay.open", "The quay is open"), t("quay.shut", x, "The quay is shut"), g("a", "All boats leave"));\n';
  const { literals } = surveyFile(readSource("a.js", code, false, shapes), "app", messageReader("icu"));
  expect(literals.flatMap(({ verdict, message }) => (verdict === "code" ? [] : [message]))).toEqual([
    "The quay is shut",
    "All boats leave",
  ]);
});

test.each([
  ["a.html", "<translate>All our boats</translate>"],
  ["a.html", "<b title=\"{{ 'All our boats' | translate }}\"></b>"],
  ["a.html", "<b>{{ 'All our boats' | translate }}</b>"],
])("what a page has translated already is no text to move: %s %s", (file, code) => {
  const { literals } = surveyFile(readSource(file, code, false, noShapes), "app", messageReader("icu"));
  expect(literals.map(({ verdict }) => verdict)).toEqual(["code"]);
});

test.each([
  ["a query in brackets", "a.html", "<li>Boats</li><small>(?format=txt)</small>", "(?format=txt)"],
  ["the value of a header", "a.py", 'headers["User-Agent"] = "Boats of the Harbor"\n', "Boats of the Harbor"],
  ["what a letter is written as", "a.php", "<?php $t = array('ö' => 'oe', 'Ö' => 'Oe');\n", "Oe"],
  [
    "a name that ends in capitals",
    "a.php",
    "<?php $IGNORED_ON_COPY = array('AstAccountCallerID');\n",
    "AstAccountCallerID",
  ],
  [
    "a row of a table",
    "a.php",
    "<?php print 'Host,IP,System Name,Uptime,Status';\n",
    "Host,IP,System Name,Uptime,Status",
  ],
  [
    "a statement",
    "a.php",
    "<?php $text .= 'make_table (name, 12, \"x\");';\n",
    'make_table (name, 12, "x");',
  ],
  ["an expression", "a.py", "searchText = r'\\b' + searchText + r'\\b'\n", "\\b\\b"],
  [
    "an address behind a mark",
    "a.py",
    'self.box.addItem("::URL::http://boats.example/a.html")\n',
    "::URL::http://boats.example/a.html",
  ],
  [
    "what a lookup of another name has",
    "a.py",
    'safeTranslate(app, "Boats", "C&ut the rope")\n',
    "C&ut the rope",
  ],
  ["a block of a template", "a.php", "<?php echo '<b>{t}Error{/t}</b>';\n", "{t}Error{/t}"],
  [
    "what a block has, beside a value",
    "a.tpl",
    '{if $x}<a title="{$x} {t}Our boats{/t}"></a>{/if}\n',
    "Our boats",
  ],
  [
    "a name with a value behind it",
    "a.php",
    "<?php echo '<b title=\"tooltip_' . $x . '\"></b>';\n",
    "tooltip_",
  ],
  ["what another object than a page links to", "a.html.erb", "<%= f.link_to 'Atom', :url => {} %>\n", "Atom"],
  [
    "what a loop picks entries by",
    "a.py",
    'for name, at in [("Title", 0), ("Author", 1)]:\n    row.append(data.get(name, ""))\n',
    "Author",
  ],
  [
    "what a loop picks members by",
    "a.js",
    'for (const name of ["Title", "Author"]) { show(boat[name]); }\n',
    "Author",
  ],
  [
    "what a loop of PHP picks by",
    "a.php",
    "<?php foreach (array('Title', 'Author') as $name) { echo $boat[$name]; }\n",
    "Author",
  ],
  ["a tag by references", "a.html", "<b>&lt;HR&gt;</b>", "<HR>"],
])("what a program reads is no sure text: %s", (_, file, code, text) => {
  const { literals } = surveyFile(readSource(file, code, false, noShapes), "app", messageReader("icu"));
  const found = literals.filter(({ literal }) => fixedText(literal.pieces).includes(text));
  expect(found.filter(({ isSure }) => isSure)).toEqual([]);
});

test.each([
  [
    "a script of an XML document",
    "a.xhtml",
    "<script><![CDATA[\nalert('All boats left');\n]]></script>",
    ["All boats left"],
  ],
  [
    "a catalog in XML that ends as scripts do",
    "a.ts",
    '<?xml version="1.0"?>\n<TS><message>Don\'t</message></TS>\n',
    [],
  ],
])("reads %s", (_, file, code, texts) => {
  const source = readSource(file, code, false, noShapes);
  expect(source.problems).toEqual([]);
  expect(source.literals.map(({ pieces }) => fixedText(pieces))).toEqual(texts);
});

test("what a loop shows and picks nothing by may be text", () => {
  const code = 'for name in ["Our boats", "Our crews"]:\n    print(name)\n    row = [names]\n';
  const { literals } = surveyFile(readSource("a.py", code, false, noShapes), "app", messageReader("icu"));
  expect(literals.map(({ verdict }) => verdict)).not.toContain("code");
});
