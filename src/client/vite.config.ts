/// <reference types="vitest/config" />
import { fileURLToPath } from 'node:url'
import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vite'

const server = `http://127.0.0.1:${process.env.FOBBLE_PORT ?? 5270}`

export default defineConfig({
  plugins: [vue()],
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  build: { outDir: '../Fobble.Server/wwwroot', emptyOutDir: true, assetsInlineLimit: 0 },
  server: { proxy: { '/api': server, '/health': server } },
  test: { environment: 'happy-dom', include: ['src/**/*.test.ts'] },
})
