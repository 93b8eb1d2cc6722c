import { takeLock } from "./lock.js";
import {
  chmodSync,
  closeSync,
  constants,
  existsSync,
  fstatSync,
  fsyncSync,
  lstatSync,
  mkdirSync,
  openSync,
  readFileSync,
  realpathSync,
  renameSync,
  rmSync,
  statSync,
  unlinkSync,
  writeFileSync,
  type Stats,
} from "node:fs";
import { createRequire } from "node:module";
import { basename, dirname, isAbsolute, join, posix, relative, resolve, sep } from "node:path";
import type { default as ignorePackage, Ignore } from "ignore";
import { globSync } from "tinyglobby";
import { lazily } from "../core/text/lazy.js";
import { decodeText, type FileQuery, type FileText, type WritableFiles } from "../core/files/files.js";

const require = createRequire(import.meta.url);
const ignore = lazily(() => require("ignore") as typeof ignorePackage);

/** What no query looks into unless a pattern names it outright. */
const neverListed = ["**/node_modules/**", "**/.git/**"];

/**
 * The files below a folder on disk. `root` is absolute or relative to the process's working folder. Nothing outside of the
 * folder is read or written, whatever symbolic links or `..` lead to; nor is anything written below `.git`.
 */
export function diskFiles(root: string): WritableFiles {
  const absolute = (path: string) => join(root, path);
  const place = placesBelow(root);
  let ignoreRules: ((path: string) => boolean) | undefined;
  // Several parts of a run ask for the same files; what is written may be among them.
  const lists = new Map<string, readonly string[]>();
  return {
    read(path): FileText {
      try {
        return decodeText(readRegularFile(place.toRead(path)), path);
      } catch (error) {
        if (isAbsence(error)) return { ok: false, trouble: "absent", detail: "there is no such file" };
        return { ok: false, trouble: "unreadable", detail: reasonOf(error) };
      }
    },
    list(query: FileQuery) {
      if (query.patterns.length === 0) return [];
      const id = JSON.stringify(query);
      const known = lists.get(id);
      if (known) return known;
      const found = globSync([...query.patterns], {
        cwd: root,
        ignore: [...neverListed, ...(query.ignore ?? [])],
        followSymbolicLinks: false,
        expandDirectories: false,
      }).map((path) => path.split(sep).join("/"));
      found.sort();
      const ignored = query.respectIgnoreFiles ? (ignoreRules ??= readIgnoreFiles(root)) : undefined;
      const listed = ignored ? found.filter((path) => !ignored(path)) : found;
      lists.set(id, listed);
      return listed;
    },
    write(path, text, encoding) {
      lists.clear();
      const target = place.toWrite(path);
      mkdirSync(dirname(target), { recursive: true });
      // What waits there from an interrupted run, or was laid there as a link, is not written through.
      rmSync(target, { force: true });
      const handle = openSync(target, "wx");
      try {
        writeFileSync(handle, text, encoding === "latin1" ? "latin1" : "utf8");
        fsyncSync(handle);
      } finally {
        closeSync(handle);
      }
    },
    rename(from, to) {
      lists.clear();
      // A link stays a link: what it leads to is replaced.
      const target = place.toReplace(to);
      const stats = statSync(target, { throwIfNoEntry: false });
      if (stats) {
        mustBeRegular(stats);
        if ((stats.mode & 0o222) === 0) throw new Error("the file is read-only");
        chmodSync(place.toWrite(from), stats.mode);
      }
      mkdirSync(dirname(target), { recursive: true });
      renameSync(place.toWrite(from), target);
    },
    remove(path) {
      lists.clear();
      unlinkSync(place.toWrite(path));
    },
    exists: (path) => existsSync(absolute(path)),
    lock: () => takeLock(root),
  };
}

/** A path that may not be used, in words for a person. */
class RefusedPath extends Error {}

