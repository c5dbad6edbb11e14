import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

export default tseslint.config(
  { ignores: ['dist/**', 'data/**', 'node_modules/**', 'coverage/**', 'test-results/**', 'playwright-report/**'] },
  ...tseslint.configs.recommended,
  {
    files: ['**/*.{ts,tsx}'],
    plugins: { 'react-hooks': hooks },
    rules: {
      'react-hooks/rules-of-hooks': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_' }],
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports' }],
      '@typescript-eslint/no-non-null-assertion': 'off',
      'no-restricted-syntax': [
        'error',
        { selector: 'ExportAllDeclaration', message: 'Name what is exported.' },
        {
          selector: 'ExportDefaultDeclaration',
          message: 'Use a named export; a tool that demands a default has its own exception below.',
        },
      ],
      eqeqeq: 'error',
      'max-lines': ['warn', { max: 320, skipBlankLines: true }],
    },
  },
  { files: ['**/*.test.ts', '**/test/*.ts', 'e2e/**'], rules: { 'max-lines': 'off' } },
  { files: ['*.config.ts', '*.config.js'], rules: { 'no-restricted-syntax': 'off' } },
);
