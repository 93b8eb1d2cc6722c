import { afterAll, describe, expect, test } from "@jest/globals";
import { execFileSync } from "node:child_process";
import { cpSync, existsSync, readdirSync, readFileSync, rmSync } from "node:fs";
import { dirname, join } from "node:path";
import { cleanUp, fond, root, temporaryProject } from "./support/project.js";

afterAll(cleanUp);

const pages = ["README.md", "CONTRIBUTING.md", ...listed("docs"), ...listed("docs/decisions")];

function listed(folder: string): readonly string[] {
  return readdirSync(join(root, folder))
    .filter((name) => name.endsWith(".md"))
    .map((name) => `${folder}/${name}`);
}

const text = (page: string) => readFileSync(join(root, page), "utf8");

/** The words of a command, without quotes and without the comment behind it. */
function wordsOf(line: string): readonly string[] {
  return [...line.replace(/\s#\s.*$/, "").matchAll(/"([^"]*)"|'([^']*)'|(\S+)/g)].map(
    ([, double, single, plain]) => double ?? single ?? plain ?? "",
  );
}

/** The commands in each block of a page that is for a shell. */
function blocksIn(page: string): readonly (readonly (readonly string[])[])[] {
  return [...text(page).matchAll(/```sh\n([\s\S]*?)```/g)]
    .map(([, block = ""]) =>
      block
        .split("\n")
        .filter((line) => /^fond(?:\s|$)/.test(line))
        .map((line) => wordsOf(line).slice(1)),
    )
    .filter((commands) => commands.length > 0);
}

/** The sample project under version control, as somebody has it who reads the page. */
function sample(isNew: boolean): string {
  const folder = temporaryProject();
  cpSync(join(root, "demo/ferries"), folder, { recursive: true });
  // Who sets a project up has no configuration yet.
  if (isNew) rmSync(join(folder, "fond.config.json"));
  const git = (...args: readonly string[]) =>
    execFileSync("git", ["-c", "user.name=a", "-c", "user.email=a@b.invalid", ...args], {
      cwd: folder,
      stdio: "ignore",
    });
  git("init", "--initial-branch=main");
  git("add", ".");
  git("commit", "--message=Start");
  git("update-ref", "refs/remotes/origin/main", "HEAD");
  return folder;
}

/** What needs something that a page only tells how to set up: a service, an old memory. The demo has tests of its own. */
const needsMore = (words: readonly string[]) =>
  words.includes("--service") || words.includes("old.tmx") || words[0] === "demo";

const withCommands = pages.filter((page) => blocksIn(page).length > 0);

describe("the documentation", () => {
  /** What was run on another page and writes nothing: it runs here as it did there. */
  const ran = new Set<string>();

  test.each(withCommands)(
    "every command of %s runs as it is printed",
    async (page) => {
      for (const all of blocksIn(page)) {
        const folder = sample(all.some(([name, more]) => name === "init" && more !== "--merge-driver"));
        for (const words of all) {
          const line = words.join(" ");
          if (needsMore(words) || (ran.has(line) && !line.includes("--write"))) continue;
          ran.add(line);
          const asPrinted = words[0] === "extract" && words.length === 2 ? [...words, "--no-review"] : words;
          const { status, stderr } = await fond(folder, ...asPrinted);
          // 1 says that there is something to do; what is more is a command that does not work.
          if ((status ?? 9) > 1) throw new Error(`fond ${words.join(" ")}: ${String(status)}\n${stderr}`);
        }
      }
    },
    120_000,
  );

  test("names only commands and options that there are", async () => {
    const folder = temporaryProject();
    const help = new Map<string, string>();
    const unknown: string[] = [];
    for (const page of pages)
      for (const [, line = ""] of text(page).matchAll(/`fond ([a-z][^`]*)`/g)) {
        const [name = "", ...words] = wordsOf(line);
        if (!help.has(name)) help.set(name, (await fond(folder, name, "--help")).stdout);
        for (const word of ["", ...words.filter((one) => one.startsWith("--"))]) {
          const option = word.replace(/[=.].*$/, "");
          const known = help.get(name) ?? "";
          if (!known.includes(`fond ${name}`) || !known.includes(option)) unknown.push(`${page}: ${line}`);
        }
      }
    expect(unknown).toEqual([]);
  }, 60_000);

  test("links to pages and headings that there are", () => {
    const slug = (heading: string) =>
      heading
        .toLowerCase()
        .replace(/[^\p{L}\p{N}\s-]/gu, "")
        .trim()
        .replace(/\s/g, "-");
    const broken = pages.flatMap((page) =>
      [...text(page).matchAll(/\]\((?!https?:)([^)#\s]*)(?:#([^)\s]+))?\)/g)].flatMap(
        ([all, path = "", heading]) => {
          const target = path === "" ? page : join(dirname(page), path);
          if (!existsSync(join(root, target))) return [`${page}: ${all}`];
          if (heading === undefined) return [];
          const headings = [...text(target).matchAll(/^#+ (.+)$/gm)].map(([, one = ""]) => slug(one));
          return headings.includes(heading) ? [] : [`${page}: ${all}`];
        },
      ),
    );
    expect(broken).toEqual([]);
  });
});
