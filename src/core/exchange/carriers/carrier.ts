import type { Config } from "../../config/schema.js";
import type { Notice } from "../../text/wording.js";
import type { PageParts } from "../whole-page.js";
import type { Handoff, ReturnedDocument } from "../handoff.js";

/** A kind of document that carries work to translators, and back where it can: everything that the rest of the program knows of it. */
export interface Carrier {
  readonly name: string;
  /** The ending of its files, with the period. */
  readonly ending: string;
  /** What it is, for people who choose. */
  readonly summary: string;
  /** The document, piece by piece: texts as UTF-8, bytes as they are. */
  write?(handoff: Handoff, means?: CarrierMeans): Iterable<string | Uint8Array>;
  /** Set where writing takes what only a project and the built program have. */
  readonly needsMeans?: true;
  /** How sure a document is of this kind, by its name and its first few thousand characters. */
  recognizes?(file: string, head: string): boolean;
  read?(document: DocumentBytes): ReadDocument;
}

/** What a page is made of besides the work: the project's settings, and the program that runs in it. */
export interface CarrierMeans extends Pick<PageParts, "script" | "style" | "digest"> {
  readonly config: Config;
  /** Where a page that is served saves, and hears of changes. */
  readonly live?: { readonly save: string; readonly events: string };
}

/** A document as it came. */
export interface DocumentBytes {
  readonly bytes: () => Uint8Array;
  /** Its text, piece by piece, decoded by its byte order mark, else as UTF-8. */
  readonly chunks: () => Iterable<string>;
}

export type ReadDocument =
  | { readonly ok: true; readonly document: ReturnedDocument }
  | ({ readonly ok: false; readonly line?: number } & Notice);
