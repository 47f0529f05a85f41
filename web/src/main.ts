import { createApp } from 'vue'
import App from './App.vue'
import { router } from './router'
import './style/fonts.css'
import './style/tokens.css'
import './style/base.css'
import './style/controls.css'

createApp(App).use(router).mount('#app')
