<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'

import { ask } from '@/api/ask'
import {
  addSettingMaster,
  type MasterBody,
  type MaterialView,
  saveSettingMasterVersion,
  type SettingMaster,
} from '@/api/generated'
import { SIZE_WITH } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import DateField from '@/shared/ui/DateField.vue'
import RefusalChoices from '@/shared/ui/RefusalChoices.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

/** A setting master, or its next version: gauges set before keep the one they were set on. */
const props = defineProps<{ master: SettingMaster | null; materials: MaterialView[] }>()
const emit = defineEmits<{ saved: []; leave: [] }>()
const fresh = () => ({
  name: props.master?.name ?? '',
  size: props.master?.typed ?? '',
  expanded: props.master ? `${2 * Number(props.master.standard_um)} µm` : '',
  material: props.master?.material ?? 'steel',
  calibrated_on: props.master?.calibrated_on ?? '',
  due_on: props.master?.due_on ?? '',
  owner: props.master?.owner ?? '',
  note: props.master?.note ?? '',
})
const draft = useLocalStorage(`vallo-master-${props.master?.setting_master_version_id ?? 'new'}`, fresh(), {
  mergeDefaults: true,
})
const { refusal, send, answer } = useForm()
/** Of what expands in a way that is known; a master keeps what it was said to be of. */
const choices = computed(() =>
  [...new Set([draft.value.material, ...props.materials.map((one) => one.name)])].map((name) => ({
    value: name,
    label: name,
  })),
)

const put = (path: string, text: string) => Object.assign(draft.value, { [path]: text })

function save(confirmed = false): Promise<void> {
  return send(async () => {
    const { calibrated_on, due_on, ...rest } = draft.value
    const body: MasterBody = {
      ...rest,
      calibrated_on: calibrated_on || null,
      due_on: due_on || null,
      confirmed,
    }
    const { master } = props
    if (master) {
      const path = { setting_master_id: master.setting_master_id }
      await ask(saveSettingMasterVersion({ path, body: { ...body, based_on_version: master.version } }))
    } else {
      await ask(addSettingMaster({ body }))
    }
    draft.value = fresh()
    emit('saved')
  })
}
</script>

<template>
  <form
    class="grid gap-3"
    :aria-label="master ? `Change ${master.name}` : 'Add a master'"
    @submit.prevent="save()"
  >
    <h2 class="text-lg">{{ master ? `Change ${master.name}` : 'Add a master' }}</h2>
    <RefusalChoices :refusal="refusal" @answer="(one) => answer(one, put, save)" />
    <TextField v-model="draft.name" label="Name on it" path="name" />
    <div class="grid grid-cols-2 gap-3">
      <TextField v-model="draft.size" label="Size at 20 °C" path="size" :bare="SIZE_WITH[unit]" />
      <TextField
        v-model="draft.expanded"
        label="± on its certificate"
        path="expanded"
        hint="k = 2"
        :bare="unit"
      />
      <ChoiceField v-model="draft.material" label="Material" :choices="choices" path="material" />
      <TextField v-model="draft.owner" label="Belongs to" path="owner" hint="empty: the shop" />
      <DateField v-model="draft.calibrated_on" label="Calibrated on" path="calibrated_on" />
      <DateField v-model="draft.due_on" label="Due again on" path="due_on" />
    </div>
    <TextField v-model="draft.note" label="Note" path="note" />
    <div class="flex gap-3">
      <button type="submit" class="act">{{ master ? 'Save as next version' : 'Add the master' }}</button>
      <button v-if="master" type="button" class="quiet" @click="emit('leave')">Leave it as it is</button>
    </div>
  </form>
</template>
