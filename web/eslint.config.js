import svelte from 'eslint-plugin-svelte'
import globals from 'globals'
import ts from 'typescript-eslint'
import svelteConfig from './svelte.config.js'

export default ts.config(
  { ignores: ['node_modules', '.svelte-check', 'src/lib/api/schema.d.ts'] },
  ...ts.configs.recommended,
  ...svelte.configs.recommended,
  { languageOptions: { globals: { ...globals.browser } } },
  {
    files: ['**/*.svelte', '**/*.svelte.ts'],
    languageOptions: { parserOptions: { parser: ts.parser, svelteConfig } },
    rules: {
      'svelte/no-navigation-without-resolve': 'off',
      'svelte/no-useless-mustaches': 'off', // {' '} keeps a space that the formatter would drop
    },
  },
)
