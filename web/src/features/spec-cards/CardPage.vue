<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed, nextTick, provide, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { ask, asRefusal, Refusal } from '@/api/ask'
import { addCard, type CardWithVersions, listAskedFirst, readCard, saveVersion } from '@/api/generated'
import { whenText } from '@/shared/format/time'
import { personId } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'
import { PROBLEMS, problemsOf } from '@/shared/ui/problems'
import RefusalChoices from '@/shared/ui/RefusalChoices.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'

import CardAsked from './CardAsked.vue'
import { ASKED, CARD, type CardDraft, cardOf, draftOf, emptyCard } from './cardDraft'
import CardEngine from './CardEngine.vue'
import CardRest from './CardRest.vue'
import { useCopied } from './useCopied'
import StaleChoice from './StaleChoice.vue'

/** One spec card: edited here, kept in this browser until saved, saved as a new version. */
const route = useRoute()
const router = useRouter()
const id = computed(() => String(route.params['card']))
const isNew = computed(() => id.value === 'new')
const {
  data: versions,
  refusal: notLoaded,
  load,
} = useLoaded<CardWithVersions | null>(
  () => (isNew.value ? Promise.resolve(null) : ask(readCard({ path: { spec_card_id: id.value } }))),
  id,
)
const refusal = ref<Refusal | null>(null)
const saved = ref('')
const form = ref<HTMLFormElement | null>(null)
/** Whether all that is wrong stands at fields. */
const isShown = ref(false)
const draft = useLocalStorage<CardDraft>(`vallo-card-${id.value}`, draftOf(emptyCard(), 0), {
  mergeDefaults: true,
})
provide(CARD, draft)
provide(
  PROBLEMS,
  computed(() => problemsOf(refusal.value, 'card.')),
)

const { data: askedOf } = useLoaded(() => ask(listAskedFirst()))
const asked = computed(() => askedOf.value?.[draft.value.card.construction] ?? [])
provide(
  ASKED,
  computed(() => new Set(asked.value.map((one) => one.path))),
)
const copied = useCopied(isNew, draft)

const isLined = computed(() => !['parent bore', 'coated bore'].includes(draft.value.card.construction))
const newest = computed(() => versions.value?.versions[0])
/** What is typed into a card before it has come would be lost when it comes. */
const ready = computed(() => isNew.value || versions.value !== null || draft.value.basedOn > 0)
const changed = computed(() => {
  const base = versions.value?.cards[0] ?? emptyCard()
  return JSON.stringify(strip(cardOf(draft.value))) !== JSON.stringify(strip(base))
})

/** Exact values follow from the text; only the text counts as a change. */
function strip(value: unknown): unknown {
  return JSON.parse(JSON.stringify(value, (key, one: unknown) => (key === 'um' ? undefined : one)))
}

/** What was typed stays; a card that nobody changed here, or that is opened for the first time, comes as it is. */
watch(versions, (answer) => {
  const card = answer?.cards[0]
  const version = answer?.versions[0]?.version ?? 0
  if (card && (draft.value.basedOn === 0 || !changed.value)) draft.value = draftOf(card, version)
})
watch(notLoaded, (why) => {
  if (why) refusal.value = why
})

async function save(confirmed = false): Promise<void> {
  saved.value = ''
  const body = {
    card: cardOf(draft.value),
    based_on_version: draft.value.basedOn,
    confirmed,
    person_id: personId.value,
  }
  try {
    if (isNew.value) {
      const made = await ask(addCard({ body }))
      draft.value = draftOf(emptyCard(), 0)
      if (route.query['then'] === 'take-in')
        return void router.replace({ name: 'take-in', query: { card: made.spec_card_id } })
      return void router
        .replace({ name: 'card', params: { card: made.spec_card_id } })
        .then(() => router.go(0))
    }
    await ask(saveVersion({ path: { spec_card_id: id.value }, body }))
    refusal.value = null
    draft.value = { ...draft.value, basedOn: 0 }
    await load()
    saved.value = `Saved as version ${newest.value?.version ?? ''}. Jobs keep the version they are judged by until it is changed there.`
  } catch (error) {
    refusal.value = asRefusal(error)
    await goToWrongField()
    if (refusal.value.code === 'stale') await load()
  }
}

