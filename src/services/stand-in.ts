import type { TranslationService } from "../core/exchange/service.js";

/** A few words in the languages of the sample project. */
const dictionary: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  boat: { de: "Boot", fr: "bateau", pl: "statek", ar: "قارب", ja: "船" },
  boats: { de: "Boote", fr: "bateaux", pl: "statki", ar: "قوارب", ja: "船" },
  berth: { de: "Liegeplatz", fr: "poste", pl: "miejsce", ar: "مرسى", ja: "係留場所" },
  bike: { de: "Fahrrad", fr: "vélo", pl: "rower", ar: "دراجة", ja: "自転車" },
  bikes: { de: "Fahrräder", fr: "vélos", pl: "rowery", ar: "دراجات", ja: "自転車" },
  book: { de: "buchen", fr: "réserver", pl: "zarezerwuj", ar: "احجز", ja: "予約" },
  name: { de: "Name", fr: "nom", pl: "nazwa", ar: "اسم", ja: "名前" },
  print: { de: "drucken", fr: "imprimer", pl: "drukuj", ar: "اطبع", ja: "印刷" },
  list: { de: "Liste", fr: "liste", pl: "lista", ar: "قائمة", ja: "一覧" },
  ticket: { de: "Ticket", fr: "billet", pl: "bilet", ar: "تذكرة", ja: "乗船券" },
  welcome: { de: "willkommen", fr: "bienvenue", pl: "witamy", ar: "مرحبًا", ja: "ようこそ" },
  today: { de: "heute", fr: "aujourd’hui", pl: "dzisiaj", ar: "اليوم", ja: "今日" },
};

/**
 * A translation service that needs no network: word for word by a tiny dictionary, other words as they are. It shows the way,
 * and translates nothing that anybody should publish.
 */
export const standIn: TranslationService = ({ target, texts }) => {
  const language = target.split("-", 1)[0] ?? target;
  const translate = (text: string) =>
    // Elements and entities are no words.
    text.replace(/<[^<>]{0,500}>|&[^;&\s]{0,40};|\p{L}+/gu, (word) => {
      const found = dictionary[word.toLowerCase()]?.[language];
      if (found === undefined) return word;
      return /^\p{Lu}/u.test(word) ? found.charAt(0).toUpperCase() + found.slice(1) : found;
    });
  return Promise.resolve(new Map(texts.map(({ id, text }) => [id, translate(text)])));
};

/** The stand-in as a server on this machine, for trying what speaks to services over HTTP. Gives its address and what ends it. */
export async function serveStandIn(port = 0): Promise<{ readonly url: string; close(): Promise<void> }> {
  const { createServer } = await import("node:http");
  const server = createServer((request, response) => {
    let body = "";
    request.on("data", (chunk: Buffer) => (body += chunk.toString("utf8")));
    request.on("end", () => {
      void answerFor(body).then(([status, text]) => {
        response.writeHead(status, { "content-type": "application/json" }).end(text);
      });
    });
  });
  await new Promise<void>((resolve) => server.listen(port, "127.0.0.1", resolve));
  const address = server.address();
  return {
    url: `http://127.0.0.1:${typeof address === "object" && address ? address.port : port}/`,
    async close() {
      server.closeAllConnections();
      await new Promise((resolve) => server.close(resolve));
    },
  };
}

async function answerFor(body: string): Promise<readonly [status: number, text: string]> {
  try {
    const answer = await standIn(JSON.parse(body) as Parameters<typeof standIn>[0]);
    return [200, JSON.stringify({ texts: [...answer].map(([id, text]) => ({ id, text })) })];
  } catch {
    return [400, '{ "error": "the request is not what docs/services.md describes" }'];
  }
}
