import { beforeAll, describe, expect, test } from "@jest/globals";
import { lintExample } from "../../../src/core/lint/example.js";
import { memoryFiles } from "../../../src/core/files/memory-files.js";
import { lintProject } from "../../../src/core/project/lint-project.js";
import { reconcileProject } from "../../../src/core/project/reconcile-project.js";
import { openProject } from "../../../src/core/project/project.js";
import { memoryProject } from "../../support/memory-project.js";
import { rules } from "../../../src/core/lint/rules/index.js";
import type { Example } from "../../../src/core/lint/rule.js";
import { prepareReaders } from "../../../src/core/source/read.js";

// Some examples have code.
beforeAll(() => prepareReaders(["code.tsx"]));

type Case = readonly [locale: string, source: string, target: string];

/** Whether one rule finds something in a translation. */
function finds(id: string, [locale, source, target]: Case, more: Partial<Example> = {}): boolean {
  const rule = rules.find((one) => one.id === id);
  if (!rule) throw new Error(`there is no rule ${id}`);
  return lintExample({ locale, source, target, ...more }, [rule]).length > 0;
}

const tables: Readonly<
  Record<string, { readonly found: readonly Case[]; readonly passed: readonly Case[] }>
> = {
  "text/untranslated": {
    found: [
      ["de", "Choose a boat", "Choose a boat"],
      ["zh", "Powered by:", "Powered by:"],
      ["zh", "Last state: {state}, started: {at}", "Last state: {state}, started: {at}"],
      ["de", "Read quay.example.com first", "Read quay.example.com first"],
      ["de", "he/she sails", "he/she sails"],
    ],
    passed: [
      ["zh", "https://quay.example.com/sail/#late", "https://quay.example.com/sail/#late"],
      ["de", "ou=crew,dc=quay,dc=example", "ou=crew,dc=quay,dc=example"],
      ["de", "quay.example.com", "quay.example.com"],
      ["de", "iqn.1994-05.com.quay:1df7a24fcb92", "iqn.1994-05.com.quay:1df7a24fcb92"],
      ["de", "vQuay (CSI)", "vQuay (CSI)"],
      ["de", "allowedBerths", "allowedBerths"],
      ["de", "us-east-1, us-west-2", "us-east-1, us-west-2"],
      ["de", "desk:boat:plan", "desk:boat:plan"],
    ],
  },
  "plural/missing-category": {
    found: [
      ["de", "{n, plural, =0 {None} other {# boats}}", "{n, plural, =0 {Keine} other {# Boote}}"],
      ["pl", "{n, plural, =0 {None} one {Boat} other {Boats}}", "{n, plural, =0 {Brak} other {Statki}}"],
      ["pl", "{n, plural, one {Boat} other {Boats}}", "{n, plural, other {Statki}}"],
    ],
    passed: [
      ["de", "{n, plural, =0 {No boat} other {Boats there}}", "{n, plural, =0 {Kein Boot} other {Boote da}}"],
    ],
  },
  "text/ending": {
    found: [
      ["de", "Really?", "Wirklich."],
      ["de", "Sure.", "Sicher"],
      ["fr", "Name:", "Nom"],
      ["de", "Leave", "Ablegen bitte."],
      ["pl", "<b>Leave now?</b>", "<b>Wyjdź teraz</b>"],
      ["de", "{n, plural, one {# boat?} other {# boats?}}", "{n, plural, one {# Boot?} other {# Boote}}"],
    ],
    passed: [
      ["hi", "Your boat is late.", "आपकी नाव लेट है।"],
      ["hy", "Your boat is late.", "Ձեր նավակը ուշանում է։"],
      ["zh", "Your boat is late.", "您的船晚点了"],
      ["th", "Your boat is late.", "เรือของคุณมาช้า"],
      ["ar", "Really?", "حقًا؟"],
      ["de", "Wait...", "Warten…"],
      ["de", "Wait…", "Warten"],
      ["es", "Welcome!", "Bienvenido."],
      ["de", "He said “yes.”", "Er sagte „ja“."],
      ["de", "From {place}", "Aus {place}"],
      ["it", ".", ","],
      ["tr", "Nov", "kas."],
    ],
  },
  "text/numbers": {
    found: [
      ["de", "In 24 hours", "In 48 Stunden"],
      ["fr", "Costs 1,250.50", "Coûte 1 250,05"],
    ],
    passed: [
      ["fr", "Costs 1,250.50", "Coûte 1\u202f250,50"],
      ["de", "At 9 pm", "Um 21 Uhr"],
      ["hi", "In 24 hours", "२४ घंटे में"],
      ["fa", "In 24 hours", "در ۲۴ ساعت"],
      ["cs", "50,000 boats", "50 000 lodí"],
      ["de", "{n, plural, one {1 boat of 40} other {# boats}}", "{n, plural, one {1 Boot} other {# Boote}}"],
      ["de", "Three boats", "3 Boote"],
    ],
  },
  "text/bracket": {
    found: [
      ["de", "Boats (late)", "Boote (verspätet"],
      ["fr", "Boats (late), all", "Bateaux en retard), tous"],
      ["zh", "Boats (late)", "船（晚点"],
    ],
    passed: [
      ["zh", "Boats (late)", "船（晚点）"],
      ["ja", "Boats (late)", "船(遅延）"],
      ["de", "1) Boats", "1) Boote"],
      ["de", "Fine :)", "Gut :)"],
      ["ja", "such as [a]", "例) [a]"],
      ["vi", "It is gone.", "Nó đã mất :( Thử lại."],
    ],
  },
  "text/escape": {
    found: [
      ["de", "One\nTwo", "Eins\\nZwei"],
      ["de", "He said “yes”", 'Er sagte \\"ja\\"'],
      ["fr", "Boats < 3", "Bateaux &amp;lt; 3"],
    ],
    passed: [
      ["de", "In C:\\boats", "In C:\\neue"],
      ["de", "Boats & more", "Boote &amp; mehr"],
      ["de", "Use \\n", "Nutze \\n"],
    ],
  },
  "text/space": {
    found: [
      ["de", "{name} ", "{name}"],
      ["de", "Text", "\u00a0Text"],
    ],
    passed: [
      ["ja", "Total: ", "合計:"],
      ["de", "One\n  Two", "Eins\n  Zwei"],
      ["de", "Two  spaces", "Zwei  Leerzeichen"],
      ["de", " both ", " beide "],
    ],
  },
  "text/script": {
    found: [
      ["en-GB", "Boats", "Лодки"],
      ["ru", "Table", "Тaблица"],
      ["el", "Boat", "Σκάφoς"],
      ["de", "Harbour", "Hafen 港口"],
    ],
    passed: [
      ["ru", "Table in PDF", "Таблица в PDF"],
      ["sr-Latn", "Boats", "Brodovi"],
      ["sr", "Boats", "Бродови"],
      ["ko", "Boats", "배 船舶"],
      ["de", "The letter Ω", "Der Buchstabe Ω"],
      ["uk", "Wi-Fi", "Wi-Fi на борту"],
      ["bg", "Boat.\\nFrom the quay", "Лодка.\\nОт кея"],
    ],
  },
  "text/repeat": {
    found: [
      ["de", "On the boat", "Auf auf dem Boot"],
      ["fr", "The boat", "Le bateau bateau"],
    ],
    passed: [
      ["id", "Boats", "Kapal kapal"],
      ["fr", "We wash", "Nous nous lavons"],
      ["nl", "Fit it to the boat", "Pas het aan aan de boot"],
      ["sv", "Add to the boat", "Lägg till till båten"],
      ["it", "Step by step", "Passo passo"],
      ["en", "Pay at Tally Tally Lines", "Pay at Tally Tally Lines"],
      ["en", "Tally Tally", "Tally Tally"],
      ["de", "Very very late", "Sehr sehr spät"],
      ["de", "Boat one", "Boot Bootsmann"],
      ["de", "{a} {a}", "{a} {a}"],
    ],
  },
  "text/typography": {
    found: [
      ["pl", "The “Tallow”", 'Statek "Tallow"'],
      ["fr", "Attention!", "Attention!"],
    ],
    passed: [
      ["es", "Leave now?", "Leave now?"],
      ["fr", "Attention!", "Attention !"],
      ["fr-CA", "Attention!", "Attention!"],
      ["fr", "All of the boats are late, please wait!", "The boats of the quay are late for you!"],
      ["fr", "See https://quay.example/?a=b", "Voir https://quay.example/?a=b"],
      ["pl", 'The "Tallow"', 'Statek "Tallow"'],
    ],
  },
  "text/control": {
    found: [
      ["he", "Boat", "סירה\u202e"],
      ["de", "Boat", "Boot\u2069"],
      ["de", "Boat", "Bo\u0000ot"],
    ],
    passed: [
      ["he", "Boat {n}", "סירה \u200e{n}\u200f"],
      ["de", "Steamboat", "Dampf\u00adboot"],
      ["ar", "Boat", "\u202bقارب\u202c"],
      ["de", "Two\nlines", "Zwei\nZeilen\t!"],
    ],
  },
  "text/marker": {
    found: [
      ["de", "Deck", "FIXME Deck"],
      ["de", "Deck", "[de] Deck"],
      ["de", "Deck", "⟦Ðéçķ⟧"],
      ["de", "Deck", "??? deck ???"],
    ],
    passed: [
      ["de", "TODO list", "TODO-Liste"],
      ["de", "[optional]", "[optional]"],
      ["es", "Everything", "Todo"],
    ],
  },
  "text/address": {
    found: [["de", "Write to a.b+c@quay.example", "Schreiben Sie an a.b@quay.example"]],
    passed: [
      ["pl", "Such as www.domain.com", "Na przykład www.domena.pl"],
      ["de", "See www.quay.example.", "Siehe www.quay.de."],
      ["de", "See https://Quay.example/en", "Siehe https://quay.example/de"],
    ],
  },
  "syntax/foreign": {
    found: [
      ["de", "Hello {name}", "Hallo %(name)s"],
      ["de", "{n} boats", "%d Boote"],
      ["de", "Hello {name}", "Hallo ${name}"],
    ],
    passed: [
      ["de", "{p} % sure", "{p} % sicher"],
      ["de", "100% sure", "100% sicher"],
      ["de", "${price}", "${price}"],
      ["de", "Type '{{'x'}}'", "Tippen Sie '{{'x'}}'"],
    ],
  },
  "argument/type": {
    found: [
      ["de", "{d, time}", "{d, number}"],
      ["de", "{n, number, integer}", "{n, date}"],
    ],
    passed: [
      ["de", "{d, date} {d, time}", "{d, date}"],
      ["de", "{n}", "{n}"],
      ["de", "{n, plural, one {x} other {y}}", "{n, plural, one {x} other {{n} y}}"],
      ["de", "{n, number}", "{n, number, integer}"],
    ],
  },
  "argument/format": {
    found: [
      ["de", "{d, date, ::yMMMd}", "{d, date, ::yMMMdn}"],
      ["de", "{n, number, percent}", "{n, number, precent}"],
      ["de", "{d, date, short}", "{d, date, long}"],
    ],
    passed: [
      ["de", "{d, date, yyyy-MM-dd}", "{d, date, dd.MM.yyyy}"],
      ["de", "{n, number, #,##0.00}", "{n, number, #,##0.00}"],
      ["de", "{n, number}", "{n, number, integer}"],
    ],
  },
  "plural/shadowed": {
    found: [["de", "{n, plural, one {x} other {y}}", "{n, plural, =1 {x} one {x} other {y}}"]],
    passed: [
      ["lv", "{n, plural, one {x} other {y}}", "{n, plural, =1 {x} zero {z} one {x} other {y}}"],
      ["de", "{n, plural, =1 {x} other {y}}", "{n, plural, =1 {x} other {y}}"],
    ],
  },
  "plural/hidden-count": {
    found: [
      [
        "lt",
        "{n, plural, one {# x} other {# y}}",
        "{n, plural, one {laivas} few {# laivai} many {# laivo} other {# laivų}}",
      ],
    ],
    passed: [
      [
        "ar",
        "{n, plural, one {# x} other {# y}}",
        "{n, plural, zero {x} one {x} two {x} few {# x} many {# x} other {# x}}",
      ],
      [
        "fr",
        "{n, plural, one {x} other {# y}}",
        "{n, plural, =0 {rien} one {un bateau} many {# de bateaux} other {# bateaux}}",
      ],
      [
        "ru",
        "{n, plural, one {x} other {y}}",
        "{n, plural, one {лодка} few {лодки} many {лодок} other {лодки}}",
      ],
    ],
  },
  "plural/alike": {
    found: [
      [
        "pl",
        "{n, plural, one {# boat} other {# boats}}",
        "{n, plural, one {# łódź} few {# łodzi} many {# łodzi} other {# łodzi}}",
      ],
    ],
    passed: [
      [
        "pl",
        "{n, plural, one {# value} other {# values}}",
        "{n, plural, one {# wartość} few {# wartości} many {# wartości} other {# wartości}}",
      ],
    ],
  },
  "plural/flattened": {
    found: [["pl", "{n, plural, one {# boat} other {# boats}}", "Łodzie: {n}"]],
    passed: [
      ["ko", "{n, plural, one {# boat} other {# boats}}", "배 {n}척"],
      ["fa", "{n, plural, one {# boat} other {# boats}}", "{n} قایق"],
      ["de", "{n, plural, one {# boat} other {# boats}}", "Boote"],
    ],
  },
  "markup/unsafe": {
    found: [
      ["de", "More", "<img src=x onerror=steal()>"],
      ["de", "More", '<a href="JaVaScRiPt:x()">Mehr</a>'],
      ["de", "More", "<iframe src='/x'>"],
    ],
    passed: [
      ["de", "Learn JavaScript: now", "JavaScript: jetzt lernen"],
      ["de", "Read <link>more</link>", "<link>Mehr</link> lesen"],
      ["de", "On one = two", "Auf onlineshop = gut"],
    ],
  },
  "file/encoding": {
    found: [
      ["fr", "Summer", "Ã©tÃ©"],
      ["de", "“Yes”", "â€žJaâ€œ"],
      ["ru", "Yes", "Ð”Ð°"],
    ],
    passed: [
      ["fr", "Summer", "été"],
      ["pt", "No", "Não É"],
      ["vi", "Boat", "Thuyền â"],
    ],
  },
};

