import { relative, sep } from "node:path";
import { fileURLToPath, pathToFileURL } from "node:url";
import {
  CodeActionKind,
  CompletionItemKind,
  createConnection,
  DiagnosticSeverity,
  ProposedFeatures,
  TextDocuments,
  TextDocumentSyncKind,
  type CodeAction,
  type Diagnostic,
  type Location,
  type Range,
  type WorkspaceEdit,
} from "vscode-languageserver/node.js";
import { TextDocument } from "vscode-languageserver-textdocument";
import type { WritableFiles } from "../core/files/files.js";
import type { Finding } from "../core/lint/finding.js";
import { showForms } from "../core/message/forms.js";
import type { Plan } from "../core/plan/plan.js";
import { extractProject } from "../core/project/extract-project.js";
import { fixEdits } from "../core/project/lint-project.js";
import { offerFor } from "../core/project/offers.js";
import { waiverOf, waiverPlan } from "../core/project/waive.js";
import { rekeyProject } from "../core/project/rekey.js";
import type { ReportedLiteral } from "../core/survey/survey.js";
import { shortened } from "../core/text/shorten.js";
import { watchFolder } from "../disk/watch.js";
import { Workspace, type KeyPlace } from "./workspace.js";

/** Milliseconds without typing before the project is checked again. */
const quiet = 250;
/** So many keys are offered at once; typing on narrows them. */
const mostOffered = 300;

const severities = {
  error: DiagnosticSeverity.Error,
  warning: DiagnosticSeverity.Warning,
  info: DiagnosticSeverity.Information,
} as const;

/** The command by which an editor says that a finding is accepted; it is asked for a reason then. */
const acceptCommand = "fond.accept";
const reasons = ["It is meant so", "The translators want it so", "It is for later"] as const;

/** What a place in a file is, as our findings and texts have it: lines and columns from 1, the end behind the last. */
interface Placed {
  readonly line: number;
  readonly column: number;
  readonly endLine: number;
  readonly endColumn: number;
}

