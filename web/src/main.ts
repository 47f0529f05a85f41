import { createApp } from 'vue'
import App from './App.vue'
import { router } from './router'
import './style/fonts.css'
import './style/tokens.css'
import './style/base.css'
import './style/controls.css'

createApp(App).use(router).mount('#app')

// The product opens without a signal: its files are kept once it has been seen.
if ('serviceWorker' in navigator && import.meta.env.PROD) {
  window.addEventListener('load', () => {
    setTimeout(() => void navigator.serviceWorker.register('/sw.js').catch(() => undefined), 1000)
  })
}
