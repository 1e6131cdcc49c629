import { svelte } from '@sveltejs/vite-plugin-svelte';
import tailwindcss from '@tailwindcss/vite';
import { VitePWA } from 'vite-plugin-pwa';
import { defineConfig } from 'vitest/config';

/** The page itself is kept on the device, so that it opens without network; what it asks for is not (api/answers). */
const installed = VitePWA({
  registerType: 'prompt',
  injectRegister: false,
  manifest: {
    name: 'Knot Tag',
    short_name: 'Knot Tag',
    description: 'Plans, registers, sets up and proves the devices of a site.',
    start_url: '/',
    display: 'standalone',
    background_color: '#faf9f4',
    theme_color: '#faf9f4',
    icons: [
      { src: '/icon-192.png', sizes: '192x192', type: 'image/png' },
      { src: '/icon-512.png', sizes: '512x512', type: 'image/png', purpose: 'any' },
      { src: '/icon-512.png', sizes: '512x512', type: 'image/png', purpose: 'maskable' },
    ],
  },
  workbox: {
    globPatterns: ['**/*.{html,js,css,svg,png,woff2}'],
    navigateFallback: '/index.html',
    navigateFallbackDenylist: [/^\/api\//, /\.[a-z0-9]+$/],
    maximumFileSizeToCacheInBytes: 4_000_000,
    inlineWorkboxRuntime: true,
    sourcemap: false,
  },
});

export default defineConfig({
  plugins: [tailwindcss(), svelte(), installed],
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
