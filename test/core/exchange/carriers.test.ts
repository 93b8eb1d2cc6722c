import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { strToU8, unzipSync, strFromU8, zipSync } from "fflate";
import { carrierNamed, carrierOf } from "../../../src/core/exchange/carriers/index.js";
import type { Carrier } from "../../../src/core/exchange/carriers/carrier.js";
import { readTmx, type MemoryPair } from "../../../src/core/exchange/carriers/tmx.js";
import {
  entryId,
  unitId,
  type Handoff,
  type HandoffEntry,
  type ReturnedDocument,
} from "../../../src/core/exchange/handoff.js";
import { joinInlines, sameInlines, type Inline, type ShownCode } from "../../../src/core/exchange/inline.js";
import { digestOf } from "../../../src/core/text/digest.js";
import { words } from "../../support/messages.js";

const nothing = { uses: [], terms: [] };

function entry(
  id: string,
  texts: readonly (readonly [readonly Inline[], (readonly Inline[])?])[],
): HandoffEntry {
  const codes = new Map<string, ShownCode>([
    ["name", { open: "{name}" }],
    ["n", { open: "{n}" }],
    ["b", { open: "<b>", close: "</b>" }],
    ["terms", { open: '<terms href="x">', close: "</terms>" }],
  ]);
  return {
    id,
    book: "site",
    key: id,
    what: "missing",
    state: "initial",
    source: digestOf("source"),
    text: "-",
    entryKey: id,
    texts: { source: "source" },
    codes,
    about: nothing,
    units: texts.map(([source, target], index) => ({
      id: texts.length === 1 ? id : `${id}--form${index}`,
      choices:
        texts.length === 1 ? [] : [{ name: "n", kind: "plural" as const, selector: "few", numbers: "2, 3" }],
      source,
      ...(target && { target }),
    })),
  };
}

function written(carrier: Carrier, handoff: Handoff): Uint8Array {
  const parts = [...(carrier.write?.(handoff) ?? [])].map((part) =>
    typeof part === "string" ? new TextEncoder().encode(part) : part,
  );
  return new Uint8Array(Buffer.concat(parts));
}

/** Reads a document in small pieces, as a stream brings it. */
function back(carrier: Carrier, bytes: Uint8Array) {
  return carrier.read?.({
    bytes: () => bytes,
    chunks: function* () {
      const text = new TextDecoder().decode(bytes);
      for (let at = 0; at < text.length; at += 97) yield text.slice(at, at + 97);
    },
  });
}

function document(carrier: Carrier, bytes: Uint8Array): ReturnedDocument {
  const read = back(carrier, bytes);
  if (!read?.ok) throw new Error(read ? read.message : "nothing was read");
  return read.document;
}

const inlines: fc.Arbitrary<readonly Inline[]> = fc
  .array(
    fc.oneof(
      fc
        .oneof(
          words,
          fc.constantFrom(
            "\u0001",
            "\u0007 bell",
            "_x0041_",
            "  ",
            "\ufffe",
            "]]>",
            "<!--",
            "&amp;",
            "'=x",
            "\r",
            "-2",
            "@x",
          ),
        )
        .map((value): Inline => ({ kind: "text", value })),
      fc.constantFrom("name", "n").map((id): Inline => ({ kind: "code", id })),
      fc.tuple(fc.constantFrom("b", "terms"), words).map(([id, value]): Inline => ({
        kind: "pair",
        id,
        children: [
          { kind: "text", value },
          { kind: "code", id: "name" },
        ],
      })),
    ),
    { minLength: 1, maxLength: 5 },
  )
  .map(joinInlines);

const both = ["xliff", "xliff-1.2", "csv", "xlsx"].map((name) => {
  const carrier = carrierNamed(name);
  if (!carrier) throw new Error(`there is no ${name}`);
  return [name, carrier] as const;
});

