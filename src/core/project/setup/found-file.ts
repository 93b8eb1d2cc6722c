import { startsAsXml } from "../../source/readers/script/endings.js";
import { posix } from "node:path";
import { formatNameOf, formatOf, formats } from "../../catalog/formats/index.js";
import type { CatalogContent } from "../../catalog/model.js";
import type { Files } from "../../files/files.js";
import type { FormatName } from "../../config/names.js";
import { type LocalePlace } from "./locale-place.js";

/** The endings of files that are catalogs of one locale, and hold nothing to be run. */
export const catalogEndings = Object.values(formats).flatMap(({ code, holds, extensions }) =>
  code || holds !== "locale" ? [] : extensions,
);

/** Files in these formats that hold other things than texts. */
export const otherData = [
  "**/package*.json",
  "**/composer*.json",
  "**/tsconfig*.json",
  "**/jsconfig*.json",
  "**/*.schema.json",
  "**/.*/**",
  "**/node_modules/**",
  "**/vendor/**",
  "**/{pyproject,Cargo}*.toml",
  "**/{docker-compose,pnpm-lock,.gitlab-ci,mkdocs,openapi,swagger}*.{yml,yaml}",
  "**/dist/**",
  "**/build/**",
  "**/coverage/**",
  "fond*.json",
];

/** The endings of code that may be a catalog. */
export const moduleEndings = Object.values(formats).flatMap(({ code, extensions }) =>
  code ? extensions : [],
);

export function isModule(file: string): boolean {
  return moduleEndings.includes(posix.extname(file).slice(1));
}

/** A file that looks like a catalog, with its content. */
export interface FoundFile {
  readonly file: string;
  readonly content: CatalogContent;
}

export interface Group {
  readonly pattern: string;
  /** The format of its files, where their ending does not name it. */
  readonly format?: FormatName;
  readonly members: (LocalePlace & { readonly found: FoundFile })[];
}

/** Larger files are no catalogs that people write, in code units. */
export const largestFile = 20_000_000;

/** What is in a file that looks like a catalog: mostly texts. One that breaks off has its problems. */
export function readEntries(
  files: Files,
  file: string,
  name: FormatName = formatNameOf(file),
): CatalogContent | undefined {
  const read = files.read(file);
  if (!read.ok || read.text.length > largestFile || (isModule(file) && startsAsXml(read.text)))
    return undefined;
  const format = formatOf({ files: file, format: name, table: undefined });
  const content = format.read(read.text, ".");
  const texts = content.entries.filter((entry) => entry.kind === "text").length;
  const values = content.entries.filter((entry) => entry.kind !== "code").length;
  return texts * 5 < values * 4 || (isModule(file) && texts === 0 && content.problems.length === 0)
    ? undefined
    : content;
}
