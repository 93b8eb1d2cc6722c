import { viewed, withTextIn } from "../../catalog/view.js";
import type { CatalogContent } from "../../catalog/model.js";
import { type Group } from "./found-file.js";

/** What the member of an entry that holds its text is called. */
const textMemberName = /^(?:message|text|string|value|translation|term|msg|content)$/i;

/** So many entries with a member of one name are no chance. */
const leastWithMember = 5;

/** The member that holds the text of every entry, where entries are objects: `"title": { "message": "Boats", "about": "…" }`. */
export function textMember(contents: readonly CatalogContent[]): string | undefined {
  const all = contents.flatMap(({ entries }) => entries);
  const outer = new Set(all.map(({ path: [name] }) => name));
  const counts = new Map<string, number>();
  for (const { path } of all)
    if (path.length === 2 && textMemberName.test(String(path[1])))
      counts.set(String(path[1]), (counts.get(String(path[1])) ?? 0) + 1);
  const member = [...counts].sort(([, a], [, b]) => b - a)[0]?.[0];
  if (member === undefined || outer.size < leastWithMember) return undefined;
  const held = contents.every(({ entries }) => {
    const names = new Set(entries.map(({ path: [name] }) => name));
    const withText = new Set(
      entries.flatMap(({ path: [name, one, more] }) => (one === member && more === undefined ? [name] : [])),
    );
    return names.size === withText.size;
  });
  return held ? member : undefined;
}

/** The files of a group, those of each name that hold their texts in a member by themselves. */
export function withMembersApart(group: Group): readonly Group[] {
  const names = [...new Set(group.members.flatMap(({ namespace }) => namespace ?? []))];
  if (names.length < 2) return [group];
  const called = (name: string) => group.members.filter(({ namespace }) => namespace === name);
  const apart = names.filter(
    (name) => textMember(called(name).map(({ found }) => found.content)) !== undefined,
  );
  if (apart.length === 0 || apart.length === names.length) return [group];
  const rest = group.members.filter(({ namespace }) => !apart.includes(namespace ?? ""));
  return [...apart.map((name) => ({ ...group, members: called(name) })), { ...group, members: rest }];
}

/** A group of files as its entries' texts are, without what stands beside them. */
export function withTextsIn(leaf: string, group: Group): Group {
  const view = withTextIn(leaf);
  const members = group.members.map((member) => ({
    ...member,
    found: { ...member.found, content: viewed(member.found.content, view, ".") },
  }));
  return { ...group, members };
}