describe.each(both)("%s", (_name, carrier) => {
  test("brings back whatever texts and codes went out", () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(inlines, inlines), { minLength: 1, maxLength: 4 }), (texts) => {
        const handoff = { source: "en", target: "ar", entries: [entry("site:a.b", texts)] };
        const { source, target, units } = document(carrier, written(carrier, handoff));
        return (
          source === "en" &&
          target === "ar" &&
          units.length === texts.length &&
          units.every(
            ({ id, text, made }, index) =>
              id === handoff.entries[0]?.units[index]?.id &&
              sameInlines(text ?? [], texts[index]?.[1] ?? []) &&
              made?.source === digestOf("source") &&
              made.text === "-",
          )
        );
      }),
      { numRuns: 200 },
    );
  });

  test("says what is empty, and is known by its beginning", () => {
    const handoff = {
      source: "en",
      target: "de",
      entries: [entry("site:a", [[[{ kind: "text", value: "Book" }]]])],
    };
    const bytes = written(carrier, handoff);
    const [unit] = document(carrier, bytes).units;
    expect(unit).toMatchObject({ id: "site:a", given: "Book" });
    expect(unit?.text).toBeUndefined();
    expect(
      carrierOf(`work/de${carrier.ending}`, new TextDecoder("latin1").decode(bytes).slice(0, 2000)),
    ).toBe(carrier);
  });

  test("the same work makes the same bytes", () => {
    const handoff = {
      source: "en",
      target: "de",
      entries: [entry("site:a", [[[{ kind: "text", value: "Book" }]]])],
    };
    expect(written(carrier, handoff)).toEqual(written(carrier, handoff));
  });
});

const xliff = carrierNamed("xliff") as Carrier;
const xliff12 = carrierNamed("xliff-1.2") as Carrier;
const csv = carrierNamed("csv") as Carrier;
const xlsx = carrierNamed("xlsx") as Carrier;
const bytesOf = (text: string) => new TextEncoder().encode(text);

describe("XLIFF as other editors write it", () => {
  const unit = (inside: string) =>
    bytesOf(
      `<?xml version="1.0"?><xliff xmlns="urn:oasis:names:tc:xliff:document:2.0" version="2.0" srcLang="en" trgLang="de"><file id="f"><unit id="u">${inside}</unit></file></xliff>`,
    );
  const textOf = (inside: string) => document(xliff, unit(inside)).units[0]?.text;

  test("split codes, copies, marks and prefixes are read", () => {
    expect(
      textOf(
        '<segment><source>x</source><target>a <sc id="1" dataRef="b"/>b<ec startRef="1"/> <mrk id="m" type="comment">c</mrk><ph id="9" copyOf="name"/></target></segment>',
      ),
    ).toEqual([
      { kind: "text", value: "a " },
      { kind: "pair", id: "b", children: [{ kind: "text", value: "b" }] },
      { kind: "text", value: " c" },
      { kind: "code", id: "name" },
    ]);
  });

  test("segments are one text again, with the space between them; with one left empty none is", () => {
    const two = (last: string) =>
      `<segment><source>One.</source><target>Eins.</target></segment><ignorable><source> </source></ignorable><segment><source>Two.</source>${last}</segment>`;
    expect(textOf(two("<target>Zwei.</target>"))).toEqual([{ kind: "text", value: "Eins. Zwei." }]);
    expect(textOf(two(""))).toBeUndefined();
  });

  test("a code that is torn is told with what is there", () => {
    const [one] = document(
      xliff,
      unit('<segment><source>x</source><target>a <sc id="1" dataRef="b"/>b</target></segment>'),
    ).units;
    expect(one).toMatchObject({ torn: "a <b>b" });
    expect(one?.text).toBeUndefined();
  });

  test("a translator's own note comes back, ours does not", () => {
    const notes = '<notes><note category="fl-used">a.ts:1</note><note>Which boat?</note></notes>';
    expect(document(xliff, unit(`${notes}<segment><source>x</source></segment>`)).units[0]?.note).toBe(
      "Which boat?",
    );
  });

  test("of 1.2, native codes and alternatives are no text", () => {
    const text =
      '<xliff version="1.2"><file source-language="en" target-language="de" original="b" datatype="x"><body><trans-unit id="u"><source>s</source><target state="final">a <ph id="name">{name}</ph> <bpt id="b" rid="1">&lt;b&gt;</bpt>c<ept id="b" rid="1">&lt;/b&gt;</ept></target><alt-trans><target>no</target></alt-trans></trans-unit></body></file></xliff>';
    expect(document(xliff12, bytesOf(text)).units).toMatchObject([
      {
        state: "final",
        text: [
          { kind: "text", value: "a " },
          { kind: "code", id: "name" },
          { kind: "text", value: " " },
          { kind: "pair", id: "b", children: [{ kind: "text", value: "c" }] },
        ],
      },
    ]);
  });
});