describe.each(Object.entries(tables))("%s", (id, { found, passed }) => {
  test.each(found)("%s: “%s”, “%s” is found", (...one) => {
    expect(finds(id, one)).toBe(true);
  });
  test.each(passed)("%s: “%s”, “%s” is let pass", (...one) => {
    expect(finds(id, one)).toBe(false);
  });
});

/** How many findings one rule has in a source and a translation that stand in files. */
async function findingsOf(
  id: string,
  locale: string,
  source: string,
  target: string,
  book: Readonly<Record<string, unknown>> = {},
): Promise<number> {
  const opened = openProject(
    memoryFiles({
      "fond.config.json": JSON.stringify({
        source: "en",
        targets: [locale],
        books: [{ name: "app", files: "t/{locale}.json", ...book }],
      }),
      "t/en.json": source,
      [`t/${locale}.json`]: target,
    }),
  );
  if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
  const findings = await lintProject(opened.project);
  return findings.filter(({ rule }) => rule === id).length;
}

describe("what only looks like a fault is none, and the fault beside it is one", () => {
  const rows: readonly (readonly [string, Case, boolean, Readonly<Record<string, unknown>>?])[] = [
    ["tag/unbalanced", ["de", "ferry [options] <host>", "ferry [Optionen] <host>"], false],
    ["tag/unbalanced", ["de", "Ask <boss>him</boss>", "Frag <boss>ihn"], true],
    ["tag/unbalanced", ["pl", "<not supported>", "<nieobsługiwane>"], false, { syntax: "double-brace" }],
    ["tag/unbalanced", ["de", "<p>First<p>Second", "<p>Erstens<p>Zweitens"], false],
    ["tag/unbalanced", ["de", "Read <b>this</b>", "Lies <b>das"], true, { syntax: "printf" }],
    ["tag/missing", ["de", "See <link /> now", "Siehe <link/> jetzt"], false, { syntax: "percent-brace" }],
    ["tag/missing", ["de", 'Read <a href="%{url}">it</a>', "Lies %{url}"], true, { syntax: "percent-brace" }],
    [
      "argument/missing",
      ["de", 'Read <a href="{{url}}">it</a>', "Lies <a>es</a>"],
      true,
      { syntax: "double-brace" },
    ],
    [
      "tag/unbalanced",
      ["de", 'Read <a href="%{url}">it</a>', 'Lies <a href="%{url}">es</a>'],
      false,
      { syntax: "percent-brace" },
    ],
    ["syntax/apostrophe", ["fr", "No boat here", "Pas d'île ici"], false, { syntax: "java" }],
    ["syntax/apostrophe", ["fr", "No boat {0}", "Pas d'île {0}"], true, { syntax: "java" }],
    ["syntax/apostrophe", ["fr", "No boat {0}", "Il n'y a pas d'outil {0}"], true, { syntax: "java" }],
    ["syntax/apostrophe", ["fr", "No boat {0}", "Il n''y a pas d''outil {0}"], false, { syntax: "java" }],
    ["syntax/foreign", ["de", "%Y-%m-%d", "%d. %B %Y"], false, { syntax: "percent-brace" }],
    ["syntax/foreign", ["de", "Hello %{name}", "Hallo %s"], true, { syntax: "percent-brace" }],
    ["argument/format", ["de", "{n, number} boats", "{n, nubmer} Boote"], true],
    ["argument/format", ["de", "{n, spellout} boats", "{n, spellout} Boote"], false],
    ["syntax/unreadable", ["de", "{0,number} boats", "{0,nummer} Boote"], true, { syntax: "java" }],
    ["text/numbers", ["de", "Encoded as ISO-8859-1", "In westlicher Kodierung"], false],
    ["text/numbers", ["de", "A top-100 password", "Ein bekanntes Passwort"], false],
    ["text/numbers", ["de", "At least 12 characters", "Mindestens 13 Zeichen"], true],
    ["text/numbers", ["de", "2 boats", "zwei Boote"], false],
    ["text/address", ["de", "Such as http://example.com/a", "Etwa http://beispiel.de/a"], false],
    ["text/address", ["de", "See https://quay.example", "Siehe https://kai.example"], true],
    ["text/address", ["nb", "See https://en.quays.example", "Se https://nb.quays.example"], false],
    ["text/address", ["nb", "See https://up.quays.example", "Se https://dock.quays.example"], true],
    ["text/quote", ["vi", 'Signs [():"-]', 'Ký tự [() : " - ]'], false],
    ["text/quote", ["vi", "Signs [():]", 'Ký tự [a "b]'], true],
    ["text/empty", ["fr", "pm", ""], false],
    ["text/empty", ["en-AU", "pm", ""], true],
    ["text/untranslated", ["lb", "November", "November"], false],
    [
      "text/lost",
      [
        "ka",
        "The boat is at the quay now. Do you want to board it, all of you?",
        "ნავი ახლა ნავმისადგომთან არის. გსურთ ჩაჯდომა?",
      ],
      false,
    ],
    [
      "text/lost",
      [
        "ta",
        "The boat is late today, as it often is. Nobody knows why.",
        "படகு இன்று தாமதம். ஏன் என்று தெரியாது",
      ],
      false,
    ],
    [
      "text/lost",
      [
        "ka",
        "The boat is at the quay now. Do you want to board it, all of you?",
        "ნავი ახლა ნავმისადგომთან არის.",
      ],
      true,
    ],
    ["argument/missing", ["ko", "$rows boats", "배 $rows개"], false, { syntax: { argument: "${name}" } }],
    ["argument/missing", ["he", "Sent to $mail", "נשלח אל mail$"], true, { syntax: { argument: "${name}" } }],
    ["text/normal-form", ["bn", "Boat", "\u09af\u09bc \u09df"], false],
    ["text/normal-form", ["vi", "Boat", "thuye\u0302\u0300n"], true],
    ["text/marker", ["en-GB", "Saving...", "Saving..."], false],
    ["text/marker", ["de", "Boats", "--- Boote ---"], false],
    ["text/script", ["es", "Русский", "Русский"], false],
    ["text/untranslated", ["nl", "Vanuatu", "Vanuatu"], false],
    ["text/untranslated", ["nl", "Germany", "Germany"], true],
    ["text/untranslated", ["cs", "{h}h {m}m {s}s", "{h}h {m}m {s}s"], false],
    ["text/untranslated", ["nl", "%d. %B %Y", "%d. %B %Y"], false],
  ];
  // A row that is shorter than the parameters would be given a callback.
  test.each(rows.map(([id, one, expected, book = {}]) => [id, one, expected, book] as const))(
    "%s: %j: %s",
    async (id, [locale, source, target], expected, book) => {
      const [from, to] = [source, target].map((text) => JSON.stringify({ a: text }));
      expect((await findingsOf(id, locale, from ?? "", to ?? "", book)) > 0).toBe(expected);
    },
  );

  test.each([
    ["text/value", '{ "precision": 2 }', '{ "precision": 3 }', 0],
    ["text/value", '{ "answer": "Yes" }', '{ "answer": true }', 1],
    ["text/empty", '{ "names": [null, "May"] }', '{ "names": [null, "Mai"] }', 0],
    ["text/empty", '{ "mark": ",", "digits": 2 }', '{ "mark": "", "digits": 2 }', 0],
    ["text/empty", '{ "search": "Search" }', '{ "search": "" }', 1],
    ["text/empty", '{ "search": "" }', "{}", 1],
    ["text/empty", '{ "now": { "args": "" }, "any": { "args": "" } }', "{}", 0],
    ["key/collision", '{ "Sign out": "Sign out", "Sign Out": "Sign Out" }', "{}", 0],
    ["key/collision", '{ "out": "Sign out", "Out": "Out of it" }', "{}", 1],
    ["text/empty", '{ "late_1": "Late by", "late_2": "min" }', '{ "late_1": "Tarde", "late_2": "" }', 1],
    ["argument/place", '{ "a": "Late" }', '{ "a": "Tarde{name}" }', 0],
    ["argument/place", '{ "a": "Late, {name}" }', '{ "a": "Tarde{name}" }', 1],
    ["text/marker", '{ "Saving...": "Saving..." }', "{}", 0],
    ["text/marker", '{ "page.title": "page.title" }', "{}", 1],
    [
      "plural/missing-category",
      '{ "a": "{n, plural, one {# boat} other {# boats}}" }',
      '{ "a": "{n, plural, one {# x} other {# y}}", "b": "{n, plural, one {# x} other {# y}}" }',
      1,
    ],
  ])("%s: %s, %s: %d", async (id, source, target, expected) => {
    expect(await findingsOf(id, "es", source, target)).toBe(expected);
  });

  test("names that a translation into another script keeps are names in all", async () => {
    const texts = (name: string, more: string) =>
      JSON.stringify({ name, more, b: `${more} b`, c: `${more} c`, d: `${more} d`, e: `${more} e` });
    const opened = openProject(
      memoryFiles({
        "fond.config.json": JSON.stringify({
          source: "en",
          targets: ["de", "ja"],
          books: [{ name: "app", files: "t/{locale}.json" }],
        }),
        "t/en.json": texts("Quay Card", "Choose a sailing"),
        "t/de.json": texts("Quay Card", "Choose a sailing"),
        "t/ja.json": texts("Quay Card", "便を選択"),
      }),
    );
    if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
    const findings = await lintProject(opened.project);
    const keys = findings.filter(({ rule }) => rule === "text/untranslated").map(({ key }) => key);
    expect(keys).toEqual(["more", "b", "c", "d", "e"]);
  });
});

