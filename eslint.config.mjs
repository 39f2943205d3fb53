import tseslint from 'typescript-eslint';
import regexp from 'eslint-plugin-regexp';
import hooks from 'eslint-plugin-react-hooks';
import globals from 'globals';

export default tseslint.config(
  { ignores: ['**/dist/**', 'node_modules/**', '.tallow/**', 'test-results/**', 'playwright-report/**'] },
  ...tseslint.configs.strict,
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
