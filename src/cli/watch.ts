import type { Command } from "commander";
import { notices } from "../core/message/notices.js";
import { watchFolder } from "../disk/watch.js";
import type { CommandContext } from "./context.js";
import { CommandError, exitStatus, type ExitStatus } from "./exit.js";

const say = notices("cli/watch", {
  "no-watch": { message: "this system does not watch folders", remedy: "run the command again by hand" },
});

/** Adds --watch. */
export function withWatchOption(command: Command): Command {
  return command.option("--watch", "run again whenever files change, until it is interrupted");
}

/** Runs a job once, and again whenever files of the project change, until the program is interrupted. */
export async function runOnChanges(
  context: CommandContext,
  job: () => ExitStatus | Promise<ExitStatus>,
): Promise<ExitStatus> {
  let last: ExitStatus = exitStatus.inOrder;
  const once = async () => {
    try {
      last = await job();
    } catch (error) {
      // What cannot be read for a moment, as while somebody types, is read again.
      if (!(error instanceof CommandError)) throw error;
      last = error.status;
      for (const { place = "", message, remedy } of error.notices)
        context.say(`${place}${message}\n  → ${remedy}`);
    }
    context.say("Waiting for changes; Ctrl+C ends it.");
  };
  await once();
  let running = Promise.resolve();
  await new Promise<void>((resolve, reject) => {
    const watcher = watchFolder(context.options.cwd, () => {
      running = running.then(once).catch(reject);
    });
    if (!watcher) reject(new CommandError(say("no-watch", {}), exitStatus.trouble));
    for (const signal of ["SIGINT", "SIGTERM"] as const)
      process.once(signal, () => {
        watcher?.close();
        resolve();
      });
  });
  await running;
  return last;
}
