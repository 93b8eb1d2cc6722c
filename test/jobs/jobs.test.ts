import { afterAll, describe, expect, test } from "@jest/globals";
import { readdirSync } from "node:fs";
import { join } from "node:path";
import { cleanUp, filesIn, fond, root, temporaryProject } from "../support/project.js";

afterAll(cleanUp);

const samples = join(root, "test/fixtures/jobs");

interface Job {
  /** What `init` writes for the book, in part; of the first where there are several. */
  readonly book: Record<string, unknown>;
  /** What the project's files hold in the end, by file. */
  readonly written: Readonly<Record<string, readonly string[]>>;
  /** How many texts are moved, and how many default texts collected. */
  readonly moved: number;
  readonly collected?: number;
}

/** The jobs of docs/jobs.md, each a small project as people have them, done with what `init` proposes and nothing else. */
const jobs: Readonly<Record<string, Job>> = {
  "group-hook": {
    book: { lookups: [{ maker: "useTexts", gives: "say", prefix: 0 }] },
    written: {
      "src/Search.tsx": [
        '{say("departingFrom")}',
        'placeholder={say("nameIsland")}',
        'say("oneIslandFound", { islandCount: islands.length })',
      ],
      "src/Basket.tsx": ['say("keptUntilBoatLeaves", { name })'],
      "src/texts/en.json": [
        '"oneIslandFound": "{islandCount, plural, =1 {One island found} other {# islands found}}"',
      ],
    },
    moved: 5,
  },
  "php-arrays": {
    book: { files: "lang/{locale}/{namespace}.php", syntax: "colon", plurals: "bar" },
    written: {
      "app/BookingController.php": ["'seats' => __('bookingController.mostEightSeatsOnce')"],
      "app/views/booking.blade.php": ["placeholder=\"{{ __('booking.namesOneLine') }}\""],
      "lang/de/booking.php": [
        "    'title' => 'Überfahrt buchen',\n",
        "        'back' => 'Zurück zur Liste',\n    ],\n    'namesOneLine'",
      ],
      "lang/de/bookingController.php": ["<?php\n\nreturn [\n    'mostEightSeatsOnce' =>"],
    },
    moved: 4,
  },
  "declared-texts": {
    book: {
      files: "src/loc/{locale}.js",
      lookups: [{ member: "texts" }],
      declared: "./seats.d.ts",
      naming: { case: "pascal" },
    },
    written: {
      "src/Seats.tsx": ["<p>{texts.BookingOpensTomorrow}</p>", "title={texts.TakesOneSeat}"],
      "src/loc/nb-no.js": ['    "BookNow": "Book now"\n'],
      "src/loc/seats.d.ts": ["  SeatCount: string;\n  BookingOpensTomorrow: string;\n"],
    },
    moved: 3,
  },
  "commented-catalog": {
    book: { syntax: "double-brace", lookups: [{ filter: "text" }], hints: { source: "{entry}," } },
    written: {
      "src/app/crew.component.html": ["<p>{{ 'crew.nextMeetingMonday' | text }}</p>"],
      "src/assets/de.jsonc": [
        '\n\n  // "crew.nextMeetingMonday": "The next meeting is on Monday.",\n  "crew.nextMeetingMonday": "The next meeting is on Monday.",\n',
      ],
    },
    moved: 2,
  },
  "beside-code": {
    book: {
      files: "{dir}/{name}.jsx",
      constant: "words",
      root: "{locale}",
      lookups: [{ member: "own" }],
      emit: { call: "own.{key}", setup: "const own = words[useLanguage()];" },
    },
    written: {
      "src/Kiosk.jsx": [
        '"Open until ten", dishesToday: "Dishes of today" },\n  de: { title: "Der Kiosk",',
        "  const own = words[useLanguage()];\n  return <ul aria-label={own.dishesToday}>",
      ],
      "src/Pier.jsx": ["<footer>{own.closedAfterSunset}</footer>"],
    },
    moved: 2,
  },
  "csv-table": {
    book: { files: "texts/texts.csv", lookups: [{ call: "word" }] },
    written: {
      "src/list.js": ['page.button.textContent = word("list.showMap");'],
      "texts/texts.csv": [
        "list.count,de,{count} Überfahrten\nlist.showMap,en,Show the map\nlist.showMap,de,Show the map\n",
      ],
    },
    moved: 1,
  },
  "jsp-page": {
    book: { files: "res/texts_{locale}.properties", lookups: [{ tag: "txt:text", key: "key" }] },
    written: {
      "web/booking.jsp": [
        '<p><txt:text key="booking.chooseBoatDay"/></p>',
        "value=\"<txt:text key='booking.bookNow'/>\"",
      ],
      "res/texts_fr.properties": ["booking.bookNow=Book now\n"],
    },
    moved: 2,
  },
  "one-module": {
    book: { files: "src/texts.js", root: "{locale}", lookups: [{ call: "say" }] },
    written: {
      "src/list.js": ['.textContent = say("list.noBoatGoesThere");', "{ island: crossing.island }"],
      "src/texts.js": [
        '    count: "{n} crossings found",\n    list: {\n',
        '    count: "{n} Überfahrten gefunden",\n    list: {\n',
      ],
    },
    moved: 2,
  },
  "typed-modules": {
    book: { files: "src/texts/{locale}.ts", lookups: [{ member: "texts" }] },
    written: {
      "src/Cart.tsx": ["<button>{texts.cart.payAllSeats}</button>"],
      "src/texts/en.ts": [
        '    items: (count: number) => `${count} seats`,\n    payAllSeats: "Pay for all seats",\n  },',
      ],
      "src/texts/de.ts": ["    search: 'Suchen',\n", '    payAllSeats: "Pay for all seats",\n'],
    },
    moved: 2,
  },
  "filter-templates": {
    book: { syntax: "double-brace", lookups: [{ filter: "text" }] },
    written: {
      "src/app/home.component.html": [
        "{{ 'home.bookSeat' | text }}",
        `[placeholder]="'home.yourName' | text"`,
        `*when="isFull">{{ 'home.boatFullTryNext' | text }}`,
      ],
    },
    moved: 3,
  },
  "string-object": {
    book: { lookups: [{ member: "strings" }] },
    written: {
      "src/Cart.tsx": ["title={strings.cart.payAllSeats}", "{strings.cart.seatsKeptTenMinutes}"],
      "src/lang/en.json": ['  "cart": {', '    "payAllSeats": "Pay for all seats"'],
    },
    moved: 2,
  },
  "ruby-web": {
    book: {
      files: "config/locales/{locale}.yml",
      root: "{locale}",
      syntax: "percent-brace",
      plurals: "branches",
      lookups: [{ call: "t" }],
      relative: { root: "app/views", pattern: "{folders}.{file}" },
      naming: { case: "snake" },
    },
    written: {
      "app/views/boats/index.html.erb": [
        "<p><%= t('boats.sails_every_day_but') %></p>",
        "link_to t('boats.back_quay'), quay_path",
        `title="<%= t('boats.moored_quay', quay: boat.quay) %>"`,
      ],
      "app/controllers/boats_controller.rb": ["notice: t('boats_controller.saved_name', name: boat.name)"],
      "config/locales/en.yml": ['saved_name: "%{name} was saved"'],
    },
    moved: 4,
  },
  "php-text-keys": {
    book: { syntax: "colon", plurals: "bar", naming: { pattern: "{text}", shape: "flat" } },
    written: {
      "resources/views/home.php": [
        "<?= __('Book before noon') ?>",
        "<?= __('It\\'s the crew\\'s day off') ?>",
        `placeholder="<?= __('Name of your party') ?>"`,
      ],
      "lang/en.json": ["\"It's the crew's day off\": \"It's the crew's day off\""],
    },
    moved: 3,
  },
  "java-modules": {
    book: { spelling: { en: "" }, syntax: "java", lookups: [{ call: "texts.getString" }] },
    written: {
      "harbor/src/main/java/harbor/Office.java": ['new JLabel(texts.getString("office.noBoatQuay"))'],
      "quay/src/main/webapp/quay.jsp": [
        '<p><q:text key="quay.boatsMoorHere"/></p>',
        `value="<q:text key='quay.askBerth'/>"`,
      ],
    },
    moved: 4,
  },
  "wrong-code": {
    book: { spelling: { ko: "kr", "pt-BR": "ptBR" }, lookups: [{ call: "Texts.get" }] },
    written: {
      "src/Timetable.java": ['page.setTitle(Texts.get("noCrossingsToday"))'],
      "res/texts_kr.properties": ["noCrossingsToday=No crossings today"],
    },
    moved: 1,
  },
  "beside-components": {
    book: { files: "{dir}/texts.{locale}.json", lookups: [{ maker: "textsFor" }] },
    written: {
      "src/Menu/Menu.jsx": ['<p>{t("nothingNewMenu")}</p>'],
      "src/Menu/texts.en.json": ['"nothingNewMenu": "Nothing new in the menu"'],
      "src/Basket/texts.de.json": ['"nothingNewBasket": "Nothing new in the basket"'],
    },
    moved: 3,
  },
  "colon-plurals": {
    book: { syntax: "colon", plurals: "bar", lookups: [{ call: "say" }] },
    written: {
      "src/page.js": ['note.title = say("askedName", { name });'],
      "locales/en.json": ['"Asked for by :name"'],
    },
    moved: 2,
  },
  "older-plurals": {
    book: { syntax: "double-brace", plurals: "suffix", forms: { second: "plural" } },
    written: {
      "web/Deck.tsx": ['{lookup("one_person_deck", { count: n })}'],
      "web/i/en.json": [
        '"one_person_deck": "One person on deck"',
        '"one_person_deck_plural": "{{count}} persons on deck"',
      ],
    },
    moved: 3,
  },
  "default-texts": {
    book: { lookups: [{ call: "say", default: 1 }] },
    written: { "locales/en.json": ['"lead": "Pick an island, {name}"'] },
    moved: 0,
    collected: 3,
  },
  "locale-argument": {
    book: { lookups: [{ call: "lookup", key: 1 }], emit: { call: 'lookup(locale, "{key}"{args})' } },
    written: { "server/pages.js": ['title: lookup(locale, "pages.ferryHasLeft")'] },
    moved: 2,
  },
  "marked-pages": {
    book: { lookups: [{ mark: "[[KEY]]" }], naming: { shape: "flat", separator: ":" } },
    written: { "pages/top.html": ["<p>[[top:dogsSailFreeCharge]]</p>"] },
    moved: 1,
  },
  "marked-templates": {
    book: { marked: [{ attribute: "data-words", pattern: "{meaning}|{note}#{key}" }] },
    written: {
      "texts/en.json": [
        '"top.seats": "{seats, plural, one {One seat is left} other {# seats are left}}"',
        '"top.late": "This boat is late"',
      ],
    },
    moved: 0,
    collected: 2,
  },
  "attribute-pages": {
    book: {
      lookups: [{ attribute: "data-text" }],
      emit: { endings: { ".html": { content: 'data-text="{key}"' } } },
    },
    written: {
      "pages/top.html": [
        '<button class="book" data-text="top.bookSeat">Book a seat</button>',
        '<p data-text="top.dogsSailFreeCharge">\n    Dogs sail free of charge\n  </p>',
      ],
    },
    moved: 2,
  },
  "kept-by-hand": {
    book: { files: "src/lang/{locale}.yaml", lookups: [{ call: "$say" }] },
    written: {
      "src/pages/home.vue": [
        "<p>{{ $say('home.boatsLeaveHour') }}</p>",
        `:alt="$say('home.boatBetweenTwoIslands')"`,
      ],
      "src/lang/en.yaml": ["# Texts of the pages, by page, section and field"],
    },
    moved: 2,
  },
};

