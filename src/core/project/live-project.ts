import { configFileNames } from "../config/load.js";
import type { LiveFiles } from "../files/live-files.js";
import { keeper } from "../text/kept.js";
import { lookedAtAgain, openProject, type OpenResult } from "./project.js";

/** A project whose files change while it is looked at. What was made of files that are as they were is not made again. */
export class LiveProject {
  private readonly keep = keeper();
  private opened: OpenResult | undefined;
  private day = "";

  constructor(
    readonly files: LiveFiles,
    private readonly configFile?: string,
  ) {}

  /** Says that files have changed, or are new or gone; without a list any may be. */
  changed(paths?: readonly string[]): void {
    this.files.changed(paths);
    if (!paths || paths.some((path) => this.isOfConfiguration(path))) this.opened = undefined;
  }

  /** Takes the text of a file that is open in an editor and not saved; undefined where it was closed. */
  put(path: string, text: string | undefined): void {
    this.files.put(path, text);
    if (this.isOfConfiguration(path)) this.opened = undefined;
  }

  /** The project as its files are now. `today` is a day as YYYY-MM-DD. */
  open(today: string = new Date().toISOString().slice(0, 10)): OpenResult {
    if (this.opened?.ok && this.day === today)
      this.opened = { ...this.opened, project: lookedAtAgain(this.opened.project) };
    else this.opened = openProject(this.files, this.configFile, today, this.keep);
    this.day = today;
    return this.opened;
  }

  private isOfConfiguration(path: string): boolean {
    const names: readonly string[] = configFileNames;
    if (path === this.configFile || names.includes(path) || !this.opened?.ok) return true;
    const { config, configFile } = this.opened.project;
    return path === configFile || path === config.waivers || path === config.glossary;
  }
}
