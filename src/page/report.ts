import type { ReportData, ReportFinding, ReportMessage } from "#core/project/report.js";
import { messageReader, type MessageReader } from "#core/message/parse.js";
import { samplesOf } from "#core/message/samples.js";
import type { MessageNode } from "#core/message/model.js";
import type { TextChange } from "#core/plan/words.js";
import { make } from "./make.js";
import { virtualList, type VirtualList } from "./virtual-list.js";

const data = JSON.parse(document.getElementById("report")?.textContent ?? "{}") as ReportData;
const main = document.getElementById("page") as HTMLElement;
const targets = data.locales.slice(1);
const findingsAt = new Map<number, ReportFinding[]>();
for (const finding of data.findings) {
  if (finding.at === undefined) continue;
  const all = findingsAt.get(finding.at) ?? [];
  findingsAt.set(finding.at, all);
  all.push(finding);
}

const percent = (share: number) => `${(Math.floor(share * 1000) / 10).toFixed(1)} %`;
const colors = ["#0b7285", "#b3541e", "#6741d9", "#2b8a3e", "#c2255c", "#5c940d", "#1864ab", "#862e9c"];

const lists: VirtualList<number>[] = [];
let messageList: VirtualList<number> | undefined;

const tabs = [
  { id: "overview", name: "Overview", section: overview() },
  { id: "findings", name: `Findings (${data.findings.length})`, section: findingsSection() },
  { id: "messages", name: `Messages (${data.messages.length})`, section: messagesSection() },
];

function overview(): HTMLElement {
  const section = make("section");
  const reasons = (all: ReportData["verdict"]["against"], kind = "") =>
    make(
      "ul",
      { className: `reasons ${kind}` },
      ...all.map(({ message, remedy }) => make("li", {}, message, make("br"), make("code", {}, remedy))),
    );
  if (data.verdict.against.length > 0)
    section.append(make("h2", {}, "What stands against it"), reasons(data.verdict.against));
  if (data.verdict.told.length > 0)
    section.append(make("h2", {}, "Told only"), reasons(data.verdict.told, "told"));
  section.append(make("h2", {}, "Share translated"), make("div", { className: "wide" }, heatTable()));
  const words = targets.map((_, index) =>
    data.rows.reduce((sum, row) => sum + (row.cells[index]?.words ?? 0), 0),
  );
  const most = Math.max(...words, 1);
  section.append(
    make("h2", {}, "Words to do"),
    make(
      "div",
      { className: "bars" },
      ...targets.flatMap(({ name }, index) => {
        const fill = make("i");
        fill.style.width = `${((words[index] ?? 0) / most) * 100}%`;
        return [
          make("span", {}, name),
          make("div", { className: "bar" }, fill),
          make("span", {}, String(words[index] ?? 0)),
        ];
      }),
    ),
  );
  if (data.trend.length > 1)
    section.append(make("h2", {}, "Over the last commits"), make("div", { className: "wide" }, trendPlot()));
  return section;
}

function heatTable(): HTMLElement {
  const head = make("tr", {}, make("th", { scope: "col" }, "Book"), make("th", { scope: "col" }, "Keys"));
  for (const { tag, name } of targets) head.append(make("th", { scope: "col", title: name }, tag));
  const rows = data.rows.map(({ book, namespace, keys, cells }) => {
    const row = make(
      "tr",
      {},
      make("th", { scope: "row" }, namespace === undefined ? book : `${book} · ${namespace}`),
      make("td", {}, String(keys)),
    );
    for (const { share, words, stale } of cells) {
      const cell = make(
        "td",
        {},
        percent(share),
        make("small", {}, words === 0 ? "" : `${words} words${stale > 0 ? `, ${stale} stale` : ""}`),
      );
      // From red to green, and readable on light and dark: the number says the same.
      cell.style.background = `hsl(${Math.round(share * share * 130)} 70% 50% / 0.22)`;
      row.append(cell);
    }
    return row;
  });
  return make("table", { className: "heat" }, make("thead", {}, head), make("tbody", {}, ...rows));
}

