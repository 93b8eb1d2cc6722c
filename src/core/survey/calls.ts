import type { Habits } from "../source/languages/habits.js";

/** Methods that show what they are given, in whatever language: `setHeaderText`, `showError`; and what widgets are made with. */
export const textVerb =
  /(?:^|\.)(?:\w{0,20}(?:[sS]nack|[tT]oast|[nN]otif|[aA]lert|[fF]lash|[gG]rowl)\w{0,20}\.(?:open|show|add|create|push|present|success|error|warning|warn|info|danger|notify|now)|(?:alert|notify|toast|flash|snack(?:bar)?|growl)_?(?:[sS]uccess|[eE]rror|[iI]nfo|[wW]arn(?:ing)?|[dD]anger|[mM]essage)|(?:[sS]et|[sS]how|[wW]ith)(?:[A-Z]\w*)?(?:Title|Text|Note|Label|Caption|Tool[tT]ip|Message|Placeholder|Hint|Summary|Subject|Subtitle|Description|Prompt|Heading|Notice|Warning|Toast|Alert)|(?:set|show)_(?:\w+_)?(?:title|text|label|caption|tooltip|message|placeholder|hint|summary|subject|subtitle|description|prompt|heading)|(?:[sS]et|[sS]how|[aA]dd|[dD]isplay)_?(?:[A-Z]\w{0,20})?[eE]rror|[wW]ith(?:Display)?Name|(?:add_?)?[bB]readcrumb|crumb|(?:Toolbar|Tab|Nav|MenuFlyout)Item|(?:\w{0,20}_)?(?:[A-Z]\w{0,20})?(?:[mM]essage|[eE]rror|[wW]arning|[iI]nfo|[aA]lert|[cC]onfirm|[qQ]uestion)_?(?:[dD]ialog|[bB]ox|[pP]opup)|(?:[A-Z]\w*)?(?:Button|Label|Check[bB]ox|TextField|TextArea|ComboBox|Hyperlink|MenuItem|Paragraph|Heading|TitledPane|GroupBox|Tooltip)|(?:\w*_)?(?:status|state|message|note|title|label|text|hint|caption)(?:_?(?:[vV]ar|[tT]ext|[lL]abel))?\.set)$/;

/** What makes a part of a window with its label first: `addCheckbox("Sliding paraboloid", on)`, `Frame("Attributes")`. */
export const makesPart =
  /(?:^|[.>:_])(?:add|append|insert|create|make|new)(?:_?\w{0,20}_)?(?:[A-Z]\w{0,20})?(?:[cC]heck_?[bB]ox|[cC]hoice|[sS]lider|[rR]adio|[tT]oggle|(?:[nN]umeric|[nN]umber|[tT]ext|[sS]tring|[dD]ate|[fF]ile|[cC]olou?r)_?[fF]ield|[bB]utton|[lL]abel|[tT]ool_?[bB]ar|[sS]ection|[gG]roup_?[bB]ox|[cC]ategory|[hH]eading|(?:[mM]enu|[pP]opup|[cC]ontext)_?[iI]tem|[sS]ub_?[mM]enu)$|(?:^|[.>:])(?:[A-Z]\w{0,20})?(?:Frame|Dialog|TreeNode|DockWidget|Expander|ListViewGroup|ToolButton|LabelFrame|Column)$/;

/** What opens a window that asks or tells something, with its texts in any place. */
export const opensDialog = /(?:^|[.>:])[A-Z]\w{0,30}(?:Dialog|MessageBox|Popup)$/;

/** What adds a field to a form, by its name and its label. */
export const makesField =
  /(?:^|[.>:])add_?(?:[A-Z]\w{0,20})?(?:[tT]ext|[tT]ext_?[aA]rea|[pP]assword|[eE]mail|[iI]nteger|[sS]elect|[mM]ulti_?[sS]elect|[cC]heck_?[bB]ox(?:_?[lL]ist)?|[rR]adio(?:_?[lL]ist)?|[uU]pload|[dD]ate|[sS]ubmit|[bB]utton|[fF]ield|[cC]olumn(?:\w{0,20})?|[tT]ab|[sS]ection|[aA]ction|[fF]ilter)$/;

