import { formats } from "../../catalog/formats/index.js";
import { readRows, tableFormat } from "../../catalog/formats/table/table.js";
import type { Files } from "../../files/files.js";
import { leftOutByName } from "../../survey/left-out.js";
import { spellingOf, writtenLocale } from "./written-locale.js";
import { type FoundBook, BookCount } from "./found-book.js";
import { otherData, largestFile } from "./found-file.js";

const tableEndings = Object.values(formats).flatMap(({ holds, extensions }) =>
  holds === "all-locales" ? extensions : [],
);

/** Tables with a row for each text and locale. */
export function tables(files: Files): FoundBook[] {
  const listed = files.list({
    patterns: tableEndings.map((ending) => `**/*.${ending}`),
    ignore: otherData,
    respectIgnoreFiles: true,
  });
  return listed.flatMap((file): FoundBook[] => {
    const read = leftOutByName(file) === "tests" ? undefined : files.read(file);
    if (!read?.ok || read.text.length > largestFile) return [];
    const { rows, problem } = readRows(read.text);
    const [header, ...body] = rows.map(({ cells }) => cells.map(({ value }) => value.trim()));
    if (problem || !header || body.length < 4) return [];
    const columns = header.map((name, at) => ({ name, values: body.map((row) => row[at] ?? "") }));
    const locale = columns.find(
      ({ values }) =>
        new Set(values).size > 1 && values.every((value) => writtenLocale(value)?.isWeak === false),
    );
    const id = columns.find(
      ({ name, values }) =>
        name !== locale?.name &&
        values.every((value) => /^[\w.:/-]+$/.test(value)) &&
        isKey(values, locale?.values ?? []),
    );
    const texts = columns.filter(
      ({ name, values }) =>
        name !== locale?.name &&
        name !== id?.name &&
        values.filter((value) => /\p{L}{2}/u.test(value) && !/^[a-z]+:|^[\w-]+$/.test(value)).length * 2 >
          values.length,
    );
    if (!locale || !id || texts.length === 0) return [];
    const format = tableFormat({ id: [id.name], locale: locale.name, text: texts.map(({ name }) => name) });
    const book = new BookCount(false);
    const written = new Map<string, string>();
    for (const entry of format.read(read.text, ".").entries) {
      const name = String(entry.path.at(-1));
      const tag = writtenLocale(name)?.locale ?? name;
      written.set(tag, name);
      book.addAlone(tag, entry, entry.path.slice(0, -1));
    }
    const [only] = texts;
    const isUsual =
      id.name === "key" && locale.name === "locale" && texts.length === 1 && only?.name === "text";
    const text = texts.length === 1 && only ? only.name : texts.map(({ name }) => name);
    const found = book.found(file, spellingOf(written), undefined);
    return [isUsual ? found : { ...found, table: { id: id.name, locale: locale.name, text } }];
  });
}

/** Whether a column and the locale name each row together, and the column alone does not. */
function isKey(values: readonly string[], locales: readonly string[]): boolean {
  return (
    new Set(values).size < values.length &&
    new Set(values.map((value, at) => `${value}\u0000${locales[at] ?? ""}`)).size === values.length
  );
}
