import { watch, type FSWatcher } from "node:fs";

/** Milliseconds that files must be quiet before anybody is told. */
const quiet = 150;

/** What changes without any text changing: packages, version control, and files on their way to their places. */
const others = /(?:^|[\\/])(?:node_modules|\.git)(?:[\\/]|$)|\.fond-(?:new|old|plan|lock)/;

/** Tells when files of a folder have changed and are quiet again; undefined where the system does not watch folders. */
export function watchFolder(folder: string, changed: () => void): Pick<FSWatcher, "close"> | undefined {
  let waiting: ReturnType<typeof setTimeout> | undefined;
  try {
    const watcher = watch(folder, { recursive: true }, (_event, name) => {
      if (name !== null && others.test(name)) return;
      clearTimeout(waiting);
      waiting = setTimeout(changed, quiet);
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