/** The shares over time as lines, each named at its end. */
function trendPlot(): SVGElement {
  const [width, height, left, right, top, bottom] = [720, 220, 44, 120, 12, 28];
  const svg = element("svg", {
    viewBox: `0 0 ${width} ${height}`,
    width: String(width),
    role: "img",
    class: "trend",
  });
  svg.append(
    element(
      "title",
      {},
      `Share translated, from ${data.trend[0]?.date ?? ""} to ${data.trend.at(-1)?.date ?? ""}`,
    ),
  );
  const least = Math.max(
    0,
    Math.floor(Math.min(...data.trend.flatMap(({ shares }) => shares)) * 10) / 10 - 0.1,
  );
  const x = (at: number) => left + (at / (data.trend.length - 1)) * (width - left - right);
  const y = (share: number) => top + (1 - (share - least) / (1 - least || 1)) * (height - top - bottom);
  for (const share of [least, (1 + least) / 2, 1]) {
    svg.append(
      element("line", {
        x1: String(left),
        x2: String(width - right),
        y1: String(y(share)),
        y2: String(y(share)),
        class: "axis",
      }),
    );
    svg.append(
      element(
        "text",
        { x: String(left - 6), y: String(y(share) + 4), "text-anchor": "end" },
        `${Math.round(share * 100)} %`,
      ),
    );
  }
  for (const at of [0, data.trend.length - 1])
    svg.append(
      element(
        "text",
        { x: String(x(at)), y: String(height - 8), "text-anchor": at === 0 ? "start" : "end" },
        data.trend[at]?.date ?? "",
      ),
    );
  // Lines that end at one height have their names below each other.
  const ends = targets
    .map((locale, index) => ({ locale, index, at: y(data.trend.at(-1)?.shares[index] ?? 0) }))
    .sort((a, b) => a.at - b.at);
  let last = -Infinity;
  for (const { locale, index, at } of ends) {
    const color = colors[index % colors.length] ?? "";
    const path = data.trend
      .map(
        ({ shares }, point) =>
          `${point === 0 ? "M" : "L"}${x(point).toFixed(1)} ${y(shares[index] ?? 0).toFixed(1)}`,
      )
      .join("");
    svg.append(element("path", { d: path, stroke: color }));
    last = Math.max(at + 4, last + 14);
    svg.append(
      element("circle", { cx: String(width - right + 10), cy: String(last - 4), r: "4", fill: color }),
    );
    svg.append(element("text", { x: String(width - right + 20), y: String(last) }, locale.name));
  }
  return svg;
}

function element(name: string, attributes: Readonly<Record<string, string>>, text = ""): SVGElement {
  const made = document.createElementNS("http://www.w3.org/2000/svg", name);
  for (const [key, value] of Object.entries(attributes)) made.setAttribute(key, value);
  made.textContent = text;
  return made;
}

function chooser(label: string, all: string, values: readonly string[]): HTMLSelectElement {
  const select = make(
    "select",
    {},
    make("option", { value: "" }, all),
    ...values.map((value) => make("option", { value }, value)),
  );
  select.setAttribute("aria-label", label);
  return select;
}

function searchBox(label: string): HTMLInputElement {
  const box = make("input", { type: "search", placeholder: label });
  box.setAttribute("aria-label", label);
  return box;
}

