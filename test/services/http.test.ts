import { afterEach, beforeEach, describe, expect, test } from "@jest/globals";
import { createServer, type IncomingMessage, type Server, type ServerResponse } from "node:http";
import type { AddressInfo } from "node:net";
import { readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { httpService } from "../../src/services/http.js";
import { serveStandIn, standIn } from "../../src/services/stand-in.js";
import type { ServiceRequest } from "../../src/core/exchange/service.js";
import { cleanUp, fond, smallProject, temporaryProject } from "../support/project.js";

let server: Server;
let url = "";
/** What the server does with each request in turn; the last goes on. */
let answers: ((request: IncomingMessage, body: string, response: ServerResponse) => void)[] = [];
let bodies: string[] = [];

beforeEach(async () => {
  bodies = [];
  server = createServer((request, response) => {
    let body = "";
    request.on("data", (chunk: Buffer) => (body += chunk.toString()));
    request.on("end", () => {
      bodies.push(body);
      const [answer] = answers.length > 1 ? answers.splice(0, 1) : answers;
      answer?.(request, body, response);
    });
  });
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  url = `http://127.0.0.1:${(server.address() as AddressInfo).port}/translate`;
});
afterEach(async () => {
  server.closeAllConnections();
  await new Promise((resolve) => server.close(resolve));
  cleanUp();
});

const status =
  (code: number, headers: Record<string, string> = {}) =>
  (_: IncomingMessage, __: string, response: ServerResponse) => {
    response.writeHead(code, headers).end("no");
  };
const translated =
  (change: (text: string) => string) => (_: IncomingMessage, body: string, response: ServerResponse) => {
    const { texts } = JSON.parse(body) as ServiceRequest;
    response.end(JSON.stringify({ texts: texts.map(({ id, text }) => ({ id, text: change(text) })) }));
  };

const request: ServiceRequest = { source: "en", target: "de", texts: [{ id: "1", text: "Book" }], terms: [] };

function service(more: Partial<Parameters<typeof httpService>[0]> = {}) {
  const waits: number[] = [];
  const ask = httpService({
    url,
    perMinute: 100_000,
    timeout: 2,
    wait: (milliseconds) => {
      waits.push(Math.round(milliseconds));
      return Promise.resolve();
    },
    ...more,
  });
  return { ask, waits };
}

describe("a service behind HTTP", () => {
  test("is asked with texts and terms, and its key in a header", async () => {
    let authorization: string | undefined;
    answers = [
      (given, body, response) => {
        ({ authorization } = given.headers);
        translated((text) => `${text}!`)(given, body, response);
      },
    ];
    expect(await service({ key: "secret" }).ask(request)).toEqual(new Map([["1", "Book!"]]));
    expect(authorization).toBe("Bearer secret");
    expect(JSON.parse(bodies[0] ?? "")).toEqual(request);
  });

  test("is tried again where it fails for a while, later each time, and as it asks", async () => {
    answers = [status(503), status(429, { "retry-after": "7" }), translated((text) => text)];
    const { ask, waits } = service();
    expect((await ask(request)).get("1")).toBe("Book");
    expect(waits).toEqual([500, 7000]);
  });

  test("is given up after four tries, at once where trying helps nothing, and never shows the key", async () => {
    answers = [status(500)];
    await expect(service().ask(request)).rejects.toThrow("the service answers 500 (tried 4 times)");
    answers = [status(401)];
    bodies = [];
    await expect(service({ key: "secret" }).ask(request)).rejects.toThrow(
      "the service refuses the key (401)",
    );
    expect(bodies).toHaveLength(1);
    answers = [(_request, _body, response) => void response.end("<html>")];
    await expect(service().ask(request)).rejects.toThrow("the answer is not");
  });

  test("that does not answer is not waited for", async () => {
    answers = [() => undefined];
    await expect(service({ timeout: 0.05 as number }).ask(request)).rejects.toThrow("no answer within");
  });

  test("gets no more requests in a minute than it may", async () => {
    answers = [translated((text) => text)];
    const { ask, waits } = service({ perMinute: 60 });
    for (let count = 0; count < 3; count++) await ask(request);
    expect(waits.length).toBe(2);
    for (const wait of waits) expect(wait).toBeGreaterThan(800);
  });
});

describe("fond draft --service", () => {
  const project = (settings: object) => {
    const files = smallProject({ "texts/pl.json": '{ "home": { "title": "Rejsy" } }\n' });
    const config = JSON.parse(files["fond.config.json"] ?? "") as object;
    return temporaryProject({
      ...files,
      "fond.config.json": JSON.stringify({ ...config, services: { own: { url, ...settings } } }),
    });
  };

  test("says how much would go out, sends it with --write, and records drafts", async () => {
    answers = [translated((text) => text.replace("boats", "statków").replace("boat", "statek"))];
    const folder = project({});
    const plan = await fond(folder, "draft", "--service", "own", "--locale", "pl");
    expect(plan.stdout).toContain("4 texts, 23 characters would go to own");
    expect(bodies).toEqual([]);
    expect((await fond(folder, "draft", "--service", "own", "--locale", "pl", "--write")).status).toBe(0);
    // Sentences with a number each, and the number's sign in the catalog.
    expect(bodies[0]).toContain('"text":"1 boat"');
    const { home } = JSON.parse(readFileSync(join(folder, "texts/pl.json"), "utf8")) as {
      home: { count: string };
    };
    expect(home.count).toBe("{n, plural, one {# statek} few {# statków} many {# statków} other {# statków}}");
    expect(readFileSync(join(folder, "fond-ledger/app.pl.txt"), "utf8")).toMatch(
      /home\.count\tinitial\t\w+\t\w+\tservice/,
    );
    // A draft is handed out with its text, and is no translation yet.
    await fond(folder, "handoff", "--locale", "pl", "--to", "csv", "--write");
    expect(readFileSync(join(folder, "handoff/pl.csv"), "utf8")).toContain("{n} statek,initial");
    expect((await fond(folder, "balance", "--format", "json", "--locale", "pl")).stdout).toContain(
      '"initial": 1',
    );
  });

  test("leaves what comes back without its number, and writes nothing where the service fails", async () => {
    answers = [translated(() => "statek")];
    const folder = project({});
    const lost = await fond(folder, "draft", "--service", "own", "--locale", "pl", "--write");
    expect(lost.stderr).toContain("1 text came back without all of their codes");
    answers = [status(403)];
    const before = readFileSync(join(folder, "texts/pl.json"), "utf8");
    const failed = await fond(folder, "draft", "--service", "own", "--locale", "pl", "--write");
    expect(failed.status).toBe(3);
    expect(failed.stderr).toContain("own: the service refuses the key (403)");
    expect(readFileSync(join(folder, "texts/pl.json"), "utf8")).toBe(before);
  });

  test("sends nothing beyond the limit, without the key, or to nobody", async () => {
    answers = [translated((text) => text)];
    const limited = await fond(project({ mostCharacters: 5 }), "draft", "--service", "own", "--write");
    expect(limited).toMatchObject({ status: 2 });
    expect(limited.stderr).toContain("23 characters to translate; the limit is 5");
    const keyless = await fond(project({ keyFrom: "NO_SUCH_KEY" }), "draft", "--service", "own", "--write");
    expect(keyless.stderr).toContain("NO_SUCH_KEY is not set");
    expect((await fond(project({}), "draft", "--service", "owm")).stderr).toContain('did you mean "own"?');
    expect(bodies).toEqual([]);
  });
});

test("fond draft takes the project's own translations and memories, and shows what differs", async () => {
  const files = smallProject({
    "texts/en.json":
      '{ "a": "Print the list", "b": "Print the list", "c": "Print the lists", "d": "Take {boat}" }\n',
    "texts/de.json": '{ "a": "Liste drucken" }\n',
    "memory.tmx":
      '<tmx version="1.4"><header/><body><tu><tuv xml:lang="en"><seg>Take <ph type="x"/></seg></tuv><tuv xml:lang="de"><seg><ph type="x"/> nehmen</seg></tuv></tu></body></tmx>',
  });
  const folder = temporaryProject(files);
  const plan = await fond(folder, "draft", "--locale", "de", "--memory", "memory.tmx");
  expect(plan.stdout).toContain("same as a");
  expect(plan.stdout).toContain("93 % like a");
  expect(plan.stdout).toContain("Print the [-list-][+lists+]");
  expect((await fond(folder, "draft", "--locale", "de", "--memory", "memory.tmx", "--write")).status).toBe(0);
  expect(JSON.parse(readFileSync(join(folder, "texts/de.json"), "utf8"))).toEqual({
    a: "Liste drucken",
    b: "Liste drucken",
    c: "Liste drucken",
    d: "{boat} nehmen",
  });
  // Once drafted, there is nothing left to draft.
  expect((await fond(folder, "draft", "--locale", "de")).stdout).toBe("Nothing to do.\n");
  expect((await fond(folder, "draft", "--likeness", "100", "--locale", "pl")).stdout).not.toContain("like a");
  writeFileSync(join(folder, "bad.tmx"), "<tmx>");
  expect(await fond(folder, "draft", "--memory", "bad.tmx")).toMatchObject({ status: 3 });
});

test("the stand-in needs no network, and keeps codes", async () => {
  const answer = await standIn({
    source: "en",
    target: "de",
    texts: [{ id: "1", text: 'Book <x id="boat"/> &amp; <g id="b">boats</g>' }],
    terms: [],
  });
  expect(answer.get("1")).toBe('Buchen <x id="boat"/> &amp; <g id="b">Boote</g>');
});

test("the stand-in also answers over HTTP, and drafts come from it like from any service", async () => {
  const stand = await serveStandIn();
  try {
    const files = smallProject({
      "texts/en.json": '{ "home": { "book": "Book a boat, {name}" } }\n',
      "texts/de.json": "{}\n",
    });
    const config = JSON.parse(files["fond.config.json"] ?? "") as object;
    const folder = temporaryProject({
      ...files,
      "fond.config.json": JSON.stringify({ ...config, services: { near: { url: stand.url } } }),
    });
    expect((await fond(folder, "draft", "--service", "near", "--locale", "de", "--write")).status).toBe(0);
    expect(JSON.parse(readFileSync(join(folder, "texts/de.json"), "utf8"))).toEqual({
      home: { book: "Buchen a Boot, {name}" },
    });
    expect((await fetch(stand.url, { method: "POST", body: "hello" })).status).toBe(400);
  } finally {
    await stand.close();
  }
});
