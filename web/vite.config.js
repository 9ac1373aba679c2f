import { svelte } from '@sveltejs/vite-plugin-svelte'
import tailwindcss from '@tailwindcss/vite'
import { defineConfig } from 'vite'
import { inlineMessages } from './scripts/inline.mjs'

export default defineConfig({
  plugins: [inlineMessages(), svelte(), tailwindcss()],
  build: {
    outDir: 'dist/app',
    emptyOutDir: true,
    assetsInlineLimit: 0, // the content policy allows no inline script or style
    modulePreload: { polyfill: false },
    manifest: 'manifest.json',
  },
  server: { proxy: { '/api': 'http://127.0.0.1:8420' } },
})