/** The form is long: the first field to put right comes into sight, and what is wrong stands below it. */
async function goToWrongField(): Promise<void> {
  await nextTick()
  const fields = form.value?.querySelectorAll<HTMLElement>('[aria-invalid="true"]') ?? []
  isShown.value = fields.length > 0 && fields.length >= (refusal.value?.problems.length ?? 0)
  fields[0]?.scrollIntoView({ block: 'center' })
  fields[0]?.focus({ preventScroll: true })
}
const toSay = computed(() => {
  const now = refusal.value
  if (!now || !isShown.value) return now
  const count = now.problems.length
  const words = count === 1 ? 'One field is to be put right.' : `${count} fields are to be put right.`
  return new Refusal(now.code, words)
})

function saveOnTop(): void {
  draft.value.basedOn = newest.value?.version ?? 0
  void save()
}

function takeTheirs(): void {
  const card = versions.value?.cards[0]
  if (card) draft.value = draftOf(card, newest.value?.version ?? 0)
  refusal.value = null
}
</script>

<template>
  <main class="mx-auto w-full max-w-4xl px-5 py-4">
    <div class="flex flex-wrap items-baseline gap-x-5">
      <RouterLink to="/cards" class="link text-sm">Spec cards</RouterLink>
      <h1 class="text-xl">{{ isNew ? 'A new spec card' : draft.card.name }}</h1>
      <p v-if="newest" class="text-sm text-ink-soft">
        version {{ newest.version }}, saved by {{ newest.saved_by }} {{ whenText(newest.saved_at) }}
      </p>
      <RouterLink
        v-if="!isNew"
        class="link text-sm"
        :to="{ name: 'card', params: { card: 'new' }, query: { from: id } }"
        >Copy it for another engine</RouterLink
      >
      <p v-if="copied" class="text-sm text-ink-soft">copied from {{ copied }}: give it a name of its own</p>
      <p v-if="changed && !isNew" class="text-sm text-unsure">changed here, not saved</p>
    </div>
    <RefusalNote v-if="!ready" :refusal="refusal" />
    <p v-if="!ready && !refusal" class="py-4 text-ink-soft">Loading the card …</p>
    <form v-if="ready" ref="form" class="mt-3 grid gap-6 pb-24" @submit.prevent="save()">
      <CardEngine />
      <CardAsked :asked="asked" />
      <CardRest :lined="isLined" />
      <div
        v-if="refusal?.code === 'stale' && versions?.cards[0]"
        class="sticky bottom-0 max-h-[80vh] overflow-y-auto border-t-2 border-ink bg-paper py-3"
      >
        <StaleChoice
          :message="refusal.message"
          :theirs="versions.cards[0]"
          :mine="cardOf(draft)"
          @mine="saveOnTop"
          @theirs="takeTheirs"
        />
      </div>
      <div v-else class="sticky bottom-0 flex items-center gap-4 border-t-2 border-ink bg-paper py-3">
        <button type="submit" class="act">{{ isNew ? 'Save the card' : 'Save as next version' }}</button>
        <button v-if="changed && versions && !isNew" type="button" class="quiet" @click="takeTheirs">
          Drop my changes
        </button>
        <RefusalChoices v-if="refusal?.code === 'asks'" :refusal="refusal" @answer="save(true)" />
        <RefusalNote v-else-if="refusal" :refusal="toSay" />
        <p v-else-if="saved && !changed" role="status" class="border-l-4 border-in py-1 pl-3">{{ saved }}</p>
        <span v-else class="text-sm text-ink-soft">An empty limit means that the card sets none.</span>
      </div>
    </form>
  </main>
</template>
