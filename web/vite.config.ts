import vue from '@vitejs/plugin-vue'
import { ElementPlusResolver } from 'unplugin-vue-components/resolvers'
import components from 'unplugin-vue-components/vite'
import { defineConfig } from 'vite'
import { VitePWA } from 'vite-plugin-pwa'

export default defineConfig({
  plugins: [
    vue(),
    components({ dirs: [], dts: 'src/components.d.ts', resolvers: [ElementPlusResolver({ importStyle: 'css' })] }),
    VitePWA({
      injectRegister: null, // main.ts registers it once the first view has shown
      registerType: 'prompt', // a new version waits until the pages of the old one are closed
      manifest: {
        name: 'Ivory Bridge',
        short_name: 'Ivory Bridge',
        description: 'A workbook for remedial horse trainers',
        display: 'standalone',
        start_url: '/',
        background_color: '#fffdf8',
        theme_color: '#f7f2e7',
        icons: [{ src: '/mark.svg', sizes: 'any', type: 'image/svg+xml', purpose: 'any' }],
      },
      workbox: {
        globPatterns: ['**/*.{js,css,html,wasm,svg,woff2}'],
        globIgnores: ['o/**'],
        maximumFileSizeToCacheInBytes: 8 << 20,
        navigateFallback: '/index.html',
        navigateFallbackDenylist: [/^\/api\//, /^\/o\//],
      },
    }),
  ],
  worker: { format: 'es' },
  build: { outDir: 'dist', emptyOutDir: false, target: 'es2022', assetsInlineLimit: 0, modulePreload: { polyfill: false } },
  server: { proxy: { '/api': 'http://127.0.0.1:8080' } },
})
