import { availableParallelism } from "node:os";

// The tests are compiled by `npm run build` together with the code; Jest runs the result as ES modules.
export default {
  testEnvironment: "node",
  roots: ["<rootDir>/dist/test"],
  testMatch: ["**/*.test.js"],
  transform: {},
  testTimeout: 120_000,
  // Many tests wait for the program that they started: a worker more than there are processors keeps these busy.
  maxWorkers: availableParallelism() + 1,
  modulePathIgnorePatterns: ["<rootDir>/demo/"],
};
