/** A hole that is bored: loaded for the hole of the address, and again after every change. */
import { computed, type ComputedRef, onBeforeUnmount, type Ref, ref, type ShallowRef, watch } from 'vue'
import { useRoute } from 'vue-router'

import { ask, type Refusal } from '@/api/ask'
import {
  type BoringView,
  type BoredPassBody,
  markOperation,
  readBoring,
  recordBarSetting,
  recordBoringPass,
  type SettingBody,
} from '@/api/generated'
import { newId } from '@/shared/newId'
import type { JobNow } from '@/shared/state/job'
import { onChange, ownChange } from '@/shared/state/link'
import { personId } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'

/** How deep a cut goes a side and what the last one takes on the diameter [µm], how warm both run [°C]. */
export interface Cuts {
  deepest_um: number
  last_um: number
  /** As somebody tries them; as the card says while nobody does. */
  bore_c?: number
  piston_c?: number
}

export interface BoringNow {
  view: ShallowRef<BoringView | null>
  refusal: Ref<Refusal | null>
  hole: ComputedRef<number>
  cuts: Ref<Cuts>
  set: (made: Omit<SettingBody, 'setting_id' | 'person_id'>) => Promise<void>
  make: (made: Omit<BoredPassBody, 'pass_id' | 'person_id'>) => Promise<void>
  /** Somebody looked at probe and zero of the dial again. */
  zeroLooked: () => Promise<void>
}

export function useBoring(job: JobNow): BoringNow {
  const route = useRoute()
  const hole = computed(() => Number(route.params['hole']))
  const cuts = ref<Cuts>({ deepest_um: 200, last_um: 50 })
  const path = () => ({ job_id: job.jobId, hole: hole.value })
  const {
    data: view,
    refusal,
    load,
  } = useLoaded<BoringView>(() => ask(readBoring({ path: path(), query: cuts.value })), hole)
  watch(cuts, () => void load(), { deep: true })
  onBeforeUnmount(onChange((changed) => (changed === null || changed === job.jobId ? load() : undefined)))
  // A pass keeps its id until it is taken: sent again after a lost answer it is the same one.
  let pass = newId()
  let setting = newId()
  return {
    view,
    refusal,
    hole,
    cuts,
    async set(made) {
      await ownChange(job.jobId, async () => {
        const body = { ...made, setting_id: setting, person_id: personId.value }
        await ask(recordBarSetting({ path: path(), body }))
        setting = newId()
      })
      await load()
    },
    async zeroLooked() {
      await ownChange(job.jobId, () =>
        ask(
          markOperation({
            path: { job_id: job.jobId },
            body: {
              operation: 'bore',
              hole: hole.value,
              kind: 'probe and zero looked at',
              person_id: personId.value,
            },
          }),
        ),
      )
      await load()
    },
    async make(made) {
      await ownChange(job.jobId, async () => {
        await ask(
          recordBoringPass({ path: path(), body: { ...made, pass_id: pass, person_id: personId.value } }),
        )
        pass = newId()
      })
      await load()
    },
  }
}
