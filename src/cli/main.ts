#!/usr/bin/env node
import { exitStatus } from "./exit.js";
import { run } from "./run.js";

process.on("SIGINT", () => process.exit(exitStatus.interrupted));
// A reader such as `head` that has seen enough closes the pipe: the rest of the work is for nobody.
for (const stream of [process.stdout, process.stderr])
  stream.on("error", (error: NodeJS.ErrnoException) =>
    process.exit(error.code === "EPIPE" ? exitStatus.inOrder : exitStatus.trouble),
  );
const { stdin, stdout, stderr, env } = process;
process.exitCode = await run(process.argv.slice(2), { stdin, stdout, stderr, env, cwd: process.cwd() });
