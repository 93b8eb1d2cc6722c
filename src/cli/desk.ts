import { randomBytes } from "node:crypto";
import { createServer, type IncomingMessage, type ServerResponse } from "node:http";
import type { AddressInfo } from "node:net";
import { entryOnPage, page } from "../core/exchange/carriers/page.js";
import { work } from "../core/exchange/carriers/work.js";
import { notices } from "../core/message/notices.js";
import { applyPlan } from "../core/plan/apply.js";
import { auditFacts, judge } from "../core/project/audit.js";
import { handoffFor } from "../core/project/handoff.js";
import { intakeDocument } from "../core/project/intake.js";
import type { Project } from "../core/project/project.js";
import type { TrendPoint } from "../core/project/trend.js";
import type { WritableFiles } from "../core/files/files.js";
import type { Notice } from "../core/text/wording.js";
import { watchFolder } from "../disk/watch.js";
import { pageParts } from "./page-parts.js";
import { reportPage } from "./report-page.js";
import { today } from "./today.js";

const say = notices("cli/desk", {
  "other-host": {
    message: "this server answers for 127.0.0.1 alone",
    remedy: "use the address that was printed",
  },
  "no-token": { message: "the address lacks its token", remedy: "use the address that was printed" },
  "no-page": { message: "no such page", remedy: "use the address that was printed" },
  "too-long": { message: "the request is too long", remedy: "save fewer texts at once" },
  strange: { message: "the request is not what the page sends", remedy: "load the page again" },
});

/** What the desk serves. */
export interface DeskOptions {
  readonly folder: string;
  /** Opens the project as it is on disk now. */
  readonly open: () => Project;
  readonly files: WritableFiles;
  /** Whether texts can be edited. */
  readonly edit: boolean;
  readonly port: number;
  readonly trend: (project: Project) => readonly TrendPoint[];
}

/** A desk that is open. */
export interface Desk {
  /** The address with its token: whoever has it can read, and edit where that is on. */
  readonly url: string;
  close(): Promise<void>;
}

/** A request has no more than this; in bytes. */
const longestRequest = 5_000_000;

/** Serves the report, and the translators' pages, on the loopback address alone. */
export async function openDesk(options: DeskOptions): Promise<Desk> {
  const token = randomBytes(18).toString("base64url");
  const listeners = new Set<ServerResponse>();
  const desk: DeskState = { options, token, listeners, saved: 0, last: Promise.resolve() };
  const server = createServer((request, response) => {
    answer(desk, request, response).catch((error: unknown) => {
      send(response, 500, "text/plain", error instanceof Error ? error.message : String(error));
    });
  });
  await new Promise<void>((resolve, reject) => {
    server.once("error", reject);
    server.listen(options.port, "127.0.0.1", resolve);
  });
  const watcher = watchFolder(options.folder, () => {
    // Whoever edits knows of texts that were saved here.
    const what = Date.now() - desk.saved < 2000 ? "saved" : "changed";
    for (const listener of listeners) listener.write(`data: ${what}\n\n`);
  });
  const { port } = server.address() as AddressInfo;
  return {
    url: `http://127.0.0.1:${port}/${token}/`,
    async close() {
      watcher?.close();
      for (const listener of listeners) listener.end();
      server.closeAllConnections();
      await new Promise((resolve) => server.close(resolve));
    },
  };
}

interface DeskState {
  readonly options: DeskOptions;
  readonly token: string;
  readonly listeners: Set<ServerResponse>;
  /** When texts were last saved, in milliseconds. */
  saved: number;
  /** What has to end before the next text is saved: each is taken in upon the one before. */
  last: Promise<void>;
}

