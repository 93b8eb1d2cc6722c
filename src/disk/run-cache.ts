import {
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  statSync,
  writeFileSync,
} from "node:fs";
import { homedir } from "node:os";
import { dirname, join, resolve } from "node:path";
import { fileURLToPath } from "node:url";
import type { FileTrial, Waiting } from "../core/extract/extract.js";
import type { FileWork, RunCache } from "../core/project/file-work.js";
import type { UseRecord } from "../core/source/book-code.js";
import type { FileSurvey } from "../core/survey/survey.js";
import { lazily } from "../core/text/lazy.js";
import { digestOf } from "../core/text/digest.js";
import { packageRoot } from "./package-root.js";

/** A cache on disk, and how to keep what this run added. */
export interface DiskCache<Made> extends RunCache<Made> {
  /** Writes what this run asked for or added; the rest is dropped. A cache that cannot be written is no trouble. */
  save(): void;
}

/** What is kept of each kind of work on files. */
interface KeptOf {
  readonly survey: FileSurvey;
  readonly uses: UseRecord;
  readonly extract: FileTrial | Waiting;
}

type Env = Readonly<Record<string, string | undefined>>;

/**
 * The cache of one kind of work on a project, below `XDG_CACHE_HOME` (else `~/.cache`), outside of the project. It is only read if it was
 * written by this build of the program; a damaged one counts as empty.
 */
export function diskCache<Kind extends FileWork["kind"]>(
  root: string,
  kind: Kind,
  env = process.env as Env,
): DiskCache<KeptOf[Kind]> {
  type Made = KeptOf[Kind];
  const home = env["XDG_CACHE_HOME"] ?? join(homedir(), ".cache");
  const file = join(home, "fond-ledger", `${digestOf(resolve(root))}-${kind}.json`);
  const build = lazily(buildStamp);
  // A run that asks for nothing reads nothing.
  const before = lazily(() => readEntries<Made>(file, build()));
  const now = new Map<string, Made>();
  let changed = false;
  return {
    get(id) {
      const found = before().get(id);
      if (found) now.set(id, found);
      return found;
    },
    set(id, made) {
      if (!before().has(id)) changed = true;
      now.set(id, made);
    },
    save() {
      if (!changed) return;
      try {
        mkdirSync(dirname(file), { recursive: true });
        const waiting = `${file}.${process.pid}`;
        writeFileSync(waiting, JSON.stringify({ build: build(), entries: [...now] }));
        renameSync(waiting, file);
      } catch {
        // Without a cache the next run is slower, nothing more.
      }
    },
  };
}

function readEntries<Made>(file: string, build: string): ReadonlyMap<string, Made> {
  try {
    const held = JSON.parse(readFileSync(file, "utf8")) as {
      build?: string;
      entries?: [string, Made][];
    };
    return held.build === build && Array.isArray(held.entries)
      ? new Map(held.entries)
      : new Map<string, Made>();
  } catch {
    return new Map();
  }
}

/** What changes with every build and every parser that is installed, so that a new judgment never reads an old one's cache. */
function buildStamp(): string {
  const root = packageRoot();
  const parsers = ["oxc-parser", "parse5", "web-tree-sitter", "@vscode/tree-sitter-wasm"].map((name) => {
    const manifest = findInstalled(root, name);
    return `${name} ${manifest === undefined ? "" : readFileSync(manifest, "utf8")}`;
  });
  return digestOf([process.version, codeStamp(root), ...parsers].join("\n"));
}

/** What the code of this program is: the bundle's own digest, or the sizes and times of the files that it would be made of. */
function codeStamp(root: string): string {
  const here = fileURLToPath(import.meta.url);
  const bundled = join(root, "dist", "bin");
  if (here.startsWith(bundled)) return readFileSync(join(bundled, "BUILD.txt"), "utf8");
  const folder = join(root, "dist", "src");
  return readdirSync(folder, { recursive: true, encoding: "utf8" })
    .filter((file) => file.endsWith(".js"))
    .sort()
    .map((file) => {
      const { mtimeMs, size } = statSync(join(folder, file));
      return `${file} ${size} ${mtimeMs}`;
    })
    .join("\n");
}

/** The manifest of a package as the module loader would find it from a folder. */
function findInstalled(from: string, name: string): string | undefined {
  for (let folder = from; ; folder = dirname(folder)) {
    const manifest = join(folder, "node_modules", name, "package.json");
    if (existsSync(manifest)) return manifest;
    if (dirname(folder) === folder) return undefined;
  }
}
