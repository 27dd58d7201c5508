import angular from 'angular-eslint';
import tseslint from 'typescript-eslint';

/** Names that only exist in browsers or in Node; the core runs in both and in workers. */
const HOST_GLOBALS = ['window', 'document', 'localStorage', 'navigator', 'fetch', 'process', 'Buffer', 'setTimeout'];

/** The dependency rule: the core imports nothing of its users, the DOM or Node, and folders meet at their index. */
const CORE_IMPORTS = {
  patterns: [
    { group: ['node:*', 'fs', 'path'], message: 'The core is pure: no Node.' },
    { group: ['zod'], message: 'Schemas are made by basics/schema, when they are first used.' },
    {
      group: ['@angular/*', 'express', 'rxjs', '@wexikine/*', '**/server/**', '**/web/**', '**/paint/**'],
      message: 'The core knows nothing of those who use it.',
    },
    { regex: '^\\.\\./(?!\\.\\.)[^/]+/', message: 'Another room is reached only through its index.' },
    { regex: '^\\.\\./\\.\\./(?!\\.\\.)[^/]+/[^/]+/', message: 'Another room is reached only through its index.' },
  ],
};

/** The floors of the core, the lowest first: each knows of those below it and of none above. */
const FLOORS = ['basics', 'formulas', 'scene', 'library', 'runs', 'out'];

/** What a floor may not import: any that stands above it. */
const FLOOR_RULES = FLOORS.map((floor, i) => ({
  files: [`core/src/${floor}/**/*.ts`],
  ignores: ['core/src/**/*.test.ts'],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
          ...CORE_IMPORTS.patterns,
          ...FLOORS.slice(i + 1).map((above) => ({
            group: [`../../${above}/*`],
            message: `What is in ${floor} knows nothing of ${above}: see docs/ARCHITECTURE.md.`,
          })),
        ],
      },
    ],
  },
}));

export default tseslint.config(
  {
    ignores: [
      '**/dist/**',
      '**/node_modules/**',
      '**/.angular/**',
      '**/*.generated*',
      'test-results/**',
      'playwright-report/**',
      'data/**',
    ],
  },
  {
    files: ['**/*.ts'],
    extends: [...tseslint.configs.recommended, ...tseslint.configs.stylistic],
    processor: angular.processInlineTemplates,
    rules: {
      '@typescript-eslint/consistent-type-definitions': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { varsIgnorePattern: '^_', argsIgnorePattern: '^_' }],
      '@typescript-eslint/no-empty-function': 'off',
      // A name of its own for what a schema reads: messages and declarations say it instead of all of its fields.
      '@typescript-eslint/no-empty-object-type': ['error', { allowInterfaces: 'with-single-extends' }],
      eqeqeq: 'error',
      'max-lines': ['error', { max: 460, skipBlankLines: true, skipComments: true }],
      'no-console': ['error', { allow: ['error'] }],
      'no-dupe-else-if': 'error',
      'no-duplicate-case': 'error',
      'prefer-const': 'error',
    },
  },
  {
    files: ['core/src/**/*.ts'],
    ignores: ['core/src/**/*.test.ts', 'core/src/testing/**'],
    rules: {
      'no-restricted-imports': ['error', CORE_IMPORTS],
      'no-restricted-globals': ['error', ...HOST_GLOBALS],
    },
  },
  ...FLOOR_RULES,
  { files: ['core/src/basics/schema/*.ts'], rules: { 'no-restricted-imports': 'off' } },
  {
    files: ['web/src/**/*.ts'],
    extends: [...angular.configs.tsRecommended],
    rules: {
      '@angular-eslint/component-selector': ['error', { type: 'element', prefix: 'wx', style: 'kebab-case' }],
      '@angular-eslint/directive-selector': ['error', { type: 'attribute', prefix: 'wx', style: 'camelCase' }],
      '@angular-eslint/no-output-native': 'off',
    },
  },
  ...[
    ['bench', ['scene', 'scenes']],
    ['looks', ['scene', 'bench', 'scenes']],
    ['scene', ['bench', 'scenes']],
    ['drawing', ['library', 'scene', 'bench', 'fields']],
  ].map(([folder, others]) => ({
    files: [`web/src/app/${folder}/**/*.ts`],
    ignores: ['web/src/**/*.test.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: others.map((other) => ({
            group: [`../${other}/**`, `../../${other}/**`, `../../../${other}/**`],
            message: `${folder} knows nothing of ${other}; what both need stands in a folder of its own.`,
          })),
        },
      ],
    },
  })),
  {
    files: ['web/src/**/*.html'],
    extends: [...angular.configs.templateRecommended, ...angular.configs.templateAccessibility],
    rules: {
      '@angular-eslint/template/interactive-supports-focus': 'off',
      '@angular-eslint/template/click-events-have-key-events': 'off',
      '@angular-eslint/template/mouse-events-have-key-events': 'off',
      '@angular-eslint/template/label-has-associated-control': 'off',
    },
  },
);
