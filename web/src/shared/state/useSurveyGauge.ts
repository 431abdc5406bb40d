/** What the gauge in hand says of the place at hand: its value, or the turning point of its rocks. */
import { computed, type ComputedRef } from 'vue'

import { exactSmall, lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { whenText } from '@/shared/format/time'
import { zeroWords } from '@/shared/format/zero'
import { unit } from '@/shared/state/preferences'
import { useGaugeAt } from '@/shared/state/useGaugeValue'

import type { SurveyBench } from './useSurvey'

export interface SurveyGauge {
  /** What can be taken now: the text to keep, and its value [m]. */
  said: ComputedRef<{ text: string; value: number } | null>
  digits: ComputedRef<string>
  shownUnit: ComputedRef<string>
  /** What is in the way, or how it is read. */
  words: ComputedRef<string>
  inTheWay: ComputedRef<boolean>
  /** The size the tip stands at, for the drawing. [m] */
  tip: ComputedRef<number | null>
}

export function useSurveyGauge(jobId: string, bench: SurveyBench): SurveyGauge {
  const { survey, here, deviates } = bench
  const setup = computed(() => survey.value?.setup ?? null)
  const { gauge, live, trouble } = useGaugeAt(
    () => setup.value?.gauge.gauge_id ?? null,
    () =>
      here.value && {
        job_id: jobId,
        quantity: bench.quantity.value,
        part: bench.partKey.value,
        place: here.value.place,
      },
  )
  /** A rocked gauge gives its turning points; until there is one, nothing can be taken. */
  const isRocked = computed(() => survey.value?.gauge_is_rocked === true && gauge.value !== null)
  const said = computed(() => {
    if (!live.value || !gauge.value) return null
    if (!isRocked.value) return { text: gauge.value.text, value: gauge.value.value_m ?? 0 }
    const { rocked } = gauge.value
    return rocked ? { text: rocked.text, value: rocked.value_m } : null
  })
  const isSmall = computed(() => deviates.value || !survey.value?.is_size)
  const digits = computed(() => {
    const value = said.value?.value ?? (live.value && isRocked.value ? gauge.value?.value_m : null)
    if (value == null) return '– – –'
    if (isSmall.value) return exactSmall(value, unit.value, { signed: true })
    return lengthText(value, SIZE_WITH[unit.value])
  })
  const rocks = computed(() => {
    if (!isRocked.value || !live.value) return ''
    const rocked = gauge.value?.rocked
    if (!rocked) return 'Rock it: the size is where it turns.'
    if (rocked.rocks === 1) return 'Turning point of one rock.'
    const apart = lengthText(rocked.spread_m, unit.value, { digits: 1 })
    return `Turning point of ${rocked.rocks} rocks, ${apart} ${unit.value} apart.`
  })
  const circumstances = computed(() => {
    const now = setup.value
    if (!now) return ''
    const at = whenText(now.chosen_at)
    const on = now.master ? `set on ${now.master} at ${at}` : zeroWords(now)
    return [now.gauge.name, on, now.method, now.load].filter(Boolean).join(' · ')
  })
  const inTheWay = computed(() => {
    const now = survey.value
    return now && !now.setup ? `No gauge is chosen for the ${now.quantity} yet.` : trouble.value
  })
  const words = computed(() => inTheWay.value || [rocks.value, circumstances.value].filter(Boolean).join(' '))
  const tip = computed(() => {
    if (!said.value) return null
    return deviates.value ? said.value.value + (setup.value?.zero_m ?? 0) : said.value.value
  })
  return {
    said,
    digits,
    shownUnit: computed(() => (isSmall.value ? unit.value : SIZE_WITH[unit.value])),
    words,
    inTheWay: computed(() => inTheWay.value !== ''),
    tip,
  }
}
