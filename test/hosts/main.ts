import fc from "fast-check";
import { spawnSync } from "node:child_process";
import { mkdirSync, mkdtempSync, rmSync, symlinkSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { parseArgs } from "node:util";
import { root } from "../support/project.js";
import { compare } from "./compare.js";
import { hosts, type Host } from "./hosts.js";
import { lines } from "./model.js";

const { values: options } = parseArgs({
  options: {
    seed: { type: "string", default: "1" },
    rounds: { type: "string", default: "3" },
    lines: { type: "string", default: "120" },
    only: { type: "string" },
    help: { type: "boolean", default: false },
  },
});

const usage = `Writes random texts into programs and templates of each language, extracts them, and runs both with the language or
engine itself: they must print the same for all values. What is not on this machine is passed over, and said; packages of
the registry are installed into a temporary folder first.

  npm run hosts -- [--rounds 3] [--lines 120] [--seed 1] [--only PHP]`;

/** Whether what a host needs is here: a command, or packages, which are installed. */
function isHere({ needs }: Host, packages: string): boolean {
  if ("command" in needs) {
    const asked = spawnSync(needs.command, [needs.command === "java" ? "-version" : "--version"], {
      stdio: "ignore",
    });
    return asked.status === 0;
  }
  return needs.packages.every(
    (name) =>
      spawnSync(process.execPath, ["-e", `require.resolve(${JSON.stringify(name)})`], {
        cwd: packages,
        stdio: "ignore",
      }).status === 0,
  );
}

function install(wanted: readonly Host[]): string {
  const folder = mkdtempSync(join(tmpdir(), "fond-engines-"));
  mkdirSync(join(folder, "node_modules"));
  const names = [...new Set(wanted.flatMap(({ needs }) => ("packages" in needs ? needs.packages : [])))];
  const own = names.filter((name) => name === "typescript");
  const others = names.filter((name) => name !== "typescript");
  writeFileSync(join(folder, "package.json"), '{ "private": true }\n');
  if (others.length > 0)
    spawnSync("npm", ["install", "--no-audit", "--no-fund", "--ignore-scripts", ...others], {
      cwd: folder,
      stdio: "ignore",
    });
  for (const name of own)
    symlinkSync(join(root, "node_modules", name), join(folder, "node_modules", name), "dir");
  return folder;
}

async function main(): Promise<number> {
  if (options.help) {
    console.log(usage);
    return 0;
  }
  const wanted = hosts.filter(({ name }) => options.only === undefined || name === options.only);
  const packages = install(wanted);
  let failed = 0;
  for (const host of wanted) {
    if (!isHere(host, packages)) {
      console.log(
        `${host.name}: passed over, since this machine has no ${Object.values(host.needs).flat().join(", ")}`,
      );
      continue;
    }
    let taken = 0;
    let outputs = 0;
    const wrong: string[] = [];
    for (let round = 0; round < Number(options.rounds); round++) {
      const seed = Number(options.seed) * 1_000 + round;
      const all = fc.sample(lines(host.signs), { seed, numRuns: Number(options.lines) });
      const result = await compare(host, all, packages);
      taken += result.taken;
      outputs += result.outputs;
      wrong.push(...result.wrong);
    }
    if (wrong.length > 0 || taken === 0) failed++;
    console.log(`${host.name}: ${taken} texts taken, ${outputs} outputs compared, ${wrong.length} differ`);
    for (const one of wrong.slice(0, 3)) console.log(`  ${one}`);
  }
  rmSync(packages, { recursive: true, force: true });
  return failed > 0 ? 1 : 0;
}

process.exitCode = await main();
