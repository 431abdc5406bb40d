/** A composable inside a mounted component, as it runs in a page, with a router of the addresses it goes to. */
import { type App, createApp, h } from 'vue'
import { createMemoryHistory, createRouter, type Router } from 'vue-router'

export interface Mounted<T> {
  it: T
  router: Router
  app: App
}

const Nothing = { render: () => h('p') }

export async function mounted<T>(
  use: () => T,
  address = '/',
  paths: Record<string, string> = {},
): Promise<Mounted<T>> {
  const routes = Object.entries(paths).map(([name, path]) => ({ name, path, component: Nothing }))
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [...routes, { name: 'anywhere', path: '/:rest(.*)*', component: Nothing }],
  })
  await router.push(address)
  let made: T | undefined
  const app = createApp({
    setup() {
      made = use()
      return () => h('p')
    },
  })
  app.use(router).mount(document.createElement('div'))
  return { it: made as T, router, app }
}
