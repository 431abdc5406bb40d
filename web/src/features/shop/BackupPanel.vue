<script setup lang="ts">
import { computed } from 'vue'

import { ask } from '@/api/ask'
import { readBackups } from '@/api/generated'
import { whenText } from '@/shared/format/time'
import { useLoaded } from '@/shared/state/useLoaded'
import RefusalNote from '@/shared/ui/RefusalNote.vue'

/** How old the newest backup is, where backups go, and what is wrong with them. */
const { data: backups, refusal } = useLoaded(() => ask(readBackups()))
const gigabytes = (bytes: number) => `${(bytes / 1e9).toFixed(bytes < 1e10 ? 1 : 0)} GB`
const megabytes = (bytes: number) => `${(bytes / 1e6).toFixed(1)} MB`
const every = computed(() => {
  const hours = backups.value?.every_h ?? 24
  return hours === 24 ? 'every day' : `every ${hours} h`
})
</script>

<template>
  <section aria-label="Backups">
    <h2 class="text-xl">Backups</h2>
    <RefusalNote :refusal="refusal" />
    <template v-if="backups">
      <p v-for="one in backups.warnings" :key="one" class="font-bold text-unsure">{{ one }}</p>
      <p v-if="backups.newest_at">
        Newest <b class="num">{{ whenText(backups.newest_at) }}</b>, {{ megabytes(backups.newest_bytes) }};
        {{ backups.count }} kept, {{ every }} while it runs
      </p>
      <p v-else>Written {{ every }} while it runs, the first a minute after the start.</p>
      <p class="text-sm text-ink-soft">
        In <span class="break-all">{{ backups.folder }}</span>, {{ gigabytes(backups.free_bytes) }} of room
        left. Copy them to another machine: a disk that dies takes its backups with it.
        <code>./vallo restore FILE</code> brings one back into an empty folder.
      </p>
    </template>
  </section>
</template>
