import vue from 'eslint-plugin-vue';
import typescript from 'typescript-eslint';

/** Which folders a folder may not import from, and why. The same boundaries stand in docs/architecture.md. */
const boundary = (files, patterns) => ({
  files,
  ignores: ['**/*.test.ts'],
  rules: {
    'no-restricted-imports': [
      'error',
      { patterns: patterns.map(([group, message, more]) => ({ group, message, ...more })) },
    ],
  },
});

/** What no part of core/ may import. */
const PURE = [
  [
    ['**/app/**', '**/server/**', '**/render/**', '**/standins/**', '**/demo/**'],
    'core/ computes and knows nothing of the outside.',
  ],
  [
    ['node:*', 'fs', 'path', 'vue', 'h3', 'pg', 'drizzle-orm*', 'nuxt*', '#*', '~*'],
    'core/ is pure: no Node, no interface, no I/O.',
  ],
];

/** The folders of core/, each of which imports only from those before it. */
const LAYERS = [
  'shape',
  'record',
  'money',
  'words',
  'rich',
  'formula',
  'sheet',
  'condition',
  'calculations',
  'template',
  'files',
  'production',
  'contract',
];
const layers = LAYERS.map((layer, at) => {
  const later = LAYERS.slice(at + 1).map((each) => `**/${each}/**`);
  return later.length === 0
    ? []
    : boundary([`core/${layer}/**/*.ts`], [...PURE, [later, `core/${layer}/ comes before these folders.`]]);
});

export default typescript.config(
  {
    ignores: [
      '.nuxt/**',
      '.output/**',
      '.build/**',
      '.data*/**',
      'node_modules/**',
      'core/formula/formula.parser*.ts',
      'test-results/**',
    ],
  },
  ...typescript.configs.recommended,
  ...vue.configs['flat/recommended'],
  {
    files: ['**/*.vue'],
    languageOptions: { parserOptions: { parser: typescript.parser } },
    rules: { 'vue/multi-word-component-names': 'off' },
  },
  {
    rules: {
      'no-undef': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      'no-console': 'error',
      eqeqeq: 'error',
      // Prettier lays out.
      'vue/max-attributes-per-line': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/multiline-html-element-content-newline': 'off',
      'vue/html-self-closing': 'off',
      'vue/html-indent': 'off',
      'vue/html-closing-bracket-newline': 'off',
      'vue/first-attribute-linebreak': 'off',
      'vue/require-default-prop': 'off',
    },
  },
  boundary(['core/**/*.ts'], PURE),
  ...layers.flat(),
  boundary(
    ['render/**/*.ts'],
    [
      [['**/app/**', '**/server/**', '**/standins/**', '**/demo/**'], 'render/ takes composed documents only.'],
      [['**/core/**'], 'render/ imports only types of core/.', { allowTypeImports: true }],
    ],
  ),
  boundary(
    ['standins/**/*.ts'],
    [
      [
        ['**/app/**', '**/server/**', '**/core/**', '**/render/**'],
        'A stand-in knows of the product only what any outside program could.',
      ],
    ],
  ),
  boundary(
    ['app/**/*.{ts,vue}'],
    [
      [
        ['**/server/**', '**/render/**', '**/standins/**', '**/demo/**'],
        'app/ talks to the server through its routes.',
      ],
    ],
  ),
  boundary(
    ['server/answers/**/*.ts'],
    [[['**/render/**', '**/crm/client', '**/press/**'], 'An answer is what one function of the server gives.']],
  ),
);
