import type { FileQuery, FileText, TextEncoding, WritableFiles } from "./files.js";

/**
 * Files that change while they are looked at: each is read once, until it is said that it has changed. A text that is open in
 * an editor and not saved stands for its file.
 */
export class LiveFiles implements WritableFiles {
  private below: WritableFiles;
  private readonly texts = new Map<string, FileText>();
  private readonly lists = new Map<string, readonly string[]>();
  private readonly open = new Map<string, string>();

  /** `make` gives the files as they are now, anew each time. */
  constructor(private readonly make: () => WritableFiles) {
    this.below = make();
  }

  /** Says that files have changed, or are new or gone; without a list any may be. */
  changed(paths?: Iterable<string>): void {
    if (!paths) {
      this.texts.clear();
      this.forgetLists();
      return;
    }
    for (const path of paths) {
      const before = this.texts.get(path);
      const now = this.below.read(path);
      this.texts.set(path, now);
      // One that was never read may be new, or a folder, or say what is listed at all.
      if (before?.ok !== true || !now.ok) {
        this.forgetLists();
        for (const other of this.texts.keys()) if (other.startsWith(`${path}/`)) this.texts.delete(other);
      }
    }
  }

  /** Takes the text of a file that is open in an editor; undefined where it was closed. */
  put(path: string, text: string | undefined): void {
    if (text === undefined) this.open.delete(path);
    else this.open.set(path, text);
  }

  read(path: string): FileText {
    const text = this.open.get(path);
    const saved = this.saved(path);
    if (text === undefined) return saved;
    return saved.ok ? { ...saved, text } : { ok: true, text, bom: false };
  }

  list(query: FileQuery): readonly string[] {
    const id = JSON.stringify(query);
    const known = this.lists.get(id) ?? this.below.list(query);
    this.lists.set(id, known);
    return known;
  }

  write(path: string, text: string, encoding?: TextEncoding): void {
    this.below.write(path, text, encoding);
    this.changed([path]);
  }

  rename(from: string, to: string): void {
    this.below.rename(from, to);
    this.changed([from, to]);
  }

  remove(path: string): void {
    this.below.remove(path);
    this.changed([path]);
  }

  exists(path: string): boolean {
    return this.below.exists(path);
  }

  lock() {
    return this.below.lock?.() ?? ({ ok: true, release: () => undefined } as const);
  }

  private saved(path: string): FileText {
    const known = this.texts.get(path) ?? this.below.read(path);
    this.texts.set(path, known);
    return known;
  }

  private forgetLists(): void {
    this.lists.clear();
    this.below = this.make();
  }
}
