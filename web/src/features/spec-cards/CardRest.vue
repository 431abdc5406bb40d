<script setup lang="ts">
import CardBores from './CardBores.vue'
import CardConversion from './CardConversion.vue'
import CardCutting from './CardCutting.vue'
import CardDeck from './CardDeck.vue'
import CardFeatures from './CardFeatures.vue'
import CardFits from './CardFits.vue'
import CardLimits from './CardLimits.vue'
import CardMaterials from './CardMaterials.vue'
import CardMeasuring from './CardMeasuring.vue'
import CardSection from './CardSection.vue'

/** Everything that a card may say beside what it is asked first, part by part. */
defineProps<{ lined: boolean }>()
</script>

<template>
  <div>
    <h2 class="pb-2 text-lg text-ink-soft">All else that the book says</h2>
    <CardSection title="Materials" :paths="['block_material', 'liner_material', 'piston_material']">
      <CardMaterials />
    </CardSection>
    <CardSection title="Limits" :paths="['limits', 'seat']"><CardLimits /></CardSection>
    <CardSection title="Measuring" :paths="['measuring', 'lands', 'acceptance', 'coverage_factor']"
      ><CardMeasuring
    /></CardSection>
    <CardSection title="Shims and cutter" :paths="['shims', 'cutter', 'currency']"
      ><CardCutting
    /></CardSection>
    <CardSection
      title="Deck"
      :paths="['stroke', 'clearance_volume_cm3', 'deck_kept', 'heights', 'obstructions']"
      ><CardDeck
    /></CardSection>
    <CardSection title="Bores" :paths="['bores']"><CardBores /></CardSection>
    <CardSection v-if="lined" title="Fits" :paths="['fits']"><CardFits /></CardSection>
    <CardSection
      v-if="lined"
      title="Conversion: left proud, registers, inserts, rod, fire ring, seals"
      :paths="['conversion']"
      ><CardConversion
    /></CardSection>
    <CardSection title="Measured features" :paths="['features', 'main_bores']"><CardFeatures /></CardSection>
  </div>
</template>
