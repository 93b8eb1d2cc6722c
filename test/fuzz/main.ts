import { fork } from "node:child_process";
import { mkdirSync, readdirSync, readFileSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { parseArgs } from "node:util";
import { isMainThread, parentPort, Worker, workerData } from "node:worker_threads";
import { mutated } from "./mutate.js";
import { fuzzTargets, type FuzzTarget } from "./targets.js";

const corpusFolder = fileURLToPath(new URL("../../../test/fuzz/corpus/", import.meta.url));
const foundFolder = fileURLToPath(new URL("../../../test/fuzz/found/", import.meta.url));

/** What reading one text may take: a fixed share and one for each character. In milliseconds. */
const allowed = (text: string) => 3_000 + text.length * 0.15;
/** After so long without a sign of life a text is taken to hang the program. In milliseconds. */
const patience = 45_000;

/** The corpus of a target, and each text in it. */
export function corpusOf({ corpus }: FuzzTarget): readonly string[] {
  return readdirSync(corpusFolder)
    .filter((name) => corpus.some((ending) => name.slice(name.indexOf(".")) === ending))
    .sort()
    .map((name) => readFileSync(join(corpusFolder, name), "utf8"));
}

interface Task {
  readonly target: string;
  readonly seed: number;
  readonly minutes: number;
}

type Sign =
  | { readonly kind: "begins"; readonly seed: number }
  | { readonly kind: "failed"; readonly seed: number; readonly reason: string }
  | { readonly kind: "done"; readonly runs: number; readonly slowest: number };

/** Reads mutated texts until the time is over, and says before each which it is. */
async function work({ target: name, seed, minutes }: Task): Promise<void> {
  const target = fuzzTargets.find((one) => one.name === name);
  if (!target || !parentPort) return;
  const say = (sign: Sign) => parentPort?.postMessage(sign);
  const samples = corpusOf(target);
  const end = Date.now() + minutes * 60_000;
  let slowest = 0;
  let runs = 0;
  for (let at = seed; Date.now() < end; at++, runs++) {
    const text = mutated(at, samples, target.tokens);
    say({ kind: "begins", seed: at });
    const took = await timed(target, text).catch((error: unknown) => String((error as Error).stack ?? error));
    if (typeof took === "string") say({ kind: "failed", seed: at, reason: took });
    else if (took > allowed(text)) {
      // The machine may have been busy.
      const again = await timed(target, text);
      if (again > allowed(text))
        say({ kind: "failed", seed: at, reason: `${Math.round(again)} ms for ${text.length} characters` });
    }
    if (typeof took === "number") slowest = Math.max(slowest, took);
  }
  say({ kind: "done", runs, slowest });
}

async function timed(target: FuzzTarget, text: string): Promise<number> {
  const start = performance.now();
  await target.run(text);
  return performance.now() - start;
}

interface Outcome {
  readonly runs: number;
  readonly slowest: number;
  readonly failures: readonly string[];
}

function fuzz(target: FuzzTarget, task: Task): Promise<Outcome> {
  return new Promise((resolve) => {
    const failures: string[] = [];
    const child = fork(fileURLToPath(import.meta.url), [], {
      env: { ...process.env, FUZZ_TASK: JSON.stringify(task) },
    });
    let seed = task.seed;
    let runs = 0;
    let timer = setTimeout(hangs, patience);
    const keep = (at: number, reason: string) => {
      const name = `${target.name.replace(/\W+/g, "-")}-${at}`;
      mkdirSync(foundFolder, { recursive: true });
      writeFileSync(join(foundFolder, `${name}.txt`), mutated(at, corpusOf(target), target.tokens));
      failures.push(`${target.name}, seed ${at} (test/fuzz/found/${name}.txt): ${reason}`);
    };
    function finish(slowest: number) {
      clearTimeout(timer);
      child.removeAllListeners();
      child.kill("SIGKILL");
      resolve({ runs, slowest, failures });
    }
    function hangs() {
      keep(seed, `no answer for ${patience / 1000} s`);
      finish(patience);
    }
    child.on("message", (sign: Sign) => {
      clearTimeout(timer);
      timer = setTimeout(hangs, patience);
      if (sign.kind === "begins") {
        seed = sign.seed;
        runs++;
      } else if (sign.kind === "failed") keep(sign.seed, sign.reason);
      else finish(sign.slowest);
    });
    child.on("exit", (status, signal) => {
      keep(seed, `the process ended with ${signal ?? `status ${status}`}`);
      finish(0);
    });
  });
}

/** Reads in a thread, whose stack is that of the survey's threads, in a process that may end without ending this one. */
function relay(task: Task): void {
  const worker = new Worker(fileURLToPath(import.meta.url), { workerData: task });
  worker.on("message", (sign: Sign) => process.send?.(sign));
  worker.on("error", (error) => {
    console.error(error);
    process.exit(1);
  });
}

async function main(): Promise<void> {
  const { values } = parseArgs({
    options: {
      minutes: { type: "string", default: "10" },
      seed: { type: "string", default: String(Date.now() % 1_000_000_000) },
      target: { type: "string", default: "" },
    },
  });
  const chosen = fuzzTargets.filter(({ name }) => name.includes(values.target));
  const minutes = Number(values.minutes) / Math.max(chosen.length, 1);
  const seed = Number(values.seed);
  console.log(`seed ${seed}, ${values.minutes} minutes for ${chosen.length} readers`);
  const waiting = [...chosen];
  let failed = 0;
  // Two at a time, for so long that all take the time that was asked for.
  const next = async () => {
    for (let target = waiting.shift(); target; target = waiting.shift()) {
      const { runs, slowest, failures } = await fuzz(target, {
        target: target.name,
        seed,
        minutes: minutes * 2,
      });
      failed += failures.length;
      console.log(
        `${target.name.padEnd(24)} ${String(runs).padStart(7)} texts, slowest ${Math.round(slowest)} ms${failures.length > 0 ? `, ${failures.length} FAILED` : ""}`,
      );
      for (const failure of failures.slice(0, 3))
        console.log(`  ${failure.split("\n").slice(0, 6).join("\n    ")}`);
    }
  };
  await Promise.all([next(), next()]);
  console.log(failed === 0 ? "nothing found" : `${failed} texts failed`);
  process.exitCode = failed === 0 ? 0 : 1;
}

if (!isMainThread) await work(workerData as Task);
else if (process.env["FUZZ_TASK"] !== undefined) relay(JSON.parse(process.env["FUZZ_TASK"]) as Task);
else if (
  process.argv[1] !== undefined &&
  dirname(fileURLToPath(import.meta.url)) === dirname(process.argv[1])
)
  await main();
