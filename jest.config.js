// The tests are compiled by `npm run build` together with the code; Jest runs the result as ES modules.
export default {
  testEnvironment: "node",
  roots: ["<rootDir>/dist/test"],
  testMatch: ["**/*.test.js"],
  transform: {},
  testTimeout: 60_000,
  modulePathIgnorePatterns: ["<rootDir>/demo/"],
};
