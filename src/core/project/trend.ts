import type { Files } from "../files/files.js";
import { balanceProject, openProject, type Scope } from "./project.js";

/** A state of the project that can be looked at: a commit or a tag. */
export interface Revision {
  readonly name: string;
  /** The day of the commit, as YYYY-MM-DD. */
  readonly date: string;
  readonly files: Files;
}

/** The shares at one revision. */
export interface TrendPoint {
  readonly revision: string;
  readonly date: string;
  readonly books: readonly {
    readonly name: string;
    readonly keys: number;
    readonly locales: readonly { readonly locale: string; readonly share: number }[];
  }[];
}

/** How far each locale was at some revisions, in their order. Those without a readable configuration are left out. */
export function trendOf(revisions: Iterable<Revision>, configFile: string, scope: Scope = {}): TrendPoint[] {
  const points: TrendPoint[] = [];
  for (const { name, date, files } of revisions) {
    const opened = openProject(files, configFile);
    if (!opened.ok) continue;
    const books = balanceProject(opened.project, scope).map((book) => ({
      name: book.name,
      keys: book.keys,
      locales: book.locales.map(({ locale, share }) => ({ locale, share })),
    }));
    points.push({ revision: name, date, books });
  }
  return points;
}
