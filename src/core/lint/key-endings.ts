import type { BookCode, CodeUse } from "../source/book-code.js";
import type { LookupKey } from "../source/model.js";

/** What a program may put behind keys: a string of its own that begins with what parts keys, such as `.label`. */
const ending = /^[._:-][A-Za-z]\w{2,40}$/;

/** So many lookups of different keys that become keys in the same way are no chance. */
const enoughMade = 3;

/** What a program makes of the keys that it is given: another ending for one that they have, or one for none. */
interface Making {
  readonly from: string;
  readonly to: string;
}

/** The keys that a program makes of those that it is given, by an ending that stands in its code by itself. */
export class MadeKeys {
  private readonly makings: readonly Making[];

  /** `unknown` are the keys that lookups ask for and no catalog has; `knows` tells of those that one has. */
  constructor(
    private readonly code: BookCode,
    unknown: ReadonlySet<string>,
    knows: (key: LookupKey) => boolean,
  ) {
    const endings = unknown.size < enoughMade ? [] : endingsIn(code);
    const counts = new Map<string, { readonly making: Making; count: number }>();
    for (const key of unknown)
      for (const from of ["", ...endings.filter((one) => key.endsWith(one))])
        for (const to of endings) {
          const value = madeOf(key, { from, to });
          if (value === undefined || !knows({ kind: "fixed", value })) continue;
          const one = counts.get(`${from}\0${to}`) ?? { making: { from, to }, count: 0 };
          counts.set(`${from}\0${to}`, { ...one, count: one.count + 1 });
        }
    this.makings = [...counts.values()].flatMap(({ making, count }) => (count >= enoughMade ? making : []));
  }

  /** What a lookup that asks for a key may ask for in truth. */
  from(key: string): readonly string[] {
    return this.makings.flatMap((making) => madeOf(key, making) ?? []);
  }

  /** Whether a string of the code is a key of which this one is made. */
  isAskedFor(key: string): boolean {
    return this.makings.some(({ from, to }) => {
      const given = madeOf(key, { from: to, to: from });
      return given !== undefined && this.code.files.some(({ mentions }) => mentions.has(given));
    });
  }
}

function madeOf(key: string, { from, to }: Making): string | undefined {
  return from !== to && key.endsWith(from) ? key.slice(0, key.length - from.length) + to : undefined;
}

const endings = new WeakMap<CodeUse, readonly string[]>();

function endingsIn({ files }: BookCode): readonly string[] {
  const all = files.flatMap((source) => {
    const own = endings.get(source) ?? [...source.mentions].filter((one) => ending.test(one));
    endings.set(source, own);
    return own;
  });
  return [...new Set(all)];
}
