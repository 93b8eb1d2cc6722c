import { describe, expect, test } from "@jest/globals";
import { memoryFiles } from "../../../src/core/files/memory-files.js";
import { formatOf } from "../../../src/core/catalog/formats/index.js";
import { lintProject } from "../../../src/core/project/lint-project.js";
import { openProject } from "../../../src/core/project/project.js";
import { pluralRules } from "../../../src/core/locale/plural-rules.js";
import { parseIcu } from "../../../src/core/message/syntaxes/icu/icu.js";
import { printIcu } from "../../../src/core/message/syntaxes/icu/icu-print.js";
import type { MessageNode } from "../../../src/core/message/model.js";

/** A catalog of a quay's small site, correct in eleven languages. */
const texts: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  en: {
    hello: "Hello {name}, welcome aboard!",
    when: "Your boat leaves on {day, date, long}.",
    price: "The price is {price, number, ::currency/EUR} for 30 days.",
    boats: "{count, plural, one {# boat at {quay}} other {# boats at {quay}}}",
    deck: "{deck, select, upper {Upper deck} car {Car deck} other {Main deck}}",
    terms: "Please read <terms>the terms</terms> and <help>our help</help> first.",
    mail: "Write to help@quay.example if the boat is late.",
    label: "Name of the passenger:",
    leave: "Do you want to leave this page?",
    wait: "The boat “Ines” is late today. Please wait at the quay until it comes.",
    steps: "First run `boats --list`.\nThen choose one 🎉",
    on: "On",
    off: "Off",
  },
  de: {
    hello: "Hallo {name}, willkommen an Bord!",
    when: "Ihr Schiff fährt am {day, date, long} ab.",
    price: "Der Preis für 30 Tage beträgt {price, number, ::currency/EUR}.",
    boats: "{count, plural, one {# Boot in {quay}} other {# Boote in {quay}}}",
    deck: "{deck, select, upper {Oberdeck} car {Autodeck} other {Hauptdeck}}",
    terms: "Bitte lesen Sie zuerst <terms>die Bedingungen</terms> und <help>unsere Hilfe</help>.",
    mail: "Schreiben Sie an help@quay.example, wenn sich das Schiff verspätet.",
    label: "Name des Fahrgasts:",
    leave: "Möchten Sie diese Seite verlassen?",
    wait: "Das Boot „Ines“ hat heute Verspätung. Bitte warten Sie am Kai, bis es kommt.",
    steps: "Zuerst `boats --list` ausführen.\nDann eins wählen 🎉",
    on: "An",
    off: "Aus",
  },
  fr: {
    hello: "Bonjour {name}, bienvenue à bord !",
    when: "Votre bateau part le {day, date, long}.",
    price: "Le prix est de {price, number, ::currency/EUR} pour 30 jours.",
    boats: "{count, plural, one {# bateau à {quay}} many {# de bateaux à {quay}} other {# bateaux à {quay}}}",
    deck: "{deck, select, upper {Pont supérieur} car {Pont garage} other {Pont principal}}",
    terms: "Veuillez d’abord lire <terms>les conditions</terms> et <help>notre aide</help>.",
    mail: "Écrivez à help@quay.example si le bateau a du retard.",
    label: "Nom du passager :",
    leave: "Voulez-vous quitter cette page ?",
    wait: "Le bateau « Ines » est en retard aujourd’hui. Veuillez attendre au quai jusqu’à son arrivée.",
    steps: "D’abord, lancez `boats --list`.\nPuis choisissez-en un 🎉",
    on: "Activé",
    off: "Désactivé",
  },
  es: {
    hello: "¡Hola, {name}, bienvenido a bordo!",
    when: "Su barco sale el {day, date, long}.",
    price: "El precio es de {price, number, ::currency/EUR} por 30 días.",
    boats: "{count, plural, one {# barco en {quay}} many {# de barcos en {quay}} other {# barcos en {quay}}}",
    deck: "{deck, select, upper {Cubierta superior} car {Cubierta de coches} other {Cubierta principal}}",
    terms: "Lea antes <terms>las condiciones</terms> y <help>nuestra ayuda</help>.",
    mail: "Escriba a help@quay.example si el barco se retrasa.",
    label: "Nombre del pasajero:",
    leave: "¿Quiere salir de esta página?",
    wait: "El barco «Ines» llega tarde hoy. Espere en el muelle hasta que llegue.",
    steps: "Primero ejecute `boats --list`.\nLuego elija uno 🎉",
    on: "Activado",
    off: "Desactivado",
  },
  pl: {
    hello: "Witaj {name} na pokładzie!",
    when: "Twój statek odpływa {day, date, long}.",
    price: "Cena za 30 dni wynosi {price, number, ::currency/EUR}.",
    boats:
      "{count, plural, one {# łódź w {quay}} few {# łodzie w {quay}} many {# łodzi w {quay}} other {# łodzi w {quay}}}",
    deck: "{deck, select, upper {Pokład górny} car {Pokład samochodowy} other {Pokład główny}}",
    terms: "Najpierw przeczytaj <terms>warunki</terms> i <help>naszą pomoc</help>.",
    mail: "Napisz na help@quay.example, jeśli statek się spóźnia.",
    label: "Nazwisko pasażera:",
    leave: "Czy chcesz opuścić tę stronę?",
    wait: "Łódź „Ines” jest dziś spóźniona. Proszę czekać na nabrzeżu, aż przypłynie.",
    steps: "Najpierw uruchom `boats --list`.\nPotem wybierz jedną 🎉",
    on: "Włączone",
    off: "Wyłączone",
  },
  ru: {
    hello: "Здравствуйте, {name}, добро пожаловать на борт!",
    when: "Ваше судно отходит {day, date, long}.",
    price: "Цена за 30 дней — {price, number, ::currency/EUR}.",
    boats:
      "{count, plural, one {# лодка в {quay}} few {# лодки в {quay}} many {# лодок в {quay}} other {# лодки в {quay}}}",
    deck: "{deck, select, upper {Верхняя палуба} car {Автопалуба} other {Главная палуба}}",
    terms: "Сначала прочитайте <terms>условия</terms> и <help>нашу справку</help>.",
    mail: "Пишите на help@quay.example, если судно опаздывает.",
    label: "Имя пассажира:",
    leave: "Вы хотите покинуть эту страницу?",
    wait: "Судно «Ines» сегодня опаздывает. Пожалуйста, ждите на причале, пока оно не придёт.",
    steps: "Сначала запустите `boats --list`.\nПотом выберите одну 🎉",
    on: "Включено",
    off: "Выключено",
  },
  ar: {
    hello: "مرحبًا {name}، أهلًا بك على متن السفينة!",
    when: "تغادر سفينتك في {day, date, long}.",
    price: "السعر هو {price, number, ::currency/EUR} لمدة ٣٠ يومًا.",
    boats:
      "{count, plural, zero {# قارب في {quay}} one {قارب واحد في {quay}} two {قاربان في {quay}} few {# قوارب في {quay}} many {# قاربًا في {quay}} other {# قارب في {quay}}}",
    deck: "{deck, select, upper {السطح العلوي} car {سطح السيارات} other {السطح الرئيسي}}",
    terms: "يرجى قراءة <terms>الشروط</terms> و<help>المساعدة</help> أولًا.",
    mail: "اكتب إلى help@quay.example إذا تأخر القارب.",
    label: "اسم المسافر:",
    leave: "هل تريد مغادرة هذه الصفحة؟",
    wait: "القارب «Ines» متأخر اليوم. يرجى الانتظار على الرصيف حتى يصل.",
    steps: "شغّل أولًا `boats --list`.\nثم اختر واحدًا 🎉",
    on: "تشغيل",
    off: "إيقاف",
  },
  ja: {
    hello: "{name}さん、ご乗船ありがとうございます！",
    when: "船は{day, date, long}に出発します。",
    price: "料金は30日間で{price, number, ::currency/EUR}です。",
    boats: "{count, plural, other {{quay}に#隻の船}}",
    deck: "{deck, select, upper {上甲板} car {車両甲板} other {主甲板}}",
    terms: "先に<terms>規約</terms>と<help>ヘルプ</help>をお読みください。",
    mail: "船が遅れている場合は help@quay.example までご連絡ください。",
    label: "乗客のお名前：",
    leave: "このページを離れますか？",
    wait: "「Ines」号は本日遅れています。到着まで岸壁でお待ちください。",
    steps: "まず `boats --list` を実行します。\n次に一隻選びます 🎉",
    on: "オン",
    off: "オフ",
  },
  tr: {
    hello: "Merhaba {name}, gemiye hoş geldiniz!",
    when: "Geminiz {day, date, long} tarihinde kalkıyor.",
    price: "30 günlük fiyat {price, number, ::currency/EUR}.",
    boats: "{count, plural, one {{quay} iskelesinde # tekne} other {{quay} iskelesinde # tekne}}",
    deck: "{deck, select, upper {Üst güverte} car {Araç güvertesi} other {Ana güverte}}",
    terms: "Önce <terms>koşulları</terms> ve <help>yardımı</help> okuyun.",
    mail: "Tekne gecikirse help@quay.example adresine yazın.",
    label: "Yolcunun adı:",
    leave: "Bu sayfadan ayrılmak istiyor musunuz?",
    wait: "“Ines” teknesi bugün gecikti. Lütfen gelene kadar iskelede bekleyin.",
    steps: "Önce `boats --list` çalıştırın.\nSonra birini seçin 🎉",
    on: "Açık",
    off: "Kapalı",
  },
  he: {
    hello: "שלום {name}, ברוכים הבאים לסיפון!",
    when: "הספינה שלך יוצאת ב-{day, date, long}.",
    price: "המחיר הוא {price, number, ::currency/EUR} ל-30 ימים.",
    boats: "{count, plural, one {סירה אחת ב{quay}} two {שתי סירות ב{quay}} other {# סירות ב{quay}}}",
    deck: "{deck, select, upper {סיפון עליון} car {סיפון רכב} other {סיפון ראשי}}",
    terms: "נא לקרוא תחילה את <terms>התנאים</terms> ואת <help>העזרה</help>.",
    mail: "כתבו אל help@quay.example אם הספינה מאחרת.",
    label: "שם הנוסע:",
    leave: "האם לצאת מהדף הזה?",
    wait: "הסירה „Ines” מאחרת היום. נא להמתין ברציף עד שתגיע.",
    steps: "קודם הריצו `boats --list`.\nאחר כך בחרו אחת 🎉",
    on: "מופעל",
    off: "כבוי",
  },
  el: {
    hello: "Γεια σου {name}, καλώς ήρθες στο πλοίο!",
    when: "Το πλοίο σας φεύγει στις {day, date, long}.",
    price: "Η τιμή για 30 ημέρες είναι {price, number, ::currency/EUR}.",
    boats: "{count, plural, one {# βάρκα στο {quay}} other {# βάρκες στο {quay}}}",
    deck: "{deck, select, upper {Επάνω κατάστρωμα} car {Γκαράζ} other {Κύριο κατάστρωμα}}",
    terms: "Διαβάστε πρώτα <terms>τους όρους</terms> και <help>τη βοήθεια</help>.",
    mail: "Γράψτε στο help@quay.example αν το πλοίο αργήσει.",
    label: "Όνομα επιβάτη:",
    leave: "Θέλετε να φύγετε από αυτή τη σελίδα;",
    wait: "Το πλοίο «Ines» έχει σήμερα καθυστέρηση. Παρακαλώ περιμένετε στην αποβάθρα μέχρι να έρθει.",
    steps: "Πρώτα εκτελέστε `boats --list`.\nΜετά διαλέξτε ένα 🎉",
    on: "Ενεργό",
    off: "Ανενεργό",
  },
};

