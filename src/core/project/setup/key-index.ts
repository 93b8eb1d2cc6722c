/** What a string of the code is as a key of a book. */
export interface KeyMatch {
  /** Its namespace, where the string itself has it. */
  readonly namespace: string | undefined;
  /** What the string has between the parts of the key, and between namespace and key, where that shows. */
  readonly parts: string | undefined;
  readonly between: string | undefined;
  /** Whether it can hardly be a key by chance: it is more than a word, and names its namespace where there are some. */
  readonly isTelling: boolean;
  /** The namespaces that it may be from, where it does not name one and is more than a word. */
  readonly homes: readonly string[];
}

/** What may stand between namespace and key. */
const betweenNamespace = ["::", ":", "|", "/", "#", "."];
/** What may stand between the parts of a key besides full stops: these, which are parts of words elsewhere, or any other sign. */
const wordMarks = ["-", "_"];
const otherMarks = /[^\p{L}\p{N}\s._-]{1,2}/gu;

/** What the keys of a plural's forms share, where another form stands beside a key. */
export function pluralBase(key: string, all: ReadonlySet<string>): string | undefined {
  const [, base, mark, form] = /^(.+)([_.])(zero|one|two|few|many|other|plural)$/.exec(key) ?? [];
  if (base === undefined || mark === undefined) return undefined;
  if (form === "plural") return all.has(base) ? base : undefined;
  return all.has(`${base}${mark}other`) ? base : undefined;
}

/** The keys of a book, as code may write them. */
export class KeyIndex {
  private readonly all = new Set<string>();
  private readonly groups = new Set<string>();

  /** Keys by namespace, their parts joined by full stops; the empty namespace is that of books without. */
  constructor(private readonly keys: ReadonlyMap<string, ReadonlySet<string>>) {
    for (const set of keys.values())
      for (const written of set) {
        // A plural whose forms have keys of their own is asked for by what they share.
        const base = pluralBase(written, set);
        if (base !== undefined) this.all.add(base);
        const key = base ?? written;
        this.all.add(written);
        for (let at = key.indexOf("."); at > 0; at = key.indexOf(".", at + 1))
          this.groups.add(key.slice(0, at));
      }
  }

  get size(): number {
    return this.all.size;
  }

  get hasNamespaces(): boolean {
    return [...this.keys.keys()].some((name) => name !== "");
  }

  /** Whether nearly all keys are words that may stand in code for anything. */
  get isCommon(): boolean {
    const plain = [...this.all].filter((key) => /^[a-zA-Z]+$/.test(key)).length;
    return plain * 2 > this.all.size;
  }

  /** The key that a string is, whole or behind a namespace; undefined for other strings. */
  match(text: string): KeyMatch | undefined {
    if (text === "" || text.length > 500) return undefined;
    const key = this.partsIn(this.all, text);
    if (key) {
      const isTelling = /[^\p{L}\p{N}_-]/u.test(text) || (!this.hasNamespaces && /[_-]/.test(text));
      const homes = isTelling && this.hasNamespaces ? this.namespacesOf(text) : [];
      return { namespace: undefined, between: undefined, isTelling, homes, ...key };
    }
    if (!this.hasNamespaces) return this.prefixed(text);
    for (const between of betweenNamespace) {
      const at = text.indexOf(between);
      const own = at > 0 ? this.keys.get(text.slice(0, at)) : undefined;
      const found = own && this.partsIn(own, text.slice(at + between.length));
      if (found) return { namespace: text.slice(0, at), between, isTelling: true, homes: [], ...found };
    }
    return undefined;
  }

  /** A key behind a name that no catalog has, which stands for the catalog as a whole. */
  private prefixed(text: string): KeyMatch | undefined {
    const [, name, between, rest] = /^([\w-]+)(::|[:|])(.+)$/.exec(text) ?? [];
    const found = rest === undefined ? undefined : this.partsIn(this.all, rest);
    return (
      found && {
        namespace: name,
        between,
        isTelling: true,
        homes: name === undefined ? [] : [name],
        ...found,
      }
    );
  }

  /** The namespaces that have a key. */
  namespacesOf(key: string): readonly string[] {
    return [...this.keys].flatMap(([name, set]) => (set.has(key) ? [name] : []));
  }

  /** Whether a prefix and a name make a key; or a namespace and a key in it. */
  joins(prefix: string, name: string): "prefix" | "namespace" | undefined {
    if (this.keys.get(prefix)?.has(name)) return "namespace";
    return this.all.has(`${prefix}.${name}`) ? "prefix" : undefined;
  }

  /** How much of a path of members is a key: the number of its parts, 0 for none. `isGroup` says that it is a group of keys. */
  path(parts: readonly string[]): { readonly length: number; readonly isGroup: boolean } {
    for (let length = parts.length; length > 0; length--) {
      const key = parts.slice(0, length).join(".");
      if (this.all.has(key)) return { length, isGroup: false };
      if (length === parts.length && this.groups.has(key)) return { length, isGroup: true };
    }
    return { length: 0, isGroup: false };
  }

  private partsIn(keys: ReadonlySet<string>, text: string): { parts: string | undefined } | undefined {
    if (keys.has(text)) return { parts: text.includes(".") ? "." : undefined };
    for (const mark of [...new Set(text.match(otherMarks)), ...wordMarks])
      if (text.includes(mark) && keys.has(text.replaceAll(mark, "."))) return { parts: mark };
    return undefined;
  }
}
