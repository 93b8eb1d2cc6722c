import { parentPort } from "node:worker_threads";
import type { BookConfig } from "../core/config/schema.js";
import { workOn, type DoneHere, type FileWork } from "../core/project/file-work.js";
import { usesOf } from "../core/project/lint-project.js";
import { openProject, type Project } from "../core/project/project.js";
import { surveyOf } from "../core/project/survey-project.js";
import { prepareReaders } from "../core/source/read.js";
import { diskFiles } from "./disk-files.js";
import type { ThreadTask } from "./threads.js";

/** What was made ready for the last portion: the next is nearly always of the same kind. */
let ready: { readonly by: string; readonly project: Project; readonly one: DoneHere<unknown> } | undefined;

/** Does a portion of a book's files. The project is opened once a thread. */
async function doTask({ root, configFile, book, files, work }: ThreadTask): Promise<readonly unknown[]> {
  const by = JSON.stringify([root, configFile, book, work]);
  if (ready?.by !== by) {
    const opened = openProject(diskFiles(root), configFile);
    if (!opened.ok) throw new Error(`${configFile} changed while it was read`);
    const { project } = opened;
    const config = project.config.books.find(({ name }) => name === book);
    if (!config) throw new Error(`there is no book ${book}`);
    ready = { by, project, one: await doneIn(project, config, work) };
  }
  const { project, one } = ready;
  await prepareReaders(files, project.files);
  return files.map((file) => workOn(project, file, one));
}

async function doneIn(project: Project, config: BookConfig, work: FileWork): Promise<DoneHere<unknown>> {
  switch (work.kind) {
    case "survey":
      return surveyOf(project, config, work.reading);
    case "uses":
      return usesOf(project, config);
    case "extract": {
      const { trialOf } = await import("../core/project/extract-project.js");
      return trialOf(project, config, work.reading);
    }
  }
}

parentPort?.on(
  "message",
  (task: ThreadTask) => void doTask(task).then((found) => parentPort?.postMessage(found)),
);
