import type { Rule } from "../rule.js";
import { fileOrder } from "./file/order.js";
import { argumentPlace } from "./argument/place.js";
import { pluralAlike } from "./plural/alike.js";
import { textCode } from "./text/code.js";
import { textLetter } from "./text/letter.js";
import { textLost } from "./text/lost.js";
import { textOpposite } from "./text/opposite.js";
import { textQuote } from "./text/quote.js";
import { localeUnlisted } from "./locale/unlisted.js";
import { textTerm } from "./text/term.js";
import { textPath } from "./text/path.js";
import { textTypography } from "./text/typography.js";
import { textLength } from "./text/length.js";
import { textMarker } from "./text/marker.js";
import { textNormalForm } from "./text/normal-form.js";
import { textControl } from "./text/control.js";
import { textScript } from "./text/script.js";
import { textBracket } from "./text/bracket.js";
import { textEscape } from "./text/escape.js";
import { textRepeat } from "./text/repeat.js";
import { textAddress } from "./text/address.js";
import { textNumbers } from "./text/numbers.js";
import { textEnding } from "./text/ending.js";
import { textSpace } from "./text/space.js";
import { markupUnsafe } from "./markup/unsafe.js";
import { tagUnbalanced } from "./tag/unbalanced.js";
import { pluralChoice } from "./plural/choice.js";
import { pluralFragment } from "./plural/fragment.js";
import { pluralSelector } from "./plural/selector.js";
import { pluralFlattened } from "./plural/flattened.js";
import { pluralShadowed } from "./plural/shadowed.js";
import { pluralLiteralCount } from "./plural/literal-count.js";
import { pluralHiddenCount } from "./plural/hidden-count.js";
import { argumentSpare } from "./argument/spare.js";
import { argumentUnsupplied } from "./argument/unsupplied.js";
import { argumentFormat } from "./argument/styles.js";
import { argumentType } from "./argument/type.js";
import { syntaxForeign } from "./syntax/foreign.js";
import { keyDefaultDiffers } from "./key/default-differs.js";
import { keyDeclared } from "./key/declared.js";
import { keyShape } from "./key/shape.js";
import { keyCollision } from "./key/collision.js";
import { fileEncoding } from "./file/encoding.js";
import { argumentMissing } from "./argument/missing.js";
import { argumentUnknown } from "./argument/unknown.js";
import { fileLocaleCode } from "./file/locale-code.js";
import { fileMergeMarker } from "./file/merge-marker.js";
import { fileMissing } from "./file/missing.js";
import { fileNoText } from "./file/no-text.js";
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
  localeUnlisted,
  fileMissing,
  fileUnreadable,
  fileMergeMarker,
  fileLocaleCode,
  fileNoText,
  fileOrder,
  fileEncoding,
  keyMissing,
  keyExtra,
  keyDuplicate,
  keyUndefined,
  keyUnused,
  keyCollision,
  keyDeclared,
  keyShape,
  keyDefaultDiffers,
  syntaxUnreadable,
  syntaxApostrophe,
  syntaxForeign,
  argumentMissing,
  argumentUnknown,
  argumentType,
  argumentFormat,
  argumentUnsupplied,
  argumentPlace,
  argumentSpare,
  pluralNoOther,
  pluralMissingCategory,
  pluralIdleCategory,
  pluralHiddenCount,
  pluralLiteralCount,
  pluralAlike,
  pluralShadowed,
  pluralFlattened,
  pluralSelector,
  pluralFragment,
  pluralChoice,
  selectNoOther,
  selectCases,
  tagMissing,
  tagUnknown,
  tagUnbalanced,
  markupUnsafe,
  textEmpty,
  textValue,
  textUntranslated,
  textStale,
  textSpace,
  textEnding,
  textNumbers,
  textAddress,
  textBracket,
  textCode,
  textLetter,
  textLost,
  textOpposite,
  textQuote,
  textEscape,
  textRepeat,
  textScript,
  textControl,
  textNormalForm,
  textMarker,
  textLength,
  textTerm,
  textTypography,
  textPath,
];
