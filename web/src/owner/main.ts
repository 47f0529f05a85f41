// The owner's pages begin here.
import { createApp } from 'vue'
import OwnerApp from './OwnerApp.vue'
import './owner.css'

createApp(OwnerApp).mount('#owner')

addEventListener('load', () => {
  void navigator.serviceWorker?.register('/o/sw.js', { scope: '/o/' }).catch(() => undefined) // it works without, with a signal
})
