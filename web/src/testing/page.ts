/** A component as it stands in a page: with a router, inside a job where it asks for one. */
import { mount, type VueWrapper } from '@vue/test-utils'
import { type Component, shallowRef, ref } from 'vue'
import { createMemoryHistory, createRouter, type Router } from 'vue-router'

import type { BlockView } from '@/api/generated'
import { JOB, type JobNow } from '@/shared/state/job'
import { UNDO } from '@/shared/state/useUndo'

import { settled } from './server'

export interface Page {
  view: VueWrapper
  router: Router
  reloaded: () => number
}

const Nothing = { template: '<p></p>', render: () => null }
/** Every address a link may name: what is tested is where it goes, not what is there. */
const NAMES = [
  'home',
  'block',
  'bench',
  'cut',
  'measure',
  'grid',
  'labels',
  'survey',
  'liners',
  'proof',
  'route',
  'prepare',
  'cut-plan',
  'cut-run',
  'honing',
  'pistons',
  'plate',
  'mains',
  'deck',
  'fit',
  'heat',
  'heat-run',
  'matching',
  'swaps',
  'adds-up',
  'options',
  'time',
  'money',
  'bill',
  'parts',
  'job-card',
  'strip-record',
]
const SHOP = [
  'shop',
  'cabinet',
  'shelf',
  'cutters',
  'press-tools',
  'fixtures',
  'prices',
  'shop-time',
  'learned',
  'reckon',
  'calendar',
  'lands',
  'cases',
  'known-causes',
  'studies',
  'schools',
  'record',
  'practice',
  'exercise',
]

/** An undo that has nothing to take back. */
const undoOf = () => ({
  next: ref(null),
  underWay: ref(false),
  asking: ref(null),
  said: ref(''),
  refusal: ref(null),
  standAt: () => undefined,
  did: () => undefined,
  took: () => undefined,
  inTurn: <T>(work: () => Promise<T>) => work(),
  undo: () => Promise.resolve(false),
  setStruck: () => Promise.resolve(true),
})

export async function mountPage(
  component: Component,
  props: object,
  block: Partial<BlockView> | null = null,
  address = '/jobs/j/here',
): Promise<Page> {
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [
      ...NAMES.map((name) => ({
        name,
        path: `/jobs/:job/${name}/:lens?/:hole?/:quantity?/:part?`,
        component: Nothing,
      })),
      ...SHOP.map((name) => ({ name, path: `/shop/${name}`, component: Nothing })),
      { path: '/:rest(.*)*', component: Nothing },
    ],
  })
  await router.push(address)
  let reloads = 0
  const job = {
    jobId: 'j',
    block: shallowRef(block),
    seenAt: ref(null),
    refusal: ref(null),
    reload: () => {
      reloads++
      return Promise.resolve()
    },
  } as unknown as JobNow
  const view = mount(component, {
    props,
    global: { plugins: [router], provide: { [JOB as symbol]: job, [UNDO as symbol]: undoOf() } },
    attachTo: document.body,
  })
  await settled()
  return { view: view as unknown as VueWrapper, router, reloaded: () => reloads }
}
