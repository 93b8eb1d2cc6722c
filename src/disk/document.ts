import {
  closeSync,
  openSync,
  readFileSync,
  readSync,
  renameSync,
  rmSync,
  writeSync,
  mkdirSync,
} from "node:fs";
import { dirname } from "node:path";
import type { DocumentBytes } from "../core/exchange/carriers/carrier.js";

const pieceSize = 1 << 16;

/** A document on disk, read piece by piece: its text is decoded by its byte order mark (UTF-8, UTF-16), else as UTF-8. Throws where it cannot be read. */
export function documentAt(path: string): DocumentBytes {
  return {
    bytes: () => readFileSync(path),
    *chunks() {
      const file = openSync(path, "r");
      try {
        const buffer = new Uint8Array(pieceSize);
        let decoder: InstanceType<typeof TextDecoder> | undefined;
        for (;;) {
          const count = readSync(file, buffer, 0, pieceSize, null);
          decoder ??= new TextDecoder(encodingOf(buffer.subarray(0, count)));
          if (count === 0) break;
          yield decoder.decode(buffer.subarray(0, count), { stream: true });
        }
        yield decoder.decode();
      } finally {
        closeSync(file);
      }
    },
  };
}

/** The first part of a document, for telling of what kind it is; bytes that are no text come out as they may. */
export function headOf(path: string): string {
  for (const chunk of documentAt(path).chunks()) return chunk.slice(0, 4000);
  return "";
}

function encodingOf(bytes: Uint8Array): string {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return "utf-16le";
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return "utf-16be";
  // Without a mark, every second byte of markup in UTF-16 is empty.
  if (bytes[0] === 0x3c && bytes[1] === 0) return "utf-16le";
  if (bytes[0] === 0 && bytes[1] === 0x3c) return "utf-16be";
  return "utf-8";
}

/** Writes a document piece by piece beside its place, and puts it there when it is whole. Throws where the system refuses. */
export function writeDocument(path: string, parts: Iterable<string | Uint8Array>): void {
  mkdirSync(dirname(path), { recursive: true });
  const part = `${path}.fond-new`;
  const file = openSync(part, "w");
  try {
    let waiting: string[] = [];
    let length = 0;
    const flush = () => {
      if (length > 0) writeSync(file, waiting.join(""));
      waiting = [];
      length = 0;
    };
    for (const one of parts) {
      if (typeof one === "string") {
        waiting.push(one);
        length += one.length;
        if (length >= pieceSize) flush();
      } else {
        flush();
        writeSync(file, one);
      }
    }
    flush();
  } catch (error) {
    closeSync(file);
    rmSync(part, { force: true });
    throw error;
  }
  closeSync(file);
  renameSync(part, path);
}
