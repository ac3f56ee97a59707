import js from '@eslint/js';
import hooks from 'eslint-plugin-react-hooks';
import ts from 'typescript-eslint';

const noPlatform = [
  'react',
  'react-*',
  'next',
  'next/*',
  'three',
  'three/*',
  '@chakra-ui/*',
  'node:*',
  'fs',
  'path',
  'os',
  'crypto',
];

export default ts.config(
  {
    ignores: [
      '**/node_modules/',
      '**/.next/',
      '**/.maypole/',
      'web/next-env.d.ts',
      'test-results/',
      'core/kernels/assembly/',
      'core/trace/assembly/',
      'playwright-report/',
    ],
  },
  js.configs.recommended,
  ...ts.configs.recommended,
  {
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', ignoreRestSiblings: true }],
      'no-console': 'off',
      // Left behind by renaming: `{ mesh: mesh }`, `import { a as a }`.
      'object-shorthand': ['error', 'properties'],
      'no-useless-rename': 'error',
      complexity: ['error', 30],
    },
  },
  {
    files: ['**/*.mjs'],
    languageOptions: {
      globals: {
        process: 'readonly',
        console: 'readonly',
        setTimeout: 'readonly',
        setInterval: 'readonly',
        fetch: 'readonly',
        URLSearchParams: 'readonly',
        URL: 'readonly',
        Buffer: 'readonly',
      },
    },
  },
  // Tests are lists of cases, and a declaration is one long literal.
  {
    files: ['**/*.{ts,tsx,mjs}'],
    ignores: ['**/*.test.ts', 'e2e/**'],
    rules: { 'max-lines-per-function': ['error', { max: 120 }] },
  },
  // One direction: app → ui → engine/view → core; server → core.
  {
    files: ['core/**/*.ts'],
    ignores: ['core/**/*.test.ts', 'core/fixtures/effort.ts'],
    rules: {
      'no-restricted-imports': ['error', { patterns: [...noPlatform, '@/*', '**/web/**'] }],
      'no-restricted-globals': [
        'error',
        'window',
        'document',
        'navigator',
        'process',
        'self',
        'performance',
        'fetch',
        'localStorage',
      ],
    },
  },
  {
    files: ['web/view/**', 'web/engine/**'],
    rules: { 'no-restricted-imports': ['error', { patterns: ['@/ui/*', '@/app/*', '@/server/*', 'react', 'next/*'] }] },
  },
  {
    files: ['web/view/**'],
    rules: {
      'no-restricted-imports': [
        'error',
        { patterns: ['@/ui/*', '@/app/*', '@/server/*', '@/engine/*', 'react', 'next/*', '@maypole/core/steps/*'] },
      ],
    },
  },
  {
    files: ['web/server/**'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        { patterns: ['@/ui/*', '@/app/*', '@/engine/*', '@/view/*', 'react', 'next/*'] },
      ],
    },
  },
  {
    files: ['web/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': hooks },
    rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' },
  },
);
