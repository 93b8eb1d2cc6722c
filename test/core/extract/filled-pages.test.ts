import { afterAll, describe, expect, test } from "@jest/globals";
import { cleanUp, filesIn, fond, temporaryProject } from "../../support/project.js";

afterAll(cleanUp);

test.each([
  ["a.xhtml", '<html xmlns:h="http://xmlns.jcp.org/jsf/html"><h:body>', "#"],
  ["a.jsp", '<%@ taglib prefix="c" uri="c" %><body>', "$"],
])("texts of %s are members of what holds them", async (file, head, sign) => {
  const texts =
    "quay.title=All the boats\nboats_empty=No boats\nquay.save=Save the boat\nquay.late=Late boats\n";
  const page = (line: string) =>
    `${head}\n<h1>${sign}{msg['quay.title']}</h1><p>${sign}{msg.boats_empty}</p><b>${sign}{msg["quay.late"]}</b>\n${line}\n</body>\n`;
  const folder = temporaryProject({
    "pom.xml": "<project/>",
    "src/main/resources/texts.properties": texts,
    "src/main/resources/texts_de.properties": texts,
    [`src/main/webapp/${file}`]: page('<p>The office is open</p><h:outputText value="Boats of today"/>'),
  });
  expect((await fond(folder, "init", "--write")).status).toBe(0);
  expect((await fond(folder, "extract", "--write")).status).toBe(0);
  expect(filesIn(folder)[`src/main/webapp/${file}`]).toBe(
    page(`<p>${sign}{msg['a.office_open']}</p><h:outputText value="${sign}{msg['a.boats_today']}"/>`),
  );
  const { stdout } = await fond(folder, "lint", "--rule", "key/undefined", "--rule", "key/unused");
  expect(stdout.match(/(?:unknown|unused) key.*/g)).toEqual(['unused key "quay.save"']);
});

describe("a page that a program fills in by attributes", () => {
  const catalog = "boat.title=All boats\nboat.due=Due in {0} days\nnav.home=Home of the harbor\n";
  const files = (page: string) => ({
    "pom.xml": "<project/>",
    "src/main/resources/messages.properties": catalog,
    "src/main/resources/messages_de.properties": catalog,
    "src/main/resources/templates/a.html": `<body>\n<h1 th:text="#{boat.title}">Boats</h1>\n<a data-th-text="#{nav.home}">Home</a>\n<i th:text="#{boat.due(\${boat.days})}">Due</i>\n${page}\n</body>\n`,
  });
  const after = async (page: string) => {
    const folder = temporaryProject(files(page));
    expect((await fond(folder, "init", "--write")).status).toBe(0);
    const { stdout } = await fond(folder, "extract", "--write");
    const all = filesIn(folder);
    const lines = (all["src/main/resources/templates/a.html"] ?? "").trimEnd().split("\n");
    const lint = await fond(folder, "lint", "--rule", "key/undefined", "--rule", "key/unused");
    return {
      line: lines.at(-2),
      texts: all["src/main/resources/messages.properties"] ?? "",
      stdout,
      lint: lint.stdout,
    };
  };

  test.each([
    [
      "a text",
      "<p>The office is open</p>",
      '<p th:text="#{a.officeOpen}">The office is open</p>',
      "a.officeOpen=The office is open",
    ],
    [
      "an attribute",
      '<img alt="Map of the harbor"/>',
      '<img th:alt="#{a.mapHarbor}"/>',
      "a.mapHarbor=Map of the harbor",
    ],
    [
      "a text with a value",
      "<p>[[${boat.days}]] days until departure</p>",
      '<p th:text="#{a.daysUntilDeparture(${boat.days})}">[[${boat.days}]] days until departure</p>',
      "a.daysUntilDeparture={0} days until departure",
    ],
  ])("gets an attribute for %s", async (_, page, line, text) => {
    const { texts, lint, ...found } = await after(page);
    expect(found.line).toBe(line);
    expect(texts).toContain(text);
    expect(lint).not.toMatch(/unknown key|unused key/);
  });

  test.each([
    ["what is filled in already", '<p th:text="${boat.name}">Sea Rose of Ostrel</p>'],
    [
      "what is in an element that is filled in",
      '<div th:replace="~{foot :: all}"><p>Foot of the page</p></div>',
    ],
    ["what is taken out", '<p th:remove="all">For those who draw the page</p>'],
    ["an attribute that is filled in", '<img alt="Map of the harbor" th:alt="#{boat.title}"/>'],
    ["one of several such", '<img alt="Map of the harbor" th:attr="src=@{/a.png},alt=#{boat.title}"/>'],
    [
      "a string beside one that is filled in",
      '<script th:inline="javascript">say(/*[[#{boat.title}]]*/ "All the boats");</script>',
    ],
  ])("keeps %s", async (_, page) => {
    const { line, stdout } = await after(page);
    expect(line).toBe(page);
    expect(stdout).not.toMatch(/not extracted|likely/);
  });

  test.each([
    `<p th:text="'Due in ' + \${boat.days}">Due in 3</p>`,
    '<p th:text="|Owner ${boat.owner} pays|">Owner X pays</p>',
    '<p>Due <b th:text="${boat.days}">3</b> days from now</p>',
    "<p>Owner [[${boat.names['a\"b']}]] pays</p>",
  ])("says why texts stay: %s", async (page) => {
    const { line, stdout } = await after(page);
    expect(line).toBe(page);
    expect(stdout).toContain("not extracted");
  });
});
