/** A file of readings: looked at as soon as it is chosen, taken when its rows are as wanted. */
import { computed, type ComputedRef, ref, type Ref, watch } from 'vue'

import { ask } from '@/api/ask'
import {
  type ImportedReadings,
  type ImportedRow,
  importReadings,
  type Quantity,
  type Take,
} from '@/api/generated'
import { bareUnit } from '@/shared/format/bareUnit'
import { newId } from '@/shared/newId'
import type { JobNow } from '@/shared/state/job'
import { personId, unit } from '@/shared/state/preferences'
import { type Stoppable, useStoppable } from '@/shared/state/useStoppable'
import type { Form } from '@/shared/ui/useForm'

export interface ReadingsFile {
  name: Ref<string>
  quantity: Ref<Quantity>
  asWritten: Ref<boolean>
  report: Ref<ImportedReadings | null>
  waiting: Stoppable
  /** How many were recorded, null before. */
  taken: Ref<number | null>
  good: ComputedRef<ImportedRow[]>
  bad: ComputedRef<ImportedRow[]>
  here: ComputedRef<ImportedRow[]>
  choose: (file: File) => Promise<void>
  take: (how: Take) => Promise<void>
}

export function useReadingsFile(job: JobNow, form: Form): ReadingsFile {
  let file: File | null = null
  /** One for each file chosen, so that sending it again doubles nothing. */
  let importId = ''
  const name = ref('')
  const quantity = ref<Quantity>('protrusion')
  const asWritten = ref(false)
  const report = ref<ImportedReadings | null>(null)
  const taken = ref<number | null>(null)

  const waiting = useStoppable()

  async function send(how: Take): Promise<ImportedReadings | null> {
    if (file === null) throw new Error('no file is chosen')
    const body = {
      file,
      import_id: importId,
      person_id: personId.value,
      take: how,
      quantity: quantity.value,
      small_unit: bareUnit('protrusion', unit.value),
      size_unit: bareUnit('counterbore depth', unit.value),
      as_written: asWritten.value,
    }
    return waiting.run((signal) => ask(importReadings({ path: { job_id: job.jobId }, body, signal })))
  }

  function look(): Promise<void> {
    return form.send(async () => {
      report.value = null
      report.value = await send('only check')
    })
  }

  async function choose(chosen: File): Promise<void> {
    file = chosen
    name.value = chosen.name
    importId = newId()
    taken.value = null
    await look()
  }

  function take(how: Take): Promise<void> {
    return form.send(async () => {
      const done = await send(how)
      if (done === null) return
      report.value = done
      taken.value = done.taken
      await job.reload()
    })
  }

  watch([quantity, asWritten, unit], () => {
    if (file !== null && taken.value === null) void look()
  })

  const rowsThatAre = (verdict: ImportedRow['verdict']) =>
    computed(() => (report.value?.rows ?? []).filter((row) => row.verdict === verdict))
  return {
    name,
    quantity,
    asWritten,
    report,
    waiting,
    taken,
    good: rowsThatAre('good'),
    bad: rowsThatAre('bad'),
    here: rowsThatAre('here already'),
    choose,
    take,
  }
}
