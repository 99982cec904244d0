import js from "@eslint/js";
import a11y from "eslint-plugin-jsx-a11y";
import hooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";

export default tseslint.config(
  js.configs.recommended,
  tseslint.configs.recommendedTypeChecked,
  hooks.configs.flat.recommended,
  a11y.flatConfigs.recommended,
  { ignores: ["src/wire/contract.ts", "src/*/go"] },
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
    // Every text is a message of language/<tag>: a key, or what a person types for the program, is not one.
    files: ["src/**/*.tsx"],
    ignores: ["**/*.test.tsx"],
    rules: {
      "no-restricted-syntax": [
        "error",
        {
          selector:
            "JSXElement:not([openingElement.name.name=/^(kbd|code)$/]) > JSXText[value=/[A-Za-z]{2}/]",
          message: "Make it a message of language/en.",
        },
        {
          selector:
            "JSXAttribute[name.name=/^(label|title|placeholder|alt|aria-label|what|unit|closeLabel|name)$/] > Literal[value=/[a-z] [a-z]|^[A-Z][a-z]/]",
          message: "Make it a message of language/en.",
        },
        {
          selector:
            "JSXAttribute[name.name=/^(label|title|placeholder|alt|aria-label|what|unit|closeLabel|name)$/] TemplateElement[value.raw=/[A-Za-z]{3}/]",
          message: "Make it a message of language/en.",
        },
        {
          selector:
            "JSXExpressionContainer > :matches(Literal, ConditionalExpression > Literal)[value=/[a-z] [a-z]/]",
          message: "Make it a message of language/en.",
        },
      ],
    },
  },
  {
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
  },
);