describe("what XLIFF 2.1 asks of a document", () => {
  const text = new TextDecoder().decode(
    written(xliff, {
      source: "en",
      target: "ar",
      entries: [
        entry("site:a", [
          [
            [
              { kind: "code", id: "n" },
              { kind: "text", value: " of " },
              { kind: "code", id: "n" },
            ],
          ],
          [[{ kind: "pair", id: "b", children: [{ kind: "text", value: "\u0001" }] }]],
        ]),
        { ...entry("site:b", [[[{ kind: "text", value: "x" }]]]), about: { ...nothing, description: "d" } },
      ],
    }),
  );

  test("ids are names, and unique where they have to be", () => {
    const ids = [...text.matchAll(/<unit id="([^"]*)"/g)].map(([, id]) => id);
    expect(new Set(ids).size).toBe(ids.length);
    for (const [, id = ""] of text.matchAll(/\sid="([^"]*)"/g)) expect(id).toMatch(/^[\w.:-]+$/);
    for (const [unit = ""] of text.matchAll(/<unit [^]*?<\/unit>/g)) {
      const inner = [...unit.matchAll(/<(?:ph|pc) id="([^"]*)"/g)].map(([, id]) => id);
      expect(new Set(inner).size).toBe(inner.length);
      const data = new Set([...unit.matchAll(/<data id="([^"]*)"/g)].map(([, id]) => id));
      for (const [, ref] of unit.matchAll(/dataRef(?:Start|End)?="([^"]*)"/g)) expect(data).toContain(ref);
    }
  });

  test("elements stand in the order of the schema", () => {
    for (const [, inside = ""] of text.matchAll(/<unit [^>]*>([^]*?)<\/unit>/g)) {
      const order = [...inside.matchAll(/<(notes|originalData|segment)\b/g)].map(([, name]) => name ?? "");
      expect(order).toEqual(["notes", "originalData", "segment"].filter((name) => order.includes(name)));
      expect(order.at(-1)).toBe("segment");
    }
    expect(text).toContain('trgDir="rtl"');
    expect(text).toContain('<cp hex="0001"/>');
    expect(text).toMatch(/<group id="site:a"/);
  });
});

describe("a table", () => {
  test("has no cell that a program takes for a formula, and brings such texts back", () => {
    for (const value of ["=1+1", "+1", "-1", "@x", "\tx", "'=x", "''-"]) {
      const source: readonly Inline[] = [{ kind: "text", value }];
      const bytes = written(csv, {
        source: "en",
        target: "de",
        entries: [entry("site:a", [[source, source]])],
      });
      const cells = new TextDecoder().decode(bytes).split(/[,\r\n]+/);
      for (const cell of cells) expect(cell).not.toMatch(/^"?[=+@\t-]/);
      expect(document(csv, bytes).units[0]?.text).toEqual(source);
    }
    const sheet = strFromU8(
      unzipSync(
        written(xlsx, {
          source: "en",
          target: "de",
          entries: [entry("site:a", [[[{ kind: "text", value: "=1+1" }]]])],
        }),
      )["xl/worksheets/sheet1.xml"] ?? new Uint8Array(),
    );
    expect(sheet).not.toContain("<f>");
    expect(sheet).toContain('t="inlineStr"');
  });

  test("is read in any order of columns and rows, with shared strings and rich text", () => {
    const parts = {
      "xl/workbook.xml": '<workbook xmlns:r="r"><sheets><sheet name="x" r:id="rId7"/></sheets></workbook>',
      "xl/_rels/workbook.xml.rels":
        '<Relationships><Relationship Id="rId7" Target="worksheets/other.xml"/></Relationships>',
      "xl/sharedStrings.xml":
        "<sst><si><t>translation de</t></si><si><t>id</t></si><si><r><t>Bu</t></r><r><t>chen</t></r></si></sst>",
      "xl/worksheets/other.xml":
        '<worksheet><sheetData><row r="1"><c r="A1" t="s"><v>0</v></c><c r="C1" t="s"><v>1</v></c></row><row r="2"><c r="A2" t="s"><v>2</v></c><c r="C2" t="str"><v>site:a</v></c></row><row r="3"><c r="A3"><v>12</v></c><c r="C3" t="inlineStr"><is><t>site:b</t></is></c></row></sheetData></worksheet>',
    };
    const bytes = zipSync(
      Object.fromEntries(Object.entries(parts).map(([name, text]) => [name, strToU8(text)])),
    );
    expect(document(xlsx, bytes)).toMatchObject({
      target: "de",
      units: [
        { id: "site:a", line: 2, text: [{ kind: "text", value: "Buchen" }] },
        { id: "site:b", line: 3, text: [{ kind: "text", value: "12" }] },
      ],
    });
  });
});

describe("hostile documents are refused with a reason", () => {
  const entity =
    '<?xml version="1.0"?><!DOCTYPE x [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;">]><xliff version="2.1"><file><unit id="u"><segment><target>&b;</target></segment></unit></file></xliff>';
  const deep = `<xliff version="2.1">${"<group>".repeat(500)}`;
  const sheet = (text: string) => zipSync({ "xl/worksheets/sheet1.xml": strToU8(text) });
  test.each([
    ["entities", xliff, bytesOf(entity), "exchange/xml/doctype"],
    [
      "an external entity",
      xliff12,
      bytesOf('<!DOCTYPE x SYSTEM "file:///etc/passwd"><xliff version="1.2"/>'),
      "exchange/xml/doctype",
    ],
    ["depth", xliff, bytesOf(deep), "exchange/xml/deep"],
    ["truncation", xliff, bytesOf('<xliff version="2.1"><file id="f"><unit id="u">'), "exchange/xml/broken"],
    ["no archive", xlsx, bytesOf("hello"), "exchange/xlsx/no-archive"],
    ["an archive without a table", xlsx, zipSync({ "a.txt": strToU8("x") }), "exchange/xlsx/no-sheet"],
    [
      "a huge cell",
      xlsx,
      sheet(
        `<worksheet><sheetData><row><c><v>${"x".repeat(2_000_000)}</v></c></row></sheetData></worksheet>`,
      ),
      "exchange/xml/long",
    ],
    ["a table without ids", csv, bytesOf("key,translation de\na,b\n"), "exchange/table/no-column"],
    ["a quote that is never closed", csv, bytesOf('id,translation de\na,"b\n'), "table/unclosed"],
  ] as const)("%s", (_what, carrier, bytes, id) => {
    expect(back(carrier, bytes)).toMatchObject({ ok: false, messageId: id });
  });

  test("a sheet that unpacks to more than memory has is not unpacked", () => {
    const bytes = sheet("<worksheet/>");
    // The archive's own directory says that it is larger than it is.
    const directory = Buffer.from(bytes).indexOf("PK\u0001\u0002");
    new DataView(bytes.buffer, bytes.byteOffset).setUint32(directory + 24, 3_000_000_000, true);
    expect(back(xlsx, bytes)).toMatchObject({ ok: false, messageId: "exchange/xlsx/large" });
  });
});

test("a memory is written and read by stream, whatever regions it names", () => {
  const source: readonly Inline[] = [
    { kind: "text", value: "Take " },
    { kind: "code", id: "n" },
  ];
  const target: readonly Inline[] = [
    { kind: "code", id: "n" },
    { kind: "pair", id: "b", children: [{ kind: "text", value: " nehmen" }] },
  ];
  const done = { ...entry("site:a", [[source, target]]), what: "done" as const };
  const text = new TextDecoder().decode(
    written(carrierNamed("tmx") as Carrier, { source: "en", target: "de", entries: [done] }),
  );
  const pairs: MemoryPair[] = [];
  expect(
    readTmx(text.match(/[^]{1,50}/g) ?? [], "en-GB", "de-AT", (pair) => pairs.push(pair)),
  ).toBeUndefined();
  expect(pairs).toEqual([{ source, target }]);
  expect(readTmx(["<x/>"], "en", "de", () => undefined)).toMatchObject({
    messageId: "exchange/tmx/no-memory",
  });
});

test("ids of entries and units are names of XML, one for each", () => {
  const ids = ["a", "a b", "a_x20_b", "Text as key: 100 %", "é", "a--b", "x".repeat(300)].map((key) =>
    entryId("site", key, digestOf),
  );
  expect(new Set(ids).size).toBe(ids.length);
  for (const id of ids) expect(id).toMatch(/^[A-Za-z_][\w.:-]*$/);
  expect(unitId("site:a", [{ name: "n", kind: "plural", selector: "=1" }])).toBe("site:a--is-1");
});
