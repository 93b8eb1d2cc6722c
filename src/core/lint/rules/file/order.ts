import { isWhole } from "../../../catalog/book.js";
import { disorderIn } from "../../key-order.js";
import { defineRule } from "../../rule.js";

export const fileOrder = defineRule({
  id: "file/order",
  level: "info",
  summary: "Keys that stand out of the order that the book wants.",
  why: "In files in one order two people's additions seldom meet in one place, and a translator finds the neighbours of a text in every locale. It is asked only of books that name an order: `source`, as the source catalog has its keys, or `alphabet`, by name in each group. As few keys as can be are told of. `--fix` moves them with the comments above them, and leaves a file alone that would lose others by that. Tables are let pass.",
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
    // The rows of a table stand by locale too; of a key that is there twice it is not clear which one is to move.
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
