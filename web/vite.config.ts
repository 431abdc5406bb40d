/// <reference types="vitest/config" />
import { fileURLToPath } from 'node:url'

import tailwindcss from '@tailwindcss/vite'
import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vite'
import { VitePWA } from 'vite-plugin-pwa'

/** Keeps pages and scripts in the browser, so that a reload works while the application is out of reach. */
const keepPages = VitePWA({
  injectRegister: null,
  manifest: {
    name: 'Vallostasis',
    short_name: 'Vallostasis',
    description: 'Liners proved hole by hole',
    display: 'standalone',
    background_color: '#f6f2e8',
    theme_color: '#17233b',
    icons: [{ src: '/icon.svg', sizes: 'any', type: 'image/svg+xml' }],
  },
  workbox: {
    globPatterns: ['**/*.{js,css,html,svg,woff2}'],
    inlineWorkboxRuntime: true,
    skipWaiting: true,
    clientsClaim: true,
    navigateFallback: null,
    runtimeCaching: [
      {
        // The page always comes from the application when it answers, so that it is never an old one.
        urlPattern: ({ request, url }) => request.mode === 'navigate' && !url.pathname.startsWith('/api/'),
        handler: 'NetworkOnly',
        options: { precacheFallback: { fallbackURL: 'index.html' } },
      },
    ],
  },
})

/**
 * One file for what every view uses, and one for each feature: a view came in forty files, most of them of a few lines,
 * and each is asked for, answered and opened by itself. The solid model is large, only some look at it: it comes apart.
 */
const codeSplitting = {
  groups: [
    { name: 'shared', test: /node_modules\/(?!three\/)|src\/(api|shared)\/|preload-helper/ },
    { name: (id: string) => /src\/features\/(?!wall\/stage)([\w-]+)\//.exec(id)?.[1] ?? null },
  ],
}

/** Tests of what waits for the link: readings, marks, the stream of changes itself. */
const LEAVES_SOMETHING = [
  'src/shared/state/{job,link,outbox,useAloud,useSender,useSurvey,useTaking,useUndo}.test.ts',
  'src/features/block/useEntry.test.ts',
  'src/features/cut-run/CutRunPage.test.ts',
  'src/features/heat/DropPage.test.ts',
  'src/features/honing/HonePage.test.ts',
]

export default defineConfig({
  plugins: [vue(), tailwindcss(), keepPages],
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  server: { proxy: { '/api': 'http://127.0.0.1:8420', '/healthz': 'http://127.0.0.1:8420' } },
  // Inlined fonts and styles would break the Content-Security-Policy.
  build: {
    assetsInlineLimit: 0,
    modulePreload: { polyfill: false },
    rolldownOptions: { output: { codeSplitting } },
  },
  test: {
    environment: 'happy-dom',
    setupFiles: ['src/testing/setup.ts'],
    // A page for each file takes five times as long as its tests; those that leave a queue or a stream behind need one.
    projects: [
      { extends: true, test: { name: 'apart', include: LEAVES_SOMETHING } },
      {
        extends: true,
        test: {
          name: 'together',
          include: ['src/**/*.test.ts'],
          exclude: LEAVES_SOMETHING,
          isolate: false,
        },
      },
    ],
  },
})
