import { joinInlines, type Inline } from "./inline.js";
import { InlineReader } from "./carriers/xliff-inlines.js";
import { escapeXml, readXml, xmlAttributes } from "./xml.js";

/** What a translation service is asked. Texts are XML without a root: `<x id="name"/>` for values, `<g id="b">…</g>` for elements. */
export interface ServiceRequest {
  readonly source: string;
  readonly target: string;
  readonly texts: readonly { readonly id: string; readonly text: string }[];
  /** Terms of the glossary that the texts have, with what they are called. */
  readonly terms: readonly { readonly source: string; readonly target: string }[];
}

/** The translations by id; an id that is not among them was not translated. */
export type ServiceAnswer = ReadonlyMap<string, string>;

/** Translates texts. Rejects with an error whose message is for people where it cannot. */
export type TranslationService = (request: ServiceRequest) => Promise<ServiceAnswer>;

/** A text as a service gets it. */
export function serviceText(inlines: readonly Inline[]): string {
  return inlines
    .map((one) => {
      if (one.kind === "text") return escapeXml(one.value);
      const attributes = xmlAttributes({ id: one.id });
      return one.kind === "code" ? `<x${attributes}/>` : `<g${attributes}>${serviceText(one.children)}</g>`;
    })
    .join("");
}

/** What a service wrote; undefined where it is no text with such elements. */
export function readServiceText(text: string): readonly Inline[] | undefined {
  const reader = new InlineReader();
  let depth = 0;
  let isStrange = false;
  const problem = readXml(["<t>", text, "</t>"], {
    open(name, { id }) {
      if (depth++ === 0) return;
      if (id === undefined || (name !== "x" && name !== "g")) isStrange = true;
      else if (name === "x") reader.code(id);
      else reader.open(id, "g");
    },
    close(name) {
      depth--;
      if (depth > 0 && name === "g") reader.close("g");
    },
    text: (value) => {
      reader.text(value);
    },
  });
  const inlines = problem || isStrange ? undefined : reader.inlines;
  return inlines && joinInlines(inlines);
}

/** A text with a number in the place of a code, for services that translate sentences and know nothing of plural forms. */
export function withNumber(inlines: readonly Inline[], code: string, number: string): readonly Inline[] {
  return joinInlines(
    inlines.map((one): Inline => {
      if (one.kind === "pair") return { ...one, children: withNumber(one.children, code, number) };
      return one.kind === "code" && one.id === code ? { kind: "text", value: number } : one;
    }),
  );
}

/** The same text with the code in the number's place again; undefined where the number is not there as often as it was. */
export function withoutNumber(
  inlines: readonly Inline[],
  code: string,
  written: readonly string[],
  times: number,
): readonly Inline[] | undefined {
  let found = 0;
  const escaped = written.map((one) => one.replace(/[.*+?^${}()|[\]\\]/g, "\\$&"));
  const number = new RegExp(`(?<![\\p{N}.,])(?:${escaped.join("|")})(?![\\p{N}]|[.,]\\p{N})`, "gu");
  const restored = (all: readonly Inline[]): readonly Inline[] =>
    all.flatMap((one): readonly Inline[] => {
      if (one.kind === "pair") return [{ ...one, children: restored(one.children) }];
      if (one.kind === "code") return [one];
      const parts: Inline[] = [];
      let at = 0;
      for (const match of one.value.matchAll(number)) {
        found++;
        parts.push({ kind: "text", value: one.value.slice(at, match.index) }, { kind: "code", id: code });
        at = match.index + match[0].length;
      }
      return [...parts, { kind: "text", value: one.value.slice(at) }];
    });
  const result = joinInlines(restored(inlines));
  return found === times ? result : undefined;
}
