import '@fontsource-variable/atkinson-hyperlegible-next/index.css'
import '@fontsource-variable/atkinson-hyperlegible-mono/index.css'
import './style.css'
import './print.css'

import { createApp } from 'vue'

import App from './App.vue'
import { router } from './router'
import { legible } from './shared/charts/legible'
import { startLink } from './shared/state/link'
import { startOutbox } from './shared/state/outbox'
import { startPrefetch } from './shared/state/prefetch'
import { tellWhere } from './shared/state/whereTo'

createApp(App).use(router).directive('legible', legible).mount('#app')

tellWhere(router)
startPrefetch(router)
startLink()
startOutbox()
// Only pages over https or from this machine may keep themselves for a reload without the application.
if ('serviceWorker' in navigator) void navigator.serviceWorker.register('/sw.js').catch(() => undefined)
