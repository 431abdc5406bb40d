<script setup lang="ts">
import { computed, onBeforeUnmount } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { ask } from '@/api/ask'
import { type ConversionView, readConversion } from '@/api/generated'
import { lengthText, SIZE_WITH, uncertaintyText } from '@/shared/format/lengths'
import { whenText } from '@/shared/format/time'
import { useJob } from '@/shared/state/job'
import { onChange } from '@/shared/state/link'
import { unit } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'
import HolePicker from '@/shared/ui/HolePicker.vue'
import PhraseText from '@/shared/ui/PhraseText.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'

import ConversionRows from './ConversionRows.vue'
import ConversionSection from './ConversionSection.vue'

/** A block that is converted: what its card wants of every hole, and the cut of the deck that ends it. */
const job = useJob()
const route = useRoute()
const router = useRouter()
const {
  data: view,
  refusal,
  load,
} = useLoaded<ConversionView>(
  () => ask(readConversion({ path: { job_id: job.jobId } })),
  computed(() => job.jobId),
)
onBeforeUnmount(onChange((changed) => (changed === null || changed === job.jobId ? load() : undefined)))
const hole = computed(() => Number(route.params['hole']) || view.value?.holes[0]?.hole || 1)
const chosen = computed(() => view.value?.holes.find((one) => one.hole === hole.value) ?? null)
const go = (to: number) =>
  void router.replace({ params: { ...route.params, hole: String(to) }, query: route.query })
const length = (metres: number) => `${lengthText(metres, unit.value)} ${unit.value}`
const size = (metres: number) => `${lengthText(metres, SIZE_WITH[unit.value])} ${SIZE_WITH[unit.value]}`
const unread = computed(() => {
  const one = chosen.value
  if (!one) return []
  const part = `hole-${one.hole}`
  const links = []
  if (one.register_line && !one.register_line.rule)
    links.push({ label: 'Sweep the register', quantity: 'register-line', part })
  if (one.insert && !one.insert.levels.length)
    links.push(
      { label: 'Read the pocket', quantity: 'deck-insert-pocket', part },
      { label: 'Read the insert', quantity: 'deck-insert-outside', part },
    )
  return links
})
</script>

