// Writes docs/rules/ from the rules' own metadata; with --check it only says whether the pages are current.
import { mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { rules } from "../dist/src/index.js";

const folder = join(dirname(dirname(fileURLToPath(import.meta.url))), "docs", "rules");

const judged = JSON.parse(readFileSync(join(dirname(folder), "rules-precision.json"), "utf8"));

const pages = new Map([
  ["README.md", indexPage()],
  ...rules.map((rule) => [`${rule.id.replace("/", "-")}.md`, rulePage(rule)]),
]);

if (process.argv.includes("--check")) {
  const there = readdirSync(folder);
  const differing = [...pages]
    .filter(([name, text]) => !there.includes(name) || readFileSync(join(folder, name), "utf8") !== text)
    .map(([name]) => name);
  const left = there.filter((name) => !pages.has(name));
  for (const name of [...differing, ...left])
    console.error(`docs/rules/${name} is not current: run node scripts/rule-pages.mjs`);
  process.exit(differing.length + left.length > 0 ? 1 : 0);
}
rmSync(folder, { recursive: true, force: true });
mkdirSync(folder, { recursive: true });
for (const [name, text] of pages) writeFileSync(join(folder, name), text);

function indexPage() {
  const lines = rules.map(
    (rule) => `| [${rule.id}](${rule.id.replace("/", "-")}.md) | ${rule.level} | ${rule.summary} |`,
  );
  return `# The rules of \`fond lint\`\n\n\`error\` breaks what a user sees, \`warning\` probably does, \`info\` is taste. A rule's level is set in the\nconfiguration: \`"rules": { "key/unused": "off" }\`.\n\n| rule | level | finds |\n|---|---|---|\n${lines.join("\n")}\n`;
}

function rulePage({ id, level, summary, why, messages, examples }) {
  const says = Object.entries(messages).map(
    ([name, { message }]) => `| \`${name}\` | ${message.replace(/[|<>*_`]/g, "\\$&")} |`,
  );
  const { judged: count = 0, right = 0 } = judged[id] ?? {};
  const measured =
    count === 0
      ? ""
      : `\n\nOf ${count} findings drawn by chance from real catalogs, ${right} were right when a person judged them.`;
  const table =
    says.length === 0 ? "" : `## Messages\n\n| \`messageId\` | message |\n|---|---|\n${says.join("\n")}\n\n`;
  return `# ${id}\n\n${summary} Level: \`${level}\`.\n\n${why}${measured}\n\n${table}## Reported\n\n${examples.bad.map(showExample).join("\n")}\n## Accepted\n\n${examples.good.map(showExample).join("\n")}`;
}

function showExample(example) {
  const lines = [];
  const put = (label, value) => {
    if (value === undefined) return;
    if (typeof value === "string") lines.push(`${label.padEnd(8)}${value.replaceAll("\n", "\n        ")}`);
    else for (const [key, text] of Object.entries(value)) lines.push(`${label.padEnd(8)}${key} = ${text}`);
  };
  put("en", example.source);
  put(example.locale ?? "de", example.target);
  put("code", example.code);
  put("was", example.madeFrom);
  put("fixed", example.fixed);
  return `${example.note ? `${example.note.charAt(0).toUpperCase()}${example.note.slice(1)}:\n\n` : ""}\`\`\`text\n${lines.join("\n")}\n\`\`\`\n`;
}
