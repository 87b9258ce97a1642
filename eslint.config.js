import js from '@eslint/js';
import jsxA11y from 'eslint-plugin-jsx-a11y';
import reactHooks from 'eslint-plugin-react-hooks';
import regexp from 'eslint-plugin-regexp';
import ts from 'typescript-eslint';

export default ts.config(
  {
    ignores: [
      '.dependency-cruiser.cjs',
      'dist',
      'dist.new',
      'dist.old',
      'node_modules',
      '.spur',
      '.spur-test',
      'coverage',
    ],
  },
  js.configs.recommended,
  ...ts.configs.recommended,
  {
    files: ['**/*.ts', '**/*.tsx'],
    languageOptions: {
      parserOptions: {
        // One program for all files: what each needs of it is worked out once.
        project: './tsconfig.lint.json',
        tsconfigRootDir: import.meta.dirname,
      },
    },
    rules: {
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: false }],
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/consistent-type-imports': 'off',
      eqeqeq: ['error', 'always', { null: 'ignore' }],
    },
  },
  {
    // A pattern that takes quadratic time stops the process for whoever sends a long text.
    files: ['core/**/*.ts', 'contract/**/*.ts', 'server/**/*.ts', 'web/**/*.ts', 'web/**/*.tsx'],
    ignores: ['**/*.test.ts', '**/testing/**'],
    plugins: { regexp },
    rules: {
      'regexp/no-super-linear-backtracking': ['error', { report: 'potential' }],
      'regexp/no-super-linear-move': ['error', { report: 'potential', ignorePartial: false, ignoreSticky: false }],
    },
  },
  {
    files: ['server/**/*.ts'],
    ignores: ['**/*-repository.ts', 'server/database/**', 'server/testing/**', '**/*.test.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        ...[
          "CallExpression[callee.property.name='raw']",
          "NewExpression[callee.name='Statement']",
          'CallExpression[callee.name=/^(database|trx)$/]',
          "CallExpression[callee.property.type='PrivateIdentifier'][callee.property.name='database']",
        ].map((selector) => ({ selector, message: 'Only repositories ask the database something.' })),
      ],
    },
  },
  {
    files: ['web/**/*.tsx', 'web/**/*.ts'],
    plugins: { 'react-hooks': reactHooks, 'jsx-a11y': jsxA11y },
    rules: {
      // Its other rules are those of the React compiler, which is not used; they take as long as all the rest.
      'react-hooks/rules-of-hooks': 'error',
      'react-hooks/exhaustive-deps': 'error',
      ...jsxA11y.flatConfigs.recommended.rules,
      'jsx-a11y/no-autofocus': ['error', { ignoreNonDOM: true }],
    },
  },
  {
    files: ['web/**/*.ts', 'web/**/*.tsx'],
    ignores: ['web/api/**'],
    rules: {
      'no-restricted-globals': [
        'error',
        { name: 'fetch', message: 'Only web/api talks to the server.' },
        { name: 'EventSource', message: 'Only web/api talks to the server.' },
      ],
    },
  },
  {
    files: ['scripts/**/*.mjs', '*.js', '*.mjs'],
    languageOptions: {
      globals: {
        process: 'readonly',
        console: 'readonly',
        URL: 'readonly',
        setTimeout: 'readonly',
        setInterval: 'readonly',
        fetch: 'readonly',
      },
    },
  },
);
