import { isMainThread, parentPort } from "node:worker_threads";
import { openProject, surveyOne, type Project } from "../core/project/project.js";
import type { UnreadSource } from "../core/source/book-code.js";
import { prepareReaders } from "../core/source/read.js";
import type { FileSurvey } from "../core/survey/survey.js";
import { diskFiles } from "./disk-files.js";
import type { SurveyTask } from "./survey-workers.js";

let open: { readonly root: string; readonly project: Project } | undefined;

/** Surveys a portion of a book's files. The project is opened once a thread. */
export async function surveyTask({
  root,
  configFile,
  book,
  files,
  options,
}: SurveyTask): Promise<(FileSurvey | UnreadSource)[]> {
  if (open?.root !== root) {
    const opened = openProject(diskFiles(root), configFile);
    if (!opened.ok) throw new Error(`${configFile} changed while the survey ran`);
    open = { root, project: opened.project };
  }
  const { project } = open;
  const config = project.config.books.find(({ name }) => name === book);
  if (!config) throw new Error(`there is no book ${book}`);
  await prepareReaders(files, project.files);
  return files.map((file) => surveyOne(project, config, file, options));
}

if (!isMainThread)
  parentPort?.on(
    "message",
    (task: SurveyTask) => void surveyTask(task).then((found) => parentPort?.postMessage(found)),
  );
