import reactHooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

export default tseslint.config(
  { ignores: ['.next/', 'dist/', 'node_modules/', 'next-env.d.ts', 'test-results/', 'coverage/'] },
  ...tseslint.configs.strict,
  {
    files: ['src/**/*.{ts,tsx}', 'e2e/**/*.ts', 'lab/**/*.ts'],
    extends: [...tseslint.configs.recommendedTypeCheckedOnly],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/switch-exhaustiveness-check': 'error',
    },
  },
  {
    rules: {
      eqeqeq: 'error',
      'no-console': 'error',
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/no-invalid-void-type': 'off',
    },
  },
  { files: ['src/ui/**/*.tsx', 'src/app/**/*.tsx'], ...reactHooks.configs.flat.recommended },
  {
    files: ['scripts/**/*.mjs', 'src/programs/**/*.ts', 'lab/**/*.ts', 'e2e/screenshots.ts'],
    rules: { 'no-console': 'off' },
  },
  { files: ['**/*.test.{ts,tsx}'], rules: { '@typescript-eslint/no-unsafe-assignment': 'off' } },
);
