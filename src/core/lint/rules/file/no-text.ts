import { defineRule } from "../../rule.js";

export const fileNoText = defineRule({
  id: "file/no-text",
  level: "warning",
  summary: "Entry without the member that holds its text.",
  why: 'Only checked in books whose entries are objects with their text in one member, as `leaf` says: `"title": { "message": "Boats" }`. What has no such member, or is a text by itself, has no text for the program, and no command sees it. Names that begin with a sign are passed over (`$schema`).',
  messages: {
    text: {
      message: '"{name}" is a plain text; entries of this book have their text in "{member}"',
      remedy: "write {example}",
    },
    member: {
      message: '"{name}" has no "{member}", so it has no text',
      remedy: 'add "{member}" with the text, or remove "{name}"',
    },
  },
  examples: {
    bad: [
      {
        leaf: "message",
        raw: true,
        source: { title: "Boats" },
        target: '{ "title": { "mesage": "Boote" }, "book": { "message": "Buchen" } }',
        note: "a member that is misspelled",
      },
      {
        leaf: "message",
        raw: true,
        source: { title: "Boats" },
        target: '{ "title": "Boote", "book": { "message": "Buchen" } }',
      },
    ],
    good: [
      {
        leaf: "message",
        raw: true,
        source: { title: "Boats" },
        target: '{ "title": { "message": "Boote", "description": "Heading" } }',
      },
    ],
  },
  file(context, catalog) {
    const { member } = catalog.view;
    if (member === undefined) return;
    for (const { entry, path } of catalog.withoutText) {
      const name = path.join(catalog.separator);
      // A name that begins with a sign is for people or programs: "$schema", "_comment".
      if (/^[^\p{L}\p{N}]/u.test(String(path[0]))) continue;
      if (path.length === entry.path.length)
        context.reportRange(catalog, entry.keySpan, "text", {
          name,
          member,
          example: JSON.stringify({ [member]: entry.text }),
        });
      else context.reportRange(catalog, entry.keySpan, "member", { name, member });
    }
  },
});
