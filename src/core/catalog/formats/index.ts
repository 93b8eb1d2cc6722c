import type { FormatName } from "../../config/names.js";
import type { BookConfig } from "../../config/schema.js";
import type { CatalogFormat } from "../model.js";
import { json5Format, jsoncFormat, jsonFormat } from "./json/json.js";
import { propertiesFormat } from "./properties/properties.js";
import { phpFormat } from "./php/php.js";
import { pythonFormat } from "./python/python.js";
import { rubyFormat } from "./ruby/ruby.js";
import { scriptFormat } from "./script/script.js";
import { tomlFormat } from "./toml/toml.js";
import { tableFormat } from "./table/table.js";
import { yamlFormat } from "./yaml/yaml.js";

/** Every format, by the name that a book can give it. */
export const formats: Readonly<Record<FormatName, CatalogFormat>> = {
  json: jsonFormat,
  jsonc: jsoncFormat,
  json5: json5Format,
  yaml: yamlFormat,
  properties: propertiesFormat,
  script: scriptFormat,
  php: phpFormat,
  toml: tomlFormat,
  python: pythonFormat,
  ruby: rubyFormat,
  csv: tableFormat({ id: ["key"], locale: "locale", text: ["text"] }),
};

/** The format whose extension a file has; JSON for any other. */
export function formatNameOf(file: string): FormatName {
  const extension = /\.([^./]+)$/.exec(file)?.[1]?.toLowerCase() ?? "";
  return Object.values(formats).find(({ extensions }) => extensions.includes(extension))?.name ?? "json";
}

/** The format of a book's catalogs: the one it names, or the one of the files' extension. */
export function formatOf(book: Pick<BookConfig, "files" | "format"> & Partial<BookConfig>): CatalogFormat {
  const { table, constant } = book;
  const format = formats[book.format ?? (constant === undefined ? formatNameOf(book.files) : "script")];
  return format.forBook?.({ table, constant }) ?? format;
}
