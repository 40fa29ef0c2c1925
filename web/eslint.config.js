import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

export default tseslint.config(...tseslint.configs.recommended, {
  files: ['src/**/*.{ts,tsx}'],
  ignores: ['src/api/schema.d.ts'],
  plugins: { 'react-hooks': hooks },
  rules: {
    // By characters; code is laid out by prettier, words by hand.
    'max-len': ['error', { code: 120 }],
    'react-hooks/rules-of-hooks': 'error',
    'react-hooks/exhaustive-deps': 'warn',
    'no-restricted-syntax': [
      'error',
      { selector: "JSXAttribute[name.name='dangerouslySetInnerHTML']", message: 'No unsafe HTML.' },
    ],
  },
});