describe("a book whose keys are texts", () => {
  const keys = Object.fromEntries(
    Array.from({ length: 12 }, (_, at) => [`The boat at quay ${at} is late`, `Barco ${at}`]),
  );
  const linted = async (more: Record<string, string>, code: string) => {
    const project = memoryProject(
      { lookups: [{ call: "say" }], code: ["src/**"] },
      { "t/en.json": JSON.stringify({ ...keys, ...more }), "src/a.js": code },
    );
    return (await lintProject(project)).map(({ rule, severity, messageId }) => [rule, severity, messageId]);
  };
  const all = Object.keys(keys)
    .map((key) => `say("${key}");`)
    .join("\n");

  test("has keys that differ in letter case, or that are names which it shows", async () => {
    const found = await linted(
      { Ok: "Vale", OK: "Bien", "quay.mark": "quay.mark" },
      `${all} say("Ok"); say("OK"); say("quay.mark");`,
    );
    expect(found).toEqual([]);
  });

  test("shows a text that no catalog has as the code has it; a name is no text", async () => {
    const found = await linted({}, `${all} say("The boat sails at noon"); say("quay.gone");`);
    expect(found).toEqual([
      ["key/undefined", "warning", "own-text"],
      ["key/undefined", "error", "unknown"],
    ]);
  });
});

