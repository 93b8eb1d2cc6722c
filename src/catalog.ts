/** Catalog files: reading them into entries with places, editing them in place, merging them by key. `fond-ledger/catalog`. */
export { formatNameOf, formatOf, formats } from "./core/catalog/formats/index.js";
export { mergeCatalogs, type Merged } from "./core/catalog/merge.js";
export type {
  CatalogChanges,
  CatalogContent,
  CatalogFormat,
  CatalogProblem,
  CommentSyntax,
  Entry,
  EntryPath,
  PathText,
} from "./core/catalog/model.js";
export { mergeLedgers } from "./core/ledger/merge.js";
