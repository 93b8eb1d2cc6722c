import type { PageEntry, PageWork } from "#core/exchange/carriers/page.js";
import { inlineText, sameInlines, type Inline } from "#core/exchange/inline.js";
import { Checker, inlinesOf, isFilled, type Checked } from "./check.js";
import { make } from "./make.js";
import { virtualList } from "./virtual-list.js";
import { chipsOf, makeField, type Field } from "./field.js";

/** What a translator did for one entry. */
interface Done {
  /** By unit: the text as tables have it. */
  texts: Record<string, string>;
  note?: string;
  state?: "translated" | "reviewed" | "final";
}

type Filter = "open" | "all" | "done" | "remarks" | "notes";

const work = JSON.parse(document.getElementById("work")?.textContent ?? "{}") as PageWork;
const checker = new Checker(work);
const storeName = `fond-ledger ${work.id}`;
const done = new Map<string, Done>(stored());
const checked = new Map<string, Checked>();

let filter: Filter = "open";
let search = "";
let shown: readonly PageEntry[] = [];
let current: PageEntry | undefined;
let fields: {
  readonly unit: PageEntry["units"][number];
  readonly field: Field;
  readonly preview: HTMLElement;
}[] = [];
let focused: Field | undefined;
let checking: ReturnType<typeof setTimeout> | undefined;

/** What the browser has kept; nothing where it keeps nothing for pages of its own disk. */
function stored(): [string, Done][] {
  try {
    return work.entries.flatMap(({ id }): [string, Done][] => {
      const text = localStorage.getItem(`${storeName} ${id}`);
      return text === null ? [] : [[id, JSON.parse(text) as Done]];
    });
  } catch {
    return [];
  }
}

/** Keeps what was done for an entry: each by itself, so that no keystroke waits for all. */
function keep({ id }: PageEntry): void {
  try {
    localStorage.setItem(`${storeName} ${id}`, JSON.stringify(done.get(id)));
    say("");
  } catch {
    say("This browser keeps nothing for this page: save the file before you close it.");
  }
}

const main = document.getElementById("page") as HTMLElement;
const status = make("span", { className: "dim" });
status.setAttribute("role", "status");
const bar = make("progress", { max: work.entries.length });
bar.setAttribute("aria-label", "Texts done");
const count = make("span");
const list = virtualList<PageEntry>({
  label: "Texts",
  height: 54,
  draw(entry, row) {
    const stand = standOf(entry);
    const words = { done: "done", error: "has an error", part: "not complete", open: "to do" }[stand];
    row.classList.add(stand);
    row.append(
      make(
        "b",
        {},
        `${entry.key} · ${entry.what === "stale" && stand === "open" ? "source changed" : words}`,
      ),
      make(
        "span",
        { lang: work.source, dir: work.sourceDirection },
        (entry.units[0]?.source ?? "").replace(/\\([\\{}<>])/g, "$1"),
      ),
    );
  },
  open(entry) {
    open(entry, false);
  },
  enter: () => fields[0]?.field.element.focus(),
});
list.element.id = "list";
const editor = make("section", { id: "editor" });
editor.setAttribute("aria-label", "Translation");
const box = make("input", { type: "search", placeholder: "Search texts and keys", id: "search" });
box.setAttribute("aria-label", "Search texts and keys");
const choose = make("select", { id: "filter" });
choose.setAttribute("aria-label", "Which texts");
for (const [value, label] of [
  ["open", "To do"],
  ["all", "All"],
  ["done", "Done"],
  ["remarks", "With remarks"],
  ["notes", "With notes"],
] as const)
  choose.append(make("option", { value }, label));

function say(text: string): void {
  status.textContent = text;
}

/** The texts of an entry as they are now. */
function textsOf(entry: PageEntry): readonly (readonly Inline[] | undefined)[] {
  const own = done.get(entry.id)?.texts ?? {};
  return entry.units.map(({ id, target }) => inlinesOf(own[id] ?? target));
}

function checkOf(entry: PageEntry): Checked {
  const known = checked.get(entry.id);
  if (known) return known;
  const result = checker.check(entry, textsOf(entry));
  checked.set(entry.id, result);
  return result;
}

