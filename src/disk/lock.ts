import { closeSync, lstatSync, openSync, readFileSync, rmSync, unlinkSync, writeSync } from "node:fs";
import { hostname } from "node:os";
import { join } from "node:path";
import type { Lock } from "../core/files/files.js";

/** The file that says that a run is writing to the project. */
export const lockFile = ".fond-lock";

/** How long a run waits for another one to finish writing, and after how long one of another machine is taken for dead. In ms. */
const longestWait = 15_000;
const oldest = 600_000;

/**
 * Takes the lock of a project, waiting while another run has it. A lock whose process is gone, or that another machine
 * left long ago, is taken over.
 */
export function takeLock(root: string): Lock {
  const path = join(root, lockFile);
  const start = Date.now();
  for (;;) {
    try {
      const handle = openSync(path, "wx");
      writeSync(handle, JSON.stringify({ process: process.pid, host: hostname() }));
      closeSync(handle);
      return {
        ok: true,
        release: () => {
          try {
            unlinkSync(path);
          } catch {
            // It is gone already.
          }
        },
      };
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== "EEXIST") throw error;
    }
    const holder = holderOf(path);
    if (holder === "gone") continue;
    if (holder.isDead) {
      // Another run may be quicker; any other refusal would be one the next time too.
      rmSync(path, { force: true });
      continue;
    }
    if (Date.now() - start > longestWait) return { ok: false, holder: holder.name };
    Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, 40);
  }
}

function holderOf(path: string): "gone" | { readonly name: string; readonly isDead: boolean } {
  let text: string;
  let age: number;
  try {
    const stats = lstatSync(path);
    if (!stats.isFile()) throw new Error(`${lockFile} is not a file`);
    age = Date.now() - stats.mtimeMs;
    text = readFileSync(path, "utf8");
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === "ENOENT") return "gone";
    throw error;
  }
  let found: { process?: unknown; host?: unknown };
  try {
    found = JSON.parse(text) as typeof found;
  } catch {
    // It may be in the middle of being written: only an old one is dead.
    return { name: "another run", isDead: age > 5_000 };
  }
  const pid = Number(found.process);
  const name = `process ${pid} on ${String(found.host)}`;
  if (found.host !== hostname()) return { name, isDead: age > oldest };
  return { name, isDead: !isAlive(pid) };
}

function isAlive(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === "EPERM";
  }
}
