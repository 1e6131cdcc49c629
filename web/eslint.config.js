import svelte from 'eslint-plugin-svelte';
import ts from 'typescript-eslint';
import svelteConfig from './svelte.config.js';

export default ts.config(
    { ignores: ['dist', 'node_modules', 'src/api/schema.d.ts'] },
    ...ts.configs.strict,
    ...svelte.configs.recommended,
    {
        files: ['**/*.svelte', '**/*.svelte.ts'],
        languageOptions: { parserOptions: { parser: ts.parser, svelteConfig } },
    },
    { rules: { 'svelte/no-navigation-without-resolve': 'off' } },
);