/** How far an entry is: what the translator has done, and what came with it. */
function standOf(entry: PageEntry): "done" | "error" | "part" | "open" {
  const own = done.get(entry.id);
  if (!own) return entry.what === "done" ? "done" : "open";
  const result = checkOf(entry);
  if (result.isEmpty) return "open";
  if (result.remarks.some(({ level }) => level === "error")) return "error";
  if (!result.isComplete) return "part";
  return isTouched(entry, own) || own.state !== undefined ? "done" : "open";
}

function isTouched(entry: PageEntry, own: Done): boolean {
  return entry.units.some(({ id, target }) => {
    const text = own.texts[id];
    return text !== undefined && (target === undefined || text !== target);
  });
}

function fits(entry: PageEntry): boolean {
  const stand = standOf(entry);
  const isMeant =
    filter === "all" ||
    (filter === "open" && stand !== "done") ||
    (filter === "done" && stand === "done") ||
    (filter === "notes" && (done.get(entry.id)?.note ?? "") !== "") ||
    (filter === "remarks" && done.has(entry.id) && checkOf(entry).remarks.length > 0);
  if (!isMeant || search === "") return isMeant;
  const own = done.get(entry.id)?.texts ?? {};
  return [
    entry.key,
    ...entry.units.flatMap(({ id, source, target }) => [source, own[id] ?? target ?? ""]),
  ].some((text) => text.toLocaleLowerCase().includes(search));
}

function refresh(isSame = false): void {
  shown = work.entries.filter(fits);
  drawProgress();
  list.show(shown, isSame);
}

function drawProgress(): void {
  const finished = work.entries.filter((entry) => standOf(entry) === "done").length;
  bar.value = finished;
  count.textContent = `${finished} of ${work.entries.length} done`;
}

function open(entry: PageEntry, focus = true): void {
  settle();
  current = entry;
  main.classList.add("editing");
  drawEditor(entry);
  list.select(entry);
  if (focus) fields[0]?.field.element.focus();
}

function drawEditor(entry: PageEntry): void {
  const back = make("button", { id: "back", type: "button" }, "← All texts");
  back.addEventListener("click", () => {
    settle();
    main.classList.remove("editing");
    refresh();
  });
  const about = make("ul", { className: "about" });
  for (const { kind, text } of entry.about) {
    const label =
      { description: "", limit: "", term: "Term: ", used: "In the program: ", raw: "" }[kind] ?? "";
    about.append(make("li", {}, label, kind === "used" ? make("code", {}, text) : text));
  }
  const parts: Node[] = [back, make("h2", {}, entry.key), about];
  if (entry.change) {
    const change = make("p", { className: "change" }, "The source text has changed: ");
    for (const { text, kind } of entry.change)
      change.append(kind === "same" ? text : make(kind === "removed" ? "del" : "ins", {}, text));
    parts.push(change);
  }
  const own = done.get(entry.id);
  fields = entry.units.map((unit) => {
    const label = `Translation into ${work.names.target}${unit.form === "" ? "" : `, ${unit.form}`}`;
    const field = makeField({
      codes: entry.codes,
      locale: work.target,
      direction: work.direction,
      label,
      changed: () => {
        changed(entry);
      },
    });
    field.write(inlinesOf(own?.texts[unit.id] ?? unit.target) ?? []);
    field.element.addEventListener("focus", () => (focused = field));
    const source = make("p", { className: "source", lang: work.source, dir: work.sourceDirection });
    source.append(chipsOf(inlinesOf(unit.source) ?? [], entry.codes));
    const preview = make("p", { className: "preview", lang: work.target, dir: work.direction });
    const block = make("div", { className: "unit" });
    if (unit.form !== "") block.append(make("h3", {}, unit.form));
    block.append(source, field.element);
    const ids = Object.keys(entry.codes);
    if (ids.length > 0) {
      const buttons = ids.map((id, index) => {
        const { open: look = id, close } = entry.codes[id] ?? {};
        const button = make(
          "button",
          { type: "button", title: `Alt+${index + 1}` },
          close === undefined ? look : `${look}…${close}`,
        );
        button.addEventListener("mousedown", (event) => {
          event.preventDefault();
        });
        button.addEventListener("click", () => {
          field.insert(id);
        });
        return button;
      });
      block.append(make("div", { className: "insert" }, "Insert:", ...buttons));
    }
    block.append(preview);
    parts.push(block);
    return { unit, field, preview };
  });
  const remarks = make("ul", { className: "remarks", id: "remarks" });
  remarks.setAttribute("aria-live", "polite");
  const note = make("textarea", {
    id: "note",
    rows: 2,
    placeholder: "A question or note for the developers",
    value: own?.note ?? "",
  });
  note.setAttribute("aria-label", "Question or note for the developers");
  note.addEventListener("input", () => {
    doneOf(entry).note = note.value;
    keep(entry);
  });
  const states = make("select", { id: "state" });
  states.setAttribute("aria-label", "State");
  for (const state of ["translated", "reviewed", "final"] as const)
    states.append(make("option", { value: state }, state));
  states.value = own?.state ?? (entry.state === "initial" ? "translated" : entry.state);
  states.addEventListener("change", () => {
    doneOf(entry).state = states.value as NonNullable<Done["state"]>;
    keep(entry);
    drawProgress();
    list.redraw();
  });
  const fits = make("button", { type: "button", id: "confirm" }, "It is right as it is");
  fits.title = "Says that the translation that is there still fits";
  fits.hidden = !entry.units.every(({ target }) => target !== undefined) || entry.what === "done";
  fits.addEventListener("click", () => {
    const mine = doneOf(entry);
    for (const { unit, field } of fields) mine.texts[unit.id] = inlineText(field.read() ?? []);
    mine.state = states.value as NonNullable<Done["state"]>;
    finish(entry);
    step(1, true);
  });
  const next = make(
    "button",
    { className: "main", type: "button", id: "next", title: "Ctrl+Enter" },
    "Next to do",
  );
  next.addEventListener("click", () => {
    step(1, true);
  });
  parts.push(remarks, note, make("p", { className: "foot" }, states, fits, next));
  editor.replaceChildren(...parts);
  editor.scrollTop = 0;
  drawRemarks(entry);
}

