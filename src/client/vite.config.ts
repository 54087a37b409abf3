/// <reference types="vitest/config" />
import { fileURLToPath } from 'node:url'
import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vite'
import { VitePWA } from 'vite-plugin-pwa'

const server = `http://127.0.0.1:${process.env.FOBBLE_PORT ?? 5270}`

export default defineConfig({
  plugins: [
    vue(),
    VitePWA({
      registerType: 'autoUpdate',
      injectRegister: 'script-defer',
      manifest: {
        name: 'Fobble',
        short_name: 'Fobble',
        description: 'Number work for four- to six-year-olds: plan, notice, group.',
        lang: 'en-GB',
        start_url: '/',
        display: 'standalone',
        background_color: '#faf5ea',
        theme_color: '#faf5ea',
        icons: [
          { src: 'beads-192.png', sizes: '192x192', type: 'image/png' },
          { src: 'beads-512.png', sizes: '512x512', type: 'image/png', purpose: 'any' },
          { src: 'beads.svg', sizes: 'any', type: 'image/svg+xml' },
        ],
      },
      workbox: {
        globPatterns: ['**/*.{js,css,html,svg}', 'assets/*latin-{400,700}-normal-*.woff2'],
        navigateFallbackDenylist: [/^\/api\//, /^\/live/, /^\/openapi/, /^\/health/],
        cleanupOutdatedCaches: true,
        clientsClaim: true,
        skipWaiting: true,
        // What the clipboard needs on a day without network: who is signed in, the week, the cards, the children.
        runtimeCaching: [
          {
            urlPattern: ({ url }) => url.pathname.startsWith('/api/fonts/'),
            handler: 'CacheFirst',
            options: { cacheName: 'fobble-fonts', cacheableResponse: { statuses: [200] } },
          },
          {
            urlPattern: ({ url }) =>
              /^\/api\/(account|classes\/\d+\/(weeks\/[\d-]+|days\/[\d-]+|sessions\/\d+|clipboard|children))\/?$/.test(
                url.pathname,
              ),
            handler: 'NetworkFirst',
            options: {
              cacheName: 'fobble-day',
              networkTimeoutSeconds: 5,
              expiration: { maxEntries: 80, maxAgeSeconds: 3 * 24 * 3600 },
              cacheableResponse: { statuses: [200] },
            },
          },
        ],
      },
    }),
  ],
  // The server puts each answer's own nonce in its place.
  html: { cspNonce: 'NONCE-OF-THIS-ANSWER' },
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  build: { outDir: '../Fobble.Server/wwwroot', emptyOutDir: true, assetsInlineLimit: 0 },
  server: { proxy: { '/api': server, '/health': server, '/live': { target: server, ws: true } } },
  test: { environment: 'happy-dom', setupFiles: ['src/testing/language.ts'], include: ['src/**/*.test.ts'] },
})
