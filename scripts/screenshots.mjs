// Makes the pictures in docs/screenshots/ again: runs the built program on a copy of the sample project
// with colours on, and draws what it prints in a terminal window of 1280x800 with headless Chromium.
import { execFileSync, spawnSync } from "node:child_process";
import {
  closeSync,
  cpSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  openSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

const root = dirname(dirname(fileURLToPath(import.meta.url)));
const program = join(root, "dist", "bin", "main.js");
const pictures = join(root, "docs", "screenshots");
const columns = 116;
const rows = 38;

/** Each picture: the commands that lead up to it, the one that it shows, and how many lines to skip. */
const shots = [
  {
    name: "init",
    prepare: [],
    run: ["init", "--cwd", "."],
    before: (folder) => rmSync(join(folder, "fond.config.json")),
  },
  { name: "state", run: [] },
  { name: "survey", run: ["survey", "web/pages"] },
  { name: "extract", run: ["extract", "web/pages", "--no-review"] },
  { name: "reconcile", prepare: [["extract", "--write"]], run: ["reconcile", "--locale", "pl"] },
  { name: "lint", run: ["lint"] },
  { name: "preview", run: ["preview", "sailings.list.seats", "search.results"] },
  {
    name: "convert",
    run: ["convert", "--to", "yaml"],
    // One mistake of the sample has to be settled before it converts: a key that stands twice.
    before: (folder) => keepLastOfEachKey(join(folder, "web", "locales", "ar", "basket.json")),
  },
  { name: "balance", prepare: [["extract", "--write"]], run: ["balance"] },
  // "review" asks in a terminal, and its picture is taken there.
  {
    name: "draft",
    prepare: [
      ["extract", "--write"],
      ["reconcile", "--write"],
    ],
    run: ["draft", "--likeness", "55", "--service", "stand-in", "--locale", "ja", "pl"],
  },
  {
    name: "intake",
    prepare: [
      ["extract", "--write"],
      ["reconcile", "--write"],
      ["handoff", "--to", "csv", "--locale", "de", "--write"],
    ],
    run: ["intake", "handoff/de.csv"],
    // A translator filled some of it in, and lost a value and an element.
    after: (folder) => fillTable(join(folder, "handoff", "de.csv")),
  },
  {
    name: "page",
    prepare: [
      ["extract", "--write"],
      ["reconcile", "--write"],
      ["handoff", "--to", "page", "--locale", "pl", "--write"],
    ],
    drive: async (page) => {
      await page.fill("#search", "deck");
      await page.locator(".row", { hasText: "bikesDeck" }).click();
      const fields = page.locator(".field");
      for (const [index, words] of [
        " rower na pokładzie",
        " rowery na pokładzie",
        " rowerów na pokładzie",
      ].entries()) {
        await fields.nth(index).click();
        if (index !== 1) await page.keyboard.press("Alt+1");
        await page.keyboard.insertText(words);
      }
      await fields.nth(2).click();
      await page.fill("#search", "");
      await page.waitForTimeout(400);
    },
    file: "handoff/pl.html",
  },
  { name: "trace", run: ["trace", "fares.checkIn", "search.results"] },
  { name: "audit", run: ["audit"] },
  {
    name: "report",
    prepare: [["report", "--into", "report.html"]],
    drive: async (page) => {
      await page.evaluate(() => (globalThis.location.hash = "#message=booking/sailings.list.seats"));
      await page.waitForTimeout(400);
    },
    file: "report.html",
  },
  { name: "locale", run: ["locale", "list"] },
  { name: "rekey", run: ["rekey", "sailings.status.*", "sailings.state.*"] },
  { name: "demo", run: ["demo", "walk"] },
];

const chromium = [
  process.env.CHROMIUM,
  "/usr/bin/chromium",
  "/usr/bin/chromium-browser",
  "/usr/bin/google-chrome",
].find((path) => path && existsSync(path));
if (!chromium) {
  console.error(
    "Pictures need Chromium: install it (on Debian: apt-get install chromium fonts-dejavu fonts-noto-core fonts-noto-cjk), or name it in CHROMIUM.",
  );
  process.exit(1);
}

const only = process.argv.slice(2);
mkdirSync(pictures, { recursive: true });
const work = mkdtempSync(join(tmpdir(), "fond-shots-"));
try {
  for (const shot of shots) if (only.length === 0 || only.includes(shot.name)) await take(shot);
} finally {
  rmSync(work, { recursive: true, force: true });
}

function fillTable(file) {
  const words = {
    "board.printList": "Liste drucken",
    "sailings.arrives": "Ankunft",
    "basket.readFareRulesBefore": "Bitte lesen Sie die Tarifregeln, bevor Sie zahlen.",
  };
  const text = readFileSync(file, "utf8").replace(
    /^([\w.]+),,("(?:[^"]|"")*"|[^,]*),,/gm,
    (row, key, source) => (words[key] === undefined ? row : `${key},,${source},"${words[key]}",`),
  );
  writeFileSync(file, text);
}

function keepLastOfEachKey(file) {
  writeFileSync(file, `${JSON.stringify(JSON.parse(readFileSync(file, "utf8")), undefined, 2)}\n`);
}

