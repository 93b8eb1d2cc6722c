import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { catalogEdits } from "../../../src/core/catalog/book.js";
import { rules } from "../../../src/core/lint/rules/index.js";
import { carrierNamed } from "../../../src/core/exchange/carriers/index.js";
import type { Carrier } from "../../../src/core/exchange/carriers/carrier.js";
import type { Handoff } from "../../../src/core/exchange/handoff.js";
import { sameInlines, type Inline } from "../../../src/core/exchange/inline.js";
import { memoryFiles } from "../../../src/core/files/memory-files.js";
import { messageReader } from "../../../src/core/message/parse.js";
import { applyPlan } from "../../../src/core/plan/apply.js";
import { handoffFor } from "../../../src/core/project/handoff.js";
import { intakeDocument } from "../../../src/core/project/intake.js";
import { openProject, type Project } from "../../../src/core/project/project.js";
import { messageBooks, messages, type MessageBook } from "../../support/messages.js";

/** How catalogs may be kept: every format that begins with an empty file. */
const endings = ["json", "jsonc", "json5", "yaml", "properties", "toml", "php", "js", "py", "rb"] as const;
const carriers = ["xliff", "xliff-1.2", "csv", "xlsx"].map((name) => carrierNamed(name) as Carrier);

function opened(files: ReturnType<typeof memoryFiles>): Project {
  const result = openProject(files);
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.project;
}

function sent(carrier: Carrier, handoff: Handoff) {
  const bytes = Buffer.concat(
    [...(carrier.write?.(handoff) ?? [])].map((part) =>
      typeof part === "string" ? Buffer.from(part) : part,
    ),
  );
  const read = carrier.read?.({ bytes: () => bytes, chunks: () => [bytes.toString("utf8")] });
  if (!read?.ok) throw new Error("the carrier does not read what it wrote");
  return read.document;
}

/** A project of one book with messages under m0, m1 …, as its files hold them. */
function projectWith(book: MessageBook, ending: string, texts: readonly string[]) {
  const config = {
    source: "en",
    targets: ["pl"],
    books: [{ name: "site", code: [], files: `texts/{locale}.${ending}`, ...messageBooks[book] }],
  };
  const off = Object.fromEntries(rules.map(({ id }) => [id, "off"] as const));
  const files = memoryFiles({
    "fond.config.json": JSON.stringify({ ...config, rules: off }),
    [`texts/en.${ending}`]: "",
  });
  // The book's own machinery writes its source catalog.
  const project = opened(files);
  const [own] = project.config.books;
  const catalog = own && project.book(own).catalog("en", undefined);
  if (!catalog) throw new Error("there is no source catalog");
  const edits = catalogEdits();
  edits.edit(catalog, { add: texts.map((text, index) => ({ path: [`m${index}`], text })) });
  for (const { file, after } of edits.changes()) files.contents.set(file, after ?? "");
  return files;
}

describe.each(Object.keys(messageBooks) as MessageBook[])("a book in %s", (book) => {
  const reader = messageReader(messageBooks[book]);

  test("has exactly what translators wrote, whatever carried it, and taking it in again changes nothing", async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.tuple(messages(book), messages(book)), { minLength: 1, maxLength: 5 }),
        fc.constantFrom(...carriers),
        fc.constantFrom(...endings),
        fc.infiniteStream(fc.constantFrom("Zażółć ", "船 ", "«x» ", "a\u00a0b ", "it’s ", "1 > 0 & ", "= ")),
        async (pairs, carrier, ending, said) => {
          const files = projectWith(
            book,
            ending,
            pairs.map(([nodes]) => reader.print(nodes)),
          );
          const handoff = await handoffFor(opened(files), {}, "pl");
          const words = said[Symbol.iterator]();
          const filled = {
            ...handoff,
            entries: handoff.entries.map((entry) => ({
              ...entry,
              units: entry.units.map((unit) => ({
                ...unit,
                target: [
                  { kind: "text", value: String(words.next().value) },
                  ...unit.source,
                ] as readonly Inline[],
              })),
            })),
          };
          const document = sent(carrier, filled);
          const options = { today: "2031-05-01", file: "back" };
          const result = await intakeDocument(opened(files), {}, document, options);
          if (!result.ok) throw new Error(result.message);
          expect(result.plan.notes).toEqual([]);
          expect(applyPlan(files, result.plan).ok).toBe(true);
          const again = await handoffFor(opened(files), {}, "pl", { all: true });
          expect(again.entries.map(({ id }) => id)).toEqual(filled.entries.map(({ id }) => id));
          for (const [index, entry] of again.entries.entries())
            for (const [at, unit] of entry.units.entries())
              expect(
                sameInlines(unit.target ?? [], filled.entries[index]?.units[at]?.target ?? []) || {
                  is: unit.target,
                  was: filled.entries[index]?.units[at]?.target,
                },
              ).toBe(true);
          const twice = await intakeDocument(opened(files), {}, document, options);
          expect(twice.ok && twice.plan.changes).toEqual([]);
          return true;
        },
      ),
      { numRuns: 40 },
    );
  });
});
