import { afterAll, afterEach, beforeEach, describe, expect, test } from "@jest/globals";
import { spawn, type ChildProcess } from "node:child_process";
import { cpSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import {
  createProtocolConnection,
  StreamMessageReader,
  StreamMessageWriter,
  type Diagnostic,
  type ProtocolConnection,
  type WorkspaceEdit,
} from "vscode-languageserver-protocol/node.js";
import { cleanUp, program, root, temporaryProject } from "../support/project.js";

let folder = "";
let child: ChildProcess;
let client: ProtocolConnection;
let diagnostics = new Map<string, readonly Diagnostic[]>();
let told: (() => void) | undefined;

beforeEach(async () => {
  folder = temporaryProject();
  cpSync(join(root, "demo/ferries"), folder, { recursive: true });
  child = spawn(process.execPath, [program, "editor", "--stdio"], { cwd: folder });
  if (!child.stdout || !child.stdin) throw new Error("the server has no streams");
  client = createProtocolConnection(
    new StreamMessageReader(child.stdout),
    new StreamMessageWriter(child.stdin),
  );
  diagnostics = new Map();
  client.onNotification(
    "textDocument/publishDiagnostics",
    ({ uri, diagnostics: found }: { uri: string; diagnostics: Diagnostic[] }) => {
      diagnostics.set(uri.slice(uri.indexOf("/web/") + 1), found);
      told?.();
    },
  );
  client.listen();
  await client.sendRequest("initialize", {
    processId: null,
    rootUri: pathToFileURL(folder).href,
    capabilities: {},
  });
  await client.sendNotification("initialized", {});
});
afterEach(async () => {
  await client.sendRequest("shutdown");
  await client.sendNotification("exit");
  client.dispose();
  child.kill();
});
afterAll(cleanUp);

const uri = (file: string) => pathToFileURL(join(folder, file)).href;
const text = (file: string) => readFileSync(join(folder, file), "utf8");

async function open(file: string, content = text(file)): Promise<void> {
  await client.sendNotification("textDocument/didOpen", {
    textDocument: { uri: uri(file), languageId: "x", version: 1, text: content },
  });
}

/** The place of some words in a file, as the protocol has places. */
function at(file: string, words: string, content = text(file)) {
  const offset = content.indexOf(words);
  const before = content.slice(0, offset).split("\n");
  return {
    textDocument: { uri: uri(file) },
    position: { line: before.length - 1, character: (before.at(-1)?.length ?? 0) + 1 },
  };
}

/** Waits until what is told of a file fits. */
async function toldOf(
  file: string,
  fits: (found: readonly Diagnostic[]) => boolean,
): Promise<readonly Diagnostic[]> {
  for (let count = 0; count < 200; count++) {
    const found = diagnostics.get(file);
    if (found && fits(found)) return found;
    await new Promise<void>((resolve) => {
      told = resolve;
      setTimeout(resolve, 100);
    });
  }
  throw new Error(`${file}: ${JSON.stringify(diagnostics.get(file))}`);
}

const request = <Result>(method: string, params: object) => client.sendRequest<Result>(method, params);

describe("the language server", () => {
  test("tells findings of the project, and of what is typed and not saved", async () => {
    const file = "web/locales/de/search.json";
    const [first] = await toldOf(file, (found) => found.length > 0);
    expect(first).toMatchObject({ code: "argument/unknown", severity: 1, range: { start: { line: 8 } } });
    await open(file, text(file).replace("{anzahl,", "{count,"));
    await toldOf(file, (found) => found.length === 0);
    await open("web/pages/search.tsx");
    const found = await toldOf("web/pages/search.tsx", (all) =>
      all.some(({ code }) => code === "hard-coded"),
    );
    expect(found.some(({ message }) => message.includes("Island or quay"))).toBe(true);
  }, 60_000);

  test("shows a key in all locales, its texts beside it, and goes between code and catalogs", async () => {
    const file = "web/pages/search.tsx";
    await open(file);
    const hover = await request<{ contents: { value: string } }>(
      "textDocument/hover",
      at(file, "search.results"),
    );
    expect(hover.contents.value).toContain("| de | reviewed |");
    const [definition] = await request<{ uri: string; range: { start: { line: number } } }[]>(
      "textDocument/definition",
      at(file, "search.results"),
    );
    expect(definition).toMatchObject({
      uri: uri("web/locales/en/search.json"),
      range: { start: { line: 8 } },
    });
    const references = await request<{ uri: string }[]>("textDocument/references", {
      ...at(file, "search.results"),
      context: { includeDeclaration: true },
    });
    expect(references).toHaveLength(7);
    const back = await request<{ uri: string }[]>(
      "textDocument/definition",
      at("web/locales/pl/search.json", '"results"'),
    );
    expect(back.map((one) => one.uri)).toEqual([uri(file)]);
    const hints = await request<{ label: string }[]>("textDocument/inlayHint", {
      textDocument: { uri: uri(file) },
      range: { start: { line: 0, character: 0 }, end: { line: 99, character: 0 } },
    });
    expect(hints.map(({ label }) => label)).toContain("Where to?");
  }, 60_000);

  test("completes keys inside strings, by what is typed", async () => {
    const file = "web/pages/search.tsx";
    const content = `${text(file)}\nconst more = t("search.fo");\n`;
    await open(file, content);
    const place = at(file, 'search.fo")', content);
    place.position.character += 8;
    const { items } = await request<{ items: { label: string; detail: string }[] }>(
      "textDocument/completion",
      place,
    );
    expect(items.map(({ label }) => label)).toEqual([
      "search.form.from",
      "search.form.to",
      "search.form.date",
      "search.form.submit",
    ]);
    expect(items[0]?.detail).toBe("From");
  }, 60_000);

  test("renames a key in code and all catalogs", async () => {
    const edit = await request<WorkspaceEdit>("textDocument/rename", {
      ...at("web/pages/search.tsx", "search.title"),
      newName: "search.heading",
    });
    const files = Object.keys(edit.changes ?? {}).map((one) => one.slice(one.indexOf("/web/") + 1));
    expect(files).toContain("web/pages/search.tsx");
    expect(files.filter((one) => one.endsWith("search.json"))).toHaveLength(6);
  }, 60_000);

  test("offers repairs and extractions as edits", async () => {
    const catalog = "web/locales/ja/passengers.json";
    const [finding] = await toldOf(catalog, (found) => found.length > 0);
    if (!finding) throw new Error("there is no finding");
    const fixes = await request<{ title: string; edit: WorkspaceEdit }[]>("textDocument/codeAction", {
      textDocument: { uri: uri(catalog) },
      range: finding.range,
      context: { diagnostics: [finding] },
    });
    expect(fixes.some(({ edit }) => edit.changes?.[uri(catalog)] !== undefined)).toBe(true);
    const file = "web/pages/search.tsx";
    await open(file);
    const all = await toldOf(file, (found) =>
      found.some(({ message }) => message.includes("Island or quay")),
    );
    const hardCoded = all.find(({ message }) => message.includes("Island or quay"));
    if (!hardCoded) throw new Error("there is no text");
    const actions = await request<{ title: string; edit: WorkspaceEdit }[]>("textDocument/codeAction", {
      textDocument: { uri: uri(file) },
      range: hardCoded.range,
      context: { diagnostics: [hardCoded] },
    });
    const extract = actions.find(({ title }) => title.startsWith("Extract as"));
    expect(extract?.title).toBe('Extract as "search.islandQuay"');
    const [change] = extract?.edit.changes?.[uri(file)] ?? [];
    expect(change?.newText).toContain('t("search.islandQuay")');
    expect(change?.newText).toContain("Swap the two islands");
  }, 60_000);

  test("completes what a message takes, in code and in a translation", async () => {
    const file = "web/pages/search.tsx";
    const content = `${text(file)}\nconst more = t("search.results", { co`;
    await open(file, content);
    const place = at(file, "{ co", content);
    place.position.character += 3;
    const inCode = await request<{ label: string }[]>("textDocument/completion", place);
    expect(inCode.map(({ label }) => label)).toEqual(["count"]);
    const catalog = "web/locales/de/search.json";
    const typed = text(catalog).replace(/("results": ")/, "$1{c");
    await open(catalog, typed);
    const inText = at(catalog, '"{c', typed);
    inText.position.character += 2;
    const items = await request<{ label: string; textEdit: { newText: string } }[]>(
      "textDocument/completion",
      inText,
    );
    expect(items.map(({ textEdit }) => textEdit.newText)).toEqual(["{count}"]);
  }, 60_000);

  test("offers what is missing, to go on with", async () => {
    const actionsOn = async (file: string, code: string) => {
      const finding = (await toldOf(file, (all) => all.some((one) => one.code === code))).find(
        (one) => one.code === code,
      );
      return request<{ title: string; edit?: WorkspaceEdit; command?: object }[]>("textDocument/codeAction", {
        textDocument: { uri: uri(file) },
        range: finding?.range,
        context: { diagnostics: [finding] },
      });
    };
    const page = "web/pages/search.tsx";
    await open(page, `${text(page)}\nexport const more = () => t("search.newBoats");\n`);
    const [adds] = await actionsOn(page, "key/undefined");
    expect(adds?.title).toBe('Add the key "search.newBoats" to the source catalog');
    expect(JSON.stringify(adds?.edit)).toContain('\\"newBoats\\": \\"New boats\\"');
    const polish = "web/locales/pl/search.json";
    await open(polish, text(polish).replace(/ few \{[^{}]*\}/, ""));
    const forms = await actionsOn(polish, "plural/missing-category");
    expect(forms.map(({ title }) => title)).toContain("Add the plural variants that are missing: few");
    const [change] = forms.find(({ title }) => title.includes("few"))?.edit?.changes?.[uri(polish)] ?? [];
    expect(change?.newText).toMatch(/few \{[^{}]+\} other \{/);
    const without = "web/locales/fr/search.json";
    await open(without, text(without).replace(/ {2}"title": .*\n/, ""));
    const missing = await actionsOn(without, "key/missing");
    expect(missing[0]?.title).toBe("Add the text of the source, to be translated");
  }, 60_000);

  test("accepts a finding with a reason that it asks for", async () => {
    client.onRequest(
      "window/showMessageRequest",
      ({ actions }: { actions: { title: string }[] }) => actions[0],
    );
    const applied = new Promise<WorkspaceEdit>((resolve) => {
      client.onRequest("workspace/applyEdit", ({ edit }: { edit: WorkspaceEdit }) => {
        resolve(edit);
        return { applied: true };
      });
    });
    const file = "web/locales/de/search.json";
    const [finding] = await toldOf(file, (found) => found.length > 0);
    const actions = await request<{ title: string; command?: { command: string; arguments: unknown[] } }[]>(
      "textDocument/codeAction",
      { textDocument: { uri: uri(file) }, range: finding?.range, context: { diagnostics: [finding] } },
    );
    const accept = actions.find(({ title }) => title.startsWith("Accept this"));
    await request("workspace/executeCommand", accept?.command ?? {});
    expect(JSON.stringify(await applied)).toContain("It is meant so");
  }, 60_000);

  test("sees what others write", async () => {
    const file = "web/locales/de/search.json";
    await toldOf(file, (found) => found.length > 0);
    writeFileSync(join(folder, file), text(file).replace("{anzahl,", "{count,"));
    await toldOf(file, (found) => found.length === 0);
  }, 60_000);

  test("goes on after a request that makes no sense", async () => {
    await expect(
      request("textDocument/rename", { ...at("web/pages/search.tsx", "search.title"), newName: "" }),
    ).rejects.toThrow();
    expect(
      await request("textDocument/hover", {
        textDocument: { uri: uri("nothing.tsx") },
        position: { line: 5, character: 5 },
      }),
    ).toBeNull();
    expect(await request("textDocument/hover", at("web/pages/search.tsx", "search.title"))).not.toBeNull();
  }, 60_000);
});
