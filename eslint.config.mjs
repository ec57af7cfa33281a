import js from '@eslint/js';
import jsxA11y from 'eslint-plugin-jsx-a11y';
import playwright from 'eslint-plugin-playwright';
import reactHooks from 'eslint-plugin-react-hooks';
import regexp from 'eslint-plugin-regexp';
import importSort from 'eslint-plugin-simple-import-sort';
import globals from 'globals';
import ts from 'typescript-eslint';

export default ts.config(
  {
    ignores: [
      '**/node_modules/',
      '**/dist/',
      'data/',
      'test-results/',
      'app/public/',
      'bench/.work/',
      'bench/empty-app/',
      '**/.expo/',
    ],
  },
  js.configs.recommended,
  {
    // Node's own, packages, ours from afar, ours from here.
    files: ['**/*.{ts,tsx,mjs}'],
    plugins: { 'import-sort': importSort },
    rules: {
      'import-sort/imports': ['error', { groups: [['^\\u0000', '^node:', '^@?\\w', '^@/', '^\\.\\.', '^\\.']] }],
    },
  },
  {
    // A file has one subject, and a function fits a screen: said where they do not.
    files: ['**/*.{ts,tsx}'],
    ignores: ['**/*.test.{ts,tsx}', 'e2e/**'],
    rules: {
      'max-lines': ['warn', { max: 300, skipBlankLines: true, skipComments: true }],
      'max-lines-per-function': ['warn', { max: 60, skipBlankLines: true, skipComments: true }],
    },
  },
  {
    files: ['e2e/**/*.spec.ts', 'e2e/*.ts'],
    plugins: { playwright },
    rules: {
      'playwright/missing-playwright-await': 'error',
      'playwright/no-focused-test': 'error',
      'playwright/no-page-pause': 'error',
      'playwright/valid-expect': 'error',
      'playwright/no-wait-for-timeout': 'warn',
    },
  },
  {
    // Texts come from strangers: no expression may try every way to part a run of one character (CWE-1333).
    files: ['{core,server,app,extension}/src/**/*.{ts,tsx}'],
    ignores: ['**/*.test.{ts,tsx}'],
    plugins: { regexp },
    rules: { 'regexp/no-super-linear-backtracking': ['error', { report: 'potential' }] },
  },
  {
    files: ['**/*.{ts,tsx}'],
    extends: [...ts.configs.strictTypeChecked, ...ts.configs.stylisticTypeChecked],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true }],
      '@typescript-eslint/no-confusing-void-expression': [
        'error',
        { ignoreArrowShorthand: true, ignoreVoidReturningFunctions: true },
      ],
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_', caughtErrors: 'none' },
      ],
      '@typescript-eslint/consistent-type-definitions': 'off',
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: { arguments: false } }],
      '@typescript-eslint/no-empty-function': 'off',
      '@typescript-eslint/switch-exhaustiveness-check': 'error',
      // Loops that are left by a return are clearer than flags.
      '@typescript-eslint/no-unnecessary-condition': ['error', { allowConstantLoopConditions: true }],
      // Our objects are closures and stores, not classes with a `this`.
      '@typescript-eslint/unbound-method': 'off',
      'no-console': 'error',
      // A kind of record has an `apply` of its own.
      'prefer-spread': 'off',
      eqeqeq: 'error',
    },
  },
  {
    files: ['app/**/*.tsx', 'extension/**/*.tsx'],
    extends: [jsxA11y.flatConfigs.strict],
    // A sheet opens because the reader asked to write in it: the focus belongs in its field.
    rules: { 'jsx-a11y/no-autofocus': 'off' },
  },
  {
    // The rules of hooks; the React Compiler's own rules are for code that it compiles, which ours is not.
    files: ['app/**/*.{ts,tsx}', 'extension/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': reactHooks },
    rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' },
  },
  // A fixture that must not exist fails loudly in a test; non-null assertions and hostile shapes are the tests' business.
  {
    files: ['**/*.test.{ts,tsx}', '**/*.test-data.ts', 'e2e/**/*.ts'],
    rules: {
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/require-await': 'off',
      '@typescript-eslint/no-unsafe-assignment': 'off',
      '@typescript-eslint/no-unsafe-member-access': 'off',
      '@typescript-eslint/no-unsafe-return': 'off',
    },
  },
  {
    files: [
      'server/src/commands/account.ts',
      'server/src/commands/doctor.ts',
      'server/src/commands/extract.ts',
      'demo/**/*.ts',
      'app/src/device/cache/register-service-worker.ts',
      // What a listener need not know, and whoever looks into it wants to.
      'app/src/device/voice/voice-files.ts',
      'app/src/device/voice/voice.worker.ts',
    ],
    rules: { 'no-console': 'off' },
  },
  {
    // There is one way out: server/fetching looks where an address leads.
    files: ['server/src/**/*.ts'],
    ignores: ['server/src/commands/**', '**/*.test.ts'],
    rules: { 'no-restricted-globals': ['error', 'fetch', 'XMLHttpRequest', 'WebSocket'] },
  },
  { files: ['**/*.{js,mjs}'], languageOptions: { globals: { ...globals.node, ...globals.browser } } },
);