test("a book whose keys are names is asked for a text by mistake: users see it, and it is not translated", async () => {
  const names = Object.fromEntries(Array.from({ length: 12 }, (_, at) => [`quay-${at}`, `Quay ${at}`]));
  const project = memoryProject(
    { lookups: [{ call: "say" }], code: ["src/**"] },
    {
      "t/en.json": JSON.stringify(names),
      "src/a.js":
        'say("quay-1"); say("quay-2"); say("quay-3"); say("The boat sails"); say("Monday"); say("quay-no");',
    },
  );
  const found = await lintProject(project);
  expect(
    found.flatMap((one) => (one.rule === "key/undefined" ? [[one.severity, one.messageId]] : [])),
  ).toEqual([
    ["warning", "own-text"],
    ["warning", "own-text"],
    ["error", "unknown"],
  ]);
});

test.each([
  ["say('intro') !== 'intro' ? say('intro') : head", 0],
  ['const a = "intro" === say("intro") ? head : say("intro")', 0],
  ["say('intro') !== head ? say('intro') : head", 2],
])("a key that code compares with what it gets for it may be missing: %s", async (code, count) => {
  const project = memoryProject(
    { lookups: [{ call: "say" }], code: ["src/**"] },
    { "t/en.json": '{ "title": "Quay" }', "src/a.js": `say("title");\n${code};\n` },
  );
  const found = await lintProject(project);
  expect(found.filter(({ rule }) => rule === "key/undefined")).toHaveLength(count);
});

test.each([
  ['say("gone", "Quay is open")', 0],
  ['say("gone", "Open")', 0],
  ['say("gone", "quay")', 1],
  ['say("gone", name)', 1],
])("a text behind a key is shown where no catalog has it: %s", async (code, count) => {
  const project = memoryProject(
    { lookups: [{ call: "say" }], code: ["src/**"] },
    { "t/en.json": '{ "title": "Quay" }', "src/a.js": `say("title");\n${code};\n` },
  );
  const found = await lintProject(project);
  expect(found.filter(({ rule }) => rule === "key/undefined")).toHaveLength(count);
});

describe("what a whole catalog says of one text", () => {
  const rulesOf = async (
    source: Record<string, string>,
    target: Record<string, string>,
    book: Record<string, unknown> = {},
    locale = "de",
  ) => {
    const project = memoryProject(
      book,
      { "t/en.json": JSON.stringify(source), [`t/${locale}.json`]: JSON.stringify(target) },
      [locale],
    );
    return (await lintProject(project)).map(({ rule }) => rule);
  };

  test("a country's code is a language's where the texts have no letter of the country's language", async () => {
    const source = { a: "Boat", b: "Boats" };
    const found = async (target: Record<string, string>, locale: string) =>
      (await rulesOf(source, target, {}, locale)).includes("file/locale-code");
    expect(await found({ a: "Navis", b: "Naves" }, "la")).toBe(false);
    expect(await found({ a: "ເຮືອ", b: "ເຮືອ" }, "la")).toBe(true);
    expect(await found({ a: "Båt", b: "Båtar" }, "se")).toBe(true);
  });

  test("an escape that the source's texts have is one that the program reads", async () => {
    const target = { a: "Wirklich?\\n({name})", b: "Boot" };
    expect(await rulesOf({ a: "Really? ({name})", b: "Boat" }, target)).toContain("text/escape");
    expect(await rulesOf({ a: "Really? ({name})", b: "Boat\\n" }, target)).not.toContain("text/escape");
    expect(await rulesOf({ a: "Boats\\nleave", b: "Late\\nboats" }, target)).not.toContain("text/escape");
  });

  test("a quotation mark may have its partner in another piece of the sentence", async () => {
    const source = {
      late_1: "Click ",
      late_2: " for all boats",
      late: "Late",
      open_before: "Open ",
      open_after: " now",
    };
    const inPieces = { late_1: "按“「", late_2: "」看", late: "「晚", open_before: "「", open_after: "」開" };
    const marks = async (target: Record<string, string>) =>
      (await rulesOf(source, target, {}, "zh-TW")).filter((rule) => rule === "text/quote").length;
    expect(await marks(inPieces)).toBe(1);
    expect(await marks({ ...inPieces, open_after: "開", late: "晚" })).toBe(1);
  });

  test("keys that begin with a number may follow the convention", async () => {
    const keys = ["BoatLate", "QuayOpen", "TideLow", "CrewList", "8BitGrey"];
    const texts = (names: readonly string[]) => Object.fromEntries(names.map((name) => [name, "Boat"]));
    const book = { naming: { case: "pascal" } };
    expect(await rulesOf(texts(keys), {}, book)).not.toContain("key/shape");
    expect(await rulesOf(texts([...keys, "8bit"]), {}, book)).toContain("key/shape");
  });

  test("keys that much of a catalog does not follow are no convention", async () => {
    const naming = { naming: { case: "snake" } };
    const keys = (odd: number) =>
      Object.fromEntries(
        Array.from({ length: 12 }, (_, at) => [at < odd ? `quay-no-${at}` : `quay_no_${at}`, "x"]),
      );
    expect(await rulesOf(keys(1), {}, naming)).toContain("key/shape");
    expect(await rulesOf(keys(3), {}, naming)).toContain("key/shape");
    expect(await rulesOf(keys(4), {}, naming)).not.toContain("key/shape");
  });

  test("a sentence may end in a value or behind a blank", async () => {
    const source = {
      a: "The boat {name} is undergoing maintenance at this time. Please come back later on.",
    };
    expect(await rulesOf(source, { a: "صيانة {name}. المرجو العودة." }, {}, "ar")).not.toContain("text/lost");
    expect(await rulesOf(source, { a: "En panne {name} ! Revenez." }, {}, "fr")).not.toContain("text/lost");
    expect(await rulesOf(source, { a: "صيانة {name} الآن" }, {}, "ar")).toContain("text/lost");
  });
});

test("code of libraries and tests that cannot be read is passed over", async () => {
  const broken = "say('title'; const = ;\n";
  const project = memoryProject(
    { lookups: [{ call: "say" }], code: ["src/**"] },
    {
      "t/en.json": '{ "title": "Quay" }',
      "src/a.js": broken,
      "src/vendor/b.js": broken,
      "src/dependencies/c.js": broken,
      "src/a.test.js": broken,
    },
  );
  const found = await lintProject(project);
  expect(found.flatMap(({ rule, file }) => (rule === "file/unreadable" ? [file] : []))).toEqual(["src/a.js"]);
});

describe("texts that translations keep", () => {
  const sentences = (text: string) =>
    Object.fromEntries(Array.from({ length: 25 }, (_, at) => [`s${at}`, `${text} no ${at}`]));
  /** The severities with which a text is called untranslated in each locale, by what they have for it. */
  const kept = async (text: string, byLocale: Readonly<Record<string, string>>) => {
    const targets = Object.keys(byLocale);
    const files = {
      "t/en.json": JSON.stringify({ a: text, ...sentences("Here is a boat") }),
      ...Object.fromEntries(
        targets.map((locale) => [
          `t/${locale}.json`,
          JSON.stringify({ a: byLocale[locale], ...sentences(`In ${locale}`) }),
        ]),
      ),
    };
    const found = await lintProject(memoryProject({}, files, targets));
    return found
      .filter(({ rule, key }) => rule === "text/untranslated" && key === "a")
      .map((one) => one.severity);
  };
  const in_ = (locales: string, text: string) =>
    Object.fromEntries(locales.split(" ").map((locale) => [locale, text]));

  test("a name that most keep, and some write in their own way, is none that was forgotten", async () => {
    expect(
      await kept("Port Quay", { ...in_("de fr nl sv", "Port Quay"), ...in_("ru", "Порт Квей") }),
    ).toEqual([]);
  });

  test("a word that several languages have is none either", async () => {
    const all = { ...in_("de nl sv", "Server"), ...in_("fr es", "Serveur") };
    expect(await kept("Server", all)).toEqual([]);
    expect(await kept("Server", { ...in_("de", "Server"), ...in_("nl sv fr es", "Serveur") })).toHaveLength(
      1,
    );
  });

  test("what all have as the source has it was copied, whatever it looks like", async () => {
    expect(await kept("Quay", in_("de fr nl sv", "Quay"))).toHaveLength(4);
    expect(await kept("Port Quay", in_("de fr nl sv", "Port Quay"))).toEqual(
      Array.from({ length: 4 }, () => "warning"),
    );
  });

  test("several words that many keep, and some do not, are told for information", async () => {
    const all = { ...in_("de fr nl sv", "ODX (open dock)"), ...in_("it pt", "ODX (molo)") };
    expect(await kept("ODX (open dock)", all)).toEqual(Array.from({ length: 4 }, () => "info"));
    expect(
      await kept("Open the dock", { ...in_("de", "Open the dock"), ...in_("fr it pt", "Ouvre") }),
    ).toEqual(["warning"]);
  });
});

