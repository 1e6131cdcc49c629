import { svelte } from '@sveltejs/vite-plugin-svelte';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  plugins: [tailwindcss(), svelte()],
  build: { outDir: 'dist', emptyOutDir: true, assetsInlineLimit: 0, target: 'es2022' },
  server: { fs: { allow: ['..'] }, proxy: { '/api': process.env.KNOT_API ?? 'http://127.0.0.1:8780' } },
  resolve: process.env.VITEST ? { conditions: ['browser'] } : {},
  // A slow machine is no failure.
  test: {
    environment: 'jsdom',
    include: ['src/**/*.test.ts'],
    setupFiles: ['src/test-setup.ts'],
    testTimeout: 60_000,
  },
});
