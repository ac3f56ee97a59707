import hooks from 'eslint-plugin-react-hooks';
import ts from 'typescript-eslint';

/**
 * Rules that need types. They take minutes, so `npm run lint:types` and `./maypole test --all` hold them, and the editor
 * and the short test do not.
 */
export default ts.config(
  {
    ignores: [
      '**/node_modules/',
      '**/.next/',
      '**/*.test.ts',
      '**/*.mjs',
      'web/next-env.d.ts',
      'core/fixtures/effort.ts',
      'core/kernels/assembly/',
      'core/trace/assembly/',
    ],
  },
  {
    files: ['core/**/*.ts', 'render/**/*.ts', 'web/**/*.{ts,tsx}'],
    languageOptions: {
      parser: ts.parser,
      parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname },
    },
    // Directives name rules of the other configuration.
    plugins: { '@typescript-eslint': ts.plugin, 'react-hooks': hooks },
    linterOptions: { reportUnusedDisableDirectives: false },
    rules: {
      '@typescript-eslint/no-floating-promises': 'error',
      // A handler of React may be asynchronous: what it throws is told by the handler itself.
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: { attributes: false } }],
      '@typescript-eslint/await-thenable': 'error',
      '@typescript-eslint/switch-exhaustiveness-check': ['error', { considerDefaultExhaustiveForUnions: true }],
    },
  },
);
