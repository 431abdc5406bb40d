/** A depth gauge on its line, beside the flange: any that talks and is made for depths. */
import { computed, type ComputedRef, onMounted, ref } from 'vue'

import { ask } from '@/api/ask'
import { listGaugeLinks, listGauges } from '@/api/generated'
import { useGaugeAt } from '@/shared/state/useGaugeValue'

export interface DepthGauge {
  name: ComputedRef<string>
  /** What it shows now, as it sent it; empty while it does not talk. */
  text: ComputedRef<string>
  trouble: ComputedRef<string>
}

/** ``toGo`` is where the flange is by the count: a simulated gauge follows it. [m] */
export function useDepthGauge(jobId: string, hole: () => number, toGo: () => number | null): DepthGauge {
  const gaugeId = ref<string | null>(null)
  const name = ref('')
  onMounted(async () => {
    const [gauges, links] = await Promise.all([
      ask(listGauges()).catch(() => []),
      ask(listGaugeLinks()).catch(() => []),
    ])
    const talks = new Set(links.map((one) => one.gauge_id))
    const found = gauges.find((one) => one.kind.includes('depth') && talks.has(one.gauge_id))
    gaugeId.value = found?.gauge_id ?? null
    name.value = found?.name ?? ''
  })
  const { gauge, live, trouble } = useGaugeAt(
    () => gaugeId.value,
    () => {
      const left = toGo()
      if (left === null) return null
      const level_um = String(Math.round(left * 1e6))
      return { job_id: jobId, quantity: 'trial fit', part: `hole-${hole()}`, place: { level_um } }
    },
  )
  return {
    name: computed(() => name.value),
    text: computed(() => (live.value ? (gauge.value?.text ?? '') : '')),
    trouble,
  }
}
