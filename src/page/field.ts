import type { PageEntry } from "#core/exchange/carriers/page.js";
import { joinInlines, type Inline } from "#core/exchange/inline.js";

/** A field for one text, in which codes are chips that can be moved and deleted, and never be broken. */
export interface Field {
  readonly element: HTMLElement;
  /** The text; undefined where an element is not closed, or closed in another. */
  read(): readonly Inline[] | undefined;
  write(text: readonly Inline[]): void;
  /** Puts a code where the cursor is; an element goes around what is selected. */
  insert(id: string): void;
}

type Codes = PageEntry["codes"];

/** The chips of a text, for reading and for fields. */
export function chipsOf(text: readonly Inline[], codes: Codes): DocumentFragment {
  const fragment = document.createDocumentFragment();
  for (const one of text) {
    if (one.kind === "text") fragment.append(one.value);
    else if (one.kind === "code") fragment.append(chip("code", one.id, codes));
    else {
      fragment.append(
        chip("open", one.id, codes),
        chipsOf(one.children, codes),
        chip("close", one.id, codes),
      );
    }
  }
  return fragment;
}

function chip(kind: "code" | "open" | "close", id: string, codes: Codes): HTMLElement {
  const element = document.createElement("span");
  const { open = id, close = "" } = codes[id] ?? {};
  element.className = `chip ${kind}`;
  element.contentEditable = "false";
  element.dataset["kind"] = kind;
  element.dataset["id"] = id;
  element.textContent = kind === "close" ? close : open;
  element.dir = "ltr";
  return element;
}

export function makeField(options: {
  readonly codes: Codes;
  readonly locale: string;
  readonly direction: "ltr" | "rtl";
  readonly label: string;
  readonly changed: () => void;
}): Field {
  const { codes, locale, direction, label, changed } = options;
  const element = document.createElement("div");
  element.className = "field";
  element.contentEditable = "true";
  element.lang = locale;
  element.dir = direction;
  element.spellcheck = true;
  element.setAttribute("role", "textbox");
  element.setAttribute("aria-multiline", "true");
  element.setAttribute("aria-label", label);
  element.addEventListener("input", changed);
  element.addEventListener("paste", (event) => {
    event.preventDefault();
    insertText(event.clipboardData?.getData("text/plain") ?? "");
  });
  element.addEventListener("drop", (event) => {
    event.preventDefault();
  });
  element.addEventListener("keydown", (event) => {
    if (event.key !== "Enter" || event.ctrlKey || event.metaKey) return;
    event.preventDefault();
    insertText("\n");
  });

  /** The selection inside the field; its end where the cursor is elsewhere. */
  function range(): Range {
    const selection = window.getSelection();
    const there = selection && selection.rangeCount > 0 ? selection.getRangeAt(0) : undefined;
    if (there && element.contains(there.commonAncestorContainer)) return there;
    const end = document.createRange();
    end.selectNodeContents(element);
    end.collapse(false);
    return end;
  }

  function put(node: Node, last: Node = node): void {
    const at = range();
    at.deleteContents();
    at.insertNode(node);
    const selection = window.getSelection();
    const behind = document.createRange();
    behind.setStartAfter(last);
    behind.collapse(true);
    selection?.removeAllRanges();
    selection?.addRange(behind);
    element.focus();
    changed();
  }

  function insertText(text: string): void {
    if (text !== "") put(document.createTextNode(text.replace(/\r\n?/g, "\n")));
  }

  return {
    element,
    read() {
      const stack: { readonly id: string; readonly inlines: Inline[] }[] = [{ id: "", inlines: [] }];
      let isTorn = false;
      const add = (one: Inline) => stack.at(-1)?.inlines.push(one);
      const walk = (node: Node) => {
        for (const child of node.childNodes) {
          if (child instanceof Text) add({ kind: "text", value: child.data });
          else if (!(child instanceof HTMLElement)) continue;
          else if (child.dataset["id"] !== undefined) {
            const { id, kind } = child.dataset;
            if (kind === "code") add({ kind: "code", id });
            else if (kind === "open") stack.push({ id, inlines: [] });
            else {
              const open = stack.length > 1 ? stack.pop() : undefined;
              if (open?.id !== id) isTorn = true;
              else add({ kind: "pair", id, children: joinInlines(open.inlines) });
            }
          } else if (child.tagName === "BR") {
            // Browsers put one at the end of a field that was emptied.
            if (child.nextSibling || child.parentNode !== element) add({ kind: "text", value: "\n" });
          } else {
            if (child.previousSibling) add({ kind: "text", value: "\n" });
            walk(child);
          }
        }
      };
      walk(element);
      const [whole] = stack;
      return isTorn || stack.length > 1 || !whole ? undefined : joinInlines(whole.inlines);
    },
    write(text) {
      element.replaceChildren(chipsOf(text, codes));
    },
    insert(id) {
      if (codes[id]?.close === undefined) {
        put(chip("code", id, codes));
        return;
      }
      const at = range();
      const fragment = document.createDocumentFragment();
      const close = chip("close", id, codes);
      fragment.append(chip("open", id, codes), at.extractContents(), close);
      put(fragment, close);
    },
  };
}