describe("keys that code asks for", () => {
  const lint = (source: Record<string, unknown>, code: string) => {
    const opened = openProject(
      memoryFiles({
        "fond.config.json": JSON.stringify({
          source: "en",
          targets: [],
          books: [{ name: "app", files: "t/{locale}.json", code: ["src/**"], lookups: [{ call: "t" }] }],
        }),
        "t/en.json": JSON.stringify(source),
        "src/a.tsx": code,
        "src/a.rb": "",
      }),
    );
    if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
    return lintProject(opened.project).then((all) =>
      all.filter(({ rule }) => rule === "key/undefined").map(({ messageId, key }) => [messageId, key]),
    );
  };

  test.each<[string, Record<string, unknown>, string, unknown]>([
    ["a key that is not there", { a: "x" }, 't("a"); t("b")', [["unknown", "b"]]],
    ["a list as a whole", { days: ["Mon", "Tue"] }, 't("days")', []],
    ["a group as a whole", { days: { mon: "Mon" } }, 't("days")', [["group", "days"]]],
    ["a group that is spread", { days: { mon: "Mon" } }, 'const all = { ...t("days") };', []],
    ["a group that is given on", { days: { mon: "Mon" } }, 'const all = Object.assign({}, t("days"));', []],
    ["a group that is walked through", { days: { mon: "Mon" } }, 'for (const day of t("days")) f(day);', []],
    ["a member of a group", { days: { mon: "Mon" } }, 't("days")[day]', []],
    [
      "a group with a name of its own",
      { days: { mon: "Mon" } },
      'const all = t("days"); f(all.mon, all[x]);',
      [],
    ],
    [
      "a group with a name that is shown",
      { days: { mon: "Mon" } },
      'const all = t("days"); f(all.trim());',
      [["group", "days"]],
    ],
    ["a key with a default", { a: "x" }, 't("a"); t("b", { default: "B" })', []],
    ["a key that is relative to something", { a: "x" }, "t('a'); t(`.${b}`)", []],
    ["nothing, and values alone", { a: "x" }, 't("a"); t(""); t(`${b} (${c})`)', []],
    ["calls of another kind", { a: "x" }, 't("b"); t("c"); t("d"); t("e")', [["none", undefined]]],
    [
      "a few new ones",
      { a: "x" },
      't("b"); t("c")',
      [
        ["unknown", "b"],
        ["unknown", "c"],
      ],
    ],
  ])("%s", async (_, source, code, expected) => {
    expect(await lint(source, code)).toEqual(expected);
  });
});

test("a function whose many calls get no values only marks keys, where others get some", async () => {
  const names = Array.from({ length: 20 }, (_, at) => `k${at}`);
  const texts = Object.fromEntries(names.map((name) => [name, "{boat} is late"]));
  const unsupplied = async (call: string) => {
    const marks = names.map((name) => `mark("${name}");`).join("\n");
    const asks = names.map((name) => `${call.replace("KEY", name)};`).join("\n");
    const project = memoryProject(
      { lookups: [{ call: "say" }, { call: "mark" }], code: ["src/**"] },
      { "t/en.json": JSON.stringify(texts), "src/a.js": `${marks}\n${asks}\nsay("k0", { boat });` },
    );
    return (await lintProject(project)).filter(({ rule }) => rule === "argument/unsupplied").length;
  };
  expect(await unsupplied('say("KEY", { boat })')).toBe(0);
  expect(await unsupplied('say("KEY")')).toBe(20);
});

describe("keys with the name of a catalog in front", () => {
  test.each<[string, string, unknown]>([
    ["that nobody has, once", 't("desk:a"); t("harbour:a"); t("harbour:b")', [["elsewhere", undefined]]],
    ["that is nearly one", 't("desk:a"); t("deks:a")', [["misspelled", "deks:a"]]],
    ["that is one", 't("desk:crossing")', [["unknown", "desk:crossing"]]],
  ])("%s", async (_, code, expected) => {
    const book = {
      files: "t/{locale}/{namespace}.json",
      code: ["src/**"],
      lookups: [{ call: "t" }],
      naming: { namespace: ":" },
    };
    const files = { "t/en/desk.json": '{ "a": "A", "zone": "Z" }', "src/a.js": code };
    const all = await lintProject(memoryProject(book, files));
    const found = all.filter(({ rule }) => rule === "key/undefined");
    expect(found.map(({ messageId, key }) => [messageId, key])).toEqual(expected);
    if (found[0]?.messageId === "elsewhere") expect(found[0].message).toContain("2 keys");
  });
});

test.each<[string, string, readonly string[]]>([
  [
    "of another program's catalog",
    't("desk.a"); t("desk.b"); t("tools:zone.c"); t("tools:zone.d")',
    ["elsewhere"],
  ],
  ["that are misspelled", 't("desk.a"); t("desk.bb")', ["misspelled"]],
  [
    "that are texts of the same property",
    'tell({ text: "desk.a" }); tell({ text: "late" }); tell({ text: "at " + n })',
    [],
  ],
  [
    "that are keys of the same property",
    'tell({ text: "desk.a" }); tell({ text: "desk.zone" })',
    ["unknown"],
  ],
  ["of a call", 't("desk.a"); t("late")', ["unknown"]],
  ["of a property that asks for a key", 'say({ id: "desk.a" }); say({ id: "late" })', ["unknown"]],
])("unknown keys %s", async (_, code, expected) => {
  const book = {
    code: ["src/**"],
    lookups: [{ call: "t" }, { descriptor: "tell", key: "text" }, { descriptor: "say", key: "id" }],
  };
  const texts = { desk: { a: "A", b: "B", crossing: "C" } };
  const all = await lintProject(
    memoryProject(book, { "t/en.json": JSON.stringify(texts), "src/a.js": code }),
  );
  expect(all.filter(({ rule }) => rule === "key/undefined").map(({ messageId }) => messageId)).toEqual(
    expected,
  );
});

describe("keys that nothing asks for", () => {
  const unused = async (code: Readonly<Record<string, string>>) => {
    const source = { a: "A", tools: { bold: { title: "B" }, note: "N" }, old: { one: "O" } };
    const book = { code: ["src/**"], lookups: [{ call: "t" }] };
    const all = await lintProject(memoryProject(book, { "t/en.json": JSON.stringify(source), ...code }));
    return all
      .filter(({ rule }) => rule.startsWith("key/unused") || rule === "file/unreadable")
      .map(({ key }) => key);
  };

  test("a key that is put together outside of a lookup may be asked for", async () => {
    expect(
      await unused({ "src/a.js": 't("a"); const tool = (name) => ({ id: "tools." + name + ".title" });' }),
    ).toEqual(["tools.note", "old.one"]);
  });

  test("a key with the name of a program or catalog in front is asked for, whole or put together", async () => {
    const code =
      't("a"); ask("ferry/words:old.one"); const tell = (name) => ask("ferry/words:tools." + name);';
    expect(await unused({ "src/a.js": code })).toEqual([]);
    const other =
      't("a"); ask("ferry words:old.one"); set("width:t" + width); const tell = (name) => ask(":" + name);';
    expect(await unused({ "src/a.js": other })).toEqual(["tools.bold.title", "tools.note", "old.one"]);
  });

  test("keys behind one prefix are asked for by the script that looks for it, where they are several", async () => {
    const texts = { quay_open: "Open", boat_late: "Late", "tide-low": "Low", crew: "Crew", gone: "Gone" };
    const left = async (page: string) => {
      const book = { code: ["src/**"], lookups: [{ call: "t" }] };
      const files = { "t/en.json": JSON.stringify(texts), "src/a.js": 't("crew");', "src/a.html": page };
      const all = await lintProject(memoryProject(book, files));
      return all.filter(({ rule }) => rule === "key/unused").map(({ key }) => key);
    };
    const page =
      '<p class="big say_quay_open"></p><p title="say_boat_late"></p><p class="say_tide-low red"></p>';
    expect(await left(page)).toEqual(["gone"]);
    expect(await left(page.replace("say_boat", "sing_boat"))).toEqual([
      "quay_open",
      "boat_late",
      "tide-low",
      "gone",
    ]);
  });

  test("a script that nobody wrote is no fault, and what it has in quotes is no unused key", async () => {
    const minified = `var q="old.one";${"f();".repeat(20_000)}`;
    expect(await unused({ "src/a.js": 't("a");', "src/lib.js": minified })).toEqual([
      "tools.bold.title",
      "tools.note",
    ]);
  });
});

