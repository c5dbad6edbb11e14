import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

export default tseslint.config(
  { ignores: ['dist/**', 'data/**', 'node_modules/**', 'coverage/**', 'test-results/**', 'playwright-report/**', '.shots/**'] },
  ...tseslint.configs.recommended,
  {
    files: ['**/*.{ts,tsx}'],
    plugins: { 'react-hooks': hooks },
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      'react-hooks/rules-of-hooks': 'error',
      'react-hooks/exhaustive-deps': 'error',
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/no-misused-promises': 'error',
      '@typescript-eslint/switch-exhaustiveness-check': ['error', { considerDefaultExhaustiveForUnions: true }],
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_' }],
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports' }],
      '@typescript-eslint/no-non-null-assertion': 'error',
      'no-restricted-syntax': [
        'error',
        { selector: 'ExportAllDeclaration', message: 'Name what is exported.' },
        {
          selector: 'ObjectExpression > SpreadElement > ObjectExpression',
          message: 'Write the properties themselves; an object laid into another only saves lines.',
        },
        {
          selector: 'ExportDefaultDeclaration',
          message: 'Use a named export; a tool that demands a default has its own exception below.',
        },
      ],
      eqeqeq: 'error',
      'max-lines': ['warn', { max: 320, skipBlankLines: true }],
    },
  },
  {
    // A test says of what it made itself that it is there.
    files: ['**/*.test.ts', '**/*.test.tsx', '**/test/**', 'e2e/**'],
    rules: { 'max-lines': 'off', '@typescript-eslint/no-non-null-assertion': 'off' },
  },
  { files: ['*.config.ts', '*.config.js'], rules: { 'no-restricted-syntax': 'off' } },
);
