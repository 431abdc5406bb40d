/** Where one is, told to whoever does not see it: the title of the page, and focus on what opened. */
import { nextTick } from 'vue'
import type { RouteLocationNormalized, Router } from 'vue-router'

const PRODUCT = 'Vallostasis'
/** Views whose address does not say in words what they are. */
const NAMES: Record<string, string> = {
  home: 'Block',
  grid: 'All holes at once',
  'take-in': 'Take an engine in',
  'bring-in': 'Bring a job in',
  'job-card': 'Card of the job',
  'heat-run': 'Drop',
  'cut-run': 'Cutting',
  'shop-time': 'Hours of the shop',
  nowhere: 'Nothing here',
}

const inWords = (name: string) => {
  const words = NAMES[name] ?? name.replaceAll('-', ' ')
  return words.charAt(0).toUpperCase() + words.slice(1)
}

/** What a page is called: view, hole, job. */
export function titleOf(to: Pick<RouteLocationNormalized, 'name' | 'params'>, job = ''): string {
  const { lens, hole, quantity, part } = to.params
  const what = [lens, quantity].find((one) => typeof one === 'string' && one !== '')
  const view = inWords(String(what ?? to.name ?? ''))
  const where = hole ? `hole ${String(hole)}` : String(part ?? '').replace('-', ' ')
  return [[view, where].filter(Boolean).join(', '), job, PRODUCT].filter(Boolean).join(' · ')
}

const isField = (one: Element | null) =>
  one !== null && one.matches('input, select, textarea, [contenteditable]')

/** Focus goes to the heading of a view that opened, unless somebody types or the view put it elsewhere. */
export function focusOnOpened(): void {
  const main = document.querySelector('main')
  const now = document.activeElement
  if (!main || isField(now) || (now !== null && now !== document.body && main.contains(now))) return
  const heading = main.querySelector<HTMLElement>('h1') ?? main
  heading.tabIndex = -1
  heading.focus({ preventScroll: true })
}

/** Another view is told by its title and gets the focus; the next hole of the same view does not take it away. */
export function tellWhere(router: Router): void {
  router.afterEach(async (to, from) => {
    document.title = titleOf(to, from.params['job'] === to.params['job'] ? jobNow : '')
    if (from.name === undefined || from.name === to.name) return
    await nextTick()
    requestAnimationFrame(focusOnOpened)
  })
}

let jobNow = ''
/** The name of the job that is open, once it is known. */
export function nameJob(name: string, at: Pick<RouteLocationNormalized, 'name' | 'params'>): void {
  jobNow = name
  document.title = titleOf(at, name)
}
