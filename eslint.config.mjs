import tseslint from 'typescript-eslint';
import regexp from 'eslint-plugin-regexp';
import hooks from 'eslint-plugin-react-hooks';
import globals from 'globals';

export default tseslint.config(
  { ignores: ['**/dist/**', 'node_modules/**', '.tallow/**', 'test-results/**', 'playwright-report/**'] },
  ...tseslint.configs.strict,
  {
    // Beside the tests: what is asked of types takes most of the time of this check.
    files: ['{core,demo,server,web}/**/*.{ts,tsx}'],
    ignores: ['**/*.test.ts', 'server/test/**', '**/testing/**'],
    extends: [tseslint.configs.strictTypeChecked],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      // Keys of caches and messages are made of numbers, and of what may be absent.
      '@typescript-eslint/restrict-template-expressions': [
        'error',
        { allowNumber: true, allowBoolean: true, allowNullish: true },
      ],
      // What class-validator checks are classes; who sends it writes it down as it is.
      '@typescript-eslint/no-unsafe-class-instance-assignment': 'off',
      // What changes while something is waited for, or in a function called meanwhile, counts as fixed here.
      '@typescript-eslint/no-unnecessary-condition': 'off',
      // Stores lend out `getState` and `setState`, which need no `this`.
      '@typescript-eslint/unbound-method': 'off',
    },
  },
  {
    files: ['**/*.{ts,tsx}'],
    rules: {
      '@typescript-eslint/no-extraneous-class': ['error', { allowWithDecorator: true }],
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_' }],
      '@typescript-eslint/no-non-null-assertion': 'off',
      'no-restricted-syntax': [
        'error',
        {
          selector: 'ExportAllDeclaration',
          message: 'An index names what its room lends to others, and nothing else.',
        },
      ],
    },
  },
  {
    // Expressions that take for ever over some text: what comes from outside must be read in linear time.
    files: ['{core,demo,server,web}/**/*.{ts,tsx}', 'scripts/**/*.mjs'],
    ignores: ['**/*.test.ts'],
    plugins: { regexp },
    rules: {
      'regexp/no-super-linear-backtracking': ['error', { report: 'potential' }],
      'regexp/no-super-linear-move': ['error', { report: 'potential', ignoreSticky: true, ignorePartial: false }],
    },
  },
  {
    files: ['web/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': hooks },
    rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' },
  },
  { files: ['**/*.mjs'], languageOptions: { globals: globals.node } },
);
