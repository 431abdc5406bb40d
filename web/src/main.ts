import '@fontsource-variable/atkinson-hyperlegible-next/index.css'
import '@fontsource-variable/atkinson-hyperlegible-mono/index.css'
import './style.css'

import { createApp } from 'vue'

import App from './App.vue'
import { router } from './router'

createApp(App).use(router).mount('#app')