function findingsSection(): HTMLElement {
  const box = searchBox("Search findings");
  const severity = chooser("Severity", "All severities", ["error", "warning", "info"]);
  const rule = chooser("Rule", "All rules", [...new Set(data.findings.map((one) => one.rule))].sort());
  const locale = chooser(
    "Locale",
    "All locales",
    data.locales.map(({ tag }) => tag),
  );
  const file = chooser("File", "All files", [...new Set(data.findings.map((one) => one.file))].sort());
  const count = make("span", { className: "dim" });
  count.setAttribute("role", "status");
  const texts = data.findings.map((one) =>
    `${one.message} ${one.remedy} ${one.file} ${one.at === undefined ? "" : (data.messages[one.at]?.key ?? "")}`.toLocaleLowerCase(),
  );
  const list = virtualList<number>({
    label: "Findings",
    height: 78,
    draw(at, row) {
      const one = data.findings[at];
      if (!one) return;
      row.classList.add(one.severity);
      const key = one.at === undefined ? "" : ` · ${data.messages[one.at]?.key ?? ""}`;
      row.append(
        make("span", {}, make("b", {}, one.severity), ` ${one.message}`),
        make("span", { className: "dim" }, one.remedy),
        make(
          "small",
          {},
          `${one.rule}  ${one.file}:${one.line}${one.locale === undefined ? "" : `  ${one.locale}`}${key}`,
        ),
      );
    },
    open(at) {
      const place = data.findings[at]?.at;
      if (place !== undefined) location.hash = linkOf(data.messages[place]);
    },
  });
  const refresh = () => {
    const wanted = box.value.trim().toLocaleLowerCase();
    const found: number[] = [];
    for (const [at, one] of data.findings.entries())
      if (
        (severity.value === "" || one.severity === severity.value) &&
        (rule.value === "" || one.rule === rule.value) &&
        (locale.value === "" || one.locale === locale.value) &&
        (file.value === "" || one.file === file.value) &&
        (wanted === "" || texts[at]?.includes(wanted))
      )
        found.push(at);
    list.show(found);
    count.textContent = `${found.length} of ${data.findings.length}`;
  };
  for (const one of [severity, rule, locale, file]) one.addEventListener("change", refresh);
  box.addEventListener("input", refresh);
  refresh();
  lists.push(list);
  return make(
    "section",
    {},
    make("div", { className: "tools" }, box, severity, rule, locale, file, count),
    list.element,
  );
}

function linkOf(message: ReportMessage | undefined): string {
  return message
    ? `#message=${encodeURIComponent(`${data.books[message.book]?.name ?? ""}/${message.key}`)}`
    : "#messages";
}

function messagesSection(): HTMLElement {
  const box = searchBox("Search texts and keys");
  const state = chooser("State", "All states", [
    "missing",
    "initial",
    "stale",
    "translated",
    "reviewed",
    "final",
    "with findings",
  ]);
  const locale = chooser(
    "Locale",
    "Any locale",
    targets.map(({ tag }) => tag),
  );
  const count = make("span", { className: "dim" });
  count.setAttribute("role", "status");
  // Letters are made small when somebody first searches.
  let texts: readonly string[] | undefined;
  const list = virtualList<number>({
    label: "Messages",
    height: 52,
    draw(at, row) {
      const one = data.messages[at];
      if (one) row.append(make("small", {}, one.key), make("span", { lang: data.source }, shown(one.source)));
    },
    open(at) {
      history.replaceState(null, "", linkOf(data.messages[at]));
      drawMessage(at);
    },
  });
  const refresh = () => {
    const wanted = box.value.trim().toLocaleLowerCase();
    if (wanted !== "")
      texts ??= data.messages.map((one) =>
        [one.key, one.source, ...one.texts.map(([text]) => text ?? "")].join("\n").toLocaleLowerCase(),
      );
    const at = targets.findIndex(({ tag }) => tag === locale.value);
    const found: number[] = [];
    for (const [index, one] of data.messages.entries()) {
      const states = at < 0 ? one.texts : one.texts.slice(at, at + 1);
      const isMeant =
        state.value === "" ||
        (state.value === "with findings"
          ? findingsAt.has(index)
          : states.some(([, own]) => own === state.value));
      if (isMeant && (wanted === "" || texts?.[index]?.includes(wanted))) found.push(index);
    }
    list.show(found);
    count.textContent = `${found.length} of ${data.messages.length}`;
  };
  for (const one of [state, locale]) one.addEventListener("change", refresh);
  box.addEventListener("input", refresh);
  refresh();
  lists.push(list);
  messageList = list;
  return make(
    "section",
    { className: "messages" },
    make("div", { className: "tools" }, box, state, locale, count),
    make("div", { className: "split" }, list.element, detail()),
  );
}

