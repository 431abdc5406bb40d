/// <reference types="vitest/config" />
import { fileURLToPath } from 'node:url'

import tailwindcss from '@tailwindcss/vite'
import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vite'

export default defineConfig({
  plugins: [vue(), tailwindcss()],
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  server: { proxy: { '/api': 'http://127.0.0.1:8420', '/healthz': 'http://127.0.0.1:8420' } },
  // Inlined fonts and styles would break the Content-Security-Policy.
  build: { assetsInlineLimit: 0, modulePreload: { polyfill: false } },
  test: { environment: 'happy-dom', include: ['src/**/*.test.ts'] },
})
