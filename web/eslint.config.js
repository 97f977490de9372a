import hooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";

export default tseslint.config(
  // generated from the OpenAPI document
  { ignores: ["src/api/schema.d.ts", "dist"] },
  ...tseslint.configs.strict,
  {
    plugins: { "react-hooks": hooks },
    rules: {
      ...hooks.configs.recommended.rules,
      // ids from the route and lookups that the line above has checked
      "@typescript-eslint/no-non-null-assertion": "off",
    },
  },
);