const locales = Object.keys(texts).filter((locale) => locale !== "en");
const endings = ["json", "yaml", "properties"] as const;

type Catalog = Readonly<Record<string, string>>;

function fileOf(ending: string, catalog: Catalog): string {
  const format = formatOf({ files: `a.${ending}` });
  return format.edit(format.empty, {
    add: Object.entries(catalog).map(([key, text]) => ({ path: [key], text })),
  });
}

interface Fault {
  readonly rule: string;
  /** The text with the fault, or undefined where it cannot have it. */
  readonly plant: (text: string, locale: string, key: string) => string | undefined;
}

const changed = (text: string, from: string | RegExp, to: string) => {
  const after = text.replace(from, () => to);
  return after === text ? undefined : after;
};

function branches(text: string, keep: (selector: string) => boolean): string | undefined {
  const [node] = parseIcu(text).nodes;
  if (node?.kind !== "plural" && node?.kind !== "select") return undefined;
  const left = node.branches.filter(({ selector }) => keep(selector));
  return left.length === node.branches.length || left.length === 0
    ? undefined
    : printIcu([{ ...node, branches: left } as MessageNode]);
}

const faults: readonly Fault[] = [
  { rule: "argument/missing", plant: (text) => changed(text, /\{(?:name|day, date, long)\}/, "") },
  { rule: "argument/unknown", plant: (text) => changed(text, "{name}", "{nmae}") },
  { rule: "argument/unknown", plant: (text) => changed(text, "{day,", "{tag,") },
  { rule: "argument/type", plant: (text) => changed(text, "{day, date, long}", "{day, number}") },
  { rule: "argument/format", plant: (text) => changed(text, "::currency/EUR", "::currncy/EUR") },
  { rule: "argument/format", plant: (text) => changed(text, "::currency/EUR", "::currency/USD") },
  {
    rule: "plural/no-other",
    plant: (text) => (text.includes(", plural,") ? branches(text, (one) => one !== "other") : undefined),
  },
  {
    rule: "plural/missing-category",
    plant: (text, locale) => {
      const [needed] = pluralRules(locale, "cardinal").categories.filter((one) => one !== "other");
      return text.includes(", plural,") && needed !== undefined
        ? branches(text, (one) => one !== needed)
        : undefined;
    },
  },
  {
    rule: "plural/idle-category",
    plant: (text, locale) =>
      pluralRules(locale, "cardinal").categories.includes("zero")
        ? undefined
        : changed(text, "{count, plural,", "{count, plural, zero {# {quay}}"),
  },
  {
    rule: "plural/flattened",
    plant: (text, locale) =>
      text.includes(", plural,") && pluralRules(locale, "cardinal").categories.length > 1
        ? "{count} {quay}"
        : undefined,
  },
  { rule: "select/cases", plant: (text) => changed(text, " upper {", " ober {") },
  {
    rule: "select/no-other",
    plant: (text) => (text.includes(", select,") ? branches(text, (one) => one !== "other") : undefined),
  },
  { rule: "tag/missing", plant: (text) => changed(text, /<\/?help>/g, "") },
  {
    rule: "tag/unknown",
    plant: (text) => (text.includes("<help>") ? text.replaceAll("help>", "hilfe>") : undefined),
  },
  { rule: "tag/unbalanced", plant: (text) => changed(text, "</help>", "") },
  {
    rule: "syntax/unreadable",
    plant: (text) => (text.endsWith("}") ? text.slice(0, -1) : changed(text, "{name}", "{name")),
  },
  { rule: "syntax/foreign", plant: (text, _, key) => (key === "label" ? `${text} %s` : undefined) },
  { rule: "syntax/apostrophe", plant: (text) => changed(text, "{name}", "'{name}") },
  { rule: "text/empty", plant: () => "" },
  {
    rule: "text/untranslated",
    plant: (_, __, key) => (/^(?:on|off)$/.test(key) ? undefined : texts["en"]?.[key]),
  },
  { rule: "text/space", plant: (text) => (/[{<\n]/.test(text) ? undefined : `${text} `) },
  { rule: "text/numbers", plant: (text) => changed(text, /30|٣٠/, "45") },
  { rule: "text/address", plant: (text) => changed(text, "help@", "hilfe@") },
  { rule: "text/control", plant: (text) => changed(text, "{name}", "\u2068{name}") },
  {
    rule: "text/ending",
    plant: (text, _, key) => (key === "leave" ? text.slice(0, -1).trimEnd() : undefined),
  },
  { rule: "text/marker", plant: (text) => `TODO ${text}` },
  {
    rule: "text/normal-form",
    plant: (text) =>
      text.normalize("NFD") === text || text.normalize("NFD").normalize("NFC") !== text
        ? undefined
        : text.normalize("NFD"),
  },
  {
    rule: "text/script",
    plant: (text, locale, key) =>
      key !== "label" || locale === "ru" ? undefined : text.replace(/\p{L}+/u, "Палуба"),
  },
  {
    rule: "text/repeat",
    plant: (text, locale, key) =>
      key === "mail" && /^(?:de|fr|es|pl|ru)$/.test(locale)
        ? text.replace(/(\p{L}{5,})/u, "$1 $1")
        : undefined,
  },
  { rule: "argument/place", plant: (text) => changed(text, "{name}", "{name} {name}") },
  {
    rule: "argument/place",
    plant: (text, locale) =>
      /^(?:ar|he|ja)$/.test(locale) ? undefined : changed(text, /(?<=\p{L}) \{name\}/u, "{name}"),
  },
  {
    rule: "text/lost",
    plant: (text, locale, key) =>
      key === "wait" && locale !== "ja" ? /^[^.]*\./.exec(text)?.[0] : undefined,
  },
  { rule: "text/lost", plant: (text) => changed(text, "\n", " ") },
  { rule: "text/lost", plant: (text) => changed(text, " 🎉", "") },
  {
    rule: "text/quote",
    plant: (text, locale) => (/tr|en/.test(locale) ? undefined : changed(text, /[»」]|(?<=Ines)[“”]/, "")),
  },
  { rule: "text/code", plant: (text) => changed(text, "`boats --list`", "`boote --liste`") },
  { rule: "text/opposite", plant: (_, locale, key) => (key === "on" ? texts[locale]?.["off"] : undefined) },
  {
    rule: "plural/alike",
    plant: (text, locale) =>
      locale === "pl"
        ? changed(text, "few {# łodzie", "few {# łodzi")
        : locale === "ru"
          ? changed(text, "few {# лодки", "few {# лодок")
          : undefined,
  },
  {
    rule: "markup/unsafe",
    plant: (text, _, key) => (key === "label" ? `${text} <script>x()</script>` : undefined),
  },
  {
    rule: "file/encoding",
    plant: (text) =>
      /[\u0080-\uffff]/.test(text) && !/[\u0100-\uffff]/.test(text)
        ? Buffer.from(text, "utf8").toString("latin1")
        : undefined,
  },
];

async function lint(
  ending: string,
  catalogs: Readonly<Record<string, Catalog>>,
  raw: Readonly<Record<string, string>> = {},
) {
  const files: Record<string, string> = {
    "fond.config.json": JSON.stringify({
      source: "en",
      targets: Object.keys(catalogs).filter((locale) => locale !== "en"),
      books: [{ name: "quay", code: [], files: `t/{locale}.${ending}` }],
    }),
  };
  for (const [locale, catalog] of Object.entries(catalogs))
    files[`t/${locale}.${ending}`] = raw[locale] ?? fileOf(ending, catalog);
  const opened = openProject(memoryFiles(files));
  if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
  return lintProject(opened.project);
}

describe("a catalog that is correct in eleven languages", () => {
  test.each(endings)("has no finding at all: %s", async (ending) => {
    expect(await lint(ending, texts)).toEqual([]);
  });
});

/** Numbers from 0 up to 1, the same for the same seed. */
function randomFrom(seed: number): () => number {
  let state = seed;
  return () => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return state / 2 ** 32;
  };
}