/** Serves editors by the Language Server Protocol (3.17) over standard input and output, until they end it. */
export function serveEditor(root: string, files: () => WritableFiles): Promise<void> {
  const connection = createConnection(ProposedFeatures.all, process.stdin, process.stdout);
  const documents = new TextDocuments(TextDocument);
  const workspace = new Workspace(files);
  const fileOf = (uri: string) => relative(root, fileURLToPath(uri)).split(sep).join("/");
  const uriOf = (file: string) => pathToFileURL(`${root}/${file}`).href;
  let findings: readonly Finding[] = [];
  const literals = new Map<string, readonly ReportedLiteral[]>();
  const told = new Set<string>();
  let waiting: ReturnType<typeof setTimeout> | undefined;

  const check = async () => {
    findings = await workspace.findings();
    const byFile = new Map<string, Diagnostic[]>();
    for (const finding of findings) push(byFile, finding.file, diagnosticOf(finding));
    for (const { uri } of documents.all()) {
      const file = fileOf(uri);
      const found = await workspace.literals(file);
      literals.set(file, found);
      for (const literal of found)
        push(byFile, file, {
          range: rangeOf(literal),
          severity: DiagnosticSeverity.Hint,
          source: "fond",
          code: "hard-coded",
          message: `hard-coded text: ${shortened(literal.text)}`,
        });
    }
    for (const file of new Set([...told, ...byFile.keys()]))
      void connection.sendDiagnostics({ uri: uriOf(file), diagnostics: byFile.get(file) ?? [] });
    told.clear();
    for (const file of byFile.keys()) told.add(file);
  };
  const checkSoon = () => {
    clearTimeout(waiting);
    waiting = setTimeout(() => {
      check().catch((error: unknown) => {
        connection.console.error(error instanceof Error ? (error.stack ?? error.message) : String(error));
      });
    }, quiet);
  };

  connection.onInitialize(() => ({
    serverInfo: { name: "fond-ledger" },
    capabilities: {
      textDocumentSync: TextDocumentSyncKind.Incremental,
      hoverProvider: true,
      definitionProvider: true,
      referencesProvider: true,
      completionProvider: { triggerCharacters: ['"', "'", "`", ".", ":", "{"] },
      renameProvider: { prepareProvider: true },
      codeActionProvider: { codeActionKinds: [CodeActionKind.QuickFix, CodeActionKind.RefactorExtract] },
      inlayHintProvider: true,
      executeCommandProvider: { commands: [acceptCommand] },
    },
  }));
  connection.onInitialized(checkSoon);
  documents.onDidChangeContent(({ document }) => {
    workspace.put(fileOf(document.uri), document.getText());
    checkSoon();
  });
  documents.onDidClose(({ document }) => {
    workspace.put(fileOf(document.uri), undefined);
    checkSoon();
  });
  // Not every editor tells what others write, such as version control.
  const watcher = watchFolder(root, (files) => {
    workspace.changed(files);
    checkSoon();
  });
  connection.onDidChangeWatchedFiles(({ changes }) => {
    workspace.changed(changes.map(({ uri }) => fileOf(uri)));
    checkSoon();
  });

  const keyAt = async (uri: string, position: { line: number; character: number }) => {
    const file = fileOf(uri);
    const text = workspace.textOf(file);
    if (text === undefined) return undefined;
    return workspace.keyAt(file, documentOf(uri, text).offsetAt(position));
  };
  const locationOf = (file: string, start: number, end: number): Location | undefined => {
    const text = workspace.textOf(file);
    if (text === undefined) return undefined;
    const document = documentOf(uriOf(file), text);
    return { uri: uriOf(file), range: { start: document.positionAt(start), end: document.positionAt(end) } };
  };
  const catalogPlaces = (place: KeyPlace, isWanted: (locale: string) => boolean) =>
    workspace
      .entriesOf(place)
      .filter(({ catalog }) => isWanted(catalog.locale))
      .flatMap(
        ({ catalog, entry }) => locationOf(catalog.file, entry.keySpan.start, entry.keySpan.end) ?? [],
      );
  const usePlaces = async (place: KeyPlace) =>
    (await workspace.usesOf(place)).flatMap(
      ({ file, place: use }) => locationOf(file, use.start, use.end) ?? [],
    );
  const editOf = ({ changes }: Pick<Plan, "changes">): WorkspaceEdit => {
    const edits = changes.flatMap(({ file, after }) => {
      if (after === undefined) return [];
      const uri = uriOf(file);
      const text = workspace.textOf(file);
      const document = documentOf(uri, text ?? "");
      const range = { start: document.positionAt(0), end: document.positionAt(text?.length ?? 0) };
      return [{ uri, isNew: text === undefined, edits: [{ range, newText: after }] }];
    });
    if (!edits.some(({ isNew }) => isNew))
      return { changes: Object.fromEntries(edits.map(({ uri, edits: own }) => [uri, own])) };
    // A file that is not there yet has to be made first.
    return {
      documentChanges: edits.flatMap(({ uri, isNew, edits: own }) => [
        ...(isNew ? [{ kind: "create" as const, uri, options: { ignoreIfExists: true } }] : []),
        { textDocument: { uri, version: null }, edits: own },
      ]),
    };
  };

  connection.onHover(async ({ textDocument, position }) => {
    const place = await keyAt(textDocument.uri, position);
    const texts = place ? workspace.textsOf(place) : [];
    if (!place || texts.length === 0) return null;
    const rows = texts.map(({ locale, state, text }) => `| ${locale} | ${state} | ${cell(text ?? "—")} |`);
    const value = [`**\`${place.written}\`**`, "", "| | | |", "| --- | --- | --- |", ...rows].join("\n");
    return { contents: { kind: "markdown", value } };
  });
  connection.onDefinition(async ({ textDocument, position }) => {
    const place = await keyAt(textDocument.uri, position);
    const project = workspace.project();
    if (!place || !project) return null;
    // From a catalog one goes to code, and from code to the catalog.
    const isCatalog = workspace.catalogsIn(fileOf(textDocument.uri)).length > 0;
    return isCatalog ? usePlaces(place) : catalogPlaces(place, (locale) => locale === project.config.source);
  });
  connection.onReferences(async ({ textDocument, position }) => {
    const place = await keyAt(textDocument.uri, position);
    return place ? [...(await usePlaces(place)), ...catalogPlaces(place, () => true)] : null;
  });
  connection.onCompletion(({ textDocument, position }) => {
    const file = fileOf(textDocument.uri);
    const text = workspace.textOf(file);
    const project = workspace.project();
    if (text === undefined || !project) return null;
    const document = documentOf(textDocument.uri, text);
    const offset = document.offsetAt(position);
    const values = workspace.argumentsAt(file, offset);
    if (values.length > 0)
      return values.map(({ start, text: written, of }) => ({
        label: written,
        kind: CompletionItemKind.Field,
        detail: shortened(showForms(of), 80),
        textEdit: { range: { start: document.positionAt(start), end: position }, newText: written },
      }));
    const line = text.slice(text.lastIndexOf("\n", offset - 1) + 1, offset);
    const [typed] = /(?<=["'`])[\w.:/-]*$/.exec(line) ?? [];
    if (typed === undefined || workspace.catalogsIn(file).length > 0) return null;
    const range = { start: document.positionAt(offset - typed.length), end: position };
    const items = project.config.books.flatMap((config) => {
      const book = project.book(config);
      return book.catalogsOf(book.sourceLocale).flatMap(({ namespace, byKey }) =>
        [...byKey.values()].flatMap((entry) => {
          const key = book.codeKey(namespace, entry.key);
          return key.startsWith(typed)
            ? [
                {
                  label: key,
                  kind: CompletionItemKind.Value,
                  detail: shortened(showForms(entry.text), 80),
                  textEdit: { range, newText: key },
                },
              ]
            : [];
        }),
      );
    });
    return { isIncomplete: items.length > mostOffered, items: items.slice(0, mostOffered) };
  });
  connection.onPrepareRename(async ({ textDocument, position }) => {
    const place = await keyAt(textDocument.uri, position);
    if (!place) return null;
    const location = locationOf(fileOf(textDocument.uri), place.start, place.end);
    return location ? { range: location.range, placeholder: place.written } : null;
  });
  connection.onRenameRequest(async ({ textDocument, position, newName }) => {
    const place = await keyAt(textDocument.uri, position);
    const project = workspace.project();
    if (!place || !project) return null;
    const result = await rekeyProject(project, { books: [place.book] }, place.written, newName);
    if (!result.ok) throw new Error(result.message);
    return editOf(result.plan);
  });
  connection.languages.inlayHint.on(async ({ textDocument, range }) => {
    const file = fileOf(textDocument.uri);
    const text = workspace.textOf(file);
    if (text === undefined || workspace.catalogsIn(file).length > 0) return [];
    const document = documentOf(textDocument.uri, text);
    const [from, to] = [document.offsetAt(range.start), document.offsetAt(range.end)];
    return (await workspace.lookups(file))
      .filter(({ place }) => place.start >= from && place.end <= to)
      .map(({ place, text: source }) => ({
        position: document.positionAt(place.end + 1),
        label: shortened(showForms(source), 40),
        paddingLeft: true,
      }));
  });
  connection.onCodeAction(async ({ textDocument, range, context }) => {
    const file = fileOf(textDocument.uri);
    const project = workspace.project();
    if (!project) return [];
    const actions: CodeAction[] = [];
    const own = findings.filter((one) => one.file === file && overlaps(rangeOf(one), range));
    for (const [finding, edit] of fixEdits(project, own))
      actions.push({
        title: `Fix: ${finding.message}`,
        kind: CodeActionKind.QuickFix,
        diagnostics: context.diagnostics.filter(({ code }) => code === finding.rule),
        edit: { changes: { [textDocument.uri]: [{ range: rangeOf(edit), newText: edit.text }] } },
      });
    for (const finding of own) {
      const diagnostics = context.diagnostics.filter(({ code }) => code === finding.rule);
      const offer = offerFor(project, finding);
      if (offer)
        actions.push({
          title: offer.title,
          kind: CodeActionKind.QuickFix,
          diagnostics,
          edit: editOf(offer),
        });
      // A waiver that is not used is taken away, and not accepted.
      if (finding.rule === "waiver/idle") continue;
      actions.push({
        title: `Accept this, with a reason: ${finding.rule}`,
        kind: CodeActionKind.QuickFix,
        diagnostics,
        command: { title: "Accept", command: acceptCommand, arguments: [finding] },
      });
    }
    const text = literals.get(file)?.find((one) => overlaps(rangeOf(one), range));
    if (text) {
      const scope = { path: (one: string) => one === file };
      const others = literals.get(file)?.filter((one) => one !== text) ?? [];
      const decisions = new Map(
        others.map(({ line, column }) => [`${file}:${line}:${column}`, { skip: true } as const]),
      );
      const plan = await extractProject(project, scope, { decisions });
      if (plan.extracted.length === 1)
        actions.push({
          title: `Extract as "${plan.extracted[0]?.key ?? ""}"`,
          kind: CodeActionKind.RefactorExtract,
          edit: editOf(plan),
        });
    }
    return actions;
  });

  connection.onExecuteCommand(async ({ command, arguments: given = [] }) => {
    const project = workspace.project();
    const finding = findings.find((one) => JSON.stringify(one) === JSON.stringify(given[0]));
    if (command !== acceptCommand || !project || !finding) return;
    const chosen = await connection.window.showInformationMessage(
      `Why is it accepted? ${finding.message}`,
      ...reasons.map((title) => ({ title })),
    );
    if (chosen)
      await connection.workspace.applyEdit(
        editOf(waiverPlan(project, [waiverOf(project, finding, chosen.title)])),
      );
  });

  documents.listen(connection);
  connection.listen();
  return new Promise((resolve) => {
    connection.onExit(() => {
      watcher?.close();
      clearTimeout(waiting);
      resolve();
    });
  });

  function documentOf(uri: string, text: string): TextDocument {
    return documents.get(uri) ?? TextDocument.create(uri, "", 0, text);
  }
}

function push(all: Map<string, Diagnostic[]>, file: string, one: Diagnostic): void {
  const there = all.get(file) ?? [];
  all.set(file, there);
  there.push(one);
}

function diagnosticOf(finding: Finding): Diagnostic {
  const { severity, rule, message, remedy } = finding;
  return {
    range: rangeOf(finding),
    severity: severities[severity],
    source: "fond",
    code: rule,
    message: remedy === undefined || remedy === "" ? message : `${message}\n→ ${remedy}`,
  };
}

function rangeOf({ line, column, endLine, endColumn }: Placed): Range {
  return {
    start: { line: line - 1, character: column - 1 },
    end: { line: endLine - 1, character: endColumn - 1 },
  };
}

function overlaps(one: Range, other: Range): boolean {
  const before = (a: Range["start"], b: Range["start"]) =>
    a.line < b.line || (a.line === b.line && a.character <= b.character);
  return before(one.start, other.end) && before(other.start, one.end);
}

/** A text in a cell of a Markdown table. */
function cell(text: string): string {
  return text.replace(/\s+/g, " ").replace(/[|\\`*_<>[\]]/g, "\\$&");
}
