/**
 * The keys of the catalogs that are read one after the other. Other locales repeat those of the first, mostly in the same
 * order: a key that is expected where it comes is taken from here, and is one string in all catalogs. That saves making it,
 * and hashing and comparing it wherever keys are looked up.
 */
export class KeyPool {
  private readonly prefixes = emptyTexts();
  private readonly names = emptyTexts();
  private readonly keys = emptyTexts();
  private readonly places = new Map<string, number>();
  private readonly starts = new Map<string, string>();
  private at = 0;

  /** Begins another catalog. */
  start(): this {
    this.at = 0;
    return this;
  }

  /** How many keys there are. */
  get size(): number {
    return this.keys.length;
  }

  /** The place of a key among all, in the order in which they were first met. */
  placeOf(key: string): number | undefined {
    return this.places.get(key);
  }

  /** The one string for what stands before the names of a group. */
  prefix(written: string): string {
    const known = this.starts.get(written);
    if (known !== undefined) return known;
    this.starts.set(written, written);
    return written;
  }

  /** The key of a name that was cut out of its text already. */
  keyOf(prefix: string, name: string): string {
    const { at } = this;
    if (this.names[at] !== name || this.prefixes[at] !== prefix) return this.key(prefix, name);
    this.at = at + 1;
    return this.keys[at] ?? "";
  }

  /** The key of a name that stands in a text from `start` to `end` as it is. */
  keyAt(prefix: string, text: string, start: number, end: number): string {
    const { at } = this;
    const name = this.names[at];
    if (name?.length === end - start && this.prefixes[at] === prefix && text.startsWith(name, start)) {
      this.at = at + 1;
      return this.keys[at] ?? "";
    }
    return this.key(prefix, text.slice(start, end));
  }

  /** The key that is expected next, where a text has it at `start`; `take` says that it was it. */
  expectedAt(text: string, start: number): string | undefined {
    const key = this.keys[this.at];
    return key !== undefined && text.startsWith(key, start) ? key : undefined;
  }

  take(): void {
    this.at++;
  }

  /** The key of a name below a prefix. */
  key(prefix: string, name: string): string {
    const key = prefix + name;
    const place = this.places.get(key);
    if (place === undefined) {
      this.places.set(key, this.keys.length);
      // What only some catalogs have is not waited for in the others.
      if (this.at === this.keys.length) this.at++;
      this.prefixes.push(prefix);
      this.names.push(name);
      this.keys.push(key);
      return key;
    }
    this.at = place + 1;
    return this.keys[place] ?? key;
  }
}

/** An empty list that was one of texts from the start: one that becomes so later makes the engine compile its readers anew. */
function emptyTexts(): string[] {
  const list = [""];
  list.pop();
  return list;
}
