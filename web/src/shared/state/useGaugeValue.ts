/** What the gauge in hand says now, asked for a few times a second while the bench is open. */
import { useIntervalFn } from '@vueuse/core'
import { computed, type ComputedRef, ref, type Ref, shallowRef, watch } from 'vue'

import { ask } from '@/api/ask'
import { placeTip, readGaugeLink, type TalkingGaugeView, type TipBody } from '@/api/generated'

const ASK_MS = 150
/** A value counts for a spot only when it came this long after the tip got there; it also calms a bouncing pedal. */
const SETTLE_MS = 200
/** Rocks of a bore gauge are looked for this far back. [s] */
const LONGEST_ROCKS_S = 20

export interface GaugeNow {
  gauge: Ref<TalkingGaugeView | null>
  live: ComputedRef<boolean>
  /** What is in the way, empty while the gauge talks. */
  trouble: ComputedRef<string>
}

/** At a job: its parts and places. */
export const useGaugeAt = (gaugeId: () => string | null, tip: () => TipBody | null): GaugeNow =>
  useGaugeValue(gaugeId, tip, (id, body) => ask(placeTip({ path: { gauge_id: id }, body })))

/** ``tip`` says where the gauge is to read now, null where nowhere; a simulated gauge is told of it. */
export function useGaugeValue<T = TipBody>(
  gaugeId: () => string | null,
  tip: () => T | null,
  tellTip: (gaugeId: string, tip: T) => Promise<unknown>,
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
      const since_s = Math.min(LONGEST_ROCKS_S, (performance.now() - thereSince.value - SETTLE_MS) / 1000)
      const query = Number.isFinite(since_s) && since_s > 0 ? { since_s } : {}
      const now = await ask(readGaugeLink({ path: { gauge_id: id }, query }))
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
  const tipKey = computed(() => JSON.stringify([gaugeId(), tip()]))

  /** Only a simulated gauge has to be told where its tip stands; again when its line comes back. */
  watch(
    [simulatedLine, tipKey],
    async ([simulated, key]) => {
      thereSince.value = Infinity
      const id = gaugeId()
      const body = tip()
      if (simulated && id !== null && body !== null) {
        await tellTip(id, body).catch(() => undefined)
      }
      if (key === tipKey.value) thereSince.value = performance.now()
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