function doneOf(entry: PageEntry): Done {
  const there = done.get(entry.id) ?? { texts: {} };
  done.set(entry.id, there);
  return there;
}

/** Something was typed: it is kept at once, and checked when the typing stops. */
function changed(entry: PageEntry): void {
  clearTimeout(checking);
  take(entry);
  checking = setTimeout(() => {
    drawRemarks(entry, !areWhole());
    drawProgress();
    list.redraw();
  }, 150);
}

/** Whether no field has an element that is open. */
function areWhole(): boolean {
  return fields.every(({ field }) => field.read() !== undefined);
}

/** Takes what is in the fields. */
function take(entry: PageEntry): void {
  const before = done.get(entry.id)?.texts ?? {};
  let isChanged = false;
  for (const { unit, field } of fields) {
    const text = field.read();
    if (!text) continue;
    const was = inlinesOf(before[unit.id] ?? unit.target) ?? [];
    if (sameInlines(text, was)) continue;
    isChanged = true;
    doneOf(entry).texts[unit.id] = inlineText(text);
  }
  if (isChanged) finish(entry);
}

/** Takes what is in the fields before anything else is opened or saved. */
function settle(): void {
  clearTimeout(checking);
  if (!current) return;
  take(current);
  drawRemarks(current, !areWhole());
}

function finish(entry: PageEntry): void {
  checked.delete(entry.id);
  keep(entry);
  if (work.live) sendSoon(entry);
}

/** What the project said of an entry when it was last saved. */
const answers = new Map<
  string,
  readonly { readonly message: string; readonly remedy: string; readonly messageId?: string }[]
>();
const waiting = new Map<string, ReturnType<typeof setTimeout>>();

/** Sends an entry to the project once nobody has typed for a moment, where it is whole and in order. */
function sendSoon(entry: PageEntry): void {
  clearTimeout(waiting.get(entry.id));
  waiting.set(
    entry.id,
    setTimeout(() => {
      waiting.delete(entry.id);
      if (checkOf(entry).isComplete) void sendEntry(entry);
    }, 600),
  );
}

/** How often an entry is sent again while others write, and how long is waited before, in ms. */
const mostTries = 5;
const pause = 400;

