import prettier from 'eslint-config-prettier'
import boundaries from 'eslint-plugin-boundaries'
import vue from 'eslint-plugin-vue'
import ts from 'typescript-eslint'

// Arrows of the front end: each room may use those named for it, itself, and what
// every room may: the types of the API and the words. A view uses no other view;
// what two of them share stands in cases or parts.
const may = {
  device: [],
  api: ['device'],
  offline: ['device', 'api'],
  rules: [],
  parts: ['api'],
  cases: ['device', 'api', 'offline', 'rules', 'parts'],
  owner: ['parts'],
  view: ['device', 'api', 'offline', 'rules', 'parts', 'cases'],
}

export default ts.config(
  { ignores: ['dist', 'src/api/schema.d.ts', 'src/components.d.ts', 'src/rules/made'] },
  ...ts.configs.strict,
  ...vue.configs['flat/recommended'],
  { files: ['**/*.vue'], languageOptions: { parserOptions: { parser: ts.parser } } },
  {
    rules: {
      eqeqeq: ['error', 'always', { null: 'ignore' }],
      'vue/block-lang': ['error', { script: { lang: 'ts' } }],
      'vue/component-api-style': ['error', ['script-setup']],
      'vue/define-props-destructuring': 'error',
      // The content security policy runs no inline style.
      'vue/no-restricted-static-attribute': [
        'error',
        { key: 'style', message: 'The content security policy forbids it: use a class.' },
      ],
      'vue/require-default-prop': 'off',
    },
  },
  {
    files: ['src/**/*.{ts,vue}'],
    ignores: ['src/**/*.test.ts', 'src/device/testing.ts'],
    plugins: { boundaries },
    settings: {
      'import/resolver': { node: { extensions: ['.ts', '.vue', '.js'] } },
      'boundaries/elements': [
        { type: 'view', pattern: 'src/views/*', capture: ['place'] },
        ...['device', 'api', 'offline', 'rules', 'parts', 'cases', 'owner'].map((room) => ({
          type: room,
          pattern: `src/${room}`,
        })),
      ],
      'boundaries/files': [
        { category: 'types', pattern: 'src/api/types.ts' },
        { category: 'words', pattern: 'src/words.ts' },
        { category: 'words', pattern: 'src/dates.ts' },
        { category: 'types', pattern: 'src/api/schema.d.ts' },
      ],
    },
    rules: {
      'boundaries/dependencies': [
        'error',
        {
          default: 'disallow',
          policies: [
            { from: { file: { categories: 'words' } }, allow: { to: { element: { type: 'api' } } } },
            ...Object.entries(may).map(([room, others]) => ({
              from: { element: { type: room } },
              allow: { to: { element: { types: { anyOf: room === 'view' ? others : [room, ...others] } } } },
            })),
            {
              from: { element: { type: 'view' } },
              allow: { to: { element: { type: 'view', captured: { place: '{{ from.element.captured.place }}' } } } },
            },
            { allow: { to: { file: { categories: { anyOf: ['types', 'words'] } } } } },
            { allow: { to: { module: { origin: 'external' } } } },
          ],
        },
      ],
    },
  },
  prettier,
)
