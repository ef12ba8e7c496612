import prettier from 'eslint-config-prettier'
import vue from 'eslint-plugin-vue'
import ts from 'typescript-eslint'

export default [
  { ignores: ['dist/**', 'src/api/contract.ts'] },
  ...ts.configs.recommended,
  ...vue.configs['flat/recommended'],
  {
    files: ['**/*.vue'],
    languageOptions: { parserOptions: { parser: ts.parser } },
  },
  // The form of the text is prettier's.
  prettier,
  { rules: { 'vue/require-default-prop': 'off' } },
  // A component that is longer is several.
  { files: ['**/*.vue'], rules: { 'max-lines': ['error', 250] } },
]
