import js from '@eslint/js';
import hooks from 'eslint-plugin-react-hooks';
import globals from 'globals';
import { defineConfig } from 'eslint/config';
import ts from 'typescript-eslint';

export default defineConfig(
  { ignores: ['**/dist/**', '**/node_modules/**', 'test-results/**', 'e2e/.shot.mjs'] },
  js.configs.recommended,
  ...ts.configs.strict,
  { files: ['**/*.mjs', '**/*.cjs'], languageOptions: { globals: globals.node } },
  // What needs to know types is asked by oxlint (.oxlintrc.json), in an eighth of the time.
  {
    files: ['**/*.ts', '**/*.tsx'],
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { varsIgnorePattern: '^_', argsIgnorePattern: '^_' }],
      '@typescript-eslint/consistent-type-imports': 'error',
      'no-control-regex': 'off',
    },
  },
  // In a test a value that is missing after all fails the test, which is what is wanted.
  { files: ['**/*.test.ts', '**/*.test.tsx', '**/*.spec.ts'], rules: { '@typescript-eslint/no-non-null-assertion': 'off' } },
  { files: ['web/**/*.ts', 'web/**/*.tsx'], plugins: { 'react-hooks': hooks }, rules: { ...hooks.configs.recommended.rules, 'react-hooks/incompatible-library': 'off' } },
  // Dates and numbers are written as the reader chose.
  {
    files: ['web/src/**/*.ts', 'web/src/**/*.tsx'],
    ignores: ['**/*.test.tsx', '**/*.test.ts'],
    rules: { 'no-restricted-syntax': ['error', { selector: 'CallExpression[callee.property.name=/^toLocale/]:matches([arguments.length=0], [arguments.0.type="Identifier"][arguments.0.name="undefined"])', message: 'Say which locale: locale() of look.' }] },
  },
);
