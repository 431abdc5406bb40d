import '@fontsource-variable/atkinson-hyperlegible-next/index.css'
import '@fontsource-variable/atkinson-hyperlegible-mono/index.css'
import './style.css'
import './print.css'

import { createApp } from 'vue'

import App from './App.vue'
import { router } from './router'
import { startLink } from './shared/state/link'
import { startOutbox } from './shared/state/outbox'

createApp(App).use(router).mount('#app')

startLink()
startOutbox()
// Only pages over https or from this machine may keep themselves for a reload without the application.
if ('serviceWorker' in navigator) void navigator.serviceWorker.register('/sw.js').catch(() => undefined)
