import js from '@eslint/js';
import hooks from 'eslint-plugin-react-hooks';
import globals from 'globals';
import ts from 'typescript-eslint';

export default ts.config(
  { ignores: ['**/dist/', '**/node_modules/', '.data/', 'test-results/'] },
  js.configs.recommended,
  ...ts.configs.strict,
  {
    rules: {
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { ignoreRestSiblings: true, varsIgnorePattern: '^_' }],
      '@typescript-eslint/consistent-type-imports': 'error',
      eqeqeq: 'error',
      '@typescript-eslint/no-invalid-void-type': 'off',
      'no-console': 'error',
      'no-restricted-syntax': [
        'error',
        { selector: 'TSEnumDeclaration', message: 'A union of strings says it better.' },
        {
          selector: "CallExpression[callee.name='Number'] CallExpression[callee.property.name='replace']",
          message: 'A number that is typed is read by numberTyped.',
        },
        {
          selector: "CallExpression[callee.object.name='Papa'][callee.property.name='unparse']",
          message: 'CSV is written by writeCsv, which leaves no formula alive.',
        },
      ],
    },
  },
  {
    files: ['core/**/*.ts'],
    ignores: ['core/test/**', 'core/shell.ts'],
    rules: {
      'no-restricted-globals': ['error', 'fetch', 'process', 'window', 'document', 'localStorage'],
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random', message: 'The core takes a seed.' },
        { object: 'Date', property: 'now', message: 'The core has no clock.' },
      ],
    },
  },
  {
    files: ['web/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': hooks },
    languageOptions: { globals: globals.browser },
    rules: {
      ...hooks.configs.recommended.rules,
      'react-hooks/exhaustive-deps': 'off',
      'react-hooks/incompatible-library': 'off',
    },
  },
  {
    files: ['scripts/**/*.mjs', '*.js', '*.cjs'],
    languageOptions: {
      globals: {
        ...globals.node,
        // pieces of a bench that run in the page
        document: 'readonly',
        KeyboardEvent: 'readonly',
        requestAnimationFrame: 'readonly',
        MutationObserver: 'readonly',
      },
    },
  },
);
