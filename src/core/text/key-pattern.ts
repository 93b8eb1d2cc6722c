/** A test for keys by pattern: `*` stands for one part of a key (or of a part), `**` for any number of them. */
export function keyTest(pattern: string, separator = "."): (key: string) => boolean {
  const part = `[^${separator.replace(/[\\\]^-]/g, "\\$&")}]+`;
  const pieces = pattern
    .split(/(\*\*|\*)/)
    .map((piece) =>
      piece === "**" ? ".+" : piece === "*" ? part : piece.replace(/[.+?^${}()|[\]\\]/g, "\\$&"),
    );
  const expression = new RegExp(`^${pieces.join("")}$`, "s");
  return (key) => expression.test(key);
}
