import { createHash } from "node:crypto";

/** The first 16 hexadecimal digits of the SHA-256 (FIPS 180-4) of a text's UTF-8 bytes. */
export function digestOf(text: string): string {
  return createHash("sha256").update(text, "utf8").digest("hex").slice(0, 16);
}
