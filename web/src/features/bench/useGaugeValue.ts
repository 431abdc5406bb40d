/** What the gauge in hand says now, asked for a few times a second while the bench is open. */
import { useIntervalFn } from '@vueuse/core'
import { computed, type ComputedRef, ref, type Ref, shallowRef, watch } from 'vue'

import { ask } from '@/api/ask'
import { placeTip, type Quantity, readGaugeLink, type TalkingGaugeView } from '@/api/generated'

import type { Spot } from './order'

const ASK_MS = 150

export interface GaugeNow {
  gauge: Ref<TalkingGaugeView | null>
  live: ComputedRef<boolean>
  /** What is in the way, empty while the gauge talks. */
  trouble: ComputedRef<string>
}

export function useGaugeValue(
  jobId: string,
  gaugeId: () => string | null,
  spot: () => Spot | null,
  quantity: () => Quantity,
): GaugeNow {
  const gauge = shallowRef<TalkingGaugeView | null>(null)
  const reached = ref(true)
  let asking = false

  async function look(): Promise<void> {
    const id = gaugeId()
    if (id === null || asking) return
    asking = true
    try {
      gauge.value = await ask(readGaugeLink({ path: { gauge_id: id } }))
      reached.value = true
    } catch {
      reached.value = false
    } finally {
      asking = false
    }
  }
  useIntervalFn(() => void look(), ASK_MS, { immediateCallback: true })

  /** Only a simulated gauge has to be told where its tip stands; again when its line comes back. */
  watch(
    () => [gauge.value?.simulated && gauge.value.state === 'live', gaugeId(), spot(), quantity()] as const,
    ([simulated, id, now, what]) => {
      if (!simulated || id === null || now === null) return
      const body = { job_id: jobId, hole: now.hole, hour: now.hour, quantity: what }
      void ask(placeTip({ path: { gauge_id: id }, body })).catch(() => undefined)
    },
    { deep: true },
  )

  const live = computed(() => reached.value && gauge.value?.state === 'live' && gauge.value.text !== '')
  const trouble = computed(() => {
    if (!reached.value) return 'The application cannot be reached.'
    if (gauge.value === null) return 'This gauge has no line: type the reading, or set its line up.'
    return live.value ? '' : gauge.value.message || 'Waiting for the gauge.'
  })
  return { gauge, live, trouble }
}
