/** A stream that text goes to. */
export interface Sink {
  write(text: string): unknown;
  readonly isTTY?: boolean;
  readonly columns?: number;
}

/** What a run reads from and writes to besides files. */
export interface Io {
  readonly stdin: NodeJS.ReadableStream & { readonly isTTY?: boolean };
  readonly stdout: Sink;
  readonly stderr: Sink;
  readonly env: Readonly<Record<string, string | undefined>>;
  /** The folder that the command was called in. */
  readonly cwd: string;
}
