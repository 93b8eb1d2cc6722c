import { createElement, Fragment, type ComponentChildren, type VNode } from "preact";

/** A small reader of ICU messages, enough for this site: arguments, plurals, selects and tags. */

type Values = Readonly<Record<string, string | number>>;
type Tag = (children: ComponentChildren) => VNode;
type Catalog = { readonly [name: string]: string | Catalog };

let locale = "en";
let catalogs: Readonly<Record<string, Catalog>> = {};

/** Chooses the locale and its catalogs, by namespace. */
export function install(chosen: string, texts: Readonly<Record<string, Catalog>>): void {
  locale = chosen;
  catalogs = texts;
}

/** The text of a key, its arguments filled in. */
export function t(key: string, values: Values = {}): string {
  return flatten(format(find(key), values, {}));
}

/** The text of a key with elements in it: each tag of the message is a function from its children. */
export function rich(key: string, values: Readonly<Record<string, string | number | Tag>>): VNode {
  const plain: Record<string, string | number> = {};
  const tags: Record<string, Tag> = {};
  for (const [name, value] of Object.entries(values)) {
    if (typeof value === "function") tags[name] = value;
    else plain[name] = value;
  }
  return createElement(Fragment, null, ...format(find(key), plain, tags));
}

function find(key: string): string {
  let found: string | Catalog | undefined = catalogs;
  for (const part of key.split(".")) found = typeof found === "object" ? found[part] : undefined;
  return typeof found === "string" ? found : key;
}

function format(
  message: string,
  values: Values,
  tags: Readonly<Record<string, Tag>>,
  count?: number,
): (string | VNode)[] {
  const result: (string | VNode)[] = [];
  let at = 0;
  while (at < message.length) {
    const unit = message[at];
    if (unit === "'" && message[at + 1] === "'") {
      result.push("'");
      at += 2;
    } else if (unit === "'" && /[{}<#]/.test(message[at + 1] ?? "")) {
      const end = message.indexOf("'", at + 1);
      result.push(message.slice(at + 1, end < 0 ? message.length : end));
      at = end < 0 ? message.length : end + 1;
    } else if (unit === "{") {
      const end = closing(message, at);
      result.push(...argument(message.slice(at + 1, end), values, tags));
      at = end + 1;
    } else if (unit === "#" && count !== undefined) {
      result.push(new Intl.NumberFormat(locale).format(count));
      at++;
    } else if (unit === "<" && /^<\w+\/?>/.test(message.slice(at))) {
      const name = /^<(\w+)/.exec(message.slice(at))?.[1] ?? "";
      const empty = message.startsWith(`<${name}/>`, at);
      const inside = at + name.length + 2;
      const end = empty ? inside : message.indexOf(`</${name}>`, at);
      const children = empty ? [] : format(message.slice(inside, end), values, tags, count);
      const tag = tags[name];
      result.push(...(tag ? [tag(children)] : children));
      at = end + (empty ? 1 : name.length + 3);
    } else {
      result.push(unit ?? "");
      at++;
    }
  }
  return result;
}

function argument(inside: string, values: Values, tags: Readonly<Record<string, Tag>>): (string | VNode)[] {
  const [name = "", type, ...rest] = inside.split(",").map((part, index) => (index < 2 ? part.trim() : part));
  const value = values[name] ?? "";
  if (type === undefined) return [String(value)];
  const branches = readBranches(rest.join(","));
  if (type === "select")
    return format(branches.get(String(value)) ?? branches.get("other") ?? "", values, tags);
  const rules = new Intl.PluralRules(locale, { type: type === "selectordinal" ? "ordinal" : "cardinal" });
  const chosen =
    branches.get(`=${value}`) ?? branches.get(rules.select(Number(value))) ?? branches.get("other") ?? "";
  return format(chosen, values, tags, Number(value));
}

function readBranches(text: string): Map<string, string> {
  const branches = new Map<string, string>();
  for (let at = 0; at < text.length;) {
    const open = text.indexOf("{", at);
    if (open < 0) break;
    const end = closing(text, open);
    branches.set(text.slice(at, open).trim(), text.slice(open + 1, end));
    at = end + 1;
  }
  return branches;
}

/** The brace that closes the one at `open`. */
function closing(text: string, open: number): number {
  let depth = 0;
  for (let at = open; at < text.length; at++) {
    if (text[at] === "{") depth++;
    else if (text[at] === "}" && --depth === 0) return at;
  }
  return text.length;
}

function flatten(parts: readonly (string | VNode)[]): string {
  return parts.filter((part) => typeof part === "string").join("");
}
