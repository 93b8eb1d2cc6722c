import { spawn } from "node:child_process";
import {
  cpSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { parseArgs } from "node:util";
import { randomFrom } from "../fuzz/mutate.js";
import { program, root, smallProject } from "../support/project.js";

/** A command that writes, and what must be there for it to have something to do. */
interface Writing {
  readonly name: string;
  readonly args: readonly string[];
  prepare(folder: string): void;
}

const demo = (folder: string) =>
  cpSync(join(root, "demo/ferries"), folder, {
    recursive: true,
    filter: (path) => !/[\\/](?:node_modules|\.site-[^\\/]*)$/.test(path),
  });

export const writings: readonly Writing[] = [
  { name: "extract", args: ["extract", "--write", "--no-review"], prepare: demo },
  { name: "reconcile", args: ["reconcile", "--write"], prepare: demo },
  { name: "lint --fix", args: ["lint", "--fix", "--write"], prepare: demo },
  { name: "lint --baseline", args: ["lint", "--baseline", "--write"], prepare: demo },
  { name: "locale add", args: ["locale", "add", "sv", "--write"], prepare: demo },
  { name: "locale drop", args: ["locale", "drop", "ja", "--write"], prepare: demo },
  { name: "rekey", args: ["rekey", "common.nav.*", "common.menu.*", "--write"], prepare: demo },
  {
    name: "convert",
    args: ["convert", "--to", "yaml", "--files", "texts/{locale}.yaml", "--write"],
    prepare(folder) {
      for (const [path, text] of Object.entries(smallProject())) {
        mkdirSync(dirname(join(folder, path)), { recursive: true });
        writeFileSync(join(folder, path), text);
      }
    },
  },
  {
    name: "review",
    args: ["review", "**", "--write"],
    prepare: demo,
  },
  {
    name: "init",
    args: ["init", "--yes", "--write"],
    prepare(folder) {
      demo(folder);
      rmSync(join(folder, "fond.config.json"), { force: true });
    },
  },
];

/** The texts of a folder's files by path; what a run keeps for itself is left out. */
function textsIn(folder: string): ReadonlyMap<string, string> {
  const found = new Map<string, string>();
  for (const path of readdirSync(folder, { recursive: true, encoding: "utf8" }).sort())
    if (statSync(join(folder, path)).isFile() && !isRecord(path))
      found.set(path, readFileSync(join(folder, path), "utf8"));
  return found;
}

const isRecord = (path: string) => /\.fond-(?:new|old|lock)$|\.fond-journal\.json/.test(path);

const leftovers = (folder: string) =>
  readdirSync(folder, { recursive: true, encoding: "utf8" }).filter(isRecord);

interface End {
  readonly status: number | null;
  readonly took: number;
}

/** Runs the program, and kills it after some milliseconds where that is asked for. */
function runProgram(
  folder: string,
  args: readonly string[],
  killAfter?: number,
  fromLock = false,
): Promise<End> {
  return new Promise((resolve) => {
    const start = performance.now();
    const child = spawn(process.execPath, [program, ...args], {
      cwd: folder,
      stdio: "ignore",
      env: { ...process.env, XDG_CACHE_HOME: join(tmpdir(), "fond-torture-cache") },
    });
    const kill = () => child.kill("SIGKILL");
    let timer: NodeJS.Timeout | undefined;
    const waits = killAfter !== undefined && fromLock;
    if (killAfter !== undefined && !waits) timer = setTimeout(kill, killAfter);
    // It writes as long as it holds the lock.
    const watch = waits
      ? setInterval(() => {
          if (timer === undefined && existsSync(join(folder, ".fond-lock")))
            timer = setTimeout(kill, killAfter);
        }, 1)
      : undefined;
    child.on("close", (status) => {
      clearTimeout(timer);
      clearInterval(watch);
      resolve({ status, took: performance.now() - start });
    });
  });
}

/** Kills each command at random moments, and says where a file was neither old nor new, or a second run did not end what the first began. */
export async function torture(
  kills: number,
  seed: number,
  chosen: readonly Writing[],
  say: (line: string) => void,
): Promise<readonly string[]> {
  const random = randomFrom(seed);
  const failures: string[] = [];
  const made = mkdtempSync(join(tmpdir(), "fond-torture-"));
  const each = Math.ceil(kills / chosen.length);
  for (const { name, args, prepare } of chosen) {
    const [fresh, whole, folder] = ["fresh", "whole", "run"].map((part) => join(made, part)) as [
      string,
      string,
      string,
    ];
    for (const one of [fresh, whole]) {
      rmSync(one, { recursive: true, force: true });
      prepare(one);
    }
    const first = await runProgram(whole, args);
    const old = textsIn(fresh);
    const done = textsIn(whole);
    if ([...done].every(([path, text]) => old.get(path) === text))
      failures.push(`${name}: it changes nothing`);
    let between = 0;
    for (let kill = 0; kill < each; kill++) {
      rmSync(folder, { recursive: true, force: true });
      cpSync(fresh, folder, { recursive: true });
      // Most moments are in the short time in which it writes.
      const fromLock = random() < 0.75;
      const moment = fromLock ? random() * 8 : first.took * random();
      await runProgram(folder, args, moment, fromLock);
      const now = textsIn(folder);
      for (const [path, text] of now)
        if (text !== old.get(path) && text !== done.get(path))
          failures.push(`${name}, killed after ${Math.round(moment)} ms: ${path} is neither old nor new`);
      for (const path of old.keys())
        if (!now.has(path) && done.has(path))
          failures.push(`${name}, killed after ${Math.round(moment)} ms: ${path} is gone`);
      if (leftovers(folder).length > 0) between++;
      const again = await runProgram(folder, args);
      const ended = textsIn(folder);
      const isDone = ended.size === done.size && [...done].every(([path, text]) => ended.get(path) === text);
      // A run that had ended when it was killed finds nothing more to do, or has its work refused as done.
      if (!isDone)
        failures.push(
          `${name}, killed after ${Math.round(moment)} ms: the next run (status ${again.status ?? "none"}) does not complete it`,
        );
      const left = leftovers(folder);
      if (left.length > 0)
        failures.push(`${name}, killed after ${Math.round(moment)} ms: ${left.join(", ")} stays behind`);
    }
    say(`${name.padEnd(16)} killed ${each} times, ${between} of them between the first and the last write`);
  }
  rmSync(made, { recursive: true, force: true });
  return failures;
}

if (process.argv[1]?.endsWith(join("torture", "main.js")) && existsSync(program)) {
  const { values } = parseArgs({
    options: {
      kills: { type: "string", default: "1000" },
      seed: { type: "string", default: String(Date.now() % 1_000_000_000) },
    },
  });
  console.log(`seed ${values.seed}, ${values.kills} kills`);
  const failures = await torture(Number(values.kills), Number(values.seed), writings, console.log);
  for (const failure of failures.slice(0, 50)) console.log(failure);
  console.log(
    failures.length === 0 ? "every file old or new, every rerun complete" : `${failures.length} failed`,
  );
  process.exitCode = failures.length === 0 ? 0 : 1;
}