<template>
  <main class="grid w-full grid-cols-[minmax(0,1fr)] content-start px-5 py-2">
    <RefusalNote v-if="!view" :refusal="refusal" />
    <p v-if="!view && refusal" class="mt-3">
      <RouterLink class="link" :to="{ name: 'job-card' }">The card</RouterLink>
    </p>
    <p v-if="!view && !refusal" class="py-6 text-ink-soft" aria-busy="true">
      The conversion is being loaded.
    </p>
    <template v-if="view && chosen">
      <header class="flex flex-wrap items-center gap-x-4 gap-y-1">
        <RouterLink class="link" :to="{ name: 'fit', params: { hole: String(hole) } }">Fit</RouterLink>
        <h1 class="text-xl">
          The conversion, hole {{ hole
          }}<template v-if="chosen.liner"> and liner {{ chosen.liner }}</template>
        </h1>
        <HolePicker :holes="view.holes.map((one) => one.hole)" :chosen="hole" @choose="go" />
        <p class="ml-auto text-sm text-ink-soft">lengths in {{ unit }}, drawn not to scale</p>
      </header>
      <p
        v-for="said in view.decking?.says ?? []"
        :key="said.text"
        class="mt-1 text-[1.35rem] leading-snug first-of-type:font-bold"
      >
        <PhraseText :phrase="said" />
      </p>
      <div class="mt-2 grid items-start gap-x-6 gap-y-3 lg:grid-cols-[minmax(0,1fr)_22rem]">
        <div class="grid min-w-0 gap-2">
          <div class="relative overflow-x-auto" tabindex="0" role="region" aria-label="The section">
            <ConversionSection class="sm:min-w-[44rem]" :one="chosen" :decking="view.decking" />
          </div>
          <ConversionRows :view="view" :chosen="hole" @choose="go" />
        </div>
        <div class="grid gap-3">
          <section class="rounded bg-plate p-4 text-plate-text" aria-label="In this order">
            <h2 class="text-sm text-plate-soft">In this order</h2>
            <ol class="mt-1 grid list-decimal gap-1 pl-5">
              <li v-for="line in view.order" :key="line.text"><PhraseText :phrase="line" /></li>
            </ol>
            <p v-if="unread.length" class="mt-3 flex flex-wrap gap-3">
              <RouterLink
                v-for="link in unread"
                :key="link.quantity"
                class="act inline-flex items-center"
                :to="{ name: 'survey', params: { quantity: link.quantity, part: link.part } }"
                >{{ link.label }}</RouterLink
              >
            </p>
          </section>
          <section v-if="chosen.register_line" class="text-sm" aria-label="Registers">
            <h2 class="text-base font-bold">Registers</h2>
            <p><PhraseText :phrase="chosen.register_line.says" /></p>
            <p v-if="chosen.register_line.bent_most && chosen.register_line.bent_most.off_m > 0">
              Side force up to {{ (chosen.register_line.bent_most.force_n / 1000).toFixed(1) }} kN<template
                v-if="chosen.register_line.strength_pa"
                >,
                {{
                  Math.round(
                    (chosen.register_line.bent_most.stress_pa / chosen.register_line.strength_pa) * 100,
                  )
                }}
                % of what the liner bears</template
              >.
            </p>
            <p v-if="chosen.register_line.after">
              Pressed in, its bore is {{ length(chosen.register_line.after.value_m) }} ±{{
                uncertaintyText(chosen.register_line.after.expanded_m, unit)
              }}
              out of round.
            </p>
            <p v-else-if="chosen.is_home" class="text-unsure">
              Read its bore: nobody has seen yet what the pressing did.
            </p>
          </section>
          <section v-if="chosen.insert" class="text-sm" aria-label="Deck insert">
            <h2 class="text-base font-bold">Deck insert</h2>
            <p>
              <PhraseText :phrase="chosen.insert.says" /><template v-if="chosen.insert.pressure_pa !== null"
                >: {{ (chosen.insert.pressure_pa / 1e6).toFixed(1) }} MPa, the block pulled
                {{ ((chosen.insert.hoop_block_pa ?? 0) / 1e6).toFixed(0) }} MPa, its inside
                {{ length(chosen.insert.closes_in_m ?? 0) }} smaller. It goes in before the liner.</template
              >
            </p>
          </section>
          <section v-if="chosen.ring?.missing" class="text-sm" aria-label="Fire ring">
            <h2 class="text-base font-bold">Fire ring</h2>
            <p><PhraseText :phrase="chosen.ring.missing" /></p>
          </section>
          <section v-if="chosen.relief" class="text-sm" aria-label="Rod">
            <h2 class="text-base font-bold">Rod</h2>
            <p v-if="chosen.relief.missing"><PhraseText :phrase="chosen.relief.missing" /></p>
            <p v-else-if="chosen.relief.towards && chosen.relief.away">
              At the foot it comes {{ size(chosen.relief.towards.reach_m) }} from the middle towards the
              offset side, {{ size(chosen.relief.away.reach_m) }} to the other. Turn the crank by hand with
              the rod in before anything runs.
            </p>
          </section>
          <section v-if="chosen.compound" class="text-sm" aria-label="Compound">
            <h2 class="text-base font-bold">Compound</h2>
            <p>
              <PhraseText :phrase="chosen.compound.says" /><template v-if="chosen.compound.fills_m3">
                : {{ (chosen.compound.fills_m3 * 1e6).toFixed(2) }} ml</template
              >. On the liner above its seat, never in the hole; no flame, gloves, air.
            </p>
            <p v-if="chosen.compound.cures_until">Cures until {{ whenText(chosen.compound.cures_until) }}.</p>
          </section>
          <section v-if="view.studs" class="text-sm" aria-label="Studs">
            <h2 class="text-base font-bold">Studs</h2>
            <p v-if="view.studs.missing"><PhraseText :phrase="view.studs.missing" /></p>
            <p v-else>
              Tight, each is {{ length(view.studs.stretch_m ?? 0) }} longer at
              {{ ((view.studs.stress_pa ?? 0) / 1e6).toFixed(0) }} MPa, and loses
              {{ ((view.studs.lost_n ?? 0) / 1000).toFixed(1) }} kN for every
              {{ length(view.studs.settles_m) }} that the stack settles.
              <template v-if="view.studs.in_block_m !== null">
                <span
                  :class="
                    view.studs.least_in_block_m !== null &&
                    view.studs.in_block_m < view.studs.least_in_block_m &&
                    'font-bold text-out'
                  "
                  >{{ size(view.studs.in_block_m) }} of thread is left for the block</span
                ><template v-if="view.studs.least_in_block_m !== null"
                  >, least {{ size(view.studs.least_in_block_m) }}</template
                >.</template
              >
            </p>
          </section>
        </div>
      </div>
      <p class="mt-3 flex flex-wrap gap-x-5 text-sm text-ink-soft">
        <RouterLink class="link" :to="{ name: 'job-card' }"
          >The card: every figure with its source</RouterLink
        >
        <span
          >Registers held square is the worst case; a stack is planned here, torque and order are the
          maker’s.</span
        >
      </p>
    </template>
  </main>
</template>