describe("keys with the name that code writes before them", () => {
  test("are used wherever they stand, whole or put together", async () => {
    const book = { code: ["src/**"], lookups: [{ call: "t" }], naming: { home: "desk", namespace: ":" } };
    const texts = { a: "A", label: "L", kind_one: "K", kind_two: "K2", gone: "G" };
    const code = 't("desk:a"); t(`desk:kind_${kind}`); const menu = [{ label: "desk:label" }];\n';
    const files = { "t/en.json": JSON.stringify(texts), "src/a.js": code };
    const all = await lintProject(memoryProject(book, files));
    expect(
      all.filter(({ rule }) => rule.startsWith("key/un")).map(({ rule, key }) => `${rule} ${key}`),
    ).toEqual(["key/unused gone"]);
  });
});

test("the settings of a call are not taken for values of its text", async () => {
  const settings = (more: string) =>
    Array.from({ length: 5 }, (_, at) => `tell("k${at}", { kind: "late", icon: "boat"${more} });`).join("\n");
  const texts = Object.fromEntries(Array.from({ length: 5 }, (_, at) => [`k${at}`, "{boat} is late"]));
  const found = async (code: string) => {
    const book = { code: ["src/**"], lookups: [{ call: "tell" }] };
    const all = await lintProject(
      memoryProject(book, { "t/en.json": JSON.stringify(texts), "src/a.js": code }),
    );
    return all.filter(({ rule }) => /^argument\/(?:spare|unsupplied)/.test(rule)).length;
  };
  expect(await found(settings(", values: { boat }"))).toBe(0);
  // Where some of them are values, the others are none of the text.
  expect(await found(settings(", boat"))).toBe(10);
});

describe("forms of a text that another value than a number chooses", () => {
  const lint = async (code: string, plurals = "suffix") => {
    const texts = {
      seat_first: "First seat",
      seat_last: "Last seat",
      boat: "{n} boat",
      boat_big: "{n} ship",
      old_one: "O",
    };
    const book = { code: ["src/**"], lookups: [{ call: "t" }], plurals };
    const files = { "t/en.json": JSON.stringify(texts), "src/a.js": `${code}\n` };
    const all = await lintProject(memoryProject(book, files));
    return all
      .filter(({ rule }) => /^key\/un|^argument\/spare/.test(rule))
      .map(({ rule, key }) => `${rule} ${key}`)
      .sort();
  };

  test("are asked for by the key without them, with a value", async () => {
    expect(await lint('t("seat", { place }); t("boat", { n, size });')).toEqual(["key/unused old_one"]);
    expect(await lint('t("seat", { place }); t(`boat${isBig ? "_big" : ""}`, { n });')).toEqual([
      "key/unused old_one",
    ]);
  });

  test("are not asked for without a value, nor where forms have no keys of their own", async () => {
    expect(await lint('t("seat"); t("boat", { n });')).toEqual([
      "key/undefined seat",
      "key/unused old_one",
      "key/unused seat_first",
      "key/unused seat_last",
    ]);
    expect(await lint('t("seat", { place }); t("boat", { n, size });', "inline")).toEqual(
      expect.arrayContaining(["argument/spare boat", "key/undefined seat", "key/unused boat_big"]) as unknown,
    );
  });
});

test("a value that only chooses words need not be in a translation that has no choice", async () => {
  const missing = async (source: string, target: string) => {
    const book = { syntax: { argument: "%{name}%" } };
    const files = { "t/en.json": JSON.stringify({ a: source }), "t/ms.json": JSON.stringify({ a: target }) };
    const all = await lintProject(memoryProject(book, files, ["ms"]));
    return all.filter(({ rule }) => rule === "argument/missing").length;
  };
  expect(await missing("{{plural:%number%|one=Boat|other=Boats}}", "Bot")).toBe(0);
  expect(await missing("%number% {{plural:%number%|one=boat|other=boats}}", "Bot")).toBe(1);
  expect(await missing("Plural: %number% boats", "Bot")).toBe(1);
});

test("code may name values with the marks that they have in messages", async () => {
  const project = memoryProject(
    { syntax: { argument: "%{name}%" }, code: ["src/**"], lookups: [{ call: "say" }] },
    {
      "t/en.json": '{ "a": "Sell %boat% to %owner%" }',
      "src/a.php":
        "<?php\nshow(say('a', ['%boat%' => 1, '%owner%' => 2]));\nshow(say('a', ['boat' => 1, '%ownr%' => 2]));\n",
    },
  );
  const findings = (await lintProject(project)).filter(({ rule }) => rule.startsWith("argument/"));
  expect(findings.map(({ rule, line }) => `${rule} ${line}`).sort()).toEqual([
    "argument/spare 3",
    "argument/unsupplied 3",
  ]);
});

describe("arguments that code passes", () => {
  const lint = (code: string) =>
    lintExample({
      source: { hi: "Hello {name}, <b>{n}</b>" },
      target: { hi: "Hallo {name}, <b>{n}</b>" },
      code,
    })
      .filter(({ rule }) => rule.startsWith("argument/"))
      .map(({ rule, message }) => `${rule} ${message}`);
  test.each<[string, readonly RegExp[]]>([
    ['f(() => t("hi", { name: 1, n: 2, b: x }));', []],
    ['f(() => t("hi", { ...all }));', []],
    ['f((v) => t("hi", v));', []],
    ['f((v) => t("hi", { name: v }));', [/unsupplied.*\{n\}/]],
    ['f((v) => t("hi", { name: v, n: v, age: v }));', [/spare.*"age"/]],
    ['f((v) => t("hi", { nme: v, n: v }));', [/unsupplied.*\{name\}/]],
    ["f((v) => t(v, { name: v }));", []],
  ])("%s", (code, expected) => {
    const found = lint(code);
    expect(found).toHaveLength(expected.length);
    expected.forEach((one, index) => expect(found[index]).toMatch(one));
  });
});

describe("what a program gives to all messages need not be passed", () => {
  const names = Array.from({ length: 24 }, (_, at) => `k${at}`);
  const unsupplied = async (plain: number, more = "") => {
    const texts = Object.fromEntries(
      names.map((name, at) => [name, at < plain ? "{product} has a {boat}" : "{boat} is late"]),
    );
    const project = memoryProject(
      { lookups: [{ call: "say" }], code: ["src/**"] },
      {
        "t/en.json": JSON.stringify({ ...texts, about: "{product} {version}" }),
        "src/a.js": `${names.map((name) => `say("${name}", { boat });`).join("\n")}\n${more}`,
      },
    );
    const found = (await lintProject(project)).filter(({ rule }) => rule === "argument/unsupplied");
    return found.map(({ message }) => message.replace(/, which.*/, ""));
  };
  test("where several lookups leave it out and hardly any passes it", async () => {
    expect(await unsupplied(5)).toEqual([]);
  });
  test("but one that a few forget is missing", async () => {
    expect(await unsupplied(2)).toHaveLength(2);
  });
  test("and what is added beside it is given as well", async () => {
    const ask = 'say("about");';
    expect(await unsupplied(5, ask)).toEqual(["missing value for {version}"]);
    expect(await unsupplied(5, `const all = { product, version: 1, ...values };\n${ask}`)).toEqual([]);
    expect(await unsupplied(5, `const all = { product, version: 1 };\n${ask}`)).toHaveLength(1);
  });
});