/** Functions that are named for telling or asking people something: `askUser`, `ShowDialog`. */
export const speaking =
  /(?:^|[.>:_])(?:show|ask|confirm|prompt|announce|tell|notify|display)(?:[A-Z]\w{0,40}|_\w{1,40})?$|(?:^|[.>:])(?:Show|Ask|Confirm|Prompt|Announce|Tell|Notify|Display)(?:[A-Z]\w{0,40})?$/;

/** Errors whose message a server sends to its clients, or that are made to be shown. */
export const sentError =
  /(?:^|\.)(?:NotFound|BadRequest|Forbidden|Unauthorized|Conflict|Gone|Unprocessable\w*|\w{0,30}Http\w*|HTTP\w*|(?:Web|Api|API|Hub|Rest|Soap|Rpc|Response|Status)\w{0,30}|(?:Business|Domain|Validation|User)(?:Rule|Input|Facing)?)(?:Error|Exception)$/;

/** Methods of builders that are named for the text that they set: `command.description("Sells tickets")`. */
export const builder =
  /^(?:sub)?(?:title|label|caption|tooltip|message|placeholder|hint|summary|description|heading|prompt|helpText|epilog(?:ue)?|usage|greeting)$/i;

/**
 * Functions that programs everywhere look texts up by, named for nothing else: what they are given has been taken out of the
 * code already, whether a book knows of them or not.
 */
export const lookupByName =
  /(?:^|[.>:$])(?:_{1,2}[a-z]{0,4}(?:_noop)?|esc_(?:html|attr)_{1,2}[a-z]?|[dn]{0,3}p?gettext(?:_lazy|_noop)?|N_|trans|transChoice|trans_choice|i18n|translate|tr|qsTr|localize(?:[A-Z]\w{0,30}|_\w{1,30})?|lang|[a-z]\w{0,30}(?:Translate|_translate|Gettext|_gettext))$|(?:^|[.>:$])(?:i18n|l10n|nls|intl)[.>:-]{1,2}\w{1,30}$|^\|\w+$/;

const loggers: ReadonlySet<string> = new Set(
  "log logs logger logging verbose silly debug debugf debuglog debugprint trace syslog logf logln errorlog auditlog".split(
    " ",
  ),
);

/** Whether a call writes for developers: by its language's habits, or since `log` or `debug` is a word of its name. */
export function writesForDevelopers(callee: string, habits: Habits): boolean {
  if (habits.developerCall.test(callee) || /deprecat/i.test(callee)) return true;
  // Nothing but loggers has methods with these ends.
  if (
    /(?<!^fmt|errors)\.(?:[dD]ebug|[tT]race|[iI]nfo|[wW]arn|[wW]arning|[vV]erbose|[fF]atal|[cC]ritical|[eE]rror)(?:f|ln|w|Context|Fn)$/.test(
      callee,
    )
  )
    return true;
  // What is made and named for a log is none: `BrokenLog("…")`.
  if (callee.length > 100 || /^[A-Z]\w*[a-z]Log$/.test(callee)) return false;
  const [receiver, method = ""] =
    callee.split(/[.:>]+/).slice(-2).length === 2 ? callee.split(/[.:>]+/).slice(-2) : ["", callee];
  const words = (name: string) =>
    name.split(/[_\W]+|(?<=[a-z0-9])(?=[A-Z])/).map((word) => word.toLowerCase());
  const ofMethod = words(method);
  // `change_log` and `logTitle` are about a log and write none.
  if (
    ofMethod.some((word) => loggers.has(word)) &&
    (loggers.has(ofMethod[0] ?? "") || loggers.has(ofMethod.at(-1) ?? ""))
  )
    return !ofMethod.some((word) =>
      /^(?:change|title|label|show|display|render|in|out|on|get|set)$/.test(word),
    );
  return (
    words(receiver ?? "").some((word) => loggers.has(word)) &&
    !/^(?:set|get)?(?:title|label|text|message)s?$/i.test(method)
  );
}

/** Whether a call shows what it is given, by its language's habits or its name. */
export function isShowing(callee: string, habits: Habits): boolean {
  return (
    textVerb.test(callee) || habits.textCall.test(callee) || speaking.test(callee) || sentError.test(callee)
  );
}