async function answer(desk: DeskState, request: IncomingMessage, response: ServerResponse): Promise<void> {
  const { options, token, listeners } = desk;
  // A name of somebody else that was made to mean this machine is not answered (DNS rebinding).
  const { host = "", origin } = request.headers;
  if (!/^(?:127\.0\.0\.1|localhost)(?::\d+)?$/.test(host)) {
    refuse(response, 421, say("other-host", {}));
    return;
  }
  const [, given = "", ...rest] = new URL(request.url ?? "/", "http://desk").pathname.split("/");
  if (given !== token) {
    refuse(response, 403, say("no-token", {}));
    return;
  }
  const path = rest.join("/");
  const project = () => options.open();
  if (request.method === "POST") {
    if (origin !== `http://${host}`) refuse(response, 403, say("other-host", {}));
    else if (path === "save" && options.edit) {
      const body = await bodyOf(request);
      if (body === undefined) refuse(response, 413, say("too-long", {}));
      else await (desk.last = desk.last.then(() => save(desk, body, response)));
    } else refuse(response, 404, say("no-page", {}));
    return;
  }
  if (path === "events") {
    response.writeHead(200, { "content-type": "text/event-stream", "cache-control": "no-store" });
    response.write(": open\n\n");
    listeners.add(response);
    response.on("close", () => listeners.delete(response));
    return;
  }
  const [kind, locale = ""] = path.split("/");
  if (path === "") {
    const now = project();
    const facts = await auditFacts(now);
    const edit = options.edit
      ? Object.fromEntries(now.config.targets.map((tag) => [tag, `edit/${encodeURIComponent(tag)}`]))
      : undefined;
    const html = await reportPage(now, facts, judge(facts, now.config), options.trend(now), {
      events: "events",
      ...(edit && { edit }),
    });
    send(response, 200, "text/html", html);
    return;
  }
  const target = decodeURIComponent(locale);
  if (kind === "edit" && options.edit && project().config.targets.includes(target)) {
    const now = project();
    const handoff = await handoffFor(now, {}, target, { all: true });
    const html = [
      ...(page.write?.(handoff, {
        config: now.config,
        ...pageParts("translate"),
        live: { save: "../save", events: "../events" },
      }) ?? []),
    ].join("");
    send(response, 200, "text/html", html);
    return;
  }
  refuse(response, 404, say("no-page", {}));
}

/** The text of a request; undefined for one that is too long. */
async function bodyOf(request: IncomingMessage): Promise<string | undefined> {
  const parts: Buffer[] = [];
  let length = 0;
  for await (const chunk of request as AsyncIterable<Buffer>) {
    length += chunk.length;
    if (length > longestRequest) return undefined;
    parts.push(chunk);
  }
  return Buffer.concat(parts).toString("utf8");
}

/** Takes texts that a page saves into catalogs and ledger, as intake does, and says what each entry is now. */
async function save(desk: DeskState, body: string, response: ServerResponse): Promise<void> {
  const { options } = desk;
  const read = work.read?.({ bytes: () => Buffer.from(body), chunks: () => [body] });
  if (!read?.ok) {
    refuse(response, 400, say("strange", {}));
    return;
  }
  const { prefer } = JSON.parse(body) as { readonly prefer?: unknown };
  const project = options.open();
  const result = await intakeDocument(project, {}, read.document, {
    today: today(),
    file: "page",
    ...((prefer === "file" || prefer === "project") && { prefer }),
  });
  if (!result.ok) {
    refuse(response, 400, result);
    return;
  }
  desk.saved = Date.now();
  const applied =
    result.plan.changes.length > 0 ? applyPlan(options.files, result.plan) : { ok: true as const };
  if (!applied.ok) {
    // Somebody wrote at the same time: nothing is lost, and the page tries again.
    send(
      response,
      409,
      "application/json",
      JSON.stringify({ problems: [{ message: applied.message, remedy: applied.remedy }] }),
    );
    return;
  }
  const ids = new Set(read.document.units.map(({ id }) => id.split("--", 1)[0]));
  const now = await handoffFor(options.open(), {}, result.locale, { all: true });
  send(
    response,
    200,
    "application/json",
    JSON.stringify({
      problems: result.plan.notes.map(({ message, remedy, messageId }) => ({ message, remedy, messageId })),
      entries: now.entries.filter(({ id }) => ids.has(id)).map(entryOnPage),
    }),
  );
}

function refuse(response: ServerResponse, status: number, { message, remedy }: Notice): void {
  send(response, status, "application/json", JSON.stringify({ problems: [{ message, remedy }] }));
}

function send(response: ServerResponse, status: number, type: string, body: string): void {
  response.writeHead(status, {
    "content-type": `${type}; charset=utf-8`,
    "cache-control": "no-store",
    "x-content-type-options": "nosniff",
    "referrer-policy": "no-referrer",
    "x-frame-options": "DENY",
  });
  response.end(body);
}
