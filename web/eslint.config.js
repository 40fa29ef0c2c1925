import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

const NO_UNSAFE_HTML = {
  selector: "JSXAttribute[name.name='dangerouslySetInnerHTML']",
  message: 'No unsafe HTML.',
};
const NO_RAW_BUTTON = {
  selector: 'JSXOpeningElement[name.name=/^(button|table)$/]',
  message: 'Controls come from MUI: Act, Press and List of web/src/kit, or its own.',
};
const NO_RAW_CONTROL = {
  selector: 'JSXOpeningElement[name.name=/^(button|select|input|table|textarea)$/]',
  message: 'Controls come from MUI, dressed in the theme (web/src/kit).',
};
// Files whose fields, choices and tables are not in the kit yet.
const BEFORE_THE_KIT = [
  'src/bench/Adder.tsx',
  'src/bench/CallOutEditor.tsx',
  'src/bench/Chip.tsx',
  'src/bench/GoTo.tsx',
  'src/bench/StockSentence.tsx',
  'src/bench/Variants.tsx',
  'src/bench/WorkColumn.tsx',
  'src/cutting/CutStage.tsx',
  'src/cutting/Cutting.tsx',
  'src/kinds/frame/CutList.tsx',
  'src/kinds/frame/FrameSentence.tsx',
  'src/kinds/frame/SectionPicker.tsx',
  'src/kinds/sheet/BlankTables.tsx',
  'src/kinds/sheet/Files.tsx',
  'src/kinds/sheet/FoldBar.tsx',
  'src/kinds/sheet/OutlineStage.tsx',
  'src/kinds/sheet/Sayings.tsx',
  'src/kinds/sheet/Stock.tsx',
  'src/parts/JobForm.tsx',
  'src/parts/OutlineFile.tsx',
  'src/rack/Rack.tsx',
  'src/shop/BendTables.tsx',
  'src/shop/Shop.tsx',
];

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
    // Written before the kit; whoever changes one of them brings its controls into the kit and takes it off this list.
    files: BEFORE_THE_KIT,
    rules: { 'no-restricted-syntax': ['error', NO_UNSAFE_HTML, NO_RAW_BUTTON] },
  },
  {
    // The one place for what MUI has none of: a file that is picked.
    files: ['src/kit/*.tsx'],
    rules: { 'no-restricted-syntax': ['error', NO_UNSAFE_HTML] },
  },
);
