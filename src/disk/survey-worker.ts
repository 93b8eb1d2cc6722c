import { parentPort } from "node:worker_threads";
import { openProject, surveyOne, useOf, type Project } from "../core/project/project.js";
import type { UnreadSource, UseRecord } from "../core/source/book-code.js";
import { prepareReaders } from "../core/source/read.js";
import type { FileSurvey } from "../core/survey/survey.js";
import { diskFiles } from "./disk-files.js";
import type { ThreadTask } from "./survey-workers.js";

let open: { readonly root: string; readonly project: Project } | undefined;

/** Surveys a portion of a book's files, or reads what they ask for. The project is opened once a thread. */
async function doTask({
  root,
  configFile,
  book,
  files,
  survey,
}: ThreadTask): Promise<(FileSurvey | UseRecord | UnreadSource)[]> {
  if (open?.root !== root) {
    const opened = openProject(diskFiles(root), configFile);
    if (!opened.ok) throw new Error(`${configFile} changed while it was read`);
    open = { root, project: opened.project };
  }
  const { project } = open;
  const config = project.config.books.find(({ name }) => name === book);
  if (!config) throw new Error(`there is no book ${book}`);
  await prepareReaders(files, project.files);
  return files.map((file) =>
    survey ? surveyOne(project, config, file, survey) : useOf(project, config, file),
  );
}

parentPort?.on(
  "message",
  (task: ThreadTask) => void doTask(task).then((found) => parentPort?.postMessage(found)),
);
