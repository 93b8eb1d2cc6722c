/** Endings that programs of PHP share with files of other kinds: only those with its tag are programs. */
export const sharedPhpEndings = [".inc", ".module", ".install", ".theme"] as const;
