/**
 * How statements of SQL begin (ISO/IEC 9075-2, sections 13 and 14) that put values into a table, change, remove or ask for them,
 * in letters of either case.
 */
const statement =
  /^\s{0,40}(?:insert\s{1,9}(?:ignore\s{1,9})?into\s{1,9}\S{1,80}\s{0,9}\(|update\s{1,9}\S{1,80}\s{1,9}set\s{1,9}[\w.`"]{1,60}\s{0,9}=|delete\s{1,9}from\s{1,9}\S{1,80}(?:\s{1,9}where\b|$)|select\s{1,9}(?:\*|[\w.`]{1,60}(?:\s?,\s?[\w.`]{1,60}){1,40}|count\([^()]{0,60}\))\s{1,9}from\s)/i;

/** Parts of routines that a database keeps (ISO/IEC 9075-4), and what tools for it read beside them. */
const routine =
  /^\s{0,40}DELIMITER\s|\bCREATE\s(?:OR REPLACE\s)?(?:PROCEDURE|FUNCTION|TRIGGER|EVENT)\s|\bDECLARE\s\w{1,60}[\s,][^]{0,400}\b(?:CURSOR|HANDLER|INT|VARCHAR)\b|\bSET\s@?\w{1,60} = (?:CONCAT|IFNULL|'')|^\s{0,9}(?:WHEN|ELSE)\s[^]{0,80}\$?\w{1,40}\[|^,? ?(?:ADD|DROP|MODIFY|CHANGE)(?: (?:COLUMN|INDEX|KEY|CONSTRAINT|PRIMARY KEY))? ?(?:%s|[`"(]|$)/;

/** Whether a text is a statement for a database, whatever the values in it hold. */
export function isStatement(text: string): boolean {
  return statement.test(text) || routine.test(text);
}
