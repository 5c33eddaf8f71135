import js from '@eslint/js';
import reactHooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

export default tseslint.config(
  { ignores: ['.next/', 'dist/', 'node_modules/', '.data/', 'next-env.d.ts', 'test-results/'] },
  js.configs.recommended,
  tseslint.configs.recommended,
  reactHooks.configs.flat['recommended-latest'],
  {
    files: ['**/*.mjs', '**/*.cjs', 'bin/*'],
    languageOptions: {
      globals: {
        process: 'readonly',
        console: 'readonly',
        clearTimeout: 'readonly',
        performance: 'readonly',
        CanvasRenderingContext2D: 'readonly',
        document: 'readonly',
        requestAnimationFrame: 'readonly',
        PerformanceObserver: 'readonly',
        KeyboardEvent: 'readonly',
        fetch: 'readonly',
        setTimeout: 'readonly',
        URL: 'readonly',
        module: 'writable',
        require: 'readonly',
        __dirname: 'readonly',
      },
    },
  },
  {
    files: ['**/*.ts', '**/*.tsx'],
    rules: {
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports' }],
      'max-params': ['error', 3],
      '@typescript-eslint/no-unused-vars': ['error', { ignoreRestSiblings: true }],
      eqeqeq: 'error',
    },
  },
  {
    files: ['bin/**', '**/*.cjs'],
    languageOptions: { sourceType: 'commonjs' },
    rules: { '@typescript-eslint/no-require-imports': 'off' },
  },
);