async function sendEntry(entry: PageEntry, prefer?: "file" | "project", tries = 1): Promise<void> {
  if (!work.live) return;
  const body = { ...JSON.parse(workOf([entry])), ...(prefer && { prefer }) } as object;
  try {
    const response = await fetch(work.live.save, { method: "POST", body: JSON.stringify(body) });
    if (response.status === 409 && tries < mostTries) {
      // Somebody writes at this moment, and what was typed since is sent with it.
      await new Promise((resolve) => setTimeout(resolve, pause));
      return sendEntry(entry, prefer, tries + 1);
    }
    const { problems, entries = [] } = (await response.json()) as {
      problems: { message: string; remedy: string; messageId?: string }[];
      entries?: PageEntry[];
    };
    const [now] = entries;
    answers.set(entry.id, problems);
    if (now && problems.length === 0) {
      // From here on, what is in the catalog is what the next change is made from.
      Object.assign(entry, now);
      done.delete(entry.id);
      forget(entry);
      checked.delete(entry.id);
      if (prefer === "project" && current === entry) drawEditor(entry);
    }
    say(problems.length === 0 ? `Written: ${entry.key}` : `Not written: ${entry.key}`);
  } catch {
    say("The server does not answer; what you type is kept in this browser.");
  }
  drawProgress();
  list.redraw();
  drawRemarks(entry);
}

function forget({ id }: PageEntry): void {
  try {
    localStorage.removeItem(`${storeName} ${id}`);
  } catch {
    // Nothing was kept.
  }
}

function drawRemarks(entry: PageEntry, isTorn = false): void {
  const place = document.getElementById("remarks");
  if (!place || entry !== current) return;
  const own = textsOf(entry);
  const lacking = entry.units.filter((_, index) => !isFilled(own[index] ?? []));
  const remarks = isTorn
    ? [
        {
          level: "error" as const,
          message: "an element is not closed",
          remedy: "delete its chip, and insert it again",
        },
      ]
    : [...checkOf(entry).remarks];
  if (!isTorn && lacking.length > 0 && lacking.length < entry.units.length)
    remarks.push({
      level: "info",
      message: `still empty: ${lacking.map(({ form }) => form).join("; ")}`,
      remedy: "fill in every form",
    });
  const said = (answers.get(entry.id) ?? []).map(({ message, remedy, messageId }) => {
    const line = make(
      "li",
      { className: "error" },
      make("b", {}, "not written"),
      ` ${message}`,
      make("small", {}, remedy),
    );
    if (messageId === "intake/edited" || messageId === "intake/source-changed") {
      const button = (label: string, prefer: "file" | "project") => {
        const one = make("button", { type: "button" }, label);
        one.addEventListener("click", () => void sendEntry(entry, prefer));
        return one;
      };
      line.append(button("Take mine", "file"), " ", button("Keep theirs", "project"));
    }
    return line;
  });
  place.replaceChildren(
    ...said,
    ...remarks.map(({ level, message, remedy }) =>
      make("li", { className: level }, make("b", {}, level), ` ${message}`, make("small", {}, remedy)),
    ),
  );
  for (const { unit, field, preview } of fields)
    preview.textContent = sampleOf(unit, field.read() ?? [], entry);
}

/** A text as users may read it: the number of its form filled in, other values by their names. */
function sampleOf(unit: PageEntry["units"][number], text: readonly Inline[], entry: PageEntry): string {
  if (Object.keys(entry.codes).length === 0 || !isFilled(text)) return "";
  const numbers = new Map(
    unit.choices.map(({ name, selector, numbers: own }) => {
      const number = selector.startsWith("=")
        ? selector.slice(1)
        : (own?.split(",")[0]?.replace("…", "").trim() ?? "");
      return [name, number === "" ? "" : Number(number).toLocaleString(work.target)];
    }),
  );
  const write = (all: readonly Inline[]): string =>
    all
      .map((one) => {
        if (one.kind === "text") return one.value;
        if (one.kind === "pair") return write(one.children);
        return numbers.get(one.id) || `‹${one.id}›`;
      })
      .join("");
  return `“${write(text)}”`;
}

/** Goes to the text before or behind, or to the next that is to do. */
function step(by: number, toDo = false): void {
  settle();
  const all = toDo ? work.entries : shown;
  const at = current ? all.indexOf(current) : -1;
  const wanted = (entry: PageEntry | undefined) => entry && (!toDo || standOf(entry) !== "done");
  for (let count = 1; count <= all.length; count++) {
    const next = all[(at + by * count + all.length * 2) % all.length];
    if (!next || !wanted(next)) continue;
    if (toDo && next === current) break;
    refresh(true);
    open(next);
    return;
  }
  refresh();
  say(toDo ? "All texts are done. Save the file and send it back." : "");
}

/** What was done, as a file that can be taken in. */
function savedWork(): string {
  settle();
  return workOf(work.entries);
}