/** Where paths of a project really are. Each throws where that is not inside the project's folder. */
function placesBelow(root: string) {
  let top: string | undefined;
  const folders = new Map<string, string>();
  const mustBeInside = (real: string, wasLink: boolean) => {
    top ??= realpathSync(root);
    const way = relative(top, real);
    if (way === ".." || way.startsWith(`..${sep}`) || isAbsolute(way))
      throw new RefusedPath(
        wasLink ? "it is a symbolic link to a place outside the project" : "it is outside the project",
      );
    return real;
  };
  /** The real path of a folder, or what it will be where it has yet to be made. */
  const folderOf = (folder: string): string => {
    const known = folders.get(folder);
    if (known !== undefined) return known;
    let real: string;
    try {
      real = realpathSync(folder);
    } catch (error) {
      if (!isAbsence(error) || dirname(folder) === folder) throw error;
      if (lstatSync(folder, { throwIfNoEntry: false }))
        throw new RefusedPath("it is below a symbolic link that leads nowhere");
      return join(folderOf(dirname(folder)), basename(folder));
    }
    folders.set(folder, real);
    return real;
  };
  const below = (path: string) => {
    const full = join(root, path);
    const folder = folderOf(dirname(full));
    return mustBeInside(join(folder, basename(full)), folder !== resolve(dirname(full)));
  };
  const toWrite = (path: string) => {
    const real = below(path);
    if (real.split(sep).includes(".git")) throw new RefusedPath("files of Git itself are never written");
    return real;
  };
  return {
    toRead(path: string): string {
      const real = below(path);
      return lstatSync(real).isSymbolicLink() ? mustBeInside(realpathSync(real), true) : real;
    },
    /** A place for a file of our own, which is never a link. */
    toWrite,
    /** The file that a new text replaces: where a link leads to. */
    toReplace(path: string): string {
      const real = toWrite(path);
      if (!lstatSync(real, { throwIfNoEntry: false })?.isSymbolicLink()) return real;
      const target = mustBeInside(realpathSync(real), true);
      if (target.split(sep).includes(".git")) throw new RefusedPath("files of Git itself are never written");
      return target;
    },
  };
}

/** The bytes of a file; anything else is not opened, as a pipe would wait for a writer. */
function readRegularFile(path: string): Buffer {
  mustBeRegular(statSync(path));
  const handle = openSync(path, constants.O_RDONLY | constants.O_NONBLOCK);
  try {
    mustBeRegular(fstatSync(handle));
    return readFileSync(handle);
  } finally {
    closeSync(handle);
  }
}

function mustBeRegular(stats: Stats): void {
  if (stats.isFile()) return;
  const kind = stats.isDirectory()
    ? "a folder"
    : stats.isFIFO()
      ? "a pipe"
      : stats.isSocket()
        ? "a socket"
        : "a device";
  throw new RefusedPath(`it is ${kind}, not a file`);
}

function isAbsence(error: unknown): boolean {
  const { code } = error as NodeJS.ErrnoException;
  return code === "ENOENT" || code === "ENOTDIR";
}

/** The system's reason in words, without its code and path. */
export function reasonOf(error: unknown): string {
  const { code, message } = error as NodeJS.ErrnoException;
  if (code === "EACCES" || code === "EPERM") return "permission is denied";
  if (code === "ENOENT" || code === "ENOTDIR") return "there is no such file";
  if (code === "EISDIR") return "it is a folder, not a file";
  if (code === "ELOOP") return "it is a symbolic link that leads in circles";
  if (code === "ENXIO") return "it is a pipe, a socket or a device, not a file";
  if (code === "EROFS") return "the file system is read-only";
  if (code === "ENOSPC") return "the disk is full";
  return message;
}

/** Every `.gitignore` below the root as one test; each holds for its own folder, the nearest one decides. */
function readIgnoreFiles(root: string): (path: string) => boolean {
  const rules = globSync("**/.gitignore", {
    cwd: root,
    dot: true,
    ignore: neverListed,
    followSymbolicLinks: false,
  })
    .map((file) => ({
      folder: posix.dirname(file.split(sep).join("/")),
      rules: ignore()().add(rulesIn(join(root, file))),
    }))
    .sort((a, b) => b.folder.length - a.folder.length);
  return (path) => rules.some(({ folder, rules }) => isIgnored(rules, folder, path));
}

/** The text of a `.gitignore`; one that cannot be read excludes nothing. */
function rulesIn(path: string): string {
  try {
    return readRegularFile(path).toString("utf8");
  } catch {
    return "";
  }
}

function isIgnored(rules: Ignore, folder: string, path: string): boolean {
  const inside = folder === "." ? path : relative(folder, path).split(sep).join("/");
  return !inside.startsWith("..") && rules.ignores(inside);
}
