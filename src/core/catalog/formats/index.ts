import { formatNames, type FormatName } from "../../config/names.js";
import type { BookConfig } from "../../config/schema.js";
import type { CatalogFormat } from "../model.js";
import { json5Format, jsoncFormat, jsonFormat } from "./json.js";
import { propertiesFormat } from "./properties.js";
import { tableFormat } from "./table.js";
import { yamlFormat } from "./yaml.js";

/** The format that a file's ending says; JSON where it says nothing. */
export function formatNameOf(file: string): FormatName {
  const ending = /\.([^./]+)$/.exec(file)?.[1]?.toLowerCase();
  if (ending === "yml") return "yaml";
  return formatNames.find((name) => name === ending) ?? "json";
}

/** The format of a book's catalogs: the one it names, or the one that the files' ending says. */
export function formatOf(book: Pick<BookConfig, "files" | "format" | "table">): CatalogFormat {
  const name = book.format ?? formatNameOf(book.files);
  switch (name) {
    case "csv": {
      const { id = "key", locale = "locale", text = "text" } = book.table ?? {};
      const list = (value: string | readonly string[]) => (typeof value === "string" ? [value] : value);
      return tableFormat({ id: list(id), locale, text: list(text) });
    }
    case "yaml":
      return yamlFormat;
    case "properties":
      return propertiesFormat;
    case "jsonc":
      return jsoncFormat;
    case "json5":
      return json5Format;
    case "json":
      return jsonFormat;
  }
}
