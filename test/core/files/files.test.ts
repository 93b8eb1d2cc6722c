import { describe, expect, test } from "@jest/globals";
import { decodeText } from "../../../src/core/files/files.js";
import { globTest } from "../../../src/core/files/glob.js";
import { memoryFiles } from "../../../src/core/files/memory-files.js";

const bytes = (...values: number[]) => Uint8Array.from(values);

describe("text from bytes", () => {
  test.each([
    ["plain", bytes(0x61, 0xc3, 0xa9), { ok: true, text: "aé", bom: false }],
    ["with a byte order mark", bytes(0xef, 0xbb, 0xbf, 0x61), { ok: true, text: "a", bom: true }],
    ["empty", bytes(), { ok: true, text: "", bom: false }],
  ])("%s", (_, given, expected) => {
    expect(decodeText(given)).toEqual(expected);
  });

  test.each([
    ["UTF-16, little-endian", bytes(0xff, 0xfe, 0x61, 0x00), /UTF-16 \(little-endian\)/],
    ["UTF-16, big-endian", bytes(0xfe, 0xff, 0x00, 0x61), /UTF-16 \(big-endian\)/],
    ["a byte of Latin-1", bytes(0x61, 0x62, 0xe9, 0x63), /byte 3/],
    ["cut off in a character", bytes(0x61, 0xc3), /byte \d is not valid UTF-8/],
  ])("%s is refused with the place", (_, given, reason) => {
    const decoded = decodeText(given);
    expect(decoded).toMatchObject({ ok: false, trouble: "encoding" });
    expect(decoded.ok ? "" : decoded.detail).toMatch(reason);
  });
});

describe("files in memory", () => {
  test("are listed by globs, sorted", () => {
    const files = memoryFiles({ "b/x.ts": "", "a/x.ts": "", "a/y.js": "", "a/z/x.ts": "" });
    expect(files.list({ patterns: ["**/*.ts"], ignore: ["**/z/**"] })).toEqual(["a/x.ts", "b/x.ts"]);
    expect(files.list({ patterns: [] })).toEqual([]);
  });

  test("a file that is not there cannot be renamed or removed", () => {
    expect(() => memoryFiles().rename("a", "b")).toThrow();
    expect(() => memoryFiles().remove("a")).toThrow();
  });
});

test("no pattern matches nothing", () => {
  expect(globTest([])("a")).toBe(false);
  expect(globTest(["a/**/*.{ts,tsx}"])("a/b/c.tsx")).toBe(true);
});
