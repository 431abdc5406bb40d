/** A card begun from another one: everything but its name. */
import { ref, type Ref, watch } from 'vue'
import { useRoute } from 'vue-router'

import { ask } from '@/api/ask'
import { readCard } from '@/api/generated'

import { type CardDraft, draftOf } from './cardDraft'

/** Name of the card that was copied, empty while none is. */
export function useCopied(isNew: Ref<boolean>, draft: Ref<CardDraft>): Ref<string> {
  const route = useRoute()
  const copied = ref('')
  watch(
    () => [isNew.value, String(route.query['from'] ?? '')] as const,
    async ([fresh, from]) => {
      copied.value = ''
      if (!fresh || from === '') return
      const card = await ask(readCard({ path: { spec_card_id: from } }))
        .then((answer) => answer.cards[0])
        .catch(() => undefined)
      if (!card) return
      copied.value = card.name
      draft.value = draftOf({ ...card, name: '' }, 0)
    },
    { immediate: true },
  )
  return copied
}
