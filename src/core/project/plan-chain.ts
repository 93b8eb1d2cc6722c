import { overlayFiles } from "../files/overlay-files.js";
import { makePlan, type FileChange, type Plan, type PlanNote } from "../plan/plan.js";
import { openProject, type Project } from "./project.js";

/** Plans that are made one upon another, as one plan in the end. */
export class PlanChain {
  private readonly texts = new Map<string, string | undefined>();
  private readonly changed = new Map<string, FileChange>();
  private readonly notes: PlanNote[] = [];
  private readonly summary: Record<string, number> = {};
  private current: Project;

  constructor(private readonly first: Project) {
    this.current = first;
  }

  /** The project as it is after all plans so far. */
  get project(): Project {
    return this.current;
  }

  add({ changes, notes, summary }: Plan): void {
    this.notes.push(...notes);
    for (const [what, count] of Object.entries(summary))
      this.summary[what] = (this.summary[what] ?? 0) + count;
    for (const change of changes) {
      const earlier = this.changed.get(change.file);
      this.texts.set(change.file, change.after);
      this.changed.set(change.file, { ...change, before: earlier ? earlier.before : change.before });
    }
    if (changes.length === 0) return;
    const opened = openProject(overlayFiles(this.first.files, this.texts), this.first.configFile);
    if (opened.ok) this.current = opened.project;
  }

  /** All plans as one. */
  plan(): Plan {
    return makePlan([...this.changed.values()], this.summary, this.notes);
  }
}
