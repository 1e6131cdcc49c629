import svelte from 'eslint-plugin-svelte';
import ts from 'typescript-eslint';
import svelteConfig from './svelte.config.js';

export default ts.config(
    { ignores: ['dist', 'node_modules', 'src/api/schema.d.ts', 'public/readers.js'] },
    ...ts.configs.strict,
    ...svelte.configs.recommended,
    {
        files: ['**/*.svelte', '**/*.svelte.ts'],
        languageOptions: { parserOptions: { parser: ts.parser, svelteConfig } },
    },
    { rules: { 'svelte/no-navigation-without-resolve': 'off' } },
    {
        files: ['src/ui/**', 'src/api/**'],
        rules: {
            'no-restricted-imports': [
                'error',
                { patterns: [{ regex: '/(features|frame)/', message: 'What all share knows no feature.' }] },
            ],
        },
    },
    {
        files: ['src/features/**'],
        rules: {
            'no-restricted-imports': [
                'error',
                {
                    patterns: [
                        {
                            regex: '^\\.\\./(?!\\.\\./)',
                            message: 'A feature imports api, ui and the router, never another feature.',
                        },
                    ],
                },
            ],
        },
    },
);
