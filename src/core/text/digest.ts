import type * as Crypto from "node:crypto";
import { createRequire } from "node:module";
import { lazily } from "./lazy.js";
import { ownText } from "./own-text.js";

const require = createRequire(import.meta.url);

/** Node takes a while to load it, and many runs have nothing to digest. */
const crypto = lazily(() => require("node:crypto") as typeof Crypto);

/** The first 16 hexadecimal digits of the SHA-256 (FIPS 180-4) of a text's UTF-8 bytes. */
export function digestOf(text: string): string {
  return crypto().hash("sha256", text, "hex").slice(0, 16);
}

const kept = new Map<string, string>();
const keptAtMost = 200_000;

/** The same for texts that are asked for again and again, as source texts are for every locale. */
export function keptDigestOf(text: string): string {
  const known = kept.get(text);
  if (known !== undefined) return known;
  if (kept.size >= keptAtMost) kept.clear();
  const digest = digestOf(text);
  kept.set(ownText(text), digest);
  return digest;
}
