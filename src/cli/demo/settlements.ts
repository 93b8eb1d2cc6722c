/** One correction that the walk-through makes in the sample project: what it settles, and how. */
export type Settlement =
  | {
      readonly kind: "replace";
      /** The finding or note in a few words. */
      readonly fault: string;
      readonly file: string;
      readonly from: string;
      readonly to: string;
    }
  | { readonly kind: "rename"; readonly fault: string; readonly file: string; readonly to: string };

/** The findings of `lint`, settled one by one. */
export const findings: readonly Settlement[] = [
  {
    kind: "replace",
    fault: 'key/undefined: a key misspelled in code, so users saw "sailings.list.depature".',
    file: "web/pages/sailings.tsx",
    from: "sailings.list.depature",
    to: "sailings.list.departure",
  },
  {
    kind: "replace",
    fault: "argument/unknown: the German translator translated the placeholder.",
    file: "web/locales/de/search.json",
    from: "{anzahl, plural,",
    to: "{count, plural,",
  },
  {
    kind: "replace",
    fault: "syntax/apostrophe: the apostrophe of d' quoted {island}; a typographic one does not.",
    file: "web/locales/fr/sailings.json",
    from: "d'{island}",
    to: "d’{island}",
  },
  {
    kind: "replace",
    fault: "plural/missing-category: French needs many, for a million bikes.",
    file: "web/locales/fr/passengers.json",
    from: "one {# vélo} other",
    to: "one {# vélo} many {# de vélos} other",
  },
  {
    kind: "replace",
    fault: "plural/missing-category: Polish has four forms, not English's two.",
    file: "web/locales/pl/passengers.json",
    from: "one {# dorosły} other {# dorosłych}",
    to: "one {# dorosły} few {# dorosłych} many {# dorosłych} other {# dorosłego}",
  },
  {
    kind: "replace",
    fault: "tag/missing: the link to the conditions was lost.",
    file: "web/locales/pl/fares.json",
    from: "akceptujesz warunki przewozu",
    to: "akceptujesz <terms>warunki przewozu</terms>",
  },
  {
    kind: "replace",
    fault: "plural/idle-category: Japanese never selects one.",
    file: "web/locales/ja/passengers.json",
    from: "one {自転車1台} ",
    to: "",
  },
  {
    kind: "replace",
    fault: "select/cases: the case upper was translated, so it was never chosen.",
    file: "web/locales/ja/sailings.json",
    from: "上 {上甲板}",
    to: "upper {上甲板}",
  },
  {
    kind: "replace",
    fault: "key/duplicate: the second total won.",
    file: "web/locales/ar/basket.json",
    from: ',\n  "total": "الإجمالي: {price}"',
    to: "",
  },
  {
    kind: "replace",
    fault: "text/stale: the source no longer mentions Saturdays.",
    file: "web/locales/de/fares.json",
    from: "Samstags schließt der Check-in {minutes} Minuten vor der Abfahrt.",
    to: "Der Check-in schließt {minutes} Minuten vor der Abfahrt.",
  },
  {
    kind: "replace",
    fault: "key/unused: the timetable page is long gone.",
    file: "web/locales/en/common.json",
    from: ',\n    "timetable": "Timetable"',
    to: "",
  },
  {
    kind: "replace",
    fault: "argument/unknown: a placeholder in German, on the kiosk.",
    file: "kiosk/locales/de.yaml",
    from: "%{boot} legt",
    to: "%{boat} legt",
  },
  {
    kind: "replace",
    fault: "plural/missing-category: the kiosk's Polish has English's two forms, too.",
    file: "kiosk/locales/pl.yaml",
    from: `    # English has two forms, Polish four: these two are not enough.
    boarding:
      one: Wejście zamyka się za %{count} minutę
      other: Wejście zamyka się za %{count} minut`,
    to: `    boarding:
      one: Wejście zamyka się za %{count} minutę
      few: Wejście zamyka się za %{count} minuty
      many: Wejście zamyka się za %{count} minut
      other: Wejście zamyka się za %{count} minuty`,
  },
  {
    kind: "replace",
    fault: "syntax/apostrophe: in Java, too, an apostrophe quotes.",
    file: "harbor/texts/office_fr.properties",
    from: "poste d'amarrage {1}",
    to: "poste d’amarrage {1}",
  },
  {
    kind: "replace",
    fault: "argument/unknown: numbered from zero, the second argument is {1}.",
    file: "harbor/texts/office_pl.properties",
    from: "na miejscu {2}",
    to: "na miejscu {1}",
  },
  {
    kind: "replace",
    fault: "key/missing: the line was lost in Japanese; reconcile put the source's text there.",
    file: "harbor/texts/office_ja.properties",
    from: "office.closed=The office is closed until tomorrow",
    to: "office.closed=事務所は明日まで閉まっています",
  },
  {
    kind: "rename",
    fault: "file/locale-code: jp is Japan's code; the language is ja.",
    file: "web/locales/jp/fares.json",
    to: "web/locales/ja/fares.json",
  },
];
