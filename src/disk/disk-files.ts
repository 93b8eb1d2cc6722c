import { takeLock } from "./lock.js";
import {
  closeSync,
  existsSync,
  lstatSync,
  fsyncSync,
  mkdirSync,
  openSync,
  readFileSync,
  realpathSync,
  renameSync,
  statSync,
  chmodSync,
  unlinkSync,
  writeSync,
} from "node:fs";
import { createRequire } from "node:module";
import { dirname, join, posix, relative, sep } from "node:path";
import type { default as ignorePackage, Ignore } from "ignore";
import { globSync } from "tinyglobby";
import { lazily } from "../core/text/lazy.js";
import { decodeText, type FileQuery, type FileText, type WritableFiles } from "../core/files/files.js";

const require = createRequire(import.meta.url);
const ignore = lazily(() => require("ignore") as typeof ignorePackage);

/** What no query looks into unless a pattern names it outright. */
const neverListed = ["**/node_modules/**", "**/.git/**"];

/** The files below a folder on disk. `root` is absolute or relative to the process's working folder. */
export function diskFiles(root: string): WritableFiles {
  const absolute = (path: string) => join(root, path);
  let ignoreRules: ((path: string) => boolean) | undefined;
  return {
    read(path): FileText {
      try {
        const target = absolute(path);
        if (lstatSync(target).isSymbolicLink() && !isInside(root, target))
          return {
            ok: false,
            trouble: "unreadable",
            detail: "it is a symbolic link to a place outside the project",
          };
        return decodeText(readFileSync(target), path);
      } catch (error) {
        const code = (error as NodeJS.ErrnoException).code;
        if (code === "ENOENT" || code === "ENOTDIR")
          return { ok: false, trouble: "absent", detail: "there is no such file" };
        return { ok: false, trouble: "unreadable", detail: reasonOf(error) };
      }
    },
    list(query: FileQuery) {
      if (query.patterns.length === 0) return [];
      const found = globSync([...query.patterns], {
        cwd: root,
        ignore: [...neverListed, ...(query.ignore ?? [])],
        followSymbolicLinks: false,
        expandDirectories: false,
      }).map((path) => path.split(sep).join("/"));
      found.sort();
      if (!query.respectIgnoreFiles) return found;
      ignoreRules ??= readIgnoreFiles(root);
      const ignored = ignoreRules;
      return found.filter((path) => !ignored(path));
    },
    write(path, text, encoding) {
      const target = absolute(path);
      mkdirSync(dirname(target), { recursive: true });
      const handle = openSync(target, "w");
      try {
        writeSync(handle, encoding === "latin1" ? Buffer.from(text, "latin1") : Buffer.from(text, "utf8"));
        fsyncSync(handle);
      } finally {
        closeSync(handle);
      }
    },
    rename(from, to) {
      // A link stays a link: what it leads to is replaced.
      const target = existsSync(absolute(to)) ? realpathSync(absolute(to)) : absolute(to);
      if (existsSync(target)) {
        const { mode } = statSync(target);
        if ((mode & 0o222) === 0) throw new Error("the file is read-only");
        chmodSync(absolute(from), mode);
      }
      mkdirSync(dirname(target), { recursive: true });
      renameSync(absolute(from), target);
    },
    remove: (path) => unlinkSync(absolute(path)),
    exists: (path) => existsSync(absolute(path)),
    lock: () => takeLock(root),
  };
}

/** Whether what a link leads to lies below a folder. */
function isInside(root: string, link: string): boolean {
  const way = relative(realpathSync(root), realpathSync(link));
  return way !== ".." && !way.startsWith(`..${sep}`);
}

/** The system's reason in words, without its code and path. */
export function reasonOf(error: unknown): string {
  const { code, message } = error as NodeJS.ErrnoException;
  if (code === "EACCES" || code === "EPERM") return "permission is denied";
  if (code === "ENOENT" || code === "ENOTDIR") return "there is no such file";
  if (code === "EISDIR") return "it is a folder";
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
      rules: ignore()().add(readFileSync(join(root, file), "utf8")),
    }))
    .sort((a, b) => b.folder.length - a.folder.length);
  return (path) => rules.some(({ folder, rules }) => isIgnored(rules, folder, path));
}

function isIgnored(rules: Ignore, folder: string, path: string): boolean {
  const inside = folder === "." ? path : relative(folder, path).split(sep).join("/");
  return !inside.startsWith("..") && rules.ignores(inside);
}
