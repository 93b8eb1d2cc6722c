import { availableParallelism } from "node:os";

/** Suites that start browsers, pack the program or start it for many projects, or try very many inputs: `npm run test:long` runs these. */
export const long = [
  "page/\\w+",
  "torture/\\w+",
  "fuzz/\\w+",
  "hosts/[\\w-]+",
  "docs",
  "cli/demo",
  "cli/package",
  "cli/books",
  "core/exchange/round-trip",
  "core/text/patterns",
  "core/extract/agreement",
  "core/lint/features",
  "core/message/oracle",
  "core/project/live-project",
].map((name) => `/dist/test/${name}\\.test\\.js$`);

// The tests are compiled by `npm run build` together with the code; Jest runs the result as ES modules.
export const shared = {
  testEnvironment: "node",
  roots: ["<rootDir>/dist/test"],
  transform: {},
  testTimeout: 120_000,
  // Many tests wait for the program that they started: a worker more than there are processors keeps these busy.
  maxWorkers: availableParallelism() + 1,
  modulePathIgnorePatterns: ["<rootDir>/demo/"],
};

export default {
  ...shared,
  testMatch: ["**/*.test.js"],
  testPathIgnorePatterns: ["/node_modules/", ...long],
};
