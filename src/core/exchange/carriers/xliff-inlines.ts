import { joinInlines, type Inline } from "../inline.js";

/** Puts together the text of a unit while its elements are read. Codes that open and close apart make pairs where they are nested. */
export class InlineReader {
  private readonly stack: { readonly id: string; readonly key: string; readonly inlines: Inline[] }[] = [
    { id: "", key: "", inlines: [] },
  ];
  private isTorn = false;
  /** The text with its codes as they are written, for people. */
  written = "";

  text(value: string): void {
    this.top().push({ kind: "text", value });
    this.written += value;
  }

  code(id: string, shown = id): void {
    this.top().push({ kind: "code", id });
    this.written += `{${shown}}`;
  }

  /** `key` is what the end of the pair names. */
  open(id: string, key: string): void {
    this.stack.push({ id, key, inlines: [] });
    this.written += `<${id}>`;
  }

  close(key: string): void {
    const last = this.stack.length > 1 ? this.stack.pop() : undefined;
    if (!last) {
      this.isTorn = true;
      this.written += "</>";
      return;
    }
    if (last.key !== key) this.isTorn = true;
    this.written += `</${last.id}>`;
    this.top().push({ kind: "pair", id: last.id, children: joinInlines(last.inlines) });
  }

  /** What was read; undefined where a pair is open, or was closed in another. */
  get inlines(): readonly Inline[] | undefined {
    const [whole] = this.stack;
    return this.isTorn || this.stack.length > 1 || !whole ? undefined : joinInlines(whole.inlines);
  }

  private top(): Inline[] {
    return this.stack.at(-1)?.inlines ?? [];
  }
}

/** Gives each place of a code an id of its own: the code's for the first, with a number behind two hyphens for others. */
export function placeIds(): (code: string) => string {
  const seen = new Map<string, number>();
  return (code) => {
    const count = (seen.get(code) ?? 0) + 1;
    seen.set(code, count);
    return count === 1 ? code : `${code}--${count}`;
  };
}

/** The code of an id that `placeIds` gave. */
export function codeOfPlace(id: string): string {
  return id.replace(/--\d+$/, "");
}
