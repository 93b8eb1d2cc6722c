import type { MemoryFiles } from "../../src/core/files/memory-files.js";
import { openProject, type Project } from "../../src/core/project/project.js";
import { spawnSync } from "node:child_process";
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { Readable } from "node:stream";
import { fileURLToPath } from "node:url";
import { run } from "../../src/cli/run.js";

/** The repository's root, seen from the compiled tests. */
export const root = fileURLToPath(new URL("../../../", import.meta.url));
export const program = join(root, "dist/bin/main.js");
const folders: string[] = [];
/** Where the program keeps what it read: tests run beside each other, so each process has its own. */
const cache = join(tmpdir(), `fond-test-cache-${process.pid}`);

/** A new folder with the given files, removed by `cleanUp`. */
export function temporaryProject(files: Readonly<Record<string, string | Uint8Array>> = {}): string {
  const folder = mkdtempSync(join(tmpdir(), "fond-"));
  folders.push(folder);
  for (const [path, content] of Object.entries(files)) {
    mkdirSync(dirname(join(folder, path)), { recursive: true });
    writeFileSync(join(folder, path), content);
  }
  return folder;
}

export function cleanUp(): void {
  for (const folder of [...folders.splice(0), cache]) rmSync(folder, { recursive: true, force: true });
}

/** Every file below a folder with its text, but for node_modules. */
export function filesIn(folder: string): Record<string, string> {
  const found: Record<string, string> = {};
  for (const path of readdirSync(folder, { recursive: true, encoding: "utf8" }).sort()) {
    if (path.startsWith("node_modules") || !statSync(join(folder, path)).isFile()) continue;
    found[path.replaceAll("\\", "/")] = readFileSync(join(folder, path), "utf8");
  }
  return found;
}

export interface Outcome {
  readonly status: number | null;
  readonly stdout: string;
  readonly stderr: string;
}

/** What the program sees of its surroundings in tests. */
const environment = {
  XDG_CACHE_HOME: cache,
  FORCE_COLOR: "0",
  COLUMNS: "100",
};

/** Runs the program in a folder, in this process. */
export function fond(cwd: string, ...args: readonly string[]): Promise<Outcome> {
  return fondTold(cwd, "", ...args);
}

/** Runs the program in this process, with something to read on its standard input. */
export async function fondTold(cwd: string, input: string, ...args: readonly string[]): Promise<Outcome> {
  let stdout = "";
  let stderr = "";
  const status = await run(args, {
    stdin: Readable.from(input === "" ? [] : [input]),
    stdout: { write: (text) => (stdout += text) },
    stderr: { write: (text) => (stderr += text) },
    env: environment,
    cwd,
  });
  return { status, stdout, stderr };
}

/** Runs the built program in a process of its own. */
export function fondProgram(cwd: string, ...args: readonly string[]): Outcome {
  const { status, stdout, stderr } = spawnSync(process.execPath, [program, ...args], {
    cwd,
    encoding: "utf8",
    env: { ...process.env, NODE_OPTIONS: "", ...environment },
  });
  return { status, stdout, stderr };
}

/** A small project of one book: English source, German and Polish targets, one file of code. */
export function smallProject(more: Readonly<Record<string, string>> = {}): Record<string, string> {
  return {
    "fond.config.json": JSON.stringify({
      source: "en",
      targets: ["de", "pl"],
      books: [
        {
          name: "app",
          code: ["src/**/*.tsx"],
          files: "texts/{locale}.json",
          lookups: [{ call: "t" }, { call: "rich" }],
          emit: { rich: 'rich("{key}"{args})', import: 'import { t, rich } from "{to:src/messages}";' },
          naming: { pattern: "{file}.{slug}" },
        },
      ],
    }),
    "texts/en.json":
      '{\n  "home": {\n    "title": "Sailings",\n    "count": "{n, plural, one {# boat} other {# boats}}"\n  }\n}\n',
    "texts/de.json":
      '{\n  "home": {\n    "title": "Abfahrten",\n    "count": "{n, plural, one {# Schiff} other {# Schiffe}}"\n  }\n}\n',
    "texts/pl.json":
      '{\n  "home": {\n    "title": "Rejsy",\n    "count": "{n, plural, one {# statek} few {# statki} many {# statków} other {# statku}}"\n  }\n}\n',
    "src/home.tsx":
      'import { t } from "./messages";\n\nexport function Home({ n }: { n: number }) {\n  return (\n    <main>\n      <h1>{t("home.title")}</h1>\n      <p>{t("home.count", { n })}</p>\n    </main>\n  );\n}\n',
    ...more,
  };
}

/** A project that each job sees as a run that starts with it would: opened again whenever something of it is asked for. */
export function reopened(files: MemoryFiles): Project {
  const open = () => {
    const opened = openProject(files);
    if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
    return opened.project;
  };
  open();
  return new Proxy({} as Project, { get: (_, name) => Reflect.get(open(), name) as unknown });
}
