import { spawnSync } from "node:child_process";
import { mkdtempSync, rmSync, symlinkSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { memoryFiles } from "../../src/core/files/memory-files.js";
import { fillMessage, type ArgumentValue } from "../../src/core/message/fill.js";
import { messageReader } from "../../src/core/message/parse.js";
import { extractProject } from "../../src/core/project/extract-project.js";
import { openProject } from "../../src/core/project/project.js";
import type { Host } from "./hosts.js";
import { allValues, type Line } from "./model.js";

/** What a program prints: by values, then by line; or why it does not run. */
type Printed = readonly (readonly string[])[] | { readonly failure: string };

/** Runs a program in a folder of its own. */
function run(host: Host, code: string, packages: string): Printed {
  const folder = mkdtempSync(join(tmpdir(), "fond-hosts-"));
  try {
    for (const [name, text] of Object.entries({ ...host.runner.files, [host.file]: code }))
      writeFileSync(join(folder, name), text);
    if ("packages" in host.needs)
      symlinkSync(join(packages, "node_modules"), join(folder, "node_modules"), "dir");
    const [command = "", ...args] = host.runner.args;
    const { stdout, stderr, status } = spawnSync(command, args, {
      cwd: folder,
      encoding: "utf8",
      maxBuffer: 1 << 28,
    });
    if (status !== 0) return { failure: stderr.slice(0, 2_000) };
    return JSON.parse(stdout) as readonly (readonly string[])[];
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** What is printed, with each lookup's mark filled by the message that it asks for. */
function filled(printed: string, texts: Readonly<Record<string, string>>): string {
  const reader = messageReader("icu");
  const fill = (text: string): string =>
    text.replace(/@@([0-9a-f]+)@@/g, (_, hex: string) => {
      const [key, given] = JSON.parse(Buffer.from(hex, "hex").toString("utf8")) as [
        string,
        Record<string, unknown>,
      ];
      const values: Record<string, ArgumentValue> = {};
      for (const [name, value] of Object.entries(given))
        values[name] = typeof value === "number" ? value : fill(String(value));
      return fillMessage(reader.read(texts[key] ?? `no text for ${key}`).nodes, "en", values).text;
    });
  return fill(printed);
}

const named: Readonly<Record<string, string>> = { amp: "&", lt: "<", gt: ">", quot: '"', apos: "'" };

/** A part of a page as a reader sees it: entities read, blanks as one. */
function seen(host: Host, text: string): string {
  if (!host.isPage) return text;
  return text
    .replace(/&(?:#(\d+)|#x([0-9a-f]+)|(\w+));/gi, (whole, decimal?: string, hex?: string, name?: string) =>
      decimal !== undefined || hex !== undefined
        ? String.fromCodePoint(decimal !== undefined ? Number(decimal) : parseInt(hex ?? "", 16))
        : (named[name ?? ""] ?? whole),
    )
    .replace(/\s+/g, " ")
    .replace(/> | </g, (blank) => blank.trim());
}

async function extracted(host: Host, code: string) {
  const book = {
    name: "app",
    code: [host.file],
    files: "texts-{locale}.json",
    naming: { shape: "flat" },
    ...(host.emit && { emit: host.emit }),
  };
  const config = { source: "en", targets: [], books: [book] };
  const opened = openProject(
    memoryFiles({ "fond.config.json": JSON.stringify(config), "texts-en.json": "{}\n", [host.file]: code }),
  );
  if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
  const plan = await extractProject(opened.project, {}, { least: "unclear" });
  const after = (file: string) => plan.changes.find((change) => change.file === file)?.after;
  return {
    code: after(host.file) ?? code,
    texts: JSON.parse(after("texts-en.json") ?? "{}") as Record<string, string>,
    count: plan.extracted.length,
  };
}

/** How many texts were taken, how many outputs compared, and what differs, in words. */
export interface Compared {
  readonly taken: number;
  readonly outputs: number;
  readonly wrong: readonly string[];
}

/** Compares a program of lines with what extraction makes of it. `packages` is the folder where engines are installed. */
export async function compare(host: Host, all: readonly Line[], packages: string): Promise<Compared> {
  const code = host.whole(all.map((line, at) => host.line(line, at)));
  const before = run(host, code, packages);
  if ("failure" in before)
    return { taken: 0, outputs: 0, wrong: [`does not run as it is: ${before.failure}`] };
  const taken = await extracted(host, code);
  const after = run(host, taken.code, packages);
  const wrong: string[] = [];
  if ("failure" in after) wrong.push(`does not run any more: ${after.failure}\n${taken.code}`);
  else
    for (const [at, values] of allValues.entries())
      for (const [line, printed] of (before[at] ?? []).entries()) {
        const is = seen(host, filled(after[at]?.[line] ?? "nothing", taken.texts));
        const was = seen(host, printed);
        if (is === was) continue;
        const shown = `line ${line} with ${JSON.stringify(values)}`;
        wrong.push(
          `${shown} prints\n    ${is}\n  and not\n    ${was}\n  ${host.line(all[line] as Line, line)}`,
        );
      }
  return { taken: taken.count, outputs: before.length * all.length, wrong };
}
