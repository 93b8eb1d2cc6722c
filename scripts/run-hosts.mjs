// Runs small programs in other languages before and after their text is taken out, with the same input, and compares what
// they print. Needs the languages themselves; those that are not on this machine are passed over and said.
// On Debian: apt-get install ruby php-cli python3 default-jre-headless
import { spawnSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { extract, memoryFiles, openProject } from "../dist/src/index.js";

const rubyLookup = `require "json"
TEXTS = JSON.parse(File.read("texts.json"))
def form(text, count) = text.include?("|") ? text.split("|")[count == 1 ? 0 : 1] : text
def t(key, **values) = form(TEXTS.fetch(key), values[:count]).gsub(/\\{(\\w+)\\}/) { values.fetch($1.to_sym).to_s }
`;
const programs = [
  {
    language: "ERB",
    file: "page.html.erb",
    run: ["ruby", "run.rb"],
    files: {
      "run.rb": `${rubyLookup}require "erb"
include ERB::Util
user = "Ines & Bo"; boats = 3; late = true
puts ERB.new(File.read("page.html.erb"), trim_mode: "-").result(binding)
`,
    },
    text: `<h1 title="All the boats">Welcome aboard</h1>
<%- if late -%>
<p>Hello <%= user %>, your boat is late.</p>
<%- end -%>
<ul>
<% 2.times do |number| %>
  <li>Boat number <%= number %> of <%= boats %> leaves soon</li>
<% end %>
</ul>
<p><%= boats == 1 ? "One boat is here" : "#{boats} boats are here" %></p>
<p><%= "You have #{boats} seat#{boats == 1 ? "" : "s"} left" %></p>
<input placeholder='Your name here' value="<%= user %>">
`,
  },
  {
    language: "Ruby",
    file: "page.rb",
    run: ["ruby", "run.rb"],
    files: { "run.rb": `${rubyLookup}require_relative "page"\nputs greet("Ines", 3)\n` },
    text: `def greet(name, boats)
  lines = []
  lines << message("Hello #{name}, welcome aboard")
  lines << message('You can choose a boat here')
  lines << message("There are " + boats.to_s + " boats at the quay")
  (0..3).each { |seats| lines << message("You have #{seats} seat#{seats == 1 ? "" : "s"} left") }
  lines
end

def message(text)
  text
end
`,
  },
  {
    language: "PHP",
    file: "page.php",
    run: ["php", "run.php"],
    files: {
      "run.php": `<?php
function t($key, $values = []) {
  static $texts; $texts ??= json_decode(file_get_contents("texts.json"), true);
  $forms = explode("|", $texts[$key]);
  $text = count($forms) > 1 ? $forms[$values["count"] == 1 ? 0 : 1] : $forms[0];
  return preg_replace_callback('/\\{(\\w+)\\}/', fn($found) => $values[$found[1]], $text);
}
$name = "Ines"; $boats = 3;
include "page.php";
`,
    },
    text: `<?php function notice($text) { return "[" . $text . "]"; } ?>
<h1>Welcome aboard</h1>
<p title="A short greeting">Hello <?= $name ?>, choose a boat</p>
<p><?= notice("There are $boats boats at the quay") ?></p>
<p><?= notice('All seats are taken today') ?></p>
<?php foreach ([0, 1, 2] as $seats) { echo notice("You have " . $seats . " seat" . ($seats != 1 ? "s" : "") . " left"); } ?>
`,
  },
  {
    language: "Python",
    file: "page.py",
    run: ["python3", "run.py"],
    files: {
      "run.py": `import builtins, json, re
texts = json.load(open("texts.json"))
form = lambda text, count: text.split("|")[0 if count == 1 else 1] if "|" in text else text
builtins.t = lambda key, **values: re.sub(r"\\{(\\w+)\\}", lambda found: str(values[found[1]]), form(texts[key], values.get("count")))
import page
page.greet("Ines", 3)
`,
    },
    text: `def show_message(text):
    print(text)


def greet(name, boats):
    show_message(f"Hello {name}, welcome aboard")
    show_message("There are %d boats at the quay" % boats)
    show_message("Choose one of the {} boats".format(boats))
    show_message("All seats are " "taken today")
    for seats in range(3):
        show_message(f"You have {seats} seat{'' if seats == 1 else 's'} left")
        show_message("One seat is left" if seats == 1 else f"{seats} seats are left")
`,
  },
  {
    language: "Java",
    file: "Page.java",
    run: ["java", "Page.java"],
    files: {},
    text: `class Page {
  static void showMessage(String text) { System.out.println(text); }
  static String t(String key) { return t(key, java.util.Map.of()); }
  static String t(String key, java.util.Map<String, ?> values) {
    try {
      var found = java.util.regex.Pattern.compile("\\"" + java.util.regex.Pattern.quote(key) + "\\": \\"([^\\"]*)\\"").matcher(java.nio.file.Files.readString(java.nio.file.Path.of("texts.json")));
      found.find();
      var forms = found.group(1).split("\\\\|");
      var text = forms.length == 1 ? forms[0] : forms["1".equals(String.valueOf(values.get("count"))) ? 0 : 1];
      for (var entry : values.entrySet()) text = text.replace("{" + entry.getKey() + "}", String.valueOf(entry.getValue()));
      return text;
    } catch (java.io.IOException wrong) { throw new RuntimeException(wrong); }
  }
  public static void main(String[] arguments) {
    var name = "Ines";
    var boats = 3;
    showMessage("Hello " + name + ", welcome aboard");
    showMessage(String.format("There are %d boats at the quay", boats));
    showMessage("All seats are taken today");
    for (int seats = 0; seats < 3; seats++) showMessage("You have " + seats + " seat" + (seats == 1 ? "" : "s") + " left");
  }
}
`,
  },
];

let failed = 0;
for (const { language, file, run, files, text } of programs) {
  const [command, ...args] = run;
  if (spawnSync(command, [command === "java" ? "-version" : "--version"], { stdio: "ignore" }).status !== 0) {
    console.log(`${language}: ${command} is not on this machine, passed over`);
    continue;
  }
  const config = {
    source: "en",
    targets: [],
    books: [
      {
        name: "app",
        code: [file],
        files: "texts.json".replace("texts", "texts-{locale}"),
        naming: { shape: "flat" },
        plurals: "bar",
      },
    ],
  };
  const opened = await openProject(
    memoryFiles({ "fond.config.json": JSON.stringify(config), "texts-en.json": "{}\n", [file]: text }),
  );
  const plan = await extract(opened.project);
  for (const { line, message } of plan.notes) console.log(`${language}: line ${line}: ${message}`);
  const after = (name) => plan.changes.find((change) => change.file === name)?.after;
  const outputs = [text, after(file) ?? text].map((code) => {
    const folder = mkdtempSync(join(tmpdir(), "fond-hosts-"));
    for (const [name, content] of Object.entries({
      ...files,
      [file]: code,
      "texts.json": after("texts-en.json") ?? "{}",
    }))
      writeFileSync(join(folder, name), content);
    const { stdout, stderr, status } = spawnSync(command, args, { cwd: folder, encoding: "utf8" });
    rmSync(folder, { recursive: true, force: true });
    return status === 0 ? stdout : `failed: ${stderr}`;
  });
  const isSame = outputs[0] === outputs[1] && !outputs[0].startsWith("failed") && plan.extracted.length > 0;
  if (!isSame) failed++;
  console.log(
    `${language}: ${plan.extracted.length} texts taken, ${isSame ? "prints the same" : "prints SOMETHING ELSE"}`,
  );
  if (!isSame)
    console.log(`--- before\n${outputs[0]}\n--- after\n${outputs[1]}\n--- code\n${after(file) ?? ""}`);
}
process.exit(failed > 0 ? 1 : 0);
