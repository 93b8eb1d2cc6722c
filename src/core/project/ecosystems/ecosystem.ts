/** A kind of project, with what is usual in it where a project has no catalogs yet. */
export interface Ecosystem {
  readonly name: string;
  /** What shows it, as a sentence without its full stop. */
  readonly shown: string;
  /** Globs that each have to find a file. */
  readonly marks: readonly string[];
  /** The case of names in such projects, where keys follow it. */
  readonly letterCase?: "snake";
  /** The settings of a new book; `emit` only where every such project has the lookup by itself. */
  readonly book: EcosystemBook;
}

export interface EcosystemBook {
  readonly files: string;
  readonly [setting: string]: unknown;
  readonly emit?: object;
}