/** A text for one line: joined forms with their categories. */
function shown(text: string): string {
  return text.replace(/\uFDD0(\w+)\uFDD1/g, " $1: ").trim();
}

function detail(): HTMLElement {
  const place = make(
    "div",
    { className: "detail", id: "detail" },
    make("p", { className: "empty" }, "Choose a message."),
  );
  place.setAttribute("aria-live", "polite");
  return place;
}

const readers = new Map<number, MessageReader>();
function readerOf(book: number): MessageReader | undefined {
  const config = data.books[book];
  if (!config) return undefined;
  const there = readers.get(book) ?? messageReader(config);
  readers.set(book, there);
  return there;
}

function drawMessage(at: number): void {
  const message = data.messages[at];
  const place = document.getElementById("detail");
  const reader = message && readerOf(message.book);
  if (!message || !place || !reader) return;
  const rows = [
    textRow(data.locales[0], message.source, "source", undefined, message, reader),
    ...message.texts.map(([text, state, changes], index) =>
      textRow(targets[index], text, state, changes, message, reader),
    ),
  ];
  const findings = findingsAt.get(at) ?? [];
  place.replaceChildren(
    make("h3", { id: "message-key", tabIndex: -1 }, message.key),
    ...(message.about === undefined ? [] : [make("p", { className: "dim" }, message.about)]),
    make("table", {}, make("tbody", {}, ...rows)),
    ...(findings.length > 0
      ? [
          make("h2", {}, "Findings"),
          make(
            "ul",
            { className: "reasons" },
            ...findings.map((one) =>
              make(
                "li",
                { className: one.severity },
                make("b", {}, one.severity),
                ` ${one.locale ?? ""}: ${one.message}`,
                make("br"),
                make("code", {}, `${one.remedy}  ${one.file}:${one.line}`),
              ),
            ),
          ),
        ]
      : []),
    make("h2", {}, message.uses.length === 0 ? "Code does not ask for it" : "Code asks for it"),
    ...message.uses.map((use) => make("p", {}, make("code", {}, use))),
  );
}

function textRow(
  locale: ReportData["locales"][number] | undefined,
  text: string | null,
  state: string,
  changes: readonly TextChange[] | undefined,
  message: ReportMessage,
  reader: MessageReader,
): HTMLElement {
  const { tag = "", name = "", direction = "ltr" } = locale ?? {};
  const row = make("tr", { className: state });
  row.append(make("th", { scope: "row", title: name }, tag, make("span", { className: "state" }, state)));
  const cell = make("td", { lang: tag, dir: direction });
  if (text === null) cell.append(make("span", { className: "dim" }, "—"));
  else {
    const read = reader.read(text, tag, message.entryKey);
    cell.append(...(read.isBroken ? [shown(text)] : marked(read.nodes, reader)));
    if (!read.isBroken && read.facts.arguments.size > 0) {
      const source = reader.read(message.source, data.source, message.entryKey);
      const samples = samplesOf(read, source, tag, {}, []).slice(0, 6);
      cell.append(make("ul", { className: "samples" }, ...samples.map((one) => make("li", {}, one.text))));
    }
  }
  if (changes) {
    const shownChanges = changes.map(({ text: words, kind }) =>
      kind === "same" ? words : make(kind === "removed" ? "del" : "ins", {}, words),
    );
    cell.append(make("p", { className: "dim", dir: "ltr" }, "The source has changed: ", ...shownChanges));
  }
  row.append(cell);
  return row;
}

