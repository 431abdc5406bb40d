/** What a link leads to is fetched while it is pointed at or has the focus, so that it is there when it is followed. */
import type { Router } from 'vue-router'

const fetched = new Set<unknown>()

/** Load the views that an address is made of; each once. */
export async function prefetch(router: Router, path: string): Promise<void> {
  const loads = router
    .resolve(path)
    .matched.flatMap((record) => Object.values(record.components ?? {}))
    .filter((component) => typeof component === 'function' && !fetched.has(component))
  await Promise.all(
    loads.map(async (component) => {
      fetched.add(component)
      try {
        await (component as () => Promise<unknown>)()
      } catch {
        // The link may be down: it is tried again when the link is pointed at next.
        fetched.delete(component)
      }
    }),
  )
}

export function startPrefetch(router: Router): void {
  const look = (event: Event) => {
    const link = event.target instanceof Element ? event.target.closest('a[href^="/"]') : null
    const path = link?.getAttribute('href')
    if (path && !path.startsWith('/api/')) void prefetch(router, path)
  }
  document.addEventListener('pointerover', look, { passive: true })
  document.addEventListener('focusin', look)
}
