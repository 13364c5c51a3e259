import prettier from 'eslint-config-prettier'
import vue from 'eslint-plugin-vue'
import { defineConfigWithVueTs, vueTsConfigs } from '@vue/eslint-config-typescript'

export default defineConfigWithVueTs(
  { ignores: ['dist/**', 'node_modules/**'] },
  vue.configs['flat/recommended'],
  vueTsConfigs.recommendedTypeChecked,
  prettier,
  {
    files: ['**/tests/web/**/*.ts'],
    languageOptions: { parserOptions: { projectService: false, project: './tsconfig.tests.json', tsconfigRootDir: import.meta.dirname } },
    // What stands in for something that takes its time is as it is.
    rules: { '@typescript-eslint/require-await': 'off' },
  },
  {
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      'vue/multi-word-component-names': 'off',
      'vue/max-lines-per-block': 'off',
      'no-console': 'error',
    },
  },
)
