import { isWhole } from "../../../catalog/book.js";
import { disorderIn } from "../../key-order.js";
import { defineRule } from "../../rule.js";

export const fileOrder = defineRule({
  id: "file/order",
  level: "info",
  summary: "Keys out of the order that the book defines.",
  why: "If all files have the same order, changes by two people rarely conflict, and translators find related texts together in every locale. Only checked in books that set `order`: `source` (like the source catalog) or `alphabet` (by name in each group). As few keys as possible are reported. `--fix` moves them with the comments above them, and skips a file that would lose other comments. Tables are not checked.",
  messages: {
    before: {
      message:
        '{count, plural, =1 {key "{key}" is out of order} other {# of {total} keys are out of order, starting with "{key}"}}',
      remedy: 'move it before "{next}"; `fond lint --fix` does',
    },
    last: {
      message:
        '{count, plural, =1 {key "{key}" is out of order} other {# of {total} keys are out of order, starting with "{key}"}}',
      remedy: "move it to the end; `fond lint --fix` does",
    },
  },
  examples: {
    bad: [
      {
        order: "source",
        source: { depart: "Depart", arrive: "Arrive" },
        target: { arrive: "Ankunft", depart: "Abfahrt" },
      },
      {
        order: "alphabet",
        source: { arrive: "Arrive", depart: "Depart", boat: "Boat" },
        target: { arrive: "Ankunft", boat: "Boot", depart: "Abfahrt" },
      },
    ],
    good: [
      {
        order: "source",
        source: { depart: "Depart", arrive: "Arrive" },
        target: { depart: "Abfahrt", arrive: "Ankunft" },
      },
      {
        source: { depart: "Depart", arrive: "Arrive" },
        target: { arrive: "Ankunft", depart: "Abfahrt" },
        note: "no order is asked for",
      },
    ],
  },
  applies: ({ book }) => book.config.order !== undefined,
  file(context, catalog) {
    const { book } = context;
    const { order } = book.config;
    const isSource = catalog.locale === book.sourceLocale;
    if (!order || (order === "source" && isSource) || book.strays.includes(catalog) || !isWhole(catalog))
      return;
    // The rows of a table stand by locale too; of a key that is a duplicate it is not clear which one is to move.
    if (!catalog.format.canReorder || !catalog.table.isUnique) return;
    const { misplaced, wanted } = disorderIn(book, catalog, order);
    const [first] = misplaced;
    if (!first) return;
    const next = wanted[wanted.indexOf(first) + 1];
    const count = misplaced.length;
    const data = { count, total: wanted.length, key: first.key };
    const more = { fix: { move: misplaced.map(({ key }) => key) } };
    if (next) context.reportRange(catalog, first.keySpan, "before", { ...data, next: next.key }, more);
    else context.reportRange(catalog, first.keySpan, "last", data, more);
  },
});
