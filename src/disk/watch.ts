import { watch, type FSWatcher } from "node:fs";
import { sep } from "node:path";

/** Milliseconds that files must be quiet before anybody is told. */
const quiet = 60;

/** What changes without any text changing: packages, version control, and files on their way to their places. */
const others = /(?:^|[\\/])(?:node_modules|\.git)(?:[\\/]|$)|\.fond-(?:new|old|plan|lock)/;

/**
 * Tells which files of a folder have changed, relative to it and with `/`, once they are quiet again; undefined where any may
 * have. Gives undefined where the system does not watch folders.
 */
export function watchFolder(
  folder: string,
  changed: (files: readonly string[] | undefined) => void,
): Pick<FSWatcher, "close"> | undefined {
  const files = new Set<string | null>();
  let waiting: ReturnType<typeof setTimeout> | undefined;
  try {
    const watcher = watch(folder, { recursive: true }, (_event, name) => {
      if (name !== null && others.test(name)) return;
      files.add(name);
      clearTimeout(waiting);
      waiting = setTimeout(() => {
        const named = [...files].flatMap((file) => file?.split(sep).join("/") ?? []);
        const isAny = files.has(null);
        files.clear();
        changed(isAny ? undefined : named);
      }, quiet);
    });
    return {
      close() {
        clearTimeout(waiting);
        watcher.close();
      },
    };
  } catch {
    return undefined;
  }
}
