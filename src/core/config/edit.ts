import { applyEdits, findNodeAtLocation, modify, parseTree } from "../text/jsonc.js";
import { parseDocument } from "../text/yaml.js";

/** A configuration file's text with one setting changed in place, or taken out where `value` is undefined. */
export function editConfig(
  file: string,
  text: string,
  path: readonly (string | number)[],
  value: unknown,
): string {
  if (/\.ya?ml$/.test(file)) {
    const document = parseDocument(text);
    if (value === undefined) document.deleteIn(path);
    else document.setIn(path, value);
    return document.toString();
  }
  const eol = text.includes("\r\n") ? "\r\n" : "\n";
  return applyEdits(
    text,
    modify(text, [...path], value, {
      formattingOptions: { insertSpaces: true, tabSize: 2, eol },
    }),
  );
}

/** The same with an item put at the end of a list, or one taken out by its place; the list stays on its lines. */
export function editConfigList(
  file: string,
  text: string,
  path: readonly string[],
  change: { readonly add: string } | { readonly remove: number },
): string {
  if (/\.ya?ml$/.test(file)) {
    const document = parseDocument(text);
    if ("add" in change) document.addIn(path, change.add);
    else document.deleteIn([...path, change.remove]);
    return document.toString();
  }
  const tree = parseTree(text, [], { allowTrailingComma: true });
  const items = (tree && findNodeAtLocation(tree, [...path])?.children) ?? [];
  const list = tree && findNodeAtLocation(tree, [...path]);
  if (!list) return text;
  const last = items.at(-1);
  const end = (at: number) => {
    const item = items[at];
    return item ? item.offset + item.length : list.offset + 1;
  };
  if ("add" in change) {
    const between = items.length > 1 ? text.slice(end(items.length - 2), last?.offset) : ", ";
    const at = end(items.length - 1);
    return text.slice(0, at) + (last ? between : "") + JSON.stringify(change.add) + text.slice(at);
  }
  const item = items[change.remove];
  if (!item) return text;
  const next = items[change.remove + 1];
  const [from, to] =
    next !== undefined ? [item.offset, next.offset] : [end(change.remove - 1), end(change.remove)];
  return text.slice(0, from) + text.slice(to);
}
