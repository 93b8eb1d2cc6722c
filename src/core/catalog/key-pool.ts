import { ownText } from "../text/own-text.js";

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

  /** The key at a place among all; an empty text for none. */
  keyOfPlace(place: number): string {
    return this.keys[place] ?? "";
  }

  /** The place of the key of a name that was cut out of its text already. */
  placeOfName(prefix: string, name: string): number {
    const { at } = this;
    if (this.names[at] !== name || this.prefixes[at] !== prefix) return this.place(prefix, name);
    this.at = at + 1;
    return at;
  }

  /** The key that is expected next; undefined where none is. */
  get expected(): string | undefined {
    return this.keys[this.at];
  }

  /** Says that the key that was expected came, and gives its place. */
  takeExpected(): number {
    return this.at++;
  }

  /** The key that is expected next, where a text has it at `start`. */
  expectedAt(text: string, start: number): string | undefined {
    const key = this.keys[this.at];
    return key !== undefined && text.startsWith(key, start) ? key : undefined;
  }

  /** The place of the key of a name below a prefix. */
  place(prefix: string, name: string): number {
    const key = prefix + name;
    const place = this.places.get(key);
    if (place !== undefined) {
      this.at = place + 1;
      return place;
    }
    const { length } = this.keys;
    this.places.set(key, length);
    // What only some catalogs have is not waited for in the others.
    if (this.at === length) this.at++;
    this.prefixes.push(prefix);
    const ownName = ownText(name);
    this.names.push(ownName);
    this.keys.push(prefix === "" ? ownName : key);
    return length;
  }
}

/** An empty list that was one of texts from the start: one that becomes so later makes the engine compile its readers anew. */
function emptyTexts(): string[] {
  const list = [""];
  list.pop();
  return list;
}
