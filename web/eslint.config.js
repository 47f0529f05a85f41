import prettier from 'eslint-config-prettier'
import vue from 'eslint-plugin-vue'
import ts from 'typescript-eslint'

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
  prettier,
)
