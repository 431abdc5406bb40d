/** What the gauge in hand says now, asked for a few times a second while the bench is open. */
import { useIntervalFn } from '@vueuse/core'
import { computed, type ComputedRef, ref, type Ref, shallowRef, watch } from 'vue'

import { ask } from '@/api/ask'
import { placeTip, type Quantity, readGaugeLink, type TalkingGaugeView } from '@/api/generated'

import type { Spot } from './order'

const ASK_MS = 150
/** A value counts for a spot only when it came this long after the tip got there; it also calms a bouncing pedal. */
const SETTLE_MS = 200

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
  /** When the tip got to the spot, and when the newest value came: by this machine's own clock. [ms] */
  const thereSince = ref(Infinity)
  const valueAt = ref(0)
  let asking = false

  async function look(): Promise<void> {
    const id = gaugeId()
    if (id === null || asking) return
    asking = true
    try {
      const now = await ask(readGaugeLink({ path: { gauge_id: id } }))
      valueAt.value = performance.now() - 1000 * (now?.age_s ?? Infinity)
      gauge.value = now
      reached.value = true
    } catch {
      reached.value = false
    } finally {
      asking = false
    }
  }
  useIntervalFn(() => void look(), ASK_MS, { immediateCallback: true })

  const simulatedLine = computed(() => gauge.value?.simulated === true && gauge.value.state === 'live')
  const spotKey = computed(() => JSON.stringify([gaugeId(), spot(), quantity()]))

  /** Only a simulated gauge has to be told where its tip stands; again when its line comes back. */
  watch(
    [simulatedLine, spotKey],
    async ([simulated, key]) => {
      thereSince.value = Infinity
      const id = gaugeId()
      const now = spot()
      if (simulated && id !== null && now !== null) {
        const body = { job_id: jobId, hole: now.hole, hour: now.hour, quantity: quantity() }
        await ask(placeTip({ path: { gauge_id: id }, body })).catch(() => undefined)
      }
      if (key === spotKey.value) thereSince.value = performance.now()
    },
    { immediate: true },
  )

  const talking = computed(() => reached.value && gauge.value?.state === 'live' && gauge.value.text !== '')
  const live = computed(() => talking.value && valueAt.value > thereSince.value + SETTLE_MS)
  const trouble = computed(() => {
    if (!reached.value) return 'The application cannot be reached.'
    if (gauge.value === null) return 'This gauge has no line: type the reading, or set its line up.'
    if (live.value) return ''
    return (
      gauge.value.message || (talking.value ? 'Waiting for a reading from here.' : 'Waiting for the gauge.')
    )
  })
  return { gauge, live, trouble }
}
