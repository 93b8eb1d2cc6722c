import { make } from "./make.js";

/** A list that draws the rows in sight, so that tens of thousands stay quick. */
export interface VirtualList<Item> {
  readonly element: HTMLElement;
  /** `isSame` says that the list is the one from before, so that nobody loses their place. */
  show(items: readonly Item[], isSame?: boolean): void;
  select(item: Item): void;
  redraw(): void;
}

export function virtualList<Item>(options: {
  readonly label: string;
  /** The height of a row, in CSS pixels. */
  readonly height: number;
  readonly draw: (item: Item, row: HTMLElement) => void;
  readonly open: (item: Item) => void;
  /** What Enter does beyond opening. */
  readonly enter?: () => void;
}): VirtualList<Item> {
  const { label, height, draw, open, enter } = options;
  const element = make("div", { className: "list", tabIndex: 0 });
  element.setAttribute("role", "listbox");
  element.setAttribute("aria-label", label);
  let items: readonly Item[] = [];
  let selected: Item | undefined;

  function redraw(): void {
    const from = Math.max(0, Math.floor(element.scrollTop / height) - 5);
    const to = Math.min(items.length, from + Math.ceil(element.clientHeight / height) + 10);
    const room = make("div");
    room.style.height = `${items.length * height}px`;
    const rows = items.slice(from, to).map((item, index) => {
      const row = make("div", { className: "row", id: `${label}-${from + index}` });
      row.setAttribute("role", "option");
      row.setAttribute("aria-selected", String(item === selected));
      row.setAttribute("aria-setsize", String(items.length));
      row.setAttribute("aria-posinset", String(from + index + 1));
      row.style.top = `${(from + index) * height}px`;
      row.style.height = `${height}px`;
      draw(item, row);
      row.addEventListener("click", () => {
        select(item);
        open(item);
      });
      return row;
    });
    element.replaceChildren(
      room,
      ...rows,
      ...(items.length === 0 ? [make("p", { className: "empty" }, "Nothing here.")] : []),
    );
  }

  function select(item: Item): void {
    selected = item;
    const at = items.indexOf(item);
    const top = at * height;
    if (at >= 0 && (top < element.scrollTop || top + height > element.scrollTop + element.clientHeight))
      element.scrollTop = Math.max(0, top - element.clientHeight / 2);
    redraw();
    if (at >= 0) element.setAttribute("aria-activedescendant", `${label}-${at}`);
  }

  element.addEventListener("scroll", redraw);
  window.addEventListener("resize", redraw);
  element.addEventListener("keydown", (event) => {
    const by = { ArrowDown: 1, ArrowUp: -1, PageDown: 10, PageUp: -10 }[event.key];
    if (by === undefined && event.key !== "Enter") return;
    event.preventDefault();
    const at = selected === undefined ? -1 : items.indexOf(selected);
    const next = items[Math.min(Math.max(at + (by ?? 0), 0), items.length - 1)];
    if (next === undefined) return;
    select(next);
    open(next);
    if (event.key === "Enter") enter?.();
  });
  return {
    element,
    show(all, isSame = false) {
      items = all;
      if (!isSame) element.scrollTop = 0;
      redraw();
    },
    select,
    redraw,
  };
}
