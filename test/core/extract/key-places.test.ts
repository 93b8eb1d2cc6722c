import { expect, test } from "@jest/globals";
import { extractProject } from "../../../src/core/project/extract-project.js";
import { memoryProject } from "../../support/memory-project.js";

test.each([
  ["src/routes/quays/[id]/+page.svelte", "quays.boatLateToday"],
  ["src/app/(shop)/boats/[id]/page.tsx", "boats.boatLateToday"],
  ["src/app/boats/layout.tsx", "boats.layout.boatLateToday"],
  ["src/app/page.tsx", "page.boatLateToday"],
  ["src/routes/+page.svelte", "page.boatLateToday"],
  ["src/quays/index.tsx", "quays.boatLateToday"],
  ["packages/berth-list/src/main.tsx", "berthList.boatLateToday"],
  ["src/main.tsx", "main.boatLateToday"],
])("the key of a text in %s goes by the folder that says something", async (file, key) => {
  const page = "<p>The boat is late today</p>";
  const text = file.endsWith(".svelte")
    ? `<script></script>\n${page}\n`
    : `export const A = () => ${page};\n`;
  const project = memoryProject(
    { code: ["src/**", "packages/**"], emit: { call: 't("{key}"{args})' } },
    { "t/en.json": "{}", [file]: text },
  );
  const { extracted } = await extractProject(project);
  expect(extracted.map((one) => one.key)).toEqual([key]);
});

test.each([
  ["in one group, in groups of it", "harbor.quay.text", "harbor.boats.boatLateToday"],
  ["in one group", "harbor.text", "boats.boatLateToday"],
  ["in several groups", "harbor#.quay.text", "boats.boatLateToday"],
])("a new key is where all keys are %s", async (_, pattern, key) => {
  const texts = Array.from({ length: 12 }, (__, n) => [
    `${pattern.replace("#", String(n % 2))}${n}`,
    `Text ${n}`,
  ]);
  const project = memoryProject(
    { code: ["src/**"], naming: { shape: "flat" }, emit: { call: 't("{key}"{args})' } },
    {
      "t/en.json": JSON.stringify(Object.fromEntries(texts)),
      "src/boats.tsx": "export const A = () => <p>The boat is late today</p>;\n",
    },
  );
  const { extracted } = await extractProject(project);
  expect(extracted.map((one) => one.key)).toEqual([key]);
});