test("parts of keys that code puts in quotes are the parts without", async () => {
  const lint = async (
    code: string,
    source: unknown = { types: { "quay.v1": { a: "x" }, dock: { a: "z" } } },
  ) => {
    const files = { "t/en.json": JSON.stringify(source), "src/a.js": code };
    const all = await lintProject(memoryProject({ code: ["src/**"] }, files));
    return all.flatMap(({ rule, key }) => (rule.startsWith("key/") ? [`${rule} ${key ?? ""}`] : []));
  };
  expect(await lint("t('types.\"quay.v1\".a'); t(\"types.'dock'.a\")")).toEqual([]);
  expect(await lint('t(`types."${name}".a`)')).toEqual([]);
  expect(await lint("t('types.dock.a'); t('types.\"quay.v2\".a')")).toEqual([
    "key/undefined types.quay.v2.a",
  ]);
  const sentences = { 'Press "Go".': "x", '"Go" now.': "y" };
  expect(await lint(`t('Press "Go".'); t('"Go" now.')`, sentences)).toEqual([]);
});

describe("levels by what is likely", () => {
  const levelOf = async (rule: string, source: unknown, target: unknown, code = "src/**/*.rb") => {
    const raw = (text: unknown) => (typeof text === "string" ? text : JSON.stringify(text));
    const files = { "t/en.yaml": raw(source), "t/de.yaml": raw(target) };
    const project = memoryProject({ files: "t/{locale}.yaml", code: [code] }, files, ["de"]);
    return (await lintProject(project)).filter((one) => one.rule === rule).map(({ severity }) => severity);
  };
  test("an empty text of the source is empty on purpose, unless a translation has one", async () => {
    const rule = "text/empty";
    expect(await levelOf(rule, { a: "" }, { a: "" })).toEqual(["info"]);
    expect(await levelOf(rule, { a: "" }, { a: "Boot" })).toEqual(["error"]);
    expect(await levelOf(rule, { a: "Boat" }, { a: "" })).toEqual(["error"]);
  });
  test("what only YAML 1.1 takes for a value is a text to scripts", async () => {
    const rule = "text/value";
    expect(await levelOf(rule, "a: Yes\n", "a: Ja\n")).toEqual(["warning"]);
    expect(await levelOf(rule, "a: Yes\n", "a: Ja\n", "src/**/*.{js,vue}")).toEqual([]);
    expect(await levelOf(rule, "a: Yes\n", "a: true\n", "src/**/*.{js,vue}")).toEqual(["warning"]);
    expect(await levelOf(rule, "a: Yes\n", "a: Ja\n", "src/**/*.{js,py}")).toEqual(["warning"]);
  });
});

test("unsafe markup of the source is said there alone", async () => {
  const project = memoryProject(
    {},
    {
      "t/en.json": JSON.stringify({ a: "<a onclick='go()'>Go</a>", b: "<b>Go</b>", c: "Go" }),
      "t/de.json": JSON.stringify({
        a: "<a onclick='go()'>Los</a>",
        b: "<b onclick='go()'>Los</b>",
        c: "Los",
      }),
      "t/fr.json": JSON.stringify({ a: "<script>x</script>Va", b: "<b>Va</b>", c: "<meta name='x'>Va" }),
    },
    ["de", "fr"],
  );
  const findings = (await lintProject(project)).filter(({ rule }) => rule === "markup/unsafe");
  expect(findings.map(({ locale, key }) => `${locale} ${key ?? ""}`).sort()).toEqual([
    "de b",
    "en a",
    "fr a",
  ]);
});

test("a key that the source gave up is one finding, in however many locales it is left", async () => {
  const project = memoryProject(
    {},
    {
      "t/en.json": '{ "open": "Open", "shut": "Shut" }',
      "t/de.json": '{ "open": "Offen", "shut": "Zu", "gone": "Weg", "alone": "Allein" }',
      "t/fr.json": '{ "open": "Ouvert", "shut": "Fermé", "gone": "Parti" }',
      "t/it.json": '{ "open": "Aperto", "shot": "Chiuso", "gone": "Via" }',
    },
    ["de", "fr", "it"],
  );
  const findings = (await lintProject(project)).filter(({ rule }) => rule === "key/extra");
  expect(findings.map(({ messageId, locale, key, data }) => [messageId, locale, key, data["count"]])).toEqual(
    [
      ["removed", "de", "gone", 3],
      ["extra", "de", "alone", undefined],
      ["misspelled", "it", "shot", undefined],
    ],
  );
});

test.each([
  ["elements in the source", "<p>Read it</p>", "<p><code>Lies</code> es</p>", {}, "warning"],
  ["a look, and elements in the source", "<p>Read it</p>", "<p><b>Lies</b> es</p>", {}, "info"],
  ["no elements in the source", "Read it", "<code>Lies</code> es", {}, "error"],
  [
    "elements that the program gives",
    "<b>Read</b> it",
    "<b>Lies</b> <code>es</code>",
    { syntax: "icu" },
    "error",
  ],
])("an element that only the translation has: %s", async (_, source, target, book, severity) => {
  const project = memoryProject(
    { syntax: "double-brace", ...book },
    { "t/en.json": JSON.stringify({ a: source }), "t/de.json": JSON.stringify({ a: target }) },
    ["de"],
  );
  const findings = (await lintProject(project)).filter(({ rule }) => rule === "tag/unknown");
  expect(findings.map((one) => one.severity)).toEqual([severity]);
});

describe("a text that is the source's", () => {
  const severities = async (
    key: string,
    source: Record<string, string>,
    ...targets: Record<string, string>[]
  ) => {
    const locales = ["fr", "it", "es", "pl"].slice(0, targets.length);
    const project = memoryProject(
      {},
      {
        "t/en.json": JSON.stringify(source),
        ...Object.fromEntries(locales.map((locale, at) => [`t/${locale}.json`, JSON.stringify(targets[at])])),
      },
      locales,
    );
    const findings = await lintProject(project);
    return findings
      .filter((one) => one.rule === "text/untranslated" && one.key === key && one.locale === "fr")
      .map(({ severity }) => severity);
  };
  const source = { a: "Page {n}", b: "Next page", c: "The page is empty", d: "Page count", e: "Boat {n}" };
  const french = { a: "Page {n}", b: "Page suivante", c: "La page est vide", d: "Page count", e: "Boat {n}" };

  test("is the language's own where it uses the word elsewhere", async () => {
    expect(await severities("a", source, french)).toEqual([]);
    expect(await severities("e", source, french)).toEqual(["warning"]);
    expect(await severities("d", source, french)).toEqual(["warning"]);
  });
  test("is not where the word stands in one other text, or in one that is half translated", async () => {
    expect(await severities("a", source, { ...french, c: "Rien" })).toEqual(["warning"]);
    expect(await severities("a", source, { ...french, c: "La page is empty" })).toEqual(["warning"]);
  });
  test("is for programs where hardly any language has its own for keys that end so", async () => {
    const names = [..."abcdefgh"];
    const inFull = (text: (name: string) => string, args: (name: string) => string) =>
      Object.fromEntries(
        names.flatMap((name) => [
          [`${name}.title`, text(name)],
          [`${name}.args`, args(name)],
          [`${name}.text`, `${text(name)} ${text(name)} oui`],
          [`${name}.more`, `oui ${text(name)}`],
          [`${name}.rest`, `non ${text(name)}`],
          [`${name}.last`, `non ${text(name)} oui`],
        ]),
      ) as Record<string, string>;
    const kept = (name: string) => `list${name}, call${name}`;
    const english = inFull((name) => `Boat ${name}${name}`, kept);
    const others = ["bateau", "barca", "barco"].map((word) => inFull((name) => `${word} ${name}`, kept));
    expect(await severities("a.args", english, ...others)).toEqual(["info"]);
    const translated = ["bateau", "barca", "barco"].map((word) =>
      inFull(
        (name) => `${word} ${name}`,
        () => word,
      ),
    );
    const [first = {}, ...more] = translated;
    expect(await severities("a.args", english, { ...first, "a.args": kept("a") }, ...more)).toEqual([
      "warning",
    ]);
  });
});