test("each planted fault is found: the rule meant, at the key and locale meant, and no error elsewhere", async () => {
  const random = randomFrom(20_261_123);
  const pick = <Item>(list: readonly Item[]): Item => list[Math.floor(random() * list.length)] as Item;
  const planted = new Map<string, number>();
  const missed: string[] = [];
  let count = 0;
  while (count < 1_100) {
    // The first round gives each fault to each locale where it can be; the rest is chance.
    const fault = count < 900 ? (faults[count % faults.length] as Fault) : pick(faults);
    const locale = pick(locales);
    const keys = Object.keys(texts[locale] ?? {}).filter(
      (key) => fault.plant(texts[locale]?.[key] ?? "", locale, key) !== undefined,
    );
    if (keys.length === 0) {
      if (random() < 0.5) continue;
      count++;
      continue;
    }
    const key = pick(keys);
    const ending = pick(endings);
    const text = fault.plant(texts[locale]?.[key] ?? "", locale, key) ?? "";
    // One of the other translations stands beside it, each in its turn.
    const other = locales[count % locales.length] ?? "de";
    const findings = await lint(ending, {
      en: texts.en ?? {},
      [other]: texts[other] ?? {},
      [locale]: { ...texts[locale], [key]: text },
    });
    const isFound = findings.some(
      (one) => one.rule === fault.rule && one.locale === locale && one.key === key,
    );
    const others = findings.filter((one) => one.severity === "error" && one.key !== key);
    // The fault itself is told of once: no other error on its key either.
    const doubled = findings.filter(
      (one) => one.severity === "error" && one.key === key && one.rule !== fault.rule,
    );
    if (!isFound || others.length > 0 || doubled.length > 0)
      missed.push(
        `${fault.rule} ${ending} ${locale} ${key} “${text}”: ${findings.map(({ rule }) => rule).join(", ")}`,
      );
    planted.set(fault.rule, (planted.get(fault.rule) ?? 0) + 1);
    count++;
  }
  const total = [...planted.values()].reduce((sum, one) => sum + one, 0);
  expect(total).toBeGreaterThanOrEqual(1_000);
  expect(planted.size).toBe(new Set(faults.map(({ rule }) => rule)).size);
  expect(missed.slice(0, Math.max(0, missed.length - Math.floor(total * 0.005)))).toEqual([]);
}, 120_000);

