import type { Carrier } from "./carrier.js";
import { csv } from "./csv.js";
import { page } from "./page.js";
import { tmx } from "./tmx.js";
import { work } from "./work.js";
import { xliff } from "./xliff.js";
import { xliff12 } from "./xliff-1-2.js";
import { xlsx } from "./xlsx.js";

/** The kinds of documents that go to translators and come back. */
export const carriers: readonly Carrier[] = [xliff, xliff12, csv, xlsx, page, tmx, work];

/** The carrier of a name; undefined for none. */
export function carrierNamed(name: string): Carrier | undefined {
  return carriers.find((one) => one.name === name);
}

/** The carrier that a document is of, by its name and beginning; undefined for none. */
export function carrierOf(file: string, head: string): Carrier | undefined {
  return carriers.find((one) => one.recognizes?.(file, head));
}
