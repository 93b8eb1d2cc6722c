import type { Rule } from "../rule.js";
import { argumentMissing } from "./argument/missing.js";
import { argumentUnknown } from "./argument/unknown.js";
import { fileLocaleCode } from "./file/locale-code.js";
import { fileMergeMarker } from "./file/merge-marker.js";
import { fileUnreadable } from "./file/unreadable.js";
import { keyDuplicate } from "./key/duplicate.js";
import { keyExtra } from "./key/extra.js";
import { keyMissing } from "./key/missing.js";
import { keyUndefined } from "./key/undefined.js";
import { keyUnused } from "./key/unused.js";
import { pluralIdleCategory } from "./plural/idle-category.js";
import { pluralMissingCategory } from "./plural/missing-category.js";
import { pluralNoOther } from "./plural/no-other.js";
import { selectCases } from "./select/cases.js";
import { selectNoOther } from "./select/no-other.js";
import { syntaxApostrophe } from "./syntax/apostrophe.js";
import { syntaxUnreadable } from "./syntax/unreadable.js";
import { tagMissing } from "./tag/missing.js";
import { tagUnknown } from "./tag/unknown.js";
import { textEmpty } from "./text/empty.js";
import { textStale } from "./text/stale.js";
import { textUntranslated } from "./text/untranslated.js";
import { textValue } from "./text/value.js";

/** Every rule, by family. */
export const rules: readonly Rule[] = [
  fileUnreadable,
  fileMergeMarker,
  fileLocaleCode,
  keyMissing,
  keyExtra,
  keyDuplicate,
  keyUndefined,
  keyUnused,
  syntaxUnreadable,
  syntaxApostrophe,
  argumentMissing,
  argumentUnknown,
  pluralNoOther,
  pluralMissingCategory,
  pluralIdleCategory,
  selectNoOther,
  selectCases,
  tagMissing,
  tagUnknown,
  textEmpty,
  textValue,
  textUntranslated,
  textStale,
];
