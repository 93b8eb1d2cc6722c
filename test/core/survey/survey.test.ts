import { describe, expect, test } from "@jest/globals";
import { noShapes } from "../../../src/core/source/book-code.js";
import { messageReader } from "../../../src/core/message/parse.js";
import { readScript } from "../../../src/core/source/readers/script/script.js";
import { surveyFile } from "../../../src/core/survey/survey.js";

const survey = (code: string) =>
  surveyFile(
    readScript("code.tsx", code, false, { ...noShapes, calls: new Map([["t", {}]]) }),
    "app",
    messageReader("icu"),
  );

describe("what users read is called text", () => {
  test.each([
    "<h1>Sailings</h1>",
    "<p>From {price} on</p>",
    "<button>OK</button>",
    '<img alt="The harbour at dawn" />',
    '<input placeholder="Island" />',
    '<div aria-label="Close" />',
    '<Card title="Your basket" />',
    '<Row options={[{ value: "a", label: "Morning" }]} />',
    '<p>{ok ? "All aboard" : "Wait"}</p>',
    'alert("Nothing chosen")',
    "toast.success(`Seat ${seat} is yours`)",
    'setError("No such island")',
    'document.title = "Your basket"',
    'f({ label: "Morning sailing" })',
    'const message = "The boat is full"',
    'f("Готово")',
    'const x = "もう一度"',
    'f([{ name: "Sailings", icon: "boat-front", path: "/sailings" }])',
    '<Table head={["ID", "Island", "Fare"]} />',
    'f(n === 1 ? "seat" : "seats")',
    "f(n + (n === 1 ? ' boat' : ' boats'))",
  ])("%s", (code) => {
    expect(
      survey(`function A() { ${/^</.test(code) ? `return ${code}` : code}; }`).map(({ verdict }) => verdict),
    ).toContain("text");
  });
});

describe("what only programs read is called code", () => {
  test.each([
    '<p className="card card-wide" />',
    '<a href="/sailings/list" target="blank" />',
    '<input type="text" name="island" autoComplete="off" />',
    '<p data-state="open and shut" onClick="go there" />',
    'useState("idle")',
    'a === "Some text"',
    'switch (a) { case "Some text": }',
    'a["Some text"]',
    'const a = { "Some text": 1 }',
    'console.log("Something happened")',
    'document.querySelector("main .card")',
    'fetch("https://quay.example/sailings")',
    'const color = "#aabbcc"',
    'const url = "mailto:quay@ferries.example"',
    'const query = "SELECT name FROM boats WHERE id = 1"',
    'const type = "application/json"',
    'f({ textTransform: "uppercase", willChange: "box-shadow, transform" })',
    "f({ marginTop: `${a} !important`, border: `${a} solid ${b}` })",
    '<Box textAlign="center" borderRadius={first === 0 ? "lg" : "sm"} />',
    "<Icon>shopping_basket</Icon>",
    "const sizes = `@media (min-width: ${a}px)`",
    'const fonts = \'"Quay Sans", "Harbour", sans-serif\'',
    'const words = "^[ab]+(?:boat|quay) \\\\w+$"',
    'const eventName = "boatLeft"',
    'const f = "dd.MM.yyyy"',
    'const path = "M10 10 L20 20 Z"',
    "css`color: red`",
    "<code>npm install</code>",
  ])("%s", (code) => {
    const verdicts = survey(`function A() { ${/^</.test(code) ? `return ${code}` : code}; }`).map(
      ({ verdict }) => verdict,
    );
    expect(verdicts.filter((verdict) => verdict !== "code")).toEqual([]);
  });
});

test("a judgement says why, and what the message would be", () => {
  const [found] = survey('function A() { return <p title="Deck plan">x</p>; }');
  expect(found).toMatchObject({
    verdict: "text",
    text: "Deck plan",
    message: "Deck plan",
    line: 1,
    column: 32,
    endColumn: 43,
  });
  expect(found?.reason).toContain("title of <p>");
  const [phrase] = survey(
    "function A() { return <p>\n  Read <a>the {kind} rules</a>,\n  it's {fast}.\n</p>; }",
  );
  expect(phrase).toMatchObject({
    text: "Read the {kind} rules, it's {fast}.",
    message: "Read <link>the {kind} rules</link>, it's {fast}.",
  });
});

test("scores lie between 0 and 1 and agree with the verdict", () => {
  for (const { score, verdict } of survey(
    'function A() { f("One two"); return <p className="a b">Text <i>here</i> "x"</p>; }',
  )) {
    expect(score).toBeGreaterThanOrEqual(0);
    expect(score).toBeLessThanOrEqual(1);
    expect(verdict).toBe(score >= 0.75 ? "text" : score <= 0.3 ? "code" : "unclear");
  }
});
