import { readdirSync } from 'node:fs'

import prettier from 'eslint-config-prettier'
import vue from 'eslint-plugin-vue'
import globals from 'globals'
import typescript from 'typescript-eslint'

// A feature imports api and shared, never another feature.
const features = readdirSync(new URL('src/features', import.meta.url))
const apart = features.map((feature) => ({
  files: [`src/features/${feature}/**`],
  rules: {
    'no-restricted-imports': [
      'error',
      { patterns: features.filter((other) => other !== feature).map((other) => `@/features/${other}/*`) },
    ],
  },
}))

export default typescript.config(
  { ignores: ['dist', 'src/api/generated', '.client-*'] },
  ...typescript.configs.recommended,
  ...vue.configs['flat/recommended'],
  {
    files: ['**/*.vue'],
    languageOptions: { parserOptions: { parser: typescript.parser } },
  },
  {
    languageOptions: { globals: globals.browser },
    rules: { 'vue/multi-word-component-names': 'off', 'no-console': 'error' },
  },
  {
    files: ['src/shared/**'],
    rules: { 'no-restricted-imports': ['error', { patterns: ['@/features/*'] }] },
  },
  ...apart,
  prettier,
)
