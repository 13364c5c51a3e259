import prettier from 'eslint-config-prettier'
import vue from 'eslint-plugin-vue'
import { defineConfigWithVueTs, vueTsConfigs } from '@vue/eslint-config-typescript'

export default defineConfigWithVueTs(
  { ignores: ['dist/**', 'node_modules/**'] },
  vue.configs['flat/recommended'],
  vueTsConfigs.recommended,
  prettier,
  { rules: { '@typescript-eslint/no-explicit-any': 'error', 'vue/multi-word-component-names': 'off', 'vue/max-lines-per-block': 'off', 'no-console': 'error' } },
)