test("a group of keys of which the source has none is one finding", async () => {
  const names = [..."abcdefghij"];
  const group = (count: number) =>
    JSON.stringify(Object.fromEntries(names.slice(0, count).map((name) => [name, `Wort ${name}`])));
  const project = memoryProject(
    {},
    {
      "t/en.json": '{ "deck": { "open": "Open" } }',
      "t/de.json": `{ "deck": { "open": "Offen", "shut": "Zu" }, "crew": ${group(10)}, "few": ${group(3)} }`,
      "t/fr.json": `{ "deck": { "open": "Ouvert" }, "crew": ${group(9)} }`,
    },
    ["de", "fr"],
  );
  const findings = (await lintProject(project)).filter(({ rule }) => rule === "key/extra");
  expect(findings.map(({ messageId, data }) => [messageId, data["group"] ?? data["key"]])).toEqual([
    ["extra", "deck.shut"],
    ["group", "crew"],
    ["extra", "few.a"],
    ["extra", "few.b"],
    ["extra", "few.c"],
  ]);
  expect(findings[1]?.data).toMatchObject({ count: 10, locales: 2 });
});

test("what a framework asks for by itself may be in one locale alone", async () => {
  const project = memoryProject(
    { assumed: ["date.**"] },
    {
      "t/en.json": '{ "date": { "day": "Day" }, "open": "Open" }',
      "t/de.json": '{ "date": { "day": "Tag", "own": "Eigenes" }, "open": "Offen", "gone": "Weg" }',
    },
    ["de"],
  );
  const findings = await lintProject(project);
  expect(findings.filter(({ rule }) => rule === "key/extra").map(({ key }) => key)).toEqual(["gone"]);
  const plan = reconcileProject(project, {}, "2031-05-04");
  const after = plan.changes.find(({ file }) => file === "t/de.json")?.after ?? "";
  expect(JSON.parse(after)).toEqual({ date: { day: "Tag", own: "Eigenes" }, open: "Offen" });
});

test("what a locale sets for itself is no extra key, and stays", async () => {
  const project = memoryProject(
    {},
    {
      "t/en.json": '{ "open": "Open" }',
      "t/ar.json": '{ "open": "مفتوح", "rtl": true, "firstDay": 6, "gone": "ذهب" }',
    },
    ["ar"],
  );
  const findings = await lintProject(project);
  expect(findings.filter(({ rule }) => rule === "key/extra").map(({ key }) => key)).toEqual(["gone"]);
  const plan = reconcileProject(project, {}, "2031-05-04");
  const after = plan.changes.find(({ file }) => file === "t/ar.json")?.after ?? "";
  expect(JSON.parse(after)).toEqual({ open: "مفتوح", rtl: true, firstDay: 6 });
});

test("an empty text for a small word of English may be meant", async () => {
  const project = memoryProject(
    {},
    { "t/en.json": '{ "from": "From", "save": "Save" }', "t/de.json": '{ "from": "", "save": "" }' },
    ["de"],
  );
  const findings = await lintProject(project);
  expect(findings.map(({ rule, key, severity }) => [rule, key, severity])).toEqual([
    ["text/empty", "from", "info"],
    ["text/empty", "save", "error"],
  ]);
});

describe("a catalog in the other Chinese is said once", () => {
  const said = async (locale: string, texts: readonly string[]) => {
    const list = Object.fromEntries(texts.map((text, at) => [`boat${at}`, text]));
    const source = Object.fromEntries(texts.map((_, at) => [`boat${at}`, `Boat number ${at}`]));
    const opened = openProject(
      memoryFiles({
        "fond.config.json": JSON.stringify({
          source: "en",
          targets: [locale],
          books: [{ name: "app", files: "t/{locale}.json" }],
        }),
        "t/en.json": JSON.stringify(source),
        [`t/${locale}.json`]: JSON.stringify(list),
      }),
    );
    if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
    const findings = await lintProject(opened.project);
    return findings.filter(({ rule }) => rule === "text/letter").map(({ messageId }) => messageId);
  };
  const many = (text: string, count: number) => Array.from({ length: count }, (_, at) => `${text} ${at}`);
  const traditional = "開啟設定頁面";
  const simplified = "打开设置页面";
  test.each<[string, string, readonly string[], readonly string[]]>([
    ["all of it", "zh", many(traditional, 30), ["catalog"]],
    ["nearly all of it", "zh-TW", [...many(simplified, 30), ...many(traditional, 5)], ["catalog"]],
    ["a few texts", "zh", many(traditional, 3), ["chinese", "chinese", "chinese"]],
    [
      "both",
      "zh",
      [...many(traditional, 20), ...many(simplified, 20)],
      many("chinese", 20).map(() => "chinese"),
    ],
    ["none", "zh-TW", many(traditional, 30), []],
  ])("%s", async (_, locale, texts, messages) => {
    expect(await said(locale, texts)).toEqual(messages);
  });
});

test("a lookup that gives a default of any kind asks for no key that has to be there", async () => {
  const project = memoryProject(
    { lookups: [{ call: "t" }], code: ["src/**"] },
    {
      "t/en.json": '{ "open": "Open" }',
      "src/a.rb":
        "show t(:open), t(:gone, default: word.to_s), t(:lost, :default => [:open, word]), t(:missing)\n",
    },
  );
  const findings = await lintProject(project);
  expect(findings.map(({ rule, key }) => [rule, key])).toEqual([["key/undefined", "missing"]]);
});

describe("keys that a program is given without their endings", () => {
  const find = async (asked: readonly string[], more: string) => {
    const names = ["open", "shut", "late", "gone"];
    const labels = Object.fromEntries(names.map((name) => [`quay.${name}.label`, name]));
    const lines = ["quay.title", ...asked].map((key) => `    show(say("${key}"));\n`).join("");
    const project = memoryProject(
      { code: ["a.java"], lookups: [{ call: "say" }] },
      {
        "t/en.json": JSON.stringify({ "quay.title": "Quay", ...labels }),
        "a.java": `class A {\n  void f() {\n${lines}    ${more}\n  }\n}\n`,
      },
    );
    return (await lintProject(project)).flatMap(({ rule, key }) =>
      /^key\/(?:undefined|unused)$/.test(rule) ? [`${rule.slice(4)} ${key ?? ""}`] : [],
    );
  };
  const all = ["quay.open", "quay.shut", "quay.late"];
  const end = 'String end = ".label";';
  test.each<[string, readonly string[], string, string[]]>([
    ["an ending of its own", all, end, ["unused quay.gone.label"]],
    [
      "one in place of another",
      all.map((key) => `${key}_text`),
      `${end} String other = "_text";`,
      ["unused quay.gone.label"],
    ],
    ["and strings that are given on", all, `${end} put("quay.gone");`, []],
    [
      "no ending in the code",
      all,
      "",
      ["undefined quay.late", "undefined quay.open", "undefined quay.shut", "unused quay.gone.label"],
    ],
    [
      "one or two, which may be chance",
      all.slice(0, 2),
      end,
      ["undefined quay.open", "undefined quay.shut", "unused quay.gone.label", "unused quay.late.label"],
    ],
    [
      "another key that has none",
      [...all, "quay.lost"],
      end,
      ["undefined quay.lost", "unused quay.gone.label"],
    ],
  ])("%s", async (_, asked, more, expected) => {
    expect((await find(asked, more)).sort()).toEqual(expected);
  });
});

test.each<[string, string, object, number]>([
  ["what holds other things", "all", { en: { title: "Boats" } }, 0],
  [
    "a copy in the source's language",
    "new",
    { title: "The boats that were in the harbor have left", open: "This is what you have to do with it" },
    0,
  ],
  ["a language", "war", { title: "Nagbiya na an mga sakayan", open: "Abrido ini" }, 1],
  ["a language that is no word", "fo", { title: "Bátarnir eru farnir", open: "Tað er opið" }, 1],
])("a file beside catalogs whose name may be a word: %s", async (_, name, texts, count) => {
  const project = memoryProject(
    {},
    {
      "t/en.json": JSON.stringify({ title: "The boats have left", open: "It is open" }),
      "t/de.json": JSON.stringify({ title: "Die Boote sind weg", open: "Es ist offen" }),
      [`t/${name}.json`]: JSON.stringify(texts),
    },
    ["de"],
  );
  const findings = await lintProject(project);
  expect(findings.filter(({ rule }) => rule === "file/locale-code")).toHaveLength(count);
});
