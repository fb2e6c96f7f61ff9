import hooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";

export default tseslint.config({ ignores: ["src/api/schema.d.ts"] }, ...tseslint.configs.strict, {
  files: ["src/**/*.{ts,tsx}"],
  plugins: { "react-hooks": hooks },
  rules: {
    "react-hooks/rules-of-hooks": "error",
    "react-hooks/exhaustive-deps": "error",
    "no-restricted-globals": ["error", { name: "fetch", message: "Go through api/client." }],
    "@typescript-eslint/no-non-null-assertion": "off",
  },
});
