import js from '@eslint/js'
import vue from 'eslint-plugin-vue'
import accessibility from 'eslint-plugin-vuejs-accessibility'
import globals from 'globals'
import ts from 'typescript-eslint'

export default ts.config(
  { ignores: ['src/app/api/schema.d.ts'] },
  js.configs.recommended,
  ...ts.configs.recommended,
  ...vue.configs['flat/recommended'],
  ...accessibility.configs['flat/recommended'],
  {
    files: ['**/*.vue', '**/*.ts'],
    languageOptions: {
      globals: globals.browser,
      parserOptions: {
        parser: ts.parser,
        projectService: true,
        tsconfigRootDir: import.meta.dirname,
        extraFileExtensions: ['.vue'],
      },
    },
    rules: {
      // Layout is Prettier's.
      'vue/max-attributes-per-line': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/html-self-closing': 'off',
      'vue/html-indent': 'off',
      'vue/html-closing-bracket-newline': 'off',
      'vue/multiline-html-element-content-newline': 'off',
      'vue/multi-word-component-names': 'off',
      // Every text passes the language: {{ $t('…') }}.
      'vue/no-bare-strings-in-template': [
        'error',
        {
          allowlist: [...'/‹›():;,.·–“”→+−×…↑↓←'],
          attributes: {
            '/.+/': [
              'aria-label',
              'aria-placeholder',
              'aria-roledescription',
              'aria-valuetext',
              'label',
              'header',
              'none',
              'placeholder',
            ],
            img: ['alt'],
            MatFrame: ['name'],
          },
        },
      ],
      // Nothing that only a mouse can read: v-tooltip shows on touch and focus too.
      'vue/no-restricted-static-attribute': ['error', 'title'],
      'vue/no-restricted-v-bind': ['error', { argument: 'title', message: 'Use v-tooltip.' }],
      eqeqeq: 'error',
      // A promise nobody waits for hides its failure: say `void` where that is meant.
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: false }],
      // A label may hold its field or name it: either is enough for a screen reader.
      'vuejs-accessibility/label-has-for': [
        'error',
        { required: { some: ['nesting', 'id'] }, controlComponents: ['StepNumber', 'NumberField'] },
      ],
      'vuejs-accessibility/form-control-has-label': ['error', { labelComponents: ['FaultyField'] }],
    },
  },
  { files: ['*.mjs'], languageOptions: { globals: globals.node } },
  {
    files: ['src/features/**'],
    rules: {
      // What several features use lives in ui/, so that each can be read by itself.
      'no-restricted-imports': ['error', { patterns: ['@/features/*', '../*'] }],
    },
  },
)
