import js from "@eslint/js";
import a11y from "eslint-plugin-jsx-a11y";
import hooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";

export default tseslint.config(
  js.configs.recommended,
  tseslint.configs.recommendedTypeChecked,
  hooks.configs.flat.recommended,
  a11y.flatConfigs.recommended,
  { ignores: ["src/wire/contract.ts"] },
  {
    rules: {
      // In a dialog the one thing to do has the focus: a class is begun and led with the keyboard alone.
      "jsx-a11y/no-autofocus": "off",
      "jsx-a11y/label-has-associated-control": [
        "error",
        { controlComponents: ["Form.Control", "Form.Select"] },
      ],
    },
  },
  {
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
  },
);
