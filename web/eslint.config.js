import { readdirSync } from 'node:fs'

import prettier from 'eslint-config-prettier'
import vue from 'eslint-plugin-vue'
import accessibility from 'eslint-plugin-vuejs-accessibility'
import globals from 'globals'
import compiler from 'typescript'
import typescript from 'typescript-eslint'
import vueParser from 'vue-eslint-parser'

// The parser hands over the script of a component alone. Read so from the disk too, it is no change that all types have
// to be worked out anew for: for each of some two hundred components.
const { readFile } = compiler.sys
compiler.sys.readFile = (path, encoding) => {
  const text = readFile(path, encoding)
  return path.endsWith('.vue') ? (/<script[^>]*>(.*?)<\/script>/s.exec(text ?? '')?.[1] ?? text) : text
}

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
  ...vue.configs['flat/recommended'],
  ...accessibility.configs['flat/recommended'],
  {
    files: ['src/**/*.ts', 'src/**/*.vue'],
    extends: typescript.configs.recommendedTypeChecked,
    languageOptions: {
      parserOptions: {
        projectService: true,
        tsconfigRootDir: import.meta.dirname,
        extraFileExtensions: ['.vue'],
      },
    },
  },
  {
    files: ['**/*.vue'],
    languageOptions: { parser: vueParser, parserOptions: { parser: typescript.parser } },
  },
  {
    languageOptions: { globals: globals.browser },
    rules: {
      'vue/multi-word-component-names': 'off',
      'no-console': 'error',
      // A label that holds its field, or names it by id, is read out either way.
      'vuejs-accessibility/label-has-for': [
        'error',
        { required: { some: ['nesting', 'id'] }, controlComponents: [] },
      ],
    },
  },
  {
    files: ['src/shared/**'],
    rules: { 'no-restricted-imports': ['error', { patterns: ['@/features/*'] }] },
  },
  ...apart,
  prettier,
)
