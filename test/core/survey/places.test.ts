import { expect, test } from "@jest/globals";
import { memoryFiles } from "../../../src/core/files/memory-files.js";
import { openProject } from "../../../src/core/project/project.js";
import { surveyProject } from "../../../src/core/project/survey-project.js";

/** The verdicts on a file's literals, by their messages. */
async function verdicts(file: string, text: string): Promise<ReadonlyMap<string, string>> {
  const book = { name: "app", code: ["**/*.*"], ignore: ["*.json", "t/**"], files: "t/{locale}.json" };
  const opened = openProject(
    memoryFiles({
      "fond.config.json": JSON.stringify({ source: "en", targets: [], books: [book] }),
      "t/en.json": "{}",
      [file]: text,
    }),
  );
  if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
  const { files } = await surveyProject(opened.project, {}, { all: true });
  return new Map(
    files.flatMap(({ literals }) =>
      literals.map(
        ({ message, text: said, verdict, isSure }) =>
          [message ?? said, verdict === "text" && isSure !== true ? "likely" : verdict] as const,
      ),
    ),
  );
}

test.each<[string, string, string, string, string]>([
  [
    "the key of a form that code chooses",
    "a.js",
    'const notice = { message: n > 1 ? "boatsSaved_plural" : "boatsSaved" };',
    "{n, plural, =0 {boatsSaved} one {boatsSaved} other {boatsSaved_plural}}",
    "code",
  ],
  [
    "what a value holds that is only written for developers",
    "a.js",
    "function report(boat) {\n  const message = `The boat ${boat} is late`;\n  if (boat) {\n    console.error(message);\n  } else {\n    logger.warn(message, boat);\n  }\n}\n",
    "The boat {boat} is late",
    "unclear",
  ],
  [
    "what such a value holds that is shown as well",
    "a.js",
    "function report(boat) {\n  const message = `The boat ${boat} is late`;\n  console.error(message);\n  alert(message);\n}\n",
    "The boat {boat} is late",
    "text",
  ],
  [
    "a list of objects as an example",
    "a.svelte",
    `<input placeholder={'[{"$berth":"WEST"}]'} />`,
    `['{'"$berth":"WEST"'}']`,
    "code",
  ],
  ["bytes for a program", "a.js", "const title = `blob ${size}\\0`;", "blob {size}\0", "code"],
  [
    "what is recorded with a change of code",
    "a.js",
    'commit({ commit_message: "Update the boats of the quay" });',
    "Update the boats of the quay",
    "unclear",
  ],
  [
    "whom a token is about",
    "a.js",
    'sign(boat, secret, { subject: "Session of the crew", issuer: "quay", expiresIn: "2h" });',
    "Session of the crew",
    "unclear",
  ],
  [
    "a command for typesetting",
    "a.py",
    "note.setText('\\\\version \"{0}\"'.format(version))\n",
    '\\version "{version}"',
    "code",
  ],
  ["settings of an editor", "a.py", "note.setText('-*- menu;\\n' + text)\n", "-*- menu;\n{text}", "code"],
  [
    "what is said of a name of code",
    "a.js",
    'const config = { props: { "on-text": "on-text is renamed to active-text." } };',
    "on-text is renamed to active-text.",
    "unclear",
  ],
  [
    "what an error says of what developers did",
    "a.py",
    "class Boats:\n    def all(self):\n        if not self.known:\n            msg = (\n                'You must call `.load()` before the boats are shown.'\n            )\n            raise AssertionError(msg)\n        return self.known\n",
    "You must call `.load()` before the boats are shown.",
    "likely",
  ],
  [
    "what is logged, and shown further down",
    "a.py",
    "def late(boat):\n    if boat:\n        message = 'The boat is late today'\n        logger.info(message)\n    flash(message)\n",
    "The boat is late today",
    "text",
  ],
  ["a face", "a.js", 'note.textContent = "ಠ_ಠ";', "ಠ_ಠ", "code"],
  [
    "what stands around the values of an address",
    "a.js",
    'note.textContent = "http://" + host + ":" + port + " .";',
    "http://{host}:{port} .",
    "code",
  ],
  [
    "what people call a value, in a list of such pairs",
    "a.py",
    'STATES = [\n    ("moored", "Moored"),\n    ("at_sea", "At sea"),\n]\n',
    "Moored",
    "likely",
  ],
  [
    "more than a word in such a list",
    "a.py",
    'kind = SelectField("Kind", choices=[("sail", "Sailing boat"), ("motor", "Motor boat")])\n',
    "Motor boat",
    "text",
  ],
  [
    "what programs call it there",
    "a.py",
    'STATES = [\n    ("moored", "Moored"),\n    ("at_sea", "At sea"),\n]\n',
    "at_sea",
    "code",
  ],
  [
    "one of the texts that a call gets by a name",
    "a.py",
    'length = DecimalField(choices=CHOICES, error_messages={"required": "Please give a length"})\n',
    "Please give a length",
    "text",
  ],
  [
    "what a page prints",
    "a.php",
    '<?php echo "The boat has left the quay.";',
    "The boat has left the quay.",
    "text",
  ],
  [
    "what a program for terminals prints",
    "a.php",
    '#!/usr/bin/env php\n<?php echo "Sorted by name";',
    "Sorted by name",
    "likely",
  ],
  [
    "what a page prints that reads another program's errors",
    "a.php",
    '<?php echo "The boat has left the quay."; // read STDERR after STDOUT',
    "The boat has left the quay.",
    "text",
  ],
  [
    "a name of a program before its value",
    "a.html",
    "<label>quay_number: <input></label>",
    "quay_number:",
    "code",
  ],
  [
    "what an element has translated",
    "a.html",
    "<p><gettext>Show the quay</gettext></p>",
    "Show the quay",
    "code",
  ],
  ["a label before its value", "a.html", "<label>Number: <input></label>", "Number:", "text"],
  ["a title", "a.py", 'class Pier:\n    help = "Removes old boats"\n', "Removes old boats", "text"],
  [
    "what a command is for",
    "a.py",
    'class Command(BaseCommand):\n    help = "Removes old boats"\n',
    "Removes old boats",
    "likely",
  ],
  [
    "a header",
    "a.php",
    '<?php $lines[] = "Proxy-Authorization: Basic " . $key;',
    "Proxy-Authorization: Basic {key}",
    "code",
  ],
  [
    "a picture in an address",
    "a.html",
    "<p><img alt='x'/> data:image/png;base64,iVBORw0KGgo AAAANSUhE</p>",
    "data:image/png;base64,iVBORw0KGgo AAAANSUhE",
    "code",
  ],
  [
    "an address with values",
    "a.php",
    '<?php $text .= ": " . home() . "/boat.php?boat_id=" . $id;',
    ": {home}/boat.php?boat_id={id}",
    "code",
  ],
  [
    "a rule of CSS with a value",
    "a.js",
    "show({ title: `.late { color: ${color}; }` });",
    ".late '{' color: {color}; '}'",
    "code",
  ],
  [
    "a statement with markup among its values",
    "a.php",
    "<?php query(\"insert into boats (name, note) values (1, '<b>All boats</b> leave')\");",
    "insert into boats (name, note) values (1, '''<b'>All boats'</b'> leave')",
    "code",
  ],
  [
    "a part of a script that a page prints",
    "a.php",
    "<?php echo 'else { row.style.color = \\'red\\'; row.title = \\'Late boat\\'; }';",
    "else '{' row.style.color = 'red'; row.title = 'Late boat'; '}'",
    "code",
  ],
  [
    "a condition that a page prints",
    "a.php",
    "<?php echo 'if (late) { row.title = \\'Late boat\\'; }';",
    "if (late) '{' row.title = 'Late boat'; '}'",
    "code",
  ],
  [
    "what an operation of a server does",
    "a.js",
    `const operations = { ${["list", "add", "drop"].map((id) => `${id}: { operationId: "${id}", summary: "Tells ${id} of the boats" }`).join(", ")} };`,
    "Tells add of the boats",
    "code",
  ],
  [
    "what a button is called for a program",
    "a.py",
    'def f():\n    ask([Button.make("Remove"), Button.make("Leave", text=say("quay.leave"))])\n',
    "Remove",
    "code",
  ],
  [
    "what a button is called for people",
    "a.py",
    'def f():\n    ask([Button.make("Remove"), Button.make("Leave", back=True)])\n',
    "Remove",
    "text",
  ],
  [
    "code of a template that a page holds for a script",
    "a.php",
    "<p><?php echo say('boat'); ?></p><p><# if ( data.late ) { #></p>",
    "<# if ( data.late ) '{' #>",
    "code",
  ],
  [
    "a text that waits for its number",
    "a.php",
    "<?php add(_nx_noop('<b>Boat</b> of %s', '<b>Boats</b> of %s', 'quay'));",
    "<b>Boat</b> of %s",
    "code",
  ],
  ["what a method is asked for", "a.php", "<?php echo $boat->display('Captain');", "Captain", "code"],
  ["what a method tells", "a.php", "<?php $this->display('Captain on board');", "Captain on board", "text"],
  ["how a button looks", "a.php", "<?php submit_button($text, 'primary large');", "primary large", "unclear"],
  ["a tag whose name is a value", "a.php", "<?php echo '<%s class=boat>';", "<%s class=boat>", "code"],
  [
    "attributes between two values",
    "a.php",
    '<?php echo \'" type="checkbox" name="boat[]" id="boat-\';',
    '" type="checkbox" name="boat[]" id="boat-',
    "code",
  ],
  ["a method of HTTP", "a.html", "<select><option>POST</option></select>", "POST", "code"],
  [
    "languages as a header weighs them",
    "a.js",
    'const all = [{ label: "de-AT, de;q=0.9, en;q=0.5" }];',
    "de-AT, de;q=0.9, en;q=0.5",
    "code",
  ],
  [
    "a title beside no operation",
    "a.js",
    'const panel = { operation: "add", title: "Tells of the boats" };',
    "Tells of the boats",
    "text",
  ],
  ["a cell of a page", "a.html", "<table><tr><td>open boats</td></tr></table>", "open boats", "text"],
  [
    "an entry of a document",
    "a.html",
    "<rows><row><fld>boat;quay</fld></row></rows>",
    "boat;quay",
    "unclear",
  ],
  [
    "a text beside its key",
    "a.jsx",
    'export const a = () => tell({ id: "boat.late", defaultMessage: "The boat is late today" });',
    "The boat is late today",
    "code",
  ],
  [
    "the same in what is shown",
    "a.jsx",
    'export const A = () => <p>{list({ id: keyOf("late"), defaultMessage: "The boat is late today" })}</p>;',
    "The boat is late today",
    "code",
  ],
  [
    "what a setting is for",
    "a.ts",
    'export const schema = { size: { _type: Type.Number, _description: "size of boats" } };',
    "size of boats",
    "likely",
  ],
  ["letters one below the other", "a.html", "<p>F<br>I<br>N</p>", "F<br/>I<br/>N", "unclear"],
  [
    "nothing but places for values",
    "a.py",
    'def row(kind, name):\n    return """<tr><td title="{name}">[{kind}] ({name})</td></tr>""".format(kind=kind, name=name)\n',
    "['{'kind'}'] ('{'name'}')",
    "code",
  ],
  [
    "a text beside its own lookup",
    "a.js",
    "Words.add('All boats', '${escape(_(\"All boats\"))}')",
    "All boats",
    "code",
  ],
  [
    "what a schema says of a value",
    "a.ts",
    'class A { @trait({ type: "number", name: "size", description: "How many boats there are" }) size = 1; }',
    "How many boats there are",
    "likely",
  ],
  [
    "a language in a menu",
    "a.vue",
    '<template><menu><li :off="now===\'en\'" data-tag="en">English</li><li :off="now===\'es\'" data-tag="es">Español</li></menu></template>',
    "English",
    "code",
  ],
  ["a value in marks of a page's own", "a.html", "<p>[[boat_name]]…</p>", "[[boat_name]]…", "code"],
  [
    "the mark of a key",
    "a.js",
    'page.title = "[[themes/quay:boats.title]]";',
    "[[themes/quay:boats.title]]",
    "code",
  ],
  [
    "signs of a program",
    "a.html",
    "<p>set#%?boats#@?or#$?quay#%?=#%?txt</p>",
    "set#%?boats#@?or#$?quay#%?=#%?txt",
    "code",
  ],
])("%s in %s", async (_, file, code, text, verdict) => {
  const found = await verdicts(file, code);
  expect([...found.keys()]).toContain(text);
  expect(found.get(text)).toBe(verdict);
});

test("blocks in triple braces and calls in double ones are no text", async () => {
  const found = await verdicts(
    "a.tpl",
    '<!-- IMPORT head.tpl -->\n<h3>{{{ if isOwn }}}{{tx("quay:own")}}{{{ else }}}{{tx("quay:other", txEscape(name))}}{{{ end }}}</h3>\n{{{each boats}}}\n<p>{./name} ({./code}) {numberOf(boats)}</p><b>None today</b>\n{{{end}}}\n',
  );
  expect([...found].filter(([, verdict]) => verdict !== "code")).toEqual([["None today", "text"]]);
});

test("marks of a template that another template writes are no text", async () => {
  const found = await verdicts(
    "a.html",
    "{% load quay %}{% templatetag openblock %} load boats {% templatetag closeblock %}\n<p>{% templatetag openvariable %} boat.name {% templatetag closevariable %}</p>\n<b>All boats</b>\n",
  );
  expect([...found]).toEqual([["All boats", "text"]]);
});
