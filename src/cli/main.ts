#!/usr/bin/env node
import { exitStatus } from "./exit.js";
import { answersAlone } from "./program.js";

// SIGINT keeps its default, which ends the process at once, in the middle of long work too; shells call that status 130.
// A handler would wait until the work is done. What was half written is finished by the next run that writes.
// A reader such as `head` that has seen enough closes the pipe: the rest of the work is for nobody.
for (const stream of [process.stdout, process.stderr])
  stream.on("error", (error: NodeJS.ErrnoException) =>
    process.exit(error.code === "EPIPE" ? exitStatus.inOrder : exitStatus.trouble),
  );
const { stdin, stdout, stderr, env } = process;
const args = process.argv.slice(2);
const io = { stdin, stdout, stderr, env, cwd: process.cwd() };
if (!answersAlone(args, io)) process.exitCode = await (await import("./run.js")).run(args, io);