async function take({ name, prepare = [], run = [], skip = 0, before, after, drive, file, input = "" }) {
  const folder = join(work, name);
  cpSync(join(root, "demo", "ferries"), folder, { recursive: true });
  before?.(folder);
  const env = { ...process.env, FORCE_COLOR: "1", COLUMNS: String(columns) };
  for (const args of prepare)
    execFileSync(process.execPath, [program, ...args], { cwd: folder, env, stdio: "ignore" });
  after?.(folder);
  if (drive) {
    await photograph(join(folder, file), join(pictures, `${name}.png`), drive);
    console.log(`docs/screenshots/${name}.png`);
    return;
  }
  // Both streams go to one file, as they do to one terminal, so that lines come in their order.
  const output = join(work, `${name}.txt`);
  const opened = openSync(output, "w");
  spawnSync(process.execPath, [program, ...run], {
    cwd: folder,
    env,
    input,
    stdio: ["pipe", opened, opened],
  });
  closeSync(opened);
  const prompt = `\u001b[36m$\u001b[39m \u001b[1m${["fond", ...run].join(" ").replace(" --cwd .", "")}\u001b[22m`;
  const printed = readFileSync(output, "utf8").split("\n");
  const lines = [prompt, ...(skip > 0 ? ["\u001b[2m…\u001b[22m"] : []), ...printed.slice(skip)].slice(
    0,
    rows,
  );
  const page = join(work, `${name}.html`);
  writeFileSync(page, html(["fond", ...run.slice(0, 1)].join(" "), lines.map(toHtml).join("\n")));
  const target = join(pictures, `${name}.png`);
  execFileSync(
    chromium,
    [
      "--headless=new",
      "--no-sandbox",
      "--disable-gpu",
      "--hide-scrollbars",
      "--force-device-scale-factor=1",
      "--window-size=1280,800",
      `--screenshot=${target}`,
      `file://${page}`,
    ],
    { stdio: "ignore" },
  );
  console.log(`docs/screenshots/${name}.png`);
}

/** A page in a browser, after something was done on it. */
async function photograph(file, target, drive) {
  const { chromium: driver } = await import("playwright-core");
  const browser = await driver.launch({ executablePath: chromium, args: ["--no-sandbox", "--disable-gpu"] });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`file://${file}`);
  await drive(page);
  await page.screenshot({ path: target });
  await browser.close();
}

/** One line with ANSI colours (ECMA-48, 8.3.117 SGR) as HTML. */
function toHtml(line) {
  const names = ["black", "red", "green", "yellow", "blue", "magenta", "cyan", "white"];
  const on = new Set();
  let color = "";
  let result = "";
  for (const part of line.split(/(\u001b\[[\d;]*m)/)) {
    const codes = /^\u001b\[([\d;]*)m$/.exec(part)?.[1];
    if (codes === undefined) {
      if (part === "") continue;
      const text = part.replaceAll("&", "&amp;").replaceAll("<", "&lt;").replaceAll(">", "&gt;");
      result += `<span class="${[...on, color].filter(Boolean).join(" ")}">${text}</span>`;
      continue;
    }
    for (const code of codes.split(";").map(Number)) {
      const style = { 1: "bold", 2: "dim", 4: "underline", 7: "inverse" }[code];
      if (style) on.add(style);
      else if (code === 22) ["bold", "dim"].forEach((one) => on.delete(one));
      else if (code === 24) on.delete("underline");
      else if (code === 27) on.delete("inverse");
      else if (code >= 30 && code <= 37) color = names[code - 30];
      else if (code >= 90 && code <= 97) color = names[code - 90];
      else if (code === 39) color = "";
      else if (code === 0) {
        on.clear();
        color = "";
      }
    }
  }
  return result;
}

function html(title, body) {
  return `<!doctype html><meta charset="utf-8"><style>
    html { background: #2b303b; }
    body { margin: 14px; }
    .window { height: 770px; border-radius: 9px; overflow: hidden; background: #14171d; box-shadow: 0 8px 30px #0008; }
    .bar { height: 30px; background: #3a404c; color: #c5cad4; font: 13px/30px "DejaVu Sans", sans-serif; text-align: center; position: relative; }
    .bar::before { content: "● ● ●"; position: absolute; left: 14px; letter-spacing: 3px; color: #7d8697; }
    pre { margin: 0; padding: 12px 18px; color: #d7dbe3; font: 15.5px/18.6px "DejaVu Sans Mono", "Noto Sans Mono CJK JP", monospace; unicode-bidi: plaintext; }
    .bold { font-weight: bold; color: #fff; } .dim { color: #7f8796; } .underline { text-decoration: underline; } .inverse { background: #d7dbe3; color: #14171d; }
    .red { color: #ff7b72; } .green { color: #7ee787; } .yellow { color: #e3b341; } .cyan { color: #79c0ff; } .blue { color: #6aa5ff; } .magenta { color: #d2a8ff; }
    .inverse.red { background: #ff7b72; color: #14171d; } .inverse.green { background: #7ee787; color: #14171d; } .inverse.yellow { background: #e3b341; color: #14171d; }
  </style><div class="window"><div class="bar">${title}</div><pre>${body}</pre></div>`;
}
