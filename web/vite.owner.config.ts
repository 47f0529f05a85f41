import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vite'
import { VitePWA } from 'vite-plugin-pwa'

// The owner's pages: an application of their own, with nothing of the trainer's
// screens in it, and a service worker for itself alone.
export default defineConfig({
  root: 'o',
  base: '/o/',
  publicDir: '../public',
  plugins: [
    vue(),
    VitePWA({
      injectRegister: null,
      registerType: 'autoUpdate',
      manifest: false,
      scope: '/o/',
      workbox: {
        globPatterns: ['**/*.{js,css,html,svg}'],
        navigateFallback: '/o/index.html',
        cleanupOutdatedCaches: true,
        skipWaiting: true,
        clientsClaim: true,
      },
    }),
  ],
  build: { outDir: '../dist/o', emptyOutDir: false, target: 'es2022', assetsInlineLimit: 0, modulePreload: { polyfill: false } },
  server: { proxy: { '/api': 'http://127.0.0.1:8080' } },
})