test("each sample has its job", () => {
  expect(readdirSync(samples).sort()).toEqual(Object.keys(jobs).sort());
});

describe("from an empty start to a clean lint", () => {
  test.each(Object.entries(jobs))("%s", async (name, job) => {
    const folder = temporaryProject(filesIn(join(samples, name)));
    const json = async (...args: string[]) => {
      const { stdout, stderr } = await fond(folder, ...args, "--format", "json");
      if (stdout === "") throw new Error(stderr);
      return JSON.parse(stdout) as Record<string, never>;
    };
    expect((await fond(folder, "init", "--yes", "--write")).status).toBe(0);
    const config = JSON.parse(filesIn(folder)["fond.config.json"] ?? "{}") as { books: object[] };
    expect(config.books[0]).toMatchObject(job.book);
    expect((await json("lint"))["counts"]).toMatchObject({ error: 0, warning: 0 });

    const plan = await json("extract", "--write");
    expect(plan["summary"]).toMatchObject({
      ...(job.moved > 0 && { "texts replaced": job.moved }),
      ...(job.collected !== undefined && { "default texts collected": job.collected }),
    });
    expect((await fond(folder, "reconcile", "--write")).status).toBe(0);
    const files = filesIn(folder);
    for (const [file, pieces] of Object.entries(job.written))
      for (const piece of pieces) expect(files[file]).toContain(piece);

    const { findings } = (await json("lint")) as unknown as {
      findings: { rule: string; severity: string }[];
    };
    expect(findings.filter(({ severity }) => severity === "error")).toEqual([]);
    expect(findings.filter(({ severity }) => severity === "warning").map(({ rule }) => rule)).toEqual(
      findings.filter(({ severity }) => severity === "warning").map(() => "text/untranslated"),
    );
    expect((await json("survey"))["counts"]).toMatchObject({ text: 0 });
    // A second run has nothing left to do.
    expect((await json("extract"))["edits"]).toEqual([]);
  });
});