/** A message with its values, tags and choices marked, its words as they are. */
function marked(nodes: readonly MessageNode[], reader: MessageReader): (Node | string)[] {
  return nodes.flatMap((node): (Node | string)[] => {
    if (node.kind === "text") return [node.value];
    if (node.kind === "tag")
      return [
        make("mark", { dir: "ltr" }, `<${node.name}${node.selfClosing ? "/" : ""}>`),
        ...marked(node.children, reader),
        ...(node.selfClosing ? [] : [make("mark", { dir: "ltr" }, `</${node.name}>`)]),
      ];
    if (node.kind === "plural" || node.kind === "select")
      return node.branches.flatMap(({ selector, nodes: inner }) => [
        make(
          "div",
          {},
          make("mark", { dir: "ltr" }, `${node.name} ${selector}`),
          " ",
          ...marked(inner, reader),
        ),
      ]);
    return [make("mark", { dir: "ltr" }, node.kind === "count" ? "#" : reader.print([node]))];
  });
}

const buttons = tabs.map(({ id, name, section }) => {
  const button = make("button", { type: "button", id: `tab-${id}` }, name);
  button.setAttribute("role", "tab");
  button.setAttribute("aria-controls", id);
  section.id = id;
  section.setAttribute("role", "tabpanel");
  section.setAttribute("aria-labelledby", button.id);
  button.addEventListener("click", () => {
    history.replaceState(null, "", `#${id}`);
    choose(id);
  });
  return button;
});

function choose(wanted: string): void {
  for (const [index, { id, section }] of tabs.entries()) {
    section.hidden = id !== wanted;
    buttons[index]?.setAttribute("aria-selected", String(id === wanted));
    if (buttons[index]) buttons[index].tabIndex = id === wanted ? 0 : -1;
  }
  for (const list of lists) list.redraw();
}

/** Shows what the address names: a part of the page, or a message. */
function follow(): void {
  const hash = decodeURIComponent(location.hash.slice(1));
  if (!hash.startsWith("message=")) {
    choose(tabs.some(({ id }) => id === hash) ? hash : "overview");
    return;
  }
  const [, book = "", key = ""] = /^message=([^/]*)\/([^]*)$/.exec(hash) ?? [];
  const at = data.messages.findIndex((one) => one.key === key && data.books[one.book]?.name === book);
  choose("messages");
  if (at < 0) return;
  messageList?.select(at);
  drawMessage(at);
  document.getElementById("message-key")?.focus();
}

const bar = make("nav", {}, ...buttons);
bar.setAttribute("role", "tablist");
bar.addEventListener("keydown", (event) => {
  if (event.key !== "ArrowRight" && event.key !== "ArrowLeft") return;
  const at = buttons.findIndex((button) => button === document.activeElement);
  const next = buttons[(at + (event.key === "ArrowRight" ? 1 : -1) + buttons.length) % buttons.length];
  next?.focus();
  next?.click();
});
document.addEventListener("keydown", (event) => {
  const inText = event.target instanceof HTMLElement && event.target.matches("input, select");
  if (event.key !== "/" || inText || event.ctrlKey || event.metaKey) return;
  event.preventDefault();
  tabs
    .find(({ section }) => !section.hidden)
    ?.section.querySelector<HTMLInputElement>("input")
    ?.focus();
});
if (data.live) {
  // What is looked at stays in the address.
  new EventSource(data.live.events).addEventListener("message", () => {
    location.reload();
  });
}
window.addEventListener("hashchange", follow);
main.replaceChildren(
  make(
    "header",
    {},
    make(
      "h1",
      {},
      "Translations: ",
      data.verdict.ok
        ? make("span", { className: "ready" }, "ready for a release")
        : make("span", { className: "not" }, `not ready, ${data.verdict.against.length} reasons`),
    ),
    make(
      "div",
      { className: "dim" },
      `${data.day} · ${data.locales.length} locales · ${data.messages.length} messages · ${data.findings.length} findings`,
    ),
    bar,
  ),
  ...tabs.map(({ section }) => section),
);
follow();
