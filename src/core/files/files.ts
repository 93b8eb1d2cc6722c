/** What reading a file gave: its text, or why there is none. Never an exception. */
export type FileText =
  | { readonly ok: true; readonly text: string; readonly bom: boolean; readonly encoding?: TextEncoding }
  | { readonly ok: false; readonly trouble: FileTrouble; readonly detail: string };

/** How a text's characters are written as bytes; UTF-8 by default. */
export type TextEncoding = "utf-8" | "latin1";

/** Why a file could not be read as text. */
export type FileTrouble = "absent" | "unreadable" | "encoding";

/** Which files to list. Patterns and results are relative to the project's root, with `/`. */
export interface FileQuery {
  readonly patterns: readonly string[];
  readonly ignore?: readonly string[];
  /** Whether files that `.gitignore` excludes are left out. */
  readonly respectIgnoreFiles?: boolean;
}

/** The files of one project as the core sees them: read and listed, never written. */
export interface Files {
  /** Reads a file (see `decodeText`) and strips a byte order mark; `path` is relative to the project's root. */
  read(path: string): FileText;
  /** Lists files, sorted by code unit. */
  list(query: FileQuery): readonly string[];
}

/** The right to write to a project, held by one run at a time; or who has it. */
export type Lock = { readonly ok: true; release(): void } | { readonly ok: false; readonly holder: string };

/** The file operations that applying a plan needs beyond reading. Each throws when the system refuses. */
export interface WritableFiles extends Files {
  /** Writes a text, as UTF-8 where nothing else is said, and sees that it has reached the disk. */
  write(path: string, text: string, encoding?: TextEncoding): void;
  /** Renames atomically over whatever stands at `to`, keeping the permissions of a file it replaces. */
  rename(from: string, to: string): void;
  remove(path: string): void;
  exists(path: string): boolean;
  /** Waits for the right to write; absent where nobody else can write. */
  lock?(): Lock;
}

/** Files that may be in ISO-8859-1, as their format once prescribed; also under the names that they have while a plan is carried out. */
const mayBeLatin1 = /\.properties(?:\.fond-(?:new|old))?$/;

/**
 * Decodes bytes as UTF-8 (RFC 3629), refusing what is not; a byte order mark is taken off and told. A properties file
 * that is no UTF-8 is ISO-8859-1, in which every byte is a character.
 */
export function decodeText(bytes: Uint8Array, path = ""): FileText {
  if (bytes[0] === 0xff && bytes[1] === 0xfe)
    return encodingTrouble("it starts with a UTF-16 (little-endian) byte order mark");
  if (bytes[0] === 0xfe && bytes[1] === 0xff)
    return encodingTrouble("it starts with a UTF-16 (big-endian) byte order mark");
  const bom = bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf;
  try {
    const text = new TextDecoder("utf-8", { fatal: true, ignoreBOM: true }).decode(
      bom ? bytes.subarray(3) : bytes,
    );
    return { ok: true, text, bom };
  } catch {
    if (mayBeLatin1.test(path))
      return { ok: true, text: Buffer.from(bytes).toString("latin1"), bom: false, encoding: "latin1" };
    return encodingTrouble(`byte ${firstInvalidByte(bytes)} is not valid UTF-8`);
  }
}

function encodingTrouble(detail: string): FileText {
  return { ok: false, trouble: "encoding", detail };
}

/** The offset of the first byte that cannot be decoded, found by halving. */
function firstInvalidByte(bytes: Uint8Array): number {
  let low = 0;
  let high = bytes.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    try {
      new TextDecoder("utf-8", { fatal: true }).decode(bytes.subarray(0, middle + 1), { stream: true });
      low = middle + 1;
    } catch {
      high = middle;
    }
  }
  return low;
}