function workOf(entries: readonly PageEntry[]): string {
  const units = entries.flatMap((entry) => {
    const own = done.get(entry.id);
    if (!own) return [];
    return entry.units.map(({ id, source, target }, index) => ({
      id,
      text: own.texts[id] ?? target ?? "",
      ...(own.state !== undefined && { state: own.state }),
      ...(index === 0 && own.note && { note: own.note }),
      given: source,
      made: entry.made,
    }));
  });
  return JSON.stringify(
    { "fond-ledger": "work 1", source: work.source, target: work.target, units },
    undefined,
    1,
  );
}

function save(): void {
  const url = URL.createObjectURL(new Blob([savedWork()], { type: "application/json" }));
  const link = make("a", { href: url, download: `${work.target}-translated.json` });
  link.click();
  setTimeout(() => {
    URL.revokeObjectURL(url);
  }, 1000);
  say(`Saved as ${link.download}: send this file back.`);
}

/** Takes a file that was saved here, or on another computer. */
async function load(file: File): Promise<void> {
  try {
    const { units } = JSON.parse(await file.text()) as {
      units: { id: string; text?: string; state?: Done["state"]; note?: string }[];
    };
    const byUnit = new Map(units.map((unit) => [unit.id, unit]));
    let taken = 0;
    for (const entry of work.entries) {
      const own = entry.units.flatMap(({ id }) => byUnit.get(id) ?? []);
      const [first] = own;
      if (!first) continue;
      const note = own.find((one) => one.note)?.note;
      done.set(entry.id, {
        texts: Object.fromEntries(own.map(({ id, text = "" }) => [id, text])),
        ...(first.state && { state: first.state }),
        ...(note && { note }),
      });
      keep(entry);
      taken++;
    }
    checked.clear();
    if (current) drawEditor(current);
    refresh();
    say(`${taken} texts opened.`);
  } catch {
    say("This is not a file that this page saved.");
  }
}

function start(): void {
  const saveButton = make(
    "button",
    { className: "main", type: "button", id: "save", title: "Ctrl+S" },
    "Save file",
  );
  saveButton.addEventListener("click", save);
  const picker = make("input", { type: "file", accept: ".json", hidden: true, id: "file" });
  picker.addEventListener("change", () => {
    const [file] = picker.files ?? [];
    if (file) void load(file);
    picker.value = "";
  });
  const openButton = make("button", { type: "button" }, "Open file…");
  openButton.addEventListener("click", () => {
    picker.click();
  });
  box.addEventListener("input", () => {
    search = box.value.trim().toLocaleLowerCase();
    refresh();
  });
  choose.addEventListener("change", () => {
    filter = choose.value as Filter;
    settle();
    refresh();
  });
  document.addEventListener("keydown", (event) => {
    const isCommand = event.ctrlKey || event.metaKey;
    const inText =
      event.target instanceof HTMLElement && event.target.matches("input, textarea, .field, select");
    if (isCommand && event.key === "Enter") step(1, true);
    else if (isCommand && event.key.toLowerCase() === "s") save();
    else if (event.altKey && event.key === "ArrowDown") step(1);
    else if (event.altKey && event.key === "ArrowUp") step(-1);
    else if (event.altKey && /^Digit[1-9]$/.test(event.code) && current && focused) {
      const id = Object.keys(current.codes)[Number(event.code.slice(5)) - 1];
      if (id !== undefined) focused.insert(id);
    } else if (event.key === "/" && !inText) box.focus();
    else return;
    event.preventDefault();
  });
  window.addEventListener("pagehide", settle);
  if (work.live)
    new EventSource(work.live.events).addEventListener("message", ({ data }) => {
      if (data === "changed") say("Files have changed. Load the page again to see what others did.");
    });
  const side = make("nav", { id: "side" }, make("div", { id: "tools" }, box, choose), list.element);
  side.setAttribute("aria-label", "Texts");
  const header = make(
    "header",
    {},
    make("h1", {}, `${work.names.source} → ${work.names.target}`),
    bar,
    count,
    make("span", { className: "grow" }),
    status,
    openButton,
    picker,
    saveButton,
  );
  main.replaceChildren(header, side, editor);
  if (work.entries.every((entry) => standOf(entry) === "done")) filter = "all";
  choose.value = filter;
  refresh();
  const [first] = shown;
  if (first && window.matchMedia("(min-width: 701px)").matches) open(first, false);
  else editor.replaceChildren(make("p", { className: "empty" }, "Choose a text."));
}

start();
