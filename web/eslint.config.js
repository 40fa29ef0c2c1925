import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

const NO_UNSAFE_HTML = {
  selector: "JSXAttribute[name.name='dangerouslySetInnerHTML']",
  message: 'No unsafe HTML.',
};
const NO_RAW_CONTROL = {
  selector: 'JSXOpeningElement[name.name=/^(button|select|input|table|textarea)$/]',
  message: 'Controls come from MUI, dressed in the theme (web/src/kit).',
};

export default tseslint.config(
  { ignores: ['src/api/schema.d.ts'] },
  ...tseslint.configs.recommendedTypeChecked,
  {
    files: ['src/**/*.{ts,tsx}'],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    plugins: { 'react-hooks': hooks },
    rules: {
      // By characters; code is laid out by prettier, words by hand.
      'max-len': ['error', { code: 120 }],
      // It takes an `as const` that makes a path of letters a path of the schema for needless.
      '@typescript-eslint/no-unnecessary-type-assertion': 'off',
      'react-hooks/rules-of-hooks': 'error',
      'react-hooks/exhaustive-deps': 'warn',
      'no-restricted-syntax': ['error', NO_UNSAFE_HTML, NO_RAW_CONTROL],
    },
  },
  {
    // The one place for what MUI has none of: a file that is picked.
    files: ['src/kit/*.tsx'],
    rules: { 'no-restricted-syntax': ['error', NO_UNSAFE_HTML] },
  },
);
