import tseslint from 'typescript-eslint';
import hooks from 'eslint-plugin-react-hooks';

export default tseslint.config(
  { ignores: ['**/dist*/**', '**/node_modules/**', 'data/**', 'apps/server/drizzle/**', 'test-results/**'] },
  ...tseslint.configs.recommended,
  {
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      'prefer-const': ['error', { destructuring: 'all' }],
    },
  },
  {
    // What only types can tell: promises that nobody waits for, casts that say nothing, cases that were forgotten.
    files: ['{packages,apps,demo,bench,e2e}/**/*.{ts,tsx}'],
    ignores: ['**/*.config.ts'],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      '@typescript-eslint/await-thenable': 'error',
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: { attributes: false } }],
      '@typescript-eslint/no-redundant-type-constituents': 'error',
      '@typescript-eslint/no-unnecessary-type-assertion': 'error',
      '@typescript-eslint/only-throw-error': 'error',
      '@typescript-eslint/prefer-promise-reject-errors': 'error',
      '@typescript-eslint/restrict-plus-operands': 'error',
      '@typescript-eslint/restrict-template-expressions': [
        'error',
        { allowNumber: true, allowBoolean: true },
      ],
      '@typescript-eslint/switch-exhaustiveness-check': [
        'error',
        { considerDefaultExhaustiveForUnions: true, requireDefaultForNonUnion: false },
      ],
    },
  },
  {
    // A function does one thing that can be read at a glance; a longer one says above it why it is in one piece.
    files: ['{packages,apps}/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'max-lines-per-function': ['error', { max: 70, skipBlankLines: true, skipComments: true, IIFEs: true }],
      'max-params': ['error', 6],
    },
  },
  {
    // Of a component most lines are markup, which is read from top to bottom.
    files: ['apps/**/*.tsx'],
    ignores: ['**/*.test.tsx'],
    rules: {
      'max-lines-per-function': ['error', { max: 100, skipBlankLines: true, skipComments: true }],
      'max-params': ['error', 5],
    },
  },
  {
    // What is read on a screen is a message, so that it can be in another language (apps/web/src/language).
    files: ['apps/web/src/**/*.tsx'],
    ignores: ['**/*.test.tsx'],
    rules: {
      'no-restricted-syntax': [
        'error',
        ...[
          'JSXText[value=/[A-Za-z]{3}/]',
          'JSXAttribute[name.name=/^(aria-label|label|title|placeholder|alt|what|hint|note|heading)$/] > Literal[value=/[A-Za-z]{3}/]',
          ':matches(JSXElement, JSXFragment) > JSXExpressionContainer > :matches(ConditionalExpression, LogicalExpression) > Literal[value=/^[A-Za-z]{3}/]',
        ].map((selector) => ({ selector, message: 'Put it in msg(): language/language.ts.' })),
      ],
    },
  },
  {
    // Imports go one way: web, server and cli -> core; core knows none of them.
    files: ['packages/core/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            'node:*',
            'fs',
            'path',
            'react',
            'sharp',
            '@napi-rs/*',
            '@scenograph/server*',
            '@scenograph/web*',
          ],
        },
      ],
      'no-restricted-globals': ['error', 'window', 'document', 'process', 'Buffer', 'fetch'],
    },
  },
  {
    // Routes are those of the contract.
    files: ['apps/server/**/*.ts'],
    ignores: ['apps/server/src/http/route.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          paths: [
            {
              name: '@nestjs/common',
              importNames: ['Get', 'Post', 'Put', 'Patch', 'Delete', 'Sse', 'Body', 'Query', 'Param'],
              message: 'Answer a route of packages/contract with @On(...) and @Call().',
            },
          ],
        },
      ],
    },
  },
  {
    // What a kind of element is known by stands in its own folder: a hook of its definition, or its guard.
    files: ['packages/**/*.ts', 'apps/**/*.{ts,tsx}'],
    ignores: ['**/*.test.{ts,tsx}', 'packages/core/elements/*/*.ts', 'packages/core/shot/migrations.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector:
            "BinaryExpression[operator=/^[!=]==$/][left.property.name='kind'][right.value=/^(backdrop|product|text|badge|stars|logo|watermark|inset|pair|measure|callout)$/]",
          message: 'Ask the kind (elementKind, elementPainter, kindUi) or use its guard, such as isProduct.',
        },
      ],
    },
  },
  {
    files: ['apps/web/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': hooks },
    rules: { 'react-hooks/rules-of-hooks': 'error' },
  },
);
