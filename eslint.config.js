import js from '@eslint/js';
import hooks from 'eslint-plugin-react-hooks';
import globals from 'globals';
import ts from 'typescript-eslint';

/** Names that nothing but a stage has. */
const STAGES_ALONE = '/^(take-in|open-up|head-work|prove|run-in)$/';
const STAGES = '/^(take-in|open-up|as-found|wear|head-work|set|prove|close|run-in)$/';
/** A stage is asked what it is for, or named by SETTING, PROVING, CLOSING and RUNNING: its name stands in stages.ts, and the jobs' rows. */
const STAGE_NAMES = [
  `BinaryExpression[operator=/^[!=]==$/][left.property.name='stage'] > Literal[value=${STAGES}]`,
  `BinaryExpression[operator=/^[!=]==$/][left.name='stage'] > Literal[value=${STAGES}]`,
  `Property[key.name=/^(stage|to_stage|from_stage)$/] > Literal.value[value=${STAGES}]`,
  `Literal[value=${STAGES_ALONE}]`,
  `CallExpression[callee.name=/^(stageOf|takeLate)$/] > Literal[value=${STAGES}]`,
  // in a query too: it is given to it
  "TemplateElement[value.raw=/stage\\w*\\s*(=|<>|in)\\s*[(']/]",
].map((selector) => ({ selector, message: 'A stage is named in core/builds/stages.ts alone.' }));

/** What there is one way for. */
const ONE_WAY = [
  { selector: 'TSEnumDeclaration', message: 'A union of strings says it better.' },
  {
    selector: "CallExpression[callee.name='Number'] CallExpression[callee.property.name='replace']",
    message: 'A number that is typed is read by numberTyped.',
  },
  {
    selector: "CallExpression[callee.object.name='Papa'][callee.property.name='unparse']",
    message: 'CSV is written by writeCsv, which leaves no formula alive.',
  },
];

/** What is typed into a form is lost with the page unless it is kept on the device. */
const KEPT_TEXT = [
  {
    // a choice, whose type is named, is none
    selector:
      "CallExpression[callee.name='useState'][arguments.0.value='']:not(:has(> TSTypeParameterInstantiation))",
    message: 'What is typed is kept by useKeptText, useDraft or useKeptForm.',
  },
];

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
      'no-restricted-syntax': ['error', ...ONE_WAY, ...STAGE_NAMES],
    },
  },
  {
    // what a demo or a test tells of a build names the stages it was at
    files: [
      '**/test/**',
      'e2e/**',
      'scripts/**',
      'server/demo/**',
      'server/migrations/**',
      // made from the database
      'server/tables.ts',
      'core/builds/stages.ts',
      // which stages a job has
      'core/builds/jobs.ts',
      // the parts of the page that each stage brings, by stage
      'web/buildPage/stageRooms.ts',
    ],
    rules: { 'no-restricted-syntax': ['error', ...ONE_WAY] },
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
      'no-restricted-imports': [
        'error',
        {
          ...{ name: 'react', importNames: ['lazy', 'Suspense'] },
          message: 'They hold back what has come for 300 ms: use onDemand, or a page of the router.',
        },
      ],
    },
  },
  {
    files: ['web/**/*.{ts,tsx}'],
    ignores: ['web/test/**', 'web/buildPage/stageRooms.ts'],
    rules: { 'no-restricted-syntax': ['error', ...ONE_WAY, ...STAGE_NAMES, ...KEPT_TEXT] },
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
