import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vitest/config'

// What the browser keeps is tested where loss would happen; what a person sees is
// tested in a real browser.
export default defineConfig({
  plugins: [vue()],
  test: { environment: 'happy-dom', include: ['src/**/*.test.ts'], setupFiles: ['src/device/testing.ts'] },
})
