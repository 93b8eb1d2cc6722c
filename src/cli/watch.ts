import type { Command } from "commander";
import { LiveFiles } from "../core/files/live-files.js";
import { notices } from "../core/message/notices.js";
import { LiveProject } from "../core/project/live-project.js";
import { diskFiles } from "../disk/disk-files.js";
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

/**
 * Runs a job once, and again whenever files of the project change, until the program is interrupted. What hangs
 * on files that are as they were is not worked out again.
 */
export async function runOnChanges(
  once: CommandContext,
  job: (context: CommandContext) => ExitStatus | Promise<ExitStatus>,
): Promise<ExitStatus> {
  const { cwd, config } = once.options;
  const live = new LiveProject(new LiveFiles(() => diskFiles(cwd)), config);
  const context = { ...once, files: live.files, live };
  let last: ExitStatus = exitStatus.inOrder;
  const run = async () => {
    try {
      last = await job(context);
    } catch (error) {
      // What cannot be read for a moment, as while somebody types, is read again.
      if (!(error instanceof CommandError)) throw error;
      last = error.status;
      for (const { place = "", message, remedy } of error.notices)
        context.say(`${place}${message}\n  → ${remedy}`);
    }
    context.say("Waiting for changes; Ctrl+C ends it.");
  };
  let running = Promise.resolve();
  await new Promise<void>((resolve, reject) => {
    // Before the first run: what changes while that goes on is looked at behind it.
    const watcher = watchFolder(cwd, (files) => {
      running = running
        .then(() => {
          live.changed(files);
          return run();
        })
        .catch(reject);
    });
    if (!watcher) reject(new CommandError(say("no-watch", {}), exitStatus.trouble));
    running = running.then(run).catch(reject);
    for (const signal of ["SIGINT", "SIGTERM"] as const)
      process.once(signal, () => {
        watcher?.close();
        resolve();
      });
  });
  await running;
  return last;
}
