import js from "@eslint/js";
import globals from "globals";
import typescript from "typescript-eslint";

export default typescript.config(
  { ignores: ["dist/", "node_modules/", "demo/", "fond-demo/", "test/fixtures/", "test/fuzz/corpus/"] },
  js.configs.recommended,
  ...typescript.configs.strict,
  {
    languageOptions: { globals: globals.node },
    rules: {
      "@typescript-eslint/no-explicit-any": "error",
      "@typescript-eslint/no-non-null-assertion": "error",
      "@typescript-eslint/consistent-type-imports": "error",
      "@typescript-eslint/no-dynamic-delete": "off",
      "no-control-regex": "off",
      "no-irregular-whitespace": "off",
      eqeqeq: "error",
      "no-console": "error",
    },
  },
  {
    files: ["scripts/**", "bench/**", "test/fuzz/main.ts", "test/torture/main.ts", "test/hosts/main.ts"],
    rules: { "no-console": "off" },
  },
);