test("a file that is broken as a whole is one finding", async () => {
  for (const ending of endings)
    for (const locale of locales) {
      const whole = fileOf(ending, texts[locale] ?? {});
      const lines = whole.split("\n");
      const marked = [
        ...lines.slice(0, 3),
        "<<<<<<< ours",
        lines[3],
        "=======",
        lines[4],
        ">>>>>>> theirs",
        ...lines.slice(5),
      ].join("\n");
      const found = await lint(ending, texts, { [locale]: marked });
      expect(found.map(({ rule, file }) => [rule, file])).toEqual([
        ["file/merge-marker", `t/${locale}.${ending}`],
      ]);
      if (ending !== "json") continue;
      const cut = await lint(ending, texts, { [locale]: whole.slice(0, -20) });
      expect(cut.map(({ rule, file }) => [rule, file])).toEqual([["file/unreadable", `t/${locale}.json`]]);
    }
});

test.each(endings)("keys lost, added and doubled: %s", async (ending) => {
  for (const locale of locales) {
    const own = texts[locale] ?? {};
    const { label, ...rest } = own;
    expect((await lint(ending, { ...texts, [locale]: rest })).map(({ rule, key }) => [rule, key])).toEqual([
      ["key/missing", "label"],
    ]);
    expect(
      (await lint(ending, { ...texts, [locale]: { ...own, spare: label ?? "" } })).map(({ rule, key }) => [
        rule,
        key,
      ]),
    ).toEqual([["key/extra", "spare"]]);
  }
});
